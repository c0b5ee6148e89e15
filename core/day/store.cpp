#include "day/store.h"

#include "catalog/assumptions.h"

namespace yr {
namespace {

constexpr double kOutlet = 0.92;  // of its DC converter; common practice, no source
constexpr double kOwn_W = 6;      // what it takes itself while it gives mains; common practice, no source
constexpr double kSpread = 0.1;

}  // namespace

StoreHours store_hours(const Load& store, double in_it_Wh, double watts) {
    StoreHours h;
    if (!(watts > 0) || !(in_it_Wh > 0)) return h;
    if (!store.socket_W || watts <= *store.socket_W) {
        const double hours = in_it_Wh * kOutlet / watts;
        h.least_h = hours * (1 - kSpread), h.most_h = hours;
    }
    if (store.mains_W && watts <= *store.mains_W) {
        const double efficiency = store.mains_efficiency.value_or(assumption("inverter_efficiency").value);
        const double hours = in_it_Wh / (watts / efficiency + kOwn_W);
        h.mains_least_h = hours * (1 - kSpread), h.mains_most_h = hours;
    }
    return h;
}

}  // namespace yr
