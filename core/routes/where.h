// Where a box, bus, battery, charger, inverter or ground should stand: what the cables that end on it would
// weigh and lose from every spot that it may have.
#pragma once

#include <vector>

#include "routes/net.h"

namespace yr {

// What a metre of a run costs: copper in kg, and volts that it loses in its worst state.
struct RunWeight {
    double kg_per_m = 0, V_per_m = 0;
};

struct StandSpot {
    Spot spot;
    Id place;
    double kg = 0;       // copper of the cables that end on it, whole ways with slack
    double worst_V = 0;  // most that one of them loses
    double metres = 0;
    bool allowed = true;  // false: an airbag opens there, water gets there …; `why` is its place
};
struct StandMap {
    Id thing;
    StandSpot now;                 // where it stands; at the middle of its place where it stands nowhere
    std::vector<StandSpot> spots;  // of a grid
    double step_m = 0.25;
    std::vector<std::size_t> best;  // up to five, least copper first, each a hand from the others
};

// `weights` by run. Spots on places marked as mounting faces; where none is, in every room. nullopt: no ways,
// or nothing ends on it.
[[nodiscard]] std::optional<StandMap> where_to_stand(const Plan& plan, const Id& thing,
                                                     const std::vector<RunWeight>& weights);

// Whether a thing of this kind may stand in that place: what standing there is told of.
[[nodiscard]] bool may_stand(const Plan& plan, const Id& thing, const Place& place);

// Every place whose room holds the spot, hazards too.
[[nodiscard]] std::vector<Id> places_holding(const Plan& plan, const Spot& spot);

}  // namespace yr
