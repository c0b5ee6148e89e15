// A short at the far end of every run and behind every fuse, bolted and through some milliohms, in every
// state: how much flows, what opens, when, what the cables reach, whether the fuse may cut it, whether
// something further up opens first, how low the bus falls.
#pragma once

#include <atomic>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "guard/fault_network.h"

namespace yr {

// Where a short is put.
struct ShortPlace {
    std::size_t run = 0;  // index in Plan::runs
    Id device;            // just behind this fuse; empty: at the far end
    Terminal at;          // far end
    Terminal back;        // what it touches: the load's own negative, a return bus, else the metal
    double share = 0;     // of the run's resistance before the place; 0 at a far end, where it plays no part
    bool from_side = true;  // the supply stands at the run's `from`
};

// What opens, in order, until the current is gone.
struct Clearing {
    std::vector<Id> devices;
    std::optional<double> seconds;  // all of them; empty: it is not sure to open
};

struct CableHeatUp {
    std::size_t run = 0;
    double reached_C = 0, allowed_C = 0;
};

struct ShortRow {
    std::size_t place = 0, state = 0;
    double ohm = 0;
    bool settled = true;             // false: no answer was found, and nothing follows from the rest
    double most_A = 0, least_A = 0;  // strongest and weakest supply
    Clearing slowest;                // weakest supply, latest times
    double fastest_s = 0;            // strongest supply, earliest times; 1e9: never
    Id near;                         // the nearest device that should open; empty: there is none
    double near_A = 0;               // through it, strongest
    bool near_interrupts = true;     // it may cut what flows
    double interrupts_A = 0;
    Id first_up;                         // device further up that may open before it; empty: none
    double first_up_s = 0, near_s = 0;   // its earliest time, the near one's latest
    std::optional<CableHeatUp> hottest;  // of the cables that carry more than without the short: the one that
                                         // comes nearest to its limit until all is open
    double bus_V = 0;                    // volts of the first battery meanwhile, weakest supply
    Id management;                       // battery whose own management opens first; empty: none
    double management_A = 0;             // what that battery would give
    bool limits_itself = false;  // it stays, but all of it comes from sources with a limit of their own
    Id stays;  // where it does not clear: the device on the way of what is left, or a run of that way without
    double stays_A = 0;             // what is left when all that is sure to open has opened
    std::vector<std::size_t> ways;  // runs that bring the strongest current; only where KnownShorts asks
    [[nodiscard]] bool clears() const { return slowest.seconds.has_value(); }
    [[nodiscard]] bool hurts() const { return hottest && hottest->reached_C > hottest->allowed_C; }
};

struct FaultStudy {
    std::vector<ShortPlace> places;
    std::vector<ShortRow>
        rows;  // by place, state and ohm; places that carry no volts in a state are left out
};

// The short's own resistance: bolted, and through what a chafed cable or a dropped spanner makes.
inline constexpr double kShortOhms[] = {0, 0.010, 0.050};

// Where shorts are put on this plan. Starters' cables are left out of nothing: an unfused one is told so.
[[nodiscard]] std::vector<ShortPlace> short_places(const Plan& plan);

// `solutions` by state. `cancel` is looked at between places; a cancelled study holds what was done by then.
[[nodiscard]] FaultStudy study_faults(const Plan& plan, const std::vector<Solution>& solutions,
                                      const std::atomic<bool>* cancel = nullptr);

// Bolted shorts of a plan, kept for plans that differ from it in some runs alone.
struct KnownShorts {
    std::vector<Id> runs, states;  // of that plan
    FaultStudy study;
};
[[nodiscard]] KnownShorts known_shorts(const Plan& plan, const std::vector<Solution>& solutions);

// Bolted shorts only: what the findings rest on. With `known`, those whose current comes by none of the runs
// `changed` (by index) are taken from there: a thicker cable elsewhere moves them by what loads draw beside
// them, less than a thousandth. Where runs or states are not the same, nothing is taken.
[[nodiscard]] FaultStudy study_bolted(const Plan& plan, const std::vector<Solution>& solutions,
                                      const KnownShorts* known = nullptr,
                                      const std::vector<char>& changed = {});

// The same for the places of one run; bolted only where `bolted_only`.
[[nodiscard]] FaultStudy study_run(const Plan& plan, const std::vector<Solution>& solutions, std::size_t run,
                                   bool bolted_only = false);

// Air at a fuse: that of the place of the run's end it sits at.
[[nodiscard]] double air_at_device_C(const Plan& plan, const Run& run, const Device& device,
                                     const State& state);

// Both supplies of one state, to ask shorts of: what the ladder of a run needs for each size.
struct FaultBase {
    FaultNetwork strong, weak;
    std::size_t state = 0;
};
[[nodiscard]] FaultBase fault_base(const Plan& plan, std::size_t state, const Solution& solution);

// One change to the plan, asked without solving it anew: what works meanwhile is taken as it was.
struct WhatIf {
    std::size_t run = 0;           // index in Plan::runs
    std::optional<WireSize> size;  // its cable ...
    Id fuse;                       // ... and a fuse in it ...
    double rating_A = 0;           // ... of that rating
};
// The run in the plan as it is, or with that change. Empty: no volts there.
[[nodiscard]] std::optional<ShortRow> short_at(const Plan& plan, const FaultBase& base,
                                               const Solution& solution, const ShortPlace& place, double ohm,
                                               const WhatIf& change = {});

}  // namespace yr
