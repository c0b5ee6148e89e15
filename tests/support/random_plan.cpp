#include "support/random_plan.h"
#include "support/folders.h"

#include <random>

#include "plan/plan_json.h"
#include "routes/lay.h"

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
        if (shape_.devices)
            add_devices();
        else if (!shape_.resistive && chance(0.4))
            add_second_battery();
        for (int k = 0; k < shape_.loads; ++k) add_load(k);
        if (shape_.loops) add_loops();
        if (shape_.devices) add_states();
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

    Device device(DeviceKind kind, const Id& id) {
        Device d;
        d.id = id;
        d.name = id;
        d.kind = kind;
        return d;
    }

    void join_second_battery() {
        Run& r = add_run(chance(0.5) ? Terminal("battery-1.pos") : feeds_[0], "battery-2.pos");
        switch (pick(3)) {
            case 0: {
                Device d = device(DeviceKind::sensing_relay, "relay");
                if (chance(0.5)) d.close_V = between(12.9, 13.6), d.open_V = *d.close_V - between(0.3, 0.9);
                d.senses = chance(0.5) ? Senses::either : Senses::from;
                r.devices.push_back(d);
                break;
            }
            case 1: {
                Device d = device(DeviceKind::diode, "isolator");
                if (chance(0.5)) d.forward_V = between(0.03, 0.8);
                r.devices.push_back(d);
                break;
            }
            default: {
                Device d = device(DeviceKind::switching, "contactor");
                d.closed_when.engine = Engine::running;
                r.devices.push_back(d);
            }
        }
    }

    Source& add_source(const Id& id, SourceKind kind) {
        Source s;
        s.id = id;
        s.name = id;
        s.kind = kind;
        s.return_at = "chassis";
        s.regulated_V = between(13.5, 14.6);
        return plan_.sources.emplace_back(s);
    }

    void add_inverter() {
        Inverter i;
        i.id = "inverter";
        i.name = i.id;
        i.continuous_W = between(300, 1500);
        if (chance(0.5)) i.efficiency = between(0.8, 0.95);
        if (chance(0.4)) i.curve = {{0, 0.5}, {0.1, 0.85}, {0.4, 0.93}, {1, 0.88}};
        if (chance(0.5)) i.cutoff_V = between(10.0, 10.8);
        if (chance(0.5)) i.off_W = between(0.1, 2), i.works_when.key = Key::ignition;
        plan_.inverters.push_back(i);
        add_run("battery-1.pos", "inverter.pos");
        add_run("inverter.neg", "battery-1.neg");
        for (int k = 0; k < 2; ++k) {
            Load l;
            l.id = "mains" + std::to_string(k);
            l.name = l.id;
            l.inverter = i.id;
            l.draw = {DrawKind::power, between(20, 150)};
            plan_.loads.push_back(l);
        }
    }

    void add_devices() {
        Battery b;
        b.id = "battery-2";
        b.name = b.id;
        const Chemistry kinds[] = {Chemistry::flooded, Chemistry::agm, Chemistry::gel, Chemistry::lifepo4};
        b.chemistry = kinds[pick(4)];
        if (chance(0.6))
            b.capacity_Ah = between(50, 200);
        else
            b.reserve_min = between(80, 200);
        if (chance(0.4)) b.health = between(0.5, 1);
        if (chance(0.4)) b.cranking_A = between(400, 800), b.cranking_standard = CrankingStandard::en;
        plan_.batteries.push_back(b);
        add_run("battery-2.neg", "chassis");
        join_second_battery();
        if (chance(0.5)) {
            Source& s = add_source("sun", SourceKind::solar);
            s.panel_W = between(50, 300);
            s.charges = "battery-2";
            s.float_V = 13.4;
            add_run("sun.out", "battery-2.pos");
        }
        if (chance(0.4)) {
            Source& s = add_source("shore", SourceKind::shore);
            s.works_when.switches = {"plugged in"};
            add_run("shore.out", chance(0.5) ? Terminal("battery-2.pos") : feeds_[0]);
        }
        if (chance(0.5)) {
            Source& s = add_source("booster", SourceKind::converter);
            s.return_at = "battery-2.neg";
            s.rated_A = between(8, 25);
            s.enable_on_V = between(12.9, 13.4);
            s.enable_off_V = *s.enable_on_V - between(0.3, 0.8);
            add_run(feeds_[0], "booster.in");
            add_run("booster.out", "battery-2.pos");
        }
        if (chance(0.5)) add_inverter();
        if (chance(0.3)) {  // a second alternator, or a stator with a regulator of its own
            Source& s = add_source("second", chance(0.5) ? SourceKind::alternator : SourceKind::stator);
            s.rated_A = between(20, 80);
            s.works_when.engine = Engine::running;
            if (s.kind == SourceKind::stator) s.winding = "w", s.share = 0.5, s.regulator_A = between(8, 40);
            add_run("second.out", feeds_[0]);
        }
        const Id guarded = "guarded";
        plan_.points.push_back({guarded, guarded, PointKind::bus, {}, {}, {}, {}, true});
        feeds_.push_back(guarded);
        ++shape_.feeds;
        add_run("battery-2.pos", guarded).devices.push_back(device(DeviceKind::cutoff, "guard"));
        plan_.loads.push_back({});
        Load& winch = plan_.loads.back();
        winch.id = "winch";
        winch.name = winch.id;
        winch.draw = {DrawKind::current, 60};
        winch.line_curve = {{0, 15}, {0.5, 40}, {1, 70}};
        winch.line_load = between(0, 1);
        Load coil;
        coil.id = "coil";
        coil.name = coil.id;
        coil.draw = {DrawKind::resistance, 11};
        plan_.loads.push_back(coil);
        add_run(feeds_[0], "coil.pos", 0);
        add_run("coil.neg", "chassis", 0);
        const Terminal from = "battery-1.pos";
        Run& feed = add_run(from, "winch.pos");
        Device contactor = device(DeviceKind::switching, "winch contactor");
        contactor.id = "winch-contactor";
        contactor.coil = "coil";
        feed.devices.push_back(contactor);
        add_run("winch.neg", "battery-1.neg");
        join_on_the_way();
        add_box(from);
    }

    // A connector that a few cables pass, two of them in one jacket; contacts of every kind.
    void join_on_the_way() {
        Connector c;
        c.id = "plug", c.name = "plug", c.pins = 12;
        if (chance(0.5)) c.contact_ohm = between(1e-3, 2e-2);
        plan_.connectors.push_back(c);
        plan_.jackets.push_back({"cores", "cores", {}, {}, {}});
        int pin = 1;
        for (Run& r : plan_.runs) {
            if (r.body_metal || pin > 10 || !chance(0.3)) continue;
            r.pins.push_back({"plug", pin++, {}});
            if (chance(0.3)) r.pins.push_back({"plug", pin++, {}});
            if (chance(0.4)) r.jacket = "cores";
        }
        const auto put =
            [&](const Id& id) -> Device& {  // in a feed, so that nothing is left without a ground
            std::vector<std::size_t> feeds;
            for (std::size_t k = 0; k < plan_.runs.size(); ++k)
                if (find(plan_.points, plan_.runs[k].from) && plan_.runs[k].to.post == Post::pos)
                    feeds.push_back(k);
            Run& r = plan_.runs[feeds[static_cast<std::size_t>(pick(static_cast<int>(feeds.size())))]];
            r.devices.push_back(device(DeviceKind::switching, id));
            return r.devices.back();
        };
        if (chance(0.5)) put("other").rests_closed = true;
        if (chance(0.5)) put("latch").latching = true;
        if (chance(0.5)) put("warm").closed_when.above_C = between(-20, 40);
        if (chance(0.5)) put("flash").pulse_share = between(0.1, 0.9);
        if (chance(0.3)) {
            Device& rest = put("rest");
            rest.rests_closed = true, rest.coil = "coil";
        }
    }

    // A box that sleeps, with a cut-off of its own for what hangs on its channels.
    void add_box(const Terminal& from) {
        Point box;
        box.id = "box", box.name = "box", box.kind = PointKind::box, box.return_at = "battery-1.neg";
        box.feeds_loads = true;
        box.channels = {{1, {}, 20.0, 40.0, {}}, {2, {}, 20.0, 40.0, {}}};
        box.standby_W = between(0.5, 5), box.sleep_W = between(0.01, 0.4),
        box.awake_when.key = Key::accessory;
        if (chance(0.6)) box.cutoff_V = between(11.0, 12.4);
        plan_.points.push_back(box);
        add_run(from, "box");
        for (int k = 1; k <= 2; ++k) {
            Load l;
            l.id = l.name = "on-box" + std::to_string(k);
            l.draw = {DrawKind::current, between(1, 8)};
            l.later = chance(0.2);
            plan_.loads.push_back(l);
            add_run("box", pos_of(l.id)).channel = k;
            add_run(neg_of(l.id), "battery-1.neg");
        }
    }

    void add_states() {
        State parked = plan_.states.front();
        parked.id = "p", parked.name = "Parked", parked.rpm = 0, parked.key = Key::off,
        parked.sun = between(0, 1);
        State plugged = parked;
        plugged.id = "m", plugged.name = "Plugged in", plugged.switches = {"plugged in"}, plugged.sun = 0;
        plugged.charge = between(0.5, 1);
        plan_.states.front().sun = between(0, 1);
        plan_.states.push_back(parked);
        plan_.states.push_back(plugged);
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
        add_run(feeds_[static_cast<std::size_t>(pick(shape_.feeds))], pos_of(l.id), 0);
        add_run(neg_of(l.id), chance(0.5) ? "ground" : chance(0.5) ? "chassis" : "battery-1.neg", 0);
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

Plan nervous_plan(std::uint32_t seed) {
    std::mt19937 random(seed);
    const auto between = [&](double a, double b) {
        return std::uniform_real_distribution<double>(a, b)(random);
    };
    Plan plan = empty_plan("nervous");
    plan.states = {{"s", "Idling", Key::ignition, between(700, 2500), 25, 60, between(0.3, 0.95), {}}};
    plan.batteries[0].capacity_Ah = between(20, 100);
    plan.batteries[0].R0_ohm = between(0.005, 0.05);
    Source s;
    s.id = "alternator", s.name = s.id, s.return_at = "point-body", s.rated_A = between(10, 80),
    s.regulated_V = 14.2;
    s.works_when.engine = Engine::running;
    plan.sources.push_back(s);
    int count = 0;
    const auto add_run = [&](const Terminal& a, const Terminal& b) -> Run& {
        Run r;
        r.id = "n" + std::to_string(count++), r.name = r.id, r.from = a, r.to = b;
        r.resistance_ohm = between(0.002, 0.06);
        return plan.runs.emplace_back(r);
    };
    add_run("alternator.out", "battery-1.pos");
    const int devices = 1 + static_cast<int>(random() % 4);
    for (int k = 0; k < devices; ++k) {
        Load l;
        l.id = "load" + std::to_string(k), l.name = l.id;
        l.draw = {DrawKind::resistance, between(0.2, 2)};
        plan.loads.push_back(l);
        Device d;
        d.id = "d" + std::to_string(k), d.name = d.id;
        d.kind = random() % 2 ? DeviceKind::sensing_relay : DeviceKind::cutoff;
        d.close_V = between(11.0, 13.9);
        d.open_V = *d.close_V - between(0.02, 0.8);
        d.senses = random() % 3 == 0 ? Senses::to : Senses::from;
        d.delay_s = between(0, 5);
        Run& feed = add_run(k > 0 && random() % 2 ? pos_of("load" + std::to_string(k - 1)) : "point-bus",
                            pos_of(l.id));
        feed.devices.push_back(d);
        add_run(neg_of(l.id), "point-body");
        if (random() % 2) plan.states[0].closed.push_back(d.id);
    }
    return plan;
}

Plan wide_plan(int loads) {
    Plan plan = empty_plan("wide");
    plan.states = {{"s", "Idling", Key::ignition, 900, 30, 70, {}, {}}};
    plan.batteries[0].capacity_Ah = std::min(5000.0, 100.0 * std::max(1, loads / 50));
    plan.batteries[0].R0_ohm = 0.25 / std::max(50, loads);  // strong enough for all of them
    const int feeds = std::max(1, loads / 10);
    for (int k = 0; k < feeds; ++k) {
        const Id id = "feed" + std::to_string(k);
        plan.points.push_back({id, id, PointKind::bus, {}, {}, {}, {}, true});
        Run r;
        r.id = "fr" + std::to_string(k), r.name = r.id, r.from = "battery-1.pos", r.to = id, r.length_m = 2,
        r.size = WireSize::awg(2);
        plan.runs.push_back(r);
        const Id back = "back" + std::to_string(k);  // one strap for all would be no vehicle
        plan.points.push_back({back, back, PointKind::bus, {}, {}, {}, {}, false});
        r.id = "br" + std::to_string(k), r.name = r.id, r.from = back, r.to = "battery-1.neg";
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
        supply.to = pos_of(l.id);
        supply.length_m = 3, supply.size = WireSize::awg(12);
        Run ret = supply;
        ret.id = "t" + l.id, ret.name = ret.id, ret.from = neg_of(l.id),
        ret.to = "back" + std::to_string(k % feeds);
        plan.runs.push_back(supply);
        plan.runs.push_back(ret);
    }
    return plan;
}

std::string demo_path(const std::string& name) {
    return test::source_dir() + "/data/plans/" + name + ".yourrail.json";
}

const Plan& truck() {
    static const Plan plan = *load_plan(demo_path(kDemos[0]));
    return plan;
}

Plan laid_demo(std::size_t k) {
    Plan plan = *load_plan(demo_path(kDemos[k]));
    lay(plan);
    return plan;
}

}  // namespace yr::test
