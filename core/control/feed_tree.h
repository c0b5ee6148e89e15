// Which feeds hang on which battery, through which runs and over how many metres. For assign.cpp and rails.
#pragma once

#include <map>

#include "plan/plan.h"

namespace yr {

struct FeedPath {
    double length_m = 0;
    Id root;               // battery or source that feeds it
    std::vector<Id> runs;  // from the root on
};

// By point: the shortest way of cable from a battery's positive post, or from a source where no battery
// reaches. Runs to loads lead nowhere; body metal does not count.
[[nodiscard]] std::map<Id, FeedPath> feed_paths(const Plan& plan);

// Volts of the battery or source at the root of a path, as the plan names them.
[[nodiscard]] double root_V(const Plan& plan, const Id& root);

// Whether accessories may hang there: not on a traction battery's own rail.
[[nodiscard]] bool suits_accessories(const Plan& plan, const FeedPath& path);

}  // namespace yr
