#include "survey/simulate.h"

#include <algorithm>

#include "plan/rail_volts.h"
#include "solve/results.h"
#include "solve/settle.h"

namespace yr {
namespace {

// Just after charging a battery's surface stands about 0.4 V above its rest (common practice): the same
// battery with cells that much higher.
constexpr double kSurfaceCharge = 1.033;

Plan with_surface_charge(Plan plan) {
    for (Battery& b : plan.batteries) b.nominal_V = battery_V(plan, b) * kSurfaceCharge;
    return plan;
}

void add_draw(Plan& plan, const Terminal& at, double amps) {
    Load l;
    l.id = "the-draw";
    l.name = "draw";
    l.draw = {DrawKind::current, amps};
    plan.loads.push_back(l);
    const std::string owner(owner_of(at));
    const bool battery = find(plan.batteries, owner) != nullptr;
    Run there, back;
    there.id = "the-draw-there", there.from = at, there.to = "the-draw.pos", there.resistance_ohm = 1e-3;
    back.id = "the-draw-back", back.from = "the-draw.neg", back.resistance_ohm = 1e-3;
    back.to = battery ? neg_of(owner) : neg_of(plan.batteries.front().id);
    plan.runs.push_back(there);
    plan.runs.push_back(back);
}

// Relays that were closed with the engine running come closed into the minute after it.
Solution solve_key(const Plan& plan, SurveyKey key) {
    if (key != SurveyKey::after) return solve(plan, state_of(plan, key));
    State after = state_of(plan, SurveyKey::off);
    const Solution before = solve(plan, state_of(plan, SurveyKey::running));
    for (std::size_t k = 0; k < before.memories.size(); ++k)
        if (before.memories[k].closed) after.closed.push_back(before.network.memories[k].id);
    return solve(with_surface_charge(plan), after);
}

// A sensing relay waits before it acts, and the draw is read within that time: it stands as it stood.
void hold_relays(Plan& plan, const Solution& before) {
    for (Run& r : plan.runs)
        for (Device& d : r.devices) {
            if (d.kind != DeviceKind::sensing_relay) continue;
            bool closed = false;
            for (std::size_t k = 0; k < before.memories.size(); ++k)
                if (before.network.memories[k].id == d.id) closed = before.memories[k].closed;
            d.kind = DeviceKind::switching;
            if (!closed) d.closed_when.switches.push_back("held open");
        }
}

}  // namespace

State state_of(const Plan& plan, SurveyKey key) {
    const auto wanted = [&](const State& s) {
        switch (key) {
            case SurveyKey::off:
            case SurveyKey::after:
                return s.key == Key::off && s.rpm <= 0;
            case SurveyKey::accessory:
                return s.key == Key::accessory && s.rpm <= 0;
            case SurveyKey::running:
                return s.rpm > 0;
        }
        return false;
    };
    const State* best = nullptr;  // running: the fastest, so that the supply is not at its limit
    for (const State& s : plan.states)
        if (wanted(s) && (!best || (key == SurveyKey::running && s.rpm > best->rpm))) best = &s;
    if (best) return *best;
    State made = plan.states.front();  // the plan has no such state: its first, at that key
    made.key = key == SurveyKey::accessory ? Key::accessory
               : key == SurveyKey::running ? Key::ignition
                                           : Key::off;
    made.rpm = key == SurveyKey::running ? 1200 : 0;
    return made;
}

Result<double> read_volts(const Plan& plan, const Probe& probe) {
    Plan held = plan;
    if (held.batteries.empty())
        return fail(ErrorCode::missing_reference, "battery", {}, Want::a_plan_with_a_battery);
    const Terminal black = probe.black.empty() ? neg_of(held.batteries.front().id) : probe.black;
    const Network net = compile(plan, plan.states.front());
    if (probe.red.empty())
        return fail(ErrorCode::missing_reference, "probe", {}, Want::a_terminal_of_this_vehicle);
    for (const Terminal* t : {&probe.red, &black, &probe.drawn_at})
        if (!t->empty() && std::find(net.nodes.begin(), net.nodes.end(), *t) == net.nodes.end())
            return fail(ErrorCode::missing_reference, "probe", t->text(), Want::a_terminal_of_this_vehicle);
    if (!probe.drawn_at.empty()) {
        hold_relays(held, solve_key(plan, probe.key));
        add_draw(held, probe.drawn_at, probe.draw_A);
    }
    const Solution s = solve_key(held, probe.key);
    const auto volts = [&](const Terminal& t) {
        const auto& nodes = s.network.nodes;
        return s.point
            .node_V[static_cast<std::size_t>(std::find(nodes.begin(), nodes.end(), t) - nodes.begin())];
    };
    return volts(probe.red) - volts(black);
}

bool truly_joined(const Plan& plan, const Terminal& a, const Terminal& b, SurveyKey key) {
    Solution s = solve_key(plan, key);
    for (ConductorElement& c : s.network.conductors)
        if (c.forward_V > 0) c.closed = false;
    const auto groups = conductor_groups(s.network);
    const auto group = [&](const Terminal& t) {
        const auto& nodes = s.network.nodes;
        return groups[static_cast<std::size_t>(std::find(nodes.begin(), nodes.end(), t) - nodes.begin())];
    };
    return group(a) == group(b);
}

}  // namespace yr
