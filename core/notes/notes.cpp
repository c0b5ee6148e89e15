#include "notes/notes.h"

#include <algorithm>

#include "catalog/shipped.h"
#include "notes/piece.h"
#include "notes/plan_text.h"
#include "notes/several.h"
#include "units/text.h"

namespace yr {

int Notes::bad() const {
    return static_cast<int>(
               std::count_if(lines.begin(), lines.end(), [](const NoteLine& l) { return l.bad(); })) +
           things.has_value();
}

Plan blank_vehicle() {
    Plan plan = empty_plan("vehicle");
    plan.points.clear();
    plan.runs.clear();
    plan.points.push_back({"body", "body", PointKind::chassis, "place-cab", {}, {}, {}, false});
    Run strap;
    strap.id = "body-strap", strap.name = "body strap", strap.from = "body", strap.to = neg_of("battery-1");
    strap.length_m = 0.5, strap.size = WireSize::awg(0), strap.places = {"place-bay"};
    plan.runs = {strap};
    return plan;
}

// Lines of plan_text.h: with the vehicle's own they are a whole plan, else a piece that is laid into this
// one.
static std::optional<Error> take_things(Plan& plan, const std::vector<std::string>& lines) {
    const auto whole = std::any_of(lines.begin(), lines.end(),
                                   [](const std::string& l) { return trim(l).starts_with("vehicle "); });
    if (std::all_of(lines.begin(), lines.end(), [](const std::string& l) { return l.empty(); }))
        return std::nullopt;
    if (whole) {
        auto read = plan_from_text(lines);
        if (!read) return read.error();
        plan = std::move(*read);
        return std::nullopt;
    }
    const auto piece = read_piece(plan, lines);
    if (!piece) return piece.error();
    const auto done = yr::apply(plan, piece->edit);
    return done ? std::nullopt : std::optional<Error>(done.error());
}

// With what the heading above gives to loads, where that is understood.
static Statement read_given(const Plan& plan, const std::string& text, const std::string& given,
                            const Library* library) {
    Statement s = read_statement(plan, text, library);
    if (given.empty() || s.kind != StatementKind::load || s.error || s.doubt || !s.not_understood.empty())
        return s;
    Statement there = read_statement(plan, text + given, library);
    return there.whole() && there.not_understood.empty() ? there : s;
}

Notes read_notes(const Plan& base, std::string_view text, const Library* library) {
    Notes notes;
    notes.plan = base;
    std::vector<std::string> things;
    for (const std::string_view line : split(text, '\n')) {
        NoteLine n;
        n.text = std::string(line);
        while (!n.text.empty() && n.text.back() == '\r') n.text.pop_back();
        n.thing = is_thing_line(trim(n.text));
        things.push_back(n.thing ? n.text : std::string());
        notes.lines.push_back(std::move(n));
    }
    if (auto error = take_things(notes.plan, things)) notes.things = *error;
    std::string given;  // by the heading above, up to the next one or a blank line
    std::vector<std::pair<NoteLine*, std::string>> again;
    for (NoteLine& n : notes.lines) {
        if (n.thing) continue;
        if (trim(n.text).empty() || trim(n.text).ends_with(':')) given = given_by_heading(notes.plan, n.text);
        n.statement = read_given(notes.plan, n.text, given, library);
        if (n.bad())
            again.emplace_back(&n, given);
        else if (n.statement.whole())
            (void)yr::apply(notes.plan, *n.statement.edit);
    }
    // what a line speaks of may stand further down: "radio 8 A 12 V" above the converter
    for (auto& [line, by_heading] : again) {
        Statement now = read_given(notes.plan, line->text, by_heading, library);
        if (!now.whole() && !line->statement.whole()) continue;  // what it first said of itself holds
        line->statement = std::move(now);
        if (line->statement.whole()) (void)yr::apply(notes.plan, *line->statement.edit);
    }
    return notes;
}

Notes read_notes(std::string_view text, const Library* library) {
    return read_notes(blank_vehicle(), text, library);
}

const std::vector<BareVehicle>& bare_vehicles() {
    static const std::vector<BareVehicle> all = [] {
        std::vector<BareVehicle> read;
        BareVehicle now;
        const auto keep = [&] {
            if (!now.key.empty()) read.push_back(now);
        };
        // "== key: title" begins a vehicle
        for (const std::string_view line : split(shipped_text("bare.notes"), '\n')) {
            if (line.starts_with("== ")) {
                keep();
                const auto colon = line.find(':');
                now = {std::string(trim(line.substr(3, colon - 3))),
                       std::string(trim(line.substr(colon + 1))),
                       {}};
            } else if (!now.key.empty()) {
                now.text += std::string(line) + "\n";
            }
        }
        keep();
        return read;
    }();
    return all;
}

}  // namespace yr
