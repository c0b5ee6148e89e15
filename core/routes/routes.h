// The way of every cable whose two ends stand somewhere, all together: a passage holds only so much, so that
// who can go round goes round (negotiated congestion:
// PathFinder, McMurchie and Ebeling 1995), and where holes were short of room, among the paths found then,
// the cheapest that fits by a 0-1 program.
#pragma once

#include <string>

#include "routes/net.h"

namespace yr {

struct Route {
    Path path;
    double way_m = 0;     // along it
    double length_m = 0;  // with slack at both ends and its share
    bool held = false;    // a person said past which waypoints
};

// What lies along a way, and passes a waypoint: indices in Plan::runs.
struct WayLoad {
    std::vector<std::size_t> runs;
};
struct Passage {
    std::vector<std::size_t> runs;
    double bundle_mm = 0;  // circle round all of them; 0: none
    double share = 0;      // of the bore; 0: it has none
};

struct Routes {
    std::vector<std::optional<Route>> by_run;
    std::vector<WayLoad> ways;
    std::vector<Passage> passages;      // by waypoint
    std::vector<std::size_t> unjoined;  // runs whose ends stand somewhere and that no way joins
    int rounds = 0;
    bool fits = true;  // no passage holds more than it may
};

// Whether a run is laid: a cable, not body metal, whose ends both stand somewhere.
[[nodiscard]] std::optional<std::pair<Spot, Spot>> ends_of(const Plan& plan, const Run& run);

[[nodiscard]] Routes route_all(const Plan& plan);

// One run alone, passages as they are; for what follows a thing that is dragged.
[[nodiscard]] std::optional<Route> route_one(const Plan& plan, const WayNet& net, const Run& run);

// Where the thing of a terminal stands.
[[nodiscard]] std::optional<Spot> spot_of(const Plan& plan, const Id& thing);

// Diameter over the insulation of all conductors of this run, each.
[[nodiscard]] std::vector<double> diameters_mm(const Plan& plan, const std::vector<std::size_t>& runs);

// How far apart its clips are, m: as said, else as the standard has it whose ampacities the plan goes by.
[[nodiscard]] double clip_spacing_m(const Plan& plan, const Way& way);

// Share of a passage's free diameter that a bundle may take: common practice (data/catalog/assumptions.json).
[[nodiscard]] double allowed_fill();

}  // namespace yr
