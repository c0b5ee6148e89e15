#include "control/key_positions.h"

#include <algorithm>

namespace yr {
namespace {

constexpr std::size_t kMostCompared = 12;  // switches whose every combination is tried; more compare by word

Key key_of(KeyPosition p) {
    switch (p) {
        case KeyPosition::off:
            return Key::off;
        case KeyPosition::accessory:
            return Key::accessory;
        case KeyPosition::ignition:
        case KeyPosition::running:
            return Key::ignition;
        case KeyPosition::cranking:
            return Key::crank;
    }
    return Key::off;
}

void add_once(std::vector<std::string>& list, const std::vector<std::string>& more) {
    for (const std::string& name : more)
        if (std::find(list.begin(), list.end(), name) == list.end()) list.push_back(name);
}

bool measures_alike(const Condition& a, const Condition& b) {
    return a.charging_above_V == b.charging_above_V && a.circuits == b.circuits && a.delay_s == b.delay_s &&
           a.holds_s == b.holds_s && a.above_C == b.above_C && a.below_C == b.below_C && a.air == b.air;
}

}  // namespace

std::string_view name_of(KeyPosition position) {
    static constexpr std::string_view names[] = {"key off", "accessory", "ignition", "engine running",
                                                 "cranking"};
    return names[static_cast<std::size_t>(position)];
}

std::vector<KeyPosition> positions_of(const Plan& plan) {
    const auto any_state = [&](auto&& is) { return std::any_of(plan.states.begin(), plan.states.end(), is); };
    const bool engine = std::any_of(plan.sources.begin(), plan.sources.end(), [](const Source& s) {
        return s.kind == SourceKind::alternator || s.kind == SourceKind::stator;
    });
    const bool starter =
        std::any_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.starter; });
    std::vector<KeyPosition> positions{KeyPosition::off, KeyPosition::accessory, KeyPosition::ignition};
    if (engine || any_state([](const State& s) { return s.rpm > 0; }))
        positions.push_back(KeyPosition::running);
    if (starter || any_state([](const State& s) { return s.key == Key::crank; }))
        positions.push_back(KeyPosition::cranking);
    return positions;
}

bool counts_while_cranking(const Load& load) {
    return load.starter || load.critical || load.supply_code != SupplyCode::none;
}

State state_at(const Plan& plan, KeyPosition position, const std::vector<std::string>& switches) {
    const Key key = key_of(position);
    const bool running = position == KeyPosition::running;
    State state;
    for (const State& s : plan.states)
        if (s.key == key && (s.rpm > 0) == running) {
            state = s;
            break;
        }
    state.id = "position-" + std::to_string(static_cast<int>(position));
    state.name = std::string(name_of(position));
    state.key = key;
    if (running != (state.rpm > 0)) state.rpm = running ? 1500 : 0;
    state.switches = switches;
    state.closed.clear();
    state.opened.clear();
    state.pulled.clear();
    return state;
}

std::vector<std::string> master_switches(const Plan& plan) {
    std::vector<std::string> names;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.master) add_once(names, d.closed_when.switches);
    return names;
}

std::vector<std::string> switches_for(const Plan& plan, const Load& load) {
    std::vector<std::string> names = master_switches(plan);
    add_once(names, load.live_when.switches);
    for (const Id& id : load.live_when.circuits)
        if (const Load* other = find(plan.loads, id)) add_once(names, other->live_when.switches);
    if (!load.live_when.any_of.empty()) {  // an alternative that is about switches: take the first
        const Condition& first = load.live_when.any_of.front();
        add_once(names, first.switches);
    }
    return names;
}

LiveAt wanted_at(const Plan& plan, const Load& load) {
    LiveAt live{};
    const auto switches = switches_for(plan, load);
    for (std::size_t k = 0; k < kKeyPositions; ++k)
        live[k] = holds(load.live_when, state_at(plan, kEveryKeyPosition[k], switches));
    return live;
}

bool same_when(const Condition& a, const Condition& b) {
    if (a == b) return true;
    if (!measures_alike(a, b)) return false;
    std::vector<std::string> names = switches_of(a);
    add_once(names, switches_of(b));
    if (names.size() > kMostCompared) return false;
    const Plan nothing;
    for (std::size_t bits = 0; bits < (std::size_t{1} << names.size()); ++bits) {
        std::vector<std::string> on;
        for (std::size_t k = 0; k < names.size(); ++k)
            if ((bits >> k) & 1) on.push_back(names[k]);
        for (const KeyPosition p : kEveryKeyPosition) {
            const State s = state_at(nothing, p, on);
            if (holds(a, s) != holds(b, s)) return false;
        }
    }
    return true;
}

}  // namespace yr
