#include "inspect/heat_along.h"

#include <algorithm>
#include <cmath>

#include "routes/lay.h"

namespace yr {

std::optional<HeatAlong> heat_along(const Plan& plan, std::size_t run, const Route& route, const State& state,
                                    const Network& network, const OperatingPoint& point) {
    if (!point.settled || run >= network.conductors.size()) return std::nullopt;
    const ConductorElement& cable = network.conductors[run];
    if (cable.turn || !(cable.cable20_ohm > 0)) return std::nullopt;
    HeatAlong out;
    out.cell_m = std::max(0.01, route.length_m / 1500);
    const std::vector<Id> places = places_by_cell(plan, route, out.cell_m);
    out.air_C.reserve(places.size());
    for (const Id& place : places) out.air_C.push_back(air_at(plan, place, state));
    const ConductorResult& carries = point.conductors[run];
    const FinAnswer fin =
        fin_temperature(cable.cable, std::abs(carries.current_A) / cable.parallel, out.air_C, out.cell_m);
    if (!fin.settled) return std::nullopt;
    out.copper_C = fin.conductor_C;
    out.hottest_C = out.copper_C[fin.hottest];
    out.at_m = (static_cast<double>(fin.hottest) + 0.5) * out.cell_m;
    out.counted_C = carries.temperature_C;
    out.place = places[fin.hottest];
    return out;
}

}  // namespace yr
