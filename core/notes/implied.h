// What a page says of its vehicle without saying it: that it has no engine, the volts of its only battery,
// and that what it charges from "the vehicle battery" has a battery and an alternator beside its own. Asked
// once of a whole page that begins a plan.
#pragma once

#include <string_view>

#include "plan/plan.h"

namespace yr {

// The plan on which the page is read.
[[nodiscard]] Plan with_what_is_implied(const Plan& base, std::string_view page);

// What is added once it is read.
void add_what_is_implied(const Plan& base, std::string_view page, Plan& plan);

}  // namespace yr
