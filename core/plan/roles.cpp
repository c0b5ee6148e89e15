#include "plan/roles.h"

#include <algorithm>

namespace yr {

StateRole role_of(const State& state) {
    if (state.role) return *state.role;
    if (state.key == Key::crank) return StateRole::cranking;
    return state.key == Key::off ? StateRole::parked : StateRole::working;
}

bool stands(const State& state) {
    const StateRole role = role_of(state);
    return (role == StateRole::parked || role == StateRole::towed) && state.rpm <= 0;
}

bool passes(const State& state) {
    return role_of(state) == StateRole::passing;
}

const State* state_of_role(const Plan& plan, StateRole role) {
    for (const State& s : plan.states)
        if (role_of(s) == role) return &s;
    return nullptr;
}

std::vector<const Load*> never_asked(const Plan& plan) {
    std::vector<const Load*> never;
    for (const Load& l : plan.loads) {
        const Inverter* behind = find(plan.inverters, l.inverter);
        const bool asked = std::any_of(plan.states.begin(), plan.states.end(), [&](const State& s) {
            return holds(l.live_when, s) && (!behind || holds(behind->works_when, s));
        });
        if (!asked && !l.starter) never.push_back(&l);
    }
    return never;
}

const State& opening_state(const Plan& plan) {
    if (const State* idle = state_of_role(plan, StateRole::idling)) return *idle;
    for (const State& s : plan.states)
        if (s.rpm > 0) return s;
    return plan.states.front();
}

bool is_made(const Plan& plan, const Run& run) {
    return std::any_of(plan.marks.begin(), plan.marks.end(), [&](const Mark& m) {
        return (m.name == "made" || m.name == "laid" || m.name == "connected") &&
               (m.about == run.id || m.about == run.id + ".from" || m.about == run.id + ".to");
    });
}

bool size_is_open(const Plan& plan, const Run& run) {
    return !run.body_metal && !run.resistance_ohm && !run.pinned && !is_made(plan, run);
}

}  // namespace yr
