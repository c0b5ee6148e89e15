// A vehicle that answers a meter: the solved plan, read at a terminal in a key position, with or without a
// heavy draw. Serves the bench-meter stand-in and the tests of the survey.
#pragma once

#include <cstdint>
#include <optional>

#include "plan/plan.h"
#include "survey/infer.h"
#include "units/result.h"

namespace yr {

struct Probe {
    Terminal red;    // where it is read
    Terminal black;  // against; empty: the first battery's negative post
    SurveyKey key{};
    Terminal drawn_at;  // positive post with a heavy draw; empty: none
    double draw_A = 100;
};

// True volts there. Failure: missing_reference for a terminal that the plan does not have, or a red probe
// that is held nowhere.
[[nodiscard]] Result<double> read_volts(const Plan& plan, const Probe& probe);

// The state of a plan that a key position stands for.
[[nodiscard]] State state_of(const Plan& plan, SurveyKey key);

// A made-up vehicle from a seed: one or two further batteries behind joiners of any kind, a few outlets; with
// the points where a meter would be held (SurveyPoint::terminal).
struct HiddenVehicle {
    Plan plan;
    // by outlet id of the survey: the battery's survey id that feeds it
    std::vector<std::pair<Id, Id>> outlet_feeds;
    std::vector<std::pair<Id, Joiner>>
        joiners;  // by survey id of a further battery: what joins it to the first
};
[[nodiscard]] HiddenVehicle hidden_vehicle(std::uint32_t seed);

// Whether a plain conductor path (no isolator, no converter) joins two terminals in that key position.
[[nodiscard]] bool truly_joined(const Plan& plan, const Terminal& a, const Terminal& b, SurveyKey key);

}  // namespace yr
