// Does the engine start at that moment: the cranking state solved with the charge and the cold of then.
#pragma once

#include <optional>
#include <vector>

#include "day/cell.h"
#include "solve/operating_point.h"

namespace yr {

// Torque that an engine wants in that cold against 27 C: 1 at 27 C, 1.65 at 0, 2.5 at -18; common practice,
// no source.
[[nodiscard]] double cold_torque(double temperature_C);

// Least volts at the posts while cranking, of a 12 V battery: 9.6, 9.4, 9.1, 8.9, 8.7, 8.5 V at 21, 10, -1,
// -7, -12, -18 C; practice of load tests, from memory.
[[nodiscard]] double least_cranking_V(double temperature_C);

struct CrankCheck {
    Id battery;  // the one that cranks
    double post_V = 0, least_V = 0;
    Id unit{};  // the control unit that would fail first, where its volts say so
    double unit_V = 0, unit_least_V = 0;
    [[nodiscard]] double margin_V() const {
        const double own = post_V - least_V;
        return unit.empty() ? own : std::min(own, unit_V - unit_least_V);
    }
    [[nodiscard]] bool cranks() const { return margin_V() >= 0; }
};

// Batteries at those charges and temperatures (of the plan's list); `wear`: share of its health that the
// cranking battery has lost besides. nullopt: the plan has no cranking state, or no starter that draws in it.
struct CrankMoment {
    std::vector<double> charge, temperature_C;
    double engine_C = 20;  // as cold as the battery's air
};
[[nodiscard]] std::optional<CrankCheck> cranks_at(const Plan& plan, const CrankMoment& moment,
                                                  double wear = 0);

// The same at one moment after another: each is searched from the one before. `plan` outlives it.
class Cranking {
  public:
    explicit Cranking(const Plan& plan, double wear = 0);
    [[nodiscard]] std::optional<CrankCheck> at(const CrankMoment& moment);

  private:
    const Plan& plan_;
    Plan cold_;  // as torn down by `wear`; its starters want the torque of the last moment
    const State* crank_ = nullptr;
    OperatingPointSolver solver_;
};

}  // namespace yr
