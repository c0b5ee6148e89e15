// Meter in the window: proving over the simulated meter, a fault found from its complaint, the record kept
// and laid over a later one, practice.
#include "workspaces/meter/meter_page.h"

#include "app/window_fixture.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/starts_a_process.h"

namespace yr::test {
namespace {

class MeterPageTest : public WindowTest {
  protected:
    MeterPageTest() {
        qputenv("YR_BENCH_METER", QByteArray::fromStdString(test::bin_dir() + "/bench-meter"));
        window.go_to(QStringLiteral("meter"));
        page().finish();
    }
    app::MeterPage& page() { return *window.workspace<app::MeterPage>(); }
    bool tells(const QString& words) {
        const QStringList said = page().sentences();
        return std::any_of(said.begin(), said.end(), [&](const QString& s) { return s.contains(words); });
    }
    void enter(app::EntryBar* entry, const QString& text) {
        entry->field()->setFocus();
        entry->field()->clear();
        QTest::keyClicks(entry->field(), text);
        QTest::keyClick(entry->field(), Qt::Key_Return);
    }
};

TEST_F(MeterPageTest, ReadingsAreTakenWithEnterAndWhatIsOutsideSaysWhatItMeans) {
    auto* prove = page().prove();
    ASSERT_NE(prove->points(), nullptr);
    ASSERT_NE(prove->current(), nullptr);
    EXPECT_EQ(prove->current()->phase, ProvePhase::isolation);
    EXPECT_TRUE(prove->entry()->sentence().contains(QStringLiteral("Ohms from")));
    const TestPoint* first = prove->current();
    auto* table = prove->table();
    const auto heads = [table] {
        int count = 0;
        for (int k = 0; k < table->topLevelItemCount(); ++k)
            count += table->topLevelItem(k)->isFirstColumnSpanned() && !table->topLevelItem(k)->isHidden();
        return count;
    };
    EXPECT_EQ(table->topLevelItem(0)->text(app::ProveView::number),
              QStringLiteral("Negative off: nothing touches ground"))
        << "each step has its heading";
    EXPECT_GT(heads(), 5);
    table->sortByColumn(app::ProveView::probes, Qt::AscendingOrder);
    EXPECT_EQ(heads(), 0) << "sorted, the steps lie apart";
    table->sortByColumn(app::ProveView::number, Qt::AscendingOrder);
    EXPECT_GT(heads(), 5);
    EXPECT_EQ(table->topLevelItem(1)->text(app::ProveView::number), QStringLiteral("1"));
    enter(prove->entry(), QStringLiteral("20000"));
    EXPECT_EQ(prove->done(), 1U);
    EXPECT_NE(prove->current(), first) << "on to the next";
    const TestPoint* second = prove->current();
    enter(prove->entry(), QStringLiteral("3"));
    EXPECT_EQ(prove->current(), second) << "outside: one stays and looks";
    EXPECT_TRUE(prove->entry()->hint().contains(QStringLiteral("touches ground")))
        << prove->entry()->hint().toStdString();
    EXPECT_TRUE(tells(QStringLiteral("outside")));
    enter(prove->entry(), QStringLiteral("many"));
    EXPECT_EQ(prove->done(), 2U) << "what is no number is not taken";
    EXPECT_FALSE(prove->entry()->hint().isEmpty());
}

TEST_F(MeterPageTest, EveryReadingIsInTheRecordAtOnceAndOneGoesOnWhereItEnds) {
    const QString file = QString::fromStdString(folder.file("truck.yourrail.json"));
    doc().store().saved_as(file);
    write_text(file.toStdString(), "{}");
    page().finish();
    auto* prove = page().prove();
    enter(prove->entry(), QStringLiteral("20000"));
    enter(prove->entry(), QStringLiteral("20000"));
    const auto book = read_records(records_path(file.toStdString()));
    ASSERT_TRUE(book);
    ASSERT_EQ(book->records.size(), 2U);
    EXPECT_EQ(book->records[0].verdict, "good");
    EXPECT_GT(*book->records[0].low, 0) << "what was expected is frozen beside it";
    std::vector<std::pair<Probing, double>> kept;
    for (const Record& r : book->records) kept.emplace_back(r.where, *r.value);
    prove->resume({});
    EXPECT_EQ(prove->done(), 0U);
    prove->resume(kept);
    EXPECT_EQ(prove->done(), 2U);
    ASSERT_TRUE(page().open_view(QStringLiteral("record")));
    page().finish();
    EXPECT_EQ(page().record()->lines()->topLevelItemCount(), 2);
}

// Serial numbers and what was built otherwise, a correction, a copy of the plan; then the plan changes, and
// Prove goes by what this vehicle is.
TEST_F(MeterPageTest, AVehicleIsKeptAsItWasBuiltAndProvedByThat) {
    const QString file = QString::fromStdString(folder.file("truck.yourrail.json"));
    ASSERT_TRUE(save_plan(plan(), file.toStdString()));
    doc().store().saved_as(file);
    page().finish();
    enter(page().prove()->entry(), QStringLiteral("20000"));
    ASSERT_TRUE(page().open_view(QStringLiteral("record")));
    page().finish();
    auto* record = page().record();
    QTest::mouseClick(record->keep_button(), Qt::LeftButton);
    EXPECT_EQ(record->lines()->topLevelItemCount(), 1) << "nothing is typed";
    EXPECT_TRUE(record->problem().contains(QStringLiteral("Type what is to be kept")));
    record->about()->setCurrentIndex(record->about()->findText(QStringLiteral("second battery")));
    QTest::keyClicks(record->note(), QStringLiteral("serial 4711, warranty until 2029-03"));
    QTest::mouseClick(record->keep_button(), Qt::LeftButton);
    ASSERT_EQ(record->lines()->topLevelItemCount(), 2);
    EXPECT_TRUE(record->lines()->topLevelItem(1)->text(6).contains(QStringLiteral("4711")));
    EXPECT_EQ(record->lines()->topLevelItem(1)->text(2), QStringLiteral("second battery"));
    // the reading was a slip
    record->lines()->setCurrentItem(record->lines()->topLevelItem(0));
    QTest::keyClicks(record->note(), QStringLiteral("3 the other probe had come off"));
    QTest::mouseClick(record->correct_button(), Qt::LeftButton);
    ASSERT_EQ(record->lines()->topLevelItemCount(), 2) << "corrected, not added";
    EXPECT_EQ(record->lines()->topLevelItem(0)->text(5), QStringLiteral("low"));
    EXPECT_TRUE(record->lines()->topLevelItem(0)->text(6).contains(QStringLiteral("come off")));
    ASSERT_TRUE(record->keep_as_built()) << record->problem().toStdString();
    ASSERT_TRUE(record->built());
    page().finish();
    EXPECT_TRUE(tells(QStringLiteral("still the same")));

    const Plan built = plan();
    Batch thicker;
    for (yr::Run r : plan().runs)
        if (r.size && r.to.owner == "load-18")
            r.size = WireSize::awg(2), thicker.edits.emplace_back(Put<yr::Run>{r, {}});
    ASSERT_FALSE(thicker.edits.empty());
    ASSERT_TRUE(doc().apply(thicker, QStringLiteral("thicker")));
    page().finish();
    EXPECT_TRUE(tells(QStringLiteral("has changed since")));
    ASSERT_TRUE(page().open_view({}));
    page().finish();
    EXPECT_FALSE(page().prove()->against());
    page().prove()->go_by(record->built()->plan);
    page().finish();
    EXPECT_TRUE(page().prove()->against());
    EXPECT_EQ(page().prove()->plan(), built);
    EXPECT_TRUE(tells(QStringLiteral("Against what was built")));
    const ProvePlan as_built = test_points(built);
    ASSERT_EQ(page().prove()->points()->points.size(), as_built.points.size());
    for (std::size_t k = 0; k < as_built.points.size(); ++k)
        EXPECT_DOUBLE_EQ(page().prove()->points()->points[k].high, as_built.points[k].high);
}

TEST_F(MeterPageTest, OnesOwnWeightsAreTypedIntoTheirTableAndTakenBack) {
    ASSERT_TRUE(page().open_view(QStringLiteral("likely")));
    page().finish();
    auto* likely = page().likely();
    ASSERT_EQ(likely->table()->topLevelItemCount(), static_cast<int>(kFaultKinds));
    likely->table()
        ->topLevelItem(static_cast<int>(FaultKind::ground))
        ->setText(app::LikelyView::own, QStringLiteral("12"));
    QApplication::processEvents();
    ASSERT_EQ(plan().policy.faults.size(), 1U);
    EXPECT_EQ(plan().policy.faults[0].fault, "ground");
    EXPECT_DOUBLE_EQ(plan().policy.faults[0].weight, 12);
    EXPECT_TRUE(tells(QStringLiteral("1 weight is your own")));
    likely->say_weight(FaultKind::fuse, QStringLiteral("-3"));
    EXPECT_EQ(plan().policy.faults.size(), 1U) << "refused";
    doc().store().undo_stack()->undo();
    EXPECT_TRUE(plan().policy.faults.empty());
}

TEST_F(MeterPageTest, FromTheComplaintToTheBadGround) {
    ASSERT_TRUE(page().open_view(QStringLiteral("find")));
    auto* find = page().find_fault();
    // the complaint is chosen as a person would
    find->load()->setCurrentIndex(find->load()->findText(QStringLiteral("Davit hoist")));
    find->seen()->setCurrentIndex(1);
    find->state()->setCurrentIndex(find->state()->findText(QStringLiteral("Hoisting")));
    for (QToolButton* b : find->findChildren<QToolButton*>())
        if (b->text() == QStringLiteral("Note it")) QTest::mouseClick(b, Qt::LeftButton);
    find->complain({"load-18", "state-hoist", Seen::weak});
    find->finish();
    ASSERT_NE(find->answer(), nullptr);
    EXPECT_GE(find->stairs()->stairs().size(), 6U);
    Plan real = plan();
    for (Point& p : real.points)
        if (p.id == "gnd-bed") p.bond_ohm = 0.02;
    OperatingPointSolver solver;
    for (int k = 0; k < 6 && find->answer()->next; ++k) {
        const Probing where = find->answer()->next->where;
        const auto v = value_at(solve_for(real, where, solver), real, where);
        ASSERT_TRUE(v);
        enter(find->entry(), QString::number(*v, 'f', 4));
        find->finish();
    }
    page().finish();
    EXPECT_EQ(find->answer()->now.things().front().first, "gnd-bed");
    EXPECT_TRUE(tells(QStringLiteral("Bed ground")))
        << page().sentences().join(QLatin1Char('\n')).toStdString();
    const std::size_t readings = find->readings().size();
    find->take_back();
    find->finish();
    EXPECT_EQ(find->readings().size(), readings - 1);
    // a step of the staircase is clicked: it is asked for there
    const QRectF step = find->stairs()->step(2);
    QTest::mouseClick(find->stairs(), Qt::LeftButton, {}, step.center().toPoint());
    ASSERT_TRUE(find->asked());
    EXPECT_EQ(find->asked()->red, find->stairs()->stairs()[2].at);
}

TEST_F(MeterPageTest, TheSimulatedMeterAnswersForTheSavedPlan) {
    YR_STARTS_A_PROCESS();
    const QString file = QString::fromStdString(folder.file("truck.yourrail.json"));
    write_text(file.toStdString(), read_text(demo_path(kDemos[0])));
    ASSERT_TRUE(window.open_file(file));
    window.go_to(QStringLiteral("meter"));
    page().finish();
    auto* prove = page().prove();
    for (std::size_t k = 0; k < prove->points()->points.size(); ++k)
        if (prove->points()->points[k].phase == ProvePhase::charging) {
            prove->go_to(k);
            break;
        }
    const TestPoint asked = *prove->current();
    QSignalSpy answered(page().meter(), &app::MeterClient::answered);
    QTest::mouseClick(prove->entry()->meter(), Qt::LeftButton);
    QSignalSpy refused(&doc().store(), &app::PlanStore::refused);
    ASSERT_TRUE(answered.wait(20000))
        << (refused.isEmpty() ? "silent" : refused[0][0].toString().toStdString());
    const double volts = answered[0][0].toDouble();
    EXPECT_NEAR(volts, asked.expected.value, 0.05) << "the plan, solved and read over SCPI";
    EXPECT_EQ(prove->done(), 1U);
}

TEST_F(MeterPageTest, PracticeFromComplaintToRepair) {
    ASSERT_TRUE(page().open_view(QStringLiteral("practise")));
    auto* practise = page().practise();
    practise->begin(3, PracticeLevel::bad_ground);
    ASSERT_TRUE(practise->hidden() && practise->hidden()->there());
    EXPECT_TRUE(practise->told().contains(QStringLiteral("Idling"))) << practise->told().toStdString();
    practise->read({ReadKind::volts, "rear-box", Terminal("load-17.pos"), {}, "state-idle", {}});
    EXPECT_EQ(practise->score().readings, 1U);
    practise->mend("battery-2");
    EXPECT_EQ(practise->score().wrong_repairs, 1U);
    EXPECT_FALSE(practise->over());
    practise->mend(practise->hidden()->fault().thing);
    EXPECT_TRUE(practise->over());
    page().finish();
    ASSERT_NE(practise->best(), nullptr);
    EXPECT_TRUE(practise->hidden()->is_it(practise->best()->back().likeliest));
    EXPECT_EQ(practise->log()->topLevelItemCount(), 2);
}

}  // namespace
}  // namespace yr::test
