#include "notes/plan_text.h"

#include <algorithm>

#include "notes/thing_lines.h"
#include "plan/plan_fields.h"
#include "plan/plan_json.h"
#include "units/text.h"

namespace yr {
namespace {

using namespace thing_lines;

bool plain_word(const std::string& s) {
    if (s.empty() || s == "yes" || s == "no" || !(s[0] >= 'a' && s[0] <= 'z')) return false;
    return std::all_of(s.begin(), s.end(),
                       [](char c) { return (c >= 'a' && c <= 'z') || c == '_' || (c >= '0' && c <= '9'); });
}

class LineWriter {
  public:
    // `wider`: where those things that `names` does not have get their names.
    LineWriter(const Names& names, const std::set<std::string>& known, const Names* wider = nullptr)
        : names_(names), known_(known), wider_(wider) {}

    // ": key value, key value" of a thing; its name is said before.
    [[nodiscard]] std::string parts(const Json& thing) const {
        std::string text;
        for (const auto& [key, value] : thing.items()) {
            if (key == "id" || (key == "name" && thing.contains("id"))) continue;
            text += (text.empty() ? "" : ", ") + key + " " + written(value, reference_keys().contains(key));
        }
        return text;
    }

  private:
    [[nodiscard]] std::string written(const Json& value, bool refers) const {
        if (value.is_boolean()) return value.get<bool>() ? "yes" : "no";
        if (value.is_string()) return refers ? reference(value) : plain(value);
        if (value.is_array()) {
            std::string list;
            for (const auto& x : value) list += (list.empty() ? "" : ", ") + written(x, refers);
            return "[" + list + "]";
        }
        if (value.is_object()) return object(value);
        return value.dump();
    }
    [[nodiscard]] static std::string plain(const std::string& s) {
        return plain_word(s) ? s : Json(s).dump();
    }
    [[nodiscard]] std::string reference(const std::string& s) const {
        if (std::string name = name_of(s); !name.empty()) return name;
        const auto point = s.rfind('.');
        if (point != std::string::npos)
            if (const std::string name = name_of(s.substr(0, point)); !name.empty())
                return name + s.substr(point);
        return "=" + Json(s).dump();  // of nothing in this plan: as it stands
    }
    [[nodiscard]] std::string name_of(const std::string& id) const {
        std::string name = names_.of(id);
        if (!name.empty() || !wider_) return name;
        // not among these lines, where another thing is called the same
        const std::string bare = wider_->bare_of(id);
        return names_.has(bare) ? Json(bare).dump() + "#plan" : wider_->of(id);
    }
    [[nodiscard]] std::string object(const Json& value) const {
        std::string inside;  // what has no id of its own says its name as a field
        if (value.contains("id") && value.contains("name")) inside = Json(value["name"]).dump();
        if (value.contains("id") && known_.contains(value["id"].get<std::string>()))
            inside += " for " + names_.of(value["id"]);  // in a variant: stands in place of that
        const std::string rest = parts(value);
        return "{" + inside + (!inside.empty() && !rest.empty() ? ": " : "") + rest + "}";
    }
    const Names& names_;
    const std::set<std::string>& known_;  // ids of the plan itself
    const Names* wider_;
};

// Of things and of what they hold, variants left out.
std::set<std::string> ids_of_plan(const Json& file) {
    std::set<std::string> ids;
    const std::function<void(const Json&)> collect = [&](const Json& node) {
        if (node.is_object() && node.contains("id") && node["id"].is_string()) ids.insert(node["id"]);
        if (node.is_structured())
            for (const auto& x : node) collect(x);
    };
    for (const auto& [key, value] : file.items())
        if (key != "variants") collect(value);
    return ids;
}

std::string line_of(const char* kind, const Json& thing, const LineWriter& writer) {
    const std::string parts = writer.parts(thing);
    return std::string(kind) + " " + Json(thing.value("name", "")).dump() +
           (parts.empty() ? "" : ": " + parts) + "\n";
}

}  // namespace

std::string plan_text(const Plan& plan) {
    const Json file = file_of(plan);
    const Names names(file);
    const std::set<std::string> known = ids_of_plan(file), none;
    const LineWriter writer(names, none), inside(names, known);
    Json vehicle = file["vehicle"];
    vehicle.erase("name");
    std::string text = "vehicle " + Json(plan.vehicle.name).dump() + ": " + writer.parts(vehicle) + "\n";
    if (file.contains("policy")) text += "policy: " + writer.parts(file["policy"]) + "\n";
    for (const auto& [list, kind] : kKinds) {
        if (!file.contains(list)) continue;
        for (const auto& thing : file[list]) {
            const bool variant = std::string_view(kind) == "variant";
            text += line_of(kind, thing, variant ? inside : writer);
        }
    }
    if (file.contains("active") && !file["active"].get<std::string>().empty())
        text += "active: " + writer.parts(Json{{"active", file["active"]}}) + "\n";
    if (file.contains("survey") && !file["survey"].empty())
        text += "survey: " + writer.parts(file["survey"]) + "\n";
    return text;
}

std::string text_of_things(const Plan& plan, const std::set<Id>& things) {
    const Json file = file_of(plan);
    Json part = Json::object();
    for (const auto& [list, kind] : kKinds)
        if (file.contains(list) && std::string_view(kind) != "variant")
            for (const auto& thing : file[list])
                if (things.contains(thing["id"].get<std::string>())) part[list].push_back(thing);
    const Names names(part), wider(file);
    const std::set<std::string> none;
    const LineWriter writer(names, none, &wider);
    std::string text;
    for (const auto& [list, kind] : kKinds)
        if (part.contains(list))
            for (const auto& thing : part[list]) text += line_of(kind, thing, writer);
    return text;
}

namespace {

template <class T>
bool is_field_of(std::string_view word) {
    bool known = false;
    T thing;
    fields([&](const Field& field, const auto&) { known = known || word == field.key; }, thing);
    return known;
}

// These have a typed form with a colon too; a field's name behind it tells them apart.
bool said_by_fields(std::string_view kind, std::string_view behind_colon) {
    const std::string_view word = behind_colon.substr(0, behind_colon.find_first_of(" \t,"));
    if (kind == "day") return word.empty() || is_field_of<Day>(word);
    if (kind == "way") return word.empty() || is_field_of<Way>(word);
    if (kind == "waypoint") return word.empty() || is_field_of<Waypoint>(word);
    return true;
}

}  // namespace

bool is_thing_line(std::string_view line) {
    const std::string_view kind = kind_word(line);
    const std::string_view rest = trim(line.substr(kind.size()));
    if (kind == "policy:" || kind == "active:" || kind == "survey:") return true;
    if (kind != "vehicle" && !list_of_kind(kind)) return false;
    // the typed line of the same word has a name without quotes, or no colon behind it
    if (!rest.starts_with('"')) return false;
    const auto close = rest.find('"', 1);
    if (close == std::string_view::npos) return false;
    const std::string_view after = trim(rest.substr(close + 1));
    return after.empty() ? kind == "variant" || kind == "place" || kind == "connector" || kind == "jacket"
                         : after.starts_with(':') && said_by_fields(kind, trim(after.substr(1)));
}

Result<Plan> plan_from_text(const std::vector<std::string>& lines) {
    Json file = {{"format", "your-rail-plan"}, {"version", kPlanVersion}};
    file["vehicle"] = {{"name", "vehicle"}, {"nominal_V", 12}};
    for (const auto& [list, kind] : kKinds) file[list] = Json::array();
    int next_id = 0;
    for (std::size_t k = 0; k < lines.size(); ++k) {
        const std::string_view line = trim(lines[k]);
        if (line.empty() || line[0] == '#') continue;
        auto read = read_thing_line(line, k + 1, "n", next_id);
        if (!read) return tl::unexpected(read.error());
        if (read->list) {
            file[read->list].push_back(std::move(read->thing));
            continue;
        }
        read->thing.erase("id");
        if (read->word == "active")
            file["active"] = read->thing["active"];
        else
            file[read->word] = std::move(read->thing);
    }
    const Names names(file);
    if (auto error = resolve(file, names)) return tl::unexpected(*error);
    for (const auto& [list, kind] : kKinds)
        if (file[list].empty() && std::string_view(kind) != "state") file.erase(list);
    return plan_from_json_text(file.dump());
}

std::string text_without_ids(const Plan& plan) {
    Json file = file_of(plan);
    std::map<std::string, std::string> fresh;
    const std::function<void(Json&)> collect = [&](Json& node) {
        if (node.is_object()) {
            if (node.contains("id") && node["id"].is_string())
                fresh.try_emplace(node["id"].get<std::string>(), "i" + std::to_string(fresh.size()));
            for (auto& [key, value] : node.items()) collect(value);
        } else if (node.is_array()) {
            for (auto& x : node) collect(x);
        }
    };
    collect(file);
    const auto renamed = [&](const std::string& s) {
        const auto whole = fresh.find(s);
        if (whole != fresh.end()) return whole->second;
        const auto point = s.rfind('.');
        const auto owner = point == std::string::npos ? fresh.end() : fresh.find(s.substr(0, point));
        return owner == fresh.end() ? s : owner->second + s.substr(point);
    };
    each_reference(file, [&](Json& text) { text = renamed(text); });
    const std::function<void(Json&)> own = [&](Json& node) {
        if (node.is_object()) {
            if (node.contains("id") && node["id"].is_string()) node["id"] = renamed(node["id"]);
            for (auto& [key, value] : node.items()) own(value);
        } else if (node.is_array()) {
            for (auto& x : node) own(x);
        }
    };
    own(file);
    return file.dump(1);
}

Result<Plan> with_field(const Plan& plan, const Id& thing, std::string_view key, std::string_view typed) {
    Json file = file_of(plan);
    const Names names(file);
    auto value = read_value(trim(typed), reference_keys().contains(key));
    if (!value) return tl::unexpected(value.error());
    Json holder = {{std::string(key), std::move(*value)}};
    if (auto error = resolve(holder, names)) return tl::unexpected(*error);
    bool found = false;
    const std::function<void(Json&)> set = [&](Json& node) {
        if (node.is_object()) {
            if (!found && node.contains("id") && node["id"] == thing) {
                node[std::string(key)] = holder[std::string(key)];
                found = true;
            }
            for (auto& [k, v] : node.items())
                if (k != "variants") set(v);
        } else if (node.is_array()) {
            for (auto& x : node) set(x);
        }
    };
    set(file);
    if (!found) return fail(ErrorCode::missing_reference, {}, thing, Want::something_that_is_in_the_plan);
    return plan_from_json_text(file.dump());
}

}  // namespace yr
