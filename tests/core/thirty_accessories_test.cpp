// From a list of thirty accessories to a whole circuit plan, as somebody would do it in a few minutes.
#include <gtest/gtest.h>

#include "control/assign.h"
#include "control/boxes.h"
#include "control/circuit.h"
#include "inspect/sneak.h"
#include "io/loads_csv.h"
#include "plan/additions.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "words/control_words.h"

namespace yr::test {
namespace {

constexpr const char* kList =
    "what;how many;watts;amps;start;when;length;where;notes\n"
    "scene light;4;35;;;on ignition and switch scene;5,5;rear;two a side\n"
    "beacon;2;30;;;on ignition and switch beacons;4;rear;\n"
    "deck light;1;48;;;on ignition and switch deck;3;rear;\n"
    "locker light;3;6;;;on switch locker;4;rear;\n"
    "reading light;1;4;;;on switch reading;2;cab;\n"
    "fresh water pump;1;;5;12;on switch water;5;rear;\n"
    "fuel transfer pump;1;;18;38;on ignition and switch transfer;4;rear;\n"
    "compressor fridge;1;45;;12;always;4,5;rear;samples\n"
    "two-way radio;1;;7;;accessory;1,5;cab;\n"
    "radio memory;1;;0,05;;always;1,5;cab;\n"
    "satellite terminal;1;40;;;accessory;3;cab;\n"
    "router;1;12;;;accessory;2;cab;\n"
    "data logger;1;;1,6;;always;2;cab;\n"
    "tracker;1;;0,12;;always;1;cab;\n"
    "dash camera;1;7;;;accessory;2;cab;\n"
    "tail camera;1;6;;;ignition;6;rear;\n"
    "level radar;1;;0,8;;ignition;6;rear;\n"
    "roof vent;1;;3;6;on accessory and switch vent;3;cab;\n"
    "seat heater;1;45;;;on ignition and switch seat;2;cab;\n"
    "head unit;1;;8;;accessory;1,5;cab;\n"
    "laptop supply;1;65;;;accessory;2;cab;\n"
    "tablet charger;2;18;;;accessory;2;cab;\n"
    "charging sockets;1;;4;;accessory;2;cab;\n"
    "industrial computer;1;45;;;accessory;2;cab;\n"
    "printer;1;60;;;on accessory and switch printer;2;cab;\n"
    "alarm;1;;0,03;;always;2;cab;\n"
    "horn;1;;8;;on switch horn;3;engine bay;\n"
    "wipers;1;;6;14;on ignition and switch wipers;2;engine bay;\n"
    "weather station;1;3;;;always;6;rear;\n"
    "case fan;1;3;;;accessory;2;cab;\n";

TEST(ThirtyAccessories, BecomeACircuitPlanInWhichNothingIsAliveWhenItShouldBeDead) {
    Plan plan = empty_plan("new van");
    ASSERT_TRUE(yr::apply(plan, add_alternator(plan)->edit));
    const Key triggers[] = {Key::off, Key::accessory, Key::ignition};
    const char* names[] = {"always box", "accessory box", "ignition box"};
    for (std::size_t k = 0; k < 3; ++k) {
        NewBox ask;
        ask.box = shipped_library().boxes.back().box;
        ask.box.name = names[k];
        ask.box.remembers = true;
        ask.trigger.key = triggers[k];
        ask.place = k == 2 ? "place-rear" : "place-cab";
        ask.length_m = k == 2 ? 5 : 2.5;
        ASSERT_TRUE(yr::apply(plan, add_box(plan, ask)->edit));
    }
    const LoadsTable table = read_loads_table(kList);
    const auto rows = read_rows(plan, table);
    ASSERT_EQ(rows.size(), 30U);
    std::vector<TypedLine> lines;
    for (const TableLoad& r : rows) {
        EXPECT_TRUE(r.line.not_understood.empty())
            << r.line.name << ": " << testing::PrintToString(r.line.not_understood);
        EXPECT_TRUE(r.line.complete()) << r.line.name;
        EXPECT_TRUE(r.line.live_when.has_value()) << r.line.name;
        lines.push_back(r.line);
    }
    Batch batch;
    for (const auto& c : make_circuits(plan, lines)) {
        ASSERT_TRUE(c) << words::sentence(c.error());
        batch.edits.push_back(c->edit);
    }
    ASSERT_TRUE(yr::apply(plan, batch));
    const Assignment a = assign_loads(plan);
    ASSERT_TRUE(a.feasible) << words::conflict_text(a, plan);
    ASSERT_TRUE(yr::apply(plan, a.edit));
    ASSERT_TRUE(validate(plan).empty());
    for (const Finding& f : inspect(plan).findings) {
        const bool control = f.kind >= FindingKind::channel_over && f.kind <= FindingKind::load_alive;
        EXPECT_FALSE(control && f.severity <= Severity::fix) << words::sentence(f, plan);
        EXPECT_NE(f.kind, FindingKind::load_dead) << words::sentence(f, plan);
        EXPECT_NE(f.kind, FindingKind::constant_on_key_rail) << words::sentence(f, plan);
    }
    const SneakSearch s = search_sneaks(plan);
    EXPECT_TRUE(s.complete);
    for (const SneakPath& p : s.found) ADD_FAILURE() << words::sentence(p, plan);
    EXPECT_GE(s.switches, 12);
    EXPECT_EQ(*plan_from_json_text(to_json_text(plan)), plan) << "and it is saved as it is";
}

}  // namespace
}  // namespace yr::test
