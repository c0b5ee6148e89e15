// Which battery people mean by "starter battery", "leisure bank", "the lithium": what has another name in the
// plan, or none.
#pragma once

#include <string_view>

#include "plan/plan.h"

namespace yr {

// A page that charges from "the vehicle battery" and says nothing else of it: that of the engine, its hours
// assumed.
inline constexpr std::string_view kVehicleBattery = "vehicle battery";

// Whether nothing is said yet of the one battery that every plan begins with: the first line of a battery
// says it.
[[nodiscard]] bool battery_is_free(const Plan& plan);

// `words`: lower case, without "the". Empty where they mean no battery of this plan. A battery's own name is
// not looked at: it comes first, and is sought where names are.
[[nodiscard]] Id battery_meant_by(const Plan& plan, std::string_view words);

// The battery that a charger or a panel serves of which no more is said: the last, or of several besides the
// engine's the largest, since a windlass may have one of its own. REQUIRES: the plan has a battery.
[[nodiscard]] const Battery& battery_to_charge(const Plan& plan);

// The battery from which what is added lives, of those of the vehicle's volts: the house's by its name, else
// the second where it starts no engine, else the first. REQUIRES: the plan has a battery.
[[nodiscard]] const Battery& battery_to_live_from(const Plan& plan);

}  // namespace yr
