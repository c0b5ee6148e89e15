// The command line as a program: answers, JSON keys, exit codes, sentences for bad input.
#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <filesystem>
#include <nlohmann/json.hpp>

#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

using nlohmann::json;
using testing::HasSubstr;

json answer(const std::string& arguments, int code = 0) {
    const Ran r = rail(arguments + " --json");
    EXPECT_EQ(r.code, code) << arguments << "\n" << r.err;
    json j = json::parse(r.out, nullptr, false);
    EXPECT_FALSE(j.is_discarded()) << r.out;
    return j;
}

TEST(Cli, SizeOfTheHandbookExample) {
    const json j = answer("size --current 10A --length 20ft");
    EXPECT_EQ(j["gauge"], "12 AWG");
    EXPECT_NEAR(j["area_mm2"].get<double>(), 3.309, 1e-3);
    EXPECT_NEAR(j["ampacity_A"].get<double>(), 45, 1e-9);
    EXPECT_LE(j["drop_V"].get<double>(), 0.36);
    EXPECT_EQ(j["decides"], "drop");
    EXPECT_FALSE(j["source"].get<std::string>().empty());
    EXPECT_TRUE(j["assumptions"].is_array());
    EXPECT_EQ(answer("size --current 10A --length 10ft --one-way")["gauge"], "12 AWG") << "one way doubles";
    EXPECT_EQ(answer("size --current 30A --length 6m --sizes metric")["gauge"], "16 mm²")
        << "10 mm² passes cold, but not at the temperature it reaches";
    EXPECT_EQ(answer("size --current 28A --length 6m --sizes metric")["gauge"], "10 mm²");
    EXPECT_EQ(answer("size --current 4000A --length 6m", 1)["gauge"], nullptr);
}

TEST(Cli, SizeTakesEveryOptionOfItsContract) {
    const json j = answer(
        "size --current 40A --length 4m --nominal 24V --drop 5% --insulation 105C --space engine --bundle 3 "
        "--ambient 60C --sizes sae --table abyc");
    EXPECT_THAT(j["gauge"].get<std::string>(), HasSubstr("SAE"));
    EXPECT_NEAR(j["drop_limit_V"].get<double>(), 1.2, 1e-12);
}

TEST(Cli, CableAndFuse) {
    const json c = answer("cable 10 --length 1000ft --temp 75C");
    EXPECT_NEAR(c["resistance_ohm"].get<double>(), 1.24, 0.02);
    EXPECT_NEAR(c["area_mm2"].get<double>(), 5.261, 1e-3);
    EXPECT_NEAR(c["ampacity_A"].get<double>(), 60, 1e-9);
    EXPECT_NEAR(answer("cable 25mm2")["resistance_ohm"].get<double>(), 0.78e-3, 1e-9);
    EXPECT_EQ(answer("fuse --current 8A --wire 14 --school load150")["fuse_A"], 15);
    EXPECT_EQ(answer("fuse --current 22A --inrush 30.5A --wire 8")["fuse_A"], 35);
    EXPECT_EQ(answer("fuse --current 22A --inrush 90A --wire 14", 1)["fuse_A"], nullptr);
}

TEST(Cli, SolveGivesEveryNumberWithItsUnit) {
    const json j = answer("solve " + truck_path() + " --state Idling");
    EXPECT_EQ(j["state"], "Idling");
    EXPECT_TRUE(j["residuals"]["good"].get<bool>());
    EXPECT_EQ(j["loads"].size(), 26U);
    EXPECT_TRUE(j["loads"][1].contains("drop_V"));
    EXPECT_TRUE(j["runs"][0].contains("ampacity_A"));
    EXPECT_FALSE(j["assumptions"].empty());
    EXPECT_EQ(answer("solve " + truck_path() + " --all-states")["states"].size(), 7U);
    EXPECT_THAT(rail("solve " + truck_path()).out, HasSubstr("alternator 180 A"));
}

TEST(Cli, SolveTellsInvertersRelaysAndTheEnginesShare) {
    const json j = answer("solve " + truck_path() + " --state Hoisting");
    EXPECT_EQ(j["inverters"][0]["status"], "on");
    EXPECT_NEAR(j["inverters"][0]["mains_W"].get<double>(), 400, 1e-9);
    EXPECT_NEAR(j["inverters"][0]["input_W"].get<double>(), 9 + 400 / 0.88, 1e-6);
    EXPECT_GT(j["sources"][0]["shaft_W"].get<double>(), 2500) << "137 A at 12.6 V and 58 %";
    bool coil = false;
    for (const json& r : j["relays"])
        coil = coil || (r["name"] == "hoist contactor" && r["closed"].get<bool>());
    EXPECT_TRUE(coil);
}

TEST(Cli, VariantsAreSolvedCheckedAndCompared) {
    const std::string relay = " --variant 'sensing relay, AGM second battery'";
    const json j = answer("solve " + truck_path() + " --state Driving" + relay);
    for (const json& r : j["relays"])
        if (r["name"] == "sensing relay") EXPECT_TRUE(r["closed"].get<bool>()) << "it closes while charging";
    EXPECT_GE(answer("check " + truck_path() + relay, 1)["findings"].size(), 5U);
    const Ran bad = rail("solve " + truck_path() + " --variant nonsense");
    EXPECT_EQ(bad.code, 2);
    EXPECT_THAT(bad.err, HasSubstr("--variant"));
    const json c = answer("compare " + truck_path());
    ASSERT_EQ(c["options"].size(), 6U);
    EXPECT_EQ(c["options"][0]["name"], "as planned");
    EXPECT_LT(c["options"][0]["idle_balance_A"].get<double>(), 0);
    EXPECT_GE(c["options"][1]["idle_balance_A"].get<double>(), 0);
    EXPECT_THAT(rail("compare " + truck_path()).out, HasSubstr("bigger alternator"));
}

TEST(Cli, LoadsGoOutAsATable) {
    const Ran ran = rail("export csv " + truck_path() + " -o -");
    EXPECT_EQ(ran.code, 0);
    EXPECT_EQ(std::count(ran.out.begin(), ran.out.end(), '\n'), 27) << "a heading and a row a load";
    EXPECT_THAT(ran.out, HasSubstr("\"scene lights\",2,90 W"));
    EXPECT_EQ(rail("export csv " + truck_path() + " -o /no/such/folder/x.csv").code, 2);
}

TEST(Cli, SurveySaysWhatIsProvedAndWhatToReadNext) {
    const json j = answer("survey " + truck_path());
    EXPECT_FALSE(j["asks"].empty());
    EXPECT_EQ(j["conclusions"].size(), 3U);
    for (const json& f : j["joins"]) EXPECT_FALSE(f["reason"].get<std::string>().empty());
    EXPECT_THAT(rail("survey " + truck_path()).out, HasSubstr("Cab socket hangs on front battery"));
}

TEST(Cli, CheckExitsByWhatItFinds) {
    const json j = answer("check " + truck_path(), 1);
    EXPECT_GE(j["counts"]["stop"].get<int>(), 2);
    for (const json& f : j["findings"]) {
        EXPECT_FALSE(f["sentence"].get<std::string>().empty());
        EXPECT_FALSE(f["source"].get<std::string>().empty());
    }
    const TempFolder folder;
    ASSERT_EQ(rail("plan new " + folder.file("n.yourrail.json")).code, 0);
    EXPECT_EQ(rail("check " + folder.file("n.yourrail.json")).code, 0)
        << "a new plan has nothing to stop or fix";
    EXPECT_EQ(rail("plan validate " + folder.file("n.yourrail.json")).code, 0);
    EXPECT_EQ(rail("plan new " + folder.file("n.yourrail.json")).code, 2) << "nothing is written over";
    EXPECT_EQ(rail("plan convert " + truck_path() + " -o " + folder.file("c.json")).code, 0);
    EXPECT_EQ(read_text(folder.file("c.json")), read_text(truck_path()));
}

TEST(Cli, BadInputIsOneSentenceThatNamesTheArgument) {
    const TempFolder folder;
    write_text(folder.file("bad.json"), "{\"format\": \"your-rail-plan\", ");
    const std::pair<std::string, std::string> cases[] = {
        {"size --current banana --length 20ft", "--current"},
        {"size --current 10A --length 20kg", "--length"},
        {"size --current 10A --length 5m --space boat", "--space"},
        {"size --current 10A --length 5m --table nec", "--table"},
        {"size --current -4A --length 5m", "--current"},
        {"size --current 10A", "--length"},
        {"cable 11.5", "SIZE"},
        {"fuse --current 8A --wire 99", "--wire"},
        {"fuse --current 8A --wire 10 --school mine", "--school"},
        {"check " + folder.file("bad.json"), "line 1"},
        {"solve " + folder.file("none.json"), "none.json"},
        {"solve " + truck_path() + " --state Flying", "--state"},
        {"plan validate " + folder.file("bad.json"), "bad.json"},
        {"export spice " + truck_path() + " -o " + folder.file("no/way.cir"), "way.cir"},
        {"frobnicate", "frobnicate"}};
    for (const auto& [arguments, place] : cases) {
        const Ran r = rail(arguments);
        EXPECT_EQ(r.code, 2) << arguments;
        EXPECT_THAT(r.err, HasSubstr(place)) << arguments;
        EXPECT_EQ(std::count(r.err.begin(), r.err.end(), '\n'), 1) << r.err;
        EXPECT_EQ(r.out, "") << arguments;
    }
    EXPECT_FALSE(std::filesystem::exists(folder.file("no")));
}

TEST(Cli, SpiceExportIsWritten) {
    const TempFolder folder;
    ASSERT_EQ(rail("export spice " + truck_path() + " -o " + folder.file("t.cir") + " --state Driving").code,
              0);
    const std::string deck = read_text(folder.file("t.cir"));
    EXPECT_THAT(deck, HasSubstr("River-gauging truck, Driving"));
    EXPECT_THAT(deck, HasSubstr(".op"));
}

TEST(Cli, HelpIsGood) {
    EXPECT_EQ(rail("--help").code, 0);
    EXPECT_EQ(rail("size --help").code, 0);
    EXPECT_EQ(rail("--version").code, 0);
}

// ASTM B258 gives every gauge its area; beyond the ampacity table it is said.
TEST(Cli, CableTakesAnyGauge) {
    for (const char* size : {"26", "30", "40 AWG"}) {
        const Ran r = rail(std::string("cable \"") + size + "\"");
        EXPECT_EQ(r.code, 0) << size;
        EXPECT_NE(r.out.find("beyond the table"), std::string::npos) << size;
    }
    EXPECT_EQ(rail("cable 10").out.find("beyond the table"), std::string::npos);
    EXPECT_EQ(rail("cable 41").code, 2);
    const json thin = json::parse(rail("cable 36 --json").out);
    EXPECT_NEAR(thin["area_mm2"].get<double>(), 0.012668, 1e-5);  // ASTM B258: 36 AWG is 5 mils
}

TEST(Cli, WhatDoesNotGetOutIsAnError) {
    EXPECT_EQ(run("sh -c '" + test::bin_dir() + "/rail cable 10 >/dev/full'").code, 2);
    EXPECT_EQ(run("sh -c '" + test::bin_dir() + "/rail plan validate nothing 2>&-'").code, 2);
    EXPECT_EQ(rail("size --current 1,500W --length 3m").code, 2);
    EXPECT_EQ(rail("size --current 15A --length 3m --ambient -300C").code, 2);
    EXPECT_EQ(rail("fuse --current 5A --wire 14 --short -5A").code, 2);
}

}  // namespace
}  // namespace yr::test
