// How thick a bundle is: the smallest circle round cables that lie as closely as they can.
#pragma once

#include <vector>

namespace yr {

struct Disc {
    double x = 0, y = 0, d = 0;  // centre from that of the bundle, diameter; any unit, the same throughout
};
struct Packing {
    std::vector<Disc> discs;  // in the order of the diameters given
    double diameter = 0;      // of the circle round them; 0 for none
};

// The best of some dozens of starts, each relaxed: discs are drawn to the middle and pushed off each other.
// For 2 to 19 equal discs within 1 % of the densest known (tests). Diameters above 0. Same input, same
// answer.
[[nodiscard]] Packing pack(const std::vector<double>& diameters);

// The handbook's factor, while something is dragged: 1.2 sqrt(sum of squares); from memory. Below the packing
// for 2 to 6, 9 and 10 equal cables.
[[nodiscard]] double bundle_by_factor(const std::vector<double>& diameters);

// The diameter of loom to buy: the larger of the two.
[[nodiscard]] double loom_diameter(const std::vector<double>& diameters);

}  // namespace yr
