// Pages in everyday words: counts behind their things, brackets that say a fuse's draw, whole sentences,
// tables with a head, states with all but something. What nobody could take for a load is none.
#include <gtest/gtest.h>

#include <algorithm>

#include "inspect/findings.h"
#include "plan/condition.h"
#include "plan/names.h"
#include "plan/rail_volts.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

TEST(EverydayPages, AVanForGrooming) {
    const Plan p = typed_page(
        "dog groomer's van, 12V\n"
        "Engine: 150A alternator, 95Ah starter batt under driver seat\n"
        "Leisure: 2 x 200Ah LiFePO4 in parallel behind bulkhead, 200A BMS each\n"
        "B2B charger 60A between starter and leisure, 3m of 25mm2 each way\n"
        "2500W pure sine inverter, 0.6m from leisure, 70mm2\n"
        " - hair dryer 1800W mains, about 4 hrs a day total\n"
        "Water pump 12V 7A, runs maybe 20 min per hour while bathing\n"
        "Water heater diesel, 12V 2A running, glow 10A for 2 min at start\n"
        "LED strips 6 of them 12W each\n"
        "Working: engine off, everything on\n");
    ASSERT_EQ(p.batteries.size(), 2u);
    EXPECT_EQ(p.batteries[0].capacity_Ah, 95);
    EXPECT_EQ(p.batteries[1].capacity_Ah, 400);
    ASSERT_EQ(p.inverters.size(), 1u) << "an inverter is no load";
    EXPECT_EQ(of_name(p.loads, "hair dryer").inverter, p.inverters[0].id);
    ASSERT_TRUE(source_of_kind(p, SourceKind::converter));
    EXPECT_EQ(source_of_kind(p, SourceKind::converter)->charges, p.batteries[1].id);
    EXPECT_EQ(source_of_kind(p, SourceKind::alternator)->rated_A, 150);
    EXPECT_EQ(of_name(p.loads, "LED strips").count, 6);
    EXPECT_EQ(of_name(p.loads, "Water heater diesel").draw.value, 2);
    EXPECT_EQ(of_name(p.loads, "Water heater diesel").inrush_A, 10);
    EXPECT_TRUE(of_name(p.loads, "Water heater diesel").live_when == Condition{})
        << "its running is no engine's";
    const State& working = of_name(p.states, "Working");
    EXPECT_EQ(working.rpm, 0);
    for (const char* on : {"bathing", "inverter"})
        EXPECT_EQ(std::count(working.switches.begin(), working.switches.end(), on), 1) << on;
}

TEST(EverydayPages, AListOfFuses) {
    const Plan p = typed_page(
        "Campervan conversion - wiring list\n"
        "battery: 230Ah lithium under passenger seat\n"
        "fuse 200A at battery +\n"
        "busbar pos and neg\n"
        "shunt on the negative\n"
        "DC-DC 30A from vehicle battery (cable 6m, 16mm2, 40A fuse each end)\n"
        "fusebox 12 way:\n"
        " 1 lights 5A\n 2 fridge 15A (fridge draws 4.5A, cycles 40%)\n 3 heater 15A (8A at start 1.5A "
        "running)\n"
        " 4 usb front 10A\n 5 stereo 10A\n"
        "inverter 1200W direct from busbar w/ 150A fuse\n");
    ASSERT_EQ(p.batteries.size(), 2u) << "the one that it charges from is the vehicle's";
    EXPECT_FALSE(p.batteries[0].capacity_Ah);
    EXPECT_EQ(p.batteries[1].capacity_Ah, 230);
    const Source* charger = source_of_kind(p, SourceKind::converter);
    ASSERT_TRUE(charger);
    EXPECT_EQ(charger->charges, p.batteries[1].id);
    EXPECT_EQ(of_name(p.loads, "fridge").draw.value, 4.5) << "its fuse is no draw";
    EXPECT_NEAR(of_name(p.loads, "fridge").duty.value_or(1), 0.4, 1e-9);
    EXPECT_EQ(of_name(p.loads, "heater").draw.value, 1.5);
    EXPECT_EQ(of_name(p.loads, "heater").inrush_A, 8);
    EXPECT_EQ(p.loads.size(), 5u);
    bool main_fuse = false, own_fuse = false;
    for (const yr::Run& r : p.runs)
        for (const Device& d : r.devices) {
            main_fuse = main_fuse || (d.rating_A == 200 && r.from == pos_of(p.batteries[1].id));
            own_fuse = own_fuse || (d.rating_A == 150 && r.to == pos_of(p.inverters.at(0).id));
        }
    EXPECT_TRUE(main_fuse);
    EXPECT_TRUE(own_fuse);
    EXPECT_TRUE(std::any_of(p.points.begin(), p.points.end(),
                            [](const Point& b) { return b.name == "negative bus bar" && !b.feeds_loads; }));
}

// What is asked for behind such a page, typed as it is asked for, is the vehicle's battery.
TEST(EverydayPages, TheVehiclesBatteryIsSaidLater) {
    Plan p = typed_page("camper\nbattery 230 Ah lithium\ndc-dc 30 A from vehicle battery\nlamp 2 A\n");
    ASSERT_EQ(p.batteries.size(), 2u);
    EXPECT_EQ(p.batteries[1].capacity_Ah, 230);
    ASSERT_TRUE(source_of_kind(p, SourceKind::alternator));
    EXPECT_FALSE(source_of_kind(p, SourceKind::alternator)->rated_A) << "assumed, and told so";
    const Statement said = read_statement(p, "battery AGM 80 Ah 760 A");
    ASSERT_TRUE(said.whole());
    ASSERT_TRUE(yr::apply(p, *said.edit));
    ASSERT_EQ(p.batteries.size(), 2u);
    EXPECT_EQ(p.batteries[0].capacity_Ah, 80);
}

TEST(EverydayPages, WholeSentences) {
    const Plan p = typed_page(
        "Beekeeper's flatbed, 12 volts.\n"
        "The truck has a 110 amp alternator and one 80 amp hour battery.\n"
        "I want to add a second 100 Ah AGM for the hive loader.\n"
        "Hive loader crane: 90 amps peak, 45 amps normal, about 1 minute per lift.\n"
        "Two work lights, 27 W each, on the headboard.\n"
        "A smoker fan at 2 A.\n"
        "Extractor motor 600 W on an inverter of 1000 W.\n"
        "GPS tracker draws 0.05 A all the time.\n");
    ASSERT_EQ(p.batteries.size(), 2u);
    EXPECT_EQ(p.batteries[0].capacity_Ah, 80);
    EXPECT_EQ(p.batteries[1].capacity_Ah, 100);
    EXPECT_EQ(source_of_kind(p, SourceKind::alternator)->rated_A, 110);
    EXPECT_EQ(of_name(p.loads, "Hive loader crane").draw.value, 45);
    EXPECT_EQ(of_name(p.loads, "Hive loader crane").inrush_A, 90);
    EXPECT_EQ(of_name(p.loads, "Hive loader crane").on_s, 60);
    EXPECT_EQ(of_name(p.loads, "work lights").count, 2);
    EXPECT_EQ(of_name(p.loads, "GPS tracker").draw.value, 0.05);
    EXPECT_FALSE(of_name(p.loads, "Extractor motor").inverter.empty());
    const Plan tractor = typed_page("Tractor w/ sprayer electrics. alt 95 amp. battery 110 Ah\nradio 2 A\n");
    EXPECT_EQ(tractor.batteries.at(0).capacity_Ah, 110);
    EXPECT_EQ(source_of_kind(tractor, SourceKind::alternator)->rated_A, 95);
}

TEST(EverydayPages, ATableWithAHead) {
    const Plan p = typed_page(
        "| Item | Qty | Amps | Where | Notes |\n|---|---|---|---|---|\n"
        "| Headlamps | 2 | 4.6 | front | ignition |\n| Radio | 1 | 3 | cab | |\n"
        "| Rear flood | 4 | 2.1 | rear | switch |\n| Compressor | 1 | 30 | rear | 5 min |\n"
        "Battery 74Ah, Alternator 90A\n");
    EXPECT_EQ(p.loads.size(), 4u);
    EXPECT_EQ(of_name(p.loads, "Headlamps").count, 2);
    EXPECT_EQ(of_name(p.loads, "Headlamps").draw.value, 4.6);
    EXPECT_EQ(of_name(p.loads, "Headlamps").live_when.key, Key::ignition);
    EXPECT_EQ(name_of(p, of_name(p.loads, "Radio").place), "cab");
    EXPECT_EQ(of_name(p.loads, "Compressor").on_s, 300);
    EXPECT_EQ(p.batteries.at(0).capacity_Ah, 74);
}

// A total beside what each takes is no draw of each; alone it is what all of them take. Feet are feet.
TEST(EverydayPages, TotalsOfATableAreNotCountedAgain) {
    const std::string van = "van\nbattery 95 Ah\nalternator 90 A\n";
    const Plan both = typed_page(
        van +
        "| Item | Qty | Amps each | Amps (total) | Length (ft) | Fuse |\n| lamp | 4 | 2 | 8 | 10 | 15 |\n");
    EXPECT_EQ(of_name(both.loads, "lamp").count, 4);
    EXPECT_EQ(of_name(both.loads, "lamp").draw.value, 2);
    const yr::Run* feed = supply_run(both, both.loads.at(0).id);
    ASSERT_TRUE(feed);
    EXPECT_NEAR(feed->length_m.value_or(0), 3.048, 1e-6);
    EXPECT_EQ(feed->devices.at(0).rating_A, 15);
    const Plan alone = typed_page(van + "| Item | Qty | Total amps |\n| lamp | 4 | 8 |\n");
    EXPECT_EQ(of_name(alone.loads, "lamp").count * of_name(alone.loads, "lamp").draw.value, 8);
}

// "All but the headlights": they have a switch, which is on wherever they were live before.
TEST(EverydayPages, WhatAStateLeavesOutHasASwitch) {
    const Plan p = typed_page(
        "tractor 12 V\nbattery 110 Ah\nalternator 95 A\nflow pump 30 A while spraying, 5 m\n"
        "headlights 4 x 55 W on ignition\nradio 2 A\n"
        "at 2100 rpm when spraying: all but headlights\nnight transport: 1800 rpm, headlights\n");
    const Load& headlights = of_name(p.loads, "headlights");
    ASSERT_EQ(headlights.live_when.switches, std::vector<std::string>{"headlights"});
    EXPECT_EQ(headlights.live_when.key, Key::ignition);
    for (const State& s : p.states) {
        const bool spraying = s.name == "spraying";
        if (s.key == Key::ignition) EXPECT_EQ(holds(headlights.live_when, s), !spraying) << s.name;
        EXPECT_EQ(holds(of_name(p.loads, "flow pump").live_when, s), spraying) << s.name;
    }
    EXPECT_EQ(of_name(p.states, "spraying").rpm, 2100);
}

TEST(EverydayPages, VoltsOfTheBatteryAndWhatHangsBeneathIt) {
    const Plan expo = typed_page(
        "Expo trailer - hybrid power\n4x 100Ah 12V LiFePO4 2S2P = 24V 200Ah\nSolar 6x200W = 1200W, MPPT 60A\n"
        "24/12 converter 40A\n24V inverter 3000W\nLED wall 24V 800W avg, 1500W peak\nPA amps 230V 500W\n"
        "12V: awning motor 10A 20 sec, water pump 5A\n");
    EXPECT_EQ(expo.vehicle.nominal_V, 24);
    EXPECT_EQ(expo.batteries.at(0).capacity_Ah, 200);
    EXPECT_EQ(of_name(expo.loads, "LED wall").draw.value, 1500);
    EXPECT_NEAR(of_name(expo.loads, "LED wall").duty.value_or(1), 800 / 1500.0, 0.01);
    EXPECT_FALSE(of_name(expo.loads, "PA amps").inverter.empty());
    EXPECT_EQ(rail_V(expo, of_name(expo.loads, "water pump")), 12);
    const Plan box = typed_page(
        "Horsebox 24V\n2 off 12V 110Ah in series\nalternator 28V 80A\n"
        "living area is 12V: leisure battery 110Ah AGM, charged by 24/12 dc-dc charger 20A\n"
        "12V loads:\nwater pump 4A\nLED lights x12, 2W each\n24V loads\ntail lift 24V 150A, 20s\n"
        "mains hook up 16A, charger 15A into the leisure battery\n");
    ASSERT_EQ(box.batteries.size(), 2u);
    EXPECT_EQ(battery_V(box, box.batteries[1]), 12);
    EXPECT_EQ(rail_V(box, of_name(box.loads, "water pump")), 12);
    EXPECT_EQ(of_name(box.loads, "LED lights").count, 12);
    EXPECT_EQ(rail_V(box, of_name(box.loads, "tail lift")), 24);
    EXPECT_EQ(source_of_kind(box, SourceKind::shore)->rated_A, 15);
}

// What runs on mains "when the engine is running" runs then if the inverter is on, too.
TEST(EverydayPages, ABoatsEngineAndDomestics) {
    const Plan p = typed_page(
        "Narrowboat 57ft\nEngine: 43hp diesel, starter batt 110Ah, alt 70A; domestic alt 120A\n"
        "Domestics: 4 x 110Ah lead acid\nVSR 100A\nInverter 1600W combi with 60A charger\nShoreline 16A\n"
        "Washing machine 2000W on inverter when engine is running\nTunnel light 55W\n");
    ASSERT_EQ(p.batteries.size(), 2u);
    EXPECT_EQ(p.batteries[0].name, "starter battery");
    EXPECT_EQ(p.batteries[1].capacity_Ah, 440);
    EXPECT_EQ(std::count_if(p.sources.begin(), p.sources.end(),
                            [](const Source& s) { return s.kind == SourceKind::alternator; }),
              2);
    EXPECT_EQ(source_of_kind(p, SourceKind::shore)->rated_A, 60);
    EXPECT_EQ(p.loads.size(), 2u);
    for (const Finding& f : inspect(p, false).findings)
        EXPECT_FALSE(f.kind == FindingKind::load_dead) << words::sentence(f, p);
}

// An inverter hangs on the battery of its volts, what stands in a list below it on the inverter; a dash alone
// sets in.
TEST(EverydayPages, InvertersAndTheirLists) {
    const Plan camper = typed_page(
        "ambulance, a camper now\nChassis 24V\nStarter batteries 2x 140Ah 12V in series\nAlternator 24V "
        "140A\n"
        "Leisure 12V 300Ah LiFePO4 (2x150)\n24V to 12V DCDC charger 50A from starter to leisure\n"
        "24V inverter 1000W\nEHU charger 30A\n");
    EXPECT_EQ(camper.vehicle.name, "ambulance, a camper now");
    EXPECT_EQ(camper.vehicle.nominal_V, 24);
    ASSERT_EQ(camper.batteries.size(), 2u);
    EXPECT_EQ(camper.batteries[1].capacity_Ah, 300);
    for (const yr::Run& r : camper.runs)
        if (r.to == pos_of(camper.inverters.at(0).id)) EXPECT_EQ(r.from, pos_of(camper.batteries[0].id));
    EXPECT_EQ(source_of_kind(camper, SourceKind::shore)->rated_A, 30);
    const Plan events = typed_page(
        "events van\n110 AH leisure, 130A VSR w/ 16mm2 cable 4 m\nalternator 180 Amp\n"
        "inverter 3000w pure sine, cable 50mm 1m\n- amps 2 x 600W\n- mixer 50W\nLED tape 12v 5m @ 14W/m\n"
        "set: 4 hours, everything, engine idling\n");
    ASSERT_EQ(events.batteries.size(), 2u) << "what it charges from starts the van";
    for (const char* of_mains : {"amps", "mixer"})
        EXPECT_EQ(of_name(events.loads, of_mains).inverter, events.inverters.at(0).id) << of_mains;
    EXPECT_EQ(of_name(events.loads, "LED tape").draw.value, 70);
    EXPECT_TRUE(of_name(events.loads, "LED tape").inverter.empty());
    EXPECT_EQ(of_name(events.states, "set").lasts_s, 4 * 3600);
    const Plan unit = typed_page(
        "site unit\n2 x 12v 220ah batteries parallel\nmicrowave 800W + kettle 2kW on 3kW inverter\n");
    for (const Load& l : unit.loads) EXPECT_FALSE(l.inverter.empty()) << l.name;
    EXPECT_EQ(unit.batteries.at(0).capacity_Ah, 440);
}

// Cells in a row make volts and no ampere hours, whichever stands first; dots lead to a figure and are none
// of it.
TEST(EverydayPages, CellsInARowAndDotsBeforeFigures) {
    const Plan cart = typed_page(
        "electric milk float\n48V 8x6V 225Ah series\nDrive motor 48V 180A peak, 90A cruising\n48/12 dcdc "
        "20A\n12V:\n"
        "headlights 2x 45W\nhorn 6A\ncharger 48V 30A from 230V\n");
    EXPECT_EQ(cart.batteries.at(0).capacity_Ah, 225);
    EXPECT_EQ(cart.vehicle.nominal_V, 48);
    EXPECT_EQ(of_name(cart.loads, "Drive motor").draw.value, 90);
    EXPECT_EQ(rail_V(cart, of_name(cart.loads, "horn")), 12);
    EXPECT_EQ(source_of_kind(cart, SourceKind::converter)->rated_A, 20);
    EXPECT_EQ(cart.loads.size(), 3u);
    const Plan dots = typed_page(
        "VEHICLE: recovery truck\nBattery......100Ah AGM\nAlternator...180A\nWork lights..4x27W\n"
        "Heater.......diesel 2kW, 12A start 2A run\n");
    EXPECT_EQ(dots.batteries.at(0).capacity_Ah, 100);
    EXPECT_EQ(source_of_kind(dots, SourceKind::alternator)->rated_A, 180);
    EXPECT_EQ(of_name(dots.loads, "Work lights").count, 4);
    EXPECT_EQ(of_name(dots.loads, "Heater diesel").draw.value, 2);
    EXPECT_EQ(of_name(dots.loads, "Heater diesel").inrush_A, 12);
    const Plan boat = typed_page(
        "Marine: 32' trawler\nEngine alternator 90A -> start battery 1 x 8D 225Ah\n"
        "House bank 4 x 6V 220Ah golf cart (series-parallel = 440Ah @ 12V)\nInverter/charger 2000W/100A\n"
        "Fridge 6A x 50%\nCabin lights 12 @ 0.5A = 6A\nWindlass 80A from house, 35 feet of cable\n");
    ASSERT_EQ(boat.batteries.size(), 2u);
    EXPECT_EQ(boat.batteries[0].capacity_Ah, 225);
    EXPECT_EQ(boat.batteries[1].capacity_Ah, 440);
    EXPECT_EQ(battery_V(boat, boat.batteries[1]), 12);
    EXPECT_EQ(of_name(boat.loads, "Cabin lights").count, 12);
    EXPECT_NEAR(of_name(boat.loads, "Fridge").duty.value_or(1), 0.5, 1e-9);
    const Plan police = typed_page("training car\nAlt 220A, batt 92Ah AGM + aux 60Ah AGM\nradio 2 A\n");
    ASSERT_EQ(police.batteries.size(), 2u);
    EXPECT_EQ(police.batteries[1].capacity_Ah, 60);
}

// A plug from which another vehicle is started is dead until somebody plugs in, and then for a start.
TEST(EverydayPages, AJumpSocketIsPluggedIn) {
    const Plan p = typed_page(
        "recovery van \"Bertha\"\nalternator=140 A; battery=100 Ah AGM; 2nd battery=100 Ah AGM, joined w/ "
        "200 A VSR\n"
        "inverter=1500 W; grinder=1100 W on it\njump socket=300 A (rear), 5 m, 70 mm2\n");
    EXPECT_EQ(p.batteries.size(), 2u);
    EXPECT_FALSE(of_name(p.loads, "grinder").inverter.empty());
    const Load& jump = of_name(p.loads, "jump socket");
    EXPECT_EQ(jump.live_when.switches, std::vector<std::string>{"jump socket"});
    ASSERT_TRUE(jump.on_s);
    int live = 0;
    for (const State& s : p.states) live += holds(jump.live_when, s);
    EXPECT_EQ(live, 1);
}

// A small winch gets a fuse that its cable stands.
TEST(EverydayPages, ASmallWinchsCableStandsItsFuse) {
    for (const std::string said : {"25 A, 8 AWG 3 m", "40 A, 8 AWG 3 m", "60 A, 8 AWG 3 m", "25 A", "40 A",
                                   "60 A", "95 A", "180 A", "350 A"}) {
        const Plan p = typed_page("van\nbattery 95 Ah\nalternator 150 A\nwinch " + said + "\n");
        for (const Finding& f : inspect(p, false).findings)
            EXPECT_NE(f.severity, Severity::stop) << said << ": " << words::sentence(f, p);
    }
}

// What the page says is not understood stays out of the plan, whatever amps it names.
TEST(EverydayPages, WhatSuppliesIsNoLoadEvenWhereItIsNotUnderstood) {
    const Plan p = typed_page(
        "boat\nbattery 105 Ah\neach outboard charges 35A at cruise, 12A idle\n"
        "house panel 100A main fuse, 6m aft of the console\nVHF 6 A\n",
        2);
    ASSERT_EQ(p.loads.size(), 1u);
    EXPECT_EQ(p.loads[0].name, "VHF");
    const Plan loads = typed_page(
        "van\nbattery 95 Ah\nalternator 90 A\nnight light: 5 W\ncamping lights: 4x 3 W\nBMS 0.1 A\ndisplay "
        "panel 1 A\n"
        "\"pump at 2 A\" 4 A\nalternator warning lamp 2 W\n");
    EXPECT_EQ(typed_page("van\nbattery 95 Ah\nsecond battery \"solar battery\" 100 Ah\n").batteries.size(),
              2u);
    EXPECT_EQ(typed_page("van\nbattery 95 Ah\n\"inverter\" 5 A\n").loads.size(), 1u)
        << "who quotes it means it";
    EXPECT_EQ(typed_page("golf buggy\n48V battery 105 Ah\nheadlights 2x 35 W\n").vehicle.nominal_V, 48);
    EXPECT_EQ(loads.loads.size(), 6u) << "these are";
    EXPECT_EQ(of_name(loads.loads, "pump at 2 A").draw.value, 4) << "a name in quotes stays";
}

}  // namespace
}  // namespace yr::test
