// A vehicle with rails of two voltages: every share of the nominal volts goes by those of the rail that a
// thing hangs on.
#include <gtest/gtest.h>

#include "catalog/assumptions.h"
#include "catalog/fuses.h"
#include "inspect/findings.h"
#include "plan/rail_volts.h"
#include "plan/validate.h"
#include "size/plan_fuse.h"
#include "size/run_ladder.h"
#include "size/run_limits.h"
#include "support/findings.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

// A cart of 48 V with lamps on a converter of 13.6 V; the vehicle's own volts said as 48 or as 12.
Plan cart_said_as(double vehicle_V) {
    Plan plan = cart(3).plan;
    for (Battery& b : plan.batteries) b.nominal_V = 48;
    plan.vehicle.nominal_V = vehicle_V;
    return plan;
}

const Load& named(const Plan& plan, const std::string& name) {
    return *std::find_if(plan.loads.begin(), plan.loads.end(), [&](const Load& l) { return l.name == name; });
}

TEST(TwoRails, VoltsAreThoseOfTheRailWhateverTheVehicleIsSaidToHave) {
    for (const double vehicle_V : {12.0, 48.0}) {
        const Plan plan = cart_said_as(vehicle_V);
        EXPECT_DOUBLE_EQ(rail_V(plan, named(plan, "lamps")), 12) << "13.6 V stands for 12";
        EXPECT_DOUBLE_EQ(rail_V(plan, named(plan, "drive controller")), 48);
        EXPECT_DOUBLE_EQ(rail_V(plan, in_of("dcdc")), 48);
        EXPECT_DOUBLE_EQ(rail_V(plan, Terminal("nowhere")), vehicle_V);
    }
}

// ABYC E-11 and ISO 10133 give drops as shares of the circuit's own nominal volts (3 % and 10 %, from
// memory).
TEST(TwoRails, DropIsAShareOfItsOwnRail) {
    for (const double vehicle_V : {12.0, 48.0}) {
        Plan plan = cart_said_as(vehicle_V);
        Load& lamps = thing(plan.loads, named(plan, "lamps").id);
        lamps.drop_limit = 0.03;
        EXPECT_DOUBLE_EQ(drop_limit_V(plan, lamps), 0.36);
        lamps.drop_limit.reset(), lamps.critical = false;
        EXPECT_DOUBLE_EQ(drop_limit_V(plan, lamps),
                         12 * plan.policy.drop_other.value_or(assumption("load_drop_other").value));
        // on a thin long cable one volt is lost: much of 12 V, little of 48 V
        yr::Run& cable = thing(plan.runs, supply_run(plan, lamps.id)->id);
        cable.size = WireSize::awg(18), cable.length_m = 14;
        EXPECT_TRUE(found(plan, FindingKind::drop_over_limit, lamps.id));
    }
}

TEST(TwoRails, WattsAreAmpsOfItsOwnRail) {
    for (const double vehicle_V : {12.0, 48.0}) {
        Plan plan = cart_said_as(vehicle_V);
        Load& lamps = thing(plan.loads, named(plan, "lamps").id);
        lamps.draw = {DrawKind::power, 60}, lamps.count = 1;
        EXPECT_DOUBLE_EQ(nominal_A(plan, lamps), 5);
        Load& drive = thing(plan.loads, named(plan, "drive controller").id);
        drive.draw = {DrawKind::power, 2400};
        EXPECT_DOUBLE_EQ(nominal_A(plan, drive), 50);
    }
}

// ISO 8820-3: blades are made for 32 V or 58 V and the usual ones for 32 V (from memory).
TEST(TwoRails, AFuseOfALowRailOnAHighOneIsToldAndMended) {
    for (const double vehicle_V : {12.0, 48.0}) {
        Plan plan = cart_said_as(vehicle_V);
        EXPECT_FALSE(found(plan, FindingKind::fuse_volts));
        Id run;
        for (yr::Run& r : plan.runs)
            for (Device& d : r.devices)
                if (d.kind == DeviceKind::fuse && r.to == in_of("dcdc")) d.fuse = FuseType::blade, run = r.id;
        ASSERT_FALSE(run.empty());
        const auto f = found(plan, FindingKind::fuse_volts, run);
        ASSERT_TRUE(f);
        EXPECT_EQ(f->severity, Severity::stop);
        EXPECT_DOUBLE_EQ(f->value, 48);
        EXPECT_DOUBLE_EQ(f->limit, 32);
        ASSERT_TRUE(f->mend) << "a kind that is made for it";
        ASSERT_TRUE(yr::apply(plan, f->mend->edit));
        EXPECT_FALSE(found(plan, FindingKind::fuse_volts));
        EXPECT_GE(fuse_kind(find_device(plan, f->other)->fuse).rated_V, 48);
        const auto advice = advise_fuse(plan, run, inspect(plan, false).solutions);
        ASSERT_TRUE(advice);
        EXPECT_FALSE(advice->kinds.empty());
        for (const FuseType type : advice->kinds) EXPECT_GE(fuse_kind(type).rated_V, 48);
    }
}

TEST(TwoRails, AnOrdinaryVehicleHasOne) {
    for (unsigned seed = 1; seed <= 40; ++seed) {
        const Plan plan = vehicle(seed).plan;
        for (const Load& l : plan.loads) EXPECT_DOUBLE_EQ(rail_V(plan, l), 12) << seed << ": " << l.name;
        EXPECT_FALSE(found(plan, FindingKind::fuse_volts)) << seed;
    }
}

// A label says its cells: 12.8 V is four of 3.2 V, and a battery of 12 V like any other.
TEST(TwoRails, ABatteryByItsLabelIsTheSameBattery) {
    const auto findings_of = [](const Plan& plan) {
        std::vector<std::string> told;
        for (const Finding& f : inspect(plan, false).findings)
            told.push_back(std::to_string(static_cast<int>(f.kind)) + f.id + f.other + f.state +
                           std::to_string(f.value));
        return told;
    };
    int labelled = 0;
    for (unsigned seed = 0; seed < 12; ++seed) {
        Plan as_rail = vehicle(seed).plan;
        for (Battery& b : as_rail.batteries) b.chemistry = Chemistry::lifepo4;
        Plan by_label = as_rail;
        for (Battery& b : by_label.batteries) {
            b.nominal_V = battery_V(as_rail, b) * 12.8 / 12;
            ++labelled;
            EXPECT_DOUBLE_EQ(battery_V(by_label, b), battery_V(as_rail, b)) << *b.nominal_V;
        }
        EXPECT_EQ(findings_of(by_label), findings_of(as_rail)) << seed;
    }
    EXPECT_GT(labelled, 12);
    Battery eight;
    eight.nominal_V = 8;
    EXPECT_DOUBLE_EQ(battery_V(vehicle(0).plan, eight), 8);
    eight.nominal_V = 12.4;  // what stands a little above its rest is no label
    EXPECT_DOUBLE_EQ(battery_V(vehicle(0).plan, eight), 12.4);
}

}  // namespace
}  // namespace yr::test
