// Control boxes put into a plan.
#pragma once

#include "plan/additions.h"
#include "plan/edit.h"

namespace yr {

struct NewBox {
    Point box;                       // channels and limits; id and return are given anew
    Condition trigger;               // a relay in its feed; "always" has none
    std::optional<double> cutoff_V;  // opens its feed below this
    std::optional<double> length_m;  // of its feed
    Id place;
    std::optional<Terminal> from{};  // where its feed begins (hang_on.h); empty: the first battery
};

// The box with its feed: a cable that carries its main, a fuse no larger than its main, and a trigger relay
// and cut-off where asked. Failure: missing_reference where the plan has no battery; empty for a box without
// channels.
[[nodiscard]] Result<Addition> add_box(const Plan& plan, const NewBox& ask);

// The channels of a box as it is drawn: what hangs on each.
struct ChannelUse {
    const Channel* channel = nullptr;
    const Run* run = nullptr;    // nullptr: free
    const Load* load = nullptr;  // at the run's end; nullptr: a bus or nothing
    Id at;                       // of the load or bus there; empty: nothing
    double amps = 0;             // nominal; of a bus what can be on together
    double start_A = 0;
};
[[nodiscard]] std::vector<ChannelUse> channel_uses(const Plan& plan, const Point& box);

// What can be on together of these loads, A at nominal volts: the sum at the worst key position.
[[nodiscard]] double together_A(const Plan& plan, const std::vector<const Load*>& loads);

// Every load whose supply begins at this feed, channels and stud alike.
[[nodiscard]] std::vector<const Load*> loads_on(const Plan& plan, const Id& feed);

// The signal of a load that wants one some seconds after its supply: another load that waits for it,
// whichever way its delay is made: by its own condition, by that of the contact in its supply, by a timer
// relay or by that relay's coil.
struct SignalOf {
    const Load* load = nullptr;
    double after_s = 0;
    Id delayed_by;  // load or device that makes the longest part of it
};
// The latest one; empty where nothing waits for it with a delay.
[[nodiscard]] std::optional<SignalOf> signal_of(const Plan& plan, const Load& load);

// That signal made to come so late. REQUIRES: it is one of the plan's.
[[nodiscard]] Edit later_signal(const Plan& plan, const SignalOf& signal, double after_s);

// Adds that signal on the load's own feed. Failure: missing_reference for a load without a feed.
[[nodiscard]] Result<Edit> add_signal(const Plan& plan, const Load& load);

// The label that a switch's place on the panel carries: its own, else the names of what it works.
[[nodiscard]] std::string panel_label(const Plan& plan, const std::string& switch_name);

}  // namespace yr
