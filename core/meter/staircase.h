// The way from a source to a load and back as one line: each terminal on it with the volts that it should
// have against the battery's negative.
#pragma once

#include "meter/expect.h"

namespace yr {

struct Stair {
    Terminal at;
    Id by;  // run or ground point that leads here; empty: the first
    bool on_return = false;
    Expectation expected;
};
// From the battery's or source's plus to the load's, from the load's minus to the battery's. Empty: it does
// not run in that state. Where the current comes by several ways, the one that carries most.
[[nodiscard]] std::vector<Stair> staircase(const Plan& plan, Expecter& expecter, const Id& load,
                                           const Id& state);

}  // namespace yr
