// Meter, work and diagram on the truck, against one solve of one of its states in the same run.
#include <benchmark/benchmark.h>

#include "diagram/sheets.h"
#include "fabricate/first_power.h"
#include "fabricate/symptoms.h"
#include "fabricate/work.h"
#include "meter/practice.h"
#include "meter/test_points.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "support/random_plan.h"

namespace {

using namespace yr;

const Plan& truck() {
    static const Plan plan = [] {
        Plan p = *load_plan(test::demo_path(test::kDemos[0]));
        lay(p);
        return p;
    }();
    return plan;
}

void one_state(benchmark::State& state) {
    OperatingPointSolver solver;
    const Probing where{ReadKind::volts, {}, {}, {}, "state-hoist", {}};
    for (auto _ : state) benchmark::DoNotOptimize(solve_for(truck(), where, solver));
}
BENCHMARK(one_state)->Unit(benchmark::kMillisecond);

// All single faults against a complaint and two readings, nothing kept from before.
void locate(benchmark::State& state) {
    for (auto _ : state) {
        Locator locator(truck());
        LocateAsk ask;
        ask.complaints = {{"load-23", "state-hoist", Seen::weak}};
        ask.readings = {{{ReadKind::volts, "gnd-bed", {}, {}, "state-hoist", {}}, 1.3},
                        {{ReadKind::volts, "rear-box", {}, {}, "state-hoist", {}}, 13.0}};
        benchmark::DoNotOptimize(locator.locate(ask));
    }
}
BENCHMARK(locate)->Unit(benchmark::kMillisecond);

void next(benchmark::State& state) {
    Locator locator(truck());
    LocateAsk ask;
    ask.complaints = {{"load-23", "state-hoist", Seen::weak}};
    const Location now = locator.locate(ask);
    NextAsk more;
    more.complaints = ask.complaints;
    for (auto _ : state) benchmark::DoNotOptimize(next_reading(locator, truck(), now, more));
}
BENCHMARK(next)->Unit(benchmark::kMillisecond);

void points(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(test_points(truck()));
}
BENCHMARK(points)->Unit(benchmark::kMillisecond);

void order(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(work_order(truck()));
}
BENCHMARK(order)->Unit(benchmark::kMillisecond);

void power(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(first_power(truck()));
}
BENCHMARK(power)->Unit(benchmark::kMillisecond);

void breaks(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(symptoms(truck()));
}
BENCHMARK(breaks)->Unit(benchmark::kMillisecond);

void diagram(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(diagram_of(truck()));
}
BENCHMARK(diagram)->Unit(benchmark::kMillisecond);

}  // namespace

BENCHMARK_MAIN();
