// Ways, routes, bundles, passages and where things should stand.
#include <gtest/gtest.h>

#include <boost/graph/adjacency_list.hpp>
#include <boost/graph/dijkstra_shortest_paths.hpp>
#include <cmath>
#include <random>
#include <set>

#include "inspect/places.h"
#include "inspect/stand.h"
#include "notes/notes.h"
#include "notes/plan_text.h"
#include "plan/additions.h"
#include "plan/names.h"
#include "plan/validate.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "routes/packing.h"
#include "routes/where.h"
#include "size/run_limits.h"
#include "solve/settle.h"
#include "support/sweep.h"
#include "support/vehicles.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

Waypoint waypoint(const Id& id, double x, double y, double z = 0) {
    Waypoint w;
    w.id = w.name = id, w.at = stand_at({x, y, z});
    return w;
}
Way way(const Id& id, const Id& from, const Id& to) {
    Way w;
    w.id = w.name = id, w.from = from, w.to = to;
    return w;
}
// A stud at that spot.
void stud(Plan& plan, const Id& id, double x, double y, double z = 0) {
    Point p;
    p.id = p.name = id, p.kind = PointKind::stud, p.at = stand_at({x, y, z});
    plan.points.push_back(p);
}
yr::Run& cable(Plan& plan, const Id& id, const Id& from, const Id& to, int awg = 8) {
    yr::Run r;
    r.id = r.name = id, r.from = Terminal(from), r.to = Terminal(to), r.size = WireSize::awg(awg);
    plan.runs.push_back(r);
    return plan.runs.back();
}
Place hazard(const Id& id, Spot low, Spot high, Hazard what) {
    Place p;
    p.id = p.name = id, p.at = stand_at(low), p.hazard = what;
    p.long_m = high.x_m - low.x_m, p.wide_m = high.y_m - low.y_m, p.high_m = high.z_m - low.z_m;
    return p;
}

// ---- packing

// Diameters of the smallest circle round n equal ones of diameter 1: densest known packings, published table,
// from memory.
const std::vector<std::pair<int, double>> kDensest{
    {2, 2.0},     {3, 2.1547},  {4, 2.4142},  {5, 2.7013},  {6, 3.0},     {7, 3.0},
    {8, 3.3048},  {9, 3.6131},  {10, 3.8130}, {11, 3.9238}, {12, 4.0296}, {13, 4.2361},
    {14, 4.3284}, {15, 4.5214}, {16, 4.6154}, {17, 4.7920}, {18, 4.8637}, {19, 4.8637}};

TEST(Packing, EqualCirclesAreAsDenseAsIsKnown) {
    for (const auto& [n, known] : kDensest) {
        const Packing p = pack(std::vector<double>(static_cast<std::size_t>(n), 1.0));
        EXPECT_LE(p.diameter, known * 1.015) << n;
        EXPECT_GE(p.diameter, known * 0.999) << n << ": denser than is possible";
    }
}

TEST(Packing, NothingOverlapsAndNothingSticksOut) {
    std::mt19937 random(3);
    for (int seed = 0; seed < 40; ++seed) {
        std::vector<double> d;
        const int n = 1 + seed % 14;
        for (int k = 0; k < n; ++k) d.push_back(2 + static_cast<double>(random() % 160) / 10);
        const Packing p = pack(d);
        ASSERT_EQ(p.discs.size(), d.size());
        double area = 0;
        for (std::size_t a = 0; a < d.size(); ++a) {
            EXPECT_EQ(p.discs[a].d, d[a]) << "in the order given";
            area += d[a] * d[a];
            EXPECT_LE(std::hypot(p.discs[a].x, p.discs[a].y) + d[a] / 2, p.diameter / 2 * 1.002);
            for (std::size_t b = a + 1; b < d.size(); ++b)
                EXPECT_GE(std::hypot(p.discs[a].x - p.discs[b].x, p.discs[a].y - p.discs[b].y),
                          (d[a] + d[b]) / 2 * 0.995);
        }
        EXPECT_GE(p.diameter * p.diameter, area * 0.999);
        EXPECT_LE(p.diameter, 1.6 * std::sqrt(area) + 1e-9) << "not loose either";
        EXPECT_EQ(pack(d).diameter, p.diameter) << "the same each time";
    }
    EXPECT_EQ(pack({}).diameter, 0);
    EXPECT_NEAR(pack({7}).diameter, 7, 1e-6);
}

// The handbook's factor lies below what equal cables need for 2 to 6, 9 and 10 of them: the loom is the
// larger.
TEST(Packing, TheLoomIsTheLargerOfTheTwo) {
    for (const auto& [n, known] : kDensest) {
        const std::vector<double> d(static_cast<std::size_t>(n), 5.0);
        const bool below = n <= 6 || n == 9 || n == 10;
        EXPECT_EQ(bundle_by_factor(d) < known * 5, below) << n;
        EXPECT_GE(loom_diameter(d), known * 5 * 0.999);
        EXPECT_GE(loom_diameter(d), bundle_by_factor(d));
    }
}

// ---- shortest ways

TEST(WayNet, IsAsShortAsBoostsDijkstra) {
    using Graph = boost::adjacency_list<boost::vecS, boost::vecS, boost::undirectedS, boost::no_property,
                                        boost::property<boost::edge_weight_t, double>>;
    std::mt19937 random(11);
    int joined = 0;
    for (int seed = 0; seed < 60; ++seed) {
        Plan plan;
        const std::size_t n = 6 + random() % 20;
        for (std::size_t k = 0; k < n; ++k)
            plan.waypoints.push_back(waypoint(
                "w" + std::to_string(k), static_cast<double>(random() % 600) / 100,
                static_cast<double>(random() % 200) / 100, static_cast<double>(random() % 100) / 100));
        for (std::size_t k = 0; k < 2 * n; ++k) {
            const auto a = random() % n, b = random() % n;
            if (a != b)
                plan.ways.push_back(
                    way("way" + std::to_string(k), plan.waypoints[a].id, plan.waypoints[b].id));
        }
        const WayNet net(plan);
        Graph graph(n);
        for (std::size_t k = 0; k < plan.ways.size(); ++k) {
            const auto index = [&](const Id& id) { return std::stoul(id.substr(1)); };
            boost::add_edge(index(plan.ways[k].from), index(plan.ways[k].to), net.cost_of(k), graph);
        }
        std::vector<double> far(n);
        boost::dijkstra_shortest_paths(graph, 0, boost::distance_map(far.data()));
        for (std::size_t k = 1; k < n; ++k) {
            if (far[k] > 1e9) continue;
            const Spot from = *plan.waypoints[0].at.spot(), to = *plan.waypoints[k].at.spot();
            if (distance_m(from, to) < 0.7) continue;  // those are joined straight
            const auto path = net.shortest(from, to);
            ASSERT_TRUE(path);
            ++joined;
            // it may leave the ways, which a graph of them cannot: never dearer
            EXPECT_LE(path->cost, far[k] + 1e-9);
            // and whole: each stretch begins where the one before ended
            Spot at = from;
            for (const Leg& leg : path->legs) {
                EXPECT_LT(distance_m(at, leg.from), 1e-6);
                at = leg.to;
            }
            EXPECT_LT(distance_m(at, to), 1e-6);
            const bool on_ways_alone = std::all_of(path->legs.begin(), path->legs.end(),
                                                   [](const Leg& leg) { return leg.way.has_value(); });
            if (on_ways_alone) EXPECT_NEAR(path->cost, far[k], 1e-9);
        }
    }
    EXPECT_GT(joined, 200);
}

// A box of 3 x 1 m: along one side and across, 4 m; things a hand off the ways add that hand.
TEST(WayNet, LengthsOfAKnownBox) {
    Plan plan;
    plan.waypoints = {waypoint("a", 0, 0), waypoint("b", 3, 0), waypoint("c", 3, 1), waypoint("d", 0, 1)};
    plan.ways = {way("ab", "a", "b"), way("bc", "b", "c")};
    stud(plan, "from", 0, -0.1), stud(plan, "to", 3, 1.1);
    cable(plan, "r", "from", "to");
    Routes r = route_all(plan);
    ASSERT_TRUE(r.by_run[0]);
    EXPECT_NEAR(r.by_run[0]->way_m, 0.1 + 3 + 1 + 0.1, 1e-9);
    EXPECT_NEAR(r.by_run[0]->length_m, 4.2 * 1.08 + 0.3, 1e-9) << "8 % and 15 cm at each end";
    plan.policy.slack_m = 0, plan.policy.slack_share = 0;
    r = route_all(plan);
    EXPECT_NEAR(r.by_run[0]->length_m, 4.2, 1e-9);
    // halfway along a way
    plan.points[1].at = stand_at({1.5, 0.2, 0});
    EXPECT_NEAR(route_all(plan).by_run[0]->way_m, 0.1 + 1.5 + 0.2, 1e-9);
    // held past d, which no way joins: not laid, and told
    plan.ways.push_back(way("ad", "a", "d"));
    plan.runs[0].via = {"d"};
    EXPECT_NEAR(route_all(plan).by_run[0]->way_m, 0.1 + 1 + 1 + 1.5 + 0.2, 1e-9) << "there and back";
}

TEST(WayNet, GoesRoundWhatCablesKeepClearOf) {
    std::set<std::string> reasons;
    for (const auto& [what, name] : enum_names<Hazard>()) {
        if (what == Hazard::none) continue;
        Plan plan;
        plan.waypoints = {waypoint("a", 0, 0), waypoint("b", 4, 0), waypoint("c", 0, 3), waypoint("d", 4, 3)};
        plan.ways = {way("short", "a", "b"), way("ac", "a", "c"), way("cd", "c", "d"), way("db", "d", "b")};
        stud(plan, "from", 0, 0), stud(plan, "to", 4, 0);
        cable(plan, "r", "from", "to");
        EXPECT_NEAR(route_all(plan).by_run[0]->way_m, 4, 1e-6);
        plan.places.push_back(hazard("h", {1.5, -0.5, -0.5}, {2.5, 0.5, 0.5}, what));
        EXPECT_NEAR(route_all(plan).by_run[0]->way_m, 10, 1e-6);
        EXPECT_TRUE(place_findings(plan, {}).empty());
        // with no way round it passes, and that is told
        std::erase_if(plan.ways, [](const Way& w) { return w.id == "cd"; });
        EXPECT_NEAR(route_all(plan).by_run[0]->way_m, 4, 1e-6);
        const auto told = place_findings(plan, {});
        ASSERT_EQ(told.size(), 1u);
        EXPECT_EQ(told[0].kind, FindingKind::way_barred);
        EXPECT_EQ(told[0].other, "h");
        EXPECT_EQ(told[0].severity, is_grave(what) ? Severity::stop : Severity::fix) << name;
        EXPECT_TRUE(reasons.insert(words::sentence(told[0], plan)).second) << name << " has words of its own";
        EXPECT_NEAR(told[0].value, what == Hazard::exhaust ? 1.3 : 1.0, 1e-6) << "150 mm from the exhaust";
    }
}

// A cable past a short hot spot: counted in no ampacity, and still too hot for its insulation there.
TEST(WayNet, AShortHotStretchIsToldByTheHeatOfTheCopper) {
    const auto told_at = [](double spot_C, double half_m) {
        Plan plan;
        plan.states.emplace_back();
        plan.states[0].id = plan.states[0].name = "s", plan.states[0].ambient_C = 30;
        plan.waypoints = {waypoint("a", 0, 0), waypoint("b", 4, 0)};
        plan.ways = {way("short", "a", "b")};
        stud(plan, "from", 0, 0), stud(plan, "to", 4, 0);
        cable(plan, "r", "from", "to", 8);
        Place spot;
        spot.id = spot.name = "turbo", spot.air_C = spot_C, spot.at = stand_at({2 - half_m, -0.5, -0.5});
        spot.long_m = 2 * half_m, spot.wide_m = 1, spot.high_m = 1;
        plan.places = {spot};
        lay(plan);
        std::vector<Finding> hot;
        for (Finding& f : place_findings(plan, {solve(plan, plan.states[0])}))
            if (f.kind == FindingKind::way_hot) hot.push_back(std::move(f));
        return hot;
    };
    EXPECT_TRUE(told_at(95, 0.1).empty()) << "its insulation bears that";
    const auto hot = told_at(120, 0.1);
    ASSERT_EQ(hot.size(), 1u);
    EXPECT_EQ(hot[0].id, "r");
    EXPECT_EQ(hot[0].other, "turbo");
    EXPECT_DOUBLE_EQ(hot[0].value, 120) << "the air itself: the insulation lies in it";
    EXPECT_DOUBLE_EQ(hot[0].limit, 105);
    ASSERT_FALSE(hot[0].candidates.empty());
    EXPECT_DOUBLE_EQ(hot[0].candidates[0].to_A, 125);
    EXPECT_TRUE(told_at(120, 0.5).empty()) << "so long a stretch counts in ampacity and heat";
}

// ---- all together

// Two walls with two holes each: every way of giving cables to holes is tried, and the joint search finds the
// cheapest that fits, or close to it.
TEST(Routes, JointlyAsGoodAsTryingAll) {
    std::mt19937 random(7);
    int tight = 0;
    for (int seed = 0; seed < 200; ++seed) {
        Plan plan;
        plan.policy.slack_m = 0, plan.policy.slack_share = 0;
        const double y1 = 0.2 + static_cast<double>(random() % 10) / 10,
                     y2 = -0.3 - static_cast<double>(random() % 15) / 10;
        Waypoint one = waypoint("one", 2, y1), two = waypoint("two", 2, y2);
        one.kind = two.kind = PassageKind::grommet;
        one.bore_mm = 10 + static_cast<double>(random() % 12),
        two.bore_mm = 10 + static_cast<double>(random() % 25);
        plan.waypoints = {waypoint("l", 1, 0), one, two, waypoint("r", 3, 0)};
        plan.ways = {way("l1", "l", "one"), way("1r", "one", "r"), way("l2", "l", "two"),
                     way("2r", "two", "r")};
        for (const double x : {0.0, 2.001}) {  // a wall between
            Place room;
            room.id = room.name = "room" + std::to_string(x);
            room.at = stand_at({x, -3, -1}), room.long_m = 2 - x / 1e6, room.wide_m = 6, room.high_m = 2;
            plan.places.push_back(room);
        }
        const int cables = 2 + static_cast<int>(random() % 4);
        std::vector<double> squares;
        for (int k = 0; k < cables; ++k) {
            const std::string n = std::to_string(k);
            stud(plan, "a" + n, 1, 0), stud(plan, "b" + n, 3, 0);
            const int awg = std::vector<int>{16, 12, 8, 4}[random() % 4];
            cable(plan, "r" + n, "a" + n, "b" + n, awg);
            const double d = conductor(WireSize::awg(awg))->outer_diameter_mm;
            squares.push_back(d * d);
        }
        const auto room = [](const Waypoint& w) { return std::pow(*w.bore_mm * 0.8 / 1.2, 2); };
        const WayNet net(plan);
        const double by_one = net.cost_of(0) + net.cost_of(1), by_two = net.cost_of(2) + net.cost_of(3);
        double best = 1e18, all_one = 0;
        for (int choice = 0; choice < 1 << cables; ++choice) {
            double in_one = 0, in_two = 0, cost = 0;
            for (int k = 0; k < cables; ++k) {
                const bool second = choice >> k & 1;
                (second ? in_two : in_one) += squares[static_cast<std::size_t>(k)];
                cost += second ? by_two : by_one;
            }
            if (in_one <= room(one) + 1e-9 && in_two <= room(two) + 1e-9) best = std::min(best, cost);
        }
        for (int k = 0; k < cables; ++k) all_one += std::min(by_one, by_two);
        if (best > 1e17) continue;  // does not fit at all
        tight += best > all_one + 1e-9;
        const Routes r = route_all(plan);
        double used_one = 0, used_two = 0, cost = 0;
        for (int k = 0; k < cables; ++k) {
            ASSERT_TRUE(r.by_run[static_cast<std::size_t>(k)]);
            const auto& passed = r.by_run[static_cast<std::size_t>(k)]->path.waypoints;
            const bool second = std::find(passed.begin(), passed.end(), 2u) != passed.end();
            (second ? used_two : used_one) += squares[static_cast<std::size_t>(k)];
            cost += second ? by_two : by_one;
        }
        EXPECT_LE(used_one, room(one) + 1e-9) << seed;
        EXPECT_LE(used_two, room(two) + 1e-9) << seed;
        EXPECT_NEAR(cost, best, 1e-6) << seed << ": the cheapest that fits";
    }
    EXPECT_GT(tight, 20) << "else nothing was negotiated";
}

// ---- what follows for the electrical plan

Plan two_rooms() {
    Plan plan = empty_plan("two rooms");
    Place bay = plan.places.front();  // the engine bay of an empty plan
    bay.engine_space = true;
    bay.at = stand_at({-1, -1, 0}), bay.long_m = 1.5, bay.wide_m = 2, bay.high_m = 1;
    plan.places.front() = bay;
    plan.waypoints = {waypoint("w0", 0, 0), waypoint("w1", 0.5, 0), waypoint("w2", 4, 0)};
    plan.ways = {way("in the bay", "w0", "w1"), way("behind", "w1", "w2")};
    return plan;
}

TEST(Lay, AnOpenLengthIsThatOfItsWayInEveryAnswer) {
    Plan plan = two_rooms();
    plan.batteries[0].at = stand_at({0, 0, 0});
    stud(plan, "far", 4, 0);
    Load l;
    l.id = l.name = "lamp", l.draw = {DrawKind::resistance, 1.2};
    l.at = stand_at({4, 0, 0});
    plan.loads.push_back(l);
    yr::Run& feed = cable(plan, "feed", plan.batteries[0].id + ".pos", "lamp.pos", 12);
    feed.places.clear();
    yr::Run& back = cable(plan, "back", "lamp.neg", plan.batteries[0].id + ".neg", 12);
    back.length_m = 4;
    ASSERT_TRUE(validate(plan).empty());
    Plan laid = plan, typed = plan;
    lay(laid);
    const yr::Run& open = *find(laid.runs, "feed");
    ASSERT_TRUE(open.laid.length_m);
    EXPECT_NEAR(*open.laid.length_m, 4 * 1.08 + 0.3, 1e-9);
    EXPECT_EQ(laid, plan) << "nothing of it is said, saved or compared";
    EXPECT_FALSE(find(laid.runs, "back")->laid.length_m) << "what is typed stays";
    for (yr::Run& r : typed.runs)
        if (r.id == "feed")
            r.length_m = 4 * 1.08 + 0.3, r.places = open.laid.places, r.bundle = open.laid.bundle;
    for (const State& s : plan.states) {
        const Solution a = solve(laid, s), b = solve(typed, s);
        EXPECT_NEAR(a.point.loads[0].voltage_V, b.point.loads[0].voltage_V, 1e-12);
        for (const AssumptionUse& use : a.network.assumptions)
            EXPECT_FALSE(use.key == "run_length_m" && use.id == "feed") << "3 m assumed no longer";
    }
    // half a metre of four in the bay: long enough to count
    EXPECT_EQ(open.laid.places, std::vector<Id>{plan.places[0].id});
    State hot = plan.states.front();
    hot.engine_bay_C = 95, hot.ambient_C = 20;
    EXPECT_EQ(run_air(laid, open, hot).ambient_C, 95);
}

TEST(Lay, CablesAlongsideCountShortMeetingsAndSignalsDoNot) {
    Plan plan = two_rooms();
    plan.batteries[0].at = stand_at({0, 0, 0});
    const auto load = [&](const Id& id, double x, double amps) {
        Load l;
        l.id = l.name = id, l.draw = {DrawKind::current, amps}, l.at = stand_at({x, 0, 0});
        plan.loads.push_back(l);
        cable(plan, id + " feed", plan.batteries[0].id + ".pos", id + ".pos", 12);
    };
    load("a", 4, 10), load("b", 4, 10), load("near", 0.4, 10), load("signal", 4, 0.1);
    lay(plan);
    EXPECT_EQ(find(plan.runs, "a feed")->laid.bundle, 2) << "b, not what leaves after 40 cm, not the signal";
    EXPECT_EQ(find(plan.runs, "signal feed")->laid.bundle, 3);
    EXPECT_EQ(bundle_of(plan, *find(plan.runs, "a feed")), 2);
}

// ---- passages, edges, spots

TEST(PlaceFindings, PassagesAndTheirMends) {
    Plan plan = two_rooms();
    plan.waypoints[1].kind = PassageKind::hole;
    plan.waypoints[1].bore_mm = 12;
    for (int k = 0; k < 5; ++k) {
        const std::string n = std::to_string(k);
        stud(plan, "a" + n, 0, 0), stud(plan, "b" + n, 4, 0);
        cable(plan, "r" + n, "a" + n, "b" + n, 8);
    }
    Place wet;
    wet.id = wet.name = "wet", wet.wet = true, wet.at = stand_at({0.4, -1, -1}), wet.long_m = 1,
    wet.wide_m = 2, wet.high_m = 2;
    plan.places.push_back(wet);
    const auto kinds = [](const std::vector<Finding>& all) {
        std::multiset<FindingKind> k;
        for (const Finding& f : all) k.insert(f.kind);
        return k;
    };
    auto told = place_findings(plan, {});
    EXPECT_EQ(kinds(told), (std::multiset<FindingKind>{FindingKind::passage_full, FindingKind::passage_edge,
                                                       FindingKind::passage_open}));
    for (const Finding& f : told) {
        ASSERT_EQ(f.candidates.size(), 1u) << static_cast<int>(f.kind);
        Plan mended = plan;
        ASSERT_TRUE(yr::apply(mended, f.candidates[0].edit));
        const auto then = place_findings(mended, {});
        EXPECT_EQ(then.size(), told.size() - 1);
        EXPECT_FALSE(kinds(then).contains(f.kind)) << "its own is gone, nothing came";
    }
}

TEST(PlaceFindings, LengthsThatDisagreeAndThingsThatStandBadly) {
    Plan plan = two_rooms();
    stud(plan, "a", 0, 0), stud(plan, "b", 4, 0);
    cable(plan, "short", "a", "b").length_m = 2;
    cable(plan, "right", "a", "b").length_m = 4.5;
    cable(plan, "long", "a", "b").length_m = 9;
    auto told = place_findings(plan, {});
    ASSERT_EQ(told.size(), 2u);
    EXPECT_EQ(told[0].id, "short");
    EXPECT_EQ(told[0].severity, Severity::fix) << "it does not reach";
    EXPECT_EQ(told[1].id, "long");
    EXPECT_EQ(told[1].severity, Severity::check);
    Plan mended = plan;
    for (const Finding& f : told) ASSERT_TRUE(yr::apply(mended, f.candidates.at(0).edit));
    EXPECT_TRUE(place_findings(mended, {}).empty());
    mended.places.push_back(hazard("bag", {3.5, -0.5, -0.5}, {4.5, 0.5, 0.5}, Hazard::airbag));
    told = place_findings(mended, {});
    EXPECT_TRUE(std::any_of(told.begin(), told.end(), [](const Finding& f) {
        return f.kind == FindingKind::stands_badly && f.id == "b" && f.severity == Severity::stop;
    }));
}

// ---- whole vehicles

// Every bare vehicle is laid out as any kind, its things set, its cables left to their ways: the plan is
// valid, every cable finds its way, and the plan is the same from its own lines.
TEST(Furnish, EveryBareVehicleAsEveryKind) {
    for (const BareVehicle& bare : bare_vehicles()) {
        const auto read = read_notes(bare.text);
        ASSERT_EQ(read.bad(), 0) << bare.key;
        for (const Outline o : {Outline::car, Outline::pickup, Outline::van, Outline::truck, Outline::tractor,
                                Outline::all_terrain, Outline::buggy, Outline::trailer, Outline::cart}) {
            Plan plan = read.plan;
            const Plan before = plan;
            const auto edit = furnish(plan, o);
            ASSERT_TRUE(edit);
            const auto inverse = yr::apply(plan, *edit);
            ASSERT_TRUE(inverse) << bare.key << words::sentence(inverse.error());
            EXPECT_FALSE(furnish(plan, o)) << "once";
            ASSERT_TRUE(yr::apply(plan, stand_in_places(plan)));
            EXPECT_TRUE(could_stand(plan).empty());
            const Routes r = route_all(plan);
            EXPECT_TRUE(r.unjoined.empty()) << bare.key << " " << static_cast<int>(o);
            std::vector<Id> runs;
            for (const yr::Run& run : plan.runs) runs.push_back(run.id);
            ASSERT_TRUE(yr::apply(plan, follow_way(plan, runs)));
            lay(plan);
            for (const yr::Run& run : plan.runs)
                if (ends_of(plan, run) && !run.resistance_ohm) {
                    ASSERT_TRUE(run.laid.length_m) << run.name;
                    EXPECT_GT(*run.laid.length_m, 0.2);
                    EXPECT_LT(*run.laid.length_m, 25);
                }
            ASSERT_TRUE(validate(plan).empty());
            std::vector<std::string> lines;
            std::istringstream text(plan_text(plan));
            for (std::string line; std::getline(text, line);) lines.push_back(line);
            const auto again = plan_from_text(lines);
            ASSERT_TRUE(again);
            EXPECT_EQ(again->ways.size(), plan.ways.size());
            EXPECT_EQ(plan_text(*again), plan_text(plan));
        }
    }
}

// Of vehicles made up by the hundred, laid out and left to their ways: every finding is a sentence, every
// mend that is offered clears its own and brings no stop or fix, of circuits or of places.
TEST(PlaceFindings, MendsOfManyVehiclesMakeNothingWorse) {
    int mended = 0;
    for (unsigned seed = 0; seed < sweep(12U, 300U); ++seed) {
        SCOPED_TRACE(seed);
        Plan plan = vehicle(seed).plan;
        plan.waypoints.clear(), plan.ways.clear();
        const auto outline = static_cast<Outline>(1 + seed % 9);
        ASSERT_TRUE(yr::apply(plan, *furnish(plan, outline)));
        ASSERT_TRUE(yr::apply(plan, stand_in_places(plan)));
        for (Waypoint& w : plan.waypoints)  // small bare holes, so that something is told
            if (w.kind != PassageKind::bend) w.bore_mm = 10, w.guarded = false, w.kind = PassageKind::hole;
        lay(plan);
        Inspection all = inspect_with_candidates(plan);
        const auto places = place_findings(plan, all.solutions);
        for (const Finding& f : places) {
            const std::string said = words::sentence(f, plan);
            EXPECT_TRUE(said.ends_with(".")) << said;
            EXPECT_EQ(said.find('{'), std::string::npos) << said;
            if (f.candidates.empty() || mended > 60) continue;
            Plan after = plan;
            ASSERT_TRUE(yr::apply(after, f.candidates[0].edit)) << said;
            lay(after);
            const auto then = place_findings(after, all.solutions);
            EXPECT_FALSE(std::any_of(then.begin(), then.end(), [&](const Finding& x) {
                return same_place(x, f);
            })) << said;
            EXPECT_TRUE(new_or_worse(places, then).empty()) << said;
            ++mended;
        }
    }
    EXPECT_GT(mended, 10);
}

TEST(Stand, TheMapIsWhatMovingItThereGives) {
    Plan plan = read_notes(bare_vehicles().at(2).text).plan;
    ASSERT_TRUE(yr::apply(plan, *furnish(plan, Outline::van)));
    ASSERT_TRUE(yr::apply(plan, stand_in_places(plan)));
    std::vector<Id> runs;
    for (const yr::Run& run : plan.runs) runs.push_back(run.id);
    ASSERT_TRUE(yr::apply(plan, follow_way(plan, runs)));
    lay(plan);
    Id bus;
    for (const Point& p : plan.points)
        if (p.kind == PointKind::bus) bus = p.id;
    ASSERT_FALSE(bus.empty());
    std::vector<RunWeight> one(plan.runs.size(), {1, 0});
    const auto map = where_to_stand(plan, bus, one);
    ASSERT_TRUE(map);
    ASSERT_GT(map->spots.size(), 20u);
    for (std::size_t k = 0; k < map->spots.size(); k += 7) {
        const StandSpot& s = map->spots[k];
        Plan there = plan;
        ASSERT_TRUE(yr::apply(there, *stand(there, bus, s.spot)));
        lay(there);
        double metres = 0;
        for (const yr::Run& r : there.runs)
            if (r.from.owner == bus || r.to.owner == bus) metres += r.laid.length_m.value_or(0);
        EXPECT_NEAR(metres, s.metres, 0.02) << "coordinates are kept to the millimetre";
    }
    const auto advice = stand_advice(plan, bus);
    ASSERT_TRUE(advice);
    ASSERT_FALSE(advice->best.empty());
    for (std::size_t k = 0; k + 1 < advice->best.size(); ++k)
        EXPECT_LE(advice->best[k].kg, advice->best[k + 1].kg);
    Plan best = plan;
    const auto back = yr::apply(best, advice->best[0].edit);
    ASSERT_TRUE(back);
    ASSERT_TRUE(yr::apply(best, *back));
    EXPECT_EQ(best, plan) << "one step, taken back whole";
}

}  // namespace
}  // namespace yr::test
