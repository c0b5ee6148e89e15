// "day field day: overnight 6.5 h, driving 1 h, 3x hoisting 10 min within, coldest -8 C, hottest 4 C, sun 2
// h"
#include <algorithm>

#include "notes/kinds.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

// The state that a piece begins with, the longest name first; what follows it.
const State* state_ahead(const Plan& plan, std::string_view piece, std::string_view& rest) {
    const State* best = nullptr;
    for (const State& s : plan.states) {
        const std::string name = to_lower(s.name), low = to_lower(piece);
        if (!low.starts_with(name) || (low.size() > name.size() && low[name.size()] != ' ')) continue;
        if (!best || s.name.size() > best->name.size()) best = &s;
    }
    if (best) rest = trim(piece.substr(best->name.size()));
    return best;
}

bool take_number(std::string_view piece, std::string_view word, Dimension dimension, double factor,
                 std::optional<double>& into) {
    if (!to_lower(piece).starts_with(std::string(word) + " ")) return false;
    const auto v = parse_value(trim(piece.substr(word.size())), dimension);
    if (!v) return false;
    into = *v * factor;
    return true;
}

bool take_part(const Plan& plan, std::string_view piece, Day& day) {
    DayPart part;
    if (const auto x = piece.find('x'); x != std::string_view::npos && x > 0 && x < 5)
        if (const auto n = parse_value(piece.substr(0, x), Dimension::number); n && *n >= 1 && *n <= 1000) {
            part.times = static_cast<int>(*n);
            piece = trim(piece.substr(x + 1));
        }
    std::string_view rest;
    const State* state = state_ahead(plan, piece, rest);
    if (!state) return false;
    if (to_lower(rest).ends_with(" within")) {
        part.within = true;
        rest = trim(rest.substr(0, rest.size() - 7));
    }
    const auto length = parse_value(rest, Dimension::time);
    if (!length || !(*length > 0)) return false;
    part.state = state->id, part.length_s = *length;
    day.parts.push_back(part);
    return true;
}

}  // namespace

Made make_day(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood) {
    const Plan& plan = b.plan();
    const auto colon = text.find(':');
    const std::string name = unquoted(text.substr(0, colon));
    Day day;
    day.name = name.empty() ? "a day" : name;
    for (const Day& known : plan.days)
        if (to_lower(known.name) == to_lower(day.name)) day.id = known.id;  // said anew
    if (day.id.empty()) day.id = b.id("day");
    std::optional<double> begins;
    if (colon != std::string_view::npos)
        for (const std::string_view raw : split(text.substr(colon + 1), ',')) {
            const std::string_view piece = trim(raw);
            if (piece.empty() || take_part(plan, piece, day)) continue;
            const bool known = take_number(piece, "coldest", Dimension::temperature, 1, day.coldest_C) ||
                               take_number(piece, "hottest", Dimension::temperature, 1, day.hottest_C) ||
                               take_number(piece, "sun", Dimension::time, 1 / 3600.0, day.sun_h) ||
                               take_number(piece, "from", Dimension::time, 1 / 3600.0, begins) ||
                               take_number(piece, "latitude", Dimension::number, 1, day.latitude_deg) ||
                               take_number(piece, "date", Dimension::number, 1, day.date) ||
                               take_number(piece, "cloud", Dimension::fraction, 1, day.cloud);
            if (!known) not_understood.emplace_back(piece);
        }
    day.begins_h = begins.value_or(0);
    if (day.parts.empty())
        return fail(ErrorCode::empty, day.name, std::string(trim(text)), Want::a_part_of_a_day);
    b.put(day);
    return day.id;
}

}  // namespace yr
