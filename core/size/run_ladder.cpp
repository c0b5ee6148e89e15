#include "size/run_ladder.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"

namespace yr {
namespace {

constexpr double kCarriesCurrent_A = 1e-6;

// Loads whose drop moves noticeably with this run: by more than 1 % of their limit between thinnest and
// thickest.
std::vector<char> served_loads(const Plan& plan, const Id& run_id, const std::vector<Solution>& solutions) {
    std::vector<char> served(plan.loads.size(), 0);
    for (const Solution& s : solutions)
        for (std::size_t k = 0; k < plan.loads.size(); ++k) {
            if (served[k] || s.point.loads[k].status != LoadStatus::on) continue;
            for (int c : path_of_load(s, static_cast<int>(k))) {
                const int run = s.network.conductors[static_cast<std::size_t>(c)].run;
                if (run >= 0 && plan.runs[static_cast<std::size_t>(run)].id == run_id) served[k] = 1;
            }
        }
    return served;
}

RunSizeRow judge(const Plan& plan, std::size_t run_index, const std::vector<char>& served,
                 const std::vector<Solution>& solutions, double fuse_A) {
    const Run& run = plan.runs[run_index];
    RunSizeRow row;
    row.size = *run.size;
    double worst_share = -1, worst_drop = -1;
    for (std::size_t s = 0; s < solutions.size(); ++s) {
        const auto amp = run_ampacity(plan, run, plan.states[s]);
        const ConductorResult& c = solutions[s].point.conductors[run_index];
        const double allowed = amp ? std::max(amp->allowed_A, 1e-9) : 1e9;
        if (std::abs(c.current_A) / allowed > worst_share) {
            worst_share = std::abs(c.current_A) / allowed;
            row.ampacity_A = amp ? amp->allowed_A : 0;
            row.current_A = std::abs(c.current_A);
            row.ampacity_state = plan.states[s].id;
        }
        row.temperature_C = std::max(row.temperature_C, c.temperature_C);
        for (std::size_t k = 0; k < plan.loads.size(); ++k) {
            const LoadResult& l = solutions[s].point.loads[k];
            if (!served[k] || l.status != LoadStatus::on || plan.loads[k].starter) continue;
            const double limit = drop_limit_V(plan, plan.loads[k]);
            if (l.drop_V / limit <= worst_drop) continue;
            worst_drop = l.drop_V / limit;
            row.drop_V = l.drop_V;
            row.drop_limit_V = limit;
            row.drop_load = plan.loads[k].id;
            row.drop_state = plan.states[s].id;
        }
    }
    row.carries = worst_share <= 1;
    row.drop_fits = worst_drop <= 1;
    row.fuse_fits = fuse_A <= least_ampacity_A(plan, run).value_or(1e9) + 1e-9;
    return row;
}

Limit decider(const RunSizeRow& row) {
    const double by_amps = row.carries ? 0 : row.current_A / std::max(row.ampacity_A, 1e-9);
    const double by_drop = row.drop_fits ? 0 : row.drop_V / row.drop_limit_V;
    if (by_drop > 0 && by_drop >= by_amps) return Limit::drop;
    if (by_amps > 0) return Limit::ampacity;
    return row.fuse_fits ? Limit::none : Limit::fuse;
}

}  // namespace

double drop_limit_V(const Plan& plan, const Load& load) {
    if (load.drop_limit) return *load.drop_limit * plan.vehicle.nominal_V;
    const double share = load.critical
                             ? plan.policy.drop_critical.value_or(assumption("load_drop_critical").value)
                             : plan.policy.drop_other.value_or(assumption("load_drop_other").value);
    return share * plan.vehicle.nominal_V;
}

std::vector<int> path_of_load(const Solution& solution, int load_index) {
    const Network& net = solution.network;
    const OperatingPoint& point = solution.point;
    const LoadElement& load = net.loads[static_cast<std::size_t>(load_index)];
    std::vector<char> taken(net.conductors.size(), 0);
    std::vector<std::vector<int>> touching(net.nodes.size());
    for (std::size_t k = 0; k < net.conductors.size(); ++k) {
        if (std::abs(point.conductors[k].current_A) < kCarriesCurrent_A) continue;
        touching[static_cast<std::size_t>(net.conductors[k].from)].push_back(static_cast<int>(k));
        touching[static_cast<std::size_t>(net.conductors[k].to)].push_back(static_cast<int>(k));
    }
    // Against the current from the positive side, with the current from the negative side.
    const auto follow = [&](NodeIndex start, bool upstream) {
        std::vector<NodeIndex> open{start};
        std::vector<char> seen(net.nodes.size(), 0);
        while (!open.empty()) {
            const NodeIndex node = open.back();
            open.pop_back();
            if (seen[static_cast<std::size_t>(node)]++) continue;
            for (const int k : touching[static_cast<std::size_t>(node)]) {
                const ConductorElement& c = net.conductors[static_cast<std::size_t>(k)];
                NodeIndex high = c.from, low = c.to;
                if (point.conductors[static_cast<std::size_t>(k)].current_A < 0) std::swap(high, low);
                if ((upstream ? low : high) != node) continue;
                taken[static_cast<std::size_t>(k)] = 1;
                open.push_back(upstream ? high : low);
            }
        }
    };
    follow(load.pos, true);
    follow(load.neg, false);
    std::vector<int> path;
    for (std::size_t k = 0; k < taken.size(); ++k)
        if (taken[k]) path.push_back(static_cast<int>(k));
    std::stable_sort(path.begin(), path.end(), [&](int a, int b) {
        return std::abs(point.conductors[static_cast<std::size_t>(a)].drop_V) >
               std::abs(point.conductors[static_cast<std::size_t>(b)].drop_V);
    });
    return path;
}

Result<RunLadder> run_ladder(const Plan& plan, const Id& run_id) {
    const Run* found = find(plan.runs, run_id);
    if (!found) return fail(ErrorCode::missing_reference, "run", run_id, "a run of this plan");
    if (found->body_metal || found->resistance_ohm)
        return fail(ErrorCode::unknown_size, found->name, {}, "a cable with a size");
    const auto index = static_cast<std::size_t>(found - plan.runs.data());
    const WireSize now = found->size.value_or(WireSize::awg(14));

    RunLadder ladder;
    for (const Device& d : found->devices)
        if (d.kind == DeviceKind::fuse)
            ladder.fuse_A = ladder.fuse_A > 0 ? std::min(ladder.fuse_A, d.rating_A) : d.rating_A;
    const std::vector<char> served = served_loads(plan, run_id, solve_all(plan));
    Plan trial = plan;
    for (const WireSize& size : sizes_of(now.system())) {
        trial.runs[index].size = size;
        ladder.rows.push_back(judge(trial, index, served, solve_all(trial), ladder.fuse_A));
        if (size == now) ladder.now = static_cast<int>(ladder.rows.size()) - 1;
    }
    for (std::size_t k = 0; k < ladder.rows.size() && ladder.chosen < 0; ++k)
        if (ladder.rows[k].passes()) ladder.chosen = static_cast<int>(k);
    const int failing = ladder.chosen < 0 ? static_cast<int>(ladder.rows.size()) - 1 : ladder.chosen - 1;
    if (failing >= 0) ladder.decides = decider(ladder.rows[static_cast<std::size_t>(failing)]);
    return ladder;
}

}  // namespace yr
