// Findings about the supply as a whole: each is made to appear by one mistake, and to go by its mend or its
// opposite.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <tuple>

#include "catalog/batteries.h"
#include "inspect/findings.h"
#include "inspect/hours.h"
#include "notes/notes.h"
#include "plan/additions.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "support/findings.h"
#include "support/random_plan.h"
#include "support/sweep.h"
#include "support/typed_page.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

Plan van() {  // starter battery, alternator, second battery with a charger, an ignition feed
    Plan plan = empty_plan("van");
    for (auto make : {add_alternator, add_second_battery, add_charger})
        EXPECT_TRUE(yr::apply(plan, make(plan)->edit));
    EXPECT_TRUE(yr::apply(plan, add_starter(plan, "starter", 0.05)->edit));
    return plan;
}

TEST(BatteryFindings, SecondBatteryThatNothingCharges) {
    Plan plan = van();
    EXPECT_FALSE(found(plan, FindingKind::never_charged, "battery-2"));
    std::erase_if(plan.runs, [](const yr::Run& r) { return r.name == "charger output"; });
    std::erase_if(plan.runs, [](const yr::Run& r) { return r.name == "charger feed"; });
    std::erase_if(plan.sources, [](const Source& s) { return s.kind == SourceKind::converter; });
    EXPECT_TRUE(found(plan, FindingKind::never_charged, "battery-2"));
}

// What a battery's own management does not let pass is told before it is dark: in the state that asks it,
// else by the rating of the inverter on its posts; two batteries side by side let twice as much pass.
TEST(BatteryFindings, ManagementThatOpensAtWork) {
    const std::string bank =
        "van 12 V\nbattery 100 Ah AGM\nalternator 120 A\nleisure battery 2x 100 Ah lithium "
        "12.8 V, BMS 100 A each\ninverter 3000 W\n";
    const Plan rated = read_notes(bank).plan;
    const Id battery = rated.batteries.at(1).id;
    EXPECT_EQ(rated.batteries[1].cuts_at_A, 200);
    const auto by_rating = found(rated, FindingKind::management_opens, battery);
    ASSERT_TRUE(by_rating);
    EXPECT_EQ(by_rating->severity, Severity::check);
    EXPECT_EQ(by_rating->other, rated.inverters.at(0).id);
    EXPECT_GT(by_rating->value, 3000 / 12.5)
        << "at the volts at which it still works it asks more than at rest";
    Plan cooking = read_notes(bank + "induction hob 2800 W on inverter\n").plan;
    const auto at_work = found(cooking, FindingKind::management_opens, battery);
    ASSERT_TRUE(at_work);
    EXPECT_EQ(at_work->severity, Severity::stop);
    EXPECT_FALSE(at_work->state.empty());
    EXPECT_NE(words::sentence(*at_work, cooking).find("its own management opens at 200"), std::string::npos);
    thing(cooking.batteries, battery).cuts_at_A = 400;
    EXPECT_FALSE(found(cooking, FindingKind::management_opens));
    thing(cooking.batteries, battery).cuts_at_A.reset();
    EXPECT_FALSE(found(cooking, FindingKind::management_opens));
}

TEST(BatteryFindings, ChargedBeyondWhatItBears) {
    Plan plan = van();
    EXPECT_FALSE(found(plan, FindingKind::charged_too_high));
    for (Source& s : plan.sources)
        if (s.kind == SourceKind::converter) s.regulated_V = 15.4;
    for (State& s : plan.states)
        s.charge = 0.99;  // nearly full: it takes little and stands at the charger's volts
    const auto f = found(plan, FindingKind::charged_too_high, "battery-2");
    ASSERT_TRUE(f);
    EXPECT_GT(f->value, 15);
    EXPECT_NEAR(f->limit, 14.6, 1e-9) << "four cells at 3.65 V, common practice";
}

TEST(BatteryFindings, LithiumBelowFreezing) {
    Plan plan = van();
    for (State& s : plan.states) s.ambient_C = -8;
    const auto f = found(plan, FindingKind::charged_too_cold, "battery-2");
    ASSERT_TRUE(f);
    EXPECT_EQ(f->severity, Severity::stop);
    for (Battery& b : plan.batteries) b.chemistry = Chemistry::agm;
    EXPECT_FALSE(found(plan, FindingKind::charged_too_cold));
}

TEST(BatteryFindings, SecondBatteryThatCranksAlong) {
    Plan plan = van();
    EXPECT_FALSE(found(plan, FindingKind::battery_cranks));
    ASSERT_TRUE(yr::apply(plan, add_link(plan, Link::contactor)->edit));
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.name == "ignition contactor")
                d.closed_when = {Key::ignition, Engine::any, {}};  // closed at the key
    EXPECT_TRUE(found(plan, FindingKind::battery_cranks, "battery-2"));
}

TEST(BatteryFindings, AStoppedTruckCranksForHoursAndColdTakesThem) {
    const Plan plan = truck();
    const auto warm = found(plan, FindingKind::cranks_for, "battery-1");
    ASSERT_TRUE(warm && warm->hours);
    Plan cold = plan;
    thing(cold.states, "state-crank").engine_bay_C = thing(cold.states, "state-crank").ambient_C = -25;
    const auto frozen = found(cold, FindingKind::cranks_for, "battery-1");
    ASSERT_TRUE(frozen && frozen->hours);
    EXPECT_LT(*frozen->hours, *warm->hours);
    cold.batteries[0].health = 0.2;
    const auto old = found(cold, FindingKind::will_not_crank, "battery-1");
    EXPECT_TRUE(old) << "an old battery in the cold does not crank at all";
}

// A heater of 1.2 ohm straight on a battery, added up by hand in 400 thin slices: volts fall with the charge
// and so do the amps. A second battery beside it keeps the charge that the state gives both.
TEST(Hours, AgreeWithASumByHand) {
    Plan plan = empty_plan("lasting");
    Battery& b = plan.batteries[0];
    b.chemistry = Chemistry::agm, b.capacity_Ah = 80, b.R0_ohm = 0.004, b.peukert = 1.15;
    Load heater;
    heater.id = "heater", heater.name = "heater", heater.draw = {DrawKind::resistance, 1.2};
    plan.loads = {heater};
    for (const auto& [id, from, to] :
         {std::tuple{"a", "battery-1.pos", "heater.pos"}, std::tuple{"b", "heater.neg", "battery-1.neg"}}) {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = 0.001;
        plan.runs.push_back(r);
    }
    State parked{"s", "Parked", Key::off, 0, 25, 25, {}, {}};
    parked.charge = 0.9;
    plan.states = {parked};
    const auto& lead = chemistry_data(Chemistry::agm);
    double hours = 0;
    constexpr int kSlices = 400;
    for (int k = 0; k < kSlices; ++k) {
        const double charge = 0.9 - (k + 0.5) * 0.4 / kSlices;
        const double amps =
            interpolate(lead.ocv_V, charge) / (1.202 + 0.004 * interpolate(lead.R0_factor, charge));
        hours += 0.4 / kSlices * 20 * std::pow(80 / (amps * 20), 1.15);
    }
    const Lasting alone = lasting(plan, parked, 0, 0.5);
    ASSERT_TRUE(alone.average_h && alone.peak_h);
    EXPECT_NEAR(*alone.average_h, hours, 0.002 * hours);
    EXPECT_NEAR(*alone.peak_h, hours, 0.002 * hours);
    EXPECT_EQ(lasting(plan, parked, 0, 0.95).average_h, 0.0) << "below it already";

    Battery beside = plan.batteries[0];
    beside.id = "battery-2", beside.name = "beside it", beside.charge = 0.2;
    plan.batteries.push_back(beside);
    for (const auto& [id, from, to] : {std::tuple{"c", "battery-2.pos", "battery-1.pos"},
                                       std::tuple{"d", "battery-2.neg", "battery-1.neg"}}) {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = 1e-4;
        plan.runs.push_back(r);
    }
    const Lasting both = lasting(plan, parked, 0, 0.8);
    Plan said = plan;  // the same charge typed at the battery says the same
    said.batteries[1].charge = 0.9;
    EXPECT_EQ(both.average_h, lasting(said, parked, 0, 0.8).average_h);
}

// What no volts serve now is not searched for at each charge: the hours are those of the plan without it.
TEST(Hours, ALoadThatCollapsesTakesNone) {
    const Plan plan =
        typed_page("van 12 V\nbattery 95 Ah\nwork lights 20 A always, 12 m, 20 AWG\nradio 4 A always\n");
    const State& parked = plan.states.front();
    const Solution now = solve(plan, parked);
    ASSERT_EQ(now.point.loads[0].status, LoadStatus::collapsed);
    Plan without = plan;
    without.loads[0].later = true;
    const auto hours = lasting(plan, parked, 0, 0.5).average_h;
    ASSERT_TRUE(hours && *hours > 1);
    EXPECT_NEAR(*hours, *lasting(without, parked, 0, 0.5).average_h, 1e-6 * *hours);
}

TEST(BatteryFindings, UnequalLinksShareUnequally) {
    Plan plan = empty_plan("bank");
    Battery b = plan.batteries[0];
    b.id = "battery-2", b.name = "second of the bank";
    plan.batteries.push_back(b);
    const auto join = [&](const char* id, const Terminal& from, const Terminal& to, double ohm) {
        yr::Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = ohm;
        plan.runs.push_back(r);
    };
    join("plus", "battery-2.pos", "battery-1.pos", 1e-4);
    join("minus", "battery-2.neg", "battery-1.neg", 1e-4);
    Load l;
    l.id = "winch", l.name = l.id, l.draw = {DrawKind::current, 120};
    plan.loads = {l};
    join("there", "battery-1.pos", "winch.pos", 1e-4);
    join("back", "winch.neg", "battery-1.neg", 1e-4);
    EXPECT_FALSE(found(plan, FindingKind::shares_unequally));
    for (yr::Run& r : plan.runs)
        if (r.id == "plus") r.resistance_ohm = 6e-3;
    const auto f = found(plan, FindingKind::shares_unequally, "battery-1");
    ASSERT_TRUE(f);
    // two equal batteries of R0: the near one gives (R0 + link) / (2 R0 + link)
    const double R0 = solve(plan, *find(plan.states, f->state)).network.batteries[0].R0_ohm;
    EXPECT_NEAR(f->value, (R0 + 6.1e-3) / (2 * R0 + 6.1e-3), 1e-6);
}

TEST(Protection, ALithiumBanksFuseMustCutItsShort) {
    Plan plan = truck();
    const auto f = found(plan, FindingKind::interrupt_low, "run-11");
    ASSERT_TRUE(f && f->mend);
    EXPECT_EQ(f->severity, Severity::stop);
    EXPECT_NEAR(f->value, 13.5 / (0.004 + 0.075 / 200), 1) << "full open volts over R0 and the fuse";
    ASSERT_TRUE(yr::apply(plan, f->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::interrupt_low, "run-11"));
}

TEST(Mains, OverloadSurgeAndWaveform) {
    Plan plan = truck();
    EXPECT_FALSE(found(plan, FindingKind::inverter_over));
    const auto sine = found(plan, FindingKind::modified_sine, "load-25");
    ASSERT_TRUE(sine && sine->mend);
    ASSERT_TRUE(yr::apply(plan, sine->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::modified_sine));
    thing(plan.loads, "load-25").start_W = 3600;
    const auto surge = found(plan, FindingKind::inverter_surge, "inverter");
    ASSERT_TRUE(surge);
    EXPECT_DOUBLE_EQ(surge->value, 3600);
    EXPECT_DOUBLE_EQ(surge->limit, 3000);
    thing(plan.loads, "load-25").draw.value = 1400;
    thing(plan.loads, "load-25").power_factor.reset();
    EXPECT_FALSE(found(plan, FindingKind::inverter_over)) << "1400 W of 1500";
    thing(plan.loads, "load-25").power_factor = 0.7;
    const auto over = found(plan, FindingKind::inverter_over, "inverter");
    ASSERT_TRUE(over) << "but 2000 VA";
    EXPECT_DOUBLE_EQ(over->value, 2000);
}

TEST(Mains, AConverterMustStartWhatHangsOnIt) {
    Plan cart = *load_plan(demo_path(kDemos[2]));
    EXPECT_TRUE(found(cart, FindingKind::stays_charged, "converter")) << "its lines hold a charge: a caution";
    thing(cart.sources, "converter").surge_A = 24;
    EXPECT_TRUE(found(cart, FindingKind::converter_surge, "converter"));
    thing(cart.sources, "converter").surge_A = 200;
    EXPECT_FALSE(found(cart, FindingKind::converter_surge));
}

TEST(Mains, RegulatorsOfOneWindingShareAsSaidNotByHalves) {
    Plan buggy = *load_plan(demo_path(kDemos[1]));
    const auto f = found(buggy, FindingKind::shares_unequally, "stator");
    ASSERT_TRUE(f);
    EXPECT_NEAR(f->value, 0.55, 1e-12);
    for (Source& s : buggy.sources) s.share = 0.5;
    EXPECT_FALSE(found(buggy, FindingKind::shares_unequally));
    buggy.sources[0].share = 0.7;
    EXPECT_FALSE(validate(buggy).empty()) << "shares of more than the whole winding";
}

TEST(Starting, AControlUnitBelowItsWindowWhileCranking) {
    Plan plan = truck();
    EXPECT_FALSE(found(plan, FindingKind::volts_outside, "load-2"));
    thing(plan.loads, "load-1").draw.value = 0.012;  // a starter that pulls the volts down
    thing(plan.loads, "load-2").supply_code = SupplyCode::d;
    const auto f = found(plan, FindingKind::volts_outside, "load-2");
    ASSERT_TRUE(f);
    EXPECT_EQ(f->state, Id("state-crank"));
    EXPECT_DOUBLE_EQ(f->limit, 10.5);  // ISO 16750-2 code D (from memory)
}

TEST(Starting, EverythingAtOnce) {
    Plan plan = van();
    ASSERT_TRUE(yr::apply(plan, add_feed(plan, {Key::ignition, Engine::any, {}})->edit));
    const Id feed = plan.points.back().id;
    for (int k = 0; k < 3; ++k) {
        Load l;
        l.id = "motor-" + std::to_string(k), l.name = l.id, l.draw = {DrawKind::current, 8}, l.inrush_A = 60;
        l.live_when.key = Key::ignition;
        plan.loads.push_back(l);
        for (const auto& [id, from, to] : {std::tuple{l.id + "-there", Terminal(feed), pos_of(l.id)},
                                           {l.id + "-back", neg_of(l.id), Terminal("battery-1.neg")}}) {
            yr::Run r;
            r.id = id, r.name = id, r.from = from, r.to = to, r.length_m = 1, r.size = WireSize::awg(8);
            plan.runs.push_back(r);
        }
    }
    const auto f = found(plan, FindingKind::start_up);
    ASSERT_TRUE(f) << "3 x 60 A through a 60 A fuse";
    EXPECT_NEAR(f->value, 180, 1);
    for (Load& l : plan.loads)
        if (l.inrush_A) l.inrush_A = 30;  // 90 A for a moment: a 60 A fuse holds that
    EXPECT_FALSE(found(plan, FindingKind::start_up));
}

TEST(Switching, WhatStaysAliveWithTheMasterOpen) {
    Plan plan = truck();
    const auto f = found(plan, FindingKind::alive_with_master_open, "switch-2");
    ASSERT_TRUE(f);
    EXPECT_GE(f->value, 6) << "the engine's own fuse block hangs before the master";
    // moved behind the master, and the second battery behind one of its own: nothing stays alive
    for (yr::Run& r : plan.runs) {
        if (r.id == "run-4") r.from = "stud";
        if (r.id == "run-11" || r.id == "run-1") {
            Device d;
            d.id = "master-" + r.id, d.name = d.id, d.kind = DeviceKind::switching, d.master = true;
            d.closed_when.switches = {"master"};
            r.devices.push_back(d);
        }
    }
    const auto after = found(plan, FindingKind::alive_with_master_open);
    if (after) EXPECT_LE(after->value, 2) << "at most the alternator and charger stand alone";
}

TEST(Switching, AnAlternatorThatRegulatesDownDefeatsASensingRelay) {
    Plan plan = van();
    ASSERT_TRUE(yr::apply(plan, add_link(plan, Link::sensing_relay)->edit));
    EXPECT_FALSE(found(plan, FindingKind::relay_defeated));
    plan.sources[0].least_V = 12.6;
    EXPECT_TRUE(found(plan, FindingKind::relay_defeated));
}

TEST(Switching, ARelayBetweenItsThresholdsStandsAsItCame) {
    Plan plan = van();
    ASSERT_TRUE(yr::apply(plan, add_link(plan, Link::sensing_relay)->edit));
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.kind == DeviceKind::sensing_relay) d.close_V = 13.3, d.open_V = 11.5;
    const auto f = found(plan, FindingKind::stands_as_it_came);
    ASSERT_TRUE(f);
    EXPECT_EQ(f->severity, Severity::note);
}

TEST(Switching, ACoilThatIsTakenOutLeavesItsContactorToTheHand) {
    Plan plan = truck();
    ASSERT_TRUE(yr::apply(plan, remove_with_runs(plan, "load-12")));
    for (const Device& d : thing(plan.runs, "run-8").devices) EXPECT_TRUE(d.coil.empty());
    ASSERT_TRUE(yr::apply(plan, remove_with_runs(plan, "inverter")));
    EXPECT_EQ(find(plan.loads, "load-25"), nullptr) << "its mains load goes with it";
}

// Rules never break on plans with every device.
TEST(Findings, RandomPlansWithDevicesNeverBreakThem) {
    RandomShape shape;
    shape.devices = true;
    for (std::uint32_t seed = 1; seed <= sweep(12U, 40U); ++seed) {
        const Plan plan = random_plan(seed, shape);
        for (const Finding& f : inspect_with_candidates(plan).findings) {
            EXPECT_FALSE(words::sentence(f, plan).empty());
            EXPECT_TRUE(std::isfinite(f.value));
        }
    }
}

}  // namespace
}  // namespace yr::test
