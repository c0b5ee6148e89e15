#include "notes/sets.h"

#include <algorithm>
#include <functional>

#include "units/text.h"

namespace yr {
namespace {

// Calls use(text between, mark) along a line; a mark without its closing brace is text.
void each_mark(std::string_view line, const std::function<void(std::string_view, const SetMark*)>& use) {
    std::size_t from = 0;
    while (from < line.size()) {
        const auto open = line.find('{', from);
        const auto close = open == std::string_view::npos ? open : line.find('}', open);
        if (close == std::string_view::npos) break;
        if (open > from) use(line.substr(from, open - from), nullptr);
        const std::string_view inside = line.substr(open + 1, close - open - 1);
        const auto equals = inside.find('=');
        const SetMark mark{
            std::string(trim(inside.substr(0, equals))),
            equals == std::string_view::npos ? std::string() : std::string(trim(inside.substr(equals + 1)))};
        use({}, &mark);
        from = close + 1;
    }
    if (from < line.size()) use(line.substr(from), nullptr);
}

SetMark* named(std::vector<SetMark>& marks, std::string_view name) {
    const auto same = std::find_if(marks.begin(), marks.end(),
                                   [&](const SetMark& m) { return to_lower(m.name) == to_lower(name); });
    return same == marks.end() ? nullptr : &*same;
}

// "each 50 W" is of the mark `each`; the longest name counts.
SetMark* mark_said(std::vector<SetMark>& marks, std::string_view part) {
    SetMark* best = nullptr;
    for (SetMark& m : marks)
        if (to_lower(part).starts_with(to_lower(m.name) + " ") &&
            (!best || m.name.size() > best->name.size()))
            best = &m;
    return best;
}

}  // namespace

std::vector<SetMark> marks_of(const SetEntry& set) {
    std::vector<SetMark> marks;
    for (const std::string& line : set.lines)
        each_mark(line, [&](std::string_view, const SetMark* mark) {
            if (!mark || mark->name.empty()) return;
            if (SetMark* known = named(marks, mark->name)) {
                if (known->text.empty()) known->text = mark->text;
            } else {
                marks.push_back(*mark);
            }
        });
    return marks;
}

const SetEntry* set_on_line(const Library& library, std::string_view line) {
    const std::string head = to_lower(trim(line.substr(0, line.find(','))));
    for (const SetEntry& set : library.sets)
        if (to_lower(set.name) == head) return &set;
    return nullptr;
}

FilledSet fill_set(const SetEntry& set, std::string_view line) {
    FilledSet filled;
    std::vector<SetMark> marks = marks_of(set);
    const auto comma = line.find(',');
    if (comma != std::string_view::npos)
        for (const std::string_view piece : split(line.substr(comma + 1), ',')) {
            const std::string_view part = trim(piece);
            if (part.empty()) continue;
            if (SetMark* mark = mark_said(marks, part))
                mark->text = std::string(trim(part.substr(mark->name.size())));
            else
                filled.not_understood.emplace_back(part);
        }
    for (const std::string& text : set.lines) {
        std::string out;
        each_mark(text, [&](std::string_view between, const SetMark* mark) {
            if (!mark)
                out += between;
            else if (const SetMark* known = named(marks, mark->name))
                out += known->text;
        });
        filled.lines.push_back(std::move(out));
    }
    return filled;
}

std::string typed_form(const SetEntry& set) {
    std::string form = set.name;
    for (const SetMark& mark : marks_of(set)) form += ", " + mark.name + " " + mark.text;
    return form;
}

}  // namespace yr
