#include "day/year.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "catalog/batteries.h"
#include "day/remedies.h"
#include "day/sky.h"
#include "units/at_once.h"

namespace yr {
namespace {

constexpr double kDarkSun = 0.2, kDarkColder_K = 8;
constexpr double kMiddleOfMonth[] = {15, 46, 74, 105, 135, 166, 196, 227, 258, 288, 319, 349};

Day in_month(const Day& day, std::size_t month) {
    Day d = day;
    if (day.months.size() == 12) {
        d.coldest_C = day.months[month].coldest_C;
        d.hottest_C = day.months[month].hottest_C;
        d.sun_h = day.months[month].sun_h;
    } else {
        d.sun_h.reset();
        d.date = kMiddleOfMonth[month];
    }
    return d;
}

std::vector<double> turning_points(const std::vector<double>& course) {
    std::vector<double> turns;
    for (const double v : course) {
        if (!turns.empty() && v == turns.back()) continue;
        if (turns.size() > 1 && (turns.back() - turns[turns.size() - 2]) * (v - turns.back()) > 0)
            turns.back() = v;
        else
            turns.push_back(v);
    }
    return turns;
}

}  // namespace

std::vector<std::pair<double, double>> rainflow(const std::vector<double>& course) {
    std::vector<std::pair<double, double>> counted;
    std::vector<double> stack;
    for (const double v : turning_points(course)) {
        stack.push_back(v);
        while (stack.size() >= 3) {
            const std::size_t n = stack.size();
            const double x = std::abs(stack[n - 1] - stack[n - 2]), y = std::abs(stack[n - 2] - stack[n - 3]);
            if (x < y) break;
            if (n == 3) {  // y holds the beginning: half a cycle
                counted.emplace_back(y, 0.5);
                stack.erase(stack.begin());
            } else {
                counted.emplace_back(y, 1);
                stack.erase(stack.end() - 3, stack.end() - 1);
            }
        }
    }
    for (std::size_t k = 1; k < stack.size(); ++k)
        counted.emplace_back(std::abs(stack[k] - stack[k - 1]), 0.5);
    return counted;
}

double years_of(const Battery& battery, const std::vector<std::pair<double, double>>& cycles_a_day) {
    const Table& typical = chemistry_data(battery.chemistry).cycle_life;
    const Table& life = battery.cycle_life.empty() ? typical : battery.cycle_life;
    double worn = 0;
    for (const auto& [depth, count] : cycles_a_day) {
        const double shallow = life.front().first;
        // below the table's shallowest: the deeper law goes on as one over the depth
        const double cycles = depth >= shallow ? interpolate(life, depth)
                                               : life.front().second * shallow / std::max(depth, 1e-4);
        worn += count / cycles;
    }
    return worn > 0 ? std::min(1e3, 1 / worn / 365) : 1e3;
}

int Year::fails() const {
    return static_cast<int>(
        std::count_if(months.begin(), months.end(), [](const MonthVerdict& m) { return !m.lasts; }));
}

namespace {

using Cycles = std::vector<std::vector<std::pair<double, double>>>;  // of each battery: depth, count a day

struct MonthRun {
    MonthVerdict verdict;
    Cycles cycles;
};

MonthRun month_of(const Plan& plan, const Day& day, std::size_t month, const std::atomic<bool>* stop) {
    MonthRun out;
    out.cycles.resize(plan.batteries.size());
    const Day d = in_month(day, month);
    MonthVerdict& v = out.verdict;
    v.coldest_C = air_at(d, 5).value_or(0), v.hottest_C = air_at(d, 15).value_or(0);
    v.sun_h = d.sun_h ? *d.sun_h : full_sun_h(*d.latitude_deg, *d.date, d.cloud.value_or(0));
    DayAfterDay days = days_until_clear(plan, d, stop);
    v.lasts = lasts(days);
    Day dark = d;
    dark.sun_h = v.sun_h * kDarkSun;
    if (dark.coldest_C) dark.coldest_C = *dark.coldest_C - kDarkColder_K;
    if (dark.hottest_C) dark.hottest_C = *dark.hottest_C - kDarkColder_K;
    // the dark week is asked of a month that lasts without it
    if (v.lasts) {
        const DayAfterDay week = day_after_day(plan, dark, 7, stop, 10);
        v.dark_week_lasts = !week.no_start_on && !week.dark_on;
    }
    // one that broke off at its first failure is run on to where it goes day by day
    if (!days.returns) days = day_after_day(plan, d, 4, stop, 10);
    const DayRun& run = days.last;
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        std::vector<double> course;
        for (const DayPoint& p : run.points) {
            course.push_back(p.charge[k]);
            v.least_charge = std::min(v.least_charge, p.charge[k]);
        }
        for (const auto& [depth, count] : rainflow(course)) out.cycles[k].emplace_back(depth, count / 12);
    }
    return out;
}

}  // namespace

// Months do not hang on each other: as many at once as the machine has threads.
Year year_of(const Plan& plan, const Day& day, const std::atomic<bool>* stop,
             const std::function<void(double)>& progress) {
    Year year;
    if (day.months.size() != 12 && !day.latitude_deg) return year;
    std::vector<MonthRun> months(12);
    at_once(
        12, [&](std::size_t m) { months[m] = month_of(plan, day, m, stop); }, stop, progress);
    if (stop && *stop) return year;
    Cycles cycles(plan.batteries.size());
    for (const MonthRun& month : months) {
        year.months.push_back(month.verdict);
        for (std::size_t k = 0; k < cycles.size(); ++k)
            cycles[k].insert(cycles[k].end(), month.cycles[k].begin(), month.cycles[k].end());
    }
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        Year::Life life;
        double through = 0;
        for (const auto& [depth, count] : cycles[k])
            through += depth * count, life.depth = std::max(life.depth, depth);
        life.cycles = through * 365;  // as full ones
        const double years = years_of(plan.batteries[k], cycles[k]);
        life.least_years = years / 2, life.most_years = years * 2;
        year.lives.push_back(life);
    }
    return year;
}

}  // namespace yr
