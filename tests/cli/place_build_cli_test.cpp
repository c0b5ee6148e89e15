// rail route, stand, furnish, parts, wires, cut and what they export: text, JSON, files, refusals.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "meter/health.h"
#include "plan/plan_json.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

using Json = nlohmann::json;

Json json_of(const std::string& arguments) {
    const Ran r = rail(arguments + " --json");
    const Json j = Json::parse(r.out, nullptr, false);
    EXPECT_FALSE(j.is_discarded()) << arguments << "\n" << r.out << r.err;
    return j;
}

TEST(CliPlace, TheTrucksWaysAndWhatIsFull) {
    const std::string truck = demo_path(kDemos[0]);
    const Ran text = rail("route " + truck);
    EXPECT_EQ(text.code, 1) << "a hole is too full";
    EXPECT_NE(text.out.find("rear box feed"), std::string::npos);
    EXPECT_NE(text.out.find("Firewall grommet"), std::string::npos);
    const Json j = json_of("route " + truck);
    EXPECT_FALSE(j["fits"]);
    double full = 0;
    for (const auto& p : j["passages"])
        if (p["name"] == "firewall grommet") full = p["share_of_bore"];
    EXPECT_GT(full, 0.8);
    for (const auto& r : j["runs"]) {
        double legs = 0;
        for (const auto& leg : r["legs"]) legs += leg["length_m"].get<double>();
        EXPECT_NEAR(legs, r["way_m"].get<double>(), 1e-9);
        EXPECT_NEAR(r["way_m"].get<double>() + r["slack_m"].get<double>(), r["length_m"].get<double>(), 1e-9);
    }
}

TEST(CliPlace, AVehicleIsFurnishedAndAThingStoodBest) {
    const TempFolder folder;
    const std::string notes = folder.file("a.notes"), bare = folder.file("a.json"),
                      out = folder.file("b.json"), best = folder.file("c.json");
    write_text(notes,
               "vehicle van 12 V\nplace cargo room\nbattery AGM 95 Ah 850 A, engine bay\n"
               "bus rear, fuse 60 A, 5 m, cargo room\nlamp 3 A, 3 m, cargo room\n");
    ASSERT_LE(rail("plan type " + notes + " -o " + bare).code, 1);
    EXPECT_EQ(rail("route " + bare).code, 1) << "nothing stands anywhere yet";
    const Ran made = rail("furnish " + bare + " --outline van --set --follow -o " + out);
    ASSERT_EQ(made.code, 0) << made.err;
    EXPECT_EQ(rail("furnish " + out + " --outline van -o " + best).code, 2) << "it has ways already";
    EXPECT_EQ(rail("furnish " + bare + " --outline boat -o " + best).code, 2);
    const Json j = json_of("route " + out);
    EXPECT_GE(j["runs"].size(), 3u);
    EXPECT_TRUE(j["unjoined"].empty());
    const Ran stood = rail("stand " + out + " rear -o " + best);
    EXPECT_EQ(stood.code, 0) << stood.err;
    const auto plan = load_plan(best);
    ASSERT_TRUE(plan);
    EXPECT_EQ(rail("stand " + out + " nothing").code, 2);
    const std::string svg = folder.file("d.svg");
    EXPECT_EQ(rail("export svg " + out + " --view place -o " + svg).code, 0);
    const std::string drawing = read_text(svg);
    EXPECT_NE(drawing.find("<svg"), std::string::npos);
    EXPECT_NE(drawing.find("rear"), std::string::npos);
    const Ran well_formed =
        run("python3 -c \"import sys,xml.dom.minidom as m; m.parse(sys.argv[1])\" " + svg);
    EXPECT_EQ(well_formed.code, 0) << well_formed.err;
}

TEST(CliBuild, PartsWiresAndCutsAgree) {
    const std::string truck = demo_path(kDemos[0]);
    const Json parts = json_of("parts " + truck), wires = json_of("wires " + truck),
               cuts = json_of("cut " + truck);
    double cable = 0, table = 0, cut = 0;
    for (const auto& p : parts["parts"])
        if (p["kind"] == "cable") cable += p["quantity"].get<double>();
    for (const auto& w : wires["wires"]) table += w["length_m"].get<double>() * w["pieces"].get<int>();
    for (const auto& s : cuts["sizes"]) {
        cut += s["by_the_metre_m"].get<double>();
        for (const auto& r : s["rolls"])
            for (const auto& p : r["pieces"]) cut += p["length_m"].get<double>();
        EXPECT_TRUE(s["proved"]) << s["size"];
    }
    EXPECT_NEAR(cable, table, 1e-6);
    EXPECT_NEAR(cut, table, 1e-6);
    EXPECT_NE(rail("cut " + truck).out.find("by the metre"), std::string::npos);
    const Json three = json_of("parts " + truck + " --vehicles 3");
    EXPECT_EQ(three["parts"].size(), parts["parts"].size());
    const TempFolder folder;
    const std::string book = folder.file("b.xlsx");
    EXPECT_EQ(rail("export xlsx " + truck + " -o " + book).code, 0);
    EXPECT_EQ(rail("export xlsx " + truck + " -o " + book).code, 2) << "not over what is there";
    EXPECT_EQ(rail("export xlsx " + truck + " -o " + book + " --force").code, 0);
}

TEST(CliBuild, TheBatteryMonitorsLogIsReadAsOne) {
    const Ran log = run(test::bin_dir() + "/battery-monitor " + demo_path(kDemos[2]) + " --every 600");
    EXPECT_EQ(log.code, 0) << log.err;
    EXPECT_EQ(log.out.substr(0, 18), "clock,V,A,charge %");
    EXPECT_GT(std::count(log.out.begin(), log.out.end(), '\n'), 140);
    EXPECT_EQ(run(test::bin_dir() + "/battery-monitor " + demo_path(kDemos[2]) + " --day nowhere").code, 2);
}

TEST(CliCheck, DaysAndPlacesAreAmongTheFindings) {
    const Json j = json_of("check " + std::string(demo_path(kDemos[0])));
    std::set<std::string> kinds;
    for (const auto& f : j["findings"]) {
        kinds.insert(f["kind"]);
        if (f["kind"] == "day_no_start") {
            EXPECT_FALSE(f["day"].get<std::string>().empty());
            EXPECT_GE(f["at_s"].get<double>(), 0);
        }
    }
    EXPECT_TRUE(kinds.contains("day_no_start"));
    EXPECT_TRUE(kinds.contains("way_barred")) << "one route past the exhaust";
    EXPECT_TRUE(kinds.contains("passage_full")) << "one hole too full";
}

TEST(CliWork, TheStepsThePowerAndWhatABreakLooksLike) {
    const std::string truck = demo_path(kDemos[0]);
    const Json work = json_of("work " + truck);
    EXPECT_TRUE(work["fewest"].get<bool>());
    EXPECT_GT(work["steps"].size(), 60U);
    EXPECT_NE(rail("work " + truck).out.find("Take the negative off starter battery"), std::string::npos);
    const Json power = json_of("power " + truck + " --lamp 55");
    EXPECT_GE(power["rounds"].size(), 4U);
    for (const auto& r : power["rounds"])
        for (const auto& s : r["steps"]) EXPECT_TRUE(s["solved"].get<bool>());
    EXPECT_NE(rail("power " + truck).out.find("across the lamp"), std::string::npos);
    const Json symptoms = json_of("symptoms " + truck);
    EXPECT_GT(symptoms["symptoms"].size(), 20U);
    const Json quote = json_of("quote " + truck);
    EXPECT_GT(quote["most_h"].get<double>(), quote["least_h"].get<double>());
    EXPECT_FALSE(quote["rate_known"].get<bool>());
    EXPECT_NE(rail("quote " + truck + " --change nothing-like-that").code, 0);
}

TEST(CliWork, TheDiagramIsWrittenSheetBySheet) {
    const TempFolder folder;
    const std::string truck = demo_path(kDemos[0]), out = folder.file("d.svg");
    EXPECT_EQ(rail("export svg " + truck + " --view diagram --sheet 2 -o " + out).code, 0);
    EXPECT_NE(read_text(out).find("headlamps"), std::string::npos);
    const Ran none = rail("export svg " + truck + " --view diagram --sheet 99 -o " + out + " --force");
    EXPECT_EQ(none.code, 2);
    EXPECT_NE(none.err.find("1 to "), std::string::npos) << none.err;
}

TEST(CliPlace, LayoutsOfABoxBecomeOptions) {
    const std::string truck = demo_path(kDemos[0]);
    const TempFolder folder;
    const std::string out = folder.file("o.json");
    const Json j = json_of("stand " + truck + " \"rear box\" --layouts -o " + out);
    ASSERT_EQ(j["options"].size(), 3U);
    EXPECT_GE(j["options"][1]["moved"].size(), 2U);
    const auto plan = load_plan(out);
    ASSERT_TRUE(plan);
    EXPECT_EQ(plan->variants.size(), load_plan(truck)->variants.size() + 2);
    EXPECT_LT(rail("check " + out + " --variant \"Two boxes\"").code, 2);
    const Ran none = rail("stand " + truck + " \"starter battery\" --layouts");
    EXPECT_EQ(none.code, 1);
    EXPECT_NE(none.err.find("no box"), std::string::npos) << none.err;
}

TEST(CliMeter, PointsFaultsAndPractice) {
    const std::string truck = demo_path(kDemos[0]);
    const Json test = json_of("test " + truck);
    EXPECT_TRUE(test["fewest"].get<bool>());
    EXPECT_GT(test["points"].size(), 40U);
    const TempFolder folder;
    const std::string readings = folder.file("r.csv");
    write_text(readings, "red,black,state,volts\nbed ground,,Hoisting,1.30\nrear box,,Hoisting,13.0\n");
    const Json located =
        json_of("locate " + truck + " --readings " + readings + " --complaint \"davit hoist weak Hoisting\"");
    EXPECT_EQ(located["suspects"][0]["thing"], "gnd-bed") << located.dump(1);
    write_text(readings, "red,state,volts\nnowhere,Hoisting,1.3\n");
    const Ran wrong = rail("locate " + truck + " --readings " + readings);
    EXPECT_EQ(wrong.code, 2);
    EXPECT_NE(wrong.err.find("ine 2"), std::string::npos) << wrong.err;
    EXPECT_EQ(rail("locate " + truck + " --complaint \"davit hoist weak nowhere\"").code, 2);
    const Json practise = json_of("practise " + truck + " --seed 3 --level bad_ground");
    EXPECT_GE(practise["best_path"].size(), 1U);
    const std::string typed = folder.file("typed"), script = folder.file("by-hand");
    write_text(typed,
               "volts rear box / scene lights + / Idling\nmend rear box feed\nmend scene lights feed\n");
    write_text(script, test::bin_dir() + "/rail practise " + truck + " --seed 3 --level bad_ground < " +
                           typed + "\n");
    const Ran by_hand = run("sh " + script);
    EXPECT_NE(by_hand.out.find("It was not that"), std::string::npos) << by_hand.out;
    EXPECT_EQ(by_hand.code, 0) << by_hand.out << by_hand.err;
    const Json doubts = json_of("doubts " + truck);
    EXPECT_TRUE(doubts["whole"].get<bool>());
}

TEST(CliMeter, WiresPlugsAndBatteries) {
    const std::string truck = demo_path(kDemos[0]);
    const Json wire = json_of("wire " + truck + " --read 1=0 --read 2=12.4");
    EXPECT_NE(wire["verdict"].get<std::string>().find("accessory"), std::string::npos);
    EXPECT_EQ(wire["fits"].size(), 7U);
    EXPECT_EQ(json_of("wire " + truck)["next"], 1) << "the key off comes first";
    const Ran far = rail("wire " + truck + " --read 99=3");
    EXPECT_EQ(far.code, 2);
    EXPECT_NE(far.err.find("1=value to 12=value"), std::string::npos) << far.err;
    EXPECT_NE(rail("wire " + truck + " --read 1=much").err.find("much"), std::string::npos);

    const Json plugs = json_of("plug " + truck + " --plug \"left side\" --read 1=110 --read 2=100");
    ASSERT_EQ(plugs.size(), 1U);
    EXPECT_TRUE(plugs[0]["proved"].get<bool>());
    EXPECT_NE(plugs[0]["pins"][0]["is"].get<std::string>().find("wire of pin 2"), std::string::npos);
    EXPECT_EQ(plugs[0]["pins"][2]["is"], "") << "not read";
    EXPECT_NE(rail("plug " + truck + " --plug nowhere").err.find("left side"), std::string::npos);

    const TempFolder folder;
    const std::string plan = folder.file("t.json");
    write_text(plan, read_text(truck));
    EXPECT_NE(rail("health " + plan).out.find("no reading"), std::string::npos);
    const Plan read_plan = *load_plan(plan);
    for (const auto& [volts, when] :
         {std::pair{11.4, "2024-10-02"}, std::pair{11.15, "2025-10-02"}, std::pair{10.8, "2026-10-02"}}) {
        Record r = *health_record(read_plan, "battery-1", HealthReading::crank_V, volts, 10.0);
        r.when = when;
        ASSERT_TRUE(append_record(records_path(plan), r));
    }
    const Json health = json_of("health " + plan + " --battery \"starter battery\" --cold -20");
    ASSERT_EQ(health[0]["days"].size(), 3U);
    EXPECT_LT(health[0]["change_V_a_year"], 0);
    EXPECT_NE(rail("health " + plan + " --cold -20").out.find("it will not crank there from"),
              std::string::npos);
    EXPECT_EQ(rail("health " + plan + " --battery nobody").code, 2);

    // as it was built: nothing yet, then kept, then the plan goes on
    EXPECT_NE(rail("built " + plan).out.find("--keep keeps one"), std::string::npos);
    EXPECT_EQ(rail("test " + plan + " --built").code, 2) << "no copy is kept";
    EXPECT_NE(rail("built " + plan + " --keep --by \"A. Fitter\"").out.find("still as"), std::string::npos);
    const std::string before = rail("test " + plan).out;
    Plan later = *load_plan(plan);
    for (yr::Run& r : later.runs)
        if (r.size) r.size = WireSize::awg(2);
    ASSERT_TRUE(save_plan(later, plan));
    EXPECT_NE(rail("built " + plan).out.find("has changed since"), std::string::npos);
    EXPECT_NE(rail("test " + plan).out, before);
    EXPECT_EQ(rail("test " + plan + " --built").out, before) << "by what was built";
    EXPECT_EQ(json_of("built " + plan)["lines"].size(), 1U);
    EXPECT_EQ(json_of("built " + plan)["unchanged"], false);
}

}  // namespace
}  // namespace yr::test
