#include "plan/migrate.h"

namespace yr {

const MigrationSteps& migration_steps() {
    static const MigrationSteps steps{
        // Version 2 brought inverters, devices with a memory, variants and the survey: all of them additions.
        {1, [](nlohmann::ordered_json&) {}},
        // Version 3 brought boxes with channels, conditions of more parts and the panel: additions too.
        {2, [](nlohmann::ordered_json&) {}},
    };
    return steps;
}

Result<bool> migrate(nlohmann::ordered_json& file, int present, const MigrationSteps& steps) {
    if (!file.contains("version") || !file["version"].is_number_integer())
        return fail(ErrorCode::not_a_plan, "version", {}, "a whole number");
    const int version = file["version"].get<int>();
    if (version > present)
        return fail(ErrorCode::newer_version, "version", std::to_string(version), std::to_string(present));
    nlohmann::ordered_json work = file;
    for (int v = version; v < present; ++v) {
        const auto step = steps.find(v);
        if (step == steps.end())
            return fail(ErrorCode::not_a_plan, "version", std::to_string(version), std::to_string(present));
        step->second(work);
        work["version"] = v + 1;
    }
    file = std::move(work);
    return true;
}

}  // namespace yr
