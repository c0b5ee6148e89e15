// Air and sun over a day: what a day of the plan says of them, at any hour of the clock.
#pragma once

#include <optional>

#include "plan/plan.h"

namespace yr {

// Share of full sun (1000 W/m2) on the level at that hour under a clear sky. Declination by Cooper (1969),
// clear sky by Haurwitz (1945): 1098 cos z exp(-0.057 / cos z) W/m2; both from memory. Hours are of the sun:
// 12 is noon.
[[nodiscard]] double clear_sky(double latitude_deg, double day_of_year, double hour);

// What clouds over that share of the sky leave of it: 1 - 0.75 N^3.4, Kasten and Czeplak (1980), from memory.
[[nodiscard]] double through_cloud(double cloud);

// Hours of full sun in such a day: the integral of the two.
[[nodiscard]] double full_sun_h(double latitude_deg, double day_of_year, double cloud);

// Air at that hour between the coldest (5 h) and the hottest (15 h), each half a cosine; common practice, no
// source.
[[nodiscard]] double air_C(double coldest_C, double hottest_C, double hour);

// Share of full sun at that hour where a day has so many hours of it: half a sine from 6 h to 18 h; common
// practice.
[[nodiscard]] double sun_of_hours(double sun_h, double hour);

// The day's own air and sun at that hour of the clock; empty: as the state says.
[[nodiscard]] std::optional<double> air_at(const Day& day, double hour);
[[nodiscard]] std::optional<double> sun_at(const Day& day, double hour);

}  // namespace yr
