#include "day/cranking.h"

#include <algorithm>

#include "plan/roles.h"
#include "solve/settle.h"

namespace yr {
namespace {

const Table kTorque{{-40, 4.0}, {-18, 2.5}, {0, 1.65}, {27, 1.0}};
const Table kLeast_V{{-18, 8.5}, {-12, 8.7}, {-7, 8.9}, {-1, 9.1}, {10, 9.4}, {21, 9.6}};

const State* cranking_state(const Plan& plan) {
    for (const State& s : plan.states)
        if (s.key == Key::crank) return &s;
    return nullptr;
}

// Without it the engine does not fire: ISO 16750-2 codes a and b are of what works while cranking (from
// memory).
bool runs_while_cranking(const Load& l, const State& state) {
    return l.critical && holds(l.live_when, state) &&
           (l.supply_code == SupplyCode::a || l.supply_code == SupplyCode::b);
}

// The battery that gives most of the starter's amps.
std::size_t cranking_battery(const Plan& plan, const Solution& s) {
    std::size_t best = 0;
    for (std::size_t k = 1; k < plan.batteries.size(); ++k)
        if (s.point.batteries[k].current_A > s.point.batteries[best].current_A) best = k;
    return best;
}

}  // namespace

double cold_torque(double temperature_C) {
    return interpolate(kTorque, temperature_C);
}

double least_cranking_V(double temperature_C) {
    return interpolate(kLeast_V, temperature_C);
}

std::optional<CrankCheck> cranks_at(const Plan& plan, const CrankMoment& moment, double wear) {
    return Cranking(plan, wear).at(moment);
}

Cranking::Cranking(const Plan& plan, double wear) : plan_(plan), cold_(plan), crank_(cranking_state(plan)) {
    if (wear > 0)
        for (Battery& b : cold_.batteries) b.health = b.health.value_or(1) * (1 - wear);
    solver_.follow(true);
}

std::optional<CrankCheck> Cranking::at(const CrankMoment& moment) {
    if (!crank_ || plan_.batteries.empty()) return std::nullopt;
    bool starter = false;
    const double torque = cold_torque(moment.engine_C);
    for (std::size_t k = 0; k < cold_.loads.size(); ++k) {
        Load& l = cold_.loads[k];
        if (!l.starter) continue;
        const double warm = plan_.loads[k].draw.value;
        l.draw.value = l.draw.kind == DrawKind::resistance ? warm / torque : warm * torque;
        starter = starter || l.draw.value > 0;
    }
    if (!starter) return std::nullopt;
    State state = *crank_;
    state.charge.reset();
    state.engine_bay_C += moment.engine_C - state.ambient_C;
    state.ambient_C = moment.engine_C;
    Network n = compile(cold_, state);
    for (std::size_t k = 0; k < n.batteries.size(); ++k)
        at_moment(n.batteries[k], k < moment.charge.size() ? moment.charge[k] : n.batteries[k].charge,
                  k < moment.temperature_C.size() ? moment.temperature_C[k] : moment.engine_C);
    const Solution s = settle(std::move(n), solver_);
    CrankCheck check;
    const std::size_t k = cranking_battery(cold_, s);
    check.battery = cold_.batteries[k].id;
    check.least_V = least_cranking_V(s.network.batteries[k].temperature_C) * s.network.batteries[k].blocks;
    bool turns = s.point.settled;
    for (std::size_t l = 0; l < cold_.loads.size() && turns; ++l)
        if (cold_.loads[l].starter) turns = s.point.loads[l].status == LoadStatus::on;
    check.post_V = turns ? s.point.batteries[k].voltage_V : 0;
    double worst = 1e9;
    for (std::size_t l = 0; l < cold_.loads.size() && turns; ++l) {
        const Load& load = cold_.loads[l];
        if (!load.least_V || !runs_while_cranking(load, state) || s.point.loads[l].status == LoadStatus::off)
            continue;
        const double margin = s.point.loads[l].voltage_V - *load.least_V;
        if (margin >= worst) continue;
        worst = margin;
        check.unit = load.id, check.unit_V = s.point.loads[l].voltage_V, check.unit_least_V = *load.least_V;
    }
    return check;
}

}  // namespace yr
