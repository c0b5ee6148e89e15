// Channels given out, inspected whole: what the program of control/assign.h proves by its own limits is put
// into the plan and judged by every rule there is. The fuse and cable of what moves are chosen with it; where
// something would still be worse, that load may not go there and all are given out again.
#pragma once

#include "control/assign.h"
#include "inspect/findings.h"

namespace yr {

struct CheckedChannels {
    Assignment assignment;                   // `edit` holds fuses and cables of what moves as well
    std::vector<std::pair<Id, Id>> refused;  // load and feed that would have made something worse
    std::vector<Finding> against;            // what each round of refusing would have brought, the worst
    std::vector<Finding> mended;             // fuses and cables changed with the move: each with its mend
};

// `ask.cancel` ends it: then not known. Nothing that it moves brings a new stop or fix.
[[nodiscard]] CheckedChannels assign_checked(const Plan& plan, const AssignAsk& ask = {});

}  // namespace yr
