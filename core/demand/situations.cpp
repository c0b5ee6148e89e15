#include "demand/situations.h"

#include <algorithm>

namespace yr {
namespace {

constexpr double kEmptyBattery = 0.2;     // share of its charge; a deep discharge, common practice
constexpr double kStiff_ohm = 2e-3;       // the supply does not give way: loads get what they ask for
constexpr double kFastEngine_rpm = 2500;  // a pulley of 2.5 gives ISO 8854's 6000 rpm at about that

State bare_state(const Plan& plan, Key key, double rpm) {
    State s;
    s.id = "demand";
    s.key = key;
    s.rpm = rpm;
    s.sun = rpm > 0 ? 1 : 0;
    for (const State& known : plan.states) {  // the warmest air of those that are known
        s.ambient_C =
            &known == &plan.states.front() ? known.ambient_C : std::max(s.ambient_C, known.ambient_C);
        s.engine_bay_C = &known == &plan.states.front() ? known.engine_bay_C
                                                        : std::max(s.engine_bay_C, known.engine_bay_C);
        s.sun = std::max(s.sun, known.sun);
    }
    s.switches = plan_switches(plan);
    return s;
}

double fastest_rpm(const Plan& plan) {
    double rpm = kFastEngine_rpm;
    for (const State& s : plan.states) rpm = std::max(rpm, s.rpm);
    return rpm;
}

bool engine_turns_a_source(const Plan& plan) {
    return std::any_of(plan.sources.begin(), plan.sources.end(), [](const Source& s) {
        return s.kind == SourceKind::alternator || s.kind == SourceKind::stator;
    });
}

// Inverters at their rating, winches at stall, the supply stiff.
Plan at_ratings(const Plan& plan) {
    Plan p = plan;
    for (Battery& b : p.batteries) {
        b.R0_ohm = std::min(b.R0_ohm.value_or(kStiff_ohm), kStiff_ohm);
        b.charge = std::max(b.charge.value_or(0.8), 0.8);
    }
    for (Load& l : p.loads) {
        if (!l.line_curve.empty()) l.line_load = 1.0;
        l.later = false;  // what is fitted later will flow here as well
    }
    for (const Inverter& i : plan.inverters) {
        if (!i.continuous_W) continue;
        std::erase_if(p.loads, [&](const Load& l) { return l.inverter == i.id; });
        Load rated;
        rated.id = "demand-" + i.id;
        rated.name = i.name;
        rated.draw = {DrawKind::power, *i.continuous_W};
        rated.inverter = i.id;
        p.loads.push_back(std::move(rated));
    }
    return p;
}

void add(std::vector<Situation>& out, DemandKind kind, const Id& who, Plan plan, State state,
         bool loads_off) {
    plan.states = {std::move(state)};
    out.push_back({kind, who, std::move(plan), loads_off});
}

}  // namespace

double rated_output_A(const Plan&, const Source& source) {
    double amps = source.rated_A.value_or(0);
    for (const auto& [rpm, given_A] : source.curve) amps = std::max(amps, given_A);
    return source.regulator_A ? std::min(amps, *source.regulator_A) : amps;
}

std::vector<Situation> situations_of(const Plan& plan) {
    std::vector<Situation> out;
    if (plan.states.empty()) return out;
    const Plan rated = at_ratings(plan);
    const bool engine = engine_turns_a_source(plan);
    for (const Key key : {Key::off, Key::accessory, Key::ignition})
        add(out, DemandKind::together, {}, rated, bare_state(plan, key, 0), false);
    if (engine)
        add(out, DemandKind::together, {}, rated, bare_state(plan, Key::ignition, fastest_rpm(plan)), false);
    for (const Battery& b : plan.batteries) {
        Plan empty = plan;
        for (Battery& other : empty.batteries)
            other.charge = other.id == b.id ? kEmptyBattery : std::max(other.charge.value_or(1), 0.9);
        add(out, DemandKind::recharge, b.id, empty,
            bare_state(plan, Key::ignition, engine ? fastest_rpm(plan) : 0), true);
        if (std::any_of(plan.sources.begin(), plan.sources.end(),
                        [](const Source& s) { return s.kind == SourceKind::shore; }))
            add(out, DemandKind::recharge, b.id, std::move(empty), bare_state(plan, Key::off, 0), true);
    }
    return out;
}

}  // namespace yr
