// A plan's loads given to the channels of its boxes, the ways of its fuse blocks and its studs: the least
// amp-metres of copper that respect every limit. The program itself is in assignment.h.
//
// A load may go where there is supply whenever it must run. A box's channel switches it, so that the box may
// be live longer; on a block or stud the feed must be live just when the load must be, but for the switches
// that are the load's own. Limits: each channel's rating and peak; what channels of a group share; the box's
// main; every fuse on the way from the battery.
#pragma once

#include <atomic>
#include <set>

#include "control/assignment.h"
#include "plan/edit.h"

namespace yr {

enum class WhyNot {
    dearer,          // possible, more copper: value, limit in A m
    not_live,        // dead when the load must run, at key position `position`
    live_too_long,   // a block or stud that stays live when the load must be dead
    rating,          // no channel there carries it: value A, limit A
    peak,            // no channel there stands its start: value A, limit A
    full,            // would fit and cost less, but its channels or a limit are taken by others
    pinned,          // a person put it elsewhere
    other_volts,     // a rail of other volts: value, limit those of the load's own
    switched_there,  // a relay or its feed switches it where it is; elsewhere it would run at other times
    no_feed,         // loads hang there, but it is not made for more
    refused          // asked for: inspected whole, it would make something worse
};

struct OtherFeed {
    Id feed;
    WhyNot why{};
    double value = 0, limit = 0;
    KeyPosition position{};
};

struct PlacedLoad {
    Id load, feed;
    int channel = 0;      // 0: on the block or stud
    bool joined = false;  // takes the next channel too
    bool moved = false, pinned = false;
    double amps = 0, feed_m = 0, local_m = 0;
    std::vector<OtherFeed> others;
};

// What would make an impossible assignment possible; each was tried by solving with it.
enum class RemedyKind { raise_limit, another_box, unpin, join };
struct Remedy {
    RemedyKind kind{};
    Id id;                    // device, box or load
    std::string group;        // raise_limit of a channel group
    double from = 0, to = 0;  // A, or channels of the new box in `to`
};

struct Assignment {
    bool feasible = false;
    bool known = true;  // false: stopped before it was proved either way
    std::vector<PlacedLoad> placed;
    std::vector<Id> conflict;  // smallest set of loads that cannot all be placed
    std::vector<Remedy> remedies;
    bool stands =
        false;  // the plan as it is keeps every limit that is reckoned with here: then nothing costs more
    double amp_metres = 0;
    double amp_metres_before = 0;  // as the plan stands
    Edit edit;                     // all moves as one
};

struct AssignAsk {
    std::vector<Id> loads;  // empty: every load that hangs on a feed and is not pinned
    bool allow_joined = false;
    // Load and feed that may not come together; where it hangs there now, it keeps its channel.
    std::set<std::pair<Id, Id>> refused{};
    double most_s = 60;                         // for each question that is asked of the solver
    const std::atomic<bool>* cancel = nullptr;  // ends it sooner
};

// Never fails: what has no feed is not asked about.
[[nodiscard]] Assignment assign_loads(const Plan& plan, const AssignAsk& ask = {});

// Metres of cable from the nearest battery or source to this feed; empty where none reaches it.
[[nodiscard]] std::optional<double> feed_length_m(const Plan& plan, const Id& feed);

// A limit that stands between the battery and some feeds, or inside one box.
struct FeedLimit {
    Id id;              // fuse, or box
    std::string group;  // of the box; empty: its main
    double limit_A = 0;
    std::vector<Id> feeds;  // that it holds for; with a group, one box
};
[[nodiscard]] std::vector<FeedLimit> feed_limits(const Plan& plan);

}  // namespace yr
