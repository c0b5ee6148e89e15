#include "notes/said.h"

#include <fmt/format.h>

#include <algorithm>

#include "notes/state_words.h"
#include "typing/battery_words.h"
#include "typing/line_words.h"
#include "units/text.h"

namespace yr {
namespace {

// The words by which people speak of what has another name here.
std::optional<Terminal> by_habit(const Plan& plan, const std::string& word, bool negative) {
    if (const Id meant = battery_meant_by(plan, word); !meant.empty())
        return negative ? neg_of(meant) : pos_of(meant);
    const auto first = [&](PointKind kind, std::string_view part) -> std::optional<Terminal> {
        for (const Point& p : plan.points)
            if (p.kind == kind && (part.empty() || to_lower(p.name).find(part) != std::string::npos))
                return Terminal(p.id);
        return std::nullopt;
    };
    if (word == "block" || word == "engine" || word == "engine block")
        return first(PointKind::chassis, "engine");
    if (word == "body" || word == "frame" || word == "cab") {
        if (auto named = first(PointKind::chassis, word)) return named;
        // one metal alone goes by whichever name
        const auto metals = std::count_if(plan.points.begin(), plan.points.end(),
                                          [](const Point& p) { return p.kind == PointKind::chassis; });
        return metals == 1 && word != "cab" ? first(PointKind::chassis, "") : std::nullopt;
    }
    if (word == "chassis" || word == "ground") return first(PointKind::chassis, "");
    if (word == "bus" || word == "busbar" || word == "bus bar" || word == "positive busbar")
        return first(PointKind::bus, "");
    if (word == "main bus" || word == "main bus bar" || word == "main busbar" || word == "main fuse block" ||
        word == "main block" || word == "fuse block" || word == "fuse panel" || word == "panel" ||
        word == "fuse board" || word == "fuse box" || word == "board" || word == "main panel" ||
        word == "distribution panel" || word == "switch panel")
        for (const Point& p : plan.points)
            if (p.kind == PointKind::bus && p.feeds_loads) return Terminal(p.id);
    if (word == "box") return first(PointKind::box, "");
    if (word == "alternator" || word == "stator")
        for (const Source& s : plan.sources)
            if (s.kind == SourceKind::alternator || s.kind == SourceKind::stator) return out_of(s.id);
    // "master": where the main cable ends behind the master disconnect
    if (word == "master")
        for (const Run& r : plan.runs)
            for (const Device& d : r.devices)
                if (d.master && find(plan.points, r.to)) return r.to;
    return std::nullopt;
}

std::optional<Terminal> of_thing(const Plan& plan, const std::string& lower, bool negative) {
    for (const Point& p : plan.points)
        if (to_lower(p.name) == lower) return Terminal(p.id);
    for (const Battery& b : plan.batteries)
        if (to_lower(b.name) == lower) return negative ? neg_of(b.id) : pos_of(b.id);
    for (const Source& s : plan.sources)
        if (to_lower(s.name) == lower) return negative ? s.return_at : out_of(s.id);
    for (const Inverter& i : plan.inverters)
        if (to_lower(i.name) == lower) return negative ? neg_of(i.id) : pos_of(i.id);
    for (const Load& l : plan.loads)
        if (l.inverter.empty() && to_lower(l.name) == lower) return negative ? neg_of(l.id) : pos_of(l.id);
    return std::nullopt;
}

class SaidReader {
  public:
    SaidReader(const Plan& plan, const Vocabulary& vocabulary) : plan_(plan), vocabulary_(vocabulary) {}

    Said read(std::string_view text) {
        const auto segments = comma_parts(text);
        for (std::size_t k = 0; k < segments.size(); ++k) segment(segments[k], k > 0);
        return std::move(said_);
    }

  private:
    void segment(const std::string& text, bool after_comma) {
        LineCursor words(split_line(text));
        ConditionReader condition(plan_);
        if (vocabulary_.switches) condition.takes_bare_switches();
        bool first = true;
        named_ = named_ || (after_comma && vocabulary_.switches);  // a state's name ends at its first comma
        while (!words.done()) {
            const bool at_comma = first && after_comma;
            first = false;
            if (words.word().quoted) {
                take_name(words.word().text, true);
                words.skip(1);
                continue;
            }
            if (const auto both = two_readings(words.word().text)) {
                doubt(words.word().text, *both);
                words.skip(find_unit(words.lower(1)) ? 2 : 1);
                continue;
            }
            if (ends(words) || fuse(words) || labelled(words) || plain(words) || bolt(words) || flag(words) ||
                (vocabulary_.switches &&
                 condition.read(words, true)) ||  // a switch may be called like a place
                place(words, at_comma) ||
                condition.read(words, true) || circuit(words) || circuits_named(words) ||
                bare_number(words)) {
                named_ = true;
                continue;
            }
            take_name(words.word().text, false);
            words.skip(1);
        }
        auto when = condition.result();
        if (when && vocabulary_.switches &&
            said_.when) {  // each part of a state's line says of its own switch
            when->switches.insert(when->switches.end(), said_.when->switches.begin(),
                                  said_.when->switches.end());
            when->switches_off.insert(when->switches_off.end(), said_.when->switches_off.begin(),
                                      said_.when->switches_off.end());
        }
        if (when) said_.when = when;
    }

    void take_name(const std::string& word, bool quoted) {
        quoted_name_ = quoted_name_ || (quoted && said_.name.empty());
        if (!named_ || (quoted && said_.name.empty()))
            said_.name += (said_.name.empty() ? "" : " ") + word;
        else
            said_.not_understood.push_back(word);
    }

    void doubt(const std::string& text, const std::pair<double, double>& both) {
        named_ = true;
        if (said_.doubt) return;
        const std::string unit = text.substr(text.find_first_of(",.") + 4);
        said_.doubt = TypedLine::Doubt{text, fmt::format("{:.0f}", both.first) + unit,
                                       fmt::format("{:g}", both.second) + unit};
    }

    // "from rear bus", "to body", "between battery and main bus", "battery - to block" at the beginning.
    bool ends(LineCursor& words) {
        const std::string w = words.lower();
        if (w == "between") return between(words);
        const bool on = w == "on" || w == "onto" || w == "off" || w == "near" || w == "beside" || w == "via";
        if (on && vocabulary_.switches) return false;  // "switches on batteries joined"
        if ((w == "to" || w == "from") && words.has(2) && words.lower(1).find_first_of("0123456789") == 0)
            return false;  // "24 to 12 V": nothing is called by a figure
        if (w != "from" && w != "to" && !on) {
            if (named_ || (!said_.name.empty() && !quoted_name_)) return false;
            std::size_t used = 0;  // a strap begins with its end: "battery - to block"
            auto begins = end_at(words, 0, used);
            if (!begins || words.lower(used) != "to") return false;
            said_.from = begins;
            words.skip(used);
            return true;
        }
        std::size_t used = 0;
        const std::size_t lead = words.lower(1) == "the" ? 2 : 1;
        const auto end = end_at(words, lead, used);
        if (!end && !on && words.has(lead + 1) && !words.lower(lead).empty()) {  // from what is not there
            said_.missing_end = words.joined(lead, 1);
            said_.not_understood.push_back(words.joined(0, lead + 1));
            named_ = true;
            words.skip(lead + 1);
            return true;
        }
        if (!end) return false;
        if (!on || find(plan_.points, *end))
            (w == "from" ? said_.from : said_.to) = end;
        else if (find(plan_.batteries, end->owner))
            said_.on = end;
        else
            return false;
        words.skip(lead + used);
        return true;
    }

    bool between(LineCursor& words) {
        std::size_t used = 0, more = 0;
        const auto a = end_at(words, 1, used);
        if (!a || words.lower(1 + used) != "and") return false;
        const auto b = end_at(words, 2 + used, more);
        if (!b) return false;
        said_.from = a, said_.to = b;
        said_.between = {a->owner, b->owner};
        words.skip(2 + used + more);
        return true;
    }

    std::optional<Terminal> end_at(const LineCursor& words, std::size_t ahead, std::size_t& used) const {
        for (std::size_t count = 6; count >= 1; --count) {
            if (!words.has(ahead + count)) continue;
            auto found = terminal_called(plan_, words.joined(ahead, count), vocabulary_.negative);
            if (!found) continue;
            used = count;
            return found;
        }
        return std::nullopt;
    }

    // "fuse 60 A both ends", "by breaker 100 A"
    bool fuse(LineCursor& words) {
        std::size_t at = 0, used = 0;
        if (words.lower(at) == "by") ++at;
        const std::string w = words.lower(at);
        if (w == "both" && words.lower(at + 1) == "ends") {
            said_.both_ends = true;
            words.skip(at + 2);
            return true;
        }
        if (const auto before = words.quantity(at, used);  // "60 A fuse"
            before && before->dimension == Dimension::current &&
            (words.lower(at + used) == "fuse" || words.lower(at + used) == "breaker")) {
            std::size_t next = 0;  // "30 A fuse 40 A": what follows the word is the fuse's
            if (words.quantity(at + used + 1, next)) return false;
            said_.fuse_A = before->value;
            said_.breaker = words.lower(at + used) == "breaker";
            words.skip(at + used + 1);
            return true;
        }
        if (w != "fuse" && w != "breaker" && w != "fused") return false;
        const auto q = words.quantity(at + 1, used);
        if (!q || q->dimension != Dimension::current) return false;
        said_.fuse_A = q->value;
        said_.breaker = w == "breaker";
        words.skip(at + 1 + used);
        return true;
    }

    bool labelled(LineCursor& words) {
        std::size_t used = 0;
        if (vocabulary_.labels.contains(words.lower())) {
            const auto q = words.quantity(1, used);
            if (q) {
                said_.labelled.emplace(words.lower(), *q);
                words.skip(1 + used);
                return true;
            }
        }
        const auto q = words.quantity(0, used);
        if (q && words.lower(used) == "at" && vocabulary_.labels.contains(words.lower(used + 1))) {
            said_.labelled.emplace(words.lower(used + 1), *q);  // "70 A at idle"
            words.skip(used + 2);
            return true;
        }
        if (!q || !vocabulary_.labels.contains(words.lower(used))) return false;
        std::size_t next = 0;  // "150 A idle 70 A": the label belongs to what follows
        if (words.quantity(used + 1, next)) return false;
        said_.labelled.emplace(words.lower(used), *q);
        words.skip(used + 1);
        return true;
    }

    bool plain(LineCursor& words) {
        if (const auto amps = parse_value(words.lower(), Dimension::number);
            amps && *amps > 0 && words.lower(1) == "cca") {  // cold cranking amps, as batteries are labelled
            said_.plain.push_back({*amps, Dimension::current, 1});
            words.skip(2);
            return true;
        }
        if (words.lower() == "cable" && (words.has(2))) {
            words.skip(1);
            return true;
        }
        for (std::size_t count = 2; count >= 1; --count) {
            if (!words.has(count)) continue;
            const std::string text = words.joined(0, count), lower = to_lower(text);
            const bool marked =
                text.find("/0") != std::string::npos || lower.find("awg") != std::string::npos ||
                lower.find("sae") != std::string::npos || lower.find("mm") != std::string::npos;
            if (!marked) continue;
            const auto size = parse_wire_size(text);
            if (!size || !conductor(*size)) continue;
            said_.size = *size;
            words.skip(count);
            return true;
        }
        std::size_t used = 0;
        const auto q = words.quantity(0, used);
        if (!q) return false;
        if (q->dimension == Dimension::length)
            said_.length_m = q->value;
        else
            said_.plain.push_back(*q);
        words.skip(used);
        return true;
    }

    bool bolt(LineCursor& words) {
        const std::string w = words.lower();
        if (w.size() < 2 || w.size() > 3 || w[0] != 'm') return false;
        const auto mm = parse_value(w.substr(1), Dimension::number);
        if (!mm || *mm < 2 || *mm > 30) return false;
        said_.bolt_mm = *mm;
        words.skip(1);
        return true;
    }

    bool flag(LineCursor& words) {
        for (std::size_t count = 3; count >= 1; --count) {
            if (!words.has(count)) continue;
            const std::string text = to_lower(words.joined(0, count));
            if (!vocabulary_.flags.contains(text)) continue;
            said_.flags.insert(text);
            words.skip(count);
            return true;
        }
        return false;
    }

    // Behind a comma, or behind in, at, behind; a new place is not made of a slip.
    bool place(LineCursor& words, bool at_comma) {
        const std::string w = words.lower();
        const bool belongs = w == "behind" || w == "under" || w == "beside";  // a part of the place's name
        const bool lead = belongs || w == "in" || w == "inside" || w == "at" || w == "on" || w == "place";
        if (!lead && !at_comma) {  // "inverter 600 W rear": at its end
            std::size_t used = 0;
            const Id id = words.named(
                plan_.places, 0, [](const Place&) { return true; }, used);
            if (id.empty() || !named_ || words.has(used + 1)) return false;
            said_.place = id;
            words.skip(used);
            return true;
        }
        // "behind cab" may be the place's own name; a word before the name is no part of it
        for (const std::size_t ahead : {std::size_t{0}, std::size_t{1}}) {
            if (ahead == 0 ? lead && !belongs : !lead) continue;
            std::size_t used = 0;
            const std::size_t from = words.lower(ahead) == "the" ? ahead + 1 : ahead;
            const Id id = words.named(
                plan_.places, from, [](const Place&) { return true; }, used);
            if (id.empty()) continue;
            said_.place = id;
            words.skip(from + used);
            return true;
        }
        return false;
    }

    // The load that words before "on" or "off" mean: by its name, or by a part of it that only one has
    // ("chimes" of "chimes amplifier"), counted or not.
    const Load* load_called(const std::string& words) const {
        struct Meant {
            const Load* load = nullptr;
            int alike = 0;
        };
        Meant begins, holds;  // "crane" is the crane's pump sooner than the remote for crane
        const std::string word = words.ends_with('s') ? words.substr(0, words.size() - 1) : words;
        for (const Load& l : plan_.loads) {
            const std::string name = to_lower(l.name);
            if (name == words) return &l;
            if (name == word || name == words + "s" || name.starts_with(word + " ") ||
                name.starts_with(words + " "))
                begins = {&l, begins.alike + 1};
            else if (name.ends_with(" " + words) || name.ends_with(" " + word) ||
                     name.find(" " + words + " ") != std::string::npos)
                holds = {&l, holds.alike + 1};
        }
        // "fridges" where there are two is no one of them
        if (word != words && begins.load && begins.alike + holds.alike > 1) return nullptr;
        const Meant& meant = begins.load ? begins : holds;
        if (meant.load) return meant.alike == 1 ? meant.load : nullptr;
        constexpr std::size_t kPartOfAWord = 5;  // "plotter" of "chartplotter 12 in"
        Meant part;
        for (const Load& l : plan_.loads)
            if (words.size() >= kPartOfAWord && to_lower(l.name).find(words) != std::string::npos)
                part = {&l, part.alike + 1};
        if (part.load) return part.alike == 1 ? part.load : nullptr;
        for (const Load& l : plan_.loads)
            if (all_words_in(to_lower(l.name), words)) part = {&l, part.alike + 1};
        return part.alike == 1 ? part.load : nullptr;
    }

    // "freezer on" of a state: its own switches; one that always runs is on as it is.
    bool circuit(LineCursor& words) {
        if (!vocabulary_.switches) return false;
        for (std::size_t count = 4; count >= 1; --count) {
            const bool on = words.lower(count) == "on", off = words.lower(count) == "off";
            if (!on && !off) continue;
            const Load* load = load_called(to_lower(words.joined(0, count)));
            if (!load) continue;
            const auto& own = load->live_when.switches;
            if (off && own.empty()) {  // whoever says so has a switch for it
                if (!load->own_switch || !load->inverter.empty() || is_a_switch(plan_, to_lower(load->name)))
                    return false;
                said_.switched_off.push_back(load->id);
                words.skip(count + 1);
                return true;
            }
            if (on) said_.switched_on.push_back(load->id);
            if (!said_.when) said_.when = Condition{};
            auto& list = on ? said_.when->switches : said_.when->switches_off;
            list.insert(list.end(), own.begin(), own.end());
            words.skip(count + 1);
            return true;
        }
        return false;
    }

    // "scene and pump", "red bar + fence" of a state, where nothing is said to be off: they are on.
    bool circuits_named(LineCursor& words) {
        if (!vocabulary_.switches || !named_) return false;
        const bool joined = words.lower() == "and" || words.lower() == "+" || words.lower() == "&";
        for (std::size_t count = 4; count >= 1; --count) {
            const std::string called = to_lower(words.joined(joined ? 1 : 0, count));
            const auto own = switches_called(called);
            if (!own || words.lower(count + (joined ? 1 : 0)) == "off") continue;
            if (!said_.when) said_.when = Condition{};
            auto& list = said_.when->switches;
            list.insert(list.end(), own->begin(), own->end());
            for (const Id& id : loads_meant(called)) said_.switched_on.push_back(id);
            words.skip(count + (joined ? 1 : 0));
            return true;
        }
        return false;
    }

    // The switches that these words mean: one of that name, those of a load, all of them; none of a load that
    // has none. nullopt: they mean nothing.
    std::optional<std::vector<std::string>> switches_called(const std::string& words) const {
        std::vector<std::string> all;
        for (const Load& l : plan_.loads)
            for (const std::string& s : l.live_when.switches) {
                if (to_lower(s) == words) return std::vector<std::string>{s};
                if (std::find(all.begin(), all.end(), s) == all.end()) all.push_back(s);
            }
        if (words == "everything" || words == "all loads") return all;
        if (const Load* load = load_called(words)) return load->live_when.switches;
        std::optional<std::vector<std::string>> group;
        for (const Load& l : plan_.loads) {
            if (!is_of_group(to_lower(l.name), words)) continue;
            if (!group) group.emplace();
            for (const std::string& s : l.live_when.switches)
                if (std::find(group->begin(), group->end(), s) == group->end()) group->push_back(s);
        }
        return group;
    }

    // The loads that the same words name; who says "everything" names none.
    std::vector<Id> loads_meant(const std::string& words) const {
        std::vector<Id> ids;
        const Load* only = load_called(words);
        for (const Load& l : plan_.loads) {
            const auto& own = l.live_when.switches;
            const bool switched = std::any_of(own.begin(), own.end(),
                                              [&](const std::string& s) { return to_lower(s) == words; });
            if (switched || (only ? &l == only : is_of_group(to_lower(l.name), words))) ids.push_back(l.id);
        }
        return ids;
    }

    // "lights", "work lights": all that are called so, as a heading calls what stands below it
    static bool is_of_group(const std::string& name, const std::string& words) {
        const std::string one = words.ends_with('s') ? words.substr(0, words.size() - 1) : words;
        const auto holds_word = [&](const std::string& word) {
            return (" " + name + " ").find(" " + word + " ") != std::string::npos;
        };
        return holds_word(words) || holds_word(one);
    }

    bool bare_number(LineCursor& words) {
        if (!vocabulary_.numbers) return false;
        const auto n = parse_value(words.lower(), Dimension::number);
        if (!n) return false;
        said_.numbers.push_back(*n);
        words.skip(1);
        return true;
    }

    const Plan& plan_;
    const Vocabulary& vocabulary_;
    bool named_ = false, quoted_name_ = false;
    Said said_;
};

}  // namespace

std::optional<double> Said::plain_of(Dimension dimension) const {
    for (const Quantity& q : plain)
        if (q.dimension == dimension) return q.value;
    return std::nullopt;
}

std::optional<double> Said::labelled_as(std::string_view label, Dimension dimension) const {
    const auto found = labelled.find(std::string(label));
    if (found == labelled.end() || found->second.dimension != dimension) return std::nullopt;
    return found->second.value;
}

Said read_said(const Plan& plan, std::string_view text, const Vocabulary& vocabulary) {
    return SaidReader(plan, vocabulary).read(text);
}

std::optional<Terminal> terminal_called(const Plan& plan, std::string_view name, bool negative) {
    std::string lower = to_lower(trim(name));
    for (const auto& [mark, is_negative] : {std::pair<std::string_view, bool>{" -", true},
                                            {" minus", true},
                                            {" \xE2\x88\x92", true},
                                            {" +", false},
                                            {" plus", false}})
        if (lower.ends_with(mark)) {
            lower.erase(lower.size() - mark.size());
            negative = is_negative;
        }
    if (auto thing = of_thing(plan, lower, negative)) return thing;
    return by_habit(plan, lower, negative);
}

}  // namespace yr
