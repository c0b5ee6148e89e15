// The circuit in the first seconds as differential equations: x' = f(t, x), where x are the slow parts of the
// batteries and the states of what starts (motors, filaments, capacitors), and the node volts follow from x
// by Kirchhoff's current law, solved anew for each x (an index-1 system with its algebraic part eliminated).
// For starting.cpp.
#pragma once

#include <Eigen/SparseCore>
#include <vector>

#include "network/laws.h"
#include "solve/lu_factors.h"
#include "solve/operating_point.h"

namespace yr {

// How one thing that starts behaves.
struct Starter {
    StartKind kind = StartKind::step;
    std::size_t load = 0;  // in the network
    double run_A = 0;      // motor: once it runs
    double ohm = 0;        // motor winding, hot filament, capacitor's series resistance
    double tau_s = 0;      // motor, filament
    double farad = 0;
    double on_at_s = 0;               // nothing flows before
    double rated_W = 0;               // filament at the working point
    std::size_t state = 0;            // index in x
    double surge_W = 0, surge_s = 0;  // watts for so long instead of its own
    double rest_W = 0;                // what it takes before, where only a part of it starts
};

class StartCircuit {
  public:
    // `end` is the operating point once everything runs: its cable resistances are taken, and what is dead
    // there stays off.
    StartCircuit(Network net, const OperatingPoint& end, std::vector<Starter> starters);

    using Values = std::vector<double>;
    [[nodiscard]] std::size_t states() const { return states_; }
    [[nodiscard]] const Network& network() const { return net_; }
    [[nodiscard]] const std::vector<Starter>& starters() const { return starters_; }
    // Contactors, relays, cut-offs and enables that are closed at first and open when their volts fall.
    [[nodiscard]] const std::vector<const MemoryElement*>& watched() const { return watched_; }
    void open(const MemoryElement& device);
    [[nodiscard]] bool is_open(const MemoryElement& device) const;
    [[nodiscard]] double sensed_V(const MemoryElement& device) const;

    // Node volts at x and t, from the last ones on. False where no solution was found.
    [[nodiscard]] bool solve(const Values& x, double t);
    void begin_at(const std::vector<double>& node_V);
    [[nodiscard]] double volts(NodeIndex pos, NodeIndex neg) const { return v_[pos] - v_[neg]; }
    [[nodiscard]] double load_A(std::size_t load, const Values& x, double t) const;
    [[nodiscard]] double conductor_A(std::size_t conductor) const;

    // x' at x and t; the node volts must be those of x (solve()).
    void slopes(const Values& x, double t, Values& dxdt) const;

  private:
    [[nodiscard]] Law running_law(std::size_t load, double volts, double t) const;
    [[nodiscard]] Law load_law_at(std::size_t load, double volts, const Values& x, double t) const;
    [[nodiscard]] Law battery_law_at(std::size_t battery, double volts, const Values& x) const;
    template <class F>
    void each_law(const Eigen::VectorXd& v, const Values& x, double t, F&& use) const;
    void residual(const Eigen::VectorXd& v, const Values& x, double t, Eigen::VectorXd& sums) const;
    [[nodiscard]] bool factorise(const Values& x, double t, double hold_S);
    [[nodiscard]] bool newton(const Values& x, double t);
    [[nodiscard]] bool creep(const Values& x, double t);
    // What a converter draws from its input at the volts `v`, and how that follows its output's.
    struct Draws {
        Law in;
        double by_output_S = 0;
    };
    [[nodiscard]] Draws converter_draws(const SourceElement& s, const Eigen::VectorXd& v) const;

    Network net_;
    std::vector<double> cable_ohm_;
    std::vector<char> closed_, dead_, source_fed_;
    std::vector<Starter> starters_;
    std::vector<const Starter*> starter_of_;
    std::vector<const MemoryElement*> watched_, opened_;
    std::size_t states_ = 0;
    Eigen::VectorXd v_;
    Eigen::SparseMatrix<double> matrix_;
    LuFactors factors_;
    bool analysed_ = false, factored_ = false;
    double share1_, tau1_s_, share2_, tau2_s_;
};

}  // namespace yr
