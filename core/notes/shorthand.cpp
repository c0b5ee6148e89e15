#include "notes/shorthand.h"

#include "notes/everyday.h"

#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr std::size_t kLongestShorthand = 400;  // letters; what is longer is no note

double figure(const std::string& text) {
    return parse_value(text, Dimension::number).value_or(0);
}

// Said of a thing beside what it draws, or in another order than we have it.
std::string in_full(std::string text) {
    static const Phrase plainer[] = {
        {Pattern(R"(\s*!+)"), ""},
        {Pattern(R"((\d\s*A)\s+between(?:\s+(?:the\s+)?(?:two|them|batteries|the batteries))?\s*$)"), "$1"},
        {Pattern(R"(\bbatts?\b\.?)"), "battery"},
        {Pattern(R"(\b(?:thru|thro)\b)"), "through"},
        {Pattern(R"(\s*/\s*(?=\d+\s*A\s*(?:EN|CCA|SAE|CA)\b))"), ", "},
        {Pattern(R"((\d\s*A)\s+(?:EN|SAE|CA)\b)"), "$1"},
        // what it gives as heat or sends is not what it draws
        {Pattern(R"(\b\d+(?:\.\d+)?\s*k?W\s+(?:heat\s+|out(?:put)?\s+|rf\s+|tx\s+)?draws\s+(?=\d))"), ""},
        {Pattern(R"(\b\d+(?:\.\d+)?\s*W\s+(?:out(?:put)?|rf)\s*(?:->|=|,|:)?\s*(?=\d))"), ""},
        {Pattern(R"(\bdraws\s+(?=\d))"), ""},
        {Pattern(R"((?<=[AWV%])\s+(?:avg|average|continuous|cont\.|rated|nominal)(?=$|[,;\s]))"), ""},
        {Pattern(R"((?<=[AW])\s+(?:tx|peak|max)\s*(?=$|,|\d+\s*V\b))"), " "},
        {Pattern(R"(\b(solar\b.*?\d\s*W)\s+(?:\d\d\s*V\s+)?(?:mppt|pwm)\s*$)"), "$1"},
        {Pattern(R"(^\s*([a-z]+) batteries\s*:\s*)"), "$1 battery "},
        {Pattern(R"(\b5\s*V\b\s*)"), ""},
        {Pattern(R"((?<=[AW])\s+usb\b)"), ""},
        // for how long
        {Pattern(
             R"(\s*,?\s*\b(?:runs?|on|works|used)?\s*(?:for\s+)?(\d+)\s*(?:s|secs?|seconds?)\s*(?:up|down|in|out|each way|max)?\s*(?=$|,))"),
         ", $1 s"},
        {Pattern(R"(/\s*hr\b)"), " per hour"},
        {Pattern(R"(\s*,?\s*\b(?:in the |each |every )?(?:evenings?|nights?)\s+(\d+(?:\.\d+)?\s*h)\b)"),
         ", $1 a day"},
        // weights, plugs, its own switch
        {Pattern(R"((?<=[AW])\s*,?\s+\d{1,3}(?:[ ,.]?\d{3})\s*(?:lbs?|kg)\b)"), ""},
        {Pattern(R"(\s+(?:with|on|via)\s+(?:an?\s+|the\s+)?(?:plug|quick connect(?:or)?|anderson)\b)"), ""},
        {Pattern(
             R"(\s*,?\s*(?:its\s+|with\s+)?own\s+(?:isolator|breaker|fuse|contactor|solenoid)\b(?!\s*\d))"),
         ""},
        {Pattern(R"(\s*,?\s*(?:two|three|four|five|\d)\s+switches\b[^,"]*)"), ""},
        {Pattern(
             R"((?<=[AW])\s*,?\s*(?:on\s+|via\s+|with\s+)?(?:the\s+)?(?:auto(?:matic)?\s+)?(door|hatch|lid|brake|foot|pressure|float)\s+switch\b(?:\s*,?\s*always(?:\s+(?:on|live))?\b)?)"),
         " on switch $1"},
        {Pattern(R"(,\s*(?:burner|glow ?plug|igniter|ignition|motor|compressor)\s+start\s+(?=\d))"),
         ", start "},
        // where
        {Pattern(R"(\s*,?\s*\b(?:all\s+)?around\s+(?:the\s+)?(?:body|vehicle|truck|van|box|outside)\b)"), ""},
        {Pattern(
             R"(\bat\s+(?:the\s+)?(?=(?:tailgate|rear|front|back|tail|roof|nose|operator|driver|dash|bulkhead)\b))"),
         "in "},
        {Pattern(R"(,\s*(?=(?:chassis|frame) rail\b))"), " in "}};
    text = with_everyday_words(put_plainly(std::move(text), plainer));
    // "5 A + 5 A"
    static const Pattern sum(R"(\b(\d+(?:\.\d+)?)\s*([AW])\s*\+\s*(\d+(?:\.\d+)?)\s*\2\b)");
    if (Found m; sum.is_in(text, m))
        text = m.before() + shown(figure(m[1]) + figure(m[3])) + " " + m[2] + m.behind();
    return text;
}

// "radio 60 W and laptop charger 90 W", "till 40 W, phone chargers 30 W": what has a figure is a thing.
std::vector<std::string> listed(const std::string& text, const std::string& behind) {
    static const Pattern together(R"(\s+(?:and|&|\+)\s+(?=[a-z][^,]*\d|\d+(?:\.\d+)?\s*k?W\s+[a-z]))");
    static const Pattern amount(R"(\d\s*k?[WA]\b)");
    std::vector<std::string> things;
    std::string name;  // what its figures stand behind, each behind a comma
    static const Pattern watts_first(R"(^\s*(?:an?\s+)?(\d+(?:\.\d+)?\s*k?W)\s+([a-z][a-z ]+?)\s*$)");
    for (const std::string& part : comma_parts(together.replaced(text, ", ")))
        if (Found m; watts_first.is_all_of(part, m))
            things.push_back(m[2] + " " + m[1]);
        else if (const std::string thing(trim(part));
                 !thing.empty() && thing.find_first_of("0123456789") == 0)
            (things.empty() ? name : things.back()) += ", " + thing;
        else if (amount.is_in(thing))
            things.push_back(thing);
        else
            name = thing;
    if (things.empty() && amount.is_in(name)) things.push_back(name);
    for (std::string& thing : things) thing += behind;
    return things;
}

std::vector<std::string> with_first(std::string first, std::vector<std::string> rest) {
    if (rest.empty()) return {};
    rest.insert(rest.begin(), std::move(first));
    return rest;
}

// "3.5 m 1/0 each way, 150 A fuse both ends"
std::string plain_cable(const std::string& said) {
    static const Pattern each_way(R"(\s+each way\b)"), fused(R"((\d+\s*A) fuses?\s+(?:at\s+)?both ends)");
    return fused.replaced(each_way.replaced(said, ""), "fuse $1 both ends");
}

// "second battery 100 Ah AGM behind seats with VSR 140 A": the battery, and what joins it.
std::vector<std::string> battery_with_its_joiner(const std::string& line) {
    static const Pattern joined(
        R"(^(.*\d\s*Ah\b.*?)\s*,?\s+(?:with|via|through|(?:and\s+)?charged\s+(?:by|via|through|from))\s+(?:an?\s+)?(?:(?:24\s*V?\s*(?:/|to|-)\s*)?(?:12|24)\s*V?\s+)?(\d+\s*A\s+)?(vsr|acr|split[ -]charge(?:\s+relay)?|(?:isolator|isolating|charging|linking|coupling) relay|(?:voltage[ -])?sensing relay|dc-?dc(?:\s+charger)?|b2b(?:\s+charger)?)\s*(\d+\s*A)?\s*(?:,\s*(.*))?$)");
    // "…, charged through an ignition relay 150A": as a contactor that closes with the engine
    // "…, VSR 140 A between, 3.5 m 1/0 each way, 150 A fuse both ends"
    static const Pattern between(
        R"(^(.*\d\s*Ah\b.*?)\s*,\s*(vsr|acr|split[ -]charge(?:\s+relay)?)\s*(\d+\s*A)(?:\s+between(?:\s+(?:the\s+)?(?:two|them|batteries))?)?\s*(?:,\s*(.*))?$)");
    static const Pattern by_key(
        R"(^(.*\d\s*Ah\b.*?)\s*,?\s+(?:with|via|through|(?:and\s+)?charged\s+(?:by|via|through|from))\s+(?:an?\s+)?(?:ignition|key|engine)\s+(?:relay|contactor|solenoid)\s+(\d+\s*A)\s*$)");
    Found m;
    // "alternator 70 A to engine battery, VSR to leisure"
    static const Pattern of_alternator(
        R"(^\s*((?:\d+(?:\.\d+)?\s*A\s+)?alternator\b.*?)\s*,?\s+(?:with\s+|and\s+|\+\s*)?(?:an?\s+)?(vsr|split[ -]charge(?:\s+relay)?)\s*(\d+\s*A)?\s*(?:to\s+[a-z ]+)?$)");
    if (of_alternator.is_all_of(line, m)) return {m[1], m[2] + " " + m[3]};
    if (between.is_all_of(line, m)) {
        const std::string cable = m.has(4) ? plain_cable(m[4]) : std::string();
        return {m[1], m[2] + " " + m[3] + (cable.empty() ? "" : ", " + cable)};
    }
    if (by_key.is_all_of(line, m)) return {m[1], "joiner contactor " + m[2]};
    if (!joined.is_all_of(line, m)) return {};
    const std::string amps = m.has(2) && !m[2].empty() ? m[2] : m.has(4) ? m[4] : std::string();
    return {m[1], m[3] + " " + amps + (m.has(5) && !m[5].empty() ? ", " + plain_cable(m[5]) : std::string())};
}

// One thing in words of its own.
std::string one_thing(const std::string& line) {
    static const Pattern hook_up(
        R"(^\s*(?:230|240|120|110)\s*V\s+(?:hook-?\s?up|shore(?: power)?|mains|inlet)\b[^\d]*(\d+(?:\.\d+)?\s*A)\s+charger\s*$)");
    // "hook-up 230 V -> charger 60 A"
    static const Pattern charger_of(
        R"(^\s*(?:hook-?\s?up|shore(?: power)?|mains)\s*(?:(?:230|240|120|110)\s*V)?\s*(?:->|\xE2\x86\x92|:|,|with|and)?\s*charger\s+(\d+(?:\.\d+)?\s*A)\s*$)");
    // "charger 25A 230V onboard"
    static const Pattern of_mains(
        R"(^\s*charger\s+(\d+(?:\.\d+)?\s*A)\s*,?\s*(?:(?:230|240|120|110)\s*V(?:\s*ac)?)?\s*(?:on-?board|built-?in|on mains|mains|from mains)?\s*$)");
    static const Pattern isolator(
        R"(^\s*((?:battery|main|master)\s+(?:isolator|disconnect|switch|cut-?off))\s+(?:in|at|by|near|beside|behind|on)\s+(?:the\s+)?[a-z ]+$)");
    // of a building, or only thought
    static const Pattern elsewhere(
        R"(\b(?:230|240|120|110)\s*V\s+(?:from|in|at)\s+(?:the\s+)?(?:shed|garage|house|barn|building|wall|depot|yard|workshop)\b)");
    static const Pattern thought(
        R"(^\s*(?:ideally|note|nb|n\.b\.|remember|should|would|want|please|maybe|perhaps|everything(?!.*\b(?:ignition|key|switch|switched|except|but|always)\b)|all wiring|[a-z]+ (?:water|air) so)\b(?!.*\d\s*(?:k?W|A|Ah)\b).*$)");
    // it measures, and takes nothing worth a cable
    static const Pattern measures(
        R"(^\s*(?:battery\s+)?(?:(?:monitor(?:ing)?|smart|battery)\s+)*shunt\b(?!.*\d\s*m?W\b).*$)");
    // it stands in the circuit of the starter or of the ignition, which are no cables of ours
    static const Pattern of_starting(
        R"(^\s*(?:(?:starter|start)\s+(?:solenoid|relay)|(?:solenoid|relay)\s+(?:for|of|on|at)\s+(?:the\s+)?starter(?:\s+motor)?|(?:engine|ignition)\s+(?:kill|cut-?out|stop)\s+(?:relay|switch|button))\s*$)");
    // two of a kind that say their cranking amps alone: side by side they give twice as much
    static const Pattern by_cranking(
        R"(^\s*(?:2|two)\s*x?\s*batter(?:y|ies)\b[^\d]*(?:group\s*\d+[^\d]*)?(\d{3,4})\s*CCA\b\s*(?:each\b)?[^\d]*$)");
    Found m;
    if (by_cranking.is_all_of(line, m)) return "battery " + shown(2 * figure(m[1])) + " CCA";
    if (hook_up.is_all_of(line, m) || charger_of.is_all_of(line, m)) return "charger shore " + m[1];
    if (of_mains.is_all_of(line, m)) return "charger shore " + m[1];
    if (isolator.is_all_of(line, m)) return m[1];
    if (elsewhere.is_in(line) || thought.is_all_of(line) || measures.is_all_of(line) ||
        of_starting.is_all_of(line))
        return "# " + line;
    return line;
}

}  // namespace

std::vector<std::string> supply_with_its_loads(const std::string& line) {
    static const std::string high = R"((?:24|36|48)\s*V?\s*(?:->|/|to|-|>|(?=\s))\s*)";
    static const Pattern converter_for(
        "^\\s*(?:dc-?dc\\s+)?" + high +
        R"((12|24)\s*V?\s+(?:dc-?dc\s+)?conv(?:erter)?\.?\s+(\d+(?:\.\d+)?\s*A)\s*(?:\s+(?:for|feeding|feeds)\b\s*:?\s*|:\s*)(.+)$)");
    static const Pattern on_converter(R"(^(.+?)\s*,?\s+(?:on|via|from|off|through)\s+(?:an?\s+)?)" + high +
                                      R"((12|24)\s*V?\s*conv(?:erter)?\.?\s+(\d+(?:\.\d+)?\s*A)\s*$)");
    static const Pattern inverter_for(
        R"(^\s*inverter\s+(\d+(?:\.\d+)?\s*k?W(?:\s*,?\s*(?:12|24|36|48)\s*V)?)\s*(?:pure|mod(?:ified)?\.?)?(?:\s*sine)?\s*(?:(?:for|to run|to power|running|feeding|powering)\b|:)\s*(?:the\s+)?(.+?\d.*?)\s*(?:on\s+(?:pure|mod(?:ified)?)\.?\s*sine)?\s*$)");
    static const Pattern own_inverter(
        R"(^(.*\d\s*k?W(?:\s*,?\s*(?:cycl(?:es|ing)|duty|runs)\s+\d+\s*%)?)\s+(?:by|via|through|from|off|on)\s+(?:an?\s+|its own\s+)?(\d+(?:\.\d+)?\s*k?W)\s+inverter\b\s*(.*)$)"),
        mains_volts(R"(\s*\b(?:230|240|220|120|115|110)\s*V(?:\s*AC)?\b)"),
        nothing_said(
            R"(^([a-z][a-z ]*?)\s+(?:by|via|through|from|off|on)\s+(?:an?\s+|its own\s+)?(\d+(?:\.\d+)?\s*k?W)\s+inverter\s*$)");
    // "12 V socket through a reducer 24V to 12V, 15A", "gimbal 24V 15A via step-up converter 12>24 20A"
    static const Pattern through_converter(
        R"(^(.+?)\s*,?\s+(?:on|via|from|off|through)\s+(?:an?\s+|its\s+own\s+)?(?:(?:step-?up|step-?down|boost|buck|dc-?dc)\s+)*(?:converter|reducer|dropper)\s+(?:12|24|36|48)\s*V?\s*(?:->|/|to|-|>)\s*(12|24)\s*V?\s*,?\s*(\d+(?:\.\d+)?\s*A)\s*$)");
    // "trolling motor 50 A, own deep cycle battery 100Ah on the boat"
    // "inverter/charger 3000 W, 125 A charger, cable 4/0 1.2 m"
    static const Pattern combined(
        R"(^\s*(?:[a-z-]+\s+){0,2}inverter\s*[/-]\s*charger\s+(\d+(?:\.\d+)?\s*k?W)\s*[,/]?\s*(?:(?:and|with)\s+)?(?:charger\s+(\d+(?:\.\d+)?\s*A)|(\d+(?:\.\d+)?\s*A)\s+charg(?:er|ing))\b\s*[,;]?\s*(?:cable\s+)?(.*)$)");
    static const Pattern own_battery(
        R"(^([a-z][a-z -]*?)\s+(\d[^,]*[AW]\b[^,]*),\s*(?:(?:with|has|on)\s+)?(?:its\s+)?own\s+((?:[a-z-]+\s+){0,2})(?:((?:6|12|24|36|48)\s*V)\s+)?battery\s+(\d.*Ah\b.*)$)");
    Found m;
    if (combined.is_all_of(line, m))
        return {"inverter " + m[1] + (m.has(4) && !m[4].empty() ? ", " + m[4] : std::string()),
                "charger shore " + m[m.has(2) && !m[2].empty() ? 2 : 3]};
    if (own_battery.is_all_of(line, m)) {
        const std::string name = "\"" + m[1] + " battery\"";
        // how long it runs at a time is said of what it feeds
        static const Pattern at_a_time(
            R"(\s*,\s*((?:for\s+|up to\s+|max\s+)?\d+(?:\.\d+)?\s*(?:s|secs?|seconds?|min|mins|minutes?)(?:\s+(?:at a time|at once|max))?)\s*$)");
        Found turn;
        const bool timed = at_a_time.is_in(m[5], turn);
        const std::string of_battery =
            (timed ? turn.before() : m[5]) + (m.has(4) && !m[4].empty() ? " " + m[4] : "");
        static const Pattern joined(R"(\b(?:charg\w*|dc-?dc|b2b|vsr|relay)\b)");
        return {
            "second battery " + name + " " + m[3] + of_battery + (joined.is_in(of_battery) ? "" : ", alone"),
            m[1] + " " + m[2] + (timed ? ", " + turn[1] : "") + " from " + name};
    }
    if (through_converter.is_all_of(line, m)) {
        auto things = listed(m[1], " from converter");
        // an outlet that says no figure takes what the converter gives; of others it is said what it is for
        static const Pattern volts(R"(\b(?:12|24)\s*V\b\s*)"), outlet(R"(\b(?:sockets?|outlets?|usb)\b)");
        if (things.empty() && !outlet.is_in(m[1]))
            return {"converter " + m[2] + " V " + m[3] + " for " +
                    std::string(trim(volts.replaced(m[1], "")))};
        if (things.empty()) things = {std::string(trim(m[1])) + " " + m[3] + " from converter"};
        return with_first("converter " + m[2] + " V " + m[3], std::move(things));
    }
    if (converter_for.is_all_of(line, m))
        return with_first("converter " + m[1] + " V " + m[2], listed(m[3], " from converter"));
    if (on_converter.is_all_of(line, m))
        return with_first("converter " + m[2] + " V " + m[3], listed(m[1], " from converter"));
    if (inverter_for.is_all_of(line, m)) return with_first("inverter " + m[1], listed(m[2], " on inverter"));
    if (own_inverter.is_all_of(line, m)) {
        const std::string mains = mains_volts.replaced(m[1], "");
        auto things = listed(mains, " on inverter");
        if (things.empty()) things = {mains + " on inverter"};
        return with_first("inverter " + m[2] + " " + m[3], std::move(things));
    }
    if (nothing_said.is_all_of(line, m)) return {"inverter " + m[2] + " for " + m[1]};
    return {};
}

std::vector<std::string> spelled_out(const std::string& line) {
    if (line.size() > kLongestShorthand || line.find('"') != std::string::npos) return {};
    const std::string text = in_full(line);
    if (auto lines = supply_with_its_loads(text); !lines.empty()) return lines;
    if (auto lines = battery_with_its_joiner(text); !lines.empty()) return lines;
    const std::string plain = one_thing(text);
    if (trim(plain) == trim(line)) return {};
    return {plain};
}

}  // namespace yr
