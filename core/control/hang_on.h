// What a box, bus, charger, inverter or battery is fed from, and the same moved to another supply.
#pragma once

#include <vector>

#include "plan/edit.h"

namespace yr {

// The cable that brings the supply to it: the first that ends on it from the positive side. nullptr: none
// does, or it is a thing of another kind.
[[nodiscard]] const Run* feed_of(const Plan& plan, const Id& thing);

// Where it may be fed from: batteries' positive posts, buses, studs and splices of the positive side, in the
// plan's order; not itself, and nothing that it feeds in its turn.
[[nodiscard]] std::vector<Terminal> supplies_for(const Plan& plan, const Id& thing);

// Its feed begins there; a return that went to the battery before goes to the one of the new supply. Failure:
// missing_reference where nothing feeds it or that is no supply for it.
[[nodiscard]] Result<Edit> hang_on(const Plan& plan, const Id& thing, const Terminal& supply);

// The battery at the beginning of what feeds this terminal; empty: none is found.
[[nodiscard]] Id battery_behind(const Plan& plan, const Terminal& supply);

}  // namespace yr
