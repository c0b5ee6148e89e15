#include "plan/plan_json.h"

#include <nlohmann/json.hpp>

#include "files/text_file.h"
#include "plan/json_fields.h"
#include "plan/json_text.h"
#include "plan/migrate.h"
#include "plan/schema_check.h"
#include "plan/validate.h"

namespace yr {

using json_fields::In;
using json_fields::Json;
using json_fields::Reader;
using json_fields::Writer;

namespace {

// A wire size is text in the file; the schema can only ask for text.
std::optional<Error> bad_size(const In& holder, const std::string& within = {}) {
    static const In none = In::array();
    const auto list = [](const In& object, const char* key) -> const In& {
        const auto found = object.find(key);
        return found == object.end() ? none : *found;
    };
    for (const In& run : list(holder, "runs"))
        if (run.contains("size"))
            if (auto size = parse_wire_size(run["size"].get<std::string>()); !size) {
                Error e = size.error();
                e.place = within + "runs, " + run.value("name", std::string()) + ", size";
                return e;
            }
    if (holder.contains("policy"))
        for (const In& stock : list(holder["policy"], "stock"))
            if (auto size = parse_wire_size(stock["size"].get<std::string>()); !size) {
                Error e = size.error();
                e.place = "policy, stock, size";
                return e;
            }
    for (const In& variant : list(holder, "variants"))
        if (auto e = bad_size(variant, "variants, " + variant.value("name", std::string()) + ", ")) return e;
    return std::nullopt;
}

// The plan, where the file is as the schema says to the last entry; what is not is for the schema to tell.
std::optional<Plan> read_surely(const In& file) {
    Plan plan;
    bool sure = true;
    std::size_t known = 2;  // format and version
    fields(Reader{file, &sure, &known}, plan);
    if (!sure || known != file.size() || !file["version"].is_number_integer()) return std::nullopt;
    return plan;
}

Result<Plan> read_by_schema(const In& file) {
    if (auto broken = check_schema(file)) return tl::unexpected(std::move(*broken));
    if (auto broken = bad_size(file)) return tl::unexpected(std::move(*broken));
    Plan plan;
    try {
        fields(Reader{file}, plan);
    } catch (const In::exception&) {  // what the schema lets pass and no field can hold
        return fail(ErrorCode::schema, "plan", {}, Want::a_name_numbers_and_words_as_the_shipped);
    }
    return plan;
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
    auto parsed = parse_json(text);
    if (!parsed) return tl::unexpected(parsed.error());
    In& file = *parsed;
    if (!file.is_object() || !file.contains("format") || file["format"] != "your-rail-plan")
        return fail(ErrorCode::not_a_plan, "format", {}, Want::your_rail_plan);
    if (auto migrated = migrate(file, kPlanVersion, migration_steps()); !migrated)
        return tl::unexpected(migrated.error());
    Plan plan;
    if (auto sure = read_surely(file)) {
        plan = std::move(*sure);
    } else {
        auto read = read_by_schema(file);
        if (!read) return tl::unexpected(std::move(read.error()));
        plan = std::move(*read);
    }
    if (auto errors = validate(plan); !errors.empty()) return tl::unexpected(std::move(errors.front()));
    return plan;
}

Result<Plan> load_plan(const std::string& path) {
    const auto text = read_text_file(path);
    if (!text) return tl::unexpected(text.error());
    auto plan = plan_from_json_text(*text);
    if (!plan) plan.error().place = path + ": " + plan.error().place;
    return plan;
}

Result<bool> save_plan(const Plan& plan, const std::string& path, Overwrite overwrite) {
    return write_text_file(path, to_json_text(plan), overwrite);
}

}  // namespace yr
