// What a loom is covered with, layer by layer from the inside out.
#pragma once

#include <string>
#include <vector>

#include "plan/plan.h"

namespace yr {

struct CoveringLayer {
    std::string kind;  // of kCoverings
    double inner_mm = 0, outer_mm = 0;
    double sold_mm = 0;   // as it is bought: inner diameter; of tape its width
    bool chosen = false;  // nobody said so
};
// Empty for a single cable of which nothing is said, and for "none". Diameters as sold and walls are common
// practice, no source; shrink is bought a third wider than what it goes over.
[[nodiscard]] std::vector<CoveringLayer> covering_of(const Way& way, double bundle_mm, std::size_t cables);

// Metres of it that a stretch of loom takes: tape is wound half over itself, all else lies along.
[[nodiscard]] double metres_of(const CoveringLayer& layer, double loom_m);

}  // namespace yr
