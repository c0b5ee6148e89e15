// What a line says in figures is in the plan afterwards, or somebody is told: of all misreadings the one that
// nobody sees is an alternator, a battery or a draw that was passed over.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "plan/edit.h"

namespace yr {

// The amps, watts, ampere hours and metres of `line` ("150 A") that are in nothing which `edit` puts into the
// plan: neither as they stand nor times a count that the line says, as a sum ("6 A + 4 A") or as watts at a
// rail's volts. Left out is what is said beside a draw and is none of its own: an average, what a radio takes
// while it listens, heat, what a shore line bears.
[[nodiscard]] std::vector<std::string> figures_lost(std::string_view line, const Edit& edit);

}  // namespace yr
