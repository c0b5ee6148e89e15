#include "size/typed_line.h"

#include <algorithm>
#include <set>

#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

std::vector<std::string> words_of(std::string_view text) {
    std::vector<std::string> words;
    std::string word;
    const auto flush = [&] {
        if (!word.empty()) words.push_back(std::move(word));
        word.clear();
    };
    const auto digit = [&](std::size_t k) { return k < text.size() && text[k] >= '0' && text[k] <= '9'; };
    for (std::size_t k = 0; k < text.size(); ++k) {
        const char c = text[k];
        const bool decimal_comma = c == ',' && k > 0 && digit(k - 1) && digit(k + 1);
        if (c == ' ' || c == '\t' || c == ';' || (c == ',' && !decimal_comma))
            flush();
        else
            word += c;
    }
    flush();
    return words;
}

class LineReader {
  public:
    LineReader(const Plan& plan, std::string_view text) : plan_(plan), words_(words_of(text)) {}

    TypedLine read() {
        while (at_ < words_.size()) {
            const bool known = read_feed() || read_inverter() || read_condition() || read_inrush() ||
                               read_quantity() || read_size() || read_flag() || read_place();
            if (known) {
                named_ = named_ || !line_.name.empty();
                continue;
            }
            // Words before the first thing understood are the name; later ones are not understood.
            if (!named_)
                line_.name += (line_.name.empty() ? "" : " ") + words_[at_];
            else
                line_.not_understood.push_back(words_[at_]);
            ++at_;
        }
        return std::move(line_);
    }

  private:
    std::string lower(std::size_t ahead = 0) const {
        return at_ + ahead < words_.size() ? to_lower(words_[at_ + ahead]) : std::string();
    }

    // Words from `ahead` on joined by spaces, as many as `count`.
    std::string joined(std::size_t ahead, std::size_t count) const {
        std::string text;
        for (std::size_t k = 0; k < count && at_ + ahead + k < words_.size(); ++k)
            text += (k ? " " : "") + words_[at_ + ahead + k];
        return text;
    }

    template <class T, class F>
    bool match_name(const std::vector<T>& things, std::size_t ahead, F&& accept, Id& out) {
        for (std::size_t count = 5; count >= 1; --count) {
            if (at_ + ahead + count > words_.size()) continue;
            const std::string text = to_lower(joined(ahead, count));
            for (const T& t : things)
                if (accept(t) && to_lower(t.name) == text) {
                    out = t.id;
                    at_ += ahead + count;
                    return true;
                }
        }
        return false;
    }

    bool read_feed() {
        if (lower() != "from") return false;
        return match_name(
            plan_.points, 1, [](const Point& p) { return p.feeds_loads; }, line_.feed);
    }

    // "on mains", "on the inverter", "from inverter 1500 W": the first inverter unless it is named.
    bool read_inverter() {
        std::size_t ahead = 0;
        for (const char* lead : {"on", "from", "behind"})
            if (lower() == lead) ahead = 1;
        if (ahead == 0 || plan_.inverters.empty()) return false;
        if (lower(ahead) == "the") ++ahead;
        if (match_name(
                plan_.inverters, ahead, [](const Inverter&) { return true; }, line_.inverter))
            return true;
        if (lower(ahead) != "mains" && lower(ahead) != "inverter") return false;
        line_.inverter = plan_.inverters.front().id;
        at_ += ahead + 1;
        return true;
    }

    bool read_place() {
        return match_name(
                   plan_.places, 0, [](const Place&) { return true; }, line_.place) ||
               (lower() == "in" && match_name(
                                       plan_.places, 1, [](const Place&) { return true; }, line_.place));
    }

    std::optional<Condition> condition_word(const std::string& w) const {
        if (w == "always" || w == "constant" || w == "battery") return Condition{};
        if (w == "accessory" || w == "acc") return Condition{Key::accessory, Engine::any, {}};
        if (w == "ignition" || w == "ign" || w == "key") return Condition{Key::ignition, Engine::any, {}};
        if (w == "running" || w == "engine") return Condition{Key::ignition, Engine::running, {}};
        if (w == "cranking" || w == "crank") return Condition{Key::crank, Engine::any, {}};
        for (const State& s : plan_.states)
            for (const std::string& name : s.switches)
                if (to_lower(name) == w) return Condition{Key::off, Engine::any, {name}};
        for (const Load& l : plan_.loads)  // a switch that is on in no state yet
            for (const std::string& name : l.live_when.switches)
                if (to_lower(name) == w) return Condition{Key::off, Engine::any, {name}};
        return std::nullopt;
    }

    bool read_condition() {
        const bool lead = lower() == "on" || lower() == "with" || lower() == "when" || lower() == "while";
        const auto c = condition_word(lower(lead ? 1 : 0));
        // A bare switch name may be part of the load's own name ("hoist light"): it needs its "on".
        if (!c || (!lead && (!c->switches.empty() || line_.name.empty() || lower() == "battery" ||
                             lower() == "engine" || lower() == "key")))
            return false;
        line_.live_when = c;
        at_ += lead ? 2 : 1;
        return true;
    }

    // A quantity of one to four words: "2x 90 W", "90 W", "90W", "2 x 90 W".
    std::optional<Quantity> quantity_here(std::size_t ahead, std::size_t& used) const {
        for (std::size_t count = 4; count >= 1; --count) {
            if (at_ + ahead + count > words_.size()) continue;
            const auto q = parse_quantity(joined(ahead, count));
            if (q && q->dimension != Dimension::number) {
                used = count;
                return *q;
            }
        }
        return std::nullopt;
    }

    bool read_inrush() {
        const auto is_word = [](const std::string& w) {
            return w == "inrush" || w == "start" || w == "surge";
        };
        std::size_t used = 0;
        if (is_word(lower())) {
            const auto q = quantity_here(1, used);
            if (!q || (q->dimension != Dimension::current && q->dimension != Dimension::power)) return false;
            (q->dimension == Dimension::current ? line_.inrush_A : line_.start_W) = q->value;
            at_ += 1 + used;
            return true;
        }
        const auto q = quantity_here(0, used);
        if (!q || (q->dimension != Dimension::current && q->dimension != Dimension::power) ||
            !is_word(lower(used)))
            return false;
        std::size_t next = 0;  // "6 A start 12 A": the start is what follows the word
        if (const auto after = quantity_here(used + 1, next);
            after && (after->dimension == Dimension::current || after->dimension == Dimension::power))
            return false;
        (q->dimension == Dimension::current ? line_.inrush_A : line_.start_W) = q->value;
        at_ += used + 1;
        return true;
    }

    bool read_quantity() {
        std::size_t used = 0;
        const auto q = quantity_here(0, used);
        if (!q || !(q->value > 0)) return read_count();
        switch (q->dimension) {
            case Dimension::power:
                return take_draw(DrawKind::power, *q, used);
            case Dimension::current:
                return take_draw(DrawKind::current, *q, used);
            case Dimension::resistance:
                return take_draw(DrawKind::resistance, *q, used);
            case Dimension::length:
                line_.length_m = q->value;
                break;
            case Dimension::fraction:
                line_.drop_limit = q->value;
                break;
            default:
                return false;  // an area is a wire size, read next; volts and degrees say nothing here
        }
        at_ += used;
        return true;
    }

    bool take_draw(DrawKind kind, const Quantity& q, std::size_t used) {
        if (line_.draw) return false;  // a second draw is not understood
        line_.draw = Draw{kind, q.value};
        if (q.count > 1) line_.count = q.count;
        at_ += used;
        return true;
    }

    bool read_count() {  // "2x" alone, or "x2"
        std::string w = lower();
        if (w.size() < 2 || w.size() > 4 || (w.back() != 'x' && w.front() != 'x')) return false;
        w.erase(w.back() == 'x' ? w.size() - 1 : 0, 1);
        if (w.find_first_not_of("0123456789") != std::string::npos || w == "0") return false;
        line_.count = std::stoi(w);
        ++at_;
        return line_.count >= 1;
    }

    bool read_size() {
        for (std::size_t count = 2; count >= 1; --count) {
            const std::string text = joined(0, count);
            const bool marked = text.find("/0") != std::string::npos ||
                                to_lower(text).find("awg") != std::string::npos ||
                                to_lower(text).find("sae") != std::string::npos ||
                                to_lower(text).find("mm") != std::string::npos;
            const auto size = parse_wire_size(text);
            if (!marked || !size || !conductor(*size)) continue;
            line_.size = *size;
            at_ += std::min(count, words_.size() - at_);
            return true;
        }
        return false;
    }

    bool read_flag() {
        const std::string w = lower();
        if (w == "critical")
            line_.critical = true;
        else if (w == "chassis" || w == "grounded")
            line_.chassis = true;
        else if (w == "home-run" || w == "homerun")
            line_.chassis = false;
        else
            return false;
        ++at_;
        return true;
    }

    const Plan& plan_;
    std::vector<std::string> words_;
    std::size_t at_ = 0;
    bool named_ = false;
    TypedLine line_;
};

}  // namespace

TypedLine read_line(const Plan& plan, std::string_view text) {
    return LineReader(plan, text).read();
}

}  // namespace yr
