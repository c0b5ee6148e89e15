#include "size/additions.h"

#include <algorithm>

namespace yr {
namespace {

// Hands out ids that are free in the plan and among what is being added.
class Builder {
  public:
    explicit Builder(const Plan& plan) : scratch_(plan) {}

    template <class T>
    T& put(std::vector<T> Plan::*list, T thing) {
        (scratch_.*list).push_back(thing);
        edits_.edits.emplace_back(Put<T>{std::move(thing), std::nullopt});
        return std::get<Put<T>>(edits_.edits.back()).thing;
    }

    Id id(std::string_view head) const { return new_id(scratch_, head); }

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
        put(&Plan::runs, r);
    }

    Addition finish(const Id& id) { return {std::move(edits_), id}; }

  private:
    Plan scratch_;
    Batch edits_;
};

const Point* first_chassis(const Plan& plan) {
    for (const Point& p : plan.points)
        if (p.kind == PointKind::chassis) return &p;
    return nullptr;
}

auto no_battery() {
    return fail(ErrorCode::missing_reference, "battery", {}, "a plan with a battery");
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
    s.return_at = block ? block->id : plan.batteries.front().id + ".neg";
    s.works_when.engine = Engine::running;
    const Id id = s.id;
    b.put(&Plan::sources, s);
    b.run("charge cable", plan.batteries.front().id + ".pos", id + ".out", 1.5, 2, 100);
    return b.finish(id);
}

Result<Addition> add_feed(const Plan& plan, const Condition& closed_when) {
    if (plan.batteries.empty()) return no_battery();
    Builder b(plan);
    const char* name = closed_when.key == Key::accessory  ? "accessory feed"
                       : closed_when.key == Key::ignition ? "ignition feed"
                                                          : "feed";
    Point p{b.id("feed"), name, PointKind::bus, {}, {}, {}, plan.batteries.front().id + ".neg", true};
    b.put(&Plan::points, p);
    b.run(p.name + " cable", plan.batteries.front().id + ".pos", p.id, 2.0, 6, 60, closed_when);
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
    b.put(&Plan::batteries, battery);
    Point bus{b.id("feed"), "second battery bus", PointKind::bus, {}, {}, {}, battery.id + ".neg", true};
    b.put(&Plan::points, bus);
    b.run("second battery cable", battery.id + ".pos", bus.id, 0.5, 2, 125, {}, true);
    b.run("second battery return", battery.id + ".neg", plan.batteries.front().id + ".neg", 3.0, 2, 0);
    return b.finish(battery.id);
}

Result<Addition> add_charger(const Plan& plan) {
    if (plan.batteries.size() < 2)
        return fail(ErrorCode::missing_reference, "second battery", {}, "a plan with two batteries");
    Builder b(plan);
    Source s;
    s.id = b.id("charger");
    s.name = "DC-DC charger";
    s.kind = SourceKind::converter;
    s.return_at = plan.batteries.back().id + ".neg";
    s.rated_A = 20;
    s.works_when.engine = Engine::running;
    const Id id = s.id;
    b.put(&Plan::sources, s);
    b.run("charger feed", plan.batteries.front().id + ".pos", id + ".in", 3.0, 6, 50);
    b.run("charger output", plan.batteries.back().id + ".pos", id + ".out", 0.8, 8, 40, {},
          plan.batteries.back().chemistry == Chemistry::lifepo4);
    return b.finish(id);
}

Result<Addition> add_ground(const Plan& plan) {
    const Point* metal = first_chassis(plan);
    if (!metal) return fail(ErrorCode::missing_reference, "chassis", {}, "a plan with a chassis part");
    Builder b(plan);
    Point p{b.id("ground"), "ground point", PointKind::ground, metal->place, metal->id, {}, {}, false};
    b.put(&Plan::points, p);
    return b.finish(p.id);
}

}  // namespace yr
