// Every kind of finding is worded, has a rule with its source, a group, and answers Why?
#include "words/finding_rows.h"

#include <gtest/gtest.h>

#include <set>

#include "plan/plan_json.h"
#include "support/folders.h"
#include "words/agreement.h"
#include "words/why.h"

namespace yr::test {
namespace {

Finding made_up(FindingKind kind, const Plan& plan) {
    Finding f;
    f.kind = kind;
    f.id = plan.loads.front().id;
    f.other = plan.runs.front().id;
    f.state = plan.states.front().id;
    f.value = 12.5, f.limit = 10, f.hours = 3.5;
    return f;
}

class FindingRows : public testing::TestWithParam<int> {
  protected:
    FindingRows()
        : plan(*load_plan(test::source_dir() + "/data/plans/river-gauging-truck.yourrail.json")),
          kind(static_cast<FindingKind>(GetParam())) {}
    Plan plan;
    FindingKind kind;
};

TEST_P(FindingRows, IsWordedGroupedAndExplained) {
    const words::FindingRow* row = words::find_row(kind);
    ASSERT_NE(row, nullptr) << "kind " << GetParam() << " has no row";
    EXPECT_EQ(row->kind, kind);
    const Finding f = made_up(kind, plan);
    const std::string said = words::sentence(f, plan);
    EXPECT_GT(said.size(), 15U) << row->name;
    EXPECT_EQ(said.back(), '.') << said;
    EXPECT_EQ(said.find("{"), std::string::npos) << said;
    const words::Rule rule = words::rule_of(f, plan);
    EXPECT_FALSE(rule.label.empty()) << row->name;
    EXPECT_STRNE(words::name_of(row->group), "") << row->name;
    const auto why = words::explain(f, plan, solve_all(plan), {});
    EXPECT_EQ(why.title, said);
    ASSERT_FALSE(why.sources.empty()) << row->name;
}

INSTANTIATE_TEST_SUITE_P(Kinds, FindingRows, testing::Range(0, static_cast<int>(kFindingKinds)));

// What has no mend of one place says what would help, and only that.
TEST(FindingRowNames, WithoutAMendSayWhatWouldHelp) {
    for (std::size_t k = 0; k < kFindingKinds; ++k) {
        Finding f;
        f.kind = static_cast<FindingKind>(k);
        f.severity = Severity::stop;
        EXPECT_FALSE(words::would_help(f).empty()) << words::row_of(f.kind).name;
        f.mend = Mend{};
        EXPECT_TRUE(words::would_help(f).empty());
        f.mend.reset();
        f.severity = Severity::check;
        EXPECT_TRUE(words::would_help(f).empty());
    }
}

TEST(FindingRowNames, AreOfTheirOwn) {
    std::set<std::string> names;
    for (int k = 0; k < static_cast<int>(kFindingKinds); ++k)
        names.insert(words::row_of(static_cast<FindingKind>(k)).name);
    EXPECT_EQ(names.size(), kFindingKinds);
}

TEST(FindingRowNames, WhatRestsOnAnAverageSaysSo) {
    const Plan plan = *load_plan(test::source_dir() + "/data/plans/river-gauging-truck.yourrail.json");
    Finding f = made_up(FindingKind::battery_drains, plan);
    EXPECT_EQ(words::sentence(f, plan).find("on average"), std::string::npos);
    f.average = 4, f.hours = 3;
    EXPECT_NE(words::sentence(f, plan).find("on average"), std::string::npos);
}

TEST(Agreement, NamesTellWhetherTheyNameSeveral) {
    using words::names_several;
    for (const char* several : {"rear work lights", "Hydraulic solenoids", "PCs", "work lights left",
                                "camp lights 2", "work lights (cab)", "fans", "beacons rear (roof)"})
        EXPECT_TRUE(names_several(several)) << several;
    for (const char* one : {"GPS", "bus", "chassis light", "gas alarm", "glass heater", "body chassis", "ABS",
                            "lens", "light 2", "fridge (cab)", "", "s", "camp gas"})
        EXPECT_FALSE(names_several(one)) << one;
}

TEST(Agreement, VerbsAndPronounsFollowTheName) {
    using words::said_of_several;
    EXPECT_EQ(said_of_several("Work lights gets 9 V in Idling; it works from 10 V.", "Work lights"),
              "Work lights get 9 V in Idling; they work from 10 V.");
    EXPECT_EQ(
        said_of_several("Fans runs in Key off though nothing asks for it: its feed is live then.", "Fans"),
        "Fans run in Key off though nothing asks for them: their feed is live then.");
    EXPECT_EQ(said_of_several("Fans carries 3 A.", "Fans"), "Fans carry 3 A.");
    EXPECT_EQ(said_of_several("On the way to fans 3 V is lost.", "Fans"), "On the way to fans 3 V is lost.");
    EXPECT_EQ(said_of_several("Fans cannot get its power.", "Fans"), "Fans cannot get their power.");
    EXPECT_EQ(said_of_several("Fans reaches it and dies.", "Fans"), "Fans reach it and dies.");
    EXPECT_EQ(said_of_several("Fans lies near.", "Fans"), "Fans lie near.");
}

// In no finding of a load of several does a verb of one follow its name.
TEST(Agreement, HoldsInEveryFindingOfALoad) {
    Plan plan = *load_plan(test::source_dir() + "/data/plans/river-gauging-truck.yourrail.json");
    int told = 0;
    for (int k = 0; k < static_cast<int>(kFindingKinds); ++k) {
        Finding f = made_up(static_cast<FindingKind>(k), plan);
        if (!find(plan.loads, f.id)) continue;
        Plan several = plan;
        for (Load& l : several.loads)
            if (l.id == f.id) l.name = "test lamps";
        const std::string text = words::sentence(f, several);
        for (const char* verb :
             {" is ", " has ", " takes ", " gets ", " runs ", " wants ", " needs ", " starts "})
            EXPECT_FALSE(text.starts_with("Test lamps" + std::string(verb))) << text;
        told += text.starts_with("Test lamps ");
    }
    EXPECT_GT(told, 5);
}

}  // namespace
}  // namespace yr::test
