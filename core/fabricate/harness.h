// Looms laid flat: the ways that cables lie along as a tree, true to length, with branch points and
// breakouts, as it is tied on a board.
#pragma once

#include <string>
#include <vector>

#include "fabricate/covering.h"
#include "fabricate/wires.h"
#include "routes/routes.h"

namespace yr {

struct FlatPoint {
    double x_m = 0, y_m = 0;
};
// A stretch of a way, or the end of a cable from the loom to its thing.
struct FlatSegment {
    FlatPoint from, to;
    Id way;                         // empty: a breakout
    Id thing;                       // breakout: where it goes
    std::vector<std::size_t> runs;  // indices in the plan
    double bundle_mm = 0;
    std::vector<CoveringLayer> covering;  // of a way
    [[nodiscard]] double length_m() const;
};
struct FlatLoom {
    std::string name;  // of its longest way
    std::vector<FlatSegment> segments;
    FlatPoint low, high;  // its corners
    double length_m = 0;  // of the loom itself, breakouts left out
    std::vector<std::size_t> runs;
};

// One for each piece of the net that hangs together and has two cables or more; longest first. A net with
// loops is cut open where a way would close one: that way is laid out from one of its ends. Splices
// that would lie at one spot are staggered, kSplicesApart_m from one to the next. `routes` are of this plan.
inline constexpr double kSplicesApart_m = 0.04;  // common practice
[[nodiscard]] std::vector<FlatLoom> flat_looms(const Plan& plan, const Routes& routes);

// What one end plug closes: the pins of a connector in their order, or the cables of a loom counted off.
struct EndPlug {
    std::string name;       // of the connector, or of the loom's longest way
    Id connector;           // empty: a loom
    std::vector<int> pins;  // numbers, one a cable
    std::vector<Id> runs;   // one a pin
};
// Connectors first, then looms, each with two cables or more; cables that are no wire (body metal) are left
// out.
[[nodiscard]] std::vector<EndPlug> end_plugs(const Plan& plan, const std::vector<FlatLoom>& looms);

}  // namespace yr
