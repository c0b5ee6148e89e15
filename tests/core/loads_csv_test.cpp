// Loads out of spreadsheets and back into them.
#include <gtest/gtest.h>

#include <random>

#include "control/circuit.h"
#include "io/loads_csv.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "support/sweep.h"

namespace yr::test {
namespace {

std::vector<TableLoad> read_loads(const std::string& text) {
    return read_rows(truck(), read_loads_table(text));
}

TEST(LoadsCsv, HeadingsSayWhatColumnsHold) {
    const auto rows = read_loads(
        "Item,Qty,Watts,Inrush,Live,Length (m),Where,Critical,Notes\n"
        "bow light,2,45,,ignition,4.5,cargo roof,,left and right\n"
        "\"pump, bilge\",1,60 W,12,always,3 ft,cargo bed,yes,\n");
    ASSERT_EQ(rows.size(), 2U);
    const TypedLine& a = rows[0].line;
    EXPECT_EQ(a.name, "bow light");
    EXPECT_EQ(a.count, 2);
    EXPECT_EQ(*a.draw, (Draw{DrawKind::power, 45}));
    EXPECT_DOUBLE_EQ(*a.length_m, 4.5);
    EXPECT_EQ(a.place, "place-roof");
    EXPECT_EQ(a.live_when->key, Key::ignition);
    EXPECT_EQ(a.note, "left and right");
    EXPECT_FALSE(a.critical);
    const TypedLine& b = rows[1].line;
    EXPECT_EQ(b.name, "pump, bilge");
    EXPECT_DOUBLE_EQ(*b.inrush_A, 12);
    EXPECT_NEAR(*b.length_m, 0.9144, 1e-9);
    EXPECT_TRUE(b.critical);
    for (const TableLoad& r : rows) EXPECT_TRUE(r.line.not_understood.empty());
}

TEST(LoadsCsv, SemicolonsDecimalCommasMarksAndQuotes) {
    const auto rows = read_loads("\xEF\xBB\xBFname;amps;length\n\"lamp \"\"A\"\"\";4,5;2,25\n");
    ASSERT_EQ(rows.size(), 1U);
    EXPECT_EQ(rows[0].line.name, "lamp \"A\"");
    EXPECT_EQ(*rows[0].line.draw, (Draw{DrawKind::current, 4.5}));
    EXPECT_DOUBLE_EQ(*rows[0].line.length_m, 2.25);
}

TEST(LoadsCsv, WithoutAHeadingTheCellsTell) {
    const LoadsTable t = read_loads_table("radio\t8 A\t1.5 m\nlamp\t55 W\t2 m\n");
    EXPECT_EQ(t.columns, (std::vector{LoadColumn::name, LoadColumn::draw, LoadColumn::length_m}));
    const auto lines = read_loads("radio 8 A on accessory 1.5 m\nlamp 2x 55 W\n\nnothing much\n");
    ASSERT_EQ(lines.size(), 3U);
    EXPECT_TRUE(lines[0].line.complete());
    EXPECT_EQ(lines[1].line.count, 2);
    EXPECT_FALSE(lines[2].line.complete()) << "kept in sight, with its draw missing";
}

TEST(LoadsCsv, ANameIsNotReadForNumbers) {
    const auto rows = read_loads("name,watts\nkey light 5 m,20\n");
    EXPECT_EQ(rows[0].line.name, "key light 5 m");
    EXPECT_FALSE(rows[0].line.length_m);
}

TEST(LoadsCsv, WhatIsNotUnderstoodIsKept) {
    const auto rows = read_loads("name,watts,live\nlamp,20,at 7 bells\nfan,9,galley\n");
    EXPECT_EQ(rows[0].line.not_understood, (std::vector<std::string>{"on", "at", "7", "bells"}));
    EXPECT_EQ(rows[1].line.live_when->switches, std::vector<std::string>{"galley"}) << "a switch that is new";
}

TEST(LoadsCsv, OutAndInIsTheSameLoads) {
    const auto rows = read_loads(loads_csv(truck()));
    std::size_t compared = 0;
    ASSERT_EQ(rows.size(), truck().loads.size());
    for (std::size_t k = 0; k < rows.size(); ++k) {
        const Load& l = truck().loads[k];
        EXPECT_EQ(rows[k].line.name, l.name);
        EXPECT_EQ(rows[k].line.count, l.count);
        EXPECT_EQ(*rows[k].line.draw, l.draw) << l.name;
        EXPECT_EQ(rows[k].line.critical, l.critical);
        EXPECT_TRUE(rows[k].line.not_understood.empty()) << l.name;
        if (l.live_when.switches.empty() && l.live_when.engine == Engine::any) {
            EXPECT_EQ(*rows[k].line.live_when, l.live_when) << l.name;
            ++compared;
        }
    }
    EXPECT_GT(compared, 10U);
}

TEST(LoadsCsv, FiveThousandRowsBecomeFiveThousandCircuitsWithIdsOfTheirOwn) {
    std::string text = "name,amps,live,length\n";
    for (int k = 0; k < 5000; ++k) text += "lamp " + std::to_string(k) + ",0.1,ignition,2\n";
    const auto rows = read_loads(text);
    ASSERT_EQ(rows.size(), 5000U);
    std::vector<TypedLine> lines;
    for (const TableLoad& r : rows) lines.push_back(r.line);
    Batch batch;
    for (const auto& c : make_circuits(truck(), lines)) {
        ASSERT_TRUE(c);
        batch.edits.push_back(c->edit);
    }
    Plan plan = truck();
    plan.variants.clear();
    const auto inverse = yr::apply(plan, batch);
    ASSERT_TRUE(inverse) << "ids are all their own";
    EXPECT_EQ(plan.loads.size(), truck().loads.size() + 5000);
    ASSERT_TRUE(yr::apply(plan, *inverse));
    EXPECT_EQ(plan.loads, truck().loads);
}

TEST(LoadsCsv, AnyBytesComeBack) {
    std::mt19937 random(11);
    const char* bits[] = {"name", ",",    ";",  "\n", "\"", "12 A",       "on",
                          "\t",   "\xFF", "2x", "-",  "\r", "length (m)", "4.5"};
    for (int k = 0; k < sweep(100, 400); ++k) {
        std::string text;
        for (auto n = random() % 24; n > 0; --n) text += bits[random() % 14];
        for (const TableLoad& r : read_loads(text)) (void)make_circuit(truck(), r.line);
    }
}

// 1,5 without quotes in a file of commas: the cell beyond the heading is not lost in silence.
TEST(LoadsCsv, ACellBeyondTheHeadingIsSaid) {
    const Plan plan = empty_plan("x");
    const LoadsTable table = read_loads_table("name,draw\nlamp,1,5\nfan,2\n");
    const auto rows = read_rows(plan, table);
    ASSERT_EQ(rows.size(), 2U);
    EXPECT_FALSE(rows[0].line.not_understood.empty());
    EXPECT_TRUE(rows[1].line.not_understood.empty());
}

}  // namespace
}  // namespace yr::test
