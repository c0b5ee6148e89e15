// Findings about boxes and control, assignment and rails on whole plans: each made to appear and to go.
#include <gtest/gtest.h>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <map>
#include <set>

#include "control/assign.h"
#include "control/boxes.h"
#include "control/circuit.h"
#include "control/live_table.h"
#include "control/place_on.h"
#include "control/rails.h"
#include "inspect/sneak.h"
#include "plan/additions.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "plan/variant.h"
#include "support/findings.h"
#include "support/random_plan.h"
#include "words/control_words.h"

namespace yr::test {
namespace {

// A van with one 8-channel box that is live at accessory, and loads typed onto it.
Plan boxed(std::initializer_list<const char*> lines) {
    Plan plan = empty_plan("van");
    EXPECT_TRUE(yr::apply(plan, add_alternator(plan)->edit));
    NewBox ask;
    for (const BoxEntry& e : shipped_library().boxes)
        if (e.box.channels.size() == 8) ask.box = e.box;
    ask.box.name = "box";
    ask.trigger.key = Key::accessory;
    ask.length_m = 2;
    EXPECT_TRUE(yr::apply(plan, add_box(plan, ask)->edit));
    for (const char* line : lines) {
        const auto made = make_circuit(plan, read_line(plan, line));
        EXPECT_TRUE(made) << line << ": " << (made ? "" : words::sentence(made.error()));
        if (made) EXPECT_TRUE(yr::apply(plan, made->edit));
    }
    return plan;
}

void mend(Plan& plan, const std::optional<Finding>& f) {
    ASSERT_TRUE(f && f->mend) << (f ? words::sentence(*f, plan) : "no finding");
    EXPECT_FALSE(words::mend_label(*f, plan).empty());
    EXPECT_FALSE(words::mend_name(*f, plan).empty());
    ASSERT_TRUE(yr::apply(plan, f->mend->edit));
}

TEST(Boxes, ALineTakesTheSmallestChannelThatFits) {
    const Plan plan = boxed({"lamp 5 A on accessory from box", "pump 15 A on accessory from box"});
    EXPECT_EQ(supply_run(plan, plan.loads[0].id)->channel, 3) << "10 A before 20 A";
    EXPECT_EQ(supply_run(plan, plan.loads[1].id)->channel, 1);
    EXPECT_FALSE(plan.loads[0].own_switch);
    EXPECT_EQ(channel_driver(plan, *supply_run(plan, plan.loads[0].id))->closed_when.key, Key::accessory);
}

TEST(Boxes, GroupsThatShareALimit) {
    Plan plan =
        boxed({"one 18 A on accessory from box channel 1", "two 19 A on accessory from box channel 2"});
    const auto f = found(plan, FindingKind::group_over);
    ASSERT_TRUE(f);
    EXPECT_EQ(f->value, 37);
    EXPECT_EQ(f->limit, 35);
    EXPECT_EQ(f->mend->kind, MendKind::move_channel);
    mend(plan, f);
    EXPECT_FALSE(found(plan, FindingKind::group_over));
    // what is never on together does not add up
    Plan apart = boxed({"one 18 A on accessory from box channel 1"});
    const auto crank = make_circuit(apart, read_line(apart, "two 19 A while cranking from box channel 2"));
    ASSERT_TRUE(crank);
    ASSERT_TRUE(yr::apply(apart, crank->edit));
    EXPECT_FALSE(found(apart, FindingKind::group_over)) << "accessory drops out while the starter turns";
}

TEST(Boxes, ChannelRatingAndStart) {
    Plan plan = boxed({"heater 14 A on accessory from box channel 3"});
    auto f = found(plan, FindingKind::channel_over);
    ASSERT_TRUE(f);
    EXPECT_EQ(f->severity, Severity::stop);
    mend(plan, f);
    EXPECT_FALSE(found(plan, FindingKind::channel_over));
    plan = boxed({"fan 9 A start 31 A on accessory from box channel 3"});
    f = found(plan, FindingKind::channel_start);
    ASSERT_TRUE(f);
    EXPECT_EQ(f->limit, 20);
    mend(plan, f);
    EXPECT_FALSE(found(plan, FindingKind::channel_start));
}

TEST(Boxes, MainBelowWhatCanBeOnTogether) {
    Plan plan = boxed({"a 18 A on accessory from box channel 1", "b 9 A on accessory from box channel 3",
                       "c 18 A on accessory from box channel 5", "d 9 A on accessory from box channel 7"});
    EXPECT_FALSE(found(plan, FindingKind::box_main_over)) << "54 of 60 A";
    for (Point& p : plan.points)
        if (p.kind == PointKind::box) p.main_A = 50;
    EXPECT_TRUE(found(plan, FindingKind::box_main_over));
    Plan apart = plan;
    for (Load& l : apart.loads)
        if (l.name == "a") l.live_when.key = Key::crank;
    EXPECT_FALSE(found(apart, FindingKind::box_main_over));
}

TEST(Boxes, AConstantLoadOnABoxThatForgets) {
    Plan plan = boxed({"logger 1 A always from box channel 8"});
    EXPECT_TRUE(found(plan, FindingKind::forgets));
    EXPECT_TRUE(found(plan, FindingKind::constant_on_key_rail)) << "and the box dies with the key";
    for (Point& p : plan.points) p.remembers = true;
    EXPECT_FALSE(found(plan, FindingKind::forgets));
}

TEST(Boxes, SeveralLoadsBehindOneChannelAddUp) {
    Plan plan = boxed({"a 6 A on accessory from box channel 3"});
    Point splice{"splice", "cab splice", PointKind::bus, {}, {}, {}, "battery-1.neg", true};
    plan.points.push_back(splice);
    yr::Run r = *supply_run(plan, plan.loads[0].id);
    r.id = "run-splice", r.to = "splice", r.channel = 4;
    for (Device& d : r.devices) d.id += "-splice";
    plan.runs.push_back(r);
    for (const char* line : {"b 6 A on accessory from cab splice", "c 5 A on accessory from cab splice"}) {
        const auto made = make_circuit(plan, read_line(plan, line));
        ASSERT_TRUE(made);
        ASSERT_TRUE(yr::apply(plan, made->edit));
    }
    const auto f = found(plan, FindingKind::channel_over, "splice");
    ASSERT_TRUE(f);
    EXPECT_EQ(f->value, 11);
    EXPECT_EQ(f->limit, 10);
}

TEST(Assign, InvertersAndChargersTakeTheirPartOfATrunk) {
    Plan plan = truck();
    const Assignment with = assign_loads(plan);
    ASSERT_TRUE(with.feasible);
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.name == "main fuse") d.rating_A = 165;  // loads alone 151 A, the charger's 26 A on top
    const Assignment tight = assign_loads(plan);
    EXPECT_FALSE(tight.feasible);
    const auto raise = std::find_if(tight.remedies.begin(), tight.remedies.end(), [](const Remedy& r) {
        return r.kind == RemedyKind::raise_limit && r.from == 165;
    });
    ASSERT_NE(raise, tight.remedies.end());
    EXPECT_GT(raise->to, 165);
    EXPECT_LE(raise->to, 200);
}

TEST(Boxes, AChannelTakesOneRun) {
    Plan plan = boxed({"a 5 A on accessory from box channel 3"});
    plan.loads.push_back(plan.loads[0]);
    plan.loads.back().id = "load-x";
    yr::Run r = *supply_run(plan, plan.loads[0].id);
    r.id = "run-x", r.to = "load-x.pos", r.devices.clear();
    plan.runs.push_back(r);
    const auto errors = validate(plan);
    ASSERT_FALSE(errors.empty());
    EXPECT_EQ(errors.front().code, ErrorCode::duplicate_id);
    EXPECT_NE(words::sentence(errors.front()).find("channel"), std::string::npos);
}

TEST(Boxes, StandbyIsDrawnAndNamedAmongTheCulprits) {
    Plan plan = boxed({"logger 0.05 A always from box channel 8"});
    for (Point& p : plan.points)
        if (p.kind == PointKind::box) p.standby_W = 6;
    for (yr::Run& r : plan.runs)
        std::erase_if(r.devices, [](const Device& d) { return d.kind == DeviceKind::switching; });
    const auto f = found(plan, FindingKind::parked_draw);
    ASSERT_TRUE(f);
    EXPECT_NEAR(f->value, 0.47, 0.02) << "6 W at 12.6 V";
    EXPECT_EQ(name_of(plan, f->id), "box");
}

TEST(Control, ATappedFusesPosition) {
    Plan plan = truck();
    yr::Run& tap = thing(plan.runs, supply_run(plan, "load-16")->id);
    tap.tap_of = supply_run(plan, "load-15")->devices[0].id;  // 2 A, the tracker's
    EXPECT_FALSE(found(plan, FindingKind::tap_over));
    thing(plan.loads, "load-16").draw.value = 1.95;
    const auto f = found(plan, FindingKind::tap_over);
    ASSERT_TRUE(f);
    EXPECT_EQ(f->limit, 2);
    EXPECT_NEAR(f->value, 2.07, 0.01);
}

TEST(Control, ContactsOverTheirRating) {
    Plan plan = truck();
    EXPECT_FALSE(found(plan, FindingKind::contact_over));
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.name == "hoist contactor") d.contact_A = 60;
    EXPECT_TRUE(found(plan, FindingKind::contact_over));
}

TEST(Control, ACoilBesideElectronicsWantsItsDiode) {
    Plan plan = truck();
    const auto f = found(plan, FindingKind::coil_kick, "load-12");
    mend(plan, f);
    EXPECT_FALSE(found(plan, FindingKind::coil_kick));
}

TEST(Control, ASignalThatComesAfterItsSupply) {
    Plan plan = truck();
    thing(plan.loads, "load-3").signal_after_s = 2;
    const auto f = found(plan, FindingKind::signal_missing, "load-3");
    mend(plan, f);
    EXPECT_FALSE(found(plan, FindingKind::signal_missing));
    const auto signal = signal_of(plan, thing(plan.loads, "load-3"));
    ASSERT_TRUE(signal);
    EXPECT_EQ(signal->load->live_when.delay_s, 2.0);
    const auto k = static_cast<std::size_t>(signal->load - plan.loads.data());
    EXPECT_EQ(solve(plan, *find_state(plan, "Driving")).point.loads[k].status, LoadStatus::on);
    EXPECT_NE(solve(plan, *find_state(plan, "Accessory")).point.loads[k].status, LoadStatus::on);
}

// However its delay is made: by its own condition, by the contact in its supply, by a timer relay there, by
// that relay's coil.
TEST(Control, ASignalThatComesTooEarlyIsToldHoweverItIsDelayed) {
    Plan with = truck();
    thing(with.loads, "load-3").signal_after_s = 3;
    mend(with, found(with, FindingKind::signal_missing, "load-3"));
    const Id signal = signal_of(with, thing(with.loads, "load-3"))->load->id;
    for (int way = 0; way < 4; ++way) {
        Plan plan = with;
        Load& l = thing(plan.loads, signal);
        yr::Run& supply = thing(plan.runs, supply_run(plan, signal)->id);
        Device relay;
        relay.id = "timer", relay.name = "Timer", relay.kind = DeviceKind::switching, relay.rating_A = 10;
        if (way == 0) l.live_when.delay_s = 1;
        if (way > 0) l.live_when = Condition{}, l.own_switch = false;
        if (way == 1) relay.closed_when.circuits = {"load-3"}, relay.closed_when.delay_s = 1;
        if (way == 2) relay.closed_when.circuits = {"load-3"}, relay.delay_s = 1;
        if (way == 3) {
            Load coil;
            coil.id = "coil", coil.name = "Timer coil", coil.draw = {DrawKind::current, 0.15};
            coil.live_when.circuits = {"load-3"}, coil.live_when.delay_s = 1;
            yr::Run feed = supply, back = thing(plan.runs, "run-1");
            for (const yr::Run& r : plan.runs)
                if (r.from == neg_of(signal)) back = r;
            feed.id = "coil-feed", feed.to = pos_of("coil");
            for (Device& d : feed.devices) d.id += "-coil";
            back.id = "coil-back", back.from = neg_of("coil");
            plan.loads.push_back(coil);
            plan.runs.push_back(feed);
            plan.runs.push_back(back);
            relay.coil = "coil";
        }
        if (way > 0) thing(plan.runs, supply_run(plan, signal)->id).devices.push_back(relay);
        const auto f = found(plan, FindingKind::signal_early, "load-3");
        ASSERT_TRUE(f) << way;
        EXPECT_FALSE(found(plan, FindingKind::signal_missing)) << way;
        EXPECT_DOUBLE_EQ(f->value, 1) << way;
        mend(plan, f);
        EXPECT_FALSE(found(plan, FindingKind::signal_early)) << way;
        EXPECT_DOUBLE_EQ(signal_of(plan, thing(plan.loads, "load-3"))->after_s, 3) << way;
    }
}

TEST(Control, ASensitiveLoadOnSharedMetal) {
    Plan plan = truck();
    EXPECT_FALSE(found(plan, FindingKind::shares_ground, "load-8")) << "its return goes to the cab bus";
    thing(plan.loads, "load-21").own_ground = true;  // the radar, on the bed's ground beside the hoist
    const auto f = found(plan, FindingKind::shares_ground, "load-21");
    mend(plan, f);
    EXPECT_EQ(name_of(plan, f->other), "davit hoist") << "the heaviest that shares it";
    EXPECT_FALSE(found(plan, FindingKind::shares_ground, "load-21"));
}

TEST(Control, ALoadWithoutASwitchRunsWithItsFeed) {
    Plan plan = truck();
    EXPECT_FALSE(found(plan, FindingKind::load_alive));
    thing(plan.loads, "load-22").live_when.key = Key::crank;  // the camera runs whenever the rear box is live
    const auto f = found(plan, FindingKind::load_alive, "load-22");
    ASSERT_TRUE(f);
    thing(plan.loads, "load-22").own_switch = true;
    EXPECT_FALSE(found(plan, FindingKind::load_alive, "load-22"));
}

TEST(Control, KeyLoadsOnAConstantFeed) {
    const auto f = found(truck(), FindingKind::key_on_constant, "engine-block");
    ASSERT_TRUE(f);
    EXPECT_EQ(f->value, 5);
    Plan plan = boxed({"lamp 5 A on accessory from box"});
    EXPECT_FALSE(found(plan, FindingKind::key_on_constant)) << "a channel follows the key for it";
}

TEST(Control, StartsOneAfterAnother) {
    Plan plan = boxed({"a 10 A start 55 A on accessory from battery bus",
                       "b 10 A start 54 A on accessory from battery bus",
                       "c 10 A start 53 A on accessory from battery bus"});
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.name == "main fuse") d.rating_A = 60;
    const auto f = found(plan, FindingKind::start_up);
    ASSERT_TRUE(f) << "162 A at once on 60 A";
    EXPECT_EQ(f->mend->kind, MendKind::stagger);
    mend(plan, f);
    EXPECT_FALSE(found(plan, FindingKind::start_up));
    std::vector<double> delays;
    for (const Load& l : plan.loads) delays.push_back(l.live_when.delay_s.value_or(0));
    EXPECT_EQ(delays, (std::vector<double>{0, 1, 2})) << "the largest first";
}

TEST(Assign, KeepsEveryLimitOfTheTruckAndLessCopper) {
    Plan plan = truck();
    const Assignment a = assign_loads(plan);
    ASSERT_TRUE(a.feasible) << words::conflict_text(a, plan);
    EXPECT_LE(a.amp_metres, a.amp_metres_before + 1e-9);
    ASSERT_TRUE(yr::apply(plan, a.edit));
    for (const FindingKind k :
         {FindingKind::channel_over, FindingKind::channel_start, FindingKind::group_over,
          FindingKind::box_main_over, FindingKind::constant_on_key_rail})
        EXPECT_FALSE(found(plan, k));
    for (const PlacedLoad& p : a.placed) {
        EXPECT_EQ(supply_run(plan, p.load)->from, p.feed);
        EXPECT_EQ(supply_run(plan, p.load)->channel, p.channel);
        EXPECT_FALSE(words::reasons(p, plan).front().empty());
    }
    const Assignment again = assign_loads(plan);
    EXPECT_TRUE(std::none_of(again.placed.begin(), again.placed.end(), [](const PlacedLoad& p) {
        return p.moved;
    })) << "what is best stays";
}

TEST(Assign, APinStays) {
    Plan plan = truck();
    ASSERT_TRUE(yr::apply(plan, *place_on(plan, "load-22", "rear-box", 8, true)));
    const Assignment a = assign_loads(plan);
    ASSERT_TRUE(a.feasible);
    for (const PlacedLoad& p : a.placed)
        if (p.load == "load-22") EXPECT_EQ(p.channel, 8) << "20 A for half an amp, but put there by hand";
}

TEST(Assign, TogetherAndApart) {
    Plan plan = truck();
    thing(plan.loads, "load-10").together = thing(plan.loads, "load-13").together = "screens";
    Assignment a = assign_loads(plan);
    ASSERT_TRUE(a.feasible);
    std::map<Id, Id> feed;
    for (const PlacedLoad& p : a.placed) feed[p.load] = p.feed;
    EXPECT_EQ(feed["load-10"], feed["load-13"]);
    for (const char* id : {"load-21", "load-22"}) thing(plan.loads, id).apart = "cameras";
    a = assign_loads(plan);
    feed.clear();
    for (const PlacedLoad& p : a.placed) feed[p.load] = p.feed;
    if (a.feasible)
        EXPECT_NE(feed["load-21"], feed["load-22"]);
    else
        EXPECT_EQ(a.conflict.size(), 2U) << "or it says that just these two cannot be";
}

TEST(Assign, SaysWhyItCannotBeAndWhatWouldHelp) {
    Plan plan = boxed({"a 18 A on accessory from box channel 1", "b 18 A on accessory from box channel 2",
                       "c 18 A on accessory from box channel 5", "d 18 A on accessory from box channel 6"});
    const Assignment a = assign_loads(plan);
    ASSERT_FALSE(a.feasible) << "72 A on a main of 60 A";
    EXPECT_GE(a.conflict.size(), 2U);
    EXPECT_NE(words::conflict_text(a, plan).find(" and "), std::string::npos);
    ASSERT_FALSE(a.remedies.empty());
    for (const Remedy& r : a.remedies) EXPECT_FALSE(words::sentence(r, plan).empty());
    const auto box = std::find_if(a.remedies.begin(), a.remedies.end(),
                                  [](const Remedy& r) { return r.kind == RemedyKind::another_box; });
    ASSERT_NE(box, a.remedies.end());
    EXPECT_EQ(box->to, 4) << "the smallest box that helps";
}

TEST(Assign, WhatIsNotProvedIsNotTold) {
    const Plan plan = boxed({"a 18 A on accessory from box channel 1"});
    CheckedChannels checked;
    checked.assignment.known = false;
    EXPECT_NE(words::conflict_text(checked, plan).find("in time"), std::string::npos);
    Finding worse;
    worse.kind = FindingKind::channel_over;
    worse.id = plan.loads.front().id;
    worse.other = find(plan.runs, std::string_view(supply_run(plan, worse.id)->id))->from.owner;
    worse.value = 30, worse.limit = 20;
    checked.against.push_back(worse);
    const std::string text = words::conflict_text(checked, plan);
    EXPECT_NE(text.find("makes something else worse"), std::string::npos) << text;
    EXPECT_EQ(text.find("no load that moves can help"), std::string::npos) << text;
}

TEST(Rails, GroupAreTheAnswersThatLoadsGive) {
    const RailGrouping g = group_rails(truck());
    EXPECT_EQ(g.groups.size(), 5U);
    EXPECT_EQ(g.relays, 4) << "the hoist alone is not to run while the starter turns";
    std::size_t loads = 0;
    for (const RailGroup& a : g.groups) {
        loads += a.loads.size();
        for (const RailGroup& b : g.groups)
            EXPECT_EQ(&a == &b, same_when(a.when, b.when)) << "no two could be one";
    }
    EXPECT_EQ(loads, 24U) << "all but the starter and the pump on mains";
}

TEST(Rails, AMissingOneIsMadeAndItsLoadsMove) {
    Plan plan = truck();
    const RailGrouping g = group_rails(plan);
    const auto running = std::find_if(g.groups.begin(), g.groups.end(),
                                      [](const RailGroup& r) { return r.when.engine == Engine::running; });
    ASSERT_NE(running, g.groups.end());
    EXPECT_TRUE(running->feeds.empty());
    const auto edit = make_rail(plan, *running);
    ASSERT_TRUE(edit);
    ASSERT_TRUE(yr::apply(plan, *edit));
    for (const RailGroup& r : group_rails(plan).groups)
        if (r.when.engine == Engine::running) {
            EXPECT_EQ(r.feeds.size(), 1U);
            EXPECT_TRUE(r.astray.empty());
        }
}

TEST(LiveTable, TellsExpectedFromActual) {
    Plan plan = truck();
    for (const LiveRow& r : live_table(plan)) {
        if (r.load == "load-9") {  // the logger: always wanted, its box dies with the key
            EXPECT_TRUE(r.wrong());
            EXPECT_TRUE(r.at[0].wanted && !r.at[0].alive);
            EXPECT_TRUE(r.at[1].alive);
        }
        if (r.load == "load-17") {  // scene lights: ignition and their switch
            EXPECT_FALSE(r.wrong());
            EXPECT_TRUE(r.at[2].alive && !r.at[2].alive_off && !r.at[1].alive);
        }
    }
}

TEST(Sneak, TheTrucksOwnAndTheLastFittersWires) {
    const Plan plan = truck();
    const SneakSearch own = search_sneaks(with_variant(plan, {}));
    ASSERT_EQ(own.found.size(), 1U);
    EXPECT_EQ(own.found[0].load, "load-9");
    EXPECT_EQ(own.found[0].kind, SneakKind::dead);
    ASSERT_FALSE(own.found[0].mends.empty());
}

TEST(Sneak, ASearchThatWasStoppedSaysSo) {
    std::atomic<bool> cancel = true;
    SneakAsk ask;
    ask.cancel = &cancel;
    const SneakSearch cut = search_sneaks(truck(), ask);
    EXPECT_FALSE(cut.complete);
    EXPECT_EQ(words::search_text(cut).find("Stopped on the way through"), 0U);
    cancel = false;
    EXPECT_EQ(words::search_text(search_sneaks(truck(), ask)).find("Every one of"), 0U);
}

TEST(Sneak, EveryMendClearsItsPath) {
    const Plan plan = with_variant(truck(), "variant-wake");
    const SneakSearch s = search_sneaks(plan);
    EXPECT_TRUE(s.complete);
    EXPECT_GT(s.found.size(), 5U);
    int mends = 0;
    for (const SneakPath& p : s.found) {
        EXPECT_NE(words::sentence(p, plan).find(name_of(plan, p.through)), std::string::npos);
        if (p.kind != SneakKind::dead) EXPECT_FALSE(words::path_text(p, plan).empty());
        for (const SneakMend& m : p.mends) {
            Plan mended = plan;
            ASSERT_TRUE(yr::apply(mended, m.edit));
            EXPECT_FALSE(words::mend_label(m, plan).empty());
            SneakAsk ask;
            ask.loads = {p.load};
            ask.with_mends = false;
            EXPECT_TRUE(search_sneaks(mended, ask).found.empty()) << words::mend_label(m, plan);
            ++mends;
        }
    }
    EXPECT_GT(mends, 5);
}

TEST(Sneak, ATwelveVoltLoadIsNeverHungOnATractionRail) {
    const Plan cart = *load_plan(demo_path(kDemos[2]));
    for (const SneakPath& p : search_sneaks(cart).found)
        for (const SneakMend& m : p.mends) EXPECT_NE(name_of(cart, m.feed), "traction bus 48 V");
    Id bus;
    for (const Point& p : cart.points)
        if (p.name == "traction bus 48 V") bus = p.id;
    ASSERT_FALSE(bus.empty());
    const auto moved = place_on(cart, cart.loads.back().id, bus, 0, false);
    ASSERT_FALSE(moved);
    EXPECT_NE(words::sentence(moved.error()).find("48 V"), std::string::npos);
}

TEST(Sneak, CanBeStopped) {
    const std::atomic<bool> stop{true};
    SneakAsk ask;
    ask.cancel = &stop;
    EXPECT_FALSE(search_sneaks(truck(), ask).complete);
}

// A relay whose coil hangs on its own contact stays in once it was in: the classic hold through a back path.
TEST(Sneak, ACoilOnItsOwnContactHoldsItself) {
    Plan plan = boxed({"pump 5 A on switch run from battery bus"});
    Load coil;
    coil.id = "coil", coil.name = "pump relay coil";
    coil.draw = {DrawKind::resistance, 80};
    coil.live_when.switches = {"run"};
    coil.own_switch = false;
    plan.loads.push_back(coil);
    yr::Run& feed = thing(plan.runs, supply_run(plan, plan.loads[0].id)->id);
    plan.loads[0].own_switch = false;
    Device contact;
    contact.id = "contact", contact.name = "pump relay", contact.kind = DeviceKind::switching,
    contact.coil = "coil";
    feed.devices.push_back(contact);
    const auto wire = [&](const Id& id, const Terminal& a, const Terminal& b, const char* with) {
        yr::Run r;
        r.id = r.name = id, r.from = a, r.to = b, r.resistance_ohm = 0.01;
        if (*with) {
            Device d;
            d.id = "button", d.name = "button", d.kind = DeviceKind::switching;
            d.closed_when.switches = {with};
            r.devices.push_back(d);
        }
        plan.runs.push_back(r);
    };
    wire("start wire", "point-bus", "coil.pos", "run");
    wire("coil return", "coil.neg", "battery-1.neg", "");
    SneakAsk ask;
    ask.loads = {"coil", plan.loads[0].id};
    EXPECT_TRUE(search_sneaks(plan, ask).found.empty()) << "a button that must be held";
    wire("holding wire", pos_of(plan.loads[0].id), "coil.pos", "");
    const SneakSearch held = search_sneaks(plan, ask);
    ASSERT_FALSE(held.found.empty());
    EXPECT_TRUE(std::any_of(held.found.begin(), held.found.end(), [](const SneakPath& p) {
        return p.kind == SneakKind::alive &&
               std::count(p.state.closed.begin(), p.state.closed.end(), "contact");
    })) << "it is told with the relay that is held in";
}

TEST(Sneak, TwentySwitchesAreSearchedWhole) {
    Plan plan = empty_plan("many");
    for (int k = 0; k < 20; ++k) {
        const std::string n = std::to_string(k);
        const auto made = make_circuit(plan, read_line(plan, "lamp" + n + " 20 W on switch s" + n));
        ASSERT_TRUE(made);
        ASSERT_TRUE(yr::apply(plan, made->edit));
        Load& l = plan.loads.back();
        l.own_switch = false;
        Device d;
        d.id = "dev" + n, d.name = d.id, d.kind = DeviceKind::switching;
        d.closed_when.switches = {"s" + n};
        thing(plan.runs, supply_run(plan, l.id)->id).devices.push_back(d);
    }
    EXPECT_TRUE(search_sneaks(plan).found.empty());
    yr::Run wire;  // lamp 3 and lamp 17 tied together behind their switches
    wire.id = wire.name = "tie", wire.from = pos_of(plan.loads[3].id), wire.to = pos_of(plan.loads[17].id);
    wire.resistance_ohm = 0.01;
    plan.runs.push_back(wire);
    const SneakSearch s = search_sneaks(plan);
    EXPECT_EQ(s.switches, 20);
    EXPECT_NEAR(std::log2(s.combinations / s.positions), 20 + s.fuses, 1e-9);
    std::set<Id> loads;
    for (const SneakPath& p : s.found) loads.insert(p.load);
    EXPECT_EQ(loads, (std::set<Id>{plan.loads[3].id, plan.loads[17].id}));
}

}  // namespace
}  // namespace yr::test
