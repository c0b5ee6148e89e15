// `Why?`: the formula behind a number, with its numbers, what was assumed, and the rule's source.
#pragma once

#include <string>
#include <vector>

#include "inspect/findings.h"
#include "words/format.h"

namespace yr::words {

enum class ValueKind {
    load_current,
    load_voltage,
    load_drop,
    load_drop_share,
    run_current,
    run_drop,
    run_temperature,
    run_heat,
    run_ampacity,
    run_resistance,
    device_drop,  // id run, part: index in the conductor's parts
    bond_drop,    // id ground point
    source_current,
    source_limit,
    source_voltage,
    battery_current,
    battery_voltage,
    battery_hours,
    feed_current,  // id point: what it hands on
    inverter_current,
    finding  // number: index among the findings
};

// One number on the screen.
struct ValueRef {
    ValueKind kind{};
    Id id;
    int part = 0;
    friend bool operator==(const ValueRef&, const ValueRef&) = default;
};

struct Explanation {
    std::string title;                     // "Drop of echo sounder"
    std::string value;                     // "4.7 %"
    std::vector<std::string> steps;        // formulas with their numbers
    std::vector<std::string> assumptions;  // what it rests on
    std::vector<std::string> sources;      // published source or "common practice"
};

// Explains a number of one solved state. A ref to something that is gone gives an empty title.
[[nodiscard]] Explanation explain(const ValueRef& ref, const Plan& plan, const State& state,
                                  const Solution& solution, const Style& style = {});

[[nodiscard]] Explanation explain(const Finding& finding, const Plan& plan,
                                  const std::vector<Solution>& solutions, const Style& style = {});

// Plain text of an explanation, a line each.
[[nodiscard]] std::string text(const Explanation& explanation);

}  // namespace yr::words
