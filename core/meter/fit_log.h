// From an hour of logged volts and amps: the battery's resistance and capacity, what the alternator is set to
// and what is taken at rest, by least squares, each with its doubt, to be taken into the plan as measured.
#pragma once

#include <optional>
#include <vector>

#include "plan/edit.h"

namespace yr {

struct LogSample {
    double t_s = 0, volts_V = 0, amps_A = 0;  // amps that the battery gives
};
struct Fitted {
    double value = 0, doubt = 0;  // standard deviation
};
struct LogFit {
    std::optional<Fitted> R0_ohm;
    std::optional<Fitted> capacity_Ah;
    std::optional<Fitted> charging_V;  // where it is held
    std::optional<Fitted> standby_A;   // least that is taken for minutes
    double rest_mV = 0;                // what the line does not explain, root mean square
    std::size_t samples = 0;
};

// v = E0 - s q - R i, with q what was given since the beginning: fitted while it gives, the first seconds
// after a step of amps left out (the cell still moves); amps that hardly change tell no R, and the plan's is
// taken. Its capacity is what was given over the charge that its open volts fell by, after the curve of its
// chemistry. Failure: empty with fewer than 20 samples with volts and amps.
[[nodiscard]] Result<LogFit> fit_log(const Plan& plan, const Id& battery,
                                     const std::vector<LogSample>& samples);

// The fitted values written into the plan's battery and alternator. Empty: nothing was fitted.
[[nodiscard]] Batch take_fit(const Plan& plan, const Id& battery, const LogFit& fit);

}  // namespace yr
