// Your Rail: plans a vehicle's 12-volt supply.
#include <QApplication>
#include <QCommandLineParser>
#include <QFileInfo>
#include <QSettings>
#include <cstdio>

#include "document/plan_files.h"
#include "plan/plan_json.h"
#include "plan/variant.h"
#include "routes/lay.h"
#include "text/say.h"
#include "widgets/tokens.h"
#include "window/dialogs.h"
#include "window/main_window.h"
#include "window/preferences.h"
#include "window/render.h"
#include "words/sentences.h"
#include "workspaces/build/dossier.h"
#include "workspaces/build/labels.h"
#include "workspaces/build/loom_view.h"

namespace {

bool has_display() {
    return !qEnvironmentVariableIsEmpty("DISPLAY") || !qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY") ||
           !qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM");
}

}  // namespace

int main(int argc, char** argv) {
    const bool display = has_display();
    if (!display) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication::setApplicationName(QStringLiteral("your-rail"));
    QApplication::setApplicationDisplayName(QStringLiteral("Your Rail"));
    QApplication::setOrganizationName(QStringLiteral("your-rail"));
    if (const double scale = yr::app::wanted_scale();
        scale > 1 && qEnvironmentVariableIsEmpty("QT_SCALE_FACTOR"))
        qputenv("QT_SCALE_FACTOR", QByteArray::number(scale));
    QApplication application(argc, argv);
    yr::app::use_desktop_language();
    QApplication::setApplicationVersion(QStringLiteral("0.1.0"));

    QCommandLineParser parser;
    parser.setApplicationDescription(yr::app::say("Plans a vehicle's 12-volt supply as one circuit."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("plan"), yr::app::say("plan file to open"),
                                 QStringLiteral("[plan]"));
    const QCommandLineOption render(QStringLiteral("render"),
                                    yr::app::say("Draw the main views of the demo into a folder and leave."),
                                    QStringLiteral("folder"));
    const QCommandLineOption demo(QStringLiteral("demo"), yr::app::say("Open the river-gauging truck."));
    const QCommandLineOption size(QStringLiteral("size"), yr::app::say("Of each picture."),
                                  QStringLiteral("WxH"), QStringLiteral("1280x800"));
    const QCommandLineOption only(QStringLiteral("only"), yr::app::say("Pictures whose name holds this."),
                                  QStringLiteral("name"));
    const QCommandLineOption labels(
        QStringLiteral("labels"),
        yr::app::say("Write the labels of a plan as PDF, or as SVG where the file is called so, and leave."),
        QStringLiteral("file"));
    const QCommandLineOption loom(QStringLiteral("loom"),
                                  yr::app::say("Write a loom of a plan at 1:1 as PDF, or as SVG where the "
                                               "file is called so, and leave; empty: the longest."),
                                  QStringLiteral("name"));
    const QCommandLineOption to(QStringLiteral("to"), yr::app::say("The file that --loom writes."),
                                QStringLiteral("file"), QStringLiteral("loom.pdf"));
    const QCommandLineOption dossier(QStringLiteral("dossier"),
                                     yr::app::say("Write the dossier of a plan as PDF and leave."),
                                     QStringLiteral("file"));
    parser.addOptions({size, only, labels, loom, to, dossier});
    parser.addOption(render);
    parser.addOption(demo);
    parser.process(application);

    yr::app::use_typeface();
    yr::app::use_look(QSettings().value(QStringLiteral("night"), false).toBool());
    if (parser.isSet(labels) || parser.isSet(loom) || parser.isSet(dossier)) {
        const QStringList plans = parser.positionalArguments();
        auto plan = yr::load_plan(plans.isEmpty() ? std::string() : plans.constFirst().toStdString());
        if (plan) yr::lay(*plan);
        yr::Result<bool> written = tl::unexpected(yr::Error{});
        if (!plan)
            written = tl::unexpected(plan.error());
        else if (parser.isSet(dossier)) {
            const auto pages =
                yr::app::write_dossier(yr::shown_plan(*plan), parser.value(dossier), QPageSize::A4);
            written = pages ? yr::Result<bool>(true) : tl::unexpected(pages.error());
        } else if (parser.isSet(labels))
            written = yr::app::write_labels(*plan, parser.value(labels), QPageSize::A4, true);
        else if (const auto pages =
                     yr::app::write_loom(*plan, parser.value(loom), parser.value(to), QPageSize::A4, true);
                 pages)
            written = true;
        else
            written = tl::unexpected(pages.error());
        if (!written) std::fprintf(stderr, "%s\n", yr::words::sentence(written.error()).c_str());
        return written ? 0 : 2;
    }
    if (parser.isSet(render) || !display) {
        const QString folder = parser.isSet(render) ? parser.value(render) : QStringLiteral("build/views");
        if (!display)
            std::printf("%s\n", yr::words::translated(
                                    "There is no display here: drawing the main views of the demo instead."));
        const QStringList sides = parser.value(size).split(QLatin1Char('x'));
        yr::app::Rendering what;
        what.which = parser.isSet(render) ? yr::app::Pictures::all : yr::app::Pictures::main;
        if (sides.size() == 2 && sides[0].toInt() > 0 && sides[1].toInt() > 0)
            what.size = {sides[0].toInt(), sides[1].toInt()};
        what.only = parser.value(only);
        if (!parser.positionalArguments().isEmpty()) what.plan = parser.positionalArguments().constFirst();
        return yr::app::render_views(folder, what);
    }

    yr::app::MainWindow window(yr::app::Recovery::default_folder());
    window.open_demo(yr::app::demo_plans().front().resource);
    window.show();
    if (!parser.positionalArguments().isEmpty()) {
        window.open_file(parser.positionalArguments().constFirst());
    } else if (const QStringList recent = yr::app::recent_files();
               !parser.isSet(demo) && !recent.isEmpty() && QFileInfo::exists(recent.constFirst())) {
        window.open_file(recent.constFirst());  // what was open comes back
    } else if (QSettings settings; !settings.value(QStringLiteral("caution_shown"), false).toBool()) {
        yr::app::FirstStart first(&window);
        if (first.exec() == QDialog::Accepted && first.chosen().isEmpty())
            window.document()->store().open(yr::empty_plan("New vehicle"), {});
        else
            window.open_demo(first.chosen());
        settings.setValue(QStringLiteral("caution_shown"), true);
    }
    window.offer_recovery();
    return QApplication::exec();
}
