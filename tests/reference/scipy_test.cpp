// Days against scipy's solve_ivp: parts of different loads at constant power, the battery's laws written anew
// in day_ivp.py; and the fit of a log against scipy's least squares. Skipped where scipy is not installed
// (./check --all installs it).
#include <gtest/gtest.h>

#include <cmath>
#include <nlohmann/json.hpp>
#include <random>

#include "day/run_day.h"
#include "meter/fit_log.h"
#include "notes/notes.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/sweep.h"

namespace yr::test {
namespace {

using Json = nlohmann::json;

constexpr const char* kPython = "/usr/bin/python3";  // Debian's own, which has Debian's scipy

bool has_scipy() {
    static const bool has = test::run(std::string(kPython) + " -c 'import scipy'").code == 0;
    return has;
}

Json by_scipy(const Json& ask) {
    const TempFolder folder;
    write_text(folder.file("ask.json"), ask.dump());
    const Ran ran = test::run(std::string(kPython) + " " + test::source_dir() +
                              "/tests/reference/day_ivp.py " + folder.file("ask.json"));
    return Json::parse(ran.out, nullptr, false);
}

struct Seeded {
    Plan plan;
    Day day;
    std::vector<double> watts;  // of each part
};

// Three loads of constant power, one on in each part, parts of 20 min to 3 h, and a pause without any.
Seeded seeded(unsigned seed) {
    std::mt19937 random(seed * 7919 + 3);
    const auto pick = [&](double low, double high) {
        return low + (high - low) * static_cast<double>(random() % 10000) / 10000;
    };
    Seeded s;
    std::string page = bare_vehicles().front().text;
    std::vector<double> watts;
    for (int k = 0; k < 3; ++k) {
        watts.push_back(std::round(pick(20, 140)));
        page += "lamp" + std::to_string(k) + " " + std::to_string(static_cast<int>(watts.back())) +
                " W on s" + std::to_string(k) + ", " + std::to_string(1 + k) + " m\n";
    }
    s.plan = read_notes(page).plan;
    Battery& b = s.plan.batteries.front();
    b.capacity_Ah = std::round(pick(70, 140)), b.self_discharge = 0.0, b.charge = pick(0.8, 0.98);
    b.chemistry = seed % 3 == 2 ? Chemistry::lifepo4 : seed % 3 == 1 ? Chemistry::agm : Chemistry::flooded;
    State parked;
    for (const State& state : s.plan.states)
        if (state.rpm <= 0 && state.key == Key::off) parked = state;
    parked.ambient_C = parked.engine_bay_C = 20;
    s.plan.states.clear();
    for (Load& l : s.plan.loads) l.least_V.reset();
    s.day.id = s.day.name = "d";
    for (int k = 0; k < 5; ++k) {
        const int lamp = static_cast<int>(random() % 3);
        State state = parked;
        state.id = "state-" + std::to_string(k), state.name = state.id;
        state.switches = {"s" + std::to_string(lamp)};
        s.plan.states.push_back(state);
        s.day.parts.push_back({state.id, std::round(pick(1200, 10800)), 1, false, {}, {}});
        s.watts.push_back(watts[static_cast<std::size_t>(lamp)]);
    }
    double needed_Ah = 0;  // no more than half of it is taken: how one runs dry is another matter
    for (std::size_t k = 0; k < s.watts.size(); ++k)
        needed_Ah += s.watts[k] / 12 * s.day.parts[k].length_s / 3600;
    Battery& taken = s.plan.batteries.front();
    taken.capacity_Ah = std::max(*taken.capacity_Ah, std::round(needed_Ah / 0.5));
    return s;
}

TEST(DayAgainstScipy, PartsOfDifferentLoads) {
    if (!has_scipy()) GTEST_SKIP() << "scipy is not installed";
    int crossed = 0;
    for (unsigned seed = 1; seed <= sweep(8U, 50U); ++seed) {
        SCOPED_TRACE(seed);
        const Seeded s = seeded(seed);
        const DayRun run = run_day(s.plan, s.day);
        ASSERT_TRUE(run.whole);
        const Network net = compile(averaged(s.plan), s.plan.states.front());
        const CellModel& m = run.models.front();
        const double full_ohm = net.batteries.front().full_warm_ohm;
        Json ask{{"c", m.wells.c},
                 {"most1_Ah", m.wells.c * m.wells.most_Ah},
                 {"most2_Ah", (1 - m.wells.c) * m.wells.most_Ah},
                 {"k", m.wells.k_per_h * m.wells.c * (1 - m.wells.c)},
                 {"q1_Ah", run.begin[0].available_Ah},
                 {"q2_Ah", run.begin[0].bound_Ah},
                 {"rc1_s", m.rc1_s},
                 {"rc2_s", m.rc2_s},
                 {"rc1_ohm", m.rc1_ohm.value_or(m.rc1_share * full_ohm)},
                 {"rc2_ohm", m.rc2_ohm.value_or(m.rc2_share * full_ohm)}};
        for (int k = 0; k <= 1000; ++k) {
            BatteryElement e = net.batteries.front();
            at_moment(e, k / 1000.0, 20);
            ask["head"].push_back(k / 1000.0), ask["open_V"].push_back(e.open_V),
                ask["ohm"].push_back(e.R0_ohm);
        }
        // ohms of the way to the load and back, of the moment in the middle of each part
        double begins_s = 0;
        std::vector<DayPoint> ends;
        for (std::size_t k = 0; k < s.day.parts.size(); ++k) {
            const double length_s = s.day.parts[k].length_s, middle_s = begins_s + length_s / 2;
            DayPoint middle, end;
            for (const DayPoint& p : run.points) {
                if (p.t_s <= middle_s) middle = p;
                if (end.charge.empty() && p.t_s >= begins_s + length_s - 1e-3) end = p;
            }
            double load_V = 0;
            for (std::size_t l = 0; l < s.plan.loads.size(); ++l)
                if (middle.load[l] == LoadStatus::on) load_V = middle.load_V[l];
            ASSERT_GT(load_V, 0);
            ask["parts"].push_back({{"length_s", length_s},
                                    {"watts", s.watts[k]},
                                    {"loop_ohm", (middle.battery_V[0] - load_V) / middle.battery_A[0]}});
            ends.push_back(end);
            begins_s += length_s;
        }
        // a threshold that is crossed in the last part: what its posts have a good way into it
        DayPoint late;
        const double last_s = begins_s - s.day.parts.back().length_s,
                     asked_s = last_s + 0.7 * s.day.parts.back().length_s;
        for (const DayPoint& p : run.points)
            if (p.t_s <= asked_s) late = p;
        ask["threshold_V"] = late.battery_V[0];
        const Json theirs = by_scipy(ask);
        ASSERT_FALSE(theirs.is_discarded());
        for (std::size_t k = 0; k < ends.size(); ++k)
            EXPECT_NEAR(ends[k].charge.at(0), theirs["ends"][k]["charge"].get<double>(), 1e-3)
                << "part " << k;
        EXPECT_NEAR(run.points.back().charge[0], theirs["ends"].back()["charge"].get<double>(), 1e-3);
        EXPECT_NEAR(run.points.back().battery_V[0], theirs["ends"].back()["volts"].get<double>(), 2e-3);
        if (theirs["crosses_s"].is_null() || late.t_s <= last_s + 600) continue;
        ++crossed;
        // within a second, or the posts within 0.1 mV at the other's time (as steep as they fall there)
        DayPoint before, behind;
        for (const DayPoint& p : run.points) {
            if (p.t_s <= late.t_s - 300) before = p;
            if (behind.battery_V.empty() && p.t_s >= late.t_s + 300) behind = p;
        }
        if (before.battery_V.empty() || behind.battery_V.empty()) continue;
        const double fall_V_per_s = (before.battery_V[0] - behind.battery_V[0]) / (behind.t_s - before.t_s);
        const double off_s = std::abs(last_s + theirs["crosses_s"].get<double>() - late.t_s);
        EXPECT_TRUE(off_s <= 1 || off_s * fall_V_per_s <= 1.5e-4)
            << off_s << " s, " << off_s * fall_V_per_s * 1000 << " mV";
    }
    EXPECT_GT(crossed, 4);
}

TEST(FitAgainstScipy, ResistanceAndItsDoubt) {
    if (!has_scipy()) GTEST_SKIP() << "scipy is not installed";
    const Plan plan = truck();
    for (unsigned seed = 1; seed <= 5; ++seed) {
        std::mt19937 random(seed);
        std::normal_distribution<double> noise(0, 0.004);
        std::vector<LogSample> log;
        double given = 0;
        Json ask;
        const double ohm = 0.005 + 0.002 * seed;
        for (int k = 0; k < 500; ++k) {  // discharge alone, no step larger than what counts as one
            const double amps = 12 + 9 * std::sin(k / 40.0);
            if (k > 0) given += 0.5 * (amps + log.back().amps_A) * 10 / 3600;
            const double volts = 12.7 - 0.004 * given - ohm * amps + noise(random);
            log.push_back({10.0 * k, volts, amps});
            ask["given_Ah"].push_back(given), ask["amps"].push_back(amps), ask["volts"].push_back(volts);
        }
        const auto fit = fit_log(plan, "battery-1", log);
        ASSERT_TRUE(fit);
        ASSERT_TRUE(fit->R0_ohm);
        const Json theirs = by_scipy(ask);
        ASSERT_FALSE(theirs.is_discarded());
        EXPECT_NEAR(fit->R0_ohm->value, theirs["ohm"].get<double>(), 1e-8);
        EXPECT_NEAR(fit->R0_ohm->doubt, theirs["doubt_ohm"].get<double>(), 1e-3 * fit->R0_ohm->doubt);
        EXPECT_NEAR(fit->R0_ohm->value, ohm, 4 * fit->R0_ohm->doubt);
    }
}

}  // namespace
}  // namespace yr::test
