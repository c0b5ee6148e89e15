// Meter: expected readings and their bands, test points, fault finding on whole vehicles with a hidden fault,
// parasitic draw, records, battery health, fitting a log, the coded plug.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <fstream>
#include <map>
#include <random>
#include <set>

#include "catalog/batteries.h"
#include "meter/as_built.h"
#include "meter/coded_plug.h"
#include "meter/fit_log.h"
#include "meter/health.h"
#include "meter/parasitic.h"
#include "meter/practice.h"
#include "meter/records.h"
#include "meter/test_points.h"
#include "notes/notes.h"
#include "plan/edit.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

// The vehicle as it was really built: everything that a plan does not know to the last percent is a little
// different, and by other laws than those the locator assumes (even instead of normal).
Plan as_really_is(const Plan& plan, std::mt19937& random) {
    Plan p = plan;
    const auto about = [&](double spread) {
        return 1 + std::uniform_real_distribution<double>(-spread, spread)(random);
    };
    for (yr::Run& r : p.runs)
        if (r.length_m) *r.length_m *= about(0.08);
    for (Load& l : p.loads) l.draw.value *= about(0.12);
    for (Battery& b : p.batteries) {
        if (b.charge) *b.charge = std::clamp(*b.charge * about(0.06), 0.2, 1.0);
        if (b.R0_ohm) *b.R0_ohm *= about(0.3);
    }
    for (Source& s : p.sources)
        if (s.regulated_V) *s.regulated_V *= about(0.008);
    for (Point& g : p.points)
        if (g.bond_ohm) *g.bond_ohm *= about(0.6);
    for (State& s : p.states) s.ambient_C += 10 * (about(1) - 1), s.engine_bay_C += 10 * (about(1) - 1);
    return p;
}

struct Tally {
    int cases = 0, first = 0, three = 0, readings = 0;
    double brier = 0;
    std::vector<std::pair<double, bool>> said;
};

// One vehicle with one hidden fault: readings by the strategy, from the complaint on.
void find_one(const Plan& plan, std::uint32_t seed, PracticeLevel level, Tally& tally) {
    std::mt19937 random(seed);
    const Plan real = as_really_is(plan, random);
    HiddenFault hidden(real, seed, level);
    if (!hidden.there()) return;
    Locator locator(plan);
    NextAsk ask;
    ask.complaints = hidden.complaints();
    Location now = locator.locate({{}, ask.complaints, true, false, nullptr});
    for (int k = 0; k < 10; ++k) {
        const auto next = next_reading(locator, plan, now, ask);
        if (!next) break;
        const auto value = hidden.read(next->where);
        ASSERT_TRUE(value);
        ask.readings.push_back({next->where, *value});
        ask.last = next->where;
        now = locator.locate({ask.readings, ask.complaints, true, false, nullptr});
    }
    const auto things = now.things();
    ASSERT_FALSE(things.empty());
    std::size_t rank = 0;  // among the things to be mended
    while (rank < things.size() && !hidden.is_it(things[rank].first)) ++rank;
    ++tally.cases;
    tally.first += rank == 0, tally.three += rank < 3;
    tally.readings += static_cast<int>(ask.readings.size());
    tally.brier += std::pow(things.front().second - (hidden.is_it(things.front().first) ? 1 : 0), 2);
    tally.said.emplace_back(things.front().second, hidden.is_it(things.front().first));
    if (!hidden.is_it(things.front().first) && std::getenv("YR_TELL")) {
        std::printf("seed %u %s: hidden %s %s (%g), said", seed, plan.vehicle.name.c_str(),
                    std::string(name_of(hidden.fault().kind)).c_str(),
                    name_of(plan, hidden.fault().thing).c_str(), hidden.strength());
        for (std::size_t k = 0; k < std::min<std::size_t>(4, things.size()); ++k)
            std::printf(" %s %.2f,", name_of(plan, things[k].first).c_str(), things[k].second);
        std::printf(" %zu readings\n", ask.readings.size());
    }
}

// The figures of the design: first in 95 of 100, among the first three in 99, and as sure as is said. 100 in
// ./check, 1000 in --all.
TEST(Locate, FindsWhatIsHiddenOnVehiclesThatDifferFromTheirPlan) {
    Tally t;
    const auto vehicles = sweep(25U, 250U);
    for (unsigned seed = 1; seed <= vehicles; ++seed)
        for (const PracticeLevel level : {PracticeLevel::open_circuit, PracticeLevel::bad_ground,
                                          PracticeLevel::wrong_size, PracticeLevel::with_heat})
            find_one(vehicle(seed).plan, 1000 + seed * 7 + static_cast<unsigned>(level), level, t);
    std::printf("%d cases, first %.3f, three %.3f, %.2f readings, Brier %.3f\n", t.cases,
                static_cast<double>(t.first) / t.cases, static_cast<double>(t.three) / t.cases,
                static_cast<double>(t.readings) / t.cases, t.brier / t.cases);
    EXPECT_GE(t.cases, 80);
    EXPECT_GE(t.first, 0.95 * t.cases);
    EXPECT_GE(t.three, 0.98 * t.cases);
    EXPECT_LE(t.brier, 0.03 * t.cases);
    EXPECT_LE(t.readings, 4 * t.cases);
    int sure = 0, right = 0;
    for (const auto& [said, is] : t.said)
        if (said >= 0.9) ++sure, right += is;
    EXPECT_GE(right, 0.95 * sure) << "what is said to be nine in ten sure is";
}

// Story: "the hoist is slow and the scene lights dim with it".
TEST(Locate, TheHoistIsSlowBecauseOfTheBedGround) {
    const Plan plan = laid_demo(0);
    Plan real = plan;
    for (Point& p : real.points)
        if (p.id == "gnd-bed") p.bond_ohm = 0.012;
    OperatingPointSolver solver;
    Locator locator(plan);
    NextAsk ask;
    ask.complaints = {{"load-23", "state-hoist", Seen::weak}, {"load-18", "state-hoist", Seen::weak}};
    Location now = locator.locate({{}, ask.complaints, true, false, nullptr});
    std::size_t taken = 0;
    while (const auto next = next_reading(locator, plan, now, ask)) {
        const auto v = value_at(solve_for(real, next->where, solver), real, next->where);
        ASSERT_TRUE(v);
        ask.readings.push_back({next->where, *v});
        ask.last = next->where;
        now = locator.locate({ask.readings, ask.complaints, true, true, nullptr});
        ASSERT_LE(++taken, 5U) << "five readings or fewer";
    }
    EXPECT_EQ(now.things().front().first, "gnd-bed");
    EXPECT_GT(now.things().front().second, 0.9);
    const Suspect& s = now.suspects.front();
    EXPECT_EQ(s.fault.kind, FaultKind::ground);
    EXPECT_LT(s.strength_low, 0.012);
    EXPECT_GT(s.strength_high, 0.009) << "0.011 ohm more than the assumed 1 mohm";
}

TEST(Locate, SaysSoWhenNoSingleFaultExplainsIt) {
    const Plan plan = laid_demo(0);
    Plan real = plan;
    for (Point& p : real.points)
        if (p.id == "gnd-bed") p.bond_ohm = 0.05;
    for (yr::Run& r : real.runs)
        if (r.name == "two-way radio feed") r.resistance_ohm = 0.5;
    OperatingPointSolver solver;
    Locator locator(plan);
    LocateAsk ask;
    for (const Probing& where : {Probing{ReadKind::volts, "gnd-bed", {}, {}, "state-idle", {}},
                                 Probing{ReadKind::volts, Terminal("load-7.pos"), {}, {}, "state-idle", {}},
                                 Probing{ReadKind::volts, Terminal("load-17.neg"), {}, {}, "state-idle", {}},
                                 Probing{ReadKind::volts, "rear-box", {}, {}, "state-idle", {}},
                                 Probing{ReadKind::volts, "bed", {}, {}, "state-idle", {}},
                                 Probing{ReadKind::volts, "cab-box", {}, {}, "state-idle", {}}})
        ask.readings.push_back({where, *value_at(solve_for(real, where, solver), real, where)});
    const Location now = locator.locate(ask);
    EXPECT_FALSE(now.explained);
    EXPECT_TRUE(now.pairs);
    const bool found = std::any_of(now.suspects.begin(), now.suspects.end(), [](const Suspect& s) {
        return s.second && std::set<Id>{s.fault.thing, s.second->thing} == std::set<Id>{"gnd-bed", "run-32"};
    });
    std::string told;
    for (std::size_t k = 0; k < 8; ++k) {
        const Suspect& x = now.suspects[k];
        told += std::string(name_of(x.fault.kind)) + " " + name_of(plan, x.fault.thing);
        if (x.second)
            told += " and " + std::string(name_of(x.second->kind)) + " " + name_of(plan, x.second->thing);
        told += " " + std::to_string(x.probability) + "\n";
    }
    EXPECT_TRUE(found) << "both are among the pairs that are told\n" << told;
}

// ---- slopes and bands

TEST(Slopes, AreThoseOfFiniteDifferences) {
    const Plan plan = laid_demo(0);
    OperatingPointSolver solver;
    const Probing where{
        ReadKind::volts, Terminal("load-17.pos"), Terminal("load-17.neg"), {}, "state-idle", {}};
    const Solution s = solve_for(plan, where, solver);
    const Tolerances t;
    const Slopes slopes = SlopeSolver(s, t).of(where, plan);
    const double base = *value_at(s, plan, where);
    // a load's draw
    for (const std::size_t l : {std::size_t{16}, std::size_t{17}}) {
        Network n = s.network;
        n.loads[l].value *= 1 + 0.01 * t.load;
        const double now = *value_at(settle(std::move(n), solver), plan, where);
        const std::size_t conductors = static_cast<std::size_t>(
            std::count_if(s.network.conductors.begin(), s.network.conductors.end(),
                          [](const ConductorElement& c) { return c.run >= 0 || c.ground_point >= 0; }));
        EXPECT_NEAR(slopes[1 + conductors + l], (now - base) / 0.01,
                    0.03 * std::abs(slopes[1 + conductors + l]) + 1e-6);
    }
    // ohms of a cable
    for (std::size_t k = 0; k < s.network.conductors.size(); ++k) {
        if (std::abs(s.point.conductors[k].current_A) < 3 || std::abs(slopes[1 + k]) < 1e-3) continue;
        Network n = s.network;
        double spread = 0;
        for (const SeriesPart& p : n.conductors[k].parts)
            if (p.fixed_ohm > 0) spread = 1;
        if (spread <= 0) continue;
        n.conductors[k].fixed_ohm += 1e-5;
        const double now = *value_at(settle(std::move(n), solver), plan, where);
        const double by_ohm = (now - base) / 1e-5;
        EXPECT_EQ(by_ohm < 0, slopes[1 + k] < 0) << k;
    }
}

TEST(Expect, AReadingTakenBeforeNarrowsTheNextOne) {
    const Plan plan = laid_demo(0);
    Expecter e(plan);
    const Probing post{ReadKind::volts, Terminal("battery-1.pos"), {}, {}, "state-idle", {}},
        box{ReadKind::volts, "rear-box", {}, {}, "state-idle", {}};
    const Expectation alone = e.of(box);
    const double low = e.of(post).value - 0.15;
    const Expectation after = e.knowing(box, {{post, low}});
    EXPECT_LT(after.spread, 0.8 * alone.spread);
    EXPECT_LT(after.value, alone.value - 0.08) << "the battery stands lower than planned, so does the box";
    const Instrument meter;
    EXPECT_NEAR(meter.most_off(ReadKind::volts, 12.6), 0.093, 1e-3) << "0.5 % and 3 digits of 10 mV";
    EXPECT_NEAR(meter.most_off(ReadKind::volts, 0.01), 0.00035, 1e-4) << "millivolts across a piece";
}

TEST(TestPoints, AreInTheOrderOfProvingAndSeeWhatTheySay) {
    for (std::size_t k = 0; k < 3; ++k) {
        const Plan plan = laid_demo(k);
        const ProvePlan prove = test_points(plan);
        ASSERT_FALSE(prove.points.empty());
        EXPECT_TRUE(prove.fewest);
        for (std::size_t n = 1; n < prove.points.size(); ++n)
            EXPECT_LE(prove.points[n - 1].phase, prove.points[n].phase);
        std::set<Id> seen;
        for (const TestPoint& t : prove.points) {
            EXPECT_LE(t.low, t.high);
            if (t.expected.solved && t.phase != ProvePhase::isolation) {
                EXPECT_EQ(verdict(t, t.expected.value), Verdict::good) << name_of(plan, t.thing);
            }
            seen.insert(t.sees.begin(), t.sees.end());
        }
        for (const yr::Run& r : plan.runs)
            EXPECT_TRUE(seen.contains(r.id) ||
                        std::find(prove.unseen.begin(), prove.unseen.end(), r.id) != prove.unseen.end())
                << r.name << " is seen, or said not to be";
    }
}

TEST(TestPoints, ABadJointThatASightedReadingSeesMovesItOut) {
    const Plan plan = laid_demo(0);
    const ProvePlan prove = test_points(plan);
    OperatingPointSolver solver;
    int tried = 0, told = 0;
    for (const TestPoint& t : prove.points) {
        if (t.phase != ProvePhase::under_load || t.sees.empty()) continue;
        const auto current = [&](const Id& run) {
            Probing w{ReadKind::amps, {}, {}, run, t.where.state, {}};
            return std::abs(value_at(solve_for(plan, w, solver), plan, w).value_or(0));
        };
        for (const Id& run : t.sees) {
            const double amps = current(run);
            if (amps < 1) continue;
            Network n = network_for(plan, t.where);
            Fault f;
            f.kind = find(plan.runs, std::string_view(run)) ? FaultKind::joint : FaultKind::ground,
            f.thing = run;
            put_in(n, plan, f, 0.4 / amps);  // loses about 0.4 V
            const auto v = value_at(settle_as_read(std::move(n), solver), plan, t.where);
            if (!v) continue;
            ++tried, told += verdict(t, *v) == Verdict::high;
        }
    }
    EXPECT_GT(tried, 30);
    EXPECT_GE(told, 0.9 * tried);
}

// ---- what empties it

TEST(Parasitic, MillivoltsAcrossAFuseAreItsAmps) {
    // 0.1 mV is 13 mA on a blade fuse of 10 A and 50 mA on one of 30 A (cold resistances, from memory)
    EXPECT_NEAR(1e-4 / *cold_ohm(FuseType::blade, 10), 0.013, 0.001);
    EXPECT_NEAR(1e-4 / *cold_ohm(FuseType::blade, 30), 0.050, 0.002);
    EXPECT_FALSE(cold_ohm(FuseType::stud, 200));
    const Plan plan = laid_demo(0);
    const auto all = currents_by_fuse(plan, "state-off", {{"fuse-26", 0.5}});
    for (const FuseCurrent& f : all)
        if (f.fuse == "fuse-26") {
            EXPECT_NEAR(f.amps, 0.5e-3 / 4.8e-3, 1e-6);
            EXPECT_GT(f.planned_A, 3) << "the fridge runs in that state";
        }
    const PullOrder order = pull_order(plan, "state-off");
    EXPECT_GE(order.fuses.size(), 3U);
    EXPECT_LT(order.expected, 8) << "fewer pulls than one circuit after another";
}

// ---- records

TEST(Records, AreChainedAndSurviveALidThatShuts) {
    const TempFolder folder;
    const std::string path = folder.file("a.records.jsonl");
    Record r;
    r.kind = RecordKind::reading, r.when = "2026-03-01T10:00", r.vehicle = "one", r.by = "me";
    r.where = {ReadKind::volts, Terminal("battery-1.pos"), {}, {}, "state-idle", {}};
    r.value = 14.1, r.low = 13.9, r.high = 14.5;
    for (const double volts : {13.75, 13.5, 13.25}) {
        r.value = volts;
        ASSERT_TRUE(append_record(path, r));
    }
    auto book = read_records(path);
    ASSERT_TRUE(book);
    ASSERT_EQ(book->records.size(), 3U);
    EXPECT_EQ(book->records[1].previous, book->records[0].hash);
    EXPECT_EQ(book->records[2].where, r.where);
    const auto drifted = drifts(book->of({}));
    ASSERT_EQ(drifted.size(), 1U);
    EXPECT_NEAR(drifted[0].change, -0.5, 1e-9);
    EXPECT_TRUE(drifted[0].out_now);
    // a line that was cut off is left out, told, and what comes after it is chained
    std::string text = read_text(path);
    write_text(path, text + "{\"number\": 4, \"prev");
    book = read_records(path);
    ASSERT_TRUE(book);
    EXPECT_TRUE(book->cut_off);
    Record fix;
    fix.kind = RecordKind::correction, fix.corrects = 3, fix.value = 13.9, fix.when = "2026-03-01T11:00",
    fix.vehicle = "one";
    ASSERT_TRUE(append_record(path, fix));
    book = read_records(path);
    ASSERT_TRUE(book);
    EXPECT_FALSE(book->cut_off);
    EXPECT_EQ(book->records.size(), 4U);
    EXPECT_NEAR(*book->of("one").back().value, 13.9, 1e-9);
    EXPECT_TRUE(book->of("another").empty());
    // what was changed in between is found out
    text = read_text(path);
    text.replace(text.find("13.75"), 5, "14.25");
    write_text(path, text);
    const auto forged = read_records(path);
    ASSERT_FALSE(forged);
    EXPECT_EQ(forged.error().place, "line 1, hash");
    EXPECT_FALSE(append_record(path, r)) << "and nothing is added to it";
}

TEST(Records, TheHashIsThatOfTheStandard) {
    // FIPS 180-4, examples of the standard
    EXPECT_EQ(sha256_hex("abc"), "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
    EXPECT_EQ(sha256_hex(""), "e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855");
}

// ---- batteries over years

TEST(Health, TheColdIsToldFromOneRecord) {
    const Plan plan = laid_demo(0);
    const auto same = crank_in_the_cold(plan, "battery-1", 11.0, 5, 5);
    ASSERT_TRUE(same);
    EXPECT_NEAR(same->post_V, 11.0, 0.01) << "at the same warmth it is what was read";
    const auto cold = crank_in_the_cold(plan, "battery-1", 11.0, 5, -15);
    ASSERT_TRUE(cold);
    EXPECT_LT(cold->post_V, 10.9);
    const auto weak = crank_in_the_cold(plan, "battery-1", 9.4, 5, -15);
    ASSERT_TRUE(weak);
    EXPECT_LT(weak->post_V, cold->post_V);
    EXPECT_FALSE(weak->cranks());
    EXPECT_NEAR(*ohm_of_two(12.6, 5, 12.1, 105), 0.005, 1e-9);
    EXPECT_FALSE(ohm_of_two(12.6, 5, 12.59, 7));
}

TEST(Health, ATrendOnlyFromThreeHalfAYearApart) {
    EXPECT_FALSE(trend({{0, 10.6}, {200, 10.4}}, 9.6));
    EXPECT_FALSE(trend({{0, 10.6}, {50, 10.5}, {100, 10.4}}, 9.6));
    const auto t = trend({{0, 10.6}, {365, 10.4}, {730, 10.2}}, 9.6);
    ASSERT_TRUE(t);
    EXPECT_NEAR(t->a_year, -0.2, 1e-3);
    EXPECT_NEAR(*t->reaches_day, 730 + 3 * 365, 2);
    EXPECT_EQ(*day_of("1970-01-02"), 1);
    EXPECT_EQ(*day_of("2026-03-01T10:00") - *day_of("2026-02-28"), 1);
    EXPECT_FALSE(day_of("soon"));
}

TEST(FitLog, FindsWhatTheLogWasMadeOf) {
    const Plan plan = laid_demo(0);
    std::mt19937 random(4);
    std::normal_distribution<double> noise(0, 0.004);
    BatteryElement e;
    e.chemistry = plan.batteries[0].chemistry, e.blocks = 1, e.capacity_Ah = 72, e.full_warm_ohm = 0.01;
    std::vector<LogSample> log;
    double charge = 0.9;
    for (int k = 0; k < 600; ++k) {  // an hour of every six seconds: rest, draws, charging
        const double amps = k < 60 ? 0.9 : k < 200 ? 18 : k < 320 ? 42 : k < 420 ? 6 : -20;
        charge -= amps * 6 / 3600 / 72;
        at_moment(e, charge, 25);
        const double volts = amps > 0 ? e.open_V - amps * 0.0085 : 14.31;
        log.push_back({6.0 * k, volts + noise(random), amps});
    }
    const auto fit = fit_log(plan, "battery-1", log);
    ASSERT_TRUE(fit);
    ASSERT_TRUE(fit->R0_ohm);
    EXPECT_NEAR(fit->R0_ohm->value, 0.0085, 3 * fit->R0_ohm->doubt + 3e-4);
    ASSERT_TRUE(fit->capacity_Ah);
    EXPECT_NEAR(fit->capacity_Ah->value, 72, 9);
    ASSERT_TRUE(fit->charging_V);
    EXPECT_NEAR(fit->charging_V->value, 14.31, 0.01);
    ASSERT_TRUE(fit->standby_A);
    EXPECT_NEAR(fit->standby_A->value, 0.9, 0.05);
    Plan taken = plan;
    ASSERT_TRUE(yr::apply(taken, take_fit(plan, "battery-1", *fit)));
    EXPECT_EQ(taken.batteries[0].R0_ohm, fit->R0_ohm->value);
    EXPECT_FALSE(fit_log(plan, "battery-1", {}));
    EXPECT_FALSE(fit_log(plan, "nobody", log));
}

TEST(FitLog, AmpsThatHardlyChangeTellTheCapacityAndNoResistance) {
    Plan plan = laid_demo(0);
    plan.batteries[0].R0_ohm =
        0.05;  // a worn one: its drop is a third of the charge that the volts seem to show
    std::mt19937 random(5);
    std::normal_distribution<double> noise(0, 0.002), ripple(0, 0.05);
    BatteryElement e;
    e.chemistry = plan.batteries[0].chemistry, e.blocks = 1, e.capacity_Ah = 72, e.full_warm_ohm = 0.01;
    std::vector<LogSample> log;
    double charge = 0.85;
    for (int k = 0; k < 600; ++k) {
        const double amps = 10 + ripple(random);
        charge -= amps * 20 / 3600 / 72;
        at_moment(e, charge, 25);
        log.push_back({20.0 * k, e.open_V - amps * 0.05 + noise(random), amps});
    }
    const auto fit = fit_log(plan, "battery-1", log);
    ASSERT_TRUE(fit);
    EXPECT_FALSE(fit->R0_ohm);
    ASSERT_TRUE(fit->capacity_Ah);
    EXPECT_NEAR(fit->capacity_Ah->value, 72, 7);
}

// ---- the coded plug

TEST(CodedPlug, EverySingleMistakeReadsSomethingElse) {
    const Instrument meter;
    for (const std::size_t pins : {2U, 6U, 13U}) {
        const CodedPlug plug = coded_plug(pins, meter);
        ASSERT_EQ(plug.ohm.size(), pins);
        EXPECT_TRUE(plug.proved);
        EXPECT_TRUE(read_plug(plug, plug.ohm, meter).empty());
        for (std::size_t a = 0; a < pins; ++a) {
            std::vector<double> open = plug.ohm;
            open[a] = 1e9;
            ASSERT_EQ(read_plug(plug, open, meter).size(), 1U);
            EXPECT_EQ(read_plug(plug, open, meter)[0].kind, PlugVerdict::Kind::open);
            for (std::size_t b = a + 1; b < pins; ++b) {
                std::vector<double> swapped = plug.ohm, joined = plug.ohm;
                std::swap(swapped[a], swapped[b]);
                joined[a] = joined[b] = joined_ohm(plug, a, b, a);
                for (const auto& v : read_plug(plug, swapped, meter))
                    EXPECT_EQ(v.kind, PlugVerdict::Kind::swapped);
                EXPECT_EQ(read_plug(plug, swapped, meter).size(), 2U);
                for (const auto& v : read_plug(plug, joined, meter))
                    EXPECT_EQ(v.kind, PlugVerdict::Kind::joined);
                EXPECT_EQ(read_plug(plug, joined, meter).size(), 2U);
            }
        }
    }
    EXPECT_TRUE(coded_plug(400, meter).ohm.empty());
}

// Two faults that no reading tells apart: what is likelier beforehand is named first, and one's own weights
// say which that is.
TEST(Locate, OnesOwnWeightsDecideBetweenWhatNoReadingTellsApart) {
    Plan plan = laid_demo(0);
    const auto weight = [&](FaultKind kind) {
        double sum = 0;
        for (const Fault& f : faults_of(plan))
            if (f.kind == kind) sum += f.prior;
        return sum;
    };
    const double usual = weight(FaultKind::load_dead), others = weight(FaultKind::fuse);
    plan.policy.faults = {{"load_dead", 20}};
    EXPECT_DOUBLE_EQ(weight(FaultKind::load_dead), 10 * usual);
    EXPECT_DOUBLE_EQ(weight(FaultKind::fuse), others);
    EXPECT_EQ(*plan_from_json_text(to_json_text(plan)), plan);
    const auto typed = read_notes("vehicle van 12 V\nlikely battery weak 9\nlamp 20 W\n").plan;
    ASSERT_EQ(typed.policy.faults.size(), 1U);
    EXPECT_DOUBLE_EQ(likely(typed, FaultKind::battery_weak), 9);
    EXPECT_DOUBLE_EQ(likely(typed, FaultKind::battery_low), fault_prior(FaultKind::battery_low).prior);
    EXPECT_FALSE(read_notes("vehicle van 12 V\nlikely gremlins 9\nlamp 20 W\n").bad() == 0);
    EXPECT_FALSE(read_notes("vehicle van 12 V\nlikely ground 0\nlamp 20 W\n").bad() == 0);
}

// ---- as it was built

TEST(AsBuilt, WhatWasKeptStaysWhateverBecomesOfThePlan) {
    const TempFolder folder;
    const std::string file = folder.file("truck.yourrail.json");
    Plan plan = laid_demo(0);
    plan.vehicle.registration = "RG 12/4";
    ASSERT_TRUE(save_plan(plan, file));
    ASSERT_FALSE(as_built_of(file, vehicle_of(plan))->has_value()) << "nothing is kept yet";
    Record line;
    line.when = "2026-11-27T22:10:00", line.by = "R. Fitter";
    ASSERT_TRUE(keep_as_built(plan, file, line));
    Plan later = plan;
    for (yr::Run& r : later.runs) r.size = WireSize::awg(2);
    ASSERT_TRUE(save_plan(later, file));
    const auto built = as_built_of(file, vehicle_of(later));
    ASSERT_TRUE(built && *built);
    EXPECT_EQ((*built)->plan, plan) << "not as the plan stands now";
    EXPECT_EQ((*built)->line.by, "R. Fitter");
    EXPECT_FALSE(keep_as_built(later, file, line)) << "the same moment twice";
    line.when = "2027-03-01T08:00:00";
    ASSERT_TRUE(keep_as_built(later, file, line));
    EXPECT_EQ((*as_built_of(file, vehicle_of(later)))->plan, later) << "the later one counts";
    EXPECT_FALSE(as_built_of(file, "another one")->has_value());
    // a copy that somebody changed is not what was kept
    write_text((*as_built_of(file, vehicle_of(later)))->path, to_json_text(plan));
    EXPECT_EQ(as_built_of(file, vehicle_of(later)).error().code, ErrorCode::out_of_range);
}

TEST(AsBuilt, LinesOfOneVehicleAreNotThoseOfAnother) {
    RecordBook book;
    const auto line = [&](const char* vehicle, double value) {
        Record r;
        r.number = book.records.size() + 1, r.vehicle = vehicle, r.value = value;
        book.records.push_back(r);
    };
    Plan plan = truck();
    plan.vehicle.registration = "two";
    line("one", 12.1), line("one", 12.2);
    EXPECT_EQ(records_of(book, plan).size(), 2U) << "one vehicle, named anew since";
    line("two", 12.3);
    ASSERT_EQ(records_of(book, plan).size(), 1U);
    EXPECT_DOUBLE_EQ(*records_of(book, plan)[0].value, 12.3);
}

// ---- the trainer

TEST(Practice, TheSameSeedHidesTheSameFaultAndTheBestPathFindsIt) {
    const Plan plan = laid_demo(0);
    for (std::size_t level = 0; level < kPracticeLevels; ++level) {
        HiddenFault one(plan, 5, static_cast<PracticeLevel>(level)),
            two(plan, 5, static_cast<PracticeLevel>(level));
        ASSERT_TRUE(one.there()) << level;
        EXPECT_EQ(one.fault().thing, two.fault().thing);
        EXPECT_FALSE(one.complaints().empty());
        EXPECT_EQ(one.second().has_value(), static_cast<PracticeLevel>(level) == PracticeLevel::two_at_once);
    }
    HiddenFault hidden(plan, 3, PracticeLevel::bad_ground);
    const auto path = best_path(plan, hidden);
    ASSERT_FALSE(path.empty());
    EXPECT_TRUE(hidden.is_it(path.back().likeliest));
    EXPECT_LE(path.size(), 5U);
}

}  // namespace
}  // namespace yr::test
