// The readings that prove a finished vehicle, in the order of proving, each with its band and with what a
// value outside would mean; the fewest that see every joint and cable are proved to be so.
#pragma once

#include "meter/expect.h"

namespace yr {

enum class ProvePhase {
    isolation,   // negative off: no supply cable touches ground
    continuity,  // negative off: every return reaches the battery
    no_load,     // volts at each load's plug before it is hooked up
    charging,    // the engine idles
    under_load,  // drops with everything of a state on
    master,      // opened: nothing behind it lives
    standby,     // parked: what it takes
    cranking
};
inline constexpr std::size_t kProvePhases = 8;

struct TestPoint {
    ProvePhase phase{};
    Probing where;
    Id thing;                  // load, battery, run that it is about
    Expectation expected;      // low() and high() are its band ...
    double low = 0, high = 0;  // ... or these, which also hold the service limits
    double limit_V = 0;    // service limit beside: 0.1 V a joint, 0.2 V a cable, 0.5 V the starter circuit
    std::vector<Id> sees;  // runs and bonds that a fault of would move it out of its band
};

struct ProvePlan {
    std::vector<TestPoint> points;  // in order
    std::vector<Id> unseen;         // runs and bonds that no state loads enough to be seen
    bool fewest = false;            // under load: no fewer see as much
};

[[nodiscard]] ProvePlan test_points(const Plan& plan);

enum class Verdict { good, high, low, cannot_tell };
// cannot_tell: the band is wider than what a fault would move it.
[[nodiscard]] Verdict verdict(const TestPoint& point, double value);

}  // namespace yr
