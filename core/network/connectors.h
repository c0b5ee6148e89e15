// What a connector's pins add to the cables that pass them, and what they bear.
#pragma once

#include <optional>
#include <vector>

#include "network/network.h"

namespace yr {

// How many pins it has; empty: not said.
[[nodiscard]] std::optional<int> pin_count(const Connector& connector);

// What one of its pins carries alone at 25 C, A: as stated, by its socket, by its width. Empty: none says it.
[[nodiscard]] std::optional<double> pin_rating_A(const Connector& connector, int pin);

// The same with what lies beside it and the air around: where most pins are loaded each carries four fifths
// (common practice, no source), and what the contacts may warm is less in hot air.
[[nodiscard]] std::optional<double> pin_allowed_A(const Plan& plan, const Connector& connector, int pin,
                                                  const State& state);

// One pair of contacts, ohm: as stated, by its width, else assumed.
[[nodiscard]] double contact_ohm(const Connector& connector, std::vector<AssumptionUse>& assumptions);

// A connector that a run passes, once, however many of its pins it takes side by side.
struct Passing {
    const Connector* connector = nullptr;
    std::vector<int> pins;
    std::optional<double> at_m;
};
[[nodiscard]] std::vector<Passing> passings_of(const Plan& plan, const Run& run);

}  // namespace yr
