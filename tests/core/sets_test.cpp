// Sets of lines, pieces of plans, and lines that may be read in two ways.
#include <gtest/gtest.h>

#include "notes/notes.h"
#include "notes/piece.h"
#include "notes/plan_text.h"
#include "notes/sets.h"
#include "plan/rail_volts.h"
#include "plan/roles.h"
#include "plan/variant.h"
#include "support/findings.h"
#include "support/lines.h"
#include "support/run_program.h"
#include "units/text.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

Plan bare_van() {
    Plan plan = read_notes(bare_vehicles()[2].text).plan;
    return plan;
}

TEST(Sets, MarksTakeWhatIsSaidAndStandElse) {
    const SetEntry set{
        true, "pair", {"{where=rear} lights 2x {each=25 W} on ignition and {where}", "{where} x{n}"}};
    const auto marks = marks_of(set);
    ASSERT_EQ(marks.size(), 3u);
    EXPECT_EQ(marks[1].name, "each");
    EXPECT_EQ(typed_form(set), "pair, where rear, each 25 W, n ");
    const FilledSet filled = fill_set(set, "Pair, each 50 W, where front, nonsense 3");
    EXPECT_EQ(filled.lines.front(), "front lights 2x 50 W on ignition and front");
    EXPECT_EQ(filled.lines.back(), "front x");
    ASSERT_EQ(filled.not_understood.size(), 1u) << "no word is dropped";
    EXPECT_EQ(filled.not_understood.front(), "nonsense 3");
    EXPECT_EQ(fill_set({true, "odd", {"a {b"}}, "odd").lines.front(), "a {b") << "a lone brace is text";
}

TEST(Sets, EveryShippedOneIsWholeOnEveryBareVehicle) {
    ASSERT_GE(shipped_library().sets.size(), 5u);
    for (const BareVehicle& bare : bare_vehicles()) {
        const Plan plan = read_notes(bare.text).plan;
        for (const SetEntry& set : shipped_library().sets) {
            const bool other_volts =
                battery_V(plan, plan.batteries.at(0)) > 24 && set.name.find("battery") != std::string::npos;
            const Statement s = read_statement(plan, typed_form(set), &shipped_library());
            EXPECT_EQ(s.kind, StatementKind::block) << set.name;
            if (other_volts) continue;  // its relay or charger is for the battery that is there
            EXPECT_TRUE(s.not_understood.empty())
                << bare.key << ": " << set.name << ": " << s.not_understood.front();
            EXPECT_TRUE(s.whole()) << bare.key << ": " << set.name << ": "
                                   << (s.error ? words::sentence(*s.error) : "");
        }
    }
}

TEST(Sets, AreOneStepAndTellTheLineThatDoesNotGo) {
    Plan plan = bare_van();
    const Plan before = plan;
    const Statement s = read_statement(plan, "fridge and outlet, watts 60 W, where bay", &shipped_library());
    ASSERT_TRUE(s.whole());
    const auto undo = yr::apply(plan, *s.edit);
    ASSERT_TRUE(undo);
    EXPECT_EQ(plan.loads.size(), before.loads.size() + 2);
    ASSERT_TRUE(yr::apply(plan, *undo));
    EXPECT_EQ(plan, before);
    Library own;
    own.sets.push_back({true, "broken", {"lamp 5 W, 2 m", "fan on ignition"}});
    const Statement bad = read_statement(plan, "broken", &own);
    EXPECT_FALSE(bad.whole());
    ASSERT_TRUE(bad.error);
    EXPECT_EQ(bad.error->place, "fan on ignition");
}

TEST(Sets, AreKeptInTheLibraryFile) {
    Library own;
    own.sets.push_back({false, "pair", {"lamp {watts=5 W}"}});
    const auto read = read_library(library_text(own));
    ASSERT_TRUE(read);
    ASSERT_EQ(read->sets.size(), 1u);
    EXPECT_EQ(read->sets.front().lines, own.sets.front().lines);
    EXPECT_FALSE(read_library(R"({"format":"your-rail-library","version":1,"sets":[{"name":"x"}]})"));
}

TEST(Readings, ALineThatMayBeTwoKindsHasBoth) {
    const Plan plan = bare_van();
    const auto both = readings(plan, "ground lights 10 W");
    ASSERT_FALSE(both.empty());
    EXPECT_EQ(both.front().kind, StatementKind::load) << "watts tell it";
    const auto inverter = readings(plan, "starter 200 A, 1.2 m");
    ASSERT_EQ(inverter.size(), 2u);
    EXPECT_EQ(inverter[0].kind, StatementKind::starter);
    EXPECT_EQ(inverter[1].kind, StatementKind::load);
    EXPECT_EQ(readings(plan, "lamp 5 W, 2 m").size(), 1u);
    EXPECT_TRUE(readings(plan, "battery").size() <= 1);
}

// What is copied and pasted into an empty plan of the same kind, or beside itself, is as good as before.
TEST(Pieces, AreLaidBesideThemselvesUnderFreeNames) {
    for (const char* demo : kDemos) {
        const Plan plan = *load_plan(demo_path(demo));
        int tried = 0;
        each_list(plan, [&](const auto& list) {
            for (const auto& thing : list) {
                using T = std::decay_t<decltype(thing)>;
                if constexpr (std::is_same_v<T, Place> || std::is_same_v<T, yr::Run>) continue;
                const auto piece = read_piece(plan, lines_of(piece_text(plan, {thing.id})));
                if (!piece) {  // only for want of a free channel
                    EXPECT_EQ(piece.error().code, ErrorCode::out_of_range)
                        << demo << ": " << thing.name << ": " << words::sentence(piece.error());
                    continue;
                }
                Plan after = plan;
                ASSERT_TRUE(yr::apply(after, piece->edit)) << thing.name;
                EXPECT_NE(after, plan) << thing.name;
                EXPECT_TRUE(yr::name_of(after, piece->about).starts_with(thing.name)) << thing.name;
                EXPECT_NE(piece->about, thing.id);
                ++tried;
            }
        });
        EXPECT_GT(tried, 10) << demo;
    }
}

TEST(Pieces, SeveralThingsTakeTheCablesBetweenThemAlong) {
    const Plan plan = bare_van();
    std::vector<Id> all;
    for (const Battery& b : plan.batteries) all.push_back(b.id);
    for (const Source& s : plan.sources) all.push_back(s.id);
    const std::string text = piece_text(plan, all);
    EXPECT_NE(text.find("run "), std::string::npos) << "the charge cable";
    const auto piece = read_piece(plan, lines_of(text));
    ASSERT_TRUE(piece) << words::sentence(piece.error());
    Plan after = plan;
    ASSERT_TRUE(yr::apply(after, piece->edit));
    EXPECT_EQ(after.batteries.size(), plan.batteries.size() + 1);
    const yr::Run& cable = after.runs.back();
    EXPECT_NE(owner_of(cable.from), owner_of(plan.runs.front().from));
    EXPECT_FALSE(find(plan.batteries, owner_of(cable.to))) << "joins the new ones, not the old";
}

TEST(Pieces, WhatOtherPlansLackIsNamed) {
    const Plan plan = bare_van();
    const auto piece = read_piece(plan, {R"(run "feeder": from "no such bus", to "body", length_m 2)"});
    ASSERT_FALSE(piece);
    EXPECT_EQ(piece.error().code, ErrorCode::missing_reference);
    EXPECT_NE(words::sentence(piece.error()).find("no such bus"), std::string::npos);
}

}  // namespace
}  // namespace yr::test
