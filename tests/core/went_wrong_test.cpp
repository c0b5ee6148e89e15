// Plans on which the program once went wrong (tests/cases), and what must come out of them.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

#include "guard/fault_study.h"
#include "inspect/compare.h"
#include "inspect/findings.h"
#include "network/thermal.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "support/folders.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

Plan went_wrong(const std::string& name) {
    const auto plan = load_plan(test::source_dir() + "/tests/cases/" + name + ".yourrail.json");
    EXPECT_TRUE(plan.has_value()) << name;
    return *plan;
}

const LoadResult& load_of(const Plan& plan, const Solution& s, const Id& id) {
    return s.point.loads[static_cast<std::size_t>(find(plan.loads, id) - plan.loads.data())];
}

bool finds(const Inspection& i, FindingKind kind, const Id& id, Severity severity) {
    return std::any_of(i.findings.begin(), i.findings.end(), [&](const Finding& f) {
        return f.kind == kind && f.id == id && f.severity == severity;
    });
}

// What hangs behind a diode that blocks floats at the volts of its leak; it is dead, and takes nothing else
// along.
TEST(WentWrong, ADiodesLeakFeedsNothing) {
    const Plan plan = went_wrong("diode-door");
    const Solution s = solve(plan, *find_state(plan, "Door open"));
    EXPECT_EQ(load_of(plan, s, "radio").status, LoadStatus::on);
    EXPECT_EQ(load_of(plan, s, "trig").status, LoadStatus::on);
    EXPECT_EQ(load_of(plan, s, "ecu").status, LoadStatus::off);
    EXPECT_NEAR(s.point.batteries[0].current_A, 0.040, 1e-5);
}

TEST(WentWrong, ADeadShortHasOneAnswer) {
    const Plan plan = went_wrong("short-on-post");
    const Solution s = solve(plan, plan.states[0]);
    ASSERT_TRUE(s.point.settled);
    EXPECT_NEAR(s.point.batteries[0].current_A, 131.3, 0.05);
    EXPECT_NEAR(s.point.conductors[0].current_A, s.point.conductors[1].current_A, 1e-8);
    EXPECT_NEAR(s.point.conductors[1].temperature_C, 973, 1);
    // as hot as its own current makes it
    EXPECT_NEAR(conductor_temperature_C(s.network.conductors[1].cable, s.point.conductors[1].current_A, 25),
                s.point.conductors[1].temperature_C, 1e-4);
}

// Every length and size of cable across a battery, cold and hot: a short always has a solution.
TEST(WentWrong, EveryDeadShortSettles) {
    Plan plan = went_wrong("short-on-post");
    int glowing = 0;
    for (const int gauge : {22, 18, 16, 14, 12, 10, 8, 6, 4, 2, 0})
        for (const double length_m : {0.2, 0.5, 1.0, 2.0, 5.0, 15.0})
            for (const double feed_m : {0.3, 3.0}) {
                SCOPED_TRACE(std::to_string(gauge) + " AWG, " + std::to_string(length_m) + " m");
                plan.runs[0].length_m = feed_m;
                plan.runs[1].length_m = length_m;
                plan.runs[1].size = WireSize::awg(gauge);
                const Solution s = solve(plan, plan.states[0]);
                ASSERT_TRUE(s.point.settled);
                EXPECT_TRUE(s.point.residuals.good());
                EXPECT_GT(s.point.batteries[0].current_A, 10);
                glowing += s.point.conductors[1].temperature_C > 300;
            }
    EXPECT_GT(glowing, 10);
}

// Its slope is the derivative of its current, its temperature that of its current: finite differences.
TEST(WentWrong, AGlowingCablesLawFitsItself) {
    const Plan plan = went_wrong("short-on-post");
    const Network net = compile(plan, plan.states[0]);
    const ConductorElement& c = net.conductors[1];
    for (const double volts : {0.1, 1.0, 4.0, 8.0, 11.0}) {
        const auto at = [&](double u) {
            return heated_current(c.cable, c.fixed_ohm, c.cable20_ohm, c.parallel, u, 0);
        };
        const HeatedCurrent h = at(volts);
        const double step = 1e-3 * volts;
        const double slope = (at(volts + step).current_A - at(volts - step).current_A) / (2 * step);
        EXPECT_NEAR(h.slope_S, slope, 0.03 * slope) << volts;  // air's properties are held in the slope
        EXPECT_NEAR(conductor_temperature_C(c.cable, h.current_A, 25), h.temperature_C, 1e-6);
        const double ohm = c.fixed_ohm + c.cable20_ohm * (1 + kCopperAlpha_per_K * (h.temperature_C - 20));
        EXPECT_NEAR(h.current_A * ohm, volts, 1e-9);
        for (const double guess_C : {-40.0, 90.0, 700.0, 1999.0, 5000.0})
            EXPECT_NEAR(
                heated_current(c.cable, c.fixed_ohm, c.cable20_ohm, c.parallel, volts, guess_C).current_A,
                h.current_A, 1e-8 * h.current_A)
                << volts << " V from " << guess_C << " C";
    }
    const HeatedCurrent gone = heated_current(c.cable, 0, c.cable20_ohm, c.parallel, 400, 0);
    EXPECT_EQ(gone.temperature_C, kMelted_C);
    EXPECT_NEAR(gone.current_A * c.cable20_ohm * (1 + kCopperAlpha_per_K * (kMelted_C - 20)), 400, 1e-9);
}

TEST(WentWrong, AnyNumberOfConvertersInSeriesWork) {
    Plan plan = went_wrong("conv-chain-3");
    Solution s = solve(plan, plan.states[0]);
    for (const SourceResult& r : s.point.sources) EXPECT_EQ(r.mode, DeviceMode::regulating);
    EXPECT_EQ(load_of(plan, s, "l1").status, LoadStatus::on);
    // in whatever order they stand in the plan
    std::reverse(plan.sources.begin(), plan.sources.end());
    s = solve(plan, plan.states[0]);
    for (const SourceResult& r : s.point.sources) EXPECT_EQ(r.mode, DeviceMode::regulating);
}

TEST(WentWrong, AConverterIsNotBlamedForItsLoad) {
    const Plan plan = went_wrong("converter-blamed-104");
    const Solution s = solve(plan, plan.states[0]);
    ASSERT_TRUE(s.point.settled);
    EXPECT_EQ(load_of(plan, s, "lc").status, LoadStatus::collapsed) << "100 W are too much for 5 A";
    for (const char* innocent : {"l0", "l1", "l2", "l3"})
        EXPECT_EQ(load_of(plan, s, innocent).status, LoadStatus::on) << innocent;
    EXPECT_FALSE(s.point.sources[1].input_dead);
    EXPECT_FALSE(s.point.sources[1].collapsed);
    EXPECT_NEAR(s.point.collapsed_at[0], 5 * 12.5 / 100, 0.01);
}

TEST(WentWrong, OtherVoltsAndPolesAreStops) {
    const Inspection turned = inspect(went_wrong("batt-reversed"));
    EXPECT_TRUE(finds(turned, FindingKind::wrong_way_round, "b2", Severity::stop));
    EXPECT_TRUE(finds(turned, FindingKind::fed_backwards, "l1", Severity::stop));
    const Inspection mixed = inspect(went_wrong("batt-12-24"));
    EXPECT_TRUE(finds(mixed, FindingKind::volts_fight, "b1", Severity::stop));
    EXPECT_LT(mixed.solutions[0].point.batteries[0].current_A, -500)
        << "nothing holds 24 V off a 12 V battery";
    EXPECT_TRUE(
        finds(inspect(went_wrong("batt-60V-in-12V")), FindingKind::volts_foreign, "l1", Severity::stop));
    EXPECT_TRUE(finds(inspect(went_wrong("alts")), FindingKind::volts_fight, "g1", Severity::stop));
}

// The cart's traction bus stands at 53 V before its converter to 12 V, as it is meant to.
TEST(WentWrong, ARailOfOtherVoltsOnPurposeIsNoFault) {
    for (const char* name : kDemos) {
        const Inspection i = inspect(*load_plan(demo_path(name)), false);
        for (const Finding& f : i.findings) {
            EXPECT_NE(f.kind, FindingKind::volts_foreign) << name << ", " << f.id;
            EXPECT_NE(f.kind, FindingKind::volts_fight) << name << ", " << f.id;
            EXPECT_NE(f.kind, FindingKind::wrong_way_round) << name << ", " << f.id;
            EXPECT_NE(f.kind, FindingKind::fed_backwards) << name << ", " << f.id;
        }
    }
}

// An empty battery on its charger, in the cold, is no battery of other volts.
TEST(WentWrong, AnEmptyBatteryOnItsChargerIsNoFault) {
    for (const Chemistry chemistry : {Chemistry::flooded, Chemistry::agm, Chemistry::gel, Chemistry::lifepo4})
        for (const char* name : kDemos) {
            Plan plan = *load_plan(demo_path(name));
            for (Battery& b : plan.batteries) b.chemistry = chemistry;
            for (State& s : plan.states) s.charge = 0, s.ambient_C = s.engine_bay_C = -30;
            for (const Finding& f : inspect(plan, false).findings)
                EXPECT_NE(f.kind, FindingKind::volts_fight) << name << ", " << f.id;
        }
}

// A winch is turned by two contactors that feed it the other way; it runs, and draws what it draws.
TEST(WentWrong, AWinchFedBackwardsRuns) {
    Plan plan = went_wrong("short-on-post");
    plan.runs.erase(plan.runs.begin(), plan.runs.end());
    const auto wire = [&](const char* id, Terminal from, Terminal to) {
        yr::Run r;
        r.id = r.name = id;
        r.from = std::move(from), r.to = std::move(to);
        r.length_m = 1, r.size = WireSize::awg(4);
        plan.runs.push_back(r);
    };
    plan.loads[0].draw = {DrawKind::current, 80};
    plan.loads[0].line_curve = {{0, 20}, {1, 80}};
    wire("up", pos_of("b1"), neg_of("l1"));
    wire("down", pos_of("l1"), neg_of("b1"));
    ASSERT_TRUE(validate(plan).empty());
    const Inspection i = inspect(plan);
    const Solution& s = i.solutions[0];
    ASSERT_TRUE(s.point.settled);
    EXPECT_TRUE(s.point.residuals.good());
    const LoadResult& winch = load_of(plan, s, "l1");
    EXPECT_EQ(winch.status, LoadStatus::on);
    EXPECT_TRUE(winch.reversed);
    EXPECT_NEAR(winch.current_A, 80, 1e-9);
    EXPECT_GT(winch.voltage_V, 11);
    EXPECT_FALSE(finds(i, FindingKind::fed_backwards, "l1", Severity::stop)) << "that is how it lets out";
    plan.loads[0].line_curve.clear();
    EXPECT_TRUE(finds(inspect(plan), FindingKind::fed_backwards, "l1", Severity::stop));
}

// Where a state has no answer no number of an option comes from it, and its name is told.
TEST(WentWrong, AnOptionConcludesNothingFromAStateWithoutAnswer) {
    const Plan plan = *load_plan(demo_path(kDemos[0]));
    Inspection i = inspect(plan, false);
    const OptionResult whole = measure_option(plan, i);
    ASSERT_TRUE(whole.idle_A.value && whole.drive_A.value && whole.parked_h.value && whole.cranking_V.value &&
                whole.without.empty());
    for (Solution& s : i.solutions) s.point.settled = false;
    const OptionResult none = measure_option(plan, i);
    EXPECT_FALSE(none.idle_A.value || none.drive_A.value || none.parked_h.value || none.cranking_V.value);
    EXPECT_EQ(none.without.size(), plan.states.size());
}

// A state that speaks of what was taken out of the plan since: the plan opens, and it is said.
TEST(WentWrong, AStateThatNamesNothingIsTold) {
    Plan plan = went_wrong("conv-chain-3");
    plan.states[0].pulled = {"gone"};
    ASSERT_TRUE(validate(plan).empty());
    const Inspection i = inspect(plan);
    const auto told = std::find_if(i.findings.begin(), i.findings.end(), [](const Finding& f) {
        return f.kind == FindingKind::state_names_nothing;
    });
    ASSERT_NE(told, i.findings.end());
    EXPECT_EQ(told->other, "gone");
    EXPECT_EQ(told->state, plan.states[0].id);
}

}  // namespace
}  // namespace yr::test
