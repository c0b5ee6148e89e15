// What a cable between two things is: "battery to fuse block 2 m 16 mm2, 80 A fuse", "earth strap 35 mm2 0.5
// m".
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"

namespace yr {

// The lines of `set` that give the cables between them that length, size and fuse; of a block that is not
// there yet the line that makes it. Empty: the line says no such thing, or what no cable of the plan is.
[[nodiscard]] std::vector<std::string> feeds_said(const Plan& plan, std::string_view line);

}  // namespace yr
