// Mends closed many at once are mends that close alone.
#include <gtest/gtest.h>

#include <random>

#include "inspect/close_together.h"
#include "inspect/rules.h"
#include "support/findings.h"
#include "support/random_plan.h"
#include "support/sweep.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

yr::Run& run_of(Plan& plan, const Id& id) {
    return *std::find_if(plan.runs.begin(), plan.runs.end(), [&](const yr::Run& r) { return r.id == id; });
}

std::size_t mended(const std::vector<Finding>& findings) {
    return static_cast<std::size_t>(
        std::count_if(findings.begin(), findings.end(), [](const Finding& f) { return f.mend.has_value(); }));
}

void expect_closed_alone(const Plan& plan, const std::vector<Finding>& before,
                         const std::vector<Finding>& after) {
    for (std::size_t k = 0; k < after.size(); ++k)
        if (after[k].mend)
            EXPECT_TRUE(closes(plan, before, before[k], after[k].mend->edit))
                << plan.vehicle.name << ": " << static_cast<int>(before[k].kind) << " at " << before[k].id;
}

// A bus behind a fuse of 10 A that carries 18 A, and on it a cable of 18 AWG, too thin for its drop. A fuse
// of 25 A is right once that cable is thicker, and a fire before.
Plan fuse_and_thin_branch() {
    Plan plan = wide_plan(2);
    Device fuse;
    fuse.id = fuse.name = "bus fuse", fuse.kind = DeviceKind::fuse, fuse.rating_A = 10, fuse.at_m = 0.1;
    run_of(plan, "fr0").devices.push_back(fuse);
    plan.loads[0].draw = {DrawKind::current, 14};
    plan.loads[1].draw = {DrawKind::current, 4};
    for (const char* cable : {"sl0", "tl0", "tl1"}) run_of(plan, cable).size = WireSize::awg(10);
    run_of(plan, "sl0").length_m = run_of(plan, "tl0").length_m = 1;
    run_of(plan, "sl1").size = WireSize::awg(18);
    run_of(plan, "sl1").length_m = run_of(plan, "tl1").length_m = 12;
    return plan;
}

TEST(CloseTogether, NoMendPassesOnlyBesideAnother) {
    const Plan plan = fuse_and_thin_branch();
    Inspection told = inspect_with_candidates(plan);
    std::vector<Finding>& findings = told.findings;
    const std::vector<Finding> before = findings;
    const auto of = [](std::vector<Finding>& list, FindingKind kind) {
        return std::find_if(list.begin(), list.end(), [&](const Finding& f) { return f.kind == kind; });
    };
    const auto drop = of(findings, FindingKind::drop_over_limit),
               fuse = of(findings, FindingKind::fuse_loaded);
    ASSERT_TRUE(drop != findings.end() && fuse != findings.end());
    // both at once leave nothing: the trap
    Plan both = plan;
    ASSERT_TRUE(yr::apply(both, fuse->candidates.front().edit));
    ASSERT_TRUE(yr::apply(both, drop->candidates.front().edit));
    ASSERT_TRUE(new_or_worse(before, inspect(both, false).findings).empty());

    close_together(plan, told);
    EXPECT_TRUE(drop->mend);
    EXPECT_FALSE(fuse->mend) << "each of its fuses is above the thin cable";
    expect_closed_alone(plan, before, findings);
}

// A vehicle in which one run of six is wrong in some way.
Plan spoilt(unsigned seed) {
    Plan plan = vehicle(seed).plan;
    std::mt19937 random(seed);
    for (yr::Run& run : plan.runs) {
        if (random() % 6) continue;
        const auto way = random() % 3;
        if (way == 0 && run.size && run.size->system() == SizeSystem::awg) run.size = WireSize::awg(18);
        for (Device& d : run.devices)
            if (way == 1 && d.kind == DeviceKind::fuse) d.rating_A *= 3;
        if (way == 2) std::erase_if(run.devices, [](const Device& d) { return d.kind == DeviceKind::fuse; });
    }
    return plan;
}

TEST(CloseTogether, OffersOnVehiclesWhatClosesAlone) {
    std::size_t alone = 0, together = 0;
    for (unsigned seed = 1; seed <= sweep(6U, 60U); ++seed) {
        const Plan plan = spoilt(seed);
        Inspection one_by_one = inspect_with_candidates(plan);
        Inspection told = one_by_one;
        const std::vector<Finding> before = told.findings;
        close_together(plan, told);
        expect_closed_alone(plan, before, told.findings);
        for (Finding& f : one_by_one.findings) close_mend(plan, before, f);
        alone += mended(one_by_one.findings);
        together += mended(told.findings);
    }
    EXPECT_GT(alone, 10U);
    EXPECT_GE(static_cast<double>(together), 0.95 * static_cast<double>(alone));
}

// A plan without one fuse: each is offered though the others are still missing.
TEST(CloseTogether, EveryMissingFuseOfALargePlan) {
    const Plan plan = wide_plan(100);
    std::vector<Finding> before = inspect_with_candidates(plan).findings;
    const Inspection told = inspect(plan, true);
    std::size_t missing = 0;
    for (std::size_t k = 0; k < told.findings.size(); ++k) {
        if (told.findings[k].kind != FindingKind::fuse_missing) continue;
        EXPECT_TRUE(told.findings[k].mend) << told.findings[k].id;
        if (missing++ % 20 == 0 && told.findings[k].mend)
            EXPECT_TRUE(closes(plan, before, before[k], told.findings[k].mend->edit));
    }
    EXPECT_GE(missing, 100U);
}

// Mended one after the other, less is wrong each time: no run is told twice of the fuse that it lacks.
TEST(CloseTogether, FusesOneByOneLeaveLessEachTime) {
    Plan plan = wide_plan(20);
    const auto bad = [](const Finding& f) { return f.severity <= Severity::fix; };
    std::ptrdiff_t left = 1000, steps = 0;
    for (;; ++steps) {
        const std::vector<Finding> told = inspect(plan, true).findings;
        const auto now = std::count_if(told.begin(), told.end(), bad);
        ASSERT_LT(now, left);
        left = now;
        const auto next = std::find_if(told.begin(), told.end(),
                                       [&](const Finding& f) { return bad(f) && f.mend.has_value(); });
        if (next == told.end()) break;
        ASSERT_TRUE(yr::apply(plan, next->mend->edit));
    }
    EXPECT_GE(steps, 20) << "a fuse for each of the loads at least";
}

TEST(CloseTogether, EndsWhenItIsToldTo) {
    const Plan plan = wide_plan(100);
    Inspection told = inspect_with_candidates(plan);
    const std::atomic<bool> cancel{true};
    close_mends(plan, told, &cancel);
    EXPECT_EQ(mended(told.findings), 0U);
}

}  // namespace
}  // namespace yr::test
