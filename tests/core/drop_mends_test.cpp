// A cable so thin that its load cannot work at all: the mend is a cable, and nothing is worse with it.
#include <gtest/gtest.h>

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

}  // namespace
}  // namespace yr::test
