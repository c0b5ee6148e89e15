// Lines that say a state in the page's own words: "serving: engine off, freezer on", "night: parked, router",
// "at 2100 rpm when spraying: all but headlights", "driving". For loose_words.cpp.
#pragma once

#include <string>

#include "plan/plan.h"

namespace yr {

// Such a line in the grammar's words. Empty: it says no state. What says amps or watts is a thing.
[[nodiscard]] std::string state_said(const Plan& plan, const std::string& line);

// "tool charger" of "tool battery charger": each of two words or more stands in the name, both in small
// letters.
[[nodiscard]] bool all_words_in(const std::string& name, const std::string& words);

// Whether something is switched by that name, in small letters.
[[nodiscard]] bool is_a_switch(const Plan& plan, const std::string& name);

}  // namespace yr
