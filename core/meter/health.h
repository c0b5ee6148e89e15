// How a battery ages, by its records: resistance from two loads, cranking in the cold from one reading, a
// trend from three.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

// From volts at its posts under two loads, ohm; nullopt: the loads differ by less than 5 A.
[[nodiscard]] std::optional<double> ohm_of_two(double volts1_V, double amps1_A, double volts2_V,
                                               double amps2_A);

struct ColdCrank {
    double post_V = 0, least_V = 0;
    [[nodiscard]] bool cranks() const { return post_V >= least_V; }
};
// Volts at its posts while cranking at that temperature, from one record: `crank_V` while cranking at `at_C`.
// nullopt: the plan has no cranking state or no such battery.
[[nodiscard]] std::optional<ColdCrank> crank_in_the_cold(const Plan& plan, const Id& battery, double crank_V,
                                                         double at_C, double cold_C);

struct HealthPoint {
    double day = 0;  // since any beginning
    double value = 0;
};
struct Trend {
    double a_year = 0, doubt_a_year = 0;  // change and its standard deviation
    std::optional<double> reaches_day;    // when the limit is reached, if it goes on so
};
// A straight line through at least three points, the first and last half a year apart; nullopt: too few.
[[nodiscard]] std::optional<Trend> trend(const std::vector<HealthPoint>& points, double limit);

// Days since 1970 of an ISO date ("2026-03-01", time behind it left out). Failure: not_a_number.
[[nodiscard]] Result<double> day_of(const std::string& iso_date);

// Volts at rest mean something after hours of rest, or with the surface charge burnt off (common practice).
inline constexpr double kRest_h = 4;

}  // namespace yr
