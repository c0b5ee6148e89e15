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
// An inverter on the last battery's feed, with its fused cables.
[[nodiscard]] Result<Addition> add_inverter(const Plan& plan);
// Joins the last battery to the first: through a sensing relay, a contactor that closes while the engine
// runs, or an isolator; a fuse at both ends, since both are fed.
enum class Link { sensing_relay, contactor, isolator };
[[nodiscard]] Result<Addition> add_link(const Plan& plan, Link link);
// A charger on mains, and a solar panel with its controller, on the last battery.
[[nodiscard]] Result<Addition> add_shore(const Plan& plan);
[[nodiscard]] Result<Addition> add_solar(const Plan& plan);
// A starter motor of that resistance between the first battery and the engine; put in place of the plan's own
// where it has one.
[[nodiscard]] Result<Addition> add_starter(const Plan& plan, const std::string& name, double ohm);
[[nodiscard]] Result<Addition> add_ground(const Plan& plan);

}  // namespace yr
