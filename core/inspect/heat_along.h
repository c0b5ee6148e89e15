// The copper of one run along its way in one state: how hot its hottest spot really gets, beside what is
// counted with, which is the hottest air of the places it passes over its whole length.
#pragma once

#include "network/fin.h"
#include "routes/routes.h"
#include "solve/operating_point.h"

namespace yr {

struct HeatAlong {
    double cell_m = 0.01;
    std::vector<double> air_C, copper_C;  // cell by cell from its beginning
    double hottest_C = 0, at_m = 0;       // of the copper, and how far along
    double counted_C = 0;                 // as the plan counts: as if all of it lay in the hottest air
    Id place;                             // where the hottest spot lies; empty: no place
};

// Failure: nothing for what carries turn by turn, has no cable, melts, or where the state has no answer.
// `point` is of `network`, both of this plan's `state`.
[[nodiscard]] std::optional<HeatAlong> heat_along(const Plan& plan, std::size_t run, const Route& route,
                                                  const State& state, const Network& network,
                                                  const OperatingPoint& point);

}  // namespace yr
