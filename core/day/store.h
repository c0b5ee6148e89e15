// A portable store away from the vehicle: how long what is in it runs something.
#pragma once

#include "plan/plan.h"

namespace yr {

struct StoreHours {
    double least_h = 0, most_h = 0;              // at its DC outlets; 0: they do not give so much
    double mains_least_h = 0, mains_most_h = 0;  // at its mains; 0: it has none, or not so much
};

// Of its charge a tenth either way is left to age, cold and what its own electronics take (common practice,
// no source). `load` is a store (store_Wh); `watts` above 0.
[[nodiscard]] StoreHours store_hours(const Load& store, double in_it_Wh, double watts);

}  // namespace yr
