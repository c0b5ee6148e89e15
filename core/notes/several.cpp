#include "notes/several.h"

#include <algorithm>

#include "notes/notes.h"
#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr std::size_t kLongestTitle = 80;  // letters

std::vector<std::string> pieces_of(std::string_view text) {
    std::vector<std::string> pieces = comma_parts(text);
    for (std::string& piece : pieces) piece = std::string(trim(piece));
    std::erase_if(pieces, [](const std::string& piece) { return piece.empty(); });
    return pieces;
}

bool says_amount(const std::string& piece) {
    static const Pattern amount(R"(\d\s*(?:k?W|A|Ah)\b)");
    return amount.is_in(piece);
}

// A piece that begins another thing: a name of its own before its figures.
bool begins_a_thing(const std::string& piece) {
    static const Pattern named(
        R"(^\s*(?:\d+\s*x?\s+)?(?!(?:start|idle|fuse|fused|breaker|by|main|surge|standby|regulator|duty|for|with|on|off|from|to|in|at|and|then|each|cutoff|float|cable|not|channel|while|when|after|cranking|charge|health|controller|agm|gel|flooded|lithium|lifepo4|stall|peak|max|low|high|glow|up)\b)[a-z][a-z-]*\b.*\d)");
    return says_amount(piece) && named.is_in(piece);
}

std::string head_name(const std::string& piece) {
    return piece.substr(0, piece.find_first_of("0123456789"));
}

// What the words before a colon give to each thing behind it.
struct Heading {
    std::string before;  // "lights": "roof front" becomes "roof front lights"
    std::string behind;  // ", cab", " on ignition"
};
Heading heading_of(const Plan& plan, const std::string& words) {
    const std::string low = to_lower(words);
    for (const Place& p : plan.places)
        if (to_lower(p.name) == low || "in " + to_lower(p.name) == low || "in the " + to_lower(p.name) == low)
            return {"", ", " + p.name};
    if (low == "ignition" || low == "on ignition" || low == "key on" || low == "with the key")
        return {"", " on ignition"};
    if (low == "always" || low == "always on" || low == "constant" || low == "permanent")
        return {"", ", always"};
    if (low == "loads" || low == "consumers" || low == "accessories" || low == "electrics") return {};
    return {words, ""};
}

std::vector<std::string> states_listed(const std::string& line) {
    static const Pattern listed(R"(^\s*states\s*:?\s+([^\d"]+)$)");
    Found m;
    std::vector<std::string> lines;
    if (!listed.is_all_of(line, m)) return lines;
    for (const std::string& name : pieces_of(m[1])) lines.push_back("state \"" + name + "\"");
    return lines;
}

}  // namespace

std::vector<std::string> parts_of_line(const Plan& plan, std::string_view whole) {
    std::string line(trim(whole));
    // "laptop 65 W through inverter 1000 W": both at once
    static const Pattern with_inverter(
        R"(^(.*\d\s*k?[WA]\b.*?)\s+(?:through|via|on|from|with)\s+(?:an?\s+|the\s+)?inverter\s+(\d+(?:\.\d+)?\s*k?W)\s*$)");
    if (Found m; plan.inverters.empty() && with_inverter.is_all_of(line, m))
        return {"inverter " + m[2], m[1] + " on inverter"};
    if (line.empty() || line.front() == '#') return {};
    if (auto states = states_listed(line); !states.empty()) return states;
    // "alternators 2x 185 A"
    static const Pattern twins(
        R"(^\s*(?:twin |dual |two )?alternators\s*:?\s*(?:2\s*x\s*)?(\d+\s*A)\s*(?:each)?\s*$)");
    if (Found m; twins.is_all_of(line, m)) return {"alternator " + m[1], "second alternator " + m[1]};
    // "batteries: starter 2x 95 Ah AGM, module battery 2x 110 Ah AGM"
    static const Pattern batteries(R"(^\s*batteries\s*:\s*(.*\d\s*Ah\b.*)$)");
    if (Found m; batteries.is_all_of(line, m)) {
        std::vector<std::string> lines;
        for (std::string piece : pieces_of(m[1])) {
            static const Pattern hours(R"(\d\s*Ah\b)"), called(R"(\bbatter(?:y|ies)\b)");
            if (!hours.is_in(piece) && !lines.empty()) {
                lines.back() += ", " + piece;
                continue;
            }
            const std::string name = head_name(piece);
            if (!called.is_in(piece) && !trim(name).empty())
                piece = std::string(trim(name)) + " battery " + piece.substr(name.size());
            lines.push_back(piece);
        }
        if (lines.size() > 1) return lines;
    }
    Heading heading;
    static const Pattern headed(R"(^([a-z][a-z ]{0,30}?)\s*:\s*(\S.*)$)");
    if (Found m; headed.is_all_of(line, m)) {
        heading = heading_of(plan, m[1]);
        line = m[2];
    }
    std::vector<std::string> lines;
    for (const std::string& piece : pieces_of(line)) {
        if (lines.empty() || (begins_a_thing(piece) && says_amount(lines.back())))
            lines.push_back(piece);
        else
            lines.back() += ", " + piece;
    }
    static const Pattern supply(
        R"(\b(?:alternators?|batter(?:y|ies)|chargers?|inverters?|converters?|solar)\b)");
    if (supply.is_in(heading.before)) return {};  // "alternators: 150 A, 200 A": no loads
    const bool headed_well = !heading.behind.empty();
    if (lines.size() < 2 && !headed_well) return {};
    for (std::string& part : lines) {
        if (!heading.before.empty()) {
            const std::string name = head_name(part);
            part = std::string(trim(name)) + " " + heading.before + " " + part.substr(name.size());
        }
        part += heading.behind;
    }
    return lines;
}

std::string given_by_heading(const Plan& plan, std::string_view line) {
    static const Pattern alone(R"(^\s*([a-z][a-z ]{1,30}?)\s*:\s*$)");
    Found m;
    return alone.is_all_of(line, m) ? heading_of(plan, m[1]).behind : std::string();
}

WithoutRemark without_remark(std::string_view line) {
    static const Pattern bracket(R"x(^([^"(]*)\(([^()"]*)\)([^"(]*)$)x");
    const std::string text(line);
    Found m;
    if (!bracket.is_all_of(text, m)) return {text, {}};
    const std::string inside = m[2];
    if (inside.find_first_of("0123456789") != std::string::npos)
        return {m[1] + " " + inside + " " + m[3], {}};
    std::string rest = std::string(trim(m[1])) + m[3];
    while (!rest.empty() && (rest.back() == ' ' || rest.back() == ',')) rest.pop_back();
    return {rest, std::string(trim(inside))};
}

WithoutRemark without_purpose(std::string_view line) {
    static const Pattern purpose(R"(^(.*\S)\s*,?\s+(for\s+(?:the\s+|a\s+)?[a-z][a-z' -]*)$)");
    Found m;
    if (!purpose.is_all_of(line, m)) return {std::string(line), {}};
    return {m[1], m[2]};
}

std::optional<Place> new_place(const Plan& plan, std::string_view line) {
    static const Pattern where(
        R"(\b(in|inside|behind|under|beside|on the)\s+(?:the\s+)?([a-z']+(?:[ -][a-z']+){0,2})\s*(?:,|$))");
    static const Pattern part(
        R"(,\s*((?:front |rear |left |right )?(?:roof|mast|tailgate|bumper|bonnet|hood|boom|rack|dash|deck|canopy|grille|trunk|boot|nose|tail|galley|bench|cockpit|locker|cabin|sleeper|tongue|canopy|bed))\s*(?:,|$))");
    static const char* const kNoPlace[] = {"series", "parallel", "all",    "total",   "use",
                                           "home",   "winter",   "summer", "standby", "inverter"};
    Found m;
    std::string name, low;
    if (where.is_in(line, m)) {
        const std::string lead = to_lower(m[1]);
        const bool belongs = lead == "behind" || lead == "under" || lead == "beside";
        name = (belongs ? lead + " " : "") + m[2], low = to_lower(m[2]);
    } else if (part.is_in(line, m)) {
        name = m[1], low = to_lower(name);
    } else {
        return std::nullopt;
    }
    if (std::any_of(std::begin(kNoPlace), std::end(kNoPlace), [&](const char* w) { return low == w; }))
        return std::nullopt;
    for (const Place& p : plan.places) {
        constexpr std::size_t kAlike = 4;
        if (to_lower(p.name).substr(0, kAlike) == low.substr(0, kAlike)) return std::nullopt;
    }
    Place place;
    place.id = new_id(plan, "place"), place.name = name;
    return place;
}

std::optional<std::string> title_line(const Plan& plan, std::string_view line) {
    const bool nothing_yet = plan.loads.empty() && plan.sources.empty() && plan.inverters.empty() &&
                             std::none_of(plan.batteries.begin(), plan.batteries.end(),
                                          [](const Battery& b) { return b.capacity_Ah || b.cranking_A; });
    std::string text(trim(line));
    if (!nothing_yet || text.empty() || text.size() > kLongestTitle ||
        text.find_first_of("\":#") != std::string::npos)
        return std::nullopt;
    static const Pattern volts(R"(\s*,?\s*\b(\d+)\s*(?:V|volts?)\b)");
    std::string said;
    if (Found m; volts.is_in(text, m)) {
        said = " " + m[1] + " V";
        text = volts.replaced(text, "");
    }
    static const Pattern engine(R"(\s*,?\s*\b(?:no engine|without (?:an )?engine)\b)");
    if (engine.is_in(text)) said += " no engine", text = engine.replaced(text, "");
    while (!text.empty() && (text.front() == ' ' || text.front() == ',')) text.erase(0, 1);
    if (text.empty() && !said.empty()) return "vehicle" + said;
    if (plan.vehicle.name != blank_vehicle().vehicle.name) return std::nullopt;  // it has its name
    static const Pattern year(R"(\b(?:19|20)\d\d\b)");
    if (year.replaced(text, "").find_first_of("0123456789") != std::string::npos || text.empty())
        return std::nullopt;
    return "vehicle \"" + text + "\"" + said;
}

}  // namespace yr
