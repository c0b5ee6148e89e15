// Pages of other owners: what joins, guards and charges is no load, whoever writes it down; what a heading, a
// dash or a word behind the amps says is heard.
#include <gtest/gtest.h>

#include <algorithm>

#include "plan/rail_volts.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

// What joins batteries, guards them or is counted before its volts is none of the loads, and no lamp gets
// lost.
TEST(OwnersPages, NothingOfTheSupplyIsALoad) {
    const Plan truck = typed_page(
        "coffee truck\nstart battery: 70 Ah\nalternator 90 A\naux battery: AGM 2x 100 Ah\n"
        "isolator relay 100 A between\ninverter/charger 3000W on aux\ngrinder 350 W AC\nfan 2.5 A\n");
    EXPECT_EQ(truck.loads.size(), 2u);
    ASSERT_EQ(truck.batteries.size(), 2u);
    bool joined = false;
    for (const yr::Run& r : truck.runs)
        for (const Device& d : r.devices) joined = joined || d.kind == DeviceKind::sensing_relay;
    EXPECT_TRUE(joined);
    for (const yr::Run& r : truck.runs)
        if (r.to == pos_of(truck.inverters.at(0).id)) EXPECT_EQ(r.from, pos_of(truck.batteries[1].id));
    const Plan kart = typed_page(
        "kart 48 V none\nbattery 48V 150Ah LFP, BMS 200A\ncharger 18 A shore\n"
        "drive motor controller 180A peak 300A 10 s on key, 1 m\ndc/dc 48->12 30A\nhorn 4 A\n");
    EXPECT_EQ(kart.batteries.at(0).cuts_at_A, 200);
    EXPECT_EQ(kart.loads.size(), 2u);
    EXPECT_EQ(of_name(kart.loads, "drive motor controller").inrush_A, 300);
    EXPECT_EQ(rail_V(kart, of_name(kart.loads, "horn")), 12);
    const Plan skip = typed_page(
        "skip loader 24 V\nbattery 180 Ah\nalternator 100 A\nwork lamps 4x 24 V 35 W on ignition + switch, 6 "
        "m\n"
        "tarp motor 24 V 40 A, momentary, 7 m\nhose reel 30 A momentary 5.5 m\n");
    EXPECT_EQ(of_name(skip.loads, "work lamps").count, 4);
    EXPECT_EQ(of_name(skip.loads, "work lamps").live_when.key, Key::ignition);
    for (const char* by_hand : {"work lamps", "tarp motor", "hose reel"})
        EXPECT_EQ(of_name(skip.loads, by_hand).live_when.switches.size(), 1u) << by_hand;
    const Plan brush = typed_page(
        "brush truck\n2 batts group 31, parallel, 1000 CCA each\nalternator 220 A\n"
        "master switch 300A\nbilge pump 5A float switch always\n");
    EXPECT_EQ(brush.batteries.at(0).cranking_A, 2000);
    EXPECT_EQ(of_name(brush.loads, "bilge pump").live_when.switches, std::vector<std::string>{"float"});
    EXPECT_EQ(brush.loads.size(), 1u);
}

// The battery of the engine is that of the engine wherever it stands on the page.
TEST(OwnersPages, WhatIsLivedWithHangsOnTheOtherBattery) {
    const char* const leisure = "leisure: 3 x 110Ah lead acid\n";
    const char* const engine = "engine battery 90Ah\n";
    const char* const rest =
        "alternator 70A to engine battery, VSR to leisure\nshower pump 4 A\ninverter 1500W\n";
    for (const bool leisure_first : {true, false}) {
        const std::string page = "narrow boat\n" + std::string(leisure_first ? leisure : engine) +
                                 (leisure_first ? engine : leisure) + rest;
        const Plan plan = typed_page(page);
        ASSERT_EQ(plan.batteries.size(), 2u);
        EXPECT_EQ(plan.batteries[0].capacity_Ah, 90) << "it starts the engine";
        EXPECT_EQ(plan.batteries[1].capacity_Ah, 330);
        const yr::Run* feed = supply_run(plan, of_name(plan.loads, "shower pump").id);
        ASSERT_TRUE(feed);
        for (const yr::Run& r : plan.runs)
            if (r.to == feed->from) EXPECT_EQ(r.from, pos_of(plan.batteries[1].id)) << leisure_first;
    }
}

TEST(OwnersPages, DashesHeadingsAndWhatARadioSends) {
    const Plan ranger = typed_page(
        "ranger pickup\nAlternator - 200A\nBattery - AGM 78Ah 800CCA\nAux battery - LiFePO4 100Ah, under "
        "rear seat, "
        "charged by 50A DC-DC\nFridge - 6A, aux\nRadio (two-way) - 50W Tx 12A, main battery\nSiren/PA - 100W "
        "10A\n"
        "Spotlights - 2 x 55W, dash switches\nfuel solenoid 3A hold 30A pull 1s, on ignition\n");
    ASSERT_EQ(ranger.batteries.size(), 2u);
    EXPECT_EQ(ranger.batteries[1].name, "aux battery");
    const auto from = [&](const char* name) {
        return supply_run(ranger, of_name(ranger.loads, name).id)->from;
    };
    EXPECT_EQ(from("Fridge"), pos_of(ranger.batteries[1].id));
    EXPECT_EQ(from("Radio"), pos_of(ranger.batteries[0].id));
    EXPECT_EQ(of_name(ranger.loads, "Radio").draw.value, 12) << "it sends 50 W and draws 12 A";
    EXPECT_EQ(of_name(ranger.loads, "Siren/PA").draw.kind, DrawKind::current);
    EXPECT_EQ(of_name(ranger.loads, "Spotlights").count, 2);
    EXPECT_EQ(of_name(ranger.loads, "Spotlights").live_when.switches.size(), 1u);
    EXPECT_EQ(of_name(ranger.loads, "fuel solenoid").draw.value, 3);
    EXPECT_EQ(of_name(ranger.loads, "fuel solenoid").inrush_A, 30);
    const Plan grader = typed_page(
        "road grader 24 V\nBatteries: 2x12V 150Ah series\nAlternator: 24V 80A\nKey switched:\n  work lights "
        "4x 70W\n"
        "Always:\n  tracker 0.2A\nSwitched by the key:\n  HVAC blower 12A\nFrom 24/12 converter 15A:\n  CB "
        "radio 3A\n");
    EXPECT_EQ(of_name(grader.loads, "work lights").live_when.key, Key::ignition);
    EXPECT_EQ(of_name(grader.loads, "HVAC blower").live_when.key, Key::ignition);
    EXPECT_EQ(of_name(grader.loads, "tracker").live_when.key, Key::off);
    EXPECT_EQ(rail_V(grader, of_name(grader.loads, "CB radio")), 12);
    const Plan stage =
        typed_page("stage trailer\nBattery bank: four 6V 225Ah golf cart, series-parallel 12V\nfan 4A\n");
    EXPECT_EQ(stage.batteries.at(0).capacity_Ah, 450);
    EXPECT_EQ(stage.batteries.at(0).nominal_V, 12);
}

TEST(OwnersPages, RelaysFloatsAndWhatIsHeldByHand) {
    const Plan limo = typed_page(
        "limousine 12V\nfront battery 90Ah 800A\nrear battery 2x 100Ah AGM via 150A isolator "
        "relay\nalternator 270A\n"
        "divider motor 10A, up/down switch\nlights: 10 x 2W + reading 4 x 3W\nbilge pumps 3 x 4A, "
        "float\nwindlass 90A\n");
    EXPECT_EQ(limo.batteries.at(1).capacity_Ah, 200);
    EXPECT_FALSE(limo.batteries.at(1).cranking_A) << "the relay's amps crank nothing";
    for (const char* by_hand : {"divider motor", "windlass"})
        EXPECT_EQ(of_name(limo.loads, by_hand).live_when.switches.size(), 1u) << by_hand;
    EXPECT_EQ(of_name(limo.loads, "bilge pumps").live_when.switches, std::vector<std::string>{"float"});
    const long lamps = std::count_if(limo.loads.begin(), limo.loads.end(),
                                     [](const Load& l) { return l.count == 10 || l.count == 4; });
    EXPECT_EQ(lamps, 2) << "ten of two watts and four of three";
}

// The number of a circuit is not how many there are of its lamps; where what is listed is counted, it is.
TEST(OwnersPages, CircuitsByTheirNumbers) {
    const Plan bus = typed_page(
        "library bus, 12 V\nbattery 200 Ah AGM\nalternator 120 A\nhouse fuse box, 4 circuits:\n"
        "1 LED strips shelves 8x 12 W, switch shelves\n2 water pump 7 A, 5% of the time\n"
        "3 wifi router 1.5 A always\n4 heated screen 25 A sw screen, 15 min\n5 spare\n"
        "6 radio 1A rx, 6A tx\n");
    EXPECT_EQ(of_name(bus.loads, "LED strips shelves").count, 8);
    for (const char* one : {"water pump", "wifi router", "heated screen", "radio"})
        EXPECT_EQ(of_name(bus.loads, one).count, 1) << one;
    EXPECT_EQ(of_name(bus.loads, "LED strips shelves").live_when.switches,
              std::vector<std::string>{"shelves"});
    EXPECT_EQ(of_name(bus.loads, "heated screen").live_when.switches, std::vector<std::string>{"screen"});
    EXPECT_DOUBLE_EQ(of_name(bus.loads, "radio").draw.value, 6) << "sending";
    ASSERT_TRUE(of_name(bus.loads, "radio").duty);
    EXPECT_LT(*of_name(bus.loads, "radio").duty, 0.5);
    EXPECT_EQ(bus.loads.size(), 5u) << "a spare circuit is no load";
    const Plan counted = typed_page(
        "van 12 V\nbattery 100 Ah\nalternator 90 A\n1 fridge 5 A\n2 lamps 10 W each\n3 fans 2 A each\n");
    EXPECT_EQ(of_name(counted.loads, "fans").count, 3);
    const Plan few = typed_page(
        "van 12 V\nbattery 100 Ah\nalternator 90 A\n1 fridge 5 A\n2 work lamps 10 W\n3 roof fans 2 A\n");
    EXPECT_EQ(of_name(few.loads, "roof fans").count, 3)
        << "three lines by themselves may be counts: none is lost";
    const Plan stall = typed_page(
        "stall trailer 12 V\nHouse 4x 6V 225Ah golf cart (2s2p)\nlights: 10 LED downlights 7 W each, porch "
        "light 10 W\ninverter/charger 3000W, 125A charger; cable 4/0 1.2 m, class T 350A\n");
    EXPECT_EQ(stall.batteries.at(0).capacity_Ah, 450) << "two strings of two";
    EXPECT_EQ(stall.loads.size(), 2u) << "neither the charger nor its fuse is a load";
    EXPECT_TRUE(
        std::any_of(stall.loads.begin(), stall.loads.end(), [](const Load& l) { return l.count == 10; }));
    EXPECT_EQ(stall.inverters.size(), 1u);
}

// What is asked and denied is not there; what is taken back was never said.
TEST(OwnersPages, WhatIsTakenBack) {
    const Plan boat = typed_page(
        "work boat 24 V? no 12 V\nengine battery 110 Ah\ndomestic battery 2x 120 Ah\nalternator 70 A\n"
        "VSR? no, separate alternators\nown bow battery? no\nhoney pump 1hp?? no - gear pump 22a\n"
        "crane 2.0kW rated 180A\nhook-up 230V -> charger 40A\n");
    EXPECT_EQ(boat.vehicle.nominal_V, 12);
    EXPECT_EQ(boat.batteries.size(), 2u);
    for (const yr::Run& r : boat.runs)
        for (const Device& d : r.devices) EXPECT_NE(d.kind, DeviceKind::sensing_relay);
    EXPECT_TRUE(std::any_of(boat.loads.begin(), boat.loads.end(), [](const Load& l) {
        return l.draw.kind == DrawKind::current && l.draw.value == 22;
    }));
    EXPECT_DOUBLE_EQ(of_name(boat.loads, "crane").draw.value, 180) << "amps, where both are said";
    EXPECT_TRUE(std::any_of(boat.sources.begin(), boat.sources.end(),
                            [](const Source& s) { return s.kind == SourceKind::shore && s.rated_A == 40; }));
    const Plan launch = typed_page(
        "coach's launch (outboard 60 hp, 12v)\nbatt start 80Ah + batt service 100Ah agm\nalternator 17 A\n"
        "nav light 2 A\nelectric start 180 A\n");
    EXPECT_EQ(launch.loads.size(), 2u) << "what the outboard gives is no load";
    EXPECT_EQ(launch.batteries.size(), 2u);
}

// A cart whose battery alone says its volts drives on them; what stands behind "12V:" hangs on the converter.
TEST(OwnersPages, RailsByTheBatteryAndByAHeading) {
    const Plan cart = typed_page(
        "Golf cart, 51.2V LFP 105Ah, BMS 200A\nmotor controller 180A peak 350A, key\n48->12 converter 30A\n"
        "radio 4A 12V\ndriving: key on, radio\nparked: key off\n");
    EXPECT_EQ(cart.vehicle.nominal_V, 48);
    EXPECT_EQ(rail_V(cart, of_name(cart.loads, "motor controller")), 48);
    EXPECT_EQ(rail_V(cart, of_name(cart.loads, "radio")), 12);
    EXPECT_EQ(of_name(cart.loads, "motor controller").live_when.key, Key::ignition);
    for (const State& s : cart.states) EXPECT_EQ(s.rpm, 0) << s.name;
    const Plan truck = typed_page(
        "Overland truck 24V\nStarter batteries 2x 12V 170Ah AGM series\nAlternator 28V 100A\n"
        "House battery 25.6V 200Ah LiFePO4, BMS 200A\n24-12 converter 30A\n"
        "12V: radio 4A, lamps 12x 2W switch lamps, leg motors 2x 5A 1 min\nfridge 24V 60W 40%\n");
    for (const char* low : {"radio", "lamps", "leg motors"})
        EXPECT_EQ(rail_V(truck, of_name(truck.loads, low)), 12) << low;
    EXPECT_EQ(rail_V(truck, of_name(truck.loads, "fridge")), 24);
    EXPECT_EQ(of_name(truck.loads, "leg motors").on_s, 60);
}

// Numbered switches, mains said by their volts, a relay, an average, two things without a comma.
TEST(OwnersPages, HowDrawsAndSwitchesAreSaid) {
    const Plan van = typed_page(
        "Mobile barber van (Sprinter-size), 12 V system\nbattery 95 Ah AGM\nalternator 200 A\n"
        "house: 2 x 150 Ah LFP, each BMS 150 A, under bench\n"
        "Quiet-style inverter/charger 2000 VA / 80 A charger\nhair dryer 1600 W 230 V 10 min at a time\n"
        "light bar 180W sw1\ncube lights 4x 20W sw1\nwork lights front 2x 55W relay\nwork light boom 55W "
        "relay\n"
        "wiper 4A washer 3A\ncab blower 10A max, 4A avg\nfuel lift pump 3A key\n"
        "search: engine running 2500 rpm, sw1, work lights\novernight: wiper only\n");
    EXPECT_EQ(van.vehicle.name, "Mobile barber van");
    EXPECT_EQ(van.inverters.size(), 1u);
    EXPECT_EQ(of_name(van.loads, "hair dryer").inverter, van.inverters.at(0).id);
    EXPECT_EQ(of_name(van.loads, "hair dryer").on_s, 600);
    EXPECT_EQ(of_name(van.loads, "light bar").live_when.switches, std::vector<std::string>{"sw1"});
    EXPECT_EQ(of_name(van.loads, "work lights front").live_when.switches.size(), 1u)
        << "by a relay is by a switch";
    EXPECT_EQ(of_name(van.loads, "washer").draw.value, 3);
    EXPECT_EQ(of_name(van.loads, "cab blower").draw.value, 10);
    EXPECT_DOUBLE_EQ(*of_name(van.loads, "cab blower").duty, 0.4);
    EXPECT_EQ(of_name(van.loads, "fuel lift pump").live_when.key, Key::ignition);
    EXPECT_EQ(of_name(van.states, "search").switches.size(), 3u) << "sw1 and both work lights";
    EXPECT_EQ(van.batteries.at(1).cuts_at_A, 300) << "each of two";
    const Plan given =
        typed_page("van 12 V\nbattery 100 Ah\nalternator 90 A\ninverter 2000 W 230 V\nlamp 5 W\n");
    EXPECT_EQ(given.inverters.size(), 1u) << "what gives mains hangs on none";
    EXPECT_EQ(given.loads.size(), 1u);
    EXPECT_EQ(van.loads.size(), 9u) << "no charger, no converter among them";
}

// What waits for a line further down waits also for what that line itself waits for.
TEST(OwnersPages, LinesWaitForEachOther) {
    const Plan vet = typed_page(
        "Vet van 12V\nstarter battery 80Ah, alternator 150A\ncentrifuge 250W 230V 15 min twice a day\n"
        "inverter 600W near second battery\n"
        "second battery AGM 120Ah rear w/ VSR 140A, 5 m 35 mm2, fuse 100A both ends\nfridge 50W 35%\n");
    ASSERT_EQ(vet.batteries.size(), 2u);
    EXPECT_EQ(of_name(vet.loads, "centrifuge").inverter, vet.inverters.at(0).id);
    bool joined = false, guarded = false;
    for (const yr::Run& r : vet.runs)
        for (const Device& d : r.devices) {
            joined = joined || d.kind == DeviceKind::sensing_relay;
            guarded = guarded || (d.kind == DeviceKind::fuse && d.rating_A == 100);
        }
    EXPECT_TRUE(joined && guarded);
    for (const yr::Run& r : vet.runs)
        if (r.to == pos_of(vet.inverters[0].id)) EXPECT_EQ(r.from, pos_of(vet.batteries[1].id));
}

// Several inverters, and what hangs on each.
TEST(OwnersPages, TwoInvertersByName) {
    const Plan stage = typed_page(
        "stage trailer 12 V\nNo alternator. 2x 200Ah lithium 12.8V in parallel, BMS 150A each\n"
        "2x inverter 1500W each: one for sound, one for lights\n"
        "sound: mixer 120W, amps 2x 500W, laptop 90W -> sound inverter\n"
        "lights: pars 12x 18W, hazer 700W 40% -> lights inverter\nfan 2 A\nshow 4h: sound + lights + fan\n");
    ASSERT_EQ(stage.inverters.size(), 2u);
    EXPECT_EQ(stage.batteries.at(0).cuts_at_A, 300);
    EXPECT_EQ(stage.batteries[0].name, "battery");
    for (const Load& l : stage.loads)
        if (l.name.ends_with("sound"))
            EXPECT_EQ(l.inverter, stage.inverters[0].id) << l.name;
        else if (l.name.ends_with("lights"))
            EXPECT_EQ(l.inverter, stage.inverters[1].id) << l.name;
    EXPECT_EQ(of_name(stage.states, "show").switches.size(), 2u) << "both are on";
    EXPECT_EQ(of_name(stage.states, "show").lasts_s, 4 * 3600);
    for (const State& s : stage.states) EXPECT_EQ(s.rpm, 0) << s.name << ": it has no engine";
}

// A state in few words: who idles or drives has its key on and its engine turning; what is named is on.
TEST(OwnersPages, StatesInFewWords) {
    const Plan truck = typed_page(
        "bee truck 12 V\nbattery 95 Ah AGM\nalternator 160 A\nremote for crane 1 A\n"
        "crane pump 180 A on switch crane\nwork lights 4x 27 W on switch work\n"
        "electric fence energiser 0.15 A all night\ntablet 2 A\nbeacon 2 A on switch beacon\n"
        "loading: engine idling, crane and work lights\nnight move: driving, beacon + fence\n"
        "parked overnight: fence, tablet\ncruise: driving, engine 1600 rpm, beacon\n"
        "all on: key on, everything\nstate yard, idling, work on\nstate tow, driving, key off\n");
    const State& loading = of_name(truck.states, "loading");
    EXPECT_EQ(loading.role, StateRole::idling);
    EXPECT_EQ(loading.key, Key::ignition);
    EXPECT_GT(loading.rpm, 0);
    EXPECT_EQ(loading.switches, (std::vector<std::string>{"crane", "work", "remote for crane"}));
    EXPECT_EQ(of_name(truck.states, "night move").switches,
              (std::vector<std::string>{"beacon", "remote for crane"}));
    EXPECT_GT(of_name(truck.states, "night move").rpm, loading.rpm);
    EXPECT_EQ(of_name(truck.states, "parked overnight").role, StateRole::parked);
    EXPECT_EQ(of_name(truck.states, "parked overnight").key, Key::off);
    EXPECT_EQ(of_name(truck.states, "cruise").rpm, 1600);
    EXPECT_EQ(of_name(truck.states, "all on").switches.size(), 5u)
        << "the tablet is off in the night move, the remote overnight";
    EXPECT_EQ(of_name(truck.states, "parked overnight").switches, std::vector<std::string>{"tablet"});
    EXPECT_GT(of_name(truck.states, "yard").rpm, 0);
    EXPECT_EQ(of_name(truck.states, "tow").key, Key::off) << "as it is said";
    const Notes unknown = read_notes(
        "van 12 V\nbattery 100 Ah\nalternator 90 A\nlamp 5 A on switch lamp\nnight: parked, heater\n",
        &shipped_library());
    EXPECT_EQ(unknown.bad(), 1) << "what is not in the plan is told";
}

}  // namespace
}  // namespace yr::test
