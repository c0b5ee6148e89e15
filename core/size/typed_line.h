// One line of typing read as a load: "scene light 2x 90 W on ignition, 4.5 m, cargo roof, from cab box".
// What was understood and what was not are both in the result: no word is dropped silently.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"

namespace yr {

struct TypedLine {
    std::string name;
    int count = 1;
    std::optional<Draw> draw;
    std::optional<double> inrush_A;
    std::optional<Condition> live_when;
    std::optional<double> length_m;
    std::optional<WireSize> size;
    std::optional<double> drop_limit;
    Id place;
    Id feed;                          // "from cab box"
    Id inverter;                      // "on the inverter", "on mains": an AC load
    std::optional<double> start_W{};  // "start 900 W", of an AC load
    bool critical = false;
    std::string note;             // of a table's own column
    std::optional<bool> chassis;  // "chassis" or "home-run"
    std::vector<std::string> not_understood;
    // What is still missing before a load can be made of it.
    [[nodiscard]] bool complete() const { return !name.empty() && draw.has_value(); }
};

// Knows the plan's places, feeds and switches by name. Never fails.
[[nodiscard]] TypedLine read_line(const Plan& plan, std::string_view text);

}  // namespace yr
