// First power: what a lamp in place of each main fuse shows as one circuit after another comes on, worked out
// on the circuit itself; a short or a swap shows before anything can burn.
//
// Loads stand as the resistances that they are at nominal volts (behind a lamp nothing gets its power);
// inverters and converters stay off, their capacitors are charged through the lamp or a resistor first.
#pragma once

#include <string>
#include <vector>

#include "catalog/work.h"
#include "plan/plan.h"

namespace yr {

enum class PowerAct {
    ohms,       // across every fuse holder with the fuses out: no bridge
    lamp_in,    // in place of this main fuse, everything else of its battery out
    negative,   // the battery's negative on
    fuse_in,    // this fuse, with its circuit off; out again after its readings where no other hangs on it
    switch_on,  // its circuit on: its loads draw through the lamp
    all_in      // all fuses of the round in, the key off: what it takes at rest
};

struct PowerStep {
    PowerAct act{};
    Id fuse;                // ohms and lamp_in: the main fuse
    Id run;                 // that it sits in
    std::vector<Id> loads;  // behind it
    State state;            // in which it is read
    double lamp_V = 0;      // across the lamp, as it should be
    double lamp_A = 0;
    double shorted_V = 0;        // across the lamp with a short behind this fuse
    bool told_apart = true;      // a short looks different from what is right
    bool behind_switch = false;  // it is off: a short shows only once it is on
    bool solved = true;          // false: no answer; nothing follows from the numbers
};

struct PowerRound {
    Id battery, main;  // the fuse that the lamp replaces
    Id run;
    std::vector<PowerStep> steps;
};

struct PowerAsk {
    double lamp_W = 0;               // 0: as is usual
    const Plan* as_built = nullptr;  // what is read, where it was built otherwise: same ids
};

// One round for each main fuse: the first fuse on each way from a battery's positive post. A way without any
// fuse has none. Order: by battery, then by run; within a round from the main outwards.
[[nodiscard]] std::vector<PowerRound> first_power(const Plan& plan, const PowerAsk& ask = {});

// Batteries with a positive cable that no fuse guards: their lamp stands in the negative cable instead, said
// by whoever prints the procedure.
[[nodiscard]] std::vector<Id> without_main_fuse(const Plan& plan);

}  // namespace yr
