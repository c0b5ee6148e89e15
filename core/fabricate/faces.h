// Connectors as the hand that fills them sees them: from the side at which the wires go in, both halves, pin
// by pin.
#pragma once

#include <string>
#include <vector>

#include "fabricate/wires.h"

namespace yr {

struct FacePin {
    int number = 1;
    int column = 0, row = 0;        // of the half towards the supply, from the left and from the top
    std::string function;           // of a socket that a standard describes
    std::vector<std::size_t> runs;  // indices in the plan; two where cables share a pin; empty: a blind plug
};

struct ConnectorFace {
    Id connector;
    int columns = 1, rows = 1;
    std::vector<FacePin> pins;  // by number
    // The other half's wires go in from the other side: it is the first one's mirror.
    [[nodiscard]] int mirrored(int column) const { return columns - 1 - column; }
};

// One for each connector, in the order of the plan; of as many pins as it is said to have, its socket has, or
// its cables use. Counted off from the left, the top row first; where its rows are not said, one for up to
// four pins and two for more. Where its pins lie is its maker's: the numbers beside them hold, the order here
// is a help. A connector without any pin is left out.
[[nodiscard]] std::vector<ConnectorFace> connector_faces(const Plan& plan);

}  // namespace yr
