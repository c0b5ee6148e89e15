// What the schema cannot say: unique ids, references that lead somewhere, values that can be.
#pragma once

#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

// Every fault with its place; empty when the plan can be compiled. Order: as in the plan.
[[nodiscard]] std::vector<Error> validate(const Plan& plan);

}  // namespace yr
