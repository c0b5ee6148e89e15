// What people call by other words than ours, put into ours before a line is read: the battery that is not for
// starting, the switch that cuts all off, a draw that is one figure at its start and another behind.
#pragma once

#include <string>
#include <string_view>

#include "plan/plan.h"

namespace yr {

// The line as the grammar of statement.h takes it; unchanged where nothing of it is known by other words.
[[nodiscard]] std::string in_our_words(const Plan& plan, std::string_view line);

// Of the time that a radio sends, where nothing says so: common practice, no source.
inline constexpr double kSendsShare = 0.1;

}  // namespace yr
