#include "fabricate/covering.h"

#include <cmath>

#include "units/text.h"

namespace yr {
namespace {

constexpr double kSold_mm[] = {5, 7, 10, 13, 16, 19, 25, 32, 38, 50};
constexpr double kTape_mm = 19, kTapeThick_mm = 0.3;  // wound half over: two of its own
constexpr double kShrinkWider = 4.0 / 3;

double wall_mm(const std::string& kind) {
    if (kind == "tape") return 2 * kTapeThick_mm;
    if (kind == "split loom") return 0.8;
    if (kind == "conduit") return 1.5;
    return 0.6;  // braid, shrink
}

double sold_for(double mm) {
    for (const double d : kSold_mm)
        if (d >= mm) return d;
    return kSold_mm[std::size(kSold_mm) - 1];
}

}  // namespace

std::vector<CoveringLayer> covering_of(const Way& way, double bundle_mm, std::size_t cables) {
    std::vector<CoveringLayer> layers;
    const bool said = !trim(way.covering).empty();
    if (!said && cables < 2) return layers;
    const std::string all = said ? way.covering : std::string("split loom");
    double over_mm = bundle_mm;
    for (const std::string_view raw : split(all, ',')) {
        CoveringLayer l;
        l.kind = to_lower(trim(raw));
        if (l.kind.empty() || l.kind == "none") continue;
        l.inner_mm = over_mm, l.outer_mm = over_mm + 2 * wall_mm(l.kind);
        l.sold_mm =
            l.kind == "tape" ? kTape_mm : sold_for(l.kind == "shrink" ? over_mm * kShrinkWider : over_mm);
        l.chosen = !said;
        over_mm = l.outer_mm;
        layers.push_back(l);
    }
    return layers;
}

double metres_of(const CoveringLayer& layer, double loom_m) {
    if (layer.kind != "tape") return loom_m;
    constexpr double kPi = 3.14159265358979323846;
    return loom_m * kPi * layer.inner_mm / (kTape_mm / 2);
}

}  // namespace yr
