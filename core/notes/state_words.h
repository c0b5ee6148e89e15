// Lines that say a state in the page's own words: "serving: engine off, freezer on", "night: parked, router",
// "at 2100 rpm when spraying: all but headlights", "driving". For loose_words.cpp.
#pragma once

#include <string>
#include <vector>

#include "plan/plan.h"

namespace yr {

// Such a line in the grammar's words. Empty: it says no state. What says amps or watts is a thing.
[[nodiscard]] std::string state_said(const Plan& plan, const std::string& line);

// "standby on shore: fridge, terminal, charger 30 A": a state that says a thing or two of its own, as lines:
// the things, then the state that names them. Empty: it is none.
[[nodiscard]] std::vector<std::string> state_with_new_things(const Plan& plan, const std::string& line);

// "tool charger" of "tool battery charger": each of two words or more stands in the name, both in small
// letters.
[[nodiscard]] bool all_words_in(const std::string& name, const std::string& words);

// Whether something is switched by that name, in small letters.
[[nodiscard]] bool is_a_switch(const Plan& plan, const std::string& name);

}  // namespace yr
