// The price of doubt: what a plan takes for granted, at both ends of what it may be. Only what flips a size,
// a fuse or a verdict is worth measuring before anything is ordered; the rest changes nothing.
#pragma once

#include "inspect/findings.h"
#include "sizing/plan_sizing.h"

namespace yr {

enum class DoubtKind {
    length,       // of a run that says none: m
    bond,         // of a ground that says none: ohm
    draw,         // of a load from the library: W, A or ohm
    battery_ohm,  // of a battery that says none
    regulated,    // volts of a source that says none
    air           // of all states: K hotter
};

struct DoubtFlip {
    Id run;  // empty: a verdict
    WireSize size_from = WireSize::awg(10), size_to = WireSize::awg(10);
    double fuse_from_A = 0, fuse_to_A = 0;
    std::optional<Finding> finding;  // a stop or fix that comes
    bool high = false;               // at its upper end
};

struct Doubt {
    DoubtKind kind{};
    Id thing;
    double assumed = 0, low = 0, high = 0;
    std::optional<Id> with;        // together with this other doubt only
    std::vector<DoubtFlip> flips;  // none: it changes nothing
    // Copper that the sizes ordered as it is assumed would need on top, at each end; where no sizes do there,
    // 0.
    double low_kg = 0, high_kg = 0;
    bool low_fails = false, high_fails = false;  // sizes at least as ordered keep the limits no longer there
    [[nodiscard]] bool matters() const { return !flips.empty() || low_fails || high_fails; }
};

struct Doubts {
    std::vector<Doubt> matter;  // those that flip something, most flips first
    std::size_t others = 0;     // that change nothing
    bool whole = true;          // false: stopped before all were looked at
};

// `sizes`: the plan is also sized at each end (its verdicts alone otherwise).
struct DoubtAsk {
    bool sizes = true;
    bool pairs = true;                    // of those that flip nothing alone, the heaviest together
    std::function<bool(double)> watch{};  // share done; false: stop
    const std::atomic<bool>* cancel = nullptr;
};
[[nodiscard]] Doubts doubts_of(const Plan& plan, const DoubtAsk& ask = {});

// What is taken for granted, without looking what it does.
[[nodiscard]] std::vector<Doubt> taken_for_granted(const Plan& plan);

}  // namespace yr
