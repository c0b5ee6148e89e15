#include <gtest/gtest.h>

#include "control/circuit.h"
#include "plan/plan_json.h"
#include "size/cable_size.h"
#include "size/fuse_size.h"
#include "size/run_ladder.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

TEST(SizeCable, TheChosenOneIsTheThinnestThatPasses) {
    for (double amps : {1.0, 8.0, 25.0, 70.0, 160.0})
        for (double length : {1.0, 6.0, 15.0})
            for (auto system : {SizeSystem::awg, SizeSystem::sae, SizeSystem::metric}) {
                SizeAsk ask;
                ask.current_A = amps, ask.there_and_back_m = length, ask.system = system;
                const auto ladder = size_cable(ask);
                ASSERT_TRUE(ladder);
                for (std::size_t k = 0; k < ladder->rows.size(); ++k) {
                    const bool passes = ladder->rows[k].passes();
                    if (ladder->chosen < 0 || static_cast<int>(k) < ladder->chosen) EXPECT_FALSE(passes);
                    if (static_cast<int>(k) == ladder->chosen) EXPECT_TRUE(passes);
                }
            }
}

TEST(SizeCable, SaysWhatDecides) {
    SizeAsk ask;
    ask.current_A = 40, ask.there_and_back_m = 0.5;
    EXPECT_EQ(size_cable(ask)->decides, Limit::ampacity);
    ask.there_and_back_m = 20;
    EXPECT_EQ(size_cable(ask)->decides, Limit::drop);
    ask.there_and_back_m = 0.5, ask.current_A = 1, ask.fuse_A = 40;
    EXPECT_EQ(size_cable(ask)->decides, Limit::fuse);
    ask.current_A = 5000;
    EXPECT_EQ(size_cable(ask)->chosen, -1);
}

TEST(SizeCable, NamesTheArgumentThatCannotBe) {
    const auto place = [](auto change) {
        SizeAsk ask;
        ask.current_A = 10, ask.there_and_back_m = 5;
        change(ask);
        return size_cable(ask).error().place;
    };
    EXPECT_EQ(place([](SizeAsk& a) { a.current_A = 0; }), "current");
    EXPECT_EQ(place([](SizeAsk& a) { a.there_and_back_m = -1; }), "length");
    EXPECT_EQ(place([](SizeAsk& a) { a.drop_share = 0; }), "drop");
    EXPECT_EQ(place([](SizeAsk& a) { a.insulation_C = 20; }), "insulation");
    EXPECT_EQ(place([](SizeAsk& a) { a.bundle = 0; }), "bundle");
}

TEST(FuseChoice, TheThreeSchoolsDiffer) {
    const FuseAsk ask{10, 28.0, 25};
    EXPECT_DOUBLE_EQ(choose_fuse(ask, FuseSchool::load150)->chosen->rating_A, 15);
    EXPECT_FALSE(choose_fuse(ask, FuseSchool::load150)->holds_inrush) << "its risk is shown";
    EXPECT_DOUBLE_EQ(choose_fuse(ask, FuseSchool::inrush)->chosen->rating_A, 30);
    EXPECT_FALSE(choose_fuse(ask, FuseSchool::inrush)->protects_cable);
    EXPECT_FALSE(choose_fuse(ask, FuseSchool::wire)->chosen.has_value())
        << "no fuse is both above 28 A and at most 25 A";
    EXPECT_DOUBLE_EQ(choose_fuse({10, 28.0, 45}, FuseSchool::wire)->chosen->rating_A, 30);
    EXPECT_DOUBLE_EQ(choose_fuse({12, std::nullopt, 45}, FuseSchool::wire)->chosen->rating_A, 15)
        << "12 A is exactly 80 % of 15 A";
    EXPECT_FALSE(choose_fuse({0, std::nullopt, 45}, FuseSchool::wire));
}

TEST(RunLadder, SolvesThePlanForEverySize) {
    const auto plan = *load_plan(demo_path(kDemos[0]));
    Id feed;
    for (const yr::Run& r : plan.runs)
        if (r.name == "echo sounder feed") feed = r.id;
    const auto ladder = run_ladder(plan, feed);
    ASSERT_TRUE(ladder);
    EXPECT_EQ(name_of(ladder->rows[static_cast<std::size_t>(ladder->now)].size), "16 AWG");
    EXPECT_FALSE(ladder->rows[static_cast<std::size_t>(ladder->now)].passes());
    EXPECT_EQ(ladder->rows.back().drop_load, owner_of(find(plan.runs, feed)->to));
    for (std::size_t k = 1; k < ladder->rows.size(); ++k)
        EXPECT_LT(ladder->rows[k].drop_V, ladder->rows[k - 1].drop_V);
    EXPECT_EQ(run_ladder(plan, "nothing").error().code, ErrorCode::missing_reference);
}

TEST(Circuit, ATypedLineBecomesALoadThatIsFedFusedAndFits) {
    Plan plan = *load_plan(demo_path(kDemos[0]));
    const auto made =
        make_circuit(plan, read_line(plan, "bank light 2x 45 W on ignition, 5.5 m, cargo roof"));
    ASSERT_TRUE(made);
    EXPECT_EQ(made->feed, "rear-box") << "the feed that is live with the ignition";
    EXPECT_TRUE(made->feed_fits);
    ASSERT_TRUE(yr::apply(plan, made->edit));
    const Load& l = *find(plan.loads, made->load);
    EXPECT_EQ(l.count, 2);
    const yr::Run* supply = nullptr;
    for (const yr::Run& r : plan.runs)
        if (r.to == pos_of(l.id)) supply = &r;
    ASSERT_NE(supply, nullptr);
    ASSERT_EQ(supply->devices.size(), 2U) << "the channel's driver and its fuse";
    EXPECT_EQ(supply->devices[0].closed_when, l.live_when);
    EXPECT_FALSE(l.own_switch) << "the channel switches it";
    EXPECT_GE(supply->devices[1].rating_A, 90 / 12.0 / 0.8);
    EXPECT_LE(supply->devices[1].rating_A, *least_ampacity_A(plan, *supply));
    const Solution s = solve(plan, *find_state(plan, "Driving"));
    EXPECT_EQ(s.point.loads.back().status, LoadStatus::on);
    const auto always = make_circuit(plan, read_line(plan, "depth recorder 0.4 A always critical"));
    EXPECT_TRUE(always->feed_fits);
    EXPECT_EQ(make_circuit(plan, read_line(plan, "lamp")).error().code, ErrorCode::empty);
}

TEST(Protection, UpstreamFuseCountsOnlyIfEveryWayHasOne) {
    const auto plan = *load_plan(demo_path(kDemos[0]));
    const auto run = [&](const char* name) -> const yr::Run& {
        for (const yr::Run& r : plan.runs)
            if (r.name == name) return r;
        throw std::logic_error(name);
    };
    const auto charge = fed_ends(plan, run("charge cable"));
    ASSERT_EQ(charge.size(), 1U) << "the battery feeds it; the alternator limits itself";
    EXPECT_FALSE(charge[0].at_from);
    EXPECT_FALSE(charge[0].upstream_A.has_value());
    const auto cab = fed_ends(plan, run("cab box feed"));
    ASSERT_EQ(cab.size(), 1U);
    EXPECT_DOUBLE_EQ(*cab[0].upstream_A, 200);
    EXPECT_NEAR(cab[0].own_distance_m, 0.1, 1e-12);
}

}  // namespace
}  // namespace yr::test
