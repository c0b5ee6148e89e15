#include "notes/loose_words.h"

#include "notes/everyday.h"
#include "notes/state_words.h"

#include <algorithm>
#include <cmath>

#include "plan/rail_volts.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

// "2000 W inverter near the battery"
std::string figure_behind_its_thing(const std::string& line) {
    static const Pattern first(
        R"(^\s*(\d+(?:\.\d+)?\s*k?[WA])\s+((?:second\s+)?alternator|inverter(?:\s*/\s*charger)?|solar(?:\s+panels?)?|stator|converter|winch|shore charger|(?:dc-?dc|dcdc|dc/dc|b2b|battery[ -]to[ -]battery)(?:\s+charger)?|vsr|split[ -]charge relay|sensing relay)\b)");
    return first.replaced(line, "$2 $1");
}

// "on switch" alone: one of its own, called like what it switches.
std::string own_switch(const std::string& line) {
    static const Pattern alone(
        R"((?:\b(?:on|with)\s+(?:a\s+|its\s+own\s+|own\s+)?|,\s*)(?:switch|switched)\s*(?=$|[,;]))");
    Found m;
    if (!alone.is_in(line, m)) return line;
    static const Pattern count(R"(^\s*\d{1,2}\s*x?\s+(?=[a-z]))");  // "4 work lamps 18 W each"
    const std::string things = count.replaced(line, "");
    std::string name(trim(things.substr(0, things.find_first_of("0123456789,;\""))));
    static const Pattern quoted(R"x(^\s*"([^"]+)")x");
    if (Found q; quoted.is_in(things, q)) name = q[1];
    if (const auto on = to_lower(name).find(" on "); on != std::string::npos) name.erase(on);
    if (name.empty()) return line;
    return m.before() + " on switch \"" + name + "\"" + m.behind();
}

double seconds_in(const std::string& figure, const std::string& unit) {
    const double value = parse_value(figure, Dimension::number).value_or(0);
    return value * (unit[0] == 'h' || unit[0] == 'H' ? 3600 : unit[0] == 'm' || unit[0] == 'M' ? 60 : 1);
}

// "2 h a day", "15 min twice a day": its share of the day's hours. "10 s at a time", "20 s a stop", "3 min to
// raise": how long it is on at once.
std::string times_in_our_words(const std::string& line) {
    static const std::string amount =
        R"((\d+(?:\.\d+)?)\s*(hours?|hrs?|h|minutes?|mins?|seconds?|secs?|s)\b)";
    static const Pattern daily(
        amount +
        R"(\s*,?\s*(?:(twice|two times|three times|(\d+)\s*(?:x|times))\s+)?(?:an?|per|/|each|every)\s*(day|hour|h)\b)");
    static const Pattern at_once(
        R"((?<!\bfor )(?<!\bstays )(?<!\bafter )(?<!\bwithin )(?<!\bevery )\b)" + amount +
        R"(\s+(?:to\s+[a-z]+|(?:a|per|each|every)\s+[a-z]+|at\s+a\s+time|each|lifts?|pulses?|bursts?|cycles?|pulls?)\b)");
    // "for 5 mins at a time"
    static const Pattern for_at_once(R"(\s*,?\s*\bfor\s+)" + amount +
                                     R"(\s+(?:at\s+a\s+time|each\s+time)\b)");
    static const Pattern bare(R"((?:[,;]\s*|(?<=[AW])\s+))" + amount + R"(\s*(?=$|[,;]))");
    // "2 min at a time, 12 times a day": both
    static const Pattern turns(
        amount +
        R"(\s*(?:at\s+a\s+time|each(?:\s+time)?)?\s*,?\s*(?:x\s*)?(\d+)\s*(?:x|times|/)?\s*(?:a\s*|per\s*|(?<=/)\s*)day\b)");
    Found m;
    if (turns.is_in(line, m)) {
        const double once_s = seconds_in(m[1], m[2]),
                     share = once_s * parse_value(m[3], Dimension::number).value_or(0) / 86400;
        if (share > 0 && share <= 1)
            return m.before() + ", for " + shown(once_s) + " s, duty " + shown(share * 100) + " %" +
                   m.behind();
    }
    if (daily.is_in(line, m)) {
        const std::string often = to_lower(m[3]);
        const double times = m.has(4)                     ? parse_value(m[4], Dimension::number).value_or(1)
                             : often == "twice"           ? 2
                             : often.starts_with("two")   ? 2
                             : often.starts_with("three") ? 3
                                                          : 1;
        const double share = times * seconds_in(m[1], m[2]) / (to_lower(m[5]) == "day" ? 86400 : 3600);
        if (share > 0 && share <= 1) return m.before() + ", duty " + shown(share * 100) + " %" + m.behind();
    }
    const auto for_so_long = [&](const std::string& figure, const std::string& unit) {
        return m.before() + ", for " + shown(seconds_in(figure, unit)) + " s" + m.behind();
    };
    // "runs 1/3 of the time"
    static const Pattern part(
        R"(\s*,?\s*(?:\bruns?\s+)?\b(\d{1,2})\s*/\s*(\d{1,2})\s+of (?:the |its )?time\b)");
    if (part.is_in(line, m)) {
        const double of = parse_value(m[2], Dimension::number).value_or(0),
                     share = of > 0 ? parse_value(m[1], Dimension::number).value_or(0) / of : 0;
        if (share > 0 && share <= 1)
            return m.before() + ", duty " + shown(std::round(share * 100)) + " %" + m.behind();
    }
    if (for_at_once.is_in(line, m)) return for_so_long(m[1], m[2]);
    if (at_once.is_in(line, m)) return for_so_long(m[1], m[2]);
    if (bare.is_in(line, m)) return for_so_long(m[1], m[2]);
    return line;
}

// A charge controller gives no more amps than it is made for: of the panel that is there, or on its line.
std::string controller_in_our_words(const Plan& plan, const std::string& line) {
    static const Pattern panel(R"(^\s*solar\b)");
    static const Pattern behind(
        R"(,?\s*(?:(?:w/|with|via|through|and)\s*(?:an?\s+)?)?(?:(\d+(?:\.\d+)?)\s*A\s+(?:(?:mppt\s+|pwm\s+)?(?:charge\s+)?(?:controller|regulator)|mppt|pwm)\b|(?:mppt|pwm)(?:\s+controller)?\s+(\d+(?:\.\d+)?)\s*A\b))");
    static const Pattern alone(
        R"(^\s*(?:(?:solar|charge|mppt|pwm)\s+)+(?:controller\s+|regulator\s+)?(?:mppt\s+|pwm\s+)?(\d+(?:\.\d+)?)\s*A\s*(?:mppt|pwm)?\s*$)");
    Found m;
    if (alone.is_all_of(line, m))
        for (const Source& s : plan.sources)
            if (s.kind == SourceKind::solar) return "set \"" + s.name + "\" rated_A " + m[1];
    if (panel.is_in(line) && behind.is_in(line, m))
        return m.before() + ", controller " + m[m.has(1) ? 1 : 2] + " A" + m.behind();
    return line;
}

// "emergency stop cuts everything", "isolator 250 A for the lab bank".
std::string cut_off_in_our_words(const std::string& line) {
    static const Pattern all(
        R"(^\s*((?:emergency stop|e-?stop|kill switch|master switch|main switch|battery switch|isolator|master)(?: button)?)\s+(?:cuts|kills|isolates|disconnects|switches off|turns off)\s+(?:everything|all(?: of it| power)?|the lot|(?:the )?(?:battery|batteries|whole [a-z]+))\s*$)");
    static const Pattern of_bank(
        R"(^\s*(?:battery\s+)?(isolator|switch|disconnect|master)\s+(\d+\s*A)\s+(?:for|on|at|of)\s+(?:the\s+)?((?:[a-z]+\s+)?(?:battery|bank))\s*$)");
    Found m;
    if (all.is_all_of(line, m)) return "master \"" + m[1] + "\" between battery and main block";
    if (of_bank.is_all_of(line, m))
        return "master \"" + m[3] + " " + m[1] + "\" between " + m[3] + " and main block " + m[2];
    return line;
}

// "BMS 200 A" on a line of its own: of the lithium battery that is there.
std::string management_in_our_words(const Plan& plan, const std::string& line) {
    static const Pattern alone(R"(^\s*(?:the\s+)?BMS\s*:?\s+(\d+)\s*A\s*$)");
    Found m;
    if (!alone.is_all_of(line, m)) return line;
    for (const Battery& b : plan.batteries)
        if (b.chemistry == Chemistry::lifepo4) return "set \"" + b.name + "\" cuts_at_A " + m[1];
    return line;
}

// "main fuse 200 A at battery": that of the cable to the first block, once it is there.
std::string main_fuse_in_our_words(const Plan& plan, const std::string& line) {
    static const Pattern at_battery(
        R"(^\s*(?:main\s+|battery\s+)*(?:fuse\s+(\d+)\s*A|(\d+)\s*A\s+(?:main\s+)?fuse)\b(?![^,]*\b(?:to|for)\b)[^,]*\b(?:at|on|by|near|beside)\s+(?:the\s+)?(?:[a-z]+\s+)?batt(?:ery|eries)?\b[^\d]*$)");
    static const Pattern bare(R"(^\s*main\s+(?:fuse\s+(\d+)\s*A|(\d+)\s*A\s+fuse)\s*$)");
    Found m;
    const bool of_any = at_battery.is_all_of(line, m);
    if (!of_any && !bare.is_all_of(line, m)) return line;
    for (const Run& r : plan.runs) {
        const Point* block = find(plan.points, r.to);
        if (!block || !block->feeds_loads || !find(plan.batteries, r.from.owner)) continue;
        if (!of_any && block->name != "main block") continue;  // whose fuse nobody said
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::fuse)
                return "set \"" + d.name + "\" rating_A " + m[m.has(1) && !m[1].empty() ? 1 : 2];
    }
    return line;
}

// "battery protector 100 A, 11.6 V", "low voltage disconnect at 11.8 V": by the block that it feeds.
std::string cut_off_of_block(const Plan& plan, const std::string& line) {
    static const Pattern protector(
        R"(^\s*(?:an?\s+|the\s+)?(?:battery\s+protect(?:or|ion)?|low[ -]volt(?:age|s)?\s+(?:disconnect|cut-?\s?(?:off|out))|LVD)\b[^\d]*(?:\d+\s*A\b)?[^\d]*(\d+(?:\.\d+)?)\s*V\s*$)");
    Found m;
    if (!protector.is_all_of(line, m)) return line;
    for (const Run& r : plan.runs)
        if (const Point* block = find(plan.points, r.to);
            block && block->feeds_loads && find(plan.batteries, r.from.owner))
            return "set \"" + block->name + "\" cutoff_V " + m[1];
    return line;
}

// "main disconnect on the battery": in the cable to the first block.
std::string master_in_our_words(const std::string& line) {
    static const Pattern at_battery(
        R"(^\s*((?:main |battery |master )?(?:disconnect|master|isolator|cut-?off|kill|switch)(?: disconnect)?(?: switch)?)\s*,?\s*(\d+\s*A\b)?\s*,?\s*(?:(?:at|on|by|near|beside|behind)\s+(?:the\s+)?((?:[a-z]+\s+)?battery|batteries))?\s*$)");
    // "disconnect switch at rear bumper 250 A": whatever it is mounted on, it is in that cable
    static const Pattern mounted(
        R"(^\s*((?:main |battery |master )?(?:disconnect|isolator|cut-?off|kill)(?: switch)?)\s+(?:at|on|in|by|near|under|behind)\s+(?:the\s+)?[a-z]+(?:\s[a-z]+){0,2}\s*,?\s*(\d+\s*A\b)?\s*$)");
    // "module battery switch 300 A"
    static const Pattern of_battery(
        R"(^\s*((?!main\b|master\b)[a-z]+ battery) (switch|disconnect|isolator|master)\s*(\d+\s*A)?\s*$)");
    Found m;
    if (of_battery.is_all_of(line, m))
        return "master \"" + m[1] + " " + m[2] + "\" between " + m[1] + " and main block" +
               (m.has(3) ? " " + m[3] : "");
    if ((!at_battery.is_all_of(line, m) && !mounted.is_all_of(line, m)) || to_lower(m[1]) == "switch")
        return line;
    const std::string name = m[1];
    return "master " + (to_lower(name) == "master" ? std::string() : "\"" + name + "\" ") +
           "between battery and main block" + (m.has(2) ? " " + m[2] : "");
}

// "ch 3 beacon 5 A", "channel 3: beacon 5 A": on that channel of the box that was said last.
std::string channel_in_our_words(const Plan& plan, const std::string& line) {
    static const Pattern numbered(
        R"(^\s*(?:ch(?:annel)?|output)\s*[.#]?\s*(\d{1,2})\s*[:=.)-]*\s*([a-z].*)$)");
    static const Pattern nothing(
        R"(^(?:is\s+)?(?:spare|free|empty|unused|not used|reserved?|n/?a)\b[^\d]*$)");
    Found m;
    const auto box = std::find_if(plan.points.rbegin(), plan.points.rend(),
                                  [](const Point& p) { return !p.channels.empty(); });
    if (box == plan.points.rend() || !numbered.is_all_of(line, m)) return line;
    if (nothing.is_all_of(m[2])) return "# " + line;
    return m[2] + ", from " + box->name + " channel " + m[1];
}

// "cab fuse panel 12 way": a bus of that name, in that place.
std::string panel_in_our_words(const Plan& plan, const std::string& line) {
    static const Pattern named(
        R"(^\s*((?!bus\b|fuse\b|positive\b|negative\b|cable\b|strap\b|way\b|price\b|set\b|remove\b|for\b|from\b)[a-z][a-z-]*(?:\s+[a-z-]+){0,2}?)\s+(fuse ?(?:panel|box|block|board)|distribution (?:block|board)|(?:positive |negative )?bus ?bar)\b([^"]*)$)");
    // "panel at the back with 12 ways"
    static const Pattern of_ways(
        R"(^\s*((?:fuse |distribution |main |switch )?(?:panel|board))\b([^"\d]*?)\s*,?\s*(?:with\s+)?\d+[ -]ways?\s*$)");
    // "dash panel has 8 fuses", "rear panel, 10 circuits"
    static const Pattern of_circuits(
        R"(^\s*(?:the\s+)?((?:[a-z-]+\s+){1,2}(?:panel|board|fuse ?box|fuse ?block))\s*[,:-]?\s*(?:has|with|for|of)?\s*(?:\d{1,2}|four|six|eight|ten|twelve)[ -]?(?:ways?|circuits?|fuses|positions?|slots?|outputs?)\s*\.?\s*$)");
    Found m;
    if (of_ways.is_all_of(line, m)) {
        static const Pattern back(R"(\b(?:at|in|on)\s+(?:the\s+)?back\b)");
        return "bus \"" + m[1] + "\"" + back.replaced(m[2], ", rear");
    }
    // "12 V fuse panel 6 way" of a 48 V vehicle: the block behind its converter
    static const Pattern of_volts(
        R"(^\s*(12|24)\s*V\s+((?:fuse ?|distribution )?(?:panel|block|box|board))\s*[,:-]?\s*(?:with\s+|has\s+)?(?:\d{1,2}[ -]?(?:ways?|circuits?|fuses|positions?))?\s*$)");
    if (of_volts.is_all_of(line, m)) {
        constexpr double kAlike_V = 4;
        const double wanted_V = parse_value(m[1], Dimension::number).value_or(0);
        const Point* block = nullptr;
        for (const Point& p : plan.points)
            if (p.feeds_loads && std::abs(rail_V(plan, Terminal(p.id)) - wanted_V) < kAlike_V)
                block = block ? nullptr : &p;
        if (block && std::abs(plan.vehicle.nominal_V - wanted_V) > kAlike_V)
            return "set \"" + block->name + "\" name \"" + m[1] + " V " + m[2] + "\"";
    }
    if (of_circuits.is_all_of(line, m) && !m[1].starts_with("fuse ") && !m[1].starts_with("switch "))
        return "bus \"" + m[1] + "\"";
    if (!named.is_all_of(line, m)) return line;
    static const Pattern draws(R"(\d\s*k?W\b)");  // "rear bus bar light 5 W"
    const std::string rest = m[3], first = to_lower(m[1]);
    if (draws.is_in(rest)) return line;
    std::string place;
    for (const Place& p : plan.places)
        if (to_lower(p.name) == first) place = ", " + p.name;
    const bool negative = to_lower(m[2]).starts_with("negative");
    return "bus \"" + m[1] + " " + m[2] + "\"" + (negative ? " negative" : "") + rest + place;
}

// "Light bar | 12 A | roof": the cells of a table as the parts of a line. Its head says no figure.
std::string row_of_table(const std::string& line) {
    std::string parts;
    for (const std::string_view cell : split(line, '|'))
        if (const auto text = trim(cell); !text.empty())
            parts += (parts.empty() ? "" : ", ") + std::string(text);
    const bool figures = parts.find_first_of("0123456789") != std::string::npos;
    return figures ? parts : "# " + parts;
}

}  // namespace

std::string without_layout(const std::string& line) {
    static const Pattern nothing(
        R"(^\s*(?:[-=_*~|+ ]{2,}|(?:\d{1,2}\s*[=:.)-]?\s*)?(?:spare|empty|unused|free|blank|reserved?)s?|(?:the\s+|my\s+)?(?:loads|consumers|circuits|appliances|equipment|accessories)(?:\s+list)?|[a-z][a-z /]*\s*[?:-]?\s(?:no|none|n/a|not fitted)|(?:sub-?|grand )?(?:total|sum)\s*(?:draw|load|current|power|amps|watts|of|about|approx\S*|ca\.?|[:=~\d|]).*|(?:12|24|36|48|110|115|120|220|230|240)\s*V(?:\s*AC)?\s*:|(?!.*\d\s*(?:W|A|Ah)\b)(?:(?:12|24|36|48)\s*V\s+)?[a-z][a-z0-9 &/'(),+-]{1,60}:)\s*$)");
    static const Pattern bullet(
        R"(^\s*(?:[-*+]|\xE2\x80[\xA2\x93\x94]|\xC2\xB7|\d{1,2}[.)]|\d{1,2}\s*=|[a-z]\))\s+)");
    static const Pattern sign(
        R"(\s*(?:[=|~]|\xE2\x89\x88|->)\s*(?=\d)|(?<=[^\d\s])\s+(?:-|\xE2\x80[\x93\x94])\s+(?=\d))");
    static const Pattern roughly(
        R"(\b(?:about|approx\.?|approximately|ca\.?|circa|roughly|around|max\.?|up to)\s+(?=\d))");
    static const Pattern cca(R"((\d)(CCA|lbs?|kg)\b)");
    static const Pattern doubt(R"((\d\s*(?:k?W|A|V|Ah))\s*\?+)");
    static const Pattern at_most(R"((?<=[WA])\s+max(?:imum|\.)?(?=$|[,;\s]))");
    static const Pattern counted(R"(\b(\d{1,2})\s*@\s*(?=\d))");
    static const Pattern and_amps(R"((\d\s*V)\s*/\s*(?=\d))");
    static const Pattern runs(R"(\bruns\s+(?=\d+\s*%))");
    // said of a load, a cable or a fuse in more words than are needed
    static const Phrase plainer[] = {
        {Pattern(R"((\d\s*k?)VA\b)"), "$1W"},
        {Pattern(R"(\b(?:works?|runs?|used)\s+(?=\d+\s*(?:s|secs?|seconds?|min|mins|minutes?)\b))"), ""},
        {Pattern(R"(,\s*(?:in-cab|cab|dash|panel|rocker|toggle)\s+switch(?:es)?\s*(?=,|$))"),
         " on own switch"},
        {Pattern(
             R"(^\s*((?:[a-z]+\s+)?(?:battery|batteries|alternator|starter|inverter|solar))\s+(?:-|\xE2\x80\x93|\xE2\x80\x94)\s+(?!to\b|and\b))"),
         "$1 "},
        {Pattern(R"(\bseries\s*[-&+]\s*parallel\b)"), "series/parallel"},
        // what a radio sends, what a siren sounds; the amps are what it draws
        {Pattern(R"(\b\d+(?:\.\d+)?\s*W\s+(?:tx|transmit|output|pa|pep)\s*,?\s+(?=\d+(?:\.\d+)?\s*A\b))"),
         ""},
        {Pattern(
             R"(^(?!\s*(?:inverter|solar|charger|alternator|converter|winch|starter|dc)\b)(.*?)\b\d+(?:\.\d+)?\s*k?W\s*,?\s+(?:rated\s+)?(\d+(?:\.\d+)?\s*A)\s*(?=$|,))"),
         "$1$2"},
        {Pattern(
             R"((\d\s*A)\s+hold(?:ing)?\s*[,/]?\s*(\d+(?:\.\d+)?\s*A)\s+pull(?:[- ]?in)?(?:\s+(?:for\s+)?\d+(?:\.\d+)?\s*s\b)?)"),
         "$1, start $2"},
        {Pattern(R"(,\s*(?:the\s+)?((?:main|starter|start|engine|aux|leisure|house)\s+battery)\s*(?=$|,))"),
         ", from $1"},
        // held or latched by hand, it is a switch of its own
        {Pattern(
             R"((?<=[AWVs])\s*,?\s*(?:on\s+)?(?:a\s+)?(?:momentary|toggle|rocker|push[ -]?button)(?:\s+(?:switch|button))?\s*(?=,|$))"),
         ", on own switch"},
        {Pattern(
             R"((?<=[AWVs])\s*,?\s*(?:on\s+)?(?:a\s+)?(?:momentary|toggle|rocker|push[ -]?button)(?:\s+(?:switch|button))?\s+(?=\d))"),
         ", on own switch, "},
        {Pattern(R"(\s*(?:\+|&)\s*(?:own\s+)?switch\b)"), ", on own switch"},
        {Pattern(
             R"(\s*,?\s*(?:up\s*/\s*down|up-down|in\s*/\s*out|open\s*/\s*close|reversing|rocker)\s+switch\b)"),
         ", on own switch"},
        {Pattern(R"(,\s*float\s*(?=,|$))"), " on switch float"},
        {Pattern(R"((\d\s*[WA])\s*\+\s*(?=[a-z][a-z ]*\d))"), "$1, "},
        {Pattern(R"(\b(?:cranking\s+)?CCA\s*:?\s*(\d{3,4})\b(?!\s*[AV]))"), "$1 CCA"},
        {Pattern(R"(\bcranking\s+(?=\d+\s*(?:CCA|A)\b))"), ""},
        {Pattern(R"((\d\s*k?W)\s+AC\b)"), "$1 on inverter"},
        {Pattern(R"(,\s*cable\s+(?:of\s+|run\s+)?(?=\d+(?:\.\d+)?\s*(?:m|ft)\b\s*(?:,|$)))"), ", "},
        {Pattern(
             R"((?<=[AWV%])(?:\s+each)?(?:\s*,\s*|\s+)(?:switch|sw\.?)\s+(?!on\b|off\b|panel\b|in\b|at\b|box\b|and\b)(?=["a-z]))"),
         " on switch "},
        {Pattern(R"((\d\s*[AW])\s*,?\s+key on\b)"), "$1 on ignition"},
        {Pattern(R"((\d\s*[AW])(?:\s*,\s*|\s+)key\s*(?=,|$))"), "$1 on ignition"},
        {Pattern(R"((\d\s*[AW])\s*,?\s+(sw\s?\d{1,2})\b)"), "$1 on switch $2"},
        {Pattern(
             R"(^(?!.*\b(?:inverter|generator|shore|hook-?up)\b)(?!\s*(?:battery |mains )?charger\b)(.*\d\s*k?W)\s+(?:230|240|220|120|115|110)\s*V(?:\s*AC)?\b)"),
         "$1 on inverter"},
        {Pattern(R"((\d\s*[AW])(?:\s*,\s*|\s+)(?:(?:via|by|on|with)\s+)?(?:an?\s+)?relay\s*(?=,|$))"),
         "$1, on own switch"},
        {Pattern(R"((\d\s*A)\s*(?:@|at)\s*idle\s+(\d+(?:\.\d+)?\s*A)\b)"), "$1, $2 at idle"},
        {Pattern(R"((\d\s*A)\s*@\s*idle\b)"), "$1 at idle"},
        {Pattern(
             R"(\(((?:(?:key on|ignition|on ignition|always)\b|(?:on )?switch\s+(?!in\b|on\b|at\b|by\b))[^()]*)\))"),
         ", $1"},
        {Pattern(R"(,\s*key on\s*,\s*(?:on )?switch\s+(?=[a-z]))"), " on ignition, on switch "},
        {Pattern(R"(\bbatt?\b\.?\s+(start(?:er)?|service|house|leisure|aux|engine)\b)"), "$1 battery"},
        {Pattern(R"(^\s*electric start(?:er)?\s+(?=\d))"), "starter "},
        {Pattern(
             R"(,\s*(?:switch|sw\.?)\s+(?!on\b|off\b|panel\b|in\b|at\b|box\b|and\b)(?=[a-z][a-z -]*(?:,|$)))"),
         " on switch "},
        {Pattern(R"((?<=[:,] )(\d{1,2})\s+([a-z][a-z -]*?)\s+(\d+(?:\.\d+)?\s*[WA])\s+each\b)"), "$2 $1x $3"},
        {Pattern(R"((?<!fuse )\bclass T\s+(?:fuse\s+)?(?=\d+\s*A\b))"), "fuse class T "},
        {Pattern(R"(\bfuse class T\s+(\d+\s*A)\b)"), "fuse $1 class T"},
        {Pattern(R"(^\s*no (?:alternator|engine)\s*[.;]\s*(?=\S))"), ""},  // the page is asked for it
        {Pattern(R"(^\s*2nd\b)"), "second"},
        {Pattern(R"((?<=[AW])\s+(?:all|over)\s*night\b)"), ", always"},
        {Pattern(R"(\bswitched by\s+(?:a\s+|the\s+|its\s+)?(?=[a-z]))"), "on switch "},
        {Pattern(R"(\b(\d{1,2})\s+off\b\s*,?\s*(?=\d))"), "$1x "},
        {Pattern(R"(\b(\d{1,2})\s*\*\s*(?=\d))"), "$1x "},
        {Pattern(R"(^\s*bat\b\.?\s*(?=\d))"), "battery "},
        {Pattern(R"(\bx\s?(\d{1,2})\s*(?:\s|-|:|\xE2\x80\x93)\s*(?=\d))"), "$1x "},
        {Pattern(R"((\d+(?:\.\d+)?\s*[WA])(?:\s+each)?\s*,?\s+(\d{1,2}) of (?:them|these|those))"), "$2x $1"},
        {Pattern(R"(\b(?:two|twin)\s+(?=\d+(?:\.\d+)?\s*k?[WA]\b.*\beach\b))"), "2x "},
        {Pattern(R"(\b(?:three)\s+(?=\d+(?:\.\d+)?\s*k?[WA]\b.*\beach\b))"), "3x "},
        {Pattern(R"(\b(?:four)\s+(?=\d+(?:\.\d+)?\s*k?[WA]\b.*\beach\b))"), "4x "},
        {Pattern(R"(\b(?:(?:one|a)\s+)?pair of\s+(?=\d))"), "2x "},
        {Pattern(
             R"(\b(?:(?:always |permanently |constantly )?on all the time|all the time|(?:on )?24/7|permanently (?:on|live)|always live)\b)"),
         "always"},
        {Pattern(R"(\b(?:12|24)\s*V\s+(?:element|version|model|type)\b)"), ""},
        {Pattern(R"(\b(?:under|in|beneath)\s+(?:the\s+)?(?:bonnet|hood)\b)"), ", engine bay"},
        {Pattern(R"((\d\s*(?:m|ft))\s+(?:of\s+cable|cable|away|run)(?:\s+run)?\b)"), "$1"},
        {Pattern(R"((\d\s*(?:m|ft))\s+of\s+(?=\d))"), "$1 "},
        {Pattern(R"((\d/0|\bAWG|mm2)\s+cable\b)"), "$1"},
        {Pattern(
             R"(\b(?:wired\s+)?(?:direct(?:ly)?|straight)\s+(?:off|from|to|on)\s+(?=(?:the\s+)?[a-z ]*batter))"),
         "from "},
        {Pattern(R"(\baround\s+(?:the\s+)?(?=[a-z]+\s*(?:,|$)))"), "in "},
        {Pattern(R"((?<=[WA])\s+twin\b)"), ""},
        {Pattern(R"(\bw/\s*)"), "with "},
        {Pattern(R"(^\s*alt\b\.?\s*(?=\d))"), "alternator "},
        {Pattern(R"(\b(?![468]x[2468]\b)(\d{1,2})\s*x\s*(?=\d))"), "$1x "},
        {Pattern(R"((\d\s*k?W)\s+(?:on\s+|via\s+)?inv\b\.?)"), "$1 on inverter"},
        {Pattern(R"(^([^\d(]*?)\s*\((\d{1,2})\)\s*,?\s*(?=\d+(?:\.\d+)?\s*[AW]\b))"), "$1 $2x "},
        {Pattern(R"((\d\s*[AW])\s+peak\s*(?=$|,(?!\s*\d+(?:\.\d+)?\s*[AW]\b)))"), "$1"},
        {Pattern(R"((\d\s*[AW])\s*@\s*(?=\d+(?:\.\d+)?\s*V))"), "$1 at "},
        {Pattern(R"(\b(\d{1,2})\s*x\s+([a-z]+)\s+(?=\d+(?:\.\d+)?\s*[AW]\b\s*(?:,|$)))"), "$2 $1x "},
        {Pattern(
             R"(\b(?:on|with|via)\s+(?:an?\s+|the\s+|its\s+)?(?:(?:in-cab|cab|dash|panel|rocker|toggle)\s+switch|switch\s+(?:panel|in (?:the )?cab|on (?:the )?dash))\b)"),
         "on own switch"},
        {Pattern(R"(\b(in|with|on) reverse gear\b)"), "on reverse"},
        {Pattern(R"(\b(?:average|avg\.?|averages|averaging)\s+(?=\d+\s*%))"), "duty "},
        {Pattern(R"((?<=\d%|\d %)\s+(?:average|avg)\b)"), ""},
        {Pattern(R"(\bhalf (?:of )?the time\b)"), "duty 50 %"},
        {Pattern(R"(\ba third (?:of )?the time\b)"), "duty 33 %"},
        {Pattern(R"(\ba quarter (?:of )?the time\b)"), "duty 25 %"},
        // the case of a battery and the pull of a crane say nothing of their amps
        {Pattern(R"(\b(?:BCI\s+)?group\s+\d{2}[a-z]?\b)"), ""},
        {Pattern(R"((?<!winch)(?<=[a-z,])(\s+)\d{3,5}\s*(?:lbs?|kg)\b\s*:?(?=\s*,?\s*\d))"), "$1"},
        {Pattern(R"((?<=\S)(\s|,\s*)main fuse\s+(?=\d))"), "$1fuse "},
        {Pattern(R"(\bfused?\s+(?:at\s+)?both ends\s+(?:at\s+|with\s+)?(\d+\s*A)\b)"), "fuse $1 both ends"}};
    // "24->12 converter": an arrow between volts is none between a name and its figure
    static const Pattern volts(R"(\b(12|24|36|48)\s*V?\s*(?:->|\xE2\x86\x92|>)\s*(12|24|36|48)\s*V?(?=\s))");
    static const Pattern heading(
        R"(^\s*(?:[a-z][a-z ]*\(\s*(?:12|24|36|48)\s*V\s*\)|(?:12|24|36|48)\s*V\s+(?:loads|circuits|items|things|stuff|side))\s*$)");
    if (nothing.is_all_of(line) || heading.is_all_of(line)) return "# " + line;
    if (line.find('|') != std::string::npos) return without_layout(row_of_table(line));
    std::string text = volts.replaced(bullet.replaced(line, ""), "$1/$2");
    // "24 V? no 12 V": the first is taken back; "VSR? no": there is none
    static const Pattern taken_back(R"(\b\d+(?:\.\d+)?\s*[a-z]+\s*\?+\s*no\s*[,:-]?\s+(?=[^?]*\d))"),
        asked_and_denied(R"(^[^?\d]{1,40}\?+\s*no\b[^\d]*$)");
    if (asked_and_denied.is_all_of(text)) return "# " + line;
    // "4x 100 Ah 12 V 2s2p = 24 V 200 Ah", "6x 200 W = 1200 W": what it makes follows from what there is
    static const Pattern makes(R"(^(.*\d\s*Ah\b.*?)\s*(?:=|->)\s*\d+(?:\.\d+)?\s*(?:V|Ah|kWh)\b[^,]*$)"),
        adds_up(R"((\d\s*[x@]\s*\d+(?:\.\d+)?\s*([AW]))\s*=\s*\d+(?:\.\d+)?\s*k?\2\b)");
    text = adds_up.replaced(makes.replaced(text, "$1"), "$1");
    if (std::count(text.begin(), text.end(), '(') > std::count(text.begin(), text.end(), ')')) text += ")";
    text = roughly.replaced(sign.replaced(taken_back.replaced(text, ""), " "), "");
    // what a label says of its cells is the rail that they make
    static const Pattern hours(R"(\d\s*Ah\b)"), of_cells(R"(\b(\d\d\.\d)\s*V\b)");
    if (Found m; hours.is_in(text) && of_cells.is_in(text, m))
        text = m.before() + shown(rail_of_label_V(parse_value(m[1], Dimension::number).value_or(0))) + " V" +
               m.behind();
    text = doubt.replaced(cca.replaced(text, "$1 $2"), "$1");
    text = and_amps.replaced(counted.replaced(at_most.replaced(text, ""), "$1x "), "$1 ");
    text = put_plainly(with_plain_figures(text), plainer);
    // "180 A peak 300 A 10 s"; of "250 A peak, 80 A" the first is the peak
    static const Pattern peak(
        R"((\d+(?:\.\d+)?)\s*([AW])\s*,?\s+peaks?\s+(?:at\s+|of\s+)?(\d+(?:\.\d+)?)\s*\2\b(?:\s*,?\s+(?:for\s+)?\d+\s*(?:s|secs?|seconds?)\b)?)");
    if (Found m; peak.is_in(text, m) && parse_value(m[3], Dimension::number).value_or(0) >
                                            parse_value(m[1], Dimension::number).value_or(0))
        text = m.before() + m[1] + " " + m[2] + ", start " + m[3] + " " + m[2] + m.behind();
    // "dc/dc 48/12 30 A"
    static const Pattern steps(
        R"(^\s*(?:dc\s*[-/]?\s*dc|step-?down|step-?up|reducer)(?:\s+converter)?\s+(?:12|24|36|48)\s*V?\s*/\s*(12|24)\s*V?\s*,?\s*(?=\d+(?:\.\d+)?\s*A\b))");
    text = steps.replaced(text, "converter $1 V ");
    // "leisure: 3x 110 Ah"
    static const Pattern bank(
        R"(^\s*(leisure|house|aux(?:iliary)?|service|domestic|starter|start|engine|cab|chassis)\s*:\s*(?!\s*(?:[a-z]+\s+)?batt)(?=[^,]*\d\s*Ah\b))");
    text = bank.replaced(text, "$1 battery ");
    return runs.replaced(text, "");
}

// "on aux", where there is an aux battery.
static std::string called_by_first_word(const Plan& plan, const std::string& line) {
    static const Pattern at(R"((?:\b(on|from|off|to|via)\s+(?:the\s+)?|,\s*)([a-z]+)\s*(?=,|$))");
    for (const Battery& b : plan.batteries) {
        const std::string name = to_lower(b.name);
        std::string word;
        for (const std::string_view thing : {" battery bank", " battery", " batteries", " bank"})
            if (word.empty() && name.ends_with(thing)) word = name.substr(0, name.size() - thing.size());
        if (word.empty()) continue;
        Found m;
        for (std::string before, rest = line; at.is_in(rest, m);
             before += m.before() + m[0], rest = m.behind()) {
            if (to_lower(m[2]) != word || is_a_switch(plan, word)) continue;
            return before + m.before() + (m.has(1) && !m[1].empty() ? m[1] : std::string(", from")) + " " +
                   b.name + m.behind();
        }
    }
    return line;
}

std::string loosely_said(const Plan& plan, const std::string& line) {
    static const Pattern only(R"(\bonly\s+(?=(?:on|while|when|with)\b))");
    static const Pattern no_engine(R"(^\s*(?:no|without (?:an )?)\s*(?:engine|alternator)\s*\.?\s*$)");
    static const Pattern battery(R"(\bbatt\b\.?)");
    if (no_engine.is_all_of(line)) return "vehicle no engine";
    if (auto state = state_said(plan, line); !state.empty()) return state;
    // where something stands is called without "the"; "on the mast" keeps it, since "on mast" is a switch
    static const Pattern article(R"(\b(in|inside|behind|under|beside)\s+the\s+)");
    std::string text = article.replaced(only.replaced(line, ""), "$1 ");
    text = called_by_first_word(plan, battery.replaced(text, "battery"));
    // nothing is switched by a roof
    static const Pattern on_part(
        R"(\bon\s+((?:(?:front|rear|left|right|nearside|offside)\s+)?(?:roof(?:\s+rack)?|mast|bumper|headboard|rack|ladder|tailgate|bull\s?bar|bonnet|hood|fender|drawbar|grille))\s*(?=,|$|\d+(?:\.\d+)?\s*m\b))");
    if (Found at; on_part.is_in(text, at) && !is_a_switch(plan, to_lower(at[1])))
        text = on_part.replaced(
            text, trim(at.behind()).starts_with(',') || trim(at.behind()).empty() ? ", $1" : ", $1, ");
    text = own_switch(figure_behind_its_thing(text));
    static const Pattern timed(R"(^\s*(?:state|day|winch|vehicle|set|reading|minutes|rate|price)\b)");
    if (!timed.is_in(text)) text = times_in_our_words(text);
    text = master_in_our_words(cut_off_in_our_words(controller_in_our_words(plan, text)));
    text = channel_in_our_words(plan, management_in_our_words(plan, text));
    return panel_in_our_words(plan, main_fuse_in_our_words(plan, cut_off_of_block(plan, text)));
}

}  // namespace yr
