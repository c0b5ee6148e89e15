// A simulated battery monitor: the log that a shunt on the first battery would write over a day, on a vehicle
// that is not quite as it was planned.
#pragma once

#include <string>

#include "day/run_day.h"

namespace yr {

// What the vehicle has that its plan does not say.
struct HiddenInTheDay {
    double health = 1;       // of the battery's stated capacity
    double forgotten_A = 0;  // a load that nobody wrote down, all day
    double volts_off_V = 0;  // the monitor's own error
};
[[nodiscard]] HiddenInTheDay hidden_of(unsigned seed);  // seed 0: nothing is hidden

// "clock,V,A,charge %", one row every so many seconds; a row of noise of a few mV. Failure: empty where the
// plan has no battery, or the day breaks off.
[[nodiscard]] Result<std::string> monitor_log(const Plan& plan, const Day& day, const HiddenInTheDay& hidden,
                                              double every_s, unsigned seed);

}  // namespace yr
