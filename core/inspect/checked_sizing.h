// Whole-plan sizing, inspected whole: what the sizing proves by its own rules is put into the plan and judged
// by every rule there is. Where a size would bring a new stop or fix, that cable must be thicker and the
// whole is sized again; what no size between clears stays as it is. Cables lie where there is room for them
// as thick as they become: the plan is sized again on the ways that the answer leaves, until they stay the
// same. A plan that no sizes make pass is told why, and sized as far as it goes: who is over a limit may stay
// as far over as now, and a cable that no size suits stays as it is.
#pragma once

#include "inspect/findings.h"
#include "sizing/plan_sizing.h"

namespace yr {

struct CheckedSizing {
    SizingResult sizing;        // without the cables that stay; then no longer called the least
    std::vector<Id> thickened;  // runs that are thicker than sizing alone would have them
    std::vector<Id> kept;       // runs that stay as they are, though sizing had another size for them
    std::vector<SizingBlocker> given_up;  // limits that no choice of sizes keeps: left as they stand
    // What was asked in the end, with what inspecting refused as bounds: for whoever asks what other sizes
    // cost.
    SizingAsk asked;
    std::vector<Finding> against;  // what they would have brought, one at least for each round of keeping
};

// Failure: as size_plan. `ask.cancel` ends both; what was not inspected by then is not shown (stopped).
[[nodiscard]] Result<CheckedSizing> size_checked(const Plan& plan, const SizingAsk& ask);

// The same for a result at hand.
[[nodiscard]] CheckedSizing checked(const Plan& plan, const SizingAsk& ask, SizingResult sizing);

}  // namespace yr
