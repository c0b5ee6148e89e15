// What a line says in figures is in the plan, or the page says that it is not: pages that lost an alternator,
// a battery or a cable without a word; common practice, no source.
#include <gtest/gtest.h>

#include "notes/figures_kept.h"
#include "notes/statement.h"
#include "plan/condition.h"
#include "plan/rail_volts.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

double rating_A(const yr::Run& run) {
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse) return d.rating_A;
    return 0;
}

TEST(KeptFigures, WhatAnEditDoesNotBringIsLost) {
    const Plan van = typed_page("van 12 V\nbattery 95 Ah\n");
    const Statement lamp = read_statement(van, "lamp 5 A, 3 m");
    ASSERT_TRUE(lamp.edit);
    EXPECT_TRUE(figures_lost("lamp 5 A, 3 m", *lamp.edit).empty());
    EXPECT_EQ(figures_lost("lamp 5 A, 3 m, 150 A alternator", *lamp.edit), std::vector<std::string>{"150 A"});
    EXPECT_EQ(figures_lost("lamp 7 A, 4 m", *lamp.edit), (std::vector<std::string>{"7 A", "4 m"}));
    EXPECT_TRUE(figures_lost("lamp 60 W heat, 5 A", *lamp.edit).empty()) << "what it gives is no draw";
    EXPECT_TRUE(figures_lost("lamp 2 A + 3 A", *lamp.edit).empty()) << "their sum is its draw";
    const Statement bank = read_statement(van, "second battery 3x 110 Ah");
    ASSERT_TRUE(bank.edit);
    EXPECT_TRUE(figures_lost("second battery 3x 110 Ah", *bank.edit).empty()) << "330 Ah";
}

TEST(KeptFigures, TheCableOfARelayIsTheOneThatIsSaid) {
    const Plan p = typed_page(
        "van 12 V\nbattery 75 Ah\nsecond battery AGM 120 Ah rear w/ VSR 140 A, 5 m 35 mm2, fuse 100 A both "
        "ends\n");
    const yr::Run* link = nullptr;
    for (const yr::Run& r : p.runs)
        if (r.from == pos_of(p.batteries.at(0).id) && r.to == pos_of(p.batteries.at(1).id)) link = &r;
    ASSERT_TRUE(link);
    EXPECT_EQ(link->length_m, 5);
    EXPECT_EQ(link->size, WireSize::metric(35));
    EXPECT_EQ(rating_A(*link), 100);
}

// How far the relay stands from a battery is not how long the cable is.
TEST(KeptFigures, ARelayStandsOnItsCable) {
    const Plan p = typed_page(
        "van\nstarter battery 95 Ah\nleisure batteries 2 x 230 Ah AGM, 4.5 m from starter "
        "battery\nalternator 150 A\n"
        "split charge relay 200 A, 1.5 m from the starter battery, fused both ends 200 A\n");
    for (const yr::Run& r : p.runs)
        if (r.from == pos_of(p.batteries.at(0).id) && r.to == pos_of(p.batteries.at(1).id)) {
            EXPECT_EQ(r.length_m, 4.5);
            ASSERT_EQ(r.devices.size(), 3u);
            EXPECT_EQ(r.devices[1].at_m, 1.5);
            EXPECT_EQ(r.devices[0].rating_A, 200);
            EXPECT_EQ(r.devices[2].rating_A, 200);
        }
}

TEST(KeptFigures, AThrusterKeepsItsOwnBatteryAndItsDraw) {
    const Plan p = typed_page(
        "sailing yacht, 12 V\nengine 29 hp with 115 A alternator, starter battery 75 Ah\n"
        "service 3 x 120 Ah AGM, charged by B2B 40 A\n"
        "bow thruster 2.2 kW (own 90Ah battery fwd, charged via 20A DC-DC)\n"
        "windlass 80 A with its own 60Ah AGM battery\nwind generator 8 A typical\nsolar 2 x 110 W with 20A "
        "mppt\nshore charger 40A\ninverter 1000 W\n",
        1);
    ASSERT_EQ(p.batteries.size(), 4u);
    EXPECT_EQ(of_name(p.sources, "charger of bow thruster battery").rated_A, 20);
    EXPECT_EQ(of_name(p.batteries, "service").capacity_Ah, 360);
    EXPECT_EQ(of_name(p.batteries, "bow thruster battery").capacity_Ah, 90);
    EXPECT_EQ(of_name(p.loads, "bow thruster").draw.value, 2200);
    EXPECT_EQ(of_name(p.loads, "windlass").draw.value, 80);
    const Id& service = of_name(p.batteries, "service").id;
    for (const SourceKind kind : {SourceKind::solar, SourceKind::shore}) {
        ASSERT_TRUE(source_of_kind(p, kind));
        EXPECT_EQ(source_of_kind(p, kind)->charges, service) << "none of the others needs so much";
    }
    for (const yr::Run& r : p.runs)
        if (r.to == pos_of(p.inverters.at(0).id)) EXPECT_EQ(r.from, pos_of(service));
    ASSERT_TRUE(source_of_kind(p, SourceKind::alternator));
    EXPECT_EQ(source_of_kind(p, SourceKind::alternator)->rated_A, 115);
}

TEST(KeptFigures, AVehicleInOneLine) {
    const Plan van = typed_page("ice cream van\n- 12V vehicle, 150A alt, 95Ah battery\n");
    EXPECT_TRUE(van.loads.empty());
    EXPECT_EQ(van.batteries[0].capacity_Ah, 95);
    EXPECT_EQ(van.sources.at(0).rated_A, 150);
    const Plan bus = typed_page("school bus\n24v chassis, 2x 12v 200ah starting, alternator 100a 24v\n");
    EXPECT_EQ(bus.vehicle.nominal_V, 24);
    EXPECT_EQ(bus.batteries[0].capacity_Ah, 200) << "two of 12 V in a row";
}

TEST(KeptFigures, WhatABatteryIsMadeOfIsNoCount) {
    const Plan tug = typed_page(
        "pallet tug 48V\nbattery 48V 210Ah flooded (8x 6V)\ntraction motor 6kW peak, 2.5kW average\n");
    EXPECT_EQ(tug.batteries[0].capacity_Ah, 210);
    EXPECT_NEAR(of_name(tug.loads, "traction motor").duty.value_or(1), 2.5 / 6, 0.01);
}

// "on" and "with" before words that nobody calls a switch by.
TEST(KeptFigures, KeyAndEngineAreNoSwitches) {
    const Plan p = typed_page(
        "UTV\nbattery 30 Ah\nstator 45 A\nfuel pump 5A on with engine\npower steering 35A peak 8A avg - on "
        "with key\n"
        "spray pump 9A hand switch\nfan 18A thermostat\nbilge pump - float switch - 3.5A - always live\n");
    EXPECT_EQ(of_name(p.loads, "fuel pump").live_when.engine, Engine::running);
    EXPECT_TRUE(of_name(p.loads, "fuel pump").live_when.switches.empty());
    EXPECT_EQ(of_name(p.loads, "power steering").live_when.key, Key::ignition);
    EXPECT_NEAR(of_name(p.loads, "power steering").duty.value_or(1), 8.0 / 35, 0.01);
    EXPECT_EQ(of_name(p.loads, "spray pump").live_when.switches, std::vector<std::string>{"spray pump"});
    EXPECT_EQ(of_name(p.loads, "bilge pump").live_when.switches, std::vector<std::string>{"float"});
}

TEST(KeptFigures, NamesAndCounts) {
    const Plan p = typed_page(
        "motorhome\nbattery 95 Ah\nalternator 90 A\n1 = pump + toilet 6A + 4A\n2 = heater fan 1.5A\n3 = "
        "spare\n"
        "levelling jacks 4 of 25A each\nport & stbd lights 5W each\nroof vents 3A ea (3)\n"
        "work lights rear 2x 60W, side 4x 27W all on one switch \"work lamps\"\nblue lights 8 A, sirens 10 "
        "A, both on "
        "alert switch\nreverse camera 0.3A and monitor 0.7A with ignition\n");
    EXPECT_EQ(of_name(p.loads, "pump + toilet").draw.value, 10);
    EXPECT_EQ(of_name(p.loads, "levelling jacks").count, 4);
    EXPECT_EQ(of_name(p.loads, "roof vents").count, 3);
    EXPECT_EQ(of_name(p.loads, "work lights side").live_when.switches,
              std::vector<std::string>{"work lamps"});
    EXPECT_EQ(of_name(p.loads, "blue lights").live_when.switches, std::vector<std::string>{"alert"});
    EXPECT_EQ(of_name(p.loads, "sirens").live_when.switches, std::vector<std::string>{"alert"});
    for (const char* name : {"reverse camera", "reverse monitor"})
        EXPECT_EQ(of_name(p.loads, name).live_when.key, Key::ignition) << name;
    const Plan office =
        typed_page("van\nbattery 95 Ah\ninverter 1500 W\noffice: 2 screens 30 W on inverter, printer 40 W\n");
    EXPECT_EQ(of_name(office.loads, "screens office").count, 2);
    for (const std::string line : {"radio same 3 A", "laptop via 65 W"})
        EXPECT_TRUE(read_statement(p, line).error || !read_statement(p, line).not_understood.empty()) << line;
}

TEST(KeptFigures, DistancesGiveTheirCablesALength) {
    const Plan p = typed_page(
        "narrowboat 12 V\nstarter battery 95 Ah\nleisure battery 440 Ah\nalternator 70 A\nlamp 5 A\ninverter "
        "1000 W\n"
        "Battery to inverter 1.2m\nfuse board is 2.5m from leisure battery\n");
    int inverter = 0, board = 0;
    for (const yr::Run& r : p.runs) {
        const bool to_inverter = r.to.owner == p.inverters.at(0).id || r.from.owner == p.inverters.at(0).id;
        if (to_inverter && find(p.batteries, (r.to.owner == p.inverters[0].id ? r.from : r.to).owner))
            inverter += r.length_m == 1.2;
        const Point* at = find(p.points, r.to);
        board += at && at->feeds_loads && r.length_m == 2.5;
    }
    EXPECT_EQ(inverter, 2);
    EXPECT_EQ(board, 1);
    const Statement unknown = read_statement(p, "battery to sun 3 m");
    EXPECT_TRUE(unknown.error || !unknown.not_understood.empty());
}

TEST(KeptFigures, MainsByHookUpAndGenerator) {
    for (const std::string line :
         {"Mains hookup 16A with a 40A smart charger", "230V hookup at yard: charger 40A",
          "230 V hook up to charger 40 A", "generator 3kW -> charger 40A"}) {
        const Plan p = typed_page("trailer\nbattery 95 Ah\n" + line + "\nlamp 5 A\n");
        const Source* shore = source_of_kind(p, SourceKind::shore);
        ASSERT_TRUE(shore) << line;
        EXPECT_EQ(shore->rated_A, 40) << line;
    }
    const Plan p = typed_page(
        "boat\nbattery 95 Ah\n1.5kW inverter for laptop 90W & microwave 700W(1100W input)\nfreezer 230V 180W "
        "cycling 50% "
        "on 300W inverter\n");
    EXPECT_EQ(of_name(p.loads, "microwave").draw.value, 1100);
    EXPECT_EQ(of_name(p.loads, "freezer").duty, 0.5);
    EXPECT_FALSE(of_name(p.loads, "laptop").inverter.empty());
}

// Who lists in two states what is on means that the rest of both lists is off.
TEST(KeptFigures, WhatOneStateListsAndAnotherDoesNotIsOffThere) {
    const Notes notes = read_notes(
        "sailing boat 12 V\nbattery 300 Ah\nalternator 80 A\nfridge 4 A 40%\nautopilot 3 A\nanchor light 2 "
        "W\n"
        "bilge pump 4 A\nlogger 0.2 A always on\nnight passage: autopilot, fridge, logger\nat anchor: anchor "
        "light, "
        "fridge\nrefit: key on, everything\n",
        &shipped_library());
    EXPECT_EQ(notes.bad(), 0);
    EXPECT_EQ(notes.given_switches, (std::vector<std::string>{"autopilot", "anchor light"}));
    const auto live = [&](const char* load, const char* state) {
        return holds(of_name(notes.plan.loads, load).live_when, of_name(notes.plan.states, state));
    };
    EXPECT_TRUE(live("autopilot", "night passage") && live("anchor light", "at anchor"));
    EXPECT_FALSE(live("autopilot", "at anchor") || live("anchor light", "night passage"));
    for (const char* load : {"fridge", "bilge pump", "logger"})
        for (const char* state : {"night passage", "at anchor", "refit", "Driving"})
            EXPECT_TRUE(live(load, state)) << load << ", " << state;
    for (const char* load : {"autopilot", "anchor light"})
        for (const char* state : {"refit", "Driving"})
            EXPECT_TRUE(live(load, state)) << load << ", " << state;
    EXPECT_TRUE(
        read_notes("van\nbattery 90 Ah\nlamp 2 A\nfan 2 A\nnight: parked, lamp\n").given_switches.empty())
        << "one list alone says nothing of the rest";
}

TEST(KeptFigures, BatteriesInARowMakeTheirOwnRail) {
    const Plan boat = typed_page(
        "bass boat\ncranking battery 1000 CCA 100Ah\nOutboard 250hp with 60A alternator\n"
        "trolling battery 24V, two 12V 110Ah deep cycle in series\n3 bank onboard charger 10A per bank\n",
        1);
    EXPECT_EQ(of_name(boat.batteries, "trolling battery").capacity_Ah, 110);
    EXPECT_EQ(battery_V(boat, of_name(boat.batteries, "trolling battery")), 24);
    EXPECT_TRUE(boat.loads.empty()) << "what charges is no load";
    const Plan row = typed_page("van 12 V\nbattery 90 Ah\nsecond battery two 12V 110Ah in series\n");
    EXPECT_EQ(row.batteries.at(1).capacity_Ah, 110);
    EXPECT_EQ(battery_V(row, row.batteries.at(1)), 24);
    EXPECT_EQ(typed_page("van 12 V\nbattery 4x 6 V 225 Ah series/parallel\n").batteries.at(0).capacity_Ah,
              450);
}

// Inches quote nothing; a heading over one thing is no part of its name.
TEST(KeptFigures, InchesTimersAndHeadingsOfOne) {
    const Plan p = typed_page(
        "bass boat 12 V\nbattery 100 Ah\nConsole: fishfinder 12\" 3A, VHF 25W 5A tx/0.5A rx, livewell pump "
        "4A timer 30s "
        "on/2min off\nBow: fishfinder 9\" 2A\nstereo 300W rms 25A peak 8A average\nbilge blower 50A for 10 "
        "minutes\n");
    EXPECT_NEAR(of_name(p.loads, "livewell pump Console").duty.value_or(1), 0.2, 1e-9);
    EXPECT_EQ(of_name(p.loads, "VHF Console").draw.value, 5);
    EXPECT_EQ(of_name(p.loads, "stereo").draw.value, 25);
    EXPECT_EQ(of_name(p.loads, "bilge blower").on_s, 600);
    EXPECT_EQ(p.loads.size(), 6u);
    for (const Load& l : p.loads) EXPECT_EQ(l.name.find(':'), std::string::npos) << l.name;
    const Plan bike = typed_page("motorcycle\n12V 19Ah AGM, alternator 720W\ngrips 4 A\n");
    EXPECT_EQ(bike.batteries.at(0).capacity_Ah, 19);
    EXPECT_EQ(source_of_kind(bike, SourceKind::alternator)->rated_A, 51) << "at 14 V";
}

TEST(KeptFigures, ConvertersAndInvertersWithAllThatHangsOnThem) {
    const Plan p = typed_page(
        "mobile clinic, 24V\nbattery 180 Ah\nalternator 120 A\n12V loads from 24/12 converter 30A: lights "
        "12x 8W, water "
        "pump 6A\nCB via 24/12 converter 10A\ninverter 600W running a 300W suction unit and 60W monitor "
        "charger\n"
        "chiller 230V 350W running 50%\n");
    EXPECT_EQ(of_name(p.loads, "lights").count, 12);
    EXPECT_EQ(of_name(p.sources, "CB converter").rated_A, 10);
    EXPECT_EQ(of_name(p.loads, "suction unit").draw.value, 300);
    EXPECT_EQ(of_name(p.loads, "monitor charger").draw.value, 60);
    EXPECT_EQ(of_name(p.loads, "chiller").duty, 0.5);
    EXPECT_EQ(of_name(p.loads, "chiller").live_when.engine, Engine::any)
        << "it runs half the time, engine or not";
}

// What is on for minutes is switched on by somebody, whatever else lets it run; and a page's own states leave
// no heavy thing unlooked at.
TEST(KeptFigures, ATurnHasASwitchAndAState) {
    const Notes notes = read_notes(
        "yacht 12 V\nbattery 200 Ah\nalternator 115 A\ncharger 30 A shore\nwindlass 1000W, 2 min, engine "
        "running\nfridge 4 A\n"
        "at anchor: fridge\nnight on hookup: fridge\n",
        &shipped_library());
    EXPECT_EQ(notes.bad(), 0);
    const Load& windlass = of_name(notes.plan.loads, "windlass");
    EXPECT_EQ(windlass.live_when.engine, Engine::running);
    EXPECT_EQ(windlass.live_when.switches, std::vector<std::string>{"windlass"});
    EXPECT_EQ(notes.added_states, std::vector<std::string>{"Windlass at work"});
    EXPECT_EQ(of_name(notes.plan.states, "night on hookup").switches, std::vector<std::string>{"plugged in"});
    EXPECT_TRUE(of_name(notes.plan.states, "at anchor").switches.empty());
}

// What a heading or a last piece says of a whole line holds for each thing on it.
TEST(KeptFigures, OfAllOnTheLine) {
    const Plan p = typed_page(
        "theatre van\nbattery 300 Ah\nalternator 90 A\ninverter 3000w\nsound: 2 powered speakers 250w each, "
        "desk 60w, on "
        "inverter\n230V: microwave 1200W in, kettle 900W\nupfitter switch 2: flood lights 4 ea 3.5A\n2-way "
        "50W radio 12A "
        "xmit 1A rcv\n");
    for (const char* name : {"powered speakers sound", "desk sound", "microwave", "kettle"})
        EXPECT_EQ(of_name(p.loads, name).inverter, p.inverters.at(0).id) << name;
    EXPECT_EQ(of_name(p.loads, "powered speakers sound").count, 2);
    EXPECT_EQ(of_name(p.loads, "flood lights").count, 4);
    EXPECT_EQ(of_name(p.loads, "flood lights").live_when.switches,
              std::vector<std::string>{"upfitter switch 2"});
    EXPECT_EQ(of_name(p.loads, "2-way radio").draw.value, 12);
}

// A name that begins or ends as a part of a sentence is of no load.
TEST(KeptFigures, HalfASentenceIsNoLoad) {
    const Plan van = typed_page("van\nbattery 95 Ah\nalternator 90 A\nlamp 5 A\n");
    for (const std::string line : {"isolated with 200A solenoid", "to bed box 200 A", "between the seats 5 A",
                                   "Tow car: 12V 20A feed to DC-DC 18A", "vehicle 150 A"}) {
        const Statement s = read_statement(van, line, &shipped_library());
        EXPECT_FALSE(s.kind == StatementKind::load && s.whole() && !s.error) << line;
    }
    const Plan kept = typed_page(
        "van\nbattery 95 Ah\nalternator 90 A\nMy fridge 4 A\nIT rack 3 A\nsolar pump "
        "2 A\nbilge pump 2 - 3.5 A\n");
    EXPECT_EQ(kept.loads.size(), 4u) << "these are";
    EXPECT_EQ(of_name(kept.loads, "bilge pump 2").draw.value, 3.5) << "no range";
    EXPECT_EQ(of_name(kept.loads, "My fridge").draw.value, 4);
}

TEST(KeptFigures, WhatHangsOnAnInverterIsNone) {
    const Plan p = typed_page(
        "timing van 12 V\nalternator 120A / battery 80Ah\ntiming servers on inverter 230V 2x 150W\ninverter "
        "800W\n");
    EXPECT_EQ(p.inverters.size(), 1u);
    EXPECT_EQ(p.batteries.at(0).capacity_Ah, 80);
    const Load& servers = of_name(p.loads, "timing servers");
    EXPECT_EQ(servers.count, 2);
    EXPECT_EQ(servers.inverter, p.inverters.at(0).id);
    const Statement alone = read_statement(typed_page("van\nbattery 80 Ah\n"), "kettle 1000 W on inverter");
    EXPECT_FALSE(alone.whole()) << "on the battery it would be another thing";
    const Plan house = typed_page(
        "tiny house, no alternator\nBank 24V 280Ah LiFePO4 (8s)\nSolar 2 strings 3x400W, MPPT 60A\nInverter "
        "charger 3kVA 24V "
        "70A\nfloodlight (driving only) 2 A\nwork beacons 2 pcs 1.5A\n");
    EXPECT_EQ(source_of_kind(house, SourceKind::solar)->panel_W, 2400);
    EXPECT_EQ(source_of_kind(house, SourceKind::solar)->rated_A, 60);
    EXPECT_EQ(house.inverters.at(0).continuous_W, 3000);
    EXPECT_EQ(of_name(house.loads, "work beacons").count, 2);
    EXPECT_EQ(of_name(house.loads, "floodlight").live_when.key, Key::ignition);
    EXPECT_EQ(house.loads.size(), 2u);
}

TEST(KeptFigures, WithAnotherAndTheMostOfARange) {
    const Plan p = typed_page(
        "overlander\n2x 95Ah starting batteries, 2x 150A alternators\ninverter 2kW (induction 1500W, coffee "
        "700W)\n"
        "water pump 8A (30s bursts)\nUV steriliser 2A with pump\nheater diesel 1-3A\nwinch 12000lb (5.6hp) "
        "420A\n");
    EXPECT_EQ(p.sources.size(), 2u);
    EXPECT_EQ(of_name(p.loads, "UV steriliser").live_when.circuits,
              std::vector<Id>{of_name(p.loads, "water pump").id});
    EXPECT_EQ(of_name(p.loads, "heater diesel").draw.value, 3);
    EXPECT_EQ(of_name(p.loads, "winch").draw.value, 420);
    for (const char* name : {"induction", "coffee"})
        EXPECT_EQ(of_name(p.loads, name).inverter, p.inverters.at(0).id) << name;
}

// A share of the volts or of the time: a drop limit is 10 % at most (ABYC E-11, ISO 10133, from memory).
TEST(KeptFigures, AShareIsOfTheTimeWhereNobodyAllowsSuchADrop) {
    const Plan p = typed_page(
        "boat\nbattery 200 Ah\nfresh water pump 7A 10%\nlamp 5 A 10 %\nradio 5 A, 3 %\nlogger 1 A 15 "
        "%\nbilge pump 5 A 3 %\n");
    EXPECT_EQ(of_name(p.loads, "fresh water pump").duty, 0.1);
    EXPECT_EQ(of_name(p.loads, "lamp").drop_limit, 0.1);
    EXPECT_EQ(of_name(p.loads, "radio").drop_limit, 0.03);
    EXPECT_EQ(of_name(p.loads, "logger").duty, 0.15);
    EXPECT_EQ(of_name(p.loads, "bilge pump").drop_limit, 0.03);
    // what is written is read again as itself, whatever the share
    for (const double share : {0.03, 0.08, 0.12, 0.3}) {
        Plan with = p;
        for (Load& l : with.loads) l.drop_limit = share;
        for (const Load& l : with.loads) {
            const TypedLine again = read_line(with, typed_text(with, l));
            EXPECT_NEAR(again.drop_limit.value_or(0), share, 1e-9) << typed_text(with, l);
            EXPECT_EQ(again.details.duty, l.duty) << typed_text(with, l);
        }
    }
}

}  // namespace
}  // namespace yr::test
