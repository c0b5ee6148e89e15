// What follows from the ways for the electrical plan: a run whose length is left open is as long as its way
// with its slack, lies bundled with what lies there, and passes the places that its way passes. What is said
// stays.
#pragma once

#include "routes/routes.h"

namespace yr {

// Sets Run::laid of every run; clears it where there is no way. Cheap where nothing stands anywhere.
void lay(Plan& plan);
// The same from routes that are at hand. `routes` are of this plan.
void lay(Plan& plan, const Routes& routes);

// How many cables that carry something lie along with this run for more than a short stretch: 0.6 m, as the
// NEC has it for bundles (310.15(C)(1), 24 in; from memory). Wires of less than half an amp do not count.
[[nodiscard]] int bundled_with(const Plan& plan, const Routes& routes, std::size_t run);

// Places along its way; those passed for no more than a tenth of it and no more than 0.3 m are left out:
// copper carries the heat of so short a stretch away (compare NEC 310.14(A)(2), from memory).
[[nodiscard]] std::vector<Id> places_along(const Plan& plan, const Route& route);

// The place that each cell of a run lies in, from its beginning, its slack shared between both ends; at least
// one cell. Empty: in no place.
[[nodiscard]] std::vector<Id> places_by_cell(const Plan& plan, const Route& route, double cell_m);

}  // namespace yr
