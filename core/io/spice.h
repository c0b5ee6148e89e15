// The solved circuit as a SPICE netlist, so that anyone can check an operating point with another program.
#pragma once

#include <string>

#include "solve/settle.h"

namespace yr {

// Cables stand at the temperature of `solution`; sources and batteries as the limited laws of
// operating_point.h, by behavioural sources. Loads that are off, dead or collapsed are left out. `title`
// becomes the first line.
[[nodiscard]] std::string spice_netlist(const Plan& plan, const Solution& solution, const std::string& title);

}  // namespace yr
