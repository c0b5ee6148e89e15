// A start study ends with an answer on every plan that solves.
#include <gtest/gtest.h>

#include "guard/starting.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

void expect_every_start_ends(const Plan& plan) {
    for (std::size_t s = 0; s < plan.states.size(); ++s) {
        SCOPED_TRACE(plan.vehicle.name + ", " + plan.states[s].name);
        if (!solve(plan, plan.states[s]).point.settled) continue;
        StartAsk ask;
        ask.state = s;
        const auto study = study_start(plan, ask);
        ASSERT_TRUE(study.has_value());
        EXPECT_TRUE(study->finished) << "stopped at " << (study->t_s.empty() ? 0 : study->t_s.back()) << " s";
    }
}

TEST(StartEnds, InEveryStateOfTheDemos) {
    for (const char* name : kDemos) expect_every_start_ends(*load_plan(demo_path(name)));
}

class StartEndsOnRandom : public testing::TestWithParam<int> {};

TEST_P(StartEndsOnRandom, InEveryState) {
    RandomShape shape;
    shape.devices = true;
    expect_every_start_ends(random_plan(static_cast<std::uint32_t>(GetParam()), shape));
    expect_every_start_ends(random_plan(static_cast<std::uint32_t>(GetParam())));
}

INSTANTIATE_TEST_SUITE_P(Seeds, StartEndsOnRandom, testing::Range(1, 61));

// A thin feed to an inverter with a pump and a drill behind it.
Plan mains_plan() {
    Plan p;
    p.vehicle.name = "mains";
    Battery b;
    b.id = b.name = "b";
    b.capacity_Ah = 100;
    p.batteries = {b};
    Inverter i;
    i.id = i.name = "inv";
    i.continuous_W = 1500;
    i.efficiency = 0.9;
    i.standby_W = 10;
    p.inverters = {i};
    const auto wire = [&](const char* id, Terminal from, Terminal to, double length_m) {
        yr::Run r;
        r.id = r.name = id;
        r.from = std::move(from), r.to = std::move(to);
        r.length_m = length_m, r.size = WireSize::awg(4);
        p.runs.push_back(r);
    };
    wire("feed", pos_of("b"), pos_of("inv"), 3);
    wire("return", neg_of("inv"), neg_of("b"), 3);
    for (const char* id : {"pump", "drill"}) {
        Load l;
        l.id = l.name = id;
        l.inverter = "inv";
        l.draw = {DrawKind::power, 300};
        l.start_W = 900;
        l.inrush_s = 0.5;
        p.loads.push_back(l);
    }
    State s;
    s.id = s.name = "on";
    p.states = {s};
    return p;
}

double peak_A(const Plan& plan, const std::vector<Id>& starts) {
    StartAsk ask;
    ask.starts = starts;
    const auto study = study_start(plan, ask);
    EXPECT_TRUE(study && study->finished);
    double most = 0;
    for (const double a : study->run_A[0]) most = std::max(most, std::abs(a));
    return most;
}

TEST(MainsStarts, TwoOnOneInverterCountTogether) {
    const Plan plan = mains_plan();
    const double one = peak_A(plan, {"pump"}), both = peak_A(plan, {"pump", "drill"});
    // computed: 900 + 300 W and 900 + 900 W behind 0.9, and 10 W, at about 11 V
    EXPECT_NEAR(one, (1200 / 0.9 + 10) / 11.1, 12);
    EXPECT_NEAR(both / one, (1800 / 0.9 + 10) / (1200 / 0.9 + 10), 0.12);
}

TEST(MainsStarts, CountWhereEverythingStarts) {
    Plan plan = mains_plan();
    const auto total = [&] {
        StartAsk ask;
        const auto study = study_start(plan, ask);
        double at = 0;  // once the capacitors are full, while the motors still start
        for (std::size_t k = 0; k < study->t_s.size(); ++k)
            if (study->t_s[k] < 0.45) at = study->run_A[0][k];
        return at;
    };
    const double with = total();
    for (Load& l : plan.loads) l.start_W.reset();
    EXPECT_GT(with, 2 * total());
}

TEST(MainsStarts, TheInvertersCutOffIsTold) {
    Plan plan = mains_plan();
    plan.inverters[0].cutoff_V = 11.5;
    for (Load& l : plan.loads) l.inrush_s = 2.5;
    StartAsk ask;
    ask.starts = {"pump", "drill"};
    const auto study = study_start(plan, ask);
    ASSERT_TRUE(study && study->finished);
    ASSERT_EQ(study->events.size(), 1U);
    EXPECT_EQ(study->events[0].device, "inv");
    EXPECT_EQ(study->events[0].kind, StartEventKind::cuts_off);
    EXPECT_NEAR(study->events[0].t_s, 1, 0.1) << "it looks over a second";
    EXPECT_NEAR(study->run_A[0].back(), 0, 1) << "and takes nothing more";
}

TEST(Starts, WaitForTheirDelayAndTellWhatFallsTooLow) {
    Plan plan = mains_plan();
    plan.inverters.clear();
    plan.loads.resize(2);
    for (Load& l : plan.loads) {
        l.inverter.clear();
        l.start_W.reset();
        l.draw = {DrawKind::current, 40};
    }
    plan.runs[0].to = pos_of("pump"), plan.runs[1].from = neg_of("pump");
    yr::Run tap = plan.runs[0];
    tap.id = tap.name = "tap";
    tap.from = pos_of("pump"), tap.to = pos_of("drill");
    plan.runs.push_back(tap);
    tap.id = tap.name = "tap back";
    tap.from = neg_of("drill"), tap.to = neg_of("pump");
    plan.runs.push_back(tap);
    plan.loads[1].live_when.delay_s = 0.8;
    StartAsk ask;
    ask.seconds = 2;
    const auto dip = study_start(plan, ask);
    plan.loads[0].least_V = (dip->load_V[0][1] + dip->load_V[0].back()) / 2;  // one alone, and both
    const auto study = study_start(plan, ask);
    ASSERT_TRUE(study && study->finished);
    for (std::size_t k = 0; k < study->t_s.size(); ++k) {
        if (study->t_s[k] < 0.79) EXPECT_NEAR(study->run_A[2][k], 0, 1e-6) << study->t_s[k];
        if (study->t_s[k] > 0.81) EXPECT_NEAR(study->run_A[2][k], 40, 1e-6) << study->t_s[k];
    }
    ASSERT_EQ(study->events.size(), 1U);
    EXPECT_EQ(study->events[0].kind, StartEventKind::too_low);
    EXPECT_EQ(study->events[0].device, "pump");
    EXPECT_NEAR(study->events[0].t_s, 0.8, 0.05);
    EXPECT_EQ(study->bus, "b");
    const std::atomic<bool> stop{true};
    EXPECT_FALSE(study_start(plan, ask, &stop)->finished);
}

// 100 W of panel behind a controller of any size give about 100 W in a start, not 100 A.
TEST(Starts, APanelGivesNoMoreThanItsWatts) {
    Plan plan = mains_plan();
    plan.loads.clear();
    plan.inverters[0].works_when = {};
    Source sun;
    sun.id = sun.name = "sun";
    sun.kind = SourceKind::solar;
    sun.return_at = neg_of("b");
    sun.panel_W = 100;
    plan.sources = {sun};
    yr::Run r = plan.runs[0];
    r.id = r.name = "sun cable";
    r.from = out_of("sun"), r.to = pos_of("b");
    plan.runs.push_back(r);
    plan.states[0].sun = 1;
    const Network net = compile(plan, plan.states[0]);
    EXPECT_LT(net.sources[0].limit_A, 9.6);
    EXPECT_GT(net.sources[0].limit_A, 5);
}

}  // namespace
}  // namespace yr::test
