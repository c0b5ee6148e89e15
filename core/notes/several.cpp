#include "notes/several.h"

#include <algorithm>
#include <utility>

#include "notes/load_names.h"
#include "notes/notes.h"
#include "notes/of_one_kind.h"
#include "notes/shorthand.h"
#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr std::size_t kLongestTitle = 80;      // letters
constexpr std::size_t kLongestSeveral = 2000;  // what is longer is no speech

std::vector<std::string> pieces_of(std::string_view text) {
    std::vector<std::string> pieces = comma_parts(text);
    for (std::string& piece : pieces) piece = std::string(trim(piece));
    std::erase_if(pieces, [](const std::string& piece) { return piece.empty(); });
    return pieces;
}

bool says_amount(const std::string& piece) {
    static const Pattern amount(R"(\d\s*(?:k?W|A|Ah|CCA)\b)");
    return amount.is_in(piece);
}

// A piece that begins another thing: a name of its own before its figures.
bool begins_a_thing(const std::string& piece) {
    static const Pattern named(
        R"(^\s*(?:\d+\s*x?\s+)?(?!(?:start|idle|fuse|fused|breaker|by|main|surge|standby|regulator|duty|for|with|on|off|from|to|in|at|and|then|each|cutoff|float|cable|not|channel|while|when|after|cranking|charge|health|controller|agm|gel|flooded|lithium|lifepo4|stall|peak|max|low|high|glow|up)\b)[a-z][a-z-]*\b.*\d)");
    static const Pattern figure_first(
        R"(^\s*(?:\d\s*x\s*)?\d+(?:\.\d+)?\s*(?:k?[WA]\s+(?:alternators?|inverter|solar|charger|converter|starter|winch)\b|Ah\s+(?:[a-z]+\s+)?(?:batt|bank))|^\s*(?:12|24|36|48)\s*V\s+(?:alternator|inverter|charger|converter|starter|winch)\b)");
    return says_amount(piece) && (named.is_in(piece) || figure_first.is_in(piece));
}

bool says_supply(const std::string& piece) {
    static const Pattern supply(
        R"(\b(?:alternator|inverter|solar|charger|converter|starter|winch|batter(?:y|ies)|batt|alternators|chargers)\b)");
    return supply.is_in(piece);
}

std::string head_name(const std::string& piece) {
    return piece.substr(0, piece.find_first_of("0123456789"));
}

// What the words before a colon give to each thing behind it.
struct Heading {
    std::string before;   // "lights": "roof front" becomes "roof front lights"
    std::string behind;   // ", cab", " on ignition"
    std::string front{};  // "trailer": "tail lights" becomes "trailer tail lights"
};
Heading heading_of(const Plan& plan, const std::string& words) {
    const std::string low = to_lower(words);
    for (const Place& p : plan.places)
        if (to_lower(p.name) == low || "in " + to_lower(p.name) == low || "in the " + to_lower(p.name) == low)
            return {"", ", " + p.name};
    // "230 V:", "mains loads:", "upfitter switch 2:"
    static const Pattern mains(
        R"(^(?:(?:(?:230|240|220|120|115|110)\s*v(?:olts?)?(?: ac)?|mains|ac)(?: (?:loads|things|side|items|appliances))?(?: (?:through|via|on|from|off) (?:the )?inverter)?|(?:(?:loads|things|items|appliances) )?(?:through|via|on|from|off) (?:the )?inverter)$)"),
        by_switch(R"(^((?:[a-z]+ ){0,2}(?:switch|sw) ?\d{1,2})$)");
    static const Pattern own_switches(
        R"(^(?:(?:with|on)\s+)?(?:separate|own|individual)(?:ly)?\s+switch(?:es|ed)?$)");
    if (own_switches.is_all_of(low)) return {"", " on own switch"};
    if (mains.is_all_of(low)) return {"", " on inverter"};
    if (Found m; by_switch.is_all_of(low, m)) return {"", " on switch \"" + m[1] + "\""};
    static const Pattern of_volts(
        R"(^(?:[a-z][a-z ]*?)?[\s(]*(12|24|36|48)\s*v(?:olts?)?\)?(?:\s+[a-z ]+)?$)");
    if (Found m; of_volts.is_all_of(low, m)) return {"", ", " + m[1] + " V"};
    // "Key switched:", "ignition live", "switched by the key", "on accessory", "always hot"
    static const std::string kThings = "(?: (?:loads|circuits|items|things|stuff|feeds?))?$";
    static const Pattern by_key(
        "^(?:on |with )?(?:the )?(?:ign(?:ition)?|key)(?:[ -](?:on|switched|live|fed|hot|controlled|only))*" +
        kThings);
    static const Pattern switched_by(
        "^(?:switched|fed|controlled|live) (?:by|from|with|on|off) (?:the )?(?:ign(?:ition)?|key)(?: "
        "switch)?" +
        kThings);
    static const Pattern by_accessory(
        "^(?:on |with )?(?:acc|accessory)(?:[ -](?:on|switched|live|position))*" + kThings);
    static const Pattern always(
        "^(?:always|constant(?:ly)?|permanent(?:ly)?|unswitched)(?:[ -](?:on|live|hot|powered|fed))*" +
        kThings);
    if (by_key.is_all_of(low) || switched_by.is_all_of(low)) return {"", " on ignition"};
    if (by_accessory.is_all_of(low)) return {"", " on accessory"};
    if (always.is_all_of(low)) return {"", ", always"};
    // "7 pin trailer socket": what is plugged in there
    static const Pattern trailer(
        R"(^(?:\d{1,2}[ -]?(?:pin|way|core)\s+)?(?:trailer|caravan|tow(?:ing)?)(?:\s+(?:socket|plug|connector|loads|lights|electrics))?$)");
    if (trailer.is_all_of(low)) return {"", "", "trailer "};
    static const Pattern loads(
        R"(^(?:(?:house|leisure|living|domestic|bus|vehicle|truck|van|coach|base|chassis|other|small|main|cab) )?(?:loads|consumers|accessories|electrics|circuits)$)");
    if (loads.is_all_of(low)) return {};
    // "Rear fuse box:", "circuits on the cab panel:"
    static const Pattern of_block(
        R"(^(?:(?:loads|circuits)\s+)?(?:(?:on|from|off)\s+)?(?:the\s+)?(.+?)(?:\s+(?:loads|circuits|feeds))?$)");
    if (Found m; of_block.is_all_of(low, m))
        for (const Point& p : plan.points)
            if (p.feeds_loads && to_lower(p.name) == m[1]) return {"", ", from " + p.name};
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

// Several sentences: "engine battery 80 Ah. Leisure battery 120 Ah", "converter 10 A -> radio 6 A", "cooler
// pump 6 A and fan 11 A".
std::vector<std::string> sentences_of(const std::string& line) {
    static const Pattern full_stop(R"(^(.*?(?:\d\s*(?:Ah|V|W|A|m|mm2|kW)|\d|\)))\.\s+([a-z].*)$)");
    static const Pattern arrow(
        R"(^(.*\b(converter|inverter)\b.*?\d\s*k?[WA]\b[^>]*?)\s*(?:->|\xE2\x86\x92)\s*([a-z].*)$)");
    static const Pattern both(
        R"(^((?:[a-z][a-z-]*\s+)*)([a-z-]+\s+\d+(?:\.\d+)?\s*k?[WA])\s+(?:and|\+|&)\s+([a-z][a-z -]*?\s+\d+(?:\.\d+)?\s*k?[WA])((?:\s*,?\s+(?:on|while|when)\s[^,]*)?)\s*$)");
    Found m;
    if (full_stop.is_all_of(line, m)) {
        std::vector<std::string> lines{m[1]};
        const std::string& rest = m[2];
        const auto more = sentences_of(rest);
        lines.insert(lines.end(), more.begin(), more.end());
        if (more.empty()) lines.push_back(rest);
        return lines;
    }
    if (arrow.is_all_of(line, m)) {
        const bool mains = to_lower(m[2]) == "inverter";
        std::vector<std::string> lines{m[1]};
        for (const std::string& piece : pieces_of(m[3]))
            if (lines.size() == 1 || begins_a_thing(piece))
                lines.push_back(piece);
            else
                lines.back() += ", " + piece;
        for (std::size_t k = 1; k < lines.size(); ++k) lines[k] += mains ? " on inverter" : " from converter";
        return lines;
    }
    static const Pattern to_battery(
        R"(^(.*\balternator\b.*\d\s*A)\b\s*(?:->|\xE2\x86\x92|to|/|&|)\s*((?:[a-z]+\s+)?batt.*\d\s*Ah\b.*)$)");
    if (to_battery.is_all_of(line, m)) return {m[1], m[2]};
    static const Pattern and_aux(
        R"(^((?:[a-z]+\s+)?batter(?:y|ies)\b[^+]*\d\s*Ah\b[^+]*?)\s*\+\s*(aux|leisure|house|service)\s+(\d.*\d?\s*Ah\b.*)$)");
    if (and_aux.is_all_of(line, m)) return {m[1], m[2] + " battery " + m[3]};
    // "start battery 80 Ah + service battery 100 Ah AGM", "no alternator. 2x 200 Ah"
    static const Pattern banks(
        R"(^(.*\d\s*Ah\b[^+]*?)\s+(?:\+|&|and)\s+((?:[a-z]+\s+)?batter(?:y|ies)\b.*\d\s*Ah\b.*)$)"),
        none(R"(^\s*(no (?:alternator|engine))\s*[.;]\s*(\S.*)$)");
    // "engine battery 95 Ah 800 CCA / alternator 180 A"
    static const Pattern slash(
        R"(^((?:[a-z]+\s+)?(?:batt\w*|alternator|alt)\b[^/]*\d\s*(?:Ah|CCA|A)\b[^/]*?)\s+/\s+((?:[a-z]+\s+)?(?:batt\w*|alternator|alt)\b.*\d.*)$)");
    if (banks.is_all_of(line, m) || none.is_all_of(line, m) || slash.is_all_of(line, m)) return {m[1], m[2]};
    // "wiper 4 A washer 3 A"
    static const Pattern two(
        R"(^([a-z][a-z ]*\s\d+(?:\.\d+)?\s*[AW])\s+(?:(?:with|plus)\s+(?:an?\s+)?)?((?!(?:tx|rx|draws?|out|output|rms|nominal|hold|pull|run|runs|cont|avg)\b)[a-z][a-z ]*?\s\d+(?:\.\d+)?\s*[AW])$)");
    if (two.is_all_of(line, m) && begins_a_thing(m[2]) && !says_supply(line)) return {m[1], m[2]};
    // "2x inverter 1500 W each: one for sound, one for lights"
    static const Pattern inverters(
        R"(^\s*(?:(?:2|two)\s*x?\s+inverters?|inverters?\s+2x)\s+(\d+(?:\.\d+)?\s*k?W)(?:\s+each)?\s*(?:[:,]\s*one for ([a-z ]+?)\s*,?\s*(?:and\s+)?one for ([a-z ]+))?\s*$)");
    if (inverters.is_all_of(line, m)) {
        const bool named = m.has(2) && !m[2].empty();
        return {"inverter " + (named ? "\"" + m[2] + " inverter\" " : std::string()) + m[1],
                "inverter " + (named ? "\"" + m[3] + " inverter\" " : std::string("\"second inverter\" ")) +
                    m[1]};
    }
    if (both.is_all_of(line, m) && begins_a_thing(m[3])) {
        const bool own_name =
            std::count(m[3].begin(), m[3].end(), ' ') > 1 || line.find(" + ") != std::string::npos;
        return {m[1] + m[2] + m[4], (own_name ? std::string() : m[1]) + m[3] + m[4]};
    }
    return {};
}

// "wipers front 6 A, rear 4 A": what is called by its side alone is called like the first.
void name_sides(std::vector<std::string>& lines) {
    static const Pattern side(
        R"(^\s*(?:front|rear|left|right|side|sides|roof|upper|lower|second|both sides)\s*$)");
    static const Pattern sides(R"(\s*\b(?:front|rear|left|right|sides?|roof|upper|lower)\b\s*)");
    if (lines.empty()) return;
    const std::string common(trim(sides.replaced(head_name(lines.front()), " ")));
    if (common.empty()) return;
    for (std::size_t k = 1; k < lines.size(); ++k)
        if (const std::string name = head_name(lines[k]); side.is_all_of(name))
            lines[k] = common + " " + lines[k];
}

}  // namespace

std::vector<std::string> parts_of_line(const Plan& plan, std::string_view whole) {
    std::string line(trim(whole));
    // "laptop 65 W through inverter 1000 W": both at once
    static const Pattern with_inverter(
        R"(^(.*\d\s*k?[WA]\b.*?)\s+(?:through|via|on|from|with)\s+(?:an?\s+|the\s+)?inverter\s+(\d+(?:\.\d+)?\s*k?W)\s*$)");
    if (Found m; plan.inverters.empty() && with_inverter.is_all_of(line, m))
        return {"inverter " + m[2], m[1] + " on inverter"};
    if (line.empty() || line.front() == '#' || line.size() > kLongestSeveral) return {};
    // "sound: mixer 120 W, laptop 90 W -> sound inverter": all of them
    static const Pattern all_on(R"(^(.*\d\s*k?W\b.*?)\s*(?:->|\xE2\x86\x92)\s*((?:[a-z]+ )?inverter)\s*$)");
    if (Found m; all_on.is_all_of(line, m)) {
        std::vector<std::string> things = parts_of_line(plan, m[1]);
        if (things.empty()) things.push_back(m[1]);
        for (std::string& thing : things) thing += " on " + m[2];
        return things;
    }
    if (auto lines = supply_with_its_loads(line); !lines.empty()) return lines;
    if (auto lines = of_one_kind(line); !lines.empty()) return lines;
    if (auto lines = sentences_of(line); !lines.empty()) return lines;
    if (auto states = states_listed(line); !states.empty()) return states;
    // "parked at depot: shore charger 25 A on, freezer on"
    static const Pattern charged_there(
        R"(^\s*([a-z][a-z -]{1,30}:.*?\b(?:shore|mains|hook-?up)(?:\s+power)?)\s+charger\s+(\d+(?:\.\d+)?\s*A)\b(.*)$)");
    if (Found m; charged_there.is_all_of(line, m)) return {"charger shore " + m[2], m[1] + m[3]};
    // "alternators 2x 185 A"
    static const Pattern twins(
        R"(^\s*(?:twin |dual |two )?alternators\s*:?\s*(?:2\s*x\s*)?(\d+\s*A)\s*(?:each)?\s*$)");
    if (Found m; twins.is_all_of(line, m)) return {"alternator " + m[1], "second alternator " + m[1]};
    // "2 alternators: 110 A main and 180 A second"
    static const Pattern unlike(
        R"(^\s*(?:2x?|twin|dual|two)\s+alternators\s*[:,]?\s*(?:(?:main|first|one|a)\s+)?(\d+\s*A)(?:\s+[a-z]+)?\s*(?:,|\band\b|&|\+)\s*(?:(?:second|other|one|a|the)\s+)*(\d+\s*A)(?:\s+[a-z]+)?\s*$)");
    if (Found m; unlike.is_all_of(line, m)) return {"alternator " + m[1], "second alternator " + m[2]};
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
    // "…, all on one switch "work lamps"", "…, both on beacon switch"
    static const Pattern together(
        R"x(^(.*\d\s*[AW]\b.*?)\s*,?\s+(?:both|all|each|together)\s+(?:on|off|via|from)\s+(?:(?:one|a|the|same)\s+)*(?:switch\s+(?:"([^"]+)"|([a-z0-9][a-z0-9 -]*))|(?:"([^"]+)"|([a-z0-9][a-z0-9 -]*?))\s+switch|switch)\s*$)x");
    if (Found m; together.is_all_of(line, m)) {
        std::string name;
        for (std::size_t k = 2; k <= 5; ++k)
            if (name.empty() && m.has(k)) name = m[k];
        line = m[1];
        if (name.empty()) name = trim(head_name(line));
        heading.behind = " on switch \"" + name + "\"";
    }
    // "radio 3 A, camera 0.5 A, tablet 2 A all switched on ignition"
    static const Pattern all_by_key(
        R"(^(.*\d\s*[AW]\b.*,.*\d\s*[AW])\s*,?\s+(?:all|both)\s+(?:(?:are|switched|fed|live)\s+)*(?:on|with|by|from)\s+(?:the\s+)?(ign|ignition|acc|accessory)(?:\s+only)?\s*$)");
    if (Found m; heading.behind.empty() && all_by_key.is_all_of(line, m)) {
        heading.behind = " on " + m[2];
        std::string things(m[1]);
        line = std::move(things);
    }
    static const Pattern headed(
        R"(^((?:on\s+(?:the\s+)?)?(?:(?:12|24|36|48)\s*V\b\s*|\d{1,2}[ -]?(?:pin|way|core)\s+)?[a-z ]{0,30}?(?:(?<= )(?:12|24|36|48)\s*V)?|(?:230|240|220|120|115|110)\s*V(?:\s*AC)?|[a-z ]{0,24}(?:switch|sw) ?\d{1,2})\s*:\s*(\S.*)$)");
    if (Found m; headed.is_all_of(line, m) && !trim(m[1]).empty()) {
        const std::string switched = heading.behind;
        if (names_no_load(to_lower(m[1]) + ":", 0, 0)) return {};  // "underway: …" is a state
        heading = heading_of(plan, m[1]);
        heading.behind += switched;
        line = m[2];
    }
    std::vector<std::string> lines;
    static const Pattern half_stop(R"(\s*;\s*)");
    for (const std::string& piece : pieces_of(half_stop.replaced(line, ", "))) {
        // "second battery 95 Ah, dc-dc 30 A": what joins it is said of the battery
        static const Pattern joins(R"(^\s*(?:dc-?dc|dcdc)\b)"), hours(R"(\d\s*Ah\b)");
        const bool of_battery = !lines.empty() && joins.is_in(piece) && hours.is_in(lines.back());
        static const Pattern selector(
            R"(^\s*battery\s+(?:selector\s+)?switch\s*\(?\s*(?:off\s*[-/]\s*)?1\s*[-/]\s*2\b|^\s*vsr\s+between\b)");
        if (lines.empty() || selector.is_in(piece) ||
            (begins_a_thing(piece) && says_amount(lines.back()) && !of_battery))
            lines.push_back(piece);
        else
            lines.back() += ", " + piece;
    }
    // "speakers 2x 250 W, desk 60 W, on inverter": a piece of its own is said of all
    static const Pattern of_all(
        R"(^(.*\S)\s*,\s*(?:all\s+)?((?:on|via|from|off)\s+(?:the\s+)?(?:[a-z]+\s+)?inverter)$)");
    if (Found m; lines.size() > 1 && of_all.is_all_of(lines.back(), m)) {
        heading.behind += " " + m[2];
        std::string last(m[1]);
        lines.back() = std::move(last);
    }
    static const Pattern supply(
        R"(\b(?:alternators?|batter(?:y|ies)|chargers?|inverters?|converters?|solar)\b)");
    if (supply.is_in(heading.before)) return {};  // "alternators: 150 A, 200 A": no loads
    // "bow: fishfinder 2 A" is one thing with a name of its own, "kettle: 5 A" one that is named
    const bool headed_well = !heading.behind.empty() || !heading.front.empty() ||
                             (!heading.before.empty() && lines.size() == 1 && begins_a_thing(lines[0]));
    if (lines.size() < 2 && !headed_well) return {};
    // "engine: 150 A alternator, 95 Ah battery": what supplies is called by its own word
    if (std::all_of(lines.begin(), lines.end(), says_supply)) heading.before.clear();
    name_sides(lines);
    for (std::string& part : lines) {
        // "office: 2 screens 30 W": how many stands beside the figure that it counts
        static const Pattern counted(R"(^\s*(\d{1,2})\s*x?\s+([a-z][a-z -]*?)\s+(?=\d+(?:\.\d+)?\s*[AW]\b))");
        if (!heading.before.empty()) {
            part = counted.replaced(part, "$2 $1x ");
            const std::string name = head_name(part);
            part = std::string(trim(name)) + " " + heading.before + " " + part.substr(name.size());
        }
        if (!part.starts_with(heading.front)) part.insert(0, heading.front);
        part += heading.behind;
    }
    return lines;
}

bool heads_a_list(std::string_view line) {
    static const Pattern volts(
        R"(^\s*(?:[a-z][a-z ]*\(\s*(?:12|24|36|48)\s*V\s*\)|(?:12|24|36|48)\s*V\s+(?:loads|circuits|items|things|stuff|side))\s*$)");
    return trim(line).ends_with(':') || volts.is_all_of(line);
}

std::string given_by_heading(const Plan& plan, std::string_view line) {
    static const Pattern alone(
        R"(^\s*([a-z0-9][a-z0-9 ()]{1,40}?)\s*(?::|(?<=V\))|(?<=V loads|V items|V stuff))\s*$)");
    Found m;
    return alone.is_all_of(line, m) ? heading_of(plan, m[1]).behind : std::string();
}

std::vector<std::string> sentences_that_say_things(std::string_view line) {
    static const Pattern stop(R"(^(.*?[a-z0-9)])\.\s+(?=[a-z0-9])(.*)$)"),
        short_form(
            R"((?:^|\s)(?:approx|max|min|incl|ca|batt|bat|alt|inv|no|nr|qty|ext|int|temp|typ|avg|cont|nom|pos|neg|amp|elec|hyd|comp)$)");
    if (line.size() > kLongestSeveral || line.find('"') != std::string_view::npos) return {};
    // "busbars pos and neg 250 A"
    static const Pattern both_bars(
        R"(^\s*(?:pos(?:itive)?\s*(?:and|&|\+|/)\s*neg(?:ative)?\s+bus ?bars?|bus ?bars?\s*[:,]?\s*pos(?:itive)?\s*(?:and|&|\+|/)\s*neg(?:ative)?|neg(?:ative)?\s+bus ?bar\s*(?:and|&|\+|/|,)\s*pos(?:itive)?\s+bus ?bar|pos(?:itive)?\s+bus ?bar\s*(?:and|&|\+|/|,)\s*neg(?:ative)?\s+bus ?bar)\b(.*)$)");
    if (Found m; both_bars.is_all_of(std::string(line), m))
        return {"positive bus bar" + m[1], "negative bus bar" + m[1]};
    // "the truck has a 110 A alternator and one 80 Ah battery"
    static const Pattern has(
        R"(^\s*(?:(?:the|my|our|this|it)\s+)?(?:[a-z]+\s+){0,3}(?:has|have|comes with)\s+(?:an?\s+|one\s+)?(\d.*)$)"),
        joined(R"(\s*(?:,|\band\b|&|\+)\s*(?:an?\s+|one\s+)?(?=\d))");
    if (Found m; has.is_all_of(std::string(line), m) && says_supply(m[1])) {
        std::vector<std::string> things = pieces_of(joined.replaced(m[1], ", "));
        if (std::all_of(things.begin(), things.end(), says_supply)) return things;
    }
    // "charging: 60 A dc-dc from the alternator 180 A, 4x 175 W panels with a 50 A mppt and a 40 A charger"
    static const Pattern charging(
        R"(^\s*charg(?:ing|ed|ers?)(?:\s+(?:sources?|is|are|by|from|via|through|with))*\s*:\s*(.*\d.*)$)"),
        parts(
            R"(\s*(?:,|\band\b|&|\+)\s*(?:and\s+)?(?:an?\s+|one\s+)?(?=\d|(?:shore|mains|solar|dc-?dc|b2b|vsr|alternator)\b))"),
        charges(R"(\b(?:dc-?dc|dcdc|b2b|solar|panels?|charger|vsr|shore|hook-?up)\b|\d\s*A\s+alternator\b)"),
        of_alternator(
            R"(^(.*\b(?:dc-?dc|dcdc|b2b)\b.*?)[\s,]+(?:from|off)\s+(?:the\s+)?alternator\s+(\d+\s*A)\s*$)");
    if (Found m; charging.is_all_of(std::string(line), m)) {
        std::vector<std::string> things;
        for (const std::string& piece : pieces_of(parts.replaced(m[1], ", ")))
            if (things.empty() || charges.is_in(piece))
                things.push_back(piece);
            else
                things.back() += ", " + piece;
        for (std::size_t k = 0; k < things.size(); ++k)
            if (Found a; of_alternator.is_all_of(things[k], a)) {
                const std::string gives = "alternator " + a[2];
                things[k] = a[1] + " from the alternator";
                things.insert(things.begin() + static_cast<std::ptrdiff_t>(k++), gives);
            }
        if (things.size() > 1) return things;
    }
    // "truck: 12 V, alternators 2x 180 A, batteries 2x 95 Ah", "12 V vehicle, 150 A alternator, 95 Ah
    // battery"
    static const Pattern vehicles(
        R"(^\s*(?:(?:(?:base\s+)?vehicle|[a-z]+)\s*:\s*(12|24|48)\s*V|(12|24|48)\s*V\s+(?:(?:base\s+)?vehicle|truck|van|chassis|system|electrics))\s*,\s*(.*\d.*)$)");
    if (Found m; vehicles.is_all_of(std::string(line), m)) {
        static const Pattern hours(R"(\d\s*Ah\b)");
        std::vector<std::string> things{"vehicle " + m[m.has(1) && !m[1].empty() ? 1 : 2] + " V"};
        static const Pattern unnamed(
            R"(^\s*(?:\d\s*x\s*)?(?:12\s*V\s+)?\d+(?:\.\d+)?\s*Ah(?:\s+(?:agm|gel|flooded|lead|lithium|lifepo4|lfp))?\s*$)"),
            two_of_12(R"(^\s*2\s*x\s*12\s*V\b)");
        const bool of_24 = things.front().ends_with("24 V");
        for (std::string& piece : pieces_of(m[3])) {
            const bool in_a_row = of_24 && two_of_12.is_in(piece);
            if (unnamed.is_all_of(piece)) piece.insert(0, "battery ").append(in_a_row ? " in series" : "");
            if (things.size() == 1 || begins_a_thing(piece) || says_supply(piece) || hours.is_in(piece))
                things.push_back(std::move(piece));
            else
                things.back() += ", " + piece;
        }
        return things;
    }
    // "alternator 140 A; battery 100 Ah; lamp 5 A"
    if (line.find(';') != std::string_view::npos) {
        std::vector<std::string> things;
        for (const std::string_view piece : split(line, ';'))
            if (!trim(piece).empty()) things.emplace_back(trim(piece));
        if (things.size() > 1 && std::all_of(things.begin(), things.end(), begins_a_thing)) return things;
    }
    std::vector<std::string> said;
    std::string before, rest(line);
    for (Found m; stop.is_all_of(rest, m);) {
        const bool ends = !short_form.is_in(to_lower(m[1]));
        before += m[1] + (ends ? "" : ". ");
        if (ends) said.push_back(std::exchange(before, {}));
        std::string behind(m[2]);
        rest = std::move(behind);
    }
    said.push_back(before + rest);
    if (!said.back().empty() && said.back().back() == '.') said.back().pop_back();
    const auto amounts = std::count_if(said.begin(), said.end(), says_amount);
    return said.size() > 1 && amounts > 0 ? said : std::vector<std::string>{};
}

std::vector<std::string> title_and_battery(const Plan& plan, std::string_view line) {
    static const Pattern hours(R"(\d\s*Ah\b)"), is_battery(R"(\bbatter(?:y|ies)\b|\bbank\b)");
    if (line.size() > kLongestSeveral) return {};
    const auto pieces = pieces_of(line);
    // "24 V, alternator 80 A"
    static const Pattern volts(R"(^\s*(12|24|36|48)\s*(?:V|volts?)(?:\s+system)?\s*$)");
    if (Found m;
        pieces.size() > 1 && volts.is_all_of(pieces.front(), m) && title_line(plan, pieces.front())) {
        std::vector<std::string> lines{"vehicle " + m[1] + " V", pieces[1]};
        for (std::size_t k = 2; k < pieces.size(); ++k) lines[1] += ", " + pieces[k];
        return lines;
    }
    // "24V: alternator 80 A, 2x 12 V 180 Ah series", "24V alternator 140A, 2 x 12V 225Ah batteries series"
    static const Pattern engine_side(
        R"(^\s*(?:(24|48)\s*V\s*:?\s*)?alternator\s+(\d+\s*A)\s*,\s*(?:batteries\s+)?(\d\s*x\s*(?:6|12)\s*V\s*\d+\s*Ah)(?:\s+batter(?:y|ies))?\s*((?:in\s+)?series)?\s*$)");
    if (Found m; engine_side.is_all_of(std::string(line), m)) {
        const bool high = m.has(1) && !m[1].empty(), series = high || (m.has(4) && !m[4].empty());
        std::vector<std::string> lines{"alternator " + m[2],
                                       "battery " + m[3] + (series ? " in series" : "")};
        if (high) lines.insert(lines.begin(), "vehicle " + m[1] + " V");
        return lines;
    }
    // "resort shuttle 48 V lithium 100 Ah": what it is called, its volts, its battery
    static const Pattern whole(
        R"(^\s*([a-z][a-z -]+?)\s+(12|24|48)\s*V\s+((?:lithium|lifepo4|lfp|agm|gel|flooded|lead)\b.*\d\s*Ah\b.*)$)");
    if (Found m; whole.is_all_of(std::string(line), m) && !is_battery.is_in(m[1]))
        if (const auto named = title_line(plan, m[1] + " " + m[2] + " V")) return {*named, "battery " + m[3]};
    // "skiff with outboard 60 hp (20 A charging)": what the engine gives
    static const Pattern engine_gives(
        R"(^\s*([a-z][a-z -]*?)\s*,?\s+(?:(?:with|has|w/)\s+)?(?:an?\s+)?(?:\d+\s*hp\s+)?(?:outboard|inboard|engine)\b(?:\s+\d+\s*hp)?\s*[(,]?\s*(\d+\s*A)\s+(?:charging\s+coil|charging|charge|charges|alternator|stator|coil)\s*\)?\s*(?:,\s*12\s*V)?\s*$)");
    if (Found m; engine_gives.is_all_of(std::string(line), m))
        if (title_line(plan, m[1])) {
            // what is towed has no engine, but this
            static const Pattern towed(R"(\b(?:trailer|caravan)$)");
            return {"vehicle \"" + m[1] + (towed.is_in(m[1]) ? " with engine\"" : "\""),
                    "alternator " + m[2]};
        }
    if (pieces.size() < 2 || !hours.is_in(line) || hours.is_in(pieces.front()) ||
        is_battery.is_in(pieces.front()))
        return {};
    std::vector<std::string> lines{"", ""};
    for (const std::string& piece : pieces) {
        std::string& to = lines[lines[1].empty() && !hours.is_in(piece) ? 0 : 1];
        to += (to.empty() ? "" : ", ") + piece;
    }
    // "golf cart, 48 V LFP 105 Ah": the vehicle's volts are those of its only battery
    static const Pattern high(R"(\b(24|36|48)\s*V\b)"), any(R"(\b\d+(?:\.\d+)?\s*V\b)");
    if (Found m; !any.is_in(lines[0]) && high.is_in(lines[1], m)) lines[0] += " " + m[1] + " V";
    const auto title = title_line(plan, lines[0]);
    if (!title) return {};
    // "…, 75 A alternator" behind the battery is another thing
    std::vector<std::string> all{*title};
    for (const std::string& piece : pieces_of(lines[1]))
        if (all.size() == 1 || (begins_a_thing(piece) && !hours.is_in(piece) && says_supply(piece)))
            all.push_back(piece);
        else
            all.back() += ", " + piece;
    return all;
}

std::string given_by_thing(const Plan& plan, const Id& above) {
    if (const Inverter* i = find(plan.inverters, std::string_view(above))) return " on " + i->name;
    if (const Source* s = find(plan.sources, std::string_view(above)); s && s->kind == SourceKind::converter)
        return " from " + s->name;
    if (const Point* p = find(plan.points, std::string_view(above)); p && p->feeds_loads)
        return " from " + p->name;
    return {};
}

static const std::string kPlaceWords =
    R"((?:front |rear |left |right )?(?:front|roof(?: bar| rack)?|mast|tool ?box|cabinet|cupboard|console|tailgate|bumper|bonnet|hood|boom|rack|dash|deck|canopy|grille|trunk|boot|nose|tail|galley|bench|cockpit|locker|cabin|sleeper|tongue|canopy|bed))";

namespace {

// "always", "engine off", "ignition" out of a bracket, as it stands behind a load.
std::string when_said(const std::string& words) {
    if (words.starts_with("always") || words.starts_with("constant")) return ", always";
    if (words.ends_with(" off") || words.ends_with(" stopped")) return ", when engine stopped";
    return " on " + words;
}

}  // namespace

WithoutRemark without_remark(std::string_view line) {
    static const Pattern bracket(R"x(^([^"(]*)\(([^()"]*)\)([^"]*)$)x");
    static const Pattern mains(
        R"(^\s*(?:(?:on|via|from|through)\s+)?(?:the\s+)?(?:inverter|mains|ac|(?:110|115|120|220|230|240)\s*V(?:\s*ac)?)\s*$)");
    static const Pattern when(
        R"(^\s*(?:only\s+)?(?:(?:on|with|when|while|if)\s+)?(?:the\s+)?((?:ign|ignition|acc|accessory|always|constant|engine (?:is )?(?:running|on|off|stopped)|running|driving|parked|standing)(?:\s+on)?)(?:\s+only)?\s*$)");
    static const Pattern chemistry(
        R"(^\s*(?:agm|gel|flooded|wet|lead(?:[ -]acid)?|lithium|li-?ion|lifepo4|lfp)\s*$)");
    // "(series-parallel)"
    static const Pattern joined(R"(^\s*(?:in\s+)?(?:series(?:\s*[/&+-]?\s*parallel)?|parallel)\s*$)");
    // "(boot)", "(under the seat)"
    static const Pattern place(
        "^\\s*(?:" + kPlaceWords +
        R"(|(?:in|inside|under|behind|beside)\s+(?:the\s+)?[a-z']+(?:\s[a-z']+)?)\s*$)");
    WithoutRemark out{std::string(line), {}};
    for (Found m; bracket.is_all_of(out.line, m);) {
        const std::string& inside = m[2];
        Found said;
        if (mains.is_all_of(inside))
            out.line = m[1] + " on inverter " + m[3];
        else if (when.is_all_of(inside, said))
            out.line = std::string(trim(m[1] + m[3])) + when_said(to_lower(said[1]));
        else if (chemistry.is_all_of(inside) || joined.is_all_of(inside) || place.is_all_of(inside))
            out.line = std::string(trim(m[1])) + ", " + std::string(trim(inside)) + m[3];
        else if (inside.find_first_of("0123456789") != std::string::npos)
            out.line = m[1] + " " + inside + " " + m[3];
        else {
            out.line = std::string(trim(m[1])) + m[3];
            out.remark += (out.remark.empty() ? "" : ", ") + std::string(trim(inside));
        }
        while (!out.line.empty() && (out.line.back() == ' ' || out.line.back() == ',')) out.line.pop_back();
    }
    return out;
}

WithoutRemark without_purpose(std::string_view line) {
    static const Pattern purpose(R"(^(.*\S)\s*,?\s+(for\s+(?:the\s+|a\s+)?[a-z][a-z'&+ -]*)$)");
    Found m;
    if (!purpose.is_all_of(line, m)) return {std::string(line), {}};
    return {m[1], m[2]};
}

WithoutRemark without_gear(std::string_view line) {
    static const Pattern gear(
        R"(^(.*\d.*?)\s*,\s*((?:with\s+)?(?:an?\s+|the\s+)?(?:own\s+)?(?:(?:main|line)\s+)?(?:contactor|solenoid|isolator|relay|disconnect|emergency stop|e-stop|remote control|wireless remote|remote|thermostat|(?:pressure|float|limit|thermal) switch)\b[^,"]*)(.*)$)");
    if (line.size() > kLongestSeveral) return {std::string(line), {}};
    Found m;
    if (!gear.is_all_of(std::string(line), m)) return {std::string(line), {}};
    std::string rest = m[1] + m[3], said(trim(m[2]));
    const WithoutRemark more = without_gear(rest);
    return {more.line, more.remark.empty() ? said : said + ", " + more.remark};
}

std::optional<Place> new_place(const Plan& plan, std::string_view line) {
    static const Pattern where(
        R"(\b(in|inside|behind|under|beside|on the|on(?=\s+(?:left|right|rear|front|nearside|offside|upper|lower|roof|mast|bumper)\b))\s+(?:the\s+)?([a-z']+(?:[ -][a-z']+){0,2})\s*(?:,|$))");
    static const Pattern part(R"((?:,|(?<=\d[AW])|(?<=\d [AW]))\s*()" + kPlaceWords +
                              R"()\s*(?:,|$|\d+(?:\.\d+)?\s*m\b))");
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
    const std::string first = low.substr(0, low.find(' '));  // "in winter only"
    if (std::any_of(std::begin(kNoPlace), std::end(kNoPlace), [&](const char* w) { return low == w; }) ||
        first == "winter" || first == "summer" || first == "on")
        return std::nullopt;
    for (const Place& p : plan.places) {
        // a slip of a place that is known is none of its own; "rear locker" is no slip of "rear"
        constexpr std::size_t kAlike = 4, kLonger = 2;
        const std::string known = to_lower(p.name);
        const std::size_t more = std::max(known.size(), low.size()) - std::min(known.size(), low.size());
        if (more <= kLonger && known.substr(0, kAlike) == low.substr(0, kAlike)) return std::nullopt;
    }
    Place place;
    place.id = new_id(plan, "place"), place.name = name;
    return place;
}

std::string without_engines_power(const std::string& title) {
    static const Pattern power(R"(\s*\b\d+(?:\.\d+)?\s*(?:hp|bhp|ps)\b)"), draws(R"(\d\s*(?:k?W|A|Ah)\b)"),
        bracket(R"(\s*\(([^()]*)\)\s*$)");
    if (!power.is_in(title) || draws.is_in(title)) return title;
    return power.replaced(bracket.replaced(title, " $1"), "");
}

std::optional<std::string> title_line(const Plan& plan, std::string_view line) {
    const bool nothing_yet = plan.loads.empty() && plan.sources.empty() && plan.inverters.empty() &&
                             std::none_of(plan.batteries.begin(), plan.batteries.end(),
                                          [](const Battery& b) { return b.capacity_Ah || b.cranking_A; });
    static const Pattern called(
        R"(^\s*(?:title|project|job|name|customer|client|build|marine|boat|unit|vehicle|nominal|voltage|(?:electrical\s+)?system(?:\s+voltage)?)\s*:\s*)");
    static const Pattern beside(R"(\s*\([^()\d]*\))"),
        called_system(R"((\d\s*V)\s+system\s*$)");  // "(UTV)", "12 V system"
    std::string text(
        trim(called_system.replaced(beside.replaced(called.replaced(std::string(line), ""), ""), "$1")));
    static const Pattern joins(R"(\b(?:between|acr|vsr|relay|fused|via)\b)");
    if (!nothing_yet || text.empty() || text.size() > kLongestTitle || joins.is_in(text) ||
        text.find_first_of("\":#") != std::string::npos)
        return std::nullopt;
    static const Pattern volts(R"(\s*,?\s*\b(\d+)\s*(?:V|volts?)\b)"), gap(R"(\s{2,})");
    text = gap.replaced(text, " ");
    std::string said;
    if (Found m; volts.is_in(text, m)) {
        said = " " + m[1] + " V";
        text = volts.replaced(text, "");
    }
    static const Pattern engine(R"(\s*,?\s*\b(?:no engine|without (?:an )?engine)\b)");
    if (engine.is_in(text)) said += " no engine", text = engine.replaced(text, "");
    while (!text.empty() && (text.front() == ' ' || text.front() == ',')) text.erase(0, 1);
    while (!text.empty() &&
           (text.back() == ' ' || text.back() == ',' || text.back() == ';' || text.back() == '-'))
        text.pop_back();
    if (text.empty() && !said.empty()) return "vehicle" + said;
    static const Pattern system(R"(^\s*(?:system|electrics?|electrical system)\b\s*,?\s*)");
    if (!said.empty()) text = system.replaced(text, "");
    if (text.empty()) return "vehicle" + said;
    if (plan.vehicle.name != blank_vehicle().vehicle.name) {  // it has its name: what else it is comes behind
        if (said.empty() || text.find_first_of("0123456789") != std::string::npos) return std::nullopt;
        return "vehicle \"" + plan.vehicle.name + ", " + text + "\"" + said;
    }
    static const Pattern year(R"(\b(?:(?:19|20)\d\d|[468]x[468])\b)");
    static const Pattern amount(R"(\d\s*(?:k?W|A|Ah|V|Wh|ohm)\b)");
    if (text.empty() || amount.is_in(year.replaced(text, ""))) return std::nullopt;
    return "vehicle \"" + text + "\"" + said;
}

}  // namespace yr
