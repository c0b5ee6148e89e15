#include "network/fin.h"

#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>

namespace yr {
namespace {

constexpr double kConductOhm = 390 * 1.72e-8;  // W ohm / K: kA times ohm per metre

struct Leaving {
    double W_per_m, slope;  // per kelvin of the conductor
};

// What leaves one metre of a conductor at that temperature: through the wall, then into the air. Where the
// air is hotter it takes heat up by the same law.
Leaving leaving(CableSurroundings cable, double air_C, double conductor_C) {
    cable.ambient_C = air_C;
    const double rise = std::abs(conductor_C - air_C), sign = conductor_C < air_C ? -1 : 1;
    const auto at = [&](double surface_rise) { return heat_loss_W_per_m(cable, air_C + surface_rise); };
    // surface: x + loss(x) wall = rise; loss grows with x, so Newton from above closes in
    double x = rise, loss = at(x), slope = 0;
    for (int k = 0; k < 60; ++k) {
        constexpr double kStep = 1e-5;
        slope = (at(x + kStep) - loss) / kStep;
        const double off = x + loss * cable.wall_K_m_per_W - rise;
        if (std::abs(off) < 1e-11 * (1 + rise)) break;
        x = std::max(0.0, x - off / (1 + slope * cable.wall_K_m_per_W));
        loss = at(x);
    }
    return {sign * loss, slope / (1 + slope * cable.wall_K_m_per_W)};
}

}  // namespace

double fin_length_m(const CableSurroundings& cable, double conductor_C) {
    const double slope = leaving(cable, cable.ambient_C, conductor_C).slope;
    return slope > 0 ? std::sqrt(kConductOhm / cable.R20_ohm_per_m / slope) : 0;
}

FinAnswer fin_temperature(const CableSurroundings& cable, double current_A, const std::vector<double>& air_C,
                          double cell_m) {
    FinAnswer out;
    const auto n = static_cast<Eigen::Index>(air_C.size());
    if (n == 0 || !(cell_m > 0)) return out;
    const double heat20 =
        current_A * current_A * cable.R20_ohm_per_m / (cable.bundle_factor * cable.bundle_factor);
    const double along = kConductOhm / cable.R20_ohm_per_m / (cell_m * cell_m);
    Eigen::VectorXd T = Eigen::Map<const Eigen::VectorXd>(air_C.data(), n), off(n);
    std::vector<Eigen::Triplet<double>> terms;
    Eigen::SparseMatrix<double> system(n, n);
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver;
    for (int round = 0; round < 60 && !out.settled; ++round) {
        terms.clear();
        out.imbalance_W = 0;
        for (Eigen::Index i = 0; i < n; ++i) {
            const Leaving lost = leaving(cable, air_C[static_cast<std::size_t>(i)], T[i]);
            const double made = heat20 * (1 + kCopperAlpha_per_K * (T[i] - 20));
            out.imbalance_W += (made - lost.W_per_m) * cell_m;
            off[i] = made - lost.W_per_m;
            double middle = lost.slope - heat20 * kCopperAlpha_per_K;
            for (const Eigen::Index j : {i - 1, i + 1}) {
                if (j < 0 || j >= n) continue;
                off[i] += along * (T[j] - T[i]), middle += along;
                if (j < i) terms.emplace_back(i, j, -along);
            }
            terms.emplace_back(i, i, middle);
        }
        system.setFromTriplets(terms.begin(), terms.end());
        solver.compute(system);
        if (solver.info() != Eigen::Success || solver.vectorD().minCoeff() <= 0) return out;  // runs away
        const Eigen::VectorXd step = solver.solve(off);
        T += step;
        if (!(T.maxCoeff() < kMelted_C)) return out;
        out.settled = step.cwiseAbs().maxCoeff() < 1e-7;
    }
    out.conductor_C.assign(T.data(), T.data() + n);
    out.hottest = static_cast<std::size_t>(std::max_element(out.conductor_C.begin(), out.conductor_C.end()) -
                                           out.conductor_C.begin());
    return out;
}

}  // namespace yr
