// The ways of a vehicle as a net, and the shortest path for one cable through it.
//
// What a stretch costs is its length in metres, more where it is hot, where it flexes and where it leaves the
// ways; much more where cables keep clear (exhaust, airbag, what moves, fuel lines): such a stretch is taken
// only where there is no other.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <vector>

#include "plan/plan.h"

namespace yr {

// A stretch of a cable's way.
struct Leg {
    std::optional<std::size_t>
        way;  // index in Plan::ways; empty: off the ways, from a thing to them or straight
    Spot from, to;
    double begins = 0, ends = 0;  // on the way: where, 0..1 from its beginning
    [[nodiscard]] double length_m() const { return distance_m(from, to); }
};

struct Path {
    std::vector<Leg> legs;
    std::vector<std::size_t> waypoints;  // passed, in order; index in Plan::waypoints
    double cost = 0;
    [[nodiscard]] double length_m() const {
        double sum = 0;
        for (const Leg& leg : legs) sum += leg.length_m();
        return sum;
    }
};

class WayNet {
  public:
    // `plan` outlives it and stays as it is. Waypoints and ways that say no spot are left out. For one
    // thread.
    explicit WayNet(const Plan& plan);

    // `surcharge`: of each waypoint, in metres; empty: none.
    [[nodiscard]] std::optional<Path> shortest(const Spot& from, const Spot& to,
                                               const std::vector<double>& surcharge = {}) const;
    // The same past those waypoints in that order.
    [[nodiscard]] std::optional<Path> shortest_by(const Spot& from, const std::vector<Id>& via,
                                                  const Spot& to,
                                                  const std::vector<double>& surcharge = {}) const;
    [[nodiscard]] bool empty() const { return edges_.empty(); }
    // What the way costs, whole.
    [[nodiscard]] double cost_of(std::size_t way) const { return cost_[way]; }

  private:
    struct Edge {
        std::size_t to, way;
        double cost;
    };
    struct Entry {  // where a thing comes on to the ways
        std::size_t way;
        double at, off_cost;  // 0..1 along it
        Spot spot;
    };
    [[nodiscard]] const std::vector<Entry>& entries(const Spot& spot) const;
    [[nodiscard]] std::vector<Entry> found_entries(const Spot& spot) const;

    const Plan& plan_;
    std::vector<std::optional<Spot>> at_;   // of waypoints
    std::vector<double> cost_;              // of ways; below 0: not in the net
    std::vector<std::vector<Edge>> edges_;  // by waypoint
    std::vector<std::size_t> from_, to_;    // of ways
    // a box has many cables: its entries are found once
    mutable std::map<std::array<double, 3>, std::vector<Entry>> entries_;
};

// What a stretch of cable costs a metre, 1 or more: by what it lies in.
[[nodiscard]] double cost_per_m(const Plan& plan, const Spot& from, const Spot& to);

// The room of a place, where it has one: lower and upper corner.
struct Room {
    Spot low, high;
    [[nodiscard]] bool holds(const Spot& s, double margin_m = 0) const {
        return s.x_m >= low.x_m - margin_m && s.x_m <= high.x_m + margin_m && s.y_m >= low.y_m - margin_m &&
               s.y_m <= high.y_m + margin_m && s.z_m >= low.z_m - margin_m && s.z_m <= high.z_m + margin_m;
    }
};
[[nodiscard]] std::optional<Room> room_of(const Place& place);

// The smallest room that this spot lies in; empty: none. Places that are but a hazard count only where asked.
[[nodiscard]] Id place_at(const Plan& plan, const Spot& spot);

// Where cables and boxes keep clear.
[[nodiscard]] bool is_hazard(const Place& place);
// What may kill or burn at once if a cable lies there; of the rest (heat, a jack) the cable suffers first.
[[nodiscard]] bool is_grave(Hazard hazard);

// Metres of the straight from a to b that lie in the room, `margin_m` wider on all sides.
[[nodiscard]] double inside_m(const Room& room, const Spot& a, const Spot& b, double margin_m = 0);

}  // namespace yr
