#include "support/switchy_plan.h"

#include <random>

namespace yr::test {
namespace {

class SwitchyMaker {
  public:
    explicit SwitchyMaker(std::uint32_t seed) : random_(seed) {}

    Plan make() {
        plan_ = empty_plan("switchy");
        plan_.batteries[0].capacity_Ah = 80;
        plan_.batteries[0].R0_ohm = 0.005;
        plan_.points[0].feeds_loads = true;
        if (chance(2)) add_alternator();
        const int feeds = 1 + pick(2), loads = 2 + pick(3);
        for (int k = 0; k < feeds; ++k) add_feed();
        for (int k = 0; k < loads; ++k) add_load();
        add_coil();
        add_links();
        if (chance(3)) add_control_unit();
        return plan_;
    }

  private:
    int pick(int below) { return static_cast<int>(random_() % static_cast<unsigned>(below)); }
    bool chance(int one_in) { return pick(one_in) == 0; }
    double between(double a, double b) { return std::uniform_real_distribution<double>(a, b)(random_); }

    Condition condition() {
        Condition c;
        const Key keys[] = {Key::off, Key::off, Key::accessory, Key::ignition};
        c.key = keys[pick(4)];
        if (chance(6)) c.engine = Engine::running;
        const std::string names[] = {"alpha", "beta", "gamma"};
        if (chance(2)) c.switches.push_back(names[pick(3)]);
        if (chance(8)) c.switches_off.push_back(names[pick(3)]);
        if (chance(10)) {
            c.any_of.resize(2);
            c.any_of[0].switches = {names[pick(3)]};
            c.any_of[1].key = Key::ignition;
        }
        return c;
    }

    Run& add_run(const Terminal& a, const Terminal& b) {
        Run r;
        r.id = new_id(plan_, "w"), r.name = r.id, r.from = a, r.to = b;
        r.resistance_ohm = between(0.0005, 0.003);
        return plan_.runs.emplace_back(r);
    }

    void add_fuse(Run& r) {
        if (fuses_ >= 3) return;
        Device d;
        d.id = "fuse" + std::to_string(++fuses_), d.name = d.id, d.rating_A = 20;
        if (chance(5))
            d.fuse = FuseType::breaker_3, d.closed_when = condition();  // which is the switch as well
        r.devices.push_back(d);
    }

    Device switching(const Condition& when) {
        Device d;
        d.id = "dev" + std::to_string(++devices_), d.name = d.id, d.kind = DeviceKind::switching;
        d.closed_when = when;
        d.rests_closed = !(when == Condition{}) && chance(6);  // the other contact
        d.latching = chance(9);
        return d;
    }

    void add_alternator() {
        Source s;
        s.id = "alternator", s.name = s.id, s.return_at = "point-body", s.rated_A = 90, s.regulated_V = 14.2;
        s.works_when.engine = Engine::running;
        plan_.sources.push_back(s);
        add_run("alternator.out", "battery-1.pos");
    }

    void add_feed() {
        Point p{"feed" + std::to_string(plan_.points.size()), "feed", PointKind::bus, {}, {}, {}, {}, true};
        plan_.points.push_back(p);
        Run& r = add_run("battery-1.pos", p.id);
        if (chance(2)) add_fuse(r);
        if (!chance(3)) r.devices.push_back(switching(condition()));
    }

    Id some_feed() {
        std::vector<Id> feeds;
        for (const Point& p : plan_.points)
            if (p.feeds_loads) feeds.push_back(p.id);
        return feeds[static_cast<std::size_t>(pick(static_cast<int>(feeds.size())))];
    }

    Load& add_load() {
        Load l;
        l.id = "load" + std::to_string(plan_.loads.size() + 1), l.name = l.id;
        l.draw = {DrawKind::resistance, between(1.5, 40)};
        l.live_when = condition();
        l.own_switch = chance(3);
        l.critical = chance(3);
        plan_.loads.push_back(l);
        Run& r = add_run(some_feed(), pos_of(l.id));
        if (chance(2)) add_fuse(r);
        if (chance(2)) r.devices.push_back(switching(chance(2) ? l.live_when : condition()));
        Run& back = add_run(neg_of(l.id), "point-body");
        if (chance(8)) back.devices.push_back(switching(condition()));
        return plan_.loads.back();
    }

    void add_coil() {
        if (chance(2) || plan_.loads.empty()) return;
        Run& held = plan_.runs[static_cast<std::size_t>(pick(static_cast<int>(plan_.runs.size())))];
        if (held.from == "point-body" || held.to == "point-body" || held.from == "alternator.out") return;
        Device d = switching(Condition{});
        d.coil = plan_.loads[static_cast<std::size_t>(pick(static_cast<int>(plan_.loads.size())))].id;
        d.latching = false;
        d.rests_closed = chance(3);
        held.devices.push_back(d);
    }

    // Wires that ought not to be there, and some that may.
    void add_links() {
        const auto load = [&] {
            return plan_.loads[static_cast<std::size_t>(pick(static_cast<int>(plan_.loads.size())))].id;
        };
        const int links = pick(3);
        for (int k = 0; k < links; ++k) {
            const Id a = load(), b = load();
            if (a == b) continue;
            switch (pick(3)) {
                case 0:
                    add_run(pos_of(a), pos_of(b));
                    break;
                case 1:  // one return through the other's supply
                    for (Run& r : plan_.runs)
                        if (r.from == neg_of(a) && r.to == "point-body") r.to = pos_of(b);
                    break;
                default: {
                    Run& r = add_run(some_feed(), pos_of(b));
                    Device d;
                    d.id = "dev" + std::to_string(++devices_), d.name = d.id, d.kind = DeviceKind::diode;
                    if (chance(2)) r.devices.push_back(d);
                }
            }
        }
    }

    // One whose output grounds a load's return while the unit has no supply.
    void add_control_unit() {
        if (plan_.loads.size() < 2) return;
        const Id unit = plan_.loads[0].id, worked = plan_.loads[1].id;
        for (Run& r : plan_.runs)
            if (r.from == neg_of(worked) && r.to == "point-body" && r.devices.empty()) {
                Device d = switching(condition());
                d.grounds_without = unit;
                r.devices.push_back(d);
            }
    }

    std::mt19937 random_;
    Plan plan_;
    int fuses_ = 0, devices_ = 0;
};

}  // namespace

Plan switchy_plan(std::uint32_t seed) {
    return SwitchyMaker(seed).make();
}

}  // namespace yr::test
