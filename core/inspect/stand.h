// Where a thing should stand, with what the plan asks of its cables: least copper as a map, and the best few
// spots sized anew.
#pragma once

#include <atomic>

#include "plan/edit.h"
#include "routes/where.h"
#include "solve/settle.h"

namespace yr {

struct StandChoice {
    StandSpot spot;
    double kg = 0;            // copper of the whole plan there, what ends on it sized anew
    double worst_drop_V = 0;  // of any load, worst state
    double saves_kg = 0;      // against where it stands; below 0: more
    double saves_V = 0;
    Edit edit;  // the thing there, lengths of its cables open, their sizes as needed
};
struct StandAdvice {
    StandMap map;
    std::vector<StandChoice> best;  // least copper first; empty while cancelled
};

// `exact` false: the map alone. nullopt as where_to_stand().
[[nodiscard]] std::optional<StandAdvice> stand_advice(const Plan& plan, const Id& thing, bool exact = true,
                                                      const std::atomic<bool>* stop = nullptr);

}  // namespace yr
