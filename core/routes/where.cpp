#include "routes/where.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "routes/routes.h"

namespace yr {
namespace {

constexpr double kStep_m = 0.25, kApart_m = 0.5;
constexpr std::size_t kBest = 5;
constexpr double kAboveFloor_m = 0.15;

class Mapper {
  public:
    Mapper(const Plan& plan, const Id& thing, const std::vector<RunWeight>& weights)
        : plan_(plan), thing_(thing), weights_(weights), net_(plan) {}

    std::optional<StandMap> run() {
        for (std::size_t k = 0; k < plan_.runs.size(); ++k) {
            const Run& r = plan_.runs[k];
            const bool from = r.from.owner == thing_, to = r.to.owner == thing_;
            if (r.body_metal || from == to) continue;
            if (const auto other = spot_of(plan_, from ? r.to.owner : r.from.owner))
                ends_.push_back({k, *other});
        }
        if (ends_.empty() || net_.empty()) return std::nullopt;
        out_.thing = thing_, out_.step_m = kStep_m;
        const auto now = spot_of(plan_, thing_);
        const bool faces = std::any_of(plan_.places.begin(), plan_.places.end(),
                                       [](const Place& p) { return p.mounting && room_of(p); });
        for (const Place& p : plan_.places)
            if (!is_hazard(p) && (p.mounting || !faces)) grid(p);
        if (out_.spots.empty()) return std::nullopt;
        out_.now = at(now ? *now : out_.spots.front().spot);
        choose();
        return std::move(out_);
    }

  private:
    void grid(const Place& p) {
        const auto room = room_of(p);
        if (!room) return;
        const double z = room->low.z_m + std::min(kAboveFloor_m, (room->high.z_m - room->low.z_m) / 2);
        for (const double x : steps(room->low.x_m, room->high.x_m))
            for (const double y : steps(room->low.y_m, room->high.y_m)) out_.spots.push_back(at({x, y, z}));
    }

    // Half a step from the one side, as far as the other.
    static std::vector<double> steps(double low_m, double high_m) {
        std::vector<double> out;
        for (int k = 0; low_m + (k + 0.5) * kStep_m < high_m; ++k) out.push_back(low_m + (k + 0.5) * kStep_m);
        return out;
    }

    StandSpot at(const Spot& spot) const {
        StandSpot s;
        s.spot = spot;
        s.place = place_at(plan_, spot);
        for (const Id& id : places_holding(plan_, spot))
            if (!may_stand(plan_, thing_, *find(plan_.places, std::string_view(id))))
                s.allowed = false, s.place = id;
        const double share = 1 + plan_.policy.slack_share.value_or(assumption("slack_share").value);
        const double ends = 2 * plan_.policy.slack_m.value_or(assumption("slack_m").value);
        for (const auto& [run, other] : ends_) {
            const auto path = net_.shortest_by(spot, {}, other);
            if (!path) {
                s.allowed = false;
                continue;
            }
            const double metres = path->length_m() * share + ends;
            s.metres += metres;
            s.kg += metres * weights_[run].kg_per_m;
            s.worst_V = std::max(s.worst_V, metres * weights_[run].V_per_m);
        }
        return s;
    }

    void choose() {
        std::vector<std::size_t> order;
        for (std::size_t k = 0; k < out_.spots.size(); ++k)
            if (out_.spots[k].allowed) order.push_back(k);
        std::stable_sort(order.begin(), order.end(),
                         [&](std::size_t a, std::size_t b) { return out_.spots[a].kg < out_.spots[b].kg; });
        for (const std::size_t k : order) {
            if (out_.best.size() == kBest) break;
            const bool near = std::any_of(out_.best.begin(), out_.best.end(), [&](std::size_t b) {
                return distance_m(out_.spots[b].spot, out_.spots[k].spot) < kApart_m;
            });
            if (!near) out_.best.push_back(k);
        }
    }

    const Plan& plan_;
    const Id& thing_;
    const std::vector<RunWeight>& weights_;
    const WayNet net_;
    std::vector<std::pair<std::size_t, Spot>> ends_;
    StandMap out_;
};

}  // namespace

std::vector<Id> places_holding(const Plan& plan, const Spot& spot) {
    std::vector<Id> all;
    for (const Place& p : plan.places)
        if (const auto room = room_of(p); room && room->holds(spot)) all.push_back(p.id);
    return all;
}

bool may_stand(const Plan& plan, const Id& id, const Place& p) {
    if (is_hazard(p)) return false;
    const Battery* b = find(plan.batteries, std::string_view(id));
    if (p.people && b && b->chemistry == Chemistry::flooded) return false;
    const Point* point = find(plan.points, std::string_view(id));
    const bool electronics = find(plan.inverters, std::string_view(id)) ||
                             find(plan.sources, std::string_view(id)) ||
                             (point && point->kind == PointKind::box);
    return !(electronics && (p.cold_air || p.wet));
}

std::optional<StandMap> where_to_stand(const Plan& plan, const Id& thing,
                                       const std::vector<RunWeight>& weights) {
    return Mapper(plan, thing, weights).run();
}

}  // namespace yr
