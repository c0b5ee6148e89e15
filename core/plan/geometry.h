// Where things stand and along what cables may lie. Part of the plan (plan.h).
//
// Axes of the vehicle in metres: x to the rear, y to the right as the driver sits, z up; the origin lies in
// the middle of the front axle (ISO 4130, from memory).
#pragma once

#include <cmath>
#include <optional>
#include <string>

#include "plan/joining.h"

namespace yr {

// A place in those axes. Of a thing: all three are said, or it stands nowhere.
struct Spot {
    double x_m = 0, y_m = 0, z_m = 0;
    friend bool operator==(const Spot&, const Spot&) = default;
};
[[nodiscard]] inline double distance_m(const Spot& a, const Spot& b) {
    return std::hypot(a.x_m - b.x_m, a.y_m - b.y_m, a.z_m - b.z_m);
}

// What cables and boxes keep clear of in a place.
enum class Hazard {
    none,
    airbag,        // one opens there
    moving,        // belts, fans, hinges: what moves there cuts cables
    steering,      // shafts and joints of it
    seat_slide,    // rails that a seat runs on
    wheel_travel,  // where a wheel goes when it is full in or turned
    exhaust,       // or another surface that burns insulation: kept at a distance, policy exhaust_m
    fuel_line,
    brake_line,
    jack_point,    // where the vehicle is lifted
    high_voltage,  // orange cables of a drive
};

// As a thing of the plan says it.
struct Stand {
    std::optional<double> x_m{}, y_m{}, z_m{};
    [[nodiscard]] std::optional<Spot> spot() const {
        return x_m && y_m && z_m ? std::optional(Spot{*x_m, *y_m, *z_m}) : std::nullopt;
    }
    friend bool operator==(const Stand&, const Stand&) = default;
};
[[nodiscard]] inline Stand stand_at(const Spot& s) {
    return {s.x_m, s.y_m, s.z_m};
}

// What the vehicle looks like from above and from the side.
enum class Outline { none, car, pickup, van, truck, tractor, all_terrain, buggy, trailer, cart };

// What a cable passes where ways meet: a mere bend, or a hole in something.
enum class PassageKind { bend, grommet, hole, gland, conduit, channel, hinge };

// A point at which ways meet or bend.
struct Waypoint {
    Id id;
    std::string name;
    PassageKind kind = PassageKind::bend;
    Stand at{};
    std::optional<double> bore_mm{};  // free diameter; empty: as much as one likes
    bool guarded = false;             // its edge
    bool sealed = false;              // against water
    Remarks remarks{};
    friend bool operator==(const Waypoint&, const Waypoint&) = default;
};

// What a loom is covered with.
inline constexpr const char* kCoverings[] = {"tape", "split loom", "braid", "shrink", "conduit", "none"};

// A stretch along which cables may lie, straight from one waypoint to another.
struct Way {
    Id id;
    std::string name;
    Id from, to;  // waypoints
    Id place{};   // whose air it has; empty: the place in which its middle lies
    bool flexes = false;
    std::optional<double> clip_m{};  // distance of its clips; empty: by policy
    std::string covering{};          // layers from the inside out, of kCoverings: "tape, split loom"
    bool typical = false;            // of such vehicles, not measured on this one
    Remarks remarks{};
    friend bool operator==(const Way&, const Way&) = default;
};

}  // namespace yr
