#include "day/sky.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace yr {
namespace {

constexpr double kPi = std::numbers::pi;
constexpr double kColdest_h = 5, kHottest_h = 15;
constexpr double kSunrise_h = 6, kSunset_h = 18;

double of_clock(double hour) {
    const double h = std::fmod(hour, 24);
    return h < 0 ? h + 24 : h;
}

}  // namespace

double clear_sky(double latitude_deg, double day_of_year, double hour) {
    const double declination = 23.45 * kPi / 180 * std::sin(2 * kPi * (284 + day_of_year) / 365);
    const double latitude = latitude_deg * kPi / 180, angle = (of_clock(hour) - 12) * 15 * kPi / 180;
    const double up = std::sin(latitude) * std::sin(declination) +
                      std::cos(latitude) * std::cos(declination) * std::cos(angle);
    return up <= 1e-3 ? 0 : 1.098 * up * std::exp(-0.057 / up);
}

double through_cloud(double cloud) {
    return 1 - 0.75 * std::pow(std::clamp(cloud, 0.0, 1.0), 3.4);
}

double full_sun_h(double latitude_deg, double day_of_year, double cloud) {
    constexpr int steps = 240;
    constexpr double step_h = 24.0 / steps;
    double sum = 0;
    for (int k = 0; k < steps; ++k) sum += clear_sky(latitude_deg, day_of_year, (k + 0.5) * step_h) * step_h;
    return sum * through_cloud(cloud);
}

double air_C(double coldest_C, double hottest_C, double hour) {
    const double h = of_clock(hour), rise = kHottest_h - kColdest_h, fall = 24 - rise;
    const bool rising = h >= kColdest_h && h < kHottest_h;
    const double since = rising ? h - kColdest_h : of_clock(h - kHottest_h);
    const double swing = std::cos(kPi * since / (rising ? rise : fall));
    const double middle = (coldest_C + hottest_C) / 2, half = (hottest_C - coldest_C) / 2;
    return middle + (rising ? -half : half) * swing;
}

double sun_of_hours(double sun_h, double hour) {
    const double h = of_clock(hour), span = kSunset_h - kSunrise_h;
    if (h <= kSunrise_h || h >= kSunset_h) return 0;
    return sun_h * kPi / (2 * span) * std::sin(kPi * (h - kSunrise_h) / span);
}

std::optional<double> air_at(const Day& day, double hour) {
    if (!day.coldest_C && !day.hottest_C) return std::nullopt;
    const double one = day.coldest_C.value_or(day.hottest_C.value_or(0));
    return air_C(one, day.hottest_C.value_or(one), hour);
}

std::optional<double> sun_at(const Day& day, double hour) {
    if (day.sun_h) return sun_of_hours(*day.sun_h, hour);
    if (!day.latitude_deg || !day.date) return std::nullopt;
    return clear_sky(*day.latitude_deg, *day.date, hour) * through_cloud(day.cloud.value_or(0));
}

}  // namespace yr
