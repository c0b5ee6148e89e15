// Rules about volts at a load's own terminals, and about the moment when everything starts at once.
#include <algorithm>
#include <cmath>

#include "control/rails.h"
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

void start_up_at(const Case& c, std::size_t s, double moment_s, std::vector<Finding>& out, std::size_t from);

constexpr double kApart_s = 0.5;    // starts that lie further apart do not add up; common practice
constexpr double kStagger_s = 1.0;  // between two starts, where they are put one after another

// Delays that loads with a start wait for in this state, each once.
std::vector<double> start_moments(const Case& c, const Network& net) {
    std::vector<double> moments;
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const Load& l = c.plan.loads[k];
        const double at = l.live_when.delay_s.value_or(0);
        const bool known = std::any_of(moments.begin(), moments.end(),
                                       [&](double m) { return std::abs(m - at) < kApart_s; });
        if (l.inrush_A && net.loads[k].wanted && !known) moments.push_back(at);
    }
    return moments;
}

// One after another instead, where that clears it: no start of the state left above its limit.
std::optional<Mend> mend_start_up(const Case& c, const State& state, const Finding& finding) {
    std::vector<Id> starters;
    for (const Load& l : c.plan.loads)
        if (l.inrush_A && !l.later && l.inverter.empty() && !l.starter && holds(l.live_when, state))
            starters.push_back(l.id);
    Edit edit = stagger_starts(c.plan, starters, kStagger_s);
    Plan trial = c.plan;
    if (!yr::apply(trial, edit)) return std::nullopt;
    const std::vector<Solution> solutions = solve_all(trial);
    std::vector<Finding> left;
    static const std::vector<StateBands> no_bands;
    const Case after{trial, solutions, false, no_bands};
    for (std::size_t s = 0; s < trial.states.size(); ++s)
        if (trial.states[s].id == state.id)
            for (const double moment : start_moments(after, solutions[s].network))
                start_up_at(after, s, moment, left, 0);
    if (std::any_of(left.begin(), left.end(), [&](const Finding& f) { return same_place(f, finding); }))
        return std::nullopt;
    Mend mend;
    mend.kind = MendKind::stagger;
    mend.edit = std::move(edit);
    mend.target = finding.id;
    return mend;
}

// The state with every load that starts at that moment at its starting amps.
void start_up_at(const Case& c, std::size_t s, double moment_s, std::vector<Finding>& out, std::size_t from) {
    const State& state = c.plan.states[s];
    Network net = c.solutions[s].network;
    int starters = 0;
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const Load& l = c.plan.loads[k];
        if (!l.inrush_A || !net.loads[k].wanted) continue;
        if (std::abs(l.live_when.delay_s.value_or(0) - moment_s) >= kApart_s) continue;
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

void start_up(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const State& state = c.plan.states[s];
    if (state.key == Key::off || state.key == Key::crank) return;
    for (const double moment : start_moments(c, c.solutions[s].network)) start_up_at(c, s, moment, out, from);
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
    if (!c.with_mends) return;
    for (std::size_t k = from; k < out.size(); ++k)
        if (out[k].kind == FindingKind::start_up)
            out[k].mend = mend_start_up(c, *find(c.plan.states, out[k].state), out[k]);
}

}  // namespace yr
