// Sneak paths: every combination of key position, switches and pulled fuses searched for a load that is alive
// when it should be dead, dead when it should be alive, or fed past its own fuse.
//
// How it is exact without trying every combination: cables are taken as perfect and loads as their resistance
// at nominal volts. For one load and key position the search decides only those switches and fuses that can
// still change its volts: nets that are surely joined to a source or to ground are fixed, the rest of the
// network round the load is looked at with all that is undecided closed; where that touches sources or ground
// alone the load is dead whatever is decided later. What is left is branched on, one switch at a time. Coils,
// control units and converters are decided like switches and then have to come out true of themselves, so
// that relays which hold themselves in are found too. Every path that is found is solved once more as the
// plan stands, with real cables and loads as resistances, before it is told: none is invented.
//
// Taken as given: master disconnects closed; a load may be without volts while the starter turns, unless it
// is a starter, a control unit or critical; sensing relays and cut-offs as they settle at that key position.
#pragma once

#include <atomic>
#include <functional>

#include "control/key_positions.h"
#include "plan/edit.h"

namespace yr {

enum class SneakKind {
    alive,      // runs, at least half awake, though nothing asks for it
    past_fuse,  // the same though a fuse of its own is out: another circuit's fuse carries it
    dead        // asked for, its own fuses in, and without usable volts
};

enum class SneakMendKind { diode, coil_feed, own_return, own_feed };

struct SneakMend {
    SneakMendKind kind{};
    Id id;    // run that changes
    Id feed;  // coil_feed, own_feed: where it goes
    Edit edit;
};

struct SneakPath {
    Id load;
    SneakKind kind{};
    KeyPosition position{};
    State state;           // key, switches, pulled fuses and relays held in, ready to be shown
    double volts_V = 0;    // across the load, as solved
    std::vector<Id> path;  // runs, bonds and loads that the current passes, from source to ground
    Id through;            // alive: load that carries it; past_fuse: fuse that does; dead: what is open
    std::vector<SneakMend> mends;  // each clears this path and brings none other for this load
};

struct SneakSearch {
    std::vector<SneakPath> found;  // each load and kind once; those without a pulled fuse first
    int switches = 0, fuses = 0, positions = 0;
    double combinations = 0;  // that the answer holds for
    std::size_t looked_at = 0;
    bool complete = true;  // false: stopped on the way
};

struct SneakAsk {
    std::vector<Id> loads;  // empty: all
    bool with_mends = true;
    std::function<void(double share)> progress;
    const std::atomic<bool>* cancel = nullptr;
};

[[nodiscard]] SneakSearch search_sneaks(const Plan& plan, const SneakAsk& ask = {});

// Found paths with one cause (kind, and what carries or breaks them) together, each as indices of `found`, in
// the order of the first of each.
[[nodiscard]] std::vector<std::vector<std::size_t>> by_cause(const std::vector<SneakPath>& found);

// The plan's network in a state with every load a resistance at nominal volts, which is what is searched.
[[nodiscard]] Network resistive_network(const Plan& plan, const State& state);

// Fuses without which a load is meant to be dead: in its supply, in what feeds that, and in the coils that
// close on its way, but where a second feed carries it (two feeds to one load, another battery or source
// behind the same bus).
[[nodiscard]] std::vector<Id> own_fuses(const Plan& plan, const Load& load);

// Fuses whose absence explains that it is dead: all of those, second feed or not, and those of every trunk.
[[nodiscard]] std::vector<Id> fuses_it_rests_on(const Plan& plan, const Load& load);

// Volts across a load from which it counts as alive, and below which it counts as dead.
[[nodiscard]] double alive_V(const Plan& plan, const Load& load);
[[nodiscard]] double served_V(const Plan& plan, const Load& load);

}  // namespace yr
