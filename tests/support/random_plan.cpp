#include "support/random_plan.h"

#include <random>

namespace yr::test {
namespace {

class Maker {
  public:
    Maker(std::uint32_t seed, const RandomShape& shape) : random_(seed), shape_(shape) {}

    Plan make() {
        plan_ = empty_plan("random");
        plan_.points = {
            {"chassis", "chassis", PointKind::chassis, {}, {}, {}, {}, false},
            {"ground", "ground", PointKind::ground, {}, "chassis", between(2e-4, 2e-3), {}, false}};
        plan_.runs.clear();
        plan_.states = {{"s",
                         "Idling",
                         Key::ignition,
                         between(700, 2500),
                         between(-10, 40),
                         between(20, 90),
                         between(0.4, 0.95),
                         {}}};
        plan_.batteries[0].capacity_Ah = between(40, 120);
        plan_.batteries[0].cranking_A = between(400, 900);
        add_run("chassis", "battery-1.neg");
        if (!shape_.resistive && chance(0.7)) add_alternator();
        for (int k = 0; k < shape_.feeds; ++k) add_feed(k);
        if (!shape_.resistive && chance(0.4)) add_second_battery();
        for (int k = 0; k < shape_.loads; ++k) add_load(k);
        if (shape_.loops) add_loops();
        return plan_;
    }

  private:
    double between(double a, double b) { return std::uniform_real_distribution<double>(a, b)(random_); }
    int pick(int n) { return std::uniform_int_distribution<int>(0, n - 1)(random_); }
    bool chance(double p) { return between(0, 1) < p; }

    Run& add_run(const Terminal& from, const Terminal& to, int thickest = -2) {
        Run r;
        r.id = "r" + std::to_string(plan_.runs.size());
        r.name = r.id;
        r.from = from;
        r.to = to;
        r.length_m = between(0.3, 6);
        const int sizes[] = {14, 12, 10, 8, 6, 4, 2, 0, -1, -2};
        do r.size = WireSize::awg(sizes[pick(10)]);
        while (r.size->number() > 10 + thickest + 2);
        if (chance(0.2)) r.size = WireSize::metric(chance(0.5) ? 16 : 25);
        if (chance(0.2)) r.parallel = 2;
        if (chance(0.3)) r.bundle = 1 + pick(6);
        if (chance(0.5)) r.places = {"place-bay"};
        if (chance(0.4))
            r.devices.push_back({r.id + "f", "fuse", DeviceKind::fuse, 0.1, FuseType::bolt, 100, {}, {}});
        if (chance(0.2))
            r.devices.push_back({r.id + "s",
                                 "switch",
                                 DeviceKind::switching,
                                 0.2,
                                 {},
                                 0,
                                 {Key::accessory, Engine::any, {}},
                                 {}});
        return plan_.runs.emplace_back(r);
    }

    void add_alternator() {
        Source s;
        s.id = "alternator";
        s.name = s.id;
        s.place = "place-bay";
        s.return_at = "chassis";
        s.rated_A = between(40, 200);
        s.regulated_V = between(13.6, 14.6);
        if (chance(0.5)) s.droop_ohm = between(1e-3, 8e-3);
        s.works_when.engine = Engine::running;
        plan_.sources.push_back(s);
        add_run("alternator.out", "battery-1.pos");
    }

    void add_feed(int k) {
        const Id id = "feed" + std::to_string(k);
        plan_.points.push_back({id, id, PointKind::bus, {}, {}, {}, {}, true});
        feeds_.push_back(id);
        add_run(k == 0 || chance(0.5) ? Terminal("battery-1.pos") : feeds_[static_cast<std::size_t>(pick(k))],
                id);
    }

    void add_second_battery() {
        Battery b;
        b.id = "battery-2";
        b.name = b.id;
        b.chemistry = Chemistry::lifepo4;
        b.capacity_Ah = 100;
        plan_.batteries.push_back(b);
        add_run("battery-2.neg", "chassis");
        Source s;
        s.id = "charger";
        s.name = s.id;
        s.kind = SourceKind::converter;
        s.return_at = "battery-2.neg";
        s.rated_A = between(10, 30);
        plan_.sources.push_back(s);
        add_run(feeds_[0], "charger.in");
        add_run("charger.out", "battery-2.pos");
    }

    void add_load(int k) {
        Load l;
        l.id = "load" + std::to_string(k);
        l.name = l.id;
        const double amps = between(0.2, 14);
        const int kind = shape_.resistive ? 2 : pick(3);
        l.draw = kind == 0   ? Draw{DrawKind::current, amps}
                 : kind == 1 ? Draw{DrawKind::power, amps * 12}
                             : Draw{DrawKind::resistance, 12 / amps};
        if (chance(0.2)) l.count = 2;
        plan_.loads.push_back(l);
        add_run(feeds_[static_cast<std::size_t>(pick(shape_.feeds))], l.id + ".pos", 0);
        add_run(l.id + ".neg", chance(0.5) ? "ground" : chance(0.5) ? "chassis" : "battery-1.neg", 0);
    }

    void add_loops() {
        for (int k = 0; k < 3; ++k) {
            const Terminal a = feeds_[static_cast<std::size_t>(pick(shape_.feeds))],
                           b = feeds_[static_cast<std::size_t>(pick(shape_.feeds))];
            if (a != b) add_run(a, b);
        }
        add_run("battery-1.pos", feeds_.back());
        add_run("ground", "battery-1.neg");
    }

    std::mt19937 random_;
    RandomShape shape_;
    Plan plan_;
    std::vector<Id> feeds_;
};

}  // namespace

Plan random_plan(std::uint32_t seed, const RandomShape& shape) {
    return Maker(seed, shape).make();
}

Plan wide_plan(int loads) {
    Plan plan = empty_plan("wide");
    plan.states = {{"s", "Idling", Key::ignition, 900, 30, 70, {}, {}}};
    plan.batteries[0].capacity_Ah = 100.0 * std::max(1, loads / 50);
    const int feeds = std::max(1, loads / 10);
    for (int k = 0; k < feeds; ++k) {
        const Id id = "feed" + std::to_string(k);
        plan.points.push_back({id, id, PointKind::bus, {}, {}, {}, {}, true});
        Run r;
        r.id = "fr" + std::to_string(k), r.name = r.id, r.from = "battery-1.pos", r.to = id, r.length_m = 2,
        r.size = WireSize::awg(2);
        plan.runs.push_back(r);
    }
    for (int k = 0; k < loads; ++k) {
        Load l;
        l.id = "l" + std::to_string(k), l.name = l.id;
        l.draw = k % 3 == 0   ? Draw{DrawKind::power, 12}
                 : k % 3 == 1 ? Draw{DrawKind::current, 0.7}
                              : Draw{DrawKind::resistance, 20};
        plan.loads.push_back(l);
        Run supply;
        supply.id = "s" + l.id, supply.name = supply.id, supply.from = "feed" + std::to_string(k % feeds),
        supply.to = l.id + ".pos";
        supply.length_m = 3, supply.size = WireSize::awg(12);
        Run ret = supply;
        ret.id = "t" + l.id, ret.name = ret.id, ret.from = l.id + ".neg",
        ret.to = k % 2 ? "point-body" : "battery-1.neg";
        plan.runs.push_back(supply);
        plan.runs.push_back(ret);
    }
    return plan;
}

std::string demo_path(const std::string& name) {
    return std::string(YR_SOURCE_DIR) + "/data/plans/" + name + ".yourrail.json";
}

}  // namespace yr::test
