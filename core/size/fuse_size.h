// Which fuse: the three schools side by side, each with its risk.
#pragma once

#include <optional>
#include <vector>

#include "catalog/fuses.h"
#include "plan/plan.h"

namespace yr {

struct FuseAsk {
    double current_A = 0;            // largest normal current, above 0
    std::optional<double> inrush_A;  // measured at start
    double cable_A = 0;              // what the cable carries, all deratings applied
    double rail_V = 12;              // nominal volts that it has to interrupt
};

struct FuseRow {
    FuseChoice fuse;
    bool carries = false;         // the load is at most 80 % of it
    bool holds_inrush = false;    // above the inrush
    bool protects_cable = false;  // no larger than what the cable carries
};

struct FuseAdvice {
    std::vector<FuseRow> rows;
    std::optional<FuseChoice> chosen;  // by the asked school
    bool protects_cable = false;       // whether the chosen one does: the other schools do not ask
    bool carries = false;              // whether the load is at most 80 % of the chosen one
    bool holds_inrush = false;
    double needed_A = 0;  // what the school asks for before "next size up"
};

// load150: 150 % of the current, next size up. inrush: next size above the inrush (above the current where
// none is given). wire: at least current / 0.8 and above the inrush, at most what the cable carries; empty
// when no rating is both. All three are common practice. Failure: out_of_range.
[[nodiscard]] Result<FuseAdvice> choose_fuse(const FuseAsk& ask, FuseSchool school);

}  // namespace yr
