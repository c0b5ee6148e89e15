// What a page's last line may have changed for its first: sizes that nobody asked for, looked at once more.
#pragma once

#include <vector>

#include "plan/plan.h"

namespace yr {

// Cables of these loads one size thicker, or two, where what came to their feed later has brought their drop
// above its limit and their own cables can help it.
void keep_drops(Plan& plan, const std::vector<Id>& loads);

}  // namespace yr
