// Options of one plan: stored as what differs, shown, taken over, and compared.
#include <gtest/gtest.h>

#include <random>

#include "inspect/compare.h"
#include "inspect/worst.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "plan/variant.h"
#include "size/run_limits.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

// Random changes of the kinds a person makes.
Plan changed_at_random(Plan plan, std::uint32_t seed) {
    std::mt19937 random(seed);
    for (int k = 0; k < 6; ++k) {
        const auto any = [&](auto& list) -> auto& {
            return list[random() % list.size()];
        };
        switch (random() % 5) {
            case 0:
                any(plan.runs).length_m = 0.5 + static_cast<double>(random() % 50) / 10;
                break;
            case 1:
                any(plan.loads).count += 1;
                break;
            case 2:
                any(plan.states).rpm += 10;
                break;
            case 3: {
                Load l = any(plan.loads);
                l.id = new_id(plan, "load");
                plan.loads.push_back(l);
                break;
            }
            default: {
                const Id id = any(plan.loads).id;
                std::erase_if(plan.runs, [&](const yr::Run& r) {
                    return owner_of(r.from) == id || owner_of(r.to) == id;
                });
                std::erase_if(plan.loads, [&](const Load& l) { return l.id == id; });
                for (yr::Run& r : plan.runs)
                    for (Device& d : r.devices)
                        if (d.coil == id) d.coil.clear();
            }
        }
    }
    return plan;
}

// What a variant brings stands where the plan has it, or at the end: the order is no part of it.
Plan in_order(Plan plan) {
    const auto sort = [](auto& list) {
        std::sort(list.begin(), list.end(), [](const auto& a, const auto& b) { return a.id < b.id; });
    };
    sort(plan.runs), sort(plan.loads), sort(plan.states);
    return plan;
}

TEST(Variants, DifferenceGivesTheChangedPlanBack) {
    const Plan base = with_variant(truck(), {});
    for (std::uint32_t seed = 1; seed <= 60; ++seed) {
        const Plan changed = changed_at_random(base, seed);
        Plan stored = base;
        stored.variants = {difference(base, changed, "v", "other")};
        EXPECT_EQ(in_order(with_variant(stored, "v")), in_order(changed)) << seed;
        EXPECT_EQ(with_variant(stored, {}), base);
        Variant nothing;
        nothing.id = "v", nothing.name = "same";
        EXPECT_EQ(difference(base, base, "v", "same"), nothing);
    }
}

TEST(Variants, TheChosenOneBecomesThePlanAndTheOthersStayWhatTheyWere) {
    Plan stored = truck();
    stored.active = "variant-alternator";
    const Plan chosen = with_variant(stored, stored.active), relay = with_variant(stored, "variant-relay"),
               before = with_variant(stored, {});
    ASSERT_TRUE(yr::apply(stored, plan_becomes(stored, chosen)));
    EXPECT_TRUE(stored.active.empty());
    EXPECT_EQ(with_variant(stored, {}), chosen);
    EXPECT_EQ(with_variant(stored, "variant-relay").sources, relay.sources);
    EXPECT_EQ(with_variant(stored, "variant-relay").runs, relay.runs);
    EXPECT_EQ(with_variant(stored, "variant-alternator"), before) << "the plan as it was stays as an option";
}

TEST(Variants, AVariantThatCannotBeIsRefusedByName) {
    Plan stored = truck();
    Variant v;
    v.id = "bad", v.name = "no battery";
    v.removed = {"engine"};  // the alternator is bolted to it
    const auto error = yr::apply(stored, Put<Variant>{v, {}});
    ASSERT_FALSE(error);
    EXPECT_NE(error.error().place.find("no battery"), std::string::npos) << error.error().place;
    EXPECT_EQ(stored, truck());
}

TEST(Variants, ALoadAddedLaterDoesNotMakeAnOlderVariantImpossible) {
    Plan stored = truck();
    Load l;
    l.id = "kettle", l.name = l.id, l.inverter = "inverter", l.draw = {DrawKind::power, 900};
    ASSERT_TRUE(yr::apply(stored, Put<Load>{l, {}}));
    EXPECT_EQ(find(with_variant(stored, "variant-native").loads, "kettle"), nullptr)
        << "it has no inverter there";
    EXPECT_NE(find(with_variant(stored, {}).loads, "kettle"), nullptr);
}

TEST(Variants, AreKeptInTheFileAndRunThroughTheSolver) {
    const Plan plan = truck();
    ASSERT_GE(plan.variants.size(), 4U);
    EXPECT_EQ(*plan_from_json_text(to_json_text(plan)), plan);
    for (const Variant& v : plan.variants)
        for (const Solution& s : solve_all(with_variant(plan, v.id))) {
            EXPECT_TRUE(s.point.settled) << v.name;
            EXPECT_TRUE(s.point.residuals.good()) << v.name;
        }
}

TEST(Compare, ABiggerAlternatorAndHighIdleClearTheShortfall) {
    const auto options = compare_options(truck());
    ASSERT_EQ(options.size(), truck().variants.size() + 1);
    const auto of = [&](const char* id) {
        return *std::find_if(options.begin(), options.end(), [&](const auto& o) { return o.variant == id; });
    };
    EXPECT_LT(*options[0].idle_A.value, -20) << "as planned the battery gives at idle";
    EXPECT_GE(*of("variant-alternator").idle_A.value, 0);
    EXPECT_GE(*of("variant-idle").idle_A.value, 0);
    EXPECT_GT(*of("variant-alternator").drive_A.value, *options[0].drive_A.value + 20);
    EXPECT_NEAR(*of("variant-alternator").added_cost, 690 - 420, 1e-9)
        << "its own price against the old one's";
    EXPECT_GT(of("variant-relay").added_copper_kg, 0.5)
        << "four metres of 1/0 against two thin chargers' cables";
    EXPECT_LT(of("variant-native").fixes, options[0].fixes) << "no inverter, no modified sine";
    // balance at idle by hand: what both batteries give
    const Solution s = solve(truck(), *find_state(truck(), "Idling"));
    double gives = 0;
    for (const BatteryResult& b : s.point.batteries) gives += std::max(0.0, b.current_A);
    EXPECT_NEAR(*options[0].idle_A.value, -gives, 1e-9);
}

TEST(WorstStates, AreTheWorstOfEveryState) {
    const Plan plan = truck();
    const auto solutions = solve_all(plan);
    for (const WorstLoad& w : worst_loads(plan, solutions)) {
        if (!w.state || w.fails) continue;
        for (std::size_t s = 0; s < solutions.size(); ++s) {
            const LoadResult& r = solutions[s].point.loads[w.load];
            if (plan.states[s].key == Key::crank && !plan.loads[w.load].starter) continue;
            EXPECT_LE(r.drop_V, w.drop_V + 1e-12) << plan.loads[w.load].name << " in " << plan.states[s].name;
        }
    }
    for (const WorstRun& w : worst_runs(plan, solutions)) {
        if (!w.state || w.allowed_A <= 0) continue;
        for (std::size_t s = 0; s < solutions.size(); ++s) {
            if (plan.states[s].key == Key::crank) continue;
            const double share = std::abs(solutions[s].point.conductors[w.run].current_A) /
                                 run_ampacity(plan, plan.runs[w.run], plan.states[s])->allowed_A;
            EXPECT_LE(share, w.current_A / w.allowed_A + 1e-12) << plan.runs[w.run].name;
        }
    }
}

}  // namespace
}  // namespace yr::test
