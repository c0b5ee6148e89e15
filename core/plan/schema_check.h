// The published schema held against a parsed file, by the packaged validator. For plan_json.cpp.
#pragma once

#include <nlohmann/json.hpp>
#include <optional>

#include "units/result.h"

namespace yr {

// The first fault with its place in the words of the file ("loads, scene lights, draw"), or nothing.
[[nodiscard]] std::optional<Error> check_schema(const nlohmann::json& file);

}  // namespace yr
