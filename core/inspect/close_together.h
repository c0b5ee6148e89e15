// Mends of large plans, closed many at once.
#pragma once

#include <atomic>
#include <vector>

#include "inspect/findings.h"

namespace yr {

// Gives each finding the first of its candidates that clears it and makes no new stop or fix anywhere, as
// close_mend() does, with an inspection for many candidates where that one takes an inspection for each: all
// that touch different things are put into the plan together, those that fail go on to their next candidate,
// and those that pass are asked again, a few one by one, many in small groups in which no two of one part of
// the plan (what hangs together otherwise than by a battery, a source or the chassis) meet twice: no mend is
// offered that passes only because another stands beside it. A candidate that fails only beside others may be
// lost.
// `inspection` is that of the plan, with candidates; cancelled, those not yet closed have no mend.
void close_together(const Plan& plan, Inspection& inspection, const std::atomic<bool>* cancel = nullptr);

}  // namespace yr
