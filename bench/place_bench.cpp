// Ways, looms, parts and cuts: how long they take on the truck and as nets grow.
#include <benchmark/benchmark.h>

#include "day/year.h"
#include "fabricate/cut_plan.h"
#include "fabricate/parts.h"
#include "inspect/places.h"
#include "inspect/stand.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "routes/packing.h"
#include "support/random_plan.h"

namespace {

using namespace yr;

const Plan& truck() {
    static const Plan plan = *load_plan(test::demo_path(test::kDemos[0]));
    return plan;
}

// A net of that many ways, a ladder of rungs, with twice as many cables from rung to rung.
Plan ladder(int ways) {
    Plan plan;
    const int rungs = ways / 3;
    for (int k = 0; k <= rungs; ++k)
        for (const bool right : {false, true}) {
            Waypoint w;
            w.id = w.name = (right ? "r" : "l") + std::to_string(k),
            w.at = stand_at({k * 0.3, right ? 0.7 : -0.7, 0});
            plan.waypoints.push_back(w);
        }
    const auto way = [&](const std::string& a, const std::string& b) {
        Way w;
        w.id = w.name = a + b, w.from = a, w.to = b;
        plan.ways.push_back(w);
    };
    for (int k = 0; k < rungs; ++k) {
        const std::string n = std::to_string(k), next = std::to_string(k + 1);
        way("l" + n, "l" + next), way("r" + n, "r" + next), way("l" + n, "r" + n);
    }
    for (int k = 0; k < 2 * ways; ++k) {
        const std::string n = std::to_string(k);
        for (const bool end : {false, true}) {
            Point p;
            p.id = p.name = (end ? "b" : "a") + n;
            p.at = stand_at({((k * 37 + (end ? 11 : 0)) % rungs) * 0.3, (k % 2 ? 0.6 : -0.6), 0.1});
            plan.points.push_back(p);
        }
        Run r;
        r.id = r.name = "run" + n, r.from = Terminal("a" + n), r.to = Terminal("b" + n),
        r.size = WireSize::awg(12);
        plan.runs.push_back(r);
    }
    return plan;
}

void route_the_truck(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(route_all(truck()));
}
BENCHMARK(route_the_truck)->Unit(benchmark::kMillisecond);

void route_one_of_the_truck(benchmark::State& b) {  // what follows a thing that is dragged, a cable
    const WayNet net(truck());
    const Run& run = *find(truck().runs, std::string_view("run-8"));
    for (auto _ : b) benchmark::DoNotOptimize(route_one(truck(), net, run));
}
BENCHMARK(route_one_of_the_truck)->Unit(benchmark::kMicrosecond);

void route_over_ways(benchmark::State& b) {
    const Plan plan = ladder(static_cast<int>(b.range(0)));
    for (auto _ : b) benchmark::DoNotOptimize(route_all(plan));
}
BENCHMARK(route_over_ways)->Arg(50)->Arg(500)->Unit(benchmark::kMillisecond);

void where_the_rear_box_should_stand(benchmark::State& b) {  // 0: the map; 1: the best five sized anew
    for (auto _ : b) benchmark::DoNotOptimize(stand_advice(truck(), "rear-box", b.range(0) == 1));
}
BENCHMARK(where_the_rear_box_should_stand)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

void pack_cables(benchmark::State& b) {
    std::vector<double> mm;
    for (int k = 0; k < b.range(0); ++k) mm.push_back(3 + (k * 7) % 9);
    for (auto _ : b) benchmark::DoNotOptimize(pack(mm));
}
BENCHMARK(pack_cables)->Arg(9)->Arg(20)->Unit(benchmark::kMillisecond);

void truck_parts_and_cuts(benchmark::State& b) {
    for (auto _ : b) {
        benchmark::DoNotOptimize(parts_of(truck()));
        benchmark::DoNotOptimize(cut_plan(truck()));
    }
}
BENCHMARK(truck_parts_and_cuts)->Unit(benchmark::kMillisecond);

void truck_year(benchmark::State& b) {
    Day day = truck().days.front();
    day.latitude_deg = 48;
    for (auto _ : b) benchmark::DoNotOptimize(year_of(truck(), day));
}
BENCHMARK(truck_year)->Unit(benchmark::kMillisecond)->Iterations(1);

}  // namespace

BENCHMARK_MAIN();
