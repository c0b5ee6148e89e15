// Days against ngspice's transient analysis: the battery as capacitors, its laws as sources, integrated by
// another hand. The laws themselves are ours (core/network, core/day/cell.h) and are sampled into its tables;
// what is checked is that they are followed in time: charge to 0.1 %, volts to 1 %, the moment of a cut-off.
#include <gtest/gtest.h>

#include <cmath>
#include <sstream>

#include "day/run_day.h"
#include "support/day_deck.h"
#include "support/run_program.h"
#include "support/sweep.h"

namespace yr::test {
namespace {

struct Transient {
    double charge = 0, volts = 0, crosses_s = -1;
};

std::optional<Transient> by_ngspice(const Small& s, const DayRun& run, double amps, double hours,
                                    double threshold_V) {
    const TempFolder folder;
    write_text(folder.file("deck.cir"), day_deck(s, run, amps, hours, threshold_V));
    const Ran ran = test::run("ngspice -b " + folder.file("deck.cir"));
    Transient t;
    bool found = false;
    std::istringstream lines(ran.out);
    for (std::string line; std::getline(lines, line);) {
        const auto value = [&](const char* name, double& into) {
            const auto equals = line.find('=');
            if (line.starts_with(name) && equals != std::string::npos)
                into = std::strtod(line.c_str() + equals + 1, nullptr), found = true;
        };
        value("last_charge", t.charge), value("last_volts", t.volts), value("crosses", t.crosses_s);
    }
    if (!found) return std::nullopt;
    return t;
}

TEST(DayAgainstSpice, ChargeVoltsAndTheCutOffsMoment) {
    int cut = 0;
    for (unsigned seed = 0; seed < sweep(12U, 50U); ++seed) {
        SCOPED_TRACE(seed);
        Small s = small(seed);
        const double hours = s.day.parts.front().length_s / 3600;
        const DayRun run = run_day(s.plan, s.day);
        ASSERT_TRUE(run.whole);
        const double amps = run.points[run.points.size() / 2].battery_A[0];
        // a cut-off a little above where it ends: passed on the way
        const double threshold_V = run.points.back().battery_V[0] + 0.02;
        for (yr::Run& r : s.plan.runs)
            if (const Load* l = find(s.plan.loads, owner_of(r.to));
                l && r.to.post == Post::pos && !l->starter) {
                Device d;
                d.id = "cut", d.name = "cut-off", d.kind = DeviceKind::cutoff;
                d.open_V = threshold_V, d.close_V = threshold_V + 2;
                r.devices.insert(r.devices.begin(), d);
            }
        const DayRun with = run_day(s.plan, s.day);
        double opens_s = -1, post_V = 0, hour_before_V = 0;
        for (const DayEvent& e : with.events)
            if (e.kind == DayEventKind::opens && opens_s < 0) opens_s = e.t_s;
        for (const DayPoint& p : with.points) {
            if (p.t_s <= opens_s - 3000) hour_before_V = p.battery_V[0];
            if (p.t_s <= opens_s && p.battery_A[0] > amps / 2)
                post_V = p.battery_V[0];  // just before it opens
        }
        // its posts stand then where ngspice has them at that time: within what they fall in a second, or 1
        // mV
        const auto theirs = by_ngspice(s, run, amps, hours, post_V);
        ASSERT_TRUE(theirs);
        EXPECT_NEAR(run.points.back().charge[0], theirs->charge, 1e-3);
        EXPECT_NEAR(run.points.back().battery_V[0], theirs->volts, 0.01 * theirs->volts);
        if (opens_s < 0 || hour_before_V <= post_V) continue;
        ++cut;
        EXPECT_NEAR(opens_s, theirs->crosses_s, 1 + 1e-3 * 3000 / (hour_before_V - post_V));
    }
    EXPECT_GT(cut, 6);
}

}  // namespace
}  // namespace yr::test
