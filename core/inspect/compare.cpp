#include "inspect/compare.h"

#include <algorithm>

#include "catalog/assumptions.h"
#include "inspect/findings.h"
#include "inspect/hours.h"
#include "plan/roles.h"
#include "plan/variant.h"
#include "routes/lay.h"
#include "size/run_check.h"
#include "solve/results.h"

namespace yr {
namespace {

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
    cost.add(plan.policy.copper_price_per_kg, cables_kg(plan));
    return cost;
}

// The states with the engine running in that role; failing any, the slowest (idling) or the fastest.
std::vector<const State*> running_states(const Plan& plan, StateRole role) {
    std::vector<const State*> in_role;
    const State* nearest = nullptr;
    for (const State& s : plan.states) {
        if (s.rpm <= 0 || passes(s)) continue;
        if (role_of(s) == role) in_role.push_back(&s);
        if (!nearest || (role == StateRole::idling ? s.rpm < nearest->rpm : s.rpm > nearest->rpm))
            nearest = &s;
    }
    if (in_role.empty() && nearest) in_role.push_back(nearest);
    return in_role;
}

std::optional<double> balance_A(const Plan& plan, const Solution& s) {
    if (!s.point.settled) return std::nullopt;
    double gives = 0, spare = 0;
    for (const BatteryResult& b : s.point.batteries) gives += std::max(0.0, b.current_A);
    if (gives > 0.05) return -gives;
    for (std::size_t k = 0; k < plan.sources.size(); ++k)
        if (s.network.sources[k].in == kNoNode)
            spare += std::max(0.0, s.point.sources[k].limit_A - s.point.sources[k].current_A);
    return spare;
}

// Of the states with the engine running in that role, the one that has least to spare.
Deciding worst_balance(const Plan& plan, const Inspection& inspection, StateRole role) {
    Deciding worst;
    for (const State* s : running_states(plan, role)) {
        const auto balance =
            balance_A(plan, inspection.solutions[static_cast<std::size_t>(s - plan.states.data())]);
        if (balance && (!worst.value || *balance < *worst.value)) worst = {balance, s->id};
    }
    return worst;
}

// The first battery at half, in the parked state that gets it there soonest: as the findings count hours.
Deciding parked_hours(const Plan& plan, const Inspection& inspection) {
    Deciding least;
    for (std::size_t s = 0; s < plan.states.size(); ++s) {
        if (role_of(plan.states[s]) != StateRole::parked || !inspection.solutions[s].point.settled) continue;
        for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
            const auto hours = lasting(plan, plan.states[s], k, 0.5, &inspection.solutions[s]).average_h;
            if (hours && (!least.value || *hours < *least.value)) least = {hours, plan.states[s].id};
        }
    }
    return least;
}

// Of the battery that gives most while cranking.
Deciding cranking_volts(const Plan& plan, const Inspection& inspection) {
    Deciding least;
    for (std::size_t s = 0; s < plan.states.size(); ++s) {
        if (plan.states[s].key != Key::crank || !inspection.solutions[s].point.settled) continue;
        const BatteryResult* most = nullptr;
        for (const BatteryResult& b : inspection.solutions[s].point.batteries)
            if (!most || b.current_A > most->current_A) most = &b;
        if (most && most->current_A > 10 && (!least.value || most->voltage_V < *least.value))
            least = {most->voltage_V, plan.states[s].id};
    }
    return least;
}

OptionResult measure(const Plan& plan, const Id& variant, const std::string& name) {
    OptionResult r = measure_option(plan, inspect(plan, false));
    r.variant = variant;
    r.name = name;
    return r;
}

// A difference that no meter shows is none: the option then reads as the plan does.
void no_win_by_noise(OptionResult& option, const OptionResult& standing) {
    const auto settle = [](Deciding& mine, const Deciding& its, double step) {
        if (mine.value && its.value &&
            std::abs(*mine.value - *its.value) < std::max(step, 0.002 * std::abs(*its.value)))
            mine.value = its.value;
    };
    settle(option.idle_A, standing.idle_A, 0.1);
    settle(option.drive_A, standing.drive_A, 0.1);
    settle(option.parked_h, standing.parked_h, 0.1);
    settle(option.cranking_V, standing.cranking_V, 0.005);
    if (std::abs(option.copper_kg - standing.copper_kg) < 0.005) option.copper_kg = standing.copper_kg;
}

}  // namespace

OptionResult measure_option(const Plan& plan, const Inspection& inspection) {
    OptionResult r;
    r.idle_A = worst_balance(plan, inspection, StateRole::idling);
    r.drive_A = worst_balance(plan, inspection, StateRole::driving);
    r.parked_h = parked_hours(plan, inspection);
    r.cranking_V = cranking_volts(plan, inspection);
    r.copper_kg = cables_kg(plan);
    for (const Finding& f : inspection.findings) {
        r.stops += f.severity == Severity::stop;
        r.fixes += f.severity == Severity::fix;
    }
    for (std::size_t s = 0; s < plan.states.size(); ++s)
        if (!inspection.solutions[s].point.settled) r.without.push_back(plan.states[s].name);
    return r;
}

std::vector<OptionResult> compare_options(const Plan& base) {
    Plan standing = with_variant(base, {});
    lay(standing);
    std::vector<OptionResult> results{measure(standing, {}, "as planned")};
    const Cost standing_cost = cost_of(standing);
    if (standing_cost.any) results[0].added_cost = 0;
    for (const Variant& v : base.variants) {
        Plan plan = with_variant(base, v.id);
        lay(plan);
        OptionResult r = measure(plan, v.id, v.name);
        no_win_by_noise(r, results[0]);
        r.added_copper_kg = r.copper_kg - results[0].copper_kg;
        const Cost cost = cost_of(plan);
        if (cost.any || standing_cost.any) r.added_cost = cost.sum - standing_cost.sum;
        results.push_back(std::move(r));
    }
    return results;
}

}  // namespace yr
