#include "support/vehicles.h"

#include <algorithm>

#include "support/vehicle_builder.h"

namespace yr::test {

TestVehicle VehicleBuilder::build() {
    rear_ = chance(30);
    Battery& b = v_.plan.batteries.front();
    b.chemistry = chance(50) ? Chemistry::agm : Chemistry::flooded;
    b.capacity_Ah = pick({60, 75, 95, 110});
    b.cranking_A = pick({550, 650, 760, 850});
    b.place = rear_ ? "place-rear" : "place-bay";
    const Id battery = b.id;
    body_ = point("body", PointKind::chassis, "place-cab", false);
    engine_ = point("engine block", PointKind::chassis, "place-bay", false);
    metal("body to engine metal", engine_, body_);
    const double main_m = rear_ ? 4 : 0.8;
    starter_circuit(battery, main_m);
    alternator(battery, main_m);
    const std::size_t loads = 4 + random_() % 6;
    const Id block = point("fuse block", PointKind::bus, "place-cab", true);
    const auto chosen = some_accessories(loads);
    double sum = 0;
    for (const Accessory& a : chosen) sum += a.amps;
    block_feed_ =
        fused("block feed", pos_of(battery), Terminal(block), rear_ ? 3.5 : 2, sum, 0.01, false, 1.35);
    for (const Accessory& a : chosen) accessory(a, block);
    if (chance(40)) inverter(battery);
    if (chance(30)) winch(battery);
    if (chance(45)) second_battery(battery);
    if (chance(30)) control_box(battery);
    if (chance(30)) engine_management(battery);
    if (chance(25)) trailer(battery);
    states();
    if (v_.joiner == Joiner::hand_switch)
        for (State& s : v_.plan.states)
            if (s.rpm > 0) s.switches.push_back("batteries joined");
    return std::move(v_);
}

TestVehicle VehicleBuilder::build_small() {
    Battery& b = v_.plan.batteries.front();
    b.chemistry = Chemistry::agm;
    b.capacity_Ah = pick({14, 20, 30}), b.cranking_A = pick({220, 300});
    b.place = "place-rear";
    const Id battery = b.id;
    body_ = point("frame", PointKind::chassis, "place-rear", false);
    engine_ = point("engine block", PointKind::chassis, "place-bay", false);
    metal("frame to engine metal", engine_, body_);
    Load starter;
    starter.id = "starter", starter.name = "starter", starter.starter = true, starter.place = "place-bay";
    starter.draw = {DrawKind::resistance, 10.5 / 80};
    starter.live_when.key = Key::crank;
    v_.plan.loads.push_back(starter);
    cable("starter cable", pos_of(battery), pos_of("starter"), 0.9, 80, 0.02, true);
    metal("starter to block", neg_of("starter"), engine_);
    cable("frame cable", Terminal(body_), neg_of(battery), 0.4, 80, 0.01, true);
    Source stator;
    stator.id = "stator", stator.name = "stator", stator.kind = SourceKind::stator,
    stator.place = "place-bay";
    stator.curve = {{800, 0}, {1200, 10}, {3000, 20}, {6000, 24}};
    stator.pulley_ratio = 1, stator.regulator_A = 22;
    stator.return_at = Terminal(body_);
    v_.plan.sources.push_back(stator);
    charge_ = fused("regulator cable", out_of("stator"), pos_of(battery), 1, 24, 0.02, true, 1.25);
    const Id block = point("fuse block", PointKind::bus, "place-cab", true);
    block_feed_ = fused("block feed", pos_of(battery), Terminal(block), 1.2, 20, 0.01, false, 1.5);
    accessory({"work lamps", 6, 0, "place-cab", Key::ignition, true}, block);
    accessory({"spray pump", 7, 2.5, "place-rear", Key::ignition, true}, block);
    accessory({"radio", 2, 0, "place-cab", Key::accessory, true}, block);
    states();
    for (State& s : v_.plan.states)
        if (s.rpm > 0) s.rpm = std::max(s.rpm, 1500.0);
    return std::move(v_);
}

TestVehicle VehicleBuilder::build_cart() {
    Plan& p = v_.plan;
    p.vehicle.nominal_V = 48;
    p.vehicle.chassis = Chassis::none;
    Battery& b = p.batteries.front();
    b.chemistry = Chemistry::lifepo4;
    b.nominal_V = 48, b.capacity_Ah = pick({100, 150});
    b.place = "place-rear";
    const Id battery = b.id;
    Load motor;
    motor.id = "motor", motor.name = "drive controller", motor.place = "place-bay";
    motor.draw = {DrawKind::current, pick({60, 90})};
    motor.live_when.key = Key::ignition, motor.live_when.switches = {"drive"};
    motor.duty = 0.3;
    p.loads.push_back(motor);
    charge_ = fused("drive feed", pos_of(battery), pos_of(motor.id), 1.5, motor.draw.value, 0.04, false, 1.5);
    for (Device& d : p.runs.back().devices) d.fuse = FuseType::high;
    switch_in(p.runs.back(), p.loads.back(), 0.3, "drive contactor");
    const WireSize size = *p.runs.back().size;
    cable("drive return", neg_of(motor.id), neg_of(battery), 1.5, motor.draw.value, 0.04, false);
    p.runs.back().size = size;
    Source shore;
    shore.id = "shore", shore.name = "yard charger", shore.kind = SourceKind::shore,
    shore.place = "place-rear";
    shore.rated_A = 15, shore.regulated_V = 56, shore.return_at = neg_of(battery), shore.charges = battery;
    shore.works_when.switches = {"plugged in"};
    p.sources.push_back(shore);
    fused("charger cable", out_of(shore.id), pos_of(battery), 1, 15, 0.02, true, 1.4);
    for (Device& d : p.runs.back().devices) d.fuse = FuseType::high;
    State charging = p.states.front();
    charging.id = "charging", charging.name = "On the yard charger", charging.switches = {"plugged in"};
    p.states.push_back(charging);
    const Id minus = point("12 V minus", PointKind::bus, "place-cab", false);
    body_ = minus;
    Source dcdc;
    dcdc.id = "dcdc", dcdc.name = "12 V converter", dcdc.kind = SourceKind::converter,
    dcdc.place = "place-rear";
    dcdc.rated_A = 30, dcdc.regulated_V = 13.6, dcdc.return_at = Terminal(minus);
    dcdc.works_when.key = Key::accessory;
    p.sources.push_back(dcdc);
    fused("converter input", pos_of(battery), in_of(dcdc.id), 1, 12, 0.02, false, 1.5);
    for (Device& d : p.runs.back().devices) d.fuse = FuseType::high;
    cable("12 V minus cable", Terminal(minus), neg_of(battery), 1, 40, 0.01, false);
    const Id block = point("12 V block", PointKind::bus, "place-cab", true);
    block_feed_ = cable("12 V feed", out_of(dcdc.id), Terminal(block), 1, 40, 0.01, false);
    accessory({"lamps", 6, 0, "place-cab", Key::ignition, true}, block);
    accessory({"wash pump", 7, 2.5, "place-rear", Key::ignition, true}, block);
    accessory({"display", 2, 0, "place-cab", Key::accessory, false}, block);
    std::erase_if(p.states, [](const State& s) { return s.key == Key::crank || s.rpm > 0; });
    State driving = p.states.front();
    driving.id = "driving", driving.name = "Driving", driving.key = Key::ignition;
    p.states.push_back(driving);
    states();
    p.states.back().switches.push_back("drive");
    return std::move(v_);
}

void VehicleBuilder::states() {
    Plan& p = v_.plan;
    std::vector<std::string> some;
    double amps = 0;
    for (const Id& id : loads_) {
        const Load& l = *find(p.loads, id);
        if (!l.live_when.switches.empty() && amps + l.draw.value < 40)
            some.push_back(l.name), amps += l.draw.value;
    }
    for (State& s : p.states)
        if (s.key == Key::ignition) s.switches = some;
}

namespace {

Run& run_of(Plan& plan, const Id& id) {
    return *std::find_if(plan.runs.begin(), plan.runs.end(), [&](const Run& r) { return r.id == id; });
}

}  // namespace

TestVehicle vehicle(unsigned seed, Mistake mistake) {
    VehicleBuilder builder(seed);
    TestVehicle v = builder.build();
    v.mistake = mistake;
    // the heaviest accessory stands for all
    const auto amps_of = [&](const Id& branch) {
        return find(v.plan.loads, run_of(v.plan, branch).to.owner)->draw.value;
    };
    const Id heavy = *std::max_element(builder.branches().begin(), builder.branches().end(),
                                       [&](const Id& a, const Id& b) { return amps_of(a) < amps_of(b); });
    const auto fuse_of = [&](const Id& id) -> Device& { return run_of(v.plan, id).devices.front(); };
    const auto runs_in_a_state = [&] {
        const std::string name = find(v.plan.loads, run_of(v.plan, heavy).to.owner)->name;
        for (State& s : v.plan.states)
            if (s.key == Key::ignition) s.switches.push_back(name);
    };
    using F = FindingKind;
    switch (mistake) {
        case Mistake::none:
        case Mistake::count:
            break;
        case Mistake::fuse_above_cable:
            v.where = heavy, v.tells = {F::fuse_above_cable};
            run_of(v.plan, heavy).size = WireSize::awg(14);
            fuse_of(heavy).fuse = FuseType::bolt, fuse_of(heavy).rating_A = 80;
            break;
        case Mistake::fuse_missing:
            v.where = builder.block_feed(), v.tells = {F::fuse_missing};
            run_of(v.plan, v.where).devices.clear();
            break;
        case Mistake::fuse_far:
            v.where = builder.block_feed(), v.tells = {F::fuse_far, F::fuse_missing};
            fuse_of(v.where).at_m = *run_of(v.plan, v.where).length_m - 0.1;
            break;
        case Mistake::cable_thin:
            v.where = heavy, v.tells = {F::cable_over_ampacity, F::cable_over_temperature,
                                        F::fuse_above_cable, F::demand_over};
            run_of(v.plan, heavy).size = WireSize::awg(18);
            break;
        case Mistake::drop: {
            runs_in_a_state();
            v.where = heavy, v.tells = {F::drop_over_limit};
            for (Load& l : v.plan.loads)
                if (l.id == run_of(v.plan, heavy).to.owner) l.critical = true;
            run_of(v.plan, heavy).length_m = 10;
            run_of(v.plan, heavy).size = WireSize::awg(8);
            break;
        }
        case Mistake::return_thin:
            v.where = heavy,
            v.tells = {F::return_thinner, F::cable_over_ampacity, F::demand_over, F::drop_over_limit};
            runs_in_a_state();
            for (Run& r : v.plan.runs)
                if (r.from == neg_of(run_of(v.plan, heavy).to.owner)) r.size = WireSize::awg(18);
            break;
        case Mistake::fuse_small:
            v.where = heavy, v.tells = {F::fuse_loaded, F::start_opens_fuse};
            fuse_of(heavy).fuse = FuseType::blade, fuse_of(heavy).rating_A = 5;
            break;
        case Mistake::alternator_cable:
            v.where = builder.charge_cable(),
            v.tells = {F::fuse_above_cable, F::cable_over_ampacity, F::demand_over};
            run_of(v.plan, v.where).size = WireSize::awg(10);
            break;
    }
    return v;
}

TestVehicle small_machine(unsigned seed) {
    return VehicleBuilder(seed).build_small();
}

TestVehicle cart(unsigned seed) {
    return VehicleBuilder(seed).build_cart();
}

}  // namespace yr::test
