#include "fabricate/symptoms.h"

#include <algorithm>
#include <iterator>
#include <map>
#include <set>

#include "catalog/assumptions.h"
#include "solve/settle.h"

namespace yr {
namespace {

constexpr double kOpen_ohm = 1000;

// For each state the loads that run, those that should and do not.
struct Seen {
    std::vector<std::set<Id>> runs, dead;  // by state
    std::vector<char> solved;
};

Seen look(const Plan& plan) {
    Seen seen;
    OperatingPointSolver solver;
    const double share = assumption("served_share").value;
    for (const State& state : plan.states) {
        const Solution s = solve(plan, state, solver);
        std::set<Id> runs, dead;
        for (std::size_t k = 0; k < plan.loads.size() && s.point.settled; ++k) {
            const Load& l = plan.loads[k];
            const LoadResult& r = s.point.loads[k];
            if (!s.network.loads[k].expected || l.later) continue;
            bool on = r.status == LoadStatus::on &&
                      r.voltage_V >= l.least_V.value_or(share * plan.vehicle.nominal_V);
            if (s.network.loads[k].inverter >= 0) on = r.status == LoadStatus::on;
            (on ? runs : dead).insert(l.id);
        }
        seen.runs.push_back(std::move(runs));
        seen.dead.push_back(std::move(dead));
        seen.solved.push_back(s.point.settled);
    }
    return seen;
}

std::vector<Break> breaks_of(const Plan& plan) {
    std::vector<Break> all;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices) {
            if (d.kind == DeviceKind::fuse) all.push_back({BreakKind::fuse, d.id});
            if (d.kind == DeviceKind::switching || d.kind == DeviceKind::sensing_relay)
                all.push_back({BreakKind::relay, d.id});
        }
    for (const Point& p : plan.points)
        if (p.kind == PointKind::ground) all.push_back({BreakKind::ground, p.id});
    for (const Connector& c : plan.connectors) all.push_back({BreakKind::connector, c.id});
    for (const Run& r : plan.runs) all.push_back({BreakKind::cable, r.id});
    return all;
}

}  // namespace

Plan broken(const Plan& plan, const Break& what) {
    Plan p = plan;
    const auto open = [](Run& r) { r.resistance_ohm = kOpen_ohm; };
    switch (what.kind) {
        case BreakKind::fuse:
            for (State& s : p.states) s.pulled.push_back(what.id);
            break;
        case BreakKind::relay:
            for (Run& r : p.runs)
                if (std::any_of(r.devices.begin(), r.devices.end(),
                                [&](const Device& d) { return d.id == what.id; }))
                    open(r);
            break;
        case BreakKind::ground:
            for (Point& g : p.points)
                if (g.id == what.id) g.bond_ohm = kOpen_ohm;
            break;
        case BreakKind::connector:
            for (Run& r : p.runs)
                if (std::any_of(r.pins.begin(), r.pins.end(),
                                [&](const PinUse& u) { return u.connector == what.id; }))
                    open(r);
            break;
        case BreakKind::cable:
            for (Run& r : p.runs)
                if (r.id == what.id) open(r);
            break;
    }
    return p;
}

std::vector<Symptom> symptoms(const Plan& plan, const std::atomic<bool>* stop) {
    const Seen sound = look(plan);
    // by what dies in each state: the picture
    std::map<std::vector<std::set<Id>>, Symptom> pictures;
    for (const Break& b : breaks_of(plan)) {
        if (stop && *stop) break;
        const Seen now = look(broken(plan, b));
        std::vector<std::set<Id>> dies(plan.states.size());
        bool any = false;
        for (std::size_t s = 0; s < plan.states.size(); ++s) {
            if (!now.solved[s] || !sound.solved[s]) continue;
            std::set_intersection(now.dead[s].begin(), now.dead[s].end(), sound.runs[s].begin(),
                                  sound.runs[s].end(), std::inserter(dies[s], dies[s].end()));
            any = any || !dies[s].empty();
        }
        if (any) pictures[dies].where.push_back(b);
    }
    std::vector<Symptom> all;
    for (auto& [dies, symptom] : pictures) {
        std::set<Id> dead, alive;
        std::size_t most = 0;
        for (std::size_t s = 0; s < dies.size(); ++s) {
            if (dies[s].empty()) continue;
            symptom.states.push_back(plan.states[s].id);
            dead.insert(dies[s].begin(), dies[s].end());
            if (dies[s].size() > most) {
                most = dies[s].size(), symptom.tells = plan.states[s].id;
                alive.clear();
                std::set_difference(sound.runs[s].begin(), sound.runs[s].end(), dies[s].begin(),
                                    dies[s].end(), std::inserter(alive, alive.end()));
            }
        }
        symptom.dead.assign(dead.begin(), dead.end());
        // those alive tell something where they hang on the same feed, box or ground
        std::set<Id> near;
        const auto shares = [&](const Id& load) {
            for (const Run& r : plan.runs)
                if (r.to.owner == load || r.from.owner == load) {
                    const Id& other = r.to.owner == load ? r.from.owner : r.to.owner;
                    if (near.contains(other)) return true;
                }
            return false;
        };
        for (const Run& r : plan.runs) {
            if (dead.contains(r.to.owner)) near.insert(r.from.owner);
            if (dead.contains(r.from.owner)) near.insert(r.to.owner);
        }
        for (const Id& l : alive)
            if (!dead.contains(l) && shares(l)) symptom.alive.push_back(l);
        std::stable_sort(symptom.where.begin(), symptom.where.end(),
                         [](const Break& a, const Break& b) { return a.kind < b.kind; });
        all.push_back(std::move(symptom));
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const Symptom& a, const Symptom& b) { return a.dead.size() > b.dead.size(); });
    return all;
}

}  // namespace yr
