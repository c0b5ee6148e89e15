#include "meter/health.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "day/cranking.h"
#include "meter/slopes.h"
#include "plan/roles.h"

namespace yr {

std::optional<double> ohm_of_two(double v1, double i1, double v2, double i2) {
    if (std::abs(i2 - i1) < 5) return std::nullopt;
    return (v1 - v2) / (i2 - i1);
}

std::optional<ColdCrank> crank_in_the_cold(const Plan& plan, const Id& battery, double crank_V, double at_C,
                                           double cold_C) {
    const State* cranking = state_of_role(plan, StateRole::cranking);
    std::size_t index = plan.batteries.size();
    for (std::size_t k = 0; k < plan.batteries.size(); ++k)
        if (plan.batteries[k].id == battery) index = k;
    if (!cranking || index == plan.batteries.size()) return std::nullopt;
    Probing where;
    where.state = cranking->id;
    OperatingPointSolver solver;
    const auto post_V = [&](double factor, double temperature_C) -> std::optional<double> {
        Network n = network_for(plan, where);
        BatteryElement& b = n.batteries[index];
        at_moment(b, b.charge, temperature_C);
        b.R0_ohm *= factor;
        // a cold engine wants more torque, so its motor takes as much more
        const double torque = cold_torque(temperature_C) / cold_torque(cranking->ambient_C);
        for (std::size_t l = 0; l < plan.loads.size(); ++l)
            if (plan.loads[l].starter && n.loads[l].kind == DrawKind::resistance) n.loads[l].value /= torque;
        const Solution s = settle(std::move(n), solver);
        if (!s.point.settled) return std::nullopt;
        return s.point.batteries[index].voltage_V;
    };
    // its resistance against the plan's is what makes it read so
    double low = 0.2, high = 30;
    const auto at_low = post_V(low, at_C), at_high = post_V(high, at_C);
    if (!at_low || !at_high) return std::nullopt;
    for (int k = 0; k < 50; ++k) {
        const double middle = std::sqrt(low * high);
        const auto v = post_V(middle, at_C);
        if (!v) return std::nullopt;
        (*v > crank_V ? low : high) = middle;
    }
    const auto cold = post_V(std::sqrt(low * high), cold_C);
    if (!cold) return std::nullopt;
    return ColdCrank{*cold, least_cranking_V(cold_C) * plan.vehicle.nominal_V / 12};
}

std::optional<Trend> trend(const std::vector<HealthPoint>& points, double limit) {
    if (points.size() < 3) return std::nullopt;
    const auto [first, last] = std::minmax_element(
        points.begin(), points.end(), [](const auto& a, const auto& b) { return a.day < b.day; });
    if (last->day - first->day < 182) return std::nullopt;
    const auto n = static_cast<double>(points.size());
    double x = 0, y = 0;
    for (const HealthPoint& p : points) x += p.day / n, y += p.value / n;
    double xx = 0, xy = 0, rest = 0;
    for (const HealthPoint& p : points) xx += (p.day - x) * (p.day - x), xy += (p.day - x) * (p.value - y);
    const double slope = xy / xx;
    for (const HealthPoint& p : points) rest += std::pow(p.value - y - slope * (p.day - x), 2);
    Trend t;
    t.a_year = slope * 365.25;
    t.doubt_a_year = std::sqrt(rest / std::max(1.0, n - 2) / xx) * 365.25;
    if (std::abs(slope) > 1e-12) {
        const double day = x + (limit - y) / slope;
        if (day > last->day) t.reaches_day = day;
    }
    return t;
}

Result<double> day_of(const std::string& text) {
    int year = 0, month = 0, day = 0;
    if (std::sscanf(text.c_str(), "%4d-%2d-%2d", &year, &month, &day) != 3 || month < 1 || month > 12 ||
        day < 1 || day > 31)
        return fail(ErrorCode::not_a_number, "date", text);
    // days from the civil calendar (H. Hinnant, "chrono-compatible low-level date algorithms")
    year -= month <= 2;
    const int era = (year >= 0 ? year : year - 399) / 400;
    const int of_era = year - era * 400, of_year = (153 * (month + (month > 2 ? -3 : 9)) + 2) / 5 + day - 1;
    return era * 146097.0 + of_era * 365 + of_era / 4 - of_era / 100 + of_year - 719468;
}

}  // namespace yr
