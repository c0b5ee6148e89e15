// The rail chart on the screen: shows a circuit, and where it belongs to a document is worked on directly.
// Hover tells, a click selects, the wheel and + / - step a cable's size, dragging a load onto a feed or a
// box, bus, charger, inverter onto another supply moves it, double click or Enter looks into a feed, Escape
// comes back, F1 says why.
#pragma once

#include <QVariantAnimation>
#include <QWidget>
#include <optional>

#include "document/document.h"
#include "railchart/rail_scene.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

class RailChart : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    // Shows and answers, but changes nothing.
    explicit RailChart(ShownCircuit* circuit, QWidget* parent = nullptr);
    // The same for the circuit of a document, and its sizes, feeds and selection are changed.
    explicit RailChart(Document* document, QWidget* parent = nullptr);

    [[nodiscard]] const RailScene& scene() const { return scene_; }
    [[nodiscard]] const SceneWindow& window_A() const { return window_; }
    // Looks into the stretch of amps that this item covers; pieces of its run together.
    void look_into(const SceneItem& item);
    void look_at_all();
    void set_animated(bool on) { animated_ = on; }
    void set_scale(const SceneScale& scale);
    void set_hover(const QPointF& point);  // for pictures and tests; the mouse does the same
    // The values that F1 explains for the thing under the mouse or, failing that, the selected one.
    [[nodiscard]] std::vector<words::ValueRef> questions() const;
    QSize minimumSizeHint() const override { return {480, 340}; }

    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  signals:
    void why(const std::vector<words::ValueRef>& refs, const QPoint& global);
    void window_changed();
    void remove_asked(const Id& id);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    RailChart(ShownCircuit* circuit, Document* document, QWidget* parent);
    [[nodiscard]] const Id& chosen() const;
    void choose(const Id& id);
    void refresh(bool animate);
    void step(const SceneItem* item, int steps);
    void paint_no_answer(QPainter& painter) const;
    [[nodiscard]] const SceneItem* hovered() const;
    [[nodiscard]] const SceneItem* target() const;  // hovered or selected
    [[nodiscard]] Id feed_under(const QPointF& point) const;
    [[nodiscard]] Id box_under(const QPointF& point) const;
    [[nodiscard]] Id movable_under(const QPointF& point) const;
    [[nodiscard]] std::optional<Terminal> supply_under(const QPointF& point, const Id& thing) const;
    [[nodiscard]] QString drag_hint() const;
    void drop(const Id& thing);
    void walk(int direction);

    ShownCircuit* circuit_;
    Document* document_;  // nullptr: read only
    Id chosen_;           // where there is no document
    RailScene scene_, before_;
    SceneWindow window_;
    QPointF mouse_{-1, -1};
    bool animated_ = true;
    SceneScale scale_;
    QVariantAnimation glide_;
    QPointF press_{-1, -1};
    SceneItem pressed_;  // what the button went down on: selecting opens the details, and the picture moves
                         // under the mouse
    bool on_item_ = false;
    Id dragged_;
    int wheel_left_ = 0;
};

}  // namespace yr::app
