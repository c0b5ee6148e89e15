// Sneak paths against the plain way: every key position, every set of switches, every set of pulled fuses and
// every settled position of coils, each solved whole.
#include <gtest/gtest.h>

#include <map>
#include <random>

#include "inspect/sneak.h"
#include "plan/validate.h"
#include "support/random_plan.h"
#include "support/sweep.h"
#include "support/switchy_plan.h"
#include "support/vehicles.h"
#include "words/control_words.h"

namespace yr {
namespace {

using test::cart;
using test::small_machine;
using test::sweep;
using test::switchy_plan;
using test::vehicle;

std::vector<Id> fuses_of(const Plan& plan) {
    std::vector<Id> ids;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::fuse) ids.push_back(d.id);
    return ids;
}

template <class T>
std::vector<T> subset(const std::vector<T>& all, std::size_t bits) {
    std::vector<T> some;
    for (std::size_t k = 0; k < all.size(); ++k)
        if ((bits >> k) & 1) some.push_back(all[k]);
    return some;
}

// By load and kind: the fewest fuses that are out when it happens.
using Wrongs = std::map<std::pair<Id, SneakKind>, std::size_t>;

void judge(const Plan& plan, const State& state, const Solution& s, double of_served, Wrongs& wrongs) {
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& l = plan.loads[k];
        const LoadResult& r = s.point.loads[k];
        const double volts = r.status == LoadStatus::on && !r.reversed ? r.voltage_V : 0;
        const bool wanted = holds(l.live_when, state);
        const auto any_out = [&](const std::vector<Id>& fuses) {
            return std::any_of(fuses.begin(), fuses.end(), [&](const Id& f) {
                return std::find(state.pulled.begin(), state.pulled.end(), f) != state.pulled.end();
            });
        };
        const bool out = any_out(own_fuses(plan, l));
        const auto note = [&](SneakKind kind) {
            const auto [at, added] = wrongs.try_emplace({l.id, kind}, state.pulled.size());
            if (!added) at->second = std::min(at->second, state.pulled.size());
        };
        if (volts >= alive_V(plan, l) && !wanted) note(SneakKind::alive);
        if (volts >= alive_V(plan, l) && wanted && out) note(SneakKind::past_fuse);
        const bool matters = state.key != Key::crank || counts_while_cranking(l);
        if (volts < of_served * served_V(plan, l) && wanted && matters &&
            !any_out(fuses_it_rests_on(plan, l)))
            note(SneakKind::dead);
    }
}

// Dead: below that share of what counts as served.
Wrongs every_combination(const Plan& plan, double of_served = 1) {
    Wrongs wrongs;
    const auto switches = plan_switches(plan);
    const auto fuses = fuses_of(plan);
    OperatingPointSolver solver;
    for (const KeyPosition p : positions_of(plan))
        for (std::size_t on = 0; on < (std::size_t{1} << switches.size()); ++on)
            for (std::size_t out = 0; out < (std::size_t{1} << fuses.size()); ++out) {
                State state = state_at(plan, p, subset(switches, on));
                state.pulled = subset(fuses, out);
                const Network net = resistive_network(plan, state);
                if (net.memories.empty()) {
                    judge(plan, state, settle(net, solver), of_served, wrongs);
                    continue;
                }
                for (const Positions& positions : settled_positions(net, solver))
                    judge(plan, state, solve_at(net, positions, solver), of_served, wrongs);
            }
    return wrongs;
}

const char* name(SneakKind kind) {
    return kind == SneakKind::alive ? "alive" : kind == SneakKind::dead ? "dead" : "past its fuse";
}

TEST(Sneak, NoneMissedAndNoneInvented) {
    int wrongs_in_all = 0;
    for (std::uint32_t seed = 1; seed <= sweep(60U, 200U); ++seed) {
        const Plan plan = switchy_plan(seed);
        ASSERT_TRUE(validate(plan).empty()) << seed;
        const Wrongs expected = every_combination(plan);
        SneakAsk ask;
        ask.with_mends = false;
        const SneakSearch found = search_sneaks(plan, ask);
        Wrongs actual;
        for (const SneakPath& p : found.found) actual[{p.load, p.kind}] = p.state.pulled.size();
        for (const auto& [wrong, pulled] : expected)
            EXPECT_TRUE(actual.contains(wrong))
                << seed << ": missed " << wrong.first << " " << name(wrong.second);
        for (const auto& [wrong, pulled] : actual) {
            EXPECT_TRUE(expected.contains(wrong))
                << seed << ": invented " << wrong.first << " " << name(wrong.second);
            if (const auto e = expected.find(wrong); e != expected.end())
                EXPECT_EQ(pulled, e->second) << seed << ": " << wrong.first << " " << name(wrong.second);
        }
        wrongs_in_all += static_cast<int>(expected.size());
    }
    EXPECT_GT(wrongs_in_all, sweep(60, 200)) << "plans in which nothing is wrong prove nothing";
}

std::vector<Plan> right_vehicles(unsigned seed) {
    std::vector<Plan> plans{vehicle(seed).plan};
    if (seed % 3 == 0) plans.push_back(cart(seed).plan);
    if (seed % 3 == 1) plans.push_back(small_machine(seed).plan);
    return plans;
}

// Nothing is wrong with them, and nothing is said to be: batteries that are joined, an alternator in front of
// them and converters are feeds that are meant.
TEST(SneakOfVehicles, RightOnesHaveNone) {
    for (unsigned seed = 1; seed <= static_cast<unsigned>(sweep(30, 300)); ++seed)
        for (const Plan& plan : right_vehicles(seed)) {
            SneakAsk ask;
            ask.with_mends = false;
            const SneakSearch s = search_sneaks(plan, ask);
            EXPECT_TRUE(s.complete);
            for (const SneakPath& p : s.found) ADD_FAILURE() << seed << ": " << words::sentence(p, plan);
        }
}

// An alternator on the front block with the battery behind a fused cable, and a load with two feeds: with one
// fuse out the other carries, and that is what they are there for.
TEST(SneakOfVehicles, ASecondFeedThatIsMeantIsNone) {
    int vehicles = 0;
    for (unsigned seed = 1; seed <= 30; ++seed) {
        Plan plan = vehicle(seed).plan;
        const Source* alternator = nullptr;
        for (const Source& s : plan.sources)
            if (s.kind == SourceKind::alternator) alternator = &s;
        const Load* load = nullptr;
        for (const Load& l : plan.loads) {
            const yr::Run* run = supply_run(plan, l.id);
            const Point* from = run ? find(plan.points, run->from) : nullptr;
            if (!l.starter && l.inverter.empty() && from && from->channels.empty()) load = &l;
        }
        if (!alternator || !load) continue;
        const Terminal block = supply_run(plan, load->id)->from;
        for (yr::Run& r : plan.runs) {
            if (r.from == out_of(alternator->id)) r.to = block;
            if (r.to == out_of(alternator->id)) r.from = block;
        }
        yr::Run second = *supply_run(plan, load->id);
        second.id = "second-feed";
        second.from = pos_of(plan.batteries.front().id);
        for (Device& d : second.devices) d.id += "-too";
        plan.runs.push_back(second);
        ASSERT_TRUE(validate(plan).empty()) << validate(plan).front().place;
        SneakAsk ask;
        ask.with_mends = false;
        for (const SneakPath& p : search_sneaks(plan, ask).found)
            ADD_FAILURE() << seed << ": " << words::sentence(p, plan);
        ++vehicles;
    }
    EXPECT_GT(vehicles, 20);
}

// A whole vehicle with a few of its loads and of its fuses left, so that every combination can be tried.
Plan cut_down(Plan plan, unsigned seed) {
    std::mt19937 random(seed);
    std::vector<Id> gone;
    for (const Load& l : plan.loads) {
        const bool coil = std::any_of(plan.runs.begin(), plan.runs.end(), [&](const Run& r) {
            return std::any_of(r.devices.begin(), r.devices.end(),
                               [&](const Device& d) { return d.coil == l.id; });
        });
        const bool waited_for = std::any_of(plan.loads.begin(), plan.loads.end(), [&](const Load& o) {
            return std::find(o.live_when.circuits.begin(), o.live_when.circuits.end(), l.id) !=
                   o.live_when.circuits.end();
        });
        if (!coil && !waited_for && l.inverter.empty() && random() % 3 != 0) gone.push_back(l.id);
    }
    for (const Id& id : gone) EXPECT_TRUE(yr::apply(plan, remove_with_runs(plan, id)));
    const auto variables = [&] { return fuses_of(plan).size() + plan_switches(plan).size(); };
    while (variables() > 9 && !fuses_of(plan).empty()) {
        const auto fuses = fuses_of(plan);
        const Id out = fuses[random() % fuses.size()];
        for (Run& r : plan.runs) std::erase_if(r.devices, [&](const Device& d) { return d.id == out; });
    }
    return plan;
}

// A wire from the end of one branch to the end of another, as it comes about where two are bridged.
Plan with_a_bridge(Plan plan, unsigned seed) {
    std::vector<const Load*> ends;
    for (const Load& l : plan.loads)
        if (l.inverter.empty() && !l.starter && supply_run(plan, l.id)) ends.push_back(&l);
    if (ends.size() < 2) return plan;
    Run bridge = *supply_run(plan, ends.front()->id);
    bridge.id = new_id(plan, "bridge");
    bridge.devices.clear();
    bridge.channel = 0;
    bridge.from = pos_of(ends[seed % (ends.size() - 1)]->id);
    bridge.to = pos_of(ends.back()->id);
    plan.runs.push_back(bridge);
    return plan;
}

TEST(SneakOfVehicles, CutDownEqualsEveryCombination) {
    int wrongs = 0, tried = 0;
    for (unsigned seed = 1; seed <= static_cast<unsigned>(sweep(10, 200)); ++seed)
        for (Plan plan : right_vehicles(seed)) {
            plan = cut_down(plan, seed);
            if (seed % 2 == 0) plan = with_a_bridge(plan, seed);
            if (fuses_of(plan).size() + plan_switches(plan).size() > 12) continue;
            ++tried;
            const Wrongs expected = every_combination(plan);
            SneakAsk ask;
            ask.with_mends = false;
            // the search takes cables as perfect: what only sags while the starter turns is none of its paths
            const Wrongs cut_off = every_combination(plan, 0.4);
            Wrongs actual;
            for (const SneakPath& p : search_sneaks(plan, ask).found)
                actual[{p.load, p.kind}] = p.state.pulled.size();
            for (const auto& [wrong, pulled] : cut_off)
                EXPECT_TRUE(actual.contains(wrong))
                    << seed << ": missed " << wrong.first << " " << name(wrong.second);
            for (const auto& [wrong, pulled] : actual)
                EXPECT_TRUE(expected.contains(wrong))
                    << seed << ": invented " << wrong.first << " " << name(wrong.second);
            wrongs += static_cast<int>(expected.size());
        }
    EXPECT_GT(tried, sweep(10, 200) / 2);
    EXPECT_GT(wrongs, 5) << "vehicles in which nothing is wrong prove nothing";
}

}  // namespace
}  // namespace yr
