// What is said of days: each with its day and hour.
#include <cmath>

#include "day/timeline.h"
#include "words/finding_rows.h"
#include "words/format.h"

namespace yr::words {
namespace {

Rule day_rule(const char* name) {
    return {name, translated("the day run through in time, docs/method.md")};
}

std::string day_of(const Speech& s) {
    const Day* day = find(s.plan.days, s.f.day);
    return day ? day->name : std::string();
}

// "06:30", whichever day in a row it is.
std::string clock_of(const Speech& s) {
    const Day* day = find(s.plan.days, s.f.day);
    if (!day || s.f.at_s < 0) return {};
    const double length = length_s(*day);
    return clock_text(*day, length > 0 ? std::fmod(s.f.at_s, length) : s.f.at_s);
}

std::string hours(double seconds) {
    return duration_h(seconds / 3600);
}

const FindingRow kDayRows[] = {
    {.kind = FindingKind::day_no_start,
     .name = "day_no_start",
     .group = FindingGroup::day,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.value <= 1)
             return say("{0}: the engine does not start at {1} from {2}.", capital(day_of(s)), clock_of(s),
                        s.it());
         return say_n("{1}: after {0} such day the engine does not start at {2} from {3}.",
                      "{1}: after {0} such days the engine does not start at {2} from {3}.",
                      static_cast<int>(s.f.value) - 1, capital(day_of(s)), clock_of(s), s.it());
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("starts in the morning")); },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated("The cranking state is solved with the charge and the cold of that hour; the torque "
                        "that the engine wants grows in the cold (common practice).")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::day_dark,
     .name = "day_dark",
     .group = FindingGroup::day,
     .value = Dimension::time,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.limit <= 1)
             return say("{0} is dark for {1} from {2} ({3}).", s.who(), hours(s.f.value), clock_of(s),
                        day_of(s));
         return say("{0} is dark for {1} from {2} on day {3} of {4}.", s.who(), hours(s.f.value), clock_of(s),
                    static_cast<int>(s.f.limit), day_of(s));
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("fed all day")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::day_sinks,
     .name = "day_sinks",
     .group = FindingGroup::day,
     .value = Dimension::fraction,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} loses {1} of its charge on each day like {2}: empty after {3} days.", s.who(),
                    s.pc(s.f.value), day_of(s), number(std::floor(s.f.limit), 3));
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("returns to where it began")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::day_trips,
     .name = "day_trips",
     .group = FindingGroup::day,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say_n("{1} cuts off on {2}, at {3}.", "{1} cuts off {0} times on {2}, first at {3}.",
                      static_cast<int>(s.f.value), s.who(), day_of(s), clock_of(s));
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("cut-offs")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::day_bulk,
     .name = "day_bulk",
     .group = FindingGroup::day,
     .value = Dimension::time,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} works for {1} on {2} and never gets beyond bulk: {3} reaches {4} at most.", s.who(),
                    hours(s.f.value), day_of(s), s.other(), s.pc(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("charger's stages")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::day_half,
     .name = "day_half",
     .group = FindingGroup::day,
     .value = Dimension::fraction,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} gets to {1} at most on days like {2}: lead that is never filled sulphates.", s.who(),
                    s.pc(s.f.value), day_of(s));
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("lead wants to be full")); },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("Full at least every week, above 80 % otherwise: common practice, no source.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::day_float,
     .name = "day_float",
     .group = FindingGroup::day,
     .value = Dimension::time,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} holds {1} full for {2} of {3}: lithium ages faster so.", s.who(), s.other(),
                    hours(s.f.value), day_of(s));
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("lithium held full")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::store_low,
     .name = "store_low",
     .group = FindingGroup::day,
     .value = Dimension::fraction,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is charged to {1} on {2}, from empty: never full.", s.who(), s.pc(s.f.value),
                    day_of(s));
     },
     .rule = [](const Speech&) -> Rule { return day_rule(translated("portable store")); },
     .reasons = nullptr,
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> day_rows() {
    return kDayRows;
}

}  // namespace yr::words
