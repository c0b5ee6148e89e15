#include "day/stop_at.h"

#include <cmath>

namespace yr {
namespace {

constexpr int kVoltHalvings = 12;
constexpr double kHabit_V = 11;  // of a 12 V battery, what people say

CrankMoment at_charge(const Plan& plan, double charge, double temperature_C) {
    CrankMoment m;
    m.charge.assign(plan.batteries.size(), charge);
    m.temperature_C.assign(plan.batteries.size(), temperature_C);
    m.engine_C = temperature_C;
    return m;
}

}  // namespace

std::optional<StopAt> stop_at(const Plan& plan, double amps, double temperature_C) {
    Cranking cranking(plan);
    const auto full = cranking.at(at_charge(plan, 1, temperature_C));
    if (!full || !full->cranks()) return std::nullopt;
    StopAt s;
    s.battery = full->battery, s.amps = amps, s.temperature_C = temperature_C;
    double low = 0, high = 1;
    for (int k = 0; k < kVoltHalvings; ++k) {
        const double middle = (low + high) / 2;
        const auto c = cranking.at(at_charge(plan, middle, temperature_C));
        (c && c->cranks() ? high : low) = middle;
    }
    s.least_charge = high;
    const auto index = static_cast<std::size_t>(find(plan.batteries, s.battery) - plan.batteries.data());
    BatteryElement e = compile(plan, plan.states.front()).batteries[index];
    const CellModel m = cell_model(plan.batteries[index], e);
    const auto under_load = [&](double charge) {  // both branches settled
        at_moment(e, charge, temperature_C);
        return e.open_V - amps * (e.R0_ohm + m.rc1_ohm.value_or(m.rc1_share * e.full_warm_ohm) +
                                  m.rc2_ohm.value_or(m.rc2_share * e.full_warm_ohm));
    };
    s.volts = under_load(s.least_charge);
    s.half_V = under_load(0.5);
    s.habit_V = kHabit_V * e.blocks;
    double empty = 0, charged = 1;
    for (int k = 0; k < kVoltHalvings; ++k) {
        const double middle = (empty + charged) / 2;
        (under_load(middle) > s.habit_V ? charged : empty) = middle;
    }
    s.habit_charge = under_load(1) <= s.habit_V ? 1 : empty;
    return s;
}

}  // namespace yr
