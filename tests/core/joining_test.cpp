// What is fitted can be said: contacts of every kind, pins, jackets, bolts, and what they do to the circuit.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "catalog/sockets.h"
#include "demand/demand.h"
#include "network/connectors.h"
#include "plan/additions.h"
#include "plan/additions_joining.h"
#include "plan/variant.h"
#include "size/run_limits.h"
#include "solve/results.h"
#include "support/findings.h"
#include "typing/pins.h"
#include "typing/typed_line.h"
#include "words/control_words.h"

namespace yr::test {
namespace {

yr::Run cable(const Id& id, const Terminal& from, const Terminal& to, double length_m, int awg) {
    yr::Run r;
    r.id = r.name = id, r.from = from, r.to = to, r.length_m = length_m, r.size = WireSize::awg(awg);
    return r;
}

// A bus, a lamp of 10 A on it by a fused cable, its return, and the usual states.
Plan joined_van() {
    Plan plan = empty_plan("van");
    Load lamp;
    lamp.id = lamp.name = "lamp", lamp.draw = {DrawKind::current, 10};
    plan.loads = {lamp};
    plan.runs.push_back(cable("there", "point-bus", "lamp.pos", 3, 10));
    Device fuse;
    fuse.id = "lamp-fuse", fuse.name = "lamp fuse", fuse.rating_A = 15, fuse.at_m = 0.1;
    plan.runs.back().devices = {fuse};
    plan.runs.push_back(cable("back", "lamp.neg", "battery-1.neg", 3, 10));
    return plan;
}

Device& put(Plan& plan, const Id& run, const Id& id, DeviceKind kind = DeviceKind::switching) {
    Device d;
    d.id = d.name = id, d.kind = kind;
    auto& devices = thing(plan.runs, run).devices;
    devices.push_back(d);
    return devices.back();
}

LoadStatus lamp_in(const Plan& plan, const State& state) {
    return solve(plan, state).point.loads[0].status;
}

State state_of(const Plan& plan, const char* name) {
    return *find_state(plan, name);
}

TEST(Contacts, TheOtherContactIsClosedAtRest) {
    Plan plan = joined_van();
    Load coil;
    coil.id = coil.name = "coil", coil.draw = {DrawKind::resistance, 90}, coil.live_when.key = Key::ignition;
    plan.loads.push_back(coil);
    plan.runs.push_back(cable("coil there", "point-bus", "coil.pos", 2, 16));
    plan.runs.push_back(cable("coil back", "coil.neg", "battery-1.neg", 2, 16));
    put(plan, "there", "relay").coil = "coil";
    EXPECT_EQ(lamp_in(plan, state_of(plan, "Key off")), LoadStatus::dead);
    EXPECT_EQ(lamp_in(plan, state_of(plan, "Idling")), LoadStatus::on);
    thing(plan.runs, "there").devices.back().rests_closed = true;
    EXPECT_EQ(lamp_in(plan, state_of(plan, "Key off")), LoadStatus::on);
    EXPECT_EQ(lamp_in(plan, state_of(plan, "Idling")), LoadStatus::dead) << "the coil pulls it away";
    ASSERT_TRUE(validate(plan).empty());
}

TEST(Contacts, AChangeoverFeedsFromOneSideOrTheOther) {
    Plan plan = joined_van();
    Battery second = plan.batteries[0];
    second.id = "battery-2", second.name = "second battery";
    plan.batteries.push_back(second);
    plan.runs.push_back(cable("second minus", "battery-2.neg", "battery-1.neg", 1, 4));
    plan.runs.push_back(cable("other feed", "battery-2.pos", "lamp.pos", 3, 10));
    Condition second_side;
    second_side.switches = {"second side"};
    put(plan, "other feed", "thrown").closed_when = second_side;
    Device& rest = put(plan, "there", "at rest");
    rest.rests_closed = true, rest.closed_when = second_side;
    State s = state_of(plan, "Key off");
    const auto gives = [&](std::size_t battery) { return solve(plan, s).point.batteries[battery].current_A; };
    EXPECT_NEAR(gives(0), 10, 1e-6);
    EXPECT_NEAR(gives(1), 0, 1e-6);
    s.switches = {"second side"};
    EXPECT_NEAR(gives(0), 0, 1e-6);
    EXPECT_NEAR(gives(1), 10, 1e-6) << "never both, never none";
}

TEST(Contacts, ALatchingOneStaysWhereItWasPut) {
    Plan plan = joined_van();
    Device& latch = put(plan, "there", "latch");
    latch.latching = true, latch.closed_when.switches = {"main"};
    State s = state_of(plan, "Key off");
    EXPECT_EQ(lamp_in(plan, s), LoadStatus::dead);
    s.closed = {"latch"};
    EXPECT_EQ(lamp_in(plan, s), LoadStatus::on) << "somebody closed it, and nothing has to hold it";
    s.closed.clear(), s.opened = {"latch"}, s.switches = {"main"};
    EXPECT_EQ(lamp_in(plan, s), LoadStatus::dead);
}

TEST(Contacts, ABreakerMayBeTheSwitch) {
    Plan plan = joined_van();
    Device& breaker = thing(plan.runs, "there").devices[0];
    breaker.fuse = FuseType::breaker_3, breaker.closed_when.switches = {"lamp breaker"};
    State s = state_of(plan, "Key off");
    EXPECT_EQ(lamp_in(plan, s), LoadStatus::dead);
    s.switches = {"lamp breaker"};
    EXPECT_EQ(lamp_in(plan, s), LoadStatus::on);
    const auto switches = plan_switches(plan);
    EXPECT_NE(std::find(switches.begin(), switches.end(), "lamp breaker"), switches.end());
}

// 150 Hz or one flash a second: the copper takes the mean of I squared R, the fuse and the drop the peak, the
// battery the mean.
TEST(Contacts, AFlasherHeatsByItsShareAndDropsByItsPeak) {
    Plan plan = joined_van();
    thing(plan.loads, "lamp").draw.value = 25;
    State s = state_of(plan, "Key off");
    const Solution steady = solve(plan, s);
    put(plan, "there", "flasher").pulse_share = 0.5;
    const Solution flashing = solve(plan, s);
    const auto run = [&](const Solution& x) {
        const auto k = static_cast<std::size_t>(&thing(plan.runs, "there") - plan.runs.data());
        return x.point.conductors[k];
    };
    EXPECT_NEAR(run(flashing).current_A, 25, 1e-9) << "the peak flows, and drops its volts";
    const double air = s.ambient_C;
    const double rise = run(flashing).temperature_C - air, whole = run(steady).temperature_C - air;
    // closed form: half the heat over about the same conductance; the film's grows with its warmth
    EXPECT_NEAR(rise / whole, 0.5, 0.06);
    EXPECT_NEAR(average_battery_A(flashing.network, flashing.point, 0), 12.5, 1e-6);
    thing(plan.runs, "there").devices.back().pulse_share.reset();
    thing(plan.runs, "there").devices.back().pulse_curve = {{10, 0.2}, {30, 0.8}};
    EXPECT_NEAR(solve(plan, s).network.loads[0].pulse_share, 0.5, 1e-9) << "20 C lies half way";
}

TEST(Conditions, HoldOnAfterTheKeyForTheirTime) {
    Condition timed;
    timed.key = Key::accessory, timed.holds_s = 300;
    State off;
    EXPECT_FALSE(holds(timed, off));
    off.left = Key::ignition, off.role = StateRole::passing, off.lasts_s = 120;
    EXPECT_TRUE(holds(timed, off)) << "two minutes after the key it is still live";
    off.lasts_s = 400;
    EXPECT_FALSE(holds(timed, off)) << "it drops within that state";
    off.lasts_s = 120, timed.switches = {"x"};
    EXPECT_FALSE(holds(timed, off)) << "its switch is off";
}

TEST(Conditions, WarmthHasAWayBack) {
    Condition hot;
    hot.above_C = 90, hot.within_K = 8, hot.air = Air::engine_bay;
    State s;
    s.engine_bay_C = 91;
    EXPECT_TRUE(holds(hot, s, "fan relay"));
    s.engine_bay_C = 85;
    EXPECT_FALSE(holds(hot, s, "fan relay"));
    s.closed = {"fan relay"};
    EXPECT_TRUE(holds(hot, s, "fan relay")) << "it came closed and has not cooled to 82";
    s.engine_bay_C = 81;
    EXPECT_FALSE(holds(hot, s, "fan relay"));
    Condition cold;
    cold.below_C = 3;
    s.ambient_C = 2;
    EXPECT_TRUE(holds(cold, s));
    s.ambient_C = 4;
    EXPECT_FALSE(holds(cold, s));
}

TEST(Conditions, AreTypedAndReadBack) {
    const Plan plan = joined_van();
    for (const char* typed : {"on ignition, stays 300 s", "bay warmer than 90 C back at 82 C",
                              "on accessory, colder than 3 C", "on switch \"fan\", warmer than 30 C"}) {
        const TypedLine line = read_line(plan, std::string("fan 5 A, ") + typed);
        ASSERT_TRUE(line.live_when) << typed;
        EXPECT_TRUE(line.not_understood.empty()) << typed << ": " << line.not_understood.front();
        EXPECT_EQ(typed_condition(plan, *line.live_when), typed);
        EXPECT_NE(words::condition(*line.live_when, &plan), "always") << typed;
    }
}

TEST(Boxes, SleepAndCutTheirChannelsOffButNotThemselves) {
    Plan plan = joined_van();
    Point box;
    box.id = box.name = "box", box.kind = PointKind::box, box.return_at = "battery-1.neg",
    box.feeds_loads = true;
    box.channels = {{1, {}, 20.0, 40.0, {}}};
    box.standby_W = 6, box.sleep_W = 0.12, box.awake_when.key = Key::accessory;
    box.cutoff_V = 12.2;
    plan.points.push_back(box);
    plan.runs.push_back(cable("box feed", "point-bus", "box", 1, 6));
    thing(plan.runs, "there").from = "box", thing(plan.runs, "there").channel = 1;
    ASSERT_TRUE(validate(plan).empty());
    State parked = state_of(plan, "Key off");
    parked.charge = 1;
    const auto standby_W = [&](const State& s) {
        const Solution x = solve(plan, s);
        return x.point.loads[x.network.plan_loads].power_W;
    };
    EXPECT_NEAR(standby_W(parked), 0.12, 1e-9);
    State accessory = state_of(plan, "Accessory");
    accessory.charge = 1;
    EXPECT_NEAR(standby_W(accessory), 6, 1e-9);
    EXPECT_EQ(lamp_in(plan, parked), LoadStatus::on);
    parked.charge = 0.3;
    EXPECT_EQ(lamp_in(plan, parked), LoadStatus::dead) << "below 12.2 V its channels are open";
    EXPECT_NEAR(standby_W(parked), 0.12, 1e-9) << "and it goes on drawing itself";
}

TEST(Mains, AnInverterThatIsOffStillTakesALittle) {
    Plan plan = joined_van();
    ASSERT_TRUE(yr::apply(plan, add_inverter(plan)->edit));
    plan.inverters[0].works_when.switches = {"inverter"};
    plan.inverters[0].off_W = 0.6;
    Load charger;
    charger.id = charger.name = "charger", charger.inverter = plan.inverters[0].id;
    charger.draw = {DrawKind::power, 100};
    plan.loads.push_back(charger);
    const Solution off = solve(plan, state_of(plan, "Key off"));
    EXPECT_NEAR(off.point.loads[off.network.plan_loads].power_W, 0.6, 1e-9);
    EXPECT_NE(off.point.loads[1].status, LoadStatus::on) << "there is no mains";
}

TEST(Later, KeepsItsRoomAndDrawsNothing) {
    Plan plan = joined_van();
    thing(plan.loads, "lamp").later = true;
    const Solution s = solve(plan, state_of(plan, "Key off"));
    EXPECT_NEAR(s.point.batteries[0].current_A, 0, 1e-6);
    EXPECT_FALSE(found(plan, FindingKind::load_dead, "lamp"));
    const auto solutions = solve_all(plan);
    const auto k = static_cast<std::size_t>(&thing(plan.runs, "there") - plan.runs.data());
    EXPECT_NEAR(demand_of(plan, solutions)[k].lasting_A(), 10, 0.1) << "its cable is made for it";
}

// A pair of contacts is 3 mohm in series with the cable; two pins side by side are half of it.
TEST(Connectors, AddTheirContacts) {
    Plan plan = joined_van();
    const auto drop_V = [&] { return solve(plan, state_of(plan, "Key off")).point.loads[0].drop_V; };
    const double without = drop_V();
    Connector plug;
    plug.id = "plug", plug.name = "rear plug", plug.pins = 6, plug.contact_ohm = 4e-3;
    plan.connectors = {plug};
    thing(plan.runs, "there").pins = {{"plug", 1, {}}};
    EXPECT_NEAR(drop_V() - without, 10 * 4e-3, 1e-4);
    thing(plan.runs, "there").pins = {{"plug", 1, {}}, {"plug", 2, {}}};
    EXPECT_NEAR(drop_V() - without, 10 * 2e-3, 1e-4);
}

TEST(Connectors, AnOverloadedPinIsToldAndASecondOneMendsIt) {
    Plan plan = joined_van();
    Connector plug;
    plug.id = "plug", plug.name = "rear plug", plug.pins = 6, plug.pin_A = 8;
    plan.connectors = {plug};
    thing(plan.runs, "there").pins = {{"plug", 2, {}}};
    const auto over = found(plan, FindingKind::pin_over, "there");
    ASSERT_TRUE(over);
    EXPECT_NEAR(over->value, 10, 0.1);
    ASSERT_TRUE(over->mend);
    ASSERT_TRUE(yr::apply(plan, over->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::pin_over));
    EXPECT_EQ(thing(plan.runs, "there").pins.size(), 2U);
}

TEST(Connectors, HotAirAndFullHousingsCarryLess) {
    Plan plan = joined_van();
    plan.connectors = {{"plug", "plug", "place-bay", {}, 4.0, {}, 20.0, {}, false, 105.0, {}, {}}};
    State s;
    s.engine_bay_C = 25;
    EXPECT_NEAR(*pin_allowed_A(plan, plan.connectors[0], 1, s), 20, 1e-9);
    s.engine_bay_C = 85;
    EXPECT_NEAR(*pin_allowed_A(plan, plan.connectors[0], 1, s), 20 * std::sqrt(20.0 / 80), 1e-9);
    s.engine_bay_C = 25;
    thing(plan.runs, "there").pins = {{"plug", 1, {}}, {"plug", 2, {}}};
    thing(plan.runs, "back").pins = {{"plug", 4, {}}};
    EXPECT_NEAR(*pin_allowed_A(plan, plan.connectors[0], 1, s), 16, 1e-9) << "most of its pins are loaded";
}

TEST(Connectors, PinsBesideAndTwice) {
    Plan plan = joined_van();
    plan.connectors = {{"plug", "plug", {}, {}, 6.0, {}, {}, {}, false, {}, {}, {}}};
    thing(plan.runs, "there").pins = {{"plug", 1, {}}};
    thing(plan.runs, "back").pins = {{"plug", 2, {}}};
    EXPECT_TRUE(found(plan, FindingKind::pins_beside, "there"));
    thing(plan.runs, "back").pins[0].pin = 3;
    EXPECT_FALSE(found(plan, FindingKind::pins_beside)) << "one is left free";
    thing(plan.runs, "back").pins[0].pin = 2;
    plan.connectors[0].sealed = true;
    EXPECT_FALSE(found(plan, FindingKind::pins_beside)) << "no water gets in";
    thing(plan.runs, "back").pins[0].pin = 1;
    EXPECT_TRUE(found(plan, FindingKind::pin_twice, "back"));
}

// ISO 11446 (from memory): 13 pins, 9 always live, its own earth on 13.
TEST(Connectors, TrailerSocketsAreData) {
    const Socket* socket = socket_named("iso_11446");
    ASSERT_TRUE(socket);
    ASSERT_EQ(socket->pins.size(), 13U);
    EXPECT_EQ(socket->pins[8].function, "always live");
    for (const Socket& s : sockets())
        for (std::size_t k = 0; k < s.pins.size(); ++k) EXPECT_EQ(s.pins[k].pin, static_cast<int>(k) + 1);
    Plan plan = joined_van();
    const auto added = add_connector(plan, "iso_11446");
    ASSERT_TRUE(added);
    ASSERT_TRUE(yr::apply(plan, added->edit));
    thing(plan.runs, "there").pins = {{added->id, 14, {}}};
    ASSERT_FALSE(validate(plan).empty());
    EXPECT_NE(words::sentence(validate(plan).front()).find("pin"), std::string::npos);
    thing(plan.runs, "there").pins[0].pin = 9;
    EXPECT_TRUE(validate(plan).empty());
    EXPECT_EQ(pin_rating_A(plan.connectors[0], 9), 20);
    EXPECT_FALSE(add_connector(plan, "no such socket"));
}

TEST(Connectors, TheirPinsAreTypedAndReadBack) {
    Plan plan = joined_van();
    plan.connectors = {{"a", "rear plug", {}, {}, 12.0, {}, {}, {}, false, {}, {}, {}},
                       {"b", "plug at bulkhead", {}, {}, 12.0, {}, {}, {}, false, {}, {}, {}}};
    const std::vector<PinUse> pins{{"a", 3, {}}, {"a", 4, {}}, {"b", 1, 0.8}};
    EXPECT_EQ(typed_pins(plan, pins), "rear plug: 3, 4; plug at bulkhead at 0.8 m: 1");
    EXPECT_EQ(*read_pins(plan, typed_pins(plan, pins)), pins);
    EXPECT_TRUE(read_pins(plan, "  ")->empty());
    for (const char* wrong :
         {"rear plug", "front plug: 1", "rear plug: x", "rear plug: 0", "rear plug at 3 V: 1"})
        EXPECT_FALSE(read_pins(plan, wrong)) << wrong;
}

TEST(Jackets, CoresAreCooledTogether) {
    Plan plan = joined_van();
    plan.policy.bundle_derating = true;
    const State s = state_of(plan, "Key off");
    const double alone = run_ampacity(plan, thing(plan.runs, "there"), s)->allowed_A;
    plan.jackets = {{"j", "twin", 2.0, {}, {}}};
    for (const char* id : {"there", "back"}) thing(plan.runs, id).jacket = "j";
    EXPECT_EQ(bundle_of(plan, thing(plan.runs, "there")), 2);
    yr::Run third = cable("third", "point-bus", "battery-1.pos", 3, 10);
    third.jacket = "j";
    plan.runs.push_back(third);
    EXPECT_LT(run_ampacity(plan, thing(plan.runs, "there"), s)->allowed_A, alone);
    EXPECT_TRUE(found(plan, FindingKind::jacket_full, "j"));
    plan.jackets[0].cores = 3;
    EXPECT_FALSE(found(plan, FindingKind::jacket_full));
    EXPECT_FALSE(found(plan, FindingKind::jacket_differs));
    thing(plan.runs, "back").length_m = 4;
    EXPECT_TRUE(found(plan, FindingKind::jacket_differs, "j"));
}

TEST(Bolts, TooManyLugsAndTerminalsTooNear) {
    Plan plan = joined_van();
    Point stud;
    stud.id = stud.name = "stud", stud.kind = PointKind::stud;
    plan.points.push_back(stud);
    for (int k = 0; k < 4; ++k)
        plan.runs.push_back(cable("s" + std::to_string(k), "point-bus", "stud", 1, 6));
    EXPECT_FALSE(found(plan, FindingKind::lugs_many, "stud"));
    plan.runs.back().parallel = 2;
    EXPECT_TRUE(found(plan, FindingKind::lugs_many, "stud"));
    thing(plan.points, "stud").most_lugs = 5;
    EXPECT_FALSE(found(plan, FindingKind::lugs_many, "stud"));
    plan.batteries[0].apart_mm = 18;
    EXPECT_TRUE(found(plan, FindingKind::terminals_near, "battery-1"));
    plan.batteries[0].apart_mm = 180;
    EXPECT_FALSE(found(plan, FindingKind::terminals_near));
}

TEST(Bolts, MetalsThatMeet) {
    Plan plan = joined_van();
    plan.points.push_back({"g", "rear ground", PointKind::ground, {}, "point-body", {}, {}, false});
    EXPECT_FALSE(found(plan, FindingKind::metals_meet));
    thing(plan.points, "point-body").metal = Metal::aluminium;
    EXPECT_TRUE(found(plan, FindingKind::metals_meet, "g"));
}

TEST(Sensors, WhatGoesRoundTheNegativePostIsTold) {
    Plan plan = joined_van();
    plan.points.push_back({"minus", "minus bus", PointKind::bus, {}, {}, {}, {}, false});
    plan.runs.push_back(cable("sensor cable", "minus", "battery-1.neg", 0.2, 0));
    Device& shunt = put(plan, "sensor cable", "sensor", DeviceKind::shunt);
    shunt.measures = "battery-1", shunt.resistance_ohm = 1e-4;
    EXPECT_TRUE(found(plan, FindingKind::round_sensor, "back"));
    for (yr::Run& r : plan.runs)
        if (r.id != "sensor cable")
            for (Terminal* t : {&r.from, &r.to})
                if (*t == Terminal("battery-1.neg")) *t = "minus";
    EXPECT_FALSE(found(plan, FindingKind::round_sensor));
    const Solution s = solve(plan, state_of(plan, "Key off"));
    const auto k = static_cast<std::size_t>(&thing(plan.runs, "sensor cable") - plan.runs.data());
    EXPECT_NEAR(s.point.conductors[k].current_A, 10, 1e-6) << "all of it is counted";
}

TEST(Triggers, APulsedOutputMakesARelayChatter) {
    Plan plan = joined_van();
    Load coil;
    coil.id = coil.name = "coil", coil.draw = {DrawKind::resistance, 90};
    plan.loads.push_back(coil);
    plan.runs.push_back(cable("coil there", "point-bus", "coil.pos", 2, 16));
    plan.runs.push_back(cable("coil back", "coil.neg", "battery-1.neg", 2, 16));
    put(plan, "there", "relay").coil = "coil";
    put(plan, "coil there", "body computer");
    EXPECT_FALSE(found(plan, FindingKind::trigger_unsteady));
    for (const Signal signal : {Signal::pulsed, Signal::monitored}) {
        thing(plan.runs, "coil there").devices.back().signal = signal;
        EXPECT_TRUE(found(plan, FindingKind::trigger_unsteady, "coil"));
    }
}

TEST(ReversingPair, TurnsTheMotorBothWaysAndNeverShorts) {
    Plan plan = joined_van();
    const auto added = add_reversing_pair(plan, "lamp");
    ASSERT_TRUE(added);
    ASSERT_TRUE(yr::apply(plan, added->edit));
    State s = state_of(plan, "Key off");
    EXPECT_NEAR(solve(plan, s).point.batteries[0].current_A, 0, 1e-6);
    const auto volts = [&](const char* side) {
        s.switches = {side};
        const Solution x = solve(plan, s);
        const auto at = [&](const Terminal& t) {
            return x.point.node_V[static_cast<std::size_t>(
                std::find(x.network.nodes.begin(), x.network.nodes.end(), t) - x.network.nodes.begin())];
        };
        EXPECT_GT(x.point.batteries[0].current_A, 5) << side;
        return at("lamp.pos") - at("lamp.neg");
    };
    EXPECT_GT(volts("lamp in"), 10);
    EXPECT_LT(volts("lamp out"), -10);
    EXPECT_FALSE(add_reversing_pair(plan, "nothing"));
}

TEST(Removal, OfAConnectorJacketOrBatteryLeavesNothingBehind) {
    Plan plan = joined_van();
    plan.connectors = {{"plug", "plug", {}, {}, 6.0, {}, {}, {}, false, {}, {}, {}}};
    plan.jackets = {{"j", "twin", {}, {}, {}}};
    thing(plan.runs, "there").pins = {{"plug", 1, {}}};
    thing(plan.runs, "there").jacket = "j";
    const Plan before = plan;
    for (const char* id : {"plug", "j"}) {
        const auto undo = yr::apply(plan, remove_with_runs(plan, id));
        ASSERT_TRUE(undo) << id;
        EXPECT_TRUE(validate(plan).empty());
    }
    EXPECT_TRUE(thing(plan.runs, "there").pins.empty());
    EXPECT_TRUE(thing(plan.runs, "there").jacket.empty());
    Variant v;
    v.id = "v", v.name = "without", v.removed = {"plug", "j"};
    Plan base = before;
    base.variants = {v};
    EXPECT_TRUE(validate(base).empty()) << "a variant without them too";
}

TEST(Remarks, StandInTheFileOfEverything) {
    Plan plan = joined_van();
    const Remarks said{"seen it", "photos/a.jpg", "hot"};
    plan.batteries[0].remarks = plan.points[0].remarks = plan.runs[0].remarks = plan.loads[0].remarks =
        plan.states[0].remarks = plan.places[0].remarks = said;
    const auto read = plan_from_json_text(to_json_text(plan));
    ASSERT_TRUE(read) << words::sentence(read.error());
    EXPECT_EQ(*read, plan);
}

}  // namespace
}  // namespace yr::test
