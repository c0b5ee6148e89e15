// One box or two: the loads of a control box all on it, or those that are far from it on a second one beside
// them with a trunk of its own; or the box beside its supply and every load's cable run home to it. Each laid
// along the ways and sized anew, so that they are compared alike.
#pragma once

#include <atomic>

#include "plan/edit.h"

namespace yr {

enum class BoxLayout { as_it_is, two_boxes, by_the_supply };
inline constexpr std::size_t kBoxLayouts = 3;

struct BoxOption {
    BoxLayout layout{};
    Plan plan;                // the whole plan so, laid
    Edit edit;                // from the plan asked about
    double kg = 0;            // copper of the whole plan
    double money = 0;         // of its cables and their ends; boxes are not in it
    double metres = 0;        // of the cables that end on the box or boxes
    double worst_drop_V = 0;  // of any load of the box, worst state
    std::vector<Id> moved;    // loads on the second box
    Id second;                // that box; empty: none
    bool sized = false;       // every size was found; else some stay as they were
};

struct BoxOptions {
    Id box;
    std::vector<BoxOption> options;  // the plan as it is first
};

// nullopt: no such box, fewer than four loads on it that stand somewhere, or no ways. An option that cannot
// be made (no spot where a box may stand shortens anything) is left out.
[[nodiscard]] std::optional<BoxOptions> one_box_or_two(const Plan& plan, const Id& box,
                                                       const std::atomic<bool>* stop = nullptr);

}  // namespace yr
