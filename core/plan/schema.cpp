#include "plan/schema.h"

#include <cmath>
#include <cstdio>
#include <functional>
#include <nlohmann/json.hpp>
#include <set>

#include "plan/json_fields.h"
#include "plan/plan_json.h"
#include "units/text.h"

namespace yr {
namespace {

using json_fields::Json;

// A number as a person would write it: 200, 1e-07.
Json plain(double value) {
    if (value == std::floor(value) && std::abs(value) < 1e15) return static_cast<long>(value);
    return value;
}

template <class T>
Json enum_words() {
    Json words = Json::array();
    for (const auto& n : enum_names<T>()) words.push_back(n.name);
    return words;
}

class SchemaMaker;

// What one field may hold.
template <class T>
Json kind_of(const Field& field, SchemaMaker& maker);

class SchemaMaker {
  public:
    Json parts = Json::object();

    template <class T>
    Json reference() {
        const std::string name = kPartName<T>;
        if (!parts.contains(name)) {
            parts[name] = nullptr;  // begun: a condition holds conditions
            parts[name] = part<T>();
        }
        return {{"$ref", "#/definitions/" + name}};
    }

    template <class T>
    Json part() {
        Visitor v{*this};
        T thing{};
        fields(v, thing);
        Json out = {{"type", "object"}};
        if (!v.required.empty()) out["required"] = std::move(v.required);
        out["additionalProperties"] = false;
        out["properties"] = std::move(v.properties);
        return out;
    }

  private:
    struct Visitor {
        static constexpr bool every_field = true;
        SchemaMaker& maker;
        Json properties = Json::object(), required = Json::array();
        template <class T>
        void operator()(const Field& field, T&) {
            properties[field.key] = kind_of<T>(field, maker);
            if (field.required) required.push_back(field.key);
        }
    };
};

Json number_kind(const char* type, const Field& field) {
    if (field.volts_of_rail) return {{"enum", {12, 24, 48}}};
    Json out = {{"type", type}};
    if (std::isfinite(field.least)) out[field.above ? "exclusiveMinimum" : "minimum"] = plain(field.least);
    if (std::isfinite(field.most)) out["maximum"] = plain(field.most);
    return out;
}

template <class T>
struct Inside {};
template <class T>
struct Inside<std::optional<T>> {
    using type = T;
};
template <class T>
struct Inside<std::vector<T>> {
    using type = T;
};

template <class T>
inline constexpr bool kOptional = false;
template <class T>
inline constexpr bool kOptional<std::optional<T>> = true;

template <class T>
Json kind_of(const Field& field, SchemaMaker& maker) {
    if constexpr (std::is_same_v<T, std::string>) {
        if (std::string_view(field.key) == "id")
            return {{"type", "string"}, {"minLength", 1}, {"pattern", "^[A-Za-z0-9_-]+$"}};
        return {{"type", "string"}};
    } else if constexpr (std::is_same_v<T, Terminal> || std::is_same_v<T, WireSize>) {
        return {{"type", "string"}};
    } else if constexpr (std::is_enum_v<T>) {
        return {{"enum", enum_words<T>()}};
    } else if constexpr (std::is_same_v<T, bool>) {
        return {{"type", "boolean"}};
    } else if constexpr (std::is_same_v<T, int>) {
        return number_kind("integer", field);
    } else if constexpr (std::is_same_v<T, double>) {
        return number_kind("number", field);
    } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
        return {{"type", "array"},
                {"minItems", 2},
                {"maxItems", 2},
                {"items", {{"type", "number"}, {"minimum", 0}}}};
    } else if constexpr (HasFields<T>) {
        return maker.reference<T>();
    } else if constexpr (kOptional<T>) {
        return kind_of<typename Inside<T>::type>(field, maker);
    } else {
        Json out = {{"type", "array"}, {"items", kind_of<typename Inside<T>::type>(Field("item"), maker)}};
        if (field.required) out["minItems"] = 1;
        return out;
    }
}

std::string made_schema() {
    SchemaMaker maker;
    const Json whole = maker.part<Plan>();
    Json schema = {{"$schema", "http://json-schema.org/draft-07/schema#"},
                   {"title", "Your Rail plan, version " + std::to_string(kPlanVersion)},
                   {"type", "object"},
                   {"required", {"format", "version"}},
                   {"additionalProperties", false}};
    for (const Json& key : whole["required"]) schema["required"].push_back(key);
    schema["properties"] = {{"format", {{"const", "your-rail-plan"}}},
                            {"version", {{"type", "integer"}, {"minimum", 1}}}};
    for (const auto& [key, value] : whole["properties"].items()) schema["properties"][key] = value;
    schema["definitions"] = std::move(maker.parts);
    return schema.dump(1) + "\n";
}

// ---- the table

std::string range_text(const Field& field) {
    if (field.volts_of_rail) return "12, 24 or 48";
    if (!std::isfinite(field.most)) return "";
    if (field.above) return "more than " + shown(field.least) + ", to " + shown(field.most);
    return shown(field.least) + " to " + shown(field.most);
}

// A row for each field, and behind it the tables of the parts that it holds.
class TableMaker {
  public:
    std::string text;

    template <class T>
    void part() {
        if (!done_.insert(kPartName<T>).second) return;
        text +=
            "\n## " + std::string(kPartName<T>) + "\n\n| field | holds | where it is open |\n|---|---|---|\n";
        std::vector<std::function<void()>> inside;
        T thing{};
        fields(Visitor{*this, inside}, thing);
        for (const auto& more : inside) more();
    }

  private:
    struct Visitor {
        static constexpr bool every_field = true;
        TableMaker& table;
        std::vector<std::function<void()>>& inside;
        template <class T>
        void operator()(const Field& field, T&) const {
            table.text += "| `" + std::string(field.key) + "`" + (field.required ? ", needed" : "") + " | " +
                          table.holds<T>(field, inside) + " | " +
                          (*field.assumption != '\0' ? "`" + std::string(field.assumption) + "` is assumed"
                                                     : std::string(field.open)) +
                          " |\n";
        }
    };

    template <class T>
    std::string holds(const Field& field, std::vector<std::function<void()>>& inside) {
        if constexpr (std::is_same_v<T, std::string>) {
            return "text";
        } else if constexpr (std::is_same_v<T, Terminal>) {
            return "a terminal";
        } else if constexpr (std::is_same_v<T, WireSize>) {
            return "a wire size";
        } else if constexpr (std::is_same_v<T, bool>) {
            return field.usually ? "yes or no, usually yes" : "yes or no";
        } else if constexpr (std::is_enum_v<T>) {
            std::string words;
            for (const auto& n : enum_names<T>()) words += (words.empty() ? "" : ", ") + std::string(n.name);
            return words;
        } else if constexpr (std::is_arithmetic_v<T>) {
            const std::string range = range_text(field);
            return range.empty() ? "a number" : range;
        } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
            return "pairs of numbers";
        } else if constexpr (HasFields<T>) {
            inside.push_back([this] { part<T>(); });
            return "[" + std::string(kPartName<T>) + "](#" + kPartName<T> + ")";
        } else if constexpr (kOptional<T>) {
            return holds<typename Inside<T>::type>(field, inside);
        } else {
            return "list: " + holds<typename Inside<T>::type>(field, inside);
        }
    }

    std::set<std::string> done_;
};

}  // namespace

const std::string& plan_schema_text() {
    static const std::string text = made_schema();
    return text;
}

std::string plan_fields_table() {
    TableMaker table;
    table.text =
        "# Fields of the plan file\n\nMade from the declarations in core/plan/plan_fields.h (`rail plan "
        "fields`). "
        "Units are in the names; shares are 0 to 1.\n";
    table.part<Plan>();
    return table.text;
}

}  // namespace yr
