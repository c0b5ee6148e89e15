#include "solve/reach.h"

#include <algorithm>

namespace yr {
namespace {

using Neighbours = std::vector<std::vector<NodeIndex>>;

std::vector<char> flood(const Neighbours& next, std::vector<NodeIndex> open) {
    std::vector<char> reached(next.size(), 0);
    for (NodeIndex n : open) reached[static_cast<std::size_t>(n)] = 1;
    while (!open.empty()) {
        const auto here = static_cast<std::size_t>(open.back());
        open.pop_back();
        for (NodeIndex n : next[here])
            if (!reached[static_cast<std::size_t>(n)])
                reached[static_cast<std::size_t>(n)] = 1, open.push_back(n);
    }
    return reached;
}

}  // namespace

Reach::Reach(const Network& net, const std::vector<char>& source_on) {
    all_ = std::none_of(net.conductors.begin(), net.conductors.end(),
                        [](const ConductorElement& c) { return c.forward_V > 0; });
    if (all_) return;
    Neighbours with(net.nodes.size()), against(net.nodes.size());
    const auto one_way = [&](NodeIndex a, NodeIndex b) {
        with[static_cast<std::size_t>(a)].push_back(b);
        against[static_cast<std::size_t>(b)].push_back(a);
    };
    for (const ConductorElement& c : net.conductors) {
        if (!c.closed) continue;
        one_way(c.from, c.to);
        if (c.forward_V <= 0) one_way(c.to, c.from);
    }
    for (const LoadElement& l : net.loads)
        if (l.wanted && l.kind == DrawKind::resistance) one_way(l.pos, l.neg), one_way(l.neg, l.pos);
    std::vector<NodeIndex> out, home;
    for (const BatteryElement& b : net.batteries) out.push_back(b.pos), home.push_back(b.neg);
    for (std::size_t k = 0; k < net.sources.size(); ++k)
        if (source_on[k]) out.push_back(net.sources[k].out), home.push_back(net.sources[k].neg);
    from_ = flood(with, std::move(out));
    back_ = flood(against, std::move(home));
}

}  // namespace yr
