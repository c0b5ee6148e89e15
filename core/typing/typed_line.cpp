#include "typing/typed_line.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "plan/rail_volts.h"
#include "typing/battery_words.h"
#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

// "30 %" alone is no drop that anybody allows, it is a share of time: beyond 10 %, the most that ABYC E-11
// and ISO 10133 allow any circuit (from memory); of what works in turns beyond 5 %, since a pump's "10 %" is
// how often it runs (common practice, no source).
constexpr double kLargestDrop = 0.10, kLargestDropOfTurns = 0.05;

// Whether so large a share, said of a thing of that name without a word more, is one of the time.
bool is_of_time(const std::string& name, double share) {
    static const Pattern in_turns(
        R"(\b(?:pumps?|compressors?|fridges?|freezers?|coolers?|macerators?|toilets?|horns?|wipers?|heaters?|kettles?|motors?|winch(?:es)?|lifts?|actuators?|solenoids?|valves?)\b)");
    constexpr double kNearly = 1e-9;
    return share > kNearly + (in_turns.is_in(name) ? kLargestDropOfTurns : kLargestDrop) && share <= 1;
}

class LineReader {
  public:
    LineReader(const Plan& plan, std::string_view text)
        : plan_(plan), words_(split_line(text)), condition_(plan) {
        condition_.takes_new_switches();
    }

    TypedLine read() {
        while (!words_.done()) {
            if (const auto& word = words_.word(); !word.quoted && two_readings(word.text)) {
                read_doubt(word.text);
                continue;
            }
            const bool known =
                !words_.word().quoted &&
                (read_fuse() || read_feed() || read_inverter() || read_condition() || read_inrush() ||
                 read_marked() || read_quantity() || read_size() || read_flag() || read_place());
            if (known) {
                named_ = named_ || !line_.name.empty();
                continue;
            }
            // Words before the first thing understood are the name; later ones are not understood.
            if (!named_)
                line_.name += (line_.name.empty() ? "" : " ") + words_.word().text;
            else
                line_.not_understood.push_back(words_.word().text);
            words_.skip(1);
        }
        if (line_.name.size() > 1 && line_.name.back() == ':')
            line_.name.pop_back();  // "roof lights: 4x 27 W"
        line_.live_when = condition_.result();
        if (resistive_) take_resistive();
        return std::move(line_);
    }

  private:
    void read_doubt(const std::string& text) {
        if (!line_.doubt) {
            const auto both = *two_readings(text);
            const std::string unit = text.substr(text.find_first_of(",.") + 4);
            std::string small = fmt::format("{:g}", both.second);
            if (two_readings(small)) small += "0";
            line_.doubt = TypedLine::Doubt{text, fmt::format("{:.0f}", both.first) + unit, small + unit};
        }
        named_ = named_ || !line_.name.empty();
        words_.skip(find_unit(words_.lower(1)) ? 2 : 1);
    }

    // "fuse 10 A", "10 A fuse", "on 15 A breaker", "fused at 5 A"
    bool read_fuse() {
        if (!line_.draw && !words_.word().after_comma) return false;  // "main fuse 150 A" is no load
        const std::string w = words_.lower();
        std::size_t ahead = w == "on" || w == "with" || w == "by" || w == "via" ? 1 : 0, used = 0;
        if (const std::string next = words_.lower(ahead); ahead && (next == "a" || next == "its")) ++ahead;
        const auto is_fuse = [](const std::string& word) {
            return word == "fuse" || word == "breaker" || word == "fused";
        };
        const std::string word = words_.lower(ahead);
        if (is_fuse(word)) {
            const std::size_t behind = ahead + (words_.lower(ahead + 1) == "at" ? 2 : 1);
            const auto q = words_.quantity(behind, used);
            if (!q || q->dimension != Dimension::current || !(q->value > 0)) return false;
            take_fuse(q->value, word == "breaker");
            words_.skip(behind + used);
            return true;
        }
        const auto q = words_.quantity(ahead, used);
        if (!q || q->dimension != Dimension::current || !(q->value > 0)) return false;
        const std::string what = words_.lower(ahead + used);
        std::size_t next = 0;  // "4 A fuse 10 A": what follows the word is the fuse's
        const auto behind = words_.quantity(ahead + used + 1, next);
        if (!is_fuse(what) || what == "fused" || (behind && behind->dimension == Dimension::current))
            return false;
        take_fuse(q->value, what == "breaker");
        words_.skip(ahead + used + 1);
        return true;
    }
    void take_fuse(double rating_A, bool breaker) { line_.fuse_A = rating_A, line_.breaker = breaker; }

    bool read_feed() {
        if (words_.lower() == "channel") return read_channel(0);
        std::size_t used = 0;
        const std::string lead = words_.lower();
        const bool from = lead == "from" || lead == "via" || lead == "through";
        if (!from && lead != "on") return false;
        const std::size_t ahead = words_.lower(1) == "the" ? 2 : 1;
        Id feed = words_.named(
            plan_.points, ahead, [](const Point& p) { return p.feeds_loads; }, used);
        if (feed.empty()) feed = supply_named(ahead, used, from);
        if (feed.empty()) return false;
        line_.feed = feed;
        words_.skip(ahead + used);
        return true;
    }

    // "from second battery": by a cable of its own. "from the converter": from the bus behind it. "from main
    // block": whatever feeds loads, where nothing is called so.
    // "on leisure bank": a battery alone; "on battery" is a condition.
    Id supply_named(std::size_t ahead, std::size_t& used, bool from) const {
        const auto any = [](const auto&) { return true; };
        if (Id battery = words_.named(plan_.batteries, ahead, any, used);
            !battery.empty() && (from || used > 1))
            return battery;
        const auto says = [&](const char* words, std::size_t count) {
            used = count;
            return words_.has(ahead + count) && to_lower(words_.joined(ahead, count)) == words;
        };
        for (const std::size_t count : {3, 2, 1})
            if (const Id meant = battery_meant_by(plan_, to_lower(words_.joined(ahead, count)));
                words_.has(ahead + count) && !meant.empty() && (from || count > 1))
                return used = count, meant;
        if (!from) return {};
        Id source = words_.named(plan_.sources, ahead, any, used);
        if (source.empty() && says("converter", 1))
            for (const Source& s : plan_.sources)
                if (source.empty() && s.kind == SourceKind::converter) source = s.id;
        for (const Run& r : plan_.runs)
            if (const Point* bus = find(plan_.points, r.to);
                !source.empty() && r.from == out_of(source) && bus && bus->feeds_loads)
                return bus->id;
        if (says("main block", 2) || says("fuse block", 2) || says("main bus", 2) || says("fuse box", 2))
            for (const Point& p : plan_.points)
                if (p.feeds_loads) return p.id;
        return {};
    }

    bool read_channel(std::size_t ahead) {
        const std::string number = words_.lower(ahead + 1);
        if (number.empty() || number.size() > 3 ||
            number.find_first_not_of("0123456789") != std::string::npos)
            return false;
        line_.channel = std::stoi(number);
        words_.skip(ahead + 2);
        return true;
    }

    // "on mains", "on the inverter", "from inverter 1500 W": the first inverter unless it is named.
    bool read_inverter() {
        const std::string lead = words_.lower();
        if ((lead != "on" && lead != "from" && lead != "behind" && lead != "via" && lead != "through") ||
            plan_.inverters.empty())
            return false;
        std::size_t ahead = words_.lower(1) == "the" ? 2 : 1, used = 0;
        const Id named = words_.named(
            plan_.inverters, ahead, [](const Inverter&) { return true; }, used);
        if (!named.empty()) {
            line_.inverter = named;
            words_.skip(ahead + used);
            return true;
        }
        if (words_.lower(ahead) != "mains" && words_.lower(ahead) != "inverter") return false;
        line_.inverter = plan_.inverters.front().id;
        words_.skip(ahead + 1);
        return true;
    }

    // Behind a comma, or behind in, at, behind, or once its draw is known: before that it may be part of a
    // name
    // ("rear work lights").
    bool read_place() {
        const std::string w = words_.lower();
        const bool lead = w == "in" || w == "inside" || w == "at" || w == "behind" || w == "under" ||
                          w == "beside" || w == "on" || w == "place";
        if (!lead && !words_.word().after_comma && !line_.draw && !named_) return false;
        const std::size_t behind = words_.lower(1) == "the" ? 2 : 1;
        for (const std::size_t ahead : {std::size_t{0}, lead ? behind : std::size_t{0}})
            if (take_place(ahead)) return true;  // a place may be called "behind the cab" itself
        return false;
    }

    bool take_place(std::size_t ahead) {
        std::size_t used = 0;
        const Id place = words_.named(
            plan_.places, ahead, [](const Place&) { return true; }, used);
        if (place.empty()) return false;
        line_.place = place;
        words_.skip(ahead + used);
        return true;
    }

    bool read_condition() { return condition_.read(words_, !line_.name.empty()); }

    bool read_inrush() {
        const auto is_word = [](const std::string& w) {
            return w == "inrush" || w == "start" || w == "surge";
        };
        const auto is_start = [](const std::optional<Quantity>& q) {
            return q && (q->dimension == Dimension::current || q->dimension == Dimension::power) &&
                   q->value > 0;
        };
        std::size_t used = 0;
        if (is_word(words_.lower())) {
            if (const auto times = multiple(1)) {
                start_times_ = times;
                words_.skip(2);
                return read_start_time();
            }
            const auto q = words_.quantity(1, used);
            if (!is_start(q)) return false;
            (q->dimension == Dimension::current ? line_.inrush_A : line_.start_W) = q->value;
            words_.skip(1 + used);
            return read_start_time();
        }
        const auto q = words_.quantity(0, used);
        if (!is_start(q) || !is_word(words_.lower(used))) return false;
        std::size_t next = 0;  // "6 A start 12 A": the start is what follows the word
        if (is_start(words_.quantity(used + 1, next)) || multiple(used + 1)) return false;
        (q->dimension == Dimension::current ? line_.inrush_A : line_.start_W) = q->value;
        words_.skip(used + 1);
        return read_start_time();
    }

    // "3x" after "start"
    std::optional<double> multiple(std::size_t ahead) const {
        std::string w = words_.lower(ahead);
        if (w.size() < 2 || w.back() != 'x') return std::nullopt;
        w.pop_back();
        const auto number = parse_value(w, Dimension::number);
        return number && *number >= 1 && *number <= 50 ? std::optional(*number) : std::nullopt;
    }

    bool read_start_time() {  // "for 0.5 s" behind a start
        std::size_t used = 0;
        if (words_.done() || words_.lower() != "for" || words_.word().after_comma) return true;
        const auto q = words_.quantity(1, used);
        if (!q || q->dimension != Dimension::time || !(q->value > 0 && q->value <= 3600)) return true;
        line_.details.inrush_s = q->value;
        words_.skip(1 + used);
        return true;
    }

    // Quantities that a word before them gives their meaning: "at 13.8 V", "duty 30 %".
    bool read_marked() {
        std::size_t used = 0;
        const std::string w = words_.lower();
        if (w == "at") {
            const auto q = words_.quantity(1, used);
            if (!q || q->dimension != Dimension::voltage || !(q->value > 0 && q->value <= 400)) return false;
            line_.details.plate_V = q->value;
        } else if (w == "needs") {  // "needs 11.5 V"
            const auto q = words_.quantity(1, used);
            if (!q || q->dimension != Dimension::voltage || !(q->value > 0 && q->value <= 100)) return false;
            line_.details.least_V = q->value;
        } else if (w == "duty") {
            const auto q = words_.quantity(1, used);
            double share = q && q->dimension == Dimension::fraction ? q->value : 0;
            if (const auto bare = parse_value(words_.lower(1), Dimension::number); !q && bare)
                share = *bare, used = 1;  // 0.35
            if (!(share > 0 && share <= 1)) return false;
            line_.details.duty = share;
        } else if (w == "drop") {  // "drop 12 %", where a share alone would be one of time
            const auto q = words_.quantity(1, used);
            if (!q || q->dimension != Dimension::fraction || !(q->value > 0 && q->value <= 1)) return false;
            line_.drop_limit = q->value;
        } else if (w == "for") {
            const auto q = words_.quantity(1, used);
            if (!q || q->dimension != Dimension::time || !(q->value > 0 && q->value <= 86400)) return false;
            line_.details.on_s = q->value;
        } else if (w == "together" || w == "apart") {
            if (words_.lower(1).empty()) return false;
            (w == "together" ? line_.details.together : line_.details.apart) = words_.joined(1, 1);
            used = 1;
        } else {
            return false;
        }
        words_.skip(1 + used);
        return true;
    }

    bool read_quantity() {
        std::size_t used = 0;
        double least = 0;
        auto q = words_.range(0, used, least);
        const bool ranged = q.has_value() && least > 0;
        if (!q &&
            words_.lower().find("..") != std::string::npos) {  // a range the wrong way round, or of what?
            line_.not_understood.push_back(words_.word().text);
            words_.skip(1);
            return true;
        }
        if (!q) q = words_.quantity(0, used);
        if (!q || !(q->value > 0)) return read_count();
        // "light bar 30″ 150 W": how large it is, not how far away
        if (q->dimension == Dimension::length && !named_ && !line_.draw &&
            words_.joined(0, used).ends_with("\xE2\x80\xB3"))
            return false;
        if (ranged && (q->dimension == Dimension::power || q->dimension == Dimension::current))
            line_.draw_least = least;
        switch (q->dimension) {
            case Dimension::power:
                return take_draw(DrawKind::power, *q, used);
            case Dimension::current:
                return take_draw(DrawKind::current, *q, used);
            case Dimension::resistance:
                return take_draw(DrawKind::resistance, *q, used);
            case Dimension::length:
                line_.length_m = q->value;
                if (ranged) line_.length_least_m = least;
                break;
            case Dimension::fraction:
                if (const std::size_t said = share_of_time(used)) {
                    if (q->value > 1) return false;
                    line_.details.duty = q->value;
                    used += said;
                } else if (is_of_time(line_.name, q->value)) {
                    line_.details.duty = q->value;
                } else {
                    line_.drop_limit = q->value;
                }
                break;
            case Dimension::voltage:
                if (!take_volts(q->value)) line_.other_rail_V = q->value;
                if (q->count > 1 && line_.count == 1) line_.count = q->count;  // "4x 24 V 35 W"
                break;
            case Dimension::number:
            case Dimension::area:
            case Dimension::temperature:
            case Dimension::charge:
            case Dimension::time:
            case Dimension::speed:
                return false;  // an area is a wire size, read next; degrees say nothing here
        }
        words_.skip(used);
        return true;
    }

    // "radio 8 A 12 V": of a rail that the plan has; the load hangs on the first feed of it.
    bool take_volts(double volts) {
        constexpr double kAlike_V = 3;                                   // 13.8 V is said of a 12 V rail
        if (volts >= 100 && volts <= 250 && !plan_.inverters.empty()) {  // "kettle 800 W 230 V"
            if (line_.inverter.empty()) line_.inverter = plan_.inverters.front().id;
            return true;
        }
        if (std::abs(volts - plan_.vehicle.nominal_V) < kAlike_V) {
            line_.said_V = volts;
            return true;
        }
        for (const Point& p : plan_.points)
            if (p.feeds_loads && std::abs(volts - rail_V(plan_, p.id)) < kAlike_V) {
                line_.said_V = rail_V(plan_, p.id);
                // made for more than the vehicle has: nobody need wonder at its volts
                if (volts > plan_.vehicle.nominal_V && !line_.details.plate_V) line_.details.plate_V = volts;
                return true;
            }
        return false;
    }

    // "35 % duty", "35 % of the time": so many words say what the share is of.
    std::size_t share_of_time(std::size_t ahead) const {
        if (words_.lower(ahead) == "duty") return 1;
        if (words_.lower(ahead) != "of") return 0;
        if (words_.lower(ahead + 1) == "the" && words_.lower(ahead + 2) == "time") return 3;
        return words_.lower(ahead + 1) == "time" ? 2 : 0;
    }

    bool take_draw(DrawKind kind, const Quantity& q, std::size_t used) {
        if (line_.draw) return false;  // a second draw is not understood
        line_.draw = Draw{kind, q.value};
        draw_first_ = line_.name.empty();
        if (q.count > 1) line_.count = q.count;
        words_.skip(used);
        return true;
    }

    // "two work lights 45 W each"
    bool read_number_word() {
        if (named_ || !line_.name.empty() || line_.count != 1 || !words_.has(2)) return false;
        // "two 19 A" is a thing called two
        const std::string next = words_.lower(1);
        if (next.empty() || (next[0] >= '0' && next[0] <= '9')) return false;
        for (const char* one_word : {"way", "stage", "speed", "pole", "tone", "axle"})  // "two way radio"
            if (next == one_word) return false;
        static constexpr const char* kNumbers[] = {"two",   "three", "four", "five", "six",
                                                   "seven", "eight", "nine", "ten"};
        for (int k = 0; k < 9; ++k)
            if (words_.lower() == kNumbers[k]) {
                line_.count = k + 2;
                words_.skip(1);
                return true;
            }
        return false;
    }

    bool read_count() {  // "2x" alone, "x2", or "12 lamps" at the beginning
        if (read_number_word()) return true;
        std::string w = words_.lower();
        if (!named_ && line_.name.empty() && line_.count == 1 && !w.empty() && w.size() <= 3 &&
            w.find_first_not_of("0123456789") == std::string::npos && words_.has(2) &&
            !words_.lower(1).empty() && !find_unit(words_.lower(1)) && std::stoi(w) > 1) {
            line_.count = std::stoi(w);
            words_.skip(1);
            return true;
        }
        if (w.size() < 2 || w.size() > 4 || (w.back() != 'x' && w.front() != 'x')) return false;
        w.erase(w.back() == 'x' ? w.size() - 1 : 0, 1);
        if (w.find_first_not_of("0123456789") != std::string::npos || w == "0" || std::stoi(w) < 1)
            return false;
        line_.count = std::stoi(w);
        words_.skip(1);
        return true;
    }

    bool read_size() {
        for (std::size_t count = 2; count >= 1; --count) {
            if (!words_.has(count)) continue;
            const std::string text = words_.joined(0, count);
            const bool marked = text.find("/0") != std::string::npos ||
                                to_lower(text).find("awg") != std::string::npos ||
                                to_lower(text).find("sae") != std::string::npos ||
                                to_lower(text).find("mm") != std::string::npos;
            const auto size = parse_wire_size(text);
            if (!marked || !size || !conductor(*size)) continue;
            line_.size = *size;
            words_.skip(count);
            return true;
        }
        return false;
    }

    bool read_flag() {
        const std::string w = words_.lower();
        std::size_t used = 1;
        if (w == "mains" && !plan_.inverters.empty() && line_.inverter.empty()) {
            line_.inverter = plan_.inverters.front().id;
        } else if (line_.draw &&
                   (w == "each" || w == "ea" ||
                    (!draw_first_ &&
                     (w == "led" || w == "leds" || w == "halogen" || w == "compressor" || w == "motor" ||
                      w == "amber" || w == "blue" || w == "white" || w == "green" || w == "yellow")))) {
            // "two work lights 45 W each": a draw is of one in any case; what it is inside, or its light: its
            // draw is said
        } else if (w == "critical") {
            line_.critical = true;
        } else if (w == "chassis" || w == "grounded") {
            line_.chassis = true;
        } else if (w == "home-run" || w == "homerun") {
            line_.chassis = false;
        } else if (w == "own" && words_.lower(1) == "ground") {
            line_.details.own_ground = true;
            used = 2;
        } else if (w == "pure" && words_.lower(1) == "sine") {
            line_.details.needs_pure_sine = true;
            used = 2;
        } else if (w == "resistive") {
            resistive_ = true;
        } else {
            return false;
        }
        words_.skip(used);
        return true;
    }

    // A lamp or heater: its watts or amps hold at the volts of its plate, and fall with them.
    void take_resistive() {
        if (!line_.draw || line_.draw->kind == DrawKind::resistance) return;
        Plate plate;
        plate.volts = line_.details.plate_V;
        (line_.draw->kind == DrawKind::power ? plate.watts : plate.amps) = line_.draw->value;
        plate.behaves = DrawKind::resistance;
        if (const auto draw = draw_from_plate(plate, plan_.vehicle.nominal_V)) line_.draw = *draw;
    }

  public:
    // Amps of a start that was typed as a multiple, once the draw is known.
    static void finish(TypedLine& line, std::optional<double> times, double nominal_V) {
        if (!times || !line.draw) return;
        const Draw& d = *line.draw;
        const double amps = d.kind == DrawKind::current ? d.value
                            : d.kind == DrawKind::power ? d.value / nominal_V
                                                        : nominal_V / d.value;
        line.inrush_A = *times * amps;
    }
    [[nodiscard]] std::optional<double> start_times() const { return start_times_; }

  private:
    const Plan& plan_;
    LineCursor words_;
    ConditionReader condition_;
    bool named_ = false, resistive_ = false;
    bool draw_first_ = false;  // "5 A air compressor": what follows is its name
    std::optional<double> start_times_;
    TypedLine line_;
};

// What the line leaves open, from the library's entry of that name.
void fill(TypedLine& line, const LoadEntry& entry, const Plan& plan) {
    const Load typed = line.details;
    const Load& from = entry.load;
    line.details = from;
    line.details.name.clear();
    line.entry = from.name;
    line.draw = from.draw;
    if (!line.inrush_A) line.inrush_A = from.inrush_A;
    if (!line.start_W) line.start_W = from.start_W;
    if (!line.live_when) line.live_when = from.live_when;
    if (!line.drop_limit) line.drop_limit = from.drop_limit;
    line.critical = line.critical || from.critical;
    if (typed.duty) line.details.duty = typed.duty;
    if (typed.on_s) line.details.on_s = typed.on_s;
    if (typed.inrush_s) line.details.inrush_s = typed.inrush_s;
    if (typed.plate_V) line.details.plate_V = typed.plate_V;
    if (typed.least_V) line.details.least_V = typed.least_V;
    line.details.own_ground = from.own_ground || typed.own_ground;
    line.details.needs_pure_sine = from.needs_pure_sine || typed.needs_pure_sine;
    line.details.together = typed.together;
    line.details.apart = typed.apart;
    if (entry.mains && line.inverter.empty() && !plan.inverters.empty())
        line.inverter = plan.inverters.front().id;
}

std::string trimmed_number(double value) {
    char text[40];
    std::snprintf(text, sizeof text, "%.10g", value);
    return text;
}

std::string key_text(const Condition& c) {
    if (c.engine == Engine::running) return "running";
    if (c.engine == Engine::stopped) return "engine stopped";
    switch (c.key) {
        case Key::accessory:
            return "accessory";
        case Key::ignition:
            return "ignition";
        case Key::crank:
            return "cranking";
        case Key::off:
            break;
    }
    return {};
}

}  // namespace

TypedLine read_line(const Plan& plan, std::string_view text, const Library* library) {
    LineReader reader(plan, text);
    TypedLine line = reader.read();
    if (library && !line.draw && !line.name.empty())
        if (const LoadEntry* entry = entry_named(*library, line.name)) fill(line, *entry, plan);
    LineReader::finish(line, reader.start_times(), plan.vehicle.nominal_V);
    return line;
}

std::string typed_condition(const Plan& plan, const Condition& c) {
    std::vector<std::string> parts;
    if (const std::string key = key_text(c); !key.empty()) parts.push_back(key);
    if (c.engine == Engine::stopped && c.key > Key::off) {
        Condition key_alone = c;
        key_alone.engine = Engine::any;
        parts.push_back(key_text(key_alone));
    }
    for (const std::string& s : c.switches) parts.push_back("switch \"" + s + "\"");
    for (const std::string& s : c.switches_off) parts.push_back("switch \"" + s + "\" off");
    for (const Id& id : c.circuits) parts.push_back(name_of(plan, id) + " running");
    std::string text;
    for (const std::string& part : parts) text += (text.empty() ? "on " : " and ") + part;
    if (!c.any_of.empty()) {
        std::string any;
        for (const Condition& one : c.any_of) {
            std::string part = typed_condition(plan, one);
            if (part.starts_with("on ")) part.erase(0, 3);
            any += (any.empty() ? "on " : " or ") + part;
        }
        text += (text.empty() ? "" : ", ") + any;
    }
    if (c.not_cranking) text += (text.empty() ? "" : ", ") + std::string("not while cranking");
    if (c.charging_above_V)
        text += (text.empty() ? "" : ", ") + ("charging above " + trimmed_number(*c.charging_above_V) + " V");
    if (c.delay_s) text += (text.empty() ? "" : ", ") + ("after " + trimmed_number(*c.delay_s) + " s");
    if (c.holds_s) text += (text.empty() ? "" : ", ") + ("stays " + trimmed_number(*c.holds_s) + " s");
    const auto warmth = [&](const char* word, double at_C, double back_C) {
        text += (text.empty() ? "" : ", ") + std::string(c.air == Air::engine_bay ? "bay " : "") + word +
                " than " + trimmed_number(at_C) + " C";
        if (c.within_K) text += " back at " + trimmed_number(back_C) + " C";
    };
    if (c.above_C) warmth("warmer", *c.above_C, *c.above_C - c.within_K.value_or(0));
    if (c.below_C) warmth("colder", *c.below_C, *c.below_C + c.within_K.value_or(0));
    return text;
}

std::string typed_text(const Plan& plan, const Load& l) {
    const TypedLine alone = read_line(plan, l.name + " 1 W");
    const bool plain =
        alone.name == l.name && alone.not_understood.empty() && alone.draw == Draw{DrawKind::power, 1};
    std::string text = plain ? l.name : "\"" + l.name + "\"";
    const auto add = [&](const std::string& part) { text += ", " + part; };
    const char* unit = l.draw.kind == DrawKind::power     ? " W"
                       : l.draw.kind == DrawKind::current ? " A"
                                                          : " ohm";
    text += " " + (l.count > 1 ? std::to_string(l.count) + "x " : "") + trimmed_number(l.draw.value) + unit;
    if (l.plate_V) text += " at " + trimmed_number(*l.plate_V) + " V";
    if (l.inrush_A) add("start " + trimmed_number(*l.inrush_A) + " A");
    if (l.start_W) add("start " + trimmed_number(*l.start_W) + " W");
    if (l.inrush_s && (l.inrush_A || l.start_W)) text += " for " + trimmed_number(*l.inrush_s) + " s";
    if (l.on_s) add("for " + trimmed_number(*l.on_s) + " s");
    if (l.duty) add("duty " + trimmed_number(*l.duty * 100) + " %");
    if (!l.inverter.empty()) add("on " + name_of(plan, l.inverter));
    const std::string when = typed_condition(plan, l.live_when);
    add(when.empty() ? "always" : when);
    const Run* run = supply_run(plan, l.id);
    if (run && run->length_m)
        add((run->length_least_m ? trimmed_number(*run->length_least_m) + ".." : std::string()) +
            trimmed_number(*run->length_m) + " m");
    if (run && run->size) add(name_of(*run->size));
    if (!l.place.empty()) add(name_of(plan, l.place));
    if (run && (find(plan.points, run->from) || find(plan.batteries, run->from.owner)))
        add("from " + name_of(plan, run->from.owner));
    if (run && run->channel > 0) add("channel " + std::to_string(run->channel));
    if (l.critical) add("critical");
    if (l.least_V) add("needs " + trimmed_number(*l.least_V) + " V");
    if (l.drop_limit)
        add((is_of_time(l.name, *l.drop_limit) ? "drop " : "") + trimmed_number(*l.drop_limit * 100) + " %");
    if (l.own_ground) add("own ground");
    if (l.needs_pure_sine) add("pure sine");
    if (!l.together.empty()) add("together " + l.together);
    if (!l.apart.empty()) add("apart " + l.apart);
    return text;
}

Result<Draw> draw_from_plate(const Plate& plate, double nominal_V) {
    for (const auto& value : {plate.volts, plate.watts, plate.amps, plate.ohms})
        if (value && !(*value > 0))
            return fail(ErrorCode::out_of_range, "plate", trimmed_number(*value), Want::more_than_0);
    const double volts =
        plate.volts.value_or(plate.watts && plate.amps ? *plate.watts / *plate.amps : nominal_V);
    double amps = 0;
    if (plate.amps)
        amps = *plate.amps;
    else if (plate.watts)
        amps = *plate.watts / volts;
    else if (plate.ohms)
        amps = volts / *plate.ohms;
    else
        return fail(ErrorCode::empty, "plate", {}, Want::watts_amps_or_ohms);
    switch (plate.behaves) {
        case DrawKind::current:
            return Draw{DrawKind::current, amps};
        case DrawKind::power:
            return Draw{DrawKind::power, plate.watts && !plate.amps ? *plate.watts : amps * volts};
        case DrawKind::resistance:
            return Draw{DrawKind::resistance,
                        plate.ohms && !plate.amps && !plate.watts ? *plate.ohms : volts / amps};
    }
    return fail(ErrorCode::empty, "plate", {}, Want::how_it_behaves);
}

}  // namespace yr
