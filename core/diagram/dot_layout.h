// Which rank each box of a graph stands in and in what order, by Graphviz (`dot`, run as a program; ranks and
// order after Gansner, Koutsofios, North and Vo 1993). Lines are drawn by channels.h.
#pragma once

#include <string>
#include <vector>

#include "files/program.h"
#include "units/result.h"

namespace yr {

struct GraphNode {
    double wide_mm = 30, high_mm = 12;
    bool first = false;  // stands in the first rank
};
struct GraphEdge {
    std::size_t from = 0, to = 0;
};
struct PlacedNode {
    int rank = 0;
    double y_mm = 0;  // its middle, from the top
};
struct PlacedGraph {
    std::vector<PlacedNode> nodes;
    // Each edge as the nodes it passes, rank by rank; those beyond the graph's own are mere bends.
    std::vector<std::vector<std::size_t>> ways;
    std::vector<PlacedNode> bends;  // node n of a way is bends[n - nodes.size()] from there on
    int ranks = 0;
    double high_mm = 0;
};

// Failure: unreadable_file "dot" where that program is missing or fails.
[[nodiscard]] Result<PlacedGraph> place_graph(const std::vector<GraphNode>& nodes,
                                              const std::vector<GraphEdge>& edges,
                                              const ProgramLimits& limits = {});

}  // namespace yr
