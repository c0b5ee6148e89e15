// The worst state of each load and each run: what `All states` shows.
#pragma once

#include <optional>
#include <vector>

#include "solve/settle.h"

namespace yr {

struct WorstLoad {
    std::size_t load = 0;
    std::optional<std::size_t> state;  // empty: it runs in no state
    bool fails = false;                // dead or without an operating point there
    double drop_V = 0, limit_V = 0;
    double voltage_V = 0, current_A = 0;
};

struct WorstRun {
    std::size_t run = 0;
    std::optional<std::size_t> state;     // empty: it carries nothing in any state
    double current_A = 0, allowed_A = 0;  // allowed 0: no table holds it
    double temperature_C = 0;
    double drop_V = 0;
};

// `solutions` by state of the plan. Loads by the share of their drop limit, failing ones first; a starter by
// its volts. Runs by amps against what they may carry; cranking does not count, it lasts seconds. Each list
// is in the plan's order.
[[nodiscard]] std::vector<WorstLoad> worst_loads(const Plan& plan, const std::vector<Solution>& solutions);
[[nodiscard]] std::vector<WorstRun> worst_runs(const Plan& plan, const std::vector<Solution>& solutions);

}  // namespace yr
