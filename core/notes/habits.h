// What nobody says because everybody knows it: when things of a kind run, and the state in which a heavy one
// does.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "plan/plan.h"
#include "typing/typed_line.h"

namespace yr {

// When a load of that name runs where the line says nothing: a fuel pump with the ignition, a winch by a
// switch of its own while the engine runs; common practice, no source. Empty: nothing is usual, or the
// vehicle has no engine, or it hangs on mains or on what is named.
[[nodiscard]] std::optional<Condition> usual_condition(const Plan& plan, const TypedLine& line);

// How long at once a load of that name is on where the line says nothing: a socket from which another vehicle
// is started, s; common practice, no source. Empty: as long as it is live.
[[nodiscard]] std::optional<double> usual_turn_s(const TypedLine& line);

// A page may name no state in which something works that has a switch of its own ("winch 4 kW", "bath lift
// 15 A for 20 s"), and what no state lets run is looked at nowhere: for the heaviest few of `loads` the first
// state that would let it run, with its switch on, is added to the plan; so for an inverter that is on in no
// state; the light ones share one, unless the page has states of its own: who leaves them out of those has
// thought of them. Their names.
std::vector<std::string> add_working_states(Plan& plan, const std::vector<Id>& loads, bool own_states);

}  // namespace yr
