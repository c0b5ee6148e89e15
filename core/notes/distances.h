// How far things are apart: "battery to inverter 1.2 m", "fuse board is 2.5 m from the batteries".
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"

namespace yr {

// The lines of `set` that give the cables between those things that length; a part between commas that says
// none, or between what no cable joins, stays as it is. Empty: no part does.
[[nodiscard]] std::vector<std::string> distances_said(const Plan& plan, std::string_view line);

// The cables between two things of those words: names, or kinds ("battery", "fuse block", "chassis").
[[nodiscard]] std::vector<const Run*> cables_between(const Plan& plan, std::string_view one,
                                                     std::string_view other);

}  // namespace yr
