#include "plan/plan_json.h"

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "plan/migrate.h"
#include "plan/names.h"
#include "plan/plan_fields.h"
#include "plan/schema_check.h"
#include "plan/validate.h"

namespace yr {

using Json = nlohmann::ordered_json;

namespace {

template <class T>
concept HasFields = requires(T& x) {
    fields([](const char*, auto&) {}, x);
};

// ---- writing

template <class T>
Json written(const T& value);
template <class T>
void leave_out_defaults(Json& object);

struct Writer {
    Json& out;
    template <class T>
    void operator()(const char* key, const std::optional<T>& value) const {
        if (value) out[key] = written(*value);
    }
    template <class T>
    void operator()(const char* key, const std::vector<T>& value) const {
        Json list = Json::array();
        for (const T& x : value) list.push_back(written(x));
        out[key] = std::move(list);
    }
    void operator()(const char* key, const std::string& value) const {
        if (!value.empty() || std::string_view(key) == "name") out[key] = value;
    }
    template <class T>
    void operator()(const char* key, const T& value) const {
        out[key] = written(value);
    }
};

// What says nothing is left out of the file: empty lists, a false that is usual, words for "as usual".
template <class T>
void leave_out_defaults(Json& object) {
    static const Json usual = [] {
        Json o = Json::object();
        const T plain{};
        fields(Writer{o}, plain);
        return o;
    }();
    for (auto at = object.begin(); at != object.end();) {
        const std::string& key = at.key();
        const bool quiet = at->is_boolean() || ((at->is_array() || at->is_object()) && at->empty()) ||
                           key == "supply_code" || key == "cranking_standard" || key == "senses" ||
                           key == "sun";
        const auto found = usual.find(key);
        const bool nothing =
            found == usual.end() ? *at == Json(false) || *at == "from" || at->empty() : *found == *at;
        if (quiet && nothing)
            at = object.erase(at);
        else
            ++at;
    }
}

template <class T>
Json written(const T& value) {
    if constexpr (std::is_enum_v<T>) {
        return enum_name(value);
    } else if constexpr (std::is_same_v<T, WireSize>) {
        return name_of(value);
    } else if constexpr (HasFields<const T>) {
        Json object = Json::object();
        fields(Writer{object}, value);
        leave_out_defaults<std::remove_const_t<T>>(object);
        return object;
    } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
        return Json::array({value.first, value.second});
    } else if constexpr (std::is_same_v<T, double>) {
        return value == 0 ? 0.0 : value;  // no "-0.0" in files
    } else {
        return value;
    }
}

// ---- reading; the schema has already made sure of every type

template <class T>
void read_value(const Json& in, T& value);

struct Reader {
    const Json& in;
    template <class T>
    void operator()(const char* key, std::optional<T>& value) const {
        if (!in.contains(key)) return;
        if constexpr (std::is_same_v<T, WireSize>) {
            if (auto size = parse_wire_size(in[key].get<std::string>())) value = *size;
        } else {
            T x{};
            read_value(in[key], x);
            value = std::move(x);
        }
    }
    template <class T>
    void operator()(const char* key, std::vector<T>& value) const {
        if (!in.contains(key)) return;
        for (const Json& item : in[key]) read_value(item, value.emplace_back());
    }
    template <class T>
    void operator()(const char* key, T& value) const {
        if (in.contains(key)) read_value(in[key], value);
    }
};

template <class T>
void read_value(const Json& in, T& value) {
    if constexpr (std::is_enum_v<T>) {
        if (auto e = enum_named<T>(in.get<std::string>())) value = *e;
    } else if constexpr (HasFields<T>) {
        fields(Reader{in}, value);
    } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
        value = {in[0].get<double>(), in[1].get<double>()};
    } else {
        in.get_to(value);
    }
}

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
    for (const Json& variant : holder.value("variants", Json::array()))
        if (auto e = bad_size(variant, "variants, " + variant.value("name", std::string()) + ", ")) return e;
    return std::nullopt;
}

}  // namespace

std::string to_json_text(const Plan& plan) {
    Json file = Json::object();
    file["format"] = "your-rail-plan";
    file["version"] = kPlanVersion;
    fields(Writer{file}, plan);
    // names typed by people may hold broken UTF-8 pasted from elsewhere: replace, never throw while saving
    return file.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<Plan> plan_from_json_text(std::string_view text) {
    Json file;
    try {
        file = Json::parse(text);
    } catch (const Json::parse_error& e) {
        return fail(ErrorCode::bad_json, line_and_column(text, e.byte), {}, "JSON");
    }
    if (!file.is_object() || !file.contains("format") || file["format"] != "your-rail-plan")
        return fail(ErrorCode::not_a_plan, "format", {}, "your-rail-plan");
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
