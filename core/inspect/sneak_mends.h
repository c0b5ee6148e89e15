// What a sneak path runs through, and the usual mends tried on it. For sneak.cpp.
#pragma once

#include "inspect/sneak.h"

namespace yr {

// Fills path and through from the solved combination.
void trace_path(const Plan& plan, const Solution& solution, std::size_t load, SneakPath& path);

// A diode against the current that runs backwards, a coil fed from the rail that its contact serves, a return
// or feed of the load's own: those that clear it when the load is searched again.
void add_mends(const Plan& plan, SneakPath& path);

}  // namespace yr
