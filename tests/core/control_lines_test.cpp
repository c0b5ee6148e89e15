// The whole typed line: conditions, channels, plates, the library; and every line of the demos there and
// back.
#include <gtest/gtest.h>

#include <random>
#include <set>

#include "control/circuit.h"
#include "control/key_positions.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "support/sweep.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

Condition when(const std::string& words) {
    const TypedLine l = read_line(truck(), "thing 10 W " + words);
    EXPECT_TRUE(l.not_understood.empty()) << words;
    return l.live_when.value_or(Condition{});
}

TEST(Conditions, AreReadAsTheyAreSaid) {
    Condition c = when("on ignition and scene, not while cranking, after 3 s");
    EXPECT_EQ(c.key, Key::ignition);
    EXPECT_EQ(c.switches, std::vector<std::string>{"scene"});
    EXPECT_TRUE(c.not_cranking);
    EXPECT_EQ(c.delay_s, 3.0);
    c = when("while running and charging above 13.2 V");
    EXPECT_EQ(c.engine, Engine::running);
    EXPECT_EQ(c.charging_above_V, 13.2);
    c = when("while sample fridge runs");
    EXPECT_EQ(c.circuits, std::vector<Id>{"load-14"});
    c = when("on hoist off");
    EXPECT_EQ(c.switches_off, std::vector<std::string>{"hoist"});
    c = when("on ignition or switch override");
    ASSERT_EQ(c.any_of.size(), 2U);
    EXPECT_EQ(c.any_of[1].switches, std::vector<std::string>{"override"})
        << "a switch that is new to the plan";
    EXPECT_TRUE(when("always") == Condition{});
}

TEST(Conditions, HoldAsTheySay) {
    State s;
    s.key = Key::crank;
    Condition c;
    c.key = Key::ignition;
    EXPECT_TRUE(holds(c, s)) << "ignition stays while cranking";
    c.not_cranking = true;
    EXPECT_FALSE(holds(c, s));
    s.key = Key::ignition;
    c.switches_off = {"x"};
    EXPECT_TRUE(holds(c, s));
    s.switches = {"x"};
    EXPECT_FALSE(holds(c, s));
    c = {};
    c.any_of.resize(2);
    c.any_of[0].key = Key::crank;
    c.any_of[1].switches = {"x"};
    EXPECT_TRUE(holds(c, s));
    s.switches.clear();
    EXPECT_FALSE(holds(c, s));
}

TEST(Conditions, ThatSayTheSameInOtherWordsAreOne) {
    Condition running, both;
    running.engine = both.engine = Engine::running;
    both.key = Key::ignition;
    EXPECT_TRUE(same_when(running, both)) << "an engine runs with the ignition on";
    Condition either;
    either.any_of.resize(2);
    either.any_of[0].switches = {"a"};
    either.any_of[1].switches_off = {"a"};
    EXPECT_TRUE(same_when(either, Condition{})) << "on or off is always";
    Condition crank;
    crank.key = Key::crank;
    EXPECT_FALSE(same_when(crank, both));
}

TEST(Conditions, WaitForVoltsAndOtherCircuitsInTheSolver) {
    Plan plan = truck();
    Load& sockets =
        *std::find_if(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.id == "load-26"; });
    sockets.live_when = {};
    sockets.live_when.charging_above_V = 13.2;
    const auto on = [&](const char* state, const Load& l) {
        const auto k = static_cast<std::size_t>(&l - plan.loads.data());
        return solve(plan, *find_state(plan, state)).point.loads[k].status == LoadStatus::on;
    };
    EXPECT_FALSE(on("Key off", sockets)) << "12.6 V at rest";
    EXPECT_TRUE(on("Driving", sockets));
    sockets.live_when = {};
    sockets.live_when.circuits = {"load-7"};  // the radio, with the key at accessory
    EXPECT_FALSE(on("Key off", sockets));
    EXPECT_TRUE(on("Accessory", sockets));
}

TEST(TypedLine, TakesChannelPlateDutyAndStart) {
    const TypedLine l = read_line(truck(),
                                  "wash pump 55 W at 13.8 V resistive on ignition from rear box channel 7, "
                                  "start 3x for 0.5 s, duty 20 %, "
                                  "own ground, apart B");
    EXPECT_EQ(l.name, "wash pump");
    EXPECT_EQ(l.feed, "rear-box");
    EXPECT_EQ(l.channel, 7);
    EXPECT_EQ(l.draw->kind, DrawKind::resistance);
    EXPECT_NEAR(l.draw->value, 13.8 * 13.8 / 55, 1e-12) << "R = V^2 / P";
    EXPECT_NEAR(*l.inrush_A, 3 * 12 / (13.8 * 13.8 / 55), 1e-9);
    EXPECT_EQ(l.details.inrush_s, 0.5);
    EXPECT_EQ(l.details.duty, 0.2);
    EXPECT_TRUE(l.details.own_ground);
    EXPECT_EQ(l.details.apart, "B");
    EXPECT_TRUE(l.not_understood.empty());
    const auto made = make_circuit(truck(), l);
    ASSERT_TRUE(made);
    EXPECT_EQ(made->channel, 7);
    const auto taken = make_circuit(truck(), read_line(truck(), "lamp 5 W from rear box channel 1"));
    ASSERT_FALSE(taken);
    EXPECT_NE(words::sentence(taken.error()).find("scene lights"), std::string::npos) << "who has it";
    EXPECT_FALSE(make_circuit(truck(), read_line(truck(), "lamp 5 W from rear box channel 99")));
}

TEST(TypedLine, TheLineOfTheReadmeIsUnderstood) {
    const TypedLine l = read_line(truck(),
                                  "wash pump 55 W at 13.8 V resistive on ignition and switch pump, not while "
                                  "cranking, start 3x for 0.5 s, duty 20 %, from rear box channel 7");
    EXPECT_TRUE(l.not_understood.empty());
    EXPECT_EQ(l.live_when->switches, std::vector<std::string>{"pump"});
    EXPECT_TRUE(l.live_when->not_cranking);
    EXPECT_EQ(l.channel, 7);
}

// Common practice, no source: a 55 W lamp draws about 4 A at a running vehicle's volts, 4.6 A at 12 V.
TEST(Plate, ALampOfFiftyFiveWatts) {
    Plate lamp;
    lamp.watts = 55;
    lamp.volts = 13.75;
    lamp.behaves = DrawKind::current;
    EXPECT_NEAR(draw_from_plate(lamp, 12)->value, 4.0, 1e-12);
    lamp.volts.reset();
    EXPECT_NEAR(draw_from_plate(lamp, 12)->value, 4.583, 1e-3);
    Plate measured;  // amps at measured volts
    measured.amps = 4.2;
    measured.volts = 12.4;
    measured.behaves = DrawKind::resistance;
    EXPECT_NEAR(draw_from_plate(measured, 12)->value, 12.4 / 4.2, 1e-12);
    measured.behaves = DrawKind::power;
    EXPECT_NEAR(draw_from_plate(measured, 12)->value, 12.4 * 4.2, 1e-12);
    measured.volts = -1;
    EXPECT_FALSE(draw_from_plate(measured, 12));
    EXPECT_FALSE(draw_from_plate(Plate{}, 12));
}

TEST(TypedLine, EveryLineOfTheDemosComesBack) {
    std::size_t lines = 0;
    for (const char* demo : kDemos) {
        const Plan plan = *load_plan(demo_path(demo));
        for (const Load& l : plan.loads) {
            const std::string text = typed_text(plan, l);
            const TypedLine back = read_line(plan, text);
            EXPECT_TRUE(back.not_understood.empty())
                << text << ": " << testing::PrintToString(back.not_understood);
            EXPECT_EQ(back.name, l.name) << text;
            EXPECT_EQ(back.count, l.count) << text;
            ASSERT_TRUE(back.draw) << text;
            EXPECT_EQ(*back.draw, l.draw) << text;
            EXPECT_TRUE(same_when(back.live_when.value_or(Condition{}), l.live_when)) << text;
            EXPECT_EQ(back.inrush_A, l.inrush_A) << text;
            EXPECT_EQ(back.place, l.place) << text;
            EXPECT_EQ(back.critical, l.critical) << text;
            EXPECT_EQ(back.details.duty, l.duty) << text;
            EXPECT_EQ(back.inverter, l.inverter) << text;
            const yr::Run* supply = supply_run(plan, l.id);
            if (supply) EXPECT_EQ(back.channel, supply->channel) << text;
            if (supply) EXPECT_EQ(back.size, supply->size) << text;
            ++lines;
        }
    }
    EXPECT_GT(lines, 40U);
}

TEST(TypedLine, ANameInQuotesIsTakenAsItStands) {
    const TypedLine l = read_line(truck(), "\"key light 5 m on mains\" 20 W");
    EXPECT_EQ(l.name, "key light 5 m on mains");
    EXPECT_FALSE(l.length_m);
    EXPECT_TRUE(l.inverter.empty());
    const TypedLine inches = read_line(truck(), "lamp 5\" 20 W, 18\"");
    EXPECT_EQ(inches.name, "lamp 5\xE2\x80\xB3") << "what is said of its size before its draw is its name";
    EXPECT_NEAR(inches.length_m.value_or(0), 18 * 0.0254, 1e-12);
}

TEST(Library, FindsByNameOtherWordAndTrade) {
    const Library& lib = shipped_library();
    EXPECT_GE(lib.loads.size(), 80U);
    EXPECT_EQ(lib.boxes.size(), 4U);
    EXPECT_EQ(search(lib, "fridge").front()->trade, "fridges and freezers");
    EXPECT_EQ(search(lib, "SONAR").front()->load.name, "echo sounder");
    EXPECT_EQ(search(lib, "steering").front()->load.name, "steering pump");
    EXPECT_TRUE(search(lib, "zeppelin").empty());
    std::set<std::string> names;
    for (const LoadEntry& e : lib.loads) {
        EXPECT_TRUE(names.insert(e.load.name).second) << e.load.name << " twice";
        EXPECT_TRUE(e.load.typical) << e.load.name;
        EXPECT_GT(e.load.draw.value, 0);
        if (e.load.inrush_A)
            EXPECT_GE(*e.load.inrush_A * 14, e.load.draw.kind == DrawKind::power ? e.load.draw.value : 0);
    }
}

TEST(Library, FillsWhatALineLeavesOpenAndNothingElse) {
    const TypedLine l = read_line(truck(), "2x scene light on accessory, 4 m", &shipped_library());
    EXPECT_EQ(l.draw, (Draw{DrawKind::power, 90}));
    EXPECT_EQ(l.count, 2);
    EXPECT_EQ(l.live_when->key, Key::accessory) << "typed words go before the library's";
    EXPECT_EQ(l.entry, "scene light");
    const auto made = make_circuit(truck(), l);
    ASSERT_TRUE(made);
    Plan plan = truck();
    ASSERT_TRUE(yr::apply(plan, made->edit));
    EXPECT_TRUE(plan.loads.back().typical);
    const TypedLine own = read_line(truck(), "scene light 35 W", &shipped_library());
    EXPECT_TRUE(own.entry.empty());
    EXPECT_FALSE(own.details.typical) << "a draw of one's own is not typical";
}

TEST(Library, OwnEntriesGoThereAndBack) {
    Library own;
    LoadEntry e;
    e.trade = "my own";
    e.load.name = "core drill";
    e.load.draw = {DrawKind::current, 31};
    e.load.live_when.switches = {"drill"};
    own.loads.push_back(e);
    BoxEntry box;
    box.box.name = "two-way box";
    box.box.kind = PointKind::box;
    box.box.channels = {{1, "A", 15, 30, {}}, {2, {}, {}, {}, {}}};
    own.boxes.push_back(box);
    const auto back = read_library(library_text(own));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->loads[0].load, e.load);
    EXPECT_EQ(back->boxes[0].box, box.box);
    const Library all = with_own(*back);
    EXPECT_EQ(entry_named(all, "Core Drill")->load.draw.value, 31);
    EXPECT_TRUE(entry_named(all, "core drill")->own);
    EXPECT_FALSE(read_library("{"));
    EXPECT_FALSE(read_library("{\"format\": \"other\"}"));
    const auto empty = read_library(R"({"format": "your-rail-library", "loads": [{"load": {"name": "x"}}]})");
    ASSERT_FALSE(empty);
    EXPECT_EQ(empty.error().place, "loads, entry 1");
    EXPECT_FALSE(read_library(R"({"format": "your-rail-library", "loads": [{"load": {"name": 4}}]})"));
}

TEST(TypedLine, AnyWordsInAnyOrderComeBackAndNoneIsLost) {
    std::mt19937 random(17);
    const char* words[] = {"lamp",     "2x",      "90",   "W",         "on",       "from",   "cab",
                           "box",      "channel", "4",    "or",        "and",      "not",    "while",
                           "cranking", "above",   "13 V", "after",     "3 s",      "at",     "duty",
                           "30%",      "start",   "3x",   "for",       "0.5 s",    "switch", "\"a b\"",
                           "off",      "scene",   "own",  "ground",    "together", "runs",   "sample fridge",
                           "charging", "running", "\"",   "resistive", "pure sine"};
    for (int k = 0; k < sweep(4000, 20000); ++k) {
        std::string text;
        std::size_t count = 0;
        for (auto n = random() % 9; n > 0; --n)
            text += std::string(words[random() % std::size(words)]) + " ", ++count;
        const TypedLine l = read_line(truck(), text, &shipped_library());
        EXPECT_GE(l.count, 1);
        if (l.draw) EXPECT_GT(l.draw->value, 0) << text;
        if (l.live_when)
            for (const Condition& c : l.live_when->any_of) EXPECT_TRUE(c.circuits.empty()) << text;
        if (l.complete()) (void)make_circuit(truck(), l);
    }
}

}  // namespace
}  // namespace yr::test
