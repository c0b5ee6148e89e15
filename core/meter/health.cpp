#include "meter/health.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "day/cranking.h"
#include "meter/slopes.h"
#include "plan/rail_volts.h"
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
    t.middle_day = x, t.middle = y;
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
    const int days = era * 146097 + of_era * 365 + of_era / 4 - of_era / 100 + of_year - 719468;
    return days;
}

std::string iso_date(double of_day) {
    // the way back, of the same source
    const int z = static_cast<int>(std::floor(of_day)) + 719468;
    const int era = (z >= 0 ? z : z - 146096) / 146097, of_era = z - era * 146097;
    const int year_of = (of_era - of_era / 1460 + of_era / 36524 - of_era / 146096) / 365;
    const int of_year = of_era - (365 * year_of + year_of / 4 - year_of / 100);
    const int shifted = (5 * of_year + 2) / 153, day = of_year - (153 * shifted + 2) / 5 + 1;
    const int month = shifted < 10 ? shifted + 3 : shifted - 9;
    char text[40];
    std::snprintf(text, sizeof text, "%04d-%02d-%02d", year_of + era * 400 + (month <= 2), month, day);
    return text;
}

namespace {

bool across_posts(const Plan& plan, const Id& battery, const Probing& where) {
    const bool minus = where.black == neg_of(battery) ||
                       (where.black.empty() && !plan.batteries.empty() && plan.batteries[0].id == battery);
    return where.red == pos_of(battery) && minus;
}

std::optional<double> charge_at_rest(const Battery& battery, double nominal_V, double volts_V) {
    Table charge_by_V;
    for (const auto& [charge, open_V] : chemistry_data(battery.chemistry).ocv_V)
        charge_by_V.emplace_back(open_V * nominal_V / 12, charge);
    const double full_V = charge_by_V.back().first, empty_V = charge_by_V.front().first;
    if (volts_V > full_V + 0.3 * (full_V - empty_V)) return std::nullopt;  // it was charged a while ago
    return interpolate(charge_by_V, volts_V);
}

}  // namespace

std::vector<HealthDay> health_days(const Plan& plan, const Id& battery, const std::vector<Record>& records,
                                   double cold_C) {
    std::vector<HealthDay> days;
    const Battery* b = find(plan.batteries, battery);
    if (!b) return days;
    for (const Record& r : records) {
        if (r.kind != RecordKind::reading || !r.value || !across_posts(plan, battery, r.where)) continue;
        const std::string date = r.when.substr(0, 10);
        if (!day_of(date)) continue;
        const State* state = find_state(plan, r.where.state);
        HealthDay* day = nullptr;
        for (HealthDay& d : days)
            if (d.date == date) day = &d;
        if (!day) day = &days.emplace_back(HealthDay{date, {}, {}, {}, {}, {}, {}});
        if (r.where.kind == ReadKind::ohms) {
            day->ohm = r.value;
        } else if (state && r.where.kind == ReadKind::volts && role_of(*state) == StateRole::cranking) {
            day->crank_V = r.value;
            day->at_C = r.temperature_C.value_or(state->ambient_C);
            day->cold = crank_in_the_cold(plan, battery, *r.value, *day->at_C, cold_C);
        } else if (state && r.where.kind == ReadKind::volts && stands(*state)) {
            day->rested_V = r.value;
            day->charge = charge_at_rest(*b, battery_V(plan, *b), *r.value);
        }
    }
    std::stable_sort(days.begin(), days.end(),
                     [](const HealthDay& a, const HealthDay& c) { return a.date < c.date; });
    return days;
}

std::optional<Record> health_record(const Plan& plan, const Id& battery, HealthReading kind, double value,
                                    std::optional<double> at_C) {
    Record r;
    r.kind = RecordKind::reading;
    r.where = {ReadKind::volts, pos_of(battery), neg_of(battery), {}, {}, {}};
    r.value = value, r.about = battery, r.temperature_C = at_C;
    if (kind == HealthReading::ohm) {
        r.where.kind = ReadKind::ohms;
        return r;
    }
    const State* state =
        state_of_role(plan, kind == HealthReading::crank_V ? StateRole::cranking : StateRole::parked);
    if (!state) return std::nullopt;
    r.where.state = state->id;
    return r;
}

std::optional<Outlook> outlook(const std::vector<HealthDay>& days) {
    std::vector<HealthPoint> points;
    double least_V = 0;
    for (const HealthDay& d : days)
        if (d.cold)
            if (const auto day = day_of(d.date))
                points.push_back({*day, d.cold->post_V}), least_V = d.cold->least_V;
    const auto line = trend(points, least_V);
    if (!line) return std::nullopt;
    Outlook o{*line, {}};
    for (const HealthDay& d : days)
        if (!o.reaches && d.cold && !d.cold->cranks()) o.reaches = d.date;  // it is there already
    // a fall within its own doubt is none
    if (!o.reaches && line->reaches_day && line->a_year < -2 * line->doubt_a_year && line->a_year < 0)
        o.reaches = iso_date(*line->reaches_day);
    return o;
}

}  // namespace yr
