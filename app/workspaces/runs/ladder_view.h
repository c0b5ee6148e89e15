// The size ladder of one run: a rung for each size, thinnest at the top, each against every limit. A click on
// a rung takes that size.
#pragma once

#include <QWidget>

#include "document/document.h"
#include "size/run_ladder.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

class LadderView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit LadderView(Document* document, QWidget* parent = nullptr);
    // Empty: no run is shown, with this sentence instead.
    void show_ladder(const Id& run, std::optional<RunLadder> ladder, const QString& otherwise);
    [[nodiscard]] const std::optional<RunLadder>& ladder() const { return ladder_; }
    [[nodiscard]] const Id& run() const { return run_; }
    [[nodiscard]] QRectF rung_rect(std::size_t row) const;
    // What decides, and what a size more or less would do.
    [[nodiscard]] QString verdict() const;
    // The text of one cell, for tooltips, tests and readers.
    enum Column { size, carries, drop, heat, fuse, fault, fits, copper, columns };
    [[nodiscard]] QString cell_text(std::size_t row, Column column) const;

    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  signals:
    void size_asked(const WireSize& size);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    struct Cell {
        QString text;
        double share = -1;  // of its limit; below 0: no bar
        bool good = true;
    };
    [[nodiscard]] Cell cell(std::size_t row, Column column) const;
    [[nodiscard]] QRectF column_rect(int column) const;
    void draw_cell(QPainter& p, const QRectF& where, const Cell& c) const;
    [[nodiscard]] QString drops_text(const RunSizeRow& row) const;

    Document* document_;
    Id run_;
    std::optional<RunLadder> ladder_;
    QString otherwise_;
};

}  // namespace yr::app
