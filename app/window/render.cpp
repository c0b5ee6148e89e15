#include "window/render.h"

#include <QCoreApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QPainter>
#include <cstdio>
#include <functional>

#include "document/plan_files.h"
#include "railchart/rail_chart.h"
#include "widgets/tokens.h"
#include "window/main_window.h"

namespace yr::app {
namespace {

struct Picture {
    QString file;
    std::function<void(MainWindow&)> prepare;
};

// Those that are of the window as a whole.
std::vector<Picture> window_pictures() {
    return {
        {QStringLiteral("type-to-add.png"),
         [](MainWindow& w) {
             w.type_line()->edit()->setText(
                 say("bank light 2x 45 W on ignition and scene, 5.5 m, cargo roof, channel 7, wobbly"));
             (void)w.type_line()->understood();
         }},
    };
}

// The workspaces' own, each by its place in the list: every picture is taken in a window of its own.
std::vector<Picture> pictures(Pictures which) {
    std::vector<Picture> list;
    if (which == Pictures::all) list = window_pictures();
    MainWindow lister({});
    for (std::size_t w = 0; w < lister.workspaces().size(); ++w) {
        const auto own = lister.workspaces()[w]->pictures();
        const std::size_t count = which == Pictures::all ? own.size() : std::min<std::size_t>(1, own.size());
        for (std::size_t k = 0; k < count; ++k)
            list.push_back({own[k].file,
                            [w, k](MainWindow& window) { window.workspaces()[w]->pictures()[k].prepare(); }});
    }
    return list;
}

// Until layouts, posted results and short timers have had their turn: by rounds, since a busy machine may
// give few in a time.
void settle() {
    constexpr int least_rounds = 40, least_ms = 250;
    QElapsedTimer clock;
    clock.start();
    for (int round = 0; round < least_rounds || clock.elapsed() < least_ms; ++round)
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
}

bool draw(const Picture& what, const Rendering& how, const QString& path) {
    use_look(false);
    MainWindow window({});
    window.resize(how.size);
    window.open_demo(demo_plans().front().resource);
    if (!how.plan.isEmpty()) window.open_file(how.plan);
    window.show();
    QCoreApplication::processEvents();
    for (RailChart* chart : window.findChildren<RailChart*>()) chart->set_animated(false);
    what.prepare(window);
    window.document()->inspector().finish();
    while (!window.document()->inspector().proved())
        QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    settle();
    QPixmap picture = window.grab();
    if (WhyPopup* why = window.why_popup(); why->isVisible()) {  // a window of its own: put where it stands
        QPainter painter(&picture);
        painter.drawPixmap(window.mapFromGlobal(why->pos()), why->grab());
    }
    return picture.save(path);
}

}  // namespace

int render_views(const QString& folder, const Rendering& what) {
    if (!QDir().mkpath(folder)) {
        std::fprintf(stderr, "The folder %s cannot be made.\n", qPrintable(folder));
        return 1;
    }
    bool whole = true;
    for (const Picture& picture : pictures(what.which)) {
        if (!picture.file.contains(what.only)) continue;
        const QString path = QDir(folder).filePath(picture.file);
        const bool written = draw(picture, what, path);
        std::printf("%s %s\n", written ? "drawn:" : "could not write:", qPrintable(path));
        whole = whole && written;
    }
    use_look(false);
    return whole ? 0 : 1;
}

}  // namespace yr::app
