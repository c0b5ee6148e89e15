// An unlabelled wire told by what it shows; a battery over the years; end plugs of looms.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "fabricate/harness.h"
#include "meter/coded_plug.h"
#include "meter/health.h"
#include "meter/slopes.h"
#include "meter/unknown_wire.h"
#include "plan/edit.h"
#include "plan/roles.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

std::optional<double> shown(const WireBook& book, std::size_t wire, std::size_t attempt) {
    return book.wires[wire].volts_V[attempt];
}

// What a person makes of the same volts with a pencil.
WireKind by_hand(const WireBook& book, std::size_t wire, double rail_V) {
    const auto live = [&](KeyPosition key, bool after) -> std::optional<bool> {
        for (std::size_t k = 0; k < book.tries.size(); ++k) {
            const WireTry& t = book.tries[k];
            if (t.key == key && t.just_after == after && t.opened.empty() && t.switched.empty())
                return book.wires[wire].volts_V[k] > rail_V / 2;
        }
        return std::nullopt;
    };
    if (live(KeyPosition::off, false) == true) return WireKind::constant;
    if (live(KeyPosition::off, true) == true) return WireKind::timed;
    if (live(KeyPosition::accessory, false) == true) return WireKind::accessory;
    if (live(KeyPosition::ignition, false) == true) return WireKind::ignition;
    if (live(KeyPosition::running, false) == true) return WireKind::running;
    if (live(KeyPosition::cranking, false) == true) return WireKind::cranking;
    return WireKind::dead;  // or by a switch
}

// Every cable of the vehicle is the unknown one once: what is asked for next is read off the plan.
void every_cable_is_found(const Plan& plan, const std::string& name) {
    const WireBook book = wire_book(plan);
    ASSERT_FALSE(book.tries.empty()) << name;
    for (std::size_t w = 0; w < book.wires.size(); ++w) {
        double rail_V = 0;  // of its own rail
        for (const double v : book.wires[w].volts_V) rail_V = std::max(rail_V, v);
        std::vector<std::optional<double>> read(book.tries.size());
        WireVerdict v = judge_wire(plan, book, read);
        std::size_t steps = 0;
        while (v.next) {
            ASSERT_FALSE(read[*v.next]) << name << ": asked twice";
            ASSERT_LE(++steps, book.tries.size());
            const std::size_t before = v.fits.size(), promised = v.leaves, at = *v.next;
            read[at] = shown(book, w, at);
            v = judge_wire(plan, book, read);
            ASSERT_LE(v.fits.size(), before);
            const bool ghost = std::find(v.neither.begin(), v.neither.end(), at) != v.neither.end();
            if (promised < before && !ghost) {
                EXPECT_LE(v.fits.size(), std::max<std::size_t>(promised, 1))
                    << name << ": no more are left than was said";
            }
            ASSERT_TRUE(std::find(v.fits.begin(), v.fits.end(), w) != v.fits.end())
                << name << ": the true cable " << book.wires[w].run << " was excluded";
        }
        // nothing left to try tells those apart that are left
        for (const std::size_t other : v.fits)
            for (std::size_t k = 0; k < book.tries.size(); ++k) {
                const double a = *shown(book, w, k) / plan.vehicle.nominal_V,
                             b = *shown(book, other, k) / plan.vehicle.nominal_V;
                if (read[k] || (a > 0.2 && a < 0.6) || (b > 0.2 && b < 0.6)) continue;
                EXPECT_EQ(a > 0.5, b > 0.5)
                    << name << ": " << book.wires[other].run << " behaves otherwise in try " << k;
            }
        // all tries made: the kind is what a pencil says
        for (std::size_t k = 0; k < read.size(); ++k) read[k] = shown(book, w, k);
        v = judge_wire(plan, book, read);
        const WireKind hand = by_hand(book, w, std::max(rail_V, plan.vehicle.nominal_V));
        if (!v.neither.empty() || rail_V < 0.7 * plan.vehicle.nominal_V)
            continue;  // ghosts are nobody's claim
        if (hand == WireKind::dead)
            EXPECT_TRUE(v.kind == WireKind::dead || v.kind == WireKind::by_switch)
                << name << ' ' << book.wires[w].run;
        else
            EXPECT_EQ(v.kind, hand) << name << ' ' << book.wires[w].run;
    }
}

TEST(UnknownWire, EveryCableOfAVehicleIsAmongThoseItCanBe) {
    for (std::size_t k = 0; k < 3; ++k) every_cable_is_found(laid_demo(k), "demo " + std::to_string(k));
    for (unsigned seed = 1; seed <= sweep(8U, 80U); ++seed) {
        every_cable_is_found(vehicle(seed).plan, "vehicle " + std::to_string(seed));
        every_cable_is_found(small_machine(seed).plan, "machine " + std::to_string(seed));
    }
}

TEST(UnknownWire, TimedConstantAndBehindTheDisconnectAreToldApart) {
    Plan plan = laid_demo(0);
    // a relay that holds on after the key in the way of the cab box
    yr::Run* feed = nullptr;
    for (yr::Run& r : plan.runs)
        if (r.to == Terminal("cab-box")) feed = &r;
    ASSERT_NE(feed, nullptr);
    for (Device& d : feed->devices)
        if (d.kind == DeviceKind::switching) d.closed_when.holds_s = 1800;
    const WireBook book = wire_book(plan);
    const auto wire =
        static_cast<std::size_t>(std::find_if(book.wires.begin(), book.wires.end(),
                                              [&](const WireChoice& w) { return w.run == feed->id; }) -
                                 book.wires.begin());
    ASSERT_LT(wire, book.wires.size());
    std::vector<std::optional<double>> read(book.tries.size());
    for (std::size_t k = 0; k < 3; ++k) read[k] = shown(book, wire, k);
    WireVerdict v = judge_wire(plan, book, read);
    EXPECT_EQ(v.kind, WireKind::accessory);
    EXPECT_TRUE(v.perhaps_timed) << "just after the key was not read";
    for (std::size_t k = 0; k < book.tries.size(); ++k)
        if (book.tries[k].just_after) read[k] = shown(book, wire, k);
    v = judge_wire(plan, book, read);
    EXPECT_EQ(v.kind, WireKind::timed);
    // the radio before the master: live with the key off, dead with the master open
    std::size_t constant = 0;
    for (std::size_t w = 0; w < book.wires.size(); ++w)
        for (const Load& l : plan.loads)
            if (plan.runs.size() && find(plan.runs, book.wires[w].run)->to == pos_of(l.id) &&
                *shown(book, w, 0) > 11)
                constant = w;
    ASSERT_GT(constant, 0U);
    std::vector<std::optional<double>> all(book.tries.size());
    for (std::size_t k = 0; k < all.size(); ++k) all[k] = shown(book, constant, k);
    const WireVerdict c = judge_wire(plan, book, all);
    EXPECT_EQ(c.kind, WireKind::constant);
}

TEST(UnknownWire, VoltsBetweenSayNothingAndAnotherRailIsAnotherWire) {
    const Plan plan = laid_demo(0);
    const WireBook book = wire_book(plan);
    std::vector<std::optional<double>> read(book.tries.size());
    read[0] = 5.5;  // a ghost
    WireVerdict v = judge_wire(plan, book, read);
    EXPECT_EQ(v.neither, std::vector<std::size_t>{0});
    EXPECT_EQ(v.kind, WireKind::not_known);
    EXPECT_EQ(v.fits.size(), book.wires.size()) << "nothing is excluded by it";
    read[0] = 48;
    v = judge_wire(plan, book, read);
    EXPECT_EQ(v.kind, WireKind::constant);
    EXPECT_TRUE(v.fits.empty()) << "this truck has no wire of 48 V";
}

// ---- a battery over the years

Record at(const Plan& plan, HealthReading kind, double value, const std::string& when,
          std::optional<double> air_C = {}) {
    Record r = *health_record(plan, "battery-1", kind, value, air_C);
    r.when = when;
    return r;
}

TEST(Health, YearsOfRecordsGiveTheWinterItWillNotSee) {
    const Plan plan = laid_demo(0);
    std::vector<Record> records{at(plan, HealthReading::crank_V, 11.4, "2024-10-02T09:00:00", 10),
                                at(plan, HealthReading::crank_V, 11.2, "2025-04-02T09:00:00", 10),
                                at(plan, HealthReading::rested_V, 12.60, "2025-04-02T08:00:00"),
                                at(plan, HealthReading::crank_V, 11.0, "2025-10-02T09:00:00", 10),
                                at(plan, HealthReading::crank_V, 10.7, "2026-10-02T09:00:00", 10)};
    const auto days = health_days(plan, "battery-1", records, -10);
    ASSERT_EQ(days.size(), 4U);
    EXPECT_EQ(days[1].rested_V, 12.60);
    ASSERT_TRUE(days[1].charge);
    EXPECT_GT(*days[1].charge, 0.6);
    EXPECT_LT(*days[1].charge, 1.01);
    for (const HealthDay& d : days) ASSERT_TRUE(d.cold) << d.date;
    for (std::size_t k = 1; k < days.size(); ++k) EXPECT_LT(days[k].cold->post_V, days[k - 1].cold->post_V);
    EXPECT_LT(days[0].cold->post_V, 11.4) << "a cold engine wants more torque";
    const auto ahead = outlook(days);
    ASSERT_TRUE(ahead);
    EXPECT_LT(ahead->trend.a_year, 0);
    ASSERT_TRUE(ahead->reaches);
    // the line through the same points by the formulas of least squares, written out again
    double n = 0, sx = 0, sy = 0, sxx = 0, sxy = 0;
    for (const HealthDay& d : days) {
        const double x = *day_of(d.date), y = d.cold->post_V;
        n += 1, sx += x, sy += y, sxx += x * x, sxy += x * y;
    }
    const double slope = (n * sxy - sx * sy) / (n * sxx - sx * sx), cut = (sy - slope * sx) / n;
    EXPECT_NEAR(*day_of(*ahead->reaches), (days[0].cold->least_V - cut) / slope, 1.01);
    std::vector<HealthDay> weak = days;
    weak.back().cold->post_V = weak.back().cold->least_V - 0.2;
    EXPECT_EQ(outlook(weak)->reaches, weak.back().date) << "it is there already";
    // fewer than three, or none downwards, is no outlook
    EXPECT_FALSE(outlook({days[0], days[1]}));
    // a correction of one battery's record is not another's
    EXPECT_TRUE(health_days(plan, plan.batteries[1].id, records, -10).empty());
    EXPECT_TRUE(health_days(plan, "nobody", records, -10).empty());
}

TEST(Health, DatesGoThereAndBack) {
    for (int day = -4000; day < 40000; day += 13) EXPECT_EQ(*day_of(iso_date(day)), day);
    EXPECT_EQ(iso_date(0), "1970-01-01");
    EXPECT_EQ(iso_date(*day_of("2028-02-29")), "2028-02-29");
}

TEST(Health, WhatProveReadAcrossThePostsCounts) {
    const Plan plan = laid_demo(0);
    Record r;
    r.kind = RecordKind::reading;
    r.when = "2026-05-01T10:00:00";
    r.where = {
        ReadKind::volts, pos_of("battery-1"), {}, {}, state_of_role(plan, StateRole::cranking)->id, {}};
    r.value = 10.4;
    const auto days = health_days(plan, "battery-1", {r}, -10);
    ASSERT_EQ(days.size(), 1U) << "black left out is the first battery's minus";
    EXPECT_EQ(days[0].crank_V, 10.4);
    r.where.red = pos_of("load-1");
    EXPECT_TRUE(health_days(plan, "battery-1", {r}, -10).empty());
}

// ---- end plugs

TEST(EndPlug, EveryLoomOfTwoCablesHasOneAndEveryMistakeIsTold) {
    const Plan plan = laid_demo(0);
    const auto looms = flat_looms(plan, route_all(plan));
    const auto plugs = end_plugs(plan, looms);
    ASSERT_FALSE(plugs.empty());
    const Instrument meter = instrument_of(plan);
    const std::size_t most = most_pins(meter);
    EXPECT_GE(most, 12U);
    EXPECT_FALSE(coded_plug(most, meter).ohm.empty());
    EXPECT_TRUE(most == 40 || coded_plug(most + 1, meter).ohm.empty());
    for (const EndPlug& plug : plugs) {
        ASSERT_GE(plug.runs.size(), 2U);
        ASSERT_EQ(plug.runs.size(), plug.pins.size());
        const std::size_t pins = std::min(most, plug.runs.size());
        const CodedPlug code = coded_plug(pins, meter);
        std::vector<std::optional<double>> read(pins);
        auto verdicts = judge_plug(code, read, meter);
        EXPECT_TRUE(std::none_of(verdicts.begin(), verdicts.end(), [](const auto& v) {
            return v.has_value();
        })) << "nothing is said of what was not read";
        for (std::size_t k = 0; k < pins; ++k) read[k] = code.ohm[k] * 1.004;
        for (const auto& v : judge_plug(code, read, meter)) EXPECT_EQ(v->kind, PlugVerdict::Kind::good);
        std::swap(read[0], read[1]);
        verdicts = judge_plug(code, read, meter);
        EXPECT_EQ(verdicts[0]->kind, PlugVerdict::Kind::swapped);
        EXPECT_EQ(verdicts[0]->with, 1U);
        read[0] = 1e9;
        EXPECT_EQ(judge_plug(code, read, meter)[0]->kind, PlugVerdict::Kind::open);
    }
}

}  // namespace
}  // namespace yr::test
