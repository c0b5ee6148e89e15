// Sneak paths against the plain way: every key position, every set of switches, every set of pulled fuses and
// every settled position of coils, each solved whole.
#include <gtest/gtest.h>

#include <map>

#include "inspect/sneak.h"
#include "plan/validate.h"
#include "support/random_plan.h"
#include "support/switchy_plan.h"

namespace yr {
namespace {

using test::switchy_plan;

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

void judge(const Plan& plan, const State& state, const Solution& s, Wrongs& wrongs) {
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& l = plan.loads[k];
        const LoadResult& r = s.point.loads[k];
        const double volts = r.status == LoadStatus::on && !r.reversed ? r.voltage_V : 0;
        const bool wanted = holds(l.live_when, state);
        bool out = false;
        for (const Id& f : own_fuses(plan, l))
            out = out || std::find(state.pulled.begin(), state.pulled.end(), f) != state.pulled.end();
        const auto note = [&](SneakKind kind) {
            const auto [at, added] = wrongs.try_emplace({l.id, kind}, state.pulled.size());
            if (!added) at->second = std::min(at->second, state.pulled.size());
        };
        if (volts >= alive_V(plan) && !wanted) note(SneakKind::alive);
        if (volts >= alive_V(plan) && wanted && out) note(SneakKind::past_fuse);
        const bool matters = state.key != Key::crank || counts_while_cranking(l);
        if (volts < served_V(plan) && wanted && !out && matters) note(SneakKind::dead);
    }
}

Wrongs every_combination(const Plan& plan) {
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
                    judge(plan, state, settle(net, solver), wrongs);
                    continue;
                }
                for (const Positions& positions : settled_positions(net, solver))
                    judge(plan, state, solve_at(net, positions, solver), wrongs);
            }
    return wrongs;
}

const char* name(SneakKind kind) {
    return kind == SneakKind::alive ? "alive" : kind == SneakKind::dead ? "dead" : "past its fuse";
}

TEST(Sneak, NoneMissedAndNoneInventedInTwoHundredPlans) {
    int wrongs_in_all = 0;
    for (std::uint32_t seed = 1; seed <= 200; ++seed) {
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
    EXPECT_GT(wrongs_in_all, 200) << "plans in which nothing is wrong prove nothing";
}

}  // namespace
}  // namespace yr
