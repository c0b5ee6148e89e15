// Operating points against ngspice: the demos in every state and random networks with loops.
#include <gtest/gtest.h>

#include <cmath>

#include "inspect/sneak.h"
#include "io/spice.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "plan/variant.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/spice_writer.h"

namespace yr::test {
namespace {

constexpr double kVolt = 1e-3;     // what the product promises: 1 mV
constexpr double kShare = 1e-3;    // and 0.1 % of each current
constexpr double kLeast_A = 2e-3;  // below this 0.1 % drowns in ngspice's own rounding

void compare(const Plan& plan, const State& state) {
    SCOPED_TRACE(plan.vehicle.name + ", " + state.name);
    const Solution ours = solve(plan, state);
    ASSERT_TRUE(ours.point.settled);
    ASSERT_TRUE(ours.point.residuals.good());
    std::vector<double> temperatures;
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        temperatures.push_back(ours.point.conductors[k].temperature_C);
    std::vector<char> on;
    for (std::size_t k = 0; k < ours.point.loads.size();
         ++k) {  // a plain resistance is there even where it is dead
        const LoadElement& l = ours.network.loads[k];
        on.push_back(ours.point.loads[k].status == LoadStatus::on ||
                     (l.wanted && l.kind == DrawKind::resistance));
    }
    std::map<std::string, bool> closed;
    for (std::size_t k = 0; k < ours.memories.size(); ++k)
        closed[ours.network.memories[k].id] = ours.memories[k].closed;
    SpiceCircuit circuit;
    std::map<std::string, double> volts;
    for (const double step :
         {1e-3, 1e-5, 1e-7}) {  // how near to the answer ngspice begins; limits make it hard
        std::map<std::string, double> start;
        for (std::size_t k = 0; k < ours.network.nodes.size(); ++k)
            start[ours.network.nodes[k].text()] = std::round(ours.point.node_V[k] / step) * step;
        circuit = write_spice(plan, state, temperatures, start, on, closed);
        volts = run_spice(circuit);
        if (!volts.empty()) break;
    }
    ASSERT_FALSE(volts.empty()) << circuit.deck;
    for (std::size_t k = 0; k < ours.network.nodes.size(); ++k) {
        const auto found = volts.find(ours.network.nodes[k].text());
        if (found == volts.end()) continue;  // a terminal that nothing closed touches in this state
        EXPECT_NEAR(ours.point.node_V[k], found->second, kVolt) << ours.network.nodes[k].text();
    }
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const yr::Run& r = plan.runs[k];
        const auto ohm = circuit.ohm_of_run.find(r.id);
        const double mine = ours.point.conductors[k].current_A;
        if (ohm == circuit.ohm_of_run.end()) {
            EXPECT_EQ(mine, 0) << r.name;
            continue;
        }
        const double theirs = circuit.current_A(r.id, volts.at(r.from.text()) - volts.at(r.to.text()));
        EXPECT_NEAR(mine, theirs, kShare * std::abs(theirs) + kLeast_A * kShare) << r.name;
    }
}

class DemoAgainstSpice : public testing::TestWithParam<const char*> {};

TEST_P(DemoAgainstSpice, EveryStateAgrees) {
    const auto plan = load_plan(demo_path(GetParam()));
    ASSERT_TRUE(plan.has_value());
    for (const State& state : plan->states) compare(*plan, state);
    for (const Variant& v : plan->variants) {
        SCOPED_TRACE(v.name);
        const Plan other = with_variant(*plan, v.id);
        for (const State& state : other.states) compare(other, state);
    }
}

INSTANTIATE_TEST_SUITE_P(All, DemoAgainstSpice, testing::ValuesIn(kDemos), [](const auto& i) {
    std::string n = i.param;
    std::replace(n.begin(), n.end(), '-', '_');
    return n;
});

class RandomAgainstSpice : public testing::TestWithParam<int> {};

TEST_P(RandomAgainstSpice, LoopsAgree) {
    const Plan plan = random_plan(static_cast<std::uint32_t>(GetParam()));
    ASSERT_TRUE(validate(plan).empty()) << validate(plan).front().place;
    compare(plan, plan.states.front());
}

INSTANTIATE_TEST_SUITE_P(Seeds, RandomAgainstSpice, testing::Range(1, 41));

class DevicesAgainstSpice : public testing::TestWithParam<int> {};

TEST_P(DevicesAgainstSpice, SourcesRelaysDiodesAndInvertersAgree) {
    RandomShape shape;
    shape.devices = true;
    const Plan plan = random_plan(static_cast<std::uint32_t>(GetParam()), shape);
    ASSERT_TRUE(validate(plan).empty()) << validate(plan).front().place;
    for (const State& state : plan.states) compare(plan, state);
}

INSTANTIATE_TEST_SUITE_P(Seeds, DevicesAgainstSpice, testing::Range(1, 51));

// What the sneak search tells, with fuses out and relays held in, is what ngspice says of the same wires.
TEST(SneakAgainstSpice, EveryFoundSituationAgrees) {
    const Plan plan = with_variant(*load_plan(demo_path(kDemos[0])), "variant-wake");
    SneakAsk ask;
    ask.with_mends = false;
    const SneakSearch found = search_sneaks(plan, ask);
    ASSERT_GT(found.found.size(), 10U);
    Plan resistive = plan;
    for (Load& l : resistive.loads) {
        if (!l.inverter.empty()) continue;
        l.draw = {DrawKind::resistance, plan.vehicle.nominal_V / nominal_A(plan, l) * l.count};
        l.line_curve.clear();
    }
    for (const SneakPath& p : found.found) {
        SCOPED_TRACE(p.load);
        compare(resistive, p.state);
        if (p.kind == SneakKind::dead) continue;
        const Solution s = solve(resistive, p.state);
        const auto k = static_cast<std::size_t>(find(plan.loads, p.load) - plan.loads.data());
        EXPECT_NEAR(s.point.loads[k].voltage_V, p.volts_V, 1e-9);
    }
}

TEST(SpiceExport, NgspiceReadsItAndAgrees) {
    const auto plan = load_plan(demo_path(kDemos[0]));
    ASSERT_TRUE(plan.has_value());
    const Solution s = solve(*plan, *find_state(*plan, "Driving"));
    std::string deck = spice_netlist(*plan, s, "truck");
    deck.insert(deck.find("\n.op\n") + 1, ".control\nset numdgt=12\nop\nprint all\n.endc\n");
    const TempFolder folder;
    write_text(folder.file("d.cir"), deck);
    const Ran ran = run("ngspice -b " + folder.file("d.cir"));
    int compared = 0;
    for (std::size_t k = 0; k < s.network.nodes.size(); ++k) {
        const std::string key = "\nn" + std::to_string(k) + " = ";
        const auto at = ran.out.find(key);
        if (at == std::string::npos) continue;
        if (deck.find("\nRtie" + std::to_string(k) + " ") != std::string::npos) continue;  // hangs on nothing
        EXPECT_NEAR(std::strtod(ran.out.c_str() + at + key.size(), nullptr), s.point.node_V[k], kVolt)
            << s.network.nodes[k].text();
        ++compared;
    }
    EXPECT_GT(compared, 60);
}

// Every state of every demo starts in ngspice: what hangs on nothing is tied.
TEST(SpiceExport, EveryStateRuns) {
    const TempFolder folder;
    int states = 0;
    for (const char* name : kDemos) {
        const Plan plan = *load_plan(demo_path(name));
        for (const State& state : plan.states) {
            std::string deck = spice_netlist(plan, solve(plan, state), name);
            deck.insert(deck.find("\n.op\n") + 1, ".control\nop\nprint all\n.endc\n");
            write_text(folder.file("d.cir"), deck);
            const Ran ran = run("ngspice -b " + folder.file("d.cir"));
            EXPECT_EQ(ran.out.find("ingular"), std::string::npos) << name << ", " << state.name;
            EXPECT_NE(ran.out.find("\nn"), std::string::npos) << name << ", " << state.name;
            ++states;
        }
    }
    EXPECT_GT(states, 14);
}

}  // namespace
}  // namespace yr::test
