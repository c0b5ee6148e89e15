// What a page's last line may have changed for its first: sizes that nobody asked for, looked at once more.
#pragma once

#include <vector>

#include "plan/plan.h"

namespace yr {

// Cables of these loads one size thicker, or two, where what came to their feed later has brought their drop
// above its limit and their own cables can help it.
void keep_drops(Plan& plan, const std::vector<Id>& loads);

// What joins a battery to the metal, where no line said how thick it is, thick enough for what the largest
// fuse lets by: a later line may have brought a larger one.
void keep_grounds(Plan& plan);

}  // namespace yr
