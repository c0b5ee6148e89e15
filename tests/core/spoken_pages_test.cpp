// Pages that say several things in one breath, and words that people say beside a figure.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>

#include "inspect/findings.h"
#include "plan/condition.h"
#include "plan/rail_volts.h"
#include "size/run_limits.h"
#include "support/folders.h"
#include "support/run_program.h"
#include "support/typed_page.h"
#include "typing/typed_line.h"
#include "units/text.h"

namespace yr::test {
namespace {

const yr::Run& from_source(const Plan& plan, const Source& s) {
    const auto run = std::find_if(plan.runs.begin(), plan.runs.end(),
                                  [&](const yr::Run& r) { return r.from == out_of(s.id); });
    EXPECT_NE(run, plan.runs.end()) << s.name;
    return *run;
}

// Who says which battery an alternator charges, a starter turns on or a winch pulls from gets that one.
TEST(SpokenPages, WhatIsSaidOfABatteryHangsOnThatOne) {
    const Plan boat = typed_page(
        "boat\nstart battery 80 Ah\nhouse battery 200 Ah\nalternator 70 A to start battery\n"
        "second alternator 120 A for the house\nwinch 100 A, on house battery, 3 m\nradio 3 A\n");
    const auto id = [&](const char* name) { return of_name(boat.batteries, name).id; };
    EXPECT_EQ(from_source(boat, of_name(boat.sources, "alternator")).to.owner, id("start battery"));
    EXPECT_EQ(from_source(boat, of_name(boat.sources, "second alternator")).to.owner, id("house battery"));
    const yr::Run& winch = of_name(boat.runs, "winch feed");
    EXPECT_EQ(winch.from.owner, id("house battery"));
    // nothing said: the one that starts the engine
    const Plan van = typed_page("van\nalternator 90 A\nbattery 80 Ah\nhouse battery 100 Ah\n");
    EXPECT_EQ(from_source(van, van.sources.front()).to.owner, van.batteries.front().id);
}

// Two engines, each with its battery, and the house charged from both.
TEST(SpokenPages, TwoEnginesChargeOneHouse) {
    const Plan boat = typed_page(
        "patrol boat\noutboard port 115 hp charging 35 A with battery port 80 Ah\n"
        "outboard stbd 115 hp charging 35 A with battery stbd 80 Ah\nhouse battery 2x 105 Ah AGM\n"
        "VSR between port and house, VSR between stbd and house\nVHF 1.5 A / 6 A tx\n");
    ASSERT_EQ(boat.batteries.size(), 3U);
    const Id house = of_name(boat.batteries, "house battery").id;
    for (const char* side : {"port", "stbd"}) {
        const std::string name = side;
        const Id own = of_name(boat.batteries, name + " battery").id;
        EXPECT_EQ(from_source(boat, of_name(boat.sources, name + " alternator")).to.owner, own);
        EXPECT_TRUE(std::any_of(boat.runs.begin(), boat.runs.end(), [&](const yr::Run& r) {
            return r.from == pos_of(own) && r.to == pos_of(house) &&
                   std::any_of(r.devices.begin(), r.devices.end(),
                               [](const Device& d) { return d.kind == DeviceKind::sensing_relay; });
        })) << side;
    }
    const auto linked = std::count_if(boat.runs.begin(), boat.runs.end(), [&](const yr::Run& r) {
        return find(boat.batteries, r.from.owner) && find(boat.batteries, r.to.owner) &&
               r.from.post == Post::pos;
    });
    EXPECT_EQ(linked, 2) << "the two that start engines are not joined";
    EXPECT_EQ(of_name(boat.runs, "main block feed").from.owner, house)
        << "what is lived with hangs on the house";
    EXPECT_DOUBLE_EQ(of_name(boat.loads, "VHF").draw.value, 6);
    EXPECT_NEAR(of_name(boat.loads, "VHF").duty.value_or(1), 0.1 + 0.9 * 1.5 / 6, 0.01);
}

// A word that is left over does not make the page's first battery a further one.
TEST(SpokenPages, TheFirstBatteryIsTheFirstThoughAWordIsLeftOver) {
    const Plan skiff = typed_page(
        "skiff\nstarting battery 80 Ah 650 CCA 33 zorks\ntrolling motor 55 A, own battery 105 Ah\nradio 2 "
        "A\n",
        1);
    ASSERT_EQ(skiff.batteries.size(), 2U);
    EXPECT_EQ(skiff.batteries.front().name, "starting battery");
    EXPECT_EQ(skiff.batteries.front().cranking_A, 650);
    const Plan both = typed_page(
        "fishing skiff with outboard 60 hp (20 A charging), 12 V\n"
        "starting battery 80 Ah, house battery 100 Ah AGM, battery switch 1-2-both\nradio 2 A\n");
    EXPECT_EQ(both.vehicle.name, "fishing skiff");
    EXPECT_EQ(both.batteries.size(), 2U);
    ASSERT_TRUE(source_of_kind(both, SourceKind::alternator));
    EXPECT_EQ(source_of_kind(both, SourceKind::alternator)->rated_A, 20);
}

// A state that says a charger or a thing of its own is no load of that long name.
TEST(SpokenPages, AStateMaySayAThingOfItsOwn) {
    const Plan van = typed_page(
        "ambulance\nalternator 200 A\nbattery 100 Ah\nfridge 4 A\nterminal 5 A\nradio 8 A\n"
        "on call: radio, terminal\nstandby on shore: fridge, terminal, charger 30 A\nnight: fridge, router "
        "0.5 A\n");
    EXPECT_EQ(van.loads.size(), 4U);
    ASSERT_TRUE(source_of_kind(van, SourceKind::shore));
    EXPECT_EQ(source_of_kind(van, SourceKind::shore)->rated_A, 30);
    EXPECT_TRUE(
        holds(source_of_kind(van, SourceKind::shore)->works_when, of_name(van.states, "standby on shore")));
    EXPECT_DOUBLE_EQ(of_name(van.loads, "router").draw.value, 0.5);
    EXPECT_TRUE(holds(of_name(van.loads, "router").live_when, of_name(van.states, "night")));
    // what it names again is no second one
    const Plan cart = typed_page(
        "48 V cart\n48 V 100 Ah lithium\nmotor controller 150 A\nbeacon 12 W 12 V\nconverter 20 A\n"
        "working: motor controller at 90 A, beacon\n",
        1);
    EXPECT_EQ(cart.loads.size(), 2U);
}

// What tows gives its amps while it tows, with its key, and a plug in a wall has nothing to do with it.
TEST(SpokenPages, AChargeLineWorksWhileTowed) {
    for (const char* line : {"tow vehicle charge line 20 A", "dcdc 20 A from tow vehicle",
                             "tow vehicle charge line 12 V via plug, 20 A dcdc on trailer, 25 A"}) {
        const Plan trailer = typed_page("camper trailer\nbattery 100 Ah AGM\n" + std::string(line) +
                                        "\nshore charger 15 A\nfan 2 A\ncamping: fan\ntowing: fan, dcdc\n");
        ASSERT_EQ(trailer.batteries.size(), 1U) << line << ": the tow vehicle's own is not in it";
        const Source& charge = of_name(trailer.sources, "charge line");
        EXPECT_EQ(charge.rated_A, 20) << line;
        EXPECT_TRUE(holds(charge.works_when, of_name(trailer.states, "towing"))) << line;
        EXPECT_FALSE(holds(charge.works_when, of_name(trailer.states, "Plugged in"))) << line;
        EXPECT_FALSE(holds(charge.works_when, of_name(trailer.states, "camping"))) << line;
    }
}

TEST(SpokenPages, WhatIsPluggedInIsCalledSo) {
    const Plan pickup = typed_page(
        "pickup\nalternator 130 A\nbattery 95 Ah 850 A CCA\n"
        "7 pin trailer socket: tail lights 6 A, stop lights 8 A, indicators 4 A\ntail lights 2 A\n"
        "winch 440 A peak, on front bumper 2.2 m from battery\nlamp bar 60 W on roof rack, 4 m\n");
    EXPECT_EQ(pickup.batteries.front().cranking_A, 850);
    for (const char* name :
         {"trailer tail lights", "trailer stop lights", "trailer indicators", "tail lights"})
        EXPECT_GT(of_name(pickup.loads, name).draw.value, 0) << name;
    const Load& winch = of_name(pickup.loads, "winch");
    EXPECT_DOUBLE_EQ(winch.draw.value, 440);
    EXPECT_EQ(name_of(pickup, winch.place), "front bumper");
    EXPECT_EQ(supply_run(pickup, winch.id)->length_m, 2.2);
    for (const Load& l : pickup.loads)
        for (const std::string& s : l.live_when.switches) EXPECT_NE(s, "roof rack") << l.name;
}

// Of figures that are said twice or with other words.
TEST(SpokenPages, WordsBesideFigures) {
    Plan plan = typed_page("van\nalternator 90 A\nsingle 60 Ah AGM starter battery 540 A CCA\n");
    EXPECT_EQ(plan.batteries.size(), 1U);
    EXPECT_EQ(plan.batteries.front().name, "starter battery");
    EXPECT_EQ(plan.batteries.front().capacity_Ah, 60);
    ReadLines lines;
    const auto load = [&](const char* line, const char* name) {
        const auto with = lines.read(plan, line);
        return with ? of_name(with->loads, name) : Load{};
    };
    for (const char* line :
         {"diesel heater 2 A running, 10 A glow", "diesel heater: 10 A start up then 2 A"}) {
        const Load heater = load(line, "diesel heater");
        EXPECT_DOUBLE_EQ(heater.draw.value, 2) << line;
        EXPECT_EQ(heater.inrush_A, 10) << line;
        EXPECT_EQ(heater.live_when.engine, Engine::any) << "“running” is not the engine: " << line;
    }
    for (const char* line :
         {"fridge 65 W must never drop out, alarm below 11.5 V",
          "fridge 65 W, critical, needs at least 11.5 V", "fridge 65 W critical, cuts out at 11.5 V"}) {
        const Load fridge = load(line, "fridge");
        EXPECT_TRUE(fridge.critical) << line;
        EXPECT_EQ(fridge.least_V, 11.5) << line;
        EXPECT_FALSE(fridge.plate_V) << line;
    }
    EXPECT_EQ(load("pump 5 A cycling 40 percent", "pump").duty, 0.4);
    EXPECT_EQ(load("fence unit 1.2 A, day and night", "fence unit").live_when, Condition{});
    EXPECT_EQ(load("x-ray 200 W for short bursts of 2 s", "x-ray").on_s, 2);
    EXPECT_EQ(load("glow plugs 60 A", "glow plugs").on_s, 20);
    EXPECT_EQ(load("work lights 4 x 70 W on boom and cab", "work lights boom and cab").count, 4);
    const auto lights = lines.read(plan, "lights 60 W head, 20 W tail");
    ASSERT_TRUE(lights);
    EXPECT_DOUBLE_EQ(of_name(lights->loads, "head lights").draw.value, 60);
    EXPECT_DOUBLE_EQ(of_name(lights->loads, "tail lights").draw.value, 20);
    const auto arm = lines.read(plan, "stop arm 5 A with beacon 4 A");
    ASSERT_TRUE(arm);
    EXPECT_DOUBLE_EQ(of_name(arm->loads, "beacon").draw.value, 4);
    EXPECT_EQ(lines.told, 0);
}

// A load whose name begins with a word that says another kind of thing is a load, when all it says is what it
// draws.
TEST(SpokenPages, ANameMayBeginWithAWordOfOurs) {
    const Plan plan = typed_page("van\nalternator 90 A\nbattery 80 Ah\nfan 3 A\n");
    ReadLines lines;
    for (const char* name : {"box fan", "ground lights", "bus radio", "plug lamp", "cable reel motor",
                             "relay coils", "strap light", "stud finder", "place lamp", "day light",
                             "reading lamp", "connector light", "master cylinder pump", "joiner lamp"}) {
        const auto with = lines.read(plan, std::string(name) + " 5 A, 2 m");
        ASSERT_TRUE(with) << name;
        EXPECT_DOUBLE_EQ(of_name(with->loads, name).draw.value, 5);
        EXPECT_EQ(with->points.size(), plan.points.size()) << name;
    }
    for (const char* line : {"reading lamp @ 5A, 3 m", "reading light 0.5-5 A", "day light draws 5 A",
                             "reading lamp x2 5 A each"})
        EXPECT_TRUE(lines.read(plan, line)) << line;
    // what says more than that is what it was
    const auto box = lines.read(plan, "box cab 4 channels 10 A");
    ASSERT_TRUE(box);
    EXPECT_EQ(box->loads.size(), plan.loads.size());
    for (const char* line : {"bus rear 60 A, 3 m", "master between battery and main block 200 A",
                             "reading battery 12.8 V key off", "stud front, fuse 60 A, 2 m"}) {
        const auto with = lines.read(plan, line);
        ASSERT_TRUE(with) << line;
        EXPECT_EQ(with->loads.size(), plan.loads.size()) << line;
    }
}

// Engine and house, chargers and counts, as lists and labels have them.
TEST(SpokenPages, ListsAsPeopleKeepThem) {
    const Plan truck = typed_page(
        "food truck\n- chassis alternator 160A, chassis battery 100Ah\n- house bank: 4 x 100Ah lithium in "
        "galley\n"
        "- dc dc 60A\n- 3000W inverter, 4/0 cable 4 ft, 400A fuse\n"
        "- loads on inverter: griddle 1800W, till 60W\n- 12V: freezer 9A, water pump 7A 20 psi, LED lights "
        "4A\n"
        "- generator 7kW w/ 100A converter charger\nservice: griddle, till, freezer\n"
        "overnight shore: charger, freezer\n");
    EXPECT_EQ(truck.loads.size(), 5U);
    for (const char* name : {"griddle", "till"})
        EXPECT_FALSE(of_name(truck.loads, name).inverter.empty()) << name;
    EXPECT_DOUBLE_EQ(of_name(truck.loads, "water pump").draw.value, 7);
    ASSERT_TRUE(source_of_kind(truck, SourceKind::shore));
    EXPECT_EQ(source_of_kind(truck, SourceKind::shore)->rated_A, 100);
    EXPECT_TRUE(holds(source_of_kind(truck, SourceKind::shore)->works_when,
                      of_name(truck.states, "overnight shore")));
    ASSERT_TRUE(source_of_kind(truck, SourceKind::converter));
    EXPECT_EQ(source_of_kind(truck, SourceKind::converter)->rated_A, 60);
    const Plan car = typed_page(
        "1. alternator 100 amps\n2. battery 75 amp hours 650 cold cranking amps\n3. headlights 2 times 60 "
        "watts\n"
        "4. heater 20 amps\n5. rear defogger 20 amps\n6. stereo amplifier 600 watts RMS, 60 amps max fuse\n");
    EXPECT_EQ(car.batteries.front().cranking_A, 650);
    EXPECT_EQ(of_name(car.loads, "headlights").count, 2);
    for (const char* name : {"heater", "rear defogger"})
        EXPECT_EQ(of_name(car.loads, name).live_when.key, Key::ignition) << name;
    const yr::Run& sound = *supply_run(car, of_name(car.loads, "stereo amplifier").id);
    ASSERT_FALSE(sound.devices.empty());
    EXPECT_DOUBLE_EQ(sound.devices.front().rating_A, 60);
    const Plan boat = typed_page(
        "electric tender 48 volt\nmotor 6 kW max, controller 150 A\n4 batteries 12 V 150 Ah AGM in series\n"
        "step down converter 48 to 12 V 20 A\nnav lights 10 W\n");
    EXPECT_DOUBLE_EQ(of_name(boat.loads, "motor controller").draw.value, 150);
    EXPECT_EQ(of_name(boat.loads, "motor controller").live_when.key, Key::ignition);
    EXPECT_EQ(supply_run(boat, of_name(boat.loads, "nav lights").id)->from.owner,
              of_name(boat.points, "converter bus").id);
    const Plan lorry = typed_page(
        "horse lorry 24 V\n24V: alternator 80A, 2x 12V 180Ah series\n"
        "leisure 2x 110Ah charged by 24-12 charger 30A\nwinch for ramp 60A 20s\n");
    ASSERT_EQ(lorry.batteries.size(), 2U);
    EXPECT_EQ(lorry.batteries.front().nominal_V, 24);
    EXPECT_EQ(lorry.batteries.front().capacity_Ah, 180);
    EXPECT_EQ(lorry.batteries.back().nominal_V, 12);
    EXPECT_EQ(lorry.batteries.back().capacity_Ah, 220);
    EXPECT_EQ(of_name(lorry.loads, "ramp winch").on_s, 20);
}

// Where a battery stands from its alternator is how long the charge cable is, and makes it no second battery.
TEST(SpokenPages, HowFarABatteryIsFromItsAlternator) {
    const Plan bus = typed_page(
        "bus\nalternator 180 A\nstarter battery 110 Ah 950 CCA, 1.2 m from alternator\n"
        "house bank 3x 120 Ah AGM, 5 m from starter battery, joined by VSR 250 A\nradio 3 A\n");
    ASSERT_EQ(bus.batteries.size(), 2U);
    EXPECT_EQ(bus.batteries.front().cranking_A, 950);
    EXPECT_EQ(of_name(bus.runs, "charge cable").length_m, 1.2);
    EXPECT_EQ(of_name(bus.runs, "link to house bank").length_m, 5);
}

// A lorry's 24 V and a living area's 12 V: “12 V 2x 100 Ah” lie side by side, and what grounds them stands
// the inverter's fuse.
TEST(SpokenPages, TwelveVoltsInALorry) {
    const Plan lorry = typed_page(
        "race lorry, 24 V\n24V alternator 100 A, 2x 12V 225Ah batteries series\n"
        "24-12 dc dc charger 40 A to living battery\nliving battery 12 V 2x 100 Ah lithium\n"
        "fridge 12 V 5 A\ncompressor 24 V 60 A\ninverter 12 V 2000 W on living battery\n"
        "coffee machine 1400 W on inverter\nwork lights roof 8x 70W, rear 4x 70W\nscreen heater 30 A\n");
    const Battery& living = of_name(lorry.batteries, "living battery");
    EXPECT_EQ(living.nominal_V, 12);
    EXPECT_EQ(living.capacity_Ah, 200);
    EXPECT_EQ(lorry.batteries.front().nominal_V, 24);
    EXPECT_EQ(lorry.batteries.front().capacity_Ah, 225);
    EXPECT_EQ(of_name(lorry.loads, "work lights rear").count, 4);
    EXPECT_EQ(of_name(lorry.loads, "screen heater").live_when.key, Key::ignition);
    const yr::Run* fridge = supply_run(lorry, of_name(lorry.loads, "fridge").id);
    ASSERT_TRUE(fridge);
    EXPECT_NEAR(rail_V(lorry, fridge->from), 12, 1);
    for (const Finding& f : inspect(lorry, false).findings) {
        EXPECT_NE(f.kind, FindingKind::ground_thin) << words::sentence(f, lorry);
        EXPECT_NE(f.severity, Severity::stop) << words::sentence(f, lorry);
    }
    // a ground that was said stays as it was said
    const Plan said = typed_page(
        "van\nbattery 200 Ah\ninverter 2000 W\ndrill 800 W on inverter\nearth strap 10 mm2 0.4 m\n");
    EXPECT_EQ(of_name(said.runs, "body strap").size, WireSize::metric(10));
}

// “relay” among the words does not rename the switch.
TEST(SpokenPages, OneSwitchForAllThatNameIt) {
    const Plan sprayer = typed_page(
        "sprayer\nalternator 95 A\nbattery 100 Ah\nspray pump 35 A, 4 m, relay, on spray switch\n"
        "valves 6x 1.5 A, 7 m, on spray switch\n");
    EXPECT_EQ(of_name(sprayer.loads, "spray pump").live_when.switches,
              of_name(sprayer.loads, "valves").live_when.switches);
}

// Names of loads of all trades, each with a draw and a length alone: a load of just that name, and nothing
// else.
TEST(SpokenPages, NamesOfLoadsAreNamesOfLoads) {
    const Plan van = typed_page("van\nalternator 150 A\nbattery 100 Ah\nlantern 1 A\n");
    const std::string text = read_text(source_dir() + "/tests/data/load-names.txt");
    int read = 0;
    for (const std::string_view name : split(text, '\n')) {
        if (name.empty()) continue;
        const auto with = with_line(van, std::string(name) + " 5 A, 3 m");
        ASSERT_TRUE(with) << name;
        ASSERT_EQ(with->loads.size(), van.loads.size() + 1) << name;
        const Load& load = with->loads.back();
        EXPECT_EQ(load.name, name);
        EXPECT_EQ(load.draw, (Draw{DrawKind::current, 5})) << name;
        EXPECT_EQ(load.count, 1) << name;
        EXPECT_TRUE(load.inverter.empty() && load.place.empty()) << name;
        EXPECT_EQ(supply_run(*with, load.id)->length_m, 3) << name;
        ++read;
    }
    EXPECT_GT(read, 300);
    // in whatever order and with whatever signs the figures stand
    for (const char* form : {"{} 60W", "{}: 5A", "{} @ 5A", "5A {}", "2x {} 30 W", "{} 5 amps 14 AWG 3 m",
                             "{} (5 A)", "{} 5A fuse 10A", "{} 5A always on", "{} 5 A in the rear"}) {
        int right = 0, all = 0;
        for (const std::string_view name : split(text, '\n')) {
            if (name.empty()) continue;
            ++all;
            const auto with = with_line(van, fmt::format(fmt::runtime(form), name));
            right += with && with->loads.back().name == name;
        }
        EXPECT_GE(right, 0.98 * all) << form;
    }
    // what somebody holds a button for draws nothing from a parked vehicle
    for (const char* name :
         {"power window", "sun roof", "outboard tilt", "sliding door", "seat motor", "electric jack"}) {
        const auto with = with_line(van, std::string(name) + " 12 A");
        ASSERT_TRUE(with) << name;
        EXPECT_FALSE(holds(with->loads.back().live_when, of_name(with->states, "Key off"))) << name;
    }
}

// Below which volts something cuts off: of an inverter, of a block and what protects its battery, of a load.
TEST(SpokenPages, WhatCutsOffIsNoLoad) {
    const Plan van = typed_page(
        "van\nalternator 90 A\nbattery 90 Ah\nsecond battery 100 Ah, VSR\n"
        "fuse box from second battery, cuts off below 11.8 V\ninverter 1000 W cuts off at 11 V\n"
        "laptop 60 W on inverter\nfridge 5 A cuts out at 11.5 V\nlamp 2 A\n");
    EXPECT_EQ(of_name(van.points, "fuse box").cutoff_V, 11.8);
    EXPECT_EQ(van.inverters.front().cutoff_V, 11);
    EXPECT_EQ(of_name(van.loads, "fridge").least_V, 11.5);
    for (const char* line :
         {"battery protector 100 A cuts out at 11.6 V", "low voltage disconnect 60 A, 11.6 V"}) {
        const Plan plan =
            typed_page("van\nalternator 90 A\nbattery 90 Ah\nlamp 2 A\n" + std::string(line) + "\n");
        EXPECT_EQ(plan.loads.size(), 1U) << line;
        EXPECT_EQ(of_name(plan.points, "main block").cutoff_V, 11.6) << line;
    }
    EXPECT_FALSE(with_line(van, "battery protector 100 A")) << "at how many volts it does not say";
}

// A cable that is said is laid as often as it is said.
TEST(SpokenPages, ACableIsLaidAsOftenAsItIsSaid) {
    const std::string page =
        "truck\nalternator 220 A\n2 batteries 12V 100 Ah each parallel\ninverter 5000 W\ndrill 800 W on "
        "inverter\n";
    const yr::Run laid = of_name(typed_page(page).runs, "inverter feed");
    EXPECT_GT(laid.parallel, 1) << "no one cable of the table carries it";
    const Plan said = typed_page(page + "inverter cable 2x 120 mm2 1.2 m with 500 A class T\n");
    const yr::Run& feed = of_name(said.runs, "inverter feed");
    EXPECT_EQ(feed.parallel, 2);
    EXPECT_EQ(feed.size, WireSize::metric(120));
    EXPECT_EQ(feed.length_m, 1.2);
    ASSERT_FALSE(feed.devices.empty());
    EXPECT_EQ(feed.devices.front().fuse, FuseType::high);
    EXPECT_DOUBLE_EQ(feed.devices.front().rating_A, 500);
    // too thin as it was said, for an alternator of 220 A: told, and not made two
    const Plan thin = typed_page(page + "alternator to battery 35 mm2, 1.5 m\n");
    EXPECT_EQ(of_name(thin.runs, "charge cable").parallel, 1);
    const auto told = inspect(thin, false).findings;
    EXPECT_TRUE(std::any_of(told.begin(), told.end(), [&](const Finding& f) {
        return f.kind == FindingKind::demand_over && f.id == of_name(thin.runs, "charge cable").id;
    }));
    EXPECT_EQ(of_name(typed_page(page + "inverter cable 70 mm2 1.2 m\n").runs, "inverter feed").parallel, 1);
}

// “needs 11.5 V” comes out as it went in.
TEST(SpokenPages, TheVoltsThatALoadNeedsAreTypedBack) {
    const Plan plan = typed_page("van\nbattery 90 Ah\nfridge 65 W, needs 11.5 V\n");
    EXPECT_NE(typed_text(plan, plan.loads.front()).find("needs 11.5 V"), std::string::npos);
}

}  // namespace
}  // namespace yr::test
