#include "support/strewn.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

#include "control/place_on.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "size/run_limits.h"
#include "support/findings.h"
#include "support/vehicles.h"

namespace yr::test {

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

}  // namespace yr::test
