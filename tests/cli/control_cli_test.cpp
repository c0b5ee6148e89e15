// rail assign, sneak, rails and library.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "control/key_positions.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

using Json = nlohmann::json;

TEST(ControlCli, AssignWritesAPlanThatNeedsNoMoreMoves) {
    const TempFolder folder;
    const std::string out = folder.file("given.yourrail.json");
    const auto first = rail("assign " + truck_path() + " --json");
    EXPECT_EQ(first.code, 0);
    const Json a = Json::parse(first.out);
    EXPECT_TRUE(a["feasible"]);
    EXPECT_EQ(a["placed"].size(), 24U);
    bool logger = false;
    for (const Json& p : a["placed"])
        if (p["name"] == "data logger") logger = p["moved"] && !p["reasons"].empty();
    EXPECT_TRUE(logger);
    EXPECT_NE(first.out.find("cab box: dead at key off, when it must run"), std::string::npos)
        << "why it leaves";
    EXPECT_EQ(first.out.find("100000"), std::string::npos);
    EXPECT_EQ(rail("assign " + truck_path() + " -o " + out).code, 0);
    const auto given = load_plan(out);
    ASSERT_TRUE(given);
    const auto k =
        static_cast<std::size_t>(std::find_if(given->loads.begin(), given->loads.end(),
                                              [](const Load& l) { return l.name == "data logger"; }) -
                                 given->loads.begin());
    EXPECT_EQ(
        solve(*given, state_at(*given, KeyPosition::off, master_switches(*given))).point.loads[k].status,
        LoadStatus::on)
        << "it must run with the key off";
    const Json again = Json::parse(rail("assign " + out + " --json").out);
    for (const Json& p : again["placed"]) EXPECT_FALSE(p["moved"]);
}

TEST(ControlCli, SneakExitsByWhatItFinds) {
    const auto found = rail("sneak " + truck_path() + " --variant 'as the last fitter left it' --json");
    EXPECT_EQ(found.code, 1);
    const Json s = Json::parse(found.out);
    EXPECT_TRUE(s["complete"]);
    bool radio = false;
    for (const Json& p : s["found"])
        radio = radio || (p["name"] == "two-way radio" && p["kind"] == "alive" && p["key"] == "key off" &&
                          !p["path"].empty() && !p["mends"].empty());
    EXPECT_TRUE(radio);
    const auto buggy = rail("sneak " + demo_path(kDemos[1]));
    EXPECT_EQ(buggy.code, 0) << buggy.out;
    EXPECT_NE(buggy.out.find("No load is alive or dead against the plan"), std::string::npos);
    EXPECT_EQ(rail("sneak nothing.json").code, 2);
}

TEST(ControlCli, RailsAndLibrary) {
    const Json g = Json::parse(rail("rails " + truck_path() + " --json").out);
    EXPECT_EQ(g["groups"].size(), 5U);
    EXPECT_EQ(g["relays"], 4);
    const auto fridges = rail("library fridge");
    EXPECT_EQ(fridges.code, 0);
    EXPECT_NE(fridges.out.find("compressor fridge"), std::string::npos);
    EXPECT_EQ(rail("library zeppelin").code, 1);
    EXPECT_GT(Json::parse(rail("library pumps --json").out)["loads"].size(), 5U);
}

}  // namespace
}  // namespace yr::test
