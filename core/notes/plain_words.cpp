#include "notes/plain_words.h"

#include <algorithm>
#include <cmath>
#include <regex>

#include "notes/said.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

bool starts_with_words(std::string_view text, std::string_view words) {
    return to_lower(text.substr(0, words.size())) == words &&
           (text.size() == words.size() || text[words.size()] == ' ' || text[words.size()] == ',');
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
            const bool first = plan.batteries.size() == 1 && !plan.batteries.front().capacity_Ah &&
                               !plan.batteries.front().cranking_A;
            return with(theirs,
                        std::string(first ? "battery \"" : "second battery \"") + std::string(theirs) + "\"");
        }
    // "e-stop disconnect between battery and main bus": a master of that name
    static const std::regex master(
        R"(^\s*([^,":]*\b(?:disconnect|isolator|switch|e-stop|master))\s+(between\s.*)$)",
        std::regex::icase | std::regex::optimize);
    if (std::smatch m; std::regex_match(own, m, master) && to_lower(m[1].str()) != "master") {
        const bool plain = !to_lower(m[1].str()).find("main ") || !to_lower(m[1].str()).find("battery ") ||
                           to_lower(m[1].str()) == "disconnect";
        return plain ? "master " + m[2].str() : "master \"" + m[1].str() + "\" " + m[2].str();
    }
    if (starts_with_words(text, "starter battery") || starts_with_words(text, "main battery"))
        return "battery \"" + std::string(text.substr(0, text.find("battery") + 7)) + "\"" +
               std::string(text.substr(text.find("battery") + 7));
    for (const std::string_view theirs : {"negative bus bar", "negative busbar"})
        if (starts_with_words(to_lower(text), theirs))
            return with(theirs, "bus \"negative bus bar\" negative");
    for (const std::string_view theirs : {"fuse panel", "fuse box", "fuse block", "distribution block",
                                          "positive bus bar", "positive busbar", "bus bar", "busbar"})
        if (starts_with_words(text, theirs)) return with(theirs, "bus \"" + std::string(theirs) + "\"");
    return std::string(line);
}

// Longer ones are no speech, and the library's expressions climb the stack with each letter.
constexpr std::size_t kLongestLine = 400;

const auto kAnyCase = std::regex::icase | std::regex::optimize;

double value_in(const std::string& figure) {
    const auto q = parse_quantity(figure);
    return q ? q->value : 0;
}

// "8 A when starting, 4 A running": a draw and its start. "15 A transmit, 1 A receive": a draw that is on for
// a share of the time. "stall 60 A" is what it takes for a moment too.
std::string draws_in_our_words(const std::string& line) {
    static const std::string amount = R"((\d+(?:\.\d+)?\s*[AW]))";
    static const std::regex start_first(
        amount +
            R"(\s+(?:when |at |while |to |on )?(?:start(?:ing|up|-up)?|glow(?:ing)?|pre-?heat(?:ing)?|warm(?:ing)?[ -]up)\b\s*[,;/]?\s*(?:and |then )?)" +
            amount + R"(\s+(?:when |while )?(?:running|runs|run|steady)\b)",
        kAnyCase);
    static const std::regex run_first(
        amount + R"(\s+(?:when |while )?(?:running|steady)\b\s*[,;/]?\s*(?:and |then )?)" + amount +
            R"(\s+(?:when |at |while |to |on )?(?:start(?:ing|up|-up)?|stall(?:ed|ing)?)\b)",
        kAnyCase);
    static const std::regex stall(R"(\bstall(?:s|ed|ing)?(?: at)?\s+)" + amount, kAnyCase);
    static const std::regex sends(
        amount +
            R"(\s+(?:when |on |while )?(?:transmit(?:ting)?|transmission|sending|send|tx)\b\s*[,;/]?\s*(?:and )?)" +
            amount +
            R"(\s+(?:when |on |while |in )?(?:receiv(?:e|ing)|reception|stand-?by|idle|listening|rx)\b)",
        kAnyCase);
    std::string text = std::regex_replace(line, start_first, "$2, start $1");
    text = std::regex_replace(text, run_first, "$1, start $2");
    text = std::regex_replace(text, stall, "start $1");
    std::smatch m;
    if (std::regex_search(text, m, sends)) {
        const double send = value_in(m[1]), receive = value_in(m[2]);
        if (send > receive && receive > 0) {
            const double share = (receive + kSendsShare * (send - receive)) / send;
            text = m.prefix().str() + m[1].str() + ", duty " + shown(std::ceil(share * 100) / 100) +
                   m.suffix().str();
        }
    }
    return text;
}

// A line that says ampere hours is a battery's, whatever it begins with: "engine battery 75 Ah flooded 680
// A", "2x AGM 100 Ah".
std::string battery_in_our_words(const Plan& plan, const std::string& line) {
    static const std::regex hours(R"(\b\d+(?:\.\d+)?\s*Ah\b)", kAnyCase);
    static const std::regex watts(R"(\b\d+(?:\.\d+)?\s*(?:W|kW|Wh)\b)", kAnyCase);
    if (!std::regex_search(line, hours) || std::regex_search(line, watts)) return line;
    if (line.find(':') != std::string::npos || line.find('"') != std::string::npos)
        return line;  // of something that is there
    // how many: beside the figure that it counts
    static const std::regex count(
        R"(^(.*?)\b(\d+)\s?x\s+((?:(?!\d+(?:\.\d+)?\s*Ah\b).)*?)(\d+(?:\.\d+)?\s*Ah\b))", kAnyCase);
    std::string text = std::regex_replace(line, count, "$1$3$2x $4");
    static const std::regex known(
        R"(^\s*(?:(?:second|another)\s+)?(?:battery|set|remove|reading|charger|inverter|solar|price)\b)",
        kAnyCase);
    if (std::regex_search(text, known)) return text;
    static const std::regex head(
        R"(^\s*((?:(?!\d|agm\b|gel\b|lifepo4\b|lithium\b|lfp\b|flooded\b|lead\b)\S+\s+)*)(.*)$)", kAnyCase);
    std::smatch m;
    if (!std::regex_match(text, m, head)) return text;
    const std::string name(trim(m[1].str()));
    const bool first = plan.batteries.size() == 1 && !plan.batteries.front().capacity_Ah &&
                       !plan.batteries.front().cranking_A;
    return std::string(first ? "battery " : "second battery ") + (name.empty() ? "" : "\"" + name + "\" ") +
           m[2].str();
}

// "shore charger 25 A", "dc-dc charger 30 A from A to B"
std::string charger_in_our_words(const Plan& plan, const std::string& line) {
    static const std::regex shore(
        R"(^\s*(?:shore|mains|ac|battery|230\s*V|240\s*V|120\s*V|110\s*V)\s+(?:power\s+)?charger\b(.*)$)",
        kAnyCase);
    static const std::regex between(
        R"(^\s*(?:dc-dc|dcdc|dc to dc|b2b|battery to battery|battery-to-battery)(?:\s+(?:charger|converter))?\b(.*)$)",
        kAnyCase);
    std::smatch m;
    static const std::regex steps_down(
        R"(^\s*(?:(?:dc-dc|dcdc|dc|step-?down|voltage|buck)\s+)*(?:converter|reducer)\s+(?:from\s+)?(?:\d+\s*V?\s+to\s+)?(\d+\s*V\b.*)$)",
        kAnyCase);
    static const std::regex senses(
        R"(^\s*(?:vsr|voltage[ -]sens(?:ing|itive)(?: charging)? relay|sensing relay|split[ -]charge(?:r| relay)|battery (?:combiner|joiner)|combiner)\b(.*)$)",
        kAnyCase);
    // an isolator between two batteries is of diodes; before anything else it is a switch
    static const std::regex isolates(
        R"(^\s*(?:battery |diode )?isolator\b(.*\bbetween\s+(.+?)\s+and\s+(.+?)\s*(?:,.*)?)$)", kAnyCase);
    if (std::regex_match(line, m, steps_down)) return "converter " + m[1].str();
    if (std::regex_match(line, m, senses)) return "joiner sensing relay" + m[1].str();
    if (std::regex_match(line, m, isolates)) {
        const auto one = terminal_called(plan, m[2].str(), false),
                   other = terminal_called(plan, m[3].str(), false);
        if (one && other && find(plan.batteries, one->owner) && find(plan.batteries, other->owner))
            return "joiner isolator" + m[1].str();
    }
    if (std::regex_match(line, m, shore)) return "charger shore" + m[1].str();
    if (std::regex_match(line, m, between)) return "charger dc-dc" + m[1].str();
    return line;
}

// A state's name may hold any words: up to the first comma, where it says nothing of key, engine or switches.
std::string state_in_our_words(const std::string& line) {
    static const std::regex named(
        R"(^\s*state\s+((?:(?!on\b|off\b|key\b|engine\b|running\b|stopped\b|switches\b)[^\s\d",]+\s+)+(?:(?!on\b|off\b|key\b|engine\b)[^\s\d",]+))\s*(,.*)$)",
        kAnyCase);
    std::smatch m;
    if (!std::regex_match(line, m, named)) return line;
    return "state \"" + m[1].str() + "\"" + m[2].str();
}

}  // namespace

std::string in_our_words(const Plan& plan, std::string_view line) {
    // a page's first line is often its name: "race car 12 V"
    static const std::regex title(
        R"(^\s*((?!battery|alternator|charger|converter|bus|stud|solar|shore|reading)[a-z][a-z -]*?)[, ]+(12|24|48)\s*V\b\s*((?:rear battery|no chassis|system|vehicle)?)\s*$)",
        kAnyCase);
    std::string text(line);
    if (text.size() > kLongestLine) return text;
    const bool nothing_yet = plan.loads.empty() && plan.sources.empty() &&
                             std::none_of(plan.batteries.begin(), plan.batteries.end(),
                                          [](const Battery& b) { return b.capacity_Ah || b.cranking_A; });
    if (std::smatch m;
        nothing_yet && std::regex_match(text, m, title) && to_lower(m[1].str()).find("vehicle") != 0)
        return "vehicle \"" + m[1].str() + "\" " + m[2].str() + " V";
    if (trim(text).empty() || trim(text).front() == '#') return text;
    text = state_in_our_words(text);
    text = charger_in_our_words(plan, draws_in_our_words(text));
    text = things_in_our_words(plan, text);
    return battery_in_our_words(plan, text);
}

}  // namespace yr
