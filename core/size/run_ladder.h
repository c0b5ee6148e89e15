// One run of a plan against every size, with the whole plan solved anew for each: a thicker trunk changes
// what every load behind it sees, and in a mesh it attracts current.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "size/cable_size.h"
#include "size/run_limits.h"

namespace yr {

struct RunSizeRow {
    WireSize size = WireSize::awg(10);
    double ampacity_A = 0;  // least margin: in the state named by ampacity_state
    double current_A = 0;
    Id ampacity_state;
    double temperature_C = 0;  // hottest conductor over the states
    double drop_V = 0;         // worst load that this run serves, against its limit
    double drop_limit_V = 0;
    Id drop_load, drop_state;  // empty: it serves no load
    bool carries = false, drop_fits = true, fuse_fits = true;
    [[nodiscard]] bool passes() const { return carries && drop_fits && fuse_fits; }
};

struct RunLadder {
    std::vector<RunSizeRow> rows;
    int now = -1;     // the plan's own size
    int chosen = -1;  // thinnest that passes
    Limit decides = Limit::none;
    double fuse_A = 0;  // smallest fuse of the run itself; 0: none
};

// Failure: missing_reference for no such run; unknown_size for body metal and given resistances.
[[nodiscard]] Result<RunLadder> run_ladder(const Plan& plan, const Id& run_id);

// Volts that a load may lose: its own limit, or by policy for critical and other loads.
[[nodiscard]] double drop_limit_V(const Plan& plan, const Load& load);

// Conductors (indices in the network) that carry this load's current, to and from it, largest drop first.
[[nodiscard]] std::vector<int> path_of_load(const Solution& solution, int load_index);

}  // namespace yr
