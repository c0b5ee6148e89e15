#include "words/meter_words.h"

#include <algorithm>
#include <cmath>

#include "io/csv_table.h"
#include "plan/lists.h"
#include "units/text.h"
#include "words/say.h"
#include "words/sentences.h"

namespace yr::words {
namespace {

std::string state_name(const Plan& plan, const Id& state) {
    return state.empty() ? std::string(translated("every negative off its battery"))
                         : yr::name_of(plan, state);
}

Terminal minus_of(const Plan& plan, const Probing& w) {
    if (!w.black.empty() || plan.batteries.empty()) return w.black;
    return neg_of(plan.batteries.front().id);
}

Dimension dimension(ReadKind kind) {
    return kind == ReadKind::volts  ? Dimension::voltage
           : kind == ReadKind::amps ? Dimension::current
                                    : Dimension::resistance;
}

}  // namespace

Dimension dimension_of(ReadKind kind) {
    return dimension(kind);
}

std::string value_text(ReadKind kind, double value, const Style& style) {
    return quantity(value, dimension(kind), style);
}

std::string where_text(const Plan& plan, const Probing& w) {
    if (w.kind == ReadKind::amps) return say("clamp round {0}", yr::name_of(plan, w.run));
    return say("{0} to {1}", terminal(plan, w.red), terminal(plan, minus_of(plan, w)));
}

std::string sentence(const Plan& plan, const Probing& w) {
    std::string text;
    if (w.kind == ReadKind::amps) {
        const Run* r = find(plan.runs, std::string_view(w.run));
        text = r ? say("Clamp round {0}, its arrow from {1} to {2}, {3}", r->name, terminal(plan, r->from),
                       terminal(plan, r->to), state_name(plan, w.state))
                 : std::string(translated("Clamp"));
    } else if (w.kind == ReadKind::ohms) {
        text = say("Ohms from {0} to {1}, {2}", terminal(plan, w.red), terminal(plan, minus_of(plan, w)),
                   state_name(plan, w.state));
    } else {
        text = say("Red on {0}, black on {1}, {2}", terminal(plan, w.red), terminal(plan, minus_of(plan, w)),
                   state_name(plan, w.state));
    }
    for (const Id& id : w.unplugged) text += say(", {0} not plugged in", yr::name_of(plan, id));
    return text + ".";
}

std::string band_text(const TestPoint& t, const Style& style) {
    const auto text = [&](double v) { return value_text(t.where.kind, v, style); };
    if (!t.expected.solved) return translated("no answer");
    if (t.phase == ProvePhase::isolation) return say("{0} or more", text(t.low));
    if (t.low <= 0 && t.where.kind != ReadKind::amps) return say("{0} or less", text(t.high));
    return say("{0} to {1}", text(t.low), text(t.high));
}

const char* name_of(ProvePhase phase) {
    switch (phase) {
        case ProvePhase::isolation:
            return translated("Negative off: nothing touches ground");
        case ProvePhase::continuity:
            return translated("Negative off: every return is there");
        case ProvePhase::no_load:
            return translated("Every plug has its volts before anything is hooked up");
        case ProvePhase::charging:
            return translated("Charging at idle");
        case ProvePhase::under_load:
            return translated("Under load");
        case ProvePhase::master:
            return translated("The master");
        case ProvePhase::standby:
            return translated("At rest");
        case ProvePhase::cranking:
            return translated("Cranking");
    }
    return "";
}

std::string phase_text(const Plan& plan, const TestPoint& t) {
    std::string phase = name_of(t.phase);
    if (t.phase == ProvePhase::isolation || t.phase == ProvePhase::continuity) return phase;
    return phase + ": " + state_name(plan, t.where.state);
}

const char* name_of(Verdict v) {
    switch (v) {
        case Verdict::good:
            return translated("good");
        case Verdict::high:
            return translated("high");
        case Verdict::low:
            return translated("low");
        case Verdict::cannot_tell:
            return translated("cannot tell");
    }
    return "";
}

std::string outside_means(const Plan& plan, const TestPoint& t, Verdict v) {
    const std::string thing = yr::name_of(plan, t.thing);
    const bool high = v == Verdict::high;
    if (v == Verdict::good) return {};
    if (v == Verdict::cannot_tell)
        return translated("What the plan leaves open is wider than a fault would be: no judgement.");
    switch (t.phase) {
        case ProvePhase::isolation:
            return say(
                "Something behind {0} touches ground, or a load is still plugged in: find it before any "
                "power.",
                thing);
        case ProvePhase::continuity:
            return say("The return of {0} is loose, painted over or not connected.", thing);
        case ProvePhase::no_load:
            return high ? say("{0} gets more than its battery has: another rail is on its plug.",
                              capital(thing))
                        : say("A fuse, a switch or a joint in the feed of {0}, or its wires are exchanged.",
                              thing);
        case ProvePhase::charging:
            if (t.where.kind == ReadKind::amps)
                return high ? say("More than planned is charged or drawn through {0}.", thing)
                            : say("{0} gives less than planned: belt, fuse, sensing wire, or its battery is "
                                  "full.",
                                  capital(thing));
            return high ? say("{0} is charged too high: regulator or its sensing.", capital(thing))
                        : say("{0} is not charged as planned: regulator, charge cable, ground of the source.",
                              capital(thing));
        case ProvePhase::under_load: {
            std::string names;
            for (const Id& id : t.sees) names += (names.empty() ? "" : ", ") + yr::name_of(plan, id);
            return high ? say("A joint or a thin cable on the way of {0}: {1}.", thing, names)
                        : say("{0} draws less than planned, or is not on.", capital(thing));
        }
        case ProvePhase::master:
            return translated("Something feeds round the open master.");
        case ProvePhase::standby:
            return high ? std::string(translated("Something draws that should sleep: wait for it, then "
                                                 "millivolts across the fuses."))
                        : std::string(translated("Less than planned: a unit is not there or asleep."));
        case ProvePhase::cranking:
            if (t.where.black == neg_of(t.thing))
                return high ? std::string(translated("The starter draws less than planned."))
                            : say("{0} is weak or not full, or the starter takes too much.", capital(thing));
            return high ? std::string(translated(
                              "A joint in the starter's circuit: 0.5 V lost in all is the service limit."))
                        : std::string(translated("The starter draws less than planned."));
    }
    return {};
}

std::string fault_kind_text(FaultKind kind) {
    switch (kind) {
        case FaultKind::none:
            return translated("nothing wrong");
        case FaultKind::open:
            return translated("a cable without a fuse, broken or off");
        case FaultKind::fuse:
            return translated("a fuse blown, missing or not seated");
        case FaultKind::contact:
            return translated("a switch or relay that does not close");
        case FaultKind::stuck:
            return translated("a switch or relay that does not open");
        case FaultKind::joint:
            return translated("a bad joint of a cable");
        case FaultKind::ground:
            return translated("a ground loose or rusted");
        case FaultKind::thin:
            return translated("a cable thinner or longer than planned");
        case FaultKind::leak:
            return translated("a cable that leaks to ground");
        case FaultKind::battery_weak:
            return translated("a battery that is weak");
        case FaultKind::battery_low:
            return translated("a battery that is not full");
        case FaultKind::charge_none:
            return translated("an alternator or charger that gives nothing");
        case FaultKind::charge_low:
            return translated("an alternator or charger set too low");
        case FaultKind::charge_high:
            return translated("an alternator or charger set too high");
        case FaultKind::load_dead:
            return translated("a load that is dead itself");
        case FaultKind::load_heavy:
            return translated("a load that draws more than planned");
        case FaultKind::swapped:
            return translated("two channels exchanged");
    }
    return {};
}

std::string sentence(const Plan& plan, const Fault& f) {
    std::string thing = capital(yr::name_of(plan, f.thing));
    switch (f.kind) {
        case FaultKind::none:
            return translated("Nothing is wrong");
        case FaultKind::open:
            return say("{0}: broken, or off at one end", thing);
        case FaultKind::fuse:
            return say("{0}: its fuse blown or missing, or the cable broken", thing);
        case FaultKind::contact:
            return say("{0}: its switch or relay does not close", thing);
        case FaultKind::stuck:
            return say("{0}: its switch or relay does not open", thing);
        case FaultKind::joint:
            return say("{0}: a bad joint", thing);
        case FaultKind::ground:
            return say("{0}: its bond loose or rusted", thing);
        case FaultKind::thin:
            return say("{0}: thinner or longer than planned", thing);
        case FaultKind::leak:
            return say("{0}: leaks to ground", thing);
        case FaultKind::battery_weak:
            return say("{0}: weak", thing);
        case FaultKind::battery_low:
            return say("{0}: not full", thing);
        case FaultKind::charge_none:
            return say("{0}: gives nothing", thing);
        case FaultKind::charge_low:
            return say("{0}: set or reads too low", thing);
        case FaultKind::charge_high:
            return say("{0}: set or reads too high", thing);
        case FaultKind::load_dead:
            return say("{0}: dead itself", thing);
        case FaultKind::load_heavy:
            return say("{0}: draws more than planned", thing);
        case FaultKind::swapped:
            return say("{0} and {1}: exchanged", thing, yr::name_of(plan, f.other));
    }
    return thing;
}

std::string strength_text(const Suspect& s, const Style& style) {
    if (!s.fault.graded() || s.strength_high <= 0) return {};
    switch (s.fault.kind) {
        case FaultKind::joint:
        case FaultKind::ground:
            return say("{0} to {1} more", quantity(s.strength_low, Dimension::resistance, style),
                       quantity(s.strength_high, Dimension::resistance, style));
        case FaultKind::leak:
            return say("{0} to {1}", quantity(s.strength_low, Dimension::resistance, style),
                       quantity(s.strength_high, Dimension::resistance, style));
        case FaultKind::battery_low:
        case FaultKind::charge_low:
        case FaultKind::charge_high:
            return say("by {0} to {1}", quantity(s.strength_low, Dimension::voltage, style),
                       quantity(s.strength_high, Dimension::voltage, style));
        default:
            return say("{0} to {1} times", number(s.strength_low, 2), number(s.strength_high, 2));
    }
}

std::string mend_text(const Fault& f) {
    switch (f.kind) {
        case FaultKind::none:
            return {};
        case FaultKind::ground:
            return translated(
                "Bare both faces, bolt with a toothed washer, guard against rust. Then read again.");
        case FaultKind::joint:
            return translated(
                "Pull each crimp, clean each bolt, tighten to its torque; look for heat marks. Then read "
                "again.");
        case FaultKind::fuse:
            return translated("Look why it blew before another of the same rating goes in. Then read again.");
        case FaultKind::open:
        case FaultKind::contact:
            return translated("Follow it by hand from end to end; listen for the click. Then read again.");
        case FaultKind::stuck:
            return translated("Exchange the relay or switch; listen for the click. Then read again.");
        case FaultKind::thin:
            return translated("Compare size and length with the wire table. Then read again.");
        case FaultKind::leak:
            return translated("Unplug at both ends and look for chafed insulation. Then read again.");
        case FaultKind::battery_weak:
        case FaultKind::battery_low:
            return translated("Charge it full by itself, let it rest four hours, load it and read again.");
        case FaultKind::charge_none:
        case FaultKind::charge_low:
        case FaultKind::charge_high:
            return translated(
                "Belt, exciter and sensing wire, its own ground; then the regulator. Then read again.");
        case FaultKind::load_dead:
        case FaultKind::load_heavy:
            return translated("Try it on a bench supply by itself. Then read again.");
        case FaultKind::swapped:
            return translated("Exchange the two at the box. Then read again.");
    }
    return {};
}

std::string outcomes(const Plan& plan, const NextReading& n, const Style& style) {
    std::string text;
    const auto value = [&](double v) { return value_text(n.where.kind, v, style); };
    if (n.sound.solved) text = say("{0} if all is well", value(n.sound.value));
    for (const auto& [thing, v] : n.if_it_is) {
        if (thing.empty()) continue;
        text += (text.empty() ? "" : "; ") + say("about {0}: {1}", value(v), yr::name_of(plan, thing));
    }
    return text + ".";
}

std::string sentence(const Plan& plan, const NextReading& n, const Style& style) {
    return sentence(plan, n.where) + " " + outcomes(plan, n, style);
}

std::string sentence(const Plan& plan, const Complaint& c) {
    const std::string load = capital(yr::name_of(plan, c.load)), state = yr::name_of(plan, c.state);
    switch (c.seen) {
        case Seen::dead:
            return say("“{0}: dead, {1}.”", load, state);
        case Seen::weak:
            return say("“{0}: weak, {1}.”", load, state);
        case Seen::works:
            return say("“{0}: works, {1}.”", load, state);
    }
    return {};
}

std::string sentence(const Plan& plan, const Drift& d, const Style& style) {
    return say("{0}: {1} on {2}, {3} on {4}{5}", where_text(plan, d.first.where),
               value_text(d.first.where.kind, *d.first.value, style), d.first.when.substr(0, 10),
               value_text(d.last.where.kind, *d.last.value, style), d.last.when.substr(0, 10),
               d.out_now ? translated(": outside the band of then") : "");
}

std::string sentence(const PlugVerdict& v, const std::vector<int>& pins) {
    const auto number_of = [&](std::size_t k) { return k < pins.size() ? pins[k] : static_cast<int>(k) + 1; };
    const int pin = number_of(v.pin), with = number_of(v.with);
    switch (v.kind) {
        case PlugVerdict::Kind::good:
            return say("Pin {0} is right.", pin);
        case PlugVerdict::Kind::open:
            return say("Pin {0} is open.", pin);
        case PlugVerdict::Kind::swapped:
            return say("Pin {0} has the wire of pin {1}.", pin, with);
        case PlugVerdict::Kind::joined:
            return say("Pins {0} and {1} touch.", pin, with);
        case PlugVerdict::Kind::unknown:
            return say("Pin {0} reads what no single mistake gives.", pin);
    }
    return {};
}

const char* name_of(PracticeLevel level) {
    switch (level) {
        case PracticeLevel::open_circuit:
            return translated("one open circuit");
        case PracticeLevel::bad_ground:
            return translated("a bad ground or joint");
        case PracticeLevel::wrong_size:
            return translated("a wrong size or load");
        case PracticeLevel::two_at_once:
            return translated("two at once");
        case PracticeLevel::with_heat:
            return translated("comes with heat");
    }
    return "";
}

Result<Terminal> terminal_named(const Plan& plan, const std::string& text, const std::string& place) {
    const auto plain = [](std::string t) {
        t = to_lower(std::string(trim(t)));
        for (std::size_t at = 0; (at = t.find("\xE2\x88\x92")) != std::string::npos;) t.replace(at, 3, "-");
        return t;
    };
    const std::string wanted = plain(text);
    std::optional<Terminal> found;
    const auto look = [&](const Terminal& t) {
        if (plain(t.text()) == wanted || plain(terminal(plan, t)) == wanted) found = t;
    };
    for (const Run& r : plan.runs) look(r.from), look(r.to);
    for (const Point& p : plan.points) look(p.id);
    for (const Battery& b : plan.batteries) look(pos_of(b.id)), look(neg_of(b.id));
    for (const Load& l : plan.loads) look(pos_of(l.id)), look(neg_of(l.id));
    if (!found) return fail(ErrorCode::missing_reference, place, text, Want::a_terminal_of_this_plan);
    return *found;
}

namespace {

enum class Head { other, red, black, run, state, volts, amps, ohms };
Head head_of(const std::string& text) {
    const std::string t = to_lower(std::string(trim(text)));
    if (t == "red") return Head::red;
    if (t == "black") return Head::black;
    if (t == "run" || t == "cable") return Head::run;
    if (t == "state") return Head::state;
    if (t == "volts" || t == "v") return Head::volts;
    if (t == "amps" || t == "a") return Head::amps;
    if (t == "ohms" || t == "ohm") return Head::ohms;
    return Head::other;
}

template <class T>
const T* named(const std::vector<T>& things, const std::string& text) {
    for (const T& t : things)
        if (t.id == text || to_lower(t.name) == to_lower(text)) return &t;
    return nullptr;
}

}  // namespace

Result<std::vector<Reading>> read_readings(const Plan& plan, const std::string& csv) {
    std::vector<std::size_t> lines;
    const auto rows = split_csv(csv, &lines);
    if (rows.size() < 2) return fail(ErrorCode::empty, "readings", {}, Want::a_table_of_readings);
    std::vector<Head> heads;
    for (const std::string& h : rows.front()) heads.push_back(head_of(h));
    std::vector<Reading> all;
    for (std::size_t k = 1; k < rows.size(); ++k) {
        Reading r;
        bool value = false;
        for (std::size_t c = 0; c < std::min(rows[k].size(), heads.size()); ++c) {
            const std::string cell(trim(rows[k][c]));
            const std::string place = say("line {0}, {1}", lines[k], rows.front()[c]);
            if (cell.empty()) continue;
            switch (heads[c]) {
                case Head::red:
                case Head::black: {
                    const auto t = terminal_named(plan, cell, place);
                    if (!t) return tl::unexpected(t.error());
                    (heads[c] == Head::red ? r.where.red : r.where.black) = *t;
                    break;
                }
                case Head::run: {
                    const Run* run = named(plan.runs, cell);
                    if (!run)
                        return fail(ErrorCode::missing_reference, place, cell, Want::a_run_of_this_plan);
                    r.where.run = run->id;
                    break;
                }
                case Head::state: {
                    const State* s = named(plan.states, cell);
                    if (!s)
                        return fail(ErrorCode::missing_reference, place, cell, Want::a_state_of_this_plan);
                    r.where.state = s->id;
                    break;
                }
                case Head::volts:
                case Head::amps:
                case Head::ohms: {
                    r.where.kind = heads[c] == Head::volts  ? ReadKind::volts
                                   : heads[c] == Head::amps ? ReadKind::amps
                                                            : ReadKind::ohms;
                    const auto v = parse_value(cell, dimension(r.where.kind));
                    if (!v) {
                        Error e = v.error();
                        e.place = place;
                        return tl::unexpected(e);
                    }
                    r.value = *v, value = true;
                    break;
                }
                case Head::other:
                    break;
            }
        }
        if (!value) return fail(ErrorCode::empty, say("line {0}", lines[k]), {}, Want::a_table_of_readings);
        const bool ohms = r.where.kind == ReadKind::ohms;
        if (!ohms && r.where.state.empty())
            return fail(ErrorCode::empty, say("line {0}, state", lines[k]), {}, Want::a_state_of_this_plan);
        if (r.where.kind == ReadKind::amps ? r.where.run.empty() : r.where.red.empty())
            return fail(ErrorCode::empty, say("line {0}", lines[k]), {}, Want::a_terminal_of_this_plan);
        all.push_back(std::move(r));
    }
    return all;
}

Result<Complaint> read_complaint(const Plan& plan, const std::string& text) {
    Complaint c;
    const std::string t = to_lower(text);
    // the longest load name that the text begins with, then what is seen, then the state
    std::size_t longest = 0;
    for (const Load& l : plan.loads)
        if (t.starts_with(to_lower(l.name)) && l.name.size() > longest)
            longest = l.name.size(), c.load = l.id;
    if (c.load.empty())
        return fail(ErrorCode::missing_reference, "complaint", text, Want::a_load_of_this_plan);
    std::string rest(trim(t.substr(longest)));
    const std::pair<const char*, Seen> words[] = {{"is ", Seen::works}, {"dead", Seen::dead},
                                                  {"weak", Seen::weak}, {"slow", Seen::weak},
                                                  {"dim", Seen::weak},  {"works", Seen::works}};
    bool found = false;
    for (const auto& [word, seen] : words)
        if (rest.starts_with(word)) {
            rest = std::string(trim(rest.substr(std::string(word).size())));
            if (std::string(word) != "is ") c.seen = seen, found = true;
        }
    if (!found) return fail(ErrorCode::unknown_name, "complaint", text, Want::a_load_of_this_plan);
    if (rest.starts_with("in ")) rest = rest.substr(3);
    for (const State& s : plan.states)
        if (to_lower(s.name) == rest || s.id == rest) c.state = s.id;
    if (c.state.empty())
        return fail(ErrorCode::missing_reference, "complaint", text, Want::a_state_of_this_plan);
    return c;
}

Sheet test_sheet(const Plan& plan, const ProvePlan& points) {
    Sheet s{translated("Readings to take"),
            {translated("number"), translated("what it proves"), translated("where the probes go"),
             translated("should be"), translated("read")},
            {}};
    double n = 0;
    for (const TestPoint& t : points.points)
        s.rows.push_back({++n, std::string(name_of(t.phase)) + ": " + yr::name_of(plan, t.thing),
                          sentence(plan, t.where), band_text(t), std::string("........")});
    return s;
}

namespace {

// What a line that is no reading is about.
std::string about_text(const Plan& plan, const Record& r) {
    if (r.kind == RecordKind::as_built && r.about == "plan") return translated("kept as it was built");
    if (r.kind == RecordKind::as_built && r.about.empty()) return translated("the whole vehicle");
    if (r.kind == RecordKind::signature) return translated("signed: proved and handed over");
    return r.about.empty() ? std::string() : yr::name_of(plan, r.about);
}

}  // namespace

Sheet record_sheet(const Plan& plan, const std::vector<Record>& records) {
    Sheet s{translated("Record"),
            {translated("when"), translated("by"), translated("what"), translated("read"),
             translated("should be"), translated("verdict"), translated("note")},
            {}};
    for (const Record& r : records) {
        const bool reading = r.kind == RecordKind::reading && r.value;
        s.rows.push_back({r.when, r.by, reading ? where_text(plan, r.where) : about_text(plan, r),
                          reading ? value_text(r.where.kind, *r.value) : std::string(),
                          r.low && r.high && reading ? say("{0} to {1}", value_text(r.where.kind, *r.low),
                                                           value_text(r.where.kind, *r.high))
                                                     : std::string(),
                          r.verdict, r.note});
    }
    return s;
}

}  // namespace yr::words
