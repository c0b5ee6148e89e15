// One run of a plan against every size, with the whole plan solved anew for each: a thicker trunk changes
// what every load behind it sees, and in a mesh it attracts current.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "guard/fault_study.h"
#include "size/cable_size.h"
#include "size/run_check.h"
#include "size/run_limits.h"
#include "solve/load_paths.h"

namespace yr {

// A load that this run serves, in its worst state.
struct ServedDrop {
    Id load, state;
    double drop_V = 0, limit_V = 0;
};

// What an intermittent load or cranking does to a cable, by the thermal model in time.
struct RunDuty {
    Id load, state;
    DutyCycle cycle;             // amps of the whole run
    double peak_C = 0;           // conductor at the end of the longest turn, once turns repeat
    bool table_carries = false;  // the continuous table's verdict on the same current
};

struct RunSizeRow {
    WireSize size = WireSize::awg(10);
    double ampacity_A = 0;     // least margin: in the state named by ampacity_state
    double other_table_A = 0;  // by the other of the two tables; 0: it does not hold this size
    double physics_A =
        0;  // second opinion: current that brings it to its insulation's limit by the heat balance
    double current_A = 0;
    Id ampacity_state;
    double temperature_C = 0;  // hottest conductor over the states, intermittent currents in time
    Id temperature_state;
    double drop_V = 0;  // worst load that this run serves, against its limit
    double drop_limit_V = 0;
    Id drop_load, drop_state;       // empty: it serves no load
    std::vector<ServedDrop> drops;  // each load that it serves, in its worst state
    FuseGuard guard;                // its own fuse or the one before it, over the whole band
    double fuse_limit_A = 0;        // the largest fuse that its ampacity allows
    RunFit fit;
    std::optional<double> short_A;  // a bolted short at its far end, weakest supply
    std::optional<double> opens_s;  // until all that feeds it is open, latest; empty: not sure to open
    double short_C = 0;             // what this cable reaches by then
    double mass_kg = 0, money = 0;
    bool carries = false, drop_fits = true, fuse_fits = true, stays_cool = true, withstands = true;
    [[nodiscard]] bool passes() const {
        return carries && drop_fits && fuse_fits && stays_cool && withstands && fit.fits();
    }
    // What it fails by the widest margin; none where it passes.
    [[nodiscard]] Limit fails() const;
};

struct RunLadder {
    std::vector<RunSizeRow> rows;
    int parallel = 1;
    int now = -1;                 // the plan's own size
    int chosen = -1;              // thinnest that passes
    Limit decides = Limit::none;  // what the next thinner one fails
    // Where none passes because of loads that lose too much even with the thickest here: those loads, and the
    // thinnest size that keeps all else. Their other cables take the rest.
    std::vector<Id> beyond;
    int apart = -1;
    double fuse_A = 0;  // smallest fuse of the run itself, or what guards it from before; 0: none
    std::optional<FuseType> fuse_type;
    double insulation_C = 105;
    std::optional<RunDuty> duty;  // of the plan's own size
};

// `parallel`: so many cables side by side; 0: as the plan has them. `solutions` by state, where they are at
// hand. Failure: missing_reference for no such run; unknown_size for body metal and given resistances;
// out_of_range.
[[nodiscard]] Result<RunLadder> run_ladder(const Plan& plan, const Id& run_id, int parallel = 0,
                                           const std::vector<Solution>* solutions = nullptr);

// Intermittent currents through a run at its present size: loads with an on-time, and cranking.
[[nodiscard]] std::optional<RunDuty> run_duty(const Plan& plan, std::size_t run,
                                              const std::vector<Solution>& solutions);

// Volts that a load may lose: its own limit, or by policy for critical and other loads.
[[nodiscard]] double drop_limit_V(const Plan& plan, const Load& load);

}  // namespace yr
