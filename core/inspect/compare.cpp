#include "inspect/compare.h"

#include <algorithm>

#include "catalog/assumptions.h"
#include "inspect/findings.h"
#include "plan/roles.h"
#include "plan/variant.h"
#include "solve/results.h"

namespace yr {
namespace {

double copper_kg(const Plan& plan) {
    double kg = 0;
    for (const Run& r : plan.runs) {
        if (r.body_metal || r.resistance_ohm) continue;
        const auto c = conductor(r.size.value_or(WireSize::awg(14)), r.material);
        if (c) kg += c->mass_kg_per_m * r.length_m.value_or(assumption("run_length_m").value) * r.parallel;
    }
    return kg;
}

struct Cost {
    double sum = 0;
    bool any = false;
    void add(const std::optional<double>& price, double times = 1) {
        if (price) sum += *price * times, any = true;
    }
};

Cost cost_of(const Plan& plan) {
    Cost cost;
    for (const Source& s : plan.sources) cost.add(s.price);
    for (const Battery& b : plan.batteries) cost.add(b.price);
    for (const Inverter& i : plan.inverters) cost.add(i.price);
    cost.add(plan.policy.copper_price_per_kg, copper_kg(plan));
    return cost;
}

std::optional<double> balance_A(const Plan& plan, const Inspection& inspection, const State* state) {
    if (!state) return std::nullopt;
    const Solution& s = inspection.solutions[static_cast<std::size_t>(state - plan.states.data())];
    if (!s.point.settled) return std::nullopt;
    double gives = 0, spare = 0;
    for (const BatteryResult& b : s.point.batteries) gives += std::max(0.0, b.current_A);
    if (gives > 0.05) return -gives;
    for (std::size_t k = 0; k < plan.sources.size(); ++k)
        if (s.network.sources[k].in == kNoNode)
            spare += std::max(0.0, s.point.sources[k].limit_A - s.point.sources[k].current_A);
    return spare;
}

std::optional<double> parked_hours(const Plan& plan, const Inspection& inspection, const State* state) {
    if (!state) return std::nullopt;
    const Solution& s = inspection.solutions[static_cast<std::size_t>(state - plan.states.data())];
    if (!s.point.settled) return std::nullopt;
    std::optional<double> least;
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        const BatteryElement& b = s.network.batteries[k];
        const double gives = average_battery_A(s.network, s.point, k);
        if (gives < 1e-3) continue;
        const double hours =
            b.charge <= 0.5 ? 0 : hours_for_share(b.charge - 0.5, b.capacity_Ah, gives, b.peukert);
        least = std::min(least.value_or(hours), hours);
    }
    return least;
}

// Of the battery that gives most while cranking.
std::optional<double> cranking_volts(const Plan& plan, const Inspection& inspection) {
    std::optional<double> least;
    for (std::size_t s = 0; s < plan.states.size(); ++s) {
        if (plan.states[s].key != Key::crank || !inspection.solutions[s].point.settled) continue;
        const BatteryResult* most = nullptr;
        for (const BatteryResult& b : inspection.solutions[s].point.batteries)
            if (!most || b.current_A > most->current_A) most = &b;
        if (most && most->current_A > 10) least = std::min(least.value_or(most->voltage_V), most->voltage_V);
    }
    return least;
}

template <class Better>
const State* best_running(const Plan& plan, StateRole role, Better better) {
    const State* best = nullptr;
    for (const State& s : plan.states) {
        if (s.rpm <= 0) continue;
        if (role_of(s) == role) return &s;
        if (!best || better(s.rpm, best->rpm)) best = &s;
    }
    return best;
}

OptionResult measure(const Plan& plan, const Id& variant, const std::string& name) {
    OptionResult r = measure_option(plan, inspect(plan, false));
    r.variant = variant;
    r.name = name;
    return r;
}

}  // namespace

OptionResult measure_option(const Plan& plan, const Inspection& inspection) {
    OptionResult r;
    r.idle_A = balance_A(plan, inspection, idling_state(plan));
    r.drive_A = balance_A(plan, inspection, driving_state(plan));
    r.parked_h = parked_hours(plan, inspection, parked_state(plan));
    r.cranking_V = cranking_volts(plan, inspection);
    r.copper_kg = copper_kg(plan);
    for (const Finding& f : inspection.findings) {
        r.stops += f.severity == Severity::stop;
        r.fixes += f.severity == Severity::fix;
    }
    for (std::size_t s = 0; s < plan.states.size(); ++s)
        if (!inspection.solutions[s].point.settled) r.without.push_back(plan.states[s].name);
    return r;
}

const State* idling_state(const Plan& plan) {
    return best_running(plan, StateRole::idling, std::less<>());
}

const State* driving_state(const Plan& plan) {
    return best_running(plan, StateRole::driving, std::greater<>());
}

const State* parked_state(const Plan& plan) {
    const State* last = nullptr;
    for (const State& s : plan.states)
        if (s.key == Key::off && s.rpm <= 0) last = &s;
    return last;
}

std::vector<OptionResult> compare_options(const Plan& base) {
    const Plan standing = with_variant(base, {});
    std::vector<OptionResult> results{measure(standing, {}, "as planned")};
    const Cost standing_cost = cost_of(standing);
    if (standing_cost.any) results[0].added_cost = 0;
    for (const Variant& v : base.variants) {
        const Plan plan = with_variant(base, v.id);
        OptionResult r = measure(plan, v.id, v.name);
        r.added_copper_kg = r.copper_kg - results[0].copper_kg;
        const Cost cost = cost_of(plan);
        if (cost.any || standing_cost.any) r.added_cost = cost.sum - standing_cost.sum;
        results.push_back(std::move(r));
    }
    return results;
}

}  // namespace yr
