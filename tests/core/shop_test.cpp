// A shop's own prices, times and torques and the ends of cables, typed; coverings, splices, kits; what is
// made stays as it is.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "fabricate/covering.h"
#include "fabricate/harness.h"
#include "fabricate/quote.h"
#include "inspect/checked_sizing.h"
#include "notes/notes.h"
#include "notes/plan_text.h"
#include "plan/edit.h"
#include "plan/roles.h"
#include "routes/lay.h"
#include "support/random_plan.h"
#include "words/build_words.h"
#include "words/statement_words.h"

namespace yr::test {
namespace {

Plan after(Plan plan, const std::string& line) {
    const Statement s = read_statement(plan, line);
    EXPECT_TRUE(s.whole()) << line;
    EXPECT_TRUE(s.not_understood.empty()) << line << ": " << s.not_understood.front();
    if (s.edit) EXPECT_TRUE(yr::apply(plan, *s.edit)) << line;
    return plan;
}

const QuoteLine* line_of(const Quote& q, const std::string& what) {
    for (const QuoteLine& l : q.lines)
        if (l.what == what) return &l;
    return nullptr;
}

TEST(Shop, TypedPricesCountByTheWordsOfTheList) {
    Plan plan = laid_demo(0);
    const std::string what = "10 AWG copper black";
    ASSERT_NE(line_of(quote(plan), what), nullptr);
    // as one types it: copper goes without saying
    plan = after(plan, "price 10 AWG black 2.50 a metre, roll of 5, from Harbour Cable, 2026-11-02");
    const Quote q = quote(plan);
    const QuoteLine* l = line_of(q, what);
    ASSERT_NE(l, nullptr);
    EXPECT_EQ(l->packs, std::ceil(l->quantity / 5 - 1e-9));
    ASSERT_TRUE(l->price);
    EXPECT_NEAR(*l->price, l->packs * 5 * 2.5, 1e-9);
    EXPECT_EQ(l->supplier, "Harbour Cable");
    EXPECT_EQ(l->dated, "2026-11-02");
    // said anew: the later one counts, and there are not two
    plan = after(plan, "price 10 AWG Black 3.10");
    EXPECT_EQ(plan.policy.prices.size(), 1U);
    EXPECT_NEAR(*line_of(quote(plan), what)->price, std::ceil(l->quantity - 1e-9) * 3.1, 1e-6);
    plan = after(plan, "price 10 AWG black 3.10, customer's");
    EXPECT_TRUE(line_of(quote(plan), what)->brought);
    plan = after(plan, "rate 85 an hour");
    EXPECT_EQ(plan.policy.rate_h, 85);
    // notes say all of it again
    const Notes again = read_notes(plan_text(plan));
    EXPECT_EQ(again.plan.policy.prices, plan.policy.prices);
}

TEST(Shop, TypedMinutesAndTorquesWin) {
    const Plan before = laid_demo(0);
    Plan plan = after(before, "minutes make thick 40");
    EXPECT_GT(work_order(plan).minutes, work_order(before).minutes);
    plan = after(plan, "minutes connect end 3");
    plan = after(plan, "torque M8 12 Nm");
    bool own = false;
    for (const WorkStep& s : work_order(plan).steps)
        for (const Fixing& f : s.fixings)
            if (f.thread_mm == 8) {
                own = true;
                EXPECT_TRUE(f.own_torque);
                EXPECT_EQ(f.torque->least_Nm, 12);
            }
    EXPECT_TRUE(own);
    EXPECT_EQ(after(plan, "torque m8 14nm").policy.torques.size(), 1U);
    // what is no task is told with those that are
    const Statement s = read_statement(plan, "minutes juggling 3");
    ASSERT_TRUE(s.error);
    EXPECT_NE(s.error->wanted.value.find("make thick"), std::string::npos);
    for (const char* line :
         {"price", "price 10 AWG black", "rate", "torque 12", "torque M8", "minutes make thick"})
        EXPECT_TRUE(read_statement(plan, line).error) << line;
    for (const char* line : {"price board 20 W", "rate controller 2 A on ignition, 2 m", "price sign 2 A",
                             "torque sensor 1 A on ignition", "minutes counter 0.5 A"})
        EXPECT_EQ(kind_of_line(plan, line), StatementKind::load) << line;
    EXPECT_EQ(kind_of_line(plan, "price fuse 30 A 1.20"), StatementKind::shop);
    EXPECT_EQ(kind_of_line(plan, "end light 5 W"), StatementKind::load);
}

TEST(Shop, EndsOfCablesAreTyped) {
    Plan plan = laid_demo(0);
    plan = after(plan, "end rear box feed at rear box: ring M8 45° boot, doubled");
    const auto run = std::find_if(plan.runs.begin(), plan.runs.end(),
                                  [](const yr::Run& r) { return r.name == "rear box feed"; });
    ASSERT_NE(run, plan.runs.end());
    const Id feed = run->id;
    EXPECT_EQ(run->end_to.kind, EndKind::ring);
    EXPECT_EQ(run->end_to.angle_deg, 45);
    EXPECT_TRUE(run->end_to.boot && run->end_to.doubled);
    EXPECT_EQ(run->lug_to_mm, 8);
    EXPECT_EQ(run->end_from, RunEnd{}) << "the other end stays";
    plan = after(plan, "end \"rear box feed\": ferrule");
    const yr::Run& both = *find(plan.runs, std::string_view(feed));
    EXPECT_EQ(both.end_from.kind, EndKind::ferrule);
    EXPECT_EQ(both.end_to.kind, EndKind::ferrule);
    const Statement nowhere = read_statement(plan, "end rear box feed at the moon: ring");
    ASSERT_TRUE(nowhere.error);
    EXPECT_EQ(nowhere.error->wanted.what, Want::either_of);
    EXPECT_TRUE(read_statement(plan, "end no such feed: ring").error);
    const Statement odd = read_statement(plan, "end rear box feed: ring gold M8");
    EXPECT_EQ(odd.not_understood, std::vector<std::string>{"gold"});
    const auto told =
        words::understood(plan, read_statement(plan, "end rear box feed at rear box: ring M10"), {});
    EXPECT_NE(std::find_if(told.begin(), told.end(),
                           [](const std::string& t) { return t.find("M10") != std::string::npos; }),
              told.end());
}

// ---- what looms are covered with

TEST(Clips, StandAsFarApartAsTheStandardAsksThatOneGoesBy) {
    Plan plan = laid_demo(0);
    const auto clips = [&] {
        double sum = 0;
        for (const Part& p : parts_of(plan))
            if (p.kind == BuyKind::clip) sum += p.quantity;
        return sum;
    };
    plan.policy.ampacity_table = AmpacityTable::abyc;
    EXPECT_DOUBLE_EQ(clip_spacing_m(plan, plan.ways[0]), 0.45) << "ABYC E-11, 18 in, from memory";
    const double wide = clips();
    plan.policy.ampacity_table = AmpacityTable::iso;
    EXPECT_DOUBLE_EQ(clip_spacing_m(plan, plan.ways[0]), 0.3) << "ISO 10133, from memory";
    EXPECT_GT(clips(), 1.2 * wide) << "by a half more, but for rounding up on each way";
    for (Way& w : plan.ways) w.clip_m = 0.45;
    EXPECT_DOUBLE_EQ(clips(), wide) << "what a way says wins";
}

TEST(Covering, LayersLieOverEachOtherAndAreBought) {
    Way way;
    EXPECT_TRUE(covering_of(way, 6, 1).empty()) << "one cable alone wants none";
    ASSERT_EQ(covering_of(way, 6, 3).size(), 1U);
    EXPECT_TRUE(covering_of(way, 6, 3)[0].chosen);
    way.covering = "tape, Split loom";
    const auto layers = covering_of(way, 12, 3);
    ASSERT_EQ(layers.size(), 2U);
    EXPECT_EQ(layers[0].inner_mm, 12);
    EXPECT_EQ(layers[1].inner_mm, layers[0].outer_mm);
    EXPECT_GE(layers[1].sold_mm, layers[1].inner_mm);
    // wound half over itself: each turn goes on by half a width of 19 mm
    EXPECT_NEAR(metres_of(layers[0], 2), 2 / 0.0095 * 3.14159265 * 0.012, 1e-6);
    EXPECT_EQ(metres_of(layers[1], 2), 2);
    way.covering = "none";
    EXPECT_TRUE(covering_of(way, 12, 3).empty());

    Plan plan = laid_demo(0);
    const auto loom_m = [](const Plan& p, const std::string& kind) {
        double m = 0;
        for (const Part& part : parts_of(p))
            if (part.kind == BuyKind::loom && part.what.starts_with(kind)) m += part.quantity;
        return m;
    };
    const double split = loom_m(plan, "split loom");
    ASSERT_GT(split, 1);
    EXPECT_EQ(loom_m(plan, "braid"), 0);
    const auto looms = flat_looms(plan, route_all(plan));
    const auto& seg = *std::max_element(
        looms[0].segments.begin(), looms[0].segments.end(), [](const auto& a, const auto& b) {
            return (a.way.empty() ? 0 : a.length_m()) < (b.way.empty() ? 0 : b.length_m());
        });
    plan = after(plan, "way \"" + find(plan.ways, std::string_view(seg.way))->name +
                           "\": covered in braid and shrink");
    EXPECT_NEAR(loom_m(plan, "braid"), seg.length_m(), 1e-6);
    EXPECT_NEAR(loom_m(plan, "split loom"), split - seg.length_m(), 1e-6);
    Plan wrong = plan;
    Way w = *find(plan.ways, std::string_view(seg.way));
    w.covering = "tape, wool";
    const auto refused = yr::apply(wrong, Edit(Put<Way>{w, {}}));
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().given, "wool");
}

TEST(Harness, SplicesAreStaggered) {
    Plan plan = laid_demo(0);
    const auto looms = flat_looms(plan, route_all(plan));
    const auto& seg = *std::max_element(
        looms[0].segments.begin(), looms[0].segments.end(), [](const auto& a, const auto& b) {
            return (a.way.empty() ? 0 : a.length_m()) < (b.way.empty() ? 0 : b.length_m());
        });
    const Way& way = *find(plan.ways, std::string_view(seg.way));
    const Spot a = *find(plan.waypoints, std::string_view(way.from))->at.spot(),
               b = *find(plan.waypoints, std::string_view(way.to))->at.spot();
    for (int k = 0; k < 4; ++k) {  // all at the same spot beside the way
        Point p;
        p.id = "splice-" + std::to_string(k), p.name = p.id, p.kind = PointKind::splice;
        p.at = stand_at({(a.x_m + b.x_m) / 2, (a.y_m + b.y_m) / 2, (a.z_m + b.z_m) / 2});
        plan.points.push_back(p);
        yr::Run r;
        r.id = "to-splice-" + std::to_string(k), r.name = r.id, r.from = plan.runs[0].from, r.to = p.id;
        r.from = "main-stud";
        for (const Point& q : plan.points)
            if (q.name == "main stud") r.from = q.id;
        r.size = WireSize::awg(12);
        plan.runs.push_back(r);
    }
    std::vector<FlatPoint> at;
    for (const FlatLoom& l : flat_looms(plan, route_all(plan)))
        for (const FlatSegment& s : l.segments)
            if (s.way.empty() && s.thing.starts_with("splice-")) at.push_back(s.from);
    ASSERT_EQ(at.size(), 4U);
    for (std::size_t i = 0; i < at.size(); ++i)
        for (std::size_t k = i + 1; k < at.size(); ++k)
            EXPECT_GE(std::hypot(at[i].x_m - at[k].x_m, at[i].y_m - at[k].y_m), kSplicesApart_m - 1e-9);
}

TEST(Sheets, KitsHoldTheSamePiecesForEveryVehicle) {
    const Plan plan = laid_demo(1);
    const auto cuts = cut_plan(plan, 3);
    const Sheet kits = words::kits_sheet(plan, cuts);
    std::map<double, std::vector<std::pair<std::string, double>>> bags;
    std::size_t pieces = 0;
    for (const SizeCutting& c : cuts) pieces += c.pieces.size();
    EXPECT_EQ(kits.rows.size(), pieces);
    for (const auto& row : kits.rows)
        bags[std::get<double>(row[0])].emplace_back(std::get<std::string>(row[1]), std::get<double>(row[5]));
    ASSERT_EQ(bags.size(), 3U);
    for (auto& [vehicle, bag] : bags) std::sort(bag.begin(), bag.end());
    EXPECT_EQ(bags[1], bags[2]);
    EXPECT_EQ(bags[2], bags[3]);
}

// ---- what is made stays

TEST(Made, ACableThatIsMadeIsNotSizedAnew) {
    Plan plan = laid_demo(1);
    for (yr::Run& r : plan.runs) r.pinned = false;
    const auto sized = size_checked(plan, {});
    ASSERT_TRUE(sized);
    Plan done = plan;
    ASSERT_TRUE(yr::apply(done, sized->sizing.edit));
    Id changed;
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        if (done.runs[k].size != plan.runs[k].size) changed = plan.runs[k].id;
    ASSERT_FALSE(changed.empty()) << "the buggy has cables that a sizing changes";
    Mark m;
    m.id = "mark-1", m.name = "laid", m.about = changed;
    plan.marks.push_back(m);
    EXPECT_TRUE(is_made(plan, *find(plan.runs, std::string_view(changed))));
    EXPECT_FALSE(size_is_open(plan, *find(plan.runs, std::string_view(changed))));
    const auto again = size_checked(plan, {});
    ASSERT_TRUE(again);
    Plan kept = plan;
    ASSERT_TRUE(yr::apply(kept, again->sizing.edit));
    EXPECT_EQ(find(kept.runs, std::string_view(changed))->size,
              find(plan.runs, std::string_view(changed))->size);
}

}  // namespace
}  // namespace yr::test
