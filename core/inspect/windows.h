// The volts within which a load works: its own, or those of its ISO 16750-2 supply code.
#pragma once

#include <optional>

#include "plan/plan.h"

namespace yr {

struct VoltsWindow {
    std::optional<double> least_V, most_V;  // at its terminals
};

[[nodiscard]] VoltsWindow volts_window(const Plan& plan, const Load& load);

}  // namespace yr
