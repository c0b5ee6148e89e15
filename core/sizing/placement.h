// Where a box, bus bar or battery should stand: what the copper and the worst drop become if it is moved
// along its feed, or to another place of the plan.
//
// A move nearer to its supply shortens the cables from there and lengthens those to what it feeds, by as
// much; so does a move the other way. At another place, a cable to something that stands there shrinks to an
// arm's length; one to something elsewhere becomes the length that the plan's own cables between those places
// suggest. Distances are estimates until places are drawn; each row says so.
#pragma once

#include <optional>
#include <vector>

#include "sizing/plan_sizing.h"

namespace yr {

struct PlacementRow {
    double nearer_m = 0;  // moved so much towards its supply; negative: away from it
    Id place;             // or to this place
    bool fits = true;     // some choice of sizes keeps every limit there
    double mass_kg = 0;   // of the cables that end on it, each as thin as may be
    double money = 0;
    double worst_share = 0;  // largest drop against its limit among the loads behind it
    Id worst_load;
    bool estimated = false;  // a distance was guessed
    Edit edit;               // the lengths and sizes of that row
};

// Rows from farthest to nearest, then by place; the first of `here` is the plan as it stands, resized alone.
struct Placement {
    PlacementRow here;
    std::vector<PlacementRow> rows;
    std::vector<Id>
        unknown;  // places to which no cable of the plan tells a distance: nothing is said of them
};

// Failure: missing_reference for what is no box, bus, stud or battery of the plan; empty where no cable ends
// on it.
[[nodiscard]] Result<Placement> placement_of(const Plan& plan, const Id& id,
                                             const std::atomic<bool>* cancel = nullptr);

}  // namespace yr
