// Lines as people keep them: lists, several things on a line, words in any order, volts of another rail.
#include <gtest/gtest.h>

#include <algorithm>
#include <array>
#include <random>

#include "inspect/findings.h"
#include "notes/notes.h"
#include "notes/several.h"
#include "plan/library.h"
#include "plan/rail_volts.h"
#include "support/findings.h"
#include "support/sweep.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

Notes read(const std::string& page) {
    return read_notes(page, &shipped_library());
}

Plan whole(const std::string& page) {
    const Notes notes = read(page);
    for (const NoteLine& l : notes.lines)
        EXPECT_FALSE(l.bad()) << l.text << ": "
                              << (l.statement.error                    ? words::sentence(*l.statement.error)
                                  : l.statement.not_understood.empty() ? ""
                                                                       : l.statement.not_understood.front());
    return notes.plan;
}

const Load& load(const Plan& plan, std::string_view name) {
    for (const Load& l : plan.loads)
        if (l.name == name) return l;
    ADD_FAILURE() << name;
    static const Load none;
    return none;
}

std::string place_of(const Plan& plan, std::string_view name) {
    return name_of(plan, load(plan, name).place);
}

const char* const kLooseVan = "van 12 V\nstarter battery 80 Ah 700 A\nalternator 150 A\n";

TEST(LoosePages, ListsAndTheirSigns) {
    const Plan plan = whole(
        "Plumber's van, 12V\nElectrics:\n- starter battery 80Ah 700CCA\n- alternator 150A\n"
        "* second battery AGM 100Ah, vsr 140A\n\xE2\x80\xA2 work light 2x 27W on switch, roof\n"
        "1. compressor 45A, 5 min at a time\n2) drain camera 5A\ninverter = 600W\ndrill charger = 180 W "
        "mains\n"
        "laptop charger ~ 65W mains\nPipe threader - 500 W mains, 10 min a day\nroof fan: 3 A, duty 50%\n"
        "==========\ntotal about 60 A\n");
    EXPECT_EQ(plan.vehicle.name, "Plumber's van");
    ASSERT_EQ(plan.batteries.size(), 2u);
    EXPECT_EQ(plan.batteries[0].cranking_A, 700);
    EXPECT_EQ(plan.loads.size(), 7u) << "neither the sum nor a source is a load";
    EXPECT_EQ(load(plan, "work light").count, 2);
    EXPECT_EQ(load(plan, "work light").live_when.switches, std::vector<std::string>{"work light"});
    EXPECT_EQ(place_of(plan, "work light"), "roof");
    EXPECT_EQ(load(plan, "compressor").on_s, 300);
    EXPECT_EQ(load(plan, "compressor").live_when.switches, std::vector<std::string>{"compressor"})
        << "what runs for so long at once is switched on";
    EXPECT_NEAR(*load(plan, "Pipe threader").duty, 600 / 86400.0, 1e-6);
    EXPECT_EQ(load(plan, "laptop charger").inverter, plan.inverters.front().id);
    // what only looks like a sum, a range or a bullet
    const Plan other = whole(std::string(kLooseVan) + "total station charger 30 W\nlamp 3..4 A\n");
    EXPECT_EQ(other.loads.size(), 2u);
}

TEST(LoosePages, SeveralThingsOnALine) {
    const Plan plan = whole(std::string(kLooseVan) +
                            "cab: computer 120 W, radio 5 A, seat heater 8 A on ignition\n"
                            "lights: roof front 8x 20 W, boom 4x 20 W\n"
                            "Rear:\n- pump 6 A\n- fan 2 A on ignition\n\nlamp 10 W\n");
    EXPECT_EQ(place_of(plan, "computer"), "cab");
    EXPECT_EQ(place_of(plan, "seat heater"), "cab");
    EXPECT_EQ(load(plan, "seat heater").live_when.key, Key::ignition);
    EXPECT_EQ(load(plan, "roof front lights").count, 8);
    EXPECT_EQ(load(plan, "boom lights").draw.value, 20);
    EXPECT_EQ(place_of(plan, "pump"), "rear");
    EXPECT_EQ(place_of(plan, "fan"), "rear");
    EXPECT_TRUE(load(plan, "lamp").place.empty()) << "a blank line ends what a heading gives";
    // one thing stays one
    EXPECT_TRUE(parts_of_line(plan, "scene light 90 W, start 12 A for 0.5 s, fuse 15 A").empty());
    EXPECT_TRUE(parts_of_line(plan, "second battery AGM 95 Ah, by dc-dc 30 A, 4 m").empty());
    EXPECT_TRUE(parts_of_line(plan, "alternators: 150 A, other one 200 A").empty());
}

TEST(LoosePages, WhatChargesIsNoLoad) {
    for (const char* line : {"engine alternator 90 A", "big alternator 90 A (smart)", "dynamo 90 A"}) {
        const Plan plan = whole(std::string("van 12 V\nbattery 80 Ah\n") + line + "\n");
        EXPECT_TRUE(plan.loads.empty()) << line;
        ASSERT_EQ(plan.sources.size(), 1u) << line;
        EXPECT_EQ(plan.sources[0].rated_A, 90) << line;
    }
    const Notes twin = read("van 12 V\nbattery 80 Ah\ntwin alternators: engine one 150 A, other 200 A\n");
    EXPECT_TRUE(twin.plan.loads.empty());
    EXPECT_EQ(twin.bad(), 1) << "said, not guessed";
    EXPECT_EQ(whole(std::string(kLooseVan) + "alternator warning lamp 2 W\n").loads.size(), 1u);
}

TEST(LoosePages, BatteriesByWhatPeopleCallThem) {
    const Plan plan = whole(std::string(kLooseVan) +
                            "lithium bank 3x 200 Ah LiFePO4 12 V parallel in the rear\n"
                            "dc-dc charger 60 A from starter battery to lithium bank\n"
                            "shore charger 30 A on lithium bank\ninverter 2000W near the lithium bank, 92 %\n"
                            "solar 2x 175 W on the roof w/ 30A controller\nfridge 45 W 40 %\n");
    ASSERT_EQ(plan.batteries.size(), 2u);
    EXPECT_EQ(plan.batteries[1].capacity_Ah, 600);
    EXPECT_EQ(plan.batteries[1].chemistry, Chemistry::lifepo4);
    for (const Source& s : plan.sources) {
        if (s.kind == SourceKind::shore) EXPECT_EQ(s.charges, plan.batteries[1].id);
        if (s.kind == SourceKind::solar) EXPECT_EQ(s.rated_A, 30);
    }
    ASSERT_EQ(plan.inverters.size(), 1u);
    EXPECT_EQ(plan.inverters[0].efficiency, 0.92);
    for (const yr::Run& r : plan.runs)
        if (r.to == pos_of(plan.inverters[0].id)) EXPECT_EQ(r.from, pos_of(plan.batteries[1].id));
    EXPECT_EQ(load(plan, "fridge").duty, 0.4) << "nobody allows 40 % of drop";
    // what was added hangs on what was added for it
    const yr::Run* feed = supply_run(plan, load(plan, "fridge").id);
    ASSERT_NE(feed, nullptr);
    for (const yr::Run& r : plan.runs)
        if (r.to == feed->from) EXPECT_EQ(r.from, pos_of(plan.batteries[1].id));
    const Plan strings =
        whole("caravan 12 V\nbattery bank 4x 6 V 225 Ah golf cart batteries series/parallel\n");
    EXPECT_EQ(strings.batteries[0].capacity_Ah, 450);
    EXPECT_EQ(strings.batteries[0].nominal_V, 12);
    const Plan truck24 = whole("Minibus 24 V, wheelchair lift\n2 batteries 12 V 110 Ah 750 CCA in series\n");
    EXPECT_EQ(truck24.vehicle.nominal_V, 24);
    EXPECT_EQ(truck24.vehicle.name, "Minibus, wheelchair lift");
    EXPECT_EQ(truck24.batteries[0].capacity_Ah, 110);
    EXPECT_EQ(truck24.batteries[0].nominal_V, 24);
}

TEST(LoosePages, ALoadHangsOnARailOfItsVolts) {
    const std::string page =
        "forwarder 24 V\n2 batteries 12 V 110 Ah 750 CCA in series\nalternator 100 A\n"
        "24/12 converter 20 A\n";
    const Plan plan = whole(page + "radio 8 A 12 V\nlamps 6x 70 W\npump motor 60 A on pump\n");
    EXPECT_EQ(rail_V(plan, load(plan, "radio")), 12);
    EXPECT_EQ(rail_V(plan, load(plan, "lamps")), 24) << "of no volts said: the vehicle's own";
    EXPECT_EQ(rail_V(plan, load(plan, "pump motor")), 24);
    const Notes none = read("forwarder 24 V\nbattery 24 V 110 Ah\nradio 8 A 12 V\n");
    EXPECT_TRUE(none.plan.loads.empty()) << "24 V would burn it";
    EXPECT_EQ(none.bad(), 1);
    // a cart's lamps are made for the small rail
    const Plan cart =
        whole("cart 48 V\nbattery LiFePO4 48 V 100 Ah\nconverter 48 to 12 V 20 A\nlamps 2x 10 W\n");
    EXPECT_EQ(rail_V(cart, load(cart, "lamps")), 12);
}

TEST(LoosePages, WhenAndHowLong) {
    const Plan plan = whole(std::string(kLooseVan) +
                            "camera 6 W when reversing\nheater 300 W only while driving\n"
                            "door motor 12 A, 20 s a stop\ndiesel heater 10 A glow for 3 min, then 2 A\n"
                            "lamp 40 W on the mast\nparked overnight: engine off, camera on\n");
    EXPECT_EQ(load(plan, "camera").live_when.switches, std::vector<std::string>{"reversing"});
    EXPECT_EQ(load(plan, "heater").live_when.engine, Engine::running);
    EXPECT_EQ(load(plan, "door motor").on_s, 20);
    EXPECT_EQ(load(plan, "diesel heater").draw.value, 2);
    EXPECT_EQ(load(plan, "diesel heater").inrush_A, 10);
    EXPECT_EQ(load(plan, "diesel heater").inrush_s, 180);
    ASSERT_EQ(plan.states.back().name, "parked overnight");
    EXPECT_EQ(plan.states.back().rpm, 0);
    EXPECT_EQ(plan.states.back().switches, std::vector<std::string>{"reversing"});
    // nothing is called "the mast", which is no switch
    EXPECT_TRUE(load(plan, "lamp").live_when.switches.empty());
    EXPECT_EQ(place_of(plan, "lamp"), "mast");
}

TEST(LoosePages, RemarksAreNotesAndFiguresAreFigures) {
    const Plan plan = whole(std::string(kLooseVan) + "radio 5 A (customer's own)\nwork lights (2x 55 W)\n");
    EXPECT_EQ(load(plan, "radio").remarks.note, "customer's own");
    EXPECT_EQ(load(plan, "work lights").count, 2);
    EXPECT_EQ(load(plan, "work lights").draw.value, 55);
}

double volts_of(const Plan& plan, std::string_view name) {
    return rail_V(plan, load(plan, name));
}

// What stands set in below a thing, or below a heading of its volts, hangs there.
TEST(LoosePages, WhatIsSetInHangsOnTheThingAbove) {
    const Plan lorry = whole(
        "Vehicle: 24 V lorry, 2x 12V 225Ah batteries in series on left chassis rail\nalternator 110A 24V\n"
        "24 to 12 V converter 20 A behind the seat\n  - cb radio 3 A\n  a) dash cam 0.5 A on all the time\n"
        "fridge 45 W\n");
    EXPECT_EQ(lorry.vehicle.nominal_V, 24);
    EXPECT_EQ(lorry.batteries[0].capacity_Ah, 225);
    EXPECT_FALSE(lorry.sources[0].regulated_V) << "24 V are those of its rail, not those that it holds";
    EXPECT_EQ(volts_of(lorry, "cb radio"), 12);
    EXPECT_EQ(volts_of(lorry, "dash cam"), 12);
    EXPECT_EQ(load(lorry, "dash cam").live_when, Condition{});
    EXPECT_EQ(volts_of(lorry, "fridge"), 24) << "the list is over";
    const Plan cart = whole(
        "cart 48V\npack: 4x 12V 105Ah LiFePO4 in series\n48/12 converter 30A\nloads on 12V:\n  horn 5A\n"
        "motor controller 250 A peak 80 A normal, 48 V\ncontactor coil 1 A 48V with key\n");
    EXPECT_EQ(volts_of(cart, "horn"), 12);
    EXPECT_EQ(volts_of(cart, "motor controller"), 48) << "a converter of 30 A drives no cart";
    EXPECT_EQ(load(cart, "motor controller").inrush_A, 250);
    EXPECT_EQ(volts_of(cart, "contactor coil"), 48);
    // a battery to live from of other volts has its own block and its own charger's volts
    const Plan living = whole(
        "horse lorry 24 V\nalternator 80 A\nbatteries: 2 x 12 V 180 Ah\nLiving area (12 V)\n"
        "- leisure battery 12 V 200 Ah AGM, under the bench\n- charger from 24 V: 24/12 V dc-dc charger 30 "
        "A\n"
        "- hook-up charger 25 A\n- TV 40 W\n");
    EXPECT_EQ(volts_of(living, "TV"), 12);
    EXPECT_EQ(living.loads.size(), 1u) << "no charger is a load";
    for (const Source& s : living.sources)
        if (s.charges == living.batteries[1].id) EXPECT_NEAR(s.regulated_V.value_or(28), 14.2, 0.5) << s.name;
}

TEST(LoosePages, WhatGivesOrSwitchesIsNoLoad) {
    const Plan plan =
        whole(std::string(kLooseVan) +
              "second battery LiFePO4 100 Ah in rear drawer, 4.5m cable from starter battery\n"
              "DCDC 25A between them (takes ign signal)\n120W folding solar panel via the DCDC\n"
              "winch 4 kW, 5 m of cable run, contactor, isolator 300 A by the batteries\n"
              "2000W inverter/charger in toolbox, 2 ft of 4/0\n"
              "battery charger for cordless tools 120 W on inverter\n");
    ASSERT_EQ(plan.loads.size(), 2u);
    EXPECT_EQ(plan.loads[0].name, "winch");
    EXPECT_EQ(plan.loads[1].inverter, plan.inverters.at(0).id);
    for (const char* line : {"isolator 300 A", "kill switch 200 A", "contactor 80 A", "solar blanket 5 A"})
        EXPECT_TRUE(read(std::string(kLooseVan) + line + "\n").plan.loads.empty()) << line;
}

// What nobody says because everybody knows it, and the states in which it is looked at.
TEST(LoosePages, ThingsRunWhenTheyUsuallyDo) {
    const std::string page =
        std::string(kLooseVan) +
        "fuel pump 8 A\nlight bar 150 W\ntail lift 120 A, 5 m\nfridge 45 W\nlamp 20 W, own "
        "switch\nreverse lights 2x 20 W w/ reverse gear\n";
    const Notes notes = read(page);
    const Plan& plan = notes.plan;
    EXPECT_EQ(load(plan, "fuel pump").live_when.key, Key::ignition);
    EXPECT_EQ(
        load(whole(std::string(kLooseVan) + "wheelchair lift 90 A\n"), "wheelchair lift").live_when.engine,
        Engine::running);
    EXPECT_EQ(load(plan, "light bar").live_when.key, Key::ignition);
    EXPECT_EQ(load(plan, "fridge").live_when, Condition{});
    EXPECT_EQ(load(plan, "tail lift").live_when.engine, Engine::running);
    EXPECT_EQ(load(plan, "tail lift").live_when.switches, std::vector<std::string>{"tail lift"});
    EXPECT_EQ(notes.added_states, (std::vector<std::string>{"Tail lift at work", "Small loads on"}));
    EXPECT_TRUE(never_asked(plan).empty());
    EXPECT_FALSE(found(plan, FindingKind::never_runs));
    EXPECT_FALSE(found(plan, FindingKind::supply_short)) << "a lift goes up for minutes";
    // who says when is believed, and who names states has thought of them
    EXPECT_EQ(load(whole(std::string(kLooseVan) + "fuel pump 8 A always\n"), "fuel pump").live_when,
              Condition{});
    EXPECT_TRUE(read(page + "state working, key on, engine on, tail lift on\n").added_states.empty());
    // without an engine there is no ignition to go by
    EXPECT_EQ(
        load(whole("trailer 12 V no engine\nbattery 12 V 90 Ah\nlight bar 50 W\n"), "light bar").live_when,
        Condition{});
}

TEST(LoosePages, ALoadsOwnFuse) {
    const Plan plan =
        whole(std::string(kLooseVan) + "work light 45 W, fuse 10 A\nheater 8 A on a 15 A breaker, 3 m\n");
    const auto fuse = [&](std::string_view name) {
        return supply_run(plan, load(plan, name).id)->devices.at(0);
    };
    EXPECT_EQ(fuse("work light").rating_A, 10);
    EXPECT_FALSE(is_breaker(fuse("work light").fuse));
    EXPECT_EQ(fuse("heater").rating_A, 15);
    EXPECT_TRUE(is_breaker(fuse("heater").fuse));
    EXPECT_FALSE(found(plan, FindingKind::fuse_above_cable)) << "the cable is for its fuse";
    // a plug on mains has no cable of ours: said, not dropped
    EXPECT_EQ(read(std::string(kLooseVan) + "inverter 1000 W\nkettle 800 W on inverter, fuse 10 A\n").bad(),
              1);
}

TEST(LoosePages, SentencesAndTwoThingsInOne) {
    const Plan van = whole(
        "Dog van\n12v. engine battery 80Ah. Leisure battery 120 Ah lithium (LiFePO4) in back\nInverter 600W "
        "rear -> "
        "laptop 90W, camera chargers 40W\nSoak pump 6A and fan 11A\nDryer 400 W (inverter)\n");
    EXPECT_EQ(van.batteries.size(), 2u);
    EXPECT_FALSE(load(van, "laptop").inverter.empty());
    EXPECT_FALSE(load(van, "camera chargers").inverter.empty());
    EXPECT_FALSE(load(van, "Dryer").inverter.empty()) << "400 W of mains are no 33 A of ours";
    EXPECT_EQ(load(van, "Soak pump").draw.value, 6);
    EXPECT_EQ(load(van, "Soak fan").draw.value, 11);
    const Plan wipers =
        whole(std::string(kLooseVan) + "wipers front 6 A, rear 4 A\nheater 3 A (10 A at start)\n");
    EXPECT_EQ(load(wipers, "wipers rear").draw.value, 4);
    EXPECT_EQ(load(wipers, "heater").inrush_A, 10);
}

TEST(LoosePages, TablesAndShortWords) {
    const Plan plan = whole(std::string(kLooseVan) +
                            "Item | draw | note\nLight bar | 12 A | roof\nScene lights (4) | 8 A each |\n"
                            "Radios x2 | 12 A tx / 1 A rx |\nmppt 30 A, panels 2x175W\ninverter 2000W\n"
                            "induction hob 1800W inv 30min/day\ndiesel heater 1.5A run / 8A start\n");
    EXPECT_EQ(place_of(plan, "Light bar"), "roof");
    EXPECT_EQ(load(plan, "Scene lights").count, 4);
    EXPECT_EQ(load(plan, "Radios").count, 2);
    EXPECT_LT(load(plan, "Radios").duty.value_or(1), 0.3);
    EXPECT_FALSE(load(plan, "induction hob").inverter.empty()) << "1800 W of mains are no 150 A of ours";
    EXPECT_EQ(load(plan, "diesel heater").inrush_A, 8);
    EXPECT_EQ(plan.loads.size(), 5u) << "panels give";
    const auto sun = std::find_if(plan.sources.begin(), plan.sources.end(),
                                  [](const Source& x) { return x.kind == SourceKind::solar; });
    ASSERT_NE(sun, plan.sources.end());
    EXPECT_EQ(sun->panel_W, 350);
    const Plan loader = whole("Skid loader\n12 V, battery 100 Ah, 75 A alternator\nfan 12 A\n");
    EXPECT_EQ(loader.sources.at(0).rated_A, 75);
    EXPECT_FALSE(loader.batteries[0].cranking_A) << "the alternator's amps are no cranking amps";
    const Plan trailer = whole("trailer 12 V no engine\nbattery 12 V 100 Ah AGM\nwinch 3500 LB 180 A\n");
    EXPECT_TRUE(never_asked(trailer).empty());
    // heavy, on the small battery of a 24 V vehicle: by a cable of its own from there
    const Plan stage = whole(
        "stage 24 V\nbattery 24 V 180 Ah\nalternator 80 A\nsecond battery 12 V 300 Ah AGM\nlamp 10 W 12 V\n"
        "roof motor 12 V 200 A, 2 min\n");
    EXPECT_EQ(supply_run(stage, load(stage, "roof motor").id)->from, pos_of(stage.batteries[1].id));
    EXPECT_EQ(volts_of(stage, "lamp"), 12);
}

// Any list of light loads, in any order, on either rail: each is there once, on a block of its own volts with
// a fuse before its cable, beside the battery that was added where there is one; and none is a stop.
TEST(LoosePages, AnyListIsLaidOnItsOwnRail) {
    for (unsigned seed = 1; seed <= sweep(12U, 200U); ++seed) {
        std::mt19937 random(seed);
        const bool high = random() % 2, second = random() % 2;
        const std::string v = high ? "24" : "12";
        std::vector<std::string> lines;
        const std::size_t count = 4 + random() % 22;
        for (std::size_t k = 0; k < count; ++k) {
            const char* bullets[] = {"- ", "* ", "", "\xE2\x80\xA2 "};
            const char* behind[] = {" on switch", " only while driving", ", 20 min a day", " (as it was)",
                                    ""};
            std::string line = bullets[random() % 4] + std::string("thing") + static_cast<char>('a' + k) +
                               (random() % 2 ? " " : " = ") + std::to_string(1 + random() % 12) + "A";
            if (high && random() % 4 == 0) line += " 12 V";
            lines.push_back(line + behind[random() % 5]);
        }
        if (high) lines.push_back("24/12 converter 40 A");
        std::shuffle(lines.begin(), lines.end(), random);
        std::string page =
            "some van " + v + " V\nbattery: " + v + " V 95 Ah AGM 800 CCA\nalternator: 150 A\n";
        if (second) page += "house battery: " + v + " V 200 Ah AGM\n";
        for (const std::string& line : lines) page += line + "\n";
        const Plan plan = whole(page);
        ASSERT_EQ(plan.loads.size(), count) << page;
        for (const Load& l : plan.loads) {
            const yr::Run* feed = supply_run(plan, l.id);
            ASSERT_NE(feed, nullptr);
            EXPECT_TRUE(find(plan.points, feed->from)) << l.name << " on a battery's post\n" << page;
            const auto at = page.find(l.name);
            const bool low = page.substr(at, page.find('\n', at) - at).find("12 V") != std::string::npos;
            EXPECT_EQ(rail_V(plan, l), low || !high ? 12 : 24) << l.name << "\n" << page;
            EXPECT_FALSE(feed->devices.empty()) << l.name;
        }
        if (second)
            for (const Point& p : plan.points)
                if (p.name == "main block" || p.name.starts_with("block "))
                    for (const yr::Run& r : plan.runs)
                        if (r.to == Terminal(p.id)) EXPECT_EQ(r.from, pos_of(plan.batteries[1].id)) << page;
        for (const Finding& f : inspect(plan, false).findings)
            EXPECT_NE(f.severity, Severity::stop) << words::sentence(f, plan) << "\n" << page;
    }
}

void expect_no_stop(const Plan& plan) {
    for (const Finding& f : inspect(plan, false).findings)
        EXPECT_NE(f.severity, Severity::stop) << words::sentence(f, plan);
}
const Source* source_of(const Plan& plan, SourceKind kind) {
    for (const Source& s : plan.sources)
        if (s.kind == kind) return &s;
    return nullptr;
}

// A shuttle on 48 V: its title says the battery, its converter says watts, its panel and charger are no
// loads, and what drives it has a cable of its own.
TEST(LoosePages, AChargersVoltsSayWhichWayItGoes) {
    for (const bool down : {true, false}) {
        const Plan plan = whole(
            "horse lorry living\n12v living battery 210 Ah\nsecond battery 24 V 143 Ah\n"
            "charger from truck: " +
            std::string(down ? "24-12" : "12-24") + " dcdc charger 30A\n");
        const Source* charger = source_of(plan, SourceKind::converter);
        ASSERT_TRUE(charger);
        const Battery* to = find(plan.batteries, std::string_view(charger->charges));
        ASSERT_TRUE(to);
        EXPECT_EQ(to->nominal_V.value_or(12), down ? 12 : 24);
        for (const yr::Run& r : plan.runs)
            if (r.to == Terminal(charger->id, Post::in)) EXPECT_NE(r.from.owner, to->id);
    }
}

TEST(LoosePages, ShorthandOfACart) {
    const Plan plan = whole(
        "golf style resort shuttle 48V lithium 100 Ah\nmotor controller 48V 300A peak\ndc-dc 48/12 360W\n"
        "headlights 2x 25W\nindicators 21W x4\nhorn 5A\nfan 2x 30W\nroof solar 300W 48V mppt\n"
        "charger onboard 48V 15A\n");
    EXPECT_EQ(plan.vehicle.name, "golf style resort shuttle");
    EXPECT_EQ(plan.vehicle.nominal_V, 48);
    ASSERT_EQ(plan.batteries.size(), 1u);
    EXPECT_EQ(plan.batteries[0].capacity_Ah, 100);
    EXPECT_EQ(plan.loads.size(), 5u);
    ASSERT_TRUE(source_of(plan, SourceKind::converter));
    EXPECT_EQ(source_of(plan, SourceKind::converter)->rated_A, 30) << "360 W at 12 V";
    ASSERT_TRUE(source_of(plan, SourceKind::solar));
    EXPECT_EQ(source_of(plan, SourceKind::solar)->panel_W, 300);
    ASSERT_TRUE(source_of(plan, SourceKind::shore));
    const yr::Run* drive = supply_run(plan, load(plan, "motor controller").id);
    EXPECT_EQ(drive->from, pos_of(plan.batteries[0].id)) << "not through the block";
    EXPECT_EQ(rail_V(plan, load(plan, "headlights")), 12);
    expect_no_stop(plan);
}

TEST(LoosePages, ShorthandOfASnowCat) {
    const Plan plan = whole(
        "ski hill groomer cat 24V\nALT 24v/140A\nBAT 2*12V 180AH\nfront lights 8x70W halogen 24v\n"
        "cab heater fans 2x 12A\nwipers front/rear 5A + 5A\nwindscreen heated 24V 50A !!\n"
        "radio 12V 10A, gps screen 12V 4A, on 24/12 conv 20A\nrear camera 5w\n"
        "block heater 230V from shed 1kW\n");
    ASSERT_EQ(plan.batteries.size(), 1u);
    EXPECT_EQ(plan.batteries[0].capacity_Ah, 180) << "two in series";
    EXPECT_EQ(load(plan, "wipers front/rear").draw.value, 10);
    EXPECT_EQ(rail_V(plan, load(plan, "radio")), 12);
    EXPECT_EQ(rail_V(plan, load(plan, "gps screen")), 12);
    EXPECT_EQ(rail_V(plan, load(plan, "rear camera")), 24);
    EXPECT_EQ(plan.loads.size(), 7u) << "what the shed feeds is none";
    expect_no_stop(plan);
}

TEST(LoosePages, ShorthandOfAnEscortCarAndAStall) {
    const Plan car = whole(
        "Escort car (wide loads), petrol estate\n* battery 60Ah / 540A EN\n* alternator 120A\n"
        "* roof beam amber 85 W, always when driving on its own switch\n"
        "* CB radio 4 W tx (draws 2A), memory 0.01A\n* UHF radio 25W out -> 9A tx 0.8 A rx\n"
        "* 2x work lamp LED 27W at tailgate\n* laptop 65W by 150W inverter in the glove box\n"
        "Ideally everything on one 12-way fuse box behind the passenger seat with ignition relay\n");
    EXPECT_EQ(car.batteries[0].cranking_A, 540);
    EXPECT_EQ(load(car, "CB radio").draw.value, 2) << "what it draws, not what it sends";
    EXPECT_EQ(load(car, "UHF radio").draw.value, 9);
    ASSERT_EQ(car.inverters.size(), 1u);
    EXPECT_EQ(load(car, "laptop").inverter, car.inverters[0].id);
    EXPECT_EQ(place_of(car, "work lamp LED"), "tailgate");
    expect_no_stop(car);
    const Plan stall = whole(
        "market stall trailer\nleisure batt 110ah\nsolar 200w + mppt 15A\nLED floods 4 @ 20W\n"
        "card reader 5V 10W usb\nfridge counter 12V, 75 W avg duty 45%\n"
        "inverter 600W pure sine: kettle no!, till 40W, phone chargers 30W\n"
        "heater diesel 2kW draws 40W running 10 A start\ntv 24in 40W evening 3h\n"
        "water pump 8 A, 5 min/hr\n230v hook up with 25A charger\nramp lights 2x10W door switch\n");
    EXPECT_EQ(load(stall, "LED floods").count, 4);
    EXPECT_EQ(load(stall, "heater diesel").draw.value, 40) << "not the heat that it makes";
    EXPECT_NEAR(*load(stall, "tv").duty, 0.125, 1e-6);
    EXPECT_NEAR(*load(stall, "water pump").duty, 5.0 / 60, 1e-4);
    EXPECT_EQ(load(stall, "till").inverter, stall.inverters.at(0).id);
    EXPECT_EQ(load(stall, "ramp lights").live_when.switches, std::vector<std::string>{"door"});
    ASSERT_TRUE(source_of(stall, SourceKind::shore));
    EXPECT_EQ(source_of(stall, SourceKind::shore)->rated_A, 25);
    expect_no_stop(stall);
}

TEST(LoosePages, TitlesOfWhatCannotBeAreRefused) {
    const Notes six = read("1938 tourer, 6 V\nbattery 120 Ah\n");
    ASSERT_TRUE(six.lines[0].statement.error);
    EXPECT_EQ(six.lines[0].statement.error->code, ErrorCode::out_of_range);
}

// Where a thing stands and what else changes nothing of the circuit is kept as its note, and told; what may
// join, feed or switch is not.
TEST(LoosePages, WhatChangesNothingIsKeptAsANote) {
    const Notes notes = read(std::string(kLooseVan) +
                             "second battery 2x 100 Ah LiFePO4 under the counter, 1.5 m from the bulkhead\n"
                             "inverter 2000 W pure sine right next to the lithium\n"
                             "tank heater 60 W winter only\nwinch 80 A, mostly idle\n");
    EXPECT_EQ(notes.bad(), 0);
    EXPECT_EQ(notes.plan.batteries[1].remarks.note, "1.5 m from the bulkhead, under the counter");
    EXPECT_EQ(notes.plan.inverters[0].remarks.note, "right next to the lithium");
    EXPECT_EQ(load(notes.plan, "tank heater").remarks.note, "winter only");
    EXPECT_EQ(notes.lines[5].statement.note, "winter only") << "and told";
    for (const char* line :
         {"lamp 20 W through the relay", "lamp 20 W inverterr", "lamp 20 W from leisure", "lamp 20 W swiched",
          "lamp 20 W with fuse", "second battery AGM 100 Ah, zqx 140 A"}) {
        const Notes other = read(std::string(kLooseVan) + line + "\n");
        EXPECT_TRUE(other.lines.back().text.empty() && other.lines[3].statement.note.empty()) << line;
    }
}

// What was a load, or hung on the wrong volts, on somebody's page.
TEST(LoosePages, ArrowsFiguresFirstAndTurns) {
    const Plan truck = whole(
        "service truck 24 V\n2x 12V 180Ah 1000CCA series\nalternator 110A 28V\n"
        "24->12 converter 40A in the cab\n - service laptop 90W\n - phone chargers 2x 2A\n"
        "crane power pack 80A, works 2 min at a time, 12 times a day\n"
        "4 work lamps 18W each around the bed, dash switch\nscene lights 24V 6x 70W on mast\n"
        "inverter 1000W\n - battery charger 200W\n");
    EXPECT_EQ(volts_of(truck, "service laptop"), 12);
    EXPECT_EQ(volts_of(truck, "phone chargers"), 12);
    EXPECT_EQ(load(truck, "crane power pack").on_s, 120);
    EXPECT_NEAR(*load(truck, "crane power pack").duty, 1440.0 / 86400, 1e-4);
    EXPECT_EQ(load(truck, "work lamps").live_when.switches, std::vector<std::string>{"work lamps"});
    EXPECT_EQ(place_of(truck, "scene lights"), "mast");
    EXPECT_FALSE(load(truck, "battery charger").inverter.empty());
    const Plan van = whole(std::string(kLooseVan) +
                           "leisure 100Ah LiFePO4 under passenger seat\n30A dc-dc charger beside the seat\n"
                           "bay lights 8x 6W, door switch\n");
    EXPECT_EQ(van.loads.size(), 1u) << "a charger is no load";
    EXPECT_EQ(load(van, "bay lights").live_when.switches, std::vector<std::string>{"door"});
}

// What the last line brings to a feed does not leave the first over its limit; a size that was asked for
// stays.
TEST(LoosePages, WhatComesLaterLeavesNoDropBehind) {
    const std::string page =
        "support van 12V\nchassis battery 95Ah\nauxiliary battery 110Ah AGM, vsr 140A\nalternator 200A\n"
        "bay lights 8x 6W\nsuction unit 8A";
    const std::string more =
        "\nmonitor charger 3A always\nsiren 100W\nblue lights 6x 1.5A with beacon switch\nradio 10A tx\n"
        "bay heater fan 12A\ninverter 1000W\nincubator 350W mains\nfridge 4A\n";
    const auto over = [](const Plan& plan) {
        int count = 0;
        for (const Finding& f : inspect(plan, false).findings)
            count += f.kind == FindingKind::drop_over_limit;
        return count;
    };
    EXPECT_EQ(over(whole(page + more)), 0);
    const Plan asked = whole(page + ", 18 AWG" + more);
    const yr::Run* feed = supply_run(asked, load(asked, "suction unit").id);
    ASSERT_NE(feed, nullptr);
    EXPECT_EQ(feed->size, WireSize::awg(18));
}

// On any lorry: told exactly where its loads ask for more, and every mend of it holds and brings nothing
// worse.
TEST(LoosePages, ConvertersOfAnyLorryAreToldRightly) {
    std::mt19937 random(11);
    int over = 0, mended = 0;
    for (int k = 0; k < sweep(24, 600); ++k) {
        const int rating = std::array{10, 15, 20, 30}[random() % 4];
        std::string page =
            "lorry 24 V\n2 batteries 12 V 150 Ah in series 1000 CCA\nalternator 24 V 80 A\n"
            "work lights 4x 40 W\nconverter 12 V " +
            std::to_string(rating) + " A\n";
        double asked_A = 0;
        for (int l = 0, n = 1 + static_cast<int>(random() % 4); l < n; ++l) {
            const int amps = 2 + static_cast<int>(random() % 9);
            asked_A += amps;
            page += "thing " + std::string(1, static_cast<char>('a' + l)) + " 12 V " + std::to_string(amps) +
                    " A\n";
        }
        const Plan plan = whole(page);
        const Inspection found = inspect(plan);
        const auto told = std::find_if(found.findings.begin(), found.findings.end(), [](const Finding& f) {
            return f.kind == FindingKind::converter_over;
        });
        ASSERT_EQ(told != found.findings.end(), asked_A > rating) << page;
        if (told == found.findings.end()) continue;
        ++over;
        EXPECT_NEAR(told->value, asked_A, 1e-6);
        if (!told->mend) continue;
        ++mended;
        EXPECT_GE(told->mend->to_A, asked_A);
        Plan after = plan;
        ASSERT_TRUE(yr::apply(after, told->mend->edit)) << page;
        const auto now = inspect(after, false).findings;
        for (const Finding* f : new_or_worse(found.findings, now))
            EXPECT_GT(f->severity, Severity::fix) << page << words::sentence(*f, after);
        for (const Finding& f : now) EXPECT_NE(f.kind, FindingKind::converter_over) << page;
    }
    EXPECT_GE(over, 4);
    EXPECT_GE(2 * mended, over) << "where none holds it is told without";
}

// The same circuit, note or no note.
Plan without_notes(Plan plan) {
    const auto clear = [](auto& things) {
        for (auto& x : things) x.remarks.note.clear();
    };
    clear(plan.batteries), clear(plan.sources), clear(plan.inverters), clear(plan.loads), clear(plan.points);
    return plan;
}

TEST(LoosePages, ANoteNeverChangesTheCircuit) {
    const char* const lines[] = {"second battery AGM 95 Ah, dc-dc 30 A",
                                 "inverter 600 W",
                                 "converter 24 V 10 A",
                                 "winch 80 A",
                                 "lamp 20 W on ignition",
                                 "pump 7 A, 3 m",
                                 "fridge 45 W, duty 40 %",
                                 "fan 3x 2 A on switch",
                                 "bus rear block, fuse 60 A",
                                 "solar 120 W",
                                 "shore charger 20 A"};
    const char* const notes[] = {" right next to the starter battery", ", rusty", ", 1.5 m from the bulkhead",
                                 ", bolted against the wall, nearly new", ", in winter only"};
    int kept = 0;
    for (const char* line : lines)
        for (const char* note : notes) {
            const Notes plain = read(std::string(kLooseVan) + line + "\n");
            const Notes noted = read(std::string(kLooseVan) + line + note + "\n");
            ASSERT_EQ(plain.bad(), 0) << line;
            if (noted.bad() > 0) continue;  // refused is no harm
            kept += !noted.lines[3].statement.note.empty();
            EXPECT_EQ(without_notes(noted.plan), without_notes(plain.plan)) << line << note;
        }
    EXPECT_GE(kept, 40) << "of 55";
}

TEST(LoosePages, ASupplyAndItsLoadsOnALine) {
    const Plan plan = whole(std::string(kLooseVan) +
                            "second battery 200 Ah LiFePO4 12.8 V, dc-dc 40 A\n"
                            "inverter 2000W: microwave 1200W, blender 500W\n"
                            "gimbal 24V 10A, through step-up converter 12>24 20A\ncamera 24 V 100 W\n"
                            "trolling motor 50 A, own deep cycle battery 100 Ah\n");
    ASSERT_EQ(plan.inverters.size(), 1u);
    EXPECT_EQ(load(plan, "microwave").inverter, plan.inverters[0].id);
    EXPECT_EQ(load(plan, "blender").inverter, plan.inverters[0].id);
    EXPECT_EQ(rail_V(plan, load(plan, "gimbal")), 24);
    EXPECT_EQ(rail_V(plan, load(plan, "camera")), 24);
    for (const yr::Run& r : plan.runs)
        if (r.to.owner.starts_with("converter")) EXPECT_EQ(r.from, pos_of(plan.batteries[1].id));
    const yr::Run* motor = supply_run(plan, load(plan, "trolling motor").id);
    ASSERT_NE(motor, nullptr);
    EXPECT_EQ(motor->from, pos_of(plan.batteries[2].id));
    for (const Finding& f : inspect(plan).findings) EXPECT_NE(f.kind, FindingKind::volts_foreign);
}

// A lift on a trailer has no engine to wait for, and what works is switched on.
TEST(LoosePages, WithoutAnEngineNothingWaitsForOne) {
    const Plan plan = whole(
        "Trailer mounted lift, 24V\n4x 6V 225Ah golf batteries in series\nhydraulic pump motor 24V 3 kW\n"
        "12V socket in basket via converter 24/12 10A\nemergency stop cuts everything\n");
    for (const State& s : plan.states) EXPECT_LE(s.rpm, 0) << s.name;
    EXPECT_EQ(load(plan, "hydraulic pump motor").live_when.engine, Engine::any);
    EXPECT_EQ(load(plan, "hydraulic pump motor").live_when.switches,
              std::vector<std::string>{"hydraulic pump motor"});
    EXPECT_EQ(rail_V(plan, load(plan, "socket in basket")), 12);
    bool master = false;
    for (const yr::Run& r : plan.runs)
        for (const Device& d : r.devices) master = master || d.master;
    EXPECT_TRUE(master);
    const Plan tows = whole("tow car with boat trailer\nbattery 70 Ah\nalternator 120 A\nwinch 60 A\n");
    EXPECT_TRUE(
        std::any_of(tows.states.begin(), tows.states.end(), [](const State& s) { return s.rpm > 0; }));
}

// A size that was asked for gets the largest fuse that it stands, in the kind that the post wants.
TEST(LoosePages, AFuseIsNeverAboveItsCable) {
    const Plan plan = whole(
        "tilt tray 24 V\n2 batteries 12 V 150 Ah in series, cranking 1000 CCA each\nalternator 24 V 80 A\n"
        "winch 24 V, 5.5 kW, 2/0 cable\n");
    for (const Finding& f : inspect(plan).findings)
        EXPECT_NE(f.severity, Severity::stop) << words::sentence(f, plan);
}

// A converter that is asked for more than it gives is told as what it is, with a larger one that takes fuse
// and cables along; no load of it is told to collapse, and no fuse is mended below what its load would draw.
TEST(LoosePages, AConverterAskedForTooMuch) {
    const Plan plan = whole(
        "lorry 24 V\n2 batteries 12 V 150 Ah in series 1000 CCA\nalternator 24 V 80 A\n"
        "converter 12 V 15 A\nradio 15 A 12 V\nfridge 12 V 4 A\n");
    const Inspection found = inspect(plan);
    const auto of = [&](FindingKind kind) {
        return std::find_if(found.findings.begin(), found.findings.end(),
                            [&](const Finding& f) { return f.kind == kind; });
    };
    EXPECT_EQ(of(FindingKind::no_operating_point), found.findings.end());
    EXPECT_EQ(of(FindingKind::source_at_limit), found.findings.end());
    const auto over = of(FindingKind::converter_over);
    ASSERT_NE(over, found.findings.end());
    EXPECT_NEAR(over->value, 19, 1e-6);
    EXPECT_NEAR(over->limit, 15, 1e-6);
    ASSERT_TRUE(over->mend);
    EXPECT_EQ(over->mend->to_A, 20);
    Plan mended = plan;
    ASSERT_TRUE(yr::apply(mended, over->mend->edit));
    for (const Finding& f : inspect(mended).findings)
        EXPECT_GT(f.severity, Severity::fix) << words::sentence(f, mended);
    for (const Finding& f : found.findings)
        if (f.mend && f.mend->kind == MendKind::fuse_rating)
            EXPECT_GE(f.mend->to_A, 15) << words::sentence(f, plan);
    Plan small = plan;
    for (yr::Run& r : small.runs)
        if (r.name == "radio feed") r.devices.front().rating_A = 10;
    const auto worse = inspect(small).findings;
    EXPECT_TRUE(std::any_of(worse.begin(), worse.end(), [](const Finding& f) {
        const bool loaded = f.kind == FindingKind::demand_over || f.kind == FindingKind::fuse_loaded;
        return loaded && f.severity <= Severity::fix;
    })) << "its load would open it once the converter gives enough";
}

}  // namespace
}  // namespace yr::test
