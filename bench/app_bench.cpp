// First paint, and the time from a change to the picture that shows it. Runs on Qt's offscreen platform.
#include <benchmark/benchmark.h>

#include <QApplication>
#include <QMouseEvent>
#include <QStandardPaths>

#include "document/plan_files.h"
#include "support/random_plan.h"
#include "widgets/tokens.h"
#include "window/main_window.h"
#include "workspaces/day/day_page.h"
#include "workspaces/rail/rail_page.h"

namespace {

using namespace yr;

// What has changed is laid out and painted into the window's store, as between two frames on a screen; what
// has not changed is not.
void paint_what_changed() {
    QCoreApplication::sendPostedEvents(nullptr, QEvent::LayoutRequest);
    QCoreApplication::sendPostedEvents(nullptr, QEvent::UpdateRequest);
}

// How often something was painted, so that a bench that paints nothing is seen.
class Paints : public QObject {
  public:
    Paints() { qApp->installEventFilter(this); }
    bool eventFilter(QObject*, QEvent* e) override {
        count_ += e->type() == QEvent::Paint;
        return false;
    }
    void tell(benchmark::State& b) const {
        b.counters["paints"] = benchmark::Counter(count_, benchmark::Counter::kAvgIterations);
    }

  private:
    double count_ = 0;
};

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
    QCoreApplication::processEvents();
    int direction = 1;
    const Paints paints;
    for (auto _ : b) {
        window.document()->step_run("run-34", direction);
        direction = -direction;
        paint_what_changed();
    }
    paints.tell(b);
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

// A coach: 500 loads. What the interface's own thread does at a turn of the wheel, when findings arrive, when
// another thing is chosen, and when a workspace is opened.
class Coach {
  public:
    Coach() : window({}) {
        window.resize(1280, 800);
        window.workspace<app::RailPage>()->chart()->set_animated(false);
        window.document()->store().open(test::wide_plan(500), {});
        window.show();
        settle();
    }
    void settle() {
        window.document()->inspector().finish();
        for (int k = 0; k < 20; ++k) QCoreApplication::processEvents();
    }
    app::MainWindow window;
};

void coach_change(benchmark::State& b) {
    Coach coach;
    int direction = 1;
    const Paints paints;
    for (auto _ : b) {
        coach.window.document()->step_run("sl7", direction);
        direction = -direction;
        paint_what_changed();
    }
    paints.tell(b);
    coach.settle();
}
BENCHMARK(coach_change)->Unit(benchmark::kMillisecond);

void coach_findings_arrive(benchmark::State& b) {
    Coach coach;
    for (auto _ : b) {
        emit coach.window.document()->inspector().inspected();
        paint_what_changed();
    }
}
BENCHMARK(coach_findings_arrive)->Unit(benchmark::kMillisecond);

void coach_choice(benchmark::State& b) {
    Coach coach;
    int k = 0;
    const Paints paints;
    for (auto _ : b) {
        coach.window.document()->selection().choose("l" + std::to_string(++k % 500));
        paint_what_changed();
    }
    paints.tell(b);
}
BENCHMARK(coach_choice)->Unit(benchmark::kMillisecond);

// Another state is shown.
void coach_state(benchmark::State& b) {
    Coach coach;
    Plan plan = test::wide_plan(500);
    State warm = plan.states.front();
    warm.id = "warm", warm.name = "warm", warm.ambient_C += 10;
    plan.states.push_back(warm);
    coach.window.document()->store().open(plan, {});
    coach.settle();
    app::ShownCircuit& shown = coach.window.document()->shown();
    const auto states = static_cast<int>(plan.states.size());
    int k = 0;
    const Paints paints;
    for (auto _ : b) {
        shown.set_state(++k % states);
        paint_what_changed();
    }
    paints.tell(b);
}
BENCHMARK(coach_state)->Unit(benchmark::kMillisecond);

void coach_workspace(benchmark::State& b) {
    Coach coach;
    const auto spaces = coach.window.workspaces();
    const QString key = spaces[static_cast<std::size_t>(b.range(0))]->key();
    b.SetLabel(key.toStdString());
    for (auto _ : b) {
        coach.window.go_to(key);
        paint_what_changed();
        b.PauseTiming();
        spaces[static_cast<std::size_t>(b.range(0))]->finish();
        coach.window.go_to(b.range(0) == 1 ? QStringLiteral("survey") : QStringLiteral("rail"));
        b.ResumeTiming();
    }
}
BENCHMARK(coach_workspace)->DenseRange(0, 4)->Unit(benchmark::kMillisecond);

// An edge of the truck's day is dragged: what one move of the pointer costs until it is painted. The lanes
// follow from a worker.
void day_drag(benchmark::State& b) {
    app::MainWindow window({});
    window.resize(1280, 800);
    window.open_demo(app::demo_plans().front().resource);
    window.show();
    window.go_to(QStringLiteral("day"));
    auto* page = window.workspace<app::DayPage>();
    page->finish();
    window.document()->inspector().finish();
    for (int k = 0; k < 20; ++k) QCoreApplication::processEvents();
    auto* chart = page->chart();
    const QPointF at = chart->stretch_rect(0).topRight() + QPointF(0, 8);
    const auto send = [&](QEvent::Type type, const QPointF& spot) {
        QMouseEvent event(type, spot, chart->mapToGlobal(spot), Qt::LeftButton, Qt::LeftButton, {});
        QApplication::sendEvent(chart, &event);
    };
    send(QEvent::MouseButtonPress, at);
    int direction = 12;
    const Paints paints;
    for (auto _ : b) {
        send(QEvent::MouseMove, at + QPointF(direction, 0));
        direction = -direction;
        paint_what_changed();
    }
    paints.tell(b);
    send(QEvent::MouseButtonRelease, at);
}
BENCHMARK(day_drag)->Unit(benchmark::kMillisecond);

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
