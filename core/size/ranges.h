// Results when lengths, draws, air and joints are ranges: the least and the most that each load and cable can
// see for every value inside them, not for some samples.
//
// A voltage or current of a linear circuit is a linear-fractional function of each single resistance and
// linear in each current, so its extremes lie at corners of the box of ranges. The corner is found from the
// slopes at its middle; for cables that lie in no loop and for draws that slope cannot change sign, so that
// corner is exact. For cables in loops all corners are tried (up to kMostLooped of them). Air is one common
// value: both ends and points between; each band is widened by 0.2 % of itself. Where more loops are ranged
// than can be tried, corners are climbed and the band says it is not proved.
#pragma once

#include <atomic>
#include <vector>

#include "solve/settle.h"

namespace yr {

inline constexpr std::size_t kMostLooped = 8;

struct Band {
    double least = 0, most = 0;
};

struct StateBands {
    std::vector<Band> load_V, drop_V;  // by load; where it runs in this state, else zeros
    std::vector<Band> run_A;           // by run, size of the current
    bool proved = true;
};

// Whether the plan states any range.
[[nodiscard]] bool has_ranges(const Plan& plan);

// REQUIRES: state is an index of the plan's. A plan without ranges gives bands of no width. `cancel` may stop
// it; the bands then hold what was found.
[[nodiscard]] StateBands bands_of(const Plan& plan, std::size_t state,
                                  const std::atomic<bool>* cancel = nullptr);

// One point of the box, for checks: each value 0..1 from least to most, in the order runs with a length
// range, loads with a draw range, air, joints.
[[nodiscard]] std::size_t ranged_values(const Plan& plan);
[[nodiscard]] Solution solve_within(const Plan& plan, std::size_t state, const std::vector<double>& values,
                                    OperatingPointSolver& solver);

}  // namespace yr
