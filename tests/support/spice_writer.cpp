#include "support/spice_writer.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <sstream>

#include "support/run_program.h"

namespace yr::test {
namespace {

std::string num(double v) {
    char b[40];
    std::snprintf(b, sizeof b, "%.15g", v);
    return b;
}

class Writer {
  public:
    Writer(const Plan& plan, const State& state, const std::map<std::string, bool>& closed)
        : plan_(plan), state_(state), closed_(closed) {}

    SpiceCircuit write(const std::vector<double>& temperature_C, const std::map<std::string, double>& start_V,
                       const std::vector<char>& load_on) {
        circuit_.node_of[neg_of(plan_.batteries.front().id).text()] = "0";
        for (std::size_t k = 0; k < plan_.runs.size(); ++k) run(plan_.runs[k], temperature_C[k]);
        for (const Point& p : plan_.points)
            if (p.kind == PointKind::ground) resistor(p.id, p.id, p.bonded_to, p.bond_ohm.value_or(1e-3));
        for (const Battery& b : plan_.batteries) battery(b);
        for (const Source& s : plan_.sources) source(s);
        for (std::size_t k = 0; k < plan_.loads.size(); ++k)
            if (load_on[k] && plan_.loads[k].inverter.empty()) load(plan_.loads[k]);
        for (std::size_t k = 0; k < plan_.inverters.size(); ++k)
            if (load_on[plan_.loads.size() + k]) inverter(plan_.inverters[k]);
        std::size_t standby = plan_.loads.size() + plan_.inverters.size();
        for (const Point& p : plan_.points)
            if (box_W(p) > 0 && load_on[standby++]) box(p);
        // every island has a point of reference; a megohm moves nothing at this accuracy
        for (const auto& [terminal, n] : circuit_.node_of)
            if (n != "0") body_ += "Rleak" + n + " " + n + " 0 1e12\n";
        std::string head = "* plan\n";
        for (const auto& [terminal, volts] : start_V)
            if (circuit_.node_of.contains(terminal) && circuit_.node_of[terminal] != "0")
                head += ".nodeset v(" + circuit_.node_of[terminal] + ")=" + num(volts) + "\n";
        circuit_.deck = head + body_ +
                        ".options reltol=1e-10 abstol=1e-13 vntol=1e-11 gmin=1e-16 itl1=5000\n.control\nset "
                        "numdgt=14\nop\nprint all\n.endc\n.end\n";
        return circuit_;
    }

  private:
    std::string node(const Terminal& end) {
        const std::string terminal = end.text();
        const auto [at, added] = circuit_.node_of.try_emplace(terminal, "");
        if (added) at->second = "n" + std::to_string(circuit_.node_of.size());
        return at->second;
    }

    void resistor(const std::string& id, const Terminal& a, const Terminal& b, double ohm) {
        circuit_.ohm_of_run[id] = ohm;
        body_ += "R" + std::to_string(++count_) + " " + node(a) + " " + node(b) + " " + num(ohm) + "\n";
    }

    void run(const Run& r, double temperature_C) {
        double forward = 0;
        for (const Device& d : r.devices) {
            if (d.kind == DeviceKind::diode) forward += d.forward_V.value_or(0.7);
            if (std::find(state_.pulled.begin(), state_.pulled.end(), d.id) != state_.pulled.end()) return;
            if (d.kind == DeviceKind::diode || d.kind == DeviceKind::shunt) continue;
            const bool asked = holds(d.closed_when, state_, d.id);
            if (d.kind == DeviceKind::fuse) {
                if (!asked) return;
                continue;
            }
            if (closed_.contains(d.id)) {
                if (!closed_.at(d.id)) return;
                continue;
            }
            // the contact that rests closed lets go where its condition holds; without one it never does
            const bool lets_go = d.rests_closed && d.coil.empty() && !(d.closed_when == Condition{});
            if (d.rests_closed ? lets_go && asked : !asked) return;
        }
        if (r.channel > 0 && closed_.contains(owner_of(r.from)) && !closed_.at(owner_of(r.from))) return;
        if (r.body_metal || r.resistance_ohm) {
            resistor(r.id, r.from, r.to, r.resistance_ohm.value_or(0.3e-3));
            return;
        }
        const Conductor c = *conductor(r.size.value_or(WireSize::awg(14)), r.material);
        double ohm =
            c.R20_ohm_per_m * (1 + 0.00393 * (temperature_C - 20)) * r.length_m.value_or(3.0) / r.parallel;
        ohm += 2 * std::max(2e-3 / c.area_mm2, 0.05e-3) / r.parallel;  // two lugs
        for (const Connector& x : plan_.connectors) {
            const auto pins = std::count_if(r.pins.begin(), r.pins.end(),
                                            [&](const PinUse& u) { return u.connector == x.id; });
            if (pins > 0) ohm += x.contact_ohm.value_or(3e-3) / static_cast<double>(pins) / r.parallel;
        }
        for (const Device& d : r.devices) {
            if (d.resistance_ohm)
                ohm += *d.resistance_ohm;
            else if (d.kind == DeviceKind::fuse)
                ohm +=
                    (d.fuse == FuseType::blade || d.fuse == FuseType::blade_large ? 0.1 : 0.075) / d.rating_A;
            else
                ohm += 0.5e-3;
        }
        if (forward <= 0) {
            resistor(r.id, r.from, r.to, ohm);
            return;
        }
        circuit_.ohm_of_run[r.id] = ohm;
        circuit_.forward_V[r.id] = forward;
        const std::string u = "v(" + node(r.from) + "," + node(r.to) + ")";
        body_ += "B" + std::to_string(++count_) + " " + node(r.from) + " " + node(r.to) + " I=" + u +
                 "*1e-6+max(" + u + "-" + num(forward) + ",0)/" + num(ohm) + "\n";
    }

    // What a control box takes for itself.
    void box(const Point& p) {
        const std::string a = node(p.id), b = node(p.return_at);
        body_ += "B" + std::to_string(++count_) + " " + a + " " + b + " I=" + num(box_W(p)) + "/max(v(" + a +
                 "," + b + "),6)\n";
    }

    // Awake or asleep.
    double box_W(const Point& p) const {
        return p.sleep_W && !holds(p.awake_when, state_) ? *p.sleep_W : p.standby_W.value_or(0);
    }

    void inverter(const Inverter& i) {
        double ac = 0;
        for (const Load& l : plan_.loads)
            if (l.inverter == i.id && holds(l.live_when, state_)) ac += l.draw.value * l.count;
        const double standby = i.standby_W.value_or(8);
        const double watts = i.off_W && !holds(i.works_when, state_) ? *i.off_W
                             : ac <= 0                               ? standby
                             : i.curve.empty()
                                 ? standby + ac / i.efficiency.value_or(0.88)
                                 : std::max(standby, ac / line(i.curve, ac / i.continuous_W.value_or(1000)));
        const std::string p = node(pos_of(i.id)), n = node(neg_of(i.id));
        body_ += "B" + std::to_string(++count_) + " " + p + " " + n + " I=" + num(watts) + "/max(v(" + p +
                 "," + n + "),6)\n";
    }

    double air(const Id& place) const {
        const Place* p = find(plan_.places, place);
        return p && p->engine_space ? state_.engine_bay_C : state_.ambient_C;
    }

    static double line(const std::vector<std::pair<double, double>>& t, double x) {
        if (x <= t.front().first) return t.front().second;
        for (std::size_t k = 1; k < t.size(); ++k)
            if (x <= t[k].first)
                return t[k - 1].second +
                       (t[k].second - t[k - 1].second) * (x - t[k - 1].first) / (t[k].first - t[k - 1].first);
        return t.back().second;
    }

    void clamped(const std::string& pos, const std::string& neg, double open, double ohm,
                 const std::string& low, const std::string& high) {
        law_ = "min(max((" + num(open) + "-v(" + pos + "," + neg + "))/" + num(ohm) + "," + low + ")," +
               high + ")";
        body_ += "B" + std::to_string(++count_) + " " + neg + " " + pos + " I=" + law_ + "\n";
    }

    // A source that blocks senses its terminal through 1 Mohm.
    void sense(const std::string& pos, const std::string& neg, double set) {
        body_ += "B" + std::to_string(++count_) + " " + neg + " " + pos + " I=min(" + num(set) + "-v(" + pos +
                 "," + neg + "),0)*1e-6\n";
    }

    void battery(const Battery& b) {
        const double blocks = b.nominal_V.value_or(plan_.vehicle.nominal_V) / 12;
        const bool lithium = b.chemistry == Chemistry::lifepo4;
        const double peukert = b.peukert.value_or(b.chemistry == Chemistry::flooded ? 1.2
                                                  : b.chemistry == Chemistry::agm   ? 1.12
                                                  : lithium                         ? 1.03
                                                                                    : 1.15);
        double ah = b.capacity_Ah.value_or(70);
        if (!b.capacity_Ah && b.reserve_min) ah = 500 * std::pow(*b.reserve_min / 1200, 1 / peukert);
        const double health = b.health.value_or(1), charge = state_.charge.value_or(b.charge.value_or(0.8)),
                     t = air(b.place);
        const ChemistryData& data = chemistry_data(b.chemistry);
        const double cold = t < 25 ? std::exp2((25 - t) / 43) : 1;
        const double end_V = b.cranking_standard == CrankingStandard::en ? 5.1 : 5.4;
        const double warm = b.R0_ohm       ? *b.R0_ohm
                            : b.cranking_A ? end_V / *b.cranking_A / 2 * blocks
                                           : 0.4 / ah * blocks;
        double accept = line(data.acceptance_per_Ah, charge) * ah * health;
        if (lithium)
            accept = t < 0 ? 0 : accept;
        else if (t < 25)
            accept *= std::exp2((t - 25) / 20);
        const double open = line(data.ocv_V, charge) + (lithium ? 0 : 0.0012) * (t - 25);
        clamped(node(pos_of(b.id)), node(neg_of(b.id)), open * blocks,
                warm / health * cold * line(data.R0_factor, charge), num(-accept), "1e9");
    }

    void source(const Source& s) {
        const std::string p = node(out_of(s.id)), n = node(s.return_at);
        if (closed_.contains(s.id) && !closed_.at(s.id)) return;
        if (s.kind == SourceKind::shore || s.kind == SourceKind::solar) {
            mains_or_sun(s, p, n);
            return;
        }
        if (s.kind == SourceKind::converter) {
            if (!holds(s.works_when, state_)) return;
            clamped(p, n, charger_V(s), s.droop_ohm.value_or(0.004), "0", num(s.rated_A.value_or(20)));
            sense(p, n, charger_V(s));
            const std::string in = node(in_of(s.id));
            body_ += "B" + std::to_string(++count_) + " " + in + " " + n + " I=(v(" + p + "," + n + ")*" +
                     law_ + "/" + num(s.efficiency.value_or(0.9)) + "+" + num(s.standby_W.value_or(0)) +
                     ")/max(v(" + in + "," + n + "),6)\n";
            return;
        }
        if (!holds(s.works_when, state_) || state_.rpm <= 0) return;
        const double t = air(s.place), rated = s.rated_A.value_or(90), idle = s.idle_A.value_or(rated / 2);
        const double shaft = state_.rpm * s.pulley_ratio.value_or(2.7);
        auto curve = s.curve;
        if (curve.empty())
            curve = {{1000, 0}, {1500, idle}, {3000, idle + (rated - idle) * 2 / 3}, {6000, rated}};
        double limit =
            shaft < curve.front().first ? 0 : line(curve, shaft) * (1 - 0.0025 * std::max(0.0, t - 25));
        if (s.share) limit *= *s.share;
        if (s.regulator_A) limit = std::min(limit, *s.regulator_A);
        if (limit <= 0) return;
        const double scale = plan_.vehicle.nominal_V / 12;
        clamped(p, n, s.regulated_V.value_or(14.2 * scale) - scale * 0.007 * (t - 25),
                s.droop_ohm.value_or(0.004), "0", num(limit));
        sense(p, n, s.regulated_V.value_or(14.2 * scale) - scale * 0.007 * (t - 25));
    }

    // Absorption volts, or float once the battery it serves is full.
    double charger_V(const Source& s) const {
        for (const Battery& b : plan_.batteries)
            if (b.id == s.charges && s.float_V && state_.charge.value_or(b.charge.value_or(0.8)) >= 0.98)
                return *s.float_V;
        return s.regulated_V.value_or(14.2 * plan_.vehicle.nominal_V / 12);
    }

    void mains_or_sun(const Source& s, const std::string& p, const std::string& n) {
        if (!holds(s.works_when, state_)) return;
        std::string most = num(s.rated_A.value_or(s.kind == SourceKind::shore ? 20 : 1000));
        if (s.kind == SourceKind::solar) {
            const double watts = s.panel_W.value_or(100) * state_.sun * s.efficiency.value_or(0.9);
            if (watts <= 0) return;
            most = "min(" + most + "," + num(watts) + "/max(v(" + p + "," + n + "),1))";
        }
        clamped(p, n, charger_V(s), s.droop_ohm.value_or(0.004), "0", most);
        sense(p, n, charger_V(s));
    }

    void load(const Load& l) {
        const std::string p = node(pos_of(l.id)), n = node(neg_of(l.id));
        const double many = l.count;
        if (!l.line_curve.empty()) {
            const double amps = line(l.line_curve, state_.line_load.value_or(l.line_load.value_or(1))) * many;
            body_ += "I" + std::to_string(++count_) + " " + p + " " + n + " " + num(amps) + "\n";
            return;
        }
        switch (l.draw.kind) {
            case DrawKind::current:
                body_ += "I" + std::to_string(++count_) + " " + p + " " + n + " " + num(l.draw.value * many) +
                         "\n";
                break;
            case DrawKind::resistance:
                body_ += "R" + std::to_string(++count_) + " " + p + " " + n + " " + num(l.draw.value / many) +
                         "\n";
                break;
            case DrawKind::power:
                body_ += "B" + std::to_string(++count_) + " " + p + " " + n +
                         " I=" + num(l.draw.value * many) + "/max(v(" + p + "," + n + "),6)\n";
                break;
        }
    }

    const Plan& plan_;
    const State& state_;
    const std::map<std::string, bool>& closed_;
    SpiceCircuit circuit_;
    std::string body_, law_;
    int count_ = 0;
};

}  // namespace

SpiceCircuit write_spice(const Plan& plan, const State& state, const std::vector<double>& temperature_C,
                         const std::map<std::string, double>& start_V, const std::vector<char>& load_on,
                         const std::map<std::string, bool>& stands_closed) {
    return Writer(plan, state, stands_closed).write(temperature_C, start_V, load_on);
}

double SpiceCircuit::current_A(const std::string& run, double u_V) const {
    const double ohm = ohm_of_run.at(run);
    const auto forward = forward_V.find(run);
    return forward == forward_V.end() ? u_V / ohm : u_V * 1e-6 + std::max(0.0, u_V - forward->second) / ohm;
}

std::map<std::string, double> run_spice(const SpiceCircuit& circuit) {
    const TempFolder folder;
    write_text(folder.file("deck.cir"), circuit.deck);
    const Ran ran = test::run("ngspice -b " + folder.file("deck.cir"));
    std::map<std::string, double> by_node{{"0", 0.0}};
    std::istringstream lines(ran.out);
    for (std::string line; std::getline(lines, line);) {
        const auto equals = line.find(" = ");
        if (equals != std::string::npos && line[0] == 'n')
            by_node[line.substr(0, equals)] = std::strtod(line.c_str() + equals + 3, nullptr);
    }
    std::map<std::string, double> volts;
    if (by_node.size() < 2) return volts;
    for (const auto& [terminal, n] : circuit.node_of)
        if (by_node.contains(n)) volts[terminal] = by_node[n];
    return volts;
}

}  // namespace yr::test
