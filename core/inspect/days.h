// What the plan's days come to, as findings: each day is run over and over until it settles or fails. Apart
// from inspect(), which is of states: a day takes as long as all of them.
#pragma once

#include <atomic>

#include "inspect/findings.h"

namespace yr {

// Of every day of the plan, worst first, without mends. `stop` leaves out what was not run yet.
[[nodiscard]] std::vector<Finding> day_findings(const Plan& plan, const std::atomic<bool>* stop = nullptr);

// Mends from the table of what would make a day last, the first that makes nothing else a stop or fix. Takes
// seconds.
void mend_days(const Plan& plan, std::vector<Finding>& findings, const std::atomic<bool>* stop = nullptr);

// Puts them among the others, in order of severity.
void add_findings(Inspection& inspection, std::vector<Finding> more);

}  // namespace yr
