#include "support/vehicles.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "catalog/ampacity.h"
#include "size/fuse_size.h"

namespace yr::test {
namespace {

struct Accessory {
    const char* name;
    double amps;
    double start;  // times its running amps; 0: none
    const char* place;
    Key key;
    bool own_switch;
};
constexpr Accessory kAccessories[] = {
    {"reading lamps", 2, 0, "place-cab", Key::off, true},
    {"pond pump", 6, 4, "place-rear", Key::accessory, true},
    {"rear fridge", 5, 3, "place-rear", Key::off, true},
    {"side lamps", 8, 0, "place-rear", Key::ignition, true},
    {"seat heater", 7, 0, "place-cab", Key::ignition, true},
    {"field radio", 9, 0, "place-cab", Key::accessory, true},
    {"roof bar", 14, 0, "place-cab", Key::ignition, true},
    {"wheel fan", 18, 3, "place-bay", Key::ignition, true},
    {"tyre pump", 25, 3, "place-rear", Key::ignition, true},
    {"logger", 0.6, 0, "place-cab", Key::off, false},
    {"cab fan", 4, 3, "place-cab", Key::accessory, true},
    {"work lights", 20, 0, "place-rear", Key::ignition, true},
};

class Builder {
  public:
    explicit Builder(unsigned seed) : random_(seed * 7919 + 11) {
        v_.plan = empty_plan("vehicle " + std::to_string(seed));
        Plan& p = v_.plan;
        p.runs.clear();
        p.points.clear();
        p.policy.sizes = SizeSystem::awg;
        rear_ = chance(30);
        Battery& b = p.batteries.front();
        b.chemistry = chance(50) ? Chemistry::agm : Chemistry::flooded;
        b.capacity_Ah = pick({60, 75, 95, 110});
        b.cranking_A = pick({550, 650, 760, 850});
        b.place = rear_ ? "place-rear" : "place-bay";
        body_ = point("body", PointKind::chassis, "place-cab", false);
        engine_ = point("engine block", PointKind::chassis, "place-bay", false);
        metal("body to engine metal", engine_, body_);
    }

    TestVehicle build() {
        Plan& p = v_.plan;
        const Id battery = p.batteries.front().id;
        const double main_m = rear_ ? 4 : 0.8;
        // starter, its straps, the alternator
        const double crank_A = pick({160, 200, 240});
        Load starter;
        starter.id = "starter", starter.name = "starter", starter.starter = true, starter.place = "place-bay";
        starter.draw = {DrawKind::resistance, 10.5 / crank_A};
        starter.live_when.key = Key::crank;
        p.loads.push_back(starter);
        cable("starter cable", pos_of(battery), pos_of("starter"), main_m, crank_A, 0.02, true);
        metal("starter to block", neg_of("starter"), engine_);
        cable("engine strap", Terminal(engine_), neg_of(battery), rear_ ? 0.5 : 0.4, crank_A, 0.01, true);
        cable("body strap", Terminal(body_), neg_of(battery), 0.4, std::max(crank_A, 120.0), 0.01, true);
        Source alternator;
        alternator.id = "alternator", alternator.name = "alternator", alternator.place = "place-bay";
        alternator.rated_A = pick({90, 120, 150});
        alternator.return_at = Terminal(engine_);
        p.sources.push_back(alternator);
        charge_ = fused("charge cable", out_of("alternator"), pos_of(battery), main_m + 0.4,
                        *alternator.rated_A, 0.02, true, 1.3);
        // the block of fuses
        const int loads = 4 + static_cast<int>(random_() % 6);
        const Id block = point("fuse block", PointKind::bus, "place-cab", true);
        std::vector<Accessory> chosen(std::begin(kAccessories), std::end(kAccessories));
        std::shuffle(chosen.begin(), chosen.end(), random_);
        chosen.resize(static_cast<std::size_t>(loads));
        double sum = 0;
        for (const Accessory& a : chosen) sum += a.amps;
        block_feed_ =
            fused("block feed", pos_of(battery), Terminal(block), rear_ ? 3.5 : 2, sum, 0.01, false, 1.35);
        for (const Accessory& a : chosen) accessory(a, block);
        if (chance(40)) inverter(battery);
        if (chance(30)) winch(battery);
        if (chance(35)) second_battery(battery);
        states();
        return std::move(v_);
    }

    void put_in(Mistake mistake);

  private:
    bool chance(unsigned percent) { return random_() % 100 < percent; }
    double pick(std::initializer_list<double> of) { return *(of.begin() + random_() % of.size()); }
    double between(double low, double high) {
        return low + (high - low) * static_cast<double>(random_() % 1000) / 1000;
    }

    Id point(const std::string& name, PointKind kind, const Id& place, bool feeds) {
        Point p;
        p.id = "point-" + std::to_string(v_.plan.points.size() + 1);
        p.name = name, p.kind = kind, p.place = place, p.feeds_loads = feeds;
        v_.plan.points.push_back(p);
        return p.id;
    }

    void metal(const std::string& name, const Terminal& from, const Terminal& to) {
        Run r;
        r.id = "run-" + std::to_string(v_.plan.runs.size() + 1);
        r.name = name, r.from = from, r.to = to, r.body_metal = true, r.resistance_ohm = 2e-4;
        v_.plan.runs.push_back(r);
    }

    // By formulas out of a handbook: copper at 60 C for the drop, the table with a quarter in reserve for the
    // amps.
    WireSize handbook_size(double amps, double length_m, double drop, bool seconds) {
        for (int awg = 16; awg >= -3; --awg) {
            const WireSize size = WireSize::awg(awg);
            const auto wire = conductor(size);
            if (!wire) continue;
            AmpacityAsk ask;
            ask.size = size, ask.engine_space = true, ask.ambient_C = 85;  // the bay at idle
            const auto table = ampacity(ask);
            if (!table) continue;
            const double ohm = (0.017241 / wire->area_mm2) * (1 + 0.0039 * 40) * 2 * length_m;
            if (amps * ohm > drop * 12) continue;
            if (!seconds && table->allowed_A < amps * 1.25) continue;
            return size;
        }
        return WireSize::awg(-3);
    }

    Id cable(const std::string& name, const Terminal& from, const Terminal& to, double length_m, double amps,
             double drop, bool seconds) {
        Run r;
        r.id = "run-" + std::to_string(v_.plan.runs.size() + 1);
        r.name = name, r.from = from, r.to = to, r.length_m = length_m;
        r.size = handbook_size(amps, length_m, drop, seconds);
        r.places = {"place-bay"};
        v_.plan.runs.push_back(r);
        return r.id;
    }

    // With a fuse a hand's breadth from each end that a battery feeds, above the load and within the cable.
    Id fused(const std::string& name, const Terminal& from, const Terminal& to, double length_m, double amps,
             double drop, bool at_end, double reserve, bool both = false) {
        FuseType type = FuseType::blade;
        double rating = 0;
        for (const FuseType t : {FuseType::blade, FuseType::bolt, FuseType::strip})
            for (const double r : fuse_kind(t).ratings_A)
                if (rating == 0 && r >= amps * reserve) rating = r, type = t;
        if (at_end || both || from.post == Post::pos)
            type = FuseType::strip;  // at a battery's post: cuts off 6 kA
        if (type == FuseType::strip) {
            rating = 0;
            for (const double r : fuse_kind(type).ratings_A)
                if (rating == 0 && r >= amps * reserve) rating = r;
        }
        const Id id = cable(name, from, to, length_m, std::max(amps, rating / 1.25 * 1.001), drop, false);
        Run& run = v_.plan.runs.back();
        const auto fuse = [&](double at_m, int n) {
            Device d;
            d.id = "fuse-" + id + (n > 0 ? "b" : "");
            d.name = name + " fuse" + (n > 0 ? " 2" : "");
            d.fuse = type, d.rating_A = rating, d.at_m = at_m;
            return d;
        };
        if (!at_end || both) run.devices.push_back(fuse(0.1, 0));
        if (at_end || both) run.devices.push_back(fuse(length_m - 0.1, both ? 1 : 0));
        return id;
    }

    void accessory(const Accessory& a, const Id& block) {
        Load l;
        l.id = "load-" + std::to_string(v_.plan.loads.size());
        l.name = a.name, l.place = a.place, l.draw = {DrawKind::current, a.amps};
        l.live_when.key = a.key;
        if (a.own_switch) l.live_when.switches = {a.name};
        if (a.start > 0) l.inrush_A = a.amps * a.start, l.inrush_s = 0.3;
        l.duty = 0.3;
        v_.plan.loads.push_back(l);
        const double length = std::string(a.place) == "place-rear" ? between(3, 5) : between(0.8, 2.5);
        branches_.push_back(fused(std::string(a.name) + " feed", Terminal(block), pos_of(l.id), length,
                                  a.amps, 0.012, false, std::max(1.5, a.start * 0.55)));
        if (a.own_switch) {
            Device s;
            s.id = "switch-" + l.id, s.name = a.name, s.kind = DeviceKind::switching, s.at_m = length / 2;
            s.closed_when.switches = {a.name};
            s.closed_when.key = a.key;
            v_.plan.runs.back().devices.push_back(s);
        }
        const WireSize size = *v_.plan.runs.back().size;
        cable(std::string(a.name) + " return", neg_of(l.id), Terminal(body_), length * 0.4, a.amps, 0.01,
              false);
        v_.plan.runs.back().size = size;
        loads_.push_back(l.id);
    }

    void inverter(const Id& battery) {
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

    void winch(const Id& battery) {
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

    void second_battery(const Id& first) {
        Battery b;
        b.id = "battery-2", b.name = "second battery", b.place = "place-rear";
        b.chemistry = Chemistry::agm, b.capacity_Ah = 100, b.cranking_A = 500;
        v_.plan.batteries.push_back(b);
        Source dcdc;
        dcdc.id = "dcdc", dcdc.name = "battery charger", dcdc.kind = SourceKind::converter,
        dcdc.place = "place-rear";
        dcdc.rated_A = 25, dcdc.regulated_V = 14.2, dcdc.return_at = neg_of("battery-2");
        dcdc.works_when.engine = Engine::running;
        v_.plan.sources.push_back(dcdc);
        fused("charger input", pos_of(first), in_of("dcdc"), 4, 36, 0.02, false, 1.35);
        fused("charger output", out_of("dcdc"), pos_of("battery-2"), 1, 25, 0.01, true, 1.35);
        cable("second battery ground", neg_of("battery-2"), Terminal(body_), 0.5, 100, 0.01, true);
        v_.plan.runs.back().size = WireSize::awg(4);
        v_.has_second = true;
    }

    void states() {
        Plan& p = v_.plan;
        std::vector<std::string> some;
        double amps = 0;
        for (const Id& id : loads_) {
            const Load& l = *find(p.loads, id);
            if (!l.live_when.switches.empty() && amps + l.draw.value < 40)
                some.push_back(l.name), amps += l.draw.value;
        }
        for (State& s : p.states)
            if (s.key == Key::ignition) s.switches = some;
    }

    TestVehicle v_;
    std::mt19937 random_;
    bool rear_ = false;
    Id body_, engine_, charge_, block_feed_;
    std::vector<Id> branches_, loads_;
    friend TestVehicle yr::test::vehicle(unsigned, Mistake);
};

Run& run_of(Plan& plan, const Id& id) {
    return *std::find_if(plan.runs.begin(), plan.runs.end(), [&](const Run& r) { return r.id == id; });
}

}  // namespace

TestVehicle vehicle(unsigned seed, Mistake mistake) {
    Builder builder(seed);
    TestVehicle v = builder.build();
    v.mistake = mistake;
    // the heaviest accessory stands for all
    const auto amps_of = [&](const Id& branch) {
        return find(v.plan.loads, run_of(v.plan, branch).to.owner)->draw.value;
    };
    const Id heavy = *std::max_element(builder.branches_.begin(), builder.branches_.end(),
                                       [&](const Id& a, const Id& b) { return amps_of(a) < amps_of(b); });
    const auto fuse_of = [&](const Id& id) -> Device& { return run_of(v.plan, id).devices.front(); };
    const auto runs_in_a_state = [&] {
        const std::string name = find(v.plan.loads, run_of(v.plan, heavy).to.owner)->name;
        for (State& s : v.plan.states)
            if (s.key == Key::ignition) s.switches.push_back(name);
    };
    using F = FindingKind;
    switch (mistake) {
        case Mistake::none:
        case Mistake::count:
            break;
        case Mistake::fuse_above_cable:
            v.where = heavy, v.tells = {F::fuse_above_cable};
            run_of(v.plan, heavy).size = WireSize::awg(14);
            fuse_of(heavy).fuse = FuseType::bolt, fuse_of(heavy).rating_A = 80;
            break;
        case Mistake::fuse_missing:
            v.where = builder.block_feed_, v.tells = {F::fuse_missing};
            run_of(v.plan, v.where).devices.clear();
            break;
        case Mistake::fuse_far:
            v.where = builder.block_feed_, v.tells = {F::fuse_far, F::fuse_missing};
            fuse_of(v.where).at_m = *run_of(v.plan, v.where).length_m - 0.1;
            break;
        case Mistake::cable_thin:
            v.where = heavy, v.tells = {F::cable_over_ampacity, F::cable_over_temperature,
                                        F::fuse_above_cable, F::demand_over};
            run_of(v.plan, heavy).size = WireSize::awg(18);
            break;
        case Mistake::drop: {
            runs_in_a_state();
            v.where = heavy, v.tells = {F::drop_over_limit};
            for (Load& l : v.plan.loads)
                if (l.id == run_of(v.plan, heavy).to.owner) l.critical = true;
            run_of(v.plan, heavy).length_m = 10;
            run_of(v.plan, heavy).size = WireSize::awg(8);
            break;
        }
        case Mistake::return_thin:
            v.where = heavy,
            v.tells = {F::return_thinner, F::cable_over_ampacity, F::demand_over, F::drop_over_limit};
            runs_in_a_state();
            for (Run& r : v.plan.runs)
                if (r.from == neg_of(run_of(v.plan, heavy).to.owner)) r.size = WireSize::awg(18);
            break;
        case Mistake::fuse_small:
            v.where = heavy, v.tells = {F::fuse_loaded, F::start_opens_fuse};
            fuse_of(heavy).fuse = FuseType::blade, fuse_of(heavy).rating_A = 5;
            break;
        case Mistake::alternator_cable:
            v.where = builder.charge_,
            v.tells = {F::fuse_above_cable, F::cable_over_ampacity, F::demand_over};
            run_of(v.plan, v.where).size = WireSize::awg(10);
            break;
    }
    return v;
}

}  // namespace yr::test
