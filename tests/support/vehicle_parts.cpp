#include "support/vehicle_builder.h"

#include <algorithm>

#include "size/fuse_size.h"

namespace yr::test {

Id VehicleBuilder::load(const Accessory& a) {
    Load l;
    l.id = "load-" + std::to_string(v_.plan.loads.size());
    l.name = a.name, l.place = a.place, l.draw = {DrawKind::current, a.amps};
    l.live_when.key = a.key;
    if (a.own_switch) l.live_when.switches = {a.name};
    if (a.start > 0) l.inrush_A = a.amps * a.start, l.inrush_s = 0.3;
    l.duty = 0.3;
    v_.plan.loads.push_back(l);
    loads_.push_back(l.id);
    return l.id;
}

void VehicleBuilder::switch_in(Run& run, const Load& l, double at_m, const std::string& name) {
    Device s;
    s.id = "switch-" + l.id, s.name = name, s.kind = DeviceKind::switching, s.at_m = at_m;
    s.closed_when = l.live_when;
    run.devices.push_back(s);
}

// On a fuse block by a switch of its own; on a box by a channel that does what a switch asks.
void VehicleBuilder::accessory(const Accessory& a, const Id& feed, int channel) {
    const Id id = load(a);
    const double length = std::string(a.place) == "place-rear" ? between(3, 5) : between(0.8, 2.5);
    branches_.push_back(fused(std::string(a.name) + " feed", Terminal(feed), pos_of(id), length, a.amps,
                              0.012, false, std::max(1.5, a.start * 0.55)));
    Run& run = v_.plan.runs.back();
    run.channel = channel;
    const Load& l = v_.plan.loads.back();
    if (channel > 0)
        switch_in(run, l, 0, "channel " + std::to_string(channel));
    else if (a.own_switch)
        switch_in(run, l, length / 2, a.name);
    const WireSize size = *run.size;
    cable(std::string(a.name) + " return", neg_of(id), Terminal(body_), length * 0.4, a.amps, 0.01, false);
    v_.plan.runs.back().size = size;
}

void VehicleBuilder::starter_circuit(const Id& battery, double main_m) {
    const double crank_A = pick({160, 200, 240});
    Load starter;
    starter.id = "starter", starter.name = "starter", starter.starter = true, starter.place = "place-bay";
    starter.draw = {DrawKind::resistance, 10.5 / crank_A};
    starter.live_when.key = Key::crank;
    v_.plan.loads.push_back(starter);
    cable("starter cable", pos_of(battery), pos_of("starter"), main_m, crank_A, 0.02, true);
    metal("starter to block", neg_of("starter"), engine_);
    cable("engine strap", Terminal(engine_), neg_of(battery), rear_ ? 0.5 : 0.4, crank_A, 0.01, true);
    cable("body strap", Terminal(body_), neg_of(battery), 0.4, std::max(crank_A, 120.0), 0.01, true);
}

void VehicleBuilder::alternator(const Id& battery, double main_m) {
    Source alternator;
    alternator.id = "alternator", alternator.name = "alternator", alternator.place = "place-bay";
    alternator.rated_A = pick({90, 120, 150});
    alternator.return_at = Terminal(engine_);
    v_.plan.sources.push_back(alternator);
    charge_ = fused("charge cable", out_of("alternator"), pos_of(battery), main_m + 0.4, *alternator.rated_A,
                    0.02, true, 1.3);
}

void VehicleBuilder::inverter(const Id& battery) {
    Inverter i;
    i.id = "inverter", i.name = "inverter", i.place = "place-cab";
    i.continuous_W = pick({600, 1000, 1500});
    i.surge_W = *i.continuous_W * 1.8;
    i.efficiency = 0.9, i.standby_W = 6, i.cutoff_V = 10.8;
    i.works_when.switches = {"inverter"};
    v_.plan.inverters.push_back(i);
    const double amps = *i.continuous_W / 0.9 / 10.8;
    fused("inverter feed", pos_of(battery), pos_of("inverter"), 1.2, amps, 0.02, false, 1.3);
    const WireSize size = *v_.plan.runs.back().size;
    cable("inverter return", neg_of("inverter"), neg_of(battery), 1.2, amps, 0.02, false);
    v_.plan.runs.back().size = size;
    Load mains;
    mains.id = "kettle", mains.name = "mains charger", mains.inverter = "inverter";
    mains.draw = {DrawKind::power, *i.continuous_W * 0.4};
    mains.live_when.switches = {"inverter"};
    mains.duty = 0.1;
    v_.plan.loads.push_back(mains);
    v_.has_inverter = true;
}

void VehicleBuilder::winch(const Id& battery) {
    Load w;
    w.id = "winch", w.name = "recovery winch", w.place = "place-bay";
    w.draw = {DrawKind::current, 250};
    w.line_curve = {{0, 60}, {0.5, 160}, {1, 320}};
    w.line_load = 0.5, w.on_s = 60, w.duty = 0.05;
    w.live_when.key = Key::ignition;
    w.live_when.engine = Engine::running;
    w.live_when.switches = {"winch"};
    v_.plan.loads.push_back(w);
    cable("winch feed", pos_of(battery), pos_of("winch"), rear_ ? 4 : 1.5, 250, 0.03, true);
    Run& run = v_.plan.runs.back();
    run.size = WireSize::awg(-3);
    const WireSize size = *run.size;
    Device d;
    d.id = "fuse-winch", d.name = "winch fuse", d.fuse = FuseType::strip, d.at_m = 0.1;
    d.rating_A = fuse_kind(FuseType::strip).ratings_A.front();
    for (const double r : fuse_kind(FuseType::strip).ratings_A)
        if (r <= 225) d.rating_A = r;
    run.devices.push_back(d);
    Device s;
    s.id = "contactor-winch", s.name = "winch contactor", s.kind = DeviceKind::switching, s.at_m = 0.5;
    s.closed_when = w.live_when;
    run.devices.push_back(s);
    cable("winch return", neg_of("winch"), neg_of(battery), rear_ ? 4 : 1.5, 250, 0.03, true);
    v_.plan.runs.back().size = size;
    v_.has_winch = true;
}
}  // namespace yr::test
