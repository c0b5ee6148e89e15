// What one run of a plan may carry, and what protects it.
#pragma once

#include <optional>
#include <unordered_map>
#include <vector>

#include "plan/plan.h"
#include "solve/settle.h"

namespace yr {

// Of the copper of a battery's thickest positive cable that its negative ones hold at least: half, but for
// what the sizes of one table leave. Common practice, no source.
inline constexpr double kBatteryReturnShare = 0.45;

// Ampacity of a run with its parallel count in one state; empty for body metal and given resistances, which
// have no table. An unknown size counts as the assumed one.
[[nodiscard]] std::optional<Ampacity> run_ampacity(const Plan& plan, const Run& run, const State& state);

// The least over all states, A.
[[nodiscard]] std::optional<double> least_ampacity_A(const Plan& plan, const Run& run);

// Which terminals hang on a battery's or source's positive side, whatever the switches do.
class SupplySide {
  public:
    explicit SupplySide(const Plan& plan);
    [[nodiscard]] bool contains(const Terminal& terminal) const;
    [[nodiscard]] bool is_supply(const Run& run) const { return contains(run.from) && contains(run.to); }

  private:
    std::vector<Terminal> terminals_;  // sorted
};

struct EndProtection {
    bool at_from = true;               // which end of the run
    std::optional<double> upstream_A;  // a fault here is cut by a fuse of at most this rating; empty: by none
    const Device* upstream = nullptr;  // that fuse
    const Device* own = nullptr;       // this run's fuse nearest to the end
    double own_distance_m = 0;         // from the end along the cable
};

// The ends of a supply run that a battery can feed while the run is cut, all switches closed. Alternators and
// converters limit their own current and do not count.
class FedEnds {
  public:
    explicit FedEnds(const Plan& plan);  // the plan must outlive this
    [[nodiscard]] std::vector<EndProtection> of(const Run& run) const;

  private:
    struct Reach {
        double amps = 0;
        const Device* fuse = nullptr;  // the smallest on that way
    };
    [[nodiscard]] std::optional<Reach> reach_A(const Terminal& end, const Run& without) const;

    struct Way {
        std::size_t to;
        const Device* fuse;
        const Run* run;
    };
    std::unordered_map<Terminal, std::size_t> index_;
    std::vector<std::vector<Way>> ways_;  // by terminal
    std::vector<char> battery_;           // positive posts
};
[[nodiscard]] std::vector<EndProtection> fed_ends(const Plan& plan, const Run& run);

// Distance allowed between a fuse and its source: by policy, else 18 in (common practice on road vehicles).
[[nodiscard]] double fuse_distance_m(const Plan& plan);

[[nodiscard]] std::vector<Solution> solve_all(const Plan& plan);

// Amps of all pieces of a load at nominal volts, and at its start.
[[nodiscard]] double nominal_A(const Plan& plan, const Load& load);
[[nodiscard]] double start_A(const Plan& plan, const Load& load);

}  // namespace yr
