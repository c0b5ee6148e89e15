// The price of doubt: what flips is found at its end, what does not is counted.
#include <gtest/gtest.h>

#include <algorithm>

#include "inspect/doubts.h"
#include "plan/edit.h"
#include "support/vehicles.h"
#include "words/guard_words.h"

namespace yr::test {
namespace {

// The plan with one assumption said.
Plan said_so(Plan plan, const Doubt& d, bool high) {
    for (yr::Run& r : plan.runs)
        if (r.id == d.thing) r.length_m = high ? d.high : d.low;
    return plan;
}

// Where a size flips, what was ordered does not do there; where none does, it does.
TEST(Doubts, WhatWasOrderedDoesUnlessItIsSaidToFlip) {
    int flips = 0, quiet = 0;
    for (unsigned seed = 1; seed <= 4; ++seed) {
        Plan plan = vehicle(seed).plan;
        int taken = 0;
        for (yr::Run& r : plan.runs)
            if (find(plan.loads, std::string_view(r.to.owner)) && taken++ < 3) r.length_m.reset();
        DoubtAsk ask;
        ask.pairs = false;
        const Doubts d = doubts_of(plan, ask);
        EXPECT_TRUE(d.whole);
        EXPECT_EQ(d.matter.size() + d.others, taken_for_granted(plan).size());
        SizingAsk as_now;
        as_now.as_now = true;
        const auto ordered = size_plan(plan, as_now);
        ASSERT_TRUE(ordered && ordered->status == SizingStatus::least);
        for (const SizedRun& s : ordered->runs) as_now.held.emplace(s.run, s.to);
        for (const Doubt& doubt : taken_for_granted(plan)) {
            if (doubt.kind != DoubtKind::length) continue;
            const auto known = std::find_if(d.matter.begin(), d.matter.end(), [&](const Doubt& x) {
                return x.kind == doubt.kind && x.thing == doubt.thing && !x.with;
            });
            for (const bool high : {false, true}) {
                const auto does = size_plan(said_so(plan, doubt, high), as_now);
                ASSERT_TRUE(does);
                const bool flipped =
                    known != d.matter.end() &&
                    std::any_of(known->flips.begin(), known->flips.end(),
                                [&](const DoubtFlip& f) { return !f.run.empty() && f.high == high; });
                const bool fails = known != d.matter.end() && (high ? known->high_fails : known->low_fails);
                EXPECT_EQ(does->status == SizingStatus::impossible, flipped || fails)
                    << seed << " " << doubt.thing << (high ? " high" : " low");
                flips += flipped, quiet += !flipped;
                if (known == d.matter.end()) continue;
                EXPECT_FALSE(words::sentence(*known, plan).empty());
                EXPECT_GE(high ? known->high_kg : known->low_kg, -1e-6) << "what is ordered is never thinner";
            }
        }
    }
    EXPECT_GT(flips, 0);
    EXPECT_GT(quiet, 0);
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
