// Whole, plausible vehicles by seed: right ones, sized by handbook formulas that share nothing with the
// product's own rules but the tables, and the same with one known mistake put in.
#pragma once

#include <string>
#include <vector>

#include "inspect/findings.h"

namespace yr::test {

enum class Mistake {
    none,
    fuse_above_cable,  // a branch's fuse several sizes over its cable
    fuse_missing,      // a feed from the battery without its fuse
    fuse_far,          // its fuse at the far end
    cable_thin,        // a cable that glows at its load
    drop,              // a long thin cable to a critical load
    return_thin,       // a heavy load's return
    fuse_small,        // a fuse below what its load takes for ever
    alternator_cable,  // charge cable far below the alternator's rating
    count
};

// How a second battery is charged and joined.
enum class Joiner { charger, sensing_relay, contactor, hand_switch, count };

struct TestVehicle {
    Plan plan;
    Mistake mistake = Mistake::none;
    Id where;                        // run with the mistake
    std::vector<FindingKind> tells;  // any of these on that run, its load or its fuse tells it
    bool has_inverter = false, has_winch = false, has_second = false, has_box = false;
    Joiner joiner = Joiner::count;  // of the second battery
};

// A car, van or truck of 12 V.
[[nodiscard]] TestVehicle vehicle(unsigned seed, Mistake mistake = Mistake::none);

// A small machine on a stator, and a cart of 48 V with a converter to 12 V: right ones.
[[nodiscard]] TestVehicle small_machine(unsigned seed);
[[nodiscard]] TestVehicle cart(unsigned seed);

}  // namespace yr::test
