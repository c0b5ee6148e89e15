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

// Copper 385; copper-clad aluminium with a tenth of copper by volume: 0.26 x 385 + 0.74 x 897 by mass.
// Handbook values, from memory.
double specific_heat_J_per_kgK(Material material) {
    return material == Material::cca ? 764 : 385;
}

// The insulation's share of the heat that counts with the conductor while the wall's profile is steady: Van
// Wormer's coefficient, IEC 60853-2 (from memory).
double insulation_heat_J_per_mK(double inner_m, double outer_m) {
    const double ratio = outer_m / inner_m;
    const double share = 1 / (2 * std::log(ratio)) - 1 / (ratio * ratio - 1);
    const double area_m2 = std::numbers::pi / 4 * (outer_m * outer_m - inner_m * inner_m);
    return share * area_m2 * insulation_wall().heat_J_per_m3K;
}

}  // namespace

CableSurroundings surroundings_of(const Conductor& conductor, double ambient_C, double bundle_factor) {
    CableSurroundings c;
    c.ambient_C = ambient_C;
    c.R20_ohm_per_m = conductor.R20_ohm_per_m;
    c.strand_diameter_m = conductor.strand_diameter_mm * 1e-3;
    c.outer_diameter_m = conductor.outer_diameter_mm * 1e-3;
    c.wall_K_m_per_W = std::log(c.outer_diameter_m / c.strand_diameter_m) /
                       (2 * std::numbers::pi * insulation_wall().conductivity_W_per_mK);
    c.bundle_factor = bundle_factor;
    c.heat_J_per_mK = conductor.mass_kg_per_m * specific_heat_J_per_kgK(conductor.material) +
                      insulation_heat_J_per_mK(c.strand_diameter_m, c.outer_diameter_m);
    return c;
}

namespace {

struct Loss {
    double W_per_m, slope;  // slope: W/m per kelvin of surface, air properties held
};

Loss loss_at(const CableSurroundings& cable, double rise) {
    static const double emissivity = insulation_wall().emissivity;
    static const double prandtl_term = std::pow(1 + std::pow(0.559 / kPrandtl, 9.0 / 16), 8.0 / 27);
    if (rise <= 0) return {0, 0};
    const double hot = cable.ambient_C + rise + kZeroC_K, air = cable.ambient_C + kZeroC_K;
    const double film_K = (hot + air) / 2;
    const double log_t = std::log(film_K / kZeroC_K);
    const double viscosity = 1.326e-5 * std::exp(1.78 * log_t);   // kinematic, m2/s
    const double conductivity = 0.0241 * std::exp(0.85 * log_t);  // W/mK
    const double d = cable.outer_diameter_m;
    const double rayleigh = kGravity * rise * d * d * d * kPrandtl / (film_K * viscosity * viscosity);
    const double root = 0.60 + 0.387 * std::sqrt(std::cbrt(rayleigh)) / prandtl_term;
    const double convection = root * root * conductivity / d;
    const double radiation = emissivity * kStefanBoltzmann * (hot * hot + air * air) * (hot + air);
    const double around = std::numbers::pi * d;
    return {around * (convection + radiation) * rise,
            around * (convection * (1 + (1 - 0.60 / root) / 3) +
                      4 * emissivity * kStefanBoltzmann * hot * hot * hot)};
}

// Where f, which rises with x, is 0 between low and high, from x with its value and slope there: a secant
// kept between brackets cannot miss. f is asked last at what it finds; `done` ends the search before that.
template <class F, class Done>
void find_rise(F&& f, Done&& done, double x, double fx, double slope, double low, double high) {
    for (int k = 0; k < 80 && !done(fx); ++k) {
        (fx > 0 ? high : low) = x;
        double next = slope > 0 ? x - fx / slope : (low + high) / 2;
        if (!(next > low && next < high)) next = (low + high) / 2;
        const double move = next - x, before = fx;
        x = next;
        fx = f(x);
        if (std::abs(move) < 1e-9 + 1e-12 * x || fx == 0) return;
        slope = (fx - before) / move;
    }
}

}  // namespace

double heat_loss_W_per_m(const CableSurroundings& cable, double surface_C) {
    return loss_at(cable, surface_C - cable.ambient_C).W_per_m;
}

double conductor_temperature_step_C(const CableSurroundings& cable, double current_A, double guess_C) {
    const double heat20 =
        current_A * current_A * cable.R20_ohm_per_m / (cable.bundle_factor * cable.bundle_factor);
    if (heat20 < 1e-12) return cable.ambient_C;
    const double heat = heat20 * (1 + kCopperAlpha_per_K * (guess_C - 20));
    double x =
        guess_C - cable.ambient_C - heat * cable.wall_K_m_per_W;  // surface rise if the guess were right
    if (!(x > 1e-9)) x = heat / (std::numbers::pi * cable.outer_diameter_m * 12);
    const Loss loss = loss_at(cable, x);
    const double conductor = cable.ambient_C + x + loss.W_per_m * cable.wall_K_m_per_W;
    const double per_x = 1 + loss.slope * cable.wall_K_m_per_W;  // conductor kelvin per surface kelvin
    const double excess = loss.W_per_m - heat20 * (1 + kCopperAlpha_per_K * (conductor - 20));
    const double slope = loss.slope - heat20 * kCopperAlpha_per_K * per_x;
    if (!(slope > 0)) return conductor_temperature_C(cable, current_A, guess_C);  // near a wire that melts
    const double next = x - excess / slope;
    if (!(next > 0)) return conductor_temperature_C(cable, current_A, guess_C);
    return std::min(conductor + (next - x) * per_x, kMelted_C);
}

double conductor_temperature_C(const CableSurroundings& cable, double current_A, double guess_C) {
    const double heat20 =
        current_A * current_A * cable.R20_ohm_per_m / (cable.bundle_factor * cable.bundle_factor);
    if (heat20 < 1e-12) return cable.ambient_C;
    const double wall = cable.wall_K_m_per_W;
    const double highest = kMelted_C - cable.ambient_C;
    // Unknown: the surface's rise x. The conductor stands loss * wall above it. loss - heat rises with x;
    // a good guess only shortens the search.
    double conductor = 0, loss = 0;
    const auto excess = [&](double x) {
        loss = heat_loss_W_per_m(cable, cable.ambient_C + x);
        conductor = cable.ambient_C + x + loss * wall;
        return loss - heat20 * (1 + kCopperAlpha_per_K * (conductor - 20));
    };
    double x = heat20 / (std::numbers::pi * cable.outer_diameter_m * 12);
    if (guess_C > cable.ambient_C)
        x = guess_C - cable.ambient_C - heat20 * (1 + kCopperAlpha_per_K * (guess_C - 20)) * wall;
    if (!(x > 1e-9) || x > highest)
        x = std::clamp(heat20 / (std::numbers::pi * cable.outer_diameter_m * 12), 1e-9, highest);
    const double fx = excess(x);
    // loss goes with about the 1.2th power of the rise: the first slope; the secant takes over from there
    const double slope = 1.2 * loss / x - heat20 * kCopperAlpha_per_K * (1 + 1.2 * loss / x * wall);
    find_rise(
        excess, [](double) { return false; }, x, fx, slope, 0, highest);
    return std::min(conductor, kMelted_C);
}

// Unknown: the surface's rise x. It says what leaves the cable, so how hot its copper is, so which amps heat
// it, so at which volts they flow; the volts rise with x.
HeatedCurrent heated_current(const CableSurroundings& cable, double fixed_ohm, double cable20_ohm,
                             int parallel, double volts, double guess_C) {
    const auto hotter = [](double T) { return 1 + kCopperAlpha_per_K * (T - 20); };
    const auto ohm_at = [&](double T) { return fixed_ohm + cable20_ohm * hotter(T); };
    const double cold_ohm = ohm_at(cable.ambient_C);
    if (!(volts > 0)) return {0, cable.ambient_C, 1 / cold_ohm};
    const double wall = cable.wall_K_m_per_W;
    const double ohm20_per_m = cable.R20_ohm_per_m / (cable.bundle_factor * cable.bundle_factor);
    double T = cable.ambient_C, slope_ohm = cold_ohm, volts_per_K = 0;
    const auto excess_V = [&](double x) {
        const Loss loss = loss_at(cable, x);
        T = cable.ambient_C + x + loss.W_per_m * wall;
        const double amps = parallel * std::sqrt(loss.W_per_m / (ohm20_per_m * hotter(T)));
        const double per_x = 1 + loss.slope * wall;  // conductor kelvin per surface kelvin
        const double stiff = loss.slope / loss.W_per_m - kCopperAlpha_per_K * per_x / hotter(T);
        slope_ohm = ohm_at(T) + (stiff > 0 ? 2 * cable20_ohm * kCopperAlpha_per_K * per_x / stiff : 0);
        volts_per_K = amps * (stiff / 2 * ohm_at(T) + cable20_ohm * kCopperAlpha_per_K * per_x);
        return amps * ohm_at(T) - volts;
    };
    const double guess_A = volts / ohm_at(guess_C) / parallel;
    const double highest = kMelted_C - cable.ambient_C;
    double x = guess_C - cable.ambient_C - guess_A * guess_A * ohm20_per_m * hotter(guess_C) * wall;
    if (!(x > 1e-9)) x = guess_A * guess_A * ohm20_per_m / (std::numbers::pi * cable.outer_diameter_m * 12);
    x = std::clamp(x, 1e-9, highest);
    const double fx = excess_V(x);
    const auto melts = [&](double below_V) { return below_V < 0 && T > kMelted_C; };
    find_rise(excess_V, melts, x, fx, volts_per_K, 0, highest);
    if (T >= kMelted_C) T = kMelted_C, slope_ohm = ohm_at(T);
    return {volts / ohm_at(T), T, 1 / slope_ohm};
}

double current_for_temperature_A(const CableSurroundings& cable, double limit_C) {
    if (limit_C <= cable.ambient_C) return 0;
    const double wall = cable.wall_K_m_per_W, whole = limit_C - cable.ambient_C;
    Loss loss{};
    const auto excess_K = [&](double x) {  // of the conductor over its limit, at that rise of the surface
        loss = loss_at(cable, x);
        return x + loss.W_per_m * wall - whole;
    };
    const double fx = excess_K(whole);
    find_rise(
        excess_K, [](double) { return false; }, whole, fx, 1 + loss.slope * wall, 0, whole);
    const double per_m = cable.R20_ohm_per_m * (1 + kCopperAlpha_per_K * (limit_C - 20));
    return std::sqrt(loss.W_per_m / per_m) * cable.bundle_factor;
}

}  // namespace yr
