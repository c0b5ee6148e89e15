#include "control/feed_tree.h"

#include <queue>
#include <string_view>
#include <unordered_set>

#include "catalog/assumptions.h"
#include "plan/rail_volts.h"

namespace yr {
namespace {

// A cable and the point that it leads to.
using Onward = std::pair<const Run*, Terminal>;

// By terminal: the cables from there on that end at a point.
std::map<Terminal, std::vector<Onward>> runs_between_points(const Plan& plan) {
    std::unordered_set<std::string_view> points;
    for (const Point& p : plan.points) points.insert(p.id);
    const auto is_point = [&](const Terminal& t) { return t.post == Post::stud && points.contains(t.owner); };
    std::map<Terminal, std::vector<Onward>> onward;
    for (const Run& r : plan.runs) {
        if (r.body_metal || r.resistance_ohm) continue;
        if (is_point(r.to)) onward[r.from].emplace_back(&r, r.to);
        if (is_point(r.from)) onward[r.to].emplace_back(&r, r.from);
    }
    return onward;
}

}  // namespace

std::map<Id, FeedPath> feed_paths(const Plan& plan) {
    std::map<Terminal, FeedPath> best;
    const auto from = runs_between_points(plan);
    using Item = std::pair<double, Terminal>;
    std::priority_queue<Item, std::vector<Item>, std::greater<>> open;
    const auto spread = [&] {
        while (!open.empty()) {
            const auto [length, node] = open.top();
            open.pop();
            if (length > best[node].length_m) continue;
            const auto there = from.find(node);
            if (there == from.end()) continue;
            for (const auto& [run, next] : there->second) {
                const double far = length + length_or_assumed_m(*run);
                const auto found = best.find(next);
                if (found != best.end() && found->second.length_m <= far) continue;
                FeedPath path = best[node];
                path.length_m = far;
                path.runs.push_back(run->id);
                best[next] = path;
                open.emplace(far, next);
            }
        }
    };
    for (const Battery& b : plan.batteries) {
        best[pos_of(b.id)] = {0, b.id, {}};
        open.emplace(0, pos_of(b.id));
    }
    spread();
    for (const Source& s : plan.sources)
        if (!best.contains(out_of(s.id))) {
            best[out_of(s.id)] = {0, s.id, {}};
            open.emplace(0, out_of(s.id));
        }
    spread();
    std::map<Id, FeedPath> feeds;
    for (const Point& p : plan.points)
        if (const auto found = best.find(p.id); found != best.end()) feeds[p.id] = found->second;
    return feeds;
}

double root_V(const Plan& plan, const Id& root) {
    const double nominal = plan.vehicle.nominal_V;
    if (const Battery* b = find(plan.batteries, root)) return battery_V(plan, *b);
    if (const Source* s = find(plan.sources, root)) return s->regulated_V.value_or(nominal);
    return nominal;
}

bool suits_accessories(const Plan& plan, const FeedPath& path) {
    const double share = root_V(plan, path.root) / plan.vehicle.nominal_V;
    return share > 0.5 && share < 1.6;
}

}  // namespace yr
