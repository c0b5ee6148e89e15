// A battery emptied by one load, as a day of ours and as a deck for ngspice's transient analysis: the battery
// as capacitors, its laws sampled into tables.
#pragma once

#include <string>

#include "day/run_day.h"

namespace yr::test {

struct Small {
    Plan plan;
    Day day;
    double Ah = 0;
};
// A battery and one load that is on all the time, parked, by seed.
[[nodiscard]] Small small(unsigned seed);

// Two wells, two branches, open volts and resistance by the head of the first well. Measures the charge and
// volts in the end, and when its post falls below `threshold_V`.
[[nodiscard]] std::string day_deck(const Small& s, const DayRun& run, double amps, double hours,
                                   double threshold_V);

}  // namespace yr::test
