// A second road from the plan to a netlist, for comparison only: it reads runs, loads, sources and batteries
// of the plan itself and works out every element's value here, sharing nothing with core/network but the
// shipped tables.
#pragma once

#include <map>
#include <string>

#include "solve/operating_point.h"

namespace yr::test {

struct SpiceCircuit {
    std::string deck;
    std::map<std::string, std::string> node_of;  // terminal -> node name
    std::map<std::string, double>
        ohm_of_run;  // run id (or ground point id) -> whole resistance; absent: open
};

// `temperature_C` of each run's conductor by run index, and `start_V` of each terminal to help ngspice begin.
[[nodiscard]] SpiceCircuit write_spice(const Plan& plan, const State& state,
                                       const std::vector<double>& temperature_C,
                                       const std::map<std::string, double>& start_V,
                                       const std::vector<char>& load_on);

// Node voltages by terminal, from `ngspice -b`; empty when ngspice found none.
[[nodiscard]] std::map<std::string, double> run_spice(const SpiceCircuit& circuit);

}  // namespace yr::test
