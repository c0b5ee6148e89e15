// How a reading moves with everything that a plan does not know to the last percent: the circuit linearised
// where it stands, one adjoint solve a reading.
#pragma once

#include <memory>
#include <vector>

#include "meter/reading.h"
#include "solve/settle.h"

namespace yr {

// What may differ from the plan without being a fault, as standard deviations; common practice, no source.
struct Tolerances {
    double cable = 0.05;        // share of a cable's resistance: length, strands
    double joint = 0.4;         // share of a joint's or bond's
    double contact = 0.15;      // share of a fuse's or contact's
    double load = 0.08;         // share of a load's draw
    double starved = 0.2;       // share of the resistance that a load is which gets too little to work
    double accept = 0.3;        // share of what a battery takes while it takes all it can
    double battery_V = 0.06;    // open volts of 12 V
    double battery_ohm = 0.25;  // share of its resistance
    double source_V = 0.1;      // set volts of 12 V
    double source_A = 0.1;      // share of its limit
    double temperature_K = 8;   // of all copper together
};

// One column a cause, in units of its standard deviation: the same column of two readings moves with the same
// cause. Columns stand for the same thing in every state of a plan.
using Slopes = std::vector<double>;

class SlopeSolver {
  public:
    // `solution` settled and outlives this.
    explicit SlopeSolver(const Solution& solution, const Tolerances& tolerances = {});
    ~SlopeSolver();
    SlopeSolver(SlopeSolver&&) noexcept;

    // Volts or amps; for ohms nothing is known.
    [[nodiscard]] Slopes of(const Probing& where, const Plan& plan) const;

  private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

// Volts, amps as the solution has them. nullopt: a terminal or run that the network does not have.
[[nodiscard]] std::optional<double> value_at(const Solution& solution, const Plan& plan,
                                             const Probing& where);

// The node of a terminal; kNoNode: none.
[[nodiscard]] NodeIndex node_at(const Network& network, const Terminal& terminal);

// Solved as a meter meets it: a load that gets too little to work still conducts, as the resistance that it
// is at nominal volts. So what hangs on an open return stands at the supply's volts, and a weak feed sags.
[[nodiscard]] Solution settle_as_read(Network network, OperatingPointSolver& solver);

// The state of the plan with some loads unplugged, solved so.
[[nodiscard]] Solution solve_for(const Plan& plan, const Probing& where, OperatingPointSolver& solver);
[[nodiscard]] Network network_for(const Plan& plan, const Probing& where);

}  // namespace yr
