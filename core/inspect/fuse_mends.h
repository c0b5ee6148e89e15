// Fuses and cables that could be put in place of what is there: each carries the demand, stays within its
// cable, its channel and its kind. Candidates, the likeliest first; close_mends() proves them on the whole
// plan.
#pragma once

#include "inspect/rules.h"

namespace yr {

// What a fuse in this run may be at most: its cable, and the channel that it hangs on; and at least: the
// demand.
struct FuseRoom {
    double cable_A = 0;
    std::optional<double> channel_A;
    [[nodiscard]] double most_A() const { return channel_A ? std::min(cable_A, *channel_A) : cable_A; }
};
[[nodiscard]] FuseRoom fuse_room(const Case& c, std::size_t run);

// Another rating of the same kind; where none fits the cable, with a thicker cable. `below_A`, `above_A`:
// bounds of the new rating besides what the run asks for (0: none).
[[nodiscard]] std::vector<Mend> other_ratings(const Case& c, std::size_t run, const Id& fuse, double above_A,
                                              double below_A);

// A fuse where none is, at that distance along the cable; where the cable stands none that carries the
// demand, with a thicker one.
[[nodiscard]] std::vector<Mend> new_fuses(const Case& c, std::size_t run, double at_m, bool at_from);

// The cable itself thicker, up to so many steps from the first that carries `at_least_A`; where the table has
// none, more of it side by side.
[[nodiscard]] std::vector<Mend> thicker(const Case& c, std::size_t run, double at_least_A, int most = 3);

}  // namespace yr
