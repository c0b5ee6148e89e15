// What each run must be able to carry: one answer for verdicts, fuses, mends, sizing and shorts.
//
// What happens to flow in the listed states is the least of it. A cable and its fuse also bear what a source
// is made to give, what an inverter and a converter may take, an empty battery's recharge, everything behind
// it that may be on together, starts, turns of work and cranking, each for its time.
#pragma once

#include <vector>

#include "catalog/fuses.h"
#include "plan/plan.h"
#include "solve/settle.h"

namespace yr {

enum class DemandKind {
    state,     // flows in a listed state, for ever
    turn,      // the same while something works that does so in turns, or the starter does
    cranking,  // while the starter turns
    start,     // while a load comes up to speed
    rating,    // what a source is made to give, a converter or inverter to take
    surge,     // the same for seconds
    recharge,  // an empty battery is charged with nothing else on
    together,  // all that may be on together is, the engine running or not
    box        // a box's main, or the lesser that its channels carry: room that is kept for what comes later
};

struct DemandItem {
    DemandKind kind{};
    Id who;    // load, source, battery, inverter or box that asks; empty: all of them
    Id state;  // listed state in which it does; empty: none of them
    double amps = 0;
    double seconds = 0;    // 0: for ever
    double settles_A = 0;  // start: what it comes down to by the end of its seconds
};

struct RunDemand {
    std::vector<DemandItem> items;  // most amps first; one of each kind and asker

    // Most amps for ever, box and its room left out; and what asks for them.
    [[nodiscard]] const DemandItem* lasting() const;
    [[nodiscard]] double lasting_A() const;
    // The room that a box wants; 0: none.
    [[nodiscard]] double room_A() const;
    // The starter's own amps pass here: more than half of what cranking takes.
    bool cranks = false;
};

// By run. `solutions` by state of the plan; states that did not settle say nothing.
[[nodiscard]] std::vector<RunDemand> demand_of(const Plan& plan, const std::vector<Solution>& solutions);

// The least rating of a fuse of that kind that carries all of it: for ever within its continuous share, turns
// and starts below its earliest opening (work of half a minute and more with no fewer amps than it takes),
// the room of a box whole. `air_C`: around the fuse at its hottest.
[[nodiscard]] double least_rating_A(const RunDemand& demand, const FuseKind& kind, double air_C = 25);

// Largest multiple of its rating that the kind is sure to hold for so long.
[[nodiscard]] double held_multiple(const FuseKind& kind, double seconds);

// How far a fuse's earliest opening is used up by a start that falls from its peak to the running current:
// below 1 it holds.
[[nodiscard]] double used_by_start(const FuseKind& kind, double rated_A, double start_A, double run_A,
                                   double seconds);

// What decides that; nullptr where nothing is asked.
[[nodiscard]] const DemandItem* decides(const RunDemand& demand, const FuseKind& kind);

}  // namespace yr
