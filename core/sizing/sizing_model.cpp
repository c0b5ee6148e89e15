#include "sizing/sizing_model.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "demand/demand.h"
#include "network/bridges.h"
#include "plan/rail_volts.h"
#include "plan/roles.h"
#include "size/plan_fuse.h"
#include "size/run_limits.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr double kBigLoad_A = 15;  // above this the return is kept as thick as the supply; common practice
constexpr double kReturnShare = 0.95;
constexpr std::size_t kFuseChoices = 3;  // the present rating and the smallest that may stand

bool is_crank(const Plan& plan, std::size_t state) {
    return plan.states[state].key == Key::crank;
}

// What a starter circuit may lose: its own limit, else the service limit; never asked to better the plan.
double starter_limit_V(const Plan& plan, const Load& load, double present_V) {
    if (load.drop_limit) return drop_limit_V(plan, load);
    return std::max(assumption("starter_service_V").value * rail_V(plan, load) / 12, present_V);
}

}  // namespace

SizingModel::SizingModel(const Plan& plan, const SizingAsk& ask, const std::vector<Solution>& solutions,
                         std::vector<std::size_t> states, const Deadline& deadline)
    : plan_(plan), deadline_(deadline), circuit_(plan, solutions, std::move(states), true) {
    limits_V_.resize(plan.loads.size());
    for (std::size_t l = 0; l < plan.loads.size(); ++l) {
        const auto own = ask.drop_limits_V.find(plan.loads[l].id);
        double present = 0;
        for (const Solution& s : solutions) present = std::max(present, s.point.loads[l].drop_V);
        limits_V_[l] = own != ask.drop_limits_V.end() ? own->second
                       : plan.loads[l].starter        ? starter_limit_V(plan, plan.loads[l], present)
                                                      : drop_limit_V(plan, plan.loads[l]);
        if (ask.as_now) limits_V_[l] = std::max(limits_V_[l], present * (1 + 1e-6));
    }
    for (const std::size_t s : circuit_.states()) {
        std::vector<char> on;
        for (std::size_t l = 0; l < plan.loads.size(); ++l)
            on.push_back(solutions[s].point.loads[l].status == LoadStatus::on ||
                         solutions[s].point.loads[l].status == LoadStatus::collapsed);
        expected_on_.push_back(std::move(on));
    }
    find_floors(solutions);
    find_runs(ask, solutions);
    keep_returns_thick(solutions);
    now_.assign(runs_.size(), -1);
    for (const FreeRun& f : runs_)
        if (f.choices.empty()) {
            const Limit limit = f.refused.empty() ? Limit::none : f.refused.back().second;
            blockers_.push_back({plan.runs[f.run].id, {}, limit, 0, 0});
        }
    if (!blockers_.empty()) return;
    find_least_currents();
    if (!blockers_.empty()) return;
    filter_by_current();
    filter_loops();
    if (!blockers_.empty()) return;
    find_paths();
    find_pairs(solutions);
    for (const Battery& b : plan.batteries) find_grounds(b, ask.as_now);
}

// Cables that may change, with what each may become.
void SizingModel::find_runs(const SizingAsk& ask, const std::vector<Solution>& solutions) {
    free_of_.assign(plan_.runs.size(), -1);
    for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
        deadline_.check();
        const Run& run = plan_.runs[r];
        if (!size_is_open(plan_, run)) continue;
        if (!ask.only.empty() && std::find(ask.only.begin(), ask.only.end(), run.id) == ask.only.end())
            continue;
        FreeRun free;
        free.run = r;
        int fuses = 0;
        for (std::size_t d = 0; d < run.devices.size(); ++d)
            if (run.devices[d].kind == DeviceKind::fuse) free.fuse_device = static_cast<int>(d), ++fuses;
        if (fuses != 1 || !ask.fuses || fed_ends(plan_, run).size() > 1) free.fuse_device = -1;
        // what is surely carried: a fuse chosen anew must bear it
        double most_A = 0;
        for (std::size_t k = 0; k < circuit_.states().size(); ++k)
            if (!is_crank(plan_, circuit_.states()[k]))
                most_A =
                    std::max(most_A, std::abs(solutions[circuit_.states()[k]].point.conductors[r].current_A));
        add_choices(free, ask, std::max(most_A, floor_A_[r]));
        const auto duty = run_duty(plan_, r, solutions);
        std::vector<char> turns;
        std::vector<double> air;
        for (const std::size_t s : circuit_.states()) {
            turns.push_back(solutions[s].network.conductors[r].turn.has_value());
            air.push_back(run_air(plan_, run, plan_.states[s]).ambient_C);
        }
        turns_.push_back(std::move(turns));
        air_C_.push_back(std::move(air));
        if (duty) {  // thick enough for its turns, from the plan's own currents
            DutyCycle each = duty->cycle;
            each.on_A /= run.parallel, each.rest_A /= run.parallel;
            bool cool =
                false;  // from the thinnest up: what lies above the first that is cool is cool as well
            std::erase_if(free.choices, [&](const SizeChoice& c) {
                if (cool) return false;
                const auto wire = conductor(c.size, run.material);
                const State* state = find(plan_.states, duty->state);
                const double bundle = plan_.policy.bundle_derating ? bundle_factor(bundle_of(plan_, run)) : 1;
                const auto air_there = surroundings_of(*wire, run_air(plan_, run, *state).ambient_C, bundle);
                const bool hot = duty_temperature(air_there, each).peak_C > run.insulation_C;
                if (hot) free.refused.emplace_back(c.size, Limit::temperature);
                cool = !hot;
                return hot;
            });
        }
        free_of_[r] = static_cast<int>(runs_.size());
        runs_.push_back(std::move(free));
    }
}

Limit SizingModel::refuses(const Run& run, double fuse_A, double guard_A, bool guarded) const {
    const RunFit fit = run_fit(plan_, run, *run.size);
    if (!fit.terminals) return Limit::terminals;
    if (!fit.bends) return Limit::bend;
    const double fuse = fuse_A > 0 ? fuse_A : guard_A;
    if (fuse <= 0 || guarded)
        return fuse > 0 && fuse > least_ampacity_A(plan_, run).value_or(1e9) + kTiny ? Limit::fuse
                                                                                     : Limit::none;
    if (fuse > least_ampacity_A(plan_, run).value_or(1e9) + kTiny) return Limit::fuse;
    const Device* device = nullptr;
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse) device = &d;
    double hot_air = -60, cold_air = 25;
    for (const State& s : plan_.states) {
        hot_air = std::max(hot_air, run_air(plan_, run, s).ambient_C);
        cold_air = std::min(cold_air, device ? air_at_device_C(plan_, run, *device, s) : s.ambient_C);
    }
    const double bundle = plan_.policy.bundle_derating ? bundle_factor(bundle_of(plan_, run)) : 1;
    const auto cable = surroundings_of(*conductor(*run.size, run.material), hot_air, bundle);
    const FuseGuard guard =
        fuse_guard(cable, run.insulation_C, std::min(hot_air + 40, run.insulation_C), run.parallel,
                   device ? device->fuse : FuseType::bolt, fuse, cold_air, false);
    return guard.guards ? Limit::none : Limit::short_circuit;
}

void SizingModel::add_choices(FreeRun& free, const SizingAsk& ask, double most_A) {
    const Run& run = plan_.runs[free.run];
    const SizeSystem system = run.size ? run.size->system() : plan_.policy.sizes;
    std::vector<double> ratings{0};
    double guard_A = 0;  // a fuse that stays: its own, or one before it
    if (free.fuse_device >= 0) {
        const Device& fuse = run.devices[at(free.fuse_device)];
        const FuseKind& kind = fuse_kind(fuse.fuse);
        double hot_air = 25;
        for (const State& s : plan_.states) hot_air = std::max(hot_air, air_at_device_C(plan_, run, fuse, s));
        const double asked_A =
            std::max(least_rating_A(demand_[free.run], kind, hot_air), most_A / kind.continuous_share);
        ratings = {fuse.rating_A};
        for (const double rating : kind.ratings_A) {
            if (ratings.size() > kFuseChoices) break;
            const bool holds = rating >= asked_A - kTiny;
            // never more than the plan has: it may guard what hangs behind it
            if (holds && rating < fuse.rating_A) ratings.push_back(rating);
        }
        std::sort(ratings.begin(), ratings.end());
    } else {
        for (const Device& d : run.devices)
            if (d.kind == DeviceKind::fuse)
                guard_A = guard_A > 0 ? std::min(guard_A, d.rating_A) : d.rating_A;
        if (guard_A <= 0 && SupplySide(plan_).is_supply(run))
            for (const EndProtection& end : fed_ends(plan_, run))
                guard_A = std::max(guard_A, end.upstream_A.value_or(0));
    }
    std::map<double, bool> guarded;  // by rating: a thinner size is guarded already
    const double least_mm2 = assumption("least_cable_mm2").value;
    for (const WireSize& size : sizes_of(system)) {
        Limit refused = Limit::none;
        bool any = false;
        const auto wire = conductor(size, run.material);
        if (!wire) continue;
        const auto refused_to = ask.thicker_than_mm2.find(run.id);
        if (refused_to != ask.thicker_than_mm2.end() &&
            wire->area_mm2 * run.parallel <= refused_to->second + 1e-9) {
            free.refused.emplace_back(size, Limit::judged);
            continue;
        }
        if (const auto held = ask.held.find(run.id); held != ask.held.end() && !(held->second == size))
            continue;
        // thinner ones break by shaking; one that stands in the plan may stay
        if (wire->area_mm2 < least_mm2 && !(run.size && size == *run.size)) {
            free.refused.emplace_back(size, Limit::sturdy);
            continue;
        }
        for (const double rating : ratings) {
            Run changed = run;
            changed.size = size;
            if (free.fuse_device >= 0) changed.devices[at(free.fuse_device)].rating_A = rating;
            const Limit limit = refuses(changed, rating, guard_A, guarded[rating]);
            if (limit != Limit::none) {
                refused = limit;
                continue;
            }
            any = guarded[rating] = true;
            SizeChoice c;
            c.size = size;
            c.fuse_A = free.fuse_device >= 0 ? rating : 0;
            c.mass_kg = run_mass_kg(run, size);
            c.money = run_money(plan_, run, size);
            c.cost = ask.goal == SizingGoal::money ? c.money : c.mass_kg;
            c.area_mm2 = wire->area_mm2 * run.parallel;
            free.choices.push_back(c);
        }
        if (!any) free.refused.emplace_back(size, refused);
    }
    // conductors of the choices, and their order by resistance
    for (SizeChoice& c : free.choices) {
        Run changed = run;
        changed.size = c.size;
        if (free.fuse_device >= 0) changed.devices[at(free.fuse_device)].rating_A = c.fuse_A;
        ConductorElement e;
        std::vector<AssumptionUse> uses;
        fill_run_parts(e, plan_, changed, plan_.states[circuit_.states().front()], uses);
        c.ohm20 = e.fixed_ohm + e.cable20_ohm;
    }
    std::stable_sort(free.choices.begin(), free.choices.end(),
                     [](const SizeChoice& a, const SizeChoice& b) { return a.ohm20 > b.ohm20; });
}

Run SizingModel::changed(std::size_t free, int choice) const {
    const FreeRun& f = runs_[free];
    Run run = plan_.runs[f.run];
    const SizeChoice& c = f.choices[at(choice)];
    run.size = c.size;
    if (f.fuse_device >= 0) run.devices[at(f.fuse_device)].rating_A = c.fuse_A;
    return run;
}

// Own cables of a load carry its nominal draw though it runs in none of the states; what feeds an inverter
// carries its rating though less hangs on it now.
void SizingModel::find_floors(const std::vector<Solution>& solutions) {
    floor_A_.assign(plan_.runs.size(), 0);
    const double nominal = plan_.vehicle.nominal_V;
    for (const Load& l : plan_.loads) {
        if (l.starter || !l.inverter.empty()) continue;
        const double amps = nominal_A(plan_, l);
        for (std::size_t r = 0; r < plan_.runs.size(); ++r)
            if (!l.on_s && (plan_.runs[r].to == pos_of(l.id) || plan_.runs[r].from == neg_of(l.id)))
                floor_A_[r] =
                    std::max(floor_A_[r], amps * 0.98);  // nominal volts are a little below running ones
    }
    for (std::size_t i = 0; i < plan_.inverters.size(); ++i) {
        const Inverter& inverter = plan_.inverters[i];
        if (!inverter.continuous_W) continue;
        std::vector<AssumptionUse> uses;
        const double full = inverter_input_W(inverter, *inverter.continuous_W, uses) / nominal;
        for (const Solution& s : solutions) {
            const LoadResult& now = s.point.loads[plan_.loads.size() + i];
            if (now.status != LoadStatus::on) continue;
            for (const int c : path_of_load(s, static_cast<int>(plan_.loads.size() + i)))
                if (const int run = s.network.conductors[at(c)].run; run >= 0)
                    floor_A_[at(run)] =
                        std::max(floor_A_[at(run)], std::abs(s.point.conductors[at(c)].current_A) +
                                                        std::max(0.0, full - now.current_A));
            break;
        }
        for (std::size_t r = 0; r < plan_.runs.size(); ++r)
            if (plan_.runs[r].to == pos_of(inverter.id) || plan_.runs[r].from == neg_of(inverter.id))
                floor_A_[r] = std::max(floor_A_[r], full);
    }
    // What no listed state shows, as far as the cable carries it now; and what returns to a battery's post or
    // turns the starter stays as thick: shorts and cranking come back that way.
    demand_ = demand_of(plan_, solutions);
    for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
        const double now_A = least_ampacity_A(plan_, plan_.runs[r]).value_or(0);
        for (const DemandItem& i : demand_[r].items)
            if (i.kind == DemandKind::rating || i.kind == DemandKind::recharge || i.kind == DemandKind::box)
                floor_A_[r] = std::max(floor_A_[r], std::min(i.amps, now_A));
        if (demand_[r].cranks) floor_A_[r] = std::max(floor_A_[r], now_A);
    }
}

SizingModel::OwnRuns SizingModel::own_runs(std::size_t l, const std::vector<Solution>& solutions) const {
    OwnRuns own;
    for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
        if (plan_.runs[r].to == pos_of(plan_.loads[l].id)) own.supply = static_cast<int>(r);
        if (plan_.runs[r].from == neg_of(plan_.loads[l].id)) own.back = static_cast<int>(r);
    }
    for (const Solution& s : solutions) own.big = own.big || s.point.loads[l].current_A >= kBigLoad_A;
    return own;
}

// Where a big load's feed stays as it is, its return is not thinner. Before any table is made of choices.
void SizingModel::keep_returns_thick(const std::vector<Solution>& solutions) {
    for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
        const OwnRuns own = own_runs(l, solutions);
        if (own.supply < 0 || own.back < 0 || plan_.loads[l].starter || !own.big) continue;
        const Run& feed = plan_.runs[at(own.supply)];
        const int b = free_of_[at(own.back)];
        if (free_of_[at(own.supply)] >= 0 || b < 0 || !feed.size) continue;
        const auto wire = conductor(*feed.size, feed.material);
        std::erase_if(runs_[at(b)].choices, [&](const SizeChoice& c) {
            const bool thin = c.area_mm2 < kReturnShare * wire->area_mm2 * feed.parallel;
            if (thin) runs_[at(b)].refused.emplace_back(c.size, Limit::pair);
            return thin;
        });
    }
}

void SizingModel::find_pairs(const std::vector<Solution>& solutions) {
    for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
        const OwnRuns own = own_runs(l, solutions);
        if (own.supply < 0 || own.back < 0 || plan_.loads[l].starter) continue;
        const int a = free_of_[at(own.supply)], b = free_of_[at(own.back)];
        if (a < 0 || b < 0) continue;
        Pair pair{at(a), at(b), own.big ? kReturnShare : 0, {}};
        find_stands(pair);
        pairs_.push_back(std::move(pair));
    }
    for (const Battery& b : plan_.batteries) find_battery_pairs(b);
    for (const Pair& p : pairs_) {
        const int thickest = static_cast<int>(runs_[p.back].choices.size()) - 1;
        bool any = false;
        for (std::size_t a = 0; a < runs_[p.feed].choices.size() && !any; ++a)
            any = pair_holds(p, static_cast<int>(a), thickest);
        if (!any) blockers_.push_back({plan_.runs[runs_[p.back].run].id, {}, Limit::pair, 0, 0});
    }
}

// What a battery gives goes back over its thickest free negative cable: never below half the copper of any of
// its positive ones, as `rail check` has it (the others beside it are left out: they may become thin too).
void SizingModel::find_battery_pairs(const Battery& b) {
    int back = -1;
    double most_mm2 = -1;
    for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
        const Run& run = plan_.runs[r];
        if (free_of_[r] < 0 || (run.from != neg_of(b.id) && run.to != neg_of(b.id))) continue;
        if (!run.size) continue;
        const auto wire = conductor(*run.size, run.material);
        const double area = wire ? wire->area_mm2 * run.parallel : 0;
        if (area > most_mm2) most_mm2 = area, back = free_of_[r];
    }
    for (std::size_t r = 0; back >= 0 && r < plan_.runs.size(); ++r) {
        const Run& run = plan_.runs[r];
        if (free_of_[r] < 0 || (run.from != pos_of(b.id) && run.to != pos_of(b.id))) continue;
        Pair pair{at(free_of_[r]), at(back), kBatteryReturnShare, {}};
        pair.stands_A.assign(runs_[pair.back].choices.size(), 1e9);
        pairs_.push_back(std::move(pair));
    }
}

// For each size of the return, the largest rating of the feed's fuse that guards it over the whole band.
void SizingModel::find_stands(Pair& pair) const {
    const FreeRun& feed = runs_[pair.feed];
    const Run& back = plan_.runs[runs_[pair.back].run];
    if (feed.fuse_device < 0) {
        pair.stands_A.assign(runs_[pair.back].choices.size(), 1e9);
        return;
    }
    const Device& fuse = plan_.runs[feed.run].devices[at(feed.fuse_device)];
    double hot = -60;
    for (const State& s : plan_.states) hot = std::max(hot, run_air(plan_, back, s).ambient_C);
    const double bundle = plan_.policy.bundle_derating ? bundle_factor(bundle_of(plan_, back)) : 1;
    std::vector<double> ratings;
    for (const SizeChoice& c : feed.choices) ratings.push_back(c.fuse_A);
    std::sort(ratings.begin(), ratings.end());
    ratings.erase(std::unique(ratings.begin(), ratings.end()), ratings.end());
    double so_far = 0;  // a thicker return stands at least as much
    for (const SizeChoice& c : runs_[pair.back].choices) {
        const auto cable = surroundings_of(*conductor(c.size, back.material), hot, bundle);
        for (const double rating : ratings) {
            if (rating <= so_far) continue;
            if (!fuse_guard(cable, back.insulation_C, std::min(hot + 40, back.insulation_C), back.parallel,
                            fuse.fuse, rating, 25, false)
                     .guards)
                break;
            so_far = rating;
        }
        pair.stands_A.push_back(so_far);
    }
}

bool SizingModel::surely_carries(std::size_t free, int choice) const {
    for (std::size_t k = 0; k < states().size(); ++k) {
        if (turns_[free][k]) continue;
        double amps = std::abs(least_point_[k].conductors[runs_[free].run].current_A);
        for (std::size_t l = 0; l < plan_.loads.size(); ++l)
            if (on_path_[k][l][free])
                amps += std::max(0.0, limit_current_A(k, l) * 1.02 - least_[k].loads[l].value);
        if (amps > std::min(amp_A_[free][at(choice)][k], heat_A_[free][at(choice)][k])) return false;
    }
    return true;
}

// Current of a load that loses just what it may: the rows hold it at that, since a passing design is one
// whose load loses no more, and there the larger current of constant power still passes.
double SizingModel::limit_current_A(std::size_t k, std::size_t load) const {
    const LoadElement& e = circuit_.network(k).loads[load];
    const LoadResult& best = least_point_[k].loads[load];
    if (best.status != LoadStatus::on) return 0;
    const double volts = std::max(best.supply_V - limits_V_[load], 0.3 * plan_.vehicle.nominal_V);
    if (e.kind == DrawKind::power) return std::max(e.value / volts, least_[k].loads[load].value);
    return least_[k].loads[load].value;
}

Design SizingModel::thickest() const {
    Design d;
    for (const FreeRun& f : runs_) d.push_back(static_cast<int>(f.choices.size()) - 1);
    return d;
}

void SizingModel::put_one(Network& net, std::size_t k, std::size_t free, int choice) const {
    ConductorElement& c = net.conductors[runs_[free].run];
    const Element& e = elements_[free][at(choice)];
    c.fixed_ohm = e.fixed_ohm;
    c.cable20_ohm = e.cable20_ohm;
    c.cable = e.cable;
    c.cable.ambient_C = air_C_[free][k];
    if (c.turn) c.turn->end_C = e.turn_C[k];
}

// Where the plan's own turns would leave a conductor of this make, by state.
std::vector<double> SizingModel::turn_heat(std::size_t f, const CableSurroundings& cable) const {
    std::vector<double> end_C;
    for (std::size_t k = 0; k < states().size(); ++k) {
        const auto& turn = circuit_.network(k).conductors[runs_[f].run].turn;
        CableSurroundings there = cable;
        there.ambient_C = air_C_[f][k];
        end_C.push_back(
            turn ? duty_temperature(there, each_of(turn->cycle, plan_.runs[runs_[f].run].parallel)).peak_C
                 : std::nan(""));
    }
    return end_C;
}

void SizingModel::put(const Design& design) {
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        if (now_[f] == design[f]) continue;
        for (std::size_t k = 0; k < states().size(); ++k) put_one(circuit_.network(k), k, f, design[f]);
        now_[f] = design[f];
    }
}

bool SizingModel::checked(std::size_t k, std::size_t load) const {
    if (!expected_on_[k][load] || !plan_.loads[load].inverter.empty()) return false;
    return plan_.loads[load].starter == is_crank(plan_, states()[k]);
}

// The circuit at its thickest with every load's current at the least that a passing design can have.
void SizingModel::find_least_currents() {
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        std::vector<Element> elements;
        std::vector<std::vector<double>> amps;
        for (std::size_t c = 0; c < runs_[f].choices.size(); ++c) {
            const Run run = changed(f, static_cast<int>(c));
            ConductorElement e;
            std::vector<AssumptionUse> uses;
            fill_run_parts(e, plan_, run, plan_.states[states().front()], uses);
            elements.push_back({e.fixed_ohm, e.cable20_ohm, e.cable, turn_heat(f, e.cable)});
            std::vector<double> by_state;
            for (const std::size_t s : states()) {
                const auto a = run_ampacity(plan_, run, plan_.states[s]);
                by_state.push_back(a ? a->allowed_A : 1e9);
            }
            amps.push_back(std::move(by_state));
        }
        elements_.push_back(std::move(elements));
        amp_A_.push_back(std::move(amps));
    }
    put(thickest());
    for (std::size_t k = 0; k < states().size(); ++k) {
        const OperatingPoint best = circuit_.solve(k);
        if (!best.settled) {
            add_lost_blockers(k);
            return;
        }
        Network net = circuit_.network(k);
        for (std::size_t l = 0; l < net.loads.size(); ++l) {
            LoadElement& e = net.loads[l];
            const LoadResult& r = best.loads[l];
            if (r.status != LoadStatus::on || e.kind == DrawKind::current) continue;
            double amps = r.current_A;  // constant power: the highest volts, the smallest current
            if (e.kind == DrawKind::resistance) {
                const double limit = l < limits_V_.size() ? limits_V_[l] : 0.1 * net.nominal_V;
                amps = std::max(0.0, std::min(r.voltage_V, r.supply_V - limit) * 0.99) / e.value;
            }
            e.kind = DrawKind::current;
            e.value = amps;
        }
        least_solver_.emplace_back();
        least_solver_.back().give_up_on_collapse(true);
        least_solver_.back().follow(true);
        least_point_.push_back(least_solver_.back().solve(net));
        bridge_.push_back(bridges_of(net));
        least_.push_back(std::move(net));
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            if (!checked(k, l)) continue;
            const double drop = best.loads[l].status == LoadStatus::on ? best.loads[l].drop_V : 1e3;
            if (drop > limits_V_[l] * (1 + kTiny) && least_point_[k].loads[l].drop_V > limits_V_[l])
                blockers_.push_back(
                    {plan_.loads[l].id, plan_.states[states()[k]].id, Limit::drop, drop, limits_V_[l]});
        }
    }
}

// Sizes that cannot carry even the smallest current of a run that no loop passes.
void SizingModel::filter_by_current() {
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        FreeRun& free = runs_[f];
        std::vector<char> out(free.choices.size(), 0);
        for (std::size_t k = 0; k < states().size(); ++k) {
            if (!bridge_[k][free.run] || turns_[f][k]) continue;
            const double amps =
                std::max(std::abs(least_point_[k].conductors[free.run].current_A), floor_A_[free.run]);
            for (std::size_t c = 0; c < free.choices.size(); ++c) {
                CableSurroundings cable = elements_[f][c].cable;
                cable.ambient_C = air_C_[f][k];
                const int parallel = plan_.runs[free.run].parallel;
                if (amps > amp_A_[f][c][k] * (1 + kTiny))
                    out[c] = static_cast<char>(Limit::ampacity);
                else if (amps > 0.1 && conductor_temperature_C(cable, amps / parallel, 0) >
                                           plan_.runs[free.run].insulation_C + 1e-6)
                    out[c] = static_cast<char>(Limit::temperature);
            }
        }
        for (std::size_t c = free.choices.size(); c-- > 0;) {
            if (!out[c]) continue;
            free.refused.emplace_back(free.choices[c].size, static_cast<Limit>(out[c]));
            const auto n = static_cast<std::ptrdiff_t>(c);
            free.choices.erase(free.choices.begin() + n);
            elements_[f].erase(elements_[f].begin() + n);
            amp_A_[f].erase(amp_A_[f].begin() + n);
        }
        if (free.choices.empty()) blockers_.push_back({plan_.runs[free.run].id, {}, Limit::ampacity, 0, 0});
    }
    now_.assign(runs_.size(), -1);
}

}  // namespace yr
