// A year of such days: twelve months of climate, in each a dark and cold week as well; cycles and the years
// they leave.
#pragma once

#include <atomic>
#include <functional>
#include <utility>
#include <vector>

#include "day/verdicts.h"

namespace yr {

// Ranges of a course and how often each occurs, 0.5 or 1: rainflow counting, ASTM E1049-85, 5.4.4.
[[nodiscard]] std::vector<std::pair<double, double>> rainflow(const std::vector<double>& course);

// Years until 80 % of the capacity are left, where each day has such cycles (depth 0..1, count): Miner's sum
// over the battery's table of cycles by depth. 1e3 where it hardly cycles.
[[nodiscard]] double years_of(const Battery& battery,
                              const std::vector<std::pair<double, double>>& cycles_a_day);

struct MonthVerdict {
    double coldest_C = 0, hottest_C = 0, sun_h = 0;
    bool lasts = false,
         dark_week_lasts = false;  // seven days with a fifth of the sun, 8 K colder; common practice
    double least_charge = 1;       // of any battery on a settled day
};
struct Year {
    std::vector<MonthVerdict> months;  // twelve; empty: the day says nothing of months and no latitude
    // Of each battery: full cycles a year, mean depth, and the years they leave (twice as good and half as
    // good as typical).
    struct Life {
        double cycles = 0, depth = 0, least_years = 0, most_years = 0;
    };
    std::vector<Life> lives;
    [[nodiscard]] int fails() const;
};
[[nodiscard]] Year year_of(const Plan& plan, const Day& day, const std::atomic<bool>* stop = nullptr,
                           const std::function<void(double)>& progress = {});

}  // namespace yr
