#include "day/remedies.h"

#include <algorithm>
#include <functional>

#include "plan/additions.h"
#include "plan/variant.h"
#include "units/at_once.h"

namespace yr {
namespace {

constexpr int kDays = 7;  // that are run to see whether it lasts
constexpr int kHalvings = 4;
constexpr int kWeeks = 21;  // days in a row for which what is offered is tried
constexpr int kSteps = 3;   // of a sixteenth that are added where it fails

// The plan with so much of a remedy, 0..1 of the most that is tried; nullopt: it has none of that kind.
using Change = std::function<std::optional<Plan>(double)>;

// The battery that sinks lowest.
std::size_t lowest(const DayRun& run) {
    std::size_t worst = 0;
    double least = 2;
    for (const DayPoint& p : run.points)
        for (std::size_t k = 0; k < p.charge.size(); ++k)
            if (p.charge[k] < least) least = p.charge[k], worst = k;
    return worst;
}

Change more_capacity(const Plan& plan, std::size_t k, double& before) {
    before = compile(plan, plan.states.front()).batteries[k].capacity_Ah;
    return [&plan, k, before](double x) -> std::optional<Plan> {
        Plan p = plan;
        Battery& b = p.batteries[k];
        const double times = 1 + 3 * x;
        b.capacity_Ah = before / b.health.value_or(1) * times;
        if (b.cranking_A) b.cranking_A = *b.cranking_A * times;
        if (b.R0_ohm) b.R0_ohm = *b.R0_ohm / times;
        if (b.reserve_min) b.reserve_min.reset();
        return p;
    };
}

Change more_sun(const Plan& plan, Id& panel, double& before) {
    Plan with = plan;
    for (const Source& s : plan.sources)
        if (s.kind == SourceKind::solar) panel = s.id, before = s.panel_W.value_or(100);
    if (panel.empty()) {
        const auto added = add_solar(plan);
        if (!added || !yr::apply(with, added->edit)) return nullptr;
        panel = added->id, before = 0;
    }
    return [with, panel, before](double x) -> std::optional<Plan> {
        Plan p = with;
        for (Source& s : p.sources)
            if (s.id == panel) {
                s.panel_W = std::max(1.0, before + 600 * x);
                if (s.rated_A) s.rated_A = std::max(*s.rated_A, *s.panel_W / 12);
            }
        return p;
    };
}

// More of what turns the engine, less of what stands longest.
Change more_engine(const Plan& plan, const Id& day, Id& state, double& before) {
    const Day* d = find(plan.days, day);
    std::size_t runs = d->parts.size(), stands = d->parts.size();
    for (std::size_t k = 0; k < d->parts.size(); ++k) {
        const State* s = find(plan.states, d->parts[k].state);
        if (!s || d->parts[k].within) continue;
        if (s->rpm > 0 && (runs == d->parts.size() || d->parts[k].length_s > d->parts[runs].length_s))
            runs = k;
        if (s->rpm <= 0 && (stands == d->parts.size() || d->parts[k].length_s > d->parts[stands].length_s))
            stands = k;
    }
    if (runs == d->parts.size() || stands == d->parts.size()) return nullptr;
    state = d->parts[runs].state, before = d->parts[runs].length_s;
    return [&plan, day, runs, stands](double x) -> std::optional<Plan> {
        Plan p = plan;
        for (Day& other : p.days)
            if (other.id == day) {
                const double more = std::min(4 * 3600 * x, other.parts[stands].length_s * 0.9);
                other.parts[runs].length_s += more, other.parts[stands].length_s -= more;
            }
        return p;
    };
}

double watts(const Plan& plan, const Load& l) {
    const double V = plan.vehicle.nominal_V;
    const double one = l.draw.kind == DrawKind::power     ? l.draw.value
                       : l.draw.kind == DrawKind::current ? l.draw.value * V
                                                          : V * V / std::max(1e-6, l.draw.value);
    return one * l.count * l.duty.value_or(1);
}

// The load that takes most over the day while the engine stands.
Change less_draw(const Plan& plan, const DayRun& run, Id& load, double& before) {
    std::vector<double> taken(plan.loads.size(), 0);
    for (std::size_t n = 0; n + 1 < run.points.size(); ++n)
        for (std::size_t k = 0; k < plan.loads.size(); ++k)
            if (run.points[n].load[k] == LoadStatus::on && plan.states[run.points[n].state].rpm <= 0)
                taken[k] += watts(plan, plan.loads[k]) * (run.points[n + 1].t_s - run.points[n].t_s);
    const auto most = std::max_element(taken.begin(), taken.end());
    if (most == taken.end() || *most <= 0) return nullptr;
    const auto k = static_cast<std::size_t>(most - taken.begin());
    load = plan.loads[k].id, before = plan.loads[k].duty.value_or(1);
    return [&plan, k, before](double x) -> std::optional<Plan> {
        Plan p = plan;
        p.loads[k].duty = before * (1 - 0.95 * x);
        return p;
    };
}

}  // namespace

DayAfterDay days_until_clear(const Plan& plan, const Day& day, const std::atomic<bool>* stop) {
    return day_after_day(plan, day, kDays, stop, 10, true);
}

bool lasts(const DayAfterDay& all) {
    if (all.days == 0 || all.no_start_on || all.dark_on) return false;
    // what still sinks after so many days goes down sooner or later
    return all.returns || std::all_of(all.last_loss.begin(), all.last_loss.end(),
                                      [](double loss) { return loss <= kSettles; });
}

bool lasts(const Plan& plan, const Day& day, const std::atomic<bool>* stop) {
    return lasts(days_until_clear(plan, day, stop));
}

namespace {

// One way to make it last: how it changes the plan by a share from nothing to the most, and what that is.
struct Try {
    DayRemedy remedy;
    Change change;  // empty: it does not offer itself
    std::function<double(double)> value;
};

// What changes the vehicle least comes first. `run`: the day as it goes without any of it.
std::vector<Try> all_tries(const Plan& plan, const Day& day, const DayRun& run) {
    std::vector<Try> all;
    double before = 0;
    Id about;
    const auto add = [&](DayRemedyKind kind, Change change,
                         const std::function<double(double, double)>& value) {
        all.push_back({{kind, about, 0, before}, std::move(change), [value, before](double x) {
                           return value(before, x);
                       }});
        before = 0, about.clear();
    };
    Change change = more_engine(plan, day.id, about, before);
    add(DayRemedyKind::engine_time, std::move(change), [](double, double x) { return 4 * 3600 * x; });
    const std::size_t k = lowest(run);
    change = more_capacity(plan, k, before);
    about = plan.batteries[k].id;
    add(DayRemedyKind::capacity, std::move(change), [](double b, double x) { return b * (1 + 3 * x); });
    change = more_sun(plan, about, before);
    add(DayRemedyKind::panel, std::move(change), [](double b, double x) { return b + 600 * x; });
    change = less_draw(plan, run, about, before);
    add(DayRemedyKind::less_draw, std::move(change), [](double b, double x) { return b * (1 - 0.95 * x); });
    return all;
}

// To a sixteenth of its range.
DayRemedy solved(const Plan& plan, const Id& id, const Try& t, const std::atomic<bool>* stop) {
    DayRemedy r = t.remedy;
    const auto good = [&](double x) {
        const auto p = t.change(x);
        return p && lasts(*p, *find(p->days, id), stop);
    };
    double low = 0, high = 1;
    r.does_it = good(1);
    for (int k = 0; k < kHalvings && r.does_it; ++k) (good((low + high) / 2) ? high : low) = (low + high) / 2;
    // found coarsely and by jumps: what is offered holds day by day as well, or a little more of it does
    const auto holds_for_weeks = [&](double x) {
        const auto p = t.change(x);
        const DayAfterDay all = day_after_day(*p, *find(p->days, id), kWeeks, stop, 3);
        return all.days > 0 && !all.no_start_on && !all.dark_on;
    };
    for (int k = 0; r.does_it && !holds_for_weeks(high); ++k) {
        r.does_it = high < 1 && k < kSteps;
        high = std::min(1.0, high + 1.0 / 16);
    }
    r.value = t.value(high);
    if (r.does_it) r.edit = edit_between(plan, *t.change(high));
    return r;
}

}  // namespace

std::vector<DayRemedy> what_would_make_it_last(const Plan& plan, const Id& id, const std::atomic<bool>* stop,
                                               bool first_that_does) {
    std::vector<DayRemedy> table;
    const Day* day = find(plan.days, id);
    if (!day) return table;
    const DayAfterDay as_it_is = days_until_clear(plan, *day, stop);
    if (lasts(as_it_is) || as_it_is.days == 0) return table;
    std::vector<Try> tries = all_tries(plan, *day, as_it_is.last);
    std::erase_if(tries, [](const Try& t) { return !t.change; });
    if (first_that_does) {
        for (const Try& t : tries) {
            if (stop && *stop) break;
            table.push_back(solved(plan, id, t, stop));
            if (table.back().does_it) break;
        }
    } else {
        table.resize(tries.size());
        at_once(
            tries.size(), [&](std::size_t k) { table[k] = solved(plan, id, tries[k], stop); }, stop);
    }
    if (stop && *stop) table.clear();
    return table;
}

}  // namespace yr
