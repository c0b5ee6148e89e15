// One plan in several states, compiled once, in which the size of every cable can be swapped in place: what
// sizing tries thousands of times. Relays and other memories stand as they settled in the plan as it is.
#pragma once

#include <vector>

#include "solve/settle.h"

namespace yr {

class CircuitOptions {
  public:
    // `solutions` by state of the plan; `states` are those to be solved. `gives_up`: a state in which some
    // load cannot be served is given back as not settled.
    CircuitOptions(const Plan& plan, const std::vector<Solution>& solutions, std::vector<std::size_t> states,
                   bool gives_up = false);

    // The run as it stands in `changed` (same ends and switches): size, fuses, length.
    void put(std::size_t run, const Run& changed);

    [[nodiscard]] const std::vector<std::size_t>& states() const { return states_; }
    [[nodiscard]] Network& network(std::size_t k) { return networks_[k]; }
    [[nodiscard]] const Network& network(std::size_t k) const { return networks_[k]; }
    [[nodiscard]] OperatingPoint solve(std::size_t k) { return solvers_[k].solve(networks_[k]); }

  private:
    const Plan& plan_;
    std::vector<std::size_t> states_;
    std::vector<Network> networks_;
    std::vector<OperatingPointSolver> solvers_;
};

}  // namespace yr
