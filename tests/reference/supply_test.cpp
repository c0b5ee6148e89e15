// Batteries, sources and inverters against published rules and facts of the trade.
#include <gtest/gtest.h>

#include <cmath>

#include "plan/additions.h"
#include "plan/plan_json.h"
#include "solve/settle.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

// Peukert 1897, t = H (C / (I H))^n (from memory): at the rated current it is the rated time, above it less.
TEST(Batteries, PeukertsLaw) {
    EXPECT_NEAR(hours_for_share(1, 100, 5, 1.2), 20, 1e-9);
    EXPECT_NEAR(hours_for_share(1, 100, 25, 1.2), 20 * std::pow(100.0 / (25 * 20), 1.2), 1e-9);
    EXPECT_NEAR(hours_for_share(1, 100, 2.5, 1.2), 40, 1e-9) << "held flat below the 20 h rate";
    EXPECT_NEAR(hours_for_share(1, 100, 40, 1.0), 2.5, 1e-9);
}

// SAE J537 reserve capacity: minutes at 25 A (from memory). A battery of that capacity lasts just so long at
// 25 A.
TEST(Batteries, ReserveMinutesGiveTheCapacity) {
    for (double n : {1.05, 1.12, 1.2})
        for (double minutes : {60.0, 120.0, 180.0})
            EXPECT_NEAR(hours_for_share(1, capacity_from_reserve_Ah(minutes, n), 25, n) * 60, minutes, 1e-6);
    // common practice: 120 minutes of reserve is a battery of about 70 Ah
    EXPECT_NEAR(capacity_from_reserve_Ah(120, 1.2), 73, 3);
}

// EN 50342-1 holds 7.5 V for 10 s at -18 C, SAE J537 7.2 V for 30 s (both from memory): each battery, at its
// own cranking amps in that cold, stands at its own standard's volts behind 12.6 V.
TEST(Batteries, EachCrankingStandardAtItsOwnVolts) {
    for (const auto& [standard, volts] :
         {std::pair{CrankingStandard::sae, 7.2}, {CrankingStandard::en, 7.5}}) {
        Plan plan = empty_plan("cold");
        plan.batteries[0].cranking_A = 600;
        plan.batteries[0].cranking_standard = standard;
        plan.states = {{"s", "Cold", Key::off, 0, -18, -18, 1.0, {}}};
        const BatteryElement e = compile(plan, plan.states[0]).batteries[0];
        EXPECT_NEAR(12.6 - 600 * e.R0_ohm, volts, 1e-9);
    }
}

TEST(Batteries, AgeTakesCapacityAndAddsResistance) {
    Plan plan = empty_plan("old");
    plan.batteries[0].capacity_Ah = 80;
    const State s = plan.states[0];
    const BatteryElement fresh = compile(plan, s).batteries[0];
    plan.batteries[0].health = 0.5;
    const BatteryElement old = compile(plan, s).batteries[0];
    EXPECT_NEAR(old.capacity_Ah, 40, 1e-12);
    EXPECT_NEAR(old.R0_ohm, 2 * fresh.R0_ohm, 1e-12);
}

// Charging is limited by acceptance: a full lead battery at 14.2 V takes a few amps, not 300 (common
// practice).
TEST(Batteries, AFullOneTakesAFewAmps) {
    Plan plan = empty_plan("charging");
    ASSERT_TRUE(yr::apply(plan, add_alternator(plan)->edit));
    plan.sources[0].rated_A = 200;
    State s = *find_state(plan, "Driving");
    s.charge = 1.0;
    const double full = -solve(plan, s).point.batteries[0].current_A;
    s.charge = 0.5;
    const double half = -solve(plan, s).point.batteries[0].current_A;
    EXPECT_GT(full, 0.2);
    EXPECT_LT(full, 5);
    EXPECT_GT(half, 10);
    s.engine_bay_C = -20;
    EXPECT_LT(-solve(plan, s).point.batteries[0].current_A, 0.5 * half) << "a cold battery takes less";
}

Plan inverter_plan(double ac_W, double efficiency) {
    Plan plan = empty_plan("mains");
    plan.batteries[0].capacity_Ah = 200;
    EXPECT_TRUE(yr::apply(plan, add_inverter(plan)->edit));
    plan.inverters[0].efficiency = efficiency;
    plan.inverters[0].standby_W = 0;
    Load l;
    l.id = "ac", l.name = l.id, l.inverter = plan.inverters[0].id, l.draw = {DrawKind::power, ac_W};
    plan.loads.push_back(l);
    return plan;
}

// Fact of the trade: a 1000 W inverter on 12 V takes 83 A without losses, about 95 A at 88 %.
TEST(Inverters, AThousandWattsOnTwelveVolts) {
    const Inverter i = inverter_plan(1000, 0.88).inverters[0];
    std::vector<AssumptionUse> unused;
    EXPECT_NEAR(inverter_input_W(i, 1000, unused) / 12, 94.7, 0.05);
    const Plan plan = inverter_plan(1000, 1.0);
    const Solution s = solve(plan, plan.states[0]);
    const LoadResult& r = s.point.loads[s.network.plan_loads];
    EXPECT_NEAR(r.current_A * r.voltage_V, 1000, 1e-6);
    EXPECT_EQ(s.point.loads[0].status, LoadStatus::on) << "and what hangs on it runs";
}

// Fact of the trade: 1002 Wh runs 97 W about 10 h and 60 W about 14 h; 10.3 h and 16.7 h without losses, 14 h
// at 84 %.
TEST(Inverters, StoredEnergyOverWatts) {
    EXPECT_NEAR(1002.0 / 97, 10.3, 0.05);
    std::vector<AssumptionUse> unused;
    Inverter i = inverter_plan(60, 0.84).inverters[0];
    EXPECT_NEAR(1002 / inverter_input_W(i, 60, unused), 14.0, 0.05);
    i.efficiency = 1.0;
    EXPECT_NEAR(1002 / inverter_input_W(i, 60, unused), 16.7, 0.05);
}

TEST(Inverters, CutOffAndReturnWithTheirOwnMemory) {
    Plan plan = inverter_plan(700, 0.88);
    plan.inverters[0].cutoff_V = 11.4;
    plan.inverters[0].recover_V = 12.4;
    plan.batteries[0].capacity_Ah = 40;
    plan.batteries[0].charge = 0.1;
    const Solution empty = solve(plan, plan.states[0]);
    EXPECT_FALSE(empty.memories[0].closed) << "it stops under its load on an empty battery";
    EXPECT_EQ(empty.point.loads[0].status, LoadStatus::dead);
    plan.batteries[0].charge = 1.0, plan.batteries[0].capacity_Ah = 300;
    EXPECT_TRUE(solve(plan, plan.states[0]).memories[0].closed);
}

// Fact of the trade: a small tractor's 14.5 A generator carries ignition and charge, no work lights.
TEST(SmallGenerator, CarriesIgnitionAndChargeButNoWorkLights) {
    Plan plan = empty_plan("small tractor");
    plan.batteries[0].capacity_Ah = 35, plan.batteries[0].charge = 0.9;
    ASSERT_TRUE(yr::apply(plan, add_alternator(plan)->edit));
    Source& s = plan.sources[0];
    s.kind = SourceKind::stator, s.rated_A = 14.5, s.curve = {{500, 4}, {1500, 11}, {3000, 14.5}},
    s.pulley_ratio = 1;
    const auto add = [&](const char* name, double amps) {
        Load l;
        l.id = name, l.name = name, l.draw = {DrawKind::current, amps}, l.live_when.key = Key::ignition;
        plan.loads.push_back(l);
        for (const auto& [id, from, to] : {std::tuple{l.id + "t", Terminal("point-bus"), pos_of(l.id)},
                                           {l.id + "b", neg_of(l.id), Terminal("battery-1.neg")}}) {
            yr::Run r;
            r.id = id, r.name = id, r.from = from, r.to = to, r.length_m = 1, r.size = WireSize::awg(12);
            plan.runs.push_back(r);
        }
    };
    add("ignition", 4);
    State work = *find_state(plan, "Driving");
    work.rpm = 2600, work.engine_bay_C = 50;
    EXPECT_LT(solve(plan, work).point.batteries[0].current_A, -1) << "ignition and charge: the battery fills";
    add("worklights", 4 * 55 / 13.75);
    EXPECT_GT(solve(plan, work).point.batteries[0].current_A, 1) << "with four 55 W lights it empties";
}

// Two alternators on one rail share by their set volts and droops: two stiff sources in parallel, solved by
// hand.
TEST(TwoAlternators, ShareByDroopAndSetVolts) {
    Plan plan = empty_plan("two");
    plan.batteries.clear();
    plan.points = {{"bus", "bus", PointKind::bus, {}, {}, {}, {}, true},
                   {"body", "body", PointKind::chassis, {}, {}, {}, {}, false}};
    plan.runs.clear();
    plan.states = {{"s", "Driving", Key::ignition, 3000, 25, 25, {}, {}}};
    for (int k = 0; k < 2; ++k) {
        Source s;
        s.id = "g" + std::to_string(k), s.name = s.id, s.return_at = "body", s.rated_A = 200;
        s.regulated_V = k ? 14.3 : 14.2, s.droop_ohm = k ? 0.006 : 0.004;
        s.works_when.engine = Engine::running;
        plan.sources.push_back(s);
        yr::Run r;
        r.id = "r" + s.id, r.name = r.id, r.from = out_of(s.id), r.to = "bus", r.resistance_ohm = 0.001;
        plan.runs.push_back(r);
    }
    Load l;
    l.id = "load", l.name = l.id, l.draw = {DrawKind::current, 100};
    plan.loads = {l};
    for (const auto& [id, from, to] : {std::tuple{"t", "bus", "load.pos"}, {"b", "load.neg", "body"}}) {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = 1e-4;
        plan.runs.push_back(r);
    }
    const Solution s = solve(plan, plan.states[0]);
    const double g0 = 1 / 0.005, g1 = 1 / 0.007, bus = (14.2 * g0 + 14.3 * g1 - 100) / (g0 + g1);
    EXPECT_NEAR(s.point.sources[0].current_A, (14.2 - bus) * g0, 1e-6);
    EXPECT_NEAR(s.point.sources[1].current_A, (14.3 - bus) * g1, 1e-6);
    EXPECT_NEAR(s.point.sources[0].shaft_W,
                s.point.sources[0].voltage_V * s.point.sources[0].current_A / 0.55, 1e-6);
}

TEST(Solar, GivesItsPowerAndNoMoreThanItsVoltsAsk) {
    Plan plan = empty_plan("sun");
    plan.batteries[0].capacity_Ah = 200;
    ASSERT_TRUE(yr::apply(plan, add_solar(plan)->edit));
    plan.sources[0].panel_W = 120, plan.sources[0].efficiency = 0.9, plan.sources[0].float_V = 13.5;
    State s = plan.states[0];
    s.sun = 0.5, s.charge = 0.6;
    const Solution half = solve(plan, s);
    EXPECT_NEAR(half.point.sources[0].voltage_V * half.point.sources[0].current_A, 120 * 0.5 * 0.9, 1e-6);
    s.charge = 0.99;  // full: float volts, and only what is accepted
    const Solution full = solve(plan, s);
    EXPECT_NEAR(full.point.sources[0].voltage_V, 13.5, 0.05);
    EXPECT_LT(full.point.sources[0].current_A, half.point.sources[0].current_A);
    s.sun = 0;
    EXPECT_EQ(solve(plan, s).point.sources[0].mode, DeviceMode::off);
}

TEST(Isolators, OneWayWithTheirForwardDrop) {
    Plan plan = empty_plan("isolator");
    ASSERT_TRUE(yr::apply(plan, add_alternator(plan)->edit));
    ASSERT_TRUE(yr::apply(plan, add_second_battery(plan)->edit));
    plan.batteries[1].chemistry = Chemistry::agm, plan.batteries[1].charge = 0.6;
    ASSERT_TRUE(yr::apply(plan, add_link(plan, Link::isolator)->edit));
    const std::size_t link = plan.runs.size() - 1;
    const Solution run = solve(plan, *find_state(plan, "Driving"));
    EXPECT_GT(run.point.conductors[link].current_A, 1);
    EXPECT_GT(run.point.conductors[link].drop_V, 0.7);
    const Solution off = solve(plan, *find_state(plan, "Key off"));
    EXPECT_NEAR(off.point.conductors[link].current_A, 0, 1e-4)
        << "nothing back, nothing forward below its volts";
}

// Two batteries of 6 V end to end are one of 12 V with twice the resistance of either: by hand.
TEST(Banks, TwoOfSixVoltsInSeries) {
    Plan plan = empty_plan("series");
    Battery& a = plan.batteries[0];
    a.nominal_V = 6, a.capacity_Ah = 200, a.R0_ohm = 0.003, a.charge = 1.0;
    Battery b = a;
    b.id = "battery-2", b.name = "upper";
    plan.batteries.push_back(b);
    plan.runs.clear();
    const auto join = [&](const char* id, const Terminal& from, const Terminal& to, double ohm) {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = ohm;
        plan.runs.push_back(r);
    };
    join("link", "battery-1.pos", "battery-2.neg", 0.001);
    Load l;
    l.id = "load", l.name = l.id, l.draw = {DrawKind::current, 50};
    plan.loads = {l};
    join("there", "battery-2.pos", "load.pos", 0.002);
    join("back", "load.neg", "battery-1.neg", 0.002);
    State warm = plan.states[0];
    warm.engine_bay_C = warm.ambient_C = 25;
    const Solution s = solve(plan, warm);
    EXPECT_NEAR(s.point.loads[0].voltage_V, 12.65 - 50 * (2 * 0.003 + 0.001 + 2 * 0.002), 1e-9);
    EXPECT_NEAR(s.point.batteries[0].current_A, 50, 1e-9);
    EXPECT_NEAR(s.point.batteries[1].current_A, 50, 1e-9);
}

}  // namespace
}  // namespace yr::test
