#include "control/rails.h"

#include <algorithm>
#include <map>

#include "control/place_on.h"
#include "plan/additions.h"
#include "plan/rail_volts.h"

namespace yr {
namespace {

bool on_the_rail(const Load& l) {
    return !l.starter && l.inverter.empty();
}

// By feed: live or dead at each key position with the masters closed, and with `switches` on besides.
std::map<Id, LiveAt> live_feeds(const Plan& plan) {
    std::map<Id, LiveAt> live;
    OperatingPointSolver solver;
    for (std::size_t k = 0; k < kKeyPositions; ++k) {
        const Solution s = solve(plan, state_at(plan, kEveryKeyPosition[k], master_switches(plan)), solver);
        for (std::size_t n = 0; n < s.network.nodes.size(); ++n) {
            const Point* p = find(plan.points, s.network.nodes[n]);
            if (!p || !p->feeds_loads) continue;
            const double share = s.point.node_V[n] / rail_V(plan, Terminal(p->id));
            live[p->id][k] = share > 0.5 && share < 1.6;
        }
    }
    return live;
}

// What has no switch and no word of its own runs when the contact in its supply lets it: a timed outlet is
// not on the rail of what is always live.
Condition runs_when(const Plan& plan, const Load& l) {
    const Run* run = supply_run(plan, l.id);
    if (!run || l.own_switch || !(l.live_when == Condition{})) return l.live_when;
    for (const Device& d : run->devices) {
        if (d.kind != DeviceKind::switching || d.master) continue;
        const Load* coil = find(plan.loads, d.coil);
        const Condition& when = coil ? coil->live_when : d.closed_when;
        if (!(when == Condition{})) return when;
    }
    return l.live_when;
}

LiveAt positions_of(const Plan& plan, const Condition& when) {
    LiveAt live{};
    for (std::size_t k = 0; k < kKeyPositions; ++k)
        live[k] = holds(when, state_at(plan, kEveryKeyPosition[k], {}));
    return live;
}

}  // namespace

Condition rail_part(const Condition& c) {
    Condition rail = c;
    rail.switches.clear();
    rail.switches_off.clear();
    rail.delay_s.reset();
    for (Condition& any : rail.any_of) {
        any.switches.clear();
        any.switches_off.clear();
    }
    return rail;
}

RailGrouping group_rails(const Plan& plan) {
    RailGrouping g;
    for (const Load& l : plan.loads) {
        if (!on_the_rail(l)) continue;
        const Condition when = rail_part(runs_when(plan, l));
        auto group = std::find_if(g.groups.begin(), g.groups.end(),
                                  [&](const RailGroup& r) { return same_when(r.when, when); });
        if (group == g.groups.end()) group = g.groups.insert(group, RailGroup{when, {}, 0, 0, {}, {}});
        group->loads.push_back(l.id);
        group->amps += nominal_A(plan, l);
        group->start_A += start_A(plan, l);
        if (!switches_of(l.live_when).empty()) ++g.switched;
    }
    const auto live = live_feeds(plan);
    for (RailGroup& r : g.groups) {
        const LiveAt wanted = positions_of(plan, r.when);
        const bool measured = r.when.charging_above_V || !r.when.circuits.empty();
        for (const auto& [feed, at] : live)
            if (at == wanted && !measured) r.feeds.push_back(feed);
        for (const Id& id : r.loads) {
            const Run* run = supply_run(plan, id);
            if (!run || run->channel > 0) continue;  // a channel switches what its box does not
            if (live.contains(owner_of(run->from)) &&
                std::find(r.feeds.begin(), r.feeds.end(), run->from) == r.feeds.end())
                r.astray.push_back(id);
        }
        if (!same_when(r.when, Condition{})) ++g.relays;
    }
    std::stable_sort(g.groups.begin(), g.groups.end(),
                     [](const RailGroup& a, const RailGroup& b) { return a.loads.size() > b.loads.size(); });
    return g;
}

Result<Edit> make_rail(const Plan& plan, const RailGroup& group) {
    Plan work = plan;
    Batch batch;
    Id feed = group.feeds.empty() ? Id() : group.feeds.front();
    if (feed.empty()) {
        auto added = add_feed(plan, group.when);
        if (!added) return tl::unexpected(added.error());
        feed = added->id;
        if (auto done = yr::apply(work, added->edit); !done) return tl::unexpected(done.error());
        batch.edits.push_back(added->edit);
    }
    for (const Id& load : group.astray) {
        const Load& l = *find(work.loads, load);
        const Point& point = *find(work.points, feed);
        const int channel = fitting_channel(work, point, nominal_A(work, l), start_A(work, l));
        if (!point.channels.empty() && channel == 0) continue;  // the box is full
        auto moved = place_on(work, load, feed, channel, false);
        if (!moved) continue;  // one without a feed of its own stays where it is
        if (yr::apply(work, *moved)) batch.edits.push_back(*moved);
    }
    return Edit(std::move(batch));
}

Edit stagger_starts(const Plan& plan, const std::vector<Id>& loads, double step_s) {
    std::vector<const Load*> starters;
    for (const Id& id : loads)
        if (const Load* l = find(plan.loads, id); l && start_A(plan, *l) > nominal_A(plan, *l) * 1.001)
            starters.push_back(l);
    std::stable_sort(starters.begin(), starters.end(),
                     [&](const Load* a, const Load* b) { return start_A(plan, *a) > start_A(plan, *b); });
    Batch batch;
    for (std::size_t k = 0; k < starters.size(); ++k) {
        Load l = *starters[k];
        const double delay = static_cast<double>(k) * step_s;
        l.live_when.delay_s = delay > 0 ? std::optional(delay) : std::nullopt;
        batch.edits.emplace_back(Put<Load>{l, std::nullopt});
        const Run* run = supply_run(plan, l.id);
        const Device* driver = run ? channel_driver(plan, *run) : nullptr;
        if (!driver) continue;
        Run changed = *run;
        for (Device& d : changed.devices)
            if (d.id == driver->id) d.closed_when.delay_s = l.live_when.delay_s;
        batch.edits.emplace_back(Put<Run>{changed, std::nullopt});
    }
    return batch;
}

}  // namespace yr
