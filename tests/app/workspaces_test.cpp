// The window and its workspaces through their interface alone, and one that the program does not ship.
#include "app/window_fixture.h"
#include "workspaces/empty/empty_workspace.h"

namespace yr::test {
namespace {

std::vector<app::WorkspaceKind> with_an_empty_one() {
    auto kinds = app::all_workspaces();
    kinds.push_back({[](app::Document* document) { return new app::EmptyWorkspace(document); }});
    return kinds;
}

TEST(Workspaces, AnotherOneIsAFolderALineInCMakeAndALineInTheList) {
    app::MainWindow window({}, with_an_empty_one());
    window.open_demo(app::demo_plans().front().resource);
    window.resize(1280, 800);
    window.show();
    ASSERT_TRUE(QTest::qWaitForWindowExposed(&window));
    auto* empty = dynamic_cast<app::EmptyWorkspace*>(window.workspaces().back());
    ASSERT_NE(empty, nullptr);
    QToolButton* word = nullptr;
    for (QToolButton* b : window.findChildren<QToolButton*>())
        if (b->text() == QStringLiteral("Empty")) word = b;
    ASSERT_NE(word, nullptr) << "its word stands in the top line";
    QTest::mouseClick(word, Qt::LeftButton);
    EXPECT_EQ(window.open_workspace(), empty);
    EXPECT_TRUE(empty->isVisible());
    EXPECT_TRUE(word->isChecked());
    EXPECT_EQ(empty->entered_times, 1);
    EXPECT_FALSE(window.states()->isVisible());
    EXPECT_FALSE(window.findings()->isVisible());
    QTest::keyClick(&window, Qt::Key_2, Qt::AltModifier);
    EXPECT_EQ(window.open_workspace()->key(), QStringLiteral("rail"));
    EXPECT_TRUE(window.findings()->isVisible());
    QTest::keyClick(&window,
                    static_cast<Qt::Key>(Qt::Key_0 + static_cast<int>(window.workspaces().size()) % 10),
                    Qt::AltModifier);
    EXPECT_EQ(window.open_workspace(), empty) << "its number is its place in the list";
}

TEST_F(WindowTest, EveryWorkspaceOpensByItsWordAndItsKey) {
    int number = 0;
    for (app::Workspace* w : window.workspaces()) {
        ++number;
        QTest::keyClick(&window, static_cast<Qt::Key>(Qt::Key_0 + number), Qt::AltModifier);
        EXPECT_EQ(window.open_workspace(), w) << w->key().toStdString();
        int lit = 0;
        for (QToolButton* b : window.findChildren<QToolButton*>())
            for (app::Workspace* other : window.workspaces())
                if (b->text() == other->name() && b->isCheckable() && b->isVisible() && b->isChecked()) ++lit;
        EXPECT_EQ(lit, 1) << "one word is underlined";
        EXPECT_EQ(window.states()->isVisible(), w->surroundings().states) << w->key().toStdString();
    }
    EXPECT_EQ(number, 9);
}

TEST_F(WindowTest, ViewsAreNamedAndUnknownOnesRefused) {
    for (app::Workspace* w : window.workspaces()) {
        EXPECT_FALSE(w->open_view(QStringLiteral("no such view"))) << w->key().toStdString();
        for (const app::WorkspaceView& v : w->views()) {
            EXPECT_TRUE(w->open_view(v.key)) << v.key.toStdString();
            EXPECT_EQ(w->open_view(), v.key);
        }
        EXPECT_TRUE(w->open_view(QString()));
    }
    EXPECT_GT(window.workspaces().size(), 1U);
}

TEST_F(WindowTest, EverySignalOfTheDocumentHasItsOwnCause) {
    QSignalSpy edited(&doc().store(), &app::PlanStore::edited),
        shown(&doc().shown(), &app::ShownCircuit::shown), chosen(&doc().selection(), &app::Selection::chosen),
        inspected(&doc().inspector(), &app::Inspector::inspected);
    doc().selection().choose(load_named("scene lights"));
    EXPECT_EQ(chosen.count(), 1);
    state("Driving");
    EXPECT_EQ(shown.count(), 1);
    EXPECT_EQ(edited.count(), 0) << "another state is no edit";
    EXPECT_EQ(inspected.count(), 0) << "and nothing new is wrong";
    doc().step_run(run_named("echo sounder feed"), 1);
    EXPECT_EQ(edited.count(), 1);
    EXPECT_EQ(shown.count(), 2);
    doc().inspector().finish();
    EXPECT_EQ(inspected.count(), 1);
    EXPECT_EQ(chosen.count(), 1);
}

// A view that draws what is chosen asks the shown circuit for it: both must be of one plan.
TEST_F(WindowTest, AnotherPlanIsShownBeforeItsChoiceIsTold) {
    doc().selection().choose(load_named("scene lights"));
    state("Overnight");
    ASSERT_GT(doc().shown().state_index(), 0);
    int told = 0;
    QObject::connect(&doc().selection(), &app::Selection::chosen, &window, [&] {
        if (!plan().loads.empty()) return;
        ++told;
        ASSERT_LT(static_cast<std::size_t>(doc().shown().state_index()), plan().states.size());
        EXPECT_TRUE(doc().shown().solution().point.loads.empty());
        EXPECT_TRUE(doc().selection().id().empty());
    });
    for (app::Workspace* w : window.workspaces()) {
        window.open_demo(app::demo_plans().front().resource);
        window.go_to(w->key());
        doc().selection().choose(plan().runs.front().id);
        told = 0;
        doc().store().open(empty_plan("New vehicle"), {});
        EXPECT_EQ(told, 1) << w->key().toStdString();
    }
}

TEST_F(WindowTest, ComparingInspectsNothingAnew) {
    QSignalSpy inspected(&doc().inspector(), &app::Inspector::inspected);
    window.go_to(QStringLiteral("rail"), QStringLiteral("compare"));
    auto* compare = window.workspace<app::RailPage>()->compare();
    compare->choose({}, plan().variants.empty() ? Id() : plan().variants.front().id);
    compare->finish();
    EXPECT_EQ(inspected.count(), 0);
    EXPECT_GT(compare->left()->scene().items.size(), 5U);
    EXPECT_GT(compare->right()->scene().items.size(), 5U);
}

}  // namespace
}  // namespace yr::test
