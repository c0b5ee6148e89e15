// The law of each device, once: what current flows at what volts. The operating point, shorts, starts and the
// SPICE writer all take it from here, so that they cannot come to mean different devices.
//
// Volts are those across the element, pos to neg, V. Currents are as stated beside each, A. `conductance_S`
// is the slope that Newton's method needs: at a limit the true slope is 0 and kHold_S stands in for it.
#pragma once

#include "network/network.h"

namespace yr {

// A source that blocks still senses its terminal: 1 Mohm to its set voltage. It decides where a terminal
// stands that nothing else holds (a full battery that accepts no current), and moves nothing that can be
// measured.
inline constexpr double kSense_S = 1e-6;

// What a diode lets through the wrong way: nothing that can be measured, but it keeps a node behind it from
// floating.
inline constexpr double kDiodeLeak_S = 1e-6;

// Holds a node still where a limited device leaves it loose. It multiplies the change since the last step, so
// it is gone from a converged answer.
inline constexpr double kHold_S = 1e-6;

struct Law {
    double current_A = 0;
    double conductance_S = 0;
};

// Along a conductor, from -> to. Above `forward_V` its resistance, below it (where it has a diode) the leak.
[[nodiscard]] Law conductor_law(const ConductorElement& conductor, double cable_ohm, double volts);

// Open volts behind a resistance, down to the most that it accepts; volts that no charger should have force
// more into it, behind the same resistance. Current that it gives.
struct BatteryLaw {
    double open_V = 0, ohm = 0;
    double least_A = 0;     // minus what it accepts
    double forced_V = 1e9;  // from here on it can no longer choose
};
[[nodiscard]] BatteryLaw battery_law(const BatteryElement& battery);
[[nodiscard]] Law at_volts(const BatteryLaw& law, double volts);

// A set voltage behind a droop, from nothing to its limit; a panel also within its power. Current that it
// gives.
struct SourceLaw {
    double set_V = 0, ohm = 0;
    double most_A = 0;
    double power_W = 0;  // 0: no such limit
};
[[nodiscard]] SourceLaw source_law(const SourceElement& source);
[[nodiscard]] Law at_volts(const SourceLaw& law, double volts);
// The most that it gives at these volts, A.
[[nodiscard]] double most_A(const SourceLaw& law, double volts);

// What a converter takes from its input to give that current at those volts, W.
[[nodiscard]] double input_power_W(const SourceElement& source, double given_A, double volts);

// Takes so many watts at any volts. Current that it takes; its slope is negative.
[[nodiscard]] Law constant_power(double watts, double volts);

// Current that a load takes at these volts by its kind. `share` of its current or power, 0..1.
[[nodiscard]] Law load_law(const LoadElement& load, double volts, double share = 1);

// A load in the first seconds: below `fails_V` its supply gives up, and what it takes falls with the volts,
// so that it can start from nothing. For a power from least_V on.
[[nodiscard]] Law starting_power(double watts, double volts, double least_V);
[[nodiscard]] Law starting_current(double amps, double volts, double least_V);

// Here and not in a file of their own, since they are asked for every conductor and load in every iteration:
// a tenth of an operating point's time.
inline Law conductor_law(const ConductorElement& c, double cable_ohm, double u) {
    const double g = 1 / (c.fixed_ohm + cable_ohm);
    if (c.forward_V <= 0) return {g * u, g};
    const double through = u > c.forward_V ? (u - c.forward_V) * g : 0;
    return {u * kDiodeLeak_S + through, kDiodeLeak_S + (u > c.forward_V ? g : 0)};
}

inline Law constant_power(double watts, double u) {
    return {watts / u, -watts / (u * u)};
}

inline Law load_law(const LoadElement& l, double u, double share) {
    switch (l.kind) {
        case DrawKind::resistance:
            return {u / l.value, 1 / l.value};
        case DrawKind::current:
            return {l.value * share, kHold_S};
        case DrawKind::power:
            return constant_power(l.value * share, u);
    }
    return {};
}

}  // namespace yr
