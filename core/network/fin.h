// The temperature of a conductor along its way where the air is not the same everywhere: copper carries heat
// out of a short hot spot. The fin equation with the heat of the current in it, per metre of cable:
//     kA T'' + (I / f)^2 R(T) - loss(T, air(x)) = 0,   T' = 0 at both ends
// in cells of equal length, by Newton; each step solves a symmetric tridiagonal system.
// kA from the conductor's resistance: k rho = 390 W/mK x 1.72e-8 ohm m (copper, handbook, from memory); by
// the law of Wiedemann and Franz it holds for clad aluminium as well.
#pragma once

#include <vector>

#include "network/thermal.h"

namespace yr {

struct FinAnswer {
    std::vector<double> conductor_C;  // of each cell
    std::size_t hottest = 0;          // its index
    bool settled = false;    // false: a wire that melts, or no convergence; temperatures mean nothing
    double imbalance_W = 0;  // heat of all cells less what leaves them: 0 but for rounding
};

// `air_C` of each cell, `cell_m` its length: above 0. `cable.ambient_C` is not read.
[[nodiscard]] FinAnswer fin_temperature(const CableSurroundings& cable, double current_A,
                                        const std::vector<double>& air_C, double cell_m);

// How far heat is carried along it: sqrt(kA / loss per kelvin) at that temperature, m.
[[nodiscard]] double fin_length_m(const CableSurroundings& cable, double conductor_C);

}  // namespace yr
