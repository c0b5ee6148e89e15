// Rules about volts at a load's own terminals, and about the moment when everything starts at once.
#include <algorithm>
#include <cmath>

#include "inspect/rules.h"
#include "inspect/windows.h"

namespace yr {
namespace {

constexpr double kQuickMultiple = 2.0;  // of its rating: a fuse may open within a second (ISO 8820 bands)

void windows(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const State& state = c.plan.states[s];
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const Load& l = c.plan.loads[k];
        const LoadResult& r = c.solutions[s].point.loads[k];
        if (r.status != LoadStatus::on || !l.inverter.empty()) continue;
        const VoltsWindow w = volts_window(c.plan, l);
        Finding f = make_finding(FindingKind::volts_outside, Severity::fix, l.id, {}, state.id, r.voltage_V);
        if (w.least_V && r.voltage_V < *w.least_V) f.limit = *w.least_V;
        if (w.most_V && r.voltage_V > *w.most_V) f.limit = *w.most_V;
        if (f.limit <= 0) continue;
        // the further outside the worse, on either side
        const auto same = std::find_if(out.begin() + static_cast<std::ptrdiff_t>(from), out.end(),
                                       [&](const Finding& x) { return same_place(x, f); });
        if (same == out.end())
            out.push_back(std::move(f));
        else if (std::abs(f.value - f.limit) > std::abs(same->value - same->limit))
            *same = std::move(f);
    }
}

// The state with every load that has a start at its starting amps.
void start_up(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const State& state = c.plan.states[s];
    if (state.key == Key::off || state.key == Key::crank) return;
    Network net = c.solutions[s].network;
    int starters = 0;
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const Load& l = c.plan.loads[k];
        if (!l.inrush_A || !net.loads[k].wanted) continue;
        net.loads[k].kind = DrawKind::current;
        net.loads[k].value = *l.inrush_A * l.count;
        ++starters;
    }
    if (starters < 2) return;  // one alone is its own fuse's matter
    OperatingPointSolver solver;
    const OperatingPoint point = solver.solve(net);
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
        const Run& r = c.plan.runs[k];
        if (find(c.plan.loads, owner_of(r.to))) continue;
        for (const Device& d : r.devices) {
            const double amps = std::abs(point.conductors[k].current_A);
            if (d.kind == DeviceKind::fuse && amps > kQuickMultiple * d.rating_A)
                keep_worst(out, from,
                           make_finding(FindingKind::start_up, Severity::fix, r.id, d.id, state.id, amps,
                                        kQuickMultiple * d.rating_A));
        }
    }
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const VoltsWindow w = volts_window(c.plan, c.plan.loads[k]);
        const LoadResult& r = point.loads[k];
        const bool was_fine = c.solutions[s].point.loads[k].status == LoadStatus::on;
        if (was_fine && c.plan.loads[k].inverter.empty() && w.least_V &&
            (r.status != LoadStatus::on || r.voltage_V < *w.least_V))
            keep_worst(out, from,
                       make_finding(FindingKind::start_up, Severity::check, c.plan.loads[k].id, {}, state.id,
                                    r.voltage_V, *w.least_V),
                       Worse::lower);
    }
}

}  // namespace

VoltsWindow volts_window(const Plan& plan, const Load& load) {
    VoltsWindow w{load.least_V, load.most_V};
    // ISO 16750-2 supply ranges for 12 V systems (from memory); for 24 V doubled, which is near its own
    // table.
    const double scale = plan.vehicle.nominal_V / 12;
    const double least[] = {0, 6, 8, 9, 10.5};
    if (load.supply_code != SupplyCode::none) {
        if (!w.least_V) w.least_V = least[static_cast<std::size_t>(load.supply_code)] * scale;
        if (!w.most_V) w.most_V = 16 * scale;
    }
    return w;
}

void inspect_starting(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        windows(c, s, out, from);
        start_up(c, s, out, from);
    }
}

}  // namespace yr
