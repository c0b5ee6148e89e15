// Made-up vehicles that somebody else has modified, for the stand-in meter and the tests.
#include <random>

#include "plan/roles.h"
#include "survey/simulate.h"

namespace yr {
namespace {

class Hider {
  public:
    explicit Hider(std::uint32_t seed) : random_(seed) {}

    HiddenVehicle make() {
        plan_ = empty_plan("vehicle of an unknown hand");
        plan_.batteries[0].capacity_Ah = between(60, 110);
        plan_.batteries[0].cranking_A = between(500, 900);
        plan_.batteries[0].charge = between(0.6, 0.95);
        for (Run& r : plan_.runs) r.size = WireSize::awg(0);
        for (State& s : plan_.states)
            if (role_of(s) == StateRole::idling) s.rpm = 1800;  // a fast idle, as one holds it for readings
        add_point("front", "front battery", SurveyKind::battery, "battery-1.pos");
        add_alternator();
        const int more = chance(0.3) ? 2 : 1;
        for (int k = 0; k < more; ++k) add_battery(k);
        const int outlets = 1 + pick(3);
        for (int k = 0; k < outlets; ++k) add_outlet(k);
        return {plan_, feeds_, joiners_};
    }

  private:
    double between(double a, double b) { return std::uniform_real_distribution<double>(a, b)(random_); }
    int pick(int n) { return std::uniform_int_distribution<int>(0, n - 1)(random_); }
    bool chance(double p) { return between(0, 1) < p; }

    void add_point(const Id& id, const std::string& name, SurveyKind kind, const Terminal& at) {
        plan_.survey.points.push_back({id, name, kind, at});
    }

    Run& join(const Id& id, const Terminal& from, const Terminal& to, double ohm) {
        Run r;
        r.id = id, r.name = id, r.from = from, r.to = to, r.resistance_ohm = ohm;
        return plan_.runs.emplace_back(r);
    }

    Device device(const Id& id, DeviceKind kind, const Condition& when = {}) {
        Device d;
        d.id = id, d.name = id, d.kind = kind, d.closed_when = when;
        return d;
    }

    void add_alternator() {
        Source s;
        s.id = "alternator", s.name = s.id, s.return_at = "point-body";
        s.rated_A = between(80, 200), s.idle_A = *s.rated_A * between(0.4, 0.6);
        s.regulated_V = between(13.9, 14.6);
        s.droop_ohm = between(0.002, 0.005);
        s.works_when.engine = Engine::running;
        plan_.sources.push_back(s);
        join("charge", "alternator.out", "battery-1.pos", between(0.001, 0.003));
        if (chance(0.7))
            add_point("alternator-stud", "alternator stud", SurveyKind::alternator, "alternator.out");
    }

    void add_battery(int k) {
        const std::string n = std::to_string(k + 2);
        Battery b;
        b.id = "battery-" + n, b.name = b.id;
        const Chemistry kinds[] = {Chemistry::flooded, Chemistry::agm, Chemistry::gel, Chemistry::lifepo4};
        b.chemistry = kinds[pick(4)];
        b.capacity_Ah = between(60, 150);
        b.charge = between(0.5, 0.9);
        plan_.batteries.push_back(b);
        join("ground-" + n, neg_of(b.id), "point-body", between(0.0005, 0.002));
        add_point("more-" + n, "battery " + n, SurveyKind::battery, pos_of(b.id));
        add_joiner(n, b.id);
    }

    void add_joiner(const std::string& n, const Id& battery) {
        const double ohm = between(0.002, 0.006);
        const Terminal from = "battery-1.pos", to = pos_of(battery);
        const int kind = pick(6);
        const Joiner kinds[] = {Joiner::none,          Joiner::permanent, Joiner::contactor,
                                Joiner::sensing_relay, Joiner::isolator,  Joiner::converter};
        joiners_.emplace_back("more-" + n, kinds[kind]);
        switch (kind) {
            case 0:
                return;  // not joined at all
            case 1:
                join("link-" + n, from, to, ohm);
                return;
            case 2:
                join("link-" + n, from, to, ohm)
                    .devices.push_back(
                        device("c-" + n, DeviceKind::switching, {Key::ignition, Engine::any, {}}));
                return;
            case 3: {
                Device d = device("r-" + n, DeviceKind::sensing_relay);
                d.close_V = between(13.1, 13.4), d.open_V = between(12.6, 12.8);
                join("link-" + n, from, to, ohm).devices.push_back(d);
                return;
            }
            case 4: {
                Device d = device("d-" + n, DeviceKind::diode);
                d.forward_V = between(0.6, 0.85);
                join("link-" + n, from, to, ohm).devices.push_back(d);
                return;
            }
            default: {
                Source s;
                s.id = "charger-" + n, s.name = s.id, s.kind = SourceKind::converter,
                s.return_at = neg_of(battery);
                s.rated_A = between(10, 40), s.regulated_V = between(13.8, 14.5);
                s.works_when.engine = Engine::running;
                if (chance(0.5)) s.enable_on_V = 13.2, s.enable_off_V = 12.7;
                plan_.sources.push_back(s);
                join("charger-feed-" + n, from, in_of(s.id), ohm);
                join("charger-out-" + n, out_of(s.id), to, 0.002);
            }
        }
    }

    void add_outlet(int k) {
        const Id id = "outlet-" + std::to_string(k + 1);
        const std::size_t battery = static_cast<std::size_t>(pick(static_cast<int>(plan_.batteries.size())));
        Load l;  // what hangs there already: nearly nothing
        l.id = id + "-load", l.name = l.id, l.draw = {DrawKind::current, between(0.01, 0.3)};
        Point p{id, id, PointKind::stud, {}, {}, {}, {}, true};
        plan_.points.push_back(p);
        Run& feed = join("feed-" + id, pos_of(plan_.batteries[battery].id), id, between(0.01, 0.03));
        const int when = pick(3);
        if (when > 0)
            feed.devices.push_back(device("sw-" + id, DeviceKind::switching,
                                          {when == 1 ? Key::accessory : Key::ignition, Engine::any, {}}));
        plan_.loads.push_back(l);
        join("in-" + id, id, pos_of(l.id), 0.01);
        join("out-" + id, neg_of(l.id), "point-body", 0.01);
        add_point("socket-" + std::to_string(k + 1), "outlet " + std::to_string(k + 1), SurveyKind::outlet,
                  id);
        for (const SurveyPoint& s : plan_.survey.points)
            if (s.terminal == pos_of(plan_.batteries[battery].id))
                feeds_.emplace_back("socket-" + std::to_string(k + 1), s.id);
    }

    std::mt19937 random_;
    Plan plan_;
    std::vector<std::pair<Id, Id>> feeds_;
    std::vector<std::pair<Id, Joiner>> joiners_;
};

}  // namespace

HiddenVehicle hidden_vehicle(std::uint32_t seed) {
    return Hider(seed).make();
}

}  // namespace yr
