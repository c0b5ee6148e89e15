// One start followed in time by a stiff method, with the moments at which contactors let go found between two
// steps by TOMS 748. For starting.cpp.
#pragma once

#include <functional>

#include "guard/start_circuit.h"
#include "guard/stiff_stepper.h"

namespace yr {

class StartIntegration {
  public:
    // No step is longer than `longest_s`.
    StartIntegration(StartCircuit& circuit, double longest_s);

    // From `t_s` on, with the states as they stand there. False where the circuit has no solution.
    [[nodiscard]] bool begin(double t_s);
    enum class Step { went, rooted, failed };
    // One step, at most to `until_s`. `rooted`: it ends where `margin` falls to 0.
    [[nodiscard]] Step step(double until_s, const std::function<double()>& margin);
    [[nodiscard]] double t_s() const { return t_s_; }
    [[nodiscard]] const StartCircuit::Values& x() const { return x_; }

  private:
    [[nodiscard]] bool move_to(double t_s);
    StartCircuit& circuit_;
    double t_s_ = 0;
    StartCircuit::Values x_;
    StiffStepper stepper_;
};

}  // namespace yr
