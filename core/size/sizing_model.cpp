#include "size/sizing_model.h"

#include <Eigen/Sparse>
#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "size/bridges.h"

namespace yr {
namespace {

constexpr double kBigLoad_A = 15;  // above this the return is kept as thick as the supply; common practice
constexpr double kReturnShare = 0.95;
constexpr double kTiny = 1e-9;
constexpr std::size_t kFuseChoices = 3;  // the present rating and the smallest that may stand

std::size_t at(int k) {
    return static_cast<std::size_t>(k);
}

bool is_crank(const Plan& plan, std::size_t state) {
    return plan.states[state].key == Key::crank;
}

// What a starter circuit may lose: its own limit, else the service limit; never asked to better the plan.
double starter_limit_V(const Plan& plan, const Load& load, double present_V) {
    if (load.drop_limit) return *load.drop_limit * plan.vehicle.nominal_V;
    return std::max(assumption("starter_service_V").value * plan.vehicle.nominal_V / 12, present_V);
}

}  // namespace

SizingModel::SizingModel(const Plan& plan, const SizingAsk& ask, const std::vector<Solution>& solutions,
                         std::vector<std::size_t> states)
    : plan_(plan), circuit_(plan, solutions, std::move(states), true) {
    limits_V_.resize(plan.loads.size());
    for (std::size_t l = 0; l < plan.loads.size(); ++l) {
        const auto own = ask.drop_limits_V.find(plan.loads[l].id);
        double present = 0;
        for (const Solution& s : solutions) present = std::max(present, s.point.loads[l].drop_V);
        limits_V_[l] = own != ask.drop_limits_V.end() ? own->second
                       : plan.loads[l].starter        ? starter_limit_V(plan, plan.loads[l], present)
                                                      : drop_limit_V(plan, plan.loads[l]);
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
}

// Cables that may change, with what each may become.
void SizingModel::find_runs(const SizingAsk& ask, const std::vector<Solution>& solutions) {
    free_of_.assign(plan_.runs.size(), -1);
    for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
        const Run& run = plan_.runs[r];
        if (run.body_metal || run.resistance_ohm || run.pinned) continue;
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
            bool comes_and_goes = is_crank(plan_, s);
            if (duty && !is_crank(plan_, s))
                for (std::size_t l = 0; l < plan_.loads.size(); ++l)
                    if (plan_.loads[l].on_s && solutions[s].point.loads[l].status == LoadStatus::on) {
                        const auto path = path_of_load(solutions[s], static_cast<int>(l));
                        if (std::find(path.begin(), path.end(), static_cast<int>(r)) != path.end())
                            comes_and_goes = true;
                    }
            turns.push_back(comes_and_goes);
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
                const double bundle = plan_.policy.bundle_derating ? bundle_factor(run.bundle) : 1;
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
    const double bundle = plan_.policy.bundle_derating ? bundle_factor(run.bundle) : 1;
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
        const double start = start_through_A(plan_, run);
        ratings = {fuse.rating_A};
        for (const double rating : kind.ratings_A) {
            if (ratings.size() > kFuseChoices) break;
            const bool holds = rating > start && most_A <= kind.continuous_share * rating + kTiny;
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
        const double amps = l.draw.kind == DrawKind::current ? l.draw.value * l.count
                            : l.draw.kind == DrawKind::power ? l.draw.value * l.count / nominal
                                                             : nominal * l.count / l.draw.value;
        for (std::size_t r = 0; r < plan_.runs.size(); ++r)
            if (!l.on_s && (plan_.runs[r].to == l.id + ".pos" || plan_.runs[r].from == l.id + ".neg"))
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
            if (plan_.runs[r].to == inverter.id + ".pos" || plan_.runs[r].from == inverter.id + ".neg")
                floor_A_[r] = std::max(floor_A_[r], full);
    }
}

void SizingModel::find_pairs(const std::vector<Solution>& solutions) {
    for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
        int supply = -1, back = -1;
        for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
            if (plan_.runs[r].to == plan_.loads[l].id + ".pos") supply = static_cast<int>(r);
            if (plan_.runs[r].from == plan_.loads[l].id + ".neg") back = static_cast<int>(r);
        }
        if (supply < 0 || back < 0 || plan_.loads[l].starter) continue;
        double most = 0;
        for (const Solution& s : solutions) most = std::max(most, s.point.loads[l].current_A);
        const int a = free_of_[at(supply)], b = free_of_[at(back)];
        const bool big = most >= kBigLoad_A;
        if (b < 0 || runs_[at(b)].choices.empty()) continue;
        if (a >= 0) {
            Pair pair{at(a), at(b), big, {}};
            find_stands(pair);
            pairs_.push_back(std::move(pair));
        } else if (big && plan_.runs[at(supply)].size) {
            const auto wire = conductor(*plan_.runs[at(supply)].size, plan_.runs[at(supply)].material);
            std::erase_if(runs_[at(b)].choices, [&](const SizeChoice& c) {
                return c.area_mm2 < kReturnShare * wire->area_mm2 * plan_.runs[at(supply)].parallel;
            });
        }
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
    const double bundle = plan_.policy.bundle_derating ? bundle_factor(back.bundle) : 1;
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

bool SizingModel::pair_holds(const Pair& p, int feed, int back) const {
    const SizeChoice& f = runs_[p.feed].choices[at(feed)];
    const SizeChoice& b = runs_[p.back].choices[at(back)];
    if (p.as_thick && b.area_mm2 < kReturnShare * f.area_mm2 - 1e-6) return false;
    return p.stands_A[at(back)] >= f.fuse_A - kTiny;
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
            elements.push_back({e.fixed_ohm, e.cable20_ohm, e.cable});
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

std::vector<SizingModel::DropRow> SizingModel::drop_rows() {
    std::vector<DropRow> rows;
    for (std::size_t k = 0; k < states().size(); ++k) {
        std::vector<DropRow> radial;
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            if (!checked(k, l) || least_point_[k].loads[l].status != LoadStatus::on) continue;
            DropRow row{l, k, least_point_[k].loads[l].drop_V, {}};
            for (const int c : path_of_load(least_[k], least_point_[k], static_cast<int>(l))) {
                const int run = least_[k].conductors[at(c)].run;
                if (run < 0 || free_of_[at(run)] < 0 || !bridge_[k][at(c)]) continue;
                const auto f = at(free_of_[at(run)]);
                // the load's own current at its limit, the others' at their least
                const double amps = std::abs(least_point_[k].conductors[at(c)].current_A) +
                                    std::max(0.0, limit_current_A(k, l) - least_[k].loads[l].value);
                row.rest_V -= std::abs(least_point_[k].conductors[at(c)].drop_V);
                std::vector<double> volts;
                for (const Element& e : elements_[f]) {
                    CableSurroundings cable = e.cable;
                    cable.ambient_C = air_C_[f][k];
                    const double hot = conductor_temperature_C(cable, amps / plan_.runs[at(run)].parallel, 0);
                    volts.push_back(amps *
                                    (e.fixed_ohm + e.cable20_ohm * (1 + kCopperAlpha_per_K * (hot - 20))));
                }
                row.terms.emplace_back(f, std::move(volts));
            }
            std::sort(row.terms.begin(), row.terms.end(),
                      [](const auto& a, const auto& b) { return a.first < b.first; });
            radial.push_back(std::move(row));
        }
        add_loop_rows(k, rows, radial);
        radial_.insert(radial_.end(), radial.begin(), radial.end());
        for (DropRow& row : radial) rows.push_back(std::move(row));
    }
    drop_dominated(rows);
    // those that the thinnest of everything keeps say nothing
    std::erase_if(rows, [&](const DropRow& row) {
        double most = row.rest_V;
        for (const auto& [f, volts] : row.terms) most += *std::max_element(volts.begin(), volts.end());
        return most <= limits_V_[row.load];
    });
    return rows;
}

// Loads that cannot be served even with everything at its thickest.
void SizingModel::add_lost_blockers(std::size_t k) {
    OperatingPointSolver solver;
    const OperatingPoint point = solver.solve(circuit_.network(k));
    for (std::size_t l = 0; l < plan_.loads.size(); ++l)
        if (expected_on_[k][l] && point.loads[l].status == LoadStatus::collapsed)
            blockers_.push_back({plan_.loads[l].id, plan_.states[states()[k]].id, Limit::drop,
                                 plan_.vehicle.nominal_V, limits_V_[l]});
    if (blockers_.empty()) blockers_.push_back({{}, plan_.states[states()[k]].id, Limit::drop, 0, 0});
}

// Cables in loops, alone at each size from the thickest down while the others stand at the end of their range
// that spares them: a size that cannot carry its current even then, or costs a load its volts, goes with all
// thinner.
void SizingModel::filter_loops() {
    if (!blockers_.empty()) return;
    loop_drop_V_.assign(states().size(), std::vector<std::vector<std::vector<double>>>(runs_.size()));
    for (std::size_t k = 0; k < states().size(); ++k)
        for (std::size_t f = 0; f < runs_.size(); ++f) {
            const double amps = std::abs(least_point_[k].conductors[runs_[f].run].current_A);
            if (bridge_[k][runs_[f].run] || amps < 0.05) continue;
            try_loop(k, f);
        }
}

void SizingModel::try_loop(std::size_t k, std::size_t f) {
    FreeRun& free = runs_[f];
    const std::size_t run = free.run;
    const auto amps_of = [&](const OperatingPoint& p) { return std::abs(p.conductors[run].current_A); };
    std::vector<std::pair<std::size_t, int>> sparing;  // the others that take current off it when thin
    for (std::size_t o = 0; o < runs_.size() && !turns_[f][k]; ++o) {
        if (o == f || bridge_[k][runs_[o].run]) continue;
        put_one(least_[k], k, o, 0);
        const OperatingPoint thin = least_solver_[k].solve(least_[k]);
        put_one(least_[k], k, o, static_cast<int>(runs_[o].choices.size()) - 1);
        if (!thin.settled || amps_of(thin) < amps_of(least_point_[k]) * (1 - 1e-9))
            sparing.emplace_back(o, 0);
    }
    auto& drops = loop_drop_V_[k][f];
    drops.assign(free.choices.size(), {});
    std::size_t first = 0;
    for (std::size_t c = free.choices.size(); c-- > 0;) {
        put_one(least_[k], k, f, static_cast<int>(c));
        const OperatingPoint alone = least_solver_[k].solve(least_[k]);
        Limit limit = alone.settled ? Limit::none : Limit::drop;
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            const double drop = alone.settled ? alone.loads[l].drop_V : 1e3;
            drops[c].push_back(drop);
            if (checked(k, l) && drop > limits_V_[l] * (1 + kTiny)) limit = Limit::drop;
        }
        if (limit == Limit::none && !turns_[f][k]) {
            for (const auto& [o, end] : sparing) put_one(least_[k], k, o, end);
            const OperatingPoint spared = least_solver_[k].solve(least_[k]);
            if (spared.settled && amps_of(spared) > amp_A_[f][c][k] * (1 + kTiny)) limit = Limit::ampacity;
            if (spared.settled && spared.conductors[run].temperature_C > plan_.runs[run].insulation_C + 1e-6)
                limit = Limit::temperature;
            for (const auto& [o, end] : sparing)
                put_one(least_[k], k, o, static_cast<int>(runs_[o].choices.size()) - 1);
        }
        if (limit == Limit::none) continue;
        for (std::size_t gone = 0; gone <= c; ++gone)
            free.refused.emplace_back(free.choices[gone].size, limit);
        first = c + 1;
        break;
    }
    put_one(least_[k], k, f, static_cast<int>(free.choices.size()) - 1);
    if (first == free.choices.size()) {
        blockers_.push_back(
            {plan_.runs[run].id, plan_.states[states()[k]].id, free.refused.back().second, 0, 0});
        return;
    }
    const auto n = static_cast<std::ptrdiff_t>(first);
    free.choices.erase(free.choices.begin(), free.choices.begin() + n);
    elements_[f].erase(elements_[f].begin(), elements_[f].begin() + n);
    amp_A_[f].erase(amp_A_[f].begin(), amp_A_[f].begin() + n);
    for (auto& by_state : loop_drop_V_)
        if (by_state[f].size() > first) by_state[f].erase(by_state[f].begin(), by_state[f].begin() + n);
}

// What a load loses at least while a cable in a loop has a certain size and the others are thickest.
void SizingModel::add_loop_rows(std::size_t k, std::vector<DropRow>& rows,
                                const std::vector<DropRow>& radial) {
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const auto& drops = loop_drop_V_[k][f];
        if (drops.empty()) continue;
        for (const DropRow& base : radial) {
            const double best = least_point_[k].loads[base.load].drop_V;
            std::vector<double> more;
            for (const auto& by_load : drops) more.push_back(std::max(0.0, by_load[base.load] - best));
            if (more.front() < 0.01 * limits_V_[base.load]) continue;
            DropRow row = base;
            row.terms.emplace_back(f, std::move(more));
            rows.push_back(std::move(row));
        }
    }
}

void SizingModel::find_paths() {
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        std::vector<std::vector<double>> amps;
        for (const Element& e : elements_[f]) {
            std::vector<double> by_state;
            for (std::size_t k = 0; k < states().size(); ++k) {
                CableSurroundings cable = e.cable;
                cable.ambient_C = air_C_[f][k];
                const Run& run = plan_.runs[runs_[f].run];
                by_state.push_back(run.parallel * current_for_temperature_A(cable, run.insulation_C));
            }
            amps.push_back(std::move(by_state));
        }
        heat_A_.push_back(std::move(amps));
    }
    for (std::size_t k = 0; k < states().size(); ++k) {
        std::vector<std::vector<char>> by_load(plan_.loads.size(), std::vector<char>(runs_.size(), 0));
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            if (least_point_[k].loads[l].status != LoadStatus::on || !plan_.loads[l].inverter.empty())
                continue;
            for (const int c : path_of_load(least_[k], least_point_[k], static_cast<int>(l)))
                if (const int run = least_[k].conductors[at(c)].run; run >= 0 && free_of_[at(run)] >= 0)
                    by_load[l][at(free_of_[at(run)])] = 1;
        }
        on_path_.push_back(std::move(by_load));
    }
}

// The end at which this run keeps the currents of the loads behind it least: thick for constant power, thin
// for resistances. -1: they are constant currents; -2: both kinds hang there. `among`: only these loads
// count.
int SizingModel::end_for(std::size_t k, std::size_t f, const std::vector<char>* among) const {
    bool power = false, resistance = false;
    for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
        if (!on_path_[k][l][f] || (among && !(*among)[l])) continue;
        const DrawKind kind = circuit_.network(k).loads[l].kind;
        power = power || kind == DrawKind::power;
        resistance = resistance || kind == DrawKind::resistance;
    }
    // what feeds an inverter, a box's own draw or a converter is on no load's path: constant power
    bool any = false;
    for (std::size_t l = 0; l < plan_.loads.size(); ++l) any = any || on_path_[k][l][f];
    if (!any) power = true;
    if (power && resistance) return -2;
    if (!power && !resistance) return -1;
    return power ? static_cast<int>(runs_[f].choices.size()) - 1 : 0;
}

std::vector<SizingModel::Lever> SizingModel::levers(const Breach& b, const Design& design) {
    std::vector<Lever> out;
    const auto thick = [&](std::size_t f) { return static_cast<int>(runs_[f].choices.size()) - 1; };
    std::vector<char> behind(plan_.loads.size(), 0);  // loads whose current passes the run in question
    const int own = b.limit == Limit::drop || b.limit == Limit::none ? -1 : free_of_[b.run];
    if (own >= 0)
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) behind[l] = on_path_[b.k][l][at(own)];
    const double now = b.limit == Limit::none ? 0 : excess(b, design);
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const ConductorElement& c = circuit_.network(b.k).conductors[runs_[f].run];
        if (!c.closed) continue;
        if (b.limit ==
            Limit::none) {  // the supply breaks down: only thicker ones can help, perhaps several at once
            if (design[f] != thick(f)) out.push_back({f, thick(f), false});
            continue;
        }
        bool far = false;
        int end = -2;
        if (static_cast<int>(f) == own ||
            (b.limit == Limit::drop && bridge_[b.k][runs_[f].run] && on_path_[b.k][b.load][f])) {
            end = thick(f);
        } else if (bridge_[b.k][runs_[f].run]) {
            far = true;
            if (own >= 0)
                for (std::size_t l = 0; l < behind.size() && far; ++l)
                    far = !(behind[l] && on_path_[b.k][l][f]);
            end = end_for(b.k, f, far ? nullptr : &behind);
        }
        if (end == -2) {  // in a loop, or of two minds: both ends are looked at
            Design trial = design;
            double best = now - 1e-7;
            for (const int candidate : {0, thick(f)}) {
                if (candidate == design[f]) continue;
                trial[f] = candidate;
                const double there = excess(b, trial);
                if (there < best) best = there, end = candidate;
            }
        }
        if (end >= 0 && end != design[f]) out.push_back({f, end, far});
    }
    // far ones first: they are the first to be found beside the point
    std::stable_sort(out.begin(), out.end(), [](const Lever& a, const Lever& c) { return a.far > c.far; });
    return out;
}

// Resistance of a conductor with its cable at the air's temperature: it is never less.
double SizingModel::cold_ohm(std::size_t k, std::size_t conductor, const Design& design) const {
    const ConductorElement& c = least_[k].conductors[conductor];
    const int f = c.run >= 0 ? free_of_[at(c.run)] : -1;
    const auto cold = [](double fixed, double cable20, double air_C) {
        return fixed + cable20 * (1 + kCopperAlpha_per_K * (air_C - 20));
    };
    if (f < 0) return cold(c.fixed_ohm, c.cable20_ohm, c.cable.ambient_C);
    const Element& e = elements_[at(f)][at(design[at(f)])];
    return cold(e.fixed_ohm, e.cable20_ohm, air_C_[at(f)][k]);
}

// Volts at each node for one ampere of this load, the battery's two posts held at 0 V.
std::vector<double> SizingModel::loop_volts(std::size_t k, std::size_t load, const Design& design) const {
    const Network& net = least_[k];
    const auto n = static_cast<Eigen::Index>(net.nodes.size());
    std::vector<Eigen::Triplet<double>> entries;
    for (Eigen::Index i = 0; i < n; ++i) entries.emplace_back(i, i, 1e-9);
    for (const NodeIndex post : {net.batteries.front().pos, net.batteries.front().neg})
        entries.emplace_back(post, post, 1e6);
    for (std::size_t c = 0; c < net.conductors.size(); ++c) {
        const ConductorElement& e = net.conductors[c];
        if (!e.closed || e.forward_V > 0) continue;
        const double g = 1 / cold_ohm(k, c, design);
        entries.emplace_back(e.from, e.from, g);
        entries.emplace_back(e.to, e.to, g);
        entries.emplace_back(e.from, e.to, -g);
        entries.emplace_back(e.to, e.from, -g);
    }
    Eigen::SparseMatrix<double> matrix(n, n);
    matrix.setFromTriplets(entries.begin(), entries.end());
    Eigen::VectorXd rhs = Eigen::VectorXd::Zero(n);
    rhs[net.loads[load].pos] -= 1;
    rhs[net.loads[load].neg] += 1;
    const Eigen::VectorXd v = Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>>(matrix).solve(rhs);
    return {v.data(), v.data() + n};
}

std::optional<SizingModel::DropRow> SizingModel::tangent_row(std::size_t k, std::size_t load,
                                                             const Design& design) {
    const Network& net = least_[k];
    const bool one_supply =
        net.batteries.size() >= 1 &&
        std::none_of(net.sources.begin(), net.sources.end(), [](const SourceElement& s) { return s.works; });
    const bool alone = std::none_of(least_point_[k].batteries.begin() + 1, least_point_[k].batteries.end(),
                                    [](const BatteryResult& b) { return std::abs(b.current_A) > 1e-3; });
    const auto base = std::find_if(radial_.begin(), radial_.end(),
                                   [&](const DropRow& r) { return r.k == k && r.load == load; });
    if (!one_supply || !alone || base == radial_.end()) return std::nullopt;
    DropRow row = *base;
    const double own_A = std::max(limit_current_A(k, load), net.loads[load].value);
    // what the base row holds of loops, by its own current with the thickest cables, makes room for the
    // tangent
    const auto in_loops = [&](const std::vector<double>& v, const Design& d) {
        double ohm = 0;  // watts in loops per square ampere
        for (std::size_t c = 0; c < net.conductors.size(); ++c) {
            if (!net.conductors[c].closed || bridge_[k][c] || net.conductors[c].forward_V > 0) continue;
            const double u = v[at(net.conductors[c].from)] - v[at(net.conductors[c].to)];
            ohm += u * u / cold_ohm(k, c, d);
        }
        return ohm;
    };
    const Design thick = thickest();
    const auto v = loop_volts(k, load, design);
    row.rest_V +=
        own_A * in_loops(v, design) - net.loads[load].value * in_loops(loop_volts(k, load, thick), thick);
    bool any = false;
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const ConductorElement& c = net.conductors[runs_[f].run];
        if (bridge_[k][runs_[f].run] || !c.closed) continue;
        const double u = v[at(c.from)] - v[at(c.to)];
        if (std::abs(u) < 1e-9) continue;
        const double here = 1 / cold_ohm(k, runs_[f].run, design);
        std::vector<double> volts;
        Design other = design;
        for (std::size_t n = 0; n < runs_[f].choices.size(); ++n) {
            other[f] = static_cast<int>(n);
            volts.push_back(-own_A * u * u * (1 / cold_ohm(k, runs_[f].run, other) - here));
        }
        row.terms.emplace_back(f, std::move(volts));
        any = true;
    }
    return any ? std::optional(row) : std::nullopt;
}

// Of two states of one load with the same cables, the one that asks more of every choice stands for both.
void SizingModel::drop_dominated(std::vector<DropRow>& rows) const {
    const auto asks_more = [](const DropRow& a, const DropRow& b) {
        if (a.load != b.load || a.terms.size() != b.terms.size() || a.rest_V < b.rest_V - 1e-12) return false;
        for (std::size_t t = 0; t < a.terms.size(); ++t) {
            if (a.terms[t].first != b.terms[t].first) return false;
            for (std::size_t c = 0; c < a.terms[t].second.size(); ++c)
                if (a.terms[t].second[c] < b.terms[t].second[c] - 1e-12) return false;
        }
        return true;
    };
    std::vector<DropRow> kept;
    for (DropRow& row : rows) {
        if (std::any_of(kept.begin(), kept.end(), [&](const DropRow& k) { return asks_more(k, row); }))
            continue;
        std::erase_if(kept, [&](const DropRow& k) { return asks_more(row, k); });
        kept.push_back(std::move(row));
    }
    rows = std::move(kept);
}

double SizingModel::value_of(const Breach& b, const OperatingPoint& point) const {
    if (b.limit == Limit::none) return point.settled ? 0 : 2;
    if (!point.settled) return 2 * b.allowed;
    if (b.limit == Limit::drop) {
        const LoadResult& r = point.loads[b.load];
        return r.status == LoadStatus::on ? r.drop_V : 3 * b.allowed;
    }
    return std::abs(point.conductors[b.run].current_A);
}

void SizingModel::check_state(std::size_t k, const OperatingPoint& point, const Design& design,
                              std::vector<Breach>& out) const {
    const auto add = [&](Breach b) {
        b.k = k;
        b.value = value_of(b, point);
        if (b.value > b.allowed * (1 + kTiny)) out.push_back(b);
    };
    if (!point.settled) {
        out.push_back({Limit::none, 0, 0, k, 2, 1});
        return;
    }
    for (std::size_t l = 0; l < plan_.loads.size(); ++l)
        if (checked(k, l)) add({Limit::drop, l, 0, k, 0, limits_V_[l]});
    if (is_crank(plan_, states()[k])) return;
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const std::size_t run = runs_[f].run;
        if (turns_[f][k] || std::abs(point.conductors[run].current_A) < 1e-3) continue;
        const SizeChoice& c = runs_[f].choices[at(design[f])];
        add({Limit::ampacity, 0, run, k, 0, amp_A_[f][at(design[f])][k]});
        add({Limit::temperature, 0, run, k, 0, heat_A_[f][at(design[f])][k]});
        if (runs_[f].fuse_device < 0) continue;
        const Device& fuse = plan_.runs[run].devices[at(runs_[f].fuse_device)];
        // a rating that stands in the plan may stay; one chosen anew carries its share
        const double share = c.fuse_A == fuse.rating_A ? 1e3 : fuse_kind(fuse.fuse).continuous_share;
        add({Limit::fuse, 0, run, k, 0, share * c.fuse_A});
    }
}

std::vector<Breach> SizingModel::breaches(const Design& design) {
    put(design);
    std::vector<Breach> out;
    for (std::size_t k = 0; k < states().size(); ++k) {
        std::vector<Breach> here;
        check_state(k, circuit_.solve(k), design, here);
        std::sort(here.begin(), here.end(),
                  [](const Breach& a, const Breach& b) { return a.excess() > b.excess(); });
        out.insert(out.end(), here.begin(), here.end());
    }
    return out;
}

double SizingModel::excess(const Breach& breach, const Design& design) {
    put(design);
    Breach b = breach;
    b.value = value_of(b, circuit_.solve(b.k));
    const int f = free_of_[b.run];
    if (b.limit == Limit::temperature && f >= 0) b.allowed = heat_A_[at(f)][at(design[at(f)])][b.k];
    if (b.limit == Limit::ampacity && f >= 0) b.allowed = amp_A_[at(f)][at(design[at(f)])][b.k];
    if (b.limit == Limit::fuse && f >= 0) {
        const FreeRun& free = runs_[at(f)];
        const Device& fuse = plan_.runs[b.run].devices[at(free.fuse_device)];
        const double rating = free.choices[at(design[at(f)])].fuse_A;
        b.allowed = (rating == fuse.rating_A ? 1e3 : fuse_kind(fuse.fuse).continuous_share) * rating;
    }
    return b.excess() - kTiny;
}

}  // namespace yr
