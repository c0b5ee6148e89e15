// The families of rules; each appends what it finds. For findings.cpp.
#pragma once

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <mutex>

#include "demand/demand.h"
#include "guard/fault_study.h"
#include "inspect/findings.h"
#include "plan/roles.h"

namespace yr {

// A plan that was looked at already, and the runs in which another differs from it.
struct NearPlan {
    const KnownShorts& shorts;
    const std::vector<RunDemand>& demand;  // by run; of the same runs it is as large
    std::vector<char> changed;             // by run
    const std::vector<char>& unguarded;    // by run: it was told there that its fuse does not guard it
};

struct Case {
    const Plan& plan;
    const std::vector<Solution>& solutions;  // by state
    bool with_mends;
    const std::vector<StateBands>& bands;               // empty: the plan states no ranges
    const NearPlan* near = nullptr;                     // nullptr: there is none
    const std::vector<const Finding*>* only = nullptr;  // whose mends are wanted; nullptr: all
    const FedEnds fed{plan};
    const SupplySide supply{plan};
    const std::vector<RunDemand> demand = near ? near->demand : demand_of(plan, solutions);  // by run
    mutable std::map<std::size_t, Solution> all_closed{};  // by state, made when asked for
    mutable std::mutex closing{};                          // of it: families of rules work at once

    // What takes long to mend asks first.
    [[nodiscard]] bool wants_mend(const Finding& f) const {
        return with_mends && (!only || std::any_of(only->begin(), only->end(),
                                                   [&](const Finding* o) { return same_place(*o, f); }));
    }
};

// The findings of a plan that differs from that one in those runs alone, by size and fuses: but for the hours
// of its batteries, which a cable's size hardly moves and which take long, and for what hangs on what and is
// live when. Who goes by these asks once more for all.
[[nodiscard]] std::vector<Finding> findings_near(const Plan& plan, const NearPlan& near);

// What a person opened (a switch, a master, a fuse pulled, a relay put open by the state) or a cut-off opened
// to spare its battery is no fault, and what hangs behind is expected dead: `alive` says of the same state
// with all of that closed and full batteries whether it would be fed.
[[nodiscard]] bool dead_on_purpose(const Case& c, std::size_t state,
                                   const std::function<bool(const Solution&)>& alive);

void inspect_drops(const Case& c, std::vector<Finding>& out);      // drop, no operating point, dead, key rail
void inspect_never_run(const Case& c, std::vector<Finding>& out);  // loads that no state lets run
void inspect_cables(const Case& c, std::vector<Finding>& out);     // ampacity, temperature, thin returns
void inspect_protection(const Case& c, std::vector<Finding>& out);  // fuses
void inspect_supply(const Case& c, std::vector<Finding>& out);      // sources, batteries, assumptions

void inspect_batteries(const Case& c, std::vector<Finding>& out);    // charged, cranked, shared, interrupted
void inspect_polarity(const Case& c, std::vector<Finding>& out);     // wrong way round, of other volts
void inspect_state_names(const Case& c, std::vector<Finding>& out);  // what is not in the plan
void inspect_converters(const Case& c, std::vector<Finding>& out);   // asked for more than they give
void inspect_mains(const Case& c, std::vector<Finding>& out);        // inverters, converters' surge and lines
void inspect_starting(const Case& c, std::vector<Finding>& out);     // windows of volts, all inrush at once
void inspect_switching(const Case& c, std::vector<Finding>& out);    // chatter, memory, master disconnects
void inspect_boxes(const Case& c, std::vector<Finding>& out);        // channels, groups, mains of boxes
void inspect_control(const Case& c, std::vector<Finding>& out);      // who is live when, coils, taps, grounds

// Shorts: what opens, when, what it may cut. Reads what was told of the fuses and batteries before.
[[nodiscard]] KnownShorts study_shorts(const Case& c);  // with their ways where mends are sought
void inspect_faults(const Case& c, const FaultStudy& study, std::vector<Finding>& out);

void inspect_fitting(const Case& c, std::vector<Finding>& out);  // lugs, bends, twins, joints, fuses at work
void inspect_joining(const Case& c, std::vector<Finding>& out);  // pins, jackets, bolts, sensors

[[nodiscard]] inline Finding make_finding(FindingKind kind, Severity severity, const Id& id,
                                          const std::string& other, const Id& state, double value = 0,
                                          double limit = 0) {
    Finding f;
    f.kind = kind;
    f.severity = severity;
    f.id = id;
    f.other = other;
    f.state = state;
    f.value = value;
    f.limit = limit;
    return f;
}

// Largest current of a run over all states but cranking, A.
[[nodiscard]] inline double worst_current_A(const Case& c, std::size_t run) {
    double worst = 0;
    for (std::size_t s = 0; s < c.solutions.size(); ++s)
        if (c.plan.states[s].key != Key::crank)
            worst = std::max(worst, std::abs(c.solutions[s].point.conductors[run].current_A));
    return worst;
}

// What a run may have to carry for ever though no listed state shows it: what a source, charger or inverter
// is made for, and a branch's own load. nullptr: nothing.
[[nodiscard]] inline const DemandItem* unlisted_demand(const Case& c, std::size_t run) {
    const DemandItem* most = nullptr;
    const bool branch =
        find(c.plan.loads, c.plan.runs[run].to.owner) || find(c.plan.loads, c.plan.runs[run].from.owner);
    for (const DemandItem& i : c.demand[run].items)
        if (i.seconds <= 0 && (i.kind == DemandKind::rating || (branch && i.kind == DemandKind::together)) &&
            (!most || i.amps > most->amps))
            most = &i;
    return most;
}

// A converter that alone feeds its rail and is asked for more than it gives in a state.
struct OverAsked {
    std::size_t source = 0;
    double asked_A = 0, gives_A = 0;
    std::vector<std::size_t> loads;  // that hang on it, of the network's list
};
[[nodiscard]] std::vector<OverAsked> over_asked(const Case& c, std::size_t state);
// Whether the load hangs on the rail of one of them.
[[nodiscard]] bool explains(const std::vector<OverAsked>& over, std::size_t load);

// Everything that hangs on the battery's post beside the master in this run moves to a bus bar behind it, and
// the alternator's field goes through its second pole; the cable to it as thick as the thickest of
// them, then thicker, then with a fuse; all that once more with larger contacts than are said (the mend's
// from_A and to_A; 0: as said). Empty: the run begins at no battery.
[[nodiscard]] std::vector<Mend> behind_the_master(const Plan& plan, const Id& run, const Id& master);

// Adds `finding`, or replaces the one of the same kind and place when this one is worse (larger value /
// limit).
enum class Worse { higher, lower };  // which value is the worse one
void keep_worst(std::vector<Finding>& out, std::size_t from, Finding finding, Worse worse = Worse::higher);

}  // namespace yr
