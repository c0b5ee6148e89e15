// Small plans from a seed, full of switches, fuses, coils and wires that ought not to be there.
#pragma once

#include <cstdint>

#include "plan/plan.h"

namespace yr::test {

// Up to three switches and three fuses.
[[nodiscard]] Plan switchy_plan(std::uint32_t seed);

}  // namespace yr::test
