#include "meter/faults.h"

#include <algorithm>
#include <cmath>

#include "size/run_limits.h"

namespace yr {
namespace {

// Index in network.conductors of a run or a ground's bond; -1: none.
int conductor_of(const Network& network, const Plan& plan, const Id& thing) {
    for (std::size_t k = 0; k < network.conductors.size(); ++k) {
        const ConductorElement& c = network.conductors[k];
        if (c.run >= 0 && plan.runs[static_cast<std::size_t>(c.run)].id == thing) return static_cast<int>(k);
        if (c.ground_point >= 0 && plan.points[static_cast<std::size_t>(c.ground_point)].id == thing)
            return static_cast<int>(k);
    }
    return -1;
}

template <class T>
int index_of(const std::vector<T>& things, const Id& id) {
    for (std::size_t k = 0; k < things.size(); ++k)
        if (things[k].id == id) return static_cast<int>(k);
    return -1;
}

void stuck(Network& network, int conductor) {
    ConductorElement& c = network.conductors[static_cast<std::size_t>(conductor)];
    c.closed = true;
    std::erase_if(network.memories, [&](const MemoryElement& m) { return m.conductor == conductor; });
}

void open(Network& network, int conductor) {
    network.conductors[static_cast<std::size_t>(conductor)].closed = false;
    std::erase_if(network.memories, [&](const MemoryElement& m) { return m.conductor == conductor; });
}

}  // namespace

double likely(const Plan& plan, FaultKind kind) {
    for (const FaultWeight& own : plan.policy.faults)
        if (own.fault == name_of(kind)) return own.weight;
    return fault_prior(kind).prior;
}

std::vector<Fault> faults_of(const Plan& plan) {
    std::vector<Fault> all;
    const auto add = [&](FaultKind kind, const Id& thing, const Id& other = {}) {
        const FaultPrior p = fault_prior(kind);
        all.push_back({kind, thing, other, likely(plan, kind), p.least, p.most});
    };
    add(FaultKind::none, {});
    const SupplySide supply(plan);
    for (const Run& r : plan.runs) {
        bool fuse = false, contact = false;
        for (const Device& d : r.devices) {
            fuse = fuse || d.kind == DeviceKind::fuse;
            contact = contact || d.kind == DeviceKind::switching || d.kind == DeviceKind::sensing_relay ||
                      d.kind == DeviceKind::cutoff;
        }
        if (!r.body_metal) add(fuse ? FaultKind::fuse : contact ? FaultKind::contact : FaultKind::open, r.id);
        if (contact) {
            if (fuse) add(FaultKind::contact, r.id);
            add(FaultKind::stuck, r.id);
        }
        add(FaultKind::joint, r.id);
        if (!r.body_metal && !r.resistance_ohm) add(FaultKind::thin, r.id);
        const Load* fed = find(plan.loads, std::string_view(r.to.owner));
        if (fed && r.to.post == Post::pos) add(FaultKind::leak, r.id);
    }
    for (const Point& p : plan.points)
        if (p.kind == PointKind::ground && !p.bonded_to.empty()) add(FaultKind::ground, p.id);
    for (const Battery& b : plan.batteries)
        add(FaultKind::battery_weak, b.id), add(FaultKind::battery_low, b.id);
    for (const Source& s : plan.sources) {
        add(FaultKind::charge_none, s.id);
        if (s.kind != SourceKind::solar) add(FaultKind::charge_low, s.id), add(FaultKind::charge_high, s.id);
    }
    for (const Load& l : plan.loads) {
        if (!l.inverter.empty() || l.later) continue;
        add(FaultKind::load_dead, l.id);
        if (!l.starter) add(FaultKind::load_heavy, l.id);
    }
    for (const Point& box : plan.points) {  // channels beside each other are mistaken for each other
        std::vector<const Run*> on;
        for (const Run& r : plan.runs)
            if (r.from.owner == box.id && r.channel > 0 && find(plan.loads, std::string_view(r.to.owner)))
                on.push_back(&r);
        std::sort(on.begin(), on.end(), [](const Run* a, const Run* b) { return a->channel < b->channel; });
        for (std::size_t k = 0; k + 1 < on.size(); ++k) add(FaultKind::swapped, on[k]->id, on[k + 1]->id);
    }
    return all;
}

void put_in(Network& network, const Plan& plan, const Fault& fault, double strength) {
    const int c = conductor_of(network, plan, fault.thing);
    const auto conductor = [&]() -> ConductorElement& {
        return network.conductors[static_cast<std::size_t>(c)];
    };
    const int b = index_of(plan.batteries, fault.thing), s = index_of(plan.sources, fault.thing),
              l = index_of(plan.loads, fault.thing);
    switch (fault.kind) {
        case FaultKind::none:
            return;
        case FaultKind::open:
        case FaultKind::fuse:
        case FaultKind::contact:
            if (c >= 0) open(network, c);
            return;
        case FaultKind::stuck:
            if (c >= 0) stuck(network, c);
            return;
        case FaultKind::joint:
        case FaultKind::ground:
            if (c >= 0) conductor().fixed_ohm += strength;
            return;
        case FaultKind::thin:
            if (c >= 0) conductor().cable20_ohm *= strength;
            return;
        case FaultKind::leak: {
            if (c < 0) return;
            LoadElement leak;
            leak.pos = conductor().to, leak.neg = network.reference;
            leak.kind = DrawKind::resistance, leak.value = strength;
            leak.wanted = true;
            network.loads.push_back(leak);
            return;
        }
        case FaultKind::battery_weak:
            if (b >= 0) network.batteries[static_cast<std::size_t>(b)].R0_ohm *= strength;
            return;
        case FaultKind::battery_low:
            if (b >= 0) {
                BatteryElement& x = network.batteries[static_cast<std::size_t>(b)];
                x.open_V -= strength * x.blocks;
            }
            return;
        case FaultKind::charge_none:
            if (s >= 0) network.sources[static_cast<std::size_t>(s)].works = false;
            return;
        case FaultKind::charge_low:
        case FaultKind::charge_high:
            if (s >= 0)
                network.sources[static_cast<std::size_t>(s)].set_V +=
                    (fault.kind == FaultKind::charge_low ? -strength : strength) * network.nominal_V / 12;
            return;
        case FaultKind::load_dead:
            if (l >= 0) network.loads[static_cast<std::size_t>(l)].wanted = false;
            return;
        case FaultKind::load_heavy:
            if (l >= 0) {
                LoadElement& x = network.loads[static_cast<std::size_t>(l)];
                x.kind == DrawKind::resistance ? x.value /= strength : x.value *= strength;
            }
            return;
        case FaultKind::swapped: {
            const int other = conductor_of(network, plan, fault.other);
            if (c >= 0 && other >= 0)
                std::swap(conductor().to, network.conductors[static_cast<std::size_t>(other)].to);
            return;
        }
    }
}

std::vector<double> strengths(const Fault& fault, std::size_t count) {
    if (!fault.graded()) return {0};
    std::vector<double> all;
    const double low = std::log(fault.least), high = std::log(fault.most);
    for (std::size_t k = 0; k < count; ++k)
        all.push_back(std::exp(low + (high - low) * static_cast<double>(k) / static_cast<double>(count - 1)));
    return all;
}

}  // namespace yr
