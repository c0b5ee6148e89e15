#include "day/cell.h"

#include <algorithm>
#include <cmath>

#include "catalog/batteries.h"

namespace yr {
namespace {

constexpr double kHour_s = 3600;
constexpr double kRated_h = 20, kReserve_A = 25;
constexpr double kEmpty_V = 0.5;  // where an empty battery stands, V of a 12 V block

// Share of both wells that comes out over so many hours.
double share_at(double c, double k, double hours) {
    const double kt = k * hours, e = std::exp(-kt);
    return kt * c / (1 - e + c * (kt - 1 + e));
}

double peukert_Ah(double capacity_Ah, double n, double hours) {
    return capacity_Ah * std::pow(hours / kRated_h, (n - 1) / n);
}

// Available and bound after a steady current, Ah and hours.
std::pair<double, double> flow(const Wells& w, double q1, double q2, double amps, double h) {
    const double q0 = q1 + q2;
    if (w.c >= 1) return {q0 - amps * h, 0};
    const double k = w.k_per_h, r = std::exp(-k * h), m = (k * h - 1 + r) / k;
    return {q1 * r + (q0 * k * w.c - amps) * (1 - r) / k - amps * w.c * m,
            q2 * r + q0 * (1 - w.c) * (1 - r) - amps * (1 - w.c) * m};
}

}  // namespace

double capacity_at_Ah(const Wells& wells, double hours) {
    return wells.most_Ah * (wells.c >= 1 ? 1 : share_at(wells.c, wells.k_per_h, hours));
}

Wells fit_wells(double capacity_Ah, double peukert, double reserve_min) {
    Wells best{1, 1, capacity_Ah};
    if (peukert < 1.02) return best;
    const double fast_h = reserve_min > 0 ? reserve_min / 60 : 1;
    const double fast_Ah = reserve_min > 0 ? kReserve_A * fast_h : peukert_Ah(capacity_Ah, peukert, 1);
    if (fast_h >= kRated_h || fast_Ah >= capacity_Ah) return best;
    const double middle_Ah = peukert_Ah(capacity_Ah, peukert, 5);
    double least = 1e9;
    const auto consider = [&](double c, double k) {
        const double rated = share_at(c, k, kRated_h);
        const double fast = share_at(c, k, fast_h) / rated * capacity_Ah / fast_Ah - 1;
        const double middle = share_at(c, k, 5) / rated * capacity_Ah / middle_Ah - 1;
        const double wrong = fast * fast + 0.3 * middle * middle;
        if (wrong < least) least = wrong, best = {c, k, capacity_Ah / rated};
    };
    double from_c = 0.05, to_c = 0.98, from_k = 0.02, to_k = 30;
    for (int round = 0; round < 3; ++round) {
        constexpr int n = 40;
        for (int a = 0; a <= n; ++a)
            for (int b = 0; b <= n; ++b)
                consider(from_c + (to_c - from_c) * a / n, from_k * std::pow(to_k / from_k, double(b) / n));
        const double width = (to_c - from_c) / n * 2, ratio = std::pow(to_k / from_k, 2.0 / n);
        from_c = std::max(0.02, best.c - width), to_c = std::min(0.99, best.c + width);
        from_k = best.k_per_h / ratio, to_k = best.k_per_h * ratio;
    }
    return best;
}

CellModel cell_model(const Battery& b, const BatteryElement& e) {
    const ChemistryData& chemistry = chemistry_data(b.chemistry);
    CellModel m;
    m.wells = b.chemistry == Chemistry::lifepo4
                  ? Wells{1, 1, e.capacity_Ah}  // coulombs
                  : fit_wells(e.capacity_Ah, e.peukert, b.reserve_min.value_or(0) * b.health.value_or(1));
    m.charge_efficiency = b.charge_efficiency.value_or(chemistry.charge_efficiency);
    m.self_discharge_per_h = b.self_discharge.value_or(chemistry.self_discharge) / (30 * 24);
    m.rc1_share = chemistry.rc1_share, m.rc2_share = chemistry.rc2_share;
    m.rc1_ohm = b.rc1_ohm, m.rc2_ohm = b.rc2_ohm;
    m.rc1_s = b.rc1_s.value_or(chemistry.rc1_s), m.rc2_s = b.rc2_s.value_or(chemistry.rc2_s);
    m.warms_in_s = chemistry.warms_in_s;
    return m;
}

CellState rested(const CellModel& m, double charge, double temperature_C) {
    CellState s;
    s.available_Ah = m.wells.c * m.wells.most_Ah * charge;
    s.bound_Ah = (1 - m.wells.c) * m.wells.most_Ah * charge;
    s.temperature_C = temperature_C;
    return s;
}

namespace {

struct Branches {
    double ohm1, ohm2;
};
Branches branches(const CellModel& m, const BatteryElement& e) {
    // as its own resistance when warm and full; stated ones as they are
    return {m.rc1_ohm.value_or(m.rc1_share * e.full_warm_ohm),
            m.rc2_ohm.value_or(m.rc2_share * e.full_warm_ohm)};
}

}  // namespace

CellState after(const CellModel& m, const BatteryElement& e, CellState s, double amps, double seconds,
                double air_C) {
    const double h = seconds / kHour_s;
    const double kept = amps < 0 ? amps * m.charge_efficiency : amps;
    s.lost_Ah += (kept - amps) * h;
    const double before = s.available_Ah + s.bound_Ah;
    std::tie(s.available_Ah, s.bound_Ah) = flow(m.wells, s.available_Ah, s.bound_Ah, kept, h);
    const double rest = std::exp(-m.self_discharge_per_h * h);
    s.lost_Ah += before * (1 - rest);
    s.available_Ah *= rest, s.bound_Ah *= rest;
    // what a full well cannot take is gassed away
    const double most1 = m.wells.c * m.wells.most_Ah, most2 = (1 - m.wells.c) * m.wells.most_Ah;
    if (s.available_Ah > most1) s.lost_Ah += s.available_Ah - most1, s.available_Ah = most1;
    if (s.bound_Ah > most2) s.lost_Ah += s.bound_Ah - most2, s.bound_Ah = most2;
    s.available_Ah = std::max(0.0, s.available_Ah), s.bound_Ah = std::max(0.0, s.bound_Ah);
    const Branches b = branches(m, e);
    const auto settle = [&](double v, double ohm, double tau) {
        const double left = std::exp(-seconds / tau);
        return v * left + amps * ohm * (1 - left);
    };
    s.rc1_V = settle(s.rc1_V, b.ohm1, m.rc1_s);
    s.rc2_V = settle(s.rc2_V, b.ohm2, m.rc2_s);
    s.temperature_C = air_C + (s.temperature_C - air_C) * std::exp(-seconds / m.warms_in_s);
    return s;
}

void set_element(BatteryElement& e, const CellModel& m, const CellState& s, double amps_before,
                 double seconds, bool empty) {
    const double h = seconds / kHour_s;
    const double most1 = m.wells.c * m.wells.most_Ah;
    const auto head_at = [&](double amps) {
        const double kept = amps < 0 ? amps * m.charge_efficiency : amps;
        return std::clamp(flow(m.wells, s.available_Ah, s.bound_Ah, kept, h).first / most1, 0.0, 1.0);
    };
    const double idle = head_at(0), drawn = head_at(amps_before);
    at_moment(e, drawn, s.temperature_C);
    if (empty) {
        e.open_V = kEmpty_V * e.blocks;
        return;
    }
    const Branches b = branches(m, e);
    const double left1 = std::exp(-seconds / m.rc1_s), left2 = std::exp(-seconds / m.rc2_s);
    const double drawn_V = e.open_V;
    // the slope of the open volts along the current, so that what it takes off itself is in the step
    double slope_ohm = 0;
    if (std::abs(amps_before) > 1e-6) {
        BatteryElement at_rest = e;
        at_moment(at_rest, idle, s.temperature_C);
        slope_ohm = std::max(0.0, (at_rest.open_V - drawn_V) / amps_before);
    }
    e.open_V = drawn_V + slope_ohm * amps_before - s.rc1_V * left1 - s.rc2_V * left2;
    e.R0_ohm += b.ohm1 * (1 - left1) + b.ohm2 * (1 - left2) + slope_ohm;
}

}  // namespace yr
