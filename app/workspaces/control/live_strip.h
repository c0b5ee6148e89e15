// For each load and key position alive or dead: as it should be, or not.
#pragma once

#include <QWidget>

#include "control/live_table.h"
#include "document/document.h"

namespace yr::app {

class LiveStrip : public QWidget {
    Q_OBJECT

  public:
    explicit LiveStrip(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] const std::vector<LiveRow>& rows() const { return rows_; }
    [[nodiscard]] QRectF cell_rect(std::size_t row, std::size_t position) const;
    // "alive", "dead", "dead, should run", "alive, should be dead", "alive with its switch off".
    [[nodiscard]] static QString cell_text(const LiveCell& cell);

  protected:
    void paintEvent(QPaintEvent*) override;
    void showEvent(QShowEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    void refresh();
    void refresh_when_seen();
    bool stale_ = false;
    [[nodiscard]] int row_at(double y) const;
    Document* document_;
    std::vector<LiveRow> rows_;
};

}  // namespace yr::app
