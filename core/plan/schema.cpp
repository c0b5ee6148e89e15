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

// What is the same for all parts is said outside of the templates: each is compiled some fifty times.
Json reference_to(const std::string& name) {
    return {{"$ref", "#/definitions/" + name}};
}

struct Properties {
    Json properties = Json::object(), required = Json::array();
    void add(const Field& field, Json kind) {
        properties[field.key] = std::move(kind);
        if (field.required) required.push_back(field.key);
    }
    Json object() && {
        Json out = {{"type", "object"}};
        if (!required.empty()) out["required"] = std::move(required);
        out["additionalProperties"] = false;
        out["properties"] = std::move(properties);
        return out;
    }
};

class SchemaMaker;

// What one field may hold.
template <class T>
Json kind_of(const Field& field, SchemaMaker& maker);

class SchemaMaker {
  public:
    Json parts = Json::object();

    template <class T>
    Json reference() {
        if (begin(kPartName<T>)) parts[kPartName<T>] = part<T>();
        return reference_to(kPartName<T>);
    }

    template <class T>
    Json part() {
        Visitor v{*this, {}};
        T thing{};
        fields(v, thing);
        return std::move(v.all).object();
    }

  private:
    struct Visitor {
        static constexpr bool every_field = true;
        SchemaMaker& maker;
        Properties all;
        template <class T>
        void operator()(const Field& field, T&) {
            all.add(field, kind_of<T>(field, maker));
        }
    };

    // False where it is told already, or is being told: a condition holds conditions.
    bool begin(const std::string& name) {
        if (parts.contains(name)) return false;
        parts[name] = nullptr;
        return true;
    }
};

Json text_kind(const Field& field) {
    if (std::string_view(field.key) == "id")
        return {{"type", "string"}, {"minLength", 1}, {"pattern", "^[A-Za-z0-9_-]+$"}};
    return {{"type", "string"}};
}

Json word_kind(Json words) {
    return {{"enum", std::move(words)}};
}

Json yes_or_no_kind() {
    return {{"type", "boolean"}};
}

Json pair_kind() {
    return {
        {"type", "array"}, {"minItems", 2}, {"maxItems", 2}, {"items", {{"type", "number"}, {"minimum", 0}}}};
}

Json list_kind(const Field& field, Json item) {
    Json out = {{"type", "array"}, {"items", std::move(item)}};
    if (field.required) out["minItems"] = 1;
    return out;
}

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
        return text_kind(field);
    } else if constexpr (std::is_same_v<T, Terminal> || std::is_same_v<T, WireSize>) {
        return text_kind("size");
    } else if constexpr (std::is_enum_v<T>) {
        return word_kind(enum_words<T>());
    } else if constexpr (std::is_same_v<T, bool>) {
        return yes_or_no_kind();
    } else if constexpr (std::is_same_v<T, int>) {
        return number_kind("integer", field);
    } else if constexpr (std::is_same_v<T, double>) {
        return number_kind("number", field);
    } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
        return pair_kind();
    } else if constexpr (HasFields<T>) {
        return maker.reference<T>();
    } else if constexpr (kOptional<T>) {
        return kind_of<typename Inside<T>::type>(field, maker);
    } else {
        return list_kind(field, kind_of<typename Inside<T>::type>(Field("item"), maker));
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
    if (!std::isfinite(field.most)) return "a number";
    if (field.above) return "more than " + shown(field.least) + ", to " + shown(field.most);
    return shown(field.least) + " to " + shown(field.most);
}

std::string link(const std::string& name) {
    return "[" + name + "](#" + name + ")";
}

std::string in_a_row(const Json& words) {
    std::string out;
    for (const Json& word : words) out += (out.empty() ? "" : ", ") + word.get_ref<const std::string&>();
    return out;
}

// A row for each field, and behind it the tables of the parts that it holds.
class TableMaker {
  public:
    std::string text;

    template <class T>
    void part() {
        if (!begin(kPartName<T>)) return;
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
            table.row(field, table.holds<T>(field, inside));
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
            return in_a_row(enum_words<T>());
        } else if constexpr (std::is_arithmetic_v<T>) {
            return range_text(field);
        } else if constexpr (std::is_same_v<T, std::pair<double, double>>) {
            return "pairs of numbers";
        } else if constexpr (HasFields<T>) {
            inside.push_back([this] { part<T>(); });
            return link(kPartName<T>);
        } else if constexpr (kOptional<T>) {
            return holds<typename Inside<T>::type>(field, inside);
        } else {
            return "list: " + holds<typename Inside<T>::type>(field, inside);
        }
    }

    bool begin(const std::string& name) {
        if (!done_.insert(name).second) return false;
        text += "\n## " + name + "\n\n| field | holds | where it is open |\n|---|---|---|\n";
        return true;
    }
    void row(const Field& field, const std::string& holds) {
        text += "| `" + std::string(field.key) + "`" + (field.required ? ", needed" : "") + " | " + holds +
                " | " +
                (*field.assumption != '\0' ? "`" + std::string(field.assumption) + "` is assumed"
                                           : std::string(field.open)) +
                " |\n";
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
