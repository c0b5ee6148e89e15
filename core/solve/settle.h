// Relays with a memory, cut-offs, coils and enables: a state machine around the smooth operating point.
//
// Each such device is open or closed; for a given set of positions the network is smooth and solved.
// Positions are *settled* when no device wants to move: every closed one measures at least its opening volts,
// every open one less than its closing volts. From the positions that the state remembers, the device that
// acts soonest moves first, one at a time. Where that comes back to positions it has been in, all positions
// are searched (up to kMostSearched devices): one that is settled is taken, the nearest to what was
// remembered; if there is none the devices chatter, and the solution says which.
#pragma once

#include "solve/operating_point.h"

namespace yr {

inline constexpr std::size_t kMostSearched = 10;  // 1024 solves at most

struct MemoryResult {
    bool closed = false;
    double sensed_V = 0;
    bool chatters = false;
};

// One plan in one state, with the network it was solved on: switches stand in it as they settled.
struct Solution {
    Network network;
    OperatingPoint point;
    std::vector<MemoryResult> memories;  // as network.memories
    bool chatter = false;                // no settled positions (found)
    bool searched = false;               // chatter: all positions were tried, so that none exists
};

[[nodiscard]] Solution settle(Network network, OperatingPointSolver& solver);

[[nodiscard]] Solution solve(const Plan& plan, const State& state, OperatingPointSolver& solver);
[[nodiscard]] Solution solve(const Plan& plan, const State& state);

// Positions of network.memories, in order.
using Positions = std::vector<char>;

// Every settled set of positions, for up to kMostSearched devices; more devices give an empty list. More than
// one: the memory decides.
[[nodiscard]] std::vector<Positions> settled_positions(const Network& network, OperatingPointSolver& solver);

// The network with its devices in these positions, solved; nothing moves. For checks.
[[nodiscard]] Solution solve_at(Network network, const Positions& positions, OperatingPointSolver& solver);

// Whether that device wants to move from where it is, by what it measures; index in network.memories.
[[nodiscard]] bool wants_to_move(const Solution& solution, std::size_t memory);

// Whether no device wants to move from where it is.
[[nodiscard]] bool is_settled(const Solution& solution);

}  // namespace yr

// compiled once, in settle.cpp
extern template class std::vector<yr::Solution>;
