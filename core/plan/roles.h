// What a state stands for. Logic asks for the role, never for a name: a person may call it what they like.
#pragma once

#include "plan/plan.h"

namespace yr {

// The stated role, or what key and engine say: key off is parked, crank is cranking, all else works.
[[nodiscard]] StateRole role_of(const State& state);

// Parked or towed: the engine stands and what draws empties the battery for hours or days.
[[nodiscard]] bool stands(const State& state);

// Over within seconds or minutes (a relay's hold, a lift going up): nobody is told what it would empty or
// heat in the long run.
[[nodiscard]] bool passes(const State& state);

// The first state of that role; nullptr where there is none.
[[nodiscard]] const State* state_of_role(const Plan& plan, StateRole role);

// Loads (but starters) for which no state sets key, engine and switches as they ask.
[[nodiscard]] std::vector<const Load*> never_asked(const Plan& plan);

// Whether somebody has made, laid or connected that cable already (marks of the order of work).
[[nodiscard]] bool is_made(const Plan& plan, const Run& run);

// Whether sizing the whole plan may choose that cable anew: it is a cable, nobody pinned it, and it is not
// made yet.
[[nodiscard]] bool size_is_open(const Plan& plan, const Run& run);

// The state that is looked at first where none is asked for: idling, else the first in which the engine
// turns, else the first. REQUIRES: the plan has a state.
[[nodiscard]] const State& opening_state(const Plan& plan);

}  // namespace yr
