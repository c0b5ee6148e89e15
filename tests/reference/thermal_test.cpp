// The heat balance against a second writing of it, solved by plain bisection, and against known limits.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "catalog/ampacity.h"
#include "network/thermal.h"

namespace yr::test {
namespace {

// Churchill and Chu 1975, Int. J. Heat Mass Transfer 18, 1049, written from the paper's form (from memory).
double balance_C(double d_conductor, double d_outer, double r20, double ambient_C, double amps) {
    const auto loss = [&](double surface) {
        const double film = 0.5 * (surface + ambient_C) + 273.15;
        const double nu = 1.326e-5 * std::pow(film / 273.15, 1.78),
                     k = 0.0241 * std::pow(film / 273.15, 0.85), pr = 0.71;
        const double ra = 9.80665 / film * (surface - ambient_C) * std::pow(d_outer, 3) / (nu * nu) * pr;
        const double nusselt = std::pow(
            0.60 + 0.387 * std::pow(ra, 1.0 / 6) / std::pow(1 + std::pow(0.559 / pr, 9.0 / 16), 8.0 / 27), 2);
        const double s4 = std::pow(surface + 273.15, 4) - std::pow(ambient_C + 273.15, 4);
        return std::numbers::pi * d_outer *
               (nusselt * k / d_outer * (surface - ambient_C) + 0.9 * 5.670374419e-8 * s4);
    };
    double low = ambient_C, high = ambient_C + 1500;
    for (int n = 0; n < 200; ++n) {
        const double surface = (low + high) / 2;
        const double conductor =
            surface + loss(surface) * std::log(d_outer / d_conductor) / (2 * std::numbers::pi * 0.19);
        const double heat = amps * amps * r20 * (1 + 0.00393 * (conductor - 20));
        (loss(surface) < heat ? low : high) = surface;
    }
    return low + loss(low) * std::log(d_outer / d_conductor) / (2 * std::numbers::pi * 0.19);
}

TEST(HeatBalance, AgreesWithASecondWriting) {
    for (int n : {18, 14, 10, 6, 2, -1, -3})
        for (double ambient : {-20.0, 30.0, 85.0})
            for (double share : {0.05, 0.3, 1.0, 1.5}) {
                const Conductor c = *conductor(WireSize::awg(n));
                AmpacityAsk ask;
                ask.size = c.size;
                const double amps = share * ampacity(ask)->allowed_A;
                const double ours = conductor_temperature_C(surroundings_of(c, ambient, 1), amps, 0);
                EXPECT_NEAR(ours,
                            balance_C(c.strand_diameter_mm * 1e-3, c.outer_diameter_mm * 1e-3,
                                      c.R20_ohm_per_m, ambient, amps),
                            1e-6)
                    << n << " " << ambient << " " << share;
            }
}

TEST(HeatBalance, GuessDoesNotMatter) {
    const auto air = surroundings_of(*conductor(WireSize::awg(8)), 40, 0.7);
    const double cold = conductor_temperature_C(air, 55, 0);
    for (double guess : {41.0, 80.0, 300.0, 1500.0})
        EXPECT_NEAR(conductor_temperature_C(air, 55, guess), cold, 1e-8);
}

TEST(HeatBalance, CurrentForTemperatureIsItsInverse) {
    for (int n : {16, 8, 0}) {
        const auto air = surroundings_of(*conductor(WireSize::awg(n)), 30, 0.6);
        const double amps = current_for_temperature_A(air, 105);
        EXPECT_NEAR(conductor_temperature_C(air, amps, 0), 105, 1e-6);
    }
    EXPECT_EQ(current_for_temperature_A(surroundings_of(*conductor(WireSize::awg(8)), 110, 1), 105), 0);
}

TEST(HeatBalance, TableAmpacityStaysWithinInsulationInFreeAir) {  // ABYC tables are meant to; from memory
    for (int n : {18, 16, 14, 12, 10, 8, 6, 4, 2, 1, 0, -1, -2, -3}) {
        AmpacityAsk ask;
        ask.size = WireSize::awg(n);
        const double t = conductor_temperature_C(surroundings_of(*conductor(ask.size), 30, 1),
                                                 ampacity(ask)->allowed_A, 0);
        EXPECT_LT(t, 125) << n;  // the physics stands beside the table as a second opinion: within 20 K of it
        EXPECT_GT(t, 45) << n;
    }
}

TEST(HeatBalance, AMeltingWireSaysSo) {
    EXPECT_EQ(conductor_temperature_C(surroundings_of(*conductor(WireSize::awg(22)), 30, 1), 500, 0), 2000);
}

}  // namespace
}  // namespace yr::test
