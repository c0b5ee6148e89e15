#include "plan/rail_volts.h"

#include <algorithm>
#include <queue>
#include <set>

namespace yr {
namespace {

constexpr double kNominal_V[] = {6, 12, 24, 36, 48};
constexpr double kChargedShare[] = {
    0.85, 1.35};  // of nominal: what a source of such a rail is set to; common practice

double stands_for_V(double regulated_V) {
    for (const double v : kNominal_V)
        if (regulated_V > kChargedShare[0] * v && regulated_V < kChargedShare[1] * v) return v;
    return regulated_V;
}

double source_V(const Plan& plan, const Source& s) {
    return s.regulated_V ? stands_for_V(*s.regulated_V) : plan.vehicle.nominal_V;
}

bool one_rail(const Plan& plan) {
    const double nominal_V = plan.vehicle.nominal_V;
    return std::all_of(plan.batteries.begin(), plan.batteries.end(),
                       [&](const Battery& b) { return battery_V(plan, b) == nominal_V; }) &&
           std::all_of(plan.sources.begin(), plan.sources.end(),
                       [&](const Source& s) { return source_V(plan, s) == nominal_V; });
}

}  // namespace

double rail_of_label_V(double label_V) {
    constexpr double kLeast_V = 12.55, kMost_V = 13.3;  // labels of four cells: 12.6, 12.8, 13.2 V
    for (const double rail_V : {12.0, 24.0, 36.0, 48.0})
        if (const double of_four = label_V * 12 / rail_V; of_four >= kLeast_V && of_four <= kMost_V)
            return rail_V;
    return label_V;
}

double battery_V(const Plan& plan, const Battery& battery) {
    return rail_of_label_V(battery.nominal_V.value_or(plan.vehicle.nominal_V));
}

double rail_V(const Plan& plan, const Terminal& at) {
    if (one_rail(plan)) return plan.vehicle.nominal_V;
    std::optional<double> by_source;  // a battery holds its rail's volts whatever charges it
    std::set<Terminal> seen{at};
    std::queue<Terminal> open;
    open.push(at);
    while (!open.empty()) {
        const Terminal node = open.front();
        open.pop();
        if (const Battery* b = find(plan.batteries, node.owner))
            if (node == pos_of(b->id)) return battery_V(plan, *b);
        if (const Source* s = find(plan.sources, node.owner))
            if (node == out_of(s->id) && !by_source) by_source = source_V(plan, *s);
        if (!(node == at) && !find(plan.points, node)) continue;  // another load is no way
        for (const Run& r : plan.runs)
            if (!r.body_metal && (r.from == node || r.to == node))
                if (const Terminal& next = r.from == node ? r.to : r.from; seen.insert(next).second)
                    open.push(next);
    }
    return by_source.value_or(plan.vehicle.nominal_V);
}

double rail_V(const Plan& plan, const Load& load) {
    return load.inverter.empty() ? rail_V(plan, pos_of(load.id)) : plan.vehicle.nominal_V;
}

bool suits_plain_loads(const Plan& plan, const Terminal& feed) {
    const double rail = rail_V(plan, feed), nominal = plan.vehicle.nominal_V;
    constexpr double kAlike = 1.6, kTraction_V = 36;
    return rail <= kAlike * nominal && (nominal >= kTraction_V || rail * kAlike >= nominal);
}

}  // namespace yr
