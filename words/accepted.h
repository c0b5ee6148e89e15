// Findings as they are listed: those of one kind as a group that names its worst, and those that somebody has
// accepted with a reason at the end.
#pragma once

#include <vector>

#include "words/finding_rows.h"

namespace yr::words {

// What covers this finding as it is now; nullptr: nothing does, or its number has got worse since.
[[nodiscard]] const Accepted* accepted(const Finding& finding, const Plan& plan);

// The acceptance of a finding, to be put into the plan; in place of one that covered it before.
[[nodiscard]] Accepted acceptance_of(const Finding& finding, const Plan& plan, const std::string& reason,
                                     const std::string& who, const std::string& when);

struct FindingBunch {
    std::vector<std::size_t> which;  // indices, the worst first
    bool accepted = false;           // all of them are
};

// In the order of the list; accepted ones in one bunch behind all others. Fewer than `least` of a kind stand
// alone.
[[nodiscard]] std::vector<FindingBunch> bunches(const std::vector<Finding>& findings, const Plan& plan,
                                                std::size_t least = 3);

// "Deck light feed: … And 8 more of the kind."
[[nodiscard]] std::string sentence(const FindingBunch& bunch, const std::vector<Finding>& findings,
                                   const Plan& plan, const Style& style = {});

// Findings of that severity that nobody has accepted.
[[nodiscard]] std::size_t count_of(Severity severity, const std::vector<Finding>& findings, const Plan& plan);

}  // namespace yr::words
