// Vehicles with something to put in order: loads strewn over boxes and blocks as they came in.
#pragma once

#include <vector>

#include "plan/plan.h"
#include "routes/furnish.h"

namespace yr::test {

// The same vehicle with what people have: a bus behind a relay with two loads of its own, one of which may
// not know that it is switched; a constant block beside it.
[[nodiscard]] Plan with_a_relay(Plan plan, unsigned seed);

// With a box and a constant block more, each on a thick feed of its own from where the loads hang now, and
// the loads strewn over all of them as they came in: what there is to put in order.
[[nodiscard]] Plan strewn(Plan plan, unsigned seed);

// Its things in their places, its cables along a typical net of ways.
[[nodiscard]] Plan laid_out(Plan plan, Outline outline);

// The vehicle of that seed in all these ways, laid out too, and by turns a cart or a small machine.
[[nodiscard]] std::vector<Plan> vehicles_of(unsigned seed);

}  // namespace yr::test
