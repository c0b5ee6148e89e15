#include "network/thermal.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace yr {
namespace {

constexpr double kStefanBoltzmann = 5.670374419e-8;  // W/m2K4, CODATA 2018
constexpr double kGravity = 9.80665;                 // m/s2, standard
constexpr double kPrandtl = 0.71;                    // air
constexpr double kZeroC_K = 273.15;
constexpr double kMelted_C = 2000;

// K m / W through the wall of one metre of cable
double wall_resistance(const CableSurroundings& c) {
    return std::log(c.outer_diameter_m / c.strand_diameter_m) /
           (2 * std::numbers::pi * insulation_wall().conductivity_W_per_mK);
}

}  // namespace

CableSurroundings surroundings_of(const Conductor& conductor, double ambient_C, double bundle_factor) {
    return {ambient_C, conductor.R20_ohm_per_m, conductor.strand_diameter_mm * 1e-3,
            conductor.outer_diameter_mm * 1e-3, bundle_factor};
}

double heat_loss_W_per_m(const CableSurroundings& cable, double surface_C) {
    static const double emissivity = insulation_wall().emissivity;
    static const double prandtl_term = std::pow(1 + std::pow(0.559 / kPrandtl, 9.0 / 16), 8.0 / 27);
    const double rise = surface_C - cable.ambient_C;
    if (rise <= 0) return 0;
    const double film_K = (surface_C + cable.ambient_C) / 2 + kZeroC_K;
    const double t = film_K / kZeroC_K;
    const double log_t = std::log(t);
    const double viscosity = 1.326e-5 * std::exp(1.78 * log_t);      // kinematic, m2/s
    const double conductivity = 0.0241 * std::exp(0.85 * log_t);     // W/mK
    const double d = cable.outer_diameter_m;
    const double rayleigh = kGravity * rise * d * d * d * kPrandtl / (film_K * viscosity * viscosity);
    const double root = 0.60 + 0.387 * std::sqrt(std::cbrt(rayleigh)) / prandtl_term;
    const double h = root * root * conductivity / d;
    const double hot = surface_C + kZeroC_K, air = cable.ambient_C + kZeroC_K;
    const double radiation = emissivity * kStefanBoltzmann * (hot * hot + air * air) * (hot + air);
    return std::numbers::pi * d * (h + radiation) * rise;
}

double conductor_temperature_C(const CableSurroundings& cable, double current_A, double guess_C) {
    const double heat20 = current_A * current_A * cable.R20_ohm_per_m / (cable.bundle_factor * cable.bundle_factor);
    if (heat20 < 1e-12) return cable.ambient_C;
    const double wall = wall_resistance(cable);
    // Unknown: surface rise x. The conductor stands loss * wall above it. f rises with x, so a bracketed
    // secant cannot miss; the guess only shortens it.
    double conductor = 0;
    const auto excess = [&](double x) {
        const double loss = heat_loss_W_per_m(cable, cable.ambient_C + x);
        conductor = cable.ambient_C + x + loss * wall;
        return loss - heat20 * (1 + kCopperAlpha_per_K * (conductor - 20));
    };
    if (excess(kMelted_C - cable.ambient_C) < 0) return kMelted_C;
    double x = guess_C > cable.ambient_C
                   ? (guess_C - cable.ambient_C) * 0.95
                   : heat20 / (std::numbers::pi * cable.outer_diameter_m * 12);
    x = std::clamp(x, 1e-9, kMelted_C);
    double low = 0, high = kMelted_C;
    double fx = excess(x);
    double step = std::max(1e-4 * x, 1e-9);
    for (int k = 0; k < 60; ++k) {
        (fx > 0 ? high : low) = x;
        const double slope = (excess(x + step) - fx) / step;
        double next = slope > 0 ? x - fx / slope : (low + high) / 2;
        if (!(next > low && next < high)) next = (low + high) / 2;
        const double move = std::abs(next - x);
        x = next;
        fx = excess(x);
        if (move < 1e-10 + 1e-13 * x || fx == 0) break;
        step = std::clamp(move * 1e-2, 1e-7, 1e-2);
    }
    return std::min(conductor, kMelted_C);
}

double current_for_temperature_A(const CableSurroundings& cable, double limit_C) {
    if (limit_C <= cable.ambient_C) return 0;
    const double wall = wall_resistance(cable);
    double low = cable.ambient_C, high = limit_C;  // surface temperature whose heat brings the conductor to limit
    for (int k = 0; k < 80; ++k) {
        const double surface = (low + high) / 2;
        (surface + heat_loss_W_per_m(cable, surface) * wall < limit_C ? low : high) = surface;
    }
    const double per_m = cable.R20_ohm_per_m * (1 + kCopperAlpha_per_K * (limit_C - 20));
    return std::sqrt(heat_loss_W_per_m(cable, low) / per_m) * cable.bundle_factor;
}

}  // namespace yr
