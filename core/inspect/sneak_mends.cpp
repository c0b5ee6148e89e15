#include "inspect/sneak_mends.h"

#include <algorithm>
#include <cmath>

#include "control/feed_tree.h"
#include "control/place_on.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr double kCarries_A = 1e-6;

// The largest current that enters (upstream) or leaves a net, as one step of the way.
struct Step {
    Id id;
    NodeIndex next = kNoNode;
    double amps = 0;
    bool load = false;
};

Step step_from(const Plan& plan, const Solution& s, NodeIndex node, bool upstream, std::size_t itself) {
    Step best;
    const auto offer = [&](const Id& id, NodeIndex high, NodeIndex low, double amps, bool load) {
        if ((upstream ? low : high) != node || amps < kCarries_A || amps <= best.amps) return;
        best = {id, upstream ? high : low, amps, load};
    };
    for (std::size_t k = 0; k < s.network.conductors.size(); ++k) {
        const ConductorElement& c = s.network.conductors[k];
        const double amps = s.point.conductors[k].current_A;
        const Id& id = c.run >= 0 ? plan.runs[at(c.run)].id : plan.points[at(c.ground_point)].id;
        if (amps >= 0)
            offer(id, c.from, c.to, amps, false);
        else
            offer(id, c.to, c.from, -amps, false);
    }
    for (std::size_t k = 0; k < s.network.plan_loads; ++k) {
        const LoadElement& l = s.network.loads[k];
        if (k == itself || l.inverter >= 0) continue;
        const double amps = s.point.loads[k].current_A;
        if (amps >= 0)
            offer(plan.loads[k].id, l.pos, l.neg, amps, true);
        else
            offer(plan.loads[k].id, l.neg, l.pos, -amps, true);
    }
    return best;
}

std::vector<Step> way(const Plan& plan, const Solution& s, NodeIndex from, bool upstream,
                      std::size_t itself) {
    std::vector<Step> steps;
    std::vector<char> seen(s.network.nodes.size(), 0);
    const auto is_end = [&](NodeIndex n) {
        for (const BatteryElement& b : s.network.batteries)
            if (n == (upstream ? b.pos : b.neg)) return true;
        return false;
    };
    for (NodeIndex n = from; n != kNoNode && !seen[at(n)] && !is_end(n);) {
        seen[at(n)] = 1;
        const Step step = step_from(plan, s, n, upstream, itself);
        if (step.id.empty()) break;
        steps.push_back(step);
        n = step.next;
    }
    return steps;
}

// What is open on the way that a load is meant to be fed by.
Id what_is_open(const Plan& plan, const Solution& s, const Load& load) {
    const Run* supply = supply_run(plan, load.id);
    std::vector<Id> runs{supply->id};
    const auto paths = feed_paths(plan);
    if (const auto path = paths.find(owner_of(supply->from)); path != paths.end())
        runs.insert(runs.begin(), path->second.runs.begin(), path->second.runs.end());
    for (const Id& id : runs) {
        const Run* run = find(plan.runs, id);
        const auto k = static_cast<std::size_t>(run - plan.runs.data());
        if (s.network.conductors[k].closed) continue;
        for (const Device& d : run->devices)
            if (d.kind != DeviceKind::fuse && d.kind != DeviceKind::diode) return d.id;
        return id;
    }
    return {};
}

bool clears(const Plan& plan, const SneakPath& path, const Edit& edit) {
    Plan trial = plan;
    if (!yr::apply(trial, edit)) return false;
    SneakAsk ask;
    ask.loads = {path.load};
    ask.with_mends = false;
    return search_sneaks(trial, ask).found.empty();
}

// A diode in a run that the current passes against its own sense, towards the load.
std::optional<SneakMend> diode_in(const Plan& plan, const SneakPath& path, const Run& run) {
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::diode) return std::nullopt;
    if (run.body_metal || run.resistance_ohm) return std::nullopt;
    Run guarded = run;
    Device d;
    d.id = new_id(plan, run.id + "-diode");
    d.name = run.name + " diode";
    d.kind = DeviceKind::diode;
    guarded.devices.push_back(d);
    SneakMend mend{SneakMendKind::diode, run.id, {}, Put<Run>{guarded, {}}};
    return clears(plan, path, mend.edit) ? std::optional(mend) : std::nullopt;
}

// A coil on the path, fed from where its own contact brings supply: with that off it has nothing to hold on
// to.
std::optional<SneakMend> coil_from_its_rail(const Plan& plan, const SneakPath& path, const Id& coil) {
    const Run* feed = supply_run(plan, coil);
    if (!feed) return std::nullopt;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices) {
            if (d.coil != coil || !find(plan.points, r.from) || r.from == feed->from) continue;
            auto edit = place_on(plan, coil, owner_of(r.from), 0, false);
            if (!edit) continue;
            SneakMend mend{SneakMendKind::coil_feed, feed->id, owner_of(r.from), *edit};
            if (clears(plan, path, mend.edit)) return mend;
        }
    return std::nullopt;
}

std::optional<SneakMend> return_of_its_own(const Plan& plan, const SneakPath& path, const Id& load) {
    for (const Run& r : plan.runs) {
        if (r.from != neg_of(load) || plan.batteries.empty()) continue;
        const Terminal home = neg_of(plan.batteries.front().id);
        if (r.to == home) return std::nullopt;
        Run own = r;
        own.to = home;
        own.devices.clear();
        SneakMend mend{SneakMendKind::own_return, r.id, {}, Put<Run>{own, {}}};
        if (clears(plan, path, mend.edit)) return mend;
    }
    return std::nullopt;
}

std::optional<SneakMend> feed_of_its_own(const Plan& plan, const SneakPath& path) {
    const Load& load = *find(plan.loads, path.load);
    const Run* now = supply_run(plan, path.load);
    const Point* here = now ? find(plan.points, now->from) : nullptr;
    std::vector<const Point*> feeds;
    for (const Point& p : plan.points)
        if (p.feeds_loads && &p != here) feeds.push_back(&p);
    const auto near = [&](const Point* p) {  // in the load's own place, else in that of its present feed
        return (p->place == load.place ? 2 : 0) + (here && p->place == here->place ? 1 : 0);
    };
    std::stable_sort(feeds.begin(), feeds.end(),
                     [&](const Point* a, const Point* b) { return near(a) > near(b); });
    for (const Point* point : feeds) {
        const Point& p = *point;
        const int channel =
            p.channels.empty() ? 0 : fitting_channel(plan, p, nominal_A(plan, load), start_A(plan, load));
        if (channel == 0 && !p.channels.empty()) continue;
        auto edit = place_on(plan, path.load, p.id, channel, false);
        if (!edit) continue;
        SneakMend mend{SneakMendKind::own_feed, now ? now->id : Id(), p.id, *edit};
        if (clears(plan, path, mend.edit)) return mend;
    }
    return std::nullopt;
}

}  // namespace

void trace_path(const Plan& plan, const Solution& s, std::size_t load, SneakPath& path) {
    if (path.kind == SneakKind::dead) {
        path.through = what_is_open(plan, s, plan.loads[load]);
        return;
    }
    const auto up = way(plan, s, s.network.loads[load].pos, true, load);
    const auto down = way(plan, s, s.network.loads[load].neg, false, load);
    for (auto step = up.rbegin(); step != up.rend(); ++step) path.path.push_back(step->id);
    path.path.push_back(path.load);
    for (const Step& step : down) path.path.push_back(step.id);
    for (const auto* list : {&up, &down})
        for (const Step& step : *list)
            if (step.load && path.through.empty()) path.through = step.id;
    if (!path.through.empty()) return;
    const std::vector<Id> own = own_fuses(plan, plan.loads[load]);
    for (const Step& step : up)  // a fuse that is not its own carries it
        if (const Run* run = find(plan.runs, step.id))
            for (const Device& d : run->devices)
                if (d.kind == DeviceKind::fuse && path.through.empty() &&
                    std::find(own.begin(), own.end(), d.id) == own.end())
                    path.through = d.id;
    if (const Run* supply = supply_run(plan, path.load); supply && path.through.empty())
        path.through = Id(owner_of(supply->from));
}

void add_mends(const Plan& plan, SneakPath& path) {
    const auto take = [&](std::optional<SneakMend> mend) {
        if (mend) path.mends.push_back(std::move(*mend));
    };
    for (const Id& id : path.path)
        if (find(plan.loads, id)) take(coil_from_its_rail(plan, path, id));
    if (path.kind != SneakKind::dead)
        for (const Id& id : path.path)
            if (const Run* run = find(plan.runs, id); run && path.mends.size() < 2)
                take(diode_in(plan, path, *run));
    if (path.mends.size() < 2)
        for (const Id& id : path.path)
            if (find(plan.loads, id) && path.mends.size() < 3) take(return_of_its_own(plan, path, id));
    if (path.mends.empty()) take(feed_of_its_own(plan, path));
}

}  // namespace yr
