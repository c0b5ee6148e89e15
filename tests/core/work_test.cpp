// The order of work, first power, symptoms, quotes and change orders, on the demos and on whole vehicles.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>
#include <random>
#include <set>

#include "fabricate/first_power.h"
#include "fabricate/quote.h"
#include "fabricate/symptoms.h"
#include "fabricate/visits.h"
#include "fabricate/work.h"
#include "plan/edit.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "support/random_plan.h"
#include "support/sweep.h"
#include "support/vehicles.h"
#include "words/work_words.h"

namespace yr::test {
namespace {

Plan demo(std::size_t k) {
    Plan p = *load_plan(demo_path(kDemos[k]));
    lay(p);
    return p;
}

std::vector<Plan> vehicles(unsigned count) {
    std::vector<Plan> all;
    for (unsigned seed = 1; seed <= count; ++seed) {
        all.push_back(vehicle(seed).plan);
        if (seed % 3 == 0) all.push_back(small_machine(seed).plan), all.push_back(cart(seed).plan);
    }
    return all;
}

// ---- visits

// Every order that keeps to what comes before: the least number of times a place is gone to.
int least_by_trying_all(const std::vector<VisitStep>& steps) {
    int best = 1000;
    std::vector<char> done(steps.size(), 0);
    const std::function<void(std::size_t, std::size_t, int)> go = [&](std::size_t count, std::size_t at,
                                                                      int visits) {
        if (visits >= best) return;
        if (count == steps.size()) {
            best = visits;
            return;
        }
        for (std::size_t k = 0; k < steps.size(); ++k) {
            if (done[k] || !std::all_of(steps[k].after.begin(), steps[k].after.end(),
                                        [&](std::size_t a) { return done[a]; }))
                continue;
            done[k] = 1;
            go(count + 1, steps[k].place, visits + (steps[k].place != at));
            done[k] = 0;
        }
    };
    go(0, 1000, 0);
    return best;
}

TEST(Visits, AreTheFewestByTryingAll) {
    std::mt19937 random(3);
    for (int n = 0; n < 300; ++n) {
        std::vector<VisitStep> steps(2 + random() % 7);
        for (std::size_t k = 0; k < steps.size(); ++k) {
            steps[k].place = random() % 3;
            for (std::size_t a = 0; a < k; ++a)
                if (random() % 4 == 0) steps[k].after.push_back(a);
        }
        const Visits v = fewest_visits(steps);
        ASSERT_TRUE(v.fewest);
        ASSERT_EQ(v.order.size(), steps.size());
        EXPECT_EQ(v.visits, least_by_trying_all(steps)) << "case " << n;
        std::vector<char> done(steps.size(), 0);
        int visits = 0;
        std::size_t at = 1000;
        for (const std::size_t k : v.order) {
            for (const std::size_t a : steps[k].after) EXPECT_TRUE(done[a]);
            done[k] = 1;
            visits += steps[k].place != at;
            at = steps[k].place;
        }
        EXPECT_EQ(visits, v.visits);
    }
}

TEST(Visits, SayWhenTheyGaveUpProving) {
    std::vector<VisitStep> steps;
    for (std::size_t k = 0; k < 12; ++k) steps.push_back({k % 4, {}});
    for (std::size_t k = 4; k < 12; ++k) steps[k].after = {k - 4 + (k % 3)};
    EXPECT_FALSE(fewest_visits(steps, 2).fewest);
    EXPECT_EQ(fewest_visits(steps, 2).order.size(), steps.size());
}

// ---- the order of work

void expect_rules(const Plan& plan) {
    const WorkOrder o = work_order(plan);
    const auto index = [&](const std::string& key) {
        for (std::size_t k = 0; k < o.steps.size(); ++k)
            if (o.steps[k].key == key) return static_cast<long>(k);
        return -1L;
    };
    long first_fit = 1000000, last_battery = -1;
    for (std::size_t k = 0; k < o.steps.size(); ++k) {
        const WorkStep& s = o.steps[k];
        for (const std::size_t a : s.after) EXPECT_LT(a, k) << s.key << " comes after " << o.steps[a].key;
        EXPECT_FALSE(s.members.empty()) << s.key;
        EXPECT_GT(s.minutes, 0) << s.key;
        const auto at = static_cast<long>(k);
        if (s.task == Task::open || s.task == Task::drill || s.task == Task::mount || s.task == Task::lay)
            first_fit = std::min(first_fit, at);
        if (s.task == Task::connect && find(plan.batteries, std::string_view(s.about))) last_battery = at;
        if (s.task == Task::drill) {
            EXPECT_NE(std::find(s.cautions.begin(), s.cautions.end(), WorkCaution::look_behind),
                      s.cautions.end());
        }
    }
    // negatives off before anything at the vehicle; covers on in reverse; power after the second pair of eyes
    for (const Battery& b : plan.batteries) {
        ASSERT_GE(index("isolate " + b.id), 0);
        EXPECT_LT(index("isolate " + b.id), first_fit);
    }
    EXPECT_LT(last_battery, index("last_look"));
    EXPECT_LT(index("last_look"), index("first_power"));
    EXPECT_LT(index("first_power"), index("readings"));
    std::vector<Id> opened, closed;
    for (const WorkStep& s : o.steps) {
        if (s.task == Task::open) opened.push_back(s.about);
        if (s.task == Task::close) closed.push_back(s.about);
    }
    std::reverse(closed.begin(), closed.end());
    EXPECT_EQ(opened, closed);
    // every cable is made, laid and connected at both ends, but for batteries' negatives, which come on last
    for (const yr::Run& r : plan.runs) {
        if (!is_cut(r)) continue;
        long made = -1, laid = -1;
        for (std::size_t k = 0; k < o.steps.size(); ++k) {
            const auto has = [&](const std::string& m) {
                return std::find(o.steps[k].members.begin(), o.steps[k].members.end(), m) !=
                       o.steps[k].members.end();
            };
            if (o.steps[k].task == Task::make && has(r.id)) made = static_cast<long>(k);
            if (o.steps[k].task == Task::lay && has(r.id)) laid = static_cast<long>(k);
        }
        ASSERT_GE(made, 0) << r.id;
        EXPECT_LT(made, laid) << r.id;
        for (const bool at_from : {true, false}) {
            const Terminal& t = at_from ? r.from : r.to;
            if (t.post == Post::neg && find(plan.batteries, std::string_view(t.owner))) continue;
            const long connect = index("connect " + t.owner);
            ASSERT_GE(connect, 0) << t.text();
            EXPECT_LT(laid, connect);
            const auto& members = o.steps[static_cast<std::size_t>(connect)].members;
            EXPECT_NE(std::find(members.begin(), members.end(), r.id + (at_from ? ".from" : ".to")),
                      members.end());
        }
    }
}

TEST(WorkOrder, KeepsItsRulesOnTheDemosAndOnWholeVehicles) {
    for (std::size_t k = 0; k < 3; ++k) expect_rules(demo(k));
    for (const Plan& p : vehicles(sweep(12U, 100U))) expect_rules(p);
}

void mark(Plan& plan, const char* name, const std::string& about) {
    Mark m;
    m.id = new_id(plan, "mark"), m.name = name, m.about = about;
    ASSERT_TRUE(apply(plan, Put<Mark>{m, {}}));
}

TEST(WorkOrder, WhatIsDoneIsDoneAndWhatIsPutOffWaitsWithAllThatStandsOnIt) {
    Plan plan = demo(0);
    const WorkOrder before = work_order(plan);
    const auto step = [](const WorkOrder& o, const std::string& key) -> const WorkStep& {
        return *std::find_if(o.steps.begin(), o.steps.end(), [&](const WorkStep& s) { return s.key == key; });
    };
    for (const std::string& m : step(before, "mount rear-box").members) mark(plan, mark_of(Task::mount), m);
    const WorkOrder done = work_order(plan);
    EXPECT_TRUE(step(done, "mount rear-box").done());
    EXPECT_NEAR(done.minutes - done.minutes_left, step(done, "mount rear-box").minutes, 1e-9);
    mark(plan, "put off", "mount cab-box");
    const WorkOrder off = work_order(plan);
    EXPECT_TRUE(step(off, "mount cab-box").put_off);
    EXPECT_TRUE(step(off, "connect cab-box").waits);
    bool later = false;
    for (const WorkStep& s : off.steps) {
        if (s.task == Task::last_look) break;
        if (s.put_off || s.waits) later = true;
        if (later) {
            EXPECT_TRUE(s.put_off || s.waits) << s.key << " could be done today";
        }
    }
    EXPECT_TRUE(later);
    mark(plan, "first", "ground gnd-bed");
    const WorkOrder first = work_order(plan);
    const auto at = [&](const std::string& key) {
        return std::find_if(first.steps.begin(), first.steps.end(),
                            [&](const WorkStep& s) { return s.key == key; }) -
               first.steps.begin();
    };
    EXPECT_LT(at("ground gnd-bed"), at("make 2/0 AWG copper"));
    EXPECT_LT(at("isolate battery-1"), at("ground gnd-bed")) << "with all that it needs";
}

// Put before each other at random, over and over: the rules of order hold, no step is lost, and what no rule
// forbids stands as it was put.
TEST(WorkOrder, IsPutByHandAsFarAsItsRulesAllow) {
    for (Plan plan : vehicles(sweep(3, 40))) {
        std::mt19937 random(static_cast<unsigned>(plan.runs.size()));
        const std::size_t count = work_order(plan).steps.size();
        for (int n = 0; n < 6; ++n) {
            const WorkOrder before = work_order(plan);
            const std::size_t a = random() % count, b = random() % count;
            const WorkStep &one = before.steps[std::max(a, b)], &other = before.steps[std::min(a, b)];
            Mark m;
            m.id = new_id(plan, "mark"), m.name = "before", m.about = one.key, m.note = other.key;
            plan.marks.push_back(m);
            const WorkOrder now = work_order(plan);
            ASSERT_EQ(now.steps.size(), count);
            const auto place = [&](const std::string& key) {
                return std::find_if(now.steps.begin(), now.steps.end(),
                                    [&](const WorkStep& s) { return s.key == key; }) -
                       now.steps.begin();
            };
            std::set<std::size_t> needed;  // what the later one of the two stands on
            const std::function<void(std::size_t)> need = [&](std::size_t k) {
                if (!needed.insert(k).second) return;
                for (const std::size_t x : before.steps[k].after) need(x);
            };
            need(std::max(a, b));
            const bool ruled = needed.contains(std::min(a, b)) || one.task >= Task::last_look ||
                               other.task >= Task::last_look;
            if (!ruled) EXPECT_LT(place(one.key), place(other.key)) << one.key << " before " << other.key;
            expect_rules(plan);
        }
    }
}

TEST(WorkOrder, OnesOwnTimesAndTorquesWin) {
    Plan plan = demo(0);
    plan.policy.tasks = {{"bench_test", 31}};
    plan.policy.torques = {{8, 17.5}};
    const WorkOrder o = work_order(plan);
    bool own = false, torque = false;
    for (const WorkStep& s : o.steps) {
        if (s.task == Task::bench_test) {
            EXPECT_EQ(s.minutes, 31);
            own = s.own_minutes;
        }
        for (const Fixing& f : s.fixings)
            if (f.thread_mm == 8) {
                EXPECT_EQ(f.torque->most_Nm, 17.5);
                torque = f.own_torque;
                EXPECT_EQ(f.spanner_mm, 13) << "ISO 272 (from memory)";
            }
    }
    EXPECT_TRUE(own && torque);
}

// ---- first power

const PowerStep* of_load(const std::vector<PowerRound>& rounds, const Id& load) {
    for (const PowerRound& r : rounds)
        for (const PowerStep& s : r.steps)
            if (s.act == PowerAct::switch_on && s.loads == std::vector<Id>{load}) return &s;
    return nullptr;
}

TEST(FirstPower, TheLampSharesItsVoltsWithTheCircuitAsTwoResistancesDo) {
    const Plan plan = demo(0);
    const auto rounds = first_power(plan);
    ASSERT_FALSE(rounds.empty());
    // headlamps: two of 3.3 ohm behind the engine block's fuse; a lamp of 21 W in series with it across the
    // battery. By hand: v / R(v) = (E - v) / 1.65 with R(v) = 144/21 (v/12)^0.46
    const PowerStep* s = of_load(rounds, "load-5");
    ASSERT_NE(s, nullptr);
    const double E = s->shorted_V;
    double low = 0, high = E;
    for (int k = 0; k < 60; ++k) {
        const double v = (low + high) / 2, R = 144.0 / 21 * std::pow(v / 12, 0.46);
        (v / R > (E - v) / 1.65 ? high : low) = v;
    }
    // what else is live at ignition on that block is out: its fuse was taken out again
    EXPECT_NEAR(s->lamp_V, low, 0.05);
    for (const PowerRound& r : rounds)
        for (const PowerStep& p : r.steps) {
            EXPECT_TRUE(p.solved);
            EXPECT_LT(p.lamp_A, 2.0) << "a short is found at 2 A";
            if (p.act == PowerAct::switch_on) {
                EXPECT_GT(p.lamp_V, 0.3);
            }
        }
}

TEST(FirstPower, OneSwappedPairIsFoundAtTheLamp) {
    const Plan plan = demo(0);
    Plan built = plan;
    yr::Run *lights = nullptr, *beacons = nullptr;
    for (yr::Run& r : built.runs) {
        if (r.name == "scene lights feed") lights = &r;
        if (r.name == "tail camera feed") beacons = &r;
    }
    ASSERT_TRUE(lights && beacons);
    std::swap(lights->to, beacons->to);
    const auto right = first_power(plan), read = first_power(plan, {0, &built});
    double furthest = 0;
    Id fuse;
    for (std::size_t r = 0; r < right.size(); ++r)
        for (std::size_t s = 0; s < right[r].steps.size(); ++s) {
            const double off = std::abs(right[r].steps[s].lamp_V - read[r].steps[s].lamp_V);
            EXPECT_LT(read[r].steps[s].lamp_A, 2.0);
            if (off > furthest) furthest = off, fuse = right[r].steps[s].fuse;
        }
    EXPECT_GT(furthest, 1.0);
    const auto of = [&](const yr::Run& run) {
        return run.devices.back().id == fuse || run.devices.front().id == fuse;
    };
    EXPECT_TRUE(of(*lights) || of(*beacons)) << fuse;
}

TEST(FirstPower, HasARoundForEveryMainFuseAndNamesWhatHasNone) {
    for (const Plan& p : vehicles(8)) {
        std::set<std::pair<Id, Id>> mains;
        for (const PowerRound& r : first_power(p)) {
            EXPECT_TRUE(mains.insert({r.battery, r.main}).second) << "one round each";
            ASSERT_GE(r.steps.size(), 3u);
            for (const PowerStep& s : r.steps) {
                EXPECT_TRUE(s.solved);
                EXPECT_TRUE(std::isfinite(s.lamp_V));
                EXPECT_LE(s.lamp_V, s.shorted_V + 0.02) << "nothing draws more than a short";
            }
        }
    }
    EXPECT_EQ(without_main_fuse(demo(0)), std::vector<Id>{"battery-1"}) << "charge and starter cable";
}

// ---- symptoms

TEST(Symptoms, WhatDiesWithAFuseIsWhatHangsOnIt) {
    const Plan plan = demo(0);
    const auto all = symptoms(plan);
    const auto holds = [](const std::vector<Id>& ids, const Id& id) {
        return std::find(ids.begin(), ids.end(), id) != ids.end();
    };
    const auto of = [&](const Id& part) -> const Symptom* {
        for (const Symptom& s : all)
            for (const Break& b : s.where)
                if (b.id == part) return &s;
        return nullptr;
    };
    const Symptom* rear = of("fuse-7");
    ASSERT_NE(rear, nullptr);
    for (const char* load : {"load-17", "load-18", "load-19", "load-21", "load-22"})
        EXPECT_TRUE(holds(rear->dead, load));
    EXPECT_FALSE(holds(rear->dead, "load-7"));
    const Symptom* ground = of("gnd-bed");
    ASSERT_NE(ground, nullptr);
    EXPECT_TRUE(holds(ground->dead, "load-17")) << "scene lights return there";
    EXPECT_TRUE(holds(ground->dead, "load-14")) << "and the fridge, which another feed supplies";
    EXPECT_NE(words::sentence(plan, *ground).find("bed ground"), std::string::npos);
    // one picture, one line
    std::set<std::pair<std::vector<Id>, std::vector<Id>>> seen;
    for (const Symptom& s : all) EXPECT_TRUE(seen.insert({s.dead, s.states}).second || s.states.size() > 1);
}

// ---- quotes and changes

TEST(Quote, AddsUpByHand) {
    Plan plan = demo(1);
    const auto parts = parts_of(plan);
    double by_hand = 0;
    plan.policy.prices.clear();
    for (const Part& p : parts) {
        Price price;
        price.part = p.key, price.each = 2, price.pack = 5;
        plan.policy.prices.push_back(price);
        by_hand += std::ceil(p.quantity / 5 - 1e-9) * 10;
    }
    plan.policy.prices.front().brought = true;
    by_hand -= std::ceil(parts.front().quantity / 5 - 1e-9) * 10;
    plan.policy.consumables = 0.05, plan.policy.margin = 0.2, plan.policy.tax = 0.1;
    plan.policy.travel = 40, plan.policy.rate_h = 60;
    const Quote q = quote(plan);
    EXPECT_NEAR(q.parts, by_hand, 1e-6);
    const double things = by_hand * 1.05 * 1.2 + 40;
    const double hours = work_order(plan).minutes / 60;
    EXPECT_NEAR(q.least, (things + hours * 0.8 * 60) * 1.1, 1e-6);
    EXPECT_NEAR(q.most, (things + hours * 1.4 * 60) * 1.1, 1e-6);
    EXPECT_EQ(q.unpriced, 0u);
}

// Whatever is priced, bought or brought: every line that is to be ordered stands with one supplier, and what
// the lists come to is the quote without what is bought.
TEST(Orders, HoldEachLineOnceAndAddUp) {
    for (Plan plan : vehicles(sweep(3, 40))) {
        std::mt19937 random(static_cast<unsigned>(plan.loads.size()));
        const char* suppliers[] = {"", "Harbour Cable", "harbour cable", "Mill Street Electric"};
        for (const Part& part : parts_of(plan)) {
            if (random() % 3 == 0) continue;
            Price p;
            p.part = part.key, p.supplier = suppliers[random() % 4];
            if (random() % 4) p.each = 1 + static_cast<int>(random() % 20);
            if (random() % 3 == 0) p.pack = 1 + static_cast<int>(random() % 10);
            p.brought = random() % 6 == 0;
            plan.policy.prices.push_back(p);
            if (random() % 5 == 0)
                plan.marks.push_back({new_id(plan, "mark"), "bought", part.key, {}, {}, {}, {}});
        }
        const Quote q = quote(plan);
        std::multiset<std::string> wanted, listed;
        double sum = 0;
        for (const QuoteLine& l : q.lines)
            if (!l.bought && !l.brought && l.packs > 0) wanted.insert(l.key), sum += l.price.value_or(0);
        double ordered = 0;
        std::set<std::string> names;
        for (const OrderList& list : order_lists(q)) {
            EXPECT_TRUE(names.insert(list.supplier).second) << "one list a supplier";
            ordered += list.price;
            for (const QuoteLine& l : list.lines) listed.insert(l.key);
        }
        EXPECT_EQ(wanted, listed);
        EXPECT_NEAR(sum, ordered, 1e-6);
        EXPECT_FALSE(names.contains("Harbour Cable") && names.contains("harbour cable"));
    }
}

TEST(ChangeOrder, SaysWhatIsWastedUndoneAndBought) {
    Plan plan = demo(0);
    const Id feed = "run-52", kept = "run-54";  // scene lights, beacons
    for (const char* done : {"made", "laid"}) mark(plan, done, feed);
    mark(plan, "made", kept);
    Plan to = plan;
    for (yr::Run& r : to.runs)
        if (r.id == feed) r.size = WireSize::awg(6);
    const ChangeOrder c = change_order(plan, to);
    const auto has = [&](ChangeKind kind, const Id& run) {
        return std::any_of(c.lines.begin(), c.lines.end(),
                           [&](const ChangeLine& l) { return l.kind == kind && l.run == run; });
    };
    EXPECT_TRUE(has(ChangeKind::undo, feed));
    EXPECT_TRUE(has(ChangeKind::waste, feed));
    EXPECT_TRUE(has(ChangeKind::remake, feed));
    EXPECT_FALSE(has(ChangeKind::waste, kept)) << "what stays the same is kept";
    EXPECT_TRUE(std::any_of(c.lines.begin(), c.lines.end(), [](const ChangeLine& l) {
        return l.kind == ChangeKind::buy && l.part.find("6 AWG") != std::string::npos;
    }));
    EXPECT_GT(c.minutes, 0);
    EXPECT_TRUE(change_order(plan, plan).lines.empty());
    for (const ChangeLine& l : c.lines) EXPECT_FALSE(words::sentence(to, l).empty());
}

}  // namespace
}  // namespace yr::test
