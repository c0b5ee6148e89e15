// The rail chart as geometry: the network drawn as rectangles, width = amps, height = volts, area = watts.
//
// R. L. Brooks, C. A. B. Smith, A. H. Stone, W. T. Tutte 1940, "The dissection of rectangles into squares",
// Duke Math. J. 7: a planar network is a rectangle cut into one rectangle per branch. Here current falls from
// the sources' positive terminals to their negatives as strands that never move sideways. At each node the
// strands that arrive are handed to the branches that leave, left to right. Where a node's strands do not
// stand side by side, a branch is drawn in several pieces whose widths add up to its current, so that every
// piece is true. The order in which branches leave their nodes is chosen so that as few branches as possible
// are cut.
#pragma once

#include <vector>

#include "solve/operating_point.h"

namespace yr {

// charging: a battery that takes current; converter, inverter: what theirs takes from its rail
// standby: what a box takes for itself; its index is among the network's standby_points
enum class ChartThing { conductor, load, charging, converter, inverter, standby };
enum class ChartSide { supply, gap, ret };

struct ChartRef {
    ChartThing thing{};
    int index = 0;  // in the network's list of that kind
    friend bool operator==(const ChartRef&, const ChartRef&) = default;
};

struct ChartPiece {
    ChartRef ref;
    double left_A = 0, right_A = 0;  // along the chart's width
    double high_V = 0, low_V = 0;    // potentials at its upper and lower edge
    ChartSide side = ChartSide::gap;
    double lost_top_V = 0;     // supply: below its rail's top; return: above the floor; at the upper edge
    double lost_bottom_V = 0;  // the same at the lower edge
    int depth = 0;             // branches between it and the source (supply) or the floor (return)
    int pieces = 1;            // of its branch in all
};

struct ChartSource {
    bool battery = false;
    int index = 0;  // in the network's batteries or sources
    double left_A = 0, right_A = 0;
    double lost_top_V = 0;  // how far its terminal stands below its rail's top
    double top_V = 0;
};

// The order in which branches leave nodes; given to the next layout so that nothing jumps about.
struct ChartOrder {
    std::vector<std::vector<ChartRef>> leaving;  // by node
    std::vector<int> sources;  // batteries as index, other sources as batteries.size() + index
};

struct RailLayout {
    double width_A = 0;
    double deepest_supply_V = 0;  // the largest loss on the supply side
    double deepest_return_V = 0;
    std::vector<ChartSource> sources;
    std::vector<ChartPiece> pieces;
    ChartOrder order;
    int cuts = 0;  // pieces beyond one a branch
};

// `previous` may be null. Currents below `least_A` are left out. Never fails; a dead network gives width 0.
[[nodiscard]] RailLayout lay_out(const Network& network, const OperatingPoint& point,
                                 const ChartOrder* previous, double least_A = 1e-6);

}  // namespace yr
