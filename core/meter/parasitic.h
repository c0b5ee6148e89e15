// What empties a battery overnight: millivolts across each fuse to milliamps by its cold resistance; and
// where millivolts cannot be read, which fuses to pull in what order.
#pragma once

#include "meter/reading.h"

namespace yr {

struct FuseCurrent {
    Id fuse, run;
    double amps = 0;
    double least_seen_A = 0;  // what one digit of 0.1 mV is there: less cannot be seen
    double planned_A = 0;     // in that state
    bool known = false;       // the fuse's cold resistance is known
};
// Cold resistance, ohm; nullopt: no table holds that kind and rating.
[[nodiscard]] std::optional<double> cold_ohm(FuseType type, double rating_A);
// `state`: parked. `volts_mV` by fuse: read across it.
[[nodiscard]] std::vector<FuseCurrent> currents_by_fuse(const Plan& plan, const Id& state,
                                                        const std::vector<std::pair<Id, double>>& volts_mV);

// In which order to pull fuses with an ammeter in the battery's negative: feeds of many first where that
// halves what is left, else the likeliest circuit; `expected` pulls until the culprit is known, each equally
// likely. A pulled fuse stays out: putting it back wakes control units.
struct PullOrder {
    std::vector<Id> fuses;
    double expected = 0;
};
[[nodiscard]] PullOrder pull_order(const Plan& plan, const Id& state);

// Minutes for units to go to sleep before anything is read; common practice.
inline constexpr double kSleep_min = 45;

}  // namespace yr
