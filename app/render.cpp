#include "render.h"

#include <QCoreApplication>
#include <QDir>
#include <QPainter>
#include <cstdio>
#include <functional>

#include "paint/tokens.h"
#include "shell/dialogs.h"
#include "shell/main_window.h"
#include "shell/plan_files.h"

namespace yr::app {
namespace {

struct View {
    const char* file;
    std::function<void(MainWindow&)> prepare;
};

void hover(MainWindow& w, const Id& id) {
    if (const SceneItem* i = w.chart()->scene().of(id)) w.chart()->set_hover(i->rect.center());
}

Id feed_of(MainWindow& w, const std::string& load) {
    for (const Run& r : w.document()->plan().runs)
        if (r.name == load + " feed") return r.id;
    return {};
}

void in_state(MainWindow& w, const char* name) {
    const auto& states = w.document()->plan().states;
    w.document()->set_state(static_cast<int>(find_state(w.document()->plan(), name) - states.data()));
}

std::vector<View> views() {
    return {
        {"rail-idling.png", [](MainWindow& w) { hover(w, feed_of(w, "echo sounder")); }},
        {"rail-driving-details.png",
         [](MainWindow& w) {
             in_state(w, "Driving");
             w.document()->select("load-8");
         }},
        {"rail-night.png",
         [](MainWindow& w) {
             use_look(true);
             in_state(w, "Overnight");
         }},
        {"why.png",
         [](MainWindow& w) {
             w.document()->select(feed_of(w, "echo sounder"));
             const QPoint where = w.chart()->scene().of(feed_of(w, "echo sounder"))->rect.center().toPoint();
             w.ask_why(w.chart()->questions(), w.chart()->mapToGlobal(where));
         }},
        {"type-to-add.png",
         [](MainWindow& w) {
             w.type_line()->edit()->setText(QStringLiteral(
                 "bank light 2x 45 W on ignition and scene, 5.5 m, cargo roof, channel 7, wobbly"));
         }},
        {"survey.png", [](MainWindow& w) { w.show_page(MainWindow::Page::survey); }},
        {"control.png",
         [](MainWindow& w) {
             w.show_page(MainWindow::Page::control);
             w.document()->select({});
         }},
        {"control-sneak.png",
         [](MainWindow& w) {
             w.document()->apply(SetActive{"variant-wake"}, QStringLiteral("show"));
             w.show_page(MainWindow::Page::control);
             w.control()->search_sneaks_now();
             w.control()->sneaks()->wait();
         }},
        {"sneak-on-the-rail.png",
         [](MainWindow& w) {
             w.document()->apply(SetActive{"variant-wake"}, QStringLiteral("show"));
             const SneakSearch s = search_sneaks(w.document()->plan());
             for (const SneakPath& p : s.found)
                 if (p.load == "load-7" && p.kind == SneakKind::alive) {
                     w.document()->show_situation(p.state, p.path);
                     w.document()->select({});
                 }
         }},
        {"box-details.png",
         [](MainWindow& w) {
             in_state(w, "Driving");
             w.document()->select("rear-box");
         }},
        {"runs.png",
         [](MainWindow& w) {
             in_state(w, "Hoisting");
             w.document()->finish_findings();
             w.show_page(MainWindow::Page::runs);
             w.document()->select(feed_of(w, "echo sounder"));
             w.runs()->finish();
         }},
        {"runs-together.png",
         [](MainWindow& w) {
             w.document()->finish_findings();
             w.show_page(MainWindow::Page::runs);
             w.runs()->finish();
             w.runs()->show_view(RunsPage::View::together);
             w.runs()->sizing()->start();
             w.runs()->sizing()->finish();
         }},
        {"runs-before-after.png",
         [](MainWindow& w) {
             in_state(w, "Hoisting");
             w.document()->finish_findings();
             w.show_page(MainWindow::Page::runs);
             w.runs()->finish();
             w.runs()->show_view(RunsPage::View::together);
             w.runs()->sizing()->start();
             w.runs()->sizing()->finish();
             w.runs()->sizing()->show_part(1);
         }},
        {"guard.png",
         [](MainWindow& w) {
             in_state(w, "Hoisting");
             w.document()->finish_findings();
             w.show_page(MainWindow::Page::guard);
             w.document()->select(feed_of(w, "radiator fan"));
             w.guard()->finish();
         }},
        {"guard-starts.png",
         [](MainWindow& w) {
             in_state(w, "Hoisting");
             w.document()->finish_findings();
             w.show_page(MainWindow::Page::guard);
             w.document()->select("run-8");
             w.guard()->show_view(GuardPage::View::starts);
             w.guard()->finish();
         }},
        {"compare.png",
         [](MainWindow& w) {
             w.show_page(MainWindow::Page::compare);
             w.compare()->choose({}, "variant-relay");
             w.compare()->finish();
         }},
        {"all-states.png", [](MainWindow& w) { w.show_page(MainWindow::Page::all_states); }},
        {"buggy.png",
         [](MainWindow& w) {
             w.open_demo(demo_plans()[1].resource);
             in_state(w, "Spraying");
         }},
        {"cart.png",
         [](MainWindow& w) {
             w.open_demo(demo_plans()[2].resource);
             in_state(w, "Sweeping");
         }},
    };
}

}  // namespace

int render_views(const QString& folder) {
    if (!QDir().mkpath(folder)) {
        std::fprintf(stderr, "The folder %s cannot be made.\n", qPrintable(folder));
        return 1;
    }
    bool whole = true;
    for (const View& view : views()) {
        use_look(false);
        MainWindow window({});
        window.chart()->set_animated(false);
        window.resize(1280, 800);
        window.open_demo(demo_plans().front().resource);
        window.show();
        QCoreApplication::processEvents();
        view.prepare(window);
        window.document()->finish_findings();
        for (int k = 0; k < 20; ++k) QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
        const QString path = QDir(folder).filePath(QString::fromLatin1(view.file));
        QPixmap picture = window.grab();
        if (WhyPopup* why = window.why_popup();
            why->isVisible()) {  // a window of its own: put where it stands
            QPainter painter(&picture);
            painter.drawPixmap(window.mapFromGlobal(why->pos()), why->grab());
        }
        const bool written = picture.save(path);
        std::printf("%s %s\n", written ? "drawn:" : "could not write:", qPrintable(path));
        whole = whole && written;
    }
    use_look(false);
    return whole ? 0 : 1;
}

}  // namespace yr::app
