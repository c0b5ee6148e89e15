#include "inspect/hours.h"

#include <algorithm>

#include "solve/results.h"

namespace yr {
namespace {

constexpr int kSteps = 4;  // of charge; each is solved
constexpr double kFlows_A = 1e-3;
constexpr double kMuchMore = 1.05;

Id opened_cutoff(const Solution& s) {
    for (std::size_t k = 0; k < s.memories.size(); ++k)
        if (s.network.memories[k].kind == MemoryKind::cutoff && !s.memories[k].closed)
            return s.network.memories[k].id;
    return {};
}

// A relay that joins batteries as long as one is charged, closed before and open now.
Id opened_joiner(const Solution& before, const Solution& now) {
    for (std::size_t k = 0; k < now.memories.size() && k < before.memories.size(); ++k)
        if (now.network.memories[k].kind == MemoryKind::sensing_relay && before.memories[k].closed &&
            !now.memories[k].closed)
            return now.network.memories[k].id;
    return {};
}

bool is_closed(const Solution& s, const Id& memory) {
    for (std::size_t k = 0; k < s.memories.size(); ++k)
        if (s.network.memories[k].id == memory) return s.memories[k].closed;
    return false;
}

// What gets no volts to work on now gets none from an emptier battery: not searched for again.
void leave_out_collapsed(Network& lower, const Solution& now) {
    for (std::size_t k = 0; k < lower.loads.size(); ++k)
        if (now.point.loads[k].status == LoadStatus::collapsed) lower.loads[k].wanted = false;
    for (std::size_t k = 0; k < lower.sources.size(); ++k)
        if (now.point.sources[k].collapsed) lower.sources[k].works = false;
}

}  // namespace

Lasting lasting(const Plan& plan, const State& state, std::size_t battery, double to_charge,
                const Solution* solved) {
    Lasting out;
    OperatingPointSolver solver;
    const Solution own = solved ? Solution{} : solve(plan, state, solver);
    const Solution& now = solved ? *solved : own;
    if (!now.point.settled) return out;
    const BatteryElement& e = now.network.batteries[battery];
    out.peak_A = now.point.batteries[battery].current_A;
    out.average_A = average_battery_A(now.network, now.point, battery);
    out.average_h = out.peak_h = 0.0;
    if (e.charge <= to_charge) return out;
    const double step = (e.charge - to_charge) / kSteps;
    const Id was_open = opened_cutoff(now);
    Network lower = compile(plan, state);           // at the charge that the state says, if it says one
    for (LoadElement& l : lower.loads) l.on_s = 0;  // the warmth of turns moves no hour
    leave_out_collapsed(lower, now);
    double peak = out.peak_A, average = out.average_A;
    bool comes_and_goes = false;  // a relay that closes again: of that no one figure can be told
    for (int k = 0; k < kSteps; ++k) {
        const double charge = e.charge - (k + 0.5) * step;
        at_moment(lower.batteries[battery], charge, lower.batteries[battery].temperature_C);
        const Solution s = settle(lower, solver);
        if (s.point.settled) {  // where it does not, the amps of the step above stand: the hours stay whole
            if (out.cutoff.empty() && opened_cutoff(s) != was_open) out.cutoff = opened_cutoff(s);
            peak = s.point.batteries[battery].current_A;
            average = average_battery_A(s.network, s.point, battery);
            const Id joiner = opened_joiner(now, s);
            if (out.parts.empty() && !joiner.empty() && peak > out.peak_A * kMuchMore)
                out.parts = joiner, out.then_average_A = average;
            comes_and_goes = comes_and_goes || (!out.parts.empty() && is_closed(s, out.parts));
        }
        const auto add = [&](std::optional<double>& hours, double amps) {
            if (!hours) return;
            if (amps < kFlows_A) {
                hours.reset();
                out.rests_at = charge;
            } else {
                *hours += hours_for_share(step, e.capacity_Ah, amps, e.peukert);
            }
        };
        add(out.peak_h, peak);
        add(out.average_h, average);
        if (!out.peak_h && !out.average_h) break;
    }
    if (comes_and_goes) out.parts.clear();
    return out;
}

}  // namespace yr
