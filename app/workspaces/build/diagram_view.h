// The circuit diagram on the screen, sheet by sheet: a click chooses what was hit everywhere, what is chosen
// is drawn strong. The same strokes go on paper (paint_sheet).
#pragma once

#include <QPainter>
#include <QWidget>

#include "diagram/sheets.h"
#include "document/document.h"
#include "document/job.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

// In pixels of `into`, as large as it goes. What belongs to `chosen` is drawn in `strong`.
void paint_sheet(QPainter& painter, const Diagram& diagram, std::size_t sheet, const QRectF& into,
                 const QColor& ink, const Id& chosen = {}, const QColor& strong = {});

class DiagramView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit DiagramView(Document* document, QWidget* parent = nullptr);
    void refresh();
    void finish();
    [[nodiscard]] const Diagram* diagram() const;
    [[nodiscard]] std::size_t sheet() const { return sheet_; }
    void show_sheet(std::size_t sheet);
    // Where a thing's first stroke is on the screen; nothing on this sheet: an empty point.
    [[nodiscard]] QPointF where_is(const Id& id) const;
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  signals:
    void sheets_changed();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    [[nodiscard]] QRectF paper() const;  // the sheet on the screen
    void zoom(double factor, const QPointF& about);
    void fit();
    void choose_at(const QPointF& point);
    // Run of a device, or the thing itself.
    [[nodiscard]] Id chosen_of(const Id& id) const;

    Document* document_;
    std::size_t sheet_ = 0;
    double px_per_mm_ = 0;  // 0: to be fitted
    QPointF origin_;        // of the sheet on the screen, px
    QPointF pressed_, pressed_origin_;
    bool dragged_ = false;
    Job<Result<Diagram>> job_;
};

}  // namespace yr::app
