// Lines as people keep them: lists, several things on a line, words in any order, volts of another rail.
#include <gtest/gtest.h>

#include <algorithm>
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

const char* const kVan = "van 12 V\nstarter battery 80 Ah 700 A\nalternator 150 A\n";

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
    const Plan other = whole(std::string(kVan) + "total station charger 30 W\nlamp 3..4 A\n");
    EXPECT_EQ(other.loads.size(), 2u);
}

TEST(LoosePages, SeveralThingsOnALine) {
    const Plan plan = whole(std::string(kVan) +
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
    EXPECT_EQ(whole(std::string(kVan) + "alternator warning lamp 2 W\n").loads.size(), 1u);
}

TEST(LoosePages, BatteriesByWhatPeopleCallThem) {
    const Plan plan = whole(std::string(kVan) +
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
    const Plan plan = whole(std::string(kVan) +
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
    const Plan plan = whole(std::string(kVan) + "radio 5 A (customer's own)\nwork lights (2x 55 W)\n");
    EXPECT_EQ(load(plan, "radio").remarks.note, "customer's own");
    EXPECT_EQ(load(plan, "work lights").count, 2);
    EXPECT_EQ(load(plan, "work lights").draw.value, 55);
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

TEST(LoosePages, TitlesOfWhatCannotBeAreRefused) {
    const Notes six = read("1938 tourer, 6 V\nbattery 120 Ah\n");
    ASSERT_TRUE(six.lines[0].statement.error);
    EXPECT_EQ(six.lines[0].statement.error->code, ErrorCode::out_of_range);
}

}  // namespace
}  // namespace yr::test
