// One graph of things and cables drawn on one sheet. For sheets.cpp.
#pragma once

#include <map>

#include "diagram/dot_layout.h"
#include "diagram/symbols.h"
#include "fabricate/wires.h"

namespace yr {

struct DrawNode {
    Id id;
    Symbol symbol{};
    bool mirrored = false;               // its negative leads on
    std::string name, below;             // below: a smaller line
    std::vector<std::string> to_ground;  // labels of its return cables, each with where it ends
    std::vector<Id> ground_ids;          // runs of those
    std::vector<std::string> ground_names;
    std::vector<char> ground_frame;
};
struct DrawEdge {
    std::size_t from = 0, to = 0;
    const Run* run = nullptr;       // nullptr: a bond
    const WireRow* wire = nullptr;  // nullptr: body metal
    Id bond;                        // ground point
    Terminal at_from, at_to;        // its ends as drawn, for terminal numbers
};
struct DrawnGraph {
    Strokes strokes;
    double wide_mm = 0, high_mm = 0;
    int crossings = 0;
    std::vector<std::pair<double, double>> at;  // middle of each node, mm
    std::vector<double> below;                  // y of the first free line under it
};

[[nodiscard]] Result<DrawnGraph> draw_graph(const Plan& plan, const std::vector<DrawNode>& nodes,
                                            const std::vector<DrawEdge>& edges, const ProgramLimits& limits);

}  // namespace yr
