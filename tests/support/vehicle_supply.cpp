// Second batteries by each joiner, control boxes, engine management, solar, trailers.
#include <algorithm>

#include "support/vehicle_builder.h"

namespace yr::test {

void VehicleBuilder::second_battery(const Id& first) {
    Battery b;
    b.id = "battery-2", b.name = "second battery", b.place = "place-rear";
    b.chemistry = Chemistry::agm, b.capacity_Ah = 100, b.cranking_A = 500;
    v_.plan.batteries.push_back(b);
    v_.joiner = static_cast<Joiner>(random_() % static_cast<unsigned>(Joiner::count));
    if (v_.joiner == Joiner::charger) {
        Source dcdc;
        dcdc.id = "dcdc", dcdc.name = "battery charger", dcdc.kind = SourceKind::converter,
        dcdc.place = "place-rear";
        dcdc.rated_A = 25, dcdc.regulated_V = 14.2, dcdc.return_at = neg_of(b.id);
        dcdc.works_when.engine = Engine::running;
        v_.plan.sources.push_back(dcdc);
        fused("charger input", pos_of(first), in_of("dcdc"), 4, 36, 0.02, false, 1.35);
        fused("charger output", out_of("dcdc"), pos_of(b.id), 1, 25, 0.01, true, 1.35);
        cable("second battery ground", neg_of(b.id), Terminal(body_), 0.5, 100, 0.01, true);
        v_.plan.runs.back().size = WireSize::awg(4);
    } else {
        join(first, b.id);
    }
    if (chance(50)) accessory({"camp lamp", 3, 0, "place-rear", Key::off, true}, second_block(b.id));
    if (chance(30)) solar(b.id);
    v_.has_second = true;
}

Id VehicleBuilder::second_block(const Id& battery) {
    const Id block = point("rear block", PointKind::bus, "place-rear", true);
    fused("rear block feed", pos_of(battery), Terminal(block), 0.8, 20, 0.01, false, 1.4);
    return block;
}

// Both batteries on one cable: fuses at both ends, for what one sends the other after a night.
void VehicleBuilder::join(const Id& first, const Id& second) {
    fused("joining cable", pos_of(first), pos_of(second), 4, 160, 0.02, false, 1.35, true);
    Run& run = v_.plan.runs.back();
    const WireSize size = *run.size;
    Device d;
    d.id = "joiner", d.name = "joining relay", d.at_m = 0.5;
    if (v_.joiner == Joiner::sensing_relay) {
        d.kind = DeviceKind::sensing_relay;
        d.close_V = 13.3, d.open_V = 12.7, d.delay_s = 30, d.contact_A = 300;
    } else {
        d.kind = DeviceKind::switching;
        d.contact_A = 300;
        if (v_.joiner == Joiner::contactor)
            d.closed_when.engine = Engine::running, d.closed_when.not_cranking = true;
        else
            d.closed_when.switches = {"batteries joined"};
    }
    run.devices.push_back(d);
    cable("second battery ground", neg_of(second), Terminal(body_), 0.5, 160, 0.01, true);
    v_.plan.runs.back().size = size;
}

void VehicleBuilder::control_box(const Id& battery) {
    const Id box = point("switch box", PointKind::box, "place-cab", true);
    Point& p = v_.plan.points.back();
    for (int k = 1; k <= 6; ++k)
        p.channels.push_back({k, {}, k <= 2 ? 30.0 : 20.0, k <= 2 ? 60.0 : 40.0, {}});
    p.main_A = 80;
    p.standby_W = 0.4;
    fused("box feed", pos_of(battery), Terminal(box), rear_ ? 3.5 : 2.2, 60, 0.01, false, 1.3);
    int channel = 1;
    for (const Accessory& a : {Accessory{"light bar", 15, 0, "place-cab", Key::ignition, true},
                               Accessory{"rock lamps", 6, 0, "place-rear", Key::ignition, true},
                               Accessory{"air horn", 12, 2, "place-bay", Key::accessory, true}})
        accessory(a, box, channel++);
    v_.has_box = true;
}

// A main relay that the key closes by its coil; injection and ignition behind it.
void VehicleBuilder::engine_management(const Id& battery) {
    const Id bus = point("management bus", PointKind::bus, "place-bay", true);
    fused("management feed", pos_of(battery), Terminal(bus), rear_ ? 4 : 0.9, 18, 0.01, false, 1.6);
    const std::size_t feed = v_.plan.runs.size() - 1;
    for (const Accessory& a : {Accessory{"injection", 8, 0, "place-bay", Key::ignition, false},
                               Accessory{"ignition coils", 9, 0, "place-bay", Key::ignition, false}}) {
        accessory(a, bus);
        v_.plan.loads.back().duty.reset();
    }
    Device relay;
    relay.id = "main-relay", relay.name = "main relay", relay.kind = DeviceKind::switching, relay.at_m = 0.4;
    relay.closed_when.key = Key::ignition;
    relay.contact_A = 40;
    v_.plan.runs[feed].devices.push_back(relay);
}

void VehicleBuilder::solar(const Id& battery) {
    Source panel;
    panel.id = "panel", panel.name = "roof panel", panel.kind = SourceKind::solar, panel.place = "place-rear";
    panel.panel_W = pick({50, 100, 200});
    panel.regulated_V = 14.3, panel.return_at = neg_of(battery), panel.charges = battery;
    v_.plan.sources.push_back(panel);
    fused("panel cable", out_of("panel"), pos_of(battery), 2, *panel.panel_W / 12, 0.02, true, 1.4);
}

// Lamps and a pump behind a socket at the rear; both leads go back to the battery's side of the vehicle.
void VehicleBuilder::trailer(const Id& battery) {
    const Id socket = point("trailer socket", PointKind::bus, "place-rear", true);
    fused("trailer feed", pos_of(battery), Terminal(socket), rear_ ? 1.5 : 5.5, 16, 0.015, false, 1.5);
    accessory({"trailer lamps", 6, 0, "place-rear", Key::ignition, true}, socket);
    accessory({"trailer pump", 7, 2.5, "place-rear", Key::ignition, true}, socket);
}

}  // namespace yr::test
