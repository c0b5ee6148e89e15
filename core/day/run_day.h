// A day run through in time: charge, volts and amps of everything, and what happens when.
//
// Between events the network is algebraic: each step solves it once at its middle, with each battery's own
// sag in the step taken as resistance (cell.h), and moves every slow state in closed form by the current
// found: the implicit midpoint rule, stable at any length and of second order. Steps follow the error;
// climate is renewed every half hour at least. Where a device wants to move within a step, the moment is
// located to half a second before it does.
#pragma once

#include <atomic>
#include <string>
#include <vector>

#include "day/cell.h"
#include "day/timeline.h"
#include "solve/settle.h"

namespace yr {

enum class DayEventKind { part, opens, closes, empty, to_float, to_bulk, hunts, store_full };
struct DayEvent {
    double t_s = 0;
    DayEventKind kind{};
    Id id;  // of the state, device, battery or charger
};

// What is kept of each moment; lists in the plan's order.
struct DayPoint {
    double t_s = 0;
    std::size_t state = 0;
    std::vector<double> charge;                           // of each battery, 0..1, both wells
    std::vector<double> battery_V, battery_A, battery_C;  // A: what it gives
    std::vector<double> source_A;
    std::vector<double> load_V;
    std::vector<LoadStatus> load;
    double taken_A = 0;  // by loads, converters' and inverters' inputs left out
};

// The moment whole: what a view needs to show it as a circuit.
struct DayMoment {
    State state;
    std::vector<CellState> cells;
    std::vector<Id> closed, opened;  // devices with a memory, as they stand
};

// Charge that went where, Ah: `given` by batteries must be what their wells lost. The run's own proof.
struct DayBalance {
    double worst_Ah = 0;  // of any battery: integral of its current against its wells and losses
    double scale_Ah = 0;
    double energy_W = 0;  // worst energy residual of any solution
    double energy_scale_W = 0;
    [[nodiscard]] bool good() const {
        return worst_Ah <= 1e-3 * scale_Ah + 1e-3 && energy_W <= 1e-6 * energy_scale_W + 1e-6;
    }
};

// A portable store that charges on the way: what is in it. It begins each run empty, is charged while it is
// on and has volts, and draws no more once it is full.
struct StoreDay {
    Id load;
    double holds_Wh = 0, end_Wh = 0;
    double takes_s = 0;  // for how long it charged
    double full_s = -1;  // when it was full; below 0: never
};

struct DayRun {
    bool whole = false;  // false: a state has no answer, or it was stopped; what is there is true until then
    double length_s = 0;
    std::vector<DayPoint> points;
    std::vector<DayEvent> events;
    std::vector<CellModel> models;
    std::vector<CellState> begin, end;
    std::vector<StoreDay> stores;
    DayBalance balance;
    int steps = 0, solves = 0;
};

struct DayOptions {
    std::vector<CellState> from;  // empty: the plan's charge of each battery, at rest
    double days = 1;              // the day so many times over
    double tolerance = 1;         // of the step's error; 10 is coarse and quick
    const std::atomic<bool>* stop = nullptr;
};

[[nodiscard]] DayRun run_day(const Plan& plan, const Day& day, const DayOptions& options = {});

// The run's state at a moment: run anew from its beginning to there. For cursor and rail.
[[nodiscard]] DayMoment moment_at(const Plan& plan, const Day& day, double t_s,
                                  const DayOptions& options = {});

// A network of the state with its batteries as they stand in that moment, devices as they stood.
[[nodiscard]] Network network_at(const Plan& plan, const State& state, const std::vector<CellState>& cells,
                                 const std::vector<Id>& closed, const std::vector<Id>& opened);

// The plan with each load's share of the time worked into its draw: what it takes on average.
[[nodiscard]] Plan averaged(const Plan& plan);

}  // namespace yr
