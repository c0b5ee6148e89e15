// Rules about what opens and closes: chatter, positions that hang on the past, master disconnects that leave
// something alive, relays that the alternator's regulation keeps from closing.
#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "inspect/rules.h"

namespace yr {
namespace {

constexpr std::size_t kMostListed = 6;  // devices for which every position is tried while findings are made

void chatter(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Solution& sol = c.solutions[s];
    for (std::size_t k = 0; k < sol.memories.size(); ++k)
        if (sol.memories[k].chatters)
            keep_worst(
                out, from,
                make_finding(FindingKind::chatters, Severity::fix, sol.network.memories[k].id, {},
                             c.plan.states[s].id, sol.memories[k].sensed_V, sol.network.memories[k].open_V));
}

// The network before anything with a memory moved: as compile() gives it.
void several_settled(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Solution& sol = c.solutions[s];
    if (sol.memories.empty() || sol.memories.size() > kMostListed || sol.chatter) return;
    OperatingPointSolver solver;
    const Network net = compile(c.plan, c.plan.states[s]);
    const auto settled = settled_positions(net, solver);
    for (std::size_t k = 0; k < sol.memories.size(); ++k) {
        const bool both = std::any_of(settled.begin(), settled.end(), [&](const Positions& p) {
            return (p[k] != 0) != sol.memories[k].closed;
        });
        const MemoryElement& m = net.memories[k];
        if (both && m.kind != MemoryKind::coil)
            keep_worst(out, from,
                       make_finding(FindingKind::stands_as_it_came, Severity::note, m.id, {},
                                    c.plan.states[s].id, sol.memories[k].sensed_V, m.close_V));
    }
}

struct Alive {
    std::vector<Id> things;
    Id state;
};

// Opens every master disconnect and asks what still runs, turning alternators included.
Alive alive_in(const Case& c, std::size_t s) {
    // whoever turns the master's switch off turns off what else hangs on that switch: a second pole
    State off = c.plan.states[s];
    for (const Run& r : c.plan.runs)
        for (const Device& d : r.devices)
            if (d.master)
                for (const std::string& name : d.closed_when.switches) std::erase(off.switches, name);
    Network net = compile(c.plan, off);
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k)
        for (const Device& d : c.plan.runs[k].devices)
            if (d.master) net.conductors[k].closed = false;
    OperatingPointSolver solver;
    const Solution sol = settle(std::move(net), solver);
    Alive alive{{}, c.plan.states[s].id};
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k)
        if (sol.point.loads[k].status == LoadStatus::on) alive.things.push_back(c.plan.loads[k].id);
    for (std::size_t k = 0; k < c.plan.inverters.size(); ++k)
        if (sol.point.loads[c.plan.loads.size() + k].status == LoadStatus::on)
            alive.things.push_back(c.plan.inverters[k].id);
    for (std::size_t k = 0; k < c.plan.sources.size(); ++k)
        if (sol.point.sources[k].current_A > 0.05) alive.things.push_back(c.plan.sources[k].id);
    return alive;
}

void master_open(const Case& c, std::vector<Finding>& out) {
    const Device* master = nullptr;
    const Run* on = nullptr;
    for (const Run& r : c.plan.runs)
        for (const Device& d : r.devices)
            if (d.master && !master) master = &d, on = &r;
    if (!master) return;
    Alive worst;
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        if (c.plan.states[s].key == Key::crank) continue;
        Alive here = alive_in(c, s);
        if (here.things.size() > worst.things.size()) worst = std::move(here);
    }
    if (worst.things.empty()) return;
    out.push_back(make_finding(FindingKind::alive_with_master_open, Severity::fix, master->id,
                               worst.things.front(), worst.state, static_cast<double>(worst.things.size())));
    if (c.with_mends) out.back().candidates = behind_the_master(c.plan, on->id, master->id);
}

void relay_defeated(const Case& c, std::vector<Finding>& out) {
    for (const Run& r : c.plan.runs)
        for (const Device& d : r.devices) {
            if (d.kind != DeviceKind::sensing_relay) continue;
            const double close_V =
                d.close_V.value_or(assumption("relay_close_V").value * c.plan.vehicle.nominal_V / 12);
            for (const Source& s : c.plan.sources)
                if (s.least_V && *s.least_V < close_V)
                    out.push_back(make_finding(FindingKind::relay_defeated, Severity::fix, d.id, s.id, {},
                                               *s.least_V, close_V));
        }
}

}  // namespace

void inspect_switching(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    master_open(c, out);
    relay_defeated(c, out);
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        chatter(c, s, out, from);
        several_settled(c, s, out, from);
    }
}

}  // namespace yr
