// The options of one plan side by side: the plan as it stands and each of its variants, on the few numbers
// that decide between them.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "inspect/findings.h"
#include "plan/plan.h"

namespace yr {

struct OptionResult {
    Id variant;  // empty: the plan as it stands
    std::string name;
    // Idling and driving: amps that turning sources could still give; negative: what the batteries give
    // instead.
    std::optional<double> idle_A, drive_A;
    std::optional<double> parked_h;  // until the first battery is at half, in the last state with the key off
    std::optional<double> cranking_V;  // lowest volts at the starter's battery while cranking
    double copper_kg = 0;              // of all cables
    double added_copper_kg = 0;        // against the plan as it stands
    std::optional<double> added_cost;  // of what has a price, copper included; empty: nothing has one
    int stops = 0, fixes = 0;          // findings of those severities
    std::vector<std::string> without;  // names of states without an answer: no number comes from them
};

// One option, of a plan that has been inspected.
[[nodiscard]] OptionResult measure_option(const Plan& plan, const Inspection& inspection);

// The plan as it stands first, then its variants in their order.
[[nodiscard]] std::vector<OptionResult> compare_options(const Plan& base);

// State named so, else the one that comes nearest to it; nullptr where the plan has none of that kind.
[[nodiscard]] const State* idling_state(const Plan& plan);
[[nodiscard]] const State* driving_state(const Plan& plan);
[[nodiscard]] const State* parked_state(const Plan& plan);

}  // namespace yr
