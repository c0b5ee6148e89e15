#include "notes/asides.h"

#include <algorithm>
#include <set>

#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr std::size_t kLongestPhrase = 5;  // words behind "under the"

// Words that say how things are joined, fed, switched, protected, counted or when they run.
const std::set<std::string, std::less<>>& of_the_circuit() {
    static const std::set<std::string, std::less<>> words = {
        "from",      "to",        "via",        "through",   "thru",       "between",    "off",
        "on",        "onto",      "with",       "without",   "not",        "no",         "never",
        "unless",    "except",    "until",      "if",        "only",       "when",       "while",
        "during",    "switch",    "switched",   "switches",  "relay",      "relays",     "converter",
        "inverter",  "battery",   "bank",       "batteries", "charger",    "charges",    "charged",
        "charging",  "charge",    "fuse",       "fused",     "fuses",      "breaker",    "cable",
        "cables",    "wire",      "wires",      "series",    "parallel",   "each",       "both",
        "all",       "and",       "or",         "own",       "same",       "shared",     "key",
        "ignition",  "engine",    "mains",      "ac",        "dc",         "volt",       "volts",
        "amp",       "amps",      "watt",       "watts",     "hour",       "hours",      "day",
        "days",      "always",    "timer",      "timed",     "delay",      "delayed",    "second",
        "seconds",   "minutes",   "min",        "isolator",  "isolated",   "cuts",       "cut",
        "kill",      "master",    "disconnect", "contactor", "solenoid",   "alternator", "solar",
        "panel",     "starter",   "bus",        "box",       "channel",    "ground",     "grounded",
        "earth",     "return",    "negative",   "positive",  "chassis",    "body",       "step-up",
        "step-down", "boost",     "reducer",    "dropper",   "combiner",   "separator",  "diode",
        "split",     "joined",    "linked",     "separate",  "feeds",      "fed",        "powers",
        "powered",   "supplied",  "supplies",   "runs",      "runtime",    "start",      "starting",
        "peak",      "surge",     "inrush",     "stall",     "half",       "third",      "quarter",
        "time",      "times",     "per",        "a",         "twice",      "once",       "twin",
        "two",       "three",     "four",       "five",      "six",        "pair",       "several",
        "some",      "more",      "less",       "than",      "phase",      "generator",  "shore",
        "hookup",    "hook-up",   "driving",    "parked",    "night",      "overnight",  "standby",
        "stand-by",  "automatic", "another",    "spare",     "backup",     "vsr",        "b2b",
        "dc-dc",     "dcdc",      "mppt",       "pwm",       "regulator",  "controller", "sensing",
        "bms",       "shunt",     "thermostat", "pulse",     "pulses",     "stages",     "gang",
        "strings",   "string",    "duty",       "average",   "load",       "loads",      "draws",
        "gives",     "reserve",   "combined",   "alt",       "alternators"};
    return words;
}

// How many letters are wrong, missing or too many (Levenshtein's distance).
std::size_t letters_apart(const std::string& a, const std::string& b) {
    std::vector<std::size_t> row(b.size() + 1);
    for (std::size_t k = 0; k < row.size(); ++k) row[k] = k;
    for (std::size_t i = 1; i <= a.size(); ++i) {
        std::size_t corner = row[0];
        row[0] = i;
        for (std::size_t k = 1; k <= b.size(); ++k) {
            const std::size_t changed = corner + (a[i - 1] != b[k - 1]);
            corner = row[k];
            row[k] = std::min({changed, row[k] + 1, row[k - 1] + 1});
        }
    }
    return row.back();
}

// "inverterr", "swich": a word that would have been of the circuit is never set aside.
bool slip_of(const std::string& lower, const std::string& known) {
    constexpr std::size_t kShort = 4, kLong = 8;  // letters: below, one wrong letter makes another word
    if (lower.size() < kShort || known.size() < kShort) return false;
    const std::size_t most = std::min(lower.size(), known.size()) < kLong ? 1 : 2;
    if (std::max(lower.size(), known.size()) - std::min(lower.size(), known.size()) > most) return false;
    return letters_apart(lower, known) <= most;
}

bool slip_of_the_circuit(const Plan& plan, const std::string& lower) {
    const auto of = [&](const auto& things) {
        return std::any_of(things.begin(), things.end(),
                           [&](const auto& t) { return slip_of(lower, to_lower(t.name)); });
    };
    return std::any_of(of_the_circuit().begin(), of_the_circuit().end(),
                       [&](const std::string& known) { return slip_of(lower, known); }) ||
           of(plan.batteries) || of(plan.sources) || of(plan.inverters) || of(plan.points) || of(plan.loads);
}

bool names_a_thing(const Plan& plan, const std::string& lower) {
    const auto is = [&](const auto& things) {
        return std::any_of(things.begin(), things.end(), [&](const auto& t) {
            const std::string name = to_lower(t.name);
            return name == lower || (" " + name + " ").find(" " + lower + " ") != std::string::npos;
        });
    };
    return is(plan.batteries) || is(plan.sources) || is(plan.inverters) || is(plan.points) ||
           is(plan.loads) || is(plan.places);
}

bool beside(const Plan& plan, const std::string& word) {
    const std::string lower = to_lower(word);
    return !lower.empty() && lower.find_first_of("0123456789\"()/<>@=%+*&#:") == std::string::npos &&
           !of_the_circuit().contains(lower) && !names_a_thing(plan, lower) &&
           !slip_of_the_circuit(plan, lower);
}

// How many words a preposition of place takes; 0: it is none. Of two kinds: what stands "next to" a thing may
// name it, since nothing is joined by that.
std::size_t preposition(const std::vector<std::string>& lower, std::size_t at, bool& may_name) {
    static const std::set<std::string, std::less<>> near = {"under",  "underneath", "beneath", "near",
                                                            "beside", "behind",     "above",   "alongside"};
    static const std::set<std::string, std::less<>> where = {
        "in", "inside", "outside", "across", "along", "against", "at", "over", "around"};
    const auto is = [&](std::size_t k, std::string_view word) {
        return k < lower.size() && lower[k] == word;
    };
    may_name = true;
    if (near.contains(lower[at])) return 1;
    if ((is(at, "next") || is(at, "close")) && is(at + 1, "to")) return 2;
    if (is(at, "in") && is(at + 1, "front") && is(at + 2, "of")) return 3;
    may_name = false;
    return where.contains(lower[at]) ? 1 : 0;
}

// "right next to the lithium", "mounted under the counter", from `at` on; 0: nothing of the kind.
std::size_t phrase(const Plan& plan, const std::vector<std::string>& words, std::size_t at) {
    static const std::set<std::string, std::less<>> leads = {
        "right",   "just",   "directly", "mounted", "fitted", "bolted", "located", "installed",
        "sitting", "stands", "hidden",   "up",      "down",   "out",    "high",    "low"};
    std::vector<std::string> lower;
    lower.reserve(words.size());
    for (const std::string& w : words) lower.push_back(to_lower(w));
    std::size_t k = at;
    while (k < lower.size() && leads.contains(lower[k])) ++k;
    if (k >= lower.size()) return 0;
    bool may_name = false;
    const std::size_t lead = preposition(lower, k, may_name);
    if (!lead) return 0;
    k += lead;
    if (k < lower.size() && (lower[k] == "the" || lower[k] == "its" || lower[k] == "a" || lower[k] == "an"))
        ++k;
    const std::size_t first = k;
    static const std::set<std::string, std::less<>> no_place = {
        "series", "parallel", "all", "total", "use", "winter", "summer", "reverse", "turn"};
    while (k < lower.size() && k - first < kLongestPhrase) {
        bool again = false;
        if (k > first && preposition(lower, k, again)) break;
        const bool nameable =
            may_name &&
            (names_a_thing(plan, lower[k]) || lower[k] == "battery" || lower[k] == "batteries" ||
             lower[k] == "bank" || lower[k] == "inverter" || lower[k] == "box" || lower[k] == "panel");
        if (no_place.contains(lower[k]) || (!nameable && !beside(plan, lower[k]))) break;
        ++k;
    }
    return k == first ? 0 : k - at;
}

std::vector<std::string> said_words(std::string_view part) {
    std::vector<std::string> words;
    for (const std::string_view w : split(part, ' '))
        if (!trim(w).empty()) words.emplace_back(trim(w));
    return words;
}

}  // namespace

WithoutRemark without_whereabouts(const Plan& plan, std::string_view line) {
    WithoutRemark out;
    if (line.find('"') != std::string_view::npos) return {std::string(line), {}};
    // "1.5 m from the bulkhead": how far from what is no thing of the plan
    static const Pattern so_far(
        R"(\s*,?\s*\b\d+(?:\.\d+)?\s*(?:m|cm|ft|in)\s+(?:away\s+)?from\s+(?:the\s+)?((?:[a-z'-]+)(?:\s+[a-z'-]+)?)\s*(?=,|$))");
    std::string text(line);
    if (Found m; so_far.is_in(text, m)) {
        const auto names = said_words(m[1]);
        if (only_beside(plan, names, {}) && !names_a_thing(plan, to_lower(m[1]))) {
            out.remark =
                trim(text.substr(m.before().size(), text.size() - m.before().size() - m.behind().size()));
            while (out.remark.starts_with(',') || out.remark.starts_with(' ')) out.remark.erase(0, 1);
            text = m.before() + m.behind();
        }
    }
    static const Pattern season(
        R"(\s*,?\s*\b((?:in\s+)?(?:winter|summer)\s+only|only\s+in\s+(?:winter|summer))\s*(?=,|$))");
    if (Found m; season.is_in(text, m)) {
        out.remark += (out.remark.empty() ? "" : ", ") + m[1];
        text = m.before() + m.behind();
    }
    bool first_part = true;
    for (const std::string& part : comma_parts(text)) {
        const auto words = said_words(part);
        std::string kept;
        for (std::size_t k = 0; k < words.size();) {
            const std::size_t used = first_part && k == 0 ? 0 : phrase(plan, words, k);
            std::string& target = used ? out.remark : kept;
            if (used && !target.empty()) target += ",";
            for (std::size_t end = k + std::max<std::size_t>(used, 1); k < end; ++k)
                target += (target.empty() ? "" : " ") + words[k];
        }
        if (!kept.empty()) out.line += (out.line.empty() ? "" : ", ") + kept;
        first_part = false;
    }
    return out;
}

bool only_beside(const Plan& plan, const std::vector<std::string>& words, std::string_view line) {
    const auto all = said_words(line);
    const auto labels_a_figure = [&](const std::string& word) {
        for (std::size_t k = 0; k + 1 < all.size(); ++k)
            if (to_lower(all[k]) == to_lower(word) && all[k + 1].find_first_of("0123456789") == 0)
                return true;
        return false;
    };
    return std::all_of(words.begin(), words.end(), [&](const std::string& said) {
        const auto each = said_words(said);
        static const std::set<std::string, std::less<>> small = {"the", "a",   "an", "in",
                                                                 "at",  "its", "of", "by"};
        return std::all_of(each.begin(), each.end(), [&](const std::string& w) {
            return !labels_a_figure(w) && (small.contains(to_lower(w)) || beside(plan, w));
        });
    });
}

}  // namespace yr
