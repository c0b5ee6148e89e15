// The price of doubt: what flips is found at its end, what does not is counted.
#include <gtest/gtest.h>

#include <algorithm>

#include "inspect/doubts.h"
#include "plan/edit.h"
#include "support/vehicles.h"
#include "words/guard_words.h"

namespace yr::test {
namespace {

TEST(Doubts, WhatFlipsASizeFlipsItWhenItIsSaid) {
    int flips = 0;
    for (unsigned seed = 1; seed <= 3; ++seed) {
        Plan plan = vehicle(seed).plan;
        int taken = 0;
        for (yr::Run& r : plan.runs)
            if (find(plan.loads, std::string_view(r.to.owner)) && taken++ < 3) r.length_m.reset();
        DoubtAsk ask;
        ask.pairs = false;
        const Doubts d = doubts_of(plan, ask);
        EXPECT_TRUE(d.whole);
        EXPECT_EQ(d.matter.size() + d.others, taken_for_granted(plan).size());
        for (const Doubt& x : d.matter) {
            EXPECT_FALSE(words::sentence(x, plan).empty());
            if (x.kind != DoubtKind::length) continue;
            for (const DoubtFlip& f : x.flips) {
                if (f.run.empty()) continue;
                ++flips;
                Plan said = plan;
                for (yr::Run& r : said.runs)
                    if (r.id == x.thing) r.length_m = f.high ? x.high : x.low;
                SizingAsk size;
                size.as_now = true;
                const auto sized = size_plan(said, size);
                ASSERT_TRUE(sized);
                const auto it = std::find_if(sized->runs.begin(), sized->runs.end(),
                                             [&](const SizedRun& s) { return s.run == f.run; });
                ASSERT_NE(it, sized->runs.end());
                EXPECT_EQ(it->to, f.size_to);
            }
        }
    }
    EXPECT_GT(flips, 0);
}

TEST(Doubts, APlanThatSaysEverythingHasOnlyItsAir) {
    Plan plan = vehicle(2).plan;
    for (yr::Run& r : plan.runs)
        if (!r.length_m) r.length_m = 1;
    for (Point& p : plan.points)
        if (p.kind == PointKind::ground) p.bond_ohm = 0.0005;
    for (Battery& b : plan.batteries) b.R0_ohm = 0.005;
    for (Source& s : plan.sources) s.regulated_V = 14.2;
    for (Load& l : plan.loads) l.typical = false;
    const auto all = taken_for_granted(plan);
    ASSERT_EQ(all.size(), 1U);
    EXPECT_EQ(all[0].kind, DoubtKind::air);
    std::atomic<bool> stop{true};
    DoubtAsk ask;
    ask.cancel = &stop;
    EXPECT_FALSE(doubts_of(plan, ask).whole) << "and can be stopped";
}

}  // namespace
}  // namespace yr::test
