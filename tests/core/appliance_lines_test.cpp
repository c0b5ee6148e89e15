// What owners write beside the figures of a thing: how often and how long, on which supply, with which fuse.
// Lines of pages that lost them; what they mean is common practice, no source.
#include <gtest/gtest.h>

#include "plan/condition.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

constexpr const char* kVan = "van 12 V\nbattery 95 Ah\nalternator 150 A\ninverter 2000 W\n";

Plan van_with(const std::string& lines) {
    return typed_page(kVan + lines + "\n");
}

double own_fuse_A(const Plan& plan, const Load& load) {
    for (const Device& d : supply_run(plan, load.id)->devices)
        if (d.kind == DeviceKind::fuse) return d.rating_A;
    return 0;
}

TEST(ApplianceLines, FusesSaidApartAreThoseOfTheirLoads) {
    const Plan p = van_with(
        "HF transceiver 100W, 22A on transmit, 1.5A receive, transmits about 20% of the time\n"
        "VHF/UHF mobile 50W: 11A TX, 0.6A RX\nmast compressor 25A\nfuses: HF 30A, VHF 20, 40A for the mast");
    ASSERT_EQ(p.loads.size(), 3u) << "a fuse is no load";
    const Load& hf = of_name(p.loads, "HF transceiver");
    EXPECT_EQ(hf.draw.value, 22) << "what it sends is not what it draws";
    EXPECT_EQ(hf.duty, 0.2);
    EXPECT_EQ(own_fuse_A(p, hf), 30);
    EXPECT_EQ(own_fuse_A(p, of_name(p.loads, "VHF/UHF mobile")), 20);
    EXPECT_EQ(own_fuse_A(p, of_name(p.loads, "mast compressor")), 40);
    (void)typed_page(kVan + std::string("lamp 5 A\nlamp 6 A\nfuses: lamp 10 A\n"), 1);
}

TEST(ApplianceLines, AFuseIsNoLoadAndItsBoxHasALight) {
    EXPECT_TRUE(typed_page(kVan + std::string("main fuse 100 A\nfuse radio 10 A\nspare fuses 5 A\n"), 3)
                    .loads.empty());
    EXPECT_EQ(van_with("breaker panel lamp 3 W\n\"fuse tester\" 1 A").loads.size(), 2u);
}

TEST(ApplianceLines, AFuseAloneLeavesTheDraw) {
    const Plan p = van_with("rear light 4 A\nrear light: fuse 15 A");
    EXPECT_EQ(p.loads.at(0).draw.value, 4);
    EXPECT_EQ(own_fuse_A(p, p.loads.at(0)), 15);
}

TEST(ApplianceLines, AmpsAtFiveVoltsAreWatts) {
    const Load& usb = of_name(van_with("USB 2 x 2.4A at 5V").loads, "USB");
    EXPECT_EQ(usb.count, 2);
    EXPECT_EQ(usb.draw.kind, DrawKind::power);
    EXPECT_EQ(usb.draw.value, 12);
}

TEST(ApplianceLines, WhatItDrawsAtFirstIsItsStart) {
    for (const char* line :
         {"diesel heater 15 W running, 120 W for the first 3 minutes",
          "diesel heater 15 W, 120 W for first 3 minutes", "diesel heater 15 W, 120 W first 3 min",
          "diesel heater 120 W for the first 3 minutes then 15 W"}) {
        const Load& heater = of_name(van_with(line).loads, "diesel heater");
        EXPECT_EQ(heater.draw.value, 15) << line;
        EXPECT_EQ(heater.inrush_A, 10) << line << ": 120 W of 12 V";
        EXPECT_EQ(heater.inrush_s, 180) << line;
        EXPECT_EQ(heater.live_when, Condition{}) << line << ": no word of the engine";
    }
}

TEST(ApplianceLines, TimesOfADayAreAShareOfIt) {
    const Load& pump = of_name(van_with("grease pump 5 A, 12 times a day, 2 min").loads, "grease pump");
    EXPECT_EQ(pump.on_s, 120);
    EXPECT_NEAR(pump.duty.value_or(0), 24.0 / 1440, 1e-6);
    const Load& fridge = of_name(van_with("fridge 3.5A avg, 6A when running").loads, "fridge");
    EXPECT_EQ(fridge.draw.value, 6);
    EXPECT_NEAR(fridge.duty.value_or(0), 0.59, 1e-9);
    EXPECT_EQ(fridge.live_when, Condition{}) << "it runs, not the engine";
}

TEST(ApplianceLines, WhatIsMadeForMainsHangsOnTheInverter) {
    EXPECT_FALSE(of_name(van_with("kettle 1200 W").loads, "kettle").inverter.empty());
    EXPECT_FALSE(of_name(van_with("microwave 1.2 kW on its own switch").loads, "microwave").inverter.empty());
    EXPECT_TRUE(of_name(van_with("kettle 150 W").loads, "kettle").inverter.empty()) << "one for 12 V";
    EXPECT_TRUE(
        of_name(van_with("kettle element relay 600 W").loads, "kettle element relay").inverter.empty());
    const Plan p =
        van_with("Equipment (AC): mixer 45W, 2 laptops 60W each\nEquipment (DC): fan 3A, lights 24W");
    EXPECT_FALSE(of_name(p.loads, "mixer").inverter.empty());
    EXPECT_EQ(of_name(p.loads, "laptops").count, 2);
    EXPECT_TRUE(of_name(p.loads, "fan").inverter.empty());
}

TEST(ApplianceLines, OneKindInSeveralPlaces) {
    const Plan p = van_with(
        "Work lights: 4 off 30W LED rear, 2 off 20W sides\nRear camera system 24W + 4 cameras 3W ea");
    EXPECT_EQ(of_name(p.loads, "rear work lights").count, 4);
    EXPECT_EQ(of_name(p.loads, "sides work lights").draw.value, 20);
    EXPECT_EQ(of_name(p.loads, "Rear camera system").draw.value, 24);
    EXPECT_EQ(of_name(p.loads, "cameras").count, 4);
    EXPECT_EQ(of_name(van_with("camp lights 4 strips 7W").loads, "camp lights").count, 4);
}

TEST(ApplianceLines, WhatChargesIsSaidInOneLine) {
    const Plan p = typed_page(
        "library bus 12 V\nbattery 95 Ah\nhouse battery 400 Ah lithium\n"
        "Charging: 60 A DC-DC from the alternator (180 A), 4 x 175 W panels with a 50 A MPPT, and a 40 A "
        "mains "
        "charger at the depot.\n");
    EXPECT_EQ(p.loads.size(), 0u);
    EXPECT_EQ(source_of_kind(p, SourceKind::alternator)->rated_A, 180);
    EXPECT_EQ(source_of_kind(p, SourceKind::converter)->rated_A, 60);
    EXPECT_EQ(source_of_kind(p, SourceKind::solar)->rated_A, 50);
    EXPECT_EQ(source_of_kind(p, SourceKind::shore)->rated_A, 40);
    const Plan touring = typed_page(
        "camper 12 V\nbattery 95 Ah\nalternator 120 A\n25A DCDC to 2nd battery 100Ah LFP\n160W solar on roof "
        "thru "
        "the DCDC's MPPT\n");
    EXPECT_EQ(touring.batteries.size(), 2u);
    EXPECT_EQ(source_of_kind(touring, SourceKind::converter)->rated_A, 25);
    EXPECT_TRUE(source_of_kind(touring, SourceKind::solar));
}

TEST(ApplianceLines, WhatStandsBehindADashOrASlash) {
    const Plan p = typed_page(
        "Mobile vet, 12V, 3.5t van\nEngine batt 95Ah 800CCA / Alt 180A\n"
        "House: 2 no. 100Ah LFP in parallel under passenger seat\nDC-DC 40A, engine to house\n"
        "Solar: 2x 175W + 30A MPPT\nShore: 30A charger\nInverter 2kW pure sine\n"
        "Autoclave - 1100W - inverter, 20min twice a day\nSiren/horn - none\n");
    EXPECT_EQ(source_of_kind(p, SourceKind::alternator)->rated_A, 180);
    EXPECT_EQ(source_of_kind(p, SourceKind::shore)->rated_A, 30);
    EXPECT_EQ(source_of_kind(p, SourceKind::solar)->rated_A, 30);
    EXPECT_EQ(p.batteries.size(), 2u);
    ASSERT_EQ(p.loads.size(), 1u) << "a charger is no load, nor is none";
    EXPECT_FALSE(p.loads.front().inverter.empty());
}

TEST(ApplianceLines, ManyOfOneDrawAreCountedAtEachPlace) {
    const Plan p = van_with(
        "work lights: 2 rear, 1 each side, all 18W\n"
        "uhf 3A, dash cam .5A, tablet mount charger 2A all switched with ignition");
    EXPECT_EQ(of_name(p.loads, "rear work lights").count, 2);
    EXPECT_EQ(of_name(p.loads, "side work lights").count, 2);
    for (const char* name : {"uhf", "dash cam", "tablet mount charger"})
        EXPECT_EQ(of_name(p.loads, name).live_when.key, Key::ignition) << name;
}

TEST(ApplianceLines, TheFigureThatCountsIsTheDraw) {
    const Plan p = typed_page(
        "snowcat, 24V\nCat: 24V, alternator 100A, 2x 12V 170Ah\nRadio mast rack on 12V: converter 24/12 20A\n"
        "Radios 3 x 25W (tx 6A each, rx 0.4A)\nHeater fan 6A / 12A (lo/hi)\nMonitor 60W 12V\n");
    EXPECT_EQ(p.loads.size(), 3u) << "a converter is no load, nor what a radio receives with";
    EXPECT_EQ(of_name(p.loads, "Radios").draw.value, 6);
    EXPECT_EQ(of_name(p.loads, "Radios").count, 3);
    EXPECT_EQ(of_name(p.loads, "Heater fan").draw.value, 12);
    EXPECT_EQ(p.batteries.at(0).capacity_Ah, 170) << "two in a row";
    EXPECT_EQ(source_of_kind(p, SourceKind::converter)->rated_A, 20);
    const Plan camper = typed_page(
        "Camper\nChassis battery group 65 750CCA, alt 220A\nShore 55A converter charger\ninverter 2000w\n"
        "Furnace blower 5a thermostat 40%\nCPAP 60w all night (8h) 120v\ncoffee maker 900w 120v 10 minutes\n"
        "stereo amp 60A max fuse, average 10A\n");
    EXPECT_EQ(camper.loads.size(), 4u);
    EXPECT_EQ(source_of_kind(camper, SourceKind::shore)->rated_A, 55);
    EXPECT_EQ(source_of_kind(camper, SourceKind::alternator)->rated_A, 220);
    EXPECT_EQ(of_name(camper.loads, "Furnace blower").duty, 0.4);
    EXPECT_NEAR(of_name(camper.loads, "CPAP").duty.value_or(0), 8.0 / 24, 1e-6);
    EXPECT_EQ(of_name(camper.loads, "coffee maker").on_s, 600);
    EXPECT_EQ(own_fuse_A(camper, of_name(camper.loads, "stereo amp")), 60);
    EXPECT_EQ(of_name(camper.loads, "stereo amp").draw.value, 10);
}

TEST(ApplianceLines, WhatGivesIsRefusedByWhateverNameItHas) {
    for (const char* line :
         {"2x 3kW inverters, one L one R", "towed charging: 8A via 13 pin when driving",
          "charged through the plug 10A", "split by a 140A voltage sensitive relay", "Shore 55A"}) {
        const Notes notes = read_notes(kVan + std::string(line) + "\n", &shipped_library());
        EXPECT_TRUE(notes.plan.loads.empty()) << line;
        EXPECT_EQ(
            std::count_if(notes.lines.begin(), notes.lines.end(), [](const NoteLine& l) { return l.bad(); }),
            1)
            << line;
    }
    EXPECT_EQ(van_with("inverter fan 0.4 A").loads.size(), 1u) << "a part of it that draws";
    (void)typed_page(kVan + std::string("camp lights 4 hooks 7W\n"), 1);
    EXPECT_EQ(van_with("bay 2 lights 7 W").loads.size(), 1u);
}

TEST(ApplianceLines, OnAndOffByTurns) {
    EXPECT_EQ(of_name(van_with("hazer 700W, 5 min on 10 min off").loads, "hazer").duty, 0.34);
    EXPECT_NEAR(of_name(van_with("TV 30W 4 hrs a night").loads, "TV").duty.value_or(0), 4.0 / 24, 1e-6);
    EXPECT_EQ(of_name(van_with("12 work lamps @ 45W").loads, "work lamps").count, 12);
}

TEST(ApplianceLines, ASentenceOfTripsIsNoLoad) {
    (void)typed_page(kVan + std::string("Trips 2h, 5 trips a day, motor averages 60A\n"), 1);
}

// What tows it has the engine: its winch works at any time, and no state cranks.
TEST(ApplianceLines, ATrailerIsChargedByWhatTowsIt) {
    const Plan p = typed_page(
        "support trailer\ntrailer battery 12v 110ah leisure\n"
        "charged through the 7 way plug from tow car, about 10A max\nalso 1 80w solar panel w/ 10a "
        "regulator\n"
        "winch 9000lb 390A max, 70A no load\n");
    EXPECT_EQ(p.loads.size(), 1u) << "what charges is no load";
    EXPECT_EQ(p.loads.at(0).live_when.engine, Engine::any);
    EXPECT_EQ(source_of_kind(p, SourceKind::shore)->rated_A, 10);
    EXPECT_EQ(source_of_kind(p, SourceKind::solar)->rated_A, 10);
    EXPECT_FALSE(std::any_of(p.states.begin(), p.states.end(), [](const State& s) { return s.rpm > 0; }));
}

}  // namespace
}  // namespace yr::test
