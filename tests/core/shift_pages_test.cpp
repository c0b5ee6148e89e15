// Pages of a tug, a narrow boat, a saw, a bus, a crane truck and a cart: states by shifts, cables that begin
// at their fuse, what contactors switch, what is said by parts of names.
#include <gtest/gtest.h>

#include <algorithm>

#include "plan/condition.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

bool runs_in(const Plan& plan, const char* load, const char* state) {
    return holds(of_name(plan.loads, load).live_when, of_name(plan.states, state));
}

const yr::Run& run_to(const Plan& plan, const Terminal& end) {
    const auto run =
        std::find_if(plan.runs.begin(), plan.runs.end(), [&](const yr::Run& r) { return r.to == end; });
    static const yr::Run none;
    EXPECT_NE(run, plan.runs.end());
    return run == plan.runs.end() ? none : *run;
}

TEST(ShiftPages, WhatIsNamedDecidesKeyAndEngine) {
    const Plan tug = typed_page(
        "tug\nbattery 110 Ah\nalternator 90 A\nheadlights 2x55 W\nbeacon 25 W on ignition\nheater fan 12 A\n"
        "radio 3 A always\nday shift: engine idling, beacon\nnight shift: headlights, beacon, heater fan\n"
        "parked\n");
    EXPECT_EQ(of_name(tug.states, "day shift").role, StateRole::idling);
    const State& night = of_name(tug.states, "night shift");
    EXPECT_EQ(night.key, Key::ignition) << "headlights follow the key";
    EXPECT_GT(night.rpm, 0);
    EXPECT_TRUE(runs_in(tug, "headlights", "night shift"));
    EXPECT_FALSE(runs_in(tug, "heater fan", "day shift"));
    // named by shifts alone: off where it is parked, in the page's state and in the one that every plan has
    EXPECT_FALSE(runs_in(tug, "heater fan", "parked"));
    EXPECT_FALSE(runs_in(tug, "heater fan", "Key off"));
    EXPECT_TRUE(runs_in(tug, "heater fan", "Idling"));
    EXPECT_TRUE(runs_in(tug, "radio", "Key off")) << "it is said to be always on";
    // whoever says how key and engine are is heard
    const Plan said = typed_page(
        "tug\nbattery 110 Ah\nalternator 90 A\nheadlights 2x55 W\nbeacon 25 W\nwaiting: engine off, key on, "
        "headlights, beacon\nstopped: key off, beacon\n");
    EXPECT_EQ(of_name(said.states, "waiting").rpm, 0);
    EXPECT_EQ(of_name(said.states, "stopped").key, Key::off);
    const Plan day = typed_page("van\nbattery 90 Ah\nlamp 5 W\nday trip: parked 8 h, driving 2 h\nparked\n");
    EXPECT_EQ(day.days.size(), 1u) << "the hours of a day are no state";
}

TEST(ShiftPages, WhatAStoppedStateLeavesOutIsOffWithTheKey) {
    const char* const page =
        "bus\nbattery 200 Ah\nalternator 120 A\nshore charger 40 A\nfridge 4 A\nfreezer fridge 5 A\n"
        "couches 18 A\nrouter 2 A\n";
    const Plan plan = typed_page(std::string(page) +
                                 "donating: couches, fridges, router\novernight: nothing but fridges\n"
                                 "charging: charger on\ndriving: fridges\n");
    for (const char* load : {"fridge", "freezer fridge"})
        EXPECT_TRUE(runs_in(plan, load, "overnight")) << load << " is one of the fridges";
    EXPECT_FALSE(runs_in(plan, "router", "overnight"));
    EXPECT_FALSE(runs_in(plan, "couches", "Key off"));
    EXPECT_FALSE(runs_in(plan, "couches", "charging"));
    const auto& on = of_name(plan.states, "charging").switches;
    EXPECT_EQ(std::count(on.begin(), on.end(), "plugged in"), 1);
    // what is named only where the engine runs nobody leaves on with the key off
    const Plan moving = typed_page(std::string(page) + "town: engine on, couches\nroad: engine on, router\n");
    EXPECT_FALSE(runs_in(moving, "couches", "Key off"));
    EXPECT_TRUE(runs_in(moving, "fridge", "Key off"));
}

TEST(ShiftPages, ThingsByAPartOfTheirName) {
    const Plan truck = typed_page(
        "truck\nbattery 100 Ah\nalternator 160 A\ninverter 2000 W\ntool battery charger 400 W on inverter\n"
        "grinder 1200 W on inverter\nwork lights 40 W\n"
        "working: engine on, work lights, grinder\novernight: nothing but tool charger\n");
    EXPECT_FALSE(of_name(truck.states, "overnight").switches.empty()) << "its inverter is on";
    // what it takes there is told, and the state holds
    const Plan cart = typed_page(
        "cart 48 V\nbattery 48V 225Ah\nmotor controller 300 A on key, 1 m\nbeacon 12 W\nlamp 20 W\n"
        "Working: motor controller at 90A, beacon\nwaiting: lamp\n",
        1);
    EXPECT_TRUE(runs_in(cart, "motor controller", "Working"));
    EXPECT_FALSE(runs_in(cart, "lamp", "Working"));
}

TEST(ShiftPages, ACableThatBeginsAtItsFuse) {
    const Plan tug = typed_page(
        "tug\nbattery 110 Ah\nmain fuse 80A at battery, 16mm2 3 m to dash panel\ndash panel has 8 fuses\n"
        "radio 3 A\nlamp 20 W\n");
    const Point& panel = of_name(tug.points, "dash panel");
    const yr::Run& feed = run_to(tug, Terminal(panel.id));
    EXPECT_EQ(feed.from, pos_of(tug.batteries.at(0).id));
    EXPECT_EQ(feed.size, WireSize::metric(16));
    EXPECT_EQ(feed.length_m, 3);
    EXPECT_EQ(feed.devices.at(0).rating_A, 80);
    for (const char* load : {"radio", "lamp"})
        EXPECT_EQ(supply_run(tug, of_name(tug.loads, load).id)->from, Terminal(panel.id)) << load;
    const Plan crane = typed_page(
        "crane truck\nbattery 100 Ah\n150A breaker at battery then 2 awg 18 ft to rear body panel\n"
        "rear panel 10 circuits\nstrobes 8 A\nground battery to frame 2/0 3ft\n");
    EXPECT_EQ(
        std::count_if(crane.points.begin(), crane.points.end(), [](const Point& p) { return p.feeds_loads; }),
        1)
        << "the rear panel is the rear body panel";
    const yr::Run& breaker = run_to(crane, Terminal(of_name(crane.points, "rear body panel").id));
    EXPECT_EQ(breaker.devices.at(0).fuse, FuseType::breaker_3);
    EXPECT_EQ(breaker.size, WireSize::awg(2));
    const Plan told =
        typed_page("van\nbattery 100 Ah\nradio 3 A\nbattery to main block: 16 mm2 2 m, 60A breaker\n");
    const yr::Run& feed_there = run_to(told, Terminal(of_name(told.points, "main block").id));
    EXPECT_EQ(feed_there.devices.at(0).fuse, FuseType::breaker_3);
    EXPECT_EQ(feed_there.devices.at(0).rating_A, 60);
    // the block that a switch brought gets the name of the one that is said, in whichever order
    for (const char* lines :
         {"battery isolator 300A\nbattery to rear fuse box 1.5 m of 25 mm2, 100A fuse\nRear fuse box 8 way\n",
          "battery isolator 300A\nRear fuse box 8 way\nbattery to rear fuse box 1.5 m of 25 mm2, 100A "
          "fuse\n"}) {
        const Plan van = typed_page(std::string("van\nbattery 100 Ah\n") + lines + "lamp 5 W\n");
        EXPECT_EQ(
            std::count_if(van.points.begin(), van.points.end(), [](const Point& p) { return p.feeds_loads; }),
            1)
            << lines;
        const Terminal block = supply_run(van, of_name(van.loads, "lamp").id)->from;
        const yr::Run& from_battery = run_to(van, block);
        EXPECT_EQ(from_battery.size, WireSize::metric(25)) << lines;
        EXPECT_EQ(from_battery.length_m, 1.5);
        EXPECT_TRUE(std::any_of(from_battery.devices.begin(), from_battery.devices.end(),
                                [](const Device& d) { return d.master; }))
            << lines;
    }
    EXPECT_EQ(of_name(crane.runs, "body strap").size, WireSize::awg(-1)) << "2/0";
}

TEST(ShiftPages, PartsAndCablesAreNoLoads) {
    const Plan boat = typed_page(
        "boat\nHouse bank: 4 x 110Ah AGM\nStart battery 90Ah\nIsolator switch for each bank, 275A\n"
        "Start battery to starter motor 50mm2, 2 m\nInverter 2000W off house bank, 70 mm2, 1 m, 250A fuse\n"
        "Mains through the inverter: kettle 1000W, laptop 90W, washing machine 1800W\nfridge 5 A off the "
        "house bank\nsolenoid for starter\n",
        2);
    EXPECT_EQ(boat.loads.size(), 4u) << "three on mains and the fridge";
    EXPECT_EQ(of_name(boat.loads, "washing machine").inverter, boat.inverters.at(0).id);
    const Id house = of_name(boat.batteries, "House bank").id;
    EXPECT_EQ(run_to(boat, pos_of(boat.inverters.at(0).id)).from, pos_of(house));
    EXPECT_EQ(run_to(boat, pos_of(of_name(boat.loads, "fridge").id)).from, pos_of(house));
    const Plan bus = typed_page(
        "coach 24 V\nstarter batteries 2x 12V 180Ah in series\nalternator 150 A\nconversion battery 24V "
        "lithium "
        "200Ah, dc-dc 40 A\nair conditioner 40 A, 6 m\nfan 3 A\n230V:\ninverter 3000 W\ncoffee machine "
        "1400W\n");
    const Id lived_from = of_name(bus.batteries, "conversion battery").id;
    EXPECT_EQ(run_to(bus, pos_of(of_name(bus.loads, "air conditioner").id)).from, pos_of(lived_from))
        << "the first load as the later ones";
}

TEST(ShiftPages, WhatAContactorSwitchesHasASwitchOfItsOwn) {
    const Plan saw = typed_page(
        "saw trailer\nEngine 25 hp petrol, stator charging 20A\nbattery 45 Ah\n"
        "Up/down motor 45A, via contactor, 6mm2 4m\nFeed motor 24 A, reversing, via two relays, 4mm2, 3 m\n"
        "LED lights 4 x 27W 6m switched\nengine kill relay\n");
    for (const char* load : {"Up/down motor", "Feed motor", "LED lights"})
        EXPECT_EQ(of_name(saw.loads, load).live_when.switches.size(), 1u) << load;
    EXPECT_EQ(of_name(saw.loads, "Up/down motor").draw.value, 45);
    ASSERT_TRUE(source_of_kind(saw, SourceKind::stator));
    EXPECT_EQ(source_of_kind(saw, SourceKind::stator)->rated_A, 20);
    // what the relays are made for is nowhere kept, so it is told
    (void)typed_page("saw\nbattery 45 Ah\nFeed motor 24 A, reversing, via two relays 40A, 4mm2, 3 m\n", 1);
    const Plan cart = typed_page(
        "cart 48V\ntraction pack 8 x 6V 225Ah in series (48 V)\ndc-dc 48 to 12, 30A for 12V things\n"
        "12V fuse panel 6 way\nlamp 5 W\n");
    EXPECT_EQ(of_name(cart.points, "12 V fuse panel").id,
              supply_run(cart, of_name(cart.loads, "lamp").id)->from.owner);
}

// What labels and order books say of draws: sent, at rest, on average, there and back.
TEST(ShiftPages, WhatLabelsSayOfDraws) {
    const Plan boat = typed_page(
        "fishing boat\nbattery 100 Ah\nalternator 90 A\nsonar 1kW transducer, 5A\n"
        "radar 3.5A on, 1A standby\nVHF 6A tx 0.5 rx\nautopilot 8A avg 20A peak\n"
        "bilge pumps 2 x 6A float switches, always live\nreceiver .5A\n"
        "arrow board 10A @ rear, 9m 4mm2 - fuse 15A\n"
        "agitators 3x 25A (each own switch and 40A breaker) 5m\n"
        "heater 50 A, 12m run total there and back\n"
        "lift 120A, 35mm2 7m, 150A fuse, 40 sec per lift, 6 lifts a day\n"
        "motor controller 45A cont 60A peak 6mm2 1m fuse 60A\n");
    EXPECT_EQ(of_name(boat.loads, "sonar").draw.value, 5);
    EXPECT_EQ(of_name(boat.loads, "sonar").draw.kind, DrawKind::current);
    EXPECT_EQ(of_name(boat.loads, "radar").draw.value, 3.5);
    EXPECT_EQ(of_name(boat.loads, "VHF").draw.value, 6);
    EXPECT_LT(of_name(boat.loads, "VHF").duty.value_or(1), 0.3) << "it listens most of the time";
    EXPECT_EQ(of_name(boat.loads, "autopilot").draw.value, 8);
    EXPECT_EQ(of_name(boat.loads, "autopilot").inrush_A, 20);
    EXPECT_EQ(of_name(boat.loads, "bilge pumps").live_when.switches, std::vector<std::string>{"float"});
    EXPECT_EQ(of_name(boat.loads, "receiver").draw.value, 0.5);
    EXPECT_EQ(run_to(boat, pos_of(of_name(boat.loads, "arrow board").id)).length_m, 9);
    EXPECT_EQ(run_to(boat, pos_of(of_name(boat.loads, "heater").id)).length_m, 6) << "one way";
    for (const char* agitator :
         {"agitator 1", "agitator 2", "agitator 3"}) {  // a breaker each: a circuit each
        const yr::Run& feed = run_to(boat, pos_of(of_name(boat.loads, agitator).id));
        EXPECT_EQ(feed.devices.at(0).rating_A, 40) << agitator;
        EXPECT_EQ(feed.devices.at(0).fuse, FuseType::breaker_3);
        EXPECT_EQ(feed.length_m, 5);
        EXPECT_EQ(of_name(boat.loads, agitator).live_when.switches, std::vector<std::string>{agitator});
    }
    const auto quoted = with_line(boat, "\"deck pump\" 5 A, on own switch");
    ASSERT_TRUE(quoted);
    EXPECT_EQ(of_name(quoted->loads, "deck pump").live_when.switches, std::vector<std::string>{"deck pump"});
    EXPECT_EQ(of_name(boat.loads, "lift").on_s, 40);
    EXPECT_NEAR(of_name(boat.loads, "lift").duty.value_or(1), 240.0 / 86400, 1e-6);
    EXPECT_EQ(of_name(boat.loads, "motor controller").inrush_A, 60);
    EXPECT_EQ(run_to(boat, pos_of(of_name(boat.loads, "motor controller").id)).size, WireSize::metric(6));
}

TEST(ShiftPages, WhatLabelsSayOfSupplies) {
    const Plan cabin = typed_page(
        "cabin on a trailer, 24 V\nBatteries: 8 x LiFePO4 cells 280Ah (25.6V)\nBMS 200A\n"
        "Solar 4 x 410W, charge controller 60A\nInverter 3000VA 24V, 35mm2 1.5m, 200A class T fuse\n"
        "24V circuits: none\n48/12 buck 10A\nlamp 5 W\n");
    ASSERT_EQ(cabin.batteries.size(), 1u);
    EXPECT_EQ(cabin.batteries[0].capacity_Ah, 280) << "cells in a row are one battery";
    EXPECT_EQ(cabin.batteries[0].cuts_at_A, 200);
    EXPECT_EQ(source_of_kind(cabin, SourceKind::solar)->rated_A, 60);
    EXPECT_EQ(run_to(cabin, pos_of(cabin.inverters.at(0).id)).devices.at(0).rating_A, 200);
    const Plan van = typed_page(
        "library van\nMain battery 100Ah\nLeisure 2x 115Ah wired parallel\n"
        "Split charge relay 140A, 16mm2, 3m, 2 x 80A fuses\n"
        "Hook up 230V, 20A charger for leisure batteries\nengine battery master switch in cab\n"
        "house to helm switch panel 35 mm2, 6 m, 100A breaker\nlamp 5 W\n");
    ASSERT_EQ(van.batteries.size(), 2u);
    EXPECT_EQ(van.batteries[1].capacity_Ah, 230);
    EXPECT_EQ(source_of_kind(van, SourceKind::shore)->charges, van.batteries[1].id);
    EXPECT_TRUE(std::any_of(van.runs.begin(), van.runs.end(), [](const yr::Run& r) {
        return std::count_if(r.devices.begin(), r.devices.end(),
                             [](const Device& d) { return d.rating_A == 80; }) == 2;
    })) << "a fuse of 80 A at both ends of what joins them";
    const yr::Run& feed = run_to(van, Terminal(of_name(van.points, "helm switch panel").id));
    EXPECT_EQ(feed.from, pos_of(van.batteries[1].id));
    EXPECT_EQ(feed.length_m, 6);
    const Plan rests =
        typed_page("van\nbattery 100 Ah\ninverter 1500 W, 12 W standby\nradar 3 A, 1 A standby\n");
    EXPECT_EQ(of_name(rests.loads, "radar").draw.value, 3);
    EXPECT_EQ(rests.inverters.at(0).standby_W, 12) << "of what rests it is kept";
    EXPECT_EQ(read_statement(rests, "dash - radar").kind, StatementKind::load) << "no state";
    const Plan stage = typed_page(
        "stage trailer no engine\n4 x 6V 225Ah (2 series 2 parallel)\nConverter/charger 120V 75A\n"
        "main breaker 100A to DC panel 4awg 12ft\nDC panel: wash lights 300 W 20ft, receiver .5A\n"
        "setup - wash lights, receiver\nshow: wash lights, receiver (4 hrs)\nstorage - all off\n");
    EXPECT_EQ(stage.batteries.at(0).capacity_Ah, 450);
    EXPECT_EQ(source_of_kind(stage, SourceKind::shore)->rated_A, 75);
    EXPECT_EQ(of_name(stage.states, "show").lasts_s, 4 * 3600);
    EXPECT_FALSE(runs_in(stage, "wash lights", "storage"));
    EXPECT_TRUE(runs_in(stage, "wash lights", "setup"));
    EXPECT_EQ(supply_run(stage, of_name(stage.loads, "receiver").id)->from,
              Terminal(of_name(stage.points, "DC panel").id));
}

}  // namespace
}  // namespace yr::test
