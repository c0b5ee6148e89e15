// Everyday words around figures: how many ("6 of them 12 W each", "24 W x 4"), how long ("for 5 mins at a
// time"), where mains come from, what a bracket says of a fuse and its draw. For loose_words.cpp and
// shorthand.cpp.
#pragma once

#include <string>

namespace yr {

// Read by their first meaning these would be read wrong and nobody told: put plainly in every line.
[[nodiscard]] std::string with_plain_figures(std::string line);

// Words that are only tried where a line is not understood as it stands.
[[nodiscard]] std::string with_everyday_words(std::string line);

}  // namespace yr
