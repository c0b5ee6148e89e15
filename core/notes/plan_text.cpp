#include "notes/plan_text.h"

#include <algorithm>
#include <charconv>
#include <nlohmann/json.hpp>
#include <set>

#include "plan/plan_json.h"
#include "units/text.h"

namespace yr {
namespace {

using Json = nlohmann::ordered_json;

// Lists of the file and what a thing of each is called on its line.
constexpr std::pair<const char*, const char*> kKinds[] = {
    {"places", "place"},       {"points", "point"},         {"sources", "source"}, {"batteries", "battery"},
    {"inverters", "inverter"}, {"connectors", "connector"}, {"jackets", "jacket"}, {"runs", "run"},
    {"loads", "load"},         {"states", "state"},         {"panel", "switch"},   {"accepted", "accepted"},
    {"variants", "variant"}};

// Keys whose text speaks of another thing: an id, or an id with the post of a terminal.
const std::set<std::string, std::less<>>& reference_keys() {
    static const std::set<std::string, std::less<>> keys{
        "place",           "bonded_to", "return_at", "charges", "circuits", "inverter", "from",   "to",
        "places",          "coil",      "measures",  "tap_of",  "closed",   "opened",   "pulled", "connector",
        "grounds_without", "jacket",    "removed",   "active",  "about",    "other",    "state",  "point",
        "drawn_at",        "terminal"};
    return keys;
}

// ---- names for ids

class Names {
  public:
    explicit Names(const Json& file) { collect(file); }

    // "pump feed", or "pump feed"#2 where others before it have that name.
    [[nodiscard]] std::string of(const std::string& id) const {
        const auto found = by_id_.find(id);
        if (found == by_id_.end()) return {};
        const auto& [name, number] = found->second;
        return Json(name).dump() + (number > 1 ? "#" + std::to_string(number) : "");
    }
    [[nodiscard]] std::string id_of(const std::string& name, int number) const {
        const auto found = by_name_.find(name);
        if (found == by_name_.end() || number < 1 || number > static_cast<int>(found->second.size()))
            return {};
        return found->second[static_cast<std::size_t>(number - 1)];
    }

  private:
    // Things of variants stand in place of others under the same id, and are named after those.
    void collect(const Json& node) {
        if (node.is_object()) {
            if (node.contains("id") && node.contains("name") && node["id"].is_string()) {
                const std::string id = node["id"], name = node["name"];
                if (!by_id_.contains(id)) {
                    by_name_[name].push_back(id);
                    by_id_[id] = {name, static_cast<int>(by_name_[name].size())};
                }
            }
            for (const auto& [key, value] : node.items()) collect(value);
        } else if (node.is_array()) {
            for (const auto& x : node) collect(x);
        }
    }
    std::map<std::string, std::pair<std::string, int>> by_id_;
    std::map<std::string, std::vector<std::string>> by_name_;
};

// Calls use(text) for every text of the file that may speak of another thing.
template <class F>
void each_reference(Json& node, F&& use, bool refers = false) {
    if (node.is_object()) {
        for (auto& [key, value] : node.items()) each_reference(value, use, reference_keys().contains(key));
    } else if (node.is_array()) {
        for (auto& x : node) each_reference(x, use, refers);
    } else if (refers && node.is_string()) {
        use(node);
    }
}

// ---- writing

bool plain_word(const std::string& s) {
    if (s.empty() || s == "yes" || s == "no" || !(s[0] >= 'a' && s[0] <= 'z')) return false;
    return std::all_of(s.begin(), s.end(),
                       [](char c) { return (c >= 'a' && c <= 'z') || c == '_' || (c >= '0' && c <= '9'); });
}

class LineWriter {
  public:
    explicit LineWriter(const Names& names, const std::set<std::string>& known)
        : names_(names), known_(known) {}

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
        if (const std::string name = names_.of(s); !name.empty()) return name;
        const auto point = s.rfind('.');
        if (point != std::string::npos)
            if (const std::string name = names_.of(s.substr(0, point)); !name.empty())
                return name + s.substr(point);
        return "=" + Json(s).dump();  // of nothing in this plan: as it stands
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
};

Json file_of(const Plan& plan) {
    return Json::parse(to_json_text(plan));
}

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

// ---- reading

class LineParser {
  public:
    LineParser(std::string_view text, int& next_id) : text_(text), next_id_(next_id) {}

    [[nodiscard]] Result<Json> thing() {
        Json out = Json::object();
        out["id"] = new_id();
        blank();
        if (peek() == '"') {
            const auto name = quoted();
            if (!name) return tl::unexpected(name.error());
            out["name"] = *name;
        }
        blank();
        if (done()) return out;
        if (!take(':')) return wrong();
        if (auto error = fields(out, '\0')) return tl::unexpected(*error);
        return out;
    }

    [[nodiscard]] Result<Json> value_alone(bool refers) {
        auto v = value(refers);
        blank();
        if (v && !done()) return wrong();
        return v;
    }

  private:
    using Maybe = std::optional<Error>;

    std::string new_id() { return "n" + std::to_string(++next_id_); }
    [[nodiscard]] bool done() const { return at_ >= text_.size(); }
    [[nodiscard]] char peek() const { return done() ? '\0' : text_[at_]; }
    bool take(char c) {
        if (peek() != c || done()) return false;
        ++at_;
        return true;
    }
    void blank() {
        while (!done() && (peek() == ' ' || peek() == '\t')) ++at_;
    }
    [[nodiscard]] tl::unexpected<Error> wrong() const {
        return fail(ErrorCode::bad_json, "column " + std::to_string(at_ + 1),
                    std::string(text_.substr(std::min(at_, text_.size()), 12)), Want::key_and_value);
    }

    Result<std::string> quoted() {
        const std::size_t from = at_++;
        while (!done() && peek() != '"') at_ += peek() == '\\' ? 2 : 1;
        if (!take('"')) return wrong();
        const auto read = Json::parse(text_.substr(from, at_ - from), nullptr, false);
        if (!read.is_string()) return wrong();
        return read.get<std::string>();
    }

    std::string word() {
        const std::size_t from = at_;
        while (!done() && std::string_view(" \t,[]{}\":").find(peek()) == std::string_view::npos) ++at_;
        return std::string(text_.substr(from, at_ - from));
    }

    // key value, key value … up to `end`
    Maybe fields(Json& out, char end) {
        while (true) {
            blank();
            if (end ? peek() == end : done()) return std::nullopt;
            const std::string key = word();
            if (key.empty() || out.contains(key)) return wrong().value();
            blank();
            auto v = value(reference_keys().contains(key));
            if (!v) return v.error();
            out[key] = std::move(*v);
            blank();
            if (take(',')) continue;
            if (end ? peek() == end : done()) return std::nullopt;
            return wrong().value();
        }
    }

    Result<Json> value(bool refers) {
        blank();
        if (done() || ++depth_ > kDeepest) return wrong();
        auto v = one_value(refers);
        --depth_;
        return v;
    }

    Result<Json> one_value(bool refers) {
        if (take('[')) return list(refers);
        if (take('{')) return object();
        if (refers) return reference();
        if (peek() == '"') {
            auto s = quoted();
            if (!s) return tl::unexpected(s.error());
            return Json(std::move(*s));
        }
        const std::string w = word();
        if (w.empty()) return wrong();
        if (w == "yes" || w == "no") return Json(w == "yes");
        double number = 0;
        const auto [end, error] = std::from_chars(w.data(), w.data() + w.size(), number);
        if (error == std::errc() && end == w.data() + w.size()) {
            const auto whole = Json::parse(w, nullptr, false);
            return whole.is_discarded() ? Json(number) : whole;
        }
        return Json(w);
    }

    Result<Json> list(bool refers) {
        Json out = Json::array();
        blank();
        if (take(']')) return out;
        while (true) {
            auto v = value(refers);
            if (!v) return v;
            out.push_back(std::move(*v));
            blank();
            if (take(']')) return out;
            if (!take(',')) return wrong();
        }
    }

    Result<Json> object() {
        Json out = Json::object();
        blank();
        if (peek() == '"') {
            auto name = quoted();
            if (!name) return tl::unexpected(name.error());
            out["id"] = new_id();
            out["name"] = *name;
            blank();
            if (text_.substr(at_, 4) == "for ") {
                at_ += 4;
                blank();
                auto ref = reference();
                if (!ref) return ref;
                out["id"] = Json(ref->get<std::string>());  // resolved with the others
                out["for"] = true;
                blank();
            }
            if (!take(':') && peek() != '}') return wrong();
        }
        if (auto error = fields(out, '}')) return tl::unexpected(*error);
        if (!take('}')) return wrong();
        return out;
    }

    // A name, which other, which post: kept as "\x01name\x01number\x01post" until all names are known.
    Result<Json> reference() {
        if (take('=')) {
            if (peek() != '"') return wrong();
            auto raw = quoted();
            if (!raw) return tl::unexpected(raw.error());
            return Json(*raw);
        }
        std::string name;
        if (peek() == '"') {
            auto q = quoted();
            if (!q) return tl::unexpected(q.error());
            name = *q;
        } else {
            name = word();
            if (name.empty()) return wrong();
            return Json("\x01" + name + "\x01" + "1" + "\x01");
        }
        std::string number = "1", post;
        if (take('#')) {
            const std::size_t from = at_;
            while (!done() && peek() >= '0' && peek() <= '9') ++at_;
            number = std::string(text_.substr(from, at_ - from));
            if (number.empty() || number.size() > 6) return wrong();
        }
        if (peek() == '.') post = word();
        return Json("\x01" + name + "\x01" + number + "\x01" + post);
    }

    static constexpr int kDeepest = 40;
    std::string_view text_;
    std::size_t at_ = 0;
    int depth_ = 0;
    int& next_id_;
};

// Names for ids, now that all things are known. `line` is told where a name is not.
class Resolver {
  public:
    explicit Resolver(const Names& names) : names_(names) {}

    std::optional<Error> resolve(Json& node) {
        each_reference(node, [&](Json& text) { replace(text); });
        stand_ins(node);
        return error_;
    }

  private:
    void replace(Json& text) {
        const std::string s = text;
        if (s.empty() || s[0] != '\x01') return;
        const auto a = s.find('\x01', 1), b = s.find('\x01', a + 1);
        const std::string name = s.substr(1, a - 1), post = s.substr(b + 1);
        const std::string id = names_.id_of(name, std::stoi(s.substr(a + 1, b - a - 1)));
        if (id.empty()) {
            if (!error_)
                error_ = Error{ErrorCode::missing_reference, {}, name, Want::something_that_is_in_the_plan};
            return;
        }
        text = id + post;
    }

    // Things of a variant that stand in place of others take their ids.
    void stand_ins(Json& node) {
        if (node.is_object()) {
            if (node.contains("for")) {
                replace(node["id"]);
                node.erase("for");
            }
            for (auto& [key, value] : node.items()) stand_ins(value);
        } else if (node.is_array()) {
            for (auto& x : node) stand_ins(x);
        }
    }

    const Names& names_;
    std::optional<Error> error_;
};

std::string_view kind_word(std::string_view line) {
    const auto end = line.find_first_of(" \t");
    return line.substr(0, end);
}

const char* list_of_kind(std::string_view kind) {
    for (const auto& [list, word] : kKinds)
        if (kind == word) return list;
    return nullptr;
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
            const std::string parts = (variant ? inside : writer).parts(thing);
            text += std::string(kind) + " " + Json(thing.value("name", "")).dump() +
                    (parts.empty() ? "" : ": " + parts) + "\n";
        }
    }
    if (file.contains("active") && !file["active"].get<std::string>().empty())
        text += "active: " + writer.parts(Json{{"active", file["active"]}}) + "\n";
    if (file.contains("survey") && !file["survey"].empty())
        text += "survey: " + writer.parts(file["survey"]) + "\n";
    return text;
}

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
                         : after.starts_with(':');
}

Result<Plan> plan_from_text(const std::vector<std::string>& lines) {
    Json file = {{"format", "your-rail-plan"}, {"version", kPlanVersion}};
    file["vehicle"] = {{"name", "vehicle"}, {"nominal_V", 12}};
    for (const auto& [list, kind] : kKinds) file[list] = Json::array();
    int next_id = 0;
    std::vector<std::pair<Json*, std::size_t>> told;
    for (std::size_t k = 0; k < lines.size(); ++k) {
        const std::string_view line = trim(lines[k]);
        if (line.empty() || line[0] == '#') continue;
        const std::string place = "line " + std::to_string(k + 1);
        const std::string_view kind = kind_word(line);
        const bool plain = kind.ends_with(':');
        const std::string_view word = plain ? kind.substr(0, kind.size() - 1) : kind;
        const char* list = list_of_kind(word);
        if (!list && word != "vehicle" && word != "policy" && word != "active" && word != "survey")
            return fail(ErrorCode::unknown_name, place, std::string(word), Want::a_kind_of_thing);
        LineParser parser(line.substr(word.size()), next_id);
        auto thing = parser.thing();
        if (!thing) {
            thing.error().place = place + ", " + thing.error().place;
            return tl::unexpected(thing.error());
        }
        if (list) {
            file[list].push_back(std::move(*thing));
        } else {
            thing->erase("id");
            if (word == "active")
                file["active"] = (*thing)["active"];
            else
                file[std::string(word)] = std::move(*thing);
        }
    }
    const Names names(file);
    if (auto error = Resolver(names).resolve(file)) return tl::unexpected(*error);
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
    int next_id = 0;
    LineParser parser(trim(typed), next_id);
    auto value = parser.value_alone(reference_keys().contains(key));
    if (!value) return tl::unexpected(value.error());
    Json holder = {{std::string(key), std::move(*value)}};
    if (auto error = Resolver(names).resolve(holder)) return tl::unexpected(*error);
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
