// Where a load may hang and what it would cost there: the plan's own side of each single choice. For
// assign.cpp.
#pragma once

#include <map>
#include <string>
#include <unordered_map>
#include <vector>

#include "control/assign.h"
#include "control/feed_tree.h"
#include "routes/routes.h"
#include "solve/operating_point.h"

namespace yr {

// Volts of every point at every key position, for each set of switches that loads ask for.
class LiveMap {
  public:
    using Volts = std::array<double, kKeyPositions>;
    explicit LiveMap(const Plan& plan) : plan_(plan) {}
    [[nodiscard]] const std::map<Id, Volts>& with(const std::vector<std::string>& switches);

  private:
    const Plan& plan_;
    OperatingPointSolver solver_;
    std::map<std::vector<std::string>, std::map<Id, Volts>> known_;
};

struct Feed {
    const Point* point = nullptr;
    FeedPath path;
    double volts = 0;       // of its rail, as the plan names them
    std::vector<int> ways;  // in the problem
};

class FeedOptions {
  public:
    FeedOptions(const Plan& plan, const AssignAsk& ask);

    // Points made to hang loads on and those on which loads hang all the same.
    [[nodiscard]] std::vector<Feed>& feeds() { return feeds_; }
    [[nodiscard]] const std::vector<Feed>& feeds() const { return feeds_; }

    // It has a supply run of its own from one of the feeds.
    [[nodiscard]] bool movable(const Load& l) const;
    // REQUIRES for all below: movable(l).
    [[nodiscard]] const Feed& now(const Load& l) const;
    [[nodiscard]] const Run& supply(const Load& l) const;

    // In which key positions it is to run.
    [[nodiscard]] const LiveAt& wanted(const Load& l);

    // Why a load cannot go on a feed whatever else is there; empty where it can. Where it hangs now it may
    // stay.
    [[nodiscard]] std::optional<OtherFeed> barred(const Load& l, const Feed& feed);

    // Its own cable from there, m: as stated where it hangs now; along the vehicle's ways where both stand
    // somewhere; else as far as its present way says.
    [[nodiscard]] double local_m(const Load& l, const Feed& feed) const;
    // Whether that is the length of its way through the vehicle.
    [[nodiscard]] bool along_ways(const Load& l, const Id& feed) const;
    // It hangs now where it is dead when it must run, or lives when it must be dead: it goes where that is
    // not so, at any price, and stays where there is no such place.
    [[nodiscard]] std::optional<OtherFeed> misplaced(const Load& l);
    // In amp-metres; the present place wins a draw, another battery is a person's decision.
    [[nodiscard]] double cost(const Load& l, const Feed& feed);

  private:
    [[nodiscard]] std::optional<double> laid_m(const Load& l, const Feed& feed) const;
    [[nodiscard]] bool rides(const Load& l, const std::vector<std::string>& switches);
    [[nodiscard]] std::optional<OtherFeed> wrong_times(const Load& l, const Feed& feed);

    // When it is to run: asked of every feed, and the same each time.
    struct Times {
        std::vector<std::string> switches;
        LiveAt wanted{};
        bool rides = false;
    };
    [[nodiscard]] const Times& times(const Load& l);

    struct Home {
        const Run* run = nullptr;  // its supply
        std::size_t feed = 0;
        std::optional<Times> times{};
    };

    const Plan& plan_;
    const AssignAsk& ask_;
    LiveMap live_;
    std::vector<std::string> masters_;  // switches of the masters: on
    WayNet net_;
    mutable std::map<std::pair<Id, Id>, std::optional<double>> laid_;  // by load and feed
    std::vector<Feed> feeds_;
    std::unordered_map<Id, Home> homes_;  // by load, where it has a run of its own from a feed
};

}  // namespace yr
