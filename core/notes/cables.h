// Cables and fuses for what is typed: as thin as the rules of the plan let them be, so that what a line lays
// passes when it is laid.
#pragma once

#include <optional>
#include <string>

#include "notes/said.h"
#include "plan/plan_builder.h"

namespace yr {

struct CableAsk {
    std::string name;
    Terminal from, to;
    double amps = 0;           // for ever
    double length_m = 1;       // where the line says none
    double drop_share = 0.02;  // of nominal, one way of the two
    bool fused = true;
    bool at_end = false;   // the fuse sits at its far end: there is the battery
    bool at_post = false;  // on a battery's post: the fuse must cut a short of thousands of amps
    bool lithium = false;  // of a lithium battery: more still
    bool seconds = false;  // carries it for seconds: the drop alone decides
};

// What the line says of size, length, fuse and breaker counts; the rest is chosen: the fuse a third above the
// amps, the cable above the fuse in the hottest air of the plan's states, and within its drop.
[[nodiscard]] Run cable_for(const PlanBuilder& builder, const CableAsk& ask, const Said& said);

// The next size of the plan's table; false: there is none.
bool one_thicker(const Plan& plan, Run& run);

// The thinnest size of the plan's table that does not break by shaking: what a coil or a lamp's wire gets.
[[nodiscard]] WireSize thinnest_sturdy(const Plan& plan);

}  // namespace yr
