// A vehicle that stands nowhere yet gets its rooms, a typical net of ways, and its things where their places
// are.
#pragma once

#include "plan/edit.h"
#include "routes/outline.h"

namespace yr {

// Rooms for the places that have none, the hazards of such a vehicle, waypoints and ways, all marked typical;
// the outline is said. What is there already stays. Failure: already_there where the plan has ways.
[[nodiscard]] Result<Edit> furnish(const Plan& plan, Outline outline);

// Things that stand nowhere and whose place has a room, in the plan's order.
[[nodiscard]] std::vector<Id> could_stand(const Plan& plan);
// Each of them in its place, beside each other.
[[nodiscard]] Edit stand_in_places(const Plan& plan);

// The thing at that spot; its place becomes the room that it is in, where there is one. Failure:
// missing_reference for what cannot stand anywhere.
[[nodiscard]] Result<Edit> stand(const Plan& plan, const Id& thing, const Spot& spot);

// Lengths left open, so that these runs follow their way; devices along them keep their share of it.
[[nodiscard]] Edit follow_way(const Plan& plan, const std::vector<Id>& runs);

}  // namespace yr
