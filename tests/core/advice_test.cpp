// Advice that one may follow: over whole vehicles, right ones and such with a known mistake.
#include <gtest/gtest.h>

#include <filesystem>
#include <iostream>
#include <random>
#include <set>

#include "catalog/assumptions.h"
#include "demand/demand.h"
#include "inspect/checked_sizing.h"
#include "notes/statement.h"
#include "plan/validate.h"
#include "solve/results.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "support/typed_page.h"
#include "support/vehicles.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

bool bad(const Finding& f) {
    return f.severity <= Severity::fix;
}

TEST(Advice, RightVehiclesHaveNoStopAndFewFixes) {
    int fixes = 0, vehicles = 0;
    for (unsigned seed = 0; seed < sweep(24U, 300U); ++seed) {
        const Plan plan = vehicle(seed).plan;
        ASSERT_TRUE(validate(plan).empty()) << words::sentence(validate(plan).front());
        ++vehicles;
        for (const Finding& f : inspect(plan, false).findings) {
            EXPECT_NE(f.severity, Severity::stop) << seed << ": " << words::sentence(f, plan);
            if (f.severity == Severity::fix)
                ++fixes, std::cout << seed << ": " << words::sentence(f, plan) << "\n";
        }
    }
    EXPECT_LT(fixes, vehicles * 0.2);
}

// Other kinds of vehicle hold too: a stator that cannot grow, 48 V with a converter.
TEST(Advice, SmallMachinesAndCartsHaveNoStopAndFewFixes) {
    int fixes = 0, vehicles = 0;
    for (unsigned seed = 0; seed < sweep(6U, 60U); ++seed)
        for (const TestVehicle& v : {small_machine(seed), cart(seed)}) {
            ASSERT_TRUE(validate(v.plan).empty()) << words::sentence(validate(v.plan).front());
            ++vehicles;
            for (const Finding& f : inspect(v.plan, false).findings) {
                EXPECT_NE(f.severity, Severity::stop) << v.plan.vehicle.name << words::sentence(f, v.plan);
                if (f.severity == Severity::fix)
                    ++fixes, std::cout << v.plan.vehicle.name << ": " << words::sentence(f, v.plan) << "\n";
            }
        }
    EXPECT_LT(fixes, vehicles * 0.2);
}

// Fuses that a change brings or alters carry the work behind them.
void expect_fuses_carry_work(const Plan& before, const Plan& after) {
    const auto demand = demand_of(after, solve_all(after));
    for (std::size_t k = 0; k < after.runs.size(); ++k)
        for (const Device& d : after.runs[k].devices) {
            const Device* was = find_device(before, d.id);
            if (d.kind != DeviceKind::fuse || (was && was->rating_A == d.rating_A)) continue;
            for (const DemandItem& i : demand[k].items)
                if (i.kind == DemandKind::turn && i.seconds >= 30)
                    EXPECT_GE(d.rating_A, i.amps * 0.999) << after.vehicle.name << ", " << d.name;
        }
}

// Work of half a minute and more is no start: whatever a fuse's curve holds, none of fewer amps is put before
// it.
TEST(Advice, NoFuseOfFewerAmpsThanWhatWorksBehindIt) {
    RunDemand works, starts;
    works.items = {{DemandKind::turn, "hoist", {}, 60, 120}};
    starts.items = {{DemandKind::turn, "hoist", {}, 60, 0.5}};
    int smaller = 0;
    for (const FuseType type : {FuseType::blade, FuseType::blade_large, FuseType::bolt, FuseType::strip,
                                FuseType::stud, FuseType::high, FuseType::breaker_3}) {
        EXPECT_GE(least_rating_A(works, fuse_kind(type)), 60);
        smaller += least_rating_A(starts, fuse_kind(type)) < 60;
    }
    EXPECT_GT(smaller, 3) << "for half a second they hold more than they say";
    // a hoist behind a fuse that is too small, on whole vehicles
    int mended = 0;
    for (unsigned seed = 0; seed < sweep(6U, 60U); ++seed) {
        Plan plan = vehicle(seed).plan;
        const Statement hoist =
            read_statement(plan, "yard hoist 60 A for 2 min on switch yard hoist, 4 m, fuse 30 A");
        ASSERT_TRUE(hoist.whole());
        ASSERT_TRUE(yr::apply(plan, *hoist.edit));
        plan.states.front().switches.push_back("yard hoist");
        for (const Finding& f : inspect(plan).findings) {
            if (!f.mend) continue;
            Plan after = plan;
            ASSERT_TRUE(yr::apply(after, f.mend->edit));
            expect_fuses_carry_work(plan, after);
            ++mended;
        }
    }
    EXPECT_GT(mended, 6);
}

// A cable that its fuse lets burn in some heat is only something to check, but no mend may bring it.
bool burns_no_hotter(const Finding& after, const std::vector<Finding>& before) {
    return after.kind != FindingKind::guards_not ||
           std::any_of(before.begin(), before.end(), [&](const Finding& b) {
               return same_place(after, b) && after.value <= b.value * 1.02;
           });
}

// An inverter whose cable its fuse hardly guards, and whose fuse is small: the larger fuse comes with a
// thicker cable.
TEST(Advice, ALargerFuseBringsTheCableThatItGuards) {
    const Plan plan = read_notes(
                          "camper van\nalternator 150 A\nstarter battery 95 Ah\nleisure battery 240 Ah AGM\n"
                          "dc-dc 40 A\ninverter 1000 W, 25 mm2 1.5 m, fuse 125 A\nlaptop 65 W on inverter\n")
                          .plan;
    const auto findings = inspect(plan).findings;
    int mended = 0;
    for (const Finding& f : findings) {
        if (!f.mend) continue;
        Plan changed = plan;
        ASSERT_TRUE(yr::apply(changed, f.mend->edit));
        mended += f.kind == FindingKind::guards_not || f.kind == FindingKind::fuse_loaded;
        for (const Finding& a : inspect(changed, false).findings)
            EXPECT_TRUE(burns_no_hotter(a, findings)) << words::sentence(a, changed);
    }
    EXPECT_GE(mended, 2);
}

// What no one cable of the table carries is laid once more beside it, and said so.
TEST(Advice, WhereNoCableIsThickEnoughOneMoreIsLaidBesideIt) {
    const Plan plan =
        read_notes(
            "truck\nalternator 220 A\nbattery 200 Ah\ninverter 5000 W\ndrill 800 W on inverter\n"
            "inverter cable 2x 120 mm2 1.2 m with 500 A class T\n")
            .plan;
    int beside = 0;
    for (const Finding& f : inspect(plan).findings) {
        if (f.kind != FindingKind::demand_over) continue;
        ASSERT_TRUE(f.mend) << words::sentence(f, plan);
        EXPECT_EQ(f.mend->kind, MendKind::side_by_side);
        EXPECT_NE(words::mend_label(f, plan).find("3 side by side"), std::string::npos);
        Plan after = plan;
        ASSERT_TRUE(yr::apply(after, f.mend->edit));
        EXPECT_EQ(find(after.runs, f.id)->parallel, 3);
        for (const Finding& a : inspect(after, false).findings)
            EXPECT_FALSE(a.kind == f.kind && a.id == f.id) << words::sentence(a, after);
        ++beside;
    }
    EXPECT_EQ(beside, 2) << "there and back";
}

// A cable fed from both ends has two fuses alike, and they stay alike.
TEST(Advice, TheFusesAtBothEndsOfALinkGoTogether) {
    const Plan plan = read_notes(
                          "ambulance\nalternator 200 A\nengine battery 100 Ah\nbox battery 240 Ah AGM, "
                          "sensing relay, 8 m, fuse 60 A both ends\n"
                          "radio 80 A always from box battery\n")
                          .plan;
    int mended = 0;
    for (const Finding& f : inspect(plan).findings) {
        const yr::Run* link = find(plan.runs, f.id);
        if (f.kind != FindingKind::fuse_loaded || !link || link->name != "link to box battery" || !f.mend)
            continue;
        Plan after = plan;
        ASSERT_TRUE(yr::apply(after, f.mend->edit));
        std::set<double> ratings;
        for (const Device& d : find(after.runs, f.id)->devices)
            if (d.kind == DeviceKind::fuse) ratings.insert(d.rating_A);
        EXPECT_EQ(ratings.size(), 1U);
        EXPECT_GT(*ratings.begin(), 60);
        ++mended;
    }
    EXPECT_EQ(mended, 2) << "each of them is told and mended by the same";
}

class AdviceOnMistakes : public testing::TestWithParam<int> {};

// The mistake is found, and what is offered clears it and makes nothing worse.
TEST_P(AdviceOnMistakes, AreFoundAndTheirMendsAreClosed) {
    const auto mistake = static_cast<Mistake>(GetParam());
    int found = 0, mended = 0, vehicles = 0, all = 0, closed = 0;
    for (unsigned seed = 0; seed < sweep(3U, 40U); ++seed) {
        const TestVehicle v = vehicle(seed + 100, mistake);
        ASSERT_TRUE(validate(v.plan).empty()) << words::sentence(validate(v.plan).front());
        ++vehicles;
        const Inspection i = inspect(v.plan);
        const yr::Run& run = *find(v.plan.runs, v.where);
        bool told = false, has_mend = false;
        for (const Finding& f : i.findings) {
            const bool here =
                f.id == v.where || f.id == run.to.owner || f.other == v.where ||
                (find(v.plan.runs, f.id) && find(v.plan.runs, f.id)->from == neg_of(run.to.owner));
            if (here && std::find(v.tells.begin(), v.tells.end(), f.kind) != v.tells.end() &&
                f.severity <= Severity::check)
                told = true, has_mend = has_mend || f.mend;
            if (bad(f)) ++all, closed += f.mend.has_value();
            if (!f.mend) continue;
            // judged here anew, not by what chose the mend
            Plan changed = v.plan;
            ASSERT_TRUE(yr::apply(changed, f.mend->edit));
            expect_fuses_carry_work(v.plan, changed);
            for (const Finding& a : inspect(changed, false).findings) {
                EXPECT_FALSE(same_place(a, f) && a.state == f.state) << seed << words::sentence(a, changed);
                EXPECT_TRUE(!bad(a) ||
                            std::any_of(i.findings.begin(), i.findings.end(),
                                        [&](const Finding& b) { return bad(b) && same_place(a, b); }))
                    << seed << ": new: " << words::sentence(a, changed);
                EXPECT_TRUE(burns_no_hotter(a, i.findings)) << seed << words::sentence(a, changed);
            }
        }
        if (!told)
            for (const Finding& f : i.findings)
                std::cout << seed << "   " << words::sentence(f, v.plan) << "\n";
        found += told;
        mended += has_mend;
    }
    EXPECT_EQ(found, vehicles) << "every one is told";
    EXPECT_GE(mended, vehicles * 0.9) << "and nearly every one has a change of one place that clears it";
    EXPECT_GE(closed, all * 0.8) << closed << " of " << all;
}

INSTANTIATE_TEST_SUITE_P(Seeds, AdviceOnMistakes, testing::Range(1, static_cast<int>(Mistake::count)));

// Pages of owners with cables thinner and fuses larger or smaller than they should be, at random: what is
// offered clears its finding and does no harm, and all of them sized anew make nothing worse.
TEST(Advice, OnSpoiltPagesDoesNoHarm) {
    std::vector<std::string> files;
    for (const auto& file : std::filesystem::directory_iterator(source_dir() + "/tests/data/pages"))
        files.push_back(file.path().string());
    std::sort(files.begin(), files.end());
    std::mt19937 dice(11);
    int mended = 0;
    for (std::size_t k = 0; k < files.size(); k += sweep(5U, 1U)) {
        Plan plan = read_notes(read_text(files[k]), &shipped_library()).plan;
        for (yr::Run& r : plan.runs) {
            if (r.size && dice() % 6 == 0) r.size = step_size(*r.size, -1 - static_cast<int>(dice() % 4));
            if (dice() % 9 == 0)
                for (Device& d : r.devices)
                    if (d.kind == DeviceKind::fuse) d.rating_A *= dice() % 2 ? 2 : 0.5;
        }
        const auto before = inspect(plan).findings;
        for (const Finding& f : before) {
            if (!f.mend) continue;
            Plan after = plan;
            ASSERT_TRUE(yr::apply(after, f.mend->edit)) << files[k];
            const auto now = inspect(after, false).findings;
            for (const Finding* harm : harm_of_mend(before, now))
                ADD_FAILURE() << files[k] << ": " << words::sentence(f, plan) << " brings "
                              << words::sentence(*harm, after);
            EXPECT_TRUE(cleared(f, now)) << files[k] << ": " << words::sentence(f, plan);
            ++mended;
        }
        const auto sized = size_checked(plan, {});
        ASSERT_TRUE(sized) << files[k];
        Plan after = plan;
        ASSERT_TRUE(yr::apply(after, sized->sizing.edit)) << files[k];
        for (const Finding* harm : new_or_worse(before, inspect(after, false).findings))
            ADD_FAILURE() << files[k] << ": sized anew brings " << words::sentence(*harm, after);
    }
    EXPECT_GT(mended, 20);
}

// "5 A of the 36 A drawn in Key off. Alone: starter battery from 80 % half empty in 14 h." is what a person
// reckons after: what is taken out by then is no more than lies between that charge and half, and not much
// less (Peukert, above the 20 h rate).
TEST(Hours, OfALoadAloneFitItsAmps) {
    int told = 0;
    for (unsigned seed = 0; seed < sweep(24U, 200U); ++seed) {
        const Plan plan = vehicle(seed).plan;
        for (const Finding& f : inspect(plan, false).findings) {
            const Battery* battery = find(plan.batteries, f.other);
            if (f.kind != FindingKind::parked_draw || !f.hours || !battery || !battery->capacity_Ah) continue;
            const State& state = *find(plan.states, f.state);
            const double charge =
                state.charge.value_or(battery->charge.value_or(assumption("battery_charge").value));
            const double out_Ah = f.average.value_or(f.value) * *f.hours,
                         most_Ah = *battery->capacity_Ah * (charge - 0.5);
            ++told;
            EXPECT_LE(f.value, 1.001 * f.limit) << seed << ": no part is more than the whole";
            EXPECT_LE(out_Ah, 1.01 * most_Ah) << seed << ": " << words::sentence(f, plan);
            EXPECT_GE(out_Ah, 0.5 * most_Ah) << seed << ": " << words::sentence(f, plan);
        }
    }
    EXPECT_GT(told, 10);
}

// So do those of a whole state, engine running or not: what joins two batteries may open on the way, and then
// the hours rest on what is given from there on, which is said.
void expect_hours_fit(const Plan& plan, const std::string& of, int& told, int& parted) {
    for (const Finding& f : inspect(plan, false).findings) {
        if (f.kind != FindingKind::battery_drains && f.kind != FindingKind::supply_short) continue;
        const Battery& battery = *find(plan.batteries, f.id);
        if (!f.hours || *f.hours <= 0 || !battery.capacity_Ah || !f.ends.empty()) continue;
        const State& state = *find(plan.states, f.state);
        const double charge =
            state.charge.value_or(battery.charge.value_or(assumption("battery_charge").value));
        const double most_Ah = *battery.capacity_Ah * (charge - 0.5);
        const double before_Ah = f.average.value_or(f.value) * *f.hours,
                     out_Ah = f.parts.empty() ? before_Ah : f.then_A * *f.hours;
        ++told, parted += !f.parts.empty();
        // far above the 20 h rate a quarter is left (Peukert)
        EXPECT_GE(out_Ah, 0.25 * most_Ah) << of << ": " << words::sentence(f, plan);
        EXPECT_LE(before_Ah, 1.1 * most_Ah) << of << ": " << words::sentence(f, plan);
        if (f.parts.empty()) continue;
        EXPECT_NE(words::sentence(f, plan).find("opens on the way, then it gives"), std::string::npos);
    }
}

TEST(Hours, OfAStateFitItsAmps) {
    int told = 0, parted = 0;
    for (unsigned seed = 0; seed < sweep(24U, 200U); ++seed)
        expect_hours_fit(vehicle(seed).plan, std::to_string(seed), told, parted);
    for (const auto& file : std::filesystem::directory_iterator(source_dir() + "/tests/data/pages"))
        expect_hours_fit(read_notes(read_text(file.path().string()), &shipped_library()).plan,
                         file.path().filename(), told, parted);
    // two outboards that hardly carry what a boat uses: the relays open as soon as the house has sunk a
    // little
    const Plan boat = typed_page(
        "patrol boat\noutboard port 115 hp charging 35 A with battery port 80 Ah\n"
        "outboard stbd 115 hp charging 35 A with battery stbd 80 Ah\nhouse battery 2x 105 Ah AGM\n"
        "VSR between port and house, VSR between stbd and house\nradar 4 A\nplotter 6 A\nsearch light 100 W\n"
        "siren 100 W\nblue lights 3 A\nbilge pumps 2x 5 A always\nwipers 2x 4 A\nheater 22 A\n");
    expect_hours_fit(boat, "boat", told, parted);
    EXPECT_GT(told, 60);
    EXPECT_GT(parted, 0);
}

// Nor behind a converter: all parts that are told of carts whose 12 V lives while they stand are no more than
// what their packs give, and the heaviest is told with as many watts as it takes at least.
TEST(Hours, PartsBehindAConverterAreNoMoreThanTheWhole) {
    int told = 0;
    for (unsigned seed = 0; seed < sweep(12U, 100U); ++seed) {
        Plan plan = cart(seed).plan;
        for (Source& s : plan.sources)
            if (s.kind == SourceKind::converter) s.works_when = {};
        const Load* heaviest = nullptr;
        for (Load& l : plan.loads) {
            if (l.id == "motor") continue;
            l.live_when = {};
            if (!heaviest || l.draw.value > heaviest->draw.value) heaviest = &l;
        }
        ASSERT_TRUE(heaviest) << seed;
        for (yr::Run& r : plan.runs)
            for (Device& d : r.devices)
                if (r.to.owner != "motor") d.closed_when = {};
        double parts_A = 0, whole_A = 0;
        bool of_the_heaviest = false;
        for (const Finding& f : inspect(plan, false).findings) {
            if (f.kind != FindingKind::parked_draw) continue;
            ++told, parts_A += f.value, whole_A = f.limit;
            EXPECT_LE(f.average.value_or(f.value), f.value) << seed;
            if (f.id != heaviest->id) continue;
            of_the_heaviest = true;
            const Solution sol = solve(plan, *find(plan.states, f.state));
            const auto k = static_cast<std::size_t>(heaviest - plan.loads.data());
            EXPECT_GE(f.value * sol.point.batteries.at(0).voltage_V, sol.point.loads.at(k).power_W) << seed;
        }
        EXPECT_TRUE(of_the_heaviest) << seed;
        EXPECT_LE(parts_A, 1.01 * whole_A) << seed;
    }
    EXPECT_GE(told, sweep(12, 100));
}

// What hangs behind a converter asks its battery for other amps than it takes itself: by their power, and for
// no longer than it runs.
TEST(Advice, BehindAConverterTheBatteryAmpsCount) {
    const Plan trike = typed_page(
        "trike 48V\n48V 60Ah lithium\n48/12 buck 10A\nusb 2 A always\ncooler 3 A always, duty 25 %\n");
    const auto usb = found(trike, FindingKind::parked_draw, of_name(trike.loads, "usb").id);
    ASSERT_TRUE(usb);
    const Solution sol = solve(trike, *find(trike.states, usb->state));
    const auto& load = sol.point.loads.at(0);
    const double battery_V = sol.point.batteries.at(0).voltage_V;
    EXPECT_GT(usb->value * battery_V, load.power_W) << "the converter's loss comes on top";
    EXPECT_LT(usb->value * battery_V, 1.3 * load.power_W);
    EXPECT_NEAR(usb->limit, sol.point.batteries.at(0).current_A, 1e-9);
    // on average: what it gives with the cooler and without, by its share of the time
    Plan without = trike;
    for (Load& l : without.loads)
        if (l.name == "cooler") l.draw.value = 1e-6;
    const double on_A = sol.point.batteries.at(0).current_A,
                 off_A = solve(without, *find(trike.states, usb->state)).point.batteries.at(0).current_A;
    EXPECT_NEAR(average_battery_A(sol.network, sol.point, 0), 0.25 * on_A + 0.75 * off_A, 0.03 * on_A);
    EXPECT_LT(off_A, 0.7 * on_A);
}

}  // namespace
}  // namespace yr::test
