// How a line is read once its words are ours, and several as one: what statement.cpp does, for wording.cpp,
// which finds the words.
#pragma once

#include <string>
#include <vector>

#include "notes/statement.h"

namespace yr {

// One thing in words of ours, with the place that it names and the plan does not have yet. Never fails.
[[nodiscard]] Statement read_placed(const Plan& plan, const std::string& text, const Library* library);

// Lines on this plan, as one edit. The first that does not go says why.
[[nodiscard]] Statement read_lines(const Plan& plan, std::vector<std::string> lines, const Library* library);

}  // namespace yr
