// A day in sentences: what it comes to, and what would make it last.
#pragma once

#include <string>
#include <vector>

#include "day/remedies.h"
#include "day/stop_at.h"
#include "day/year.h"
#include "words/format.h"

namespace yr::words {

struct DaySentence {
    std::string text;
    int severity = 3;  // as Severity: 0 stop, 1 fix, 2 check, 3 note
    double t_s = -1;   // the moment that it is about; below 0: none
    Id about{};
};
// Worst first. `after`: the day over and over, where that is known already.
[[nodiscard]] std::vector<DaySentence> day_sentences(const Plan& plan, const Day& day, const DayRun& run,
                                                     const DayVerdicts& v, const DayAfterDay* after = nullptr,
                                                     const Style& style = {});

// A year in lines: months that fail, dark weeks, cycles and years.
[[nodiscard]] std::vector<DaySentence> year_sentences(const Plan& plan, const Year& year,
                                                      const Style& style = {});
[[nodiscard]] std::string month_name(std::size_t month);

[[nodiscard]] std::string sentence(const StopAt& stop, const Plan& plan, const Style& style = {});
[[nodiscard]] std::string sentence(const DayRemedy& remedy, const Plan& plan, const Style& style = {});

}  // namespace yr::words
