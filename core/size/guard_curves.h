// What the time-current chart of a run shows: its fuse's band re-rated by ambient, what the cable bears, the
// load's current and start, short-circuit currents, and the devices up and down stream. Amps are those of the
// whole run.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "size/plan_fuse.h"

namespace yr {

using CurvePoints = std::vector<std::pair<double, double>>;  // A, s; rising A

enum class CurveRole { own, upstream, downstream };

struct FuseBandCurve {
    std::size_t run = 0;
    Id device;
    CurveRole role{};
    double rating_A = 0;
    CurvePoints earliest, latest;  // latest begins where an opening is promised
};

struct GuardCurves {
    std::size_t run = 0;
    std::vector<FuseBandCurve> fuses;  // own first
    CurvePoints damage;     // until the insulation's limit after a short, from the working temperature
    CurvePoints adiabatic;  // k2 S2 / I2, without any loss of heat
    double steady_A = 0;    // what brings it to its insulation's limit for ever, by the heat balance
    double table_A = 0;     // ampacity by the table, least over the states
    double normal_A = 0;
    std::optional<double> start_A, start_s;
    double far_least_A = 0, far_most_A = 0;  // bolted short at the far end
    double near_most_A = 0;                  // just behind its own fuse; 0 without one
};

inline constexpr double kChartFrom_s = 0.001, kChartTo_s = 36000;

// `state`: whose air and currents are shown. Failure as for advise_fuse.
[[nodiscard]] Result<GuardCurves> guard_curves(const Plan& plan, const Id& run, std::size_t state,
                                               const std::vector<Solution>& solutions);

}  // namespace yr
