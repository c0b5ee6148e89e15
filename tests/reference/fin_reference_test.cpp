// Heat along a cable through a hot spot, against the closed forms of the fin equation (handbooks of heat
// transfer, from memory) and against the balance without conduction.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "inspect/heat_along.h"
#include "network/fin.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "solve/settle.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

CableSurroundings cable_of(int awg) {
    return surroundings_of(*conductor(WireSize::awg(awg)), 25, 1);
}

TEST(Fin, InOneAirItIsTheBalanceWithoutConduction) {
    for (const int awg : {2, 6, 10, 14})
        for (const double air : {-20.0, 25.0, 85.0}) {
            CableSurroundings c = cable_of(awg);
            c.ambient_C = air;
            const double amps = 0.6 * current_for_temperature_A(c, air + 60);
            const FinAnswer fin = fin_temperature(c, amps, std::vector<double>(50, air), 0.02);
            ASSERT_TRUE(fin.settled);
            for (const double T : fin.conductor_C)
                EXPECT_NEAR(T, conductor_temperature_C(c, amps, air), 1e-4) << awg << " in " << air;
        }
}

// A spot of half-width w, warmer by a little, in a long cable: at its middle the copper follows the air by
// share (1 - exp(-w/L)), L = sqrt(kA/h'), h' the slope of what leaves less that of what is made.
TEST(Fin, AShortSpotWarmsTheCopperByTheClosedForm) {
    constexpr double kCell_m = 0.002, kSpot_K = 0.2;
    for (const int awg : {2, 8, 14})
        for (const double half_m : {0.05, 0.15, 0.4}) {
            const CableSurroundings c = cable_of(awg);
            const double amps = 0.8 * current_for_temperature_A(c, 85);
            const auto peak = [&](double spot_K) {
                std::vector<double> air(3000, 25.0);
                for (std::size_t k = 0; k < air.size(); ++k)
                    if (std::abs(static_cast<double>(k) - 1499.5) * kCell_m < half_m) air[k] += spot_K;
                const FinAnswer fin = fin_temperature(c, amps, air, kCell_m);
                EXPECT_TRUE(fin.settled);
                EXPECT_NEAR(fin.imbalance_W, 0, 1e-6) << "what is made leaves";
                return fin.conductor_C[1500];
            };
            // slopes worked out apart: the conductor's temperature over the air's, and over the current
            CableSurroundings warmer = c;
            warmer.ambient_C += kSpot_K;
            const double whole_K =
                conductor_temperature_C(warmer, amps, 80) - conductor_temperature_C(c, amps, 80);
            const double T0 = conductor_temperature_C(c, amps, 80);
            const double more = amps * 1.001;
            const double made = c.R20_ohm_per_m * (1 + kCopperAlpha_per_K * (T0 - 20));
            // d(loss)/dT - d(made)/dT = d(I2R)/dI / (dT/dI)
            const double stiff =
                (more * more - amps * amps) * made / (conductor_temperature_C(c, more, 80) - T0);
            const double length_m = std::sqrt(390 * 1.72e-8 / c.R20_ohm_per_m / stiff);
            const double rise = peak(kSpot_K) - peak(0);
            EXPECT_NEAR(rise, whole_K * (1 - std::exp(-half_m / length_m)), 0.02 * whole_K)
                << awg << " AWG, " << half_m << " m; carried " << length_m << " m";
            EXPECT_GT(length_m, 0.05);
            EXPECT_LT(length_m, 0.3) << "0.2 to 0.3 m for thick copper";
        }
}

TEST(Fin, AColdCableTakesHeatFromTheSpotAndAWireThatMeltsSaysSo) {
    const CableSurroundings c = cable_of(6);
    std::vector<double> air(200, 20.0);
    for (std::size_t k = 90; k < 110; ++k) air[k] = 120;
    const FinAnswer still = fin_temperature(c, 0, air, 0.01);
    ASSERT_TRUE(still.settled);
    EXPECT_LT(still.conductor_C[100], 110) << "carried away";
    EXPECT_GT(still.conductor_C[100], 60);
    EXPECT_GT(still.conductor_C[70], 21) << "and brought here";
    EXPECT_NEAR(still.imbalance_W, 0, 1e-6);
    EXPECT_FALSE(fin_temperature(c, 3000, air, 0.01).settled);
}

double everywhere(const Solution& solved, std::size_t run, const std::vector<double>& air_C) {
    CableSurroundings cable = solved.network.conductors[run].cable;
    cable.ambient_C = *std::max_element(air_C.begin(), air_C.end());
    const double amps = std::abs(solved.point.conductors[run].current_A);
    return conductor_temperature_C(cable, amps / solved.network.conductors[run].parallel, cable.ambient_C);
}

// On the demos as they are laid, in every state: never hotter than if all of it lay in the hottest air that
// it passes, never cooler than the coolest air.
TEST(Fin, AlongRealWaysItStaysBetweenWhatTheAirsAlone) {
    std::size_t differs = 0;
    for (std::size_t d = 0; d < std::size(kDemos); ++d) {
        Plan plan = laid_demo(d);
        for (yr::Run& r : plan.runs) r.length_m.reset();
        const Routes routes = route_all(plan);
        lay(plan, routes);
        for (const State& s : plan.states) {
            const Solution solved = solve(plan, s);
            for (std::size_t k = 0; k < plan.runs.size(); ++k) {
                if (!routes.by_run[k]) continue;
                const auto heat = heat_along(plan, k, *routes.by_run[k], s, solved.network, solved.point);
                if (!heat) continue;
                EXPECT_LE(heat->hottest_C, everywhere(solved, k, heat->air_C) + 0.01) << plan.runs[k].name;
                EXPECT_GE(heat->hottest_C, *std::min_element(heat->air_C.begin(), heat->air_C.end()) - 1e-3);
                EXPECT_LE(heat->at_m, routes.by_run[k]->length_m);
                differs += std::abs(heat->hottest_C - heat->counted_C) > 1;
            }
        }
    }
    EXPECT_GT(differs, 2u) << "some pass a hot place in short";
}

}  // namespace
}  // namespace yr::test
