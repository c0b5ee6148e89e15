// Findings of where things stand and cables lie. Apart from inspect(): no mend of a cable or fuse moves
// anything, and passages are packed anew each time.
#pragma once

#include "inspect/findings.h"
#include "routes/routes.h"

namespace yr {

// Of a plan whose things stand somewhere; else empty. Mends are candidates, to be closed with the rest.
[[nodiscard]] std::vector<Finding> place_findings(const Plan& plan, const std::vector<Solution>& solutions);
[[nodiscard]] std::vector<Finding> place_findings(const Plan& plan, const std::vector<Solution>& solutions,
                                                  const Routes& routes);

}  // namespace yr
