// What cables pass on their way, added to a plan; and circuits that several contacts make together.
#pragma once

#include "plan/additions.h"

namespace yr {

// A connector of its own kind (`socket` empty), or a socket that a standard describes.
[[nodiscard]] Result<Addition> add_connector(const Plan& plan, const std::string& socket);

// A cable of several cores; runs are put into it one by one.
[[nodiscard]] Result<Addition> add_jacket(const Plan& plan);

// A motor that turns both ways: its feed and return end on two studs, and two contactors of two contacts each
// lay it between them the one way or the other, by the switches "NAME in" and "NAME out".
// Failure: missing_reference for what is no load with a feed and a return of its own.
[[nodiscard]] Result<Addition> add_reversing_pair(const Plan& plan, const Id& load);

}  // namespace yr
