#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <random>

#include "plan/migrate.h"
#include "plan/plan_json.h"
#include "plan/schema_check.h"
#include "plan/validate.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

using testing::HasSubstr;

std::string truck_text() {
    return read_text(demo_path(kDemos[0]));
}

std::string replaced(std::string text, const std::string& from, const std::string& to) {
    const auto at = text.find(from);
    EXPECT_NE(at, std::string::npos) << from;
    return text.replace(at, from.size(), to);
}

// As it was before days came.
Plan without_days(const char* demo) {
    Plan plan = *load_plan(demo_path(demo));
    plan.days.clear();
    plan.waypoints.clear(), plan.ways.clear();
    plan.vehicle.outline = Outline::none;
    const auto nowhere = [](auto& things) {
        for (auto& x : things) x.at = {};
    };
    nowhere(plan.points), nowhere(plan.sources), nowhere(plan.batteries), nowhere(plan.inverters),
        nowhere(plan.loads);
    std::erase_if(plan.places, [](const Place& p) { return p.hazard != Hazard::none; });  // since version 8
    for (Place& p : plan.places)
        p = [&] {
            Place bare;
            bare.id = p.id, bare.name = p.name, bare.engine_space = p.engine_space, bare.remarks = p.remarks;
            return bare;
        }();
    for (yr::Run& r : plan.runs) r.via.clear();
    return plan;
}

TEST(PlanFile, SaveLoadIsIdentity) {
    for (const char* demo : kDemos) {
        const auto plan = load_plan(demo_path(demo));
        ASSERT_TRUE(plan) << words::sentence(plan.error());
        EXPECT_EQ(to_json_text(*plan), read_text(demo_path(demo))) << "the shipped file is in its own order";
        EXPECT_EQ(*plan_from_json_text(to_json_text(*plan)), *plan);
    }
    for (std::uint32_t seed = 1; seed <= 60; ++seed) {
        const Plan plan = random_plan(seed);
        EXPECT_EQ(*plan_from_json_text(to_json_text(plan)), plan) << seed;
    }
}

// A file as version 1 wrote it, kept as it was.
TEST(PlanFile, VersionOneIsReadAndWrittenAsThePresentOne) {
    const std::string old = test::source_dir() + "/tests/data/version-1.yourrail.json";
    const auto plan = load_plan(old);
    ASSERT_TRUE(plan) << words::sentence(plan.error());
    EXPECT_EQ(plan->loads.size(), 7U);
    EXPECT_EQ(plan->sources.size(), 1U);
    EXPECT_TRUE(plan->inverters.empty() && plan->variants.empty());
    const std::string now = to_json_text(*plan);
    EXPECT_NE(now.find("\"version\": 10"), std::string::npos);
    EXPECT_EQ(*plan_from_json_text(now), *plan);
}

TEST(PlanFile, VersionTwoIsReadAndIsStillTheSamePlan) {
    // version 5, before connectors, jackets and remarks: an addition
    const auto five = load_plan(test::source_dir() + "/tests/data/version-5.yourrail.json");
    ASSERT_TRUE(five);
    EXPECT_EQ(*five, without_days("electric-litter-cart"));
    const auto old = load_plan(test::source_dir() + "/tests/data/version-2.yourrail.json");
    ASSERT_TRUE(old) << words::sentence(old.error());
    EXPECT_EQ(*old, without_days(kDemos[1])) << "the buggy has not changed since";
    for (const Load& l : old->loads) EXPECT_TRUE(l.own_switch) << "what was not said then is as it was";
}

TEST(PlanFile, DamageInsideAVariantIsNamed) {
    std::string text = truck_text();
    const auto at = text.find("1/0 AWG", text.find("\"run-join\""));
    ASSERT_NE(at, std::string::npos);
    text.replace(at, 7, "9/0 AWG");
    const auto plan = plan_from_json_text(text);
    ASSERT_FALSE(plan);
    EXPECT_NE(plan.error().place.find("sensing relay, AGM second battery"), std::string::npos)
        << plan.error().place;
}

TEST(PlanFile, TruckHasWhatTheDemoPromises) {
    const auto plan = load_plan(demo_path(kDemos[0]));
    EXPECT_GE(plan->loads.size(), 25U);
    for (const char* name :
         {"Key off", "Accessory", "Cranking", "Idling", "Driving", "Hoisting", "Overnight"})
        EXPECT_NE(find_state(*plan, name), nullptr) << name;
}

TEST(PlanFile, DamageIsRefusedWithItsPlace) {
    const auto error_of = [](const std::string& text) { return plan_from_json_text(text).error(); };
    std::string cut = truck_text();
    cut.resize(cut.size() / 2);
    EXPECT_EQ(error_of(cut).code, ErrorCode::bad_json);
    EXPECT_THAT(error_of(cut).place, HasSubstr("line "));
    EXPECT_EQ(error_of("[1,2]").code, ErrorCode::not_a_plan);
    EXPECT_EQ(error_of(replaced(truck_text(), "your-rail-plan", "shopping-list")).code,
              ErrorCode::not_a_plan);
    EXPECT_EQ(error_of(replaced(truck_text(), "\"version\": 10", "\"version\": 99")).code,
              ErrorCode::newer_version);
    const Error draw = error_of(replaced(truck_text(), "\"kind\": \"current\",\n        \"value\": 13",
                                         "\"kind\": \"current\",\n        \"value\": -13"));
    EXPECT_EQ(draw.code, ErrorCode::schema);
    EXPECT_THAT(draw.place, HasSubstr("loads, engine management, draw"));
    const Error size = error_of(replaced(truck_text(), "\"size\": \"4/0 AWG\"", "\"size\": \"11.5 AWG\""));
    EXPECT_EQ(size.code, ErrorCode::unknown_size);
    EXPECT_THAT(size.place, HasSubstr("charge cable"));
    const Error end =
        error_of(replaced(truck_text(), "\"to\": \"battery-1.pos\"", "\"to\": \"battery-9.pos\""));
    EXPECT_EQ(end.code, ErrorCode::missing_reference);
    EXPECT_THAT(words::sentence(end), HasSubstr("charge cable"));
    EXPECT_EQ(error_of(replaced(truck_text(), "\"id\": \"load-2\"", "\"id\": \"load-3\"")).code,
              ErrorCode::duplicate_id);
    EXPECT_EQ(error_of(replaced(truck_text(), "\"nominal_V\": 12", "\"nominal_volts\": 12")).code,
              ErrorCode::schema)
        << "an unknown key is a typing error, not noise";
}

TEST(PlanFile, NoCutOfTheFileCrashes) {
    const std::string text = truck_text();
    for (std::size_t at = 0; at < text.size(); at += 997)
        EXPECT_FALSE(plan_from_json_text(text.substr(0, at))) << at;
    for (std::size_t at = 5; at < text.size(); at += 613) {
        std::string broken = text;
        broken[at] = static_cast<char>(broken[at] ^ 0x15);
        (void)plan_from_json_text(broken);  // either way is right; it must come back
    }
}

TEST(PlanFile, UnknownValuesAreAllowedAndStated) {
    Plan plan = empty_plan("unknowns");
    plan.runs[0].length_m.reset();
    plan.runs[0].size.reset();
    ASSERT_TRUE(validate(plan).empty());
    const auto back = plan_from_json_text(to_json_text(plan));
    ASSERT_TRUE(back);
    EXPECT_FALSE(back->runs[0].length_m.has_value());
    const Network net = compile(*back, back->states[0]);
    const auto used = [&](const char* key) {
        return std::any_of(net.assumptions.begin(), net.assumptions.end(),
                           [&](const AssumptionUse& u) { return u.key == key && u.id == plan.runs[0].id; });
    };
    EXPECT_TRUE(used("run_length_m"));
    EXPECT_TRUE(used("run_size_awg"));
}

TEST(Migration, StepsRunInOrderAndFailWhole) {
    nlohmann::json file = {{"version", 1}, {"trail", ""}};
    const MigrationSteps steps = {
        {1, [](auto& f) { f["trail"] = f["trail"].template get<std::string>() + "a"; }},
        {2, [](auto& f) { f["trail"] = f["trail"].template get<std::string>() + "b"; }}};
    ASSERT_TRUE(migrate(file, 3, steps));
    EXPECT_EQ(file["trail"], "ab");
    EXPECT_EQ(file["version"], 3);
    const auto before = file;
    EXPECT_EQ(migrate(file, 5, steps).error().code, ErrorCode::not_a_plan);
    EXPECT_EQ(file, before);
    EXPECT_EQ(migrate(file, 2, steps).error().code, ErrorCode::newer_version);
}

TEST(Migration, FourWordsOfAPlaceBecameOne) {
    nlohmann::json file = {{"version", 9},
                           {"places",
                            {{{"id", "a"}, {"airbag", true}, {"exhaust", true}},
                             {{"id", "b"}, {"fuel", true}},
                             {{"id", "c"}, {"moving", false}, {"wet", true}}}},
                           {"variants", {{{"places", {{{"id", "d"}, {"moving", true}}}}}}}};
    ASSERT_TRUE(migrate(file, 10, migration_steps()));
    EXPECT_EQ(file["places"][0], (nlohmann::json{{"id", "a"}, {"hazard", "airbag"}})) << "what hurts most";
    EXPECT_EQ(file["places"][1], (nlohmann::json{{"id", "b"}, {"hazard", "fuel_line"}}));
    EXPECT_EQ(file["places"][2], (nlohmann::json{{"id", "c"}, {"wet", true}}));
    EXPECT_EQ(file["variants"][0]["places"][0], (nlohmann::json{{"id", "d"}, {"hazard", "moving"}}));
    // a whole file of version 9
    std::string old = replaced(truck_text(), "\"version\": 10", "\"version\": 9");
    for (const char* word : {"airbag", "exhaust", "moving"})
        old =
            replaced(old, "\"hazard\": \"" + std::string(word) + "\"", "\"" + std::string(word) + "\": true");
    const auto read = plan_from_json_text(old);
    ASSERT_TRUE(read);
    EXPECT_EQ(*read, *plan_from_json_text(truck_text()));
}

TEST(PlanFile, SavingIsWholeOrNothing) {
    const TempFolder folder;
    const Plan plan = empty_plan("x");
    ASSERT_TRUE(save_plan(plan, folder.file("a.yourrail.json")));
    EXPECT_EQ(*load_plan(folder.file("a.yourrail.json")), plan);
    EXPECT_EQ(save_plan(plan, folder.file("no/such/folder.json")).error().code, ErrorCode::unwritable_file);
    EXPECT_EQ(load_plan(folder.path()).error().code, ErrorCode::not_a_file) << "a folder is not a plan";
    EXPECT_EQ(load_plan(folder.file("missing")).error().code, ErrorCode::unreadable_file);
}

TEST(Condition, HoldsByKeyEngineAndSwitch) {
    State s{"s", "s", Key::accessory, 0, 20, 20, {}, {"a"}};
    EXPECT_TRUE(holds({}, s));
    EXPECT_TRUE(holds({Key::accessory, Engine::any, {"a"}}, s));
    EXPECT_FALSE(holds({Key::ignition, Engine::any, {}}, s));
    EXPECT_FALSE(holds({Key::off, Engine::running, {}}, s));
    EXPECT_FALSE(holds({Key::off, Engine::any, {"a", "b"}}, s));
    s.key = Key::crank;
    EXPECT_FALSE(holds({Key::accessory, Engine::any, {}}, s)) << "accessory drops out while cranking";
    EXPECT_TRUE(holds({Key::ignition, Engine::any, {}}, s));
}

// One entry somewhere in the file, changed to what it may not be, or only may not be there.
void change_one(nlohmann::json& file, std::mt19937& random) {
    nlohmann::json* at = &file;
    while (at->is_structured() && !at->empty()) {
        auto next = at->begin();
        std::advance(next, static_cast<long>(random() % at->size()));
        if (!next->is_structured() || next->empty() || random() % 6 == 0) {
            switch (random() % 8) {
                case 0:
                    *next = "no such word";
                    return;
                case 1:
                    *next = -1e7;
                    return;
                case 2:
                    *next = nullptr;
                    return;
                case 3:
                    *next = nlohmann::json::array();
                    return;
                case 4:
                    *next = true;
                    return;
                case 5:
                    at->erase(next);
                    return;
                case 6:
                    *next = 7;
                    return;
                default:
                    if (at->is_object()) (*at)["no_such_field"] = 1;
                    return;
            }
        }
        at = &*next;
    }
}

// A file is read without asking the schema where all of it is known. What the schema refuses is refused all
// the same, with the schema's own words.
TEST(PlanFile, WhatTheSchemaRefusesIsRefused) {
    std::mt19937 random(7);
    int refused = 0, taken = 0;
    for (int k = 0; k < sweep(300, 20000); ++k) {
        const Plan plan =
            k % 3 ? random_plan(static_cast<unsigned>(k)) : *load_plan(demo_path(kDemos[k / 3 % 3]));
        auto file = nlohmann::json::parse(to_json_text(plan));
        const auto changes = static_cast<int>(random() % 3);
        for (int n = 0; n < changes; ++n) change_one(file, random);
        if (!file.contains("format") || file["format"] != "your-rail-plan" || !file.contains("version") ||
            file["version"] != kPlanVersion)
            continue;
        const auto broken = check_schema(file);
        const auto read = plan_from_json_text(file.dump());
        (broken ? refused : taken)++;
        if (changes == 0) EXPECT_FALSE(broken) << k;
        if (!broken) continue;
        ASSERT_FALSE(read) << k << ": " << broken->place << ", " << broken->given;
        EXPECT_EQ(read.error().code, broken->code) << k;
        EXPECT_EQ(read.error().place, broken->place) << k;
    }
    EXPECT_GT(refused, 100);
    EXPECT_GT(taken, 100);
}

}  // namespace
}  // namespace yr::test
