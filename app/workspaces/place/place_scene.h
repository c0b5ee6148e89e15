// The vehicle from above and from the side as shapes in pixels: rooms, ways with what lies along them,
// passages, things as plates. Made from a plan and its routes; no painting here, so that tests read it.
//
// From above the front is at the left and the right side on top; from the side it is seen from its left.
#pragma once

#include <QPointF>
#include <QPolygonF>
#include <QRectF>
#include <QString>
#include <vector>

#include "document/shown_circuit.h"
#include "inspect/findings.h"
#include "routes/outline.h"
#include "routes/routes.h"

namespace yr::app {

struct RoomShape {
    Id place;
    QRectF rect;
    QString name, air;
    double air_C = 20;
    bool hazard = false;
    bool above = false;  // a roof: over other rooms
};
struct RibbonShape {
    std::size_t way = 0;
    QPointF from, to;            // from above
    QPointF side_from, side_to;  // from the side
    double px = 0;               // width: its bundle; 0: nothing lies there
    double used = 0;             // of the ampacity of what is loaded most, in the state shown
    bool hot = false;            // beyond 60 °C of air
};
struct PassageShape {
    std::size_t waypoint = 0;
    QPointF at, side;
    QString label;  // "62 % full"; empty: a bend
    QRectF words;   // where it stands
    bool passage = false, too_full = false;
    bool told = false;  // so full that one wants to know
};
struct PlateShape {
    Id thing;
    QRectF rect;  // with its name; a dot where no name fits
    QPointF at, side;
    QString name;
    bool named = true;
    bool led = false;  // its name stands beside it: a dot, and a line to the name
    std::optional<Severity> severity;
};

constexpr double kTitle_px = 26;  // of the drawing from the side, over it

struct PlaceScene {
    QRectF top, side;  // the two drawings
    double px_per_m = 1;
    QPolygonF body, body_side;
    std::vector<QPointF> wheels;  // from the side, centres
    double wheel_px = 0, ground_y = 0;
    std::vector<RoomShape> rooms;
    std::vector<RibbonShape> ribbons;
    std::vector<PassageShape> passages;
    std::vector<PlateShape> plates;

    [[nodiscard]] QPointF from_above(const Spot& s) const;
    [[nodiscard]] QPointF from_side(const Spot& s) const;
    // The spot under a point of either drawing; what that drawing does not show stays as it is in `now`.
    [[nodiscard]] Spot spot_of(const QPointF& point, const Spot& now) const;
    [[nodiscard]] const PlateShape* plate_at(const QPointF& point) const;
    // Where that thing is drawn in the drawing in which the point lies.
    [[nodiscard]] QPointF hold_of(const PlateShape& plate, const QPointF& point) const;
    [[nodiscard]] const PassageShape* passage_at(const QPointF& point) const;
    [[nodiscard]] const RibbonShape* ribbon_at(const QPointF& point) const;

    // The drawing from above with the names around it ends there.
    [[nodiscard]] double between_px() const { return side.top() - kTitle_px; }

    double x0_px = 0, y0_px = 0, z0_px = 0;  // where the origin is drawn: along, across, upwards
};

// The line in which a room's name and air stand: the name at its left, the air at its right.
[[nodiscard]] QRectF words_of(const RoomShape& room);

// `severities`: of things, asked by id. `use`: share of its ampacity of each run in the state shown; empty:
// not known.
[[nodiscard]] PlaceScene build_place_scene(
    const Plan& plan, const Routes& routes, const State& state, const QSizeF& size,
    const std::vector<double>& use, const std::function<std::optional<Severity>(const Id&)>& severities);

// Amps of each run in that state as a share of its ampacity.
[[nodiscard]] std::vector<double> use_of_runs(const Plan& plan, const Solution& solution, const State& state);

}  // namespace yr::app
