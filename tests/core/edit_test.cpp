// Undo is exact: any sequence of edits taken back in reverse order gives the first plan, and done again the
// last.
#include <gtest/gtest.h>

#include <algorithm>

#include <random>

#include "control/circuit.h"
#include "plan/additions.h"
#include "plan/edit.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "solve/settle.h"
#include "support/random_plan.h"
#include "support/sweep.h"

namespace yr::test {
namespace {

Edit random_edit(const Plan& plan, std::mt19937& random) {
    const auto pick = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
    switch (random() % 9) {
        case 0:
            if (!plan.loads.empty()) {
                Load l = plan.loads[pick(plan.loads.size())];
                l.draw.value = 1 + static_cast<double>(random() % 50);
                l.critical = !l.critical;
                return Put<Load>{l, {}};
            }
            [[fallthrough]];
        case 1: {
            yr::Run r = plan.runs[pick(plan.runs.size())];
            if (r.size) r.size = step_size(*r.size, random() % 2 ? 1 : -1);
            r.length_m = 0.5 + static_cast<double>(random() % 60) / 10;
            for (Device& d : r.devices) d.at_m = 0.1;
            return Put<yr::Run>{r, {}};
        }
        case 2:
            if (plan.loads.size() > 1) return remove_with_runs(plan, plan.loads[pick(plan.loads.size())].id);
            [[fallthrough]];
        case 3: {
            TypedLine line = read_line(plan, "lamp 2x 20 W on ignition 3 m");
            return make_circuit(plan, line)->edit;
        }
        case 4: {
            State s = plan.states[pick(plan.states.size())];
            s.rpm = static_cast<double>(random() % 3000);
            return Put<State>{s, {}};
        }
        case 5: {
            State s = plan.states[pick(plan.states.size())];
            s.id = new_id(plan, "state");
            return Put<State>{s, pick(plan.states.size() + 1)};
        }
        case 6: {
            Policy p = plan.policy;
            p.bundle_derating = !p.bundle_derating;
            return SetPolicy{p};
        }
        case 7:
            return add_feed(plan, {Key::accessory, Engine::any, {}})->edit;
        default: {
            Vehicle v = plan.vehicle;
            v.name += "!";
            return SetVehicle{v};
        }
    }
}

TEST(Edits, TwoHundredStepsBackAndForthAreIdentity) {
    for (std::uint32_t seed = 1; seed <= sweep(4U, 12U); ++seed) {
        std::mt19937 random(seed);
        Plan plan = seed % 2 ? random_plan(seed) : *load_plan(demo_path(kDemos[1]));
        const std::string first = to_json_text(plan);
        std::vector<Edit> inverses, forwards;
        for (int k = 0; k < 200; ++k) {
            const Edit edit = random_edit(plan, random);
            auto inverse = yr::apply(plan, edit);
            ASSERT_TRUE(inverse) << seed << " step " << k << " " << inverse.error().place;
            inverses.push_back(*inverse);
        }
        const std::string last = to_json_text(plan);
        for (auto e = inverses.rbegin(); e != inverses.rend(); ++e) forwards.push_back(*yr::apply(plan, *e));
        EXPECT_EQ(to_json_text(plan), first) << seed;
        for (auto e = forwards.rbegin(); e != forwards.rend(); ++e) ASSERT_TRUE(yr::apply(plan, *e));
        EXPECT_EQ(to_json_text(plan), last) << seed;
    }
}

TEST(Edits, ARefusedEditChangesNothing) {
    Plan plan = *load_plan(demo_path(kDemos[0]));
    const Plan before = plan;
    yr::Run r = plan.runs[0];
    r.to = "nowhere";
    EXPECT_EQ(yr::apply(plan, Put<yr::Run>{r, {}}).error().code, ErrorCode::missing_reference);
    EXPECT_EQ(yr::apply(plan, Remove<Load>{"nobody"}).error().code, ErrorCode::missing_reference);
    EXPECT_FALSE(yr::apply(plan, Batch{{Remove<Load>{plan.loads[0].id}, Remove<Point>{"cab-box"}}}))
        << "other runs still end there";
    EXPECT_EQ(plan, before);
}

TEST(Additions, EachLeavesAPlanThatSolvesAndHasNoStop) {
    Plan plan = empty_plan("grows");
    for (auto make : {add_alternator, add_second_battery, add_charger, add_ground}) {
        const auto a = make(plan);
        ASSERT_TRUE(a);
        ASSERT_TRUE(yr::apply(plan, a->edit));
    }
    for (auto make : {add_inverter, add_shore, add_solar}) {
        const auto a = make(plan);
        ASSERT_TRUE(a);
        ASSERT_TRUE(yr::apply(plan, a->edit));
    }
    for (Link link : {Link::sensing_relay, Link::contactor, Link::isolator}) {
        Plan linked = plan;
        const auto a = add_link(linked, link);
        ASSERT_TRUE(a);
        ASSERT_TRUE(yr::apply(linked, a->edit));
        for (const State& state : linked.states) {
            const Solution s = solve(linked, state);
            EXPECT_TRUE(s.point.settled && s.point.residuals.good()) << state.name;
        }
        EXPECT_FALSE(add_link(empty_plan("one battery"), link));
    }
    ASSERT_TRUE(yr::apply(plan, add_starter(plan, "starter", 0.06)->edit));
    EXPECT_EQ(std::count_if(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.starter; }),
              1);
    ASSERT_TRUE(yr::apply(plan, add_starter(plan, "starter", 0.05)->edit));
    EXPECT_EQ(std::count_if(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.starter; }), 1)
        << "a second one takes the place of the first";
    ASSERT_TRUE(yr::apply(plan, add_feed(plan, {Key::ignition, Engine::any, {}})->edit));
    const Solution s = solve(plan, *find_state(plan, "Driving"));
    EXPECT_TRUE(s.point.settled);
    EXPECT_GT(s.point.sources[0].current_A, 1) << "the alternator charges";
    EXPECT_LT(s.point.batteries[1].current_A, -1) << "and the charger the second battery";
    EXPECT_FALSE(add_charger(empty_plan("one battery")));
}

}  // namespace
}  // namespace yr::test
