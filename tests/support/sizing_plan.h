// Small plans without fuses whose cables are to be sized: trees, and meshes with straps side by side. Six
// sizes each: every point takes 8.5 mm2 at most and cables thinner than 0.75 mm2 are no choice.
#pragma once

#include <cstdint>

#include "plan/plan.h"

namespace yr::test {

struct SizingShape {
    bool mesh = false;
    int loads = 2;
};

[[nodiscard]] Plan sizing_plan(std::uint32_t seed, const SizingShape& shape);

}  // namespace yr::test
