#include "size/run_ladder.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "plan/rail_volts.h"
#include "size/circuit_options.h"

namespace yr {
namespace {

constexpr double kCarriesCurrent_A = 1e-6;
constexpr int kMostParallel = 8;

// States in which each load has this run on its way.
std::vector<std::vector<char>> served_loads(const Plan& plan, std::size_t run,
                                            const std::vector<Solution>& solutions) {
    std::vector<std::vector<char>> served(solutions.size(), std::vector<char>(plan.loads.size(), 0));
    for (std::size_t s = 0; s < solutions.size(); ++s) {
        if (std::abs(solutions[s].point.conductors[run].current_A) < kCarriesCurrent_A) continue;
        const LoadPaths paths(solutions[s].network, solutions[s].point);
        for (std::size_t k = 0; k < plan.loads.size(); ++k) {
            if (solutions[s].point.loads[k].status != LoadStatus::on || !plan.loads[k].inverter.empty())
                continue;
            for (int c : paths.of(k))
                if (solutions[s].network.conductors[static_cast<std::size_t>(c)].run == static_cast<int>(run))
                    served[s][k] = 1;
        }
    }
    return served;
}

// Everything that stays the same from size to size.
struct Ground {
    const Plan& plan;
    std::size_t run;
    std::vector<std::vector<char>> served;
    const std::vector<Solution>& solutions;
    double fuse_A = 0;
    FuseType fuse = FuseType::blade;
    double fuse_air_C = 25;
};

double conductor_C(const Run& run, const ConductorElement& e, const ConductorResult& r) {
    if (!e.turn) return r.temperature_C;
    DutyCycle cycle = e.turn->cycle;  // of the plan's own size; this one may draw a little more or less
    cycle.on_A = std::abs(r.current_A);
    return duty_temperature(e.cable, each_of(cycle, run.parallel)).peak_C;
}

RunSizeRow judge(const Ground& g, const Run& run, const CircuitOptions& circuit,
                 const std::vector<OperatingPoint>& points) {
    RunSizeRow row;
    row.size = *run.size;
    const Plan& plan = g.plan;
    double worst_share = -1, worst_drop = -1;
    row.drops.reserve(plan.loads.size());
    std::vector<int> drop_at(plan.loads.size(), -1);
    row.carries = true;
    for (std::size_t s = 0; s < points.size(); ++s) {
        const ConductorResult& c = points[s].conductors[g.run];
        const ConductorElement& e = circuit.network(s).conductors[g.run];
        const auto amp = run_ampacity(plan, run, plan.states[s]);
        const double hot = conductor_C(run, e, c);
        if (hot > row.temperature_C) row.temperature_C = hot, row.temperature_state = plan.states[s].id;
        const double allowed = amp ? std::max(amp->allowed_A, 1e-9) : 1e9;
        // what comes and goes is judged in time; the table's word on it stands beside
        const double share = e.turn ? 0 : std::abs(c.current_A) / allowed;
        if (share > worst_share) {
            worst_share = share;
            row.ampacity_A = amp ? amp->allowed_A : 0;
            row.current_A = std::abs(c.current_A);
            row.ampacity_state = plan.states[s].id;
            row.physics_A = run.parallel * current_for_temperature_A(e.cable, run.insulation_C);
            AmpacityAsk ask;
            const RunAir air = run_air(plan, run, plan.states[s]);
            ask.size = *run.size, ask.material = run.material, ask.insulation_C = run.insulation_C;
            ask.engine_space = air.engine_space, ask.ambient_C = air.ambient_C,
            ask.bundle = bundle_of(plan, run);
            ask.bundle_derating = plan.policy.bundle_derating;
            ask.table =
                plan.policy.ampacity_table == AmpacityTable::abyc ? AmpacityTable::iso : AmpacityTable::abyc;
            const auto second = ampacity(ask);
            row.other_table_A = second ? second->allowed_A * run.parallel : 0;
        }
        if (plan.states[s].key == Key::crank) continue;
        for (std::size_t k = 0; k < plan.loads.size(); ++k) {
            const LoadResult& l = points[s].loads[k];
            if (!g.served[s][k] || plan.loads[k].starter) continue;
            const double limit = drop_limit_V(plan, plan.loads[k]);
            // one that breaks down through so thin a cable loses all its volts
            const double lost_V = l.status == LoadStatus::on ? l.drop_V : plan.vehicle.nominal_V;
            if (drop_at[k] < 0) {
                drop_at[k] = static_cast<int>(row.drops.size());
                row.drops.push_back({plan.loads[k].id, plan.states[s].id, lost_V, limit});
            } else if (auto& d = row.drops[static_cast<std::size_t>(drop_at[k])]; lost_V > d.drop_V) {
                d.drop_V = lost_V, d.state = plan.states[s].id;
            }
            if (lost_V / limit <= worst_drop) continue;
            worst_drop = lost_V / limit;
            row.drop_V = lost_V;
            row.drop_limit_V = limit;
            row.drop_load = plan.loads[k].id;
            row.drop_state = plan.states[s].id;
        }
    }
    row.carries = worst_share <= 1 + 1e-9;
    row.drop_fits = worst_drop <= 1 + 1e-9;
    row.stays_cool = row.temperature_C <= run.insulation_C + 1e-6;
    row.fuse_limit_A = least_ampacity_A(plan, run).value_or(0);
    row.fuse_fits = g.fuse_A <= row.fuse_limit_A + 1e-9;
    if (g.fuse_A > 0) {
        // from the hottest that the state brings it to; the whole band
        CableSurroundings hottest = circuit.network(0).conductors[g.run].cable;
        for (std::size_t s = 1; s < points.size(); ++s)
            hottest.ambient_C =
                std::max(hottest.ambient_C, circuit.network(s).conductors[g.run].cable.ambient_C);
        row.guard = fuse_guard(hottest, run.insulation_C, std::min(row.temperature_C, run.insulation_C),
                               run.parallel, g.fuse, g.fuse_A, g.fuse_air_C);
        row.withstands = row.guard.guards;
    }
    row.fit = run_fit(plan, run, *run.size);
    row.mass_kg = run_mass_kg(run, *run.size);
    row.money = run_money(plan, run, *run.size);
    return row;
}

// What guards the run: its own smallest fuse, else the largest that a short of it meets on the way.
void find_fuse(Ground& g, const Run& run, RunLadder& ladder) {
    double coldest = 1e9;
    const Device* own = nullptr;
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse && (!own || d.rating_A < own->rating_A)) own = &d;
    if (own) {
        g.fuse_A = own->rating_A, g.fuse = own->fuse;
        for (const State& s : g.plan.states)
            coldest = std::min(coldest, air_at_device_C(g.plan, run, *own, s));
    } else if (SupplySide(g.plan).is_supply(run)) {
        for (const EndProtection& end : fed_ends(g.plan, run))
            if (end.upstream_A && *end.upstream_A > g.fuse_A) g.fuse_A = *end.upstream_A;
        for (const Run& r : g.plan.runs)
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse && d.rating_A == g.fuse_A) g.fuse = d.fuse;
        for (const State& s : g.plan.states) coldest = std::min(coldest, s.ambient_C);
    }
    g.fuse_air_C = std::min(coldest, 25.0);
    ladder.fuse_A = g.fuse_A;
    if (g.fuse_A > 0) ladder.fuse_type = g.fuse;
}

// Shorts at the far end, in the state in which the run carries most.
void add_shorts(const Plan& plan, std::size_t run, const std::vector<Solution>& solutions,
                RunLadder& ladder) {
    std::optional<ShortPlace> place;
    for (const ShortPlace& p : short_places(plan))
        if (p.run == run && p.device.empty()) place = p;
    if (!place || solutions.empty()) return;
    std::size_t worst = 0;
    double most = -1;
    for (std::size_t s = 0; s < solutions.size(); ++s) {
        if (!solutions[s].network.conductors[run].closed) continue;
        const double amps = std::abs(solutions[s].point.conductors[run].current_A);
        if (amps > most) most = amps, worst = s;
    }
    const FaultBase base = fault_base(plan, worst, solutions[worst]);
    for (RunSizeRow& row : ladder.rows) {
        const auto found = short_at(plan, base, solutions[worst], *place, 0, {place->run, row.size, {}, 0});
        if (!found) continue;
        row.short_A = found->least_A;
        row.opens_s = found->slowest.seconds;
        row.short_C = found->hottest && found->hottest->run == run ? found->hottest->reached_C : 0;
    }
}

}  // namespace

Limit RunSizeRow::fails() const {
    const double by_amps = carries ? 0 : current_A / std::max(ampacity_A, 1e-9);
    const double by_drop = drop_fits ? 0 : drop_V / drop_limit_V;
    if (by_drop > 0 && by_drop >= by_amps) return Limit::drop;
    if (by_amps > 0) return Limit::ampacity;
    if (!stays_cool) return Limit::temperature;
    if (!fuse_fits) return Limit::fuse;
    if (!withstands) return Limit::short_circuit;
    if (!fit.terminals) return Limit::terminals;
    if (!fit.bends) return Limit::bend;
    return fit.sturdy ? Limit::none : Limit::sturdy;
}

double drop_limit_V(const Plan& plan, const Load& load) {
    const double of_V = rail_V(plan, load);
    if (load.drop_limit) return *load.drop_limit * of_V;
    const double share = load.critical
                             ? plan.policy.drop_critical.value_or(assumption("load_drop_critical").value)
                             : plan.policy.drop_other.value_or(assumption("load_drop_other").value);
    return share * of_V;
}

namespace {

Id turning_load(const Plan& plan, const State& state, const TurnHeat& turn) {
    if (turn.load >= 0) return plan.loads[static_cast<std::size_t>(turn.load)].id;
    if (state.key != Key::crank) return {};  // all of it, while the state passes
    for (const Load& l : plan.loads)
        if (l.starter) return l.id;
    return {};
}

}  // namespace

std::optional<RunDuty> run_duty(const Plan& plan, std::size_t run, const std::vector<Solution>& solutions) {
    const Run& r = plan.runs[run];
    std::optional<RunDuty> worst;
    for (std::size_t s = 0; s < solutions.size(); ++s) {
        const auto& turn = solutions[s].network.conductors[run].turn;
        if (!turn || (worst && turn->end_C <= worst->peak_C)) continue;
        const auto amp = run_ampacity(plan, r, plan.states[s]);
        worst = RunDuty{turning_load(plan, plan.states[s], *turn), plan.states[s].id, turn->cycle,
                        turn->end_C, amp && turn->cycle.on_A <= amp->allowed_A};
    }
    return worst;
}

namespace {

// Its own feed or return is the first to blame for what a load loses.
bool own_run(const Run& run, const Id& load) {
    for (const Terminal& t : {run.from, run.to})
        if (t == pos_of(load) || t == neg_of(load)) return true;
    return false;
}

void find_apart(RunLadder& ladder, const Run& run) {
    if (ladder.chosen >= 0 || ladder.rows.empty()) return;
    const auto lost = [](const ServedDrop& d) { return d.drop_V > d.limit_V * (1 + 1e-9); };
    std::vector<Id> beyond;
    for (const ServedDrop& d : ladder.rows.back().drops) {
        if (!lost(d)) continue;
        if (own_run(run, d.load)) return;
        beyond.push_back(d.load);
    }
    ladder.beyond = std::move(beyond);
    const auto elsewhere = [&](const ServedDrop& d) {
        return std::find(ladder.beyond.begin(), ladder.beyond.end(), d.load) != ladder.beyond.end();
    };
    for (std::size_t k = 0; k < ladder.rows.size() && !ladder.beyond.empty() && ladder.apart < 0; ++k) {
        const RunSizeRow& row = ladder.rows[k];
        const bool keeps = std::none_of(row.drops.begin(), row.drops.end(),
                                        [&](const ServedDrop& d) { return lost(d) && !elsewhere(d); });
        if (row.carries && row.fuse_fits && row.stays_cool && row.withstands && row.fit.fits() && keeps)
            ladder.apart = static_cast<int>(k);
    }
}

}  // namespace

Result<RunLadder> run_ladder(const Plan& plan, const Id& run_id, int parallel,
                             const std::vector<Solution>* given) {
    const Run* found = find(plan.runs, run_id);
    if (!found) return fail(ErrorCode::missing_reference, "run", run_id, Want::a_run_of_this_plan);
    if (found->body_metal || found->resistance_ohm)
        return fail(ErrorCode::unknown_size, found->name, {}, Want::a_cable_with_a_size);
    if (parallel < 0 || parallel > kMostParallel)
        return fail(ErrorCode::out_of_range, "parallel", std::to_string(parallel),
                    Want::from_1_to_8_cables_side_by_side);
    const auto index = static_cast<std::size_t>(found - plan.runs.data());
    const WireSize now =
        found->size.value_or(WireSize::awg(static_cast<int>(assumption("run_size_awg").value)));
    const std::vector<Solution> own = given ? std::vector<Solution>{} : solve_all(plan);
    const std::vector<Solution>& solutions = given ? *given : own;

    RunLadder ladder;
    ladder.parallel = parallel > 0 ? parallel : found->parallel;
    ladder.insulation_C = found->insulation_C;
    Ground ground{plan, index, served_loads(plan, index, solutions), solutions};
    find_fuse(ground, *found, ladder);
    ladder.duty = run_duty(plan, index, solutions);
    std::vector<std::size_t> states(solutions.size());
    for (std::size_t s = 0; s < states.size(); ++s) states[s] = s;
    CircuitOptions circuit(plan, solutions, states);
    Run trial = *found;
    trial.parallel = ladder.parallel;
    for (const WireSize& size : sizes_of(now.system())) {
        trial.size = size;
        if (!conductor(size, trial.material)) continue;
        circuit.put(index, trial);
        std::vector<OperatingPoint> points;
        for (std::size_t s = 0; s < states.size(); ++s) {
            // where it carries nothing its size changes nothing
            const bool idle = std::abs(solutions[s].point.conductors[index].current_A) < kCarriesCurrent_A;
            points.push_back(idle ? solutions[s].point : circuit.solve(s));
        }
        ladder.rows.push_back(judge(ground, trial, circuit, points));
        if (size == now) ladder.now = static_cast<int>(ladder.rows.size()) - 1;
    }
    if (ladder.parallel == found->parallel) add_shorts(plan, index, solutions, ladder);
    for (std::size_t k = 0; k < ladder.rows.size() && ladder.chosen < 0; ++k)
        if (ladder.rows[k].passes()) ladder.chosen = static_cast<int>(k);
    find_apart(ladder, *found);
    const int failing = ladder.apart >= 0   ? ladder.apart - 1
                        : ladder.chosen < 0 ? static_cast<int>(ladder.rows.size()) - 1
                                            : ladder.chosen - 1;
    if (failing >= 0) ladder.decides = ladder.rows[static_cast<std::size_t>(failing)].fails();
    return ladder;
}

}  // namespace yr
