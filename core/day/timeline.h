// A day's parts one behind another: which state holds when.
#pragma once

#include <vector>

#include "plan/plan.h"

namespace yr {

struct Stretch {
    double from_s = 0, to_s = 0;  // from the day's beginning
    std::size_t part = 0;         // index in Day::parts
    std::size_t state = 0;        // index in Plan::states
};

// In order, without gaps. Parts that lie within the one before cut it evenly; it keeps its own length. A day
// without parts is 24 h of the first parked state, or of the first state.
[[nodiscard]] std::vector<Stretch> timeline(const Plan& plan, const Day& day);

[[nodiscard]] double length_s(const Day& day);

// The state at that moment, with the day's air, sun and the part's own values in it. `t_s` from the day's
// beginning, in or before a repetition of it.
[[nodiscard]] State state_at(const Plan& plan, const Day& day, const Stretch& stretch, double t_s);

// "06:30" of the clock at that moment; a day later "+1 06:30".
[[nodiscard]] std::string clock_text(const Day& day, double t_s);

}  // namespace yr
