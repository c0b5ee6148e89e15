// First paint, and the time from a change to the picture that shows it. Runs on Qt's offscreen platform.
#include <benchmark/benchmark.h>

#include <QApplication>
#include <QStandardPaths>

#include "document/plan_files.h"
#include "widgets/tokens.h"
#include "window/main_window.h"
#include "workspaces/rail/rail_page.h"

namespace {

using namespace yr;

void first_paint(benchmark::State& b) {
    for (auto _ : b) {
        app::MainWindow window({});
        window.workspace<app::RailPage>()->chart()->set_animated(false);
        window.open_demo(app::demo_plans().front().resource);
        window.show();
        benchmark::DoNotOptimize(window.grab());
    }
}
BENCHMARK(first_paint)->Unit(benchmark::kMillisecond);

// A turn of the wheel: edit, solve, layout, scene, chart painted. Findings follow in a worker.
void change_to_picture(benchmark::State& b) {
    app::MainWindow window({});
    window.workspace<app::RailPage>()->chart()->set_animated(false);
    window.open_demo(app::demo_plans().front().resource);
    window.show();
    int direction = 1;
    for (auto _ : b) {
        window.document()->step_run("run-34", direction);
        direction = -direction;
        benchmark::DoNotOptimize(window.workspace<app::RailPage>()->chart()->grab());
    }
    window.document()->inspector().finish();
}
BENCHMARK(change_to_picture)->Unit(benchmark::kMillisecond);

void chart_repaint(benchmark::State& b) {
    app::MainWindow window({});
    window.workspace<app::RailPage>()->chart()->set_animated(false);
    window.open_demo(app::demo_plans().front().resource);
    window.show();
    for (auto _ : b) benchmark::DoNotOptimize(window.workspace<app::RailPage>()->chart()->grab());
}
BENCHMARK(chart_repaint)->Unit(benchmark::kMillisecond);

}  // namespace

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    app::use_typeface();
    app::use_look(false);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
