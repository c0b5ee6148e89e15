// A graph too large for its sheet is cut at one of its things and goes on in a second band, as a long line of
// text goes on below. For sheets.cpp.
#pragma once

#include <optional>
#include <vector>

#include "diagram/dot_layout.h"

namespace yr {

struct BandCut {
    std::size_t at = 0;        // the thing that stands in both bands
    std::vector<char> beyond;  // of each edge: belongs to the second band
};

enum class Measure { ranks, ends };  // what is too much: its ranks side by side, what stands at their ends

// The cut that leaves the larger band least by that measure; what stands in both bands beside `at` counts
// against it. Failure: nothing, where no cut leaves both bands smaller than the whole.
[[nodiscard]] std::optional<BandCut> cut_in_two(std::size_t nodes, const std::vector<GraphEdge>& edges,
                                                Measure by);

}  // namespace yr
