// What two places say of one thing is the same; what decides a comparison is the state that is worst.
#include <gtest/gtest.h>

#include <algorithm>

#include "inspect/compare.h"
#include "inspect/findings.h"
#include "plan/roles.h"
#include "plan/validate.h"
#include "size/plan_fuse.h"
#include "sizing/placement.h"
#include "support/findings.h"
#include "support/sweep.h"
#include "support/vehicles.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

// A battery, its bus and what hangs there by a fused cable of that size.
yr::Run branch(const Id& id, const Terminal& from, const Terminal& to, double length_m, int awg,
               double fuse_A) {
    yr::Run r;
    r.id = id, r.name = id, r.from = from, r.to = to, r.length_m = length_m, r.size = WireSize::awg(awg);
    if (fuse_A > 0) {
        Device fuse;
        fuse.id = "fuse-" + id, fuse.name = id + " fuse", fuse.rating_A = fuse_A, fuse.at_m = 0.1;
        r.devices = {fuse};
    }
    return r;
}

Load lamp(const Id& id, double amps) {
    Load l;
    l.id = l.name = id, l.draw = {DrawKind::current, amps};
    return l;
}

Plan van_with_a_lamp() {
    Plan plan = empty_plan("van");
    plan.loads = {lamp("lamp", 8)};
    plan.runs.push_back(branch("there", "point-bus", "lamp.pos", 3, 12, 15));
    plan.runs.push_back(branch("back", "lamp.neg", "battery-1.neg", 3, 12, 0));
    return plan;
}

TEST(SameWord, GuardAndFindingsNeverDifferOnAFuse) {
    int unguarded = 0;
    for (unsigned seed = 0; seed < sweep(16U, 200U); ++seed)
        for (const Mistake m : {Mistake::none, Mistake::fuse_above_cable, Mistake::cable_thin}) {
            const Plan plan = vehicle(seed, m).plan;
            const Inspection i = inspect(plan, false);
            for (const yr::Run& r : plan.runs) {
                const auto fuse = std::find_if(r.devices.begin(), r.devices.end(),
                                               [](const Device& d) { return d.kind == DeviceKind::fuse; });
                const auto advice = advise_fuse(plan, r.id, i.solutions);
                if (fuse == r.devices.end() || !advice || advice->guard.limit_C <= 0) continue;
                const bool told = std::any_of(i.findings.begin(), i.findings.end(), [&](const Finding& f) {
                    return f.id == r.id &&
                           (f.kind == FindingKind::guards_not || f.kind == FindingKind::fuse_above_cable);
                });
                if (!advice->guards && advice->guarded_by.empty()) {
                    EXPECT_TRUE(told) << seed << " " << r.name << ": Guard says no, the findings nothing";
                    ++unguarded;
                }
                if (!told) {
                    EXPECT_TRUE(advice->guards || !advice->guarded_by.empty()) << seed << " " << r.name;
                }
            }
        }
    EXPECT_GT(unguarded, 10) << "or this test says nothing";
}

TEST(SameWord, TheFuseBeforeMayGuardAndBothSaySo) {
    Plan plan = van_with_a_lamp();
    thing(plan.runs, "there").size = WireSize::awg(18);
    Device& own = thing(plan.runs, "there").devices[0];
    own.rating_A = 30;
    EXPECT_TRUE(found(plan, FindingKind::fuse_above_cable, "there"));
    const auto alone = advise_fuse(plan, "there", solve_all(plan));
    ASSERT_TRUE(alone);
    EXPECT_FALSE(alone->guards);
    EXPECT_TRUE(alone->guarded_by.empty()) << "150 A before it guard nothing";
    Device& main = thing(plan.runs, "run-1").devices[0];
    main.fuse = FuseType::blade, main.rating_A = 10;
    const auto behind = advise_fuse(plan, "there", solve_all(plan));
    ASSERT_TRUE(behind);
    EXPECT_EQ(behind->guarded_by, main.id);
}

TEST(SameWord, WhatStaysOfAShortIsNamed) {
    // two cables side by side, one of them without a fuse: the fused one opens, the other feeds the short on
    Plan plan = van_with_a_lamp();
    thing(plan.runs, "run-1").devices.clear();
    Point far;
    far.id = far.name = "far", far.kind = PointKind::stud;
    plan.points.push_back(far);
    plan.runs.push_back(branch("twin-a", "point-bus", "far", 3, 6, 60));
    plan.runs.back().devices[0].fuse = FuseType::bolt;
    plan.runs.push_back(branch("twin-b", "point-bus", "far", 3, 6, 0));
    ASSERT_TRUE(validate(plan).empty());
    const Inspection i = inspect(plan, false);
    const auto stays = std::find_if(i.findings.begin(), i.findings.end(), [](const Finding& f) {
        return f.kind == FindingKind::short_stays && f.id == "twin-a";
    });
    ASSERT_NE(stays, i.findings.end());
    EXPECT_EQ(stays->other, "twin-b") << words::sentence(*stays, plan);
    EXPECT_GT(stays->value, 100);
}

TEST(SameWord, ACutOffWaitsLongerThanCrankingLasts) {
    Plan plan = van_with_a_lamp();
    Load starter = lamp("starter", 300);
    starter.starter = true, starter.live_when.key = Key::crank;
    plan.loads.push_back(starter);
    plan.runs.push_back(branch("starter cable", "battery-1.pos", "starter.pos", 1, 0, 0));
    plan.runs.push_back(branch("starter return", "starter.neg", "battery-1.neg", 1, 0, 0));
    Device cutoff;
    cutoff.id = cutoff.name = "cutoff", cutoff.kind = DeviceKind::cutoff, cutoff.open_V = 11.5;
    cutoff.delay_s = 5;
    thing(plan.runs, "there").devices.push_back(cutoff);
    const auto lamp_runs = [&] {
        return solve(plan, *find_state(plan, "Cranking")).point.loads[0].status == LoadStatus::on;
    };
    const double at_V = solve(plan, *find_state(plan, "Cranking")).point.batteries[0].voltage_V;
    ASSERT_LT(at_V, 11.4) << "or it would not trip anyway";
    EXPECT_FALSE(lamp_runs()) << "5 s are over while the engine still turns";
    thing(plan.runs, "there").devices.back().delay_s = 30;
    EXPECT_TRUE(lamp_runs()) << "half a minute outlives it";
}

TEST(SameWord, TheFuseOfASolarChargerIsNoMainOfTheBox) {
    Plan plan = van_with_a_lamp();
    Point box;
    box.id = box.name = "box", box.kind = PointKind::box, box.feeds_loads = true;
    plan.points.push_back(box);
    plan.runs.push_back(branch("box feed", "point-bus", "box", 2, 6, 60));
    Source panel;
    panel.id = panel.name = "panel", panel.kind = SourceKind::solar, panel.return_at = "battery-1.neg";
    plan.sources.push_back(panel);
    plan.runs.push_back(branch("panel cable", "panel.out", "box", 2, 12, 10));
    plan.loads.push_back(lamp("pump", 14));
    plan.runs.push_back(branch("pump feed", "box", "pump.pos", 2, 10, 20));
    plan.runs.push_back(branch("pump return", "pump.neg", "battery-1.neg", 2, 10, 0));
    ASSERT_TRUE(validate(plan).empty());
    EXPECT_FALSE(found(plan, FindingKind::box_main_over, "box"));
    thing(plan.runs, "box feed").devices[0].rating_A = 10;
    EXPECT_TRUE(found(plan, FindingKind::box_main_over, "box"));
}

TEST(SameWord, ChargingVoltsAboveWhatARailsLoadsBearAreTold) {
    Plan plan = van_with_a_lamp();
    Source alternator;
    alternator.id = alternator.name = "alternator", alternator.return_at = "battery-1.neg";
    alternator.works_when.engine = Engine::running, alternator.regulated_V = 14.2;
    plan.sources.push_back(alternator);
    plan.runs.push_back(branch("charge", "battery-1.pos", "alternator.out", 1, 2, 100));
    EXPECT_FALSE(found(plan, FindingKind::volts_foreign, "lamp"));
    plan.sources[0].regulated_V = 17;
    EXPECT_TRUE(found(plan, FindingKind::volts_foreign, "lamp")) << "ISO 16750-2: 16 V at most";
    plan.loads[0].most_V = 32;
    EXPECT_FALSE(found(plan, FindingKind::volts_foreign, "lamp")) << "it says that it bears them";
}

TEST(SameWord, IdleAmpsStatedAtAnotherSpeedAreTold) {
    Plan plan = van_with_a_lamp();
    Source alternator;
    alternator.id = alternator.name = "alternator", alternator.return_at = "battery-1.neg";
    alternator.works_when.engine = Engine::running;
    alternator.rated_A = 140, alternator.idle_A = 70, alternator.pulley_ratio = 2.7;
    plan.sources.push_back(alternator);
    plan.runs.push_back(branch("charge", "battery-1.pos", "alternator.out", 1, 2, 150));
    EXPECT_TRUE(found(plan, FindingKind::idle_elsewhere, "alternator")) << "800 x 2.7 is not 1500 per minute";
    plan.sources[0].pulley_ratio = 1500.0 / find_state(plan, "Idling")->rpm;
    EXPECT_FALSE(found(plan, FindingKind::idle_elsewhere, "alternator"));
}

TEST(Compare, TheWorstStateOfARoleDecidesAndNoiseDoesNot) {
    Plan plan = van_with_a_lamp();
    State night = *find_state(plan, "Key off");
    night.id = "night", night.name = "Parked with the lamp on";
    plan.states.push_back(night);
    thing(plan.loads, "lamp").live_when.switches = {"lamp"};
    plan.states.back().switches = {"lamp"};
    State off = night;
    off.id = "off-last", off.name = "Parked, all off", off.switches.clear();
    plan.states.push_back(off);  // the last in the list, and not the worst
    Variant thinner;
    thinner.id = "thinner", thinner.name = "a hair shorter";
    thinner.runs = {thing(plan.runs, "there")};
    *thinner.runs[0].length_m -= 0.01;
    plan.variants = {thinner};
    const auto options = compare_options(plan);
    ASSERT_EQ(options.size(), 2U);
    ASSERT_TRUE(options[0].parked_h.value);
    EXPECT_EQ(options[0].parked_h.state, "night");
    EXPECT_EQ(*options[0].parked_h.value, *options[1].parked_h.value) << "a centimetre wins nothing";
}

TEST(Placement, SaysWhereItKnowsNoDistances) {
    Plan plan = van_with_a_lamp();
    for (Point& p : plan.points)
        if (p.kind == PointKind::chassis) p.place.clear();
    const auto where = placement_of(plan, "point-bus");
    ASSERT_TRUE(where);
    EXPECT_FALSE(where->unknown.empty()) << "no cable leads from the bay to the cab or the rear";
    for (const PlacementRow& row : where->rows) EXPECT_TRUE(row.place.empty()) << row.place;
}

}  // namespace
}  // namespace yr::test
