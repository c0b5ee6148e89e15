#include "plan/library.h"

#include <algorithm>

#include "catalog/shipped.h"
#include "plan/json_fields.h"
#include "plan/json_text.h"
#include "units/text.h"

namespace yr {

template <class V, PartOf<LoadEntry> T>
void fields(V&& v, T& x) {
    v("trade", x.trade);
    v("also", x.also);
    v("mains", x.mains);
    v("load", x.load);
}

template <class V, PartOf<BoxEntry> T>
void fields(V&& v, T& x) {
    v("box", x.box);
}

template <class V, PartOf<SetEntry> T>
void fields(V&& v, T& x) {
    v("name", x.name);
    v("lines", x.lines);
}

namespace {

// How well an entry answers what is typed; 0: not at all.
int match(const LoadEntry& entry, const std::string& typed) {
    const std::string name = to_lower(entry.load.name);
    std::string all = name + " " + to_lower(entry.trade);
    bool other = false;
    for (const std::string& word : entry.also) {
        all += " " + to_lower(word);
        other = other || to_lower(word) == typed;
    }
    if (name == typed) return 6;
    if (other) return 5;
    if (name.starts_with(typed)) return 4;
    if ((" " + name).find(" " + typed) != std::string::npos) return 3;
    if ((" " + all).find(" " + typed) != std::string::npos) return 2;
    std::size_t from = 0;
    while (from < typed.size()) {  // each word somewhere
        const std::size_t to = std::min(typed.find(' ', from), typed.size());
        if (all.find(typed.substr(from, to - from)) == std::string::npos) return 0;
        from = to + 1;
    }
    return 1;
}

std::string trimmed_lower(std::string_view text) {
    const auto first = text.find_first_not_of(" \t"), last = text.find_last_not_of(" \t");
    return first == std::string_view::npos ? std::string() : to_lower(text.substr(first, last - first + 1));
}

bool usable(const Load& l) {
    return !l.name.empty() && l.draw.value > 0;
}

}  // namespace

const Library& shipped_library() {
    static const Library library = *read_library(shipped_table("library.json").dump());
    return library;
}

std::string library_text(const Library& library) {
    using json_fields::Json;
    Json file = Json::object();
    file["format"] = "your-rail-library";
    file["version"] = 1;
    file["loads"] = Json::array();
    for (const LoadEntry& e : library.loads) file["loads"].push_back(json_fields::written(e));
    file["boxes"] = Json::array();
    for (const BoxEntry& e : library.boxes) file["boxes"].push_back(json_fields::written(e));
    file["sets"] = Json::array();
    for (const SetEntry& e : library.sets) file["sets"].push_back(json_fields::written(e));
    return file.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<Library> read_library(std::string_view text) {
    using json_fields::In;
    const auto parsed = parse_json(text);
    if (!parsed) return tl::unexpected(parsed.error());
    const In& file = *parsed;
    if (!file.is_object() || file.value("format", In()) != "your-rail-library")
        return fail(ErrorCode::not_a_plan, "format", {}, Want::your_rail_library);
    Library library;
    const auto read_all = [&](const char* list, auto& entries) -> std::optional<Error> {
        for (const In& item : file.value(list, In::array())) {
            auto& entry = entries.emplace_back();
            try {  // a hand-written entry may hold a word where a number belongs
                json_fields::read_value(item, entry, Field("entry"), nullptr);
            } catch (const In::exception&) {
                return Error{ErrorCode::schema,
                             std::string(list) + ", entry " + std::to_string(entries.size()),
                             {},
                             Want::a_name_numbers_and_words_as_the_shipped};
            }
        }
        return std::nullopt;
    };
    if (auto e = read_all("loads", library.loads)) return tl::unexpected(*e);
    if (auto e = read_all("boxes", library.boxes)) return tl::unexpected(*e);
    if (auto e = read_all("sets", library.sets)) return tl::unexpected(*e);
    for (std::size_t k = 0; k < library.sets.size(); ++k)
        if (library.sets[k].name.empty() || library.sets[k].lines.empty())
            return fail(ErrorCode::schema, "sets, entry " + std::to_string(k + 1), library.sets[k].name,
                        Want::a_name_and_lines);
    for (std::size_t k = 0; k < library.loads.size(); ++k)
        if (!usable(library.loads[k].load))
            return fail(ErrorCode::schema, "loads, entry " + std::to_string(k + 1),
                        library.loads[k].load.name, Want::a_name_and_a_draw_above_0);
    for (std::size_t k = 0; k < library.boxes.size(); ++k)
        if (library.boxes[k].box.channels.empty())
            return fail(ErrorCode::schema, "boxes, entry " + std::to_string(k + 1), library.boxes[k].box.name,
                        Want::at_least_one_channel);
    return library;
}

Library with_own(const Library& own) {
    Library all;
    for (LoadEntry e : own.loads) {
        e.own = true;
        all.loads.push_back(std::move(e));
    }
    for (const LoadEntry& e : shipped_library().loads)
        if (!entry_named(own, e.load.name)) all.loads.push_back(e);
    for (BoxEntry e : own.boxes) {
        e.own = true;
        all.boxes.push_back(std::move(e));
    }
    for (const BoxEntry& e : shipped_library().boxes) all.boxes.push_back(e);
    for (SetEntry e : own.sets) {
        e.own = true;
        all.sets.push_back(std::move(e));
    }
    for (const SetEntry& e : shipped_library().sets)
        if (std::none_of(own.sets.begin(), own.sets.end(),
                         [&](const SetEntry& o) { return o.name == e.name; }))
            all.sets.push_back(e);
    return all;
}

std::vector<const LoadEntry*> search(const Library& library, std::string_view typed, std::size_t most) {
    const std::string wanted = trimmed_lower(typed);
    std::vector<std::pair<int, const LoadEntry*>> found;
    for (const LoadEntry& e : library.loads)
        if (const int score = match(e, wanted); score > 0) found.emplace_back(score, &e);
    std::stable_sort(found.begin(), found.end(),
                     [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<const LoadEntry*> best;
    for (const auto& [score, entry] : found)
        if (best.size() < most) best.push_back(entry);
    return best;
}

const LoadEntry* entry_named(const Library& library, std::string_view name) {
    const std::string wanted = trimmed_lower(name);
    for (const LoadEntry& e : library.loads)
        if (to_lower(e.load.name) == wanted) return &e;
    for (const LoadEntry& e : library.loads)
        for (const std::string& word : e.also)
            if (to_lower(word) == wanted) return &e;
    return nullptr;
}

}  // namespace yr
