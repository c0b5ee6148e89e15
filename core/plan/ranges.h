// The ranges of the fields, held against a plan as it stands in memory. For validate.cpp.
#pragma once

#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

// Appends out_of_range for each number that its field does not take ("loads, scene lights, duty").
void check_ranges(const Plan& plan, std::vector<Error>& errors);

}  // namespace yr
