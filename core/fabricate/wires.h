// The wire table: every cable with its number, ends, size, colour, length, loom and fuse.
#pragma once

#include "fabricate/ends.h"

namespace yr {

struct WireRow {
    std::size_t run = 0;  // index in Plan::runs
    std::string number, colour;
    double length_m = 0;  // of each piece
    bool length_known = true;
    int pieces = 1;
    CableEnd from, to;
    std::string fuse;      // its own, or the one before it; empty: none
    std::vector<Id> ways;  // along which it lies
};

// In the order of the plan. Numbers that are not said count within their circuit: "3-1" feed, "3-2" return of
// the third load; "S4" for what feeds no load alone. Colours that are not said: red for what has battery
// volts, blue for what follows the key or a switch, black for returns; common practice, one's own wins.
[[nodiscard]] std::vector<WireRow> wire_table(const Plan& plan);

}  // namespace yr
