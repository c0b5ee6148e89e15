#include "network/bridges.h"

#include <algorithm>

namespace yr {
namespace {

// Depth-first numbering after Tarjan 1974, "A note on finding the bridges of a graph" (from memory), without
// recursion: plans may be long chains.
struct Edge {
    NodeIndex a, b;
    int conductor;  // -1: battery or source
};

}  // namespace

std::vector<char> bridges_of(const Network& net) {
    std::vector<Edge> edges;
    for (std::size_t k = 0; k < net.conductors.size(); ++k)
        if (net.conductors[k].closed)
            edges.push_back({net.conductors[k].from, net.conductors[k].to, static_cast<int>(k)});
    for (const BatteryElement& b : net.batteries) edges.push_back({b.pos, b.neg, -1});
    for (const SourceElement& s : net.sources)
        if (s.works) edges.push_back({s.out, s.neg, -1});
    std::vector<std::vector<std::size_t>> touching(net.nodes.size());
    for (std::size_t k = 0; k < edges.size(); ++k) {
        touching[static_cast<std::size_t>(edges[k].a)].push_back(k);
        touching[static_cast<std::size_t>(edges[k].b)].push_back(k);
    }
    std::vector<int> number(net.nodes.size(), -1), low(net.nodes.size(), 0);
    std::vector<char> bridge(net.conductors.size(), 0);
    for (std::size_t k = 0; k < net.conductors.size(); ++k) bridge[k] = !net.conductors[k].closed;
    int count = 0;
    struct Frame {
        std::size_t node, by, next;
    };
    const std::size_t none = edges.size();
    for (std::size_t root = 0; root < net.nodes.size(); ++root) {
        if (number[root] >= 0) continue;
        std::vector<Frame> stack{{root, none, 0}};
        number[root] = low[root] = count++;
        while (!stack.empty()) {
            Frame& f = stack.back();
            if (f.next < touching[f.node].size()) {
                const std::size_t e = touching[f.node][f.next++];
                if (e == f.by) continue;
                const auto other = static_cast<std::size_t>(
                    edges[e].a == static_cast<NodeIndex>(f.node) ? edges[e].b : edges[e].a);
                if (number[other] >= 0) {
                    low[f.node] = std::min(low[f.node], number[other]);
                } else {
                    number[other] = low[other] = count++;
                    stack.push_back({other, e, 0});
                }
                continue;
            }
            const Frame done = f;
            stack.pop_back();
            if (stack.empty()) continue;
            const std::size_t parent = stack.back().node;
            low[parent] = std::min(low[parent], low[done.node]);
            if (low[done.node] > number[parent] && edges[done.by].conductor >= 0)
                bridge[static_cast<std::size_t>(edges[done.by].conductor)] = 1;
        }
    }
    return bridge;
}

}  // namespace yr
