// A plan as lines, one a thing, each field by its name in the plan file, others spoken of by their names
// instead of ids; and read back to the same plan. What one mails, prints and compares line by line.
//
//     battery "starter battery": chemistry agm, place "engine bay", capacity_Ah 95
//     run "charge cable": from "alternator".out, to "starter battery".pos, length_m 1.6, size "4 AWG"
#pragma once

#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

[[nodiscard]] std::string plan_text(const Plan& plan);

// The lines of some of its things alone. What they speak of and do not bring is "name", and "name"#plan where
// they bring another thing of that name.
[[nodiscard]] std::string text_of_things(const Plan& plan, const std::set<Id>& things);

// Whether a line is of this kind: begins with the name of a part of plans and a name in quotes, or `vehicle`.
[[nodiscard]] bool is_thing_line(std::string_view line);

// The plan that those lines describe, ids made anew. Lines in any order. Failure: with the line as place;
// plan_from_json_text's errors where the whole is no plan.
[[nodiscard]] Result<Plan> plan_from_text(const std::vector<std::string>& lines);

// The plan file's text with every id replaced by one made of its place in the plan: two plans that differ by
// ids alone have the same. For comparing.
[[nodiscard]] std::string text_without_ids(const Plan& plan);

// The field `key` of a thing of that list and name set to what is typed ("12.5", "yes", a name in quotes, a
// list in brackets). Failure: missing_reference for the name, and what the plan file would say of the value.
[[nodiscard]] Result<Plan> with_field(const Plan& plan, const Id& thing, std::string_view key,
                                      std::string_view typed);

}  // namespace yr
