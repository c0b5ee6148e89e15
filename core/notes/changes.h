// Lines about what is in the plan already: "rear light: 4x 20 W", "set rear light duty 0.3", "remove rear
// light".
#pragma once

#include <string>
#include <string_view>

#include "notes/statement.h"

namespace yr {

// `rest`: what stands behind the name and its colon. A field by its name in the plan file, or, of a load,
// what a typed line says of one.
[[nodiscard]] Statement read_change(const Plan& plan, const Id& id, const std::string& rest);

// `rest`: behind the word "set" or "remove".
[[nodiscard]] Statement read_set(const Plan& plan, std::string_view rest);
[[nodiscard]] Statement read_remove(const Plan& plan, std::string_view rest);

}  // namespace yr
