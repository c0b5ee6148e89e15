// Channels given out over whole vehicles: the plan with the answer applied is nowhere worse than it was,
// costs no more copper than it did where it kept its own limits, and what is called impossible is so.
#include <gtest/gtest.h>

#include <algorithm>
#include <random>

#include "control/assign.h"
#include "inspect/checked_channels.h"
#include "inspect/checked_sizing.h"
#include "plan/validate.h"
#include "support/findings.h"
#include "support/strewn.h"
#include "support/sweep.h"
#include "support/vehicles.h"
#include "words/control_words.h"

namespace yr::test {
namespace {

std::string told(const std::vector<Finding>& findings, const Plan& plan) {
    std::string all;
    for (const Finding& f : findings) all += "\n  " + words::sentence(f, plan);
    return all;
}

TEST(ChannelsOfVehicles, AreNowhereWorseAndNeverDearer) {
    int moved = 0, plans = 0, over = 0;
    for (unsigned seed = 1; seed <= static_cast<unsigned>(sweep(8, 300)); ++seed)
        for (const Plan& plan : vehicles_of(seed)) {
            SCOPED_TRACE("vehicle " + std::to_string(seed) + ", " + plan.vehicle.name);
            const CheckedChannels checked = assign_checked(plan);
            const Assignment& a = checked.assignment;
            ASSERT_TRUE(a.known);
            EXPECT_TRUE(a.feasible || !a.stands) << words::conflict_text(a, plan);
            ++plans;
            if (a.stands) {
                EXPECT_LE(a.amp_metres, a.amp_metres_before + 1e-6);
            }
            over += !a.stands;
            moved += static_cast<int>(
                std::count_if(a.placed.begin(), a.placed.end(), [](const auto& p) { return p.moved; }));
            Plan given = plan;
            if (!a.feasible) continue;
            ASSERT_TRUE(yr::apply(given, a.edit));
            EXPECT_TRUE(validate(given).empty());
            EXPECT_EQ(told(made_worse(plan, a.edit), given), "");
        }
    EXPECT_GT(moved, plans / 4) << "vehicles that are in order already prove nothing";
    EXPECT_LT(over, plans / 5);
}

// Channels, then every cable and fuse sized anew: against the plan as it was nothing is worse, nor against
// what each step found.
TEST(ChannelsOfVehicles, ThenSizedAreNowhereWorse) {
    int changed = 0;
    for (unsigned seed = 1; seed <= static_cast<unsigned>(sweep(6, 100)); ++seed) {
        const Plan plan = laid_out(strewn(vehicle(seed).plan, seed), Outline::van);
        Plan given = plan;
        ASSERT_TRUE(yr::apply(given, assign_checked(plan).assignment.edit)) << seed;
        SizingAsk ask;
        ask.most_s = 20;
        const auto sized = size_checked(given, ask);
        ASSERT_TRUE(sized) << seed;
        if (sized->sizing.status != SizingStatus::least && sized->sizing.status != SizingStatus::best_found)
            continue;
        Plan both = given;
        ASSERT_TRUE(yr::apply(both, sized->sizing.edit)) << seed;
        changed += !(both == given);
        const auto before = inspect(plan, false).findings, between = inspect(given, false).findings,
                   after = inspect(both, false).findings;
        for (const Finding* f : new_or_worse(between, after))
            ADD_FAILURE() << seed << ": " << words::sentence(*f, both);
        for (const Finding* f : new_or_worse(before, after))
            ADD_FAILURE() << seed << ": " << words::sentence(*f, both);
    }
    EXPECT_GT(changed, sweep(6, 100) / 2);
}

// The program's own limits are not all that there is: here its first answer would make something worse.
TEST(ChannelsOfVehicles, WhatWouldMakeSomethingWorseIsRefused) {
    std::size_t refused = 0;
    for (const Plan& plan : vehicles_of(36)) {
        const CheckedChannels checked = assign_checked(plan);
        const Assignment alone = assign_loads(plan);
        EXPECT_EQ(!made_worse(plan, alone.edit).empty(), !checked.refused.empty() || !checked.mended.empty());
        EXPECT_TRUE(made_worse(plan, checked.assignment.edit).empty());
        EXPECT_EQ(checked.against.empty(), checked.refused.empty());
        for (const auto& [load, feed] : checked.refused)
            for (const PlacedLoad& p : checked.assignment.placed)
                EXPECT_FALSE(p.moved && p.load == load && p.feed == feed);
        refused += checked.refused.size();
    }
    EXPECT_GT(refused, 0U);
}

// A load that its own limits put elsewhere: on the feed that is left it is dead when it must run.
TEST(ChannelsOfVehicles, WhatIsSwitchedByItsFeedStaysThere) {
    for (unsigned seed = 1; seed <= 8; ++seed) {
        const Plan plan = strewn(with_a_relay(vehicle(seed).plan, seed), seed);
        const CheckedChannels checked = assign_checked(plan);
        for (const PlacedLoad& p : checked.assignment.placed) {
            const Load& l = *find(plan.loads, std::string_view(p.load));
            const yr::Run* run = supply_run(plan, p.load);
            const bool rides =
                run->from == Terminal("relayed") && !l.own_switch && l.live_when == Condition{};
            EXPECT_FALSE(rides && p.moved) << seed << ": " << l.name;
        }
    }
}

}  // namespace
}  // namespace yr::test
