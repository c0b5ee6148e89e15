// A cable so thin that its load cannot work at all: the mend is a cable, and nothing is worse with it.
#include <gtest/gtest.h>

#include <optional>

#include "catalog/conductors.h"
#include "inspect/findings.h"
#include "support/findings.h"
#include "support/typed_page.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

const Finding* collapse(const Inspection& found) {
    for (const Finding& f : found.findings)
        if (f.kind == FindingKind::no_operating_point) return &f;
    return nullptr;
}

// How many collapses one after another have a mend; with each nothing is worse.
int mended(Plan plan) {
    int mends = 0;
    for (Inspection found = inspect(plan, true); mends < 5; found = inspect(plan, true)) {
        const Finding* f = collapse(found);
        if (!f || !f->mend) break;
        const Edit mend = f->mend->edit;
        EXPECT_TRUE(made_worse(plan, mend).empty());
        if (!yr::apply(plan, mend)) break;
        ++mends;
    }
    return mends;
}

TEST(DropMends, ALoadThatCollapsesIsGivenItsCables) {
    EXPECT_EQ(mended(typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\nwork lights 20 A, 12 m, 18 AWG\n"
                                "fans 8 A on ignition, 9 m, 14 AWG\n")),
              1);
}

TEST(DropMends, SoIsALoadOfWholeVehicles) {
    int collapsed = 0, with_mend = 0;
    for (unsigned seed = 0; seed < 5; ++seed) {
        const Plan vehicles = vehicle(seed).plan;
        for (const Load& l : vehicles.loads) {
            if (l.starter || !l.inverter.empty() || !supply_run(vehicles, l.id)->size) continue;
            Plan plan = vehicles;
            for (yr::Run& r : plan.runs)
                if (r.to == pos_of(l.id) || r.from == neg_of(l.id)) r.size = WireSize::awg(30);
            if (!collapse(inspect(plan, false))) continue;
            ++collapsed;
            with_mend += mended(plan) > 0;
        }
    }
    EXPECT_GE(collapsed, 8);
    EXPECT_GE(with_mend, collapsed * 3 / 4) << "of " << collapsed;
}

// What it takes at full pull says nothing of the cable that its drop asks for at a third of it.
TEST(DropMends, AWinchIsMendedByThePullOfTheState) {
    Plan plan =
        typed_page("truck 12 V\nbattery 95 Ah\nalternator 120 A\nrope drum 134 A always, 6 m, 4 AWG\n");
    ASSERT_EQ(plan.loads.size(), 1u);
    plan.loads[0].line_curve = {{0, 20}, {0.3, 134}, {1, 400}};
    for (State& state : plan.states) state.line_load = 0.3;
    int drops = 0;
    for (const Finding& f : inspect(plan, true).findings) {
        if (f.kind != FindingKind::drop_over_limit) continue;
        ++drops;
        ASSERT_TRUE(f.mend);
        // one step less would not do: no size was passed over
        Plan thinner = plan;
        ASSERT_TRUE(yr::apply(thinner, f.mend->edit));
        for (std::size_t k = 0; k < plan.runs.size(); ++k)
            if (!(thinner.runs[k] == plan.runs[k]))
                thinner.runs[k].size = step_size(*thinner.runs[k].size, -1);
        EXPECT_TRUE(found(thinner, FindingKind::drop_over_limit, f.id)) << name_of(*f.mend->to);
    }
    EXPECT_GE(drops, 1);
}

double copper_kg(const Plan& plan) {
    double kg = 0;
    for (const yr::Run& r : plan.runs)
        if (r.size) kg += conductor(*r.size, r.material)->mass_kg_per_m * r.length_m.value_or(1) * r.parallel;
    return kg;
}

// One cable of a pair so thick that it makes up for the other is more copper than two of the size that both
// want.
TEST(DropMends, APairThatIsTooThinIsMadeThickerBothWays) {
    Plan plan =
        typed_page("truck 12 V\nbattery 95 Ah\nalternator 120 A\nwork lamps 12 A always, 3 m, 18 AWG\n");
    ASSERT_EQ(plan.loads.size(), 1u);
    for (yr::Run& r : plan.runs)
        for (Device& d : r.devices)
            if (r.to == pos_of(plan.loads[0].id)) d.rating_A = 20;
    const auto drop = [&] {
        for (const Finding& f : inspect(plan, true).findings)
            if (f.kind == FindingKind::drop_over_limit) return std::optional(f);
        return std::optional<Finding>();
    }();
    ASSERT_TRUE(drop && drop->mend);
    EXPECT_EQ(drop->mend->kind, MendKind::two_sizes);
    Plan both = plan;
    ASSERT_TRUE(yr::apply(both, drop->mend->edit));
    for (const Terminal& end : {pos_of(plan.loads[0].id), neg_of(plan.loads[0].id)})
        for (int step = 1; step < 10; ++step) {
            Plan one = plan;
            for (yr::Run& r : one.runs)
                if (r.size && (r.to == end || r.from == end)) r.size = step_size(*r.size, step);
            if (found(one, FindingKind::drop_over_limit, plan.loads[0].id)) continue;
            EXPECT_GT(copper_kg(one), copper_kg(both)) << step;
            break;
        }
}

}  // namespace
}  // namespace yr::test
