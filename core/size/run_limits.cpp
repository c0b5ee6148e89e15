#include "size/run_limits.h"

#include <algorithm>
#include <limits>
#include <map>
#include <queue>

#include "catalog/assumptions.h"

namespace yr {
namespace {

constexpr double kNoFuse = std::numeric_limits<double>::infinity();

double least_fuse_A(const Run& run) {
    double least = kNoFuse;
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse) least = std::min(least, d.rating_A);
    return least;
}

// The largest current that no fuse on the way from any battery to `end` would cut, with `without` taken out:
// the path whose smallest fuse is the largest. nullopt: no battery reaches it.
std::optional<double> reach_A(const Plan& plan, const Terminal& end, const Id& without) {
    std::map<Terminal, double> best;
    using Item = std::pair<double, Terminal>;
    std::priority_queue<Item> open;
    for (const Battery& b : plan.batteries) {
        best[pos_of(b.id)] = kNoFuse;
        open.emplace(kNoFuse, pos_of(b.id));
    }
    while (!open.empty()) {
        const auto [amps, node] = open.top();
        open.pop();
        if (amps < best[node]) continue;
        if (node == end) return amps;
        for (const Run& r : plan.runs) {
            if (r.id == without || r.body_metal || (r.from != node && r.to != node)) continue;
            const Terminal& next = r.from == node ? r.to : r.from;
            const double through = std::min(amps, least_fuse_A(r));
            const auto found = best.find(next);
            if (found == best.end() || through > found->second) {
                best[next] = through;
                open.emplace(through, next);
            }
        }
    }
    return std::nullopt;
}

}  // namespace

std::optional<Ampacity> run_ampacity(const Plan& plan, const Run& run, const State& state) {
    if (run.body_metal || run.resistance_ohm) return std::nullopt;
    const RunAir air = run_air(plan, run, state);
    AmpacityAsk ask;
    ask.size = run.size.value_or(WireSize::awg(static_cast<int>(assumption("run_size_awg").value)));
    ask.material = run.material;
    ask.insulation_C = run.insulation_C;
    ask.engine_space = air.engine_space;
    ask.ambient_C = air.ambient_C;
    ask.bundle = run.bundle;
    ask.bundle_derating = plan.policy.bundle_derating;
    ask.table = plan.policy.ampacity_table;
    auto a = ampacity(ask);
    if (!a) return std::nullopt;
    a->allowed_A *= run.parallel;
    return *a;
}

std::optional<double> least_ampacity_A(const Plan& plan, const Run& run) {
    std::optional<double> least;
    for (const State& s : plan.states)
        if (const auto a = run_ampacity(plan, run, s))
            least = std::min(least.value_or(a->allowed_A), a->allowed_A);
    return least;
}

SupplySide::SupplySide(const Plan& plan) {
    std::map<Terminal, std::vector<Terminal>> next;
    for (const Run& r : plan.runs) {
        next[r.from].push_back(r.to);
        next[r.to].push_back(r.from);
    }
    for (const Point& p : plan.points)
        if (p.kind == PointKind::ground) {
            next[p.id].push_back(p.bonded_to);
            next[p.bonded_to].push_back(p.id);
        }
    std::vector<Terminal> open;
    for (const Battery& b : plan.batteries) open.push_back(pos_of(b.id));
    for (const Source& s : plan.sources) open.push_back(out_of(s.id));
    std::map<Terminal, bool> seen;
    while (!open.empty()) {
        const Terminal t = std::move(open.back());
        open.pop_back();
        if (seen[t]) continue;
        seen[t] = true;
        terminals_.push_back(t);
        for (const Terminal& n : next[t]) open.push_back(n);
    }
    std::sort(terminals_.begin(), terminals_.end());
}

bool SupplySide::contains(const Terminal& terminal) const {
    return std::binary_search(terminals_.begin(), terminals_.end(), terminal);
}

std::vector<EndProtection> fed_ends(const Plan& plan, const Run& run) {
    std::vector<EndProtection> ends;
    const double length = run.length_m.value_or(assumption("run_length_m").value);
    for (const bool at_from : {true, false}) {
        const auto reach = reach_A(plan, at_from ? run.from : run.to, run.id);
        if (!reach) continue;
        EndProtection end;
        end.at_from = at_from;
        if (*reach < kNoFuse) end.upstream_A = *reach;
        end.own_distance_m = std::numeric_limits<double>::infinity();
        for (const Device& d : run.devices) {
            if (d.kind != DeviceKind::fuse) continue;
            const double from_start = d.at_m.value_or(0);
            const double distance = at_from ? from_start : length - from_start;
            if (distance < end.own_distance_m) end.own_distance_m = distance, end.own = &d;
        }
        ends.push_back(end);
    }
    return ends;
}

double fuse_distance_m(const Plan& plan) {
    return plan.policy.fuse_distance_m.value_or(assumption("fuse_distance_road_m").value);
}

std::vector<Solution> solve_all(const Plan& plan) {
    OperatingPointSolver solver;
    std::vector<Solution> all;
    all.reserve(plan.states.size());
    for (const State& s : plan.states) all.push_back(solve(plan, s, solver));
    return all;
}

double nominal_A(const Plan& plan, const Load& load) {
    const double v = plan.vehicle.nominal_V;
    State full;  // a winch by its own pull
    const Draw d = draw_in(load, full);
    return d.kind == DrawKind::current ? d.value : d.kind == DrawKind::power ? d.value / v : v / d.value;
}

double start_A(const Plan& plan, const Load& load) {
    return std::max(nominal_A(plan, load), load.inrush_A.value_or(0) * load.count);
}

}  // namespace yr
