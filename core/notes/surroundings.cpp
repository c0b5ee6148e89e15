// The vehicle itself, its places, its states, and what a meter read on it, from their lines.
#include <algorithm>
#include <cmath>

#include "notes/kinds.h"
#include "notes/listed_states.h"
#include "plan/condition.h"
#include "plan/names.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

bool mentions(std::string_view text, std::string_view words) {
    return to_lower(text).find(words) != std::string::npos;
}

// A vehicle on a traction battery, or one that is towed, has no engine: of the states that every vehicle
// begins with, those in which one turns over or idles go, and driving is the key alone.
void no_engine(PlanBuilder& b) {
    if (!b.plan().sources.empty() || !b.plan().loads.empty()) return;
    for (const State& s : std::vector<State>(b.plan().states)) {
        if (s.key == Key::crank || s.role == StateRole::idling) {
            b.add(Remove<State>{s.id});
        } else if (s.rpm > 0) {
            State still = s;
            still.rpm = 0, still.engine_bay_C = still.ambient_C;
            b.put(still);
        }
    }
    for (Battery battery : std::vector<Battery>(b.plan().batteries))
        if (battery.name == "starter battery") {  // it starts nothing
            battery.name = "battery";
            b.put(battery);
        }
}

}  // namespace

Made make_vehicle(PlanBuilder& b, const Said& said) {
    Vehicle v = b.plan().vehicle;
    if (!said.name.empty()) v.name = said.name;
    if (const auto volts = said.plain_of(Dimension::voltage)) {
        if (*volts != 12 && *volts != 24 && *volts != 48)
            return fail(ErrorCode::out_of_range, "vehicle", std::to_string(std::lround(*volts)) + " V",
                        Want::rail_volts);
        v.nominal_V = *volts;
    }
    if (said.has("aluminium")) v.chassis = Chassis::aluminium;
    if (said.has("no chassis") || said.has("none")) v.chassis = Chassis::none;
    b.add(SetVehicle{v});
    const std::string words = to_lower(v.name);
    // "tow car with boat trailer" is of what tows
    static const Pattern tows(
        R"(\b(?:with|and|tow|towing|tows|car|truck|van|vehicle|pickup|tractor)\b|[+&])");
    const bool towed = (words.ends_with("trailer") || words.ends_with("caravan")) && !tows.is_in(words);
    if (v.nominal_V == 48 || towed || said.has("no engine")) no_engine(b);
    return Id{};
}

Made make_place(PlanBuilder& b, const Said& said) {
    if (said.name.empty()) return missing("name", Want::a_name_for_it);
    Place p;
    for (const Place& known : b.plan().places)
        if (to_lower(known.name) == to_lower(said.name)) p = known;
    if (p.id.empty()) p.id = b.id("place"), p.name = said.name;
    p.engine_space = p.engine_space || said.has("hot") || said.has("engine space");
    b.put(p);
    return p.id;
}

bool has_turned_source(const Plan& plan) {
    return std::any_of(plan.sources.begin(), plan.sources.end(), [](const Source& s) {
        return s.kind == SourceKind::alternator || s.kind == SourceKind::stator;
    });
}

// Who says that it idles or drives and nothing of key and engine means both as they are then: as in the
// plan's own state of that kind, else at usual revolutions (common practice, no source).
void turn_as_usual(const Plan& plan, State& s, std::string_view text) {
    const bool says_engine = mentions(text, "engine") || mentions(text, "rpm"),
               says_key = mentions(text, "key");
    const bool turns = has_turned_source(plan);
    constexpr double kIdling_rpm = 800, kDriving_rpm = 2000;
    const StateRole as = s.role == StateRole::driving ? StateRole::driving : StateRole::idling;
    double rpm = !turns ? 0 : as == StateRole::idling ? kIdling_rpm : kDriving_rpm;
    for (const State& known : plan.states)
        if (known.role == as && known.id != s.id && known.rpm > 0) rpm = known.rpm;
    if (!says_engine && s.rpm <= 0) s.rpm = rpm;
    if (!says_key && s.key == Key::off) s.key = Key::ignition;
}

// "night shift: headlights, beacon": where nothing is said of key and engine they are as what is named needs
// them, and nobody leaves the key on for long with the engine standing.
void run_as_what_is_named(const Plan& plan, const std::vector<Id>& named, State& s, std::string_view text) {
    static const Pattern stands(
        R"(\b(?:over ?night|parked|camp\w*|moor(?:ed|ing)|berth\w*|docked|(?:at )?anchor\w*|sleep\w*|stand\w*|stopped|waiting|rest\w*|lunch|break)\b|^(?:at )?night$)");
    if (mentions(text, "key") || mentions(text, "engine") || stands.is_in(s.name) || s.key != Key::off)
        return;
    static const Pattern under_sail(R"(\b(?:under )?sail(?:s|ing)?\b|\bdrifting\b)");
    // what machines do, of one that has a battery for its engine alone
    static const Pattern machine_work(
        R"(\b(?:spray|mow|spread|plou?(?:gh|w)|seed|dig|bal|harvest|sweep|grad|pav|drill|till|dump|chip|grit|salt|trench|groom|dredg|shovel|winch|scrap)(?:p|t|d|l|g)?ing\b)");
    bool by_key = has_turned_source(plan) && plan.batteries.size() == 1 && machine_work.is_in(s.name);
    if (by_key) s.key = Key::ignition;
    for (const Id& id : named)
        if (const Load* load = find(plan.loads, std::string_view(id))) {
            by_key =
                by_key || load->live_when.key >= Key::ignition || load->live_when.engine == Engine::running;
            s.key = std::max(s.key, std::min(load->live_when.key, Key::ignition));
        }
    if (by_key && !under_sail.is_in(s.name)) turn_as_usual(plan, s, text);
}

// "state towed 8 h, key on, engine off, 20 C, switches scene and beacons"
Made make_state(PlanBuilder& b, const Said& said, std::string_view text) {
    State s;
    std::string name = said.name;
    // "state towed 8 h": what it stands for is its name
    for (const StateRole role : {StateRole::parked, StateRole::towed, StateRole::cranking, StateRole::idling,
                                 StateRole::driving, StateRole::working, StateRole::passing})
        if (name.empty() && said.has(enum_name(role))) name = enum_name(role);
    if (name.empty()) return missing("name", Want::a_name_for_it);
    for (const State& known : b.plan().states)
        if (to_lower(known.name) == to_lower(name)) s = known;
    if (s.id.empty()) {
        s.id = b.id("state"), s.name = name;
        s.ambient_C = s.engine_bay_C = 20;
        for (const std::string& m : plan_switches(b.plan()))
            for (const Run& r : b.plan().runs)
                for (const Device& d : r.devices)
                    if (d.master && d.closed_when.switches == std::vector<std::string>{m})
                        s.switches.push_back(m);
    }
    if (mentions(text, "key off") || said.has("off")) s.key = Key::off;
    if (mentions(text, "key accessory") || mentions(text, "key at accessory")) s.key = Key::accessory;
    if (mentions(text, "key on") || mentions(text, "key ignition")) s.key = Key::ignition;
    if (mentions(text, "cranking")) s.key = Key::crank;
    if (const auto rpm = said.plain_of(Dimension::speed))
        s.rpm = *rpm, s.key = std::max(s.key, Key::ignition);
    if (mentions(text, "engine off") || mentions(text, "engine stopped")) s.rpm = 0;
    if ((mentions(text, "engine running") || mentions(text, "engine on")) && s.rpm <= 0)
        s.rpm = 900, s.key = std::max(s.key, Key::ignition);
    for (const StateRole role : {StateRole::parked, StateRole::towed, StateRole::cranking, StateRole::idling,
                                 StateRole::driving, StateRole::working, StateRole::passing})
        if (said.has(enum_name(role)) || to_lower(s.name) == enum_name(role)) s.role = role;
    if (s.role == StateRole::idling || s.role == StateRole::driving) turn_as_usual(b.plan(), s, text);
    if (const auto t = said.plain_of(Dimension::temperature)) {
        s.ambient_C = *t;
        if (s.rpm <= 0) s.engine_bay_C = *t;
    }
    if (const auto t = said.labelled_as("bay", Dimension::temperature)) s.engine_bay_C = *t;
    if (const auto c = said.labelled_as("charge", Dimension::fraction)) s.charge = c;
    if (const auto c = said.labelled_as("sun", Dimension::fraction)) s.sun = *c;
    if (const auto t = said.plain_of(Dimension::time); t && *t <= 86400) s.lasts_s = t;
    if (said.when)
        for (const std::string& on : said.when->switches)
            if (std::find(s.switches.begin(), s.switches.end(), on) == s.switches.end())
                s.switches.push_back(on);
    if (said.when)
        for (const std::string& off : said.when->switches_off) std::erase(s.switches, off);
    run_as_what_is_named(b.plan(), said.switched_on, s, text);
    // what joins two batteries by hand is turned while the engine runs (common practice, no source)
    if (const auto all = plan_switches(b.plan());
        s.rpm > 0 && std::find(all.begin(), all.end(), kBatteriesJoined) != all.end() &&
        std::find(s.switches.begin(), s.switches.end(), kBatteriesJoined) == s.switches.end())
        s.switches.emplace_back(kBatteriesJoined);
    // "everything but the headlights": they have a switch that is off here
    for (const Id& id : said.switched_off) give_switch(b, id, {s.id});
    b.put(s);
    return s.id;
}

// "reading battery 12.82 V key off"
Made make_reading(PlanBuilder& b, const Said& said) {
    const auto volts = said.plain_of(Dimension::voltage);
    if (!volts) return missing("volts", Want::volts);
    Survey survey = b.plan().survey;
    std::string name = said.name;
    std::optional<Terminal> at = said.from;
    if (!at && !name.empty()) at = terminal_called(b.plan(), name, false);
    if (name.empty() && at) name = name_of(b.plan(), *at);
    if (name.empty()) return missing("name", Want::a_name_for_it);
    SurveyReading reading;
    for (const SurveyPoint& p : survey.points)
        if (to_lower(p.name) == to_lower(name)) reading.point = p.id;
    if (reading.point.empty()) {
        SurveyPoint p;
        p.id = reading.point = b.id("point");
        p.name = name;
        p.kind = at && find(b.plan().batteries, at->owner) ? SurveyKind::battery
                 : at && find(b.plan().sources, at->owner) ? SurveyKind::alternator
                                                           : SurveyKind::outlet;
        if (at) p.terminal = *at;
        survey.points.push_back(p);
    }
    reading.key = said.has("running") || said.has("engine running")    ? SurveyKey::running
                  : said.has("accessory") || said.has("key accessory") ? SurveyKey::accessory
                  : said.has("after")                                  ? SurveyKey::after
                                                                       : SurveyKey::off;
    reading.volts_V = *volts;
    survey.readings.push_back(reading);
    b.add(SetSurvey{survey});
    return reading.point;
}

}  // namespace yr
