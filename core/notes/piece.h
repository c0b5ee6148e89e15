// A part of a plan as lines of plan_text.h, and such lines laid into another plan: copy and paste of any
// things.
#pragma once

#include <string>
#include <vector>

#include "plan/edit.h"

namespace yr {

// The things themselves, the cables that join them to one another and, of a single thing, all that end on it.
// Empty where nothing of that name is in the plan.
[[nodiscard]] std::string piece_text(const Plan& plan, const std::vector<Id>& things);

// What those lines add. Names that the plan has already get a number ("pump 2"); a name spoken of is first
// looked for among the lines, then in the plan; a cable on a channel that is taken gets the next free one.
// `about`: the first thing added. Failure: with the line or the missing name as place; validate()'s codes.
struct Piece {
    Edit edit;
    Id about;
};
[[nodiscard]] Result<Piece> read_piece(const Plan& plan, const std::vector<std::string>& lines);

}  // namespace yr
