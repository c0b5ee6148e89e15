// The parts of which plan_text.h and piece.h are made: names for ids, a line's fields as JSON, names spoken
// of made ids again. Of this room alone.
#pragma once

#include <functional>
#include <map>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr::thing_lines {

using Json = nlohmann::ordered_json;

// Lists of the file and what a thing of each is called on its line.
inline constexpr std::pair<const char*, const char*> kKinds[] = {
    {"places", "place"},    {"waypoints", "waypoint"}, {"ways", "way"},           {"points", "point"},
    {"sources", "source"},  {"batteries", "battery"},  {"inverters", "inverter"}, {"connectors", "connector"},
    {"jackets", "jacket"},  {"runs", "run"},           {"loads", "load"},         {"states", "state"},
    {"days", "day"},        {"panel", "switch"},       {"accepted", "accepted"},  {"marks", "mark"},
    {"variants", "variant"}};

// Keys whose text speaks of another thing: an id, or an id with the post of a terminal.
[[nodiscard]] const std::set<std::string, std::less<>>& reference_keys();

class Names {
  public:
    explicit Names(const Json& file) { collect(file); }

    [[nodiscard]] bool has(const std::string& name) const { return by_name_.contains(name); }
    // "pump feed", or "pump feed"#2 where others before it have that name.
    [[nodiscard]] std::string of(const std::string& id) const {
        const auto found = by_id_.find(id);
        if (found == by_id_.end()) return {};
        const auto& [name, number] = found->second;
        return Json(name).dump() + (number > 1 ? "#" + std::to_string(number) : "");
    }
    [[nodiscard]] std::string bare_of(const std::string& id) const {
        const auto found = by_id_.find(id);
        return found == by_id_.end() ? std::string() : found->second.first;
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

[[nodiscard]] Json file_of(const Plan& plan);

// The list of the file that a line's first word belongs to; nullptr for none.
[[nodiscard]] const char* list_of_kind(std::string_view kind);
[[nodiscard]] std::string_view kind_word(std::string_view line);

// A line's first word and the thing it says, its references not yet resolved.
struct ThingLine {  // NOLINT(bugprone-exception-escape): what the Json in it asserts
    std::string word;
    const char* list = nullptr;  // nullptr: vehicle, policy, active, survey
    Json thing;
};
// Ids are `head` and the next number. Failure: bad_json with line and column, unknown_name.
[[nodiscard]] Result<ThingLine> read_thing_line(std::string_view line, std::size_t number, const char* head,
                                                int& next_id);
// A value alone, as in "set NAME field value".
[[nodiscard]] Result<Json> read_value(std::string_view text, bool refers);

// Names spoken of made ids: `first` before `second`. Failure: missing_reference with the name.
[[nodiscard]] std::optional<Error> resolve(Json& node, const Names& first, const Names* second = nullptr);

}  // namespace yr::thing_lines
