// Steady temperature of a cable from its own heat: I2R against natural convection and radiation.
//
// Convection: Churchill and Chu 1975, horizontal cylinder, Int. J. Heat Mass Transfer 18, 1049 (from memory):
//     Nu = (0.60 + 0.387 Ra^(1/6) / (1 + (0.559/Pr)^(9/16))^(8/27))^2,   Ra <= 1e12
// Radiation: grey surface against surroundings at air temperature. Conduction through the insulation wall.
// Air properties by power laws of the film temperature (fit to tables, from memory): within 2 % from 250 to
// 450 K.
#pragma once

#include "catalog/conductors.h"

namespace yr {

// Beyond this no cable is followed: its copper is gone (1085 C), its insulation long before.
constexpr double kMelted_C = 2000;

struct CableSurroundings {
    double ambient_C = 25;
    double R20_ohm_per_m = 0;  // one cable
    double strand_diameter_m = 0;
    double outer_diameter_m = 0;
    double wall_K_m_per_W = 0;  // through the insulation, for one metre of cable
    double heat_J_per_mK = 0;   // what one metre takes up per kelvin
    double bundle_factor = 1;  // heat counts as I2R / factor2: the factor is the current of equal temperature
};

[[nodiscard]] CableSurroundings surroundings_of(const Conductor& conductor, double ambient_C,
                                                double bundle_factor);

// Heat that leaves one metre of surface at that temperature, W/m. surface_C >= ambient_C.
[[nodiscard]] double heat_loss_W_per_m(const CableSurroundings& cable, double surface_C);

// Conductor temperature in degrees C at `current_A` in one cable, to 1e-9 K. `guess_C` speeds it up.
// A current that would heat beyond 2000 C gives 2000: a wire that hot has melted (copper 1085 C).
[[nodiscard]] double conductor_temperature_C(const CableSurroundings& cable, double current_A,
                                             double guess_C);

// One Newton step of the same balance from a guess: what a solver uses that moves currents and temperatures
// together. Equal to conductor_temperature_C where the guess already is that temperature; each step leaves a
// few per cent of the error.
[[nodiscard]] double conductor_temperature_step_C(const CableSurroundings& cable, double current_A,
                                                  double guess_C);

// What flows through a cable behind fixed ohms at these volts when it has reached the temperature that this
// current gives it: the law of a conductor with its own heat in it. More volts always drive more current, so
// that a cable in a dead short has one answer, and only one, short of melting.
struct HeatedCurrent {
    double current_A = 0;  // of all parallel cables together
    double temperature_C = 0;
    double slope_S = 0;  // dI/dV, smaller than 1/R since the copper heats along
};
// cable20_ohm, fixed_ohm: of all parallel cables together. volts >= 0. `guess_C`, of the copper, speeds it
// up.
[[nodiscard]] HeatedCurrent heated_current(const CableSurroundings& cable, double fixed_ohm,
                                           double cable20_ohm, int parallel, double volts, double guess_C);

// Current that brings the conductor to `limit_C`; 0 when the air is as hot. The physics' own opinion on
// ampacity.
[[nodiscard]] double current_for_temperature_A(const CableSurroundings& cable, double limit_C);

}  // namespace yr
