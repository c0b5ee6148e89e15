// The positions of the key and engine that decide what is live, as states to solve and to ask conditions in.
#pragma once

#include <array>
#include <string_view>

#include "size/run_limits.h"

namespace yr {

// Off, accessory, ignition with the engine standing, running, cranking.
inline constexpr std::size_t kKeyPositions = 5;
enum class KeyPosition { off, accessory, ignition, running, cranking };
inline constexpr std::array<KeyPosition, kKeyPositions> kEveryKeyPosition{
    KeyPosition::off, KeyPosition::accessory, KeyPosition::ignition, KeyPosition::running,
    KeyPosition::cranking};

// The positions that this vehicle has: running where something is turned by an engine, cranking where there
// is a starter or a state for it.
[[nodiscard]] std::vector<KeyPosition> positions_of(const Plan& plan);

// Whether a load has to keep its volts while the starter turns: starters, control units and critical loads.
// For others a second without is no fault (common practice).
[[nodiscard]] bool counts_while_cranking(const Load& load);

// "key off", "accessory", "ignition", "engine running", "cranking".
[[nodiscard]] std::string_view name_of(KeyPosition position);

// A state at that position with these switches on: temperatures and charge of the plan's own state that is
// most like it, so that volts are those the plan knows.
[[nodiscard]] State state_at(const Plan& plan, KeyPosition position,
                             const std::vector<std::string>& switches);

// Switches of master disconnects: on unless one is asked about.
[[nodiscard]] std::vector<std::string> master_switches(const Plan& plan);

// Those that must be on for a load to run: its own, the masters', and those of the circuits it waits for.
[[nodiscard]] std::vector<std::string> switches_for(const Plan& plan, const Load& load);

// By position: whether live_when holds with its own switches on.
using LiveAt = std::array<bool, kKeyPositions>;
[[nodiscard]] LiveAt wanted_at(const Plan& plan, const Load& load);

// Whether two conditions hold in just the same combinations of key, engine and switches, and measure and
// wait alike.
[[nodiscard]] bool same_when(const Condition& a, const Condition& b);

}  // namespace yr
