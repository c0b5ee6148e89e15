// What lets go, cuts off or falls too low while something starts. For starting.cpp.
#pragma once

#include <vector>

#include "guard/start_integration.h"
#include "guard/starting.h"

namespace yr {

class StartWatch {
  public:
    StartWatch(const Plan& plan, StartCircuit& circuit, const OperatingPoint& end,
               std::vector<StartEvent>& events);

    // How far the nearest device without a delay is from opening, V: an event is where this comes to 0.
    [[nodiscard]] double margin_V() const;

    // Opens what no longer holds, anew until all that is closed holds, and notes loads that fall below their
    // least volts. False where the circuit has no solution then.
    [[nodiscard]] bool let_go(StartIntegration& run);

  private:
    struct Waiting {
        const MemoryElement* device;
        double delay_s;  // that it bears them for
        double since_s;  // below its volts; < 0: it is not
    };
    [[nodiscard]] bool opens_now(Waiting& w, double t_s) const;
    void note_low_loads(double t_s);

    StartCircuit& circuit_;
    std::vector<StartEvent>& events_;
    std::vector<Waiting> waiting_;
    struct Least {
        std::size_t load;
        Id id;
        double least_V;
    };
    std::vector<Least> least_;  // loads that have not fallen below theirs yet
};

}  // namespace yr
