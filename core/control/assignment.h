// Loads to channels, fuse-block ways and direct feeds as a 0-1 program: numbers only, no plan. The plan's own
// side of it is in assign.h.
//
// Each load takes one place on one way. A way is a set of like places: the channels of one box with one
// rating, or the ways of a fuse block. A joined way takes two places of another one. Limits hold over the
// ways they list, in every key position on its own: what is never on together does not add up.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "choice/zero_one.h"
#include "control/key_positions.h"

namespace yr {

struct AssignWay {
    int feed = 0;         // ways of one box or block share it
    int places = 1;       // like channels that are free
    double rating_A = 0;  // each may carry for ever
    double peak_A = 0;    // each may carry at a start
    int joined_of = -1;   // takes two places of that way; then `places` is not its own
};

struct AssignLimit {
    double limit_A = 0;
    std::array<double, kKeyPositions> taken_A{};  // by what is not being moved
    std::vector<int> ways;
};

struct AssignLoad {
    double amps = 0, start_A = 0;
    LiveAt live{};
    std::vector<std::optional<double>> cost;  // by way; empty: cannot go there, whatever else does
    std::string together, apart;              // the same word: one feed; a feed each
    std::optional<int> pinned;                // to that way
};

struct AssignProblem {
    std::vector<AssignWay> ways;
    std::vector<AssignLimit> limits;
    std::vector<AssignLoad> loads;
    ZeroOneLimits limits_of_time{};  // for each question
};

struct AssignAnswer {
    bool feasible = false;
    bool known = true;  // false: stopped or failed before anything was proved
    double cost = 0;
    std::vector<int> way;  // by load; empty where there is no answer
};

// The least cost over all that is allowed, proven.
[[nodiscard]] AssignAnswer assign(const AssignProblem& problem);

// Whether a load may go on a way by itself: allowed there, rating and peak not exceeded, pin respected.
[[nodiscard]] bool fits_alone(const AssignProblem& problem, std::size_t load, std::size_t way);

// A smallest set of loads that cannot all be placed: take any one out and the others can. Empty where
// everything fits. REQUIRES: assign(problem) is infeasible, else the search is wasted.
[[nodiscard]] std::vector<int> conflict(const AssignProblem& problem);

// Whether those loads alone can be placed, one of the limits left out perhaps; true where it is not known.
[[nodiscard]] bool fits_together(const AssignProblem& problem, const std::vector<int>& loads,
                                 std::size_t without = SIZE_MAX);

// The least that limit would have to be for everything to fit, all else as it stands, A; empty where even no
// limit there would do.
[[nodiscard]] std::optional<double> least_limit_A(const AssignProblem& problem, std::size_t limit);

}  // namespace yr
