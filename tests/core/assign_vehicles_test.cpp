// Channels given out over whole vehicles: the plan with the answer applied is nowhere worse than it was,
// costs no more copper than it did where it kept its own limits, and what is called impossible is so.
#include <gtest/gtest.h>

#include <algorithm>
#include <random>

#include "control/assign.h"
#include "control/place_on.h"
#include "inspect/checked_channels.h"
#include "inspect/checked_sizing.h"
#include "plan/validate.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "support/findings.h"
#include "support/sweep.h"
#include "support/vehicles.h"
#include "words/control_words.h"

namespace yr::test {
namespace {

// The same vehicle with what people have: a bus behind a relay with two loads of its own, one of which may
// not know that it is switched; a constant block beside it.
Plan with_a_relay(Plan plan, unsigned seed) {
    std::mt19937 random(seed * 7919u + 1);
    const auto movable = [&](const Load& l) {
        const yr::Run* run = supply_run(plan, l.id);
        return !l.starter && l.inverter.empty() && run && run->to == pos_of(l.id) &&
               find(plan.points, run->from) && run->tap_of.empty();
    };
    std::vector<Id> loads;
    for (const Load& l : plan.loads)
        if (movable(l)) loads.push_back(l.id);
    if (loads.size() < 4) return plan;
    std::shuffle(loads.begin(), loads.end(), random);
    const Point from = *find(plan.points, supply_run(plan, loads[0])->from);
    Point bus;
    bus.id = new_id(plan, "relayed");
    bus.name = "Relayed bus";
    bus.kind = PointKind::bus;
    bus.feeds_loads = true;
    bus.place = from.place;
    bus.return_at = from.return_at;
    plan.points.push_back(bus);
    const Id coil = loads[1];  // what switches the relay: a small load of the plan stands for its coil
    yr::Run feed;
    feed.id = new_id(plan, "relayed-feed");
    feed.from = from.id;
    feed.to = bus.id;
    feed.length_m = 0.3;
    feed.size = WireSize::awg(4);
    Device relay;
    relay.id = new_id(plan, "relay");
    relay.name = "Relay";
    relay.kind = DeviceKind::switching;
    relay.rating_A = 70;
    relay.coil = coil;
    feed.devices.push_back(relay);
    plan.runs.push_back(feed);
    for (const std::size_t k : {2U, 3U}) {
        yr::Run& run = thing(plan.runs, supply_run(plan, loads[k])->id);
        std::erase_if(run.devices,
                      [](const Device& d) { return d.kind == DeviceKind::switching && d.coil.empty(); });
        run.from = bus.id;
        run.channel = 0;
        Load& load = thing(plan.loads, loads[k]);
        load.own_switch = false;
        load.live_when = k == 2 ? thing(plan.loads, coil).live_when : Condition{};
    }
    return plan;
}

// With a box and a constant block more, each on a thick feed of its own from where the loads hang now, and
// the loads strewn over all of them as they came in: what there is to put in order.
Plan strewn(Plan plan, unsigned seed) {
    std::mt19937 random(seed * 104729u + 3);
    std::vector<Id> feeds;
    for (const Point& p : plan.points)
        if (p.feeds_loads) feeds.push_back(p.id);
    if (feeds.empty()) return plan;
    for (const bool box : {true, false}) {
        Point p;
        p.id = new_id(plan, box ? "more-box" : "more-block");
        p.name = box ? "Second box" : "Constant block";
        p.kind = box ? PointKind::box : PointKind::bus;
        p.feeds_loads = true;
        p.return_at = find(plan.points, std::string_view(feeds.front()))->return_at;
        if (!plan.places.empty()) p.place = plan.places[random() % plan.places.size()].id;
        for (int c = 1; box && c <= 8; ++c) {
            Channel channel;
            channel.number = c;
            channel.rating_A = c <= 4 ? 10 : 20;
            p.channels.push_back(channel);
        }
        plan.points.push_back(p);
        yr::Run feed;
        feed.id = new_id(plan, p.id + "-feed");
        feed.from = feeds.front();
        feed.to = p.id;
        feed.length_m = 0.5 + static_cast<double>(random() % 5);
        feed.size = WireSize::awg(2);
        plan.runs.push_back(feed);
        feeds.push_back(p.id);
    }
    for (const Load& l : std::vector<Load>(plan.loads)) {
        const yr::Run* run = supply_run(plan, l.id);
        if (!run || l.starter || !l.inverter.empty() || !find(plan.points, run->from) || random() % 2)
            continue;
        const Id to = feeds[random() % feeds.size()];
        const Point& feed = *find(plan.points, std::string_view(to));
        const int channel =
            feed.channels.empty() ? 0 : fitting_channel(plan, feed, nominal_A(plan, l), start_A(plan, l));
        if (!feed.channels.empty() && channel == 0) continue;
        const auto e = place_on(plan, l.id, to, channel, false);
        if (!e) continue;  // a rail of other volts
        EXPECT_TRUE(yr::apply(plan, *e));
        thing(plan.runs, supply_run(plan, l.id)->id).length_m.reset();
    }
    return plan;
}

// Its things in their places, its cables along a typical net of ways.
Plan laid_out(Plan plan, Outline outline) {
    const auto edit = furnish(plan, outline);
    if (!edit) return plan;
    EXPECT_TRUE(yr::apply(plan, *edit));
    EXPECT_TRUE(yr::apply(plan, stand_in_places(plan)));
    lay(plan);
    return plan;
}

std::vector<Plan> vehicles_of(unsigned seed) {
    std::vector<Plan> plans{vehicle(seed).plan, with_a_relay(vehicle(seed).plan, seed),
                            strewn(vehicle(seed).plan, seed),
                            strewn(with_a_relay(vehicle(seed).plan, seed), seed)};
    plans.push_back(laid_out(plans[2], Outline::van));
    plans.push_back(laid_out(plans[3], Outline::pickup));
    if (seed % 3 == 0) plans.push_back(strewn(cart(seed).plan, seed));
    if (seed % 4 == 0) plans.push_back(cart(seed).plan);
    if (seed % 4 == 1) plans.push_back(small_machine(seed).plan);
    if (seed % 4 == 2) plans.push_back(with_a_relay(cart(seed).plan, seed));
    return plans;
}

std::string told(const std::vector<Finding>& findings, const Plan& plan) {
    std::string all;
    for (const Finding& f : findings) all += "\n  " + words::sentence(f, plan);
    return all;
}

TEST(ChannelsOfVehicles, AreNowhereWorseAndNeverDearer) {
    int moved = 0, plans = 0, over = 0;
    for (unsigned seed = 1; seed <= static_cast<unsigned>(sweep(8, 300)); ++seed)
        for (const Plan& plan : vehicles_of(seed)) {
            SCOPED_TRACE("vehicle " + std::to_string(seed) + ", " + plan.vehicle.name);
            const CheckedChannels checked = assign_checked(plan);
            const Assignment& a = checked.assignment;
            ASSERT_TRUE(a.known);
            EXPECT_TRUE(a.feasible || !a.stands) << words::conflict_text(a, plan);
            ++plans;
            if (a.stands) {
                EXPECT_LE(a.amp_metres, a.amp_metres_before + 1e-6);
            }
            over += !a.stands;
            moved += static_cast<int>(
                std::count_if(a.placed.begin(), a.placed.end(), [](const auto& p) { return p.moved; }));
            Plan given = plan;
            if (!a.feasible) continue;
            ASSERT_TRUE(yr::apply(given, a.edit));
            EXPECT_TRUE(validate(given).empty());
            EXPECT_EQ(told(made_worse(plan, a.edit), given), "");
        }
    EXPECT_GT(moved, plans / 4) << "vehicles that are in order already prove nothing";
    EXPECT_LT(over, plans / 5);
}

// Channels, then every cable and fuse sized anew: against the plan as it was nothing is worse, nor against
// what each step found.
TEST(ChannelsOfVehicles, ThenSizedAreNowhereWorse) {
    int changed = 0;
    for (unsigned seed = 1; seed <= static_cast<unsigned>(sweep(6, 100)); ++seed) {
        const Plan plan = laid_out(strewn(vehicle(seed).plan, seed), Outline::van);
        Plan given = plan;
        ASSERT_TRUE(yr::apply(given, assign_checked(plan).assignment.edit)) << seed;
        SizingAsk ask;
        ask.most_s = 20;
        const auto sized = size_checked(given, ask);
        ASSERT_TRUE(sized) << seed;
        if (sized->sizing.status != SizingStatus::least && sized->sizing.status != SizingStatus::best_found)
            continue;
        Plan both = given;
        ASSERT_TRUE(yr::apply(both, sized->sizing.edit)) << seed;
        changed += !(both == given);
        const auto before = inspect(plan, false).findings, between = inspect(given, false).findings,
                   after = inspect(both, false).findings;
        for (const Finding* f : new_or_worse(between, after))
            ADD_FAILURE() << seed << ": " << words::sentence(*f, both);
        for (const Finding* f : new_or_worse(before, after))
            ADD_FAILURE() << seed << ": " << words::sentence(*f, both);
    }
    EXPECT_GT(changed, sweep(6, 100) / 2);
}

// The program's own limits are not all that there is: here its first answer would make something worse.
TEST(ChannelsOfVehicles, WhatWouldMakeSomethingWorseIsRefused) {
    std::size_t refused = 0;
    for (const Plan& plan : vehicles_of(36)) {
        const CheckedChannels checked = assign_checked(plan);
        const Assignment alone = assign_loads(plan);
        EXPECT_EQ(!made_worse(plan, alone.edit).empty(), !checked.refused.empty() || !checked.mended.empty());
        EXPECT_TRUE(made_worse(plan, checked.assignment.edit).empty());
        EXPECT_EQ(checked.against.empty(), checked.refused.empty());
        for (const auto& [load, feed] : checked.refused)
            for (const PlacedLoad& p : checked.assignment.placed)
                EXPECT_FALSE(p.moved && p.load == load && p.feed == feed);
        refused += checked.refused.size();
    }
    EXPECT_GT(refused, 0U);
}

// A load that its own limits put elsewhere: on the feed that is left it is dead when it must run.
TEST(ChannelsOfVehicles, WhatIsSwitchedByItsFeedStaysThere) {
    for (unsigned seed = 1; seed <= 8; ++seed) {
        const Plan plan = strewn(with_a_relay(vehicle(seed).plan, seed), seed);
        const CheckedChannels checked = assign_checked(plan);
        for (const PlacedLoad& p : checked.assignment.placed) {
            const Load& l = *find(plan.loads, std::string_view(p.load));
            const yr::Run* run = supply_run(plan, p.load);
            const bool rides =
                run->from == Terminal("relayed") && !l.own_switch && l.live_when == Condition{};
            EXPECT_FALSE(rides && p.moved) << seed << ": " << l.name;
        }
    }
}

}  // namespace
}  // namespace yr::test
