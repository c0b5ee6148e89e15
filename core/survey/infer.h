// What readings at a vehicle's batteries and outlets prove about how they are joined, and which reading would
// settle what is still open. Nothing is guessed: a verdict is given only where every joiner that could
// explain the readings within the meter's doubt agrees; else it is "open".
//
// Reasoning (common practice, no source):
//   - two posts on one conductor stand within a link's own drop of each other: further apart, they are not
//   joined;
//   - equal volts prove nothing, two full batteries are equal by chance. A heavy draw at one of them does:
//   what is
//     joined to it sags along, what is not stands still;
//   - a relay holds for some seconds before it lets go: the draw is read within that time. Where the other
//   post
//     *rises* meanwhile something let go, and nothing is concluded;
//   - with the engine running a converter passes no sag on, an isolator passes it one way and keeps its
//   forward drop.
#pragma once

#include <optional>
#include <vector>

#include "plan/plan.h"

namespace yr {

enum class JoinVerdict { open, joined, apart, one_way };  // one_way: through an isolator, from a to b

struct JoinFact {
    Id a, b;
    SurveyKey key{};
    JoinVerdict verdict = JoinVerdict::open;
    double a_V = 0, b_V = 0;        // undrawn
    double sag_V = 0, along_V = 0;  // of the draw that settled it; 0: volts alone did
};

enum class Joiner { open, none, permanent, sensing_relay, contactor, key_contactor, converter, isolator };

// How one battery hangs on another.
struct BatteryFact {
    Id battery, other;
    Joiner joiner = Joiner::open;
    std::optional<bool> charges;  // with the engine running: do its volts rise? empty: not read
};

enum class OutletLive { open, always, accessory, running, never };

struct OutletFact {
    Id outlet;
    std::optional<Id> battery;  // empty: cannot be told yet, or dead in every reading
    OutletLive live = OutletLive::open;
};

struct SurveyAsk {  // a reading that would settle something
    Id point;
    SurveyKey key{};
    Id drawn_at;
    friend bool operator==(const SurveyAsk&, const SurveyAsk&) = default;
};

struct SurveyProof {
    std::vector<JoinFact>
        joins;  // each pair of batteries, and of alternator and battery, in each key position
    std::vector<BatteryFact> batteries;
    std::vector<OutletFact> outlets;
    std::vector<SurveyAsk> asks;  // in the order in which one would take them, none twice
};

// How far two readings of one meter may differ for the same volts; the meter's common error drops out.
inline constexpr double kMeterDoubt_V = 0.02;

[[nodiscard]] SurveyProof infer(const Survey& survey);

}  // namespace yr
