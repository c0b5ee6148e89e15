// What sizing chooses among, and what each choice is worth: for plan_sizing.cpp.
#pragma once

#include <vector>

#include "demand/demand.h"
#include "size/circuit_options.h"
#include "sizing/deadline.h"
#include "sizing/plan_sizing.h"

namespace yr {

constexpr double kTiny = 1e-9;      // of a limit: below, it holds
constexpr double kSameCost = 1e-9;  // of a cost

struct SizeChoice {
    WireSize size = WireSize::awg(10);
    double fuse_A = 0;  // of the run's one fuse; 0: it has none that may change
    double cost = 0;    // by the goal, its share in counting sizes left out
    double mass_kg = 0, money = 0, area_mm2 = 0;
    double ohm20 = 0;  // cable, joints and fuse, cold: the order of choices
};

struct FreeRun {
    std::size_t run = 0;
    int fuse_device = -1;             // index in its devices
    std::vector<SizeChoice> choices;  // least resistance last
    // why a size is not among the choices, thinnest first, for telling what binds
    std::vector<std::pair<WireSize, Limit>> refused;
};

// One choice for each free run, by index.
using Design = std::vector<int>;

// A limit broken by a design. `none`: some load cannot be served at all in that state.
struct Breach {
    Limit limit = Limit::none;
    std::size_t load = 0, run = 0;  // drop: load; else run
    std::size_t k = 0;              // which of the chosen states
    double value = 0, allowed = 0;
    [[nodiscard]] double excess() const { return value / allowed - 1; }
};

class SizingModel {
  public:
    // Throws DeadlineOver, as does whatever solves below.
    SizingModel(const Plan& plan, const SizingAsk& ask, const std::vector<Solution>& solutions,
                std::vector<std::size_t> states, const Deadline& deadline);

    [[nodiscard]] const std::vector<FreeRun>& runs() const { return runs_; }
    [[nodiscard]] const Plan& plan() const { return plan_; }
    [[nodiscard]] const std::vector<std::size_t>& states() const { return circuit_.states(); }
    [[nodiscard]] Run changed(std::size_t free, int choice) const;
    [[nodiscard]] double limit_V(std::size_t load) const { return limits_V_[load]; }

    // The design solved as the real circuit; every breach, worst first in each state. Empty: it passes.
    [[nodiscard]] std::vector<Breach> breaches(const Design& design);
    // How far one limit is from being kept, value / allowed - 1, in its own state.
    [[nodiscard]] double excess(const Breach& breach, const Design& design);

    // A run that moves a breach, and the end of its range at which the breach stands least. `far`: it moves
    // it only through other loads' currents.
    struct Lever {
        std::size_t f = 0;
        int end = 0;
        bool far = false;
    };
    [[nodiscard]] std::vector<Lever> levers(const Breach& breach, const Design& design);

    // Rows that every passing design keeps: smallest currents, coolest copper.
    struct DropRow {
        std::size_t load = 0, k = 0;
        double rest_V = 0;                                               // all that no choice changes
        std::vector<std::pair<std::size_t, std::vector<double>>> terms;  // free run, volts by choice
    };
    [[nodiscard]] std::vector<DropRow> drop_rows();
    // A further row for a load that one battery alone feeds in that state: the resistance that its own
    // current meets in loops is convex in the conductances there, so its tangent at this design lies below it
    // everywhere.
    [[nodiscard]] std::optional<DropRow> tangent_row(std::size_t k, std::size_t load, const Design& design);

    // A load's own feed and return, both free. Above 15 A the return is as thick as the feed; a short in the
    // load passes both, so the return too stands what the feed's fuse lets through. Likewise a battery's
    // positive cable and its negative one.
    struct Pair {
        std::size_t feed = 0, back = 0;
        double share = 0;              // of the feed's copper that the return holds at least
        std::vector<double> stands_A;  // by choice of the return: the largest such fuse that guards it
    };
    [[nodiscard]] const std::vector<Pair>& pairs() const { return pairs_; }
    [[nodiscard]] bool pair_holds(const Pair& p, int feed, int back) const;
    // A cable that chafes through on the metal: of those that ground its battery one at least stands what the
    // fuse lets by, or holds as much copper as what that fuse stands in (ground_duty of plan_fuse.h).
    struct Ground {
        std::optional<std::pair<std::size_t, int>> when;  // this choice is taken; none: always
        std::vector<std::pair<std::size_t, int>> any;     // then one of these
    };
    [[nodiscard]] const std::vector<Ground>& grounds() const { return grounds_; }
    // What pairs and grounds ask.
    [[nodiscard]] bool sides_hold(const Design& design) const;
    // Thickens what they ask for, as little as does; false: nothing does.
    [[nodiscard]] bool mend_sides(Design& design) const;
    // Whether this choice surely carries its run's current in every passing design.
    [[nodiscard]] bool surely_carries(std::size_t free, int choice) const;

    // Everything at its thickest.
    [[nodiscard]] Design thickest() const;
    [[nodiscard]] const std::vector<SizingBlocker>& blockers() const { return blockers_; }

  private:
    void find_runs(const SizingAsk& ask, const std::vector<Solution>& solutions);
    void add_choices(FreeRun& free, const SizingAsk& ask, double least_A);
    [[nodiscard]] Limit refuses(const Run& run, double fuse_A, double guard_A, bool guarded) const;
    void find_floors(const std::vector<Solution>& solutions);
    // A load's own feed and return.
    struct OwnRuns {
        int supply = -1, back = -1;
        bool big = false;
    };
    [[nodiscard]] OwnRuns own_runs(std::size_t load, const std::vector<Solution>& solutions) const;
    void keep_returns_thick(const std::vector<Solution>& solutions);
    void find_pairs(const std::vector<Solution>& solutions);
    void find_stands(Pair& pair) const;
    [[nodiscard]] std::vector<double> loop_volts(std::size_t k, std::size_t load, const Design& design) const;
    [[nodiscard]] double cold_ohm(std::size_t k, std::size_t conductor, const Design& design) const;
    [[nodiscard]] double limit_current_A(std::size_t k, std::size_t load) const;
    void put(const Design& design);
    [[nodiscard]] std::vector<double> turn_heat(std::size_t free, const CableSurroundings& cable) const;
    void find_battery_pairs(const Battery& battery);
    void find_grounds(const Battery& battery, bool as_now);
    void put_one(Network& net, std::size_t k, std::size_t free, int choice) const;
    void find_least_currents();
    void filter_by_current();
    void find_paths();
    [[nodiscard]] int end_for(std::size_t k, std::size_t f, const std::vector<char>* among) const;
    void add_lost_blockers(std::size_t k);
    void filter_loops();
    void try_loop(std::size_t k, std::size_t f);
    [[nodiscard]] bool checked(std::size_t k, std::size_t load) const;
    void check_state(std::size_t k, const OperatingPoint& point, const Design& design,
                     std::vector<Breach>& out) const;
    [[nodiscard]] double value_of(const Breach& b, const OperatingPoint& point) const;
    void drop_dominated(std::vector<DropRow>& rows) const;
    void add_loop_rows(std::size_t k, std::vector<DropRow>& rows, const std::vector<DropRow>& radial);

    // A choice as the conductor it makes; air stands apart, by state.
    struct Element {
        double fixed_ohm = 0, cable20_ohm = 0;
        CableSurroundings cable;
        std::vector<double> turn_C;  // by state: where its turns leave it; NaN: it carries what it carries
    };

    const Plan& plan_;
    const Deadline& deadline_;
    CircuitOptions circuit_;
    std::vector<FreeRun> runs_;
    std::vector<std::vector<Element>> elements_;           // by free run and choice
    std::vector<std::vector<std::vector<double>>> amp_A_;  // by free run, choice and state
    std::vector<std::vector<double>> air_C_;               // by free run and state
    std::vector<std::vector<char>> turns_;                 // by free run and state: judged in time instead
    std::vector<int> free_of_;                             // by run; -1: stays
    Design now_;                                           // what the circuit holds
    std::vector<double> limits_V_;
    std::vector<std::vector<char>> expected_on_;  // by chosen state and load, as the plan stands
    std::vector<Pair> pairs_;
    std::vector<Ground> grounds_;
    std::vector<RunDemand> demand_;  // by run
    std::vector<double> floor_A_;    // by run: what it must carry whatever the states say
    std::vector<SizingBlocker> blockers_;
    std::vector<Network> least_;  // by chosen state: loads at their smallest currents, all thickest
    std::vector<OperatingPoint> least_point_;
    std::vector<DropRow> radial_;  // rows of cables outside loops only, before any was left out
    std::vector<std::vector<std::vector<char>>> on_path_;  // by chosen state, load and free run
    std::vector<std::vector<std::vector<double>>>
        heat_A_;                             // by free run, choice and state: at the insulation's limit
    std::vector<std::vector<char>> bridge_;  // by chosen state and conductor
    std::vector<OperatingPointSolver> least_solver_;
    std::vector<std::vector<std::vector<std::vector<double>>>>
        loop_drop_V_;  // by state, free run, choice and load
};

}  // namespace yr
