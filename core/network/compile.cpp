#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "catalog/assumptions.h"
#include "network/assumed.h"
#include "network/network.h"
#include "plan/rail_volts.h"
#include "plan/roles.h"

namespace yr {
namespace {

// 1 at 25 C and above, `battery_cold_factor` at -18 C, exponential between and below
double cold_factor(double temperature_C) {
    if (temperature_C >= 25) return 1;
    return std::pow(assumption("battery_cold_factor").value, (25 - temperature_C) / 43);
}

class Compiler {
  public:
    Compiler(const Plan& plan, const State& state) : plan_(plan), state_(state) {}

    Network run() {
        net_.nominal_V = plan_.vehicle.nominal_V;
        if (state_.key == Key::crank)
            net_.lasts_s = kCranking_s;
        else if (passes(state_))
            net_.lasts_s = or_assumed(state_.lasts_s, "passing_s", state_.id, net_.assumptions);
        for (const Point& p : plan_.points) node(p.id);
        for (const Battery& b : plan_.batteries) add_battery(b);
        for (const Source& s : plan_.sources) add_source(s);
        for (const Load& l : plan_.loads) add_load(l);
        net_.plan_loads = plan_.loads.size();
        for (std::size_t k = 0; k < plan_.inverters.size(); ++k) add_inverter(static_cast<int>(k));
        net_.inverters = plan_.inverters.size();
        for (std::size_t k = 0; k < plan_.points.size(); ++k) add_standby(static_cast<int>(k));
        for (const Point& p : plan_.points) add_box_cutoff(p);
        for (std::size_t k = 0; k < plan_.runs.size(); ++k) add_run(static_cast<int>(k));
        add_pulses();
        for (std::size_t k = 0; k < plan_.points.size(); ++k) add_bond(static_cast<int>(k));
        if (!net_.batteries.empty())
            net_.reference = net_.batteries.front().neg;
        else if (!net_.sources.empty())
            net_.reference = net_.sources.front().neg;
        else if (net_.nodes.empty())
            node("nothing");
        for (MemoryElement& m : net_.memories) {
            if (m.against == kNoNode) m.against = net_.reference;
            if (m.sense == kNoNode) m.sense = net_.reference;
        }
        for (LoadElement& l : net_.loads)
            if (l.neg == kNoNode) l.neg = net_.reference;
        place_mains_loads();
        return std::move(net_);
    }

  private:
    NodeIndex node(const Terminal& terminal) {
        const auto [at, added] = index_.try_emplace(terminal, static_cast<NodeIndex>(net_.nodes.size()));
        if (added) net_.nodes.push_back(terminal);
        return at->second;
    }

    void add_battery(const Battery& b) {
        auto& uses = net_.assumptions;
        const ChemistryData& chemistry = chemistry_data(b.chemistry);
        const double cells = battery_V(plan_, b) / 12;  // in blocks of 12 V
        const double temperature = air_at(plan_, b.place, state_);
        const double health = b.health.value_or(1);
        BatteryElement e;
        e.pos = node(pos_of(b.id));
        e.neg = node(neg_of(b.id));
        e.peukert = b.peukert.value_or(chemistry.peukert);
        const double stated_Ah = b.capacity_Ah   ? *b.capacity_Ah
                                 : b.reserve_min ? capacity_from_reserve_Ah(*b.reserve_min, e.peukert)
                                                 : or_assumed({}, "battery_capacity_Ah", b.id, uses);
        e.capacity_Ah = stated_Ah * health;
        e.chemistry = b.chemistry;
        e.blocks = cells;
        e.full_warm_ohm = warm_R0(b, stated_Ah, cells) / health;
        at_moment(e, state_.charge ? *state_.charge : or_assumed(b.charge, "battery_charge", b.id, uses),
                  temperature);
        e.forced_V = chemistry.forced_V * cells;
        net_.batteries.push_back(e);
    }

    double warm_R0(const Battery& b, double capacity_Ah, double cells) {
        if (b.R0_ohm) return *b.R0_ohm;
        auto& uses = net_.assumptions;
        if (b.cranking_A) {  // the cold resistance that the standard's end voltage implies, warmed
            const bool en = b.cranking_standard == CrankingStandard::en;
            const double cold =
                or_assumed({}, en ? "battery_cranking_en_V" : "battery_cranking_V", b.id, uses) /
                *b.cranking_A * cells;
            return cold / or_assumed({}, "battery_cold_factor", b.id, uses);
        }
        constexpr double kSmall_Ah = 20;
        const bool small =
            capacity_Ah <= kSmall_Ah && (b.chemistry == Chemistry::agm || b.chemistry == Chemistry::gel);
        return or_assumed({}, small ? "battery_R0_small_V" : "battery_R0_V", b.id, uses) / capacity_Ah *
               cells;
    }

    void add_source(const Source& s) {
        auto& uses = net_.assumptions;
        SourceElement e;
        e.out = node(out_of(s.id));
        e.neg = node(s.return_at);
        e.works = holds(s.works_when, state_);
        const double scale = plan_.vehicle.nominal_V / 12;
        if (s.kind == SourceKind::converter) {
            e.in = node(in_of(s.id));
            e.set_V = or_assumed(s.regulated_V, "regulated_V", s.id, uses, scale);
            e.droop_ohm = or_assumed(s.droop_ohm, "converter_droop_ohm", s.id, uses);
            e.limit_A = s.rated_A.value_or(20);
            if (!s.rated_A) uses.push_back({"converter_limit_A", s.id, 20});
            e.efficiency = or_assumed(s.efficiency, "converter_efficiency", s.id, uses);
            e.standby_W = s.standby_W.value_or(0);
            add_enable(s, e);
        } else if (s.kind == SourceKind::shore || s.kind == SourceKind::solar) {
            e.set_V = or_assumed(s.regulated_V, "regulated_V", s.id, uses, scale);
            e.droop_ohm = or_assumed(s.droop_ohm, "converter_droop_ohm", s.id, uses);
            if (s.kind == SourceKind::shore) {
                e.limit_A = or_assumed(s.rated_A, "shore_rated_A", s.id, uses);
            } else {
                e.power_W = or_assumed(s.panel_W, "solar_panel_W", s.id, uses) * state_.sun *
                            or_assumed(s.efficiency, "solar_efficiency", s.id, uses);
                // its controller gives no more amps than the panel's watts at a flat battery's volts
                const double flat_V = assumption("solar_flat_V").value * scale;
                e.limit_A = std::min(s.rated_A.value_or(1e3), e.power_W / flat_V);
                if (e.power_W <= 0) e.works = false;
            }
        } else {
            const double temperature = air_at(plan_, s.place, state_);
            e.works = e.works && state_.rpm > 0;
            const double tempco = assumption("regulated_tempco_V_per_K").value;
            const double at = assumption("regulated_at_C").value;
            uses.push_back({"regulated_tempco_V_per_K", s.id, tempco});
            e.set_V = or_assumed(s.regulated_V, "regulated_V", s.id, uses, scale) +
                      scale * tempco * (temperature - at);
            e.droop_ohm = or_assumed(s.droop_ohm, "alternator_droop_ohm", s.id, uses);
            e.efficiency = or_assumed(s.efficiency, "alternator_efficiency", s.id, uses);
            e.limit_A = source_limit_A(s, state_.rpm, temperature, uses);
        }
        if (s.float_V && is_full(s)) e.set_V = *s.float_V;
        if (e.limit_A <= 0) e.works = false;
        net_.sources.push_back(e);
    }

    // Whether the battery that a charger serves has reached the charge at which it falls back to float.
    bool is_full(const Source& s) {
        for (std::size_t k = 0; k < plan_.batteries.size(); ++k)
            if (s.charges == plan_.batteries[k].id)
                return net_.batteries[k].charge >= or_assumed({}, "float_at_charge", s.id, net_.assumptions);
        return false;
    }

    // A converter that starts and stops by its input volts.
    void add_enable(const Source& s, const SourceElement& e) {
        if (!e.works || (!s.enable_on_V && !s.enable_off_V)) return;
        MemoryElement m;
        m.kind = MemoryKind::enable;
        m.id = s.id;
        m.source = static_cast<int>(net_.sources.size());
        m.sense = e.in;
        m.against = e.neg;
        m.close_V = s.enable_on_V.value_or(s.enable_off_V.value_or(0) + 0.5);
        m.open_V = s.enable_off_V.value_or(m.close_V - 0.5);
        m.closed = comes_closed(s.id, false);
        net_.memories.push_back(m);
    }

    bool comes_closed(const Id& id, bool usual) const {
        const auto has = [&](const std::vector<Id>& list) {
            return std::find(list.begin(), list.end(), id) != list.end();
        };
        return has(state_.closed) || (usual && !has(state_.opened));
    }

    void add_inverter(int index) {
        const Inverter& i = plan_.inverters[static_cast<std::size_t>(index)];
        LoadElement e;
        e.pos = node(pos_of(i.id));
        e.neg = node(neg_of(i.id));
        e.kind = DrawKind::power;
        e.value = inverter_input_W(i, inverter_ac_W(plan_, i, state_), net_.assumptions);
        e.wanted = holds(i.works_when, state_);
        if (!e.wanted && i.off_W.value_or(0) > 0) {
            e.value = *i.off_W;
            e.wanted = e.resting = true;
        }
        if (e.wanted && !e.resting && i.cutoff_V) {
            MemoryElement m;
            m.kind = MemoryKind::inverter;
            m.id = i.id;
            m.load = static_cast<int>(net_.loads.size());
            m.sense = e.pos;
            m.against = e.neg;
            m.open_V = *i.cutoff_V;
            m.close_V = i.recover_V ? *i.recover_V
                                    : m.open_V + or_assumed({}, "inverter_recover_V", i.id, net_.assumptions,
                                                            plan_.vehicle.nominal_V / 12);
            m.closed = comes_closed(i.id, true);
            net_.memories.push_back(m);
        }
        net_.loads.push_back(e);
    }

    // What a box takes for itself while it has volts.
    void add_standby(int index) {
        const Point& p = plan_.points[static_cast<std::size_t>(index)];
        const auto takes_W = holds(p.awake_when, state_) || !p.sleep_W ? p.standby_W : p.sleep_W;
        if (!takes_W || *takes_W <= 0) return;
        LoadElement e;
        e.pos = node(p.id);
        e.neg = p.return_at.empty() ? kNoNode : node(p.return_at);
        e.kind = DrawKind::power;
        e.value = *takes_W;
        e.wanted = true;
        net_.loads.push_back(e);
        net_.standby_points.push_back(index);
    }

    // Parts of a condition that are measured, each as a device with a memory that holds `what` open.
    void add_measured(const Condition& c, const Id& id, const MemoryElement& what) {
        auto& uses = net_.assumptions;
        if (c.charging_above_V && !plan_.batteries.empty()) {
            MemoryElement m = what;
            m.kind = MemoryKind::charging;
            m.id = id;
            m.sense = node(pos_of(plan_.batteries.front().id));
            m.against = node(neg_of(plan_.batteries.front().id));
            m.close_V = *c.charging_above_V;
            m.open_V = m.close_V - or_assumed({}, "charging_hysteresis_V", id, uses);
            m.delay_s = c.delay_s.value_or(0);
            m.closed = comes_closed(id, false);
            net_.memories.push_back(m);
        }
        for (const Id& circuit : c.circuits) {
            const Load* other = find(plan_.loads, circuit);
            MemoryElement m = what;
            m.kind = MemoryKind::circuit;
            m.id = id;
            m.coil_load = static_cast<int>(other - plan_.loads.data());
            const double nominal_V = other->inverter.empty()
                                         ? rail_V(plan_, *other)
                                         : find(plan_.inverters, other->inverter)->mains_V;
            m.close_V = or_assumed({}, "coil_pull_share", id, uses) * nominal_V;
            m.open_V = or_assumed({}, "coil_release_share", id, uses) * nominal_V;
            m.delay_s = c.delay_s.value_or(0);
            m.closed = comes_closed(id, false);
            net_.memories.push_back(m);
        }
    }

    // A load on mains has no terminals on the rail; in the matrix it stands where it moves nothing.
    void place_mains_loads() {
        for (LoadElement& l : net_.loads)
            if (l.inverter >= 0) l.pos = l.neg = net_.reference;
    }

    void add_load(const Load& l) {
        LoadElement e;
        const Draw draw = draw_in(l, state_);
        e.kind = draw.kind;
        e.value = draw.value;
        e.duty = l.duty.value_or(1);
        if (l.later) e.value = 0;  // not fitted
        if (l.on_s) {
            const double share =
                std::clamp(or_assumed(l.duty, "turn_share", l.id, net_.assumptions), 0.001, 1.0);
            e.on_s = *l.on_s, e.rest_s = *l.on_s * (1 - share) / share;
        }
        if (!l.inverter.empty()) {
            e.inverter = static_cast<int>(find(plan_.inverters, l.inverter) - plan_.inverters.data());
            const Inverter& mains = plan_.inverters[static_cast<std::size_t>(e.inverter)];
            e.mains_wanted = e.expected = holds(l.live_when, state_) && e.value > 0;
            e.mains_V = mains.mains_V;
            e.power_factor = l.power_factor.value_or(1);
        } else {
            e.pos = node(pos_of(l.id));
            e.neg = node(neg_of(l.id));
            e.expected = holds(l.live_when, state_, l.id) && e.value > 0;
            e.wanted = l.own_switch ? e.expected : e.value > 0;
            if (l.own_switch && e.wanted) {
                MemoryElement m;
                m.load = static_cast<int>(net_.loads.size());
                add_measured(l.live_when, l.id, m);
            }
        }
        net_.loads.push_back(e);
    }

    void add_run(int index) {
        const Run& r = plan_.runs[static_cast<std::size_t>(index)];
        auto& uses = net_.assumptions;
        ConductorElement e;
        e.run = index;
        e.from = node(r.from);
        e.to = node(r.to);
        e.parallel = r.parallel;
        fill_run_parts(e, plan_, r, state_, uses);
        for (const Device& d : r.devices) add_device(d, e);
        if (r.channel > 0)
            for (MemoryElement& m : net_.memories)
                if (m.kind == MemoryKind::box && m.id == owner_of(r.from))
                    m.channels.push_back(static_cast<int>(net_.conductors.size()));
        net_.conductors.push_back(std::move(e));
    }

    // Whether a device lets the current through, and what decides it where that is measured.
    void add_device(const Device& d, ConductorElement& e) {
        if (d.kind == DeviceKind::diode || d.kind == DeviceKind::shunt) return;
        const bool holds_here = holds(d.closed_when, state_, d.id);
        if (d.kind == DeviceKind::fuse) {  // a breaker may be the switch as well
            const bool out =
                std::find(state_.pulled.begin(), state_.pulled.end(), d.id) != state_.pulled.end();
            if (out || !holds_here) e.closed = false;
            return;
        }
        if (d.latching) {  // stays where it was put, whatever its coil has now
            const bool asked = holds_here && !(d.closed_when == Condition{});
            if (!comes_closed(d.id, d.rests_closed ? !asked : holds_here)) e.closed = false;
            return;
        }
        if (d.rests_closed) {
            if (d.coil.empty() ? holds_here && !(d.closed_when == Condition{}) : false) e.closed = false;
            if (!d.coil.empty() && holds_here) add_memory(d, e);
            return;
        }
        if (!holds_here) {
            if (d.grounds_without.empty())
                e.closed = false;
            else
                add_unpowered(d);
            return;
        }
        if (d.kind != DeviceKind::switching || !d.coil.empty()) add_memory(d, e);
        MemoryElement m;
        m.conductor = static_cast<int>(net_.conductors.size());
        add_measured(d.closed_when, d.id, m);
    }

    // A box that opens its channels when its volts fall, and goes on living itself.
    void add_box_cutoff(const Point& p) {
        if (!p.cutoff_V) return;
        MemoryElement m;
        m.kind = MemoryKind::box;
        m.id = p.id;
        m.sense = node(p.id);
        m.against = p.return_at.empty() ? kNoNode : node(p.return_at);
        m.open_V = *p.cutoff_V;
        m.close_V = p.recover_V ? *p.recover_V
                                : m.open_V + or_assumed({}, "box_recover_V", p.id, net_.assumptions,
                                                        plan_.vehicle.nominal_V / 12);
        m.delay_s = p.cutoff_s.value_or(0);
        m.closed = comes_closed(p.id, true);
        net_.memories.push_back(m);
    }

    // Flashers and dimmers: what hangs behind one is on for a share of the time. The circuit is solved with
    // it on; heat and hours take the share.
    void add_pulses() {
        for (std::size_t k = 0; k < plan_.runs.size(); ++k)
            for (const Device& d : plan_.runs[k].devices) {
                const double share = pulse_share_of(d);
                if (share >= 1 || !net_.conductors[k].closed) continue;
                for (const int l : loads_behind(k)) pulse(net_.loads[static_cast<std::size_t>(l)], d, share);
            }
    }

    double pulse_share_of(const Device& d) const {
        if (!d.pulse_curve.empty())
            return interpolate(Table(d.pulse_curve.begin(), d.pulse_curve.end()),
                               d.closed_when.air == Air::engine_bay ? state_.engine_bay_C : state_.ambient_C);
        return d.pulse_share.value_or(1);
    }

    void pulse(LoadElement& l, const Device& d, double share) {
        constexpr double kFollowed_s = 2;  // a cable feels no faster
        l.pulse_share = std::min(l.pulse_share, share);
        l.duty *= share;
        if (share <= 0) {
            l.wanted = false;
            return;
        }
        if (l.on_s > 0) return;  // its own turns are longer, and decide the heat
        const double period =
            std::max(kFollowed_s, d.pulse_s ? *d.pulse_s : or_assumed({}, "pulse_s", d.id, net_.assumptions));
        l.on_s = share * period;
        l.rest_s = (1 - share) * period;
    }

    // Loads whose feed comes through that run: away from its beginning, over cables, not through metal.
    std::vector<int> loads_behind(std::size_t run) const {
        std::vector<int> found;
        std::vector<NodeIndex> open{net_.conductors[run].to};
        std::vector<char> seen(net_.nodes.size(), 0);
        seen[static_cast<std::size_t>(net_.conductors[run].from)] = 1;
        for (std::size_t head = 0; head < open.size(); ++head) {
            const NodeIndex n = open[head];
            if (seen[static_cast<std::size_t>(n)]++) continue;
            for (std::size_t l = 0; l < plan_.loads.size(); ++l)
                if (net_.loads[l].pos == n) found.push_back(static_cast<int>(l));
            for (std::size_t k = 0; k < plan_.runs.size(); ++k)
                if (k != run && net_.conductors[k].from == n && !plan_.runs[k].body_metal)
                    open.push_back(net_.conductors[k].to);
        }
        return found;
    }

    double coil_rail_V(int load) const { return rail_V(plan_, plan_.loads[static_cast<std::size_t>(load)]); }

    // An output that grounds while its control unit has no supply: closed while that unit's volts are low.
    void add_unpowered(const Device& d) {
        MemoryElement m;
        m.kind = MemoryKind::unpowered;
        m.id = d.id;
        m.conductor = static_cast<int>(net_.conductors.size());
        m.coil_load = static_cast<int>(find(plan_.loads, d.grounds_without) - plan_.loads.data());
        m.sign = -1;
        auto& uses = net_.assumptions;
        const double rail = coil_rail_V(m.coil_load);
        m.close_V = -or_assumed({}, "coil_release_share", d.id, uses) * rail;
        m.open_V = -or_assumed({}, "coil_pull_share", d.id, uses) * rail;
        m.closed = comes_closed(d.id, false);
        net_.memories.push_back(m);
    }

    void add_memory(const Device& d, const ConductorElement& e) {
        MemoryElement m;
        m.id = d.id;
        m.conductor = static_cast<int>(net_.conductors.size());
        m.delay_s = d.delay_s.value_or(0);
        const double scale = plan_.vehicle.nominal_V / 12;
        auto& uses = net_.assumptions;
        if (d.kind == DeviceKind::switching) {
            m.kind = MemoryKind::coil;
            m.coil_load = static_cast<int>(find(plan_.loads, d.coil) - plan_.loads.data());
            const double rail = coil_rail_V(m.coil_load);
            m.close_V = or_assumed({}, "coil_pull_share", d.id, uses) * rail;
            m.open_V = or_assumed({}, "coil_release_share", d.id, uses) * rail;
            m.rests_closed = d.rests_closed;
            m.closed = comes_closed(d.id, d.rests_closed);
        } else {
            const bool guard = d.kind == DeviceKind::cutoff;
            m.kind = guard ? MemoryKind::cutoff : MemoryKind::sensing_relay;
            m.close_V = or_assumed(d.close_V, guard ? "cutoff_close_V" : "relay_close_V", d.id, uses, scale);
            m.open_V = or_assumed(d.open_V, guard ? "cutoff_open_V" : "relay_open_V", d.id, uses, scale);
            m.open_V = std::min(m.open_V, m.close_V - 0.01);  // one given, the other assumed: never crossed
            m.sense = d.senses == Senses::to ? e.to : e.from;
            if (d.senses == Senses::either) m.other = e.to;
            m.closed = comes_closed(d.id, guard);
        }
        net_.memories.push_back(m);
    }

    void add_bond(int index) {
        const Point& p = plan_.points[static_cast<std::size_t>(index)];
        if (p.kind != PointKind::ground) return;
        ConductorElement e;
        e.ground_point = index;
        e.from = node(p.id);
        e.to = node(p.bonded_to);
        e.fixed_ohm = p.bond_ohm ? *p.bond_ohm : or_assumed({}, "bond_mohm", p.id, net_.assumptions) * 1e-3;
        e.parts = {{PartKind::bond, -1, e.fixed_ohm}};
        net_.conductors.push_back(std::move(e));
    }

    const Plan& plan_;
    const State& state_;
    Network net_;
    std::unordered_map<Terminal, NodeIndex> index_;
};

}  // namespace

Network compile(const Plan& plan, const State& state) {
    return Compiler(plan, state).run();
}

double source_limit_A(const Source& source, double rpm, double temperature_C,
                      std::vector<AssumptionUse>& assumptions) {
    if (rpm <= 0) return 0;
    double share = 1;  // of the winding, where regulators share one
    if (source.kind == SourceKind::stator && source.share) share = *source.share;
    const double rated = source.rated_A.value_or(90);
    if (!source.rated_A && source.curve.empty()) assumptions.push_back({"alternator_rated_A", source.id, 90});
    const double shaft =
        rpm * or_assumed(source.pulley_ratio, "alternator_pulley_ratio", source.id, assumptions);
    Table curve(source.curve.begin(), source.curve.end());
    if (curve.empty()) {
        const double idle = source.idle_A
                                ? *source.idle_A
                                : rated * or_assumed({}, "alternator_idle_share", source.id, assumptions);
        // ISO 8854 gives two points; between them the curve bends: two thirds of the gain in the first third
        // of the speed
        const double low = assumption("alternator_low_rpm").value,
                     top = assumption("alternator_rated_rpm").value;
        curve = {{assumption("alternator_cut_in_rpm").value, 0},
                 {low, idle},
                 {low + (top - low) / 3, idle + (rated - idle) * 2 / 3},
                 {top, rated}};
    }
    if (shaft < curve.front().first) {
        // below its own curve it gives nothing that anybody stated: said as an assumption, not in silence
        if (!source.curve.empty()) assumptions.push_back({"alternator_below_curve_A", source.id, 0});
        return 0;
    }
    const double derating = assumption("alternator_derating_per_K").value;
    const double hot = std::max(0.0, 1 - derating * std::max(0.0, temperature_C - 25));
    return std::min(interpolate(curve, shaft) * hot * share, source.regulator_A.value_or(1e9));
}

double inverter_ac_W(const Plan& plan, const Inverter& inverter, const State& state) {
    double watts = 0;
    for (const Load& l : plan.loads)
        if (l.inverter == inverter.id && !l.later && holds(l.live_when, state))
            watts += l.draw.value * l.count;
    return watts;
}

double inverter_input_W(const Inverter& inverter, double ac_W, std::vector<AssumptionUse>& assumptions) {
    const double standby = or_assumed(inverter.standby_W, "inverter_standby_W", inverter.id, assumptions);
    if (ac_W <= 0) return standby;
    if (!inverter.curve.empty()) {
        const double full =
            or_assumed(inverter.continuous_W, "inverter_continuous_W", inverter.id, assumptions);
        const Table curve(inverter.curve.begin(), inverter.curve.end());
        return std::max(standby, ac_W / interpolate(curve, ac_W / full));
    }
    return standby + ac_W / or_assumed(inverter.efficiency, "inverter_efficiency", inverter.id, assumptions);
}

Draw draw_in(const Load& l, const State& state) {
    Draw d = l.draw;
    if (!l.line_curve.empty()) {  // amps of a winch or hoist follow its pull
        const double pull = state.line_load.value_or(l.line_load.value_or(1));
        d = {DrawKind::current, interpolate(Table(l.line_curve.begin(), l.line_curve.end()), pull)};
    }
    d.value = d.kind == DrawKind::resistance ? d.value / l.count : d.value * l.count;
    return d;
}

void at_moment(BatteryElement& e, double charge, double temperature_C) {
    const ChemistryData& chemistry = chemistry_data(e.chemistry);
    e.charge = charge;
    e.temperature_C = temperature_C;
    e.open_V =
        (interpolate(chemistry.ocv_V, charge) + chemistry.ocv_V_per_K * (temperature_C - 25)) * e.blocks;
    e.R0_ohm = e.full_warm_ohm * cold_factor(temperature_C) * interpolate(chemistry.R0_factor, charge);
    e.accept_A = interpolate(chemistry.acceptance_per_Ah, charge) * e.capacity_Ah *
                 cold_acceptance(chemistry, temperature_C);
}

YR_SPECIAL_MEMBERS_HERE(Network)

}  // namespace yr

template class std::vector<yr::ConductorElement>;
template class std::vector<yr::BatteryElement>;
template class std::vector<yr::SourceElement>;
template class std::vector<yr::LoadElement>;
template class std::vector<yr::MemoryElement>;
