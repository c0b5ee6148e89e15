// The one thing that would help most now, from the plan itself.
#pragma once

#include <optional>
#include <string>

#include "plan/plan.h"

namespace yr {

enum class NextKind {
    battery_unknown,
    nothing_charges,
    no_starter,
    no_load,
    metal_joined_to_nothing,
    no_parked_state,
    never_on,
    stop,
    dead_load,
    lengths_assumed,
    measure_first  // count: what it may flip; from what was found of the lengths that are assumed
};

struct NextStep {
    NextKind kind{};
    Id about;  // the thing, where it is one
    int count = 0;
    int others = 0;    // measure_first: assumed lengths that change nothing
    std::string line;  // a typed line that would do it; empty: it is done elsewhere
};

// In the order in which one builds a vehicle. `stops`: findings of that severity; `dead`: a load that is dead
// though it should run, or empty. nullopt: nothing is missing.
[[nodiscard]] std::optional<NextStep> what_next(const Plan& plan, int stops, const Id& dead);

}  // namespace yr
