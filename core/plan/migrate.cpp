#include "plan/migrate.h"

#include <cstdint>

namespace yr {
namespace {

void state_roles(nlohmann::json& file) {
    const auto in_list = [](nlohmann::json& holder) {
        if (!holder.is_object() || !holder.contains("states") || !holder["states"].is_array()) return;
        for (auto& s : holder["states"])
            for (const auto& [name, role] : {std::pair{"Idling", "idling"}, std::pair{"Driving", "driving"}})
                if (s.is_object() && s.value("name", nlohmann::json()) == name) s["role"] = role;
    };
    in_list(file);
    if (file.contains("variants") && file["variants"].is_array())
        for (auto& variant : file["variants"]) in_list(variant);
}

// Four words of a place became one: what cables keep clear of there. A place that said several keeps the one
// that hurts most.
void place_hazards(nlohmann::json& file) {
    const auto in_list = [](nlohmann::json& holder) {
        if (!holder.is_object() || !holder.contains("places") || !holder["places"].is_array()) return;
        for (auto& place : holder["places"]) {
            if (!place.is_object()) continue;
            const char* kept = nullptr;
            for (const auto& [word, kind] :
                 {std::pair{"airbag", "airbag"}, std::pair{"moving", "moving"},
                  std::pair{"fuel", "fuel_line"}, std::pair{"exhaust", "exhaust"}}) {
                if (!kept && place.value(word, nlohmann::json()) == true) kept = kind;
                place.erase(word);
            }
            if (kept) place["hazard"] = kept;
        }
    };
    in_list(file);
    if (file.contains("variants") && file["variants"].is_array())
        for (auto& variant : file["variants"]) in_list(variant);
}

}  // namespace

const MigrationSteps& migration_steps() {
    static const MigrationSteps steps{
        // Version 2 brought inverters, devices with a memory, variants and the survey: all of them additions.
        {1, [](nlohmann::json&) {}},
        // Version 3 brought boxes with channels, conditions of more parts and the panel: additions too.
        {2, [](nlohmann::json&) {}},
        // Version 4 brought what a state stands for; before it, the names of the built-in states said so.
        {3, state_roles},
        // Version 5 brought findings that were accepted: an addition.
        {4, [](nlohmann::json&) {}},
        // Version 6 brought connectors, jackets, remarks and more ways of switching: additions.
        {5, [](nlohmann::json&) {}},
        // Version 7 brought days and what batteries do in time: additions.
        {6, [](nlohmann::json&) {}},
        // Version 8 brought where things stand, ways and what passes them: additions.
        {7, [](nlohmann::json&) {}},
        // Version 9 brought prices, times of work, the job's customer and the meter: additions.
        {8, [](nlohmann::json&) {}},
        // Version 10 brought more that cables keep clear of, as one word of a place.
        {9, place_hazards},
    };
    return steps;
}

Result<bool> migrate(nlohmann::json& file, int present, const MigrationSteps& steps) {
    if (!file.contains("version") || !file["version"].is_number_integer())
        return fail(ErrorCode::not_a_plan, "version", {}, Want::a_whole_number);
    const auto stated = file["version"].get<std::int64_t>();
    const bool beyond =
        file["version"].is_number_unsigned() && file["version"].get<std::uint64_t>() > INT32_MAX;
    const int version = beyond ? INT32_MAX : stated < 0 ? -1 : static_cast<int>(stated);
    if (version > present)
        return fail(ErrorCode::newer_version, "version", file["version"].dump(),
                    {Want::as_said, std::to_string(present)});
    if (version == present) return true;
    nlohmann::json work = file;
    for (int v = version; v < present; ++v) {
        const auto step = steps.find(v);
        if (step == steps.end())
            return fail(ErrorCode::not_a_plan, "version", std::to_string(version),
                        {Want::as_said, std::to_string(present)});
        step->second(work);
        work["version"] = v + 1;
    }
    file = std::move(work);
    return true;
}

}  // namespace yr
