// Files: open, save, refuse, recent; a kill in the middle of the work and its recovery.
#include <QFile>
#include <QProcess>
#include <csignal>

#include "app/window_fixture.h"
#include "plan/plan_json.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

QString s(const std::string& text) {
    return QString::fromStdString(text);
}

TEST_F(WindowTest, SaveAndReopenIsTheSamePlan) {
    doc().step_run(run_named("always feed"), 1);
    const QString file = s(folder.file("a.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    EXPECT_FALSE(doc().store().modified());
    EXPECT_TRUE(app::recent_files().contains(file));
    const Plan saved = plan();
    window.open_demo(app::demo_plans()[1].resource);
    ASSERT_TRUE(window.open_file(file));
    EXPECT_EQ(plan(), saved);
    EXPECT_EQ(doc().store().path(), file);
}

// A changed plan that goes with its window tells nobody that it is as saved: its file's name would be read
// when it is gone.
TEST_F(WindowTest, APlanThatGoesSaysNothing) {
    auto store = std::make_unique<app::PlanStore>();
    store->open(*load_plan(demo_path(kDemos[0])), QStringLiteral("a.yourrail.json"));
    Plan changed = store->plan();
    changed.vehicle.name = "another";
    ASSERT_TRUE(store->apply(SetVehicle{changed.vehicle}, QStringLiteral("name")));
    ASSERT_TRUE(store->modified());
    int said = 0;
    QObject::connect(store->undo_stack(), &QUndoStack::cleanChanged, [&said] { ++said; });
    store.reset();
    EXPECT_EQ(said, 0);
}

TEST_F(WindowTest, ABadFileIsRefusedAndTheOpenPlanStays) {
    doc().step_run(run_named("always feed"), 1);
    const Plan open = plan();
    std::string cut = read_text(demo_path(kDemos[0]));
    cut.resize(cut.size() / 3);
    write_text(folder.file("cut.yourrail.json"), cut);
    EXPECT_FALSE(window.open_file(s(folder.file("cut.yourrail.json"))));
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("line ")));
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("cut.yourrail.json")));
    write_text(folder.file("foreign.json"), "{\"recipe\": \"soup\"}");
    EXPECT_FALSE(window.open_file(s(folder.file("foreign.json"))));
    EXPECT_FALSE(window.open_file(s(folder.file("missing.json"))));
    EXPECT_EQ(plan(), open);
    EXPECT_TRUE(doc().store().undo_stack()->canUndo()) << "its history too";
}

TEST_F(WindowTest, AFailedSaveSaysSoAndLosesNothing) {
    doc().step_run(run_named("always feed"), 1);
    EXPECT_FALSE(window.save_to(s(folder.file("no/such/place.yourrail.json"))));
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("cannot be written")));
    EXPECT_TRUE(doc().store().modified());
}

TEST_F(WindowTest, AFileThatAnotherWindowChangedIsAskedAbout) {
    const QString path = s(folder.file("shared.yourrail.json"));
    doc().step_run(run_named("always feed"), 1);
    ASSERT_TRUE(window.save_to(path));
    ASSERT_TRUE(window.save_to(path)) << "our own saving is no change by another";
    write_text(path.toStdString(), "{\"another\": 1}");
    doc().step_run(run_named("always feed"), 1);
    EXPECT_FALSE(window.save_to(path));
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("another window or program")));
    EXPECT_EQ(read_text(path.toStdString()), "{\"another\": 1}") << "theirs is still there";
    EXPECT_TRUE(doc().store().modified());
    EXPECT_TRUE(window.save_to(path, true));
    EXPECT_TRUE(load_plan(path.toStdString()).has_value());
}

TEST_F(WindowTest, AnEndInOrderLeavesNothingToBringBack) {
    doc().step_run(run_named("always feed"), 1);
    window.recovery()->write_now();
    const auto files = [&] {
        return QDir(s(folder.file("autosave"))).entryList({QStringLiteral("*.autosave")});
    };
    EXPECT_EQ(files().size(), 1);
    ASSERT_TRUE(window.save_to(s(folder.file("b.yourrail.json"))));
    EXPECT_TRUE(files().isEmpty()) << "what is saved needs no autosave";
}

// A second process edits and is killed by the system; this one finds its work.
TEST_F(WindowTest, WorkSurvivesAKill) {
    const QString autosave = s(folder.file("autosave"));
    const pid_t child = fork();
    if (child == 0) {  // no Qt in a forked child: start a fresh program
        execl("/proc/self/exe", "test_app", "--gtest_filter=DISABLED_Victim.*",
              "--gtest_also_run_disabled_tests", nullptr);
        _exit(127);
    }
    ASSERT_GT(child, 0);
    const QString work = QDir::tempPath() + QStringLiteral("/yr-victim-%1").arg(child);
    for (int k = 0; k < 1200 && QDir(work).entryList({QStringLiteral("*.autosave")}).isEmpty(); ++k)
        QTest::qWait(50);
    kill(child, SIGKILL);
    int status = 0;
    waitpid(child, &status, 0);
    ASSERT_TRUE(WIFSIGNALED(status)) << "it was killed at work";

    app::MainWindow next(work);
    next.workspace<app::RailPage>()->chart()->set_animated(false);
    const auto lost = next.recovery()->found();
    ASSERT_EQ(lost.size(), 1U);
    next.show();
    next.offer_recovery();
    EXPECT_TRUE(next.messages()->text().contains(QStringLiteral("River-gauging truck")));
    ASSERT_TRUE(next.recovery()->bring_back(lost.front()));
    EXPECT_EQ(next.document()->plan().loads.back().name, "last thought");
    EXPECT_TRUE(next.document()->store().modified()) << "it is back, but not saved";
    EXPECT_TRUE(next.recovery()->found().empty());
    QDir(work).removeRecursively();
}

class DISABLED_Victim : public testing::Test {};

TEST_F(DISABLED_Victim, EditsUntilItIsKilled) {
    app::MainWindow window(QDir::tempPath() +
                           QStringLiteral("/yr-victim-%1").arg(QCoreApplication::applicationPid()));
    window.open_demo(app::demo_plans().front().resource);
    window.show();
    QTest::keyClicks(window.type_line()->edit(), QStringLiteral("last thought 5 W always 1 m"));
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    QTest::qWait(30000);
}

TEST(Program, WithoutADisplayItSaysSoDrawsAndEndsWell) {
    const TempFolder folder;
    const Ran r = run("cd " + folder.path() +
                      " && env -u DISPLAY -u WAYLAND_DISPLAY -u QT_QPA_PLATFORM HOME=" + folder.path() + " " +
                      test::bin_dir() + "/your-rail --only rail-idling");
    EXPECT_EQ(r.code, 0) << r.err;
    EXPECT_NE(r.out.find("no display"), std::string::npos);
    EXPECT_NE(r.out.find("build/views/rail-idling.png"), std::string::npos);
    const QImage picture(s(folder.file("build/views/rail-idling.png")));
    EXPECT_EQ(picture.size(), QSize(1280, 800));
}

}  // namespace
}  // namespace yr::test
