// States that a page gives by what is on in them: "at anchor: anchor light, fridge". What one of them names
// and another leaves out is off in that other one, so it has a switch.
#pragma once

#include <string>
#include <vector>

#include "notes/kinds.h"
#include "plan/plan.h"

namespace yr {

// One state of the page that names what is on in it, or a bare one ("parked") of a page that lists others.
struct ListedState {
    Id state;
    std::vector<Id> on;        // loads that it names
    bool alone = false;        // "only fridge and lamp": what it leaves out is off in it
    bool names_alone = false;  // "night: fridge": no word of key, engine or how it stands
};

// The load gets a switch of its own name, off in these states and on in every other in which it was live.
void give_switch(PlanBuilder& b, const Id& load, const std::vector<Id>& off_in);

// Of two listed states or more: what only some of them name gets its switch. A list of a state
// with the key off (of two things at least, or of nothing but names) says all that is on in it but for what
// runs by itself (a fridge, an alarm); loads that no other list names stay as they are, and so does what is
// said to be always on; what hangs on mains has its switch besides that of its inverter. Of the states that
// no line gives (`usual`), the ones with the key off or at accessory leave off what a page's own state with
// the engine stopped leaves off, what is named only where it runs, and work lights. The names of those that
// got one.
std::vector<std::string> give_switches_to_listed(Plan& plan, const std::vector<ListedState>& listed,
                                                 const std::vector<Id>& always, const std::vector<Id>& usual);

}  // namespace yr
