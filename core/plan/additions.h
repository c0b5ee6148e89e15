// Larger things added to a plan with the cables and fuses that they need to work at all: alternator, feed,
// second battery, charger, ground point. Each gives one edit and the id of what it added.
#pragma once

#include <optional>
#include <string>
#include <vector>
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
// One more battery like the first, on its posts: side by side by two links, or, for batteries of half the
// volts, end to end. In parallel the links' resistances decide who carries what.
[[nodiscard]] Result<Addition> add_bank_battery(const Plan& plan);
// A cable, strap or link between two terminals of the plan; where both are fed it brings no fuse, the
// findings ask for them. Failure: missing_reference for a terminal that is not there, out_of_range for a
// length that cannot be.
[[nodiscard]] Result<Addition> add_cable(const Plan& plan, const std::string& name, const Terminal& from,
                                         const Terminal& to, std::optional<double> length_m,
                                         std::optional<WireSize> size);
// A stud or bus without cables, and a part of the chassis.
[[nodiscard]] Result<Addition> add_point(const Plan& plan, PointKind kind, const std::string& name);

// Every terminal that a cable may end on, with its owner first.
[[nodiscard]] std::vector<Terminal> terminals_of(const Plan& plan);

// A starter motor of that resistance between the first battery and the engine; put in place of the plan's own
// where it has one.
[[nodiscard]] Result<Addition> add_starter(const Plan& plan, const std::string& name, double ohm);
[[nodiscard]] Result<Addition> add_ground(const Plan& plan);

}  // namespace yr
