#include "control/feed_tree.h"

#include <queue>

#include "catalog/assumptions.h"
#include "plan/rail_volts.h"

namespace yr {

std::map<Id, FeedPath> feed_paths(const Plan& plan) {
    std::map<Terminal, FeedPath> best;
    using Item = std::pair<double, Terminal>;
    std::priority_queue<Item, std::vector<Item>, std::greater<>> open;
    const auto spread = [&] {
        while (!open.empty()) {
            const auto [length, node] = open.top();
            open.pop();
            if (length > best[node].length_m) continue;
            for (const Run& r : plan.runs) {
                if (r.body_metal || r.resistance_ohm || (r.from != node && r.to != node)) continue;
                const Terminal& next = r.from == node ? r.to : r.from;
                if (!find(plan.points, next)) continue;
                const double far = length + length_or_assumed_m(r);
                const auto found = best.find(next);
                if (found != best.end() && found->second.length_m <= far) continue;
                FeedPath path = best[node];
                path.length_m = far;
                path.runs.push_back(r.id);
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
