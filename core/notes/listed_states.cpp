#include "notes/listed_states.h"

#include <algorithm>
#include <set>

#include "notes/state_words.h"
#include "plan/condition.h"
#include "plan/edit.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {

void give_switch(PlanBuilder& b, const Id& id, const std::vector<Id>& off_in) {
    Load load = *find(b.plan().loads, std::string_view(id));
    for (State s : std::vector<State>(b.plan().states)) {
        if (std::find(off_in.begin(), off_in.end(), s.id) != off_in.end() || !holds(load.live_when, s))
            continue;
        s.switches.push_back(load.name);
        b.put(s);
    }
    load.live_when.switches.push_back(load.name);
    b.put(load);
}

// It has no switch of its own: none at all, or on mains those of its inverter.
static bool switched_by_others_alone(const Plan& plan, const Load& load) {
    const Inverter* inverter = find(plan.inverters, std::string_view(load.inverter));
    const auto& switches = load.live_when.switches;
    return std::all_of(switches.begin(), switches.end(), [&](const std::string& s) {
        if (!inverter) return false;
        const auto& of_inverter = inverter->works_when.switches;
        return std::find(of_inverter.begin(), of_inverter.end(), s) != of_inverter.end();
    });
}

// What draws whether somebody thinks of it or not; common practice, no source.
static bool runs_by_itself(const std::string& name) {
    static const Pattern by_itself(
        R"(\b(?:fridges?|freezers?|cool ?(?:er|box)(?:es)?|refrigerat\w*|alarms?|track(?:er|ing)|ecus?|memory|clocks?|routers?|modems?|wi-?fi|detectors?|sensors?|bilge|bms|monitor(?:s|ing)?|meters?|stand-?by|computers?|dash ?cams?|loggers?|telematics|immobili[sz]ers?|lock(?:s|ing)?|keyless|tachograph|keep[ -]?alive|control(?:ler)? (?:unit|module)s?)\b)");
    return by_itself.is_in(name);
}

// Nobody walks away from it while it burns or pumps; common practice, no source.
static bool put_out_when_left(const Load& load) {
    static const Pattern work(
        R"(\b(?:rinse|transfer|spray(?:er)?|wash(?:down)?|foam|chemical|slurry|hose)[ -]?(?:pumps?|reel(?: [a-z]+)?)\b|\b(?:work(?:ing)?|scene|flood|spot|boom|deck|loading|perimeter|off-?road)[ -]?(?:lights?|lamps?|leds?)\b|\bflood ?lights?\b|\bspot ?lights?\b)");
    return !load.duty && work.is_in(load.name);  // how long a day it runs somebody has thought of
}

// Key off, engine stopped.
static bool left_alone(const State& s) {
    return s.rpm <= 0 && s.key < Key::ignition;
}

namespace {

struct Lists {
    const Plan& plan;
    const std::vector<ListedState>& listed;
    std::set<Id> named, named_standing;  // in any list; in one with the engine stopped

    [[nodiscard]] const State& state(const ListedState& l) const {
        return *find(plan.states, std::string_view(l.state));
    }
    // A list of what is on while it stands, key off, says all that is; one thing among other words is no
    // list.
    [[nodiscard]] bool says_all(const ListedState& l) const {
        return (l.on.size() > 1 || (l.names_alone && !l.on.empty())) && left_alone(state(l));
    }
    [[nodiscard]] std::vector<Id> off_in(const Load& load, const std::vector<Id>& usual) const;
};

// The states in which it is off.
std::vector<Id> Lists::off_in(const Load& load, const std::vector<Id>& usual) const {
    std::vector<Id> off;
    const bool is_named = named.contains(load.id);
    bool off_where_parked = (is_named || put_out_when_left(load)) && !named_standing.contains(load.id);
    for (const ListedState& l : listed) {
        const bool left_out = std::find(l.on.begin(), l.on.end(), load.id) == l.on.end();
        const bool burns_on = !put_out_when_left(load) || !left_alone(state(l));
        if (!left_out || (!is_named && burns_on && !l.alone && !(says_all(l) && !runs_by_itself(load.name))))
            continue;
        off.push_back(l.state);
        off_where_parked = off_where_parked || left_alone(state(l));
    }
    for (const Id& id : usual)
        if (const State* s = find(plan.states, std::string_view(id)); off_where_parked && s && left_alone(*s))
            off.push_back(id);
    return off;
}

}  // namespace

std::vector<std::string> give_switches_to_listed(Plan& plan, const std::vector<ListedState>& listed,
                                                 const std::vector<Id>& always,
                                                 const std::vector<Id>& usual) {
    const auto said_always = [&](const Id& id) {
        return std::find(always.begin(), always.end(), id) != always.end();
    };
    std::vector<std::string> given;
    Lists lists{plan, listed, {}, {}};
    if (listed.size() > 1)
        for (const ListedState& l : listed)
            for (const Id& id : l.on) {
                if (said_always(id)) continue;
                lists.named.insert(id);
                if (left_alone(lists.state(l))) lists.named_standing.insert(id);
            }
    PlanBuilder b(plan);
    for (const Load& load : plan.loads) {
        if (said_always(load.id) || !load.own_switch || !switched_by_others_alone(plan, load) ||
            is_a_switch(plan, to_lower(load.name)))
            continue;
        const std::vector<Id> off_in = lists.off_in(load, usual);
        const bool live = std::any_of(off_in.begin(), off_in.end(), [&](const Id& state) {
            const State* s = find(plan.states, std::string_view(state));
            return s && holds(load.live_when, *s);
        });
        if (!live) continue;
        given.push_back(load.name);
        give_switch(b, load.id, off_in);
    }
    (void)yr::apply(plan, b.finish());
    return given;
}

}  // namespace yr
