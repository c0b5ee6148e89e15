// The rail chart's geometry: widths are amps, heights are volts, and a planar network is drawn whole.
#include <gtest/gtest.h>

#include <cmath>
#include <map>

#include "chart/rail_layout.h"
#include "plan/plan_json.h"
#include "solve/settle.h"
#include "support/random_plan.h"

namespace yr::test {
namespace {

// Moron 1925 (from memory): nodes T a b c d B, 1 ohm each, 33 A from T to B; the chart is a 33 x 32 rectangle
// cut into nine different squares. Closed form: computed.
Network moron() {
    Network n;
    for (const char* name : {"T", "a", "b", "c", "d", "B"}) n.nodes.emplace_back(name);
    const int T = 0, a = 1, b = 2, c = 3, d = 4, B = 5;
    for (const auto& [from, to] :
         {std::pair{T, a}, {T, b}, {b, c}, {b, d}, {a, B}, {a, c}, {c, B}, {c, d}, {d, B}}) {
        ConductorElement e;
        e.from = from, e.to = to, e.fixed_ohm = 1;
        e.parts = {{PartKind::metal, -1, 1}};
        n.conductors.push_back(e);
    }
    n.reference = B;
    n.batteries = {{T, B, 65, 1, 0, 1, 1}};  // 65 V behind 1 ohm gives 33 A into 32/33 ohm
    return n;
}

TEST(RailChart, MoronsSquaredRectangle) {
    const Network n = moron();
    const OperatingPoint p = solve(n);
    const double expected[] = {18, 15, 7, 8, 14, 4, 10, 1, 9};
    for (std::size_t k = 0; k < 9; ++k)
        EXPECT_NEAR(std::abs(p.conductors[k].current_A), expected[k], 1e-9) << k;
    const RailLayout chart = lay_out(n, p, nullptr);
    EXPECT_NEAR(chart.width_A, 33, 1e-9);
    EXPECT_EQ(chart.cuts, 0) << "a planar network needs no cut";
    ASSERT_EQ(chart.pieces.size(), 9U);
    double area = 0;
    for (const ChartPiece& piece : chart.pieces) {
        const double width = piece.right_A - piece.left_A, height = piece.high_V - piece.low_V;
        EXPECT_NEAR(width, height, 1e-9) << "every branch of 1 ohm is a square";
        area += width * height;
    }
    EXPECT_NEAR(area, 33 * 32, 1e-6) << "the squares fill the rectangle";
}

// Whatever the network: every branch's pieces add up to its current, no two rectangles overlap, and above
// each other stand only branches that share a node.
void expect_true(const Network& net, const OperatingPoint& point) {
    const RailLayout chart = lay_out(net, point, nullptr, 1e-6);
    std::map<std::pair<int, int>, double> width;
    for (const ChartPiece& p : chart.pieces) {
        EXPECT_LT(p.left_A, p.right_A);
        EXPECT_GE(p.high_V, p.low_V - 1e-9);
        EXPECT_GE(p.left_A, -1e-9);
        EXPECT_LE(p.right_A, chart.width_A + 1e-9);
        width[{static_cast<int>(p.ref.thing), p.ref.index}] += p.right_A - p.left_A;
    }
    for (const auto& [ref, amps] : width)
        if (ref.first == static_cast<int>(ChartThing::conductor))
            EXPECT_NEAR(amps, std::abs(point.conductors[static_cast<std::size_t>(ref.second)].current_A),
                        1e-6 * chart.width_A);
    for (std::size_t a = 0; a < chart.pieces.size(); ++a)
        for (std::size_t b = a + 1; b < chart.pieces.size(); ++b) {
            const ChartPiece &p = chart.pieces[a], &q = chart.pieces[b];
            const double across = std::min(p.right_A, q.right_A) - std::max(p.left_A, q.left_A);
            const double along = std::min(p.high_V, q.high_V) - std::max(p.low_V, q.low_V);
            EXPECT_FALSE(across > 1e-5 * chart.width_A && along > 1e-7) << "two rectangles overlap";
        }
}

TEST(RailChart, IsTrueForRandomMeshes) {
    for (std::uint32_t seed = 1; seed <= 40; ++seed) {
        SCOPED_TRACE(seed);
        const Plan plan = random_plan(seed);
        const Solution s = solve(plan, plan.states[0]);
        expect_true(s.network, s.point);
    }
}

TEST(RailChart, IsTrueForTheDemosInEveryState) {
    for (const char* demo : kDemos) {
        const auto plan = load_plan(demo_path(demo));
        for (const State& state : plan->states) {
            SCOPED_TRACE(std::string(demo) + ", " + state.name);
            const Solution s = solve(*plan, state);
            expect_true(s.network, s.point);
        }
    }
}

TEST(RailChart, OrderStaysWhileTheShapeStays) {
    auto plan = *load_plan(demo_path(kDemos[0]));
    const State idle = *find_state(plan, "Idling");
    const Solution before = solve(plan, idle);
    const RailLayout first = lay_out(before.network, before.point, nullptr);
    for (yr::Run& r : plan.runs)
        if (r.name == "echo sounder feed") r.size = WireSize::awg(8);
    const Solution after = solve(plan, idle);
    const RailLayout second = lay_out(after.network, after.point, &first.order);
    ASSERT_EQ(first.order.leaving.size(), second.order.leaving.size());
    for (std::size_t k = 0; k < first.order.leaving.size(); ++k)
        EXPECT_EQ(first.order.leaving[k], second.order.leaving[k]);
}

TEST(RailChart, ADeadNetworkIsEmpty) {
    Plan plan = empty_plan("dead");
    const Solution s = solve(plan, plan.states[0]);
    EXPECT_EQ(lay_out(s.network, s.point, nullptr).width_A, 0);
}

}  // namespace
}  // namespace yr::test
