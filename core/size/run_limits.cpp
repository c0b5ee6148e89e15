#include "size/run_limits.h"

#include <algorithm>
#include <limits>
#include <map>
#include <queue>

#include "catalog/assumptions.h"
#include "plan/rail_volts.h"

namespace yr {
namespace {

constexpr double kNoFuse = std::numeric_limits<double>::infinity();

const Device* least_fuse(const Run& run) {
    const Device* least = nullptr;
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse && (!least || d.rating_A < least->rating_A)) least = &d;
    return least;
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
    ask.bundle = bundle_of(plan, run);
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

FedEnds::FedEnds(const Plan& plan) {
    const auto of = [&](const Terminal& t) {
        const auto [found, added] = index_.try_emplace(t, index_.size());
        if (added) ways_.emplace_back(), battery_.push_back(0);
        return found->second;
    };
    for (const Run& r : plan.runs) {
        if (r.body_metal) continue;
        const std::size_t from = of(r.from), to = of(r.to);
        const Device* fuse = least_fuse(r);
        ways_[from].push_back({to, fuse, &r});
        ways_[to].push_back({from, fuse, &r});
    }
    for (const Battery& b : plan.batteries) battery_[of(pos_of(b.id))] = 1;
}

// The largest current that no fuse on the way from any battery to `end` would cut, with `without` taken out:
// the path whose smallest fuse is the largest. nullopt: no battery reaches it.
std::optional<FedEnds::Reach> FedEnds::reach_A(const Terminal& end, const Run& without) const {
    const auto start = index_.find(end);
    if (start == index_.end()) return std::nullopt;
    std::unordered_map<std::size_t, Reach> best{{start->second, {kNoFuse, nullptr}}};
    std::priority_queue<std::pair<double, std::size_t>> open;
    open.emplace(kNoFuse, start->second);
    while (!open.empty()) {
        const auto [amps, node] = open.top();
        open.pop();
        const Reach here = best[node];
        if (amps < here.amps) continue;
        if (battery_[node]) return here;
        for (const Way& w : ways_[node]) {
            if (w.run->id == without.id) continue;
            if (ways_[w.to].size() < 2 && !battery_[w.to]) continue;  // leads nowhere
            const Reach through =
                w.fuse && w.fuse->rating_A < here.amps ? Reach{w.fuse->rating_A, w.fuse} : here;
            const auto [found, added] = best.try_emplace(w.to, through);
            if (!added && through.amps <= found->second.amps) continue;
            found->second = through;
            open.emplace(through.amps, w.to);
        }
    }
    return std::nullopt;
}

std::vector<EndProtection> fed_ends(const Plan& plan, const Run& run) {
    return FedEnds(plan).of(run);
}

std::vector<EndProtection> FedEnds::of(const Run& run) const {
    std::vector<EndProtection> ends;
    const double length = length_or_assumed_m(run);
    for (const bool at_from : {true, false}) {
        const auto reach = reach_A(at_from ? run.from : run.to, run);
        if (!reach) continue;
        EndProtection end;
        end.at_from = at_from;
        if (reach->fuse) end.upstream_A = reach->amps, end.upstream = reach->fuse;
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
    const double v = rail_V(plan, load);
    State full;  // a winch by its own pull
    const Draw d = draw_in(load, full);
    return d.kind == DrawKind::current ? d.value : d.kind == DrawKind::power ? d.value / v : v / d.value;
}

double start_A(const Plan& plan, const Load& load) {
    return std::max(nominal_A(plan, load), load.inrush_A.value_or(0) * load.count);
}

}  // namespace yr
