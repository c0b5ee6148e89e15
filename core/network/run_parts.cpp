// One run as a conductor: its cable, joints, fuses, contacts and diodes in order.
#include <algorithm>
#include <cmath>

#include "network/assumed.h"
#include "network/connectors.h"

namespace yr {
namespace {

void add_cable_parts(ConductorElement& e, const Plan& plan, const Run& r, const WireSize& size,
                     std::vector<AssumptionUse>& uses) {
    const auto wire = conductor(size, r.material);
    const double area = wire ? wire->area_mm2 : 1;
    const double joint =
        std::max(assumption("joint_mohm_mm2").value / area, assumption("joint_floor_mohm").value) * 1e-3 /
        r.parallel;
    uses.push_back({"joint_mohm_mm2", r.id, joint * 1e3});
    e.parts.push_back({PartKind::joint, -1, joint});
    const auto add_device = [&](int index) {
        const Device& d = r.devices[static_cast<std::size_t>(index)];
        const bool fuse = d.kind == DeviceKind::fuse, diode = d.kind == DeviceKind::diode;
        const double ohm = d.resistance_ohm ? *d.resistance_ohm
                           : fuse           ? fuse_resistance_ohm(d.fuse, d.rating_A)
                                            : or_assumed({}, "contact_mohm", d.id, uses) * 1e-3;
        const double forward = diode ? or_assumed(d.forward_V, "diode_V", d.id, uses) : 0;
        e.forward_V += forward;
        e.parts.push_back({fuse    ? PartKind::fuse
                           : diode ? PartKind::diode
                                   : PartKind::switching,
                           index, ohm, forward});
    };
    // devices in the near half come before the cable, the others after it
    const double length = length_or_assumed_m(r);
    const auto far_half = [&](const Device& d) { return d.at_m.value_or(0) > length / 2; };
    const std::vector<Passing> passings = passings_of(plan, r);
    const auto add_pins = [&](bool far) {
        for (const Passing& p : passings) {
            if ((p.at_m.value_or(length) > length / 2) != far) continue;
            const double ohm =
                contact_ohm(*p.connector, uses) / static_cast<double>(p.pins.size()) / r.parallel;
            e.parts.push_back(
                {PartKind::pin, -1, ohm, 0, static_cast<int>(p.connector - plan.connectors.data())});
        }
    };
    for (std::size_t k = 0; k < r.devices.size(); ++k)
        if (!far_half(r.devices[k])) add_device(static_cast<int>(k));
    add_pins(false);
    e.parts.push_back({PartKind::cable, -1, 0});
    add_pins(true);
    for (std::size_t k = 0; k < r.devices.size(); ++k)
        if (far_half(r.devices[k])) add_device(static_cast<int>(k));
    e.parts.push_back({PartKind::joint, -1, joint});
    for (const SeriesPart& p : e.parts) e.fixed_ohm += p.fixed_ohm;
}

}  // namespace

void fill_run_parts(ConductorElement& e, const Plan& plan, const Run& r, const State& state,
                    std::vector<AssumptionUse>& uses) {
    e.parts.clear();
    e.fixed_ohm = e.forward_V = 0;
    const CableValues cable = cable_values(plan, r, state, uses);
    e.cable20_ohm = cable.cable20_ohm;
    e.cable = cable.surroundings;
    e.parallel = r.parallel;
    if (!r.body_metal && !r.resistance_ohm) {
        add_cable_parts(e, plan, r, cable.size, uses);
        if (e.turn) e.turn->end_C = duty_temperature(e.cable, each_of(e.turn->cycle, r.parallel)).peak_C;
        return;
    }
    e.turn.reset();
    const double ohm = r.resistance_ohm ? *r.resistance_ohm : or_assumed({}, "metal_mohm", r.id, uses) * 1e-3;
    e.cable20_ohm = 0;
    e.fixed_ohm = ohm;
    e.parts = {{PartKind::metal, -1, ohm}};
    for (std::size_t k = 0; k < r.devices.size(); ++k)
        if (r.devices[k].kind == DeviceKind::diode) {
            const double forward = or_assumed(r.devices[k].forward_V, "diode_V", r.devices[k].id, uses);
            e.forward_V += forward;
            e.parts.push_back({PartKind::diode, static_cast<int>(k), 0, forward});
        }
}

RunAir run_air(const Plan& plan, const Run& run, const State& state) {
    RunAir air{state.ambient_C, false};
    for (const Id& id : places_of(run)) {
        const Place* place = find(plan.places, id);
        if (!place) continue;
        air.engine_space = air.engine_space || place->engine_space;
        air.ambient_C = std::max(air.ambient_C, air_at(plan, id, state));
    }
    return air;
}

CableValues cable_values(const Plan& plan, const Run& run, const State& state,
                         std::vector<AssumptionUse>& assumptions) {
    CableValues v;
    if (run.body_metal || run.resistance_ohm) return v;
    v.length_m = or_assumed(length_of(run), "run_length_m", run.id, assumptions);
    if (run.size)
        v.size = *run.size;
    else
        assumptions.push_back({"run_size_awg", run.id, 14});
    const auto wire = conductor(v.size, run.material);
    if (!wire) return v;
    v.cable20_ohm = wire->R20_ohm_per_m * v.length_m / run.parallel;
    const double bundle = plan.policy.bundle_derating ? bundle_factor(bundle_of(plan, run)) : 1;
    v.surroundings = surroundings_of(*wire, run_air(plan, run, state).ambient_C, bundle);
    return v;
}

}  // namespace yr
