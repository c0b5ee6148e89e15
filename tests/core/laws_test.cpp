// The law of each device, at and between its limits.
#include "network/laws.h"

#include <gtest/gtest.h>

namespace yr::test {
namespace {

constexpr double kNudge = 1e-6;

template <class L>
void slope_fits(L&& law, double u) {
    const double by_difference = (law(u + kNudge).current_A - law(u - kNudge).current_A) / (2 * kNudge);
    EXPECT_NEAR(std::abs(law(u).conductance_S), std::abs(by_difference),
                1e-6 * std::abs(by_difference) + 2 * kHold_S)
        << "at " << u << " V";
}

TEST(Laws, ABatteryGivesBehindItsResistanceAndAcceptsSoMuch) {
    const BatteryLaw law{12.6, 0.01, -30};
    EXPECT_NEAR(at_volts(law, 12.0).current_A, 60, 1e-9);
    EXPECT_NEAR(at_volts(law, 12.8).current_A, -20, 1e-9);
    EXPECT_EQ(at_volts(law, 14.0).current_A, -30);
    for (const double u : {11.0, 12.7, 14.0}) slope_fits([&](double v) { return at_volts(law, v); }, u);
}

// A 24 V battery across a 12 V one: what it accepts is no longer its own choice.
TEST(Laws, ABatteryIsForcedAboveTheVoltsOfAnyCharger) {
    const BatteryLaw law{12.6, 0.01, -30, 16};
    EXPECT_EQ(at_volts(law, 16.0).current_A, -30);
    EXPECT_NEAR(at_volts(law, 20.0).current_A, -30 - 400, 1e-9);
    slope_fits([&](double v) { return at_volts(law, v); }, 18.0);
    BatteryElement weak;  // takes more at 16 V than it accepts: no step where the two meet
    weak.open_V = 12, weak.R0_ohm = 0.1, weak.accept_A = 80, weak.forced_V = 16;
    EXPECT_NEAR(at_volts(battery_law(weak), 20.0 - 1e-9).current_A,
                at_volts(battery_law(weak), 20.0 + 1e-9).current_A, 1e-6);
}

TEST(Laws, ASourceRegulatesThenLimitsAndNeverTakes) {
    const SourceLaw law{14.2, 0.01, 90, 0};
    EXPECT_NEAR(at_volts(law, 14.0).current_A, 20, 1e-9);
    EXPECT_EQ(at_volts(law, 12.0).current_A, 90);
    EXPECT_NEAR(at_volts(law, 15.2).current_A, -kSense_S, 1e-12) << "it senses and takes nothing";
    for (const double u : {12.0, 13.9, 15.0}) slope_fits([&](double v) { return at_volts(law, v); }, u);
}

TEST(Laws, APanelGivesNoMoreThanItsPower) {
    const SourceLaw law{14.4, 0.005, 20, 100};
    for (double u = 1; u < 14.4; u += 0.1)
        EXPECT_LE(at_volts(law, u).current_A * u, 100 + 1e-9) << "a 100 W panel at " << u << " V";
    EXPECT_NEAR(at_volts(law, 10).current_A, 10, 1e-12);
    EXPECT_NEAR(most_A(law, 4), 20, 1e-12) << "its controller's own limit";
    slope_fits([&](double v) { return at_volts(law, v); }, 10);
}

TEST(Laws, ADiodePassesOneWay) {
    ConductorElement c;
    c.fixed_ohm = 0.01;
    c.forward_V = 0.7;
    EXPECT_NEAR(conductor_law(c, 0.01, 0.9).current_A, 10 + 0.9 * kDiodeLeak_S, 1e-9);
    EXPECT_NEAR(conductor_law(c, 0.01, -12).current_A, -12 * kDiodeLeak_S, 1e-12);
    c.forward_V = 0;
    EXPECT_NEAR(conductor_law(c, 0.01, -0.2).current_A, -10, 1e-12);
}

TEST(Laws, LoadsByTheirKind) {
    LoadElement l;
    l.kind = DrawKind::resistance, l.value = 4;
    EXPECT_EQ(load_law(l, 12).current_A, 3);
    l.kind = DrawKind::current;
    EXPECT_EQ(load_law(l, 12, 0.5).current_A, 2);
    l.kind = DrawKind::power, l.value = 60;
    EXPECT_EQ(load_law(l, 12).current_A, 5);
    EXPECT_LT(load_law(l, 12).conductance_S, 0) << "constant power: less current at more volts";
}

TEST(Laws, InTheFirstSecondsALoadStartsFromNothing) {
    for (const double u : {0.0, 0.5, 3.59, 3.61, 12.0})
        if (u > 0) slope_fits([](double v) { return starting_power(60, v, 3.6); }, u);
    EXPECT_EQ(starting_power(60, 0, 3.6).current_A, 0);
    EXPECT_EQ(starting_power(60, -1, 3.6).current_A, 0) << "it feeds nothing back";
    EXPECT_NEAR(starting_power(60, 3.6 - 1e-9, 3.6).current_A, 60 / 3.6, 1e-6)
        << "no step where the law changes";
    EXPECT_NEAR(starting_current(5, 2.4 - 1e-9, 2.4).current_A, 5, 1e-6);
}

TEST(Laws, AConverterTakesWhatItGivesAndItsOwn) {
    SourceElement s;
    s.efficiency = 0.9;
    s.standby_W = 2;
    EXPECT_NEAR(input_power_W(s, 10, 13.5), 152, 1e-9);
    EXPECT_NEAR(input_power_W(s, -1, 13.5), 2, 1e-9);
}

}  // namespace
}  // namespace yr::test
