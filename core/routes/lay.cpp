#include "routes/lay.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace yr {
namespace {

constexpr double kShort_m = 0.6;    // a bundle so short does not count
constexpr double kHotSpot_m = 0.3;  // nor so short a hot stretch ...
constexpr double kHotShare = 0.1;   // ... where it is but a small part of the whole
constexpr double kSignal_A = 0.5;   // less than that warms nothing

// Whether a run carries so much that it warms its neighbours.
bool warms(const Plan& plan, const Run& run) {
    for (const Terminal* end : {&run.from, &run.to})
        if (const Load* l = find(plan.loads, end->owner)) {
            const double V = plan.vehicle.nominal_V;
            const double amps = l->draw.kind == DrawKind::current ? l->draw.value
                                : l->draw.kind == DrawKind::power ? l->draw.value / V
                                                                  : V / std::max(1e-9, l->draw.value);
            return !l->later && amps * l->count >= kSignal_A;
        }
    return true;
}

// Metres that two routes lie along the same way.
double together_m(const Plan& plan, const Route& a, const Route& b) {
    double sum = 0;
    for (const Leg& x : a.path.legs)
        for (const Leg& y : b.path.legs) {
            if (!x.way || x.way != y.way) continue;
            const double low = std::max(std::min(x.begins, x.ends), std::min(y.begins, y.ends));
            const double high = std::min(std::max(x.begins, x.ends), std::max(y.begins, y.ends));
            if (high <= low) continue;
            const Way& way = plan.ways[*x.way];
            const Waypoint *from = find(plan.waypoints, way.from), *to = find(plan.waypoints, way.to);
            sum += (high - low) * distance_m(*from->at.spot(), *to->at.spot());
        }
    return sum;
}

}  // namespace

int bundled_with(const Plan& plan, const Routes& routes, std::size_t run) {
    const auto& own = routes.by_run[run];
    if (!own) return 1;
    std::vector<std::size_t> near;
    for (const Leg& leg : own->path.legs)
        if (leg.way)
            for (const std::size_t other : routes.ways[*leg.way].runs)
                if (other != run) near.push_back(other);
    std::sort(near.begin(), near.end());
    near.erase(std::unique(near.begin(), near.end()), near.end());
    int count = plan.runs[run].parallel;
    for (const std::size_t other : near)
        if (warms(plan, plan.runs[other]) && together_m(plan, *own, *routes.by_run[other]) > kShort_m)
            count += plan.runs[other].parallel;
    return std::min(count, 200);
}

std::vector<Id> places_along(const Plan& plan, const Route& route) {
    std::map<std::size_t, double> metres;  // by place
    for (const Leg& leg : route.path.legs) {
        const Way* way = leg.way ? &plan.ways[*leg.way] : nullptr;
        for (std::size_t k = 0; k < plan.places.size(); ++k) {
            const Place& p = plan.places[k];
            if (way && !way->place.empty()) {
                if (way->place == p.id) metres[k] += leg.length_m();
            } else if (const auto room = room_of(p)) {
                if (const double m = inside_m(*room, leg.from, leg.to); m > 0) metres[k] += m;
            }
        }
    }
    std::vector<Id> passed;
    for (const auto& [k, m] : metres)
        if (m > kHotSpot_m || m > kHotShare * route.way_m) passed.push_back(plan.places[k].id);
    return passed;
}

std::vector<Id> places_by_cell(const Plan& plan, const Route& route, double cell_m) {
    const auto lies_in = [&](const Leg& leg, double share) -> Id {
        if (leg.way && !plan.ways[*leg.way].place.empty()) return plan.ways[*leg.way].place;
        const auto between = [&](double a, double b) { return a + share * (b - a); };
        return place_at(plan, {between(leg.from.x_m, leg.to.x_m), between(leg.from.y_m, leg.to.y_m),
                               between(leg.from.z_m, leg.to.z_m)});
    };
    std::vector<Id> cells;
    const auto add = [&](const Id& place, double metres, double& rest) {
        rest += metres;
        while (rest >= cell_m) cells.push_back(place), rest -= cell_m;
    };
    double rest = 0;
    const double slack_m = std::max(0.0, route.length_m - route.way_m) / 2;
    const auto& legs = route.path.legs;
    if (!legs.empty()) add(lies_in(legs.front(), 0), slack_m, rest);
    for (const Leg& leg : legs) {
        const double length_m = leg.length_m();
        const auto parts = static_cast<int>(std::ceil(length_m / cell_m));
        for (int k = 0; k < parts; ++k) add(lies_in(leg, (k + 0.5) / parts), length_m / parts, rest);
    }
    if (!legs.empty()) add(lies_in(legs.back(), 1), slack_m, rest);
    if (cells.empty()) cells.push_back(legs.empty() ? Id() : lies_in(legs.front(), 0.5));
    return cells;
}

void lay(Plan& plan, const Routes& routes) {
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        Run& run = plan.runs[k];
        run.laid = {};
        const auto& route = routes.by_run[k];
        if (!route || run.length_m || run.resistance_ohm) continue;
        run.laid.length_m = std::max(0.05, route->length_m);
        run.laid.bundle = bundled_with(plan, routes, k);
        run.laid.places = places_along(plan, *route);
    }
}

void lay(Plan& plan) {
    const bool stands = std::any_of(plan.runs.begin(), plan.runs.end(), [&](const Run& r) {
        return !r.length_m && !r.resistance_ohm && ends_of(plan, r).has_value();
    });
    if (stands) return lay(plan, route_all(plan));
    for (Run& r : plan.runs) r.laid = {};
}

}  // namespace yr
