#include "diagram/bands.h"

#include <algorithm>

namespace yr {
namespace {

// Ranks that the chosen edges take: the longest way along them. Rounds are bounded, a ring ends there.
int columns_of(std::size_t nodes, const std::vector<GraphEdge>& edges, const std::vector<char>& beyond,
               char wanted) {
    std::vector<int> rank(nodes, 0);
    bool moved = true;
    for (std::size_t round = 0; moved && round < nodes; ++round) {
        moved = false;
        for (std::size_t e = 0; e < edges.size(); ++e)
            if (beyond[e] == wanted && rank[edges[e].to] < rank[edges[e].from] + 1)
                rank[edges[e].to] = rank[edges[e].from] + 1, moved = true;
    }
    return 1 + (rank.empty() ? 0 : *std::max_element(rank.begin(), rank.end()));
}

std::vector<char> beyond_of(std::size_t at, std::size_t nodes, const std::vector<GraphEdge>& edges) {
    std::vector<char> reached(nodes, 0), beyond(edges.size(), 0);
    reached[at] = 1;
    bool more = true;
    while (more) {
        more = false;
        for (std::size_t e = 0; e < edges.size(); ++e)
            if (!beyond[e] && reached[edges[e].from]) beyond[e] = 1, reached[edges[e].to] = 1, more = true;
    }
    return beyond;
}

int in_both(std::size_t at, std::size_t nodes, const std::vector<GraphEdge>& edges,
            const std::vector<char>& beyond) {
    std::vector<char> first(nodes, 0), second(nodes, 0);
    for (std::size_t e = 0; e < edges.size(); ++e)
        for (const std::size_t n : {edges[e].from, edges[e].to}) (beyond[e] ? second : first)[n] = 1;
    int shared = 0;
    for (std::size_t n = 0; n < nodes; ++n) shared += n != at && first[n] && second[n];
    return shared;
}

// What stands at the end of a line: each takes a line of the sheet.
int ends_of(std::size_t nodes, const std::vector<GraphEdge>& edges, const std::vector<char>& beyond,
            char wanted) {
    std::vector<char> reached(nodes, 0), leads(nodes, 0);
    for (std::size_t e = 0; e < edges.size(); ++e)
        if (beyond[e] == wanted) leads[edges[e].from] = 1, reached[edges[e].to] = 1;
    int ends = 0;
    for (std::size_t n = 0; n < nodes; ++n) ends += reached[n] && !leads[n];
    return ends;
}

}  // namespace

std::optional<BandCut> cut_in_two(std::size_t nodes, const std::vector<GraphEdge>& edges, Measure by) {
    const auto size = by == Measure::ranks ? columns_of : ends_of;
    const int whole = size(nodes, edges, std::vector<char>(edges.size(), 0), 0);
    std::optional<BandCut> best;
    double least = whole;
    for (std::size_t at = 0; at < nodes; ++at) {
        std::vector<char> beyond = beyond_of(at, nodes, edges);
        const auto many = static_cast<std::size_t>(std::count(beyond.begin(), beyond.end(), 1));
        if (many == 0 || many == edges.size()) continue;
        const int larger = std::max(size(nodes, edges, beyond, 0), size(nodes, edges, beyond, 1));
        if (larger >= whole) continue;
        // of equals the one that leaves more together
        const double cost = larger + 0.4 * in_both(at, nodes, edges, beyond) +
                            0.01 * static_cast<double>(many) / static_cast<double>(edges.size());
        if (cost < least) least = cost, best = BandCut{at, std::move(beyond)};
    }
    return best;
}

}  // namespace yr
