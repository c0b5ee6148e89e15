// optimise, faults, start, and what size and fuse learnt.
#include <gtest/gtest.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "plan/plan_json.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

using Json = nlohmann::json;

TEST(CliOptimise, ProvesAndWrites) {
    const TempFolder folder;
    const Ran ran = rail("optimise " + truck_path() + " --json -o " + folder.file("sized.yourrail.json"));
    ASSERT_EQ(ran.code, 0) << ran.err;
    const Json out = Json::parse(ran.out);
    EXPECT_EQ(out["status"], "least");
    EXPECT_EQ(out["gap"], 0);
    EXPECT_LT(out["after"]["mass_kg"], out["before"]["mass_kg"]);
    EXPECT_FALSE(out["source"].get<std::string>().empty());
    const auto sized = load_plan(folder.file("sized.yourrail.json"));
    ASSERT_TRUE(sized);
    for (const Json& r : out["runs"])
        EXPECT_EQ(name_of(*find(sized->runs, r["id"].get<std::string>())->size), r["to"]);
    EXPECT_EQ(rail("optimise " + truck_path() + " -o " + folder.file("sized.yourrail.json")).code, 2)
        << "it is there already";
}

TEST(CliOptimise, GoalsStatesAndBadInput) {
    const Json one = Json::parse(rail("optimise " + truck_path() + " --objective sizes --json").out);
    EXPECT_EQ(one["status"], one["kept"].empty() ? "least" : "best_found");
    EXPECT_EQ(one["kept"].empty(), one["against"].empty());
    const Json fewer = Json::parse(rail("optimise " + truck_path() + " --states 'Driving' --json").out);
    const Json all = Json::parse(rail("optimise " + truck_path() + " --json").out);
    EXPECT_LE(fewer["cost"].get<double>() * (1 - fewer["gap"].get<double>()),
              all["cost"].get<double>() + 1e-9)
        << "fewer states ask for less, but for what the others would make of it";
    const Ran text = rail("optimise " + truck_path() + " --keep-fuses");
    EXPECT_EQ(text.code, 0);
    EXPECT_TRUE(text.out.find("proved") != std::string::npos ||
                text.out.find("since other size") != std::string::npos ||
                text.out.find("since thinner") != std::string::npos);
    const Ran bad = rail("optimise " + truck_path() + " --objective beauty");
    EXPECT_EQ(bad.code, 2);
    EXPECT_NE(bad.err.find("--objective"), std::string::npos);
    EXPECT_EQ(rail("optimise " + truck_path() + " --states Flying").code, 2);
    EXPECT_EQ(rail("optimise nowhere.yourrail.json").code, 2);
    const Json price = Json::parse(rail("optimise " + truck_path() + " --price-of beacons --json").out);
    ASSERT_GE(price["points"].size(), 2U);
    EXPECT_GE(price["points"][1]["cost"].get<double>(), price["points"][0]["cost"].get<double>() - 1e-9);
}

TEST(CliFaults, EveryShortWithItsNumbers) {
    const Ran ran = rail("faults " + truck_path() + " --json");
    EXPECT_EQ(ran.code, 1) << "the truck has unfused cables";
    const Json out = Json::parse(ran.out);
    ASSERT_GT(out["rows"].size(), 500U);
    for (const Json& r : out["rows"]) {
        EXPECT_GE(r["most_A"].get<double>(), r["least_A"].get<double>() * 0.999);
        EXPECT_TRUE(r.contains("bus_V") && r.contains("severity") && r.contains("sentence"));
    }
    EXPECT_FALSE(out["assumptions"].empty());
    const Ran one = rail("faults " + truck_path() + " --state Driving --all");
    EXPECT_NE(one.out.find("Driving"), std::string::npos);
    EXPECT_EQ(one.out.find("Overnight"), std::string::npos);
    EXPECT_EQ(rail("faults " + truck_path() + " --state Flying").code, 2);
}

TEST(CliFaults, WhatMattersFirstAndTenLines) {
    const std::string text = rail("faults " + truck_path()).out;
    const auto lines = std::count(text.begin(), text.end(), '\n');
    EXPECT_LE(lines, 13) << "ten, how many more, and the sum (which is wrapped)";
    EXPECT_NE(text.find("more places"), std::string::npos);
    EXPECT_EQ(text.find("\xE2\x96\xA0"), 0U) << "a stop comes first";
    EXPECT_LT(text.rfind("\xE2\x96\xB2"), text.find("\xE2\x97\x8B")) << "and no fix after a check";
    EXPECT_EQ(text.find("to not sure"), std::string::npos);
    EXPECT_GT(rail("faults " + truck_path() + " --all").out.size(), 50 * text.size());
}

TEST(CliStart, ToldInASentenceAndInNumbers) {
    const Ran text = rail("start " + truck_path() + " --state Hoisting --starts 'davit hoist'");
    ASSERT_EQ(text.code, 0) << text.err;
    EXPECT_NE(text.out.find(" dips from "), std::string::npos);
    const Json out = Json::parse(rail("start " + truck_path() + " --state Hoisting --json").out);
    EXPECT_TRUE(out["finished"]);
    EXPECT_LT(out["least_bus_V"], out["before_V"]);
    EXPECT_EQ(out["t_s"].size(), out["bus_V"].size());
    EXPECT_EQ(rail("start " + truck_path() + " --state Hoisting --starts ghost").code, 2);
    EXPECT_EQ(rail("start " + truck_path() + " --state Hoisting --follow 0").code, 2);
}

// Work that takes seconds, and what a person may do meanwhile.
class CliWatch : public testing::Test {
  protected:
    TempFolder folder;
    std::string large(int loads) {
        const std::string file = folder.file("large.yourrail.json");
        write_text(file, to_json_text(wide_plan(loads)));
        return file;
    }
};

TEST_F(CliWatch, ASentenceAndOneWhenItsSecondsAreOver) {
    const std::string plan = large(4000);
    for (const char* command : {"check", "compare", "faults", "sneak", "solve --all-states"}) {
        // a solve of 4 000 loads may be through before anybody looks at the clock
        if (std::string_view(command).starts_with("solve")) (void)large(20000);
        const Ran ran = rail(std::string(command) + " " + plan + " --seconds 0.001");
        EXPECT_EQ(ran.code, 1) << command;
        EXPECT_NE(ran.err.find("Stopped: "), std::string::npos) << command << ran.err;
    }
    const Ran enough = rail("check " + truck_path() + " --seconds 3600");
    EXPECT_EQ(enough.err, "") << "in time: no word of it";
}

TEST_F(CliWatch, TimesThatAreNone) {
    for (const char* wrong : {"0", "-3", "nan", "inf", "soon", "1e9"}) {
        const Ran ran = rail("check " + truck_path() + " --seconds=" + wrong);
        EXPECT_EQ(ran.code, 2) << wrong;
        EXPECT_NE(ran.err.find(wrong), std::string::npos) << ran.err;
    }
}

TEST_F(CliWatch, AnInterruptEndsItAndLeavesNoFileBehind) {
    const std::string plan = large(4000), out = folder.file("sized.yourrail.json");
    const Ran ran = run("timeout --preserve-status -s INT 1 " + test::bin_dir() + "/rail optimise " + plan +
                        " -o " + out);
    EXPECT_EQ(ran.code, 1) << ran.err;
    EXPECT_NE(ran.err.find("Stopped: "), std::string::npos) << ran.err;
    EXPECT_EQ(run("ls -A " + folder.path()).out, "large.yourrail.json\n");
}

TEST_F(CliWatch, ProgressIsForTerminalsOnly) {
    const std::string command = test::bin_dir() + "/rail check " + large(4000) + " --seconds 2.5";
    EXPECT_EQ(run(command + " 2>&1 >/dev/null").out.find("so far"), std::string::npos);
    const Ran on_terminal = run("script -qec '" + command + "' /dev/null </dev/null");
    EXPECT_NE(on_terminal.out.find("so far; Ctrl+C stops"), std::string::npos) << on_terminal.out;
}

TEST(CliSize, TurnsParallelAndFuse) {
    const auto size = [](const std::string& more) {
        return Json::parse(rail("size --current 90A --length 6m --drop 10% --json " + more).out);
    };
    const Json forever = size(""), turns = size("--on 60s --duty 5%"), two = size("--parallel 2"),
               fused = size("--fuse 150A --fuse-type bolt");
    EXPECT_TRUE(forever["table_ok"]);
    EXPECT_LE(turns["area_mm2"], forever["area_mm2"]);
    EXPECT_LT(two["area_mm2"], forever["area_mm2"]);
    EXPECT_GE(fused["area_mm2"], forever["area_mm2"]);
    EXPECT_TRUE(fused["guard_ok"]);
    EXPECT_EQ(rail("size --current 90A --length 6m --parallel 0").code, 2);
    EXPECT_EQ(rail("size --current 90A --length 6m --on 0s").code, 2);
    EXPECT_EQ(rail("size --current 90A --length 6m --fuse-type cork --fuse 30A").code, 2);
}

TEST(CliFuse, SurroundingsAndWhatItMustCutOff) {
    const auto fuse = [](const std::string& more) {
        return rail("fuse --current 20A --wire 10 --json " + more);
    };
    const Json open = Json::parse(fuse("").out),
               hot = Json::parse(fuse("--space engine --ambient 80C --bundle 4").out);
    EXPECT_GT(open["ampacity_A"], hot["ampacity_A"]);
    EXPECT_TRUE(open["guards_cable"]);
    const Json strong = Json::parse(fuse("--short 5000A").out);
    for (const Json& k : strong["kinds"]) EXPECT_NE(k, "blade");
    EXPECT_EQ(fuse("--space attic").code, 2);
}

}  // namespace
}  // namespace yr::test
