// The circuit as a short sees it: one plan in one settled state, reduced to a linear network that is factored
// once and then asked for any short.
//
// Conductors and batteries (open volts behind R0) are stamped; what has a limit or a direction (sources,
// batteries that accept no more, diodes) and what a question changes (a run opened, a run of another
// resistance, the short itself) are *ports*: a current between two nodes with the law u = e - R i. Each
// answer solves the few ports exactly (compensation theorem), so a short costs microseconds.
//
// Left out: cable inductance (errs on the high side below a millisecond), other loads' constant power (the
// weakest case holds them as the resistances they are at the working point), the input of converters.
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "solve/settle.h"

namespace yr {

// strongest: new, warm, full batteries, cold copper, no loads: the largest short, for interrupting.
// weakest: aged batteries at this state's charge, copper as hot as its insulation allows, aged joints, loads
// on: the smallest, for "does the fuse open".
enum class SupplyCase { strongest, weakest };

// Where a short is: between `at` and `back`, through `ohm`. Inside a run: `run` and how many ohms of it lie
// before the place, seen from its `from` end (share of its cold resistance, joints and devices included).
struct ShortAsk {
    NodeIndex at = kNoNode, back = kNoNode;
    double ohm = 0;
    int run = -1;               // inside this conductor; `at` then plays no part
    double share = 0;           // 0..1 of its resistance before the place
    std::vector<int> opened{};  // conductors that have opened
    int changed = -1;           // a conductor of another resistance ...
    double changed_ohm = 0;
};

struct ShortAnswer {
    bool settled = false;         // false: no answer was found, and nothing follows from the rest
    double amps = 0;              // through the short; what comes from both sides inside a run
    std::vector<double> run_A;    // by conductor, from -> to; inside the shorted run the larger side's
    double from_A = 0, to_A = 0;  // inside a run: what its two sides bring
    std::vector<double> battery_A, source_A;
    [[nodiscard]] double node_V(NodeIndex node) const {
        return by_row_V[static_cast<std::size_t>((*row)[static_cast<std::size_t>(node)])];
    }

    std::vector<double> by_row_V;           // in the order of elimination
    const std::vector<int>* row = nullptr;  // of each node; the network's, which must outlive this
};

// What a dead short across a battery's own posts draws while it is new, warm and full, A: what a fuse beside
// the post must cut. 0: no such battery.
[[nodiscard]] double short_at_posts_A(const Plan& plan, const Id& battery);

class FaultNetwork {
  public:
    // `solution` belongs to this plan and state.
    FaultNetwork(const Plan& plan, const State& state, const Solution& solution, SupplyCase supply);
    ~FaultNetwork();
    FaultNetwork(FaultNetwork&&) noexcept;

    [[nodiscard]] ShortAnswer solve(const ShortAsk& ask) const;
    [[nodiscard]] const Network& network() const;
    // Resistance of a conductor as this case takes it, ohm.
    [[nodiscard]] double conductor_ohm(std::size_t conductor) const;

  private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

}  // namespace yr
