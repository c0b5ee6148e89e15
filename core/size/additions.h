// Larger things added to a plan with the cables and fuses that they need to work at all: alternator, feed,
// second battery, charger, ground point. Each gives one edit and the id of what it added.
#pragma once

#include "plan/edit.h"

namespace yr {

struct Addition {
    Edit edit;
    Id id;
};

// Bolted to the first chassis part, charging the first battery through a fused cable of 2 AWG.
// Failure (all): missing_reference where the plan has no battery.
[[nodiscard]] Result<Addition> add_alternator(const Plan& plan);

// A bus fed from the first battery through a 60 A fuse and, unless `closed_when` is empty, a relay.
[[nodiscard]] Result<Addition> add_feed(const Plan& plan, const Condition& closed_when);

// A LiFePO4 battery with a bus of its own, its negative home to the first battery's.
[[nodiscard]] Result<Addition> add_second_battery(const Plan& plan);

// A charger from the first battery to the last one. Failure also when the plan has only one battery.
[[nodiscard]] Result<Addition> add_charger(const Plan& plan);

// A ground stud on the first chassis part. Failure: missing_reference where there is none.
[[nodiscard]] Result<Addition> add_ground(const Plan& plan);

}  // namespace yr
