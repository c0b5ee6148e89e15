// The Runs and Guard workspaces, driven as a person would.
#include <QComboBox>
#include <QLineEdit>

#include "app/window_fixture.h"
#include "plan/plan_json.h"

namespace yr::test {
namespace {

class RunsTest : public WindowTest {
  protected:
    RunsTest() {
        window.go_to(QStringLiteral("runs"));
        page()->finish();
    }
    app::RunsPage* page() { return window.workspace<app::RunsPage>(); }
    QTreeWidgetItem* row(const char* name) {
        auto* t = page()->matrix()->table();
        for (int k = 0; k < t->topLevelItemCount(); ++k)
            if (t->topLevelItem(k)->text(0).startsWith(QString::fromUtf8(name))) return t->topLevelItem(k);
        return nullptr;
    }
    const yr::Run& run(const char* name) { return *yr::find(plan().runs, run_named(name)); }
};

TEST_F(RunsTest, EveryCableStandsAgainstEveryState) {
    auto* table = page()->matrix()->table();
    int cables = 0;
    for (const yr::Run& r : plan().runs) cables += !r.body_metal && !r.resistance_ohm;
    EXPECT_EQ(table->topLevelItemCount(), cables);
    EXPECT_EQ(table->columnCount(), 4 + static_cast<int>(plan().states.size()));
    ASSERT_TRUE(row("echo sounder feed"));
    EXPECT_TRUE(row("echo sounder feed")->text(2).startsWith(QStringLiteral("▲"))) << "too thin as it stands";
    EXPECT_EQ(row("echo sounder feed")->text(3), QStringLiteral("drop"));
    EXPECT_EQ(row("data logger feed")->text(4), QStringLiteral("–")) << "dead with the key off";
    EXPECT_TRUE(row("starter cable")->text(0).contains(QStringLiteral("pinned")));
}

TEST_F(RunsTest, FilterAndSort) {
    const int all = page()->matrix()->shown();
    auto* filter = page()->matrix()->filter();
    filter->setCurrentIndex(1);  // too thin now
    const int thin = page()->matrix()->shown();
    EXPECT_GT(thin, 0);
    EXPECT_LT(thin, all);
    filter->setCurrentIndex(2);  // decided by drop
    EXPECT_GT(page()->matrix()->shown(), 0);
    filter->setCurrentIndex(0);
    EXPECT_EQ(page()->matrix()->shown(), all);
    auto* table = page()->matrix()->table();
    table->sortByColumn(1, Qt::DescendingOrder);
    EXPECT_TRUE(table->topLevelItem(0)->text(1).contains(QStringLiteral("4/0")));
}

TEST_F(RunsTest, AClickOnARungTakesThatSizeAndUndoGivesItBack) {
    doc().selection().choose(run_named("scene lights feed"));
    page()->finish();
    auto* ladder = page()->ladder();
    ASSERT_TRUE(ladder->ladder());
    ASSERT_GE(ladder->ladder()->now, 0);
    const WireSize before = *run("scene lights feed").size;
    const auto to = static_cast<std::size_t>(ladder->ladder()->now + 2);
    QTest::mouseClick(ladder, Qt::LeftButton, {}, ladder->rung_rect(to).center().toPoint());
    EXPECT_EQ(*run("scene lights feed").size, step_size(before, 2));
    const QString file = QString::fromStdString(folder.file("thicker.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    EXPECT_EQ(*load_plan(file.toStdString()), doc().store().stored());
    doc().store().undo_stack()->undo();
    EXPECT_EQ(*run("scene lights feed").size, before);
    doc().inspector().finish();
    page()->finish();
    EXPECT_TRUE(page()->verdict().contains(QStringLiteral("scene lights feed")));
    QTest::keyClick(ladder, Qt::Key_Plus);
    EXPECT_EQ(*run("scene lights feed").size, step_size(before, 1));
}

TEST_F(RunsTest, EveryCellSaysWhatFails) {
    doc().selection().choose(run_named("deck light feed"));
    page()->finish();
    auto* ladder = page()->ladder();
    ASSERT_TRUE(ladder->ladder());
    bool failing = false;
    for (std::size_t r = 0; r < ladder->ladder()->rows.size(); ++r) {
        bool marked = false;
        for (int c = 0; c < app::LadderView::columns; ++c) {
            const QString text = ladder->cell_text(r, static_cast<app::LadderView::Column>(c));
            EXPECT_FALSE(text.isEmpty());
            marked = marked || text.startsWith(QStringLiteral("▲"));
        }
        if (!ladder->ladder()->rows[r].passes()) EXPECT_TRUE(marked) << r;
        failing = failing || marked;
    }
    EXPECT_TRUE(failing) << "a 40 A fuse before it";
    EXPECT_FALSE(ladder->accessibleDescription().isEmpty());
}

TEST_F(RunsTest, SideBySidePinAndBothWays) {
    doc().selection().choose(run_named("scene lights feed"));
    page()->side_by_side()->setValue(2);
    page()->finish();
    ASSERT_TRUE(page()->ladder()->ladder());
    EXPECT_EQ(page()->ladder()->ladder()->parallel, 2);
    QTest::mouseClick(page()->ladder(), Qt::LeftButton, {},
                      page()->ladder()->rung_rect(6).center().toPoint());
    EXPECT_EQ(run("scene lights feed").parallel, 2);
    doc().store().undo_stack()->undo();
    QToolButton *pin = nullptr, *both = nullptr;
    for (QToolButton* b : page()->findChildren<QToolButton*>()) {
        if (b->text() == QStringLiteral("pin")) pin = b;
        if (b->text() == QStringLiteral("both ways")) both = b;
    }
    ASSERT_TRUE(pin && both);
    pin->click();
    EXPECT_TRUE(run("scene lights feed").pinned);
    yr::Run thick = run("scene lights feed");
    thick.size = WireSize::awg(4);
    doc().apply(Put<yr::Run>{thick, {}}, QStringLiteral("thick"));
    both->click();
    EXPECT_EQ(*run("scene lights return").size, WireSize::awg(4));
}

TEST_F(RunsTest, TheWholePlanInOneStepAndBack) {
    const Plan before = plan();
    page()->show_view(app::RunsPage::View::together);
    auto* sizing = page()->sizing();
    sizing->start();
    EXPECT_TRUE(sizing->running());
    sizing->finish();
    ASSERT_TRUE(sizing->result());
    EXPECT_EQ(sizing->result()->status, SizingStatus::least);
    EXPECT_TRUE(sizing->summary().contains(QStringLiteral("proved")));
    EXPECT_GT(sizing->table()->topLevelItemCount(), 40);
    const int steps = doc().store().undo_stack()->count();
    ASSERT_TRUE(sizing->apply_button()->isVisibleTo(sizing));
    sizing->apply_button()->click();
    EXPECT_EQ(doc().store().undo_stack()->count(), steps + 1);
    EXPECT_NE(plan(), before);
    EXPECT_EQ(count(FindingKind::drop_over_limit, load_named("echo sounder")), 0);
    EXPECT_FALSE(sizing->apply_button()->isVisibleTo(sizing)) << "it is applied";
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(RunsTest, ARowTellsWhatOneSizeLessOrMoreCosts) {
    page()->show_view(app::RunsPage::View::together);
    auto* sizing = page()->sizing();
    sizing->start();
    sizing->finish();
    ASSERT_TRUE(sizing->result());
    const Id hoist = run_named("hoist feed");
    for (int k = 0; k < sizing->table()->topLevelItemCount(); ++k)
        if (sizing->table()->topLevelItem(k)->data(0, Qt::UserRole).toString().toStdString() == hoist)
            sizing->table()->setCurrentItem(sizing->table()->topLevelItem(k));  // as a click or an arrow does
    EXPECT_TRUE(sizing->next_text().contains(QStringLiteral("hoist feed"))) << "it says what it works out";
    sizing->finish_next();
    const QString told = sizing->next_text();
    EXPECT_TRUE(told.contains(QStringLiteral("One thinner"))) << told.toStdString();
    EXPECT_TRUE(told.contains(QStringLiteral("One thicker"))) << told.toStdString();
    EXPECT_TRUE(told.contains(QStringLiteral("kg more"))) << told.toStdString();
    // of another plan nothing is told
    doc().step_run(hoist, 1);
    sizing->ask_next(hoist);
    EXPECT_EQ(sizing->next_text(), told);
}

TEST_F(RunsTest, GoalStockAndPriceOfVolts) {
    page()->show_view(app::RunsPage::View::together);
    auto* sizing = page()->sizing();
    sizing->goal()->setCurrentIndex(1);
    sizing->stock()->setText(QStringLiteral("40 m 16 AWG, 6 m 25 mm²"));
    emit sizing->stock()->editingFinished();
    ASSERT_EQ(plan().policy.stock.size(), 2U);
    EXPECT_EQ(plan().policy.stock[1], (Stock{WireSize::metric(25), 6}));
    QString said;
    QObject::connect(sizing, &app::SizingPanel::said, [&](const QString& text) { said = text; });
    sizing->stock()->setText(QStringLiteral("40 m of string"));
    emit sizing->stock()->editingFinished();
    EXPECT_TRUE(said.contains(QStringLiteral("40 m of string")));
    EXPECT_EQ(plan().policy.stock.size(), 2U) << "nothing is lost";
    sizing->goal()->setCurrentIndex(0);
    sizing->show_part(2);
    sizing->price_of(load_named("beacons"));
    sizing->finish_price();
    EXPECT_TRUE(sizing->price_text().contains(QStringLiteral("beacons")))
        << sizing->price_text().toStdString();
    sizing->show_part(1);
    EXPECT_FALSE(window.grab().isNull());
}

TEST_F(RunsTest, WhereABoxShouldStand) {
    doc().selection().choose("rear-box");
    page()->show_view(app::RunsPage::View::place);
    page()->finish();
    auto* table = page()->placement();
    ASSERT_GE(table->topLevelItemCount(), 5);
    EXPECT_EQ(table->topLevelItem(0)->text(0), QStringLiteral("where it is"));
    const double before = *run("rear box feed").length_m;
    for (int k = 1; k < table->topLevelItemCount(); ++k)
        if (table->topLevelItem(k)->text(0).contains(QStringLiteral("nearer"))) {
            emit table->itemDoubleClicked(table->topLevelItem(k), 0);
            break;
        }
    EXPECT_LT(*run("rear box feed").length_m, before);
    doc().store().undo_stack()->undo();
    EXPECT_DOUBLE_EQ(*run("rear box feed").length_m, before);
}

TEST_F(RunsTest, APlaceFoundForAnotherThingIsNotTaken) {
    doc().selection().choose("rear-box");
    page()->show_view(app::RunsPage::View::place);
    page()->finish();
    auto* table = page()->placement();
    ASSERT_GE(table->topLevelItemCount(), 5);
    const Plan before = plan();
    doc().selection().choose("cab-box");  // its places are still being tried
    EXPECT_EQ(table->topLevelItemCount(), 0) << "those of the rear box are gone at once";
    page()->finish();
    EXPECT_TRUE(plan() == before);
}

// A supply that breaks down is not "every cable is pinned".
TEST_F(RunsTest, APlanWithoutAnAnswerIsNotSaidToBePinned) {
    Plan weak = plan();
    for (Battery& b : weak.batteries) b.R0_ohm = 5;
    weak.sources.clear();
    std::erase_if(weak.runs, [&](const yr::Run& r) { return owner_of(r.from) == "alternator"; });
    doc().store().open(empty_plan("New"), {});
    auto* sizing = page()->sizing();
    sizing->start();
    sizing->finish();
    const QString nothing = sizing->summary();
    doc().store().open(weak, {});
    sizing->start();
    sizing->finish();
    EXPECT_FALSE(sizing->summary().contains(QStringLiteral("pinned"))) << sizing->summary().toStdString();
    EXPECT_NE(sizing->summary(), nothing);
}

class GuardTest : public WindowTest {
  protected:
    GuardTest() {
        state("Hoisting");
        window.go_to(QStringLiteral("guard"));
        doc().inspector().finish();
        doc().selection().choose(run_named("radiator fan feed"));
        page()->finish();
    }
    app::GuardPage* page() { return window.workspace<app::GuardPage>(); }
    double rating(const char* fuse) {
        for (const yr::Run& r : plan().runs)
            for (const Device& d : r.devices)
                if (d.name == fuse) return d.rating_A;
        return 0;
    }
};

TEST_F(GuardTest, TheFuseIsDraggedToAnotherRating) {
    ASSERT_TRUE(page()->chart()->curves());
    ASSERT_EQ(rating("radiator fan fuse"), 35);
    auto* chart = page()->chart();
    const QPoint from = chart->handle().toPoint();
    ASSERT_FALSE(from.isNull());
    const double wanted = chart->xAxis->pixelToCoord(from.x()) * 25 / 35;
    const QPoint to(static_cast<int>(chart->xAxis->coordToPixel(wanted)), from.y());
    QTest::mousePress(chart, Qt::LeftButton, {}, from);
    QMouseEvent move(QEvent::MouseMove, to, chart->mapToGlobal(to), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QCoreApplication::sendEvent(chart, &move);
    EXPECT_EQ(rating("radiator fan fuse"), 35) << "only once it is let go";
    QTest::mouseRelease(chart, Qt::LeftButton, {}, to);
    EXPECT_EQ(rating("radiator fan fuse"), 25);
    EXPECT_GE(count(FindingKind::fuse_loaded, run_named("radiator fan feed")), 1) << "findings follow";
    doc().store().undo_stack()->undo();
    EXPECT_EQ(rating("radiator fan fuse"), 35);
}

TEST_F(GuardTest, SchoolsAndKindsSetTheFuse) {
    ASSERT_EQ(page()->schools().size(), 3U);
    EXPECT_TRUE(page()->schools()[2]->text().contains(QStringLiteral("35")));
    page()->schools()[0]->click();  // 150 %: 22 x 1.5 = 33
    EXPECT_EQ(rating("radiator fan fuse"), 35);
    doc().selection().choose(run_named("cab box feed"));  // 80 A, a rating that breakers have as well
    page()->finish();
    const int at = page()->kinds()->findData(static_cast<int>(FuseType::breaker_3));
    ASSERT_GE(at, 0);
    page()->kinds()->setCurrentIndex(at);
    emit page()->kinds()->activated(at);
    EXPECT_EQ(yr::find(plan().runs, run_named("cab box feed"))->devices[0].fuse, FuseType::breaker_3);
    EXPECT_EQ(yr::find(plan().runs, run_named("cab box feed"))->devices[0].rating_A, 80);
}

TEST_F(GuardTest, AFuselessCableGetsOneAtItsSource) {
    doc().selection().choose(run_named("charge cable"));
    page()->finish();
    page()->schools()[2]->click();
    page()->finish();
    const yr::Run& run = *yr::find(plan().runs, run_named("charge cable"));
    ASSERT_EQ(run.devices.size(), 1U);
    EXPECT_EQ(run.devices[0].kind, DeviceKind::fuse);
    EXPECT_TRUE(page()->advice_text().contains(QStringLiteral("It sits"))) << "how far from its source";
}

TEST_F(GuardTest, ShortsEverywhereWorstFirst) {
    auto* table = page()->faults()->table();
    page()->finish();
    ASSERT_GT(table->topLevelItemCount(), 50);
    EXPECT_TRUE(table->topLevelItem(0)->text(0).startsWith(QStringLiteral("■")));
    const int bolted = table->topLevelItemCount();
    page()->faults()->through()->setCurrentIndex(2);
    EXPECT_GT(table->topLevelItemCount(), bolted / 2);
    page()->faults()->which()->setCurrentIndex(1);
    EXPECT_GT(table->topLevelItemCount(), 20);
    emit table->itemClicked(table->topLevelItem(3), 0);
    EXPECT_TRUE(yr::find(plan().runs, doc().selection().id()));
    EXPECT_TRUE(page()->faults()->summary().contains(QStringLiteral("shorts looked at")));
}

// A chart that is drawn anew after its last run went away: by a look switched while another page is open.
TEST_F(GuardTest, ItsLastRunUndoneElsewhereIsNotReachedFor) {
    window.go_to(QStringLiteral("rail"));
    type("pond pump 5 A on ignition, 2 m");
    press(Qt::Key_Return);
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    window.go_to(QStringLiteral("guard"));
    doc().selection().choose(plan().runs.back().id);
    page()->finish();
    window.go_to(QStringLiteral("rail"));
    doc().store().undo_stack()->undo();
    QEvent look(QEvent::PaletteChange);
    QCoreApplication::sendEvent(page()->chart(), &look);
    page()->schools()[2]->click();  // of a run that is gone: nothing happens
    EXPECT_FALSE(doc().store().undo_stack()->canUndo());
    window.go_to(QStringLiteral("guard"));
    page()->finish();
    EXPECT_TRUE(page()->chart()->curves());
}

TEST_F(GuardTest, SwitchingOnIsFollowed) {
    page()->show_view(app::GuardPage::View::starts);
    page()->finish();
    EXPECT_TRUE(page()->start_text().contains(QStringLiteral(" dips from ")))
        << page()->start_text().toStdString();
    const int hoist = page()->starters()->findText(QStringLiteral("davit hoist"));
    ASSERT_GE(hoist, 0);
    page()->starters()->setCurrentIndex(hoist);
    emit page()->starters()->activated(hoist);
    page()->finish();
    EXPECT_TRUE(page()->start_text().contains(QStringLiteral(" dips from ")));
}

TEST_F(GuardTest, AnEmptyPlanAndAFirstLoadOfOnesOwn) {
    doc().store().open(empty_plan("New vehicle"), {});
    for (const QString& shown : {QStringLiteral("guard"), QStringLiteral("runs")}) {
        window.go_to(shown);
        doc().inspector().finish();
        QCoreApplication::processEvents();
    }
    window.workspace<app::RunsPage>()->show_view(app::RunsPage::View::together);
    window.workspace<app::RunsPage>()->sizing()->start();
    window.workspace<app::RunsPage>()->sizing()->finish();
    EXPECT_TRUE(window.workspace<app::RunsPage>()->sizing()->summary().contains(QStringLiteral("proved")));
    window.workspace<app::RunsPage>()->show_view(app::RunsPage::View::place);
    window.workspace<app::RunsPage>()->finish();
    window.workspace<app::RunsPage>()->show_view(app::RunsPage::View::ladder);
    type("work light 2x 45 W on ignition, 3..4.5 m");
    press(Qt::Key_Return);
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    ASSERT_FALSE(plan().loads.empty());
    const yr::Run* feed = supply_run(plan(), plan().loads.front().id);
    ASSERT_TRUE(feed);
    EXPECT_DOUBLE_EQ(*feed->length_m, 4.5);
    EXPECT_DOUBLE_EQ(feed->length_least_m.value_or(0), 3) << "a range as it was typed";
    doc().inspector().finish();
    window.workspace<app::RunsPage>()->finish();
    EXPECT_TRUE(window.workspace<app::RunsPage>()->ladder()->ladder().has_value());
    window.go_to(QStringLiteral("guard"));
    doc().selection().choose(feed->id);
    page()->finish();
    EXPECT_TRUE(page()->chart()->curves().has_value());
}

TEST_F(GuardTest, NothingIsCutOffAtItsUsualSize) {
    for (const QString& page_shown : {QStringLiteral("runs"), QStringLiteral("guard")}) {
        window.go_to(page_shown);
        for (const QToolButton* b : window.findChildren<QToolButton*>())
            if (b->isVisible() && !b->text().isEmpty())
                EXPECT_GE(b->width() + 1, QFontMetrics(b->font()).horizontalAdvance(b->text()))
                    << b->text().toStdString();
    }
}

}  // namespace
}  // namespace yr::test
