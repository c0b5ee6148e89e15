// The kinds of fault that are looked for, how likely each is against the others and how strong it may be, and
// the minutes that a reading takes. data/catalog/faults.json.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

namespace yr {

enum class FaultKind {
    none,
    open,          // a cable without fuse or contact, broken or off
    fuse,          // blown, missing, not seated
    contact,       // a switch or relay that does not close
    stuck,         // or does not open
    joint,         // ohm more along a cable
    ground,        // ohm more in a ground's bond
    thin,          // times a cable's resistance
    leak,          // ohm to ground behind a cable
    battery_weak,  // times its resistance
    battery_low,   // volts below its charge
    charge_none,
    charge_low,   // volts
    charge_high,  // volts
    load_dead,
    load_heavy,  // times its draw
    swapped      // two channels of one box
};
inline constexpr std::size_t kFaultKinds = static_cast<std::size_t>(FaultKind::swapped) + 1;

struct FaultPrior {
    double prior = 1, least = 0, most = 0;
};
[[nodiscard]] FaultPrior fault_prior(FaultKind kind);
[[nodiscard]] std::string_view name_of(FaultKind kind);  // as in the file: "battery_weak"
[[nodiscard]] std::optional<FaultKind> fault_kind_named(std::string_view name);
// Minutes that a reading takes: "volts", "across", "amps", "other_place", "other_state".
[[nodiscard]] double reading_minutes(std::string_view what);

}  // namespace yr
