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

}  // namespace
}  // namespace yr::test
