// The circuit diagram of a plan: what brings current from left to right, each load with its ground, and a
// sheet of the grounds themselves. A feed with many loads has a sheet of its own; sheets have zones (A1 to
// F8) and say where they go on.
#pragma once

#include "diagram/dot_layout.h"
#include "diagram/strokes.h"

namespace yr {

struct DiagramSheet {
    std::string title;
    std::vector<Stroke> strokes;
    double scale = 1;  // below 1: drawn smaller so that it fits
    int crossings = 0;
};
struct Diagram {
    double wide_mm = 420, high_mm = 297;  // ISO 216 A3, laid across
    std::vector<DiagramSheet> sheets;
    [[nodiscard]] int crossings() const {
        int sum = 0;
        for (const DiagramSheet& s : sheets) sum += s.crossings;
        return sum;
    }
};

// Failure: unreadable_file "dot", see dot_layout.h.
[[nodiscard]] Result<Diagram> diagram_of(const Plan& plan, const ProgramLimits& limits = {});

}  // namespace yr
