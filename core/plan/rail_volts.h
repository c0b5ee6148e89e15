// Volts of the rail on which something hangs. Most vehicles have one; a cart of 48 V with a converter to 12
// V, or a truck with a lifter of 48 V, has two, and what is reckoned in shares of the nominal volts (drops,
// coils, draws in watts, what a fuse may interrupt) goes by those of its own rail.
#pragma once

#include "plan/plan.h"

namespace yr {

// The rail that a battery of that label makes: 12, 24, 36 or 48 where it says as much by its cells
// (12.8, 25.6 or 51.2 V: 3.2 V a cell of lithium iron phosphate), else what it says.
[[nodiscard]] double rail_of_label_V(double label_V);
// The same of a battery of the plan; the vehicle's where it states none.
[[nodiscard]] double battery_V(const Plan& plan, const Battery& battery);

// Volts as the plan names them of the nearest battery that the terminal is joined to by cables, of the
// nearest source where there is none; a regulated source by the nominal volts that it stands for (13.6 V:
// 12). The vehicle's where nothing reaches it, and at once where all batteries and sources are of the
// vehicle's volts.
[[nodiscard]] double rail_V(const Plan& plan, const Terminal& at);

// Whether a load of which no volts are said may hang there: not on a traction battery's rail, and on a 24 V
// vehicle not on the 12 V rail that a converter makes. What a 48 V vehicle carries is made for 12 V as a rule
// (common practice).
[[nodiscard]] bool suits_plain_loads(const Plan& plan, const Terminal& feed);

// Of the supply of a load; of one behind an inverter the vehicle's.
[[nodiscard]] double rail_V(const Plan& plan, const Load& load);

}  // namespace yr
