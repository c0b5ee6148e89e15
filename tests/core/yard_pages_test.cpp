// Pages of machines and boats as their owners write them: what is on when nobody is there, small engines,
// heavy motors, and what charges with its figures the other way round.
#include <gtest/gtest.h>

#include <algorithm>
#include <random>
#include <set>

#include "plan/condition.h"
#include "plan/rail_volts.h"
#include "solve/results.h"
#include "support/sweep.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

bool on_in(const Plan& plan, const char* load, const char* state) {
    return holds(of_name(plan.loads, load).live_when, of_name(plan.states, state));
}

// A list of what is on while it stands says all of it but what runs by itself.
TEST(YardPages, AListOfAStoppedStateSaysAllThatIsOn) {
    const Plan van = typed_page(
        "vet van\nalternator 150 A\nstart battery 80 Ah\nhouse battery 200 Ah\nfridge 4 A\nlamp 3 A\n"
        "heater 2 A\nusb 6 A\nalarm 0.1 A\nwater pump 8 A\nrouter 1 A always\n"
        "clinic: fridge, lamp for 4 h\nnight: fridge, heater 10 h\n");
    EXPECT_EQ(of_name(van.states, "clinic").lasts_s, 4 * 3600.0);
    for (const char* state : {"clinic", "night", "Key off"}) {
        for (const char* off : {"usb", "water pump"}) EXPECT_FALSE(on_in(van, off, state)) << off << state;
        for (const char* on : {"fridge", "alarm", "router"})
            EXPECT_TRUE(on_in(van, on, state)) << on << state;
    }
    EXPECT_TRUE(on_in(van, "usb", "Driving")) << "of a state that no list stands for nothing is known";
    EXPECT_TRUE(on_in(van, "heater", "night") && !on_in(van, "heater", "clinic"));
    // one thing is no list
    EXPECT_TRUE(
        on_in(typed_page("van\nbattery 90 Ah\nlamp 2 A\nfan 2 A\nnight: parked, lamp\n"), "fan", "night"));
}

TEST(YardPages, NobodyLeavesWorkLightsAndPumpsOn) {
    const Plan sprayer = typed_page(
        "sprayer\nalternator 200 A\nbattery 100 Ah\nwork lights 6x45 W\nrinse pump 22 A\ngps 2.5 A\nradio 5 "
        "A\n"
        "transfer pump 10 A, 10 min a day\ncab lamp 1 A\n");
    for (const char* state : {"Key off", "Accessory"})
        EXPECT_FALSE(on_in(sprayer, "work lights", state) || on_in(sprayer, "rinse pump", state)) << state;
    for (const char* state : {"Idling", "Driving"})
        EXPECT_TRUE(on_in(sprayer, "work lights", state) && on_in(sprayer, "rinse pump", state)) << state;
    EXPECT_TRUE(on_in(sprayer, "gps", "Key off") && on_in(sprayer, "transfer pump", "Key off"));
    EXPECT_FALSE(on_in(typed_page("truck\nalternator 90 A\nbattery 90 Ah\nblue lights 12 A\n"), "blue lights",
                       "Key off"));
    const Plan yacht = typed_page(
        "yacht\nalternator 80 A\nbattery 70 Ah\ninstruments 1 A\nplotter 2 A\nsailing 12 h: instruments, "
        "plotter\n");
    EXPECT_TRUE(on_in(yacht, "instruments", "sailing"));
    EXPECT_EQ(of_name(yacht.states, "sailing").rpm, 0) << "with the engine stopped";
}

// A small engine turns fast, its battery starts it, and its block is for a few ampere.
TEST(YardPages, ASmallEngineIsNoTruck) {
    const Plan scooter = typed_page(
        "scooter with an engine\ncharging coil 14 A\nbattery 12 Ah AGM\nstarter 80 A\nheadlamp 4.6 A with "
        "the "
        "engine\ngrips 6 A on key\ndelivering: headlamp, grips\n");
    const Source* stator = source_of_kind(scooter, SourceKind::stator);
    ASSERT_TRUE(stator);
    EXPECT_EQ(stator->rated_A, 14);
    EXPECT_GT(of_name(scooter.states, "Idling").rpm, 1200);
    EXPECT_GT(of_name(scooter.states, "Driving").rpm, 3000);
    EXPECT_EQ(of_name(scooter.states, "delivering").rpm, of_name(scooter.states, "Driving").rpm);
    const yr::Run& feed = of_name(scooter.runs, "main block feed");
    ASSERT_FALSE(feed.devices.empty());
    EXPECT_LE(feed.devices.at(0).rating_A, 50);
    // 80 A through some 17 milliohms: above the 9.6 V of a load test (SAE J537, from memory)
    const Solution cranking = solve(scooter, of_name(scooter.states, "Cranking"));
    EXPECT_GT(cranking.point.batteries.at(0).voltage_V, 9.6);
    // a truck's is for many
    const Plan truck = typed_page("truck\nalternator 90 A\nbattery 20 Ah\nradio 3 A\n");
    const yr::Run& block = of_name(truck.runs, "main block feed");
    ASSERT_FALSE(block.devices.empty());
    EXPECT_GT(block.devices.at(0).rating_A, 80);
}

// What no single cable bears lies side by side, with a fuse that exists and holds it.
TEST(YardPages, AHeavyMotorHasTwoCablesAndAFuse) {
    for (const double amps : {250.0, 350.0, 450.0}) {
        const Plan cart = typed_page("golf cart 48V\nbattery 48V 225Ah\ncontroller " + std::to_string(amps) +
                                     " A\nhorn 5 A\n");
        EXPECT_FALSE(on_in(cart, "controller", "Key off")) << "a cart's controller drives it";
        const yr::Run& feed = of_name(cart.runs, "controller feed");
        ASSERT_FALSE(feed.devices.empty()) << amps;
        EXPECT_EQ(feed.parallel, amps > 320 ? 2 : 1) << amps;
        EXPECT_GE(0.8 * feed.devices.at(0).rating_A, amps) << amps;
        EXPECT_EQ(of_name(cart.runs, "controller return").parallel, feed.parallel);
    }
}

TEST(YardPages, WhatChargesInOtherWords) {
    const Plan bus = typed_page(
        "bus to live in, 24V\nalternator 28 V 140 A\n2 x 12 V 180 Ah start batteries in series\n"
        "house: 24V 280Ah lithium\n24/24 dcdc 40A start to house\nmppt 60A, 8 x 200W panels 24V\n");
    EXPECT_EQ(bus.batteries.at(0).name, "start batteries");
    EXPECT_EQ(battery_V(bus, bus.batteries.at(0)), 24);
    EXPECT_EQ(bus.batteries.at(0).capacity_Ah, 180);
    const Source* charger = source_of_kind(bus, SourceKind::converter);
    ASSERT_TRUE(charger);
    EXPECT_EQ(charger->charges, bus.batteries.at(1).id);
    const Source* solar = source_of_kind(bus, SourceKind::solar);
    ASSERT_TRUE(solar);
    EXPECT_EQ(solar->panel_W, 1600);
    EXPECT_EQ(solar->rated_A, 60);
    for (const char* line : {"charger 18 A at 48 V", "48V charger 18A", "on board charger, 18 A"}) {
        const Plan cart = typed_page(std::string("golf cart 48V\nbattery 48V 225Ah\n") + line + "\n");
        const Source* shore = source_of_kind(cart, SourceKind::shore);
        ASSERT_TRUE(shore) << line;
        EXPECT_EQ(shore->rated_A, 18) << line;
        EXPECT_TRUE(cart.loads.empty()) << line;
    }
    // 5.12 kWh at the 51.2 V of sixteen cells
    const Plan house = typed_page("tiny house on wheels, no engine\n48V 5.12 kWh lithium\n");
    EXPECT_EQ(house.vehicle.nominal_V, 48);
    EXPECT_EQ(house.batteries.at(0).capacity_Ah, 100);
    const Plan car = typed_page(
        "car\nalternator 140 A\nbattery 70 Ah\naux battery 60 Ah AGM in boot, VSR\n"
        "drug fridge 4A 40% from aux always\n");
    EXPECT_TRUE(std::any_of(car.runs.begin(), car.runs.end(), [](const yr::Run& r) {
        return std::any_of(r.devices.begin(), r.devices.end(),
                           [](const Device& d) { return d.kind == DeviceKind::sensing_relay; });
    }));
}

TEST(YardPages, WhatFeedsAllIsNoLoad) {
    const Plan tractor = typed_page(
        "tractor\ndynamo replaced by 55A alternator\nbattery 110 Ah\nheadlights 2x45 W\nradio 15 W\n"
        "all fed from new fuse box by battery, 16 mm2 1.5 m, 60A\n");
    EXPECT_EQ(tractor.loads.size(), 2u);
    EXPECT_EQ(tractor.sources.at(0).rated_A, 55);
    const yr::Run& feed = of_name(tractor.runs, "main block feed");
    ASSERT_FALSE(feed.devices.empty());
    EXPECT_EQ(feed.devices.at(0).rating_A, 60);
    EXPECT_EQ(feed.length_m, 1.5);
    EXPECT_EQ(feed.size, WireSize::metric(16));
    const Plan loader = typed_page(
        "loader\nalternator 65 A\nbattery 100 Ah\nvalves 4x 1.8 A, on when key on\nradio 2 A\nmain fuse 60A\n"
        "disconnect switch at rear bumper 250A\n");
    EXPECT_EQ(of_name(loader.loads, "valves").live_when.key, Key::ignition);
    const yr::Run& block = of_name(loader.runs, "main block feed");
    ASSERT_FALSE(block.devices.empty());
    EXPECT_EQ(block.devices.at(0).rating_A, 60);
    EXPECT_TRUE(block.devices.at(1).master);
    // a block's own fuse, once said, is nobody's main fuse
    const Plan panel =
        typed_page("van\nbattery 100 Ah\nfuse panel 6 way from battery, 40 A fuse, 2 m\nlamp 2 A\n");
    EXPECT_FALSE(with_line(panel, "main fuse 150 A"));
}

// A machine that sprays has its engine running; in a van that is lived in nobody knows.
TEST(YardPages, MachinesWorkWithTheEngineRunning) {
    const std::string page = "alternator 60 A\nbattery 70 Ah\npump 12 A\nradio 2 A\n";
    EXPECT_GT(of_name(typed_page("utv\n" + page + "spraying: pump, radio\n").states, "spraying").rpm, 0);
    EXPECT_EQ(of_name(typed_page("utv\n" + page + "lunch: radio\n").states, "lunch").rpm, 0);
    EXPECT_EQ(of_name(typed_page("van\n" + page + "house battery 100 Ah\nspraying: pump, radio\n").states,
                      "spraying")
                  .rpm,
              0);
}

// A switch of two batteries is turned to both while the engine runs.
TEST(YardPages, ABatterySwitchJoinsWhileItRuns) {
    const Plan boat = typed_page(
        "boat 12 V\nalternator 90 A\nstart battery 100 Ah\nhouse bank 300 Ah\nbattery switch 1-2-both\nradar "
        "4 A\n"
        "underway: radar\n");
    const auto charged_in = [&](const char* state) {
        const Solution sol = solve(boat, of_name(boat.states, state));
        return sol.point.batteries.at(1).current_A < 0;
    };
    EXPECT_TRUE(charged_in("Driving") && charged_in("underway"));
    EXPECT_FALSE(charged_in("Key off"));
}

TEST(YardPages, LoadsByTheirPlainNames) {
    const Plan clinic = typed_page(
        "clinic van\nalternator 150 A\nbattery 200 Ah\ninverter 3000 W\nx-ray generator 1200 W on the "
        "inverter\n"
        "washer 500 W\ninduction 2200 W\nautopilot 5 A avg 3 A\n");
    for (const char* mains : {"x-ray generator", "washer", "induction"})
        EXPECT_FALSE(of_name(clinic.loads, mains).inverter.empty()) << mains;
    EXPECT_NEAR(of_name(clinic.loads, "autopilot").duty.value_or(1), 0.6, 1e-9);
}

// Of pages made at random: what a list of a stopped state names is on there, with what runs by itself or is
// always on, and nothing else draws from the battery.
TEST(YardPages, InStoppedStatesNothingDrawsThatNobodyNamed) {
    struct Thing {
        const char *line, *name;
        double amps;
        bool by_itself;
    };
    static const Thing kThings[] = {{"fridge 4 A", "fridge", 4, true},
                                    {"cool box 5 A", "cool box", 5, true},
                                    {"tracker 0.2 A", "tracker", 0.2, true},
                                    {"router 1 A", "router", 1, true},
                                    {"reading lamp 2 A", "reading lamp", 2, false},
                                    {"fan 3 A", "fan", 3, false},
                                    {"heater 6 A", "heater", 6, false},
                                    {"stereo 4 A", "stereo", 4, false},
                                    {"tv 5 A", "tv", 5, false},
                                    {"usb outlet 3 A", "usb outlet", 3, false},
                                    {"chart table light 1 A", "chart table light", 1, false},
                                    {"screen 2 A", "screen", 2, false},
                                    {"scale 0.5 A", "scale", 0.5, false},
                                    {"mixer 7 A", "mixer", 7, false}};
    std::mt19937 dice(7);
    int off = 0, on = 0;
    for (unsigned page = 0; page < sweep(25U, 300U); ++page) {
        std::string text = "van\nalternator 150 A\nstart battery 80 Ah\nhouse battery 200 Ah\n";
        std::vector<const Thing*> there;
        for (const Thing& t : kThings)
            if (dice() % 3) there.push_back(&t), text += std::string(t.line) + "\n";
        if (there.size() < 5) continue;
        std::vector<std::set<const Thing*>> lists;
        for (const char* name : {"evening", "night"}) {
            std::shuffle(there.begin(), there.end(), dice);
            std::set<const Thing*> named(there.begin(), there.begin() + 2 + dice() % 2);
            text += std::string(name) + ":";
            for (const Thing* t : named) text += std::string(t == *named.begin() ? " " : ", ") + t->name;
            text += "\n", lists.push_back(std::move(named));
        }
        const Plan plan = typed_page(text);
        for (std::size_t k = 0; k < lists.size(); ++k) {
            const State& state = of_name(plan.states, k == 0 ? "evening" : "night");
            ASSERT_EQ(state.rpm, 0) << text;
            double amps = 0;
            for (const Thing* t : there) {
                const bool runs = holds(of_name(plan.loads, t->name).live_when, state);
                const bool said = lists[k].contains(t);
                EXPECT_TRUE(!said || runs) << t->name << " is named in " << state.name << "\n" << text;
                EXPECT_TRUE(said || t->by_itself || !runs) << t->name << " in " << state.name << "\n" << text;
                amps += runs ? t->amps : 0;
                ++(runs ? on : off);
            }
            double given = 0;
            for (const BatteryResult& b : solve(plan, state).point.batteries) given += b.current_A;
            EXPECT_NEAR(given, amps, 1e-6) << text;
        }
    }
    EXPECT_GT(on, 50);
    EXPECT_GT(off, 50);
}

}  // namespace
}  // namespace yr::test
