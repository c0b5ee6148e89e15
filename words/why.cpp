#include "words/why.h"
#include "words/finding_rows.h"

#include <algorithm>

#include "plan/rail_volts.h"
#include "units/at.h"
#include "words/control_words.h"
#include "words/guard_words.h"
#include "words/why_parts.h"

namespace yr::words {
namespace {

constexpr const char* kOhmsLaw = "Ohm's law and Kirchhoff's laws, solved for the whole network";
constexpr const char* kCopper = "IEC 60028: copper, 0.00393 /K (from memory)";
constexpr const char* kHeat = "Churchill and Chu 1975, horizontal cylinder, and radiation (from memory)";

void draw_steps(Explanation& e, const WhyContext& c, const Load& l, const LoadResult& r) {
    const std::string many = l.count > 1 ? fmt::format("{} × ", l.count) : "";
    switch (l.draw.kind) {
        case DrawKind::power:
            e.steps.push_back(say("I = P / V = {0}{1} / {2} = {3}", many, c.W(l.draw.value), c.V(r.voltage_V),
                                  c.A(r.current_A)));
            e.steps.push_back(translated("Constant power: as the volts fall, the amps rise."));
            break;
        case DrawKind::current:
            e.steps.push_back(
                say("I = {0}{1} = {2}, whatever the volts", many, c.A(l.draw.value), c.A(r.current_A)));
            break;
        case DrawKind::resistance:
            e.steps.push_back(say("I = V / R = {0} / ({1} / {2}) = {3}", c.V(r.voltage_V),
                                  c.ohm(l.draw.value), l.count, c.A(r.current_A)));
            break;
    }
}

void path_steps(Explanation& e, const WhyContext& c, int load) {
    int shown = 0;
    for (int k : path_of_load(c.solution, load)) {
        const ConductorElement& el = c.solution.network.conductors[at(k)];
        const ConductorResult& r = c.solution.point.conductors[at(k)];
        const Id& id = el.run >= 0 ? c.plan.runs[at(el.run)].id : c.plan.points[at(el.ground_point)].id;
        e.steps.push_back(fmt::format("{}: {} × {} = {}", yr::name_of(c.plan, id), c.A(std::abs(r.current_A)),
                                      c.ohm(el.fixed_ohm + r.cable_ohm), c.V(std::abs(r.drop_V))));
        c.add_assumptions(e, id);
        if (++shown == 8) {
            e.steps.push_back(translated("and smaller ones"));
            break;
        }
    }
}

Explanation why_load(const ValueRef& ref, const WhyContext& c) {
    Explanation e;
    const auto index = index_of(c.plan.loads, ref.id);
    if (!index) return e;
    const Load& l = c.plan.loads[*index];
    const LoadResult& r = c.solution.point.loads[*index];
    const std::string name = l.name, when = translated(" in ") + c.state.name;
    e.sources.push_back(kOhmsLaw);
    if (r.status == LoadStatus::off || r.status == LoadStatus::dead) {
        e.title = capital(name) + when;
        e.value = r.status == LoadStatus::off ? translated("off") : translated("dead");
        e.steps.push_back(r.status == LoadStatus::off
                              ? translated("It is live when: ") + condition(l.live_when) +
                                    translated(". That does not hold in this state.")
                              : translated("It should run (") + condition(l.live_when) +
                                    translated(") but no closed path joins it to a source."));
        return e;
    }
    if (r.status == LoadStatus::collapsed) {
        e.title = capital(name) + when;
        e.value = translated("no operating point");
        e.steps.push_back(translated(
            "A constant power P behind a resistance R from E volts exists only while E² ≥ 4·R·P."));
        e.steps.push_back(
            say("Here {0} of its power can be served.", c.pc(c.solution.point.collapsed_at[*index])));
        return e;
    }
    const double limit = drop_limit_V(c.plan, l);
    switch (ref.kind) {
        case ValueKind::load_current:
            e.title = translated("Current of ") + name + when;
            e.value = c.A(r.current_A);
            draw_steps(e, c, l, r);
            break;
        case ValueKind::load_voltage:
            e.title = translated("Voltage at ") + name + when;
            e.value = c.V(r.voltage_V);
            e.steps.push_back(
                say("V = supply − drop = {0} − {1} = {2}", c.V(r.supply_V), c.V(r.drop_V), c.V(r.voltage_V)));
            path_steps(e, c, static_cast<int>(*index));
            break;
        case ValueKind::load_drop:
        case ValueKind::load_drop_share: {
            e.title = translated("Drop of ") + name + when;
            const double nominal = rail_V(c.plan, l);
            e.value = say("{0}, {1} of {2} allowed", c.V(r.drop_V), c.pc(r.drop_V / nominal),
                          c.pc(limit / nominal));
            e.steps.push_back(say("drop = {0} at the highest source − {1} here = {2}", c.V(r.supply_V),
                                  c.V(r.voltage_V), c.V(r.drop_V)));
            e.steps.push_back(
                say("of nominal: {0} / {1} = {2}", c.V(r.drop_V), c.V(nominal), c.pc(r.drop_V / nominal)));
            path_steps(e, c, static_cast<int>(*index));
            e.sources.push_back(
                l.drop_limit ? translated("limit: the load's own")
                             : translated("limit: ") +
                                   assumption(l.critical ? "load_drop_critical" : "load_drop_other").source);
            break;
        }
        case ValueKind::run_current:
        case ValueKind::run_drop:
        case ValueKind::run_temperature:
        case ValueKind::run_heat:
        case ValueKind::run_ampacity:
        case ValueKind::run_resistance:
        case ValueKind::device_drop:
        case ValueKind::bond_drop:
        case ValueKind::source_current:
        case ValueKind::source_limit:
        case ValueKind::source_voltage:
        case ValueKind::battery_current:
        case ValueKind::battery_voltage:
        case ValueKind::battery_hours:
        case ValueKind::feed_current:
        case ValueKind::inverter_current:
        case ValueKind::finding:
            break;  // of other things
    }
    return e;
}

void resistance_steps(Explanation& e, const WhyContext& c, const Run& run, std::size_t k) {
    const ConductorElement& el = c.solution.network.conductors[k];
    const ConductorResult& r = c.solution.point.conductors[k];
    if (el.cable20_ohm > 0) {
        std::vector<AssumptionUse> unused;
        const CableValues v = cable_values(c.plan, run, c.state, unused);
        e.steps.push_back(
            say("cable at 20 °C: {0} × {1} /m{2} = {3}", c.m(v.length_m), c.ohm(v.surroundings.R20_ohm_per_m),
                run.parallel > 1 ? say(" / {0} in parallel", run.parallel) : "", c.ohm(el.cable20_ohm)));
        e.steps.push_back(say("at {0}: {1} × (1 + 0.00393 × ({2} − 20)) = {3}", c.C(r.temperature_C),
                              c.ohm(el.cable20_ohm), number(r.temperature_C), c.ohm(r.cable_ohm)));
        e.sources.emplace_back(conductor(v.size, run.material)->source);
        e.sources.push_back(kCopper);
    }
    for (const SeriesPart& p : el.parts) {
        if (p.kind == PartKind::cable) continue;
        const char* what = p.kind == PartKind::joint   ? translated("joint")
                           : p.kind == PartKind::metal ? translated("body metal or given")
                                                       : translated("contact");
        std::string name = p.device >= 0      ? run.devices[at(p.device)].name
                           : p.connector >= 0 ? c.plan.connectors[at(p.connector)].name
                                              : std::string(what);
        e.steps.push_back(p.forward_V > 0
                              ? say("{0}: {1} and {2}", name, c.V(p.forward_V), c.ohm(p.fixed_ohm))
                              : fmt::format("{}: {}", name, c.ohm(p.fixed_ohm)));
    }
}

void temperature_steps(Explanation& e, const WhyContext& c, const Run& run, std::size_t k,
                       const std::string& of) {
    const ConductorElement& el = c.solution.network.conductors[k];
    const ConductorResult& r = c.solution.point.conductors[k];
    const double amps = std::abs(c.solution.point.conductors[k].current_A);
    e.title = translated("Conductor temperature") + of;
    e.value = c.C(r.temperature_C);
    const double per_cable = amps / el.parallel;
    const double r20 = el.cable.R20_ohm_per_m;
    const double heat = per_cable * per_cable * r20 * (1 + kCopperAlpha_per_K * (r.temperature_C - 20));
    e.steps.push_back(say("heat in: I² × R = {0}/m", c.W(heat)));
    if (el.cable.bundle_factor < 1)
        e.steps.push_back(say("in a bundle it counts 1 / {0}² times", number(el.cable.bundle_factor)));
    e.steps.push_back(say("heat out by convection and radiation from {0} at {1} around it balances at {2}",
                          quantity(el.cable.outer_diameter_m * 1e3, Dimension::number) + translated(" mm"),
                          c.C(el.cable.ambient_C), c.C(r.temperature_C)));
    e.steps.push_back(say("its insulation stands {0}", c.C(run.insulation_C)));
    e.sources.push_back(kHeat);
}

void ampacity_steps(Explanation& e, const WhyContext& c, const Run& run, std::size_t k,
                    const std::string& of) {
    const ConductorElement& el = c.solution.network.conductors[k];
    e.title = translated("Ampacity") + of;
    const auto a = run_ampacity(c.plan, run, c.state);
    if (!a) {
        e.value = translated("none");
        e.steps.push_back(translated("Body metal and given resistances have no table."));
        return;
    }
    e.value = c.A(a->allowed_A);
    e.steps.push_back(say("table: {0} at 30 °C, {1} insulation{2}", c.A(a->table_A), c.C(run.insulation_C),
                          a->interpolated ? translated(", between the table's sizes by copper") : ""));
    e.steps.push_back(
        say("surroundings: the lower of engine-space factor {0} and √((T_ins − T_air)/(T_ins − 30)) "
            "= {1}",
            number(a->engine_factor), number(a->ambient_factor)));
    e.steps.push_back(say("bundle of {0}: {1}", run.bundle, number(a->bundle_factor)));
    e.steps.push_back(
        fmt::format("{} × {} × {}{} = {}", c.A(a->table_A), number(a->surroundings), number(a->bundle_factor),
                    run.parallel > 1 ? say(" × {0} in parallel", run.parallel) : "", c.A(a->allowed_A)));
    if (el.cable20_ohm > 0)
        e.steps.push_back(translated("second opinion, heat balance: ") +
                          c.A(current_for_temperature_A(el.cable, run.insulation_C) * run.parallel) +
                          translated(" in still air"));
    e.sources.push_back(a->source);
}

void device_steps(Explanation& e, const WhyContext& c, const Run& run, std::size_t k, int index) {
    const ConductorElement& el = c.solution.network.conductors[k];
    const ConductorResult& r = c.solution.point.conductors[k];
    const double amps = std::abs(c.solution.point.conductors[k].current_A);
    const SeriesPart& part = el.parts[std::min(at(index), el.parts.size() - 1)];
    const double part_ohm = part.kind == PartKind::cable ? r.cable_ohm : part.fixed_ohm;
    const std::string name = part.device >= 0 ? run.devices[at(part.device)].name : translated("joint");
    e.title = translated("Volts lost in ") + name + translated(" of ") + run.name;
    e.value = c.V(amps * part_ohm + part.forward_V);
    e.steps.push_back(say("ΔV = {0} × {1}{2} = {3}", c.A(amps), c.ohm(part_ohm),
                          part.forward_V > 0 ? " + " + c.V(part.forward_V) : std::string(), e.value));
    if (part.kind == PartKind::fuse) {
        const Device& d = run.devices[at(part.device)];
        e.steps.push_back(
            say("R = rated drop / rating = {0} / {1}", c.V(fuse_kind(d.fuse).rated_drop_V), c.A(d.rating_A)));
        e.sources.push_back(fuse_kind(d.fuse).source + translated("; drop: common practice"));
    }
}

Explanation why_run(const ValueRef& ref, const WhyContext& c) {
    Explanation e;
    const auto index = index_of(c.plan.runs, ref.id);
    if (!index) return e;
    const Run& run = c.plan.runs[*index];
    const ConductorElement& el = c.solution.network.conductors[*index];
    const ConductorResult& r = c.solution.point.conductors[*index];
    const double amps = std::abs(r.current_A), ohm = el.fixed_ohm + r.cable_ohm;
    const std::string of = translated(" of ") + run.name + translated(" in ") + c.state.name;
    c.add_assumptions(e, run.id);
    switch (ref.kind) {
        case ValueKind::run_current:
            e.title = translated("Current") + of;
            e.value = c.A(amps);
            e.steps.push_back(
                say("I = ΔV / R = {0} / {1} = {2}", c.V(std::abs(r.drop_V)), c.ohm(ohm), c.A(amps)));
            e.steps.push_back(
                std::string(translated("It is what all behind it takes: the sums at every stud agree ")) +
                (c.solution.point.residuals.node_A < 1e-6
                     ? translated("to better than a microamp.")
                     : translated("to ") + c.A(c.solution.point.residuals.node_A) + "."));
            e.sources.push_back(kOhmsLaw);
            break;
        case ValueKind::run_drop:
            e.title = translated("Volts lost in ") + run.name + translated(" in ") + c.state.name;
            e.value = c.V(std::abs(r.drop_V));
            e.steps.push_back(
                say("ΔV = I × R = {0} × {1} = {2}", c.A(amps), c.ohm(ohm), c.V(std::abs(r.drop_V))));
            resistance_steps(e, c, run, *index);
            e.sources.push_back(kOhmsLaw);
            break;
        case ValueKind::run_heat:
            e.title = translated("Heat") + of;
            e.value = c.W(amps * amps * ohm);
            e.steps.push_back(
                say("P = I² × R = {0}² × {1} = {2}", c.A(amps), c.ohm(ohm), c.W(amps * amps * ohm)));
            e.sources.push_back(translated("Joule's law"));
            break;
        case ValueKind::run_resistance:
            e.title = translated("Resistance") + of;
            e.value = c.ohm(ohm);
            resistance_steps(e, c, run, *index);
            break;
        case ValueKind::run_temperature:
            temperature_steps(e, c, run, *index, of);
            break;
        case ValueKind::run_ampacity:
            ampacity_steps(e, c, run, *index, of);
            break;
        case ValueKind::device_drop:
            device_steps(e, c, run, *index, ref.part);
            break;
        case ValueKind::load_current:
        case ValueKind::load_voltage:
        case ValueKind::load_drop:
        case ValueKind::load_drop_share:
        case ValueKind::bond_drop:
        case ValueKind::source_current:
        case ValueKind::source_limit:
        case ValueKind::source_voltage:
        case ValueKind::battery_current:
        case ValueKind::battery_voltage:
        case ValueKind::battery_hours:
        case ValueKind::feed_current:
        case ValueKind::inverter_current:
        case ValueKind::finding:
            break;  // of other things
    }
    return e;
}

Explanation why_bond(const ValueRef& ref, const WhyContext& c) {
    Explanation e;
    for (std::size_t k = 0; k < c.solution.network.conductors.size(); ++k) {
        const ConductorElement& el = c.solution.network.conductors[k];
        if (el.ground_point < 0 || c.plan.points[at(el.ground_point)].id != ref.id) continue;
        const ConductorResult& r = c.solution.point.conductors[k];
        e.title = translated("Volts lost in the bond of ") + yr::name_of(c.plan, ref.id);
        e.value = c.V(std::abs(r.drop_V));
        e.steps.push_back(say("ΔV = I × R = {0} × {1} = {2}", c.A(std::abs(r.current_A)), c.ohm(el.fixed_ohm),
                              c.V(std::abs(r.drop_V))));
        c.add_assumptions(e, ref.id);
        e.sources.push_back(kOhmsLaw);
    }
    return e;
}

}  // namespace

Explanation explain(const ValueRef& ref, const Plan& plan, const State& state, const Solution& solution,
                    const Style& style) {
    const WhyContext c{plan, state, solution, style};
    switch (ref.kind) {
        case ValueKind::load_current:
        case ValueKind::load_voltage:
        case ValueKind::load_drop:
        case ValueKind::load_drop_share:
            return why_load(ref, c);
        case ValueKind::run_current:
        case ValueKind::run_drop:
        case ValueKind::run_temperature:
        case ValueKind::run_heat:
        case ValueKind::run_ampacity:
        case ValueKind::run_resistance:
        case ValueKind::device_drop:
            return why_run(ref, c);
        case ValueKind::bond_drop:
            return why_bond(ref, c);
        case ValueKind::finding:
            return {};
        case ValueKind::source_current:
        case ValueKind::source_limit:
        case ValueKind::source_voltage:
        case ValueKind::battery_current:
        case ValueKind::battery_voltage:
        case ValueKind::battery_hours:
        case ValueKind::feed_current:
        case ValueKind::inverter_current:
            return why_supply(ref, c);
    }
    return {};
}

Explanation explain(const Finding& f, const Plan& plan, const std::vector<Solution>& solutions,
                    const Style& style) {
    Explanation e;
    const State* state = find(plan.states, f.state);
    const auto s = state ? static_cast<std::size_t>(state - plan.states.data()) : 0;
    const auto from_value = [&](ValueKind kind) {
        if (s < solutions.size()) e = explain({kind, f.id, 0}, plan, plan.states[s], solutions[s], style);
    };
    const FindingRow& row = row_of(f.kind);
    if (row.why) from_value(*row.why);
    if (f.kind == FindingKind::rests_on_assumption)
        for (const AssumptionUse& use :
             solutions.empty() ? std::vector<AssumptionUse>{} : solutions.front().network.assumptions)
            if (f.other == "length" ? use.id == f.id : use.key == "bond_mohm" || use.key == "metal_mohm")
                e.assumptions.push_back(assumption_text(use, plan));
    if (const std::string help = would_help(f); !help.empty()) e.steps.push_back(help);
    if (row.reasons)
        for (std::string& reason : row.reasons({f, plan, style})) e.steps.push_back(std::move(reason));
    e.title = sentence(f, plan, style);
    e.value.clear();
    const Rule rule = rule_of(f, plan);
    e.sources.insert(e.sources.begin(), rule.source);
    return e;
}

std::string text(const Explanation& e) {
    std::string out = e.title + (e.value.empty() ? "" : ": " + e.value) + "\n";
    for (const auto& s : e.steps) out += "  " + s + "\n";
    for (const auto& a : e.assumptions) out += translated("  rests on: ") + a + "\n";
    for (const auto& s : e.sources) out += translated("  source: ") + s + "\n";
    return out;
}

}  // namespace yr::words
