// What goes on each end of a cable: as it is said, else as its terminal and its copper ask; and how the end
// is made.
#pragma once

#include <string>
#include <vector>

#include "plan/plan.h"

namespace yr {

struct CableEnd {
    Terminal at;
    EndKind kind = EndKind::ring;
    bool chosen = true;   // not said in the plan: as is usual there
    double bolt_mm = 0;   // ring: its hole
    double blade_mm = 0;  // blade: its width
    double angle_deg = 0;
    bool boot = false, doubled = false;
    double strip_mm = 0;   // insulation off
    double shrink_mm = 0;  // diameter of the shrink before it is warmed; 0: none
    double shrink_length_mm = 0;
};
// `at_from`: which end. Bolts that are not said are M8 on batteries and studs, M6 elsewhere above 2.5 mm2;
// thinner copper goes on blades at loads and boxes; common practice, no source.
[[nodiscard]] CableEnd end_of(const Plan& plan, const Run& run, bool at_from);

// What is slid on before the lug is crimped, and what follows, in the order of the hands.
enum class EndStep {
    cut,
    slide_boot,
    slide_shrink,
    strip,
    twist,
    crimp_front,
    crimp_back,
    pull,
    warm,
    label
};
[[nodiscard]] std::vector<EndStep> steps_of(const CableEnd& end, double area_mm2);

// The die or tool, by copper: for lugs their size, for blades and ferrules a hand tool. Empty: a screw alone.
[[nodiscard]] std::string tool_for(const CableEnd& end, double area_mm2);

// Whether a run is a piece of cable that is cut: not body metal, not a resistance that is but given.
[[nodiscard]] bool is_cut(const Run& run);

}  // namespace yr
