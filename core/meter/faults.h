// What may be wrong, one thing at a time: each fault as a change to the compiled circuit, with how likely it
// is beforehand and how strong it may be. data/catalog/faults.json.
#pragma once

#include <string>
#include <vector>

#include "meter/reading.h"
#include "network/network.h"

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

struct Fault {
    FaultKind kind = FaultKind::none;
    Id thing;                    // what is to be mended: run, ground point, battery, source, load
    Id other;                    // swapped: the other run
    double prior = 1;            // against the others
    double least = 0, most = 0;  // strength; 0, 0: it is there or not
    [[nodiscard]] bool graded() const { return most > 0; }
};

struct FaultPrior {
    double prior = 1, least = 0, most = 0;
};
[[nodiscard]] FaultPrior fault_prior(FaultKind kind);
[[nodiscard]] std::string_view name_of(FaultKind kind);  // as in the file
// Minutes that a reading takes: "volts", "across", "amps", "other_place", "other_state".
[[nodiscard]] double reading_minutes(std::string_view what);

// All single faults of a plan, `none` first. Body metal has joints only.
[[nodiscard]] std::vector<Fault> faults_of(const Plan& plan);

// Puts it into a compiled circuit. `strength` means what its kind says.
void put_in(Network& network, const Plan& plan, const Fault& fault, double strength);

// From least to most, evenly in logarithms; one value for what is not graded.
[[nodiscard]] std::vector<double> strengths(const Fault& fault, std::size_t count);

}  // namespace yr
