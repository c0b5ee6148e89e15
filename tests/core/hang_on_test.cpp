// What feeds what, and moved to another supply.
#include <gtest/gtest.h>

#include <algorithm>

#include "control/hang_on.h"
#include "plan/validate.h"
#include "solve/settle.h"
#include "support/findings.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

// Whatever is moved wherever it may hang: the plan stays valid, it hangs there, and back is as before.
TEST(HangOn, EverythingToEverySupplyAndBack) {
    int moves = 0;
    for (unsigned seed = 0; seed < 6; ++seed) {
        const Plan plan = vehicle(seed).plan;
        std::vector<Id> things;
        for (const Point& p : plan.points) things.push_back(p.id);
        for (const Source& s : plan.sources) things.push_back(s.id);
        for (const Inverter& i : plan.inverters) things.push_back(i.id);
        for (const Id& thing : things) {
            const yr::Run* feed = feed_of(plan, thing);
            if (!feed) continue;
            const Terminal before = feed->from;
            for (const Terminal& to : supplies_for(plan, thing)) {
                EXPECT_NE(owner_of(to), thing);
                const auto edit = hang_on(plan, thing, to);
                ASSERT_TRUE(edit);
                Plan after = plan;
                const auto undo = yr::apply(after, *edit);
                ASSERT_TRUE(undo) << name_of(plan, thing);
                EXPECT_TRUE(validate(after).empty());
                EXPECT_EQ(feed_of(after, thing)->from, to);
                EXPECT_FALSE(battery_behind(after, feed_of(after, thing)->from).empty())
                    << "no ring without a battery";
                ASSERT_TRUE(yr::apply(after, *undo));
                EXPECT_EQ(after, plan);
                EXPECT_EQ(feed_of(after, thing)->from, before);
                ++moves;
            }
        }
    }
    EXPECT_GT(moves, 25);
}

TEST(HangOn, WhatIsNoSupplyIsRefused) {
    const Plan plan = vehicle(1).plan;
    EXPECT_FALSE(hang_on(plan, "no such thing", pos_of(plan.batteries.front().id)));
    for (const Point& p : plan.points)
        if (feed_of(plan, p.id)) {
            EXPECT_FALSE(hang_on(plan, p.id, Terminal(p.id))) << "not on itself";
            EXPECT_FALSE(hang_on(plan, p.id, neg_of(plan.batteries.front().id)));
        }
}

}  // namespace
}  // namespace yr::test
