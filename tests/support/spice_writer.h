// A second road from the plan to a netlist, for comparison only: it reads runs, loads, sources and batteries
// of the plan itself and works out every element's value here, sharing nothing with core/network but the
// shipped tables.
#pragma once

#include <map>
#include <string>

#include "solve/settle.h"

namespace yr::test {

struct SpiceCircuit {
    std::string deck;
    std::map<std::string, std::string> node_of;  // terminal -> node name
    std::map<std::string, double>
        ohm_of_run;                           // run id (or ground point id) -> whole resistance; absent: open
    std::map<std::string, double> forward_V;  // run id -> volts of its diodes; absent: none
    // What flows in a run at `u_V` across it.
    [[nodiscard]] double current_A(const std::string& run, double u_V) const;
};

// `stands_closed`: relays, cut-offs and enables by id; `load_on`: the plan's loads, then the inverters.
// `temperature_C` of each run's conductor by run index, and `start_V` of each terminal to help ngspice begin.
[[nodiscard]] SpiceCircuit write_spice(const Plan& plan, const State& state,
                                       const std::vector<double>& temperature_C,
                                       const std::map<std::string, double>& start_V,
                                       const std::vector<char>& load_on,
                                       const std::map<std::string, bool>& stands_closed = {});

// Node voltages by terminal, from `ngspice -b`; empty when ngspice found none.
[[nodiscard]] std::map<std::string, double> run_spice(const SpiceCircuit& circuit);

}  // namespace yr::test
