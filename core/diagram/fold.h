// Graphs drawn on sheets that can be read: one too wide is folded into bands, one below another or on a sheet
// of its own; what stands in several places says where it goes on. For sheets.cpp.
#pragma once

#include "diagram/draw_graph.h"
#include "diagram/sheets.h"

namespace yr {

struct GraphPage {
    std::string title;
    std::vector<DrawNode> nodes;
    std::vector<DrawEdge> edges;
};

// Failure: as draw_graph().
[[nodiscard]] Result<Diagram> folded(const Plan& plan, std::vector<GraphPage> pages,
                                     const ProgramLimits& limits);

}  // namespace yr
