#include "typing/line_words.h"

#include <algorithm>
#include <cctype>

#include "units/text.h"

namespace yr {
namespace {

constexpr std::size_t kLongestNewName = 4;  // words

}  // namespace

std::vector<LineWord> split_line(std::string_view text) {
    std::vector<LineWord> words;
    LineWord word;
    bool comma = false;
    const auto flush = [&] {
        if (!word.text.empty()) {
            word.after_comma = comma;
            words.push_back(std::move(word));
            comma = false;
        }
        word = {};
    };
    const auto digit = [&](std::size_t k) { return k < text.size() && text[k] >= '0' && text[k] <= '9'; };
    for (std::size_t k = 0; k < text.size(); ++k) {
        const char c = text[k];
        const bool inches = c == '"' && k > 0 && digit(k - 1);  // a light bar of 30"
        const std::size_t close = c == '"' && !inches ? text.find('"', k + 1) : std::string_view::npos;
        const bool decimal_comma = c == ',' && k > 0 && digit(k - 1) && digit(k + 1);
        if (inches) {
            word.text += "\xE2\x80\xB3";
        } else if (close != std::string_view::npos) {
            flush();
            word = {std::string(text.substr(k + 1, close - k - 1)), true, false};
            flush();
            k = close;
        } else if (c == '"') {
            // one that is never closed: no name could be said again with it
        } else if (c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == ';' ||
                   (c == ',' && !decimal_comma)) {
            flush();
            comma = comma || c == ',' || c == ';';
        } else {
            word.text += c;
        }
    }
    flush();
    return words;
}

std::vector<std::string> comma_parts(std::string_view text) {
    std::vector<std::string> parts{""};
    bool quoted = false;
    int deep = 0;
    const auto digit = [&](std::size_t k) { return k < text.size() && text[k] >= '0' && text[k] <= '9'; };
    for (std::size_t k = 0; k < text.size(); ++k) {
        const char c = text[k];
        const bool inches = c == '"' && !quoted && k > 0 && digit(k - 1);  // a display of 12"
        quoted = quoted != (c == '"' && !inches);
        deep += c == '(' ? 1 : c == ')' ? -1 : 0;
        const bool decimal = c == ',' && k > 0 && digit(k - 1) && digit(k + 1);
        if ((c == ',' || c == ';') && !decimal && !quoted && deep <= 0)
            parts.emplace_back();
        else
            parts.back() += c;
    }
    return parts;
}

std::string LineCursor::lower(std::size_t ahead) const {
    const bool plain = at_ + ahead < words_.size() && !words_[at_ + ahead].quoted;
    return plain ? to_lower(words_[at_ + ahead].text) : std::string();
}

std::string LineCursor::before() const {
    return at_ > 0 && !words_[at_ - 1].quoted ? to_lower(words_[at_ - 1].text) : std::string();
}

std::string LineCursor::joined(std::size_t ahead, std::size_t count) const {
    std::string text;
    for (std::size_t k = 0; k < count && at_ + ahead + k < words_.size(); ++k)
        text += (k ? " " : "") + words_[at_ + ahead + k].text;
    return text;
}

std::string LineCursor::new_name(std::size_t ahead, std::size_t& used) const {
    std::string name;
    std::size_t count = 0;
    while (has(ahead + count + 1) && count < kLongestNewName) {
        const LineWord& w = words_[at_ + ahead + count];
        if (w.quoted || (count > 0 && w.after_comma)) break;
        if (w.text.find_first_of("0123456789") != std::string::npos) {
            // "aux1" and the "2" of "aux 2, 4 m" belong to a name; other figures do not
            const bool letters_first =
                std::isalpha(static_cast<unsigned char>(w.text[0])) && !parse_quantity(w.text);
            const bool last = !has(ahead + count + 2) || after_comma(ahead + count + 1);
            const bool counted =
                count > 0 && last && w.text.find_first_not_of("0123456789") == std::string::npos;
            if (!letters_first && !counted) break;
        }
        const std::string lower = to_lower(w.text);
        if (lower == "and" || lower == "or" || lower == "not" || lower == "on" || lower == "off" ||
            lower == "from" || lower == "in" || lower == "at" || lower == "after" || lower == "critical" ||
            lower == "while" || lower == "duty" || lower == "start" || lower == "channel" ||
            lower == "stays" || lower == "-" || lower == "chassis" || lower == "home-run" || lower == "the")
            break;
        name += (name.empty() ? "" : " ") + w.text;
        ++count;
    }
    used = count;
    return name;
}

std::string LineCursor::joined_lower(std::size_t ahead, std::size_t count) const {
    return to_lower(joined(ahead, count));
}

// Commas and semicolons part words on a line, so a name is compared without them.
bool LineCursor::same_name(const std::string& name, const std::string& lower) {
    // most names differ in their first letter: not taken apart for that
    const auto first = static_cast<unsigned char>(name.empty() ? 0 : name.front());
    if (lower.empty() || (std::isalnum(first) && std::tolower(first) != lower.front())) return false;
    std::string plain;
    for (const LineWord& w : split_line(name)) plain += (plain.empty() ? "" : " ") + w.text;
    return to_lower(plain) == lower;
}

bool LineCursor::quoted_among(std::size_t ahead, std::size_t count) const {
    for (std::size_t k = 0; k < count; ++k)
        if (words_[at_ + ahead + k].quoted) return true;
    return false;
}

std::optional<Quantity> LineCursor::quantity(std::size_t ahead, std::size_t& used) const {
    for (std::size_t count = 4; count >= 1; --count) {
        if (!has(ahead + count)) continue;
        if (quoted_among(ahead, count)) continue;
        const auto q = parse_quantity(joined(ahead, count));
        if (q && q->dimension != Dimension::number) {
            used = count;
            return *q;
        }
    }
    return std::nullopt;
}

std::optional<Quantity> LineCursor::range(std::size_t ahead, std::size_t& used, double& least) const {
    for (std::size_t count = 5; count >= 1; --count) {  // "3 m .. 4 m"
        if (!has(ahead + count)) continue;
        if (quoted_among(ahead, count)) continue;
        const std::string text = joined(ahead, count);
        const auto dots = text.find("..");
        if (dots == std::string::npos) continue;
        const auto most = parse_quantity(text.substr(dots + 2));
        if (!most || most->dimension == Dimension::number) continue;
        std::string low = text.substr(0, dots);
        const std::string unit = text.substr(text.find_last_of("0123456789") + 1);
        auto first = parse_quantity(low);
        if (!first || first->dimension == Dimension::number)
            first = parse_quantity(low + unit);  // one unit for both
        if (!first || first->dimension != most->dimension || !(first->value <= most->value)) continue;
        used = count;
        least = first->value;
        return *most;
    }
    return std::nullopt;
}

std::optional<Condition> ConditionReader::key_word(const std::string& w) const {
    Condition c;
    if (w == "always" || w == "constant" || w == "battery") return c;
    if (w == "accessory" || w == "acc") {
        c.key = Key::accessory;
    } else if (w == "ignition" || w == "ign" || w == "key") {
        c.key = Key::ignition;
    } else if (w == "running" || w == "engine" || w == "driving") {
        c.key = Key::ignition;
        c.engine = Engine::running;
    } else if (w == "standing" || w == "parked" || w == "stationary") {
        c.engine = Engine::stopped;
    } else if (w == "cranking" || w == "crank") {
        c.key = Key::crank;
    } else {
        return std::nullopt;
    }
    return c;
}

// "scene", "switch pump", "deck lights off": the longest known name first.
std::optional<Condition> ConditionReader::switch_term(const LineCursor& words, std::size_t ahead,
                                                      std::size_t& used) const {
    struct Named {
        Id id;
        std::string name;
    };
    std::vector<Named> known;
    for (const std::string& name : plan_switches(plan_)) known.push_back({name, name});
    for (const PanelSwitch& s : plan_.panel) known.push_back({s.name, s.name});
    const bool said = words.lower(ahead) == "switch";
    const std::size_t from = ahead + (said ? 1 : 0);
    std::size_t count = 0;
    std::string name = words.named(
        known, from, [](const Named&) { return true; }, count);
    if (name.empty() && said && words.has(from + 1)) {  // a new switch: "switch roof fan"
        name = words.new_name(from, count);
        if (name.empty()) name = words.joined(from, 1), count = 1;
    }
    if (name.empty() && new_switch_here_)
        name = words.new_name(from, count);  // "on ignition and rear lights"
    if (name.empty()) return std::nullopt;
    used = (said ? 1 : 0) + count;
    Condition c;
    if (words.lower(ahead + used) == "off") {
        c.switches_off = {name};
        ++used;
    } else {
        c.switches = {name};
        if (words.lower(ahead + used) == "on") {
            std::size_t next = 0;  // "on scene on ignition": the second "on" begins the next part
            if (!term(words, ahead + used + 1, next)) ++used;
        }
    }
    return c;
}

// "sample fridge runs", "pump running".
std::optional<Condition> ConditionReader::circuit_term(const LineCursor& words, std::size_t ahead,
                                                       std::size_t& used) const {
    std::size_t count = 0;
    const Id load = words.named(
        plan_.loads, ahead, [](const Load&) { return true; }, count);
    const std::string verb = words.lower(ahead + count);
    if (load.empty() || (verb != "runs" && verb != "running")) return std::nullopt;
    used = count + 1;
    Condition c;
    c.circuits = {load};
    return c;
}

// "with pump", "with the water pump": what runs whenever the one load of that name does.
std::optional<Condition> ConditionReader::with_circuit(const LineCursor& words, std::size_t ahead,
                                                       std::size_t& used) const {
    std::size_t count = 0;
    const std::string name = to_lower(words.new_name(ahead, count));
    Id meant;
    for (const Load& l : plan_.loads) {
        const std::string lower = to_lower(l.name);
        if (name.empty() || (lower != name && !lower.ends_with(" " + name))) continue;
        if (!meant.empty()) return std::nullopt;  // two of them
        meant = l.id;
    }
    if (meant.empty()) return std::nullopt;
    used = count;
    Condition c;
    c.circuits = {meant};
    return c;
}

std::optional<Condition> ConditionReader::term(const LineCursor& words, std::size_t ahead,
                                               std::size_t& used) const {
    if (auto c = circuit_term(words, ahead, used)) return c;
    if (words.lower(ahead) == "engine" &&
        (words.lower(ahead + 1) == "running" || words.lower(ahead + 1) == "stopped")) {
        used = 2;
        return key_word(words.lower(ahead + 1) == "running" ? "running" : "standing");
    }
    if (auto c = switch_term(words, ahead, used)) return c;
    auto key = key_word(words.lower(ahead));
    // "always on", "when ignition on": the second word says no more; "on ignition on roof" says where
    const bool on = words.lower(ahead + 1) == "on" &&
                    (words.lower(ahead) == "always" || !words.has(ahead + 3) || words.after_comma(ahead + 2));
    used = key && on ? 2 : 1;
    return key;
}

// "warmer than 30 C", "bay warmer than 90 C back at 82 C", "colder than 5 C".
bool ConditionReader::read_warmth(const LineCursor& words, std::size_t from, std::size_t& ahead,
                                  std::size_t& used, Condition& c) {
    std::size_t at = from;
    if (words.lower(at) == "bay") c.air = Air::engine_bay, ++at;
    const bool warmer = words.lower(at) == "warmer";
    if ((!warmer && words.lower(at) != "colder") || words.lower(at + 1) != "than") return false;
    std::size_t count = 0;
    const auto q = words.quantity(at + 2, count);
    if (!q || q->dimension != Dimension::temperature) return false;
    (warmer ? c.above_C : c.below_C) = q->value;
    at += 2 + count;
    if (words.lower(at) == "back" && words.lower(at + 1) == "at") {
        const auto back = words.quantity(at + 2, count);
        const double within = back ? (warmer ? q->value - back->value : back->value - q->value) : 0;
        if (!back || back->dimension != Dimension::temperature || !(within > 0 && within <= 100))
            return false;
        c.within_K = within;
        at += 2 + count;
    }
    ahead = at, used = 0;
    return true;
}

// "after 3 s", "charging above 13.2 V", "not while cranking", "stays 5 min", "warmer than 30 C".
bool ConditionReader::read_measured(LineCursor& words, std::size_t from) {
    std::size_t ahead = from, used = 0;
    Condition c;
    if (words.lower(from) == "not") {
        ahead = from + (words.lower(from + 1) == "while" ? 2 : 1);
        if (words.lower(ahead) != "cranking") return false;
        c.not_cranking = true;
        used = 1;
    } else if (words.lower(from) == "stays") {
        ahead = from + 1;
        const auto q = words.quantity(ahead, used);
        if (!q || q->dimension != Dimension::time || !(q->value > 0 && q->value <= 86400)) return false;
        c.holds_s = q->value;
    } else if (read_warmth(words, from, ahead, used, c)) {
        // "bay warmer than 90 C back at 82 C": all of it is read
    } else if (words.lower(from) == "after") {
        ahead = from + 1;
        const auto q = words.quantity(ahead, used);
        if (!q || q->dimension != Dimension::time || !(q->value >= 0 && q->value <= 86400)) return false;
        c.delay_s = q->value;
    } else {
        while (words.lower(ahead) == "while" || words.lower(ahead) == "when" ||
               words.lower(ahead) == "charging")
            ++ahead;
        if (words.lower(ahead) != "above") return false;
        const auto q = words.quantity(++ahead, used);
        if (!q || q->dimension != Dimension::voltage || !(q->value > 0 && q->value <= 100)) return false;
        c.charging_above_V = q->value;
    }
    parts_.push_back(c);
    words.skip(ahead + used);
    return true;
}

// Whether words that nothing in the plan is called by end as the name of a switch would.
bool ConditionReader::new_switch_stands(const LineCursor& words, std::size_t ahead) const {
    std::size_t count = 0, known = 0;
    if (words.new_name(ahead, count).empty() || count == kLongestNewName) return false;
    const auto any = [](const auto&) { return true; };
    if (!words.named(plan_.points, ahead, any, known).empty() ||
        !words.named(plan_.places, ahead, any, known).empty() ||
        !words.named(plan_.batteries, ahead, any, known).empty())
        return false;
    for (const char* no_switch : {"mains", "shore", "inverter", "battery", "body", "frame", "roof", "board"})
        if (words.lower(ahead) == no_switch) return false;
    // words of how a thing is fed or when it runs, that nobody calls a switch by
    for (std::size_t k = 0; k < count; ++k)
        for (const char* no_name : {"with", "same", "for", "by", "via", "of", "when", "only", "all", "both",
                                    "one", "to", "dropper", "reducer", "converter", "engine", "ignition"})
            if (words.lower(ahead + k) == no_name) return false;
    const std::size_t next = ahead + count;
    if (!words.has(next + 1) || words.after_comma(next)) return true;
    const std::string word = words.lower(next);  // else new_name() stopped at a figure, or at a word of ours
    return !word.empty() && word.find_first_of("0123456789") == std::string::npos;
}

bool ConditionReader::read(LineCursor& words, bool begun) {
    const bool goes_on = just_read_;
    just_read_ = false;
    if (read_measured(words, goes_on && words.lower() == "and" ? 1 : 0)) return just_read_ = true;
    const std::string first = words.lower();
    const bool lead = first == "on" || first == "with" || first == "when" || first == "while";
    const bool more = goes_on && first == "switch" && words.has(2);  // "on ignition switch pump"
    const bool link = (goes_on && (first == "and" || first == "or")) || more;
    std::size_t ahead = (lead || link) && !more ? 1 : 0, used = 0;
    if (link && !more && (words.lower(1) == "on" || words.lower(1) == "while" || words.lower(1) == "when"))
        ++ahead;
    if (words.lower(ahead) == "the") ++ahead;
    std::optional<Condition> c = term(words, ahead, used);
    if (!c && first == "with" && begun) c = with_circuit(words, ahead, used);
    const bool alone = new_switches_ && begun && lead &&
                       words.lower(ahead - 1) != "the" &&  // "on the mast" says where it is
                       words.before() != "switch" &&       // so does "switch on dash"
                       new_switch_stands(words, ahead);
    if (!c &&
        ((link && first == "and") || alone)) {  // what nothing in the plan knows is a switch that is new
        new_switch_here_ = true;
        c = switch_term(words, ahead, used);
        new_switch_here_ = false;
    }
    // A bare switch or circuit may be part of the load's own name ("hoist light"): it needs its "on".
    const bool switched = c && (!c->switches.empty() || !c->switches_off.empty()) && used > 1 &&
                          (words.lower(ahead + used - 1) == "on" || words.lower(ahead + used - 1) == "off");
    if (c && !lead && !link && !(bare_switches_ && switched)) {
        const std::string w = words.lower();
        if (!begun || !c->switches.empty() || !c->switches_off.empty() || !c->circuits.empty() ||
            w == "battery" || (w == "engine" && used == 1) || w == "key")
            c.reset();
    }
    if (!c) return false;
    if (first == "or" && !parts_.empty()) {
        Condition& before = parts_.back();
        const bool plain = c->circuits.empty() && before.circuits.empty() && !before.delay_s &&
                           !before.charging_above_V && !before.holds_s && !before.above_C && !before.below_C;
        if (!plain) return false;
        if (before.any_of.empty()) {
            Condition any;
            any.any_of = {before};
            before = any;
        }
        before.any_of.push_back(*c);
    } else {
        parts_.push_back(*c);
    }
    words.skip(ahead + used);
    return just_read_ = true;
}

std::optional<Condition> ConditionReader::result() const {
    if (parts_.empty()) return std::nullopt;
    Condition all;
    for (const Condition& c : parts_) {
        all.key = std::max(all.key, c.key);
        if (c.engine != Engine::any) all.engine = c.engine;
        const auto add = [](auto& list, const auto& more) {
            for (const auto& x : more)
                if (std::find(list.begin(), list.end(), x) == list.end()) list.push_back(x);
        };
        add(all.switches, c.switches);
        add(all.switches_off, c.switches_off);
        add(all.circuits, c.circuits);
        all.not_cranking = all.not_cranking || c.not_cranking;
        if (c.charging_above_V) all.charging_above_V = c.charging_above_V;
        if (c.delay_s) all.delay_s = c.delay_s;
        if (c.holds_s) all.holds_s = c.holds_s;
        if (c.above_C) all.above_C = c.above_C;
        if (c.below_C) all.below_C = c.below_C;
        if (c.within_K) all.within_K = c.within_K;
        if (c.air != Air::outside) all.air = c.air;
        if (!c.any_of.empty()) all.any_of = c.any_of;
    }
    return all;
}

}  // namespace yr
