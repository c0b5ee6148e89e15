// Stop at how many volts? Where a switch is thrown or a cut-off set so that the engine still starts.
#pragma once

#include <optional>

#include "day/cranking.h"

namespace yr {

struct StopAt {
    Id battery;
    double amps = 0, temperature_C = 20;
    double least_charge = 0;               // at which it still cranks
    double volts = 0;                      // its own under that load then
    double half_V = 0;                     // the same at half charge
    double habit_V = 0, habit_charge = 0;  // "stop at 11 V" (of a 12 V battery): what that leaves, 0..1
};
// Under that many amps from the battery that cranks, in that cold. nullopt: nothing cranks, or not even full.
[[nodiscard]] std::optional<StopAt> stop_at(const Plan& plan, double amps, double temperature_C);

}  // namespace yr
