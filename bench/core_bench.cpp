// How long a solve takes as plans grow, and how that compares with ngspice on the same circuit in the same
// run.
#include <benchmark/benchmark.h>

#include "chart/rail_layout.h"
#include "control/assign.h"
#include "control/boxes.h"
#include "control/circuit.h"
#include "control/live_table.h"
#include "day/verdicts.h"
#include "guard/starting.h"
#include "inspect/compare.h"
#include "inspect/findings.h"
#include "inspect/sneak.h"
#include "io/loads_csv.h"
#include "io/spice.h"
#include "plan/plan_json.h"
#include "plan/variant.h"
#include "size/run_ladder.h"
#include "sizing/plan_sizing.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "survey/infer.h"

namespace {

using namespace yr;

const Plan& truck() {
    static const Plan plan = *load_plan(test::demo_path(test::kDemos[0]));
    return plan;
}

void solve_wide(benchmark::State& b) {
    const Plan plan = test::wide_plan(static_cast<int>(b.range(0)));
    const Network net = compile(plan, plan.states[0]);
    OperatingPointSolver solver;
    for (auto _ : b) benchmark::DoNotOptimize(solver.solve(net));
    b.SetComplexityN(b.range(0));
}
BENCHMARK(solve_wide)->Arg(10)->Arg(100)->Arg(1000)->Arg(10000)->Complexity()->Unit(benchmark::kMillisecond);

void compile_wide(benchmark::State& b) {
    const Plan plan = test::wide_plan(static_cast<int>(b.range(0)));
    for (auto _ : b) benchmark::DoNotOptimize(compile(plan, plan.states[0]));
}
BENCHMARK(compile_wide)->Arg(100)->Arg(1000)->Unit(benchmark::kMillisecond);

// The same circuit through ngspice as a program, its start included; an empty deck measures the start alone.
void ngspice_wide(benchmark::State& b) {
    const Plan plan = test::wide_plan(static_cast<int>(b.range(0)));
    const test::TempFolder folder;
    test::write_text(folder.file("d.cir"), spice_netlist(plan, solve(plan, plan.states[0]), "wide"));
    for (auto _ : b) benchmark::DoNotOptimize(test::run("ngspice -b " + folder.file("d.cir")));
}
BENCHMARK(ngspice_wide)->Arg(10)->Arg(100)->Arg(1000)->Unit(benchmark::kMillisecond);

void ngspice_start(benchmark::State& b) {
    const test::TempFolder folder;
    test::write_text(folder.file("d.cir"), "* nothing\nR1 1 0 1\nV1 1 0 1\n.op\n.end\n");
    for (auto _ : b) benchmark::DoNotOptimize(test::run("ngspice -b " + folder.file("d.cir")));
}
BENCHMARK(ngspice_start)->Unit(benchmark::kMillisecond);

void truck_one_state(benchmark::State& b) {
    const State& idle = *find_state(truck(), "Idling");
    OperatingPointSolver solver;
    for (auto _ : b) benchmark::DoNotOptimize(solve(truck(), idle, solver));
}
BENCHMARK(truck_one_state)->Unit(benchmark::kMillisecond);

// A day, exact and as coarse as a drag shows it; and what it comes to.
void truck_day(benchmark::State& b) {
    const Day& day = truck().days.front();
    DayOptions options;
    options.tolerance = static_cast<double>(b.range(0));
    for (auto _ : b) benchmark::DoNotOptimize(run_day(truck(), day, options));
}
BENCHMARK(truck_day)->Arg(1)->Arg(10)->Unit(benchmark::kMillisecond);

void truck_day_verdicts(benchmark::State& b) {
    const Day& day = truck().days.front();
    const DayRun run = run_day(truck(), day);
    for (auto _ : b) benchmark::DoNotOptimize(verdicts(truck(), day, run));
}
BENCHMARK(truck_day_verdicts)->Unit(benchmark::kMillisecond);

void truck_all_states(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(solve_all(truck()));
}
BENCHMARK(truck_all_states)->Unit(benchmark::kMillisecond);

void truck_findings(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(inspect(truck(), b.range(0) != 0));
}
BENCHMARK(truck_findings)->ArgName("mends")->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

void truck_chart_layout(benchmark::State& b) {
    const Solution s = solve(truck(), *find_state(truck(), "Idling"));
    const RailLayout first = lay_out(s.network, s.point, nullptr);
    for (auto _ : b)
        benchmark::DoNotOptimize(lay_out(s.network, s.point, b.range(0) ? &first.order : nullptr));
}
BENCHMARK(truck_chart_layout)->ArgName("order_kept")->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

// A relay, a cut-off, a contactor with its coil and an enable settle from memory; and every position tried.
const Plan& devices() {
    static const Plan plan = [] {
        test::RandomShape shape;
        shape.devices = true;
        return test::random_plan(7, shape);
    }();
    return plan;
}

void devices_settle(benchmark::State& b) {
    const Network net = compile(devices(), devices().states[0]);
    OperatingPointSolver solver;
    for (auto _ : b) benchmark::DoNotOptimize(settle(net, solver));
}
BENCHMARK(devices_settle)->Unit(benchmark::kMillisecond);

void devices_every_position(benchmark::State& b) {
    const Network net = compile(devices(), devices().states[0]);
    OperatingPointSolver solver;
    for (auto _ : b) benchmark::DoNotOptimize(settled_positions(net, solver));
}
BENCHMARK(devices_every_position)->Unit(benchmark::kMillisecond);

void truck_compare_options(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(compare_options(truck()));
}
BENCHMARK(truck_compare_options)->Unit(benchmark::kMillisecond);

void survey_infer(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(infer(truck().survey));
}
BENCHMARK(survey_infer)->Unit(benchmark::kMillisecond);

// Rows of a pasted table into circuits.
void paste_loads(benchmark::State& b) {
    std::string text = "name,amps,live,length\n";
    for (int k = 0; k < b.range(0); ++k) text += "lamp " + std::to_string(k) + ",0.5,ignition,2\n";
    for (auto _ : b) {
        std::vector<TypedLine> lines;
        for (TableLoad& row : read_rows(truck(), read_loads_table(text)))
            lines.push_back(std::move(row.line));
        benchmark::DoNotOptimize(make_circuits(truck(), lines));
    }
}
BENCHMARK(paste_loads)->Arg(20)->Arg(1000)->Unit(benchmark::kMillisecond);

void truck_run_ladder(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(run_ladder(truck(), "run-34"));
}
BENCHMARK(truck_run_ladder)->Unit(benchmark::kMillisecond);

// Loads given out to channels, all limits kept.
void truck_assign(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(assign_loads(truck()));
}
BENCHMARK(truck_assign)->Unit(benchmark::kMillisecond);

// 60 loads typed from the library onto six boxes of every kind, some always live, some by key.
const Plan& six_boxes() {
    static const Plan plan = [] {
        Plan p = empty_plan("six boxes");
        (void)yr::apply(p, add_alternator(p)->edit);
        const Key triggers[] = {Key::off, Key::accessory, Key::ignition};
        for (int k = 0; k < 6; ++k) {
            NewBox ask;
            ask.box = shipped_library().boxes[k < 2 ? 2 : 3].box;
            ask.box.name = "box " + std::to_string(k + 1);
            ask.box.main_A = 160;
            ask.trigger.key = triggers[k % 3];
            ask.length_m = 1.0 + k;
            (void)yr::apply(p, add_box(p, ask)->edit);
        }
        for (int k = 0; k < 60; ++k) {
            const char* keys[] = {"always", "on accessory", "on ignition"};
            const auto line = read_line(p, "load " + std::to_string(k) + " " + std::to_string(1 + k % 9) +
                                               " A " + keys[k % 3] + ", " + std::to_string(1 + k % 5) + " m");
            if (const auto made = make_circuit(p, line)) (void)yr::apply(p, made->edit);
        }
        return p;
    }();
    return plan;
}

void assign_sixty_loads_to_six_boxes(benchmark::State& b) {
    for (auto _ : b) {
        const Assignment a = assign_loads(six_boxes());
        if (!a.feasible) b.SkipWithError("nothing was given out");
    }
}
BENCHMARK(assign_sixty_loads_to_six_boxes)->Unit(benchmark::kMillisecond);

// Every key position, switch and pulled fuse: the plan as it stands, and with the wires that ought not to be.
void truck_sneak_search(benchmark::State& b) {
    const Plan plan = with_variant(truck(), b.range(0) ? "variant-wake" : "");
    SneakAsk ask;
    ask.with_mends = b.range(1) != 0;
    for (auto _ : b) benchmark::DoNotOptimize(search_sneaks(plan, ask));
}
BENCHMARK(truck_sneak_search)
    ->ArgNames({"wires", "mends"})
    ->Args({0, 0})
    ->Args({1, 0})
    ->Args({1, 1})
    ->Unit(benchmark::kMillisecond);

// What the plain way would take for one state of those combinations.
void truck_one_resistive_state(benchmark::State& b) {
    const State state = state_at(truck(), KeyPosition::running, plan_switches(truck()));
    OperatingPointSolver solver;
    for (auto _ : b) benchmark::DoNotOptimize(settle(resistive_network(truck(), state), solver));
}
BENCHMARK(truck_one_resistive_state)->Unit(benchmark::kMillisecond);

void truck_live_table(benchmark::State& b) {
    for (auto _ : b) benchmark::DoNotOptimize(live_table(truck()));
}
BENCHMARK(truck_live_table)->Unit(benchmark::kMillisecond);

// The whole plan sized to the proven least; the target is 1 s for the truck, 5 s for 120 runs.
void truck_sized(benchmark::State& b) {
    SizingAsk ask;
    ask.goal = static_cast<SizingGoal>(b.range(0));
    for (auto _ : b) {
        const auto sized = size_plan(truck(), ask);
        if (!sized || sized->status != SizingStatus::least) b.SkipWithError("not proved");
    }
}
BENCHMARK(truck_sized)->ArgName("goal")->Arg(0)->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond);

void sized_120_runs(benchmark::State& b) {
    const Plan plan = test::wide_plan(57);
    for (auto _ : b) {
        const auto sized = size_plan(plan, {});
        if (!sized || sized->status == SizingStatus::stopped) b.SkipWithError("stopped");
        b.counters["runs"] = static_cast<double>(plan.runs.size());
        b.counters["gap"] = sized ? sized->gap() : 1;
    }
}
BENCHMARK(sized_120_runs)->Unit(benchmark::kMillisecond);

// Shorts everywhere in all states; the target is 200 ms.
void truck_fault_study(benchmark::State& b) {
    const auto solutions = solve_all(truck());
    for (auto _ : b) benchmark::DoNotOptimize(study_faults(truck(), solutions));
}
BENCHMARK(truck_fault_study)->Unit(benchmark::kMillisecond);

// The ladder that is on the screen, its plan solved already; the target is one frame of 16 ms.
void truck_ladder_refresh(benchmark::State& b) {
    const auto solutions = solve_all(truck());
    for (auto _ : b) benchmark::DoNotOptimize(run_ladder(truck(), "run-34", 0, &solutions));
}
BENCHMARK(truck_ladder_refresh)->Unit(benchmark::kMillisecond);

void truck_hoist_start(benchmark::State& b) {
    StartAsk ask;
    ask.state = 5;
    ask.starts = {"load-23"};
    for (auto _ : b) benchmark::DoNotOptimize(study_start(truck(), ask));
}
BENCHMARK(truck_hoist_start)->Unit(benchmark::kMillisecond);

}  // namespace

BENCHMARK_MAIN();
