// Each mistake that was left in the truck is found, and each mend that is offered clears its finding.
#include <gtest/gtest.h>

#include <cmath>

#include <algorithm>

#include "inspect/findings.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

const Finding* find_kind(const Inspection& i, FindingKind kind, const std::string& name, const Plan& plan) {
    for (const Finding& f : i.findings)
        if (f.kind == kind && name_of(plan, f.id) == name) return &f;
    return nullptr;
}

TEST(Inspect, TheTrucksMistakesAreFound) {
    const Inspection i = inspect(truck());
    const std::tuple<FindingKind, const char*, Severity> mistakes[] = {
        {FindingKind::fuse_missing, "charge cable", Severity::stop},
        {FindingKind::fuse_above_cable, "deck light feed", Severity::stop},
        {FindingKind::fuse_far, "hoist feed", Severity::fix},
        {FindingKind::return_thinner, "davit hoist return", Severity::fix},
        {FindingKind::constant_on_key_rail, "data logger", Severity::fix},
        {FindingKind::drop_over_limit, "echo sounder", Severity::fix},
        {FindingKind::supply_short, "starter battery", Severity::fix}};
    for (const auto& [kind, name, severity] : mistakes) {
        const Finding* f = find_kind(i, kind, name, truck());
        ASSERT_NE(f, nullptr) << name;
        EXPECT_EQ(f->severity, severity) << name;
        EXPECT_FALSE(words::sentence(*f, truck()).empty());
        EXPECT_FALSE(words::rule_of(*f, truck()).source.empty());
    }
    EXPECT_TRUE(std::is_sorted(i.findings.begin(), i.findings.end(),
                               [](const Finding& a, const Finding& b) { return a.severity < b.severity; }));
}

TEST(Inspect, EveryMendClearsItsFinding) {
    for (const char* demo : kDemos) {
        const Plan plan = *load_plan(demo_path(demo));
        int mends = 0;
        for (const Finding& f : inspect(plan).findings) {
            if (!f.mend) continue;
            ++mends;
            Plan changed = plan;
            ASSERT_TRUE(yr::apply(changed, f.mend->edit)) << words::sentence(f, plan);
            for (const Finding& after : inspect(changed, false).findings)
                EXPECT_FALSE(after.kind == f.kind && after.id == f.id && after.other == f.other &&
                             after.state == f.state)
                    << words::sentence(f, plan) << " still there after " << words::mend_label(f, plan);
        }
        if (demo == kDemos[0]) EXPECT_GE(mends, 6);
    }
}

TEST(Inspect, SupplyShortNamesTheHours) {
    const Inspection i = inspect(truck());
    for (const Finding& f : i.findings) {
        if (f.kind != FindingKind::supply_short || f.state != "state-idle") continue;
        const Battery& b = truck().batteries[0];
        // Peukert, t = H (C / (I H))^n with n = 1.12 of an AGM battery: time for the whole charge, and of
        // that the share
        const double amps = f.average.value_or(f.value);
        EXPECT_LT(amps, f.value) << "its fridge rests three parts of five";
        const double whole = 20 * std::pow(*b.capacity_Ah / (amps * 20), 1.12);
        // as the battery falls its volts do, and it gives more: a little less than on the first amps
        EXPECT_LE(*f.hours, (*b.charge - 0.5) * whole);
        EXPECT_NEAR(*f.hours, (*b.charge - 0.5) * whole, 0.06);
    }
}

TEST(Inspect, TheCartsConverterLimitIsNamed) {
    const Plan cart = *load_plan(demo_path(kDemos[2]));
    const Inspection i = inspect(cart);
    const Finding* f = find_kind(i, FindingKind::converter_over, "converter 48 to 12 V", cart);
    ASSERT_NE(f, nullptr);
    EXPECT_EQ(f->limit, 30);
    EXPECT_GT(f->value, 30);
    EXPECT_EQ(find_kind(i, FindingKind::no_operating_point, "hopper actuator", cart), nullptr)
        << "told once, of the converter";
    EXPECT_NE(find_kind(i, FindingKind::constant_on_key_rail, "fleet tracker", cart), nullptr);
}

TEST(Inspect, ACleanPlanHasNothingToStopOrFix) {
    const Plan plan = empty_plan("clean");
    for (const Finding& f : inspect(plan).findings)
        EXPECT_GE(f.severity, Severity::check) << words::sentence(f, plan);
}

TEST(Inspect, CableOverItsTableIsAStopWithAThickerSize) {
    Plan plan = empty_plan("over");
    plan.loads.push_back({"l", "heater", 1, {DrawKind::current, 50}, {}, {}, false, {}, false, {}, {}});
    yr::Run r;
    r.id = "a", r.name = "heater feed", r.from = "point-bus", r.to = "l.pos", r.length_m = 0.3,
    r.size = WireSize::awg(12);
    r.devices.push_back({"f", "fuse", DeviceKind::fuse, 0.0, FuseType::bolt, 70, {}, {}});
    plan.runs.push_back(r);
    r.id = "b", r.name = "heater return", r.from = "l.neg", r.to = "battery-1.neg", r.size = WireSize::awg(4),
    r.devices.clear();
    plan.runs.push_back(r);
    const Inspection i = inspect(plan);
    const Finding* f = find_kind(i, FindingKind::cable_over_ampacity, "heater feed", plan);
    ASSERT_NE(f, nullptr);
    EXPECT_EQ(f->severity, Severity::stop);
    EXPECT_NEAR(f->limit, 45, 1e-9);
    EXPECT_EQ(words::mend_label(*f, plan), "12 → 10\u2009AWG");
}

TEST(Inspect, RandomPlansNeverBreakIt) {
    for (std::uint32_t seed = 1; seed <= 30; ++seed) {
        const Plan plan = random_plan(seed);
        for (const Finding& f : inspect_with_candidates(plan).findings)
            EXPECT_FALSE(words::sentence(f, plan).empty());
    }
}

}  // namespace
}  // namespace yr::test
