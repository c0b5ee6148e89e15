// JSON text into a tree, within limits: what a plan, a library or a survey holds is small, flat and
// printable, and whatever is not is refused with its line and field before anything is built on it.
#pragma once

#include <nlohmann/json.hpp>
#include <string_view>

#include "units/result.h"

namespace yr {

inline constexpr int kMostDepth = 40;              // objects in lists in objects …
inline constexpr std::size_t kMostString = 2000;   // bytes of a name or id
inline constexpr std::size_t kMostNote = 200'000;  // bytes of a note

// Failure: bad_json with line and column; too_deep, too_large, doubled_key, control_character and
// out_of_range (a number no computer holds) with line and field.
[[nodiscard]] Result<nlohmann::json> parse_json(std::string_view text);

}  // namespace yr
