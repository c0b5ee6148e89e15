#include "day/verdicts.h"

#include <algorithm>
#include <cmath>

#include "catalog/batteries.h"
#include "plan/rail_volts.h"

namespace yr {
namespace {

constexpr double kCrankEvery_s = 1800, kQuickCrank_s = 3 * 3600;  // cranking is tried so often
constexpr double kSame = 0.002;                                   // charge that counts as the same

bool is_dark(LoadStatus s) {
    return s == LoadStatus::dead || s == LoadStatus::collapsed;
}

void look_at_batteries(const Plan& plan, const DayRun& run, DayVerdicts& v) {
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        BatteryDay b;
        b.battery = plan.batteries[k].id;
        b.least_V = 1e9;
        const bool lithium = !chemistry_data(plan.batteries[k].chemistry).charges_below_0C;
        for (std::size_t n = 0; n < run.points.size(); ++n) {
            const DayPoint& p = run.points[n];
            if (p.charge[k] < b.least_charge) b.least_charge = p.charge[k], b.least_charge_s = p.t_s;
            if (p.battery_V[k] < b.least_V) b.least_V = p.battery_V[k], b.least_V_s = p.t_s;
            if (n + 1 == run.points.size()) continue;
            const DayPoint& next = run.points[n + 1];
            const double h = (next.t_s - p.t_s) / 3600, amps = (p.battery_A[k] + next.battery_A[k]) / 2;
            (amps > 0 ? b.given_Ah : b.taken_Ah) += std::abs(amps) * h;
            const double full_V = interpolate(chemistry_data(plan.batteries[k].chemistry).ocv_V, 1.0) *
                                  battery_V(plan, plan.batteries[k]) / 12;
            if (lithium && p.battery_C[k] < 0 && p.battery_V[k] > full_V) b.colder_s += next.t_s - p.t_s;
        }
        if (!run.points.empty()) b.begin = run.points.front().charge[k], b.end = run.points.back().charge[k];
        v.batteries.push_back(b);
    }
}

// Loads that are dead in a state however full the batteries are: a matter of the wiring, not of the day.
std::vector<char> dead_anyway(const Plan& plan, std::size_t state) {
    State full = plan.states[state];
    full.charge = 1;
    OperatingPointSolver solver;
    const Solution s = solve(plan, full, solver);
    std::vector<char> dead;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) dead.push_back(is_dark(s.point.loads[k].status));
    return dead;
}

void look_for_dark(const Plan& plan, const DayRun& run, DayVerdicts& v) {
    std::vector<std::vector<char>> anyway(plan.states.size());
    for (const DayPoint& p : run.points)
        if (anyway[p.state].empty()) anyway[p.state] = dead_anyway(plan, p.state);
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        DarkLoad d;
        d.load = plan.loads[k].id;
        d.critical = plan.loads[k].critical;
        for (std::size_t n = 0; n + 1 < run.points.size(); ++n) {
            if (!is_dark(run.points[n].load[k]) || anyway[run.points[n].state][k]) continue;
            if (d.seconds == 0) d.from_s = run.points[n].t_s;
            d.seconds += run.points[n + 1].t_s - run.points[n].t_s;
        }
        if (d.seconds > 0) v.dark.push_back(d);
    }
    std::stable_sort(v.dark.begin(), v.dark.end(),
                     [](const DarkLoad& a, const DarkLoad& b) { return a.seconds > b.seconds; });
}

void look_at_starts(const Plan& plan, const Day& day, const DayRun& run, bool quick, DayVerdicts& v) {
    double last = -1e9;
    std::size_t state = plan.states.size();
    Cranking as_entered(plan), as_worn(plan, kWorn);
    for (std::size_t n = 0; n < run.points.size(); ++n) {
        const DayPoint& p = run.points[n];
        const bool stands = plan.states[p.state].rpm <= 0;
        const bool ends = n + 1 == run.points.size() || run.points[n + 1].state != p.state;
        const bool due =
            p.t_s - last >= (quick ? kQuickCrank_s : kCrankEvery_s) || (p.state != state && !quick) || ends;
        state = p.state;
        if (!stands || !due) continue;
        last = p.t_s;
        CrankMoment m{p.charge, p.battery_C, 20};
        const auto stretch = Stretch{0, 0, day.parts.size(), p.state};
        m.engine_C = state_at(plan, day, stretch, p.t_s).ambient_C;
        const auto now = as_entered.at(m), worn = quick ? now : as_worn.at(m);
        if (!now || !worn) return;
        v.cranks.push_back({p.t_s, *now, *worn});
        if (!v.worst_crank || now->margin_V() < v.cranks[*v.worst_crank].as_entered.margin_V())
            v.worst_crank = v.cranks.size() - 1;
    }
}

// What a person who stands there draws, for "stop at how many volts".
void look_at_standing(const Plan& plan, const DayRun& run, DayVerdicts& v) {
    if (v.cranks.empty()) return;
    const Battery* b = find(plan.batteries, v.cranks.front().as_entered.battery);
    const auto k = static_cast<std::size_t>(b - plan.batteries.data());
    double charge = 0, seconds = 0;
    v.standing_C = 1e9;
    for (std::size_t n = 0; n + 1 < run.points.size(); ++n) {
        const DayPoint& p = run.points[n];
        if (plan.states[p.state].rpm > 0 || plan.states[p.state].key == Key::crank) continue;
        const double s = run.points[n + 1].t_s - p.t_s;
        charge += std::max(0.0, p.battery_A[k]) * s, seconds += s;
        v.standing_C = std::min(v.standing_C, p.battery_C[k]);
    }
    if (seconds > 0) v.standing_A = charge / seconds;
    if (v.standing_C > 1e8) v.standing_C = 20;
}

}  // namespace

DayVerdicts verdicts(const Plan& plan, const Day& day, const DayRun& run, bool quick) {
    DayVerdicts v;
    look_at_batteries(plan, run, v);
    look_for_dark(plan, run, v);
    look_at_starts(plan, day, run, quick, v);
    if (!quick) look_at_standing(plan, run, v);
    for (const DayEvent& e : run.events) {
        if (e.kind == DayEventKind::hunts) v.hunting.push_back(e.id);
        const Device* d = e.kind == DayEventKind::opens ? find_device(plan, e.id) : nullptr;
        const bool cutoff =
            (d && d->kind == DeviceKind::cutoff) ||
            (e.kind == DayEventKind::opens && (find(plan.inverters, e.id) || find(plan.points, e.id)));
        if (!cutoff) continue;
        const auto known =
            std::find_if(v.trips.begin(), v.trips.end(), [&](const auto& t) { return t.first == e.id; });
        if (known == v.trips.end())
            v.trips.emplace_back(e.id, 1);
        else
            ++known->second;
    }
    return v;
}

namespace {

// Losses that shrink by the same share each day have a sum: the secant step to where they end.
void towards_settled(const std::vector<double>& loss, const std::vector<double>& before,
                     const std::vector<CellModel>& models, std::vector<CellState>& cells) {
    for (std::size_t k = 0; k < cells.size(); ++k) {
        const double ratio = std::abs(before[k]) > 1e-4 ? loss[k] / before[k] : 0;
        if (ratio <= 0.05 || ratio >= 0.95) continue;
        const double now = cells[k].charge(models[k]);
        const double to = std::clamp(now - loss[k] * ratio / (1 - ratio), 0.02, 1.0);
        cells[k].available_Ah *= to / now, cells[k].bound_Ah *= to / now;
    }
}

}  // namespace

DayAfterDay day_after_day(const Plan& plan, const Day& day, int most_days, const std::atomic<bool>* stop,
                          double tolerance, bool first_failure_ends) {
    DayAfterDay all;
    DayOptions options;
    options.stop = stop;
    options.tolerance = tolerance;
    std::vector<double> loss_before;
    for (int n = 1; n <= most_days && !(stop && *stop); ++n) {
        all.last = run_day(plan, day, options);
        const DayRun& run = all.last;
        if (!run.whole) break;
        all.days = n;
        const DayVerdicts v = verdicts(plan, day, run, true);
        if (v.worst_crank && !all.no_start_on)
            for (const CrankPoint& c : v.cranks)
                if (!c.as_entered.cranks()) {
                    all.no_start_on = n, all.no_start_s = c.t_s, all.no_start_battery = c.as_entered.battery;
                    break;
                }
        for (const DarkLoad& d : v.dark)
            if (d.critical && !all.dark_on) all.dark_on = n, all.dark_s = d.from_s, all.dark_load = d.load;
        if (first_failure_ends && (all.no_start_on || all.dark_on)) break;
        double most = 0;
        all.settled.clear();
        all.last_loss.clear();
        for (std::size_t k = 0; k < run.end.size(); ++k) {
            const double begin = run.begin[k].charge(run.models[k]), end = run.end[k].charge(run.models[k]);
            if (n == 1) all.first_loss.push_back(begin - end);
            all.last_loss.push_back(begin - end);
            all.settled.push_back(end);
            most = std::max(most, std::abs(begin - end));
        }
        if (first_failure_ends && most <= kSettles) {
            all.returns = true;
            break;
        }
        options.from = run.end;
        for (CellState& c : options.from) c.lost_Ah = 0;
        if (first_failure_ends && n > 1)
            towards_settled(all.last_loss, loss_before, run.models, options.from);
        loss_before = all.last_loss;
        if (most <= kSame) {
            all.returns = true;
            break;
        }
    }
    return all;
}

}  // namespace yr
