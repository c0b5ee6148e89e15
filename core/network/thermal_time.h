// The temperature of a cable in time: what a current of seconds or minutes does to it.
//
// One node of heat for the conductor with its share of the insulation (CableSurroundings::heat_J_per_mK),
// losing what the steady balance of thermal.h loses at that temperature. For seconds this is the adiabatic
// equation of IEC 60364-5-54 with the metal's own resistance over temperature; for hours it ends at the
// steady balance.
#pragma once

#include <vector>

#include "network/thermal.h"

namespace yr {

// Highest conductor temperature after a short that the insulation bears: 160 C up to 105 C insulations, 250 C
// for cross-linked ones of 125 C and more. IEC 60364-5-54 table 54 (from memory).
[[nodiscard]] double short_limit_C(double insulation_C);

// k of I2t = k2 S2 for copper between two temperatures, A s^0.5 / mm2: IEC 60364-5-54 annex A,
// k = 226 sqrt(ln(1 + (Tf - Ti) / (234.5 + Ti))) (from memory).
[[nodiscard]] double adiabatic_k(double start_C, double end_C);

// Temperature after `seconds` at a constant current in one cable, from `start_C`. Melted at 2000 C.
[[nodiscard]] double temperature_after_C(const CableSurroundings& cable, double current_A, double start_C,
                                         double seconds);

// What the same current makes of it at most: no heat leaves, and the metal alone takes it up. Costs nothing.
[[nodiscard]] double adiabatic_bound_C(const CableSurroundings& cable, double current_A, double start_C,
                                       double seconds);

// Seconds until it reaches `limit_C`; infinity where the steady balance lies below. 0 at or above it already.
[[nodiscard]] double time_to_C(const CableSurroundings& cable, double current_A, double start_C,
                               double limit_C);

// Current that the cable bears for so long before it reaches `limit_C`, A.
[[nodiscard]] double current_for_time_A(const CableSurroundings& cable, double start_C, double limit_C,
                                        double seconds);

// A turn of work: so many amps for so long; the cable then rests (or carries `rest_A`) for `rest_s`.
struct DutyCycle {
    double on_A = 0, on_s = 0;
    double rest_A = 0, rest_s = 0;
};

// What one of so many cables side by side carries of it.
[[nodiscard]] inline DutyCycle each_of(DutyCycle whole, int parallel) {
    whole.on_A /= parallel, whole.rest_A /= parallel;
    return whole;
}

struct DutyResult {
    double first_C = 0;  // at the end of the first turn from rest
    double peak_C = 0;   // at the end of a turn once turns repeat for ever
};
// No root-mean-square shortcut: turns are followed until they repeat.
[[nodiscard]] DutyResult duty_temperature(const CableSurroundings& cable, const DutyCycle& cycle);

}  // namespace yr
