#include "notes/statement.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

#include "control/circuit.h"
#include "notes/asides.h"
#include "notes/changes.h"
#include "notes/distances.h"
#include "notes/habits.h"
#include "notes/kinds.h"
#include "notes/load_names.h"
#include "notes/loose_words.h"
#include "notes/notes.h"
#include "notes/plain_words.h"
#include "notes/plan_text.h"
#include "notes/sets.h"
#include "notes/several.h"
#include "notes/shorthand.h"
#include "plan/rail_volts.h"
#include "plan/variant.h"
#include "size/run_limits.h"
#include "typing/battery_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

using K = StatementKind;

struct KindWord {
    std::string_view word;
    K kind;
    bool name_follows;  // words behind it are a name; else it is this kind only where a figure or a flag
                        // follows
};
constexpr KindWord kWords[] = {{"vehicle", K::vehicle, true},
                               {"place", K::place, true},
                               {"battery", K::battery, false},
                               {"alternator", K::alternator, false},
                               {"stator", K::stator, false},
                               {"starter", K::starter, false},
                               {"winch", K::winch, false},
                               {"converter", K::converter, false},
                               {"charger", K::charger, false},
                               {"solar", K::solar, false},
                               {"inverter", K::inverter, false},
                               {"box", K::box, true},
                               {"bus", K::bus, true},
                               {"stud", K::stud, true},
                               {"ground", K::ground, true},
                               {"chassis", K::chassis, true},
                               {"strap", K::strap, true},
                               {"cable", K::cable, true},
                               {"master", K::master, true},
                               {"relay", K::relay, true},
                               {"joiner", K::joiner, true},
                               {"connector", K::connector, true},
                               {"plug", K::connector, true},
                               {"cores", K::jacket, true},
                               {"state", K::state, true},
                               {"day", K::day, true},
                               {"stand", K::stand, true},
                               {"waypoint", K::waypoint, true},
                               {"way", K::way, true},
                               {"outline", K::outline, true},
                               {"price", K::shop, true},
                               {"rate", K::shop, true},
                               {"minutes", K::shop, true},
                               {"torque", K::shop, true},
                               {"likely", K::shop, true},
                               {"end", K::end, true},
                               {"reading", K::reading, true},
                               {"set", K::set, true},
                               {"remove", K::remove, true}};

std::string first_word(std::string_view text) {
    text = trim(text);
    return to_lower(text.substr(0, text.find_first_of(" \t,:")));
}

// A load may begin with such a word too ("box fan 5 W", "ground lights 10 W"): its draw tells it.
bool draws_watts(const Said& said) {
    return std::any_of(said.plain.begin(), said.plain.end(),
                       [](const Quantity& q) { return q.dimension == Dimension::power; });
}

// So does its current, where what else such a line must say is not there: "box fan 2 A" has no channels,
// "master cylinder pump 8 A" stands between nothing, "reading lamp 2 A" gives no volts.
bool draws_amps(const Plan& plan, K kind, const Said& said, std::string_view rest) {
    constexpr double kSmall_A = 15;  // what joins, shares out or parts is made for more
    const auto amps = said.plain_of(Dimension::current);
    static const Pattern name(
        R"(^\s*[a-z][a-z-]*(?:\s+[a-z][a-z-]*){0,2}?\s*[:,-]?\s*(?:(?:draws?|takes|uses|at|@)\s+)?(?:x\s*\d+\s+)?(?:[\d.]+\s*(?:-|to|\.\.)\s*)?[\d.]+\s*A(?:mps?)?\b)");
    if (!amps || !name.is_in(rest)) return false;
    static const Pattern parts(R"(\b(?:channels?|outputs?|ways?|pins?|cores?|poles?|main|cutoff)\b)");
    const bool ends = said.from || said.to || !said.between.empty();
    switch (kind) {
        case K::reading:
            return !said.plain_of(Dimension::voltage);
        case K::place:
        case K::ground:
        case K::chassis:
        case K::strap:
            return true;
        case K::box:
        case K::connector:
            return !parts.is_in(rest);
        case K::bus:
        case K::stud:
        case K::cable:
        case K::master:
        case K::joiner:
            return *amps <= kSmall_A && !ends;
        case K::relay:  // "relay fan 40 A" switches the fan that is there
            return *amps <= kSmall_A &&
                   std::none_of(plan.loads.begin(), plan.loads.end(), [&](const Load& l) {
                       return to_lower(rest).find(to_lower(l.name)) != std::string::npos;
                   });
        default:
            return false;
    }
}

// "rate controller 2 A on ignition" is a load: whatever draws and is not whole as a line of the shop.
bool is_shop_line(const Plan& plan, std::string_view word, std::string_view rest) {
    PlanBuilder trial(plan);
    std::vector<std::string> unknown;
    if (make_shop(trial, word, rest, unknown)) return true;
    const Said said = read_said(plan, rest, vocabulary_of(K::load));
    return std::none_of(said.plain.begin(), said.plain.end(), [](const Quantity& q) {
        return q.dimension == Dimension::power || q.dimension == Dimension::current;
    });
}

std::string_view behind_first(std::string_view text) {
    text = trim(text);
    const auto end = text.find_first_of(" \t,");
    return end == std::string_view::npos ? std::string_view() : text.substr(end);
}

// "rear light: 4x 20 W": the thing of that name, and what stands behind the colon.
std::optional<std::pair<Id, std::string>> named_with_colon(const Plan& plan, std::string_view text) {
    const auto colon = text.find(':');
    if (colon == std::string_view::npos) return std::nullopt;
    const std::string name = unquoted(text.substr(0, colon));
    Id id;
    each_list(plan, [&](const auto& things) {
        for (const auto& x : things)
            if (id.empty() && to_lower(x.name) == to_lower(name)) id = x.id;
    });
    if (id.empty()) return std::nullopt;
    return std::pair{id, std::string(trim(text.substr(colon + 1)))};
}

// "DC panel: lights 50 W, receiver 0.5 A": what stands behind the name of a block hangs on it.
bool lists_loads(const Plan& plan, const std::pair<Id, std::string>& named) {
    static const Pattern load(
        R"(^\s*(?!(?:main|standby|asleep|cutoff|fuse|breaker|from|to|in|bolt|at|by|with|for)\b)[a-z][a-z -]*\s.*\d\s*k?[WA]\b)");
    const Point* block = find(plan.points, std::string_view(named.first));
    return block && block->feeds_loads && load.is_in(named.second);
}

Made make(PlanBuilder& b, K kind, const Said& said, std::string_view text) {
    switch (kind) {
        case K::vehicle:
            return make_vehicle(b, said);
        case K::place:
            return make_place(b, said);
        case K::battery:
            return make_battery(b, said);
        case K::alternator:
            return make_alternator(b, said, false);
        case K::stator:
            return make_alternator(b, said, true);
        case K::starter:
            return make_starter(b, said);
        case K::winch:
            return make_winch(b, said);
        case K::converter:
            return make_converter(b, said);
        case K::charger:
            return make_charger(b, said);
        case K::solar:
            return make_solar(b, said);
        case K::inverter:
            return make_inverter(b, said);
        case K::box:
            return make_box(b, said);
        case K::bus:
            return make_point(b, said, PointKind::bus);
        case K::stud:
            return make_point(b, said, PointKind::stud);
        case K::ground:
            return make_point(b, said, PointKind::ground);
        case K::chassis:
            return make_point(b, said, PointKind::chassis);
        case K::strap:
            return make_strap(b, said);
        case K::cable:
            return make_cable(b, said);
        case K::master:
            return make_master(b, said);
        case K::relay:
            return make_relay(b, said);
        case K::joiner:
            return make_joiner(b, said);
        case K::connector:
            return make_connector(b, said);
        case K::jacket:
            return make_jacket(b, said);
        case K::state:
            return make_state(b, said, text);
        case K::reading:
            return make_reading(b, said);
        case K::nothing:
        case K::load:
        case K::change:
        case K::set:
        case K::remove:
        case K::block:
        case K::day:
        case K::stand:
        case K::waypoint:
        case K::way:
        case K::outline:
        case K::shop:
        case K::end:
            break;
    }
    return fail(ErrorCode::unknown_name, "line", std::string(text), Want::a_kind_of_thing);
}

// Switches that the edit brings and the plan did not know.
std::vector<std::string> new_switches(const Plan& before, const Edit& edit) {
    Plan after = before;
    if (!yr::apply(after, edit)) return {};
    const auto known = plan_switches(before);
    std::vector<std::string> fresh;
    for (const std::string& name : plan_switches(after))
        if (std::find(known.begin(), known.end(), name) == known.end()) fresh.push_back(name);
    return fresh;
}

// An edit that the plan does not take is none: its error says why.
void try_on(const Plan& plan, Statement& s) {
    if (!s.edit) return;
    Plan trial = plan;
    if (const auto done = yr::apply(trial, *s.edit); !done) {
        s.error = done.error();
        s.edit.reset();
        return;
    }
    s.new_switches = new_switches(plan, *s.edit);
}

// Nothing says when it runs, or nothing but key and engine.
bool asks_for_a_hand(const std::optional<Condition>& when) {
    if (!when) return true;
    Condition by_key;
    by_key.key = when->key, by_key.engine = when->engine;
    return *when == by_key && (by_key.key != Key::off || by_key.engine != Engine::any);
}

// What is made for mains alone, at watts that no such thing for a battery has; common practice, no source.
bool runs_on_mains(const Plan& plan, const TypedLine& line) {
    constexpr double kLeast_W = 500;
    static const Pattern mains(
        R"(\b(?:kettle|microwave(?: oven)?|toaster|hair ?dryer|induction(?: (?:hob|cooker|plate|stove))?|heat pump|(?:tumble )?dryer|washer|dish ?washer|(?:electric )?oven|(?:air )?fryer|blender|washing machine|(?:coffee|espresso) (?:machine|maker)|iron|vacuum(?: cleaner)?|(?:slow|rice) cooker)s?$)");
    return plan.inverters.size() == 1 && line.inverter.empty() && !line.said_V && line.feed.empty() &&
           line.draw && line.draw->kind == DrawKind::power && line.draw->value >= kLeast_W &&
           mains.is_in(to_lower(line.name));
}

Statement read_load(const Plan& plan, std::string_view text, const Library* library) {
    Statement s;
    s.kind = K::load;
    s.load = read_line(plan, text, library);
    if (runs_on_mains(plan, *s.load)) s.load = read_line(plan, std::string(text) + ", on inverter", library);
    s.not_understood = s.load->not_understood;
    const std::string named = to_lower(s.load->name);
    const bool quoted = trim(text).starts_with('"');  // whoever calls it so means it
    // no load, whatever amps it says; "fuse box light" is one
    static const Pattern guards(
        R"(^(?:main )?(?:fuse|breaker|circuit breaker)s?$|^(?:fuse|breaker|circuit breaker) (?!.*\b(?:lights?|lamps?|leds?|display|fans?|buzzer|alarm)$)|\b(?:fuses|breakers)$)");
    if (!quoted && guards.is_in(named)) {
        s.error = Error{ErrorCode::unknown_name, "line", s.load->name, Want::a_fuse_said_with_its_cable};
        s.load.reset();
        return s;
    }
    const auto draw_in_units = [&](DrawKind kind) {
        return s.load->draw && s.load->draw->kind == kind ? s.load->draw->value : 0;
    };
    static const Pattern hours(R"(\d\s*(?:Ah|CCA)\b)");
    static const Pattern given(
        R"(\d\s*A\s+(?:alternator|stator)\b|^(?!.*\b(?:on|via|from|off|through)\b.*\binverter\b).*\d\s*k?W\s+inverter\b)");
    if (!quoted && (hours.is_in(text) || given.is_in(text) ||
                    names_no_load(named, draw_in_units(DrawKind::current), draw_in_units(DrawKind::power)))) {
        s.error = Error{ErrorCode::unknown_name, "line", s.load->name, Want::a_kind_of_thing};
        s.load.reset();
        return s;
    }
    s.doubt = s.load->doubt;
    if (s.doubt) return s;
    // without its inverter it would hang on the battery
    for (const std::string& word : s.not_understood)
        if (const std::string lower = to_lower(word); !quoted && (lower == "inverter" || lower == "mains")) {
            s.error = Error{ErrorCode::missing_reference, "line", lower, Want::something_that_is_in_the_plan};
            return s;
        }
    if (const std::string open = quoted ? std::string() : ends_no_name(named); !open.empty())
        s.not_understood.push_back(open);
    if (const auto volts = s.load->other_rail_V) {
        s.error =
            Error{ErrorCode::missing_reference, "line", shown(*volts) + " V", Want::a_rail_of_these_volts};
        return s;
    }
    if (s.load->fuse_A && !s.load->inverter.empty())  // it hangs on a plug, without a cable of ours
        s.not_understood.push_back(s.load->breaker ? "breaker" : "fuse");
    if (!s.load->live_when) {
        s.load->live_when = usual_condition(plan, *s.load);
        if (const auto turn_s = usual_turn_s(*s.load); turn_s && !s.load->details.on_s)
            s.load->details.on_s = turn_s;
    }
    // what is said to run for so long at once is switched on by somebody: one of its own
    if (s.load->details.on_s && s.load->inverter.empty() && asks_for_a_hand(s.load->live_when)) {
        if (!s.load->live_when) s.load->live_when = Condition{};
        s.load->live_when->switches = {s.load->name};
    }
    const auto circuit = make_circuit(plan, *s.load);
    if (!circuit) {
        s.error = circuit.error();
        return s;
    }
    s.about = circuit->load;
    s.edit = circuit->edit;
    return s;
}

}  // namespace

namespace {

StatementKind kind_in_our_words(const Plan& plan, std::string_view text) {
    text = trim(text);
    if (text.empty() || text[0] == '#') return K::nothing;
    if (const auto named = named_with_colon(plan, text); named && !lists_loads(plan, *named))
        return K::change;
    std::string word = first_word(text);
    std::string_view rest = behind_first(text);
    if (word == "second" || word == "another") {
        const std::string next = first_word(rest);
        if (next == "battery" || next == "alternator") word = next, rest = behind_first(rest);
    }
    for (const KindWord& k : kWords) {
        if (word != k.word) continue;
        // "reading light @ 5 A", "day light 5 A": what they say is no reading, nor the hours of a day
        static const Pattern light(R"(^\s*(?:time\s+)?(?:leds?\s+)?(?:lights?|lamps?|spots?)\b)");
        if ((k.kind == K::reading || k.kind == K::day || k.kind == K::ground) && light.is_in(rest))
            return K::load;
        if (k.kind == K::set || k.kind == K::remove || k.kind == K::day || k.kind == K::vehicle ||
            k.kind == K::state)
            return k.kind;
        // with a colon only: "stand light 5 W" and "way light 5 W" are loads
        if (k.kind == K::stand || k.kind == K::waypoint || k.kind == K::way || k.kind == K::end) {
            if (text.find(':') == std::string_view::npos) return K::load;
            return k.kind;
        }
        if (k.kind == K::outline) return k.kind;
        if (k.kind == K::shop) return is_shop_line(plan, word, rest) ? k.kind : K::load;
        const Said said = read_said(plan, rest, vocabulary_of(k.kind));
        const bool watts_belong = k.kind == K::solar || k.kind == K::inverter || k.kind == K::starter;
        if (draws_watts(said) && !watts_belong) return K::load;
        if (draws_amps(plan, k.kind, said, rest)) return K::load;
        if (k.name_follows || said.name.empty()) return k.kind;
        // "inverter fan 5 W" is a load; "inverter "big one" 1500 W" is none
        return trim(rest).starts_with('"') ? k.kind : K::load;
    }
    return K::load;
}

}  // namespace

StatementKind kind_of_line(const Plan& plan, std::string_view text) {
    return kind_in_our_words(plan, in_our_words(plan, text));
}

namespace {

// "on leisure battery": what charges gives to it, what feeds draws on it.
void take_battery_named(K kind, Said& said) {
    if (!said.on) return;
    const bool charges = kind == K::charger || kind == K::solar;
    const bool draws =
        kind == K::bus || kind == K::box || kind == K::stud || kind == K::inverter || kind == K::converter;
    if (charges && !said.to) said.to = said.on;
    if (draws && !said.from) said.from = said.on;
}

Statement read_kind(const Plan& plan, K kind, std::string_view text, const Library* library) {
    Statement s;
    s.kind = kind;
    if (kind == K::nothing) return s;
    if (kind == K::load) {
        s = read_load(plan, text, library);
    } else if (kind == K::change) {
        const auto named = named_with_colon(plan, text);
        s = read_change(plan, named->first, named->second);
    } else if (kind == K::outline) {
        s = read_outline(plan, behind_first(text));
    } else if (kind == K::shop) {
        PlanBuilder b(plan);
        if (const Made made = make_shop(b, first_word(text), behind_first(text), s.not_understood))
            s.edit = b.finish();
        else
            s.error = made.error();
    } else if (kind == K::day || kind == K::end || kind == K::stand || kind == K::waypoint ||
               kind == K::way) {
        PlanBuilder b(plan);
        const auto make_it = kind == K::day        ? make_day
                             : kind == K::end      ? make_end
                             : kind == K::stand    ? make_stand
                             : kind == K::waypoint ? make_waypoint
                                                   : make_way;
        if (const Made made = make_it(b, behind_first(text), s.not_understood)) {
            s.about = *made;
            s.edit = b.finish();
        } else {
            s.error = made.error();
        }
    } else if (kind == K::set) {
        s = read_set(plan, behind_first(text));
    } else if (kind == K::remove) {
        s = read_remove(plan, behind_first(text));
    } else {
        std::string rest(behind_first(text));
        const std::string word = first_word(text);
        if (word == "second" || word == "another") rest = " " + word + std::string(behind_first(rest));
        Said said = read_said(plan, rest, vocabulary_of(kind));
        take_battery_named(kind, said);
        s.not_understood = said.not_understood;
        s.doubt = said.doubt;
        s.switched_on = said.switched_on;
        if (kind == K::state)  // what a thing takes is said of the thing, not of a state
            for (const Quantity& q : said.plain)
                if (q.dimension == Dimension::current || q.dimension == Dimension::power)
                    s.not_understood.push_back(shown(q.value) +
                                               (q.dimension == Dimension::current ? " A" : " W"));
        PlanBuilder b(plan);
        const Made made = said.missing_end.empty()
                              ? make(b, kind, said, rest)
                              : Made(fail(ErrorCode::missing_reference, "line", said.missing_end,
                                          Want::something_that_is_in_the_plan));
        if (made) {
            s.about = *made;
            s.edit = b.finish();
        } else {
            s.error = made.error();
        }
    }
    try_on(plan, s);
    return s;
}

bool feeds_something(const Plan& plan) {
    return std::any_of(plan.points.begin(), plan.points.end(), [&](const Point& p) {
        return p.feeds_loads && suits_plain_loads(plan, Terminal(p.id));
    });
}

}  // namespace

Statement read_lines(const Plan& plan, std::vector<std::string> lines, const Library* library) {
    Statement s;
    s.kind = K::block;
    s.lines = std::move(lines);
    std::string page;
    for (const std::string& line : s.lines) page += line + "\n";
    const Notes notes = read_page(plan, page, library);
    for (const NoteLine& line : notes.lines) {
        if (s.about.empty()) s.about = line.statement.about;
        if (!s.doubt) s.doubt = line.statement.doubt;
        for (const std::string& word : line.statement.not_understood) s.not_understood.push_back(word);
        for (const std::string& place : line.statement.new_places) s.new_places.push_back(place);
        if (line.statement.error && !s.error) {
            s.error = line.statement.error;
            s.error->place = line.text;
        }
    }
    if (notes.things) s.error = notes.things;
    if (!s.error) s.edit = edit_between(plan, notes.plan);
    try_on(plan, s);
    return s;
}

namespace {

Statement read_block(const Plan& plan, const SetEntry& set, std::string_view text, const Library* library) {
    FilledSet filled = fill_set(set, text);
    Library others = library ? *library : Library();
    others.sets.clear();  // a set is made of lines, not of sets
    Statement s = read_lines(plan, std::move(filled.lines), &others);
    s.not_understood.insert(s.not_understood.begin(), filled.not_understood.begin(),
                            filled.not_understood.end());
    return s;
}

std::string block_name(int number) {
    return number > 1 ? "block " + std::to_string(number) : "main block";
}

// A block beside the battery, as bare vehicles have it, and a bus for returns: the post is for a few lugs.
struct MainBlock {
    Plan plan;  // with it
    Batch edits;
    Id id;
};
std::optional<MainBlock> main_block_for(const Plan& plan, int number = 1, const Battery* of = nullptr) {
    // what is added to a vehicle hangs on the battery that was added for it, not on the one that must start
    // it
    const Battery& battery = of ? *of : battery_to_live_from(plan);
    const bool first = &battery == &plan.batteries.front();
    std::string place = of || !first ? ", from \"" + battery.name + "\"" : "";
    if (!battery.place.empty()) place += ", " + name_of(plan, battery.place);
    MainBlock laid{plan, {}, {}};
    Id negative;
    const std::string behind = number > 1 ? " " + std::to_string(number) : "";
    // the whole supply of a scooter or a mower is a few ampere (common practice, no source)
    constexpr double kSmall_Ah = 30, kSmall_A = 40;
    double given_A = 0;
    for (const Source& s : plan.sources) given_A += s.rated_A.value_or(0);
    const bool small = battery.capacity_Ah && *battery.capacity_Ah <= kSmall_Ah && given_A <= kSmall_A;
    for (const std::string& line :
         {fmt::format("bus \"negative bus{}\" negative for {} A, 0.5 m", behind, small ? 45 : 120),
          fmt::format("bus \"{}\" for {} A, 0.5 m", block_name(number), small ? 30 : 80)}) {
        const Statement bus = read_kind(laid.plan, K::bus, line + place, nullptr);
        if (!bus.edit || !yr::apply(laid.plan, *bus.edit)) return std::nullopt;
        laid.edits.edits.push_back(*bus.edit);
        negative = laid.id;
        laid.id = bus.about;
    }
    Point main = *find(laid.plan.points, std::string_view(laid.id));
    main.return_at = negative;
    laid.edits.edits.emplace_back(Put<Point>{main, {}});
    if (!yr::apply(laid.plan, laid.edits.edits.back())) return std::nullopt;
    return laid;
}

// A light load that found the blocks full which were laid before, and so hangs on the battery's post: another
// block is laid for it and for what comes behind it.
std::optional<Statement> on_another_block(const Plan& plan, const Statement& s, const std::string& text) {
    if (s.kind != K::load || !s.edit || !s.load || !s.load->feed.empty()) return std::nullopt;
    Plan after = plan;
    if (!yr::apply(after, *s.edit)) return std::nullopt;
    const Load* load = find(after.loads, std::string_view(s.about));
    const Run* feed = load ? supply_run(after, load->id) : nullptr;
    if (!feed || !find(plan.batteries, feed->from.owner) || nominal_A(after, *load) >= kOwnCable_A)
        return std::nullopt;
    const auto on = [&](const Plan& with, int number) {
        return read_kind(with, K::load, text + ", from " + block_name(number), nullptr);
    };
    int number = 1;
    for (;; ++number) {
        const auto point = std::find_if(plan.points.begin(), plan.points.end(),
                                        [&](const Point& p) { return p.name == block_name(number); });
        if (point == plan.points.end()) break;
        if (!bears(plan, *point, nominal_A(after, *load))) continue;
        Statement there = on(plan, number);
        return there.whole() ? std::optional(there) : std::nullopt;
    }
    if (number == 1) return std::nullopt;  // its buses are somebody's own
    auto block = main_block_for(plan, number);
    if (!block) return std::nullopt;
    Statement on_it = on(block->plan, number);
    if (!on_it.whole() || on_it.not_understood.size() > s.not_understood.size()) return std::nullopt;
    block->edits.edits.push_back(*on_it.edit);
    on_it.edit = Edit(std::move(block->edits));
    on_it.block = block->id;
    return on_it;
}

// "lights 30 W 12 V" of a 24 V vehicle with a 12 V battery to live from: a block beside that battery.
std::optional<Statement> on_battery_of_its_volts(const Plan& plan, const Statement& s,
                                                 const std::string& text, const Library* library) {
    if (s.kind != K::load || !s.error || !s.load) return std::nullopt;
    const double wanted_V = s.load->other_rail_V.value_or(s.load->said_V.value_or(0));
    if (wanted_V <= 0 || (!s.load->other_rail_V && !feeds_something(plan))) return std::nullopt;
    constexpr double kAlike_V = 4;
    for (const Battery& b : plan.batteries) {
        if (std::abs(battery_V(plan, b) - wanted_V) > kAlike_V) continue;
        int number = 1;
        while (std::any_of(plan.points.begin(), plan.points.end(),
                           [&](const Point& p) { return p.name == block_name(number); }))
            ++number;
        auto block = main_block_for(plan, number, &b);
        if (!block) return std::nullopt;
        Statement on_it = read_kind(block->plan, K::load, text, library);
        if (!on_it.edit) return std::nullopt;
        // what has a cable of its own goes to the battery itself
        Plan with = block->plan;
        const bool applied = yr::apply(with, *on_it.edit).has_value();
        const Load* load = applied ? find(with.loads, std::string_view(on_it.about)) : nullptr;
        if (load && nominal_A(with, *load) >= kOwnCable_A)
            if (Statement direct = read_kind(plan, K::load, text + ", from " + b.name, library);
                direct.edit && direct.not_understood.size() <= on_it.not_understood.size())
                return direct;
        block->edits.edits.push_back(*on_it.edit);
        on_it.edit = Edit(std::move(block->edits));
        on_it.block = block->id;
        return on_it;
    }
    return std::nullopt;
}

Statement read_whole(const Plan& plan, const std::string& text, const Library* library) {
    if (const SetEntry* set = library ? set_on_line(*library, text) : nullptr)
        return read_block(plan, *set, text, library);
    Statement s = read_kind(plan, kind_of_line(plan, text), text, library);
    if (auto moved = on_another_block(plan, s, text)) return std::move(*moved);
    if (auto there = on_battery_of_its_volts(plan, s, text, library)) return std::move(*there);
    if (s.kind == K::nothing || !s.error || plan.batteries.empty() || feeds_something(plan)) return s;
    // what wants a feed where there is none yet brings one
    auto block = main_block_for(plan);
    if (!block) return s;
    Statement on_it = read_kind(block->plan, kind_of_line(block->plan, text), text, library);
    if (!on_it.edit) return s;
    block->edits.edits.push_back(*on_it.edit);
    on_it.edit = Edit(std::move(block->edits));
    on_it.block = block->id;
    return on_it;
}

}  // namespace

Statement read_placed(const Plan& plan, const std::string& text, const Library* library) {
    Statement s = read_whole(plan, text, library);
    const auto place = s.not_understood.empty() ? std::nullopt : new_place(plan, text);
    if (!place) return s;
    Plan with = plan;
    with.places.push_back(*place);
    Statement there = read_whole(with, text, library);
    if (!there.edit || there.not_understood.size() >= s.not_understood.size()) return s;
    there.edit = Edit(Batch{{Edit(Put<Place>{*place, {}}), *there.edit}});
    there.new_places.push_back(place->name);
    return there;
}

std::vector<Statement> readings(const Plan& plan, std::string_view line, const Library* library) {
    const std::string text = in_our_words(plan, line);
    std::vector<Statement> whole;
    const auto consider = [&](Statement s) {
        if (s.whole() && (whole.empty() || s.not_understood.empty())) whole.push_back(std::move(s));
    };
    const Statement first = read_statement(plan, text, library);
    consider(first);
    if (first.kind == K::nothing || first.kind == K::change) return whole;
    if (first.kind != K::load) consider(read_kind(plan, K::load, text, library));
    for (const KindWord& k : kWords)
        if (k.word == first_word(text) && k.kind != first.kind && k.kind != K::set && k.kind != K::remove)
            consider(read_kind(plan, k.kind, text, library));
    return whole;
}

}  // namespace yr
