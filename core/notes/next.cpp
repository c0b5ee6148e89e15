#include "notes/next.h"

#include <algorithm>

#include "plan/roles.h"

namespace yr {
namespace {

bool engine_turns(const Plan& plan) {
    return std::any_of(plan.states.begin(), plan.states.end(), [](const State& s) { return s.rpm > 0; });
}

bool charged_by_something(const Plan& plan) {
    return !plan.sources.empty();
}

const Point* loose_metal(const Plan& plan) {
    for (const Point& p : plan.points) {
        if (p.kind != PointKind::chassis) continue;
        const bool joined = std::any_of(plan.runs.begin(), plan.runs.end(), [&](const Run& r) {
            return r.from == Terminal(p.id) || r.to == Terminal(p.id);
        });
        if (!joined) return &p;
    }
    return nullptr;
}

// A state in which all of these run: "state all on, engine running, key on, scene on".
std::string state_for(const Plan& plan, const std::vector<const Load*>& loads) {
    Condition all;
    std::vector<std::string> on;
    const auto take = [&](const Condition& c) {
        all.key = std::max(all.key, c.key);
        if (c.engine == Engine::running) all.engine = c.engine;
        for (const std::string& s : switches_of(c))
            if (std::find(on.begin(), on.end(), s) == on.end()) on.push_back(s);
    };
    for (const Load* l : loads) {
        take(l->live_when);
        if (const Inverter* i = find(plan.inverters, l->inverter)) take(i->works_when);
    }
    std::string line = "state \"all on\"";
    if (all.engine == Engine::running) line += ", engine running";
    line += all.key == Key::off ? ", key off" : all.key == Key::accessory ? ", key accessory" : ", key on";
    for (const std::string& s : on) line += ", switch \"" + s + "\" on";
    return line;
}

}  // namespace

std::optional<NextStep> what_next(const Plan& plan, int stops, const Id& dead) {
    const double V = plan.vehicle.nominal_V;
    if (plan.batteries.empty())
        return NextStep{NextKind::battery_unknown, {}, 0, 0, "battery AGM 80 Ah 760 A"};
    const Battery& first = plan.batteries.front();
    if (!first.capacity_Ah && !first.cranking_A && !first.reserve_min)
        return NextStep{NextKind::battery_unknown, first.id, 0, 0,
                        V == 48 ? "battery LiFePO4 48 V 100 Ah" : "battery AGM 80 Ah 760 A"};
    if (!charged_by_something(plan))
        return NextStep{NextKind::nothing_charges, first.id, 0, 0,
                        engine_turns(plan) ? "alternator 120 A, idle 60 A" : "charger 15 A shore"};
    const bool starts =
        std::any_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.starter; });
    const bool cranks = std::any_of(plan.states.begin(), plan.states.end(),
                                    [](const State& s) { return s.key == Key::crank; });
    if (cranks && !starts) return NextStep{NextKind::no_starter, {}, 0, 0, "starter 180 A, 1.2 m"};
    if (const Point* metal = loose_metal(plan))
        return NextStep{NextKind::metal_joined_to_nothing, metal->id, 0, 0,
                        "strap battery - to " + metal->name + " 0.5 m"};
    const auto draws =
        std::count_if(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return !l.starter; });
    if (draws == 0) return NextStep{NextKind::no_load, {}, 0, 0, "work light 2x 35 W on ignition, 4 m"};
    if (stops > 0) return NextStep{NextKind::stop, {}, stops, 0, {}};
    if (!dead.empty()) return NextStep{NextKind::dead_load, dead, 0, 0, {}};
    if (std::none_of(plan.states.begin(), plan.states.end(), [](const State& s) { return stands(s); }))
        return NextStep{NextKind::no_parked_state, {}, 0, 0, "state parked, key off, 10 C"};
    if (const auto never = never_asked(plan); !never.empty())
        return NextStep{NextKind::never_on, never.front()->id, static_cast<int>(never.size()), 0,
                        state_for(plan, never)};
    Id cable;
    int assumed = 0;
    for (const Run& r : plan.runs)
        if (!r.length_m && !r.body_metal && !r.resistance_ohm) {
            if (cable.empty()) cable = r.id;
            ++assumed;
        }
    if (assumed > 0) return NextStep{NextKind::lengths_assumed, cable, assumed, 0, {}};
    return std::nullopt;
}

}  // namespace yr
