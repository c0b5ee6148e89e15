#include "notes/plain_words.h"

#include <algorithm>
#include <cmath>

#include "notes/loose_words.h"
#include "notes/said.h"
#include "plan/rail_volts.h"
#include "typing/battery_words.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

bool starts_with_words(std::string_view text, std::string_view words) {
    return to_lower(text.substr(0, words.size())) == words &&
           (text.size() == words.size() || text[words.size()] == ' ' || text[words.size()] == ',');
}

// "Starter battery: 95 Ah AGM", "Alternator: 220 A", "battery 2: house, 300 Ah": the colon says no more than
// a space, unless what stands before it is in the plan already with all that it has.
std::string without_colon(const Plan& plan, const std::string& line) {
    static const Pattern numbered(R"(^\s*battery\s+\d\s*:\s*([a-z]+)\s*,?\s*(.*)$)");
    static const Pattern kind(
        R"(^\s*((?!stand\b|end\b|way\b|waypoint\b|day\b|state\b|set\b|price\b)(?:[a-z]+\s+){0,2}(?:battery|bank|alternator|inverter|solar|solar panels?|charger|converter|winch|starter|stator|pack))\s*:\s*(.*\d.*)$)");
    static const Pattern building(R"(^\s*(?:generator|shore|mains|hook-?up)[a-z ]*:\s*charger\b(.*)$)");
    Found m;
    if (numbered.is_all_of(line, m)) return m[1] + " battery " + m[2];
    if (building.is_all_of(line, m)) return "charger shore" + m[1];
    if (!kind.is_all_of(line, m)) return line;
    const std::string named = to_lower(m[1]);
    for (const Battery& b : plan.batteries)
        if (to_lower(b.name) == named && (b.capacity_Ah || b.cranking_A)) return line;
    for (const Source& s : plan.sources)
        if (to_lower(s.name) == named) return line;
    for (const Inverter& i : plan.inverters)
        if (to_lower(i.name) == named) return line;
    for (const Load& l : plan.loads)
        if (to_lower(l.name) == named) return line;
    return m[1] + " " + m[2];
}

std::string things_in_our_words(const Plan& plan, std::string_view line) {
    const std::string own(trim(line));
    const std::string_view text = own;
    const auto with = [&](std::string_view theirs, const std::string& ours) {
        return ours + std::string(text.substr(theirs.size()));
    };
    for (const std::string_view theirs :
         {"aux battery", "auxiliary battery", "house battery", "leisure battery"})
        if (starts_with_words(text, theirs)) {
            // the first that is said of is the one that every plan begins with
            return with(theirs, std::string(battery_is_free(plan) ? "battery \"" : "second battery \"") +
                                    std::string(theirs) + "\"");
        }
    // "e-stop disconnect between battery and main bus": a master of that name
    static const Pattern master(
        R"(^\s*([^,":]*\b(?:disconnect|isolator|switch|e-stop|master))\s+(between\s.*)$)");
    if (Found m; master.is_all_of(own, m) && to_lower(m[1]) != "master") {
        const bool plain = !to_lower(m[1]).find("main ") || !to_lower(m[1]).find("battery ") ||
                           to_lower(m[1]) == "disconnect";
        return plain ? "master " + m[2] : "master \"" + m[1] + "\" " + m[2];
    }
    if (starts_with_words(text, "starter battery") || starts_with_words(text, "main battery"))
        return "battery \"" + std::string(text.substr(0, text.find("battery") + 7)) + "\"" +
               std::string(text.substr(text.find("battery") + 7));
    for (const std::string_view theirs : {"negative bus bar", "negative busbar"})
        if (starts_with_words(to_lower(text), theirs))
            return with(theirs, "bus \"negative bus bar\" negative");
    for (const std::string_view theirs : {"fuse panel", "fuse box", "fuse block", "distribution block",
                                          "positive bus bar", "positive busbar", "bus bar", "busbar"})
        if (starts_with_words(text, theirs)) {
            // "fuse box rear 8 way": where it is, too
            const std::string_view rest = trim(text.substr(theirs.size()));
            for (const Place& p : plan.places)
                if (starts_with_words(rest, to_lower(p.name)))
                    return "bus \"" + std::string(theirs) + " " + p.name + "\" " +
                           std::string(rest.substr(p.name.size())) + ", " + p.name;
            return with(theirs, "bus \"" + std::string(theirs) + "\"");
        }
    return std::string(line);
}

// Longer ones are no speech.
constexpr std::size_t kLongestLine = 2000;

double value_in(const std::string& figure) {
    const auto q = parse_quantity(figure);
    return q ? q->value : 0;
}

// "8 A when starting, 4 A running": a draw and its start. "15 A transmit, 1 A receive": a draw that is on for
// a share of the time. "stall 60 A" is what it takes for a moment too.
std::string draws_in_our_words(const std::string& line) {
    static const std::string amount = R"((\d+(?:\.\d+)?\s*[AW]))";
    static const Pattern start_first(
        amount +
        R"(\s+(?:when |at |while |to |on )?(?:start(?:ing|up|-up)?|glow(?:ing)?|pre-?heat(?:ing)?|warm(?:ing)?[ -]up)\b\s*[,;/]?\s*(?:and |then )?)" +
        amount + R"(\s+(?:when |while )?(?:running|runs|run|steady)\b)");
    static const Pattern start_for(
        amount +
        R"(\s+(?:start(?:ing|-up)?|glow(?:ing)?|pre-?heat(?:ing)?)\s+for\s+(\d+(?:\.\d+)?\s*(?:s|min))\b\s*[,;]?\s*(?:and |then )*)" +
        amount + R"((?:\s+(?:when |while )?(?:running|runs|steady)\b)?)");
    static const Pattern run_first(
        amount + R"(\s+(?:when |while )?(?:running|run|steady)\b\s*[,;/]?\s*(?:and |then )?)" + amount +
        R"(\s+(?:when |at |while |to |on )?(?:start(?:ing|up|-up)?|stall(?:ed|ing)?)\b)");
    // "250 A peak, 80 A normal", "15 A for 3 min then 2 A"
    static const Pattern peak(
        amount + R"(\s*(?:peak|max|surge)\b\s*[,;/]?\s*(?:and )?)" + amount +
        R"(\s+(?:normal|continuous|cont\.?|running|runs?|nominal|cruis(?:e|ing)|typical|idle|idling)\b)");
    static const Pattern then(amount + R"(\s+for\s+(\d+(?:\.\d+)?\s*(?:s|min))\b\s*,?\s*then\s+)" + amount);
    static const Pattern at_start(
        R"((\d+(?:\.\d+)?\s*[AW])\s*[,;/]?\s+)" + amount +
        R"(\s+(?:at|on|when|for)\s+(?:start(?:ing|up|-up)?|switch-?on|inrush|peak)\b)");
    static const Pattern stall(R"(\bstall(?:s|ed|ing)?(?: at)?\s+)" + amount);
    static const Pattern sends(
        amount +
        R"(\s+(?:when |on |while )?(?:transmit(?:ting)?|transmission|sending|send|tx)\b\s*[,;/]?\s*(?:and )?)" +
        amount +
        R"(\s+(?:when |on |while |in )?(?:receiv(?:e|ing)|reception|stand-?by|idle|listening|rx)\b)");
    static const Pattern receives(
        amount +
        R"(\s+(?:when |on |while |in )?(?:receiv(?:e|ing)|reception|stand-?by|listening|rx)\b\s*[,;/]?\s*(?:and )?)" +
        amount + R"(\s+(?:when |on |while )?(?:transmit(?:ting)?|transmission|sending|tx)\b)");
    // "10 A max, 4 A avg": a share of the time
    static const Pattern averages(
        R"((\d+(?:\.\d+)?)\s*(A|k?W)(?:(?:\s+(?:max(?:imum)?|peak))?\s*[,;/]|\s+(?:max(?:imum)?|peak)\b)\s*(\d+(?:\.\d+)?)\s*(A|k?W)\s+(?:avg|average|mean)\b)");
    // "800 W avg, 1500 W peak"
    static const Pattern mean_first(
        R"((\d+(?:\.\d+)?)\s*([AW])\s+(?:avg|average|mean)\s*[,;/]\s*(\d+(?:\.\d+)?)\s*\2\b(?:\s+(?:peak|max(?:imum)?)\b)?\s*(?=$|,))");
    if (Found a; mean_first.is_in(line, a)) {
        const double mean = value_in(a[1] + " A"), most = value_in(a[3] + " A");
        if (mean > 0 && mean < most)
            return draws_in_our_words(a.before() + a[3] + " " + a[2] + ", duty " +
                                      shown(std::ceil(100 * mean / most)) + " %" + a.behind());
    }
    if (Found a; averages.is_in(line, a)) {
        const double most = value_in(a[1] + a[2]), mean = value_in(a[3] + a[4]);
        if (mean > 0 && mean < most)
            return draws_in_our_words(a.before() + a[1] + " " + a[2] + ", duty " +
                                      shown(std::ceil(100 * mean / most)) + " %" + a.behind());
    }
    std::string text = start_for.replaced(receives.replaced(line, "$2 tx, $1 rx"), "$3, start $1 for $2");
    text = start_first.replaced(text, "$2, start $1");
    text = run_first.replaced(text, "$1, start $2");
    text = stall.replaced(text, "start $1");
    text = at_start.replaced(text, "$1, start $2");
    text = then.replaced(peak.replaced(text, "$2, start $1"), "$3, start $1 for $2");
    Found m;
    if (sends.is_in(text, m)) {
        const double send = value_in(m[1]), receive = value_in(m[2]);
        if (send > receive && receive > 0) {
            const double share = (receive + kSendsShare * (send - receive)) / send;
            text = m.before() + m[1] + ", duty " + shown(std::ceil(share * 100) / 100) + m.behind();
        }
    }
    return text;
}

// A line that says ampere hours is a battery's, whatever it begins with: "engine battery 75 Ah flooded 680
// A", "2x AGM 100 Ah".
std::string battery_in_our_words(const Plan& plan, std::string line) {
    static const Pattern hours(R"(\b\d+(?:\.\d+)?\s*(?:Ah|CCA)\b)");
    static const Pattern watts(R"(\b\d+(?:\.\d+)?\s*(?:W|kW|Wh)\b)");
    if (!hours.is_in(line) || watts.is_in(line)) return line;
    // "2x 100 Ah, BMS 150 A each": side by side they carry it together
    static const Pattern management(
        R"(\b(?:each\s+BMS\s+(\d+(?:\.\d+)?)\s*A|BMS\s+(\d+(?:\.\d+)?)\s*A\s+each)\b)"),
        so_many(R"(\b([2-8])\s*x\s*\d)"), in_a_row(R"(\bseries\b|\b[2-8]s\b)");
    if (Found m, n; management.is_in(line, m) && so_many.is_in(line, n) && !in_a_row.is_in(line))
        line = m.before() + "BMS " +
               shown(value_in(m[m.has(1) && !m[1].empty() ? 1 : 2] + " A") * value_in(n[1] + " A")) + " A" +
               m.behind();
    // "100 Ah each", "@ 12.8 V"
    static const Pattern each(R"(\s+each\b)");
    static const Pattern at_volts(R"(\s*@\s*(?=\d+(?:\.\d+)?\s*V\b))");
    line = at_volts.replaced(each.replaced(line, ""), " ");
    // "48 V 210 Ah flooded (8x 6 V)": its volts and hours are said, and what it is made of
    static const Pattern made_of(
        R"(^(.*\b\d+(?:\.\d+)?\s*V\b.*\d\s*Ah\b.*?|.*\d\s*Ah\b.*?\b\d+(?:\.\d+)?\s*V\b.*?)\s*,?\s*\(?\s*(?:of\s+|made of\s+)?\d{1,2}\s*x\s*(?:2|6|8|12)\s*V(?:\s+(?:in\s+)?series)?\s*\)?\s*$)");
    if (Found m; made_of.is_all_of(line, m)) line = m[1];
    // "(2s2p)": how they hang together
    static const Pattern strings(R"(\s*,?\s*\(?\b([2-8])s\s*([1-8])p\b\)?)"),
        beside(R"(\s*,?\s*\(?\b[1-8]p\b\)?)"), behind(R"(\s*,?\s*\(?\b[2-8]s\b\)?)"),
        of_several(R"(\b[2-8]\s*x?\s+(?:6|8|12)\s*V\b|\b[2-8]\s*x\b)");
    if (of_several.is_in(line))
        line = beside.replaced(behind.replaced(strings.replaced(line, ", series/parallel"), ", series"),
                               ", parallel");
    // "battery #1 70 Ah, battery #2 70 Ah parallel", "12 V service battery 40 Ah", "house: 2 6 V 220 Ah in
    // series"
    static const Pattern one_and_two(
        R"(^\s*battery\s*#?\s*1\s+(\d+(?:\.\d+)?\s*Ah)\b(.*?),\s*battery\s*#?\s*2\s+\1\b(.*)$)");
    static const Pattern volts_first(R"(^\s*(12|24|36|48)\s*V\s+((?:[a-z]+\s+)?battery)\b)");
    static const Pattern whose(
        R"(^\s*(house|leisure|aux|starter|start|chassis|engine|coach|service)\s*:\s*(?!\s*(?:[a-z]+\s+)?batt))");
    static const Pattern bare_count(R"(\b([2-8])\s+(?=(?:2|6|8|12)\s*V\b))");
    static const Pattern case_words(
        R"(\b(?:GC2?|golf(?: cart)?|deep cycle|marine|H[5-8]|94R|DIN\d*)\b\s*(?!batter))");
    if (Found m; one_and_two.is_all_of(line, m)) line = "battery 2x " + m[1] + m[2] + " " + m[3];
    line = bare_count.replaced(whose.replaced(volts_first.replaced(line, "$2 $1 V"), "$1 battery "), "$1x ");
    line = case_words.replaced(line, "");
    static const Pattern several(R"(^\s*batteries\s*:?\s*)");
    static const Pattern counted(
        R"(^\s*(two|three|four|six|\d+)\s*x?\s+((?:start(?:er|ing)?|engine|chassis|cranking|main|leisure|house|aux|service)\s+)?batter(?:y|ies)\b)");
    static const Pattern bank(
        R"(^\s*((?:(lithium|lifepo4|lfp|agm|gel|flooded)\s+)?(?:[a-z]+\s+)?(?:battery\s+)?(?:bank|batteries))\b)");
    static const Pattern of_chemistry(R"(^\s*((lithium|lifepo4|lfp|agm|gel)\s+battery)\b)");
    static const Pattern number_word(R"(\b(two|three|four|six)\s+(?=\d+(?:\.\d+)?\s*(?:V|Ah)\b))");
    line = counted.replaced(several.replaced(line, "battery "), "$2battery $1x");
    line = Pattern("\\b(two|three|four|six)x").replaced(line, "$1 ");
    Found b;
    if (number_word.is_in(line, b)) {
        const std::string word = to_lower(b[1]);
        line = b.before() +
               (word == "two"     ? "2x "
                : word == "three" ? "3x "
                : word == "four"  ? "4x "
                                  : "6x ") +
               b.behind();
    }
    if (line.find(':') != std::string::npos || line.find('"') != std::string::npos)
        return line;  // of something that is there
    const bool no_other = battery_is_free(plan);
    if (bank.is_in(line, b) || of_chemistry.is_in(line, b))
        line = std::string(no_other ? "battery \"" : "second battery \"") + b[1] + "\" " + b[2] + b.behind();
    // how many: beside the figure that it counts
    static const Pattern count(
        R"(^(.*?)\b(\d+)\s?x\s*((?:(?!\d+(?:\.\d+)?\s*Ah\b).)*?)(\d+(?:\.\d+)?\s*Ah\b))");
    std::string text = count.replaced(line, "$1$3$2x $4");
    static const Pattern known(
        R"(^\s*(?:(?:second|another)\s+)?(?:battery|set|remove|reading|charger|inverter|solar|price)\b)");
    if (known.is_in(text)) return text;
    static const Pattern head(
        R"(^\s*((?:(?!\d|agm\b|gel\b|lifepo4\b|lithium\b|lfp\b|flooded\b|lead\b)\S+\s+)*)(.*)$)");
    Found m;
    if (!head.is_all_of(text, m)) return text;
    std::string name(trim(m[1]));
    while (!name.empty() && (name.back() == ',' || name.back() == ' ')) name.pop_back();
    return std::string(no_other ? "battery " : "second battery ") +
           (name.empty() ? "" : "\"" + name + "\" ") + m[2];
}

// "shore charger 25 A", "dc-dc charger 30 A from A to B"
std::string charger_in_our_words(const Plan& plan, const std::string& line) {
    // "battery charger for cordless tools 120 W on inverter" draws, and gives this vehicle nothing
    static const Pattern draws_itself(
        R"(\bcharger\b.*\d\s*W\b.*\bon (?:the )?(?:[a-z]+ )?(?:inverter|mains)\b)");
    if (draws_itself.is_in(line)) {
        static const Pattern head(R"(^\s*([^\d"]*charger[^\d"]*?)\s*(\d.*)$)");
        if (Found m; head.is_all_of(line, m)) return "\"" + m[1] + "\" " + m[2];
    }
    // "mppt 30 A, panels 2x 175 W"
    static const Pattern panels(
        R"(^\s*(?:(?:mppt|pwm)\s+(\d+(?:\.\d+)?\s*A)\s*,?\s*)?(?:solar\s+)?panels?\s+((?:\d+\s*x\s*)?\d+(?:\.\d+)?\s*W)\b(.*)$)");
    if (Found m; panels.is_all_of(line, m))
        return "solar " + m[2] + (m.has(1) && !m[1].empty() ? ", controller " + m[1] : "") + m[3];
    // "120 W folding solar panel via the dc-dc": what stands before the word is a name
    static const Pattern panel(
        R"(^\s*(?:(\d+(?:\.\d+)?\s*W)\s+)?((?:[a-z-]+\s+){0,2})solar\s+(?:panels?|blanket|array)\b(?:\s*,?\s*(?:via|through|into)\s+(?:the\s+)?(?:dc-?dc|dcdc|b2b)(?:\s+charger)?)?(.*)$)");
    if (Found m; panel.is_all_of(line, m)) return "solar " + m[1] + " " + m[3];
    // "roof solar 300 W"
    static const Pattern somewhere_solar(R"(^\s*((?:[a-z-]+\s+){1,2})solar\s+(\d+(?:\.\d+)?\s*W\b.*)$)");
    if (Found m; somewhere_solar.is_all_of(line, m)) return "solar " + m[2];
    // "charger onboard 48 V 15 A": of mains
    static const Pattern on_board(
        R"(^\s*(?:(?:on-?board|built-in)\s+charger|charger\s+(?:on-?board|on board|built-in))\b\s*(?:\d+\s*V\s*,?\s*)?(.*)$)");
    if (Found m; on_board.is_all_of(line, m)) return "charger shore " + m[1];
    // "charger from 24 V: 24/12 V dc-dc charger 30 A"
    // "isolator relay between chassis and house": batteries, without the word
    static const Pattern which(
        R"(\b(between|and)\s+(?:the\s+)?(chassis|house|starter|start|crank|engine|leisure|aux|coach|service|second)(?=\s+and\b|\s*(?:,|$)))");
    static const Pattern joins(
        R"(^\s*(?:battery\s+|split[ -]charge\s+)?(?:isolator|relay|isolator relay|relay combiner|solenoid|contactor|vsr|acr|combiner|separator)\b)");
    static const Pattern charges(
        R"(^\s*(?:charger\s+)?(?:(?:12|24|36|48)\s*V?\s*(?:/|to|-|->)\s*(?:12|24|36|48)\s*V?\s+)?(?:dc-?dc|dcdc|dc/dc|b2b)\b)");
    static const Pattern which_way_said(
        R"(\b(from|to|into)\s+(?:the\s+)?(chassis|house|starter|start|crank|engine|leisure|aux|coach|service|second)(?=\s+(?:to|and|into)\b|\s*(?:,|$)))");
    if ((charges.is_in(line) || joins.is_in(line)) && which_way_said.is_in(line))
        return charger_in_our_words(plan, which_way_said.replaced(line, "$1 $2 battery"));
    if ((joins.is_in(line) || charges.is_in(line)) && which.is_in(line))
        return charger_in_our_words(plan, which.replaced(line, "$1 $2 battery"));
    // "charger from truck: 24-12 dcdc charger 30 A": which way it goes is said by its volts
    static const Pattern which_way(
        R"(\b(12|24|36|48)\s*V?\s*(?:/|to|-|->|\s)\s*(12|24|36|48)\s*V?\s+(?:dc-?dc\s+|dcdc\s+|b2b\s+)?charger\s+(\d+(?:\.\d+)?\s*A)\s*$)");
    if (Found m; which_way.is_in(line, m) && m[1] != m[2]) {
        const auto of_volts = [&](const std::string& volts) -> const Battery* {
            constexpr double kAlike_V = 4;
            for (const Battery& b : plan.batteries)
                if (std::abs(battery_V(plan, b) - value_in(volts + " V")) < kAlike_V) return &b;
            return nullptr;
        };
        const Battery *from = of_volts(m[1]), *to = of_volts(m[2]);
        if (from && to)
            return "charger dc-dc " + m[3] + " from \"" + from->name + "\" to \"" + to->name + "\"";
    }
    static const Pattern somewhere(
        R"(^\s*(?!second\b|another\b)((?:(?!\b\d+(?:\.\d+)?\s*(?:Ah|CCA|k?W|A)\b)[^"])*?)\b(?:(?:dc-?dc|dc/dc|b2b|battery[ -]to[ -]battery)\s+charger|(?<=[a-z] )(?:dc-?dc|b2b))\b\s*(?:of\s+)?(\d+(?:\.\d+)?\s*A\b.*)$)");
    // what stands before it says no more than that; any other word is told
    static const Pattern says_no_more(
        R"(\b(?:an?|the|by|via|through|with|and|to|for|of|from|in|on|my|our|new|smart|main|isolated|non|charg(?:e|ed|es|er|ing)|fed|joined|linked|kept|topped|up|split|multi|stage|second|house|leisure|aux|auxiliary|domestic|living|coach|camper|starter|start|engine|vehicle|chassis|truck|van|alternator|battery|batteries|batt|bank|lithium|agm|gel|v|\d+\s*(?:V|m)\b|\d+)|[^a-z0-9]+)");
    if (Found m; somewhere.is_all_of(line, m)) {
        std::string other = says_no_more.replaced(m[1], " ");
        static const Pattern gap(R"(\s+)");
        other = trim(gap.replaced(other, " "));
        return "charger dc-dc " + m[2] + (other.empty() ? "" : ", " + other);
    }
    static const Pattern between_them(R"(\s+between\s+(?:them|the two|both|the batteries|both batteries)\b)");
    static const Pattern shore(
        R"(^\s*(?:(?:generator|shore)\s*/\s*(?:shore|generator|mains)|converter\s*/\s*(?=charger)|shore|shore-?line|mains|ac|battery|generator|hook-?up|230\s*V|240\s*V|120\s*V|110\s*V)\s*(?:power\s+)?charger\b(.*)$)");
    static const Pattern between(
        R"(^\s*(?:dc-dc|dcdc|dc/dc|dc dc|dc to dc|b2b|battery to battery|battery-to-battery)(?:\s+(?:charger|converter))?\b(.*)$)");
    Found m;
    // "battery isolator solenoid 200 A between A and B, closes when the engine runs": as a contactor does
    static const Pattern solenoid(
        R"(^\s*(?:(?:battery|isolator|split|charge|linking|link)\s+)*(?:solenoid|contactor|(?<=isolator )relay)\b([^,]*\bbetween\s+(.+?)\s+and\s+([^,]+?))\s*(?:,\s*clos\w*\b.*)?$)");
    if (solenoid.is_all_of(line, m)) {
        const auto one = terminal_called(plan, m[2], false), other = terminal_called(plan, m[3], false);
        if (one && other && find(plan.batteries, one->owner) && find(plan.batteries, other->owner))
            return "joiner contactor" + m[1];
    }
    // "tractor supplies 12 V 25 A on 3-pin plug", "trailer plug charge line 10 A from tow vehicle"
    static const Pattern supplied(
        R"(^\s*((?:tractor|tow vehicle|towing vehicle|tug|car|truck) suppl(?:y|ies))\b[^\d]*(?:\d+\s*V\s*,?\s*)?(\d+(?:\.\d+)?\s*A)\b.*$)");
    if (supplied.is_all_of(line, m)) return "charger \"" + m[1] + "\" " + m[2];
    static const Pattern towed(
        R"(^\s*(.*\bcharge (?:line|lead|wire|cable))\s+(\d+(?:\.\d+)?\s*A)\s+from (?:the )?(?:tow|towing|car|truck|tug|pickup|van)\b.*$)");
    static const Pattern of_tow_vehicle(
        R"(^\s*(?:tow(?:ing)? (?:vehicle|car|truck)|tug)\b.*\bcharge (?:line|lead|wire|cable)\b[^\d]*(\d+(?:\.\d+)?\s*A)\b.*$)");
    if (of_tow_vehicle.is_all_of(line, m)) return "charger \"charge line\" " + m[1];
    if (towed.is_all_of(line, m)) return "charger \"" + m[1] + "\" " + m[2];
    static const Pattern combined(R"(^\s*inverter\s*[/-]\s*charger\b(.*)$)");
    if (combined.is_all_of(line, m)) return "inverter" + m[1];
    // "dc-dc 48/12 360 W": its watts at the volts that it gives
    static const Pattern of_watts(
        R"(^\s*(?:dc-?dc|dc to dc|converter|reducer|dropper)\s+(?:24|36|48)\s*V?\s*(?:->|/|to|-|>)\s*(12|24)\s*V?\s*,?\s*(\d+(?:\.\d+)?)\s*(k?)W\s*$)");
    if (of_watts.is_all_of(line, m)) {
        const double watts = value_in(m[2] + " W") * (m[3].empty() ? 1 : 1000);
        return "converter " + m[1] + " V " + shown(watts / value_in(m[1] + " V")) + " A";
    }
    // "From 24/12 converter 15 A:" above what hangs on it
    static const Pattern heads(
        R"(^\s*from\s+(?:an?\s+|the\s+)?(?:24|36|48)\s*V?\s*(?:/|to|-)\s*(12|24)\s*V?\s+(?:dc-dc\s+)?(?:converter|reducer|dropper)\s+(\d+(?:\.\d+)?\s*A)\s*:?\s*$)");
    if (heads.is_all_of(line, m)) return "converter " + m[1] + " V " + m[2];
    // "24/12 converter 30 A", "radio 24-12 converter 10 A"
    static const Pattern between_rails(
        R"(^\s*(?!converter)([a-z][a-z ]*?)?\s*(?:24|36|48)\s*V?\s*(?:/|to|-)\s*(12|24)\s*V?\s+(?:dc-dc\s+)?(?:converter|reducer|dropper)\b(.*)$)");
    if (between_rails.is_all_of(line, m)) {
        static const Pattern leads(R"(\s+(?:via|on|from|off|through)$)");  // "CB via 24/12 converter 10 A"
        const std::string of = leads.replaced(m[1], "");
        return "converter " + (of.empty() ? "" : "\"" + of + " converter\" ") + m[2] + " V" + m[3];
    }
    static const Pattern steps_down(
        R"(^\s*(?:(?:dc-dc|dcdc|dc|step-?down|voltage|buck)\s+)*(?:converter|reducer|dropper)\s+(?:from\s+)?(?:\d+\s*V?\s*(?:to|-|/|->)\s*)?(\d+\s*V\b.*)$)");
    static const Pattern senses(
        R"(^\s*(?:vsr|acr|automatic charging relay|(?:battery )?(?:isolator|isolating|separation|charging|linking|coupling) relay|battery separator|(?:smart )?separator|voltage[ -]sens(?:ing|itive)(?: charging)? relay|sensing relay|split[ -]charge(?:r| relay)|battery (?:combiner|joiner)|(?:relay )?combiner(?: relay)?)\b(.*)$)");
    // an isolator between two batteries is of diodes; before anything else it is a switch
    static const Pattern isolates(
        R"(^\s*(?:battery |diode )?isolator\b(.*\bbetween\s+(.+?)\s+and\s+(.+?)\s*(?:,.*)?)$)");
    if (steps_down.is_all_of(line, m)) return "converter " + m[1];
    if (senses.is_all_of(line, m)) return "joiner sensing relay" + m[1];
    if (isolates.is_all_of(line, m)) {
        const auto one = terminal_called(plan, m[2], false), other = terminal_called(plan, m[3], false);
        if (one && other && find(plan.batteries, one->owner) && find(plan.batteries, other->owner))
            return "joiner isolator" + m[1];
    }
    // "shore 16 A charger 80 A": what the lead carries is the building's affair
    static const Pattern lead(R"(^\s*shore(?:\s+power)?\s+\d+\s*A\s*,?\s*charger\b(.*)$)");
    if (lead.is_all_of(line, m)) return "charger shore" + m[1];
    // "engine alternator 90 A", "rear inverter 1500 W", "dynamo 18 A": no loads
    static const Pattern own_name(
        R"(^\s*((?!second\b|another\b)(?:(?!on\b|via\b|from\b|off\b|through\b|by\b)[a-z-]+\s+){1,3})(alternator|dynamo|inverter)\s*(?=[\d,(])(.*)$)");
    static const Pattern dynamo(R"(^\s*dynamo\b(.*)$)");
    if (own_name.is_all_of(line, m))
        return (to_lower(m[2]) == "inverter" ? "inverter \"" : "alternator \"") + m[1] + m[2] + "\" " + m[3];
    if (dynamo.is_all_of(line, m)) return "alternator \"dynamo\"" + m[1];
    if (shore.is_all_of(line, m)) return "charger shore" + m[1];
    if (between.is_all_of(line, m)) return "charger dc-dc" + between_them.replaced(m[1], "");
    return line;
}

// A state's name may hold any words: up to the first comma, where it says nothing of key, engine or switches.
std::string state_in_our_words(const std::string& line) {
    static const Pattern on_something(R"(^\s*state\s+(on\s+[^\s\d",]+)\s*(,.*)$)");
    if (Found m; on_something.is_all_of(line, m)) return "state \"" + m[1] + "\"" + m[2];
    static const Pattern named(
        R"(^\s*state\s+((?:(?!on\b|off\b|key\b|engine\b|running\b|stopped\b|switches\b)[^\s\d",]+\s+)+(?:(?!on\b|off\b|key\b|engine\b)[^\s\d",]+))\s*(,.*)$)");
    Found m;
    if (!named.is_all_of(line, m)) return line;
    return "state \"" + m[1] + "\"" + m[2];
}

}  // namespace

std::string in_our_words(const Plan& plan, std::string_view line) {
    // a page's first line is often its name: "race car 12 V"
    static const Pattern title(
        R"(^\s*((?!battery|alternator|charger|converter|bus|stud|solar|shore|reading)[a-z][a-z -]*?)[,. ]+(12|24|48)\s*V\b\s*((?:rear battery|no chassis|system|vehicle)?)\s*$)");
    std::string text(line);
    if (text.size() > kLongestLine) return text;
    const bool nothing_yet = plan.loads.empty() && plan.sources.empty() &&
                             std::none_of(plan.batteries.begin(), plan.batteries.end(),
                                          [](const Battery& b) { return b.capacity_Ah || b.cranking_A; });
    if (Found m; nothing_yet && title.is_all_of(text, m) && to_lower(m[1]).find("vehicle") != 0)
        return "vehicle \"" + m[1] + "\" " + m[2] + " V";
    if (trim(text).empty() || trim(text).front() == '#') return text;
    text = state_in_our_words(loosely_said(plan, without_colon(plan, text)));
    text = charger_in_our_words(plan, draws_in_our_words(text));
    text = things_in_our_words(plan, text);
    return battery_in_our_words(plan, text);
}

}  // namespace yr
