// What a driver sees when one fuse is blown, one ground loose, one connector out or one cable broken: solved
// in every state, like pictures together, so that from what is dead one reads where to look.
#pragma once

#include <atomic>
#include <string>
#include <vector>

#include "plan/plan.h"

namespace yr {

enum class BreakKind { fuse, ground, connector, cable, relay };

struct Break {
    BreakKind kind{};
    Id id;  // device, ground point, connector or run
};
struct Symptom {
    std::vector<Id> dead;      // loads that should run and do not, or not on enough volts
    std::vector<Id> alive;     // that share a feed or ground with them and still run
    std::vector<Break> where;  // what gives this picture, likeliest kind first
    std::vector<Id> states;    // in which it shows
    Id tells;                  // of these states, the one in which most is dead
};

// Sorted by how much is dead, most first. What nobody would notice in any state is left out. States that have
// no answer say nothing.
[[nodiscard]] std::vector<Symptom> symptoms(const Plan& plan, const std::atomic<bool>* stop = nullptr);

// The plan with one of these broken: a fuse is pulled in every state, a ground or cable gone to 1 kilohm.
[[nodiscard]] Plan broken(const Plan& plan, const Break& what);

}  // namespace yr
