// What would make a day last: each remedy alone, to the smallest that does it.
#pragma once

#include "day/verdicts.h"
#include "plan/edit.h"

namespace yr {

enum class DayRemedyKind { capacity, panel, engine_time, less_draw };
struct DayRemedy {
    DayRemedyKind kind{};
    Id about;          // battery, panel, part's state, load
    double value = 0;  // Ah in all, W of panel in all, s more of engine, W or A or ohm of the load's draw now
    double before = 0;
    bool does_it = false;  // false: not even the most that was tried
    std::optional<Edit> edit{};
};

// As many days as it takes to see whether it lasts, coarsely: a week at most, in jumps towards where it
// settles.
[[nodiscard]] DayAfterDay days_until_clear(const Plan& plan, const Day& day,
                                           const std::atomic<bool>* stop = nullptr);
// Whether it does: settles, starts every time, and nothing critical is dark.
[[nodiscard]] bool lasts(const DayAfterDay& days);
[[nodiscard]] bool lasts(const Plan& plan, const Day& day, const std::atomic<bool>* stop = nullptr);

// Each solved to a sixteenth of its range. Empty where it lasts as it is. `first_that_does`: no further than
// the first that does it alone.
[[nodiscard]] std::vector<DayRemedy> what_would_make_it_last(const Plan& plan, const Id& day,
                                                             const std::atomic<bool>* stop = nullptr,
                                                             bool first_that_does = false);

}  // namespace yr
