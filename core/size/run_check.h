// What one size of one run must satisfy whatever the rest of the plan does: it carries its amps, its fuse
// guards it over the whole of the fuse's band, it fits its terminals and bends round its corners; and what it
// costs.
#pragma once

#include <optional>
#include <string>

#include "network/thermal_time.h"
#include "plan/plan.h"
#include "size/run_limits.h"

namespace yr {

// Whether a fuse opens before the cable is hurt, for every overcurrent: at each point of its band the latest
// opening against what the cable bears from `start_C`; and where no opening is promised, the steady
// temperature. `exact` false: the temperature is a bound from above (no loss of heat, or the steady one),
// enough to say yes. `from_multiple`: overcurrents below so many times the rating are left out.
struct FuseGuard {
    bool guards = true;
    double multiple = 0;   // of the rating, where it stands worst
    double reached_C = 0;  // there
    double limit_C = 0;    // after a short, by insulation
    double seconds = 0;    // the latest opening there; 0: for ever
};
[[nodiscard]] FuseGuard fuse_guard(const CableSurroundings& cable, double insulation_C, double start_C,
                                   int parallel, FuseType type, double rating_A, double air_C,
                                   bool exact = true, double from_multiple = 0);

// Thread of the bolt at a terminal and the thickest copper it takes; empty: not stated.
[[nodiscard]] std::optional<double> bolt_at_mm(const Plan& plan, const Terminal& terminal);
[[nodiscard]] std::optional<double> most_at_mm2(const Plan& plan, const Terminal& terminal);

struct RunFit {
    bool terminals = true;  // thin enough for both, and lugs exist for both bolts
    bool bends = true;
    bool sturdy = true;    // not so thin that it breaks by shaking
    Terminal tight;        // the terminal that does not take it
    double bolt_mm = 0;    // its bolt, where no lug for this copper goes on it
    double most_mm2 = 0;   // its limit, where it takes no such copper
    double radius_mm = 0;  // least bending radius of this cable
    [[nodiscard]] bool fits() const { return terminals && bends && sturdy; }
};
[[nodiscard]] RunFit run_fit(const Plan& plan, const Run& run, const WireSize& size);

// Metal of the run, kg, and its money: copper by weight, making by length, an end each.
[[nodiscard]] double run_mass_kg(const Run& run, const WireSize& size);
[[nodiscard]] double run_money(const Plan& plan, const Run& run, const WireSize& size);

// Metal of a run as it stands, all its cables together, mm2; 0 where it has no size.
[[nodiscard]] double copper_mm2(const Run& run);
// Metal of all cables, kg; what has no size yet counts as 14 AWG, metal of the body and stated resistances
// not.
[[nodiscard]] double cables_kg(const Plan& plan);

// Largest inrush that passes through this run at once, A: the starts of the load it ends at; 0 where there is
// none.
[[nodiscard]] double start_through_A(const Plan& plan, const Run& run);

}  // namespace yr
