// Fuses, shorts, turns of work, starts, ladders and ranges.
#include <gtest/gtest.h>

#include <random>

#include "catalog/assumptions.h"
#include "catalog/terminals.h"
#include "guard/starting.h"
#include "size/guard_curves.h"
#include "size/plan_fuse.h"
#include "size/ranges.h"
#include "support/findings.h"
#include "words/guard_words.h"

namespace yr::test {
namespace {

Device& fuse_named(Plan& plan, const std::string& name) {
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.name == name) return d;
    throw std::logic_error(name);
}

TEST(FuseBand, FallsWithCurrentAndKeepsItsEnergyBeyondItsEnd) {
    for (int t = 0; t <= static_cast<int>(FuseType::breaker_3); ++t) {
        const FuseKind& kind = fuse_kind(static_cast<FuseType>(t));
        OpeningTime before = opening_time(kind, kind.band.front().multiple);
        EXPECT_GT(opening_time(kind, 0.5).earliest_s, 1e8) << kind.name;
        EXPECT_FALSE(opening_time(kind, 1.05).latest_s.has_value()) << kind.name;
        for (double m = kind.band.front().multiple; m < 60; m *= 1.02) {
            const OpeningTime now = opening_time(kind, m);
            EXPECT_LE(now.earliest_s, before.earliest_s * (1 + 1e-9)) << kind.name << ' ' << m;
            if (now.latest_s) EXPECT_LE(now.earliest_s, *now.latest_s) << kind.name << ' ' << m;
            if (now.latest_s && before.latest_s) EXPECT_LE(*now.latest_s, *before.latest_s * (1 + 1e-9));
            before = now;
        }
        const double end = kind.band.back().multiple;
        EXPECT_NEAR(*opening_time(kind, 4 * end).latest_s * 16, *kind.band.back().latest_s, 1e-9)
            << kind.name;
        for (const FusePoint& p : kind.band) {
            if (&p == &kind.band.front()) continue;
            EXPECT_NEAR(opening_time(kind, p.multiple).earliest_s, p.earliest_s, 1e-9 * p.earliest_s)
                << kind.name;
            EXPECT_EQ(is_breaker(kind.type), t >= static_cast<int>(FuseType::breaker_1));
        }
    }
    EXPECT_LT(rerated_A(fuse_kind(FuseType::blade), 10, 85), 9.5);
    EXPECT_GT(rerated_A(fuse_kind(FuseType::blade), 10, -20), 10);
}

TEST(Lugs, FitTheirBoltOrTheNextOneUp) {
    EXPECT_TRUE(lug_fits(8, 8));
    EXPECT_TRUE(lug_fits(10, 8));
    EXPECT_FALSE(lug_fits(12, 8)) << "too little metal under the nut";
    EXPECT_FALSE(lug_fits(6, 8)) << "it does not go over";
    EXPECT_TRUE(lug_fits(5, 4));
    EXPECT_LT(lug_bolts_mm(1).front(), 4);
    EXPECT_GE(lug_bolts_mm(70).front(), 8);
}

TEST(FuseGuard, AThickCableIsGuardedAndAThinOneIsNot) {
    const auto cable = [](int gauge) { return surroundings_of(*conductor(WireSize::awg(gauge)), 30, 1); };
    EXPECT_TRUE(fuse_guard(cable(10), 105, 60, 1, FuseType::blade, 40, 25).guards);
    EXPECT_FALSE(fuse_guard(cable(18), 105, 60, 1, FuseType::blade, 40, 25).guards);
    const auto one = fuse_guard(cable(14), 105, 60, 1, FuseType::blade, 30, 25);
    const auto two = fuse_guard(cable(14), 105, 60, 2, FuseType::blade, 60, 25);
    EXPECT_NEAR(one.reached_C, two.reached_C, 1e-6) << "two side by side under twice the fuse";
    for (int gauge = 22; gauge >= 4;
         gauge -= 2)  // the bound from above never says yes where the exact says no
        for (double amps : {10.0, 20.0, 30.0, 40.0})
            if (fuse_guard(cable(gauge), 105, 60, 1, FuseType::blade, amps, 25, false).guards)
                EXPECT_TRUE(fuse_guard(cable(gauge), 105, 60, 1, FuseType::blade, amps, 25, true).guards)
                    << gauge;
}

TEST(Ladder, EachRungAgainstEveryLimit) {
    const Plan plan = truck();
    const auto ladder = run_ladder(plan, "run-52");  // scene lights
    ASSERT_TRUE(ladder);
    ASSERT_GE(ladder->chosen, 0);
    for (std::size_t k = 1; k < ladder->rows.size(); ++k) {
        const RunSizeRow &thin = ladder->rows[k - 1], &thick = ladder->rows[k];
        EXPECT_GT(thick.mass_kg, thin.mass_kg);
        EXPECT_GE(thick.ampacity_A, thin.ampacity_A);
        EXPECT_LE(thick.drop_V, thin.drop_V + 1e-9);
        if (thin.drop_V < 11) EXPECT_LE(thick.temperature_C, thin.temperature_C + 0.5);
        if (thin.short_A && thick.short_A) EXPECT_GE(*thick.short_A, *thin.short_A);
        EXPECT_GT(thick.fit.radius_mm, thin.fit.radius_mm);
        EXPECT_GT(thick.physics_A, thin.physics_A);
    }
    EXPECT_TRUE(ladder->rows[static_cast<std::size_t>(ladder->chosen)].passes());
    EXPECT_EQ(ladder->rows[static_cast<std::size_t>(ladder->chosen)].fails(), Limit::none);
    if (ladder->chosen > 0) EXPECT_FALSE(ladder->rows[static_cast<std::size_t>(ladder->chosen - 1)].passes());
    EXPECT_TRUE(ladder->rows.back().short_A.has_value()) << "a short at its far end is known";
    EXPECT_EQ(ladder->rows.back().drops.size(), 1U);
}

TEST(Ladder, TwoSideBySideCarryTwice) {
    const Plan plan = truck();
    const auto one = run_ladder(plan, "run-5"), two = run_ladder(plan, "run-5", 2);
    ASSERT_TRUE(one && two);
    EXPECT_NEAR(two->rows[5].ampacity_A, 2 * one->rows[5].ampacity_A, 1e-6);
    EXPECT_LE(two->chosen, one->chosen);
    EXPECT_EQ(run_ladder(plan, "run-5", 9).error().place, "parallel");
}

TEST(Ladder, CrankingAndTurnsAreJudgedInTime) {
    Plan plan = truck();
    const auto starter = run_ladder(plan, "run-2");
    ASSERT_TRUE(starter && starter->duty);
    EXPECT_EQ(starter->duty->load, "load-1");
    EXPECT_DOUBLE_EQ(starter->duty->cycle.on_s, kCranking_s);
    EXPECT_TRUE(starter->rows[static_cast<std::size_t>(starter->now)].carries)
        << "half a minute, not for ever";
    const auto hoist = run_ladder(plan, "run-8");
    ASSERT_TRUE(hoist && hoist->duty);
    EXPECT_DOUBLE_EQ(hoist->duty->cycle.on_s, 90);
    const double short_turn = hoist->duty->peak_C;
    thing(plan.loads, "load-23").on_s = 1800;
    EXPECT_GT(run_duty(plan, 7, solve_all(plan))->peak_C, short_turn + 1);
}

TEST(Ladder, TerminalsAndBendsCount) {
    Plan plan = truck();
    thing(plan.points, "rear-box").most_mm2 = 6;
    thing(plan.runs, "run-7").bend_mm = 20;
    const auto ladder = run_ladder(plan, "run-7");
    ASSERT_TRUE(ladder);
    EXPECT_FALSE(ladder->rows.back().fit.terminals);
    EXPECT_FALSE(ladder->rows.back().fit.bends);
    EXPECT_TRUE(ladder->rows.front().fit.terminals);
    EXPECT_TRUE(found(plan, FindingKind::terminal_small, "run-7"));
    EXPECT_TRUE(found(plan, FindingKind::bend_tight, "run-7"));
}

TEST(Shorts, EveryFarEndAndEveryFuseIsLookedAt) {
    const Plan plan = truck();
    const auto places = short_places(plan);
    std::size_t fuses = 0, behind = 0;
    for (const yr::Run& r : plan.runs)
        for (const Device& d : r.devices) fuses += d.kind == DeviceKind::fuse;
    for (const ShortPlace& p : places) behind += !p.device.empty();
    EXPECT_EQ(behind, fuses);
    const FaultStudy study = study_faults(plan, solve_all(plan));
    EXPECT_GT(study.rows.size(), 500U);
    for (const ShortRow& r : study.rows) {
        EXPECT_GE(r.most_A, r.least_A * 0.999) << words::sentence(r, plan);
        if (r.clears()) EXPECT_LE(r.fastest_s, *r.slowest.seconds * (1 + 1e-9)) << words::sentence(r, plan);
        EXPECT_FALSE(words::sentence(r, plan).empty());
        EXPECT_TRUE(std::isfinite(r.most_A) && std::isfinite(r.bus_V));
    }
    std::atomic<bool> stop{true};
    EXPECT_TRUE(study_faults(plan, solve_all(plan), &stop).rows.empty());
}

TEST(Shorts, MoreOhmsLessCurrentLaterOpening) {
    const Plan plan = truck();
    const FaultStudy study = study_faults(plan, solve_all(plan));
    for (std::size_t k = 2; k < study.rows.size(); ++k) {
        const ShortRow &a = study.rows[k - 1], &b = study.rows[k];
        if (a.place != b.place || a.state != b.state || b.ohm <= a.ohm) continue;
        EXPECT_LT(b.most_A, a.most_A);
        if (a.slowest.devices.size() == 1 && b.slowest.devices == a.slowest.devices && a.clears() &&
            b.clears())
            EXPECT_GE(*b.slowest.seconds, *a.slowest.seconds * (1 - 1e-9));
    }
}

TEST(Shorts, AFuseFarTooLargeIsFoundAndMended) {
    Plan plan = truck();
    Device& fuse = fuse_named(plan, "sample fridge fuse");
    fuse.fuse = FuseType::bolt;
    fuse.rating_A = 100;
    fuse_named(plan, "always fuse").rating_A = 400;
    fuse_named(plan, "always fuse").fuse = FuseType::bolt;
    thing(plan.runs, "run-46").size = WireSize::awg(18);
    thing(plan.runs, "run-46").length_m = 9.0;
    auto f = found(plan, FindingKind::short_hurts, "run-46");
    if (!f) f = found(plan, FindingKind::short_stays, "run-46");
    ASSERT_TRUE(f);
    EXPECT_EQ(f->severity, Severity::stop);
    if (f->mend) {
        ASSERT_TRUE(yr::apply(plan, f->mend->edit));
        EXPECT_FALSE(found(plan, f->kind, "run-46"));
    }
}

TEST(Shorts, ADeviceUpstreamThatOpensFirstIsTold) {
    Plan plan = truck();
    fuse_named(plan, "always fuse").rating_A = 15;  // as the fridge's own
    const auto f = found(plan, FindingKind::short_upstream, "run-46");
    ASSERT_TRUE(f);
    EXPECT_EQ(yr::name_of(plan, f->other), "always fuse");
    fuse_named(plan, "always fuse").fuse = FuseType::bolt;
    fuse_named(plan, "always fuse").rating_A = 125;
    EXPECT_FALSE(found(plan, FindingKind::short_upstream, "run-46"));
}

TEST(Shorts, InterruptingManagementAndBreakers) {
    Plan plan = truck();
    EXPECT_TRUE(found(plan, FindingKind::management_first, "battery-2"));
    thing(plan.batteries, "battery-2").cuts_at_A.reset();
    EXPECT_FALSE(found(plan, FindingKind::management_first, "battery-2"));
    const auto weak = found(plan, FindingKind::interrupt_short, "run-66");
    ASSERT_TRUE(weak && weak->mend);
    ASSERT_TRUE(yr::apply(plan, weak->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::interrupt_short, "run-66"));
    fuse_named(plan, "deck light fuse").fuse = FuseType::breaker_1;
    fuse_named(plan, "deck light fuse").rating_A = 10;
    EXPECT_TRUE(found(plan, FindingKind::breaker_recloses, "run-56"));
}

TEST(FusesAtWork, LoadedStartingAndOfTheWrongKind) {
    Plan plan = truck();
    fuse_named(plan, "radiator fan fuse").rating_A = 25;
    auto f = found(plan, FindingKind::fuse_loaded, "run-26");
    ASSERT_TRUE(f && f->mend);
    EXPECT_NEAR(f->limit, 20, 1e-9);
    ASSERT_TRUE(yr::apply(plan, f->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::fuse_loaded, "run-26"));

    plan = truck();
    fuse_named(plan, "sampler reel fuse").rating_A = 5;
    EXPECT_TRUE(found(plan, FindingKind::start_opens_fuse, "run-58")) << "30 A through 5 A for half a second";
    fuse_named(plan, "sampler reel fuse").rating_A = 35;
    EXPECT_FALSE(found(plan, FindingKind::start_opens_fuse, "run-58"));

    fuse_named(plan, "fuel pump fuse").fuse = FuseType::glass;
    f = found(plan, FindingKind::fuse_kind_hot, "run-24");
    ASSERT_TRUE(f && f->mend);
    EXPECT_EQ(words::mend_label(*f, plan), "Blade fuse");
    ASSERT_TRUE(yr::apply(plan, f->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::fuse_kind_hot, "run-24"));
}

TEST(Fitting, LugsTwinsStrapsAndCopperClad) {
    Plan plan = truck();
    auto f = found(plan, FindingKind::lug_misfit, "run-65");
    ASSERT_TRUE(f && f->mend);
    EXPECT_EQ(f->value, 12);
    ASSERT_TRUE(yr::apply(plan, f->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::lug_misfit, "run-65"));
    EXPECT_TRUE(found(plan, FindingKind::strap_thin, "run-13")) << "4 AWG takes back what 2/0 brings";
    thing(plan.runs, "run-64").material = Material::cca;
    EXPECT_TRUE(found(plan, FindingKind::aluminium_core, "run-64"));

    yr::Run twin = *find(plan.runs, "run-1");  // a second charge cable, longer
    twin.id = "run-twin";
    twin.name = "added charge cable";
    twin.length_m = 5;
    plan.runs.push_back(twin);
    f = found(plan, FindingKind::parallel_shares, "run-1");
    ASSERT_TRUE(f);
    EXPECT_GT(f->value, 0.6);
}

TEST(Fitting, TurnsTooLongForTheCable) {
    Plan plan = truck();
    thing(plan.runs, "run-64").size = WireSize::awg(12);
    const auto f = found(plan, FindingKind::duty_hot, "run-64");
    ASSERT_TRUE(f && f->mend);
    EXPECT_EQ(f->severity, Severity::stop);
    ASSERT_TRUE(yr::apply(plan, f->mend->edit));
    EXPECT_FALSE(found(plan, FindingKind::duty_hot, "run-64"));
}

TEST(Fitting, ServiceLimitsUnderLoad) {
    Plan plan = truck();
    thing(plan.runs, "run-2").length_m = 9;
    EXPECT_TRUE(found(plan, FindingKind::starter_drop));
    thing(plan.points, "gnd-bed").bond_ohm = 0.004;
    EXPECT_TRUE(found(plan, FindingKind::joint_drop, "gnd-bed"));
    thing(plan.runs, "run-1").size = WireSize::awg(6);
    EXPECT_TRUE(found(plan, FindingKind::cable_drop, "run-1"));
}

TEST(FuseAdvice, ThreeSchoolsOnTheTruck) {
    const Plan plan = truck();
    const auto advice = advise_fuse(plan, "run-26", solve_all(plan));  // radiator fan: 22 A, starts with 31 A
    ASSERT_TRUE(advice);
    EXPECT_NEAR(advice->current_A, 22, 0.5);
    ASSERT_TRUE(advice->schools[1].chosen);
    EXPECT_EQ(advice->schools[1].chosen->rating_A, 35) << "the smallest above its start";
    EXPECT_EQ(advice->schools[2].chosen->rating_A, 35);
    EXPECT_TRUE(advice->schools[2].opens_far_short);
    EXPECT_TRUE(advice->guards);
    EXPECT_FALSE(advice->both_ends);
    const auto twice = advise_fuse(plan, "run-10", solve_all(plan));
    ASSERT_TRUE(twice);
    EXPECT_GT(twice->must_cut_A, 2000) << "a lithium battery";
    EXPECT_TRUE(std::find(twice->kinds.begin(), twice->kinds.end(), FuseType::blade) == twice->kinds.end());
    EXPECT_EQ(advise_fuse(plan, "run-16", solve_all(plan)).error().code, ErrorCode::unknown_size);
}

TEST(GuardCurves, HoldWhatTheChartDraws) {
    const Plan plan = truck();
    const auto c = guard_curves(plan, "run-46", 5, solve_all(plan));  // sample fridge in Hoisting
    ASSERT_TRUE(c);
    ASSERT_GE(c->fuses.size(), 3U);
    EXPECT_EQ(c->fuses[0].role, CurveRole::own);
    EXPECT_EQ(std::count_if(c->fuses.begin(), c->fuses.end(),
                            [](const auto& f) { return f.role == CurveRole::upstream; }),
              2);
    for (std::size_t k = 1; k < c->damage.size(); ++k)
        EXPECT_GT(c->damage[k].first, c->damage[k - 1].first * (1 - 1e-9));
    EXPECT_GT(c->far_most_A, c->far_least_A);
    EXPECT_GT(c->near_most_A, c->far_most_A);
    EXPECT_EQ(*c->start_A, 12);
    // at short times no heat leaves: both curves meet
    const auto at_10ms = [](const CurvePoints& points) {
        return std::min_element(points.begin(), points.end(),
                                [](const auto& a, const auto& b) {
                                    return std::abs(std::log(a.second / 0.01)) <
                                           std::abs(std::log(b.second / 0.01));
                                })
            ->first;
    };
    EXPECT_NEAR(at_10ms(c->damage) / at_10ms(c->adiabatic), 1, 0.12)
        << "the insulation takes up some heat as well";
}

TEST(Starting, TheHoistDipsTheBusAndItsFuseHolds) {
    const Plan plan = truck();
    StartAsk ask;
    ask.state = 5;
    ask.starts = {"load-23"};
    const auto study = study_start(plan, ask);
    ASSERT_TRUE(study);
    EXPECT_TRUE(study->finished);
    EXPECT_LT(study->least_bus_V, study->before_V - 0.2);
    EXPECT_NEAR(study->total_A.back(), 88, 3) << "it runs at its stated current";
    EXPECT_NEAR(study->total_A.front(), 175, 25)
        << "and starts with its inrush, less what the volts have dipped";
    ASSERT_FALSE(study->fuses.empty());
    for (const FuseWarming& f : study->fuses) EXPECT_LT(f.used, 1) << f.device;
    EXPECT_TRUE(study->events.empty());
    for (std::size_t k = 1; k < study->t_s.size(); ++k) EXPECT_GE(study->t_s[k], study->t_s[k - 1]);
    ask.starts = {"nothing"};
    EXPECT_EQ(study_start(plan, ask).error().code, ErrorCode::missing_reference);
    ask = {};
    ask.seconds = 0;
    EXPECT_EQ(study_start(plan, ask).error().place, "seconds");
}

TEST(Starting, AContactorThatLetsGoIsToldWithItsTime) {
    // a coil beside its own contactor on one weak battery; the motor behind it pulls the volts down
    Plan plan = empty_plan("weak");
    plan.runs.clear();
    plan.loads.clear();
    plan.states.resize(1);
    Battery& battery = plan.batteries.front();
    battery.R0_ohm = 0.05;
    const auto add_load = [&](const Id& id, Draw draw, std::optional<double> inrush_A) {
        Load l;
        l.id = l.name = id;
        l.draw = draw;
        l.inrush_A = inrush_A;
        plan.loads.push_back(l);
        for (const bool feed : {true, false}) {
            yr::Run r;
            r.id = r.name = id + (feed ? "-feed" : "-return");
            r.from = feed ? pos_of(battery.id) : neg_of(id);
            r.to = feed ? pos_of(id) : neg_of(battery.id);
            r.length_m = 1;
            r.size = WireSize::awg(2);
            plan.runs.push_back(r);
        }
    };
    add_load("coil", {DrawKind::resistance, 11}, {});
    add_load("motor", {DrawKind::current, 5}, 4000.0);
    Device contactor;
    contactor.id = contactor.name = "contactor";
    contactor.kind = DeviceKind::switching;
    contactor.coil = "coil";
    thing(plan.runs, "motor-feed").devices.push_back(contactor);
    ASSERT_TRUE(validate(plan).empty());
    StartAsk ask;
    ask.starts = {"motor"};
    const auto study = study_start(plan, ask);
    ASSERT_TRUE(study);
    ASSERT_EQ(study->events.size(), 1U);
    EXPECT_EQ(study->events.front().device, "contactor");
    EXPECT_LT(study->events.front().volts, 3.6) << "30 % of 12 V";
    EXPECT_LT(study->events.front().t_s, 0.01);
    EXPECT_NE(words::sentence(*study, plan).find("contactor lets go"), std::string::npos);
    EXPECT_TRUE(study->finished);
    EXPECT_NEAR(study->total_A.back(), 0, 1e-3) << "nothing runs any more";
}

TEST(Ranges, TenThousandSamplesStayInsideAndTheEndsAreReached) {
    for (const std::uint32_t seed : {3U, 8U}) {
        RandomShape shape;
        shape.feeds = 2;
        shape.loads = 4;
        Plan plan = random_plan(seed, shape);
        plan.states.resize(1);
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> share(0.5, 1);
        int lengths = 0;
        for (yr::Run& r : plan.runs)
            if (r.length_m && !r.body_metal && !r.resistance_ohm && lengths++ < 6)
                r.length_least_m = *r.length_m * share(random);
        for (Load& l : plan.loads) l.draw_least = l.draw.value * share(random);
        plan.policy.joint_ageing = 4;
        plan.policy.air_K = 10;
        ASSERT_TRUE(validate(plan).empty()) << validate(plan).front().place;
        ASSERT_TRUE(has_ranges(plan));
        const StateBands bands = bands_of(plan, 0);
        std::vector<Band> seen(plan.loads.size(), {1e9, -1e9});
        OperatingPointSolver solver;
        std::uniform_real_distribution<double> any(0, 1);
        std::vector<double> values(ranged_values(plan));
        for (int n = 0; n < 5000; ++n) {
            // corners as often as insides, so that the ends are met
            for (double& v : values) v = n % 2 ? any(random) : (any(random) < 0.5 ? 0.0 : 1.0);
            const Solution s = solve_within(plan, 0, values, solver);
            for (std::size_t l = 0; l < plan.loads.size(); ++l) {
                if (s.point.loads[l].status != LoadStatus::on || bands.drop_V[l].most <= 0) continue;
                const double drop = s.point.loads[l].drop_V;
                EXPECT_GE(drop, bands.drop_V[l].least - 1e-6) << seed << ' ' << plan.loads[l].name;
                EXPECT_LE(drop, bands.drop_V[l].most + 1e-6) << seed << ' ' << plan.loads[l].name;
                EXPECT_LE(s.point.loads[l].voltage_V, bands.load_V[l].most + 1e-6);
                EXPECT_GE(s.point.loads[l].voltage_V, bands.load_V[l].least - 1e-6);
                seen[l].least = std::min(seen[l].least, drop);
                seen[l].most = std::max(seen[l].most, drop);
            }
        }
        for (std::size_t l = 0; l < plan.loads.size(); ++l) {
            if (seen[l].most < 0) continue;
            EXPECT_GT(seen[l].most, bands.drop_V[l].least);
            EXPECT_LT(seen[l].least, bands.drop_V[l].most);
        }
    }
}

TEST(Ranges, EndsAreAttainedByAPointOfTheBox) {
    Plan plan = truck();
    plan.states = {plan.states[4]};
    thing(plan.runs, "run-34").length_least_m = 3.0;
    thing(plan.runs, "run-35").length_least_m = 3.0;
    thing(plan.loads, "load-8").draw_least = 3.5;
    plan.policy.joint_ageing = 3;
    const StateBands bands = bands_of(plan, 0);
    EXPECT_TRUE(bands.proved);
    double least = 1e9, most = -1e9;
    OperatingPointSolver solver;
    for (int bits = 0; bits < 16; ++bits) {  // every corner
        std::vector<double> corner;
        for (int k = 0; k < 4; ++k) corner.push_back((bits >> k) & 1);
        const double drop = solve_within(plan, 0, corner, solver).point.loads[7].drop_V;
        least = std::min(least, drop);
        most = std::max(most, drop);
    }
    EXPECT_NEAR(bands.drop_V[7].least, least, 0.01 * least);
    EXPECT_NEAR(bands.drop_V[7].most, most, 0.01 * most);
    EXPECT_LT(bands.drop_V[7].least, 0.7 * bands.drop_V[7].most);
}

TEST(Ranges, AWorstCornerOverTheLimitIsAFinding) {
    Plan plan = truck();
    EXPECT_FALSE(found(plan, FindingKind::range_over));
    plan.policy.joint_ageing = 20;
    plan.policy.air_K = 15;
    const auto f = found(plan, FindingKind::range_over);
    ASSERT_TRUE(f);
    EXPECT_GT(f->value, f->limit);
}

TEST(PlanFile, KeepsRangesPinsStockAndBolts) {
    Plan plan = truck();
    plan.policy.stock = {{WireSize::metric(25), 10}, {WireSize::awg(8), 6}};
    plan.policy.air_K = 8;
    plan.policy.joint_ageing = 3;
    thing(plan.runs, "run-34").length_least_m = 4;
    thing(plan.runs, "run-34").bend_mm = 40;
    thing(plan.loads, "load-8").draw_least = 4;
    thing(plan.loads, "load-17").start = StartKind::lamp;
    const auto again = plan_from_json_text(to_json_text(plan));
    ASSERT_TRUE(again);
    EXPECT_EQ(*again, plan);
    std::string text = to_json_text(plan);
    text.replace(text.find("25 mm"), 2, "xx");
    const auto bad = plan_from_json_text(text);
    ASSERT_FALSE(bad);
    EXPECT_EQ(bad.error().place, "policy, stock, size");
    thing(plan.runs, "run-34").length_least_m = 50;
    EXPECT_FALSE(validate(plan).empty());
}

// A fuse in a cable with a diode cuts it like any other: what was through it is gone when it has opened.
TEST(Shorts, AnOpenedFuseCutsACableWithADiode) {
    Plan plan = empty_plan("isolated");
    Point stud;
    stud.id = stud.name = "stud", stud.kind = PointKind::stud;
    plan.points.push_back(stud);
    yr::Run r;
    r.id = r.name = "one way", r.from = "battery-1.pos", r.to = "stud", r.length_m = 2,
    r.size = WireSize::awg(4);
    Device fuse, isolator;
    fuse.id = fuse.name = "fuse", fuse.fuse = FuseType::bolt, fuse.rating_A = 60, fuse.at_m = 0.1;
    isolator.id = isolator.name = "isolator", isolator.kind = DeviceKind::diode, isolator.forward_V = 0.05;
    r.devices = {fuse, isolator};
    plan.runs.push_back(r);
    const auto solutions = solve_all(plan);
    const FaultStudy study = study_run(plan, solutions, plan.runs.size() - 1, true);
    ASSERT_FALSE(study.rows.empty());
    for (const ShortRow& row : study.rows) {
        if (!study.places[row.place].device.empty()) continue;
        EXPECT_TRUE(row.clears()) << row.stays_A;
        EXPECT_EQ(row.slowest.devices.size(), 1U);
        EXPECT_LT(*row.slowest.seconds, 1);
    }
}

}  // namespace
}  // namespace yr::test
