// For each load and key position: should it be alive, and is it? As the plan solves it, with the switches
// that the load asks for on, and once more with them off.
#pragma once

#include "control/key_positions.h"

namespace yr {

struct LiveCell {
    bool wanted = false;     // by its live_when, its own switches on
    bool alive = false;      // as solved so
    bool alive_off = false;  // with its own switches off; the same as `alive` where it has none
    bool wanted_off = false;
    [[nodiscard]] bool wrong() const { return wanted != alive || wanted_off != alive_off; }
};

struct LiveRow {
    Id load;
    std::array<LiveCell, kKeyPositions> at{};
    [[nodiscard]] bool wrong() const;
};

// In the plan's order; loads on mains by their inverter. Never fails.
[[nodiscard]] std::vector<LiveRow> live_table(const Plan& plan);

}  // namespace yr
