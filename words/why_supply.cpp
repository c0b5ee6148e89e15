// Explanations of what sources and batteries give and what a feed hands on.
#include "solve/results.h"
#include "words/why_parts.h"

namespace yr::words {
namespace {

Explanation why_source(const ValueRef& ref, const WhyContext& c) {
    Explanation e;
    const auto k = index_of(c.plan.sources, ref.id);
    if (!k) return e;
    const Source& s = c.plan.sources[*k];
    const SourceElement& el = c.solution.network.sources[*k];
    const SourceResult& r = c.solution.point.sources[*k];
    const std::string of = translated(" of ") + s.name + translated(" in ") + c.state.name;
    c.add_assumptions(e, s.id);
    if (ref.kind == ValueKind::source_limit) {
        e.title = translated("Most it can give") + of;
        e.value = c.A(r.limit_A);
        if (s.kind == SourceKind::converter || s.kind == SourceKind::shore) {
            e.steps.push_back(translated("its stated limit"));
        } else if (s.kind == SourceKind::solar) {
            e.steps.push_back(say("panel {0} × sun {1} × {2} = {3} at {4}",
                                  c.W(s.panel_W.value_or(assumption("solar_panel_W").value)),
                                  c.pc(c.state.sun),
                                  c.pc(s.efficiency.value_or(assumption("solar_efficiency").value)),
                                  c.W(el.power_W), c.V(r.voltage_V)));
        } else if (c.state.rpm <= 0) {
            e.steps.push_back(translated("the engine stands"));
        } else {
            std::vector<AssumptionUse> unused;
            const double cool = source_limit_A(s, c.state.rpm, 25, unused);
            const double ratio = s.pulley_ratio.value_or(assumption("alternator_pulley_ratio").value);
            e.steps.push_back(say("shaft speed: {0} rpm × {1} = {2} rpm; output there at 25 °C: {3}",
                                  number(c.state.rpm), number(ratio), number(c.state.rpm * ratio),
                                  c.A(cool)));
            e.steps.push_back(say("hot: {0} × {1} = {2}", c.A(cool), number(cool > 0 ? el.limit_A / cool : 0),
                                  c.A(el.limit_A)));
            e.sources.push_back(translated("ISO 8854 output points (from memory); derating: ") +
                                assumption("alternator_derating_per_K").source);
        }
        return e;
    }
    e.title = (ref.kind == ValueKind::source_voltage ? translated("Voltage") : translated("Current")) + of;
    e.value = ref.kind == ValueKind::source_voltage ? c.V(r.voltage_V) : c.A(r.current_A);
    switch (r.mode) {
        case DeviceMode::off:
            e.steps.push_back(r.input_dead
                                  ? translated("its input is dead")
                                  : translated("it does not work in this state: ") + condition(s.works_when));
            break;
        case DeviceMode::regulating:
            e.steps.push_back(say("regulated: V = {0} − {1} × {2} = {3}", c.V(el.set_V), c.ohm(el.droop_ohm),
                                  c.A(r.current_A), c.V(r.voltage_V)));
            e.steps.push_back(translated("It gives what the loads and the charging batteries take."));
            break;
        case DeviceMode::limited:
            e.steps.push_back(
                say("at its limit of {0}: the volts fall to what the battery gives", c.A(r.limit_A)));
            break;
        case DeviceMode::blocking:
            e.steps.push_back(say("{0} stand against its {1}: it gives nothing and takes nothing",
                                  c.V(r.voltage_V), c.V(el.set_V)));
            break;
    }
    if (s.kind == SourceKind::converter && r.input_A > 0)
        e.steps.push_back(say("its input takes {0} × {1} / {2} + {3} standby = {4}", c.V(r.voltage_V),
                              c.A(r.current_A), c.pc(el.efficiency), c.W(el.standby_W), c.A(r.input_A)));
    if (r.shaft_W > 0)
        e.steps.push_back(say("the engine gives V × I / efficiency = {0} × {1} / {2} = {3} for it",
                              c.V(r.voltage_V), c.A(r.current_A), c.pc(el.efficiency), c.W(r.shaft_W)));
    e.sources.push_back(translated("Kirchhoff's laws, solved for the whole network"));
    return e;
}

Explanation why_battery(const ValueRef& ref, const WhyContext& c) {
    Explanation e;
    const auto k = index_of(c.plan.batteries, ref.id);
    if (!k) return e;
    const Battery& b = c.plan.batteries[*k];
    const BatteryElement& el = c.solution.network.batteries[*k];
    const BatteryResult& r = c.solution.point.batteries[*k];
    const std::string of = translated(" of ") + b.name + translated(" in ") + c.state.name;
    c.add_assumptions(e, b.id);
    e.sources.push_back(translated("open-circuit volts: ") + chemistry_data(b.chemistry).source);
    e.title = (ref.kind == ValueKind::battery_voltage ? translated("Voltage")
               : ref.kind == ValueKind::battery_hours ? translated("Hours to half")
                                                      : translated("Current")) +
              of;
    e.value = ref.kind == ValueKind::battery_voltage ? c.V(r.voltage_V) : c.A(r.current_A);
    if (r.current_A >= 0) {
        e.steps.push_back(say("V = E − R0 × I = {0} − {1} × {2} = {3}", c.V(el.open_V), c.ohm(el.R0_ohm),
                              c.A(r.current_A), c.V(r.voltage_V)));
    } else {
        e.steps.push_back(say("charging at {0} {1}", c.A(-r.current_A),
                              r.at_acceptance ? translated("— as much as it accepts at ") + c.pc(el.charge) +
                                                    translated(" charge")
                                              : translated("— what the supply has left")));
    }
    const ChemistryData& chemistry = chemistry_data(b.chemistry);
    const double by_charge = interpolate(chemistry.R0_factor, el.charge);
    const double by_cold = el.temperature_C >= 25 ? 1
                                                  : std::pow(assumption("battery_cold_factor").value,
                                                             (25 - el.temperature_C) / 43);
    e.steps.push_back(say("R0 = {0} warm and full × {1} at {2} × {3} at {4} charge = {5}",
                          c.ohm(el.R0_ohm / by_cold / by_charge), number(by_cold), c.C(el.temperature_C),
                          number(by_charge), c.pc(el.charge), c.ohm(el.R0_ohm)));
    if (r.current_A < 0)
        e.steps.push_back(say("it accepts {0} at {1} charge and {2}", c.A(el.accept_A), c.pc(el.charge),
                              c.C(el.temperature_C)));
    e.sources.push_back(translated("resistance, acceptance and cold: ") + chemistry.more);
    if (ref.kind == ValueKind::battery_hours) {
        if (r.current_A > 0) {
            const double amps = average_battery_A(c.solution.network, c.solution.point, *k);
            if (amps < r.current_A * 0.999)
                e.steps.push_back(say("by the duty of its loads {0} on average", c.A(amps)));
            const double hours =
                hours_for_share(std::max(0.0, el.charge - 0.5), el.capacity_Ah, amps, el.peukert);
            const bool bent = amps > el.capacity_Ah / 20;
            e.value = duration_h(hours);
            e.steps.push_back(say("(charge − 50 %) × capacity / amps{0} = ({1} − 50 %) × {2} / {3}{4} = {5}",
                                  bent ? translated(" × (20 h rate / amps)^(n − 1)") : "", c.pc(el.charge),
                                  quantity(el.capacity_Ah, Dimension::charge, c.style), c.A(amps),
                                  bent ? fmt::format(" × ({} / {})^{}", c.A(el.capacity_Ah / 20), c.A(amps),
                                                     number(el.peukert - 1))
                                       : "",
                                  duration_h(hours)));
            e.sources.push_back(translated("Peukert's law; exponent: ") + chemistry_data(b.chemistry).more);
        } else {
            e.value = translated("it does not empty");
        }
    }
    return e;
}

Explanation why_feed(const ValueRef& ref, const WhyContext& c) {
    Explanation e;
    const Point* p = find(c.plan.points, ref.id);
    if (!p) return e;
    double total = 0;
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
        const double amps = c.solution.point.conductors[k].current_A;
        const Run& run = c.plan.runs[k];
        const double leaving = run.from == ref.id ? amps : run.to == ref.id ? -amps : 0;
        if (leaving <= 1e-6) continue;
        total += leaving;
        e.steps.push_back(fmt::format("{}: {}", run.name, c.A(leaving)));
    }
    e.title = translated("What ") + p->name + translated(" hands on in ") + c.state.name;
    e.value = c.A(total);
    e.sources.push_back(translated("Kirchhoff's current law"));
    c.add_assumptions(e, p->id);
    return e;
}

Explanation why_inverter(const ValueRef& ref, const WhyContext& c) {
    Explanation e;
    const auto k = index_of(c.plan.inverters, ref.id);
    if (!k) return e;
    const Inverter& i = c.plan.inverters[*k];
    const LoadResult& r = c.solution.point.loads[c.solution.network.plan_loads + *k];
    const double ac_W = inverter_ac_W(c.plan, i, c.state);
    e.title = translated("Current into ") + i.name + translated(" in ") + c.state.name;
    e.value = c.A(r.current_A);
    for (const Load& l : c.plan.loads)
        if (l.inverter == i.id && !l.later && holds(l.live_when, c.state))
            e.steps.push_back(fmt::format("{}: {}", l.name, c.W(l.draw.value * l.count)));
    std::vector<AssumptionUse> uses;
    const double in_W = inverter_input_W(i, ac_W, uses);
    if (ac_W <= 0)
        e.steps.push_back(say("nothing is on behind it: standby {0}", c.W(in_W)));
    else if (i.curve.empty())
        e.steps.push_back(say("{0} / {1} + {2} standby = {3}", c.W(ac_W),
                              c.pc(i.efficiency.value_or(assumption("inverter_efficiency").value)),
                              c.W(i.standby_W.value_or(assumption("inverter_standby_W").value)), c.W(in_W)));
    else
        e.steps.push_back(say("{0} / {1} by its curve = {2}", c.W(ac_W), c.pc(ac_W / in_W), c.W(in_W)));
    if (r.status == LoadStatus::on)
        e.steps.push_back(say("I = P / V = {0} / {1} = {2}", c.W(in_W), c.V(r.voltage_V), c.A(r.current_A)));
    for (const AssumptionUse& use : uses) e.assumptions.push_back(assumption_text(use, c.plan));
    e.sources.push_back(translated("the inverter's own data; power is kept"));
    return e;
}

}  // namespace

Explanation why_supply(const ValueRef& ref, const WhyContext& c) {
    switch (ref.kind) {
        case ValueKind::source_current:
        case ValueKind::source_limit:
        case ValueKind::source_voltage:
            return why_source(ref, c);
        case ValueKind::battery_current:
        case ValueKind::battery_voltage:
        case ValueKind::battery_hours:
            return why_battery(ref, c);
        case ValueKind::feed_current:
            return why_feed(ref, c);
        case ValueKind::inverter_current:
            return why_inverter(ref, c);
        case ValueKind::load_current:
        case ValueKind::load_voltage:
        case ValueKind::load_drop:
        case ValueKind::load_drop_share:
        case ValueKind::run_current:
        case ValueKind::run_drop:
        case ValueKind::run_temperature:
        case ValueKind::run_heat:
        case ValueKind::run_ampacity:
        case ValueKind::run_resistance:
        case ValueKind::device_drop:
        case ValueKind::bond_drop:
        case ValueKind::finding:
            break;  // of other things
    }
    return {};
}

}  // namespace yr::words
