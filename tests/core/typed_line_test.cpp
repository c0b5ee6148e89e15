#include <gtest/gtest.h>

#include <random>

#include "control/circuit.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "support/random_plan.h"
#include "typing/typed_line.h"

namespace yr::test {
namespace {

TEST(TypedLine, ReadsTheWholeLine) {
    const TypedLine l = read_line(truck(), "scene light 2x 90 W on ignition, 4.5 m, cargo roof");
    EXPECT_EQ(l.name, "scene light");
    EXPECT_EQ(l.count, 2);
    EXPECT_EQ(l.draw->kind, DrawKind::power);
    EXPECT_DOUBLE_EQ(l.draw->value, 90);
    EXPECT_EQ(l.live_when->key, Key::ignition);
    EXPECT_DOUBLE_EQ(*l.length_m, 4.5);
    EXPECT_EQ(l.place, "place-roof");
    EXPECT_TRUE(l.not_understood.empty());
    EXPECT_TRUE(l.complete());
}

TEST(TypedLine, ReadsOtherOrdersUnitsAndWords) {
    TypedLine l = read_line(
        truck(), "sampling pump 8,5 A 20 A inrush from rear box 14 ft 10 AWG always critical 2 % home-run");
    EXPECT_EQ(l.name, "sampling pump");
    EXPECT_DOUBLE_EQ(l.draw->value, 8.5);
    EXPECT_DOUBLE_EQ(*l.inrush_A, 20);
    EXPECT_EQ(l.feed, "rear-box");
    EXPECT_NEAR(*l.length_m, 4.2672, 1e-9);
    EXPECT_EQ(*l.size, WireSize::awg(10));
    EXPECT_EQ(*l.live_when, Condition{});
    EXPECT_TRUE(l.critical);
    EXPECT_DOUBLE_EQ(*l.drop_limit, 0.02);
    EXPECT_FALSE(*l.chassis);
    EXPECT_TRUE(l.not_understood.empty());
    l = read_line(truck(), "coil 11 ohm on hoist, 25 mm2");
    EXPECT_EQ(l.draw->kind, DrawKind::resistance);
    EXPECT_EQ(l.live_when->switches, std::vector<std::string>{"hoist"});
    EXPECT_EQ(*l.size, WireSize::metric(25));
    EXPECT_EQ(read_line(truck(), "hoist light 5 W").name, "hoist light")
        << "a bare switch name may belong to the load's name";
    EXPECT_EQ(read_line(truck(), "3x marker 4 W").count, 3);
}

TEST(TypedLine, AMainsLoadHangsOnItsInverter) {
    const Plan plan = *load_plan(demo_path(kDemos[0]));
    const TypedLine line = read_line(plan, "drill charger 120 W on the inverter, start 400 W, cab");
    EXPECT_EQ(line.inverter, "inverter");
    EXPECT_EQ(line.start_W, 400.0);
    EXPECT_TRUE(line.not_understood.empty());
    const auto made = make_circuit(plan, line);
    ASSERT_TRUE(made);
    Plan after = plan;
    ASSERT_TRUE(yr::apply(after, made->edit));
    EXPECT_EQ(after.runs.size(), plan.runs.size()) << "it brings no cable";
    EXPECT_EQ(after.loads.back().inverter, "inverter");
    EXPECT_EQ(read_line(plan, "kettle 900 W on mains").inverter, "inverter");
    EXPECT_FALSE(make_circuit(plan, read_line(plan, "kettle 4 A on mains"))) << "amps of what volts?";
}

TEST(TypedLine, TheStartMayStandBeforeOrAfterItsWord) {
    const TypedLine before = read_line(truck(), "pump 6 A start 12 A");
    EXPECT_EQ(*before.draw, (Draw{DrawKind::current, 6}));
    EXPECT_EQ(before.inrush_A, 12.0);
    const TypedLine after = read_line(truck(), "pump 6 A, 12 A start, 3 m");
    EXPECT_EQ(*after.draw, (Draw{DrawKind::current, 6}));
    EXPECT_EQ(after.inrush_A, 12.0);
    EXPECT_EQ(after.length_m, 3.0);
}

TEST(TypedLine, WhatPeopleWriteWithoutThinking) {
    const Plan plan = empty_plan("vehicle");
    const auto switches = [&](const char* text) {
        return read_line(plan, text).live_when.value_or(Condition{}).switches;
    };
    EXPECT_EQ(switches("water pump 60 W on pump, 4 m"), std::vector<std::string>{"pump"});
    EXPECT_EQ(switches("lamp 5 W on galley lights"), std::vector<std::string>{"galley lights"});
    EXPECT_EQ(switches("lamp 5 W on work, from battery bus"), std::vector<std::string>{"work"});
    // part of a name, metal, a place, figures behind it: no switch
    EXPECT_TRUE(switches("light on rack 35 W, 4 m").empty());
    EXPECT_TRUE(switches("lamp 5 W on roof, 4 m").empty());
    EXPECT_TRUE(switches("lamp 5 W on cab, 4 m").empty());
    EXPECT_EQ(read_line(plan, "lamp 5 W on cab, 4 m").place, "place-cab");
    EXPECT_EQ(read_line(plan, "lamp 5 W place engine bay").place, "place-bay");
    EXPECT_EQ(read_line(plan, "lamp 5 W on battery bus").feed, "point-bus");
    EXPECT_EQ(read_line(plan, "lamp 5 W from main block").feed, "point-bus");
    EXPECT_EQ(read_line(plan, "lamp 5 W from battery").feed, "battery-1");
    for (const char* text :
         {"fridge 45 W duty 0.35", "fridge 45 W duty 35 %", "fridge 45 W, 35 % of the time"}) {
        const TypedLine line = read_line(plan, text);
        ASSERT_TRUE(line.details.duty) << text;
        EXPECT_NEAR(*line.details.duty, 0.35, 1e-12) << text;
        EXPECT_TRUE(line.not_understood.empty()) << text;
        EXPECT_FALSE(line.drop_limit) << text;
    }
    const TypedLine turn = read_line(plan, "primer 150 A start 400 A for 0.3 s, for 10 s");
    EXPECT_EQ(turn.details.inrush_s, 0.3);
    EXPECT_EQ(turn.details.on_s, 10);
    EXPECT_EQ(read_line(plan, "primer 150 A for 10 s, start 400 A").details.on_s, 10);
}

TEST(TypedLine, NoWordIsDroppedSilently) {
    const TypedLine l = read_line(truck(), "lamp 20 W wobbly 30 W");
    EXPECT_EQ(l.not_understood, (std::vector<std::string>{"wobbly", "30", "W"}));
    EXPECT_DOUBLE_EQ(l.draw->value, 20);
}

TEST(TypedLine, AnyBytesComeBack) {
    std::mt19937 random(3);
    const char* words[] = {"lamp", "2x", "90",  "W",   "on",     "from", "cab",  "box", "in", "4.5",
                           "m",    ",",  "1/0", "AWG", "inrush", "%",    "\xC3", "×",   "x",  "-"};
    for (int k = 0; k < 5000; ++k) {
        std::string text;
        for (auto n = random() % 9; n > 0; --n)
            text += std::string(words[random() % 20]) + (random() % 2 ? " " : "");
        const TypedLine l = read_line(truck(), text);
        EXPECT_GE(l.count, 1);
        if (l.draw) EXPECT_GT(l.draw->value, 0) << text;
    }
}

// Panels count their switches: "aux1", "aux 2". A figure with its unit is none.
TEST(TypedLine, SwitchesMayBeCounted) {
    const Plan plan = truck();
    const auto switches = [&](const char* line) {
        const TypedLine t = read_line(plan, line);
        EXPECT_TRUE(t.not_understood.empty()) << line << ": " << t.not_understood.front();
        return t.live_when ? t.live_when->switches : std::vector<std::string>{};
    };
    using Names = std::vector<std::string>;
    EXPECT_EQ(switches("horn 5 A on aux1, 4 m"), Names{"aux1"});
    EXPECT_EQ(switches("horn 5 A on aux 2, 4 m"), Names{"aux 2"});
    EXPECT_EQ(switches("horn 5 A on ignition and aux 12"), Names{"aux 12"});
    EXPECT_EQ(switches("roof light on ignition 35 W"), Names{});
    EXPECT_EQ(read_line(plan, "horn 5 A on aux 2, 4 m").length_m, 4);
}

// What a fuzzer found: a quote that is never closed.
TEST(TypedLine, AnOpenQuoteComesBackAsItself) {
    const Plan plan = truck();
    const TypedLine line = read_line(plan, "\"radirt 70 A for 1 s, duty 50 %, on running\n");
    const auto circuit = make_circuit(plan, line);
    ASSERT_TRUE(circuit.has_value());
    Plan changed = plan;
    ASSERT_TRUE(yr::apply(changed, circuit->edit));
    EXPECT_TRUE(validate(changed).empty());
    const Load& load = *find(changed.loads, std::string_view(circuit->load));
    const TypedLine again = read_line(changed, typed_text(changed, load));
    ASSERT_TRUE(again.draw);
    EXPECT_EQ(again.draw->kind, load.draw.kind);
    EXPECT_EQ(again.name, load.name);
    const TypedLine bars = read_line(plan, "light bar 30\" 150 W, 2 m");
    EXPECT_EQ(bars.name, "light bar 30\xE2\x80\xB3");
    EXPECT_EQ(bars.draw->value, 150);
}

}  // namespace
}  // namespace yr::test
