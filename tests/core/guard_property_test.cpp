// What must hold of shorts, heat, fuses and choices whatever the numbers: the fast way against the plain one,
// order, and what is said when something cannot be.
#include <gtest/gtest.h>

#include <random>

#include "choice/zero_one.h"
#include "control/circuit.h"
#include "guard/starting.h"
#include "network/thermal_time.h"
#include "notes/notes.h"
#include "size/circuit_options.h"
#include "size/plan_fuse.h"
#include "size/ranges.h"
#include "support/findings.h"
#include "support/sizing_plan.h"
#include "support/sweep.h"
#include "support/typed_page.h"
#include "support/vehicles.h"
#include "words/guard_words.h"
#include "words/why.h"

namespace yr::test {
namespace {

// ---- the network of shorts

class ShortedNetworks : public testing::TestWithParam<int> {
  protected:
    ShortedNetworks() {
        RandomShape shape;
        shape.resistive = GetParam() % 2 == 0;
        plan = random_plan(static_cast<std::uint32_t>(GetParam()) + 700, shape);
        plan.states.resize(1);
        solution = solve(plan, plan.states[0]);
    }
    NodeIndex node(const FaultNetwork& n, const Terminal& t) const {
        const auto& nodes = n.network().nodes;
        return static_cast<NodeIndex>(std::find(nodes.begin(), nodes.end(), t) - nodes.begin());
    }
    std::vector<ShortPlace> far_ends() const {
        std::vector<ShortPlace> ends;
        for (const ShortPlace& p : short_places(plan))
            if (p.device.empty()) ends.push_back(p);
        return ends;
    }
    Plan plan;
    Solution solution;
};

// Currents at every node sum to nought, with the short itself, batteries, sources and loads counted.
TEST_P(ShortedNetworks, KeepKirchhoffsLaw) {
    const FaultNetwork strong(plan, plan.states[0], solution, SupplyCase::strongest);
    const Network& net = strong.network();
    for (const ShortPlace& place : far_ends()) {
        ShortAsk ask;
        ask.at = node(strong, place.at);
        ask.back = node(strong, place.back);
        ask.ohm = 0.01;
        const ShortAnswer a = strong.solve(ask);
        std::vector<double> sums(net.nodes.size(), 0);
        const auto flow = [&](NodeIndex from, NodeIndex to, double amps) {
            sums[static_cast<std::size_t>(from)] += amps;
            sums[static_cast<std::size_t>(to)] -= amps;
        };
        for (std::size_t k = 0; k < net.conductors.size(); ++k)
            flow(net.conductors[k].from, net.conductors[k].to, a.run_A[k]);
        for (std::size_t k = 0; k < net.batteries.size(); ++k)
            flow(net.batteries[k].neg, net.batteries[k].pos, a.battery_A[k]);
        for (std::size_t k = 0; k < net.sources.size(); ++k)
            if (net.sources[k].works) flow(net.sources[k].neg, net.sources[k].out, a.source_A[k]);
        flow(ask.at, ask.back, a.amps);
        const double scale = std::max(1.0, std::abs(a.amps));
        for (std::size_t n = 0; n < sums.size(); ++n)
            EXPECT_NEAR(sums[n], 0, 2e-4 * scale) << net.nodes[n].text() << ", short at " << place.at.text();
        EXPECT_NEAR(a.node_V(ask.at) - a.node_V(ask.back), 0.01 * a.amps, 1e-6 * scale);
        for (std::size_t k = 0; k < net.sources.size(); ++k) {
            EXPECT_GE(a.source_A[k], -1e-9) << "no current back into a source";
            EXPECT_LE(a.source_A[k], net.sources[k].limit_A * (1 + 1e-9));
        }
        for (std::size_t k = 0; k < net.batteries.size(); ++k)
            EXPECT_GE(a.battery_A[k], -net.batteries[k].accept_A * (1 + 1e-9) - 1e-9)
                << "no more than it accepts";
    }
}

// A run opened by the port is a run that is not there.
TEST_P(ShortedNetworks, OpeningIsTheSameAsTakingTheRunAway) {
    const FaultNetwork whole(plan, plan.states[0], solution, SupplyCase::strongest);
    std::mt19937 random(static_cast<std::uint32_t>(GetParam()));
    const auto ends = far_ends();
    for (int n = 0; n < 6; ++n) {
        const ShortPlace& place = ends[random() % ends.size()];
        const auto gone = random() % plan.runs.size();
        Solution without = solution;
        if (!without.network.conductors[gone].closed) continue;
        without.network.conductors[gone].closed = false;
        const FaultNetwork less(plan, plan.states[0], without, SupplyCase::strongest);
        ShortAsk ask;
        ask.at = node(whole, place.at);
        ask.back = node(whole, place.back);
        const double plain = less.solve(ask).amps;
        ask.opened = {static_cast<int>(gone)};
        EXPECT_NEAR(whole.solve(ask).amps, plain, 1e-3 * std::max(1.0, std::abs(plain)))
            << plan.runs[gone].name << " open, short at " << place.at.text();
    }
}

// A run of another size by the port is that run in the plan.
TEST_P(ShortedNetworks, AnotherSizeIsTheSameAsInThePlan) {
    const FaultBase base = fault_base(plan, 0, solution);
    for (const ShortPlace& place : far_ends()) {
        const yr::Run& run = plan.runs[place.run];
        if (!run.size) continue;
        Plan other = plan;
        other.runs[place.run].size = step_size(*run.size, 3);
        // only the cable: joints go with the copper in the plan, and stay in the quick way
        const auto quick =
            short_at(plan, base, solution, place, 0, {place.run, other.runs[place.run].size, {}, 0});
        const Solution solved = solve(other, other.states[0]);
        const auto plain = short_at(other, fault_base(other, 0, solved), solved, place, 0);
        ASSERT_EQ(quick.has_value(), plain.has_value());
        if (quick) EXPECT_NEAR(quick->most_A, plain->most_A, 0.1 * plain->most_A) << run.name;
    }
}

// More ohms never draw more amps, and a stronger supply never draws fewer.
TEST_P(ShortedNetworks, AreOrderedByOhmsAndBySupply) {
    const FaultBase base = fault_base(plan, 0, solution);
    for (const ShortPlace& place : far_ends()) {
        double before = 1e9;
        for (const double ohm : {0.0, 0.002, 0.01, 0.05, 0.3}) {
            const auto row = short_at(plan, base, solution, place, ohm);
            if (!row) break;
            EXPECT_LE(row->most_A, before * (1 + 1e-9));
            EXPECT_LE(row->least_A, row->most_A * (1 + 1e-6));
            before = row->most_A;
        }
    }
}

// Shorts that come by none of the changed runs are taken as they were: as good as asking them all anew.
TEST(ShortsOnVehicles, WhatIsKeptIsAsGoodAsNew) {
    std::size_t kept = 0, anew = 0;
    for (unsigned seed = 1; seed <= sweep(12U, 100U); ++seed) {
        Plan plan = vehicle(seed).plan;
        const KnownShorts known = known_shorts(plan, solve_all(plan));
        std::mt19937 random(seed);
        std::vector<char> changed(plan.runs.size(), 0);
        for (std::size_t k = 0; k < plan.runs.size(); ++k) {
            yr::Run& run = plan.runs[k];
            if (random() % 8 || !run.size) continue;
            run.size = step_size(*run.size, random() % 2 ? 2 : -2);
            for (Device& d : run.devices)
                if (d.kind == DeviceKind::fuse && random() % 2) d.rating_A *= 2;
            changed[k] = 1;
        }
        const auto solutions = solve_all(plan);
        const FaultStudy quick = study_bolted(plan, solutions, &known, changed);
        const FaultStudy whole = study_bolted(plan, solutions);
        ASSERT_EQ(quick.rows.size(), whole.rows.size()) << seed;
        for (std::size_t k = 0; k < whole.rows.size(); ++k) {
            const ShortRow &q = quick.rows[k], &w = whole.rows[k];
            (q.ways.empty() ? anew : kept) += 1;
            EXPECT_EQ(q.near, w.near) << seed;
            EXPECT_NEAR(q.most_A, w.most_A, 0.01 * w.most_A) << seed;
            EXPECT_NEAR(q.least_A, w.least_A, 0.02 * w.least_A + 1) << seed;
            EXPECT_EQ(q.clears(), w.clears()) << seed << " " << plan.runs[whole.places[w.place].run].name;
            EXPECT_EQ(q.hurts(), w.hurts()) << seed;
            // a changed cable that its load alone warms is told by another rule
            if (q.hottest && w.hottest && !changed[w.hottest->run])
                EXPECT_NEAR(q.hottest->reached_C, w.hottest->reached_C, 0.02 * w.hottest->reached_C + 2)
                    << seed;
        }
    }
    EXPECT_GT(kept, anew / 4) << "else nothing is tried here";
}

// Whatever charges and whatever opens: each short has an answer. Where feeds have opened, an alternator at
// its limit and batteries that take no more are alone with each other: nothing but their laws holds their
// volts.
// A cable that its own load overheats is that load's finding, not that of every short in the vehicle.
TEST(ShortsOnVehicles, WarmTheirOwnWayAlone) {
    Plan plan = typed_page(
        "truck 12 V\nbattery 95 Ah\nheater 26 A always, 3 m, 18 AWG\nradio 5 A always, 3 m, 14 AWG\n");
    ASSERT_EQ(plan.loads.size(), 2u);
    const FaultStudy study = study_bolted(plan, solve_all(plan));
    int elsewhere = 0;
    for (const ShortRow& row : study.rows) {
        const yr::Run& shorted = plan.runs[study.places[row.place].run];
        if (shorted.to != pos_of(plan.loads[1].id) || !row.hottest) continue;
        const yr::Run& hot = plan.runs[row.hottest->run];
        EXPECT_NE(hot.to, pos_of(plan.loads[0].id)) << hot.name;
        EXPECT_NE(hot.from, neg_of(plan.loads[0].id)) << hot.name;
        ++elsewhere;
    }
    EXPECT_GE(elsewhere, 1);
}

TEST(ShortsOnVehicles, AllHaveAnAnswer) {
    std::vector<Plan> plans;
    for (const char* alternator : {"40 A", "100 A", "220 A"})
        for (const char* battery : {"24 V AGM 90 Ah 700 A", "24 V LiFePO4 200 Ah", "24 V flooded 180 Ah"})
            for (const double charge : {0.3, 0.8, 1.0})
                for (const char* rest :
                     {"", "lamps 6x 70 W\n", "second battery 24 V AGM 100 Ah, by contactor\n"}) {
                    plans.push_back(read_notes(std::string("vehicle \"saw mill\" 24 V\nbattery ") + battery +
                                               "\nalternator " + alternator +
                                               "\nconverter 24 to 12 V 20 A\nradio 8 A 12 V\n" + rest)
                                        .plan);
                    for (Battery& b : plans.back().batteries) b.charge = charge;
                }
    for (unsigned seed = 1; seed <= sweep(3U, 60U); ++seed) {
        plans.push_back(vehicle(seed).plan);
        plans.push_back(small_machine(seed).plan);
        plans.push_back(cart(seed).plan);
    }
    for (const Plan& plan : plans) {
        std::vector<Solution> solutions;
        for (const State& s : plan.states) solutions.push_back(solve(plan, s));
        const FaultStudy study = study_faults(plan, solutions);
        EXPECT_FALSE(study.rows.empty());
        for (const ShortRow& row : study.rows)
            EXPECT_TRUE(row.settled) << plan.vehicle.name << ' ' << plan.batteries.size() << ": "
                                     << name_of(plan, plan.runs[study.places[row.place].run].id) << " in "
                                     << plan.states[row.state].name;
    }
}

INSTANTIATE_TEST_SUITE_P(Seeds, ShortedNetworks, testing::Range(1, 21));

// ---- heat

TEST(HeatProperty, MoreAmpsMoreTimeHotterStart) {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> any(0, 1);
    for (int n = 0; n < 60; ++n) {
        const int gauge = static_cast<int>(any(random) * 20) - 2;
        const auto wire = conductor(WireSize::awg(gauge % 2 ? gauge + 1 : gauge));
        if (!wire) continue;
        const auto cable = surroundings_of(*wire, any(random) * 60, 1);
        const double carries = current_for_temperature_A(cable, 105);
        const double amps = carries * (0.3 + 4 * any(random)), seconds = std::pow(10, 3 * any(random) - 1);
        const double start = cable.ambient_C + 30 * any(random);
        const double t = temperature_after_C(cable, amps, start, seconds);
        EXPECT_GE(temperature_after_C(cable, amps * 1.1, start, seconds), t - 0.1);
        EXPECT_GE(temperature_after_C(cable, amps, start + 5, seconds), t - 0.1);
        EXPECT_LE(t, adiabatic_bound_C(cable, amps, start, seconds) + 0.5) << "without loss, metal alone";
        EXPECT_LE(t, std::max(start, conductor_temperature_C(cable, amps, start)) + 0.5)
            << "never past the steady one";
        const double limit = start + 40;
        const double until = time_to_C(cable, amps, start, limit);
        if (std::isfinite(until) && until < 1e4)
            EXPECT_NEAR(temperature_after_C(cable, amps, start, until), limit, 2) << gauge << ' ' << amps;
    }
}

TEST(HeatProperty, DutyLiesBetweenRestAndForEver) {
    for (const int gauge : {16, 8, 2}) {
        const auto cable = surroundings_of(*conductor(WireSize::awg(gauge)), 25, 1);
        const double amps = 1.3 * current_for_temperature_A(cable, 105);
        double before = 0;
        for (const double on_s : {1.0, 10.0, 60.0, 600.0}) {
            const DutyResult r = duty_temperature(cable, {amps, on_s, 0, on_s * 4});
            EXPECT_GE(r.peak_C, r.first_C - 0.02);
            EXPECT_GT(r.first_C, 25);
            EXPECT_LE(r.peak_C, conductor_temperature_C(cable, amps, 25) + 0.1);
            EXPECT_GE(r.first_C, before) << "a longer turn ends hotter";
            before = r.first_C;
        }
    }
}

// ---- choices

TEST(FuseProperty, ChosenByTheCableAlwaysGuardsAndHolds) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> any(0, 1);
    for (int n = 0; n < 400; ++n) {
        FuseAsk ask;
        ask.current_A = 0.5 + 150 * any(random) * any(random);
        if (any(random) < 0.5) ask.inrush_A = ask.current_A * (1 + 2 * any(random));
        ask.cable_A = 5 + 300 * any(random);
        const auto advice = choose_fuse(ask, FuseSchool::wire);
        ASSERT_TRUE(advice);
        if (!advice->chosen) continue;
        EXPECT_LE(advice->chosen->rating_A, ask.cable_A + 1e-9);
        EXPECT_GE(advice->chosen->rating_A * 0.8, ask.current_A - 1e-9);
        if (ask.inrush_A) EXPECT_GT(advice->chosen->rating_A, *ask.inrush_A);
    }
}

TEST(FuseProperty, KindsCutWhatTheyMustAndHaveTheRating) {
    for (const double rating : {5.0, 30.0, 80.0, 200.0, 400.0})
        for (const double cut : {0.0, 900.0, 1500.0, 5000.0, 15000.0})
            for (const FuseType t : kinds_for(rating, cut, 12)) {
                const FuseKind& kind = fuse_kind(t);
                EXPECT_GE(kind.interrupting_A, cut);
                EXPECT_NE(std::find(kind.ratings_A.begin(), kind.ratings_A.end(), rating),
                          kind.ratings_A.end());
            }
    EXPECT_TRUE(kinds_for(3, 15000, 12).empty()) << "no 3 A fuse cuts off 15 kA";
    for (const FuseType t : kinds_for(30, 0, 48)) EXPECT_GE(fuse_kind(t).rated_V, 48);
}

TEST(CableProperty, TurnsTwinsAndFusesOnlyMoveTheSizeTheWayTheyShould) {
    std::mt19937 random(17);
    std::uniform_real_distribution<double> any(0, 1);
    for (int n = 0; n < 40; ++n) {
        SizeAsk ask;
        ask.current_A = 5 + 100 * any(random);
        ask.there_and_back_m = 1 + 10 * any(random);
        ask.drop_share = 0.1;
        const auto plain = size_cable(ask);
        ASSERT_TRUE(plain);
        SizeAsk turns = ask, twins = ask, fused = ask;
        turns.on_s = 20;
        turns.duty = 0.05;
        twins.parallel = 2;
        fused.fuse_A = ask.current_A * 1.5;
        fused.fuse = FuseType::bolt;
        if (plain->chosen < 0) continue;
        EXPECT_LE(size_cable(turns)->chosen, plain->chosen) << ask.current_A;
        EXPECT_LE(size_cable(twins)->chosen, plain->chosen) << ask.current_A;
        const auto guarded = size_cable(fused);
        EXPECT_TRUE(guarded->chosen < 0 || guarded->chosen >= plain->chosen) << ask.current_A;
        for (const SizeRow& row : guarded->rows)
            if (row.passes()) EXPECT_LE(row.guard_C, short_limit_C(ask.insulation_C) + 1e-6);
    }
}

// Swapped in place or written into the plan: the same operating point.
TEST(CircuitOptionsProperty, ASwappedCableIsThatCable) {
    for (std::uint32_t seed = 1; seed < 12; ++seed) {
        const Plan plan = sizing_plan(seed, {seed % 2 == 0, 2});
        const auto solutions = solve_all(plan);
        CircuitOptions circuit(plan, solutions, {0, 1});
        Plan changed = plan;
        const auto run = seed % plan.runs.size();
        changed.runs[run].size = WireSize::awg(16);
        circuit.put(run, changed.runs[run]);
        for (std::size_t k = 0; k < 2; ++k) {
            const OperatingPoint swapped = circuit.solve(k);
            const Solution written = solve(changed, changed.states[k]);
            for (std::size_t n = 0; n < swapped.node_V.size(); ++n)
                EXPECT_NEAR(swapped.node_V[n], written.point.node_V[n], 1e-7) << seed;
        }
    }
}

TEST(ZeroOne, AnAmountStandsBesideTheChoices) {
    // 7 m are needed of a size of which 4 m are in stock; the rest is bought at 2 a metre, or the dearer size
    // taken
    for (const auto& [dear, cost] : {std::pair{5.0, 5.0}, {7.0, 6.0}}) {
        ZeroOneProgram program;
        const int stocked = program.add_choice(0), other = program.add_choice(dear);
        const int bought = program.add_amount(2, 100);
        program.add_row({{stocked, 1}, {other, 1}}, RowSense::equal, 1);
        program.add_row({{stocked, 7}, {bought, -1}}, RowSense::at_most, 4);
        const ZeroOneAnswer answer = program.solve();
        ASSERT_TRUE(answer.optimal());
        EXPECT_NEAR(answer.cost, cost, 1e-9) << dear;
    }
}

// ---- typing and words

TEST(TypedRange, OneUnitForBothOrEachItsOwn) {
    const Plan plan = truck();
    struct Case {
        const char* text;
        double most, least;
    };
    for (const auto& [text, most, least] : {Case{"mast light 40 W on ignition, 3..4 m", 4, 3},
                                            {"mast light 40 W, 3 m .. 4 m", 4, 3},
                                            {"mast light 40 W, 10..14 ft", 14 * 0.3048, 10 * 0.3048},
                                            {"mast light 40 W, 50 cm..1 m", 1, 0.5}}) {
        const TypedLine line = read_line(plan, text);
        ASSERT_TRUE(line.length_m) << text;
        EXPECT_NEAR(*line.length_m, most, 1e-9) << text;
        EXPECT_NEAR(line.length_least_m.value_or(0), least, 1e-9) << text;
        EXPECT_TRUE(line.not_understood.empty()) << text;
    }
    const TypedLine draw = read_line(plan, "pump 4..6 A on ignition, 2 m");
    EXPECT_DOUBLE_EQ(draw.draw->value, 6);
    EXPECT_DOUBLE_EQ(draw.draw_least.value_or(0), 4);
    const TypedLine wrong = read_line(plan, "pump 6..4 A on ignition");
    EXPECT_FALSE(wrong.draw_least) << "the least comes first";
    EXPECT_FALSE(wrong.not_understood.empty());
}

TEST(TypedRange, MakesACircuitThatKeepsIt) {
    Plan plan = truck();
    const auto made = make_circuit(plan, read_line(plan, "mast light 4..5 A on ignition, 3..4 m"));
    ASSERT_TRUE(made);
    ASSERT_TRUE(yr::apply(plan, made->edit));
    const Load& load = plan.loads.back();
    EXPECT_DOUBLE_EQ(*load.draw_least, 4);
    EXPECT_DOUBLE_EQ(*supply_run(plan, load.id)->length_least_m, 3);
    EXPECT_TRUE(has_ranges(plan));
    EXPECT_NE(typed_text(plan, load).find("3..4 m"), std::string::npos) << typed_text(plan, load);
}

TEST(GuardWords, TimesLimitsAndKinds) {
    EXPECT_EQ(words::seconds(0.0082), "8.2\xE2\x80\x89ms");
    EXPECT_EQ(words::seconds(1.44), "1.44\xE2\x80\x89s");
    EXPECT_EQ(words::seconds(1800), "30\xE2\x80\x89min");
    EXPECT_EQ(words::seconds(1e9), "never");
    EXPECT_EQ(words::opens_text({}), "not sure to open");
    for (int k = 0; k <= static_cast<int>(Limit::sturdy); ++k)
        EXPECT_STRNE(words::name_of(static_cast<Limit>(k)), "") << k;
    for (int t = 0; t <= static_cast<int>(FuseType::breaker_3); ++t) {
        const std::string kind = words::device_kind(static_cast<FuseType>(t));
        EXPECT_NE(kind.find(is_breaker(static_cast<FuseType>(t)) ? "breaker" : "fuse"), std::string::npos)
            << kind;
    }
    EXPECT_EQ(words::cost_text(1, SizingGoal::sizes), "1 size");
    EXPECT_EQ(words::cost_text(3, SizingGoal::sizes), "3 sizes");
}

TEST(Starting, OnlyWhatRunsInThatStateCanStart) {
    const Plan plan = truck();
    StartAsk ask;
    ask.state = 0;  // key off
    ask.starts = {"load-23"};
    const auto none = study_start(plan, ask);
    ASSERT_FALSE(none);
    EXPECT_NE(words::sentence(none.error()).find("davit hoist"), std::string::npos);
    ask.starts = {};
    const auto parked = study_start(plan, ask);
    ASSERT_TRUE(parked);
    EXPECT_TRUE(parked->finished);
    EXPECT_GT(parked->least_bus_V, 11) << "a parked truck starts little";
}

TEST(Starting, AnInverterAndItsPumpAreFollowed) {
    Plan plan = truck();
    thing(plan.loads, "load-25").start_W = 1200;
    thing(plan.loads, "load-25").inrush_s = 0.4;
    StartAsk ask;
    ask.state = 5;
    ask.seconds = 1;
    ask.starts = {"load-25"};
    const auto pump = study_start(plan, ask);
    ASSERT_TRUE(pump);
    ASSERT_TRUE(pump->finished);
    // while it starts the inverter takes what 1 200 W ask, then what it runs with
    const auto at = [&](double t) {
        const auto k = std::lower_bound(pump->t_s.begin(), pump->t_s.end(), t) - pump->t_s.begin();
        return pump->total_A[std::min(static_cast<std::size_t>(k), pump->total_A.size() - 1)];
    };
    EXPECT_GT(at(0.2), 2 * at(0.8));
    ask.starts = {"inverter"};
    const auto inverter = study_start(plan, ask);
    ASSERT_TRUE(inverter);
    EXPECT_GT(inverter->total_A.front(), 300) << "empty capacitors";
    const Solution runs = solve(plan, plan.states[ask.state]);
    EXPECT_NEAR(inverter->total_A.back(), runs.point.loads[plan.loads.size()].current_A, 2)
        << "they are full, and what hangs on it runs";
}

}  // namespace
}  // namespace yr::test
