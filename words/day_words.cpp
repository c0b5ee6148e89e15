#include "words/day_words.h"

#include <algorithm>

#include "day/store.h"
#include "plan/names.h"
#include "words/say.h"
#include "words/sentences.h"

namespace yr::words {
namespace {

constexpr double kOften = 4;       // trips of one cut-off in a day that are told as odd
constexpr double kLead_low = 0.5;  // lead that stays below half sulphates, common practice

class DayTeller {
  public:
    DayTeller(const Plan& plan, const Day& day, const DayRun& run, const DayVerdicts& v, const Style& style)
        : plan_(plan), day_(day), run_(run), v_(v), style_(style) {}

    std::vector<DaySentence> all(const DayAfterDay* after) {
        if (!run_.whole)
            add(0, say("The day breaks off at {0}: the circuit has no answer there.", at(last_s())),
                last_s());
        starts();
        if (after) over_and_over(*after);
        dark();
        batteries();
        devices();
        stores();
        std::stable_sort(told_.begin(), told_.end(),
                         [](const DaySentence& a, const DaySentence& b) { return a.severity < b.severity; });
        return std::move(told_);
    }

  private:
    void add(int severity, std::string text, double t_s = -1, const Id& about = {}) {
        told_.push_back({std::move(text), severity, t_s, about});
    }
    double last_s() const { return run_.points.empty() ? 0 : run_.points.back().t_s; }
    std::string at(double t_s) const { return clock_text(day_, t_s); }
    std::string q(double v, Dimension d) const { return quantity(v, d, style_); }
    std::string name(const Id& id) const { return capital(yr::name_of(plan_, id)); }

    void starts() {
        if (!v_.worst_crank) return;
        const CrankPoint& worst = v_.cranks[*v_.worst_crank];
        const CrankCheck& c = worst.as_entered;
        if (!c.cranks()) {
            const auto first = std::find_if(v_.cranks.begin(), v_.cranks.end(),
                                            [](const CrankPoint& p) { return !p.as_entered.cranks(); });
            if (c.post_V >= c.least_V)
                return add(0,
                           say("The engine turns and does not fire from {0} on: {1} gets {2} while cranking, "
                               "it needs {3}.",
                               at(first->t_s), yr::name_of(plan_, c.unit), q(c.unit_V, Dimension::voltage),
                               q(c.unit_least_V, Dimension::voltage)),
                           first->t_s, c.unit);
            add(0,
                c.post_V <= 0 ? say("The engine does not start from {0} on: {1} cannot turn it.",
                                    at(first->t_s), yr::name_of(plan_, c.battery))
                              : say("The engine does not start from {0} on: at {1} {2} falls to {3} while "
                                    "cranking, {4} are needed.",
                                    at(first->t_s), at(worst.t_s), yr::name_of(plan_, c.battery),
                                    q(c.post_V, Dimension::voltage), q(c.least_V, Dimension::voltage)),
                first->t_s, c.battery);
            return;
        }
        if (!worst.worn.cranks())
            add(1,
                say("With a battery worn to 75 % the engine would not start at {0}: {1} instead of {2} while "
                    "cranking.",
                    at(worst.t_s), q(worst.worn.post_V, Dimension::voltage),
                    q(c.least_V, Dimension::voltage)),
                worst.t_s, c.battery);
        add(3,
            say("On this day the engine starts at every moment; least at {0}: {1} at the posts where {2} are "
                "needed.",
                at(worst.t_s), q(c.post_V, Dimension::voltage), q(c.least_V, Dimension::voltage)),
            worst.t_s, c.battery);
        if (!c.unit.empty() && c.unit_V < c.unit_least_V + 0.5)
            add(2,
                say("{0} has {1} while cranking at {2}; it needs {3}.", name(c.unit),
                    q(c.unit_V, Dimension::voltage), at(worst.t_s), q(c.unit_least_V, Dimension::voltage)),
                worst.t_s, c.unit);
    }

    void over_and_over(const DayAfterDay& a) {
        if (a.no_start_on && *a.no_start_on > 1)
            add(0, say_n("Day after day it lasts {0} day: on the next the engine does not start at {1}.",
                         "Day after day it lasts {0} days: on the next the engine does not start at {1}.",
                         *a.no_start_on - 1, at(a.no_start_s)));
        if (a.dark_on && *a.dark_on > 1)
            add(1, say("On day {0} {1} is dark from {2}.", *a.dark_on, yr::name_of(plan_, a.dark_load),
                       at(a.dark_s)));
        if (a.returns) {
            add(3, say_n("The day returns to where it begins after {0} day.",
                         "The day returns to where it begins after {0} days.", a.days));
            return;
        }
        for (std::size_t k = 0; k < a.first_loss.size(); ++k)
            if (a.first_loss[k] > 0.01)
                add(a.no_start_on ? 2 : 1,
                    say("{0} loses {1} of its charge a day.", name(plan_.batteries[k].id),
                        q(a.first_loss[k], Dimension::fraction)),
                    -1, plan_.batteries[k].id);
    }

    void dark() {
        for (const DarkLoad& d : v_.dark)
            add(d.critical ? 1 : 2,
                say("{0} is dark for {1}, from {2}.", name(d.load), duration_h(d.seconds / 3600),
                    at(d.from_s)),
                d.from_s, d.load);
    }

    void batteries() {
        for (std::size_t k = 0; k < v_.batteries.size(); ++k) {
            const BatteryDay& b = v_.batteries[k];
            const bool lead = plan_.batteries[k].chemistry != Chemistry::lifepo4;
            const bool low = lead && b.least_charge < kLead_low;
            add(low ? 2 : 3,
                low ? say("{0} sinks to {1} at {2}: lead that is kept below half sulphates.", name(b.battery),
                          q(b.least_charge, Dimension::fraction), at(b.least_charge_s))
                    : say("{0}: lowest {1} at {2}, {3} in the end; gives {4}, takes {5}.", name(b.battery),
                          q(b.least_charge, Dimension::fraction), at(b.least_charge_s),
                          q(b.end, Dimension::fraction), q(b.given_Ah, Dimension::charge),
                          q(b.taken_Ah, Dimension::charge)),
                b.least_charge_s, b.battery);
            if (b.colder_s > 0)
                add(1,
                    say("{0} is below freezing for {1} with charging volts on it: it takes nothing then.",
                        name(b.battery), duration_h(b.colder_s / 3600)),
                    -1, b.battery);
        }
        for (const DayEvent& e : run_.events)
            if (e.kind == DayEventKind::empty)
                add(1, say("{0} is empty at {1}.", name(e.id), at(e.t_s)), e.t_s, e.id);
    }

    void devices() {
        for (const auto& [id, times] : v_.trips)
            add(times > kOften ? 1 : 2,
                say_n("{1} cuts off {0} time.", "{1} cuts off {0} times.", times, name(id)), -1, id);
        for (const Id& id : v_.hunting)
            add(1, say("{0} hunts: it opens and closes more than 60 times an hour.", name(id)), -1, id);
    }

    // What a portable store has in the end, and how long that runs 100 W, as a range.
    void stores() {
        for (const StoreDay& s : run_.stores) {
            if (s.takes_s <= 0) continue;
            const Load* load = find(plan_.loads, s.load);
            const StoreHours h = store_hours(*load, s.end_Wh, kStoreLoad_W);
            std::string text =
                s.full_s >= 0 ? say("{0} is full at {1}.", name(s.load), at(s.full_s))
                              : say("{0} is charged for {1}: {2} of {3} Wh in the end.", name(s.load),
                                    duration_h(s.takes_s / 3600), number(s.end_Wh, 3, style_.decimal_comma),
                                    number(s.holds_Wh, 4, style_.decimal_comma));
            text += " " + say("That runs {0} for {1} to {2} at its outlets.",
                              q(kStoreLoad_W, Dimension::power), duration_h(h.least_h), duration_h(h.most_h));
            if (h.mains_most_h > 0)
                text += " " + say("At mains for {0} to {1}.", duration_h(h.mains_least_h),
                                  duration_h(h.mains_most_h));
            add(3, text, s.full_s, s.load);
        }
    }

    static constexpr double kStoreLoad_W = 100;
    const Plan& plan_;
    const Day& day_;
    const DayRun& run_;
    const DayVerdicts& v_;
    const Style& style_;
    std::vector<DaySentence> told_;
};

}  // namespace

std::vector<DaySentence> day_sentences(const Plan& plan, const Day& day, const DayRun& run,
                                       const DayVerdicts& v, const DayAfterDay* after, const Style& style) {
    return DayTeller(plan, day, run, v, style).all(after);
}

std::string month_name(std::size_t month) {
    static const char* const names[] = {later("January"), later("February"), later("March"),
                                        later("April"),   later("May"),      later("June"),
                                        later("July"),    later("August"),   later("September"),
                                        later("October"), later("November"), later("December")};
    return translated(names[month % 12]);
}

std::vector<DaySentence> year_sentences(const Plan& plan, const Year& year, const Style& style) {
    std::vector<DaySentence> told;
    if (year.months.empty()) {
        told.push_back(
            {say("The day says nothing of a year: give it a latitude, or twelve months."), 2, -1, {}});
        return told;
    }
    std::string bad, dark;
    for (std::size_t m = 0; m < year.months.size(); ++m) {
        const auto put = [&](std::string& list) { list += (list.empty() ? "" : ", ") + month_name(m); };
        if (!year.months[m].lasts)
            put(bad);
        else if (!year.months[m].dark_week_lasts)
            put(dark);
    }
    if (!bad.empty()) told.push_back({say("It does not last in {0}.", bad), 0, -1, {}});
    if (!dark.empty()) told.push_back({say("A dark and cold week makes it fail in {0}.", dark), 1, -1, {}});
    if (bad.empty() && dark.empty())
        told.push_back({say("It lasts in every month, dark weeks included."), 3, -1, {}});
    for (std::size_t k = 0; k < year.lives.size(); ++k) {
        const Year::Life& l = year.lives[k];
        if (l.cycles < 1) continue;
        told.push_back({say("{0}: {1} full cycles a year, {2} deep at most: {3} to {4} years.",
                            capital(plan.batteries[k].name), number(l.cycles, 3, style.decimal_comma),
                            quantity(l.depth, Dimension::fraction, style),
                            number(std::min(l.least_years, 30.0), 2, style.decimal_comma),
                            number(std::min(l.most_years, 30.0), 2, style.decimal_comma)),
                        3, -1, plan.batteries[k].id});
    }
    return told;
}

std::string sentence(const StopAt& s, const Plan& plan, const Style& style) {
    const auto q = [&](double v, Dimension d) { return quantity(v, d, style); };
    return say(
        "Stop at {0} of {1} (under {2}, at {3}): the engine still starts then. At {4} half is left; “stop at "
        "{5}” leaves {6}.",
        q(s.volts, Dimension::voltage), yr::name_of(plan, s.battery), q(s.amps, Dimension::current),
        q(s.temperature_C, Dimension::temperature), q(s.half_V, Dimension::voltage),
        q(s.habit_V, Dimension::voltage), q(s.habit_charge, Dimension::fraction));
}

std::string sentence(const DayRemedy& r, const Plan& plan, const Style& style) {
    const std::string name = yr::name_of(plan, r.about);
    const auto q = [&](double v, Dimension d) { return quantity(v, d, style); };
    switch (r.kind) {
        case DayRemedyKind::capacity:
            return r.does_it ? say("{0} of {1} instead of {2}", name, q(r.value, Dimension::charge),
                                   q(r.before, Dimension::charge))
                             : say("no battery up to {0} does it", q(r.value, Dimension::charge));
        case DayRemedyKind::panel:
            return r.does_it ? say("{0} of panel in all", q(r.value, Dimension::power))
                             : say("no panel up to {0} does it", q(r.value, Dimension::power));
        case DayRemedyKind::engine_time:
            return r.does_it ? say("{0} more of {1} a day", duration_h(r.value / 3600), name)
                             : say("not even {0} more of {1} does it", duration_h(r.value / 3600), name);
        case DayRemedyKind::less_draw:
            return r.does_it ? say("{0} on for {1} of the time instead of {2}", name,
                                   q(r.value, Dimension::fraction), q(r.before, Dimension::fraction))
                             : say("even without {0} it does not last", name);
    }
    return {};
}

}  // namespace yr::words
