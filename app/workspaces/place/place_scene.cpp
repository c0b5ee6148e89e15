#include "workspaces/place/place_scene.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>

#include "plan/lists.h"
#include "routes/net.h"
#include "routes/packing.h"
#include "size/run_limits.h"
#include "text/say.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "workspaces/place/place_labels.h"

namespace yr::app {
namespace {

constexpr double kMargin_px = 18, kBetween_px = 34;
constexpr double kReach_px = 7;  // how near to a ribbon or passage the mouse must come
constexpr double kLeast_px = 2, kMost_px = 15;
constexpr double kHot_C = 60;
constexpr double kPlate_px = 24, kPassage_px = 8;
constexpr double kTold = 0.5;   // share of a bore
constexpr double kNamed_A = 8;  // a load that draws less is a dot until it is chosen

double away(const QPointF& a, const QPointF& b) {
    return std::hypot(a.x() - b.x(), a.y() - b.y());
}

double away_from(const QPointF& a, const QPointF& b, const QPointF& p) {
    const QPointF d = b - a;
    const double square = d.x() * d.x() + d.y() * d.y();
    const double t =
        square > 0 ? std::clamp(((p.x() - a.x()) * d.x() + (p.y() - a.y()) * d.y()) / square, 0.0, 1.0) : 0;
    return away(p, a + d * t);
}

class Builder {
  public:
    Builder(const Plan& plan, const Routes& routes, const State& state, const QSizeF& size)
        : plan_(plan), routes_(routes), state_(state), size_(size), shape_(shape_of(plan.vehicle)) {
        frame(size);
    }

    PlaceScene build(const std::vector<double>& use,
                     const std::function<std::optional<Severity>(const Id&)>& severities) {
        body();
        rooms();
        ribbons(use);
        passages();
        plates(severities);
        return std::move(s_);
    }

  private:
    // One scale for both drawings, as large as both find room; what stands outside the body counts.
    void frame(const QSizeF& size) {
        double front = shape_.front_x(), rear = shape_.rear_x(), half = shape_.wide_m / 2;
        double low = shape_.ground_z(), high = shape_.roof_z();
        const auto take = [&](const Spot& p) {
            front = std::min(front, p.x_m), rear = std::max(rear, p.x_m),
            half = std::max(half, std::abs(p.y_m));
            low = std::min(low, p.z_m), high = std::max(high, p.z_m);
        };
        for (const Waypoint& w : plan_.waypoints)
            if (const auto spot = w.at.spot()) take(*spot);
        const double along = rear - front, across = 2 * half, up = high - low;
        s_.px_per_m =
            std::max(20.0, std::min((size.width() - 2 * kMargin_px) / along,
                                    (size.height() - 2 * kMargin_px - kBetween_px) / (across + up)));
        const double left = (size.width() - along * s_.px_per_m) / 2;
        const double spare = size.height() - 2 * kMargin_px - kBetween_px - (across + up) * s_.px_per_m;
        const double above = kMargin_px + std::max(0.0, spare) / 3;
        s_.top = {left, above, along * s_.px_per_m, across * s_.px_per_m};
        s_.side = {left, s_.top.bottom() + kBetween_px + std::max(0.0, spare) / 3, along * s_.px_per_m,
                   up * s_.px_per_m};
        s_.x0_px = left - front * s_.px_per_m;
        s_.y0_px = s_.top.center().y();
        s_.z0_px = s_.side.top() + high * s_.px_per_m;
    }

    void body() {
        // from above: a rectangle whose corners are round, the front ones more
        const double f = shape_.front_x(), r = shape_.rear_x(), w = shape_.wide_m / 2;
        const double front = 0.22 * shape_.wide_m, back = 0.08 * shape_.wide_m;
        const auto corner = [&](double x, double y, double radius, double from_deg) {
            for (int k = 0; k <= 8; ++k) {
                const double turn = (from_deg + 90.0 * k / 8) * 3.14159265358979 / 180;
                s_.body << s_.from_above({x + radius * std::cos(turn), y + radius * std::sin(turn), 0});
            }
        };
        corner(r - back, w - back, back, 0), corner(f + front, w - front, front, 90);
        corner(f + front, -w + front, front, 180), corner(r - back, -w + back, back, 270);
        for (const Corner& c : side_of(shape_, plan_.vehicle.outline))
            s_.body_side << s_.from_side({c.along_m, 0, c.other_m});
        s_.wheels = {s_.from_side({0, 0, 0})};
        if (shape_.wheelbase_m > 0.3) s_.wheels.push_back(s_.from_side({shape_.wheelbase_m, 0, 0}));
        s_.wheel_px = -shape_.ground_z() * s_.px_per_m;
        s_.ground_y = s_.from_side({0, 0, shape_.ground_z()}).y();
    }

    void rooms() {
        for (const Place& p : plan_.places) {
            const auto room = room_of(p);
            if (!room) continue;
            RoomShape r;
            r.place = p.id;
            r.rect = QRectF(s_.from_above({room->low.x_m, room->high.y_m, 0}),
                            s_.from_above({room->high.x_m, room->low.y_m, 0}));
            r.name = q(p.name);
            r.hazard = is_hazard(p);
            r.above = room->low.z_m > shape_.dash_m;
            r.air_C = air_at(plan_, p.id, state_);
            if (!r.hazard) r.air = q(words::quantity(r.air_C, Dimension::temperature));
            s_.rooms.push_back(r);
        }
        // large ones first, so that small ones stay to be seen; hazards on top
        std::stable_sort(s_.rooms.begin(), s_.rooms.end(), [](const RoomShape& a, const RoomShape& b) {
            if (a.hazard != b.hazard) return b.hazard;
            return a.rect.width() * a.rect.height() > b.rect.width() * b.rect.height();
        });
    }

    void ribbons(const std::vector<double>& use) {
        for (std::size_t k = 0; k < plan_.ways.size(); ++k) {
            const Waypoint *a = find(plan_.waypoints, plan_.ways[k].from),
                           *b = find(plan_.waypoints, plan_.ways[k].to);
            if (!a || !b || !a->at.spot() || !b->at.spot()) continue;
            RibbonShape r;
            r.way = k;
            r.from = s_.from_above(*a->at.spot()), r.to = s_.from_above(*b->at.spot());
            r.side_from = s_.from_side(*a->at.spot()), r.side_to = s_.from_side(*b->at.spot());
            const auto& runs = routes_.ways[k].runs;
            if (!runs.empty()) {
                const double mm = bundle_by_factor(diameters_mm(plan_, runs));
                r.px = std::clamp(mm / 1000 * s_.px_per_m * 2.2, kLeast_px, kMost_px);
                for (const std::size_t run : runs)
                    if (run < use.size()) r.used = std::max(r.used, use[run]);
            }
            const Id in = plan_.ways[k].place.empty() ? place_at(plan_, middle(*a->at.spot(), *b->at.spot()))
                                                      : plan_.ways[k].place;
            r.hot = air_at(plan_, in, state_) >= kHot_C;
            s_.ribbons.push_back(r);
        }
    }

    static Spot middle(const Spot& a, const Spot& b) {
        return {(a.x_m + b.x_m) / 2, (a.y_m + b.y_m) / 2, (a.z_m + b.z_m) / 2};
    }

    void passages() {
        for (std::size_t n = 0; n < plan_.waypoints.size(); ++n) {
            const Waypoint& w = plan_.waypoints[n];
            if (!w.at.spot()) continue;
            PassageShape p;
            p.waypoint = n;
            p.at = s_.from_above(*w.at.spot()), p.side = s_.from_side(*w.at.spot());
            p.passage = w.kind != PassageKind::bend;
            const Passage& through = routes_.passages[n];
            if (p.passage && through.share > 0) {
                p.label = say("%1 full").arg(q(words::quantity(through.share, Dimension::fraction)));
                p.too_full = through.share > allowed_fill();
                p.told = through.share > kTold;
                const double wide = small_.horizontalAdvance(p.label + QStringLiteral(" ▲")) + 4;
                p.words = QRectF(p.at + QPointF(-wide / 2, kPassage_px + 1), QSizeF(wide, 16));
            }
            s_.passages.push_back(p);
        }
    }

    // Boxes, batteries and the like get their names; loads where there is room left, the larger first.
    void plates(const std::function<std::optional<Severity>(const Id&)>& severities) {
        struct Wanted {
            Id id;
            QString name;
            Spot spot;
            double weight;
        };
        std::vector<Wanted> all;
        each_list(plan_, [&](const auto& things) {
            using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
            if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
                for (const Thing& t : things)
                    if (t.at.spot()) {
                        double weight = 1e6;
                        if constexpr (std::is_same_v<Thing, Load>) weight = nominal_A(plan_, t);
                        if constexpr (std::is_same_v<Thing, Point>)
                            weight = t.kind == PointKind::box ? 2e6 : t.kind == PointKind::bus ? 1e6 : 5e3;
                        all.push_back({t.id, q(t.name), *t.at.spot(), weight});
                    }
        });
        std::stable_sort(all.begin(), all.end(),
                         [](const Wanted& a, const Wanted& b) { return a.weight > b.weight; });
        LabelRoom room = room_for_names();
        for (const Wanted& w : all) room.spare(dot_at(s_.from_above(w.spot)));
        for (const Wanted& w : all) {
            PlateShape p;
            p.thing = w.id, p.name = w.name;
            p.at = s_.from_above(w.spot), p.side = s_.from_side(w.spot);
            p.severity = severities ? severities(w.id) : std::nullopt;
            const QString shown = small_.elidedText(w.name, Qt::ElideRight, 130);
            const QSizeF size(small_.horizontalAdvance(shown) + 14, kPlate_px);
            const auto placed = w.weight >= kNamed_A ? room.place(p.at, size) : std::nullopt;
            p.named = placed.has_value();
            p.led = placed && placed->led;
            p.rect = placed ? placed->rect : dot_at(p.at);
            if (placed) p.name = shown;
            s_.plates.push_back(p);
        }
    }

    static QRectF dot_at(const QPointF& at) { return {at - QPointF(6, 6), QSizeF(12, 12)}; }

    // The picture from above and what is around it, without what is written there already.
    LabelRoom room_for_names() const {
        LabelRoom room(QRectF(2, 8, size_.width() - 4, s_.between_px() - 8));
        for (const PassageShape& p : s_.passages) {
            if (p.passage)
                room.keep_clear(QRectF(p.at - QPointF(kPassage_px, kPassage_px),
                                       QSizeF(2 * kPassage_px, 2 * kPassage_px)));
            if (p.told) room.keep_clear(p.words);
        }
        for (const RoomShape& r : s_.rooms) {
            const QRectF line = words_of(r);
            room.spare(
                {line.topLeft(), QSizeF(std::min(line.width(), small_.horizontalAdvance(r.name)), 14)});
            const double air = small_.horizontalAdvance(r.air);
            if (air > 0) room.spare({line.right() - air, line.top(), air, 14});
        }
        return room;
    }

    const Plan& plan_;
    const Routes& routes_;
    const State& state_;
    const QSizeF size_;
    const OutlineShape shape_;
    const QFontMetricsF small_{type_font(Type::small)};
    PlaceScene s_;
};

}  // namespace

QPointF PlaceScene::from_above(const Spot& s) const {
    return {x0_px + s.x_m * px_per_m, y0_px - s.y_m * px_per_m};
}
QPointF PlaceScene::from_side(const Spot& s) const {
    return {x0_px + s.x_m * px_per_m, z0_px - s.z_m * px_per_m};
}
Spot PlaceScene::spot_of(const QPointF& point, const Spot& now) const {
    Spot s = now;
    s.x_m = (point.x() - x0_px) / px_per_m;
    if (point.y() > between_px())
        s.z_m = (z0_px - point.y()) / px_per_m;
    else
        s.y_m = (y0_px - point.y()) / px_per_m;
    return s;
}

const PlateShape* PlaceScene::plate_at(const QPointF& point) const {
    for (const PlateShape& p : plates)
        if (p.rect.contains(point)) return &p;
    for (const PlateShape& p : plates)
        if (std::min(away(p.side, point), p.led ? away(p.at, point) : kReach_px) < kReach_px) return &p;
    return nullptr;
}

QPointF PlaceScene::hold_of(const PlateShape& plate, const QPointF& point) const {
    return point.y() > between_px() ? plate.side : plate.at;
}

const PassageShape* PlaceScene::passage_at(const QPointF& point) const {
    const PassageShape* best = nullptr;
    double least = kReach_px + 1;
    for (const PassageShape& p : passages)
        if (const double d = std::min(away(p.at, point), away(p.side, point)) - (p.passage ? 2 : 0);
            d < least)
            least = d, best = &p;
    return best;
}

const RibbonShape* PlaceScene::ribbon_at(const QPointF& point) const {
    const RibbonShape* best = nullptr;
    double least = kReach_px;
    for (const RibbonShape& r : ribbons) {
        const double d =
            std::min(away_from(r.from, r.to, point), away_from(r.side_from, r.side_to, point)) - r.px / 2;
        if (d < least) least = d, best = &r;
    }
    return best;
}

QRectF words_of(const RoomShape& room) {
    if (room.hazard) return {room.rect.left(), room.rect.bottom() + 1, room.rect.width(), 14};
    const QRectF inside = room.rect.adjusted(6, 3, -6, -3);
    return {inside.left(), room.above ? inside.bottom() - 14 : inside.top(), inside.width(), 14};
}

PlaceScene build_place_scene(const Plan& plan, const Routes& routes, const State& state, const QSizeF& size,
                             const std::vector<double>& use,
                             const std::function<std::optional<Severity>(const Id&)>& severities) {
    return Builder(plan, routes, state, size).build(use, severities);
}

std::vector<double> use_of_runs(const Plan& plan, const Solution& solution, const State& state) {
    std::vector<double> use(plan.runs.size(), 0);
    if (!solution.point.settled) return use;
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        if (const auto stands = run_ampacity(plan, plan.runs[k], state); stands && stands->allowed_A > 0)
            use[k] = std::abs(solution.point.conductors[k].current_A) / stands->allowed_A;
    return use;
}

}  // namespace yr::app
