#include "plan/additions.h"

#include <algorithm>

#include "plan/plan_builder.h"

namespace yr {
namespace {

class Builder : public PlanBuilder {
  public:
    using PlanBuilder::PlanBuilder;

    void run(const std::string& name, const Terminal& from, const Terminal& to, double length_m, int awg,
             double fuse_A, const Condition& closed_when = {}, bool lithium = false) {
        Run r;
        r.id = id("run");
        r.name = name;
        r.from = from;
        r.to = to;
        r.length_m = length_m;
        r.size = WireSize::awg(awg);
        if (fuse_A > 0)
            r.devices.push_back({id("fuse"),
                                 name + " fuse",
                                 DeviceKind::fuse,
                                 std::min(0.15, length_m / 4),
                                 lithium       ? FuseType::high  // a short there is thousands of amps
                                 : fuse_A > 40 ? FuseType::bolt
                                               : FuseType::blade,
                                 fuse_A,
                                 {},
                                 {}});
        if (!(closed_when == Condition{}))
            r.devices.push_back(
                {id("switch"), name + " relay", DeviceKind::switching, length_m / 3, {}, 0, closed_when, {}});
        put(r);
    }

    Addition finish(const Id& id) { return {PlanBuilder::finish(), id}; }
};

const Point* first_chassis(const Plan& plan) {
    for (const Point& p : plan.points)
        if (p.kind == PointKind::chassis) return &p;
    return nullptr;
}

auto no_battery() {
    return fail(ErrorCode::missing_reference, "battery", {}, Want::a_plan_with_a_battery);
}

}  // namespace

namespace {
auto no_second_battery() {
    return fail(ErrorCode::missing_reference, "second battery", {}, Want::a_plan_with_two_batteries);
}
}  // namespace

Result<Addition> add_alternator(const Plan& plan) {
    if (plan.batteries.empty()) return no_battery();
    Builder b(plan);
    Source s;
    s.id = b.id("alternator");
    s.name = "alternator";
    s.place = plan.batteries.front().place;
    const Point* block = first_chassis(plan);
    s.return_at = block ? block->id : neg_of(plan.batteries.front().id);
    s.works_when.engine = Engine::running;
    const Id id = s.id;
    b.put(s);
    b.run("charge cable", pos_of(plan.batteries.front().id), out_of(id), 1.5, 2, 100);
    return b.finish(id);
}

Result<Addition> add_feed(const Plan& plan, const Condition& closed_when) {
    if (plan.batteries.empty()) return no_battery();
    Builder b(plan);
    const char* name = closed_when.key == Key::accessory  ? "accessory feed"
                       : closed_when.key == Key::ignition ? "ignition feed"
                                                          : "feed";
    Point p{b.id("feed"), name, PointKind::bus, {}, {}, {}, neg_of(plan.batteries.front().id), true};
    b.put(p);
    b.run(p.name + " cable", pos_of(plan.batteries.front().id), p.id, 2.0, 6, 60, closed_when);
    return b.finish(p.id);
}

Result<Addition> add_second_battery(const Plan& plan) {
    if (plan.batteries.empty()) return no_battery();
    Builder b(plan);
    Battery battery;
    battery.id = b.id("battery");
    battery.name = "second battery";
    battery.chemistry = Chemistry::lifepo4;
    battery.capacity_Ah = 100;
    b.put(battery);
    Point bus{b.id("feed"), "second battery bus", PointKind::bus, {}, {}, {}, neg_of(battery.id), true};
    b.put(bus);
    b.run("second battery cable", pos_of(battery.id), bus.id, 0.5, 2, 125, {}, true);
    b.run("second battery return", neg_of(battery.id), neg_of(plan.batteries.front().id), 3.0, 2, 0);
    return b.finish(battery.id);
}

Result<Addition> add_charger(const Plan& plan) {
    if (plan.batteries.size() < 2) return no_second_battery();
    Builder b(plan);
    Source s;
    s.id = b.id("charger");
    s.name = "DC-DC charger";
    s.kind = SourceKind::converter;
    s.return_at = neg_of(plan.batteries.back().id);
    s.rated_A = 20;
    s.works_when.engine = Engine::running;
    const Id id = s.id;
    b.put(s);
    b.run("charger feed", pos_of(plan.batteries.front().id), in_of(id), 3.0, 6, 50);
    b.run("charger output", pos_of(plan.batteries.back().id), out_of(id), 0.8, 8, 40, {},
          plan.batteries.back().chemistry == Chemistry::lifepo4);
    return b.finish(id);
}

Result<Addition> add_inverter(const Plan& plan) {
    if (plan.batteries.empty()) return no_battery();
    Builder b(plan);
    const Battery& battery = plan.batteries.back();
    Inverter i;
    i.id = b.id("inverter");
    i.name = "inverter 1000 W";
    i.place = battery.place;
    i.continuous_W = 1000;
    i.surge_W = 2000;
    i.cutoff_V = 10.5 * plan.vehicle.nominal_V / 12;
    b.put(i);
    const bool lithium = battery.chemistry == Chemistry::lifepo4;
    b.run("inverter feed", pos_of(battery.id), pos_of(i.id), 0.8, 0, 125, {}, lithium);
    b.run("inverter return", neg_of(i.id), neg_of(battery.id), 0.8, 0, 0);
    return b.finish(i.id);
}

Result<Addition> add_link(const Plan& plan, Link link) {
    if (plan.batteries.size() < 2) return no_second_battery();
    Builder b(plan);
    const Battery &first = plan.batteries.front(), &last = plan.batteries.back();
    Run r;
    r.id = b.id("run");
    r.name = "battery link";
    r.from = pos_of(first.id);
    r.to = pos_of(last.id);
    r.length_m = 3;
    r.size = WireSize::awg(0);
    const auto fuse = [&](const char* name, double at_m, const Battery& at) {
        const FuseType type = at.chemistry == Chemistry::lifepo4 ? FuseType::high : FuseType::bolt;
        Device d;
        d.id = new_id(plan, name);
        d.name = std::string("link ") + name;
        d.at_m = at_m;
        d.fuse = type;
        d.rating_A = 150;
        r.devices.push_back(d);
    };
    fuse("fuse-front", 0.15, first);
    Device d;
    d.id = new_id(plan, "joiner");
    d.at_m = 0.4;
    switch (link) {
        case Link::sensing_relay:
            d.kind = DeviceKind::sensing_relay;
            d.name = "sensing relay";
            break;
        case Link::contactor:
            d.kind = DeviceKind::switching;
            d.name = "ignition contactor";
            d.closed_when.engine = Engine::running;
            break;
        case Link::isolator:
            d.kind = DeviceKind::diode;
            d.name = "isolator";
            break;
    }
    r.devices.push_back(d);
    fuse("fuse-rear", 2.85, last);
    const Id id = r.id;
    b.put(r);
    return b.finish(id);
}

namespace {

Result<Addition> add_charging_source(const Plan& plan, Source s, const char* head, const char* cable, int awg,
                                     double fuse_A) {
    if (plan.batteries.empty()) return no_battery();
    Builder b(plan);
    const Battery& battery = plan.batteries.back();
    s.id = b.id(head);
    s.return_at = neg_of(battery.id);
    s.charges = battery.id;
    s.place = battery.place;
    const Id id = s.id;
    b.put(s);
    b.run(cable, pos_of(battery.id), out_of(id), 1.0, awg, fuse_A, {},
          battery.chemistry == Chemistry::lifepo4);
    return b.finish(id);
}

}  // namespace

Result<Addition> add_shore(const Plan& plan) {
    Source s;
    s.name = "shore charger";
    s.kind = SourceKind::shore;
    s.rated_A = 20;
    s.works_when.switches = {"plugged in"};
    return add_charging_source(plan, s, "shore", "shore charger cable", 8, 40);
}

Result<Addition> add_solar(const Plan& plan) {
    Source s;
    s.name = "solar panel";
    s.kind = SourceKind::solar;
    s.panel_W = 100;
    return add_charging_source(plan, s, "solar", "solar cable", 10, 30);
}

Result<Addition> add_bank_battery(const Plan& plan) {
    if (plan.batteries.empty()) return no_battery();
    Builder b(plan);
    Battery battery = plan.batteries.front();
    const Id first = battery.id;
    battery.id = b.id("battery");
    battery.name = "battery beside " + plan.batteries.front().name;
    b.put(battery);
    b.run("bank link +", pos_of(first), pos_of(battery.id), 0.4, -1, 0);
    b.run("bank link \xE2\x88\x92", neg_of(battery.id), neg_of(first), 0.4, -1, 0);
    return b.finish(battery.id);
}

Result<Addition> add_cable(const Plan& plan, const std::string& name, const Terminal& from,
                           const Terminal& to, std::optional<double> length_m, std::optional<WireSize> size) {
    const auto all = terminals_of(plan);
    for (const Terminal* t : {&from, &to})
        if (std::find(all.begin(), all.end(), *t) == all.end())
            return fail(ErrorCode::missing_reference, name, t->text(), Want::a_terminal_of_this_plan);
    if (from == to) return fail(ErrorCode::out_of_range, name, from.text(), Want::two_different_ends);
    if (length_m && !(*length_m > 0 && *length_m <= 200))
        return fail(ErrorCode::out_of_range, name, std::to_string(*length_m), Want::a_length_up_to_200_m);
    Builder b(plan);
    Run r;
    r.id = b.id("run");
    r.name = name;
    r.from = from;
    r.to = to;
    r.length_m = length_m;
    r.size = size;
    const Id id = r.id;
    b.put(r);
    return b.finish(id);
}

Result<Addition> add_point(const Plan& plan, PointKind kind, const std::string& name) {
    Builder b(plan);
    Point p;
    p.id = b.id(kind == PointKind::chassis ? "chassis" : "point");
    p.name = name;
    p.kind = kind;
    p.feeds_loads = kind == PointKind::bus || kind == PointKind::box;
    if (p.feeds_loads && !plan.batteries.empty()) p.return_at = neg_of(plan.batteries.front().id);
    const Id id = p.id;
    b.put(p);
    return b.finish(id);
}

std::vector<Terminal> terminals_of(const Plan& plan) {
    std::vector<Terminal> all;
    for (const Battery& b : plan.batteries) all.insert(all.end(), {pos_of(b.id), neg_of(b.id)});
    for (const Source& s : plan.sources) {
        all.push_back(out_of(s.id));
        if (s.kind == SourceKind::converter) all.push_back(in_of(s.id));
    }
    for (const Point& p : plan.points) all.push_back(p.id);
    for (const Inverter& i : plan.inverters) all.insert(all.end(), {pos_of(i.id), neg_of(i.id)});
    for (const Load& l : plan.loads)
        if (l.inverter.empty()) all.insert(all.end(), {pos_of(l.id), neg_of(l.id)});
    return all;
}

Result<Addition> add_starter(const Plan& plan, const std::string& name, double ohm) {
    if (plan.batteries.empty()) return no_battery();
    for (Load l : plan.loads) {
        if (!l.starter) continue;
        l.draw = {DrawKind::resistance, ohm};
        return Addition{Put<Load>{l, std::nullopt}, l.id};
    }
    Builder b(plan);
    Load l;
    l.id = b.id("load");
    l.name = name;
    l.draw = {DrawKind::resistance, ohm};
    l.live_when.key = Key::crank;
    l.starter = true;
    const Id id = l.id;
    b.put(l);
    const Point* block = first_chassis(plan);
    b.run("starter cable", pos_of(plan.batteries.front().id), pos_of(id), 1.2, -1, 0);
    b.run("starter return", neg_of(id), block ? block->id : neg_of(plan.batteries.front().id), 0.2, -1, 0);
    return b.finish(id);
}

Result<Addition> add_ground(const Plan& plan) {
    const Point* metal = first_chassis(plan);
    if (!metal) return fail(ErrorCode::missing_reference, "chassis", {}, Want::a_plan_with_a_chassis_part);
    Builder b(plan);
    Point p{b.id("ground"), "ground point", PointKind::ground, metal->place, metal->id, {}, {}, false};
    b.put(p);
    return b.finish(p.id);
}

}  // namespace yr
