// Fuses said apart from what they guard: "fuses: HF 25 A, VHF 15 A".
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"

namespace yr {

// A line for each that gives the one load it can mean that fuse; what means none, or more than one, stays as
// it is. Empty: none means any.
[[nodiscard]] std::vector<std::string> fuses_said(const Plan& plan, std::string_view line);

}  // namespace yr
