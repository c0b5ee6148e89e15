// The operating point: every voltage and current of one network, steady.
//
// Nodal analysis with the device laws below, Newton from light load, symmetric sparse factors (Eigen LDLT):
//   battery    i = clamp((E - v) / R0, -accept, any)              what it gives; it takes no more than it
//   accepts source     i = clamp((Vset - v) / droop, 0, limit)            regulated, then a current source;
//   no reverse current load       constant current, constant power P = v i, or resistance conductor  v = i
//   (R_fixed + R_cable(T)), T from the heat balance of its own current converter  a source whose input takes
//   v_out i_out / efficiency + standby at constant power
// Constant power has two solutions or none (V^2 < 4 R P). Coming from light load Newton falls monotonically
// onto the high one; where it finds none, the load that cannot be served is named, left off, and the rest is
// solved.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "network/network.h"

namespace yr {

enum class LoadStatus {
    off,  // not wanted in this state
    on,
    dead,      // wanted, but nothing feeds it
    unsolved,  // the circuit has no answer in this state
    collapsed  // wanted and fed, but no voltage exists at which it gets its power
};

struct LoadResult {
    LoadStatus status = LoadStatus::off;
    double voltage_V = 0;
    double current_A = 0;
    double power_W = 0;
    double supply_V = 0;    // across the highest source or battery on its feed; 0 when dead or off
    double drop_V = 0;      // supply_V - voltage_V
    bool reversed = false;  // its feed comes in at its negative end; volts and amps are given as they are
};

enum class DeviceMode { off, regulating, limited, blocking };

struct SourceResult {
    DeviceMode mode = DeviceMode::off;
    double voltage_V = 0;
    double current_A = 0;  // negative only by what its sense lead takes while it blocks, microamps
    double limit_A = 0;
    double input_A = 0;  // converter
    double shaft_W = 0;  // alternator, stator: what the engine gives for it
    bool input_dead = false;
    bool collapsed = false;  // converter: no voltage exists at which it gets its power
};

struct BatteryResult {
    double voltage_V = 0;
    double current_A = 0;  // what it gives; negative while it charges
    bool at_acceptance = false;
};

struct ConductorResult {
    double current_A = 0;      // from -> to
    double cable_ohm = 0;      // at its temperature
    double temperature_C = 0;  // of the conductor
    double drop_V = 0;         // along the current, over all parts
};

// How well the laws hold in the answer; every solution carries it.
struct Residuals {
    double node_A = 0;        // worst sum of currents at a node
    double node_scale_A = 0;  // largest current of the plan
    double energy_W = 0;      // given minus taken
    double energy_scale_W = 0;
    [[nodiscard]] bool good() const {
        return node_A <= 1e-9 * node_scale_A + 1e-9 && energy_W <= 1e-9 * energy_scale_W + 1e-9;
    }
};

struct OperatingPoint {
    // False only if the iteration failed for a reason other than collapse, or its answer breaks Kirchhoff's
    // laws. Then nothing below means anything: loads are `unsolved`, all else 0.
    bool settled = false;
    int iterations = 0;
    std::vector<double> node_V;
    std::vector<ConductorResult> conductors;
    std::vector<BatteryResult> batteries;
    std::vector<SourceResult> sources;
    std::vector<LoadResult> loads;  // as the network's: the plan's, then the inputs of inverters
    std::vector<double>
        collapsed_at;  // per load: share of its power that could be served, where it collapsed; else 1
    Residuals residuals;

    YR_SPECIAL_MEMBERS(OperatingPoint)
};

// Solves networks of one plan one after another; keeps the factors' pattern while the shape stays the same.
class OperatingPointSolver {
  public:
    OperatingPointSolver();
    ~OperatingPointSolver();
    OperatingPointSolver(OperatingPointSolver&&) noexcept;
    OperatingPointSolver& operator=(OperatingPointSolver&&) noexcept;

    [[nodiscard]] OperatingPoint solve(const Network& network);

    // Where some load cannot be served, the point is given back as not settled at once, without the search
    // for the culprit: for those who only ask whether all is served.
    void give_up_on_collapse(bool yes);

    // Networks come one after another and differ in values alone most of the time (a day's steps): where
    // switches, sources and what is wanted are as in the last answer, and everything ran there, the search
    // begins from it instead of from light load. The answer is the same: the one at which the network's
    // slopes are positive definite, which is the branch that light load leads to; where that is not found so,
    // or something new might be alive, it is searched from light load after all.
    void follow(bool yes);

  private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

[[nodiscard]] OperatingPoint solve(const Network& network);

}  // namespace yr

// compiled once, in operating_point.cpp
extern template class std::vector<yr::ConductorResult>;
extern template class std::vector<yr::BatteryResult>;
extern template class std::vector<yr::SourceResult>;
extern template class std::vector<yr::LoadResult>;
