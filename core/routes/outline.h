// What vehicles of each kind look like from above and from the side. Figures of data/catalog/outlines.json,
// scaled to what a plan says.
#pragma once

#include <string>
#include <vector>

#include "plan/plan.h"

namespace yr {

enum class EngineAt { front, rear, none };

struct OutlineShape {
    double long_m = 0, wide_m = 0, high_m = 0, wheelbase_m = 0,
           nose_m = 0;  // over all; nose: ahead of the axle
    EngineAt engine = EngineAt::front;
    double firewall_m = 0, cab_end_m = 0;          // behind the front axle
    double floor_m = 0, dash_m = 0, bonnet_m = 0;  // above it
    [[nodiscard]] double front_x() const { return -nose_m; }
    [[nodiscard]] double rear_x() const { return long_m - nose_m; }
    // Radius of its wheels, which the axle stands above the ground: a sixth of its height, common practice.
    [[nodiscard]] double ground_z() const { return -high_m / 6; }
    [[nodiscard]] double roof_z() const { return high_m + ground_z(); }
};

// Outline::none is drawn as a car.
[[nodiscard]] OutlineShape shape_of(const Vehicle& vehicle);

// A corner of the drawing: along the vehicle, and across it or upwards; metres.
struct Corner {
    double along_m = 0, other_m = 0;
};
// The body from the side, closed, from the front sill upwards and back.
[[nodiscard]] std::vector<Corner> side_of(const OutlineShape& shape, Outline outline);

// Which kind a person's words mean: "flatbed truck of a field crew" is a truck.
[[nodiscard]] Outline outline_of_words(const std::string& kind);

}  // namespace yr
