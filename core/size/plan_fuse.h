// Which fuse for a run of the plan: the three schools side by side, and the kind by current, what it must cut
// off and where it sits.
#pragma once

#include <optional>
#include <vector>

#include "guard/fault_study.h"
#include "size/fuse_size.h"
#include "size/run_check.h"

namespace yr {

struct SchoolChoice {
    FuseSchool school{};
    std::optional<FuseChoice> chosen;
    double needed_A = 0;
    bool carries = false, holds_inrush = false, protects_cable = false;
    bool opens_far_short = false;   // a bolted short at the far end is sure to open it
    std::optional<double> opens_s;  // latest
};

struct RunFuseAdvice {
    double current_A = 0;  // largest normal current, over the states but cranking
    Id state;
    double asked_A = 0;           // for ever, by the run's demand: what a fuse must carry whatever flows now
    bool nothing_behind = false;  // nothing asks for anything there: no rule by the load says a rating
    std::optional<double> inrush_A;
    double cable_A = 0;
    double must_cut_A = 0;                 // largest short just behind it, to be interrupted
    std::vector<SchoolChoice> schools;     // load150, inrush, wire
    std::vector<FuseType> kinds;           // that carry that rating and may cut so much, the usual first
    bool both_ends = false;                // a battery can feed the other end as well: each end needs its own
    double distance_m = 0, allowed_m = 0;  // of its present fuse from the source; 0 without one
    bool guards = false;                   // the plan's own fuse guards the cable over its whole band
    FuseGuard guard;
    Id guarded_by;  // where its own does not: the fuse before it that does; empty: none
};

// Whether the fuse guards the cable of that run over its whole band: air at its hottest around the cable, at
// its coldest around the fuse. Empty for a run without a size of the tables, or of metal.
// `exact`: the heat that is reached is worked out as well; without it only whether it guards is sure.
[[nodiscard]] std::optional<FuseGuard> guard_by(const Plan& plan, const Run& run, const Device& fuse,
                                                bool exact = true, double from_multiple = 0);

inline constexpr double kColdFuse = 1.07;  // what a fuse holds at -20 C against 20 C (catalog/fuses.json)

// Whether all fuses of the run do so, and would if they were so many times as large: who chooses a size
// leaves room for colder states that are still to be said, in which a fuse holds more.
[[nodiscard]] bool guarded(const Plan& plan, const Run& run, double larger = 1);

// A short of a positive cable to the vehicle's metal comes back to its battery over the cable that grounds
// it: by the largest fuse on that battery's positive side, unless the cable holds as much copper as what that
// fuse stands in. `fuse`: nullptr where nothing is to guard.
struct GroundDuty {
    const Run* supply = nullptr;
    const Device* fuse = nullptr;
};
// The battery whose negative post that run joins to the vehicle's metal; nullptr: it joins none.
[[nodiscard]] const Battery* grounded_by(const Plan& plan, const Run& run);
// Of the thickest cable between a battery's negative post and metal; of every other run nothing.
[[nodiscard]] GroundDuty ground_duty(const Plan& plan, const Run& run);
// Of shorts, three times the rating and more: what is less is an overload of a load, which has a return of
// its own.
[[nodiscard]] bool grounds_guarded(const Plan& plan, const Run& run);

// The fuse before this run that guards it at every end that a battery feeds; nullptr: there is none.
[[nodiscard]] const Device* guarded_before(const Plan& plan, const Run& run,
                                           const std::vector<EndProtection>& ends);

// `solutions` by state. Failure: missing_reference; unknown_size for body metal and given resistances.
[[nodiscard]] Result<RunFuseAdvice> advise_fuse(const Plan& plan, const Id& run,
                                                const std::vector<Solution>& solutions);

// Kinds with that rating (or the next above it) that may interrupt so much at these volts: blades where they
// reach, then bolt-down and the stronger ones; a type III breaker where it is reached by hand.
[[nodiscard]] std::vector<FuseType> kinds_for(double rating_A, double must_cut_A, double nominal_V);

}  // namespace yr
