// The circuits that no listed state shows and a cable must bear all the same. For demand.cpp.
#pragma once

#include <string>
#include <vector>

#include "demand/demand.h"

namespace yr {

struct Situation {
    DemandKind kind{};
    Id who;
    Plan plan;  // with one state
    bool loads_off = false;
};

[[nodiscard]] std::vector<Situation> situations_of(const Plan& plan);

// What a source is made to give; 0: not stated.
[[nodiscard]] double rated_output_A(const Plan& plan, const Source& source);

}  // namespace yr
