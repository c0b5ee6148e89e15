// Numbers that fields take and hardly any vehicle has: asked about where they are typed, never refused.
#pragma once

#include <optional>

#include "plan/plan.h"
#include "units/quantity.h"

namespace yr {

// What stands against it: the most that is usual, in the dimension's unit.
struct Unusual {
    double most = 0;
    bool breaks = false;  // volts that would hurt what hangs on a rail of the vehicle's
};

// Volts above 16/12 of the vehicle's nominal (ISO 16750-2: 16 V for 12 V systems, from memory); others by
// common practice, no source: 20 kW, 3000 A, 60 m, 2000 Ah by `number`s are not asked about.
[[nodiscard]] inline std::optional<Unusual> unusual(const Plan& plan, Dimension dimension, double value) {
    const double rail_V = plan.vehicle.nominal_V * 16 / 12;
    switch (dimension) {
        case Dimension::voltage:
            return value > rail_V * 1.01 ? std::optional(Unusual{rail_V, true}) : std::nullopt;
        case Dimension::power:
            return value > 20000 ? std::optional(Unusual{20000, false}) : std::nullopt;
        case Dimension::current:
            return value > 3000 ? std::optional(Unusual{3000, false}) : std::nullopt;
        case Dimension::length:
            return value > 60 ? std::optional(Unusual{60, false}) : std::nullopt;
        default:
            return std::nullopt;
    }
}

}  // namespace yr
