// The sweep behind the rail chart: current as strands that run from high to low potential. For
// rail_layout.cpp.
#pragma once

#include <vector>

#include "chart/rail_layout.h"

namespace yr {

struct Branch {
    ChartRef ref;
    NodeIndex high, low;
    double amps;
};

struct Lift {  // a source: takes current from a low node up to a high one
    int source;
    NodeIndex from, to;
    double amps;
};

struct FlowGraph {
    std::vector<double> node_V;
    std::vector<Branch> branches;
    std::vector<Lift> lifts;
};

struct Strand {
    int branch;  // of FlowGraph::branches, or of lifts in SweepResult::sources
    double left, right;
};

struct SweepResult {
    int cuts = 0;
    std::vector<Strand> pieces;
    std::vector<Strand> sources;
};

class StrandSweep {
  public:
    explicit StrandSweep(FlowGraph graph);

    // Best order found: from `previous` where it still fits, improved by moving branches within their nodes
    // while that lowers the number of cuts. Deterministic.
    [[nodiscard]] ChartOrder choose_order(const ChartOrder* previous);
    [[nodiscard]] SweepResult run(const ChartOrder& order, bool keep_pieces);
    // By node: how many conductors lie above it up to a source or load, and below it down to the next.
    struct Depths {
        std::vector<int> from_top, from_floor;
    };
    [[nodiscard]] Depths depths() const;
    [[nodiscard]] const FlowGraph& graph() const { return graph_; }

  private:
    using Orders = std::vector<std::vector<int>>;  // by node: branch numbers
    [[nodiscard]] int cost(const Orders& orders, const std::vector<int>& lifts, SweepResult* keep);
    [[nodiscard]] bool read_previous(const ChartOrder& previous, Orders& orders,
                                     std::vector<int>& lifts) const;
    [[nodiscard]] ChartOrder write(const Orders& orders, const std::vector<int>& lifts) const;
    void improve(Orders& orders, std::vector<int>& lifts, int& best, int& budget);

    FlowGraph graph_;
    std::vector<NodeIndex> sequence_;  // nodes that carry current, high before low
    Orders outgoing_;                  // in the plan's order
    std::vector<double> sunk_;         // by node: current that sources take away
    double eps_ = 0;
    std::vector<std::vector<std::pair<double, double>>> arriving_;  // scratch, by node
};

}  // namespace yr
