#include "routes/outline.h"

#include <map>

#include "catalog/shipped.h"
#include "plan/names.h"
#include "units/text.h"

namespace yr {
namespace {

const std::map<Outline, OutlineShape>& shapes() {
    static const std::map<Outline, OutlineShape> all = [] {
        std::map<Outline, OutlineShape> read;
        const auto file = shipped_table("outlines.json");
        for (const auto& [name, x] : file.at("outlines").items()) {
            OutlineShape s;
            s.long_m = x.at("long_m"), s.wide_m = x.at("wide_m"), s.high_m = x.at("high_m");
            s.wheelbase_m = x.at("wheelbase_m"), s.nose_m = x.at("nose_m");
            s.firewall_m = x.at("firewall_m"), s.cab_end_m = x.at("cab_end_m");
            s.floor_m = x.at("floor_m"), s.dash_m = x.at("dash_m"), s.bonnet_m = x.at("bonnet_m");
            const std::string engine = x.at("engine");
            s.engine = engine == "front"  ? EngineAt::front
                       : engine == "rear" ? EngineAt::rear
                                          : EngineAt::none;
            read[*enum_named<Outline>(name)] = s;
        }
        return read;
    }();
    return all;
}

}  // namespace

OutlineShape shape_of(const Vehicle& v) {
    OutlineShape s = shapes().at(v.outline == Outline::none ? Outline::car : v.outline);
    const double along = v.long_m ? *v.long_m / s.long_m : 1, up = v.high_m ? *v.high_m / s.high_m : 1;
    for (double* x : {&s.long_m, &s.wheelbase_m, &s.nose_m, &s.firewall_m, &s.cab_end_m}) *x *= along;
    for (double* z : {&s.high_m, &s.floor_m, &s.dash_m, &s.bonnet_m}) *z *= up;
    if (v.wide_m) s.wide_m = *v.wide_m;
    if (v.wheelbase_m) s.wheelbase_m = *v.wheelbase_m;
    if (v.nose_m) s.nose_m = *v.nose_m;
    return s;
}

std::vector<Corner> side_of(const OutlineShape& s, Outline outline) {
    const double low = s.ground_z() * 0.35, front = s.front_x(), rear = s.rear_x(), roof = s.roof_z();
    const double slope = (s.cab_end_m - s.firewall_m) * 0.28;
    switch (outline) {
        case Outline::trailer:
            return {{front, 0},  {s.firewall_m, s.floor_m}, {s.firewall_m, roof}, {rear, roof},
                    {rear, low}, {s.firewall_m, low}};
        case Outline::van:
            return {{front, low},
                    {front, s.bonnet_m * 0.8},
                    {s.firewall_m * 0.6, s.bonnet_m},
                    {s.firewall_m + slope * 1.6, roof},
                    {rear, roof},
                    {rear, low}};
        case Outline::cart:
            return {{front, low},
                    {front, s.dash_m},
                    {s.firewall_m, roof},
                    {s.cab_end_m, roof},
                    {s.cab_end_m, s.dash_m * 1.5},
                    {rear, s.dash_m * 1.5},
                    {rear, low}};
        case Outline::all_terrain:
        case Outline::buggy:
            return {{front, low},
                    {front, s.bonnet_m},
                    {s.firewall_m, s.dash_m},
                    {s.firewall_m + slope, roof},
                    {s.cab_end_m, roof},
                    {s.cab_end_m + slope, s.dash_m},
                    {rear, s.dash_m},
                    {rear, low}};
        case Outline::car:
        case Outline::none:
            return {{front, low},
                    {front, s.bonnet_m * 0.75},
                    {s.firewall_m, s.bonnet_m},
                    {s.firewall_m + slope * 1.3, roof},
                    {s.cab_end_m, roof},
                    {rear - 0.35, s.bonnet_m * 1.1},
                    {rear, s.bonnet_m},
                    {rear, low}};
        case Outline::pickup:
        case Outline::truck:
        case Outline::tractor:
            return {{front, low},
                    {front, s.bonnet_m},
                    {s.firewall_m, s.bonnet_m * 1.05},
                    {s.firewall_m + slope, roof},
                    {s.cab_end_m, roof},
                    {s.cab_end_m + 0.05, s.bonnet_m},
                    {rear, s.bonnet_m},
                    {rear, low}};
    }
    return {};
}

Outline outline_of_words(const std::string& kind) {
    const std::string k = to_lower(kind);
    const auto has = [&](const char* word) { return k.find(word) != std::string::npos; };
    if (has("trailer")) return Outline::trailer;
    if (has("cart")) return Outline::cart;
    if (has("van") || has("camper") || has("bus") || has("ambulance")) return Outline::van;
    if (has("pickup") || has("pick-up")) return Outline::pickup;
    if (has("tractor") || has("mower")) return Outline::tractor;
    if (has("buggy") || has("small machine")) return Outline::buggy;
    if (has("all-terrain") || has("quad") || has("utility machine") || has("machine"))
        return Outline::all_terrain;
    if (has("truck") || has("lorry") || has("engine")) return Outline::truck;
    return Outline::car;
}

}  // namespace yr
