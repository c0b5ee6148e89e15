// How long a battery lasts in a state: followed down its charge, so that cut-offs and low volts end what they
// end.
#pragma once

#include <optional>

#include "solve/settle.h"

namespace yr {

struct Lasting {
    std::optional<double> average_h;  // to that charge, on the amps that duty leaves on average; empty: never
    std::optional<double> peak_h;     // with everything on at once, all the time; empty: never
    double average_A = 0, peak_A = 0;  // at the charge it begins with; below 0: it is charged on average
    double rests_at = 0;  // the charge at which nothing flows any more, where it never gets there
    Id cutoff;            // the device that opened on the way; empty: none
    Id parts;  // a relay that joins batteries and opened on the way, so that the amps below are more
    double then_average_A = 0;  // with it open
};

// From the charge that the state gives it to `to_charge`. Already below it: 0 h. `solved`: the plan in that
// state, where it is at hand.
[[nodiscard]] Lasting lasting(const Plan& plan, const State& state, std::size_t battery, double to_charge,
                              const Solution* solved = nullptr);

}  // namespace yr
