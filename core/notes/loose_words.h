// How people put down what our lines say otherwise, whatever the thing: "2000 W inverter", "on switch", "only
// while driving", "10 s at a time", "2 h a day", "charge controller 30 A", "main switch at battery". For
// plain_words.cpp.
#pragma once

#include <string>

#include "plan/plan.h"

namespace yr {

// Without what a list puts around its words: bullets, numbers, signs and words between a name and its figure.
// Lines of signs, sums and headings say nothing of the plan: they become remarks.
[[nodiscard]] std::string without_layout(const std::string& line);

// The line in the grammar's words; as it stands where it holds nothing of the kind.
[[nodiscard]] std::string loosely_said(const Plan& plan, const std::string& line);

}  // namespace yr
