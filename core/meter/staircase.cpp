#include "meter/staircase.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace yr {
namespace {

constexpr double kLeastStep_A = 1e-3;
constexpr std::size_t kMostSteps = 40;

// Against the current from the load's plus, or along it from its minus: conductors, nearest first.
std::vector<int> walk(const Solution& s, NodeIndex from, bool against) {
    std::vector<int> way;
    std::set<NodeIndex> seen{from};
    for (NodeIndex at = from; way.size() < kMostSteps;) {
        int best = -1;
        double most = kLeastStep_A;
        NodeIndex next = kNoNode;
        for (std::size_t k = 0; k < s.network.conductors.size(); ++k) {
            const ConductorElement& c = s.network.conductors[k];
            if (!c.closed || (c.run < 0 && c.ground_point < 0)) continue;
            const double i = s.point.conductors[k].current_A;
            const bool into = (c.to == at && i > 0) || (c.from == at && i < 0);
            const bool out = (c.from == at && i > 0) || (c.to == at && i < 0);
            const NodeIndex other = c.from == at ? c.to : c.from;
            if ((against ? into : out) && !seen.contains(other) && std::abs(i) > most)
                most = std::abs(i), best = static_cast<int>(k), next = other;
        }
        if (best < 0) break;
        way.push_back(best);
        seen.insert(next);
        at = next;
        const Terminal& t = s.network.nodes[static_cast<std::size_t>(at)];
        const bool source = t.post == Post::out || (t.post == (against ? Post::pos : Post::neg));
        if (source && std::any_of(s.network.batteries.begin(), s.network.batteries.end(),
                                  [&](const BatteryElement& b) { return b.pos == at || b.neg == at; }))
            break;
    }
    return way;
}

Id id_of(const Plan& plan, const ConductorElement& c) {
    return c.run >= 0 ? plan.runs[static_cast<std::size_t>(c.run)].id
                      : plan.points[static_cast<std::size_t>(c.ground_point)].id;
}

}  // namespace

std::vector<Stair> staircase(const Plan& plan, Expecter& expecter, const Id& load, const Id& state) {
    std::vector<Stair> out;
    Probing base;
    base.state = state;
    const Solution& s = expecter.solution(base);
    std::size_t l = plan.loads.size();
    for (std::size_t k = 0; k < plan.loads.size(); ++k)
        if (plan.loads[k].id == load) l = k;
    if (l == plan.loads.size() || !s.point.settled || s.point.loads[l].status != LoadStatus::on ||
        s.network.loads[l].pos == kNoNode)
        return out;
    const auto add = [&](NodeIndex node, const Id& by, bool ret) {
        Stair step;
        step.at = s.network.nodes[static_cast<std::size_t>(node)];
        step.by = by, step.on_return = ret;
        step.expected = expecter.of({ReadKind::volts, step.at, {}, {}, state, {}});
        out.push_back(std::move(step));
    };
    const NodeIndex plus = s.network.loads[l].pos, minus = s.network.loads[l].neg;
    const auto supply = walk(s, plus, true);
    NodeIndex at = plus;
    std::vector<std::pair<NodeIndex, Id>> there{{plus, {}}};  // from the load back to the source
    for (const int k : supply) {
        const ConductorElement& c = s.network.conductors[static_cast<std::size_t>(k)];
        there.back().second = id_of(plan, c);
        at = c.from == at ? c.to : c.from;
        there.emplace_back(at, Id());
    }
    for (auto step = there.rbegin(); step != there.rend(); ++step) add(step->first, step->second, false);
    add(minus, {}, true);
    at = minus;
    for (const int k : walk(s, minus, false)) {
        const ConductorElement& c = s.network.conductors[static_cast<std::size_t>(k)];
        at = c.from == at ? c.to : c.from;
        add(at, id_of(plan, c), true);
    }
    return out;
}

}  // namespace yr
