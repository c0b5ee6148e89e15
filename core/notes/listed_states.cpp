#include "notes/listed_states.h"

#include <algorithm>
#include <set>

#include "notes/state_words.h"
#include "plan/condition.h"
#include "plan/edit.h"
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

std::vector<std::string> give_switches_to_listed(Plan& plan, const std::vector<ListedState>& listed,
                                                 const std::vector<Id>& always,
                                                 const std::vector<Id>& usual) {
    const auto holds_it = [](const std::vector<Id>& ids, const Id& id) {
        return std::find(ids.begin(), ids.end(), id) != ids.end();
    };
    std::vector<std::string> given;
    std::set<Id> named;
    if (listed.size() > 1)
        for (const ListedState& l : listed)
            for (const Id& id : l.on)
                if (!holds_it(always, id)) named.insert(id);
    PlanBuilder b(plan);
    for (const Load& load : plan.loads) {
        if (holds_it(always, load.id) || !load.own_switch || !switched_by_others_alone(plan, load) ||
            is_a_switch(plan, to_lower(load.name)))
            continue;
        std::vector<Id> off_in;
        bool off_where_parked = false;
        for (const ListedState& l : listed)
            if ((l.alone || named.contains(load.id)) && !holds_it(l.on, load.id)) {
                off_in.push_back(l.state);
                const State* s = find(plan.states, std::string_view(l.state));
                off_where_parked = off_where_parked || (s && s->rpm <= 0);
            }
        for (const Id& id : usual)
            if (const State* s = find(plan.states, std::string_view(id));
                off_where_parked && s && s->rpm <= 0 && s->key < Key::ignition)
                off_in.push_back(id);
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
