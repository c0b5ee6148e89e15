// Older plan files brought up to the present version, one step a version, on the JSON itself.
#pragma once

#include <functional>
#include <map>
#include <nlohmann/json.hpp>

#include "units/result.h"

namespace yr {

// steps[k] turns a file of version k into one of version k + 1.
using MigrationSteps = std::map<int, std::function<void(nlohmann::json&)>>;

[[nodiscard]] const MigrationSteps& migration_steps();

// Applies steps until `present`; file["version"] is raised with each. Failure: not_a_plan when a step is
// missing or the version is not a whole number, newer_version when the file is from a later program. `file`
// is unchanged on failure.
[[nodiscard]] Result<bool> migrate(nlohmann::json& file, int present, const MigrationSteps& steps);

}  // namespace yr
