// A battery in time: charge in two wells, two RC branches, temperature. Closed form for a steady current, so
// that a step may be long.
//
// Lead: the kinetic model of Manwell and McGowan (1993): what a fast discharge leaves in the bound well comes
// back with rest, and coulombs balance. Fitted to the 20 h capacity, the reserve minutes (or Peukert's
// exponent at one hour) and five hours. Lithium: one well.
#pragma once

#include "network/network.h"
#include "plan/plan.h"

namespace yr {

// Two wells: share of the available one, rate between them, and the charge of both, Ah.
struct Wells {
    double c = 1, k_per_h = 1, most_Ah = 0;
};
// Capacity at a steady discharge over that many hours, Ah.
[[nodiscard]] double capacity_at_Ah(const Wells& wells, double hours);
// Failure to fit leaves one well. `reserve_min` 0: none.
[[nodiscard]] Wells fit_wells(double capacity_Ah, double peukert, double reserve_min);

struct CellModel {
    Wells wells;
    double charge_efficiency = 1;
    double self_discharge_per_h = 0;                               // share of its charge
    double rc1_share = 0, rc1_s = 30, rc2_share = 0, rc2_s = 600;  // resistances as shares of its own, or
    std::optional<double> rc1_ohm, rc2_ohm;                        // as stated
    double warms_in_s = 6 * 3600;
};
[[nodiscard]] CellModel cell_model(const Battery& battery, const BatteryElement& element);

struct CellState {
    double available_Ah = 0, bound_Ah = 0;
    double rc1_V = 0, rc2_V = 0;  // what the branches take off the open volts
    double temperature_C = 25;
    double lost_Ah =
        0;  // by efficiency, self-discharge and what a full battery gasses away, since the beginning
    [[nodiscard]] double charge(const CellModel& m) const {
        return (available_Ah + bound_Ah) / m.wells.most_Ah;
    }
    // Of the available well alone: what its volts follow.
    [[nodiscard]] double head(const CellModel& m) const {
        return available_Ah / (m.wells.c * m.wells.most_Ah);
    }
};
// At rest for long, at that charge 0..1.
[[nodiscard]] CellState rested(const CellModel& model, double charge, double temperature_C);

// After `seconds` at that steady current (what it gives; negative while it charges), in air of that
// temperature.
[[nodiscard]] CellState after(const CellModel& model, const BatteryElement& element, CellState state,
                              double amps, double seconds, double air_C);

// The element as the network sees it `seconds` into a step whose current is not known yet: volts that the
// current itself takes off until then stand as resistance, so that a step is stable whatever its length. 0 s:
// as it is. `empty`: it takes, and gives nothing.
void set_element(BatteryElement& element, const CellModel& model, const CellState& state, double amps_before,
                 double seconds, bool empty = false);

// A battery whose available well has run dry gives nothing until so much of it has come back.
inline constexpr double kEmptyHead = 1e-4, kAliveHead = 0.05;

}  // namespace yr
