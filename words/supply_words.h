// Sentences, rules and reasons for findings about the supply as a whole: batteries, inverters, relays,
// starting. For sentences.cpp and why.cpp.
#pragma once

#include "words/sentences.h"

namespace yr::words {

[[nodiscard]] std::string supply_sentence(const Finding& finding, const Plan& plan, const Style& style);
[[nodiscard]] Rule supply_rule(const Finding& finding, const Plan& plan);
// Why it is so, with its numbers; empty for other findings.
[[nodiscard]] std::vector<std::string> supply_reasons(const Finding& finding, const Plan& plan,
                                                      const Style& style);

}  // namespace yr::words
