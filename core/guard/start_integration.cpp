#include "guard/start_integration.h"

#include <boost/math/tools/toms748_solve.hpp>

namespace yr {

StartIntegration::StartIntegration(StartCircuit& circuit, double longest_s)
    : circuit_(circuit),
      x_(std::max<std::size_t>(1, circuit.states()), 0),  // the method wants one state at least
      stepper_(
          [this](const StartCircuit::Values& x, double t, StartCircuit::Values& dxdt) {
              if (!circuit_.solve(x, t)) return false;
              circuit_.slopes(x, t, dxdt);
              dxdt.resize(x.size(), 0);
              return true;
          },
          longest_s) {}

bool StartIntegration::begin(double t) {
    t_s_ = t;
    if (!circuit_.solve(x_, t)) return false;
    stepper_.begin(x_, t);
    return true;
}

// To a time inside the last step.
bool StartIntegration::move_to(double t) {
    x_ = stepper_.at(t);
    t_s_ = t;
    return circuit_.solve(x_, t);
}

StartIntegration::Step StartIntegration::step(double until, const std::function<double()>& margin) {
    const double from = t_s_;
    if (!stepper_.step()) return Step::failed;
    const bool past = stepper_.t_s() >= until;
    const double to = past ? until : stepper_.t_s();
    if (!move_to(to)) return Step::failed;
    // beyond `until` another law may hold: it begins anew there
    if (margin() > 0) return !past || begin(until) ? Step::went : Step::failed;
    bool solved = true;
    const auto at = [&](double t) {
        solved = move_to(t) && solved;
        return margin();
    };
    if (at(from) > 0) {
        std::uintmax_t tries = 60;
        const auto bracket = boost::math::tools::toms748_solve(
            at, from, to, boost::math::tools::eps_tolerance<double>(40), tries);
        (void)at(bracket.second);
    }
    return solved ? Step::rooted : Step::failed;
}

}  // namespace yr
