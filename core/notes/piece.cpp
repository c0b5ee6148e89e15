#include "notes/piece.h"

#include <algorithm>

#include "control/place_on.h"
#include "notes/plan_text.h"
#include "notes/thing_lines.h"
#include "plan/plan_json.h"
#include "plan/variant.h"
#include "units/text.h"

namespace yr {
namespace {

using namespace thing_lines;

constexpr const char* kNewIds = "piece-";

void add_places(const Plan& plan, std::set<Id>& things) {
    const auto at = [&](const Id& place) {
        if (!place.empty() && find(plan.places, place)) things.insert(place);
    };
    const std::set<Id> chosen = things;
    each_list(plan, [&](const auto& list) {
        for (const auto& x : list) {
            if (!chosen.contains(x.id)) continue;
            if constexpr (requires { x.place; }) at(x.place);
            if constexpr (requires { x.places; })
                for (const Id& place : x.places) at(place);
        }
    });
}

bool names_something(const Json& file, const std::string& name) {
    for (const auto& [list, kind] : kKinds)
        if (file.contains(list))
            for (const auto& thing : file[list])
                if (thing.value("name", "") == name) return true;
    return false;
}

// "pump" beside a pump is "pump 2".
void give_free_name(Json& thing, const Json& file) {
    const std::string name = thing.value("name", "");
    if (name.empty() || !names_something(file, name)) return;
    for (int n = 2;; ++n) {
        const std::string numbered = name + " " + std::to_string(n);
        if (names_something(file, numbered)) continue;
        thing["name"] = numbered;
        return;
    }
}

// Cables on channels of the plan's own boxes: on the same channel where it is free, else on the next free
// one.
std::optional<Error> give_free_channels(const Plan& plan, Json& runs) {
    std::map<Id, std::vector<int>> free;
    for (auto& run : runs) {
        const int wanted = run.value("channel", 0);
        const Point* box = find(plan.points, run.value("from", ""));
        if (wanted == 0 || !box) continue;
        auto& left = free.try_emplace(box->id, free_channels(plan, *box)).first->second;
        if (left.empty())
            return Error{ErrorCode::out_of_range, run.value("name", ""), box->name,
                         Want::a_channel_that_no_other_run_hangs_on};
        auto taken = std::find(left.begin(), left.end(), wanted);
        if (taken == left.end()) taken = left.begin();
        run["channel"] = *taken;
        left.erase(taken);
    }
    return std::nullopt;
}

}  // namespace

std::string piece_text(const Plan& plan, const std::vector<Id>& things) {
    std::set<Id> chosen(things.begin(), things.end());
    for (const Run& r : plan.runs) {
        const bool from = chosen.contains(owner_of(r.from)), to = chosen.contains(owner_of(r.to));
        if (things.size() == 1 ? from || to : from && to) chosen.insert(r.id);
    }
    add_places(plan, chosen);
    return text_of_things(plan, chosen);
}

Result<Piece> read_piece(const Plan& plan, const std::vector<std::string>& lines) {
    Json file = file_of(plan);
    const Names known(file);
    Json part = Json::object();
    int next_id = 0;
    Piece piece;
    bool about_a_run = false;
    std::string head = kNewIds;  // free in the plan
    while (file.dump().find("\"" + head) != std::string::npos) head += "x";
    for (std::size_t k = 0; k < lines.size(); ++k) {
        const std::string_view line = trim(lines[k]);
        if (line.empty() || line[0] == '#') continue;
        auto read = read_thing_line(line, k + 1, head.c_str(), next_id);
        if (!read) return tl::unexpected(read.error());
        if (!read->list || read->word == "variant")
            return fail(ErrorCode::unknown_name, "line " + std::to_string(k + 1), read->word,
                        Want::a_kind_of_thing);
        // where things stand is a matter of names: a place that the plan has is meant
        if (read->word == "place" && !known.id_of(read->thing.value("name", ""), 1).empty()) continue;
        if (read->word != "place" && (piece.about.empty() || (about_a_run && read->word != "run"))) {
            piece.about = read->thing["id"];
            about_a_run = read->word == "run";
        }
        part[read->list].push_back(std::move(read->thing));
    }
    const Names own(part);
    if (auto error = resolve(part, own, &known)) return tl::unexpected(*error);
    if (part.contains("runs"))
        if (auto error = give_free_channels(plan, part["runs"])) return tl::unexpected(*error);
    for (auto& [list, things] : part.items())
        for (auto& thing : things) {
            give_free_name(thing, file);
            file[list].push_back(thing);
        }
    const auto merged = plan_from_json_text(file.dump());
    if (!merged) return tl::unexpected(merged.error());
    piece.edit = edit_between(plan, *merged);
    return piece;
}

}  // namespace yr
