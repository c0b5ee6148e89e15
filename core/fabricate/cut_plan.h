// All cables of a plan cut from rolls: one cutting for each size, material and colour.
#pragma once

#include "fabricate/cutting.h"
#include "fabricate/wires.h"

namespace yr {

struct SizeCutting {
    WireSize size = WireSize::awg(10);
    Material material{};
    std::string colour;
    double sold_m = 0;             // a roll that is bought; 0: by the metre
    double by_the_metre = 0;       // m to buy, where it is sold so
    std::vector<CutPiece> pieces;  // names are the runs' ids
    Cutting cutting;
};

// Rolls at hand are the policy's stock, whatever their colour, each used for the first that needs it. What is
// sold: the policy's rolls, else 25 m up to 6 mm2, 10 m up to 16 mm2, thicker by the metre (common practice).
// Failure of none: what fits no roll is named in `too_long`. Several vehicles alike are cut together.
[[nodiscard]] std::vector<SizeCutting> cut_plan(const Plan& plan, int vehicles = 1,
                                                const std::atomic<bool>* stop = nullptr);

}  // namespace yr
