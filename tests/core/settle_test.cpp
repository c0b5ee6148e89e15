// Devices that remember: what they settle in is a fixed point, and chatter is said exactly where there is
// none.
#include <gtest/gtest.h>

#include "plan/plan_json.h"
#include "plan/validate.h"
#include "plan/variant.h"
#include "solve/settle.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

// A battery, an alternator, a second battery behind a relay of these thresholds.
Plan two_batteries(double close_V, double open_V, double rpm) {
    Plan plan = empty_plan("two");
    plan.states = {{"s", "Idling", Key::ignition, rpm, 25, 25, 0.8, {}}};
    Source s;
    s.id = "alternator", s.name = s.id, s.return_at = "point-body", s.rated_A = 120, s.regulated_V = 14.2;
    s.works_when.engine = Engine::running;
    plan.sources = {s};
    Battery b = plan.batteries[0];
    b.id = "battery-2", b.name = "second battery", b.capacity_Ah = 100;
    plan.batteries.push_back(b);
    const auto join = [&](const char* id, const Terminal& from, const Terminal& to, double ohm) -> yr::Run& {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = ohm;
        return plan.runs.emplace_back(r);
    };
    join("charge", "alternator.out", "battery-1.pos", 0.002);
    join("ground2", "battery-2.neg", "point-body", 0.001);
    Device d;
    d.id = "relay", d.name = "relay", d.kind = DeviceKind::sensing_relay, d.close_V = close_V,
    d.open_V = open_V;
    join("link", "battery-1.pos", "battery-2.pos", 0.004).devices.push_back(d);
    return plan;
}

TEST(SensingRelay, ClosesWhileChargingAndOpensAtRest) {
    Plan plan = two_batteries(13.3, 12.8, 2000);
    Solution running = solve(plan, plan.states[0]);
    ASSERT_EQ(running.memories.size(), 1U);
    EXPECT_TRUE(running.memories[0].closed);
    EXPECT_LT(running.point.batteries[1].current_A, -0.5) << "the second battery charges";
    plan.states[0].rpm = 0;
    Solution parked = solve(plan, plan.states[0]);
    EXPECT_FALSE(parked.memories[0].closed);
    EXPECT_NEAR(parked.point.batteries[1].current_A, 0, 1e-9);
}

// Between its thresholds a relay stays as it came: both positions are settled, and the memory decides.
TEST(SensingRelay, MemoryDecidesBetweenItsThresholds) {
    Plan plan = two_batteries(13.3, 12.0, 0);  // rested at 12.5 V: between
    OperatingPointSolver solver;
    const Network net = compile(plan, plan.states[0]);
    EXPECT_EQ(settled_positions(net, solver).size(), 2U);
    EXPECT_FALSE(solve(plan, plan.states[0]).memories[0].closed);
    plan.states[0].closed = {"relay"};
    EXPECT_TRUE(solve(plan, plan.states[0]).memories[0].closed);
}

// A weak supply: closing puts a load on that pulls the volts below opening, opening lets them rise again.
TEST(SensingRelay, ChatterIsNamed) {
    Plan plan = two_batteries(12.4, 12.35, 0);
    Load l;
    l.id = "heater", l.name = l.id, l.draw = {DrawKind::resistance, 0.4};
    plan.loads = {l};
    yr::Run back;
    back.id = "hb", back.name = back.id, back.from = "heater.neg", back.to = "battery-1.neg",
    back.resistance_ohm = 0.001;
    plan.runs.push_back(back);
    for (yr::Run& r : plan.runs)
        if (r.id == "link") r.to = "heater.pos";
    const Solution s = solve(plan, plan.states[0]);
    EXPECT_TRUE(s.chatter);
    EXPECT_TRUE(s.searched);
    EXPECT_TRUE(s.memories[0].chatters);
}

// A contactor whose own load starves its coil.
TEST(Coil, ClosesWithItsCoilAndFollowsIt) {
    Plan plan = two_batteries(13.3, 12.8, 0);
    Load coil;
    coil.id = "coil", coil.name = coil.id, coil.draw = {DrawKind::resistance, 12};
    coil.live_when.switches = {"arm"};
    plan.loads = {coil};
    for (const auto& [id, from, to] :
         {std::tuple{"cf", "battery-1.pos", "coil.pos"}, {"cr", "coil.neg", "battery-1.neg"}}) {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = 0.01;
        plan.runs.push_back(r);
    }
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.id == "relay") d.kind = DeviceKind::switching, d.coil = "coil";
    EXPECT_FALSE(solve(plan, plan.states[0]).memories[0].closed);
    plan.states[0].switches = {"arm"};
    EXPECT_TRUE(solve(plan, plan.states[0]).memories[0].closed);
}

class Nervous : public testing::TestWithParam<int> {};

// Every position of every device, tried one by one against the answer.
TEST_P(Nervous, SettlesExactlyWhereAFixedPointExists) {
    const Plan plan = nervous_plan(static_cast<std::uint32_t>(GetParam()));
    ASSERT_TRUE(validate(plan).empty()) << validate(plan).front().place;
    OperatingPointSolver solver;
    const Network net = compile(plan, plan.states[0]);
    int fixed = 0;
    bool ours_is_one = false;
    const Solution ours = settle(net, solver);
    for (unsigned bits = 0; bits < (1U << net.memories.size()); ++bits) {
        Positions p;
        bool settled = true, same = true;
        for (std::size_t k = 0; k < net.memories.size(); ++k) p.push_back((bits >> k) & 1U);
        const Solution tried = solve_at(net, p, solver);
        ASSERT_TRUE(tried.point.residuals.good());
        for (std::size_t k = 0; k < net.memories.size(); ++k) {
            const auto& m = net.memories[k];
            const auto volts = [&](NodeIndex n) { return tried.point.node_V[static_cast<std::size_t>(n)]; };
            const double v = volts(m.sense) - volts(m.against);
            settled = settled && (p[k] ? v >= m.open_V : v < m.close_V);
            same = same && (p[k] != 0) == ours.memories[k].closed;
        }
        fixed += settled;
        ours_is_one = ours_is_one || (settled && same);
    }
    EXPECT_EQ(ours.chatter, fixed == 0);
    EXPECT_EQ(ours_is_one, !ours.chatter);
    EXPECT_EQ(settled_positions(net, solver).size(), static_cast<std::size_t>(fixed));
}

INSTANTIATE_TEST_SUITE_P(Seeds, Nervous, testing::Range(1, 121));

TEST(NervousPlans, HoldSomeOfEachKind) {  // or the test above proves little
    int chatter = 0, several = 0;
    OperatingPointSolver solver;
    for (std::uint32_t seed = 1; seed <= 120; ++seed) {
        const Plan plan = nervous_plan(seed);
        const auto count = settled_positions(compile(plan, plan.states[0]), solver).size();
        chatter += count == 0;
        several += count > 1;
    }
    EXPECT_GT(chatter, 3);
    EXPECT_GT(several, 3);
}

// A winch of 440 A on 1/0 for a minute in ten: one physics for the solve, its drop and the sizing of a cable.
TEST(Turns, AWinchHeatsItsCableForAMinuteOnly) {
    Plan plan = empty_plan("winch");
    Load winch;
    winch.id = "winch", winch.name = "winch", winch.draw = {DrawKind::current, 440}, winch.on_s = 60,
    winch.duty = 0.1;
    plan.loads = {winch};
    const auto lay = [&](const char* id, const Terminal& from, const Terminal& to, double length_m) {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.length_m = length_m, r.size = WireSize::awg(0);
        plan.runs.push_back(r);
    };
    lay("there", "battery-1.pos", "winch.pos", 4);
    lay("back", "winch.neg", "battery-1.neg", 4);
    State s{"s", "Pulling", Key::ignition, 0, 30, 30, {}, {}};
    plan.states = {s};
    const Solution turns = solve(plan, s);
    ASSERT_TRUE(turns.point.settled);
    const auto there = static_cast<std::size_t>(find(plan.runs, Id("there")) - plan.runs.data());
    const ConductorElement& e = turns.network.conductors[there];
    const double hot_C = turns.point.conductors[there].temperature_C;
    EXPECT_NEAR(hot_C, duty_temperature(e.cable, {440, 60, 0, 540}).peak_C, 0.02);
    EXPECT_LT(hot_C, 105);
    EXPECT_TRUE(turns.point.residuals.good());
    // R(T) = R20 (1 + 0.00393 (T - 20)), IEC 60028 for annealed copper
    EXPECT_NEAR(turns.point.conductors[there].cable_ohm, e.cable20_ohm * (1 + 0.00393 * (hot_C - 20)), 1e-9);

    plan.loads[0].on_s.reset();
    const Solution forever = solve(plan, s);
    EXPECT_GT(forever.point.conductors[there].temperature_C, hot_C + 50);
    EXPECT_GT(forever.point.loads[0].drop_V, turns.point.loads[0].drop_V + 0.2);

    // what also flows for ever there heats it between the turns
    plan.loads[0].on_s = 60;
    Load heater;
    heater.id = "heater", heater.name = "heater", heater.draw = {DrawKind::current, 120};
    plan.loads.push_back(heater);
    lay("heater there", "winch.pos", "heater.pos", 0.5);
    lay("heater back", "heater.neg", "winch.neg", 0.5);
    const Solution both = solve(plan, s);
    EXPECT_NEAR(both.point.conductors[there].temperature_C,
                duty_temperature(e.cable, {560, 60, 120, 540}).peak_C, 0.05);
}

TEST(Turns, CrankingIsSecondsToo) {
    const Plan plan = with_variant(*load_plan(demo_path(kDemos[0])), {});
    for (const State& s : plan.states) {
        if (s.key != Key::crank) continue;
        const Solution solved = solve(plan, s);
        for (std::size_t k = 0; k < plan.runs.size(); ++k) {
            const ConductorElement& e = solved.network.conductors[k];
            const ConductorResult& r = solved.point.conductors[k];
            if (e.cable20_ohm <= 0 || std::abs(r.current_A) < 100) continue;
            EXPECT_NEAR(
                r.temperature_C,
                temperature_after_C(e.cable, std::abs(r.current_A) / e.parallel, e.cable.ambient_C, 30), 0.05)
                << plan.runs[k].name;
            EXPECT_LT(r.temperature_C,
                      conductor_temperature_C(e.cable, std::abs(r.current_A) / e.parallel, 25) + 1e-6);
        }
    }
}

}  // namespace
}  // namespace yr::test
