// The catalogue's data files, embedded from data/catalog. For the typed tables of this folder and
// the library of plan/.
#pragma once

#include <nlohmann/json.hpp>
#include <string_view>

namespace yr {

// The parsed file; a missing or damaged file is a broken build and throws.
[[nodiscard]] nlohmann::json shipped_table(std::string_view file_name);

// The same as it stands, for what is no table.
[[nodiscard]] std::string_view shipped_text(std::string_view file_name);

}  // namespace yr
