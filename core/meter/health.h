// How a battery ages, by its records: resistance from two loads, cranking in the cold from one reading, a
// trend from three.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "meter/records.h"
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
    double middle_day = 0, middle = 0;    // the line goes through here
    std::optional<double> reaches_day;    // when the limit is reached, if it goes on so
};
// A straight line through at least three points, the first and last half a year apart; nullopt: too few.
[[nodiscard]] std::optional<Trend> trend(const std::vector<HealthPoint>& points, double limit);

// Days since 1970 of an ISO date ("2026-03-01", time behind it left out). Failure: not_a_number.
[[nodiscard]] Result<double> day_of(const std::string& iso_date);

// The date of so many days since 1970: "2026-03-01".
[[nodiscard]] std::string iso_date(double day);

// What one day's readings say of a battery: rested volts, volts while cranking, its resistance.
struct HealthDay {
    std::string date;
    std::optional<double> rested_V, charge, crank_V, at_C, ohm;
    std::optional<ColdCrank> cold;  // what it would crank at in the cold asked for
};
// From its records, earliest first: volts across its posts in a state in which the engine stands or the
// starter turns, ohms across its posts (of two loads). A reading of which no record has the warmth counts at
// its state's.
[[nodiscard]] std::vector<HealthDay> health_days(const Plan& plan, const Id& battery,
                                                 const std::vector<Record>& records, double cold_C);

// Line of the record for what was read by hand. REQUIRES: the plan has a state of that kind (else nullopt).
enum class HealthReading { rested_V, crank_V, ohm };
[[nodiscard]] std::optional<Record> health_record(const Plan& plan, const Id& battery, HealthReading kind,
                                                  double value, std::optional<double> at_C);

// The winter it will not see: cranking volts in the cold fall below what is needed by `reaches` (ISO date) at
// the present rate; nullopt: no trend yet, or none downwards.
struct Outlook {
    Trend trend;  // of volts in the cold
    std::optional<std::string> reaches;
};
[[nodiscard]] std::optional<Outlook> outlook(const std::vector<HealthDay>& days);

// Volts at rest mean something after hours of rest, or with the surface charge burnt off (common practice).
inline constexpr double kRest_h = 4;

}  // namespace yr
