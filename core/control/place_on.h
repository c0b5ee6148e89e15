// A load put on a channel, fuse way or stud: what changes with it, as one edit.
#pragma once

#include "plan/edit.h"

namespace yr {

// The driver of the channel that a run hangs on: the switching device at the run's beginning that follows the
// load. nullptr where the channel is always on.
[[nodiscard]] const Device* channel_driver(const Plan& plan, const Run& run);

// The run that hangs on this channel; nullptr: it is free.
[[nodiscard]] const Run* run_on_channel(const Plan& plan, const Id& box, int channel);

// Free channels of a box, lowest number first.
[[nodiscard]] std::vector<int> free_channels(const Plan& plan, const Point& box);

// What a channel may carry for ever and at a start, A; a rating that is not given is assumed.
[[nodiscard]] double channel_rating_A(const Channel& channel);
[[nodiscard]] double channel_peak_A(const Channel& channel);

// Hangs a run at its beginning on this channel: its driver follows the load, which then has no switch of its
// own.
void hang_on_channel(Run& run, Load& load, const Point& box, int channel, const Id& driver_id);

// The smallest free channel of a box, but those in `taken`, that carries this load and its start; 0: none.
[[nodiscard]] int fitting_channel(const Plan& plan, const Point& box, double amps, double start_A,
                                  const std::vector<int>& taken = {});

// Moves the load's supply run there. On a channel (above 0) the channel's driver follows the load's live_when
// and its fuse moves along; on a stud or bus (0) the load switches itself as it says. A home-run return goes
// to the new feed's own return. `pin` keeps it there when channels are given out anew. Failure:
// missing_reference for a load without a supply run, a feed or channel that is not there; out_of_range for a
// channel that another load has.
[[nodiscard]] Result<Edit> place_on(const Plan& plan, const Id& load, const Id& feed, int channel, bool pin);

// Another live-when for a load; the driver of its channel follows. REQUIRES: the load is in the plan.
[[nodiscard]] Edit set_live_when(const Plan& plan, const Id& load, const Condition& when);

// The same for two loads that change places, or one that takes the channel of another: `load` goes to the
// channel, the load that was there goes where `load` was.
[[nodiscard]] Result<Edit> swap_onto(const Plan& plan, const Id& load, const Id& box, int channel);

}  // namespace yr
