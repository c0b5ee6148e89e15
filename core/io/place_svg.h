// The vehicle from above with rooms, ways, passages and things, as a drawing to print: SVG 1.1 (W3C), a
// hundred units a metre.
#pragma once

#include <string>

#include "routes/routes.h"

namespace yr {

// In that state's air. Front at the left, right side on top.
[[nodiscard]] std::string place_svg(const Plan& plan, const Routes& routes, const State& state);

}  // namespace yr
