// Plans as text: UTF-8 JSON of the published schema (docs/plan.schema.json, described in
// docs/plan-format.md).
#pragma once

#include <string>
#include <string_view>

#include "files/text_file.h"
#include "plan/plan.h"
#include "units/result.h"

namespace yr {

inline constexpr int kPlanVersion = 10;

// Same plan, same bytes: keys in a fixed order, two-space indent, newline at the end.
[[nodiscard]] std::string to_json_text(const Plan& plan);

// Checks JSON syntax, format, version (older versions are migrated), the schema, then validate().
// Failure: bad_json (place is "line 3, column 7"), not_a_plan, newer_version, schema, and validate()'s codes;
// the place names the part by its own name where it has one: "loads, scene lights, draw".
[[nodiscard]] Result<Plan> plan_from_json_text(std::string_view text);

// Reads and writes whole files for programs without a desktop; writing goes through a temporary file and a
// rename. Failure: unreadable_file, unwritable_file, and plan_from_json_text's.
[[nodiscard]] Result<Plan> load_plan(const std::string& path);
[[nodiscard]] Result<bool> save_plan(const Plan& plan, const std::string& path,
                                     Overwrite overwrite = Overwrite::yes);

}  // namespace yr
