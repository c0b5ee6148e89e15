// One box or two: loads divided, trunks and branches laid, nothing lost and nothing worse.
#include <gtest/gtest.h>

#include <algorithm>
#include <random>
#include <set>

#include "control/hang_on.h"
#include "control/place_on.h"
#include "inspect/findings.h"
#include "inspect/two_boxes.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "support/findings.h"
#include "support/random_plan.h"
#include "support/sweep.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

const BoxOption* option(const BoxOptions& all, BoxLayout layout) {
    for (const BoxOption& o : all.options)
        if (o.layout == layout) return &o;
    return nullptr;
}

TEST(TwoBoxes, TheLoadsThatAreFarGoToTheSecondAndAllStillRun) {
    int seen = 0;
    for (std::size_t k = 0; k < 2; ++k) {
        const Plan plan = laid_demo(k);
        for (const Point& box : plan.points) {
            if (box.kind != PointKind::box) continue;
            const auto all = one_box_or_two(plan, box.id);
            if (!all) continue;
            ASSERT_FALSE(all->options.empty());
            EXPECT_EQ(all->options.front().layout, BoxLayout::as_it_is);
            for (const BoxOption& o : all->options) {
                SCOPED_TRACE(box.name + " " + std::to_string(static_cast<int>(o.layout)));
                Plan there = plan;
                ASSERT_TRUE(yr::apply(there, o.edit));
                EXPECT_EQ(there.loads.size(), plan.loads.size());
                std::set<Id> ids;
                for (const yr::Run& r : there.runs) {
                    EXPECT_TRUE(ids.insert(r.id).second);
                    for (const Device& d : r.devices) EXPECT_TRUE(ids.insert(d.id).second) << d.id;
                }
                EXPECT_GT(o.metres, 0);
                EXPECT_GT(o.kg, 0);
                // what ran runs
                for (const State& s : plan.states) {
                    OperatingPointSolver solver;
                    const Solution before = solve(plan, s, solver), now = solve(there, s, solver);
                    for (std::size_t l = 0; l < plan.loads.size(); ++l)
                        EXPECT_EQ(now.point.loads[l].status == LoadStatus::on,
                                  before.point.loads[l].status == LoadStatus::on)
                            << plan.loads[l].name << ", " << s.name;
                }
            }
            const BoxOption* two = option(*all, BoxLayout::two_boxes);
            if (!two) continue;
            ++seen;
            EXPECT_GE(two->moved.size(), 2U);
            const Point* second = find(two->plan.points, std::string_view(two->second));
            ASSERT_NE(second, nullptr);
            EXPECT_EQ(second->channels.size(), two->moved.size());
            EXPECT_NE(feed_of(two->plan, two->second), nullptr);
            const Spot first = *spot_of(two->plan, box.id), other = *spot_of(two->plan, two->second);
            const WayNet net(two->plan);
            for (const Id& id : two->moved) {
                const yr::Run* r = run_on_channel(two->plan, two->second, 1);
                ASSERT_NE(r, nullptr);
                const Spot load = *spot_of(two->plan, id);
                EXPECT_LT(net.shortest(other, load)->length_m(), net.shortest(first, load)->length_m()) << id;
            }
            // the second's cables are guarded: nothing in stop that was not there
            const auto worse = [](const Plan& p) {
                std::multiset<std::string> all_of;
                for (const Finding& f : inspect(p, false).findings)
                    if (f.severity == Severity::stop) all_of.insert(words::sentence(f, p));
                return all_of;
            };
            const auto before = worse(plan), now = worse(two->plan);
            for (const std::string& s : now) EXPECT_TRUE(before.contains(s)) << s;
        }
    }
    EXPECT_GE(seen, 1);
}

// The truck with its loads strewn over the whole vehicle: whatever is divided still runs, on one box or the
// other.
TEST(TwoBoxes, WhereverTheLoadsStandNothingIsLost) {
    int two = 0;
    for (unsigned seed = 1; seed <= sweep(2U, 40U); ++seed) {
        Plan plan = laid_demo(0);
        std::mt19937 random(seed);
        for (const Load& l : std::vector<Load>(plan.loads)) {
            const auto at = plan.waypoints[random() % plan.waypoints.size()].at.spot();
            const auto moved = at ? stand(plan, l.id, *at) : Result<Edit>(Edit(Batch{}));
            if (moved) ASSERT_TRUE(yr::apply(plan, *moved));
        }
        lay(plan);
        const Id box = seed % 2 ? "rear-box" : "cab-box";
        const auto all = one_box_or_two(plan, box);
        ASSERT_TRUE(all) << seed;
        SCOPED_TRACE(seed);
        for (const BoxOption& o : all->options) {
            Plan there = plan;
            ASSERT_TRUE(yr::apply(there, o.edit));
            two += o.layout == BoxLayout::two_boxes;
            for (const State& s : plan.states) {
                OperatingPointSolver solver;
                const Solution before = solve(plan, s, solver), now = solve(there, s, solver);
                for (std::size_t l = 0; l < plan.loads.size(); ++l)
                    EXPECT_EQ(now.point.loads[l].status == LoadStatus::on,
                              before.point.loads[l].status == LoadStatus::on)
                        << plan.loads[l].name << ", " << s.name;
            }
        }
    }
    EXPECT_GE(two, sweep(1, 20));
}

TEST(TwoBoxes, IsAskedOfBoxesAlone) {
    const Plan plan = laid_demo(0);
    EXPECT_FALSE(one_box_or_two(plan, "load-1"));
    EXPECT_FALSE(one_box_or_two(plan, "nobody"));
    Plan nowhere = truck();
    nowhere.ways.clear();
    for (const Point& p : nowhere.points)
        if (p.kind == PointKind::box) EXPECT_FALSE(one_box_or_two(nowhere, p.id));
}

}  // namespace
}  // namespace yr::test
