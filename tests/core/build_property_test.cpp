// What a change costs and what a symptom says, on whole vehicles: balances and reachability worked out apart
// from the code under test.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <deque>
#include <map>
#include <random>
#include <set>

#include "fabricate/quote.h"
#include "fabricate/symptoms.h"
#include "plan/edit.h"
#include "plan/names.h"
#include "solve/settle.h"
#include "support/sweep.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

std::vector<Plan> strewn_vehicles(unsigned count) {
    std::vector<Plan> all;
    for (unsigned seed = 1; seed <= count; ++seed) {
        all.push_back(vehicle(40 + seed).plan);
        if (seed % 3 == 0) all.push_back(small_machine(seed).plan), all.push_back(cart(seed).plan);
    }
    return all;
}

void mark_some(Plan& plan, std::mt19937& random) {
    for (const yr::Run& r : plan.runs) {
        if (!is_cut(r)) continue;
        for (const char* what : {"made", "laid"})
            if (random() % 2) plan.marks.push_back({new_id(plan, "mark"), what, r.id, {}, {}, {}, {}});
    }
    for (const Part& p : parts_of(plan))
        if (random() % 2) plan.marks.push_back({new_id(plan, "mark"), "bought", p.key, {}, {}, {}, {}});
}
bool marked(const Plan& plan, const std::string& what, const std::string& about) {
    return std::any_of(plan.marks.begin(), plan.marks.end(),
                       [&](const Mark& m) { return m.name == what && m.about == about; });
}

Plan changed(Plan plan, std::mt19937& random) {
    for (yr::Run& r : plan.runs) {
        if (!is_cut(r)) continue;
        if (random() % 5 == 0) r.size = WireSize::awg(static_cast<int>(2 * (random() % 8)));
        if (random() % 6 == 0) r.length_m = length_or_assumed_m(r) + 0.1 * static_cast<double>(random() % 50);
        if (random() % 9 == 0) r.parallel = 2;
    }
    for (int k = 0; k < 2 && plan.loads.size() > 2; ++k) {
        const Id gone = plan.loads[random() % plan.loads.size()].id;
        const auto done = yr::apply(plan, remove_with_runs(plan, gone));
        EXPECT_TRUE(done) << (done ? ""
                                   : done.error().place + " " +
                                         std::to_string(static_cast<int>(done.error().code)))
                          << gone;
    }
    return plan;
}

// Metres of one cable as the wire table has it, of all runs or of some.
std::map<std::string, double> copper_m(const Plan& plan, const std::set<Id>* only = nullptr) {
    std::map<std::string, double> metres;
    for (const WireRow& w : wire_table(plan)) {
        const yr::Run& r = plan.runs[w.run];
        if (only && !only->contains(r.id)) continue;
        metres[name_of(r.size.value_or(WireSize::awg(14))) + " " + std::string(enum_name(r.material)) + " " +
               w.colour] += w.length_m * w.pieces;
    }
    return metres;
}

// Bought before + bought now - left over - wasted = wanted afterwards, of every cable.
TEST(ChangeOrder, CopperBalancesWhateverIsMadeAndChanged) {
    std::size_t wasted_runs = 0, left = 0;
    for (Plan from : strewn_vehicles(sweep(12U, 200U))) {
        std::mt19937 random(static_cast<unsigned>(from.runs.size()));
        mark_some(from, random);
        const Plan to = changed(from, random);
        const ChangeOrder c = change_order(from, to);
        std::set<Id> wasted, again;
        std::map<std::string, double> bought, left_over;
        for (const ChangeLine& l : c.lines) {
            if (l.kind == ChangeKind::waste) EXPECT_TRUE(wasted.insert(l.run).second);
            if (l.kind == ChangeKind::remake || l.kind == ChangeKind::make) again.insert(l.run);
            if (l.kind == ChangeKind::buy) bought[l.part] = l.quantity;
            if (l.kind == ChangeKind::left_over) left_over[l.part] = l.quantity, ++left;
            EXPECT_GE(l.quantity, 0);
        }
        wasted_runs += wasted.size();
        for (const Id& run : wasted) {
            EXPECT_TRUE(marked(from, "made", run)) << "only what is made is wasted";
            EXPECT_TRUE(again.contains(run) || !find(to.runs, std::string_view(run))) << "made anew or gone";
        }
        for (const yr::Run& r : to.runs) {
            const yr::Run* old = find(from.runs, std::string_view(r.id));
            if (is_cut(r) && marked(from, "made", r.id) && old && *old == r) {
                EXPECT_FALSE(wasted.contains(r.id)) << "what stays the same is kept";
                EXPECT_FALSE(again.contains(r.id));
            }
        }
        const auto before = copper_m(from), after = copper_m(to), lost = copper_m(from, &wasted);
        std::set<std::string> cables;
        for (const auto* all : {&before, &after})
            for (const auto& [what, m] : *all) cables.insert(what);
        const auto at = [](const std::map<std::string, double>& m, const std::string& k) {
            const auto found = m.find(k);
            return found == m.end() ? 0.0 : found->second;
        };
        for (const std::string& cable : cables) {
            const double rest = at(before, cable) + at(bought, cable) - at(lost, cable) - at(after, cable);
            if (left_over.contains(cable))
                EXPECT_NEAR(rest, at(left_over, cable), 0.02) << cable;
            else
                EXPECT_GE(rest, -0.02) << cable << ": more is wanted than there is";
            if (bought.contains(cable)) {
                EXPECT_NEAR(rest, 0, 0.02) << cable << ": bought for nothing";
            }
        }
    }
    EXPECT_GT(wasted_runs, 10u);
    EXPECT_GT(left, 3u);
}

TEST(ChangeOrder, OfNothingIsNothingAndPacksBegunServeOn) {
    for (Plan from : strewn_vehicles(4)) {
        std::mt19937 random(3);
        mark_some(from, random);
        EXPECT_TRUE(change_order(from, from).lines.empty());
    }
    // 12 m wanted of a cable that comes in rolls of 25: 5 m more cost nothing, 20 m more cost a roll
    Plan plan = vehicle(3).plan;
    const yr::Run* some = nullptr;
    for (const yr::Run& r : plan.runs)
        if (is_cut(r) && r.size && find(plan.loads, std::string_view(r.to.owner))) some = &r;
    ASSERT_NE(some, nullptr);
    const Id id = some->id;
    const auto with = [&](double length_m) {
        Plan p = plan;
        for (yr::Run& r : p.runs)
            if (r.id == id) r.length_m = length_m, r.size = WireSize::metric(16);
        for (const Part& part : parts_of(p))
            if (part.kind == BuyKind::cable && part.what.starts_with("16 mm"))
                p.policy.prices.push_back({part.key, 4.0, 25.0});
        return p;
    };
    const auto metres_priced = [&](double from_m, double to_m) {
        double price = -1;
        for (const ChangeLine& l : change_order(with(from_m), with(to_m)).lines)
            if (l.kind == ChangeKind::buy && l.part.starts_with("16 mm")) price = l.price.value_or(-2);
        return price;
    };
    EXPECT_DOUBLE_EQ(metres_priced(12, 17), 0);
    EXPECT_DOUBLE_EQ(metres_priced(12, 32), 100);
}

// ---- symptoms

// Loads with a way from any battery or source that does not pass one fuse, through every closed or open
// switch.
std::set<Id> reached_without(const Plan& plan, const Id& fuse) {
    std::set<Terminal> seen;
    std::deque<Terminal> next;
    const auto go = [&](const Terminal& t) {
        if (seen.insert(t).second) next.push_back(t);
    };
    for (const Battery& b : plan.batteries) go(Terminal(b.id, Post::pos));
    for (const Source& s : plan.sources) go(Terminal(s.id, Post::out));
    std::set<Id> loads;
    while (!next.empty()) {
        const Terminal t = next.front();
        next.pop_front();
        for (const yr::Run& r : plan.runs) {
            if (r.from != t && r.to != t) continue;
            if (std::any_of(r.devices.begin(), r.devices.end(),
                            [&](const Device& d) { return d.id == fuse; }))
                continue;
            const Terminal& other = r.from == t ? r.to : r.from;
            if (other.post == Post::neg) continue;
            if (find(plan.loads, std::string_view(other.owner))) {
                loads.insert(other.owner);
                continue;
            }
            go(other);
        }
    }
    return loads;
}

TEST(Symptoms, EveryLoadBehindAFuseAloneIsOnItsLine) {
    std::size_t told = 0;
    for (const Plan& plan : strewn_vehicles(sweep(6U, 60U))) {
        const auto all = symptoms(plan);
        std::set<Id> ever;  // loads that run in some state
        for (const State& s : plan.states) {
            const Solution sound = solve(plan, s);
            for (std::size_t k = 0; k < plan.loads.size() && sound.point.settled; ++k)
                if (sound.point.loads[k].status == LoadStatus::on &&
                    sound.point.loads[k].voltage_V > 0.97 * plan.vehicle.nominal_V)
                    ever.insert(plan.loads[k].id);
        }
        for (const yr::Run& r : plan.runs)
            for (const Device& d : r.devices) {
                if (d.kind != DeviceKind::fuse) continue;
                const std::set<Id> still = reached_without(plan, d.id);
                std::set<Id> dead;
                for (const Symptom& s : all)
                    for (const Break& b : s.where)
                        if (b.id == d.id) dead.insert(s.dead.begin(), s.dead.end());
                for (const Load& l : plan.loads) {
                    if (!l.inverter.empty() || still.contains(l.id) || !ever.contains(l.id)) continue;
                    EXPECT_TRUE(dead.contains(l.id))
                        << plan.vehicle.name << ": " << l.name << " without " << d.id;
                    ++told;
                }
            }
    }
    EXPECT_GT(told, 30u);
}

TEST(Symptoms, APictureStandsOnceAndTellsWhereItShows) {
    for (const Plan& plan : strewn_vehicles(sweep(4U, 40U))) {
        std::set<std::pair<BreakKind, Id>> broken_once;
        for (const Symptom& s : symptoms(plan)) {
            EXPECT_FALSE(s.dead.empty());
            EXPECT_FALSE(s.where.empty());
            EXPECT_TRUE(std::find(s.states.begin(), s.states.end(), s.tells) != s.states.end());
            for (const Id& l : s.alive)
                EXPECT_TRUE(std::find(s.dead.begin(), s.dead.end(), l) == s.dead.end()) << l;
            for (const Break& b : s.where)
                EXPECT_TRUE(broken_once.insert({b.kind, b.id}).second) << "one line for each break";
        }
    }
}

// ---- quotes

// Dearer parts, more hours or a higher margin never make a job cheaper; what the customer brings never
// dearer.
TEST(Quote, GoesTheWayItsFiguresGo) {
    for (Plan plan : strewn_vehicles(sweep(6U, 80U))) {
        std::mt19937 random(static_cast<unsigned>(plan.runs.size()));
        for (const Part& part : parts_of(plan))
            plan.policy.prices.push_back({part.key, 1.0 + static_cast<double>(random() % 30),
                                          1.0 + static_cast<double>(random() % 9)});
        plan.policy.rate_h = 55, plan.policy.margin = 0.15, plan.policy.tax = 0.2;
        const Quote base = quote(plan);
        EXPECT_LE(base.least, base.most);
        EXPECT_NEAR(
            base.most,
            base.parts + base.consumables + base.margin + base.travel + base.most_work + base.most_tax, 1e-6);
        double sum = 0;
        for (const QuoteLine& l : base.lines) {
            sum += l.brought ? 0 : l.price.value_or(0);
            EXPECT_GE(l.packs * l.pack, l.quantity - 1e-6) << l.what << ": as many packs as it takes";
            EXPECT_LT((l.packs - 1) * l.pack, l.quantity) << l.what << ": and no more";
        }
        EXPECT_NEAR(sum, base.parts, 1e-6);
        const auto with = [&](auto change) {
            Plan p = plan;
            change(p.policy);
            return quote(p).most;
        };
        const std::size_t k = random() % plan.policy.prices.size();
        EXPECT_GE(with([&](Policy& q) { *q.prices[k].each += 3; }), base.most);
        EXPECT_LE(with([&](Policy& q) { q.prices[k].brought = true; }), base.most);
        EXPECT_GT(with([](Policy& q) { q.rate_h = 70; }), base.most);
        EXPECT_GT(with([](Policy& q) { q.margin = 0.3; }), base.most);
        EXPECT_NEAR(with([](Policy& q) { q.travel = 100; }) - base.most, 120, 1e-6) << "and its tax";
    }
}

}  // namespace
}  // namespace yr::test
