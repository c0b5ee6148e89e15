// Loads grouped by when they are live, so that what shares an answer shares a rail, and no more relays are
// bought than answers there are.
//
// Loads on one rail must be live in just the same positions of key and engine and measure the same; their
// driver's switches are their own or their channel's. Two conditions that say the same in other words (engine
// running; ignition and engine running) are one. The number of groups is therefore the least possible: no two
// groups could share a rail.
#pragma once

#include "control/key_positions.h"
#include "plan/edit.h"

namespace yr {

struct RailGroup {
    Condition when;  // without the drivers' switches
    std::vector<Id> loads;
    double amps = 0;         // of all of them at nominal volts
    double start_A = 0;      // all of them starting at once
    std::vector<Id> feeds;   // that are live just then; empty: a relay is missing
    std::vector<Id> astray;  // loads that hang on a feed that is live at other times
};

struct RailGrouping {
    std::vector<RailGroup> groups;  // most loads first
    int relays = 0;                 // groups that need one: all but "always"
    int switched = 0;               // loads with a switch of their own beyond their rail's
};

[[nodiscard]] RailGrouping group_rails(const Plan& plan);

// The condition of the rail that serves a load: its own without switches and delay.
[[nodiscard]] Condition rail_part(const Condition& condition);

// Makes a fed bus with a relay that closes in the group's condition, and moves the astray loads onto it.
// Failure: missing_reference where the plan has no battery.
[[nodiscard]] Result<Edit> make_rail(const Plan& plan, const RailGroup& group);

// Delays in steps of `step_s` over the loads of one feed that have a start, the largest start first, so that
// no two start together. Each load's live_when changes, and its channel's driver with it.
[[nodiscard]] Edit stagger_starts(const Plan& plan, const std::vector<Id>& loads, double step_s);

}  // namespace yr
