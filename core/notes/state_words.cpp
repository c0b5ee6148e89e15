#include "notes/state_words.h"

#include <algorithm>

#include "units/pattern.h"
#include "units/text.h"

namespace yr {

bool all_words_in(const std::string& name, const std::string& words) {
    const std::string padded = " " + name + " ";
    const auto each = split(words, ' ');
    return each.size() > 1 && std::all_of(each.begin(), each.end(), [&](std::string_view word) {
               return !word.empty() && padded.find(" " + std::string(word) + " ") != std::string::npos;
           });
}

bool is_a_switch(const Plan& plan, const std::string& name) {
    const auto names = [&](const std::vector<std::string>& switches) {
        return std::any_of(switches.begin(), switches.end(),
                           [&](const std::string& s) { return to_lower(s) == name; });
    };
    return std::any_of(plan.states.begin(), plan.states.end(),
                       [&](const State& s) { return names(s.switches); }) ||
           std::any_of(plan.loads.begin(), plan.loads.end(),
                       [&](const Load& l) { return names(l.live_when.switches); });
}

namespace {

// "sound + lights + fan": most of it are switches of the plan, or words of a load's name.
bool names_circuits(const Plan& plan, const std::string& list, double share = 0.5) {
    static const Pattern between(R"(\s*(?:,|;|\+|&|\band\b)\s*)");
    int all = 0, known = 0;
    const std::string parts = between.replaced(to_lower(list), "|");
    static const Pattern beside(
        R"(^(?:only|just|nothing (?:on )?(?:but|except|bar))\s+(?:the\s+)?|\s+(?:only|on|off)$)");
    for (const std::string_view part : split(parts, '|')) {
        const std::string words = beside.replaced(std::string(trim(part)), "");
        if (words.empty()) continue;
        ++all;
        const std::string one = words.ends_with('s') ? words.substr(0, words.size() - 1) : words;
        static const Pattern nothing(
            R"(^(?:nothing|(?:all|everything)(?: off)?|(?:engine|key) (?:off|on|running|stopped))$)");
        known += nothing.is_all_of(std::string(trim(part))) || words == "nothing" || words == "everything" ||
                 words.starts_with("everything ") || is_a_switch(plan, words) ||
                 std::any_of(plan.loads.begin(), plan.loads.end(), [&](const Load& l) {
                     const std::string name = " " + to_lower(l.name) + " ";
                     return name.find(" " + words + " ") != std::string::npos ||
                            name.find(" " + one + " ") != std::string::npos ||
                            all_words_in(to_lower(l.name), words);
                 });
    }
    return known > 0 && known >= share * all;
}

// "all lights on", "all but headlights", "everything off except the bilge pump", "just usb": by name what is
// on.
std::string circuits_in_our_words(std::string text) {
    static const Phrase plainer[] = {
        {Pattern(
             R"((^|,)\s*(?:everything|all(?:\s+loads)?)\s+off\s*,?\s+(?:but|except(?:\s+for)?|apart\s+from|bar)\s+(?:the\s+)?)"),
         "$1 "},
        {Pattern(
             R"((^|,)\s*(?:everything|all(?:\s+loads)?)\s+(?:on\s*,?\s+)?(?:but|except(?:\s+for)?|apart\s+from|bar)\s+(?:the\s+)?([^,]+?)\s*(?=,|$))"),
         "$1 everything, without $2"},
        {Pattern(
             R"((^|,)\s*nothing\s+(?:on\s+)?(?:but|except(?:\s+for)?|apart\s+from|bar)\s+(?:the\s+)?(?=[a-z]))"),
         "$1 "},
        {Pattern(
             R"((^|,)\s*(?:everything|all)(?:\s+(?:loads|of\s+it|else))?(?:\s+(?:is\s+)?(?:on|running|working|normal|as\s+(?:usual|normal)))?\s*(?=,|$))"),
         "$1 everything"},
        {Pattern(R"((^|,)\s*(?:everything|all)(?:\s+loads)?\s+off\s*(?=,|$))"), "$1"},
        {Pattern(R"((^|,)\s*nothing(?:\s+(?:on|running))?\s*(?=,|$))"), "$1"},
        {Pattern(R"((^|,)\s*all\s+(?:the\s+)?([a-z][a-z -]*?)\s+on\s*(?=,|$))"), "$1 $2"},
        {Pattern(R"((^|,)\s*(?:just|only)\s+(?:the\s+)?(?=[a-z]))"), "$1 "},
        {Pattern(
             R"((?<!\bkey)(?<!\bengine)(?<!\bignition)(?<!\bis)(?<!\bare)\s+(?:(?:is|are)\s+)?(?:left\s+)?on\s*$)"),
         ""},
        {Pattern(R"(\s+only\s*(?=,|$|\s\d))"), ", "},
        {Pattern(
             R"((^|,)\s*(?:(?:on\s+)?(?:shore(?:\s+power|\s+charger)?|hook-?up|mains(?:\s+charger)?)(?:\s+(?:connected|on))?|(?:on\s+)?(?:the\s+)?(?:battery\s+)?charger(?:\s+(?:on|plugged\s+in|connected))?|on\s+charge|charging)\s*(?=,|$))"),
         "$1 on switch \"plugged in\""},
        {Pattern(
             R"((^|,)\s*(?:the\s+)?(?:dc-?dc|b2b|alternator|solar|mppt|vsr|split[ -]charge)(?:\s+(?:charger|charging|relay|panels?|on|running|works?|working))*\s*(?=,|$))"),
         "$1"},  // it works when it works
        {Pattern(R"(,(?:\s*,)+)"), ","},
        {Pattern(R"(^\s*,|,\s*$)"), ""}};
    text = put_plainly(std::move(text), plainer);
    // "without floods and livewell": each of them is off
    static const Pattern without(R"(\bwithout\s+([^,]+))"), between(R"(\s*(?:\+|&|\band\b)\s*(?:the\s+)?)");
    Found m;
    return without.is_in(text, m) ? m.before() + between.replaced(m[1], " off, ") + " off" + m.behind()
                                  : text;
}

// The line of a state of that name: what else it says of key, engine and circuits.
std::string state_line(const std::string& name, const std::string& words) {
    static const Pattern role(R"(\b(parked|driving|idling|towed)\b)"),
        motor(R"(\b(?:motor|outboard)\s+(?=running|off|on|stopped))"),
        lasts(R"(\s+-\s*(?=\d+(?:\.\d+)?\s*h)|\s+for\s+(?=\d))"),
        idles(R"(\bengine\s+(?:at\s+)?idl(?:e|es|ing)\b)"), by_key(R"((^|,)\s*ignition(?:\s+on)?\s*(?=,|$))");
    static const Pattern hours(R"((\d)\s*(?:hours?|hrs?)\b)"), idle(R"((^|,)\s*idle\s+(?=\d+\s*rpm\b))");
    const std::string plain = idle.replaced(hours.replaced(words, "$1 h"), "$1 idling, ");
    const std::string rest = circuits_in_our_words(lasts.replaced(motor.replaced(plain, "engine "), ", "));
    static const Pattern under_way(
        R"(\b(?:under ?way|^running$|(?<!generator )(?<!engine )(?<!pump )(?<!test )(?<!dry )run$|cruising|steaming|in transit|travell?ing|deliver(?:y|ing|ies)|commut(?:e|ing)|riding|touring|hauling|towing|patrol(?:ling)?|en route|responding|transporting|on the road|(?:running|going|driving) (?:to|out|home|back))\b)"),
        engine(R"(\b(?:engine|key|rpm)\b)");
    Found r;
    static const Pattern plugged(
        R"(\b(?:on|with)\s+(?:the\s+)?(?:hook-?\s?up|shore(?: power)?|mains|EHU)\b)");
    const std::string lead = plugged.is_in(name) && !plugged.is_in(words) ? ", on switch \"plugged in\"" : "";
    const std::string what = role.is_in(name, r) && !role.is_in(rest) ? to_lower(r[1]) + ", "
                             : under_way.is_in(name) && !role.is_in(rest) && !engine.is_in(rest) ? "driving, "
                                                                                                 : "";
    return "state \"" + name + "\", " + what + by_key.replaced(idles.replaced(rest, "idling"), "$1 key on") +
           lead;
}

// "driving" alone: the state that every plan has, or one of that name.
std::string role_said(const Plan& plan, const std::string& line) {
    static const Pattern alone(R"(^\s*(parked|driving|idling|towed)\s*\.?\s*$)");
    Found m;
    if (!alone.is_all_of(line, m)) return {};
    const std::string role = to_lower(m[1]);
    for (const State& s : plan.states)
        if (to_lower(s.name) == role) return "# " + line;
    return "state \"" + m[1] + "\", " + role;
}

// "trading 9-16: ...", "night (22:30 to 6:00): ...": from when until when is how long.
std::string lasting(const std::string& line) {
    static const Pattern clock(
        R"(^(\s*[a-z][a-z -]{1,30}?)\s*[,(]?\s*(?:from\s+)?(\d{1,2})(?:[:.](\d\d))?\s*(?:h\s*)?(?:-|\xE2\x80\x93|to|until|till)\s*(\d{1,2})(?:[:.](\d\d))?\s*(?:h|o'clock)?\s*\)?\s*:\s*([a-z].*)$)");
    Found m;
    if (!clock.is_all_of(line, m)) return line;
    const auto hours = [&](std::size_t hour, std::size_t minutes) {
        return std::stoi(m[hour]) + (m[minutes].empty() ? 0 : std::stoi(m[minutes]) / 60.0);
    };
    const double from = hours(2, 3), to = hours(4, 5);
    if (from > 24 || to > 24 || from == to) return line;
    return m[1] + " " + shown(to > from ? to - from : to - from + 24) + " h: " + m[6];
}

// "day shift: engine idling, beacon" is a state; "day at work: driving 1 h, parked 8 h" are the hours of one.
bool of_a_day(const Plan& plan, const std::string& line) {
    static const Pattern engine(
        R"(^\s*day\s+[a-z -]+:.*\b(?:engine|motor|key)\s+(?:off|on|running|stopped|idl\w+)\b(?!\s+\d))"),
        named(R"(^\s*day\s+[a-z -]+:\s*([^\d]+)$)");
    Found m;
    return engine.is_in(line) || (named.is_all_of(line, m) && names_circuits(plan, m[1]));
}

// "working: motor controller at 90 A, beacon": how much a thing of the plan takes there makes no load of it.
std::string without_figures_of_loads(const Plan& plan, const std::string& line) {
    static const Pattern figure(R"(^\s*(.+?)\s+(?:(?:at|with|@)\s*)?\d+(?:\.\d+)?\s*k?[AW]\s*$)");
    const auto colon = line.find(':');
    if (colon == std::string::npos) return line;
    std::string text = line.substr(0, colon + 1);
    for (const std::string_view part : split(std::string_view(line).substr(colon + 1), ',')) {
        Found m;
        const bool of_load = figure.is_all_of(std::string(part), m) && names_circuits(plan, m[1]);
        text += (of_load ? m[1] : std::string(part)) + ",";
    }
    return text;
}

}  // namespace

std::string state_said(const Plan& plan, const std::string& said) {
    // "engines running", "lights, receiver (4 hrs)", "lights, fan for 4 h"
    static const Pattern engines(R"(\bengines\s+(?=off|on|running|stopped|idl))"),
        hours_last(R"((:[^\d]*?)(?:\s+for)?\s*,?\s+\(?(\d+(?:\.\d+)?)\s*(?:h|hrs?|hours?)\)?\s*$)");
    const std::string line = hours_last.replaced(engines.replaced(lasting(said), "engine "), "$1, $2 h");
    static const Pattern named(
        R"(^\s*([a-z][a-z -]{1,30}?)(?:\s+(\d+(?:\.\d+)?\s*h)(?:ours?|rs?)?)?\s*:\s*(\S.*)$)");
    // "while parked, fridge and lamp are on", "overnight - fridge, lamp"
    static const Pattern by_role(
        R"(^\s*(?:when|while)\s+(parked|driving|idling|towed|camped|moored)\s*,\s*([^:]+)$)"),
        dashed(
            R"(^\s*((?:parked|driving|idling|towed|over\s?night|(?:at\s+)?night|camp(?:ing|ed)?|moored|at\s+anchor|under\s?way|working|loading)(?:\s+[a-z]+){0,2})\s+[-=]\s+([^:]+)$)");
    static const Pattern role_alone(
        R"(^\s*((?:parked|driving|idling|towed)(?:\s+(?!key\b|engine\b)[a-z]+){0,3}?)\s*,?\s+((?:key|engine)\s+(?:off|on|running|stopped)\b.*)$)");
    static const Pattern by_speed(
        R"(^\s*(?:at\s+)?(\d+\s*rpm)\s+(?:when|while)\s+(?:the\s+)?([a-z][a-z -]{1,30}?)\s*:\s*(\S.*)$)");
    static const Pattern says_when(
        R"(\b(?:(?:engine|motor|outboard|key)\s+(?:off|on|running|stopped|accessory|idl\w+)|(?:engine\s+)?\d+\s*rpm|parked|driving|idling|towed|cranking|charger\s+on|on\s+charge|on\s+(?:the\s+)?charger)\b)");
    static const Pattern role(R"(\b(?:parked|driving|idling|towed)\b)"), draws(R"(\d\s*(?:k?W|A|Ah|V)\b)");
    const std::string start = to_lower(trim(line).substr(0, 5));
    if ((start.starts_with("day") && !of_a_day(plan, line)) || start == "state" ||
        draws.is_in(without_figures_of_loads(plan, line)))
        return {};
    if (auto alone = role_said(plan, line); !alone.empty()) return alone;
    Found m;
    if (by_speed.is_all_of(line, m)) return state_line(m[2], m[1] + ", " + m[3]);
    if (role_alone.is_all_of(line, m)) return state_line(m[1], m[2]);
    for (const Pattern* apart : {&by_role, &dashed})
        if (apart->is_all_of(line, m) && names_circuits(plan, m[2])) return state_line(m[1], m[2]);
    // "open to the public - lights, router", "standby - engine off - beacons only": nearly all must be known
    constexpr double kNearlyAll = 0.75;
    static const Pattern by_dash(R"(^\s*([a-z][a-z -]{1,30}?)\s+(?:-|\xE2\x80\x93)\s+([^:\d]+)$)"),
        further(R"(\s+(?:-|\xE2\x80\x93)\s+)"), several(R"([,+&]|\b(?:and|off|only)\b)");
    if (by_dash.is_all_of(line, m) && several.is_in(m[2]))  // "dash - radio" says where it is
        if (const std::string list = further.replaced(m[2], ", "); names_circuits(plan, list, kNearlyAll))
            return state_line(m[1], list);
    if (!named.is_all_of(line, m)) return {};
    const bool known = std::any_of(plan.loads.begin(), plan.loads.end(),
                                   [&](const Load& l) { return to_lower(l.name) == to_lower(m[1]); });
    if (known || (!says_when.is_in(m[3]) && !role.is_in(m[1]) && !names_circuits(plan, m[3]))) return {};
    return state_line(m[1], (m.has(2) && !m[2].empty() ? m[2] + ", " : std::string()) + m[3]);
}

std::vector<std::string> state_with_new_things(const Plan& plan, const std::string& line) {
    static const Pattern headed(R"(^\s*([a-z][a-z -]{1,40}?)\s*:\s*([^:"]+)$)");
    static const Pattern while_what(
        R"(\b(?:parked|(?:over)?night|day|evening|morning|camp\w*|shore|hook-?up|stand-?by|station|depot|base|home|stopped|work\w*|driving|idling|under ?way|moored|anchor\w*|lunch|event|scene|towing|cruising|sailing|serving|sleeping|market|trading)\b)");
    static const Pattern charger(
        R"(^\s*(?:(?:on|with|and)\s+)?(?:(?:shore|mains|battery)\s+)*charger\s+(\d+(?:\.\d+)?\s*A)(?:\s+on)?\s*$)");
    static const Pattern thing(R"(^\s*([a-z][a-z -]*?)\s+\d+(?:\.\d+)?\s*[AW](?:\s+each)?\s*$)"),
        digit(R"(\d)"), without_at(R"(\s+at$)");
    Found m;
    if (!headed.is_all_of(line, m) || !while_what.is_in(m[1])) return {};
    const std::string name(m[1]);
    std::vector<std::string> things;
    std::string on;
    int known = 0;
    for (const std::string_view part : split(m[2], ',')) {
        const std::string piece(trim(part));
        Found p;
        if (!digit.is_in(piece)) {
            known += names_circuits(plan, piece, 1);
            on += ", " + piece;
        } else if (charger.is_all_of(piece, p)) {
            things.push_back("charger shore " + p[1]);
            on += ", charger on";
        } else if (thing.is_all_of(piece, p) && !names_circuits(plan, without_at.replaced(p[1], ""), 1)) {
            things.push_back(piece);
            on += ", " + p[1];
        } else {
            return {};
        }
    }
    if (things.empty() || known == 0) return {};
    things.push_back(name + ": " + on.substr(2));
    return things;
}

}  // namespace yr
