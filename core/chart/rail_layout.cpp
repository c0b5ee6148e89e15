#include "chart/rail_layout.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <random>

#include "chart/strands.h"
#include "solve/results.h"
#include "units/at.h"

namespace yr {
namespace {

// Everything that carries current downhill, and every source that lifts it.
FlowGraph read_flow(const Network& net, const OperatingPoint& point, double least_A) {
    FlowGraph g;
    g.node_V = point.node_V;
    const auto add = [&](ChartThing thing, std::size_t index, NodeIndex high, NodeIndex low, double amps) {
        if (amps > least_A) g.branches.push_back({{thing, static_cast<int>(index)}, high, low, amps});
    };
    for (std::size_t k = 0; k < net.conductors.size(); ++k) {
        const double amps = point.conductors[k].current_A;
        const auto& c = net.conductors[k];
        if (amps >= 0)
            add(ChartThing::conductor, k, c.from, c.to, amps);
        else
            add(ChartThing::conductor, k, c.to, c.from, -amps);
    }
    for (std::size_t k = 0; k < net.loads.size(); ++k) {
        const LoadElement& l = net.loads[k];
        if (l.inverter >= 0) continue;  // on mains
        if (k < net.plan_loads)
            add(ChartThing::load, k, l.pos, l.neg, point.loads[k].current_A);
        else if (k < net.plan_loads + net.inverters)
            add(ChartThing::inverter, k - net.plan_loads, l.pos, l.neg, point.loads[k].current_A);
        else
            add(ChartThing::standby, k - net.plan_loads - net.inverters, l.pos, l.neg,
                point.loads[k].current_A);
    }
    for (std::size_t k = 0; k < net.batteries.size(); ++k) {
        const double amps = point.batteries[k].current_A;
        add(ChartThing::charging, k, net.batteries[k].pos, net.batteries[k].neg, -amps);
        if (amps > least_A)
            g.lifts.push_back({static_cast<int>(k), net.batteries[k].neg, net.batteries[k].pos, amps});
    }
    for (std::size_t k = 0; k < net.sources.size(); ++k) {
        const auto& s = net.sources[k];
        if (s.in != kNoNode) add(ChartThing::converter, k, s.in, s.neg, point.sources[k].input_A);
        if (point.sources[k].current_A > least_A)
            g.lifts.push_back(
                {static_cast<int>(net.batteries.size() + k), s.neg, s.out, point.sources[k].current_A});
    }
    return g;
}

struct Sides {
    std::vector<int> group;
    std::vector<double> top;  // by group: highest source terminal; -inf where no source lifts into it
    double floor = 0;
};

Sides find_sides(const Network& net, const FlowGraph& g) {
    Sides s;
    s.group = conductor_groups(net);
    s.top.assign(net.nodes.size(), -std::numeric_limits<double>::infinity());
    s.floor = std::numeric_limits<double>::infinity();
    for (const Lift& lift : g.lifts) {
        double& top = s.top[at(s.group[at(lift.to)])];
        top = std::max(top, g.node_V[at(lift.to)]);
        s.floor = std::min(s.floor, g.node_V[at(lift.from)]);
    }
    return s;
}

void place_on_side(ChartPiece& piece, const Branch& branch, const Sides& sides) {
    if (piece.ref.thing != ChartThing::conductor) return;
    const double top = sides.top[at(sides.group[at(branch.high)])];
    if (std::isfinite(top)) {
        piece.side = ChartSide::supply;
        piece.lost_top_V = top - piece.high_V;
        piece.lost_bottom_V = top - piece.low_V;
    } else {
        piece.side = ChartSide::ret;
        piece.lost_top_V = piece.high_V - sides.floor;
        piece.lost_bottom_V = piece.low_V - sides.floor;
    }
}

}  // namespace

RailLayout lay_out(const Network& network, const OperatingPoint& point, const ChartOrder* previous,
                   double least_A) {
    RailLayout layout;
    FlowGraph graph = read_flow(network, point, least_A);
    if (graph.lifts.empty()) return layout;
    StrandSweep sweep(std::move(graph));
    layout.order = sweep.choose_order(previous);
    const SweepResult result = sweep.run(layout.order, true);
    layout.cuts = result.cuts;
    const Sides sides = find_sides(network, sweep.graph());
    const StrandSweep::Depths depths = sweep.depths();

    for (const Strand& strand : result.sources) {
        const Lift& lift = sweep.graph().lifts[at(strand.branch)];
        const auto batteries = static_cast<int>(network.batteries.size());
        ChartSource s;
        s.battery = lift.source < batteries;
        s.index = s.battery ? lift.source : lift.source - batteries;
        s.left_A = strand.left;
        s.right_A = strand.right;
        s.top_V = point.node_V[at(lift.to)];
        s.lost_top_V = sides.top[at(sides.group[at(lift.to)])] - s.top_V;
        layout.width_A = std::max(layout.width_A, s.right_A);
        layout.sources.push_back(s);
    }
    std::vector<int> count(sweep.graph().branches.size(), 0);
    for (const Strand& strand : result.pieces) ++count[at(strand.branch)];
    for (const Strand& strand : result.pieces) {
        const Branch& b = sweep.graph().branches[at(strand.branch)];
        ChartPiece piece;
        piece.ref = b.ref;
        piece.left_A = strand.left;
        piece.right_A = strand.right;
        piece.high_V = point.node_V[at(b.high)];
        piece.low_V = point.node_V[at(b.low)];
        piece.pieces = count[at(strand.branch)];
        place_on_side(piece, b, sides);
        if (piece.side == ChartSide::supply) piece.depth = depths.from_top[at(b.high)];
        if (piece.side == ChartSide::ret) piece.depth = depths.from_floor[at(b.low)];
        if (piece.side == ChartSide::supply)
            layout.deepest_supply_V = std::max(layout.deepest_supply_V, piece.lost_bottom_V);
        if (piece.side == ChartSide::ret)
            layout.deepest_return_V = std::max(layout.deepest_return_V, piece.lost_top_V);
        layout.pieces.push_back(piece);
    }
    return layout;
}

}  // namespace yr
