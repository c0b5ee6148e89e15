// Pieces cut from rolls: the fewest rolls, and of those the longest rest in one piece.
//
// One-dimensional cutting stock. A first answer by best fit, longest first; then branch and bound over which
// roll each piece is cut from, against the bound of Martello and Toth (1990, L2). Proved where the two meet,
// else the bound is told.
#pragma once

#include <atomic>
#include <string>
#include <vector>

#include "units/result.h"

namespace yr {

struct CutPiece {
    std::string name;
    double length_m = 0;  // with slack, above 0
    int vehicle = 0;      // of several alike; from 0
};
struct Roll {
    double length_m = 0;
    bool at_hand = false;  // used before any is bought
};
struct CutRoll {
    Roll roll;
    std::vector<std::size_t> pieces;  // indices, longest first
    [[nodiscard]] double rest_m(const std::vector<CutPiece>& all) const;
};
struct Cutting {
    std::vector<CutRoll> rolls;
    int bought = 0;
    int at_least = 0;     // proved: with fewer bought it does not go
    bool proved = false;  // bought == at_least
    double longest_rest_m = 0;
    std::vector<std::size_t> too_long;  // pieces that no roll holds
};

// `at_hand`: lengths there, each once. `sold_m`: the length of a roll that may be bought, as many as wanted;
// 0: none is sold, then pieces that find no room are in `too_long`. Worked to the centimetre.
[[nodiscard]] Cutting cut(const std::vector<CutPiece>& pieces, const std::vector<double>& at_hand_m,
                          double sold_m, const std::atomic<bool>* stop = nullptr);

}  // namespace yr
