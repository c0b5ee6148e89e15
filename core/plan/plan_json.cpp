#include "plan/plan_json.h"

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "plan/json_fields.h"
#include "plan/migrate.h"
#include "plan/schema_check.h"
#include "plan/validate.h"

namespace yr {

using json_fields::Json;
using json_fields::Reader;
using json_fields::Writer;

namespace {

std::string line_and_column(std::string_view text, std::size_t byte) {
    std::size_t line = 1, column = 1;
    for (std::size_t k = 0; k + 1 < byte && k < text.size(); ++k)
        if (text[k] == '\n')
            ++line, column = 1;
        else
            ++column;
    return "line " + std::to_string(line) + ", column " + std::to_string(column);
}

// A wire size is text in the file; the schema can only ask for text.
std::optional<Error> bad_size(const Json& holder, const std::string& within = {}) {
    for (const Json& run : holder.value("runs", Json::array()))
        if (run.contains("size"))
            if (auto size = parse_wire_size(run["size"].get<std::string>()); !size) {
                Error e = size.error();
                e.place = within + "runs, " + run.value("name", std::string()) + ", size";
                return e;
            }
    if (holder.contains("policy"))
        for (const Json& stock : holder["policy"].value("stock", Json::array()))
            if (auto size = parse_wire_size(stock["size"].get<std::string>()); !size) {
                Error e = size.error();
                e.place = "policy, stock, size";
                return e;
            }
    for (const Json& variant : holder.value("variants", Json::array()))
        if (auto e = bad_size(variant, "variants, " + variant.value("name", std::string()) + ", ")) return e;
    return std::nullopt;
}

}  // namespace

std::string to_json_text(const Plan& plan) {
    Json file = Json::object();
    file["format"] = "your-rail-plan";
    file["version"] = kPlanVersion;
    fields(Writer{file, true}, plan);
    // names typed by people may hold broken UTF-8 pasted from elsewhere: replace, never throw while saving
    return file.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<Plan> plan_from_json_text(std::string_view text) {
    Json file;
    try {
        file = Json::parse(text);
    } catch (const Json::parse_error& e) {
        return fail(ErrorCode::bad_json, line_and_column(text, e.byte), {}, Want::json);
    }
    if (!file.is_object() || !file.contains("format") || file["format"] != "your-rail-plan")
        return fail(ErrorCode::not_a_plan, "format", {}, Want::your_rail_plan);
    if (auto migrated = migrate(file, kPlanVersion, migration_steps()); !migrated)
        return tl::unexpected(migrated.error());
    if (auto broken = check_schema(file)) return tl::unexpected(std::move(*broken));
    if (auto broken = bad_size(file)) return tl::unexpected(std::move(*broken));
    Plan plan;
    fields(Reader{file}, plan);
    if (auto errors = validate(plan); !errors.empty()) return tl::unexpected(std::move(errors.front()));
    return plan;
}

Result<Plan> load_plan(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    if (!in || std::filesystem::is_directory(path)) return fail(ErrorCode::unreadable_file, path);
    std::ostringstream text;
    text << in.rdbuf();
    if (in.bad()) return fail(ErrorCode::unreadable_file, path);
    auto plan = plan_from_json_text(text.str());
    if (!plan) plan.error().place = path + ": " + plan.error().place;
    return plan;
}

Result<bool> save_plan(const Plan& plan, const std::string& path) {
    const std::string part = path + ".part";
    {
        std::ofstream out(part, std::ios::binary | std::ios::trunc);
        out << to_json_text(plan);
        out.flush();
        if (!out) {
            std::remove(part.c_str());
            return fail(ErrorCode::unwritable_file, path);
        }
    }
    std::error_code error;
    std::filesystem::rename(part, path, error);
    if (error) {
        std::remove(part.c_str());
        return fail(ErrorCode::unwritable_file, path);
    }
    return true;
}

}  // namespace yr
