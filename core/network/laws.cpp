#include "network/laws.h"

#include <algorithm>

namespace yr {

BatteryLaw battery_law(const BatteryElement& b) {
    BatteryLaw law{b.open_V, b.R0_ohm, -b.accept_A};
    if (b.forced_V > 0) law.forced_V = std::max(b.forced_V, b.open_V + b.accept_A * b.R0_ohm);
    return law;
}

Law at_volts(const BatteryLaw& law, double u) {
    const double i = (law.open_V - u) / law.ohm;
    if (i >= law.least_A) return {i, 1 / law.ohm};
    if (u <= law.forced_V) return {law.least_A, kHold_S};
    return {law.least_A - (u - law.forced_V) / law.ohm, 1 / law.ohm};
}

SourceLaw source_law(const SourceElement& s) {
    return {s.set_V, std::max(s.droop_ohm, 1e-6), s.limit_A, s.power_W};
}

double most_A(const SourceLaw& law, double u) {
    return law.power_W > 0 ? std::min(law.most_A, law.power_W / std::max(u, 1.0)) : law.most_A;
}

Law at_volts(const SourceLaw& law, double u) {
    if (u > law.set_V) return {(law.set_V - u) * kSense_S, kSense_S};
    const double i = (law.set_V - u) / law.ohm;
    const double most = most_A(law, u);
    if (i <= most) return {i, 1 / law.ohm};
    // at its power the current falls as the volts rise
    const bool by_power = law.power_W > 0 && u > 1 && most < law.most_A;
    return {most, by_power ? most / u : kHold_S};
}

double input_power_W(const SourceElement& s, double given_A, double volts) {
    return std::max(0.0, given_A) * volts / s.efficiency + s.standby_W;
}

Law starting_power(double watts, double u, double least_V) {
    if (u >= least_V) return constant_power(watts, u);
    const double g = watts / (least_V * least_V);
    return u > 0 ? Law{g * u, g} : Law{0, 0};
}

Law starting_current(double amps, double u, double least_V) {
    if (u >= least_V) return {amps, 0};
    return u > 0 ? Law{amps * u / least_V, amps / least_V} : Law{0, 0};
}

}  // namespace yr
