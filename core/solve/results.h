// What is read off a converged point: each load's drop from its supply, and how well the laws hold.
#pragma once

#include "solve/operating_point.h"

namespace yr {

// Fills supply_V and drop_V of every load that is on. Its supply is the highest terminal, among the sources
// and batteries that closed conductors join to its positive side, against the lowest of their negatives.
void measure_drops(const Network& network, OperatingPoint& point);

// Kirchhoff's current law at every node and power given against power taken, from the elements' own laws.
[[nodiscard]] Residuals residuals_of(const Network& network, const OperatingPoint& point);

// For each node, the number of the group that closed conductors alone join it to: one group is one rail, or
// the ground with all that is bolted to it.
[[nodiscard]] std::vector<int> conductor_groups(const Network& network);

}  // namespace yr
