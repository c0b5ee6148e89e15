// The solver against closed forms and against laws that hold for every circuit.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

#include "plan/plan_json.h"
#include "size/run_limits.h"
#include "support/random_plan.h"
#include "support/sweep.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

// Two nodes and whatever is put between them, without a plan.
Network bare(int nodes) {
    Network n;
    for (int k = 0; k < nodes; ++k) n.nodes.push_back("n" + std::to_string(k));
    return n;
}

ConductorElement ohms(int from, int to, double ohm) {
    ConductorElement c;
    c.from = from, c.to = to, c.fixed_ohm = ohm;
    c.parts = {{PartKind::metal, -1, ohm}};
    return c;
}

BatteryElement source(int pos, int neg, double volts, double ohm) {
    return {pos, neg, volts, ohm, 1e6, 100, 0.8};
}

TEST(Solve, ConstantPowerClosedForm) {  // V = (E + sqrt(E^2 - 4RP))/2; computed
    Network n = bare(2);
    n.batteries = {source(1, 0, 12.6, 0.05)};
    n.loads = {{1, 0, DrawKind::power, 400, true}};
    const OperatingPoint p = solve(n);
    EXPECT_NEAR(p.loads[0].voltage_V, 10.7373, 5e-5);
    EXPECT_NEAR(p.loads[0].current_A, 37.253, 5e-4);
    EXPECT_TRUE(p.residuals.good());
}

// From the answer before it is the same answer as from light load, whatever moved meanwhile: volts, charge,
// draws, and now and then a switch or a load.
TEST(Solve, FollowingFindsTheSameAsSearching) {
    int compared = 0;
    for (unsigned seed = 1; seed <= sweep(12U, 200U); ++seed) {
        const Plan plan = seed % 4 == 0 ? cart(seed).plan : vehicle(seed).plan;
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> share(0, 1);
        OperatingPointSolver follower;
        follower.follow(true);
        Network n = compile(plan, plan.states[seed % plan.states.size()]);
        for (int step = 0; step < 40; ++step) {
            for (BatteryElement& b : n.batteries)
                at_moment(b, std::clamp(b.charge + 0.1 * (share(random) - 0.5), 0.02, 1.0),
                          -20 + 60 * share(random));
            for (LoadElement& l : n.loads)
                if (l.value > 0) l.value *= 0.8 + 0.4 * share(random);
            if (random() % 6 == 0 && !n.conductors.empty()) {
                ConductorElement& c = n.conductors[random() % n.conductors.size()];
                c.closed = !c.closed;
            }
            if (random() % 6 == 0 && !n.loads.empty()) {
                LoadElement& l = n.loads[random() % n.loads.size()];
                if (l.kind != DrawKind::power || l.value > 0) l.wanted = !l.wanted;
            }
            if (random() % 8 == 0)
                for (LoadElement& l : n.loads)
                    l.value *= random() % 2 ? 6 : 0.2;  // beyond what can be served
            const OperatingPoint followed = follower.solve(n), searched = solve(n);
            ASSERT_EQ(followed.settled, searched.settled) << seed << ", step " << step;
            if (!searched.settled) continue;
            // copper that glows has more than one balance, and is found from the heat that it had before
            if (std::any_of(searched.conductors.begin(), searched.conductors.end(),
                            [](const ConductorResult& c) { return c.temperature_C > 150; }))
                continue;
            ++compared;
            for (std::size_t k = 0; k < n.loads.size(); ++k) {
                ASSERT_EQ(followed.loads[k].status, searched.loads[k].status) << seed << ", step " << step;
                ASSERT_NEAR(followed.loads[k].voltage_V, searched.loads[k].voltage_V, 1e-7);
            }
            for (std::size_t k = 0; k < n.batteries.size(); ++k)
                ASSERT_NEAR(followed.batteries[k].current_A, searched.batteries[k].current_A,
                            1e-6 * (1 + std::abs(searched.batteries[k].current_A)));
            for (std::size_t k = 0; k < n.sources.size(); ++k) {
                ASSERT_NEAR(followed.sources[k].current_A, searched.sources[k].current_A, 1e-6) << seed;
                if (std::abs(searched.sources[k].current_A) > 1e-6)
                    ASSERT_EQ(followed.sources[k].mode, searched.sources[k].mode)
                        << seed << ", step " << step;
            }
        }
    }
    EXPECT_GT(compared, 200);
}

TEST(Solve, FollowingWakesWhatWasDead) {
    Network n = bare(2);
    n.batteries = {source(1, 0, 0.4, 0.05)};
    n.loads = {{1, 0, DrawKind::current, 5, true}};
    OperatingPointSolver follower;
    follower.follow(true);
    EXPECT_EQ(follower.solve(n).loads[0].status, LoadStatus::dead);
    n.batteries[0].open_V = 12.6;
    EXPECT_EQ(follower.solve(n).loads[0].status, LoadStatus::on);
    EXPECT_NEAR(follower.solve(n).loads[0].voltage_V, 12.35, 1e-9);
    n.batteries[0].open_V = 0.4;
    EXPECT_EQ(follower.solve(n).loads[0].status, LoadStatus::dead);
}

TEST(Solve, ConstantPowerBeyondTheMostIsNamedNotNumbered) {  // E^2 / 4R = 793.8 W; computed
    Network n = bare(2);
    n.batteries = {source(1, 0, 12.6, 0.05)};
    n.loads = {{1, 0, DrawKind::power, 793.7, true}, {1, 0, DrawKind::resistance, 1e4, true}};
    EXPECT_EQ(solve(n).loads[0].status, LoadStatus::on) << "just below the fold there still is a solution";
    n.loads[0].value = 793.0 * 2;
    const OperatingPoint p = solve(n);
    EXPECT_EQ(p.loads[0].status, LoadStatus::collapsed);
    EXPECT_EQ(p.loads[0].current_A, 0);
    EXPECT_NEAR(p.collapsed_at[0], 0.5, 0.01);
    EXPECT_EQ(p.loads[1].status, LoadStatus::on) << "the rest is solved all the same";
    EXPECT_TRUE(p.residuals.good());
}

TEST(Solve, TheCollapsingLoadIsTheOneNamed) {
    Network n = bare(4);
    n.batteries = {source(1, 0, 12.6, 0.002)};
    n.conductors = {ohms(1, 2, 0.01), ohms(1, 3, 0.5)};
    n.loads = {{2, 0, DrawKind::power, 100, true},
               {3, 0, DrawKind::power, 120, true}};  // 120 W behind 0.5 ohm: at most 79 W
    const OperatingPoint p = solve(n);
    EXPECT_EQ(p.loads[0].status, LoadStatus::on);
    EXPECT_EQ(p.loads[1].status, LoadStatus::collapsed);
}

TEST(Solve, RegulatorIsStiffUntilItsLimitAndThenACurrentSource) {
    Network n = bare(2);
    n.batteries = {{1, 0, 12.4, 0.005, 2.0, 70, 0.8}};
    SourceElement alternator;
    alternator.out = 1, alternator.neg = 0, alternator.works = true, alternator.set_V = 14.2,
    alternator.droop_ohm = 0.004, alternator.limit_A = 60;
    n.sources = {alternator};
    n.loads = {{1, 0, DrawKind::current, 40, true}};
    OperatingPoint p = solve(n);
    EXPECT_EQ(p.sources[0].mode, DeviceMode::regulating);
    EXPECT_NEAR(p.sources[0].current_A, 42, 1e-9)
        << "the load and what the battery accepts, not what R0 would let in";
    EXPECT_NEAR(p.sources[0].voltage_V, 14.2 - 0.004 * 42, 1e-9);
    n.loads[0].value = 75;
    p = solve(n);
    EXPECT_EQ(p.sources[0].mode, DeviceMode::limited);
    EXPECT_NEAR(p.batteries[0].current_A, 15, 1e-9) << "the battery gives the rest";
    EXPECT_NEAR(p.batteries[0].voltage_V, 12.4 - 15 * 0.005, 1e-9)
        << "nothing stands at 14.2 V while the battery discharges";
    n.batteries[0].open_V = 14.6;
    n.loads[0].value = 1;
    p = solve(n);
    EXPECT_EQ(p.sources[0].mode, DeviceMode::blocking) << "no current flows back into it";
    EXPECT_NEAR(p.sources[0].current_A, 0, 1e-5) << "but what its sense lead takes";
}

TEST(Solve, ConverterTakesWhatItGivesOverItsEfficiency) {
    Network n = bare(3);
    n.batteries = {source(1, 0, 52, 0.01)};
    SourceElement c;
    c.out = 2, c.neg = 0, c.in = 1, c.works = true, c.set_V = 13.4, c.droop_ohm = 0.004, c.limit_A = 30,
    c.efficiency = 0.9, c.standby_W = 3;
    n.sources = {c};
    n.loads = {{2, 0, DrawKind::current, 20, true}};
    OperatingPoint p = solve(n);
    const double out = p.sources[0].voltage_V * 20;
    EXPECT_NEAR(p.sources[0].input_A * p.node_V[1], out / 0.9 + 3, 1e-8);
    EXPECT_NEAR(p.batteries[0].current_A, p.sources[0].input_A, 1e-9);
    n.conductors = {ohms(1, 2, 1e5)};
    n.sources[0].in = 2;  // fed from its own output: dead at the start, it never begins
    p = solve(n);
    EXPECT_TRUE(p.sources[0].collapsed);
}

TEST(Solve, WhatNothingFeedsIsDeadNotCollapsed) {
    Network n = bare(4);
    n.batteries = {source(1, 0, 12.6, 0.05)};
    n.conductors = {ohms(1, 2, 0.01)};
    n.conductors[0].closed = false;
    n.loads = {{2, 0, DrawKind::power, 60, true},
               {3, 0, DrawKind::current, 5, true},
               {1, 0, DrawKind::resistance, 6, true}};
    const OperatingPoint p = solve(n);
    EXPECT_EQ(p.loads[0].status, LoadStatus::dead);
    EXPECT_EQ(p.loads[1].status, LoadStatus::dead);
    EXPECT_EQ(p.loads[2].status, LoadStatus::on);
    EXPECT_EQ(p.conductors[0].current_A, 0);
    EXPECT_TRUE(p.residuals.good());
}

class Laws : public testing::TestWithParam<int> {};

TEST_P(Laws, KirchhoffAndEnergyHoldEverywhere) {
    for (const bool loops : {false, true}) {
        RandomShape shape;
        shape.loops = loops;
        shape.loads = 4 + GetParam() % 20;
        const Plan plan = random_plan(static_cast<std::uint32_t>(1000 + GetParam()), shape);
        const Solution s = solve(plan, plan.states[0]);
        EXPECT_TRUE(s.point.settled);
        EXPECT_TRUE(s.point.residuals.good())
            << s.point.residuals.node_A << " A, " << s.point.residuals.energy_W << " W";
        for (std::size_t k = 0; k < plan.sources.size(); ++k) EXPECT_GE(s.point.sources[k].current_A, -1e-4);
    }
}

// In a radial plan a thicker cable never raises its load's drop and a longer one never lowers it.
TEST_P(Laws, RadialPlansAreMonotone) {
    RandomShape shape;
    shape.loops = false;
    shape.resistive = true;
    shape.loads = 5;
    const Plan plan = random_plan(static_cast<std::uint32_t>(GetParam()), shape);
    const Solution base = solve(plan, plan.states[0]);
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        for (std::size_t r = 0; r < plan.runs.size(); ++r) {
            if (owner_of(plan.runs[r].to) != plan.loads[k].id || !plan.runs[r].size) continue;
            Plan thick = plan, longer = plan;
            thick.runs[r].size = step_size(*plan.runs[r].size, 2);
            longer.runs[r].length_m = *plan.runs[r].length_m * 1.3;
            EXPECT_LE(solve(thick, plan.states[0]).point.loads[k].drop_V, base.point.loads[k].drop_V + 1e-9);
            EXPECT_GE(solve(longer, plan.states[0]).point.loads[k].drop_V, base.point.loads[k].drop_V - 1e-9);
        }
    }
}

// Rayleigh: in any resistive network the resistance between two terminals never rises when a cable thickens.
TEST_P(Laws, RayleighHoldsInMeshes) {
    RandomShape shape;
    shape.resistive = true;
    shape.loads = 1;
    shape.feeds = 6;
    const Plan plan = random_plan(static_cast<std::uint32_t>(500 + GetParam()), shape);
    const auto seen_from_battery = [&](Network net) {
        for (ConductorElement& c : net.conductors)
            c.fixed_ohm += c.cable20_ohm, c.cable20_ohm = 0;  // a fixed temperature
        net.batteries[0].R0_ohm = 1e-3;
        const OperatingPoint p = solve(net);
        return p.batteries[0].voltage_V / p.batteries[0].current_A;
    };
    const double base = seen_from_battery(compile(plan, plan.states[0]));
    for (std::size_t r = 0; r < plan.runs.size(); ++r) {
        if (!plan.runs[r].size) continue;
        Plan thick = plan;
        thick.runs[r].size = step_size(*plan.runs[r].size, 1);
        EXPECT_LE(seen_from_battery(compile(thick, plan.states[0])), base * (1 + 1e-9)) << plan.runs[r].id;
    }
}

INSTANTIATE_TEST_SUITE_P(Seeds, Laws, testing::Range(1, 41));

TEST(Solve, DemosHoldInEveryState) {
    for (const char* demo : kDemos) {
        const auto plan = load_plan(demo_path(demo));
        for (const Solution& s : solve_all(*plan)) {
            EXPECT_TRUE(s.point.settled);
            EXPECT_TRUE(s.point.residuals.good());
        }
    }
}

TEST(Solve, TenThousandLoadsHold) {
    const Plan plan = wide_plan(10000);
    const Solution s = solve(plan, plan.states[0]);
    EXPECT_TRUE(s.point.settled);
    EXPECT_TRUE(s.point.residuals.good())
        << s.point.residuals.node_A << " of " << s.point.residuals.node_scale_A;
}

TEST(Solve,
     ParallelCablesShareByTheirResistance) {  // 3 m beside 5 m of 2 AWG: thickening one attracts current
    Network n = bare(3);
    n.batteries = {source(1, 0, 12.6, 0.001)};
    n.conductors = {ohms(1, 2, 0.003), ohms(1, 2, 0.005)};
    n.loads = {{2, 0, DrawKind::current, 200, true}};
    const OperatingPoint p = solve(n);
    EXPECT_NEAR(p.conductors[0].current_A, 125, 1e-6);
    EXPECT_NEAR(p.conductors[1].current_A, 75, 1e-6);
}

}  // namespace
}  // namespace yr::test
