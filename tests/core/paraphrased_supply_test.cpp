// What gives, joins, charges and stores, each said in many ways: read alike, or told.
#include <gtest/gtest.h>

#include "plan/rail_volts.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

TEST(Paraphrases, OfARelayBetweenBatteriesAreReadAlikeOrTold) {
    static const Plan van =
        typed_page("van 12 V\nstarter battery 95 Ah\nhouse battery 200 Ah\nalternator 120 A\n");
    ReadLines lines;
    for (const char* line : {"VSR 140A",
                             "140A VSR",
                             "split charge relay 140A",
                             "voltage sensing relay 140 A",
                             "voltage sensitive relay 140A",
                             "140A split charge relay between the batteries",
                             "batteries joined by a 140A VSR",
                             "VSR (140A)",
                             "smart split charge relay 140A",
                             "140 amp vsr between starter and house",
                             "charging relay 140A",
                             "battery combiner 140A",
                             "VSR: 140A",
                             "voltage sensitive split charge relay, 140 A",
                             "split charge: 140A relay",
                             "split by a 140A voltage sensitive relay",
                             "140A voltage sensing relay",
                             "split charging relay 140A",
                             "Split-charge relay - 140A",
                             "automatic charging relay 140A",
                             "house battery charged via 140A VSR",
                             "a 140A split charge relay"}) {
        const auto plan = lines.read(van, line);
        if (!plan) continue;
        EXPECT_TRUE(plan->loads.empty()) << line;
        bool joined = false;
        for (const yr::Run& r : plan->runs)
            if (r.from == pos_of(van.batteries.at(0).id) && r.to == pos_of(van.batteries.at(1).id))
                for (const Device& d : r.devices) joined = joined || d.kind == DeviceKind::sensing_relay;
        EXPECT_TRUE(joined) << line;
    }
    EXPECT_GT(lines.right, 4 * lines.told);
}

TEST(Paraphrases, OfWhatRunsOnMainsAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\ninverter 2000 W\n");
    ReadLines lines;
    for (const char* name : {"laptop", "printer (desk)", "tool charger", "sewing machine"})
        for (const char* how : {" 90 W on inverter",
                                " 90W (inverter)",
                                " 90W via inverter",
                                " 90 W 230V",
                                " 230V 90W",
                                " 90W mains",
                                " 90W AC",
                                " 90W on the inverter",
                                " 90 W, inverter",
                                " - 90W - inverter",
                                " 90W from inverter",
                                " 240V 90W",
                                " 90W (mains)",
                                ", 90W, mains",
                                " 90W 120V",
                                ": 90W on inverter",
                                " 90W off the inverter",
                                " (230V) 90W",
                                " 90W @ 230V",
                                " 90 W at 230 V",
                                " 90W 230VAC",
                                ", mains, 90W",
                                " 90W through the inverter",
                                " 90W powered by inverter"}) {
            const std::string line = std::string(name) + how;
            const auto plan = lines.read(van, line);
            if (!plan) continue;
            ASSERT_EQ(plan->loads.size(), 1u) << line;
            EXPECT_FALSE(plan->loads.front().inverter.empty()) << line << " hangs on the battery";
            EXPECT_EQ(plan->loads.front().draw.value, 90) << line;
            EXPECT_EQ(plan->inverters.size(), 1u) << line;
        }
    EXPECT_GT(lines.right, 9 * lines.told);
}

TEST(Paraphrases, OfAConverterAndItsRailAreReadAlikeOrTold) {
    static const Plan truck24 =
        typed_page("truck 24 V\nbatteries 2x 12 V 180 Ah in series\nalternator 100 A\n");
    static const Plan with_rail =
        typed_page("truck 24 V\nbatteries 2x 12 V 180 Ah in series\nalternator 100 A\nconverter 12 V 20 A\n");
    ReadLines lines;
    for (const char* line :
         {"converter 24V to 12V 20A", "24/12 converter 20A", "24V-12V converter 20 A", "20A 24-12V dropper",
          "24 to 12 volt converter 20 amp", "12V converter 20A", "voltage dropper 24/12 20A",
          "24V/12V 20A converter", "DC-DC converter 24/12V 20A", "converter (24/12) 20A",
          "reducer 24v-12v 20A", "24v to 12v dc dc converter 20A", "converter: 24/12 V, 20 A",
          "a 20A 24/12V converter", "20 A converter 24/12 V", "24V to 12V dc-dc 20A", "12 V 20 A converter",
          "converter 12V, 20A", "24-12 dropper (20A)"}) {
        const auto plan = lines.read(truck24, line);
        if (!plan) continue;
        EXPECT_TRUE(plan->loads.empty()) << line;
        const Source* s = source_of_kind(*plan, SourceKind::converter);
        EXPECT_TRUE(s) << line;
        if (!s) continue;
        EXPECT_EQ(s->rated_A, 20) << line;
        EXPECT_NEAR(s->regulated_V.value_or(0), 13, 1.9) << line;
    }
    for (const char* name : {"radio", "phone socket (cab)", "tablet"})
        for (const char* how : {" 3 A 12V",
                                " 12V 3A",
                                " 3A (12V)",
                                " 3A from converter",
                                " 3 A on converter",
                                " 3 A via the converter",
                                " 3A off the dropper",
                                " 3A @ 12V",
                                " 3A at 12 V",
                                ", 12 V, 3A",
                                " 3A on 12V",
                                " 3A from 12V converter",
                                ": 3A 12V",
                                " (12V) 3A",
                                " 3A from the 12V",
                                " 3A, 12 V",
                                " 3A - 12V",
                                " 3 A (from converter)",
                                " 3A on the 12 V side",
                                " 3A 12 volts"}) {
            const std::string line = std::string(name) + how;
            const auto plan = lines.read(with_rail, line);
            if (!plan) continue;
            ASSERT_EQ(plan->loads.size(), 1u) << line;
            EXPECT_NEAR(rail_V(*plan, plan->loads.front()), 13, 1.9) << line << " hangs on 24 V";
            EXPECT_EQ(plan->loads.front().draw.value, 3) << line;
        }
    EXPECT_GT(lines.right, 9 * lines.told);
}

TEST(Paraphrases, OfACableAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    ReadLines lines;
    for (const char* name : {"fan", "camera (rear)", "zone 2 pump"})
        for (const char* how : {" 5 A, 4 m, 6 mm2",
                                " 5A 4m 6mm2",
                                " 5 A, 4 m of 6 mm2",
                                " 5A, 6mm2 x 4m",
                                " 5A, 4m x 6mm2",
                                " 5 A, 6 mm\xC2\xB2, 4 m",
                                " 5A, 6 sq mm, 4m",
                                " 5A, 4 m in 6 mm2",
                                " 5A, 6mm2 cable 4m",
                                " 5A, 4m 6mm2 cable",
                                " 5A, cable 4 m 6 mm2",
                                " 5A (4m of 6mm2)",
                                " 5 A, 4 m run of 6 mm2",
                                " 5A, 4m away, 6mm2",
                                " 5A, 6mm sq, 4 metres",
                                " 5A, 6mm^2, 4m",
                                " 5A - 4m - 6mm2",
                                " 5A, run 4m, 6mm2",
                                " 5A, 4m of 6mm2 twin",
                                ": 5A, 4m, 6 mm2",
                                " 5A, length 4 m, size 6 mm2",
                                " 5A, 4 m, 6 sqmm",
                                " 5A with 4m of 6mm2 cable",
                                " 5A, 6 mm2 wire, 4 m"}) {
            const std::string line = std::string(name) + how;
            const auto plan = lines.read(van, line);
            if (!plan) continue;
            ASSERT_EQ(plan->loads.size(), 1u) << line;
            const yr::Run& feed = *supply_run(*plan, plan->loads.front().id);
            EXPECT_EQ(feed.length_m, 4) << line;
            EXPECT_EQ(feed.size, WireSize::metric(6)) << line;
            EXPECT_EQ(plan->loads.front().draw.value, 5) << line;
            EXPECT_EQ(plan->loads.front().count, 1) << line;
        }
    EXPECT_GT(lines.right, 9 * lines.told);
}

// What gives: of each the lines that say the same.
struct Supplies {
    std::vector<std::string> lines;
    std::string (*wrong)(const Plan&);
};

std::string of_source(const Plan& plan, SourceKind kind, double amps) {
    if (!plan.loads.empty()) return "a load \"" + plan.loads.front().name + "\"";
    const Source* s = source_of_kind(plan, kind);
    if (!s) return "no such source";
    return s->rated_A == amps ? std::string() : "rated " + std::to_string(s->rated_A.value_or(0));
}

const Supplies kSupplies[] = {
    {{"alternator 150 A", "150A alternator", "Alt: 150A", "alternator - 150 A", "alternator rated 150A",
      "150 amp alternator", "alt 150A", "Alternator (150A)", "alternator, 150 A", "alternator output 150A",
      "engine alternator 150A", "a 150 A alternator", "alternator is 150A", "standard alternator 150A",
      "alternator 150 amps max", "150A alt", "Alternator = 150A"},
     [](const Plan& p) { return of_source(p, SourceKind::alternator, 150); }},
    {{"inverter 2000 W", "2000W inverter", "2kW pure sine inverter", "inverter: 2kW", "Inverter - 2000W",
      "2 kW inverter (pure sine)", "2000 VA inverter", "inverter 2000W pure sine wave",
      "pure sine inverter 2000W", "2000 watt inverter", "Inverter (2kW)", "a 2 kW inverter",
      "inverter, 2000 W, pure sine", "230V inverter 2000W", "inverter 2kW 230V", "inverter = 2000W"},
     [](const Plan& p) {
         if (!p.loads.empty()) return "a load \"" + p.loads.front().name + "\"";
         if (p.inverters.size() != 1) return std::string("no inverter");
         return p.inverters.front().continuous_W == 2000 ? std::string() : std::string("other watts");
     }},
    {{"inverter/charger 2000 W, 70 A charger", "inverter/charger 2000W 70A",
      "2 kW inverter-charger, 70 A charge", "inverter charger 2000W, charges 70A from shore",
      "2000W inverter/charger (70A)", "combi inverter 2000W, 70A charger", "inverter/charger: 2000W / 70A",
      "2000W inverter with 70A charger", "Inverter-charger 2 kW + 70A charging", "inverter charger 2000/70",
      "inverter/charger 12V 2000VA 70A", "inverter and charger 2000W 70A",
      "a 2 kW inverter charger with 70 A charging", "inverter charger (2000W, 70A)",
      "inverter 2000W combi with 70A charger", "2000VA/70A inverter charger",
      "Inverter charger 2000/70 (2000W inverter 70A charger)"},
     [](const Plan& p) {
         if (!p.loads.empty()) return "a load \"" + p.loads.front().name + "\"";
         if (p.inverters.size() != 1) return std::string("no inverter");
         if (p.inverters.front().continuous_W != 2000) return std::string("other watts");
         return of_source(p, SourceKind::shore, 70);
     }},
    {{"shore charger 30 A", "30A mains charger", "mains charger - 30A", "battery charger 30A (mains)",
      "charger 30 A from hookup", "hookup charger 30A", "240V charger 30A", "mains charger: 30 A",
      "shore power charger 30A", "30 amp battery charger (240V)", "230V battery charger 30A",
      "Mains: 30A charger", "AC charger 30A", "a 30A mains battery charger", "smart mains charger 30A"},
     [](const Plan& p) { return of_source(p, SourceKind::shore, 30); }},
    {{"dc-dc 30A", "30A DC-DC charger", "DCDC charger 30 A", "B2B 30A", "30A b2b charger",
      "dc to dc charger 30A", "DC-DC charger: 30A", "DC/DC 30 A", "30 amp dc-dc",
      "battery to battery charger 30A", "DC-DC (30A)", "dc-dc charger 30 A from starter battery",
      "30A DC-DC between the batteries", "DC-DC charger, 30A"},
     [](const Plan& p) { return of_source(p, SourceKind::converter, 30); }},
    {{"solar 300W",
      "300W solar panel",
      "2x 150W solar panels",
      "solar: 300 W",
      "300 watts of solar",
      "solar 2 x 150 W",
      "solar panels 300W total",
      "solar - 300W",
      "300W of solar on the roof",
      "solar panels 2 x 150W",
      "300 W solar",
      "roof solar 300W",
      "solar array 300W",
      "2 x 150 watt panels",
      "Solar (300W)",
      "a 300W solar panel",
      "2x 150 W solar",
      "2x 150W of solar on the roof",
      "150W solar panel x2",
      "2 x 150 W solar, mppt 30 A",
      "solar panel 300W + PWM 30A",
      "solar 2x 150W on roof, mppt 12V 30A"},
     [](const Plan& p) {
         if (!p.loads.empty()) return "a load \"" + p.loads.front().name + "\"";
         const Source* s = source_of_kind(p, SourceKind::solar);
         if (!s) return std::string("no panel");
         return std::abs(s->panel_W.value_or(0) - 300) < 1
                    ? std::string()
                    : "of " + std::to_string(s->panel_W.value_or(0)) + " W";
     }}};

TEST(Paraphrases, OfWhatGivesAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nhouse battery 200 Ah\n");
    ReadLines lines;
    for (const Supplies& supply : kSupplies)
        for (const std::string& line : supply.lines) {
            const auto read = lines.read(van, line);
            if (!read) continue;
            const Plan& plan = *read;
            EXPECT_EQ(supply.wrong(plan), "") << line;
        }
    EXPECT_GT(lines.right, 9 * lines.told);
}

// 200 Ah of lead with glass mats, however it is counted and called.
TEST(Paraphrases, OfABatteryAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nstarter battery 95 Ah\n");
    ReadLines lines;
    for (const char* name : {"house battery", "leisure battery", "aux battery", "second battery",
                             "service battery", "leisure batteries"})
        for (const char* hours :
             {"200 Ah", "2x 100 Ah", "2 x 100Ah in parallel", "2 off 100 Ah", "100Ah x 2", "2 x 12V 100Ah",
              "200 amp hours", "2 x 100Ah (200Ah)", "200Ah (2 x 100Ah)", "two 100Ah"})
            for (const char* form : {"N H AGM", "N: H AGM", "AGM H N", "H AGM N", "N - H AGM", "N AGM H",
                                     "N (AGM) H", "N H, AGM", "N, AGM, H", "H N AGM"}) {
                std::string line;
                for (const char* c = form; *c; ++c)
                    line += *c == 'N'                  ? std::string(name)
                            : *c == 'H' && c[1] != 'M' ? std::string(hours)
                                                       : std::string(1, *c);
                const auto read = lines.read(van, line);
                if (!read) continue;
                const Plan& plan = *read;
                EXPECT_TRUE(plan.loads.empty()) << line;
                ASSERT_EQ(plan.batteries.size(), 2u) << line;
                EXPECT_EQ(plan.batteries.back().capacity_Ah, 200) << line;
                EXPECT_EQ(plan.batteries.back().chemistry, Chemistry::agm) << line;
                EXPECT_EQ(plan.batteries.front().capacity_Ah, 95) << line;
            }
    EXPECT_GT(lines.right, 9 * lines.told);
}

}  // namespace
}  // namespace yr::test
