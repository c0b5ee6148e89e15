// A typed load made into a whole circuit: the load, its fused supply from a feed, and its return.
#pragma once

#include <vector>

#include "plan/edit.h"
#include "typing/typed_line.h"

namespace yr {

// Less than that is light: it hangs on a bus while there is room; common practice.
inline constexpr double kOwnCable_A = 30;

// Whether the fuse before a bus leaves room for so much beside what hangs there already.
[[nodiscard]] bool bears(const Plan& plan, const Point& feed, double amps);

struct NewCircuit {
    Edit edit;
    Id load;
    Id feed;                // a point; a battery where it has a cable of its own from there
    int channel = 0;        // of the feed, where that is a box
    bool feed_fits = true;  // the feed is live whenever the load must be
};

// The feed is the typed one, else the one that is live whenever the load must be and in the fewest other
// states, the same place first. What is more than the fuse before that feed can bear beside others hangs on
// the battery before it by a fused cable of its own, with a contactor unless it is always on; so does what
// says "from battery". On a box it takes the typed channel, else the smallest free one that carries it and
// its start; the channel then switches it. The cable is the thinnest that passes ampacity, drop and strength,
// thick enough for the whole way from the battery; the fuse is chosen by the plan's school. Return: home-run
// for critical loads and above 15 A, else the ground point in the load's place (common practice). An unknown
// length stays unknown in the plan. Failure: empty (no name, no draw), missing_reference (the plan has no
// feed and no battery that a heavy load could hang on).
[[nodiscard]] Result<NewCircuit> make_circuit(const Plan& plan, const TypedLine& line);

// The same for many lines at once, each with ids of its own; the plan is solved once. A line that cannot be
// made gives its error in its place.
[[nodiscard]] std::vector<Result<NewCircuit>> make_circuits(const Plan& plan,
                                                            const std::vector<TypedLine>& lines);

}  // namespace yr
