// The options of one plan side by side: the plan as it stands and each of its variants, on the few numbers
// that decide between them.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "inspect/findings.h"
#include "plan/plan.h"

namespace yr {

// A number and the state that decides it; no value: the plan has no such state, or nothing to tell.
struct Deciding {
    std::optional<double> value;
    Id state;
};

struct OptionResult {
    Id variant;  // empty: the plan as it stands
    std::string name;
    // Idling and driving, in the state of that role that has least: amps that turning sources could still
    // give; negative: what the batteries give instead.
    Deciding idle_A, drive_A;
    Deciding parked_h;           // until the first battery is at half, in the worst of the parked states
    Deciding cranking_V;         // lowest volts at the starter's battery while cranking
    double copper_kg = 0;        // of all cables
    double added_copper_kg = 0;  // against the plan as it stands
    std::optional<double> added_cost;  // of what has a price, copper included; empty: nothing has one
    int stops = 0, fixes = 0;          // findings of those severities
    std::vector<std::string> without;  // names of states without an answer: no number comes from them
};

// One option, of a plan that has been inspected.
[[nodiscard]] OptionResult measure_option(const Plan& plan, const Inspection& inspection);

// The plan as it stands first, then its variants in their order. What differs by less than a meter shows (0.1
// A, 5 mV, 6 minutes, 5 g) is given as equal.
[[nodiscard]] std::vector<OptionResult> compare_options(const Plan& base);

}  // namespace yr
