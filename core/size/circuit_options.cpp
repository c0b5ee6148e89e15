#include "size/circuit_options.h"

namespace yr {

CircuitOptions::CircuitOptions(const Plan& plan, const std::vector<Solution>& solutions,
                               std::vector<std::size_t> states, bool gives_up)
    : plan_(plan), states_(std::move(states)) {
    for (const std::size_t s : states_) {
        networks_.push_back(solutions[s].network);
        solvers_.emplace_back();
        solvers_.back().give_up_on_collapse(gives_up);
        solvers_.back().follow(true);
    }
}

void CircuitOptions::put(std::size_t run, const Run& changed) {
    std::vector<AssumptionUse> uses;
    for (std::size_t k = 0; k < states_.size(); ++k)
        fill_run_parts(networks_[k].conductors[run], plan_, changed, plan_.states[states_[k]], uses);
}

}  // namespace yr
