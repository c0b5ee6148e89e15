// The whole plan sized at once: the least copper, money or number of different sizes at which every load
// keeps its drop, every cable its ampacity and temperature, every fuse guards its cable, in every chosen
// state.
//
// A 0-1 program (zero_one.h) chooses a size, and where a run has one fuse its rating, for each run. Its rows
// are true of every plan that passes: drops by the smallest currents there can be. Its answer is solved as
// the real, non-linear circuit; where a limit is broken, a cut takes away that choice and all that are surely
// no better, and the program is asked again. So its cost is a proved lower bound, and a choice that passes at
// that cost is proved least. In a mesh a thicker cable attracts current; there the cuts rest on solves at
// both ends of each cable's range (extremes of a linear circuit lie there: each current is a
// linear-fractional function of one resistance).
#pragma once

#include <atomic>
#include <functional>
#include <map>
#include <optional>
#include <vector>

#include "plan/edit.h"
#include "size/run_ladder.h"

namespace yr {

enum class SizingGoal { mass, money, sizes };

struct SizingProgress {
    int round = 0;
    double bound = 0;            // proved: nothing costs less
    std::optional<double> best;  // that passes, so far
};

struct SizingAsk {
    SizingGoal goal = SizingGoal::mass;
    std::vector<Id> states;  // empty: all but cranking
    std::vector<Id> only;    // runs that may change; empty: all that are not pinned
    bool fuses = true;       // ratings are chosen as well, where a run has one fuse and is fed from one end
    std::map<Id, double> drop_limits_V;  // in place of a load's own
    bool as_now = false;  // a load over its limit in the plan as it stands may stay as far over
    // Runs that must be thicker than that, all pieces together: a size that something else refused.
    std::map<Id, double> thicker_than_mm2{};
    std::map<Id, WireSize>
        held{};          // runs that take this size and no other; their fuses are chosen as others'
    double most_s = 60;  // after that the best that was found is given
    std::function<bool(const SizingProgress&)> watch;  // false: stop
    const std::atomic<bool>* cancel = nullptr;         // the same, looked at inside long steps
    double inside_s = 0.5;                             // as ZeroOneLimits: which solver is asked how long
};

enum class SizingStatus {
    least,       // proved
    best_found,  // passes; stopped before the proof was complete
    impossible,  // no choice passes: see blockers
    stopped      // stopped before anything that passes was found
};

// What holds a run at its size: the limit that the next thinner one breaks.
struct SizedRun {
    Id run;
    WireSize from = WireSize::awg(10), to = WireSize::awg(10);
    double fuse_from_A = 0, fuse_to_A = 0;  // 0: no fuse that may change
    Limit binds = Limit::none;              // none: it is the thinnest of all
    Id load, state;                         // whose drop; in which state
};

// A limit that no choice keeps.
struct SizingBlocker {
    Id id;  // load or run
    Id state;
    Limit limit = Limit::none;
    double value = 0, allowed = 0;  // with everything at its best
    bool unserved = false;          // the supply breaks down under the state's loads, whatever the cables
};

struct SizingTotals {
    double mass_kg = 0, money = 0;
    int sizes = 0;  // different ones
};

struct SizingResult {
    SizingStatus status = SizingStatus::stopped;
    double cost = 0, bound = 0;  // in the goal's unit: kg, money, or number of sizes
    [[nodiscard]] double gap() const { return cost > 0 ? std::max(0.0, (cost - bound) / cost) : 0; }
    std::vector<SizedRun> runs;  // those that may change
    SizingTotals before, after;  // of those
    std::vector<Id>
        left_out;  // states that the supply cannot serve even with every free cable at its thickest
    std::vector<SizingBlocker> blockers;
    Edit edit;  // all of it as one; a batch without edits where nothing changes
    int rounds = 0, cuts = 0;
};

// Failure: missing_reference for a state, run or load that is not there; empty where nothing may change.
[[nodiscard]] Result<SizingResult> size_plan(const Plan& plan, const SizingAsk& ask);

// What one size more or less of one cable would cost the whole plan, everything else sized anew around it.
// Empty cost: no choice of the other sizes keeps the limits then, or there is no such size.
struct NextSizes {
    Id run;
    std::optional<WireSize> thinner, thicker;
    std::optional<double> thinner_cost, thicker_cost;  // of the whole, in the goal's unit
    Limit refused = Limit::none;  // why there is no thinner one, where its own limits say so
    bool whole = true;            // false: stopped before both were known
};
// `sized`: of the answer to `ask`. Failure: as size_plan.
[[nodiscard]] Result<NextSizes> next_sizes(const Plan& plan, const SizingAsk& ask, const SizedRun& sized);

// What the next tenths of a volt cost a load: the plan sized anew at each tighter limit.
struct PricePoint {
    double limit_V = 0;
    std::optional<double> cost;  // empty: no choice keeps that limit
};
[[nodiscard]] Result<std::vector<PricePoint>> price_of_volts(const Plan& plan, const SizingAsk& ask,
                                                             const Id& load, int steps = 6,
                                                             double step_V = 0.1);

}  // namespace yr
