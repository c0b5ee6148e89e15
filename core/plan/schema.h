// The plan format for others: its JSON Schema (draft 7) and its table of fields, both made from the one list
// of fields (plan_fields.h). docs/plan.schema.json and docs/plan-fields.md hold what these give; a test
// compares.
#pragma once

#include <string>

namespace yr {

[[nodiscard]] const std::string& plan_schema_text();

// Markdown: for each part its fields with kind, range, and what is taken where one is open.
[[nodiscard]] std::string plan_fields_table();

}  // namespace yr
