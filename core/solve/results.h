// What is read off a converged point: each load's drop from its supply, and how well the laws hold.
#pragma once

#include "solve/operating_point.h"

namespace yr {

// Fills supply_V and drop_V of every load that is on. Its supply is the highest terminal, among the sources
// and batteries that closed conductors join to its positive side, against the lowest of their negatives.
void measure_drops(const Network& network, OperatingPoint& point);

// Kirchhoff's current law at every node and power given against power taken, from the elements' own laws.
[[nodiscard]] Residuals residuals_of(const Network& network, const OperatingPoint& point);

// Where the amps of a rail come from. A rail with a battery is its own; one that converters alone feed asks
// the rail that they hang on for `per_A` of each ampere that it takes.
struct RailOrigin {
    int rail = 0;
    double per_A = 1;
};
// Of each group of conductor_groups, by its number.
[[nodiscard]] std::vector<RailOrigin> rail_origins(const Network& network, const OperatingPoint& point,
                                                   const std::vector<int>& groups);

// What a battery gives on average while its loads come and go by their duty, A: its current less the share of
// those on its own rail, and behind converters on it, that rest. Never below 0 for one that gives.
[[nodiscard]] double average_battery_A(const Network& network, const OperatingPoint& point,
                                       std::size_t battery);

// For each node, the number of the group that closed conductors alone join it to: one group is one rail, or
// the ground with all that is bolted to it.
[[nodiscard]] std::vector<int> conductor_groups(const Network& network);

}  // namespace yr
