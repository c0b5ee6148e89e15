// The vehicle on the screen: things, waypoints and chosen cables are dragged, ways are clicked, arrows move
// what is chosen. While a thing is dragged its cables follow with their lengths; on release it is one step.
#pragma once

#include <QPixmap>
#include <QWidget>
#include <optional>

#include "document/document.h"
#include "inspect/stand.h"
#include "widgets/spoken_parts.h"
#include "workspaces/place/place_scene.h"

namespace yr::app {

class PlaceView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit PlaceView(Document* document, QWidget* parent = nullptr);

    [[nodiscard]] const PlaceScene& scene() const { return scene_; }
    [[nodiscard]] const Routes& routes() const { return routes_; }
    void refresh();
    // The way whose cross-section is shown; nullopt: none.
    [[nodiscard]] std::optional<std::size_t> chosen_way() const { return way_; }
    void choose_way(std::optional<std::size_t> way);
    [[nodiscard]] const Id& chosen_waypoint() const { return waypoint_; }
    void choose_waypoint(const Id& waypoint);
    // The map of where it should stand, painted over the vehicle; nullptr: none. Must live until the next
    // call.
    void show_map(const StandMap* map);
    // The next two clicks give a distance in the picture underneath; scaled() tells it.
    void measure_picture();
    [[nodiscard]] bool measuring() const { return measuring_ > 0; }
    // What is dragged now tells of its cables: "rear box feed 5.40 m".
    [[nodiscard]] const QStringList& telling() const { return telling_; }
    QSize minimumSizeHint() const override { return {420, 340}; }
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  signals:
    void way_chosen();
    void measured(double metres_now);  // distance of the two clicks in the picture as it is scaled now
    void why_asked(const QPoint& global);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    bool event(QEvent* event) override;

  private:
    void rebuild();
    void paint_picture(QPainter& p) const;
    void paint_rooms(QPainter& p) const;
    void paint_map(QPainter& p) const;
    void paint_best(QPainter& p) const;
    void paint_ways(QPainter& p) const;
    void paint_passages(QPainter& p) const;
    void paint_plates(QPainter& p) const;
    void paint_side(QPainter& p) const;
    void paint_dragged(QPainter& p) const;
    void paint_empty(QPainter& p) const;
    [[nodiscard]] const Run* chosen_run() const;
    void follow(const QPointF& point);
    void drop(const QPointF& point);
    void hold_run(const QPointF& point);
    void nudge(int along, int across, int up, double step_m);
    [[nodiscard]] std::optional<Spot> chosen_spot() const;

    Document* document_;
    PlaceScene scene_;
    Routes routes_;
    quint64 routed_ = ~quint64{0};  // the plan's generation that they are of
    QPixmap picture_;
    QString picture_path_;
    const StandMap* map_ = nullptr;
    std::optional<std::size_t> way_;
    Id waypoint_;
    QPointF press_{-1, -1}, mouse_{-1, -1};
    QPointF grab_;  // from the thing that is dragged to where it was taken: its name may stand beside it
    Id dragged_;    // thing or waypoint
    Id pulled_;     // run that is pulled to another waypoint
    std::optional<Spot> dragged_to_;
    std::optional<WayNet> net_;
    std::unique_ptr<Plan> dragging_;  // the plan as it is while something is dragged
    QStringList telling_;
    int measuring_ = 0;
    Spot measured_from_;
};

}  // namespace yr::app
