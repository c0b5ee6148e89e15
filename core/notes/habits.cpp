#include "notes/habits.h"

#include <algorithm>

#include "plan/condition.h"
#include "plan/edit.h"
#include "size/run_limits.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr double kHeavy_A = 15;  // below that a load's drop is looked at together with the others
constexpr double kTurn_s = 180;  // a winch, a lift or a compressor works so long at once; common practice
constexpr std::size_t kMostStates = 4;

bool has_engine(const Plan& plan) {
    const bool turned = std::any_of(plan.sources.begin(), plan.sources.end(), [](const Source& s) {
        return s.kind == SourceKind::alternator || s.kind == SourceKind::stator;
    });
    return turned ||
           std::any_of(plan.states.begin(), plan.states.end(), [](const State& s) { return s.rpm > 0; });
}

State working(State like, const Id& of, const std::string& name) {
    like.id = "state-" + of + "-at-work", like.name = name;
    if (like.name[0] >= 'a' && like.name[0] <= 'z')
        like.name[0] += 'A' - 'a';  // as the usual states are called
    like.role = StateRole::working;
    return like;
}

bool runs_somewhere(const Plan& plan, const Load& load) {
    return std::any_of(plan.states.begin(), plan.states.end(),
                       [&](const State& s) { return holds(load.live_when, s); });
}

// The first state, engine running before others, that with these switches lets the load run.
const State* state_for(const Plan& plan, const Load& load) {
    const State* best = nullptr;
    for (const State& s : plan.states) {
        State with = s;
        for (const std::string& name : load.live_when.switches) with.switches.push_back(name);
        if (s.key == Key::crank || s.role == StateRole::working || !holds(load.live_when, with)) continue;
        if (!best || (best->rpm <= 0 && s.rpm > 0)) best = &s;
    }
    return best;
}

// The light things of a page that no state lets run, in one state.
std::optional<State> small_loads_on(const Plan& plan, const std::vector<Id>& loads) {
    std::optional<State> all;
    for (const Load& l : plan.loads) {
        const bool of_page = std::find(loads.begin(), loads.end(), l.id) != loads.end();
        if (!of_page || l.later || l.starter || l.live_when.switches.empty() || !l.inverter.empty() ||
            nominal_A(plan, l) >= kHeavy_A || runs_somewhere(plan, l))
            continue;
        const State* like = state_for(plan, l);
        if (!like) continue;
        if (!all) all = *like;
        for (const std::string& name : l.live_when.switches)
            if (std::find(all->switches.begin(), all->switches.end(), name) == all->switches.end())
                all->switches.push_back(name);
    }
    return all;
}

// For each inverter with loads of the page that no state turns on.
std::vector<State> inverters_on(const Plan& plan, const std::vector<Id>& loads) {
    std::vector<State> added;
    for (const Inverter& i : plan.inverters) {
        const bool anywhere = std::any_of(plan.states.begin(), plan.states.end(),
                                          [&](const State& s) { return holds(i.works_when, s); });
        const bool of_page = std::any_of(plan.loads.begin(), plan.loads.end(), [&](const Load& l) {
            return l.inverter == i.id && std::find(loads.begin(), loads.end(), l.id) != loads.end();
        });
        if (anywhere || !of_page || plan.states.empty()) continue;
        State on = plan.states.front();
        for (const std::string& s : i.works_when.switches) on.switches.push_back(s);
        if (holds(i.works_when, on)) added.push_back(working(std::move(on), i.id, i.name + " on"));
    }
    return added;
}

// "jump socket", "slave lead", "boost post"
bool starts_another(const TypedLine& line) {
    static const Pattern plug(
        R"(\b(?:jump|jumper|slave|boost)(?:[ -]?start)?\b.*\b(?:sockets?|outlets?|plugs?|connectors?|leads?|posts?)\b|\bjump[ -]?starts?\b)");
    return line.inverter.empty() && plug.is_in(line.name);
}

// For some seconds before the engine is cranked.
bool heats_before_a_start(const TypedLine& line) {
    static const Pattern glow(
        R"(\b(?:glow ?plugs?|grid heaters?|intake (?:air )?heaters?|pre-?heat(?:er)? plugs?)\b)");
    return line.inverter.empty() && glow.is_in(line.name);
}

}  // namespace

std::optional<Condition> usual_condition(const Plan& plan, const TypedLine& line) {
    static const Pattern works(
        R"(\b(?:winch(?:es)?|(?:tail ?|wheelchair |passenger |scissor |stretcher )lifts?|lift ?gates?|tail ?gate lift|power ?packs?|hydraulic (?:[a-z]+ )?(?:pump|pack|unit)|hydraulic motor|hoists?|crane|(?:salt |sand )?spreader(?: motor)?|plou?w (?:motor|pump)|(?:air(?: [a-z]+)?|tyre|tire|suspension|seat) compressors?|(?:feed|auger|conveyor|belt|cutter|mixer|saw|spinner|agitator|sweeper) motors?|tipper|tip pump|dump pump|plough lift|plow lift)\b)");
    static const Pattern by_hand(
        R"(\b(?:^compressor$|(?:levell?ing )?jacks|levell?ers|slide-?outs?|awning motor|(?:power|electric) steps?|bed lift|generator (?:start|starter|cranking)|(?:pump|engine|motor|compressor|welder|mower) starter|macerator|(?:air )?horns?(?!\s*(?:relay|compressor))|klaxons?|(?:anchor )?windlass|capstan|(?:power|electric) (?:windows?|doors?|tailgates?|hatch(?:es)?|jacks?)|window (?:motors?|lifts?|winders?)|sun ?roofs?|(?:sliding|roller|barn) doors?|(?:gate|door|hatch|seat|tilt|lift|flap) (?:motors?|actuators?|openers?)|outboard tilt|power (?:trim|tilt)|trim tabs?|roof hatch(?:es)?|trolling motors?|(?:bow |stern )?thrusters?)\b)");
    static const Pattern with_ignition(
        R"(\b(?:fuel pumps?|lift pump|injectors?|ignition (?:box|coils?|module|system)|ecus?|engine (?:computer|control unit|management)|(?:radiator|cooling|cooler|engine|intercooler|condenser) fans?|fan engine cooling|engine cooling|gearbox cooler|cooler pump|coolant pump|wipers?|washers?|(?:windscreen|windshield|screen|seat|mirror) heaters?|(?:electric|trailer) brakes?|brake controllers?|cruise control|(?:heated|heating) (?:[a-z]+ )?(?:windscreen|windshield|screen|mirrors?|seats?|rear window|grips?|handle ?bars?|visors?|vests?|clothing)|demisters?|defrosters?|(?:rear )?defoggers?|(?:cab|hvac|screen) blower|cab heater(?: fan| blower)?|indicators?|turn signals?|head ?lights?|head ?lamps?|dust lights?|fog (?:lights?|lamps?)|driving (?:lights?|lamps?)|(?:number|license|licence) ?plate lights?|brake lights?|stop lights?|tail lights?|marker lights?|side ?lights?|clearance lights?|cab fans?|revers(?:e|ing) (?:lights?|lamps?|cameras?|alarm|beeper|buzzer|sounder)|backup (?:camera|alarm)|parking sensors?|gauges?|instruments?|dash(?:board)? lights?|power steering|light bars?|beacons?|strobes?|sirens?|(?:blue|emergency|warning) lights?|blues|plou?(?:w|gh) (?:lights?|lamps?)|(?:pto|blade|mower|deck) clutch(?:es)?)\b)");
    static const Pattern no_load_of_it(
        R"(\b(?:remote|receiver|control(?:ler)?|socket|light|lamp|camera|fridge|freezer|relay|sensor)s?\b|\bseats?$)");
    // what another vehicle is started from stays dead until somebody plugs in
    if (starts_another(line)) {
        Condition plugged;
        plugged.switches = {line.name};
        return plugged;
    }
    static const Pattern traction(
        R"(\b(?:(?:motor|speed) controllers?|traction (?:motor|controller|inverter)s?|drive (?:motor|controller)s?)\b)"),
        bare(R"(^(?:main )?controllers?$|^(?:drive |main |propulsion )?motors?$)");  // of a cart
    const bool of_a_cart = plan.vehicle.nominal_V >= 36 && bare.is_in(line.name);
    if (line.inverter.empty() && (of_a_cart || traction.is_in(line.name))) {
        Condition driven;
        driven.key = Key::ignition;
        return driven;
    }
    // where somebody lives it runs as long as a tap is open; of other vehicles it may cool the engine
    static const Pattern tap(
        R"(\b(?:water(?: pressure)?|shower|galley|sink|tap|flush) pumps?\b|\btoilets?\b)");
    const bool lived_in = plan.batteries.size() > 1 || !has_engine(plan),
               at_a_tap = lived_in && !line.details.duty && tap.is_in(line.name);
    static const Pattern marker(R"(\b(?:camp|awning|interior|reading|galley|floor)\b)");
    if (!line.inverter.empty() || !line.entry.empty()) return std::nullopt;
    Condition when;
    if (!has_engine(plan)) {  // from its battery, and never longer than it is asked to
        const bool asked = works.is_in(line.name) || by_hand.is_in(line.name) || at_a_tap;
        if (!asked || no_load_of_it.is_in(line.name)) return std::nullopt;
        when.switches = {line.name};
        return when;
    }
    if ((at_a_tap || by_hand.is_in(line.name)) &&
        !no_load_of_it.is_in(line.name)) {  // with the engine standing, too
        when.switches = {line.name};
        return when;
    }
    if (heats_before_a_start(line) && !no_load_of_it.is_in(line.name)) {
        when.key = Key::ignition;
        when.switches = {line.name};
        return when;
    }
    if (works.is_in(line.name) && !no_load_of_it.is_in(line.name)) {
        when.key = Key::ignition, when.engine = Engine::running;
        when.switches = {line.name};
        return when;
    }
    // of a vehicle that nobody lives in it is the fan that the engine's heat needs
    static const Pattern cab_heater(R"(^heater(?: fan| blower)?$)");
    constexpr double kBlower_A = 8;
    const bool blows = plan.batteries.size() == 1 && cab_heater.is_in(line.name) && line.draw &&
                       line.draw->kind == DrawKind::current && line.draw->value >= kBlower_A;
    if (blows || (with_ignition.is_in(line.name) && !marker.is_in(line.name))) {
        when.key = Key::ignition;
        return when;
    }
    return std::nullopt;
}

std::optional<double> usual_turn_s(const TypedLine& line) {
    constexpr double kStartOfAnother_s = 30, kGlow_s = 20;  // common practice, no source
    return starts_another(line)         ? std::optional(kStartOfAnother_s)
           : heats_before_a_start(line) ? std::optional(kGlow_s)
                                        : std::nullopt;
}

std::vector<std::string> add_working_states(Plan& plan, const std::vector<Id>& loads, bool own_states) {
    struct Waiting {
        const Load* load;
        double amps;
    };
    std::vector<Waiting> waiting;
    for (const Load& l : plan.loads) {
        const bool of_page = std::find(loads.begin(), loads.end(), l.id) != loads.end();
        const bool by_itself = l.live_when.switches == std::vector<std::string>{l.name};
        if (!of_page || !by_itself || l.later || runs_somewhere(plan, l)) continue;
        if (const double amps = nominal_A(plan, l); amps >= kHeavy_A) waiting.push_back({&l, amps});
    }
    std::stable_sort(waiting.begin(), waiting.end(),
                     [](const Waiting& a, const Waiting& b) { return a.amps > b.amps; });
    if (waiting.size() > kMostStates) waiting.resize(kMostStates);
    std::vector<State> added = inverters_on(plan, loads);
    for (const Waiting& w : waiting) {
        const State* like = state_for(plan, *w.load);
        if (!like) continue;
        State at_work = *like;
        at_work.switches.push_back(w.load->name);
        // it works for minutes: what that would empty in hours is no question
        at_work.lasts_s = w.load->on_s.value_or(kTurn_s);
        added.push_back(working(std::move(at_work), w.load->id, w.load->name + " at work"));
        added.back().role = StateRole::passing;
    }
    if (auto small = own_states ? std::nullopt : small_loads_on(plan, loads))
        added.push_back(working(std::move(*small), "small", "small loads on"));
    plan.states.insert(plan.states.end(), added.begin(), added.end());
    std::vector<std::string> names;
    names.reserve(added.size());
    for (const State& s : added) names.push_back(s.name);
    return names;
}

}  // namespace yr
