// A stiff system x' = f(x, t) followed step by step: Boost.Odeint's Rosenbrock method of 4th order with error
// control and dense output. Its own file because Boost 1.74's matrices do not compile as C++20.
#pragma once

#include <functional>
#include <memory>
#include <vector>

namespace yr {

class StiffStepper {
  public:
    using Values = std::vector<double>;
    // False where x' cannot be found.
    using Slopes = std::function<bool(const Values& x, double t, Values& dxdt)>;

    // No step is longer than `longest_s`. `slopes` hangs on t only at moments where begin() is called anew.
    StiffStepper(Slopes slopes, double longest_s);
    ~StiffStepper();
    StiffStepper(const StiffStepper&) = delete;
    StiffStepper& operator=(const StiffStepper&) = delete;

    void begin(const Values& x, double t_s);
    // False where slopes fail or the step shrinks to nothing.
    bool step();
    double t_s() const;           // end of the last step
    Values at(double t_s) const;  // inside the last step

  private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

}  // namespace yr
