// The chart as it is worked on: wheel, keys, click, drag, zoom, gathered loads.
#include "app/window_fixture.h"
#include "railchart/rail_paint.h"

namespace yr::test {
namespace {

using app::SceneItem;
using app::SceneKind;

TEST_F(WindowTest, WheelThickensACableAndTheFindingClears) {
    state("Idling");
    const Id feed = run_named("echo sounder feed"), ret = run_named("echo sounder return"),
             sounder = load_named("echo sounder");
    ASSERT_EQ(count(FindingKind::drop_over_limit, sounder), 1);
    const double before = window.workspace<app::RailPage>()->chart()->scene().of(feed)->rect.height();
    wheel(middle_of(feed), 1);
    EXPECT_EQ(*yr::find(plan().runs, feed)->size, WireSize::awg(14));
    EXPECT_LT(window.workspace<app::RailPage>()->chart()->scene().of(feed)->rect.height(), before)
        << "everything reflows at once";
    for (int k = 0; k < 5; ++k) wheel(middle_of(feed), 1);
    for (int k = 0; k < 6; ++k) wheel(middle_of(ret), 1);
    EXPECT_EQ(count(FindingKind::drop_over_limit, sounder), 0);
    doc().store().undo_stack()->undo();
    doc().store().undo_stack()->undo();
    EXPECT_EQ(count(FindingKind::drop_over_limit, sounder), 1)
        << "turns of the wheel on one cable are one step to undo";
    EXPECT_EQ(*yr::find(plan().runs, feed)->size, WireSize::awg(16));
}

TEST_F(WindowTest, KeysStepAndTheEndOfTheTableIsSaid) {
    const Id feed = run_named("always feed");
    doc().selection().choose(feed);
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_Plus);
    EXPECT_EQ(*yr::find(plan().runs, feed)->size, WireSize::awg(6));
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_Minus);
    EXPECT_EQ(*yr::find(plan().runs, feed)->size, WireSize::awg(8));
    doc().selection().choose(run_named("charge cable"));
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_Plus);
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("thickest")));
    doc().selection().choose(run_named("bed mounts"));
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_Plus);
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("given resistance")));
}

TEST_F(WindowTest, WidthsAreAmpsAndHeightsAreVolts) {
    for (const char* name : {"Idling", "Driving", "Hoisting", "Overnight", "Accessory", "Cranking"}) {
        state(name);
        const app::RailScene& s = window.workspace<app::RailPage>()->chart()->scene();
        for (const SceneItem& i : s.items) {
            if (i.kind != SceneKind::conductor) continue;
            EXPECT_NEAR(i.rect.width(), (i.right_A - i.left_A) * s.px_per_A, 0.01);
            if (i.pieces == 1)
                EXPECT_NEAR(i.rect.width() / s.px_per_A,
                            std::abs(doc()
                                         .shown()
                                         .solution()
                                         .point.conductors[static_cast<std::size_t>(i.ref.index)]
                                         .current_A),
                            1e-3);
            EXPECT_NEAR(
                i.rect.height(),
                std::abs(
                    doc().shown().solution().point.conductors[static_cast<std::size_t>(i.ref.index)].drop_V) *
                    s.px_per_V,
                0.01);
            double bands = 0;
            for (const auto& b : i.bands) bands += b.rect.height();
            EXPECT_NEAR(bands, i.rect.height(), 0.01) << "fuse, contact, cable and joints make up the whole";
        }
    }
}

TEST_F(WindowTest, EveryLoadThatRunsIsInThePicture) {
    for (const State& s : plan().states) {
        doc().shown().set_state(static_cast<int>(&s - plan().states.data()));
        for (std::size_t k = 0; k < plan().loads.size(); ++k)
            if (doc().shown().solution().point.loads[k].status == LoadStatus::on &&
                doc().shown().solution().point.loads[k].current_A > 1e-3)
                EXPECT_NE(window.workspace<app::RailPage>()->chart()->scene().of(plan().loads[k].id), nullptr)
                    << plan().loads[k].name << " in " << s.name;
    }
}

TEST_F(WindowTest, ClickSelectsEverywhere) {
    state("Idling");
    const Id fan = load_named("radiator fan");
    QTest::mouseClick(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {}, middle_of(fan));
    EXPECT_EQ(doc().selection().id(), fan);
    EXPECT_TRUE(window.details()->isVisible());
    EXPECT_EQ(window.list()->currentItem()->text(0), QStringLiteral("radiator fan"));
    window.list()->setCurrentItem(window.list()->topLevelItem(1));
    EXPECT_EQ(doc().selection().id(), plan().sources[0].id);
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_Right);
    EXPECT_FALSE(doc().selection().id().empty());
}

TEST_F(WindowTest, LookingIntoAFeedAndBack) {
    state("Idling");
    const Id feed = run_named("cab box feed");
    const double before =
        window.workspace<app::RailPage>()->chart()->scene().of(run_named("echo sounder feed"))->rect.width();
    const QPoint at = middle_of(feed);
    QTest::mouseClick(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {},
                      at);  // opens the details: the picture moves under the mouse
    QTest::mouseDClick(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {}, at);
    EXPECT_FALSE(window.workspace<app::RailPage>()->chart()->window_A().whole());
    EXPECT_GT(
        window.workspace<app::RailPage>()->chart()->scene().of(run_named("echo sounder feed"))->rect.width(),
        before * 3);
    EXPECT_EQ(window.workspace<app::RailPage>()->chart()->scene().of(load_named("scene lights")), nullptr)
        << "only this feed is shown";
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_Escape);
    EXPECT_TRUE(window.workspace<app::RailPage>()->chart()->window_A().whole());
}

TEST_F(WindowTest, ThinLoadsAreGatheredAndOpen) {
    state("Idling");
    const SceneItem* handle = nullptr;
    for (const SceneItem& i : window.workspace<app::RailPage>()->chart()->scene().items)
        if (i.kind == SceneKind::gathered && i.members.size() > 1) handle = &i;
    ASSERT_NE(handle, nullptr);
    const auto members = handle->members;
    QTest::mouseClick(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {},
                      handle->rect.center().toPoint());
    EXPECT_FALSE(window.workspace<app::RailPage>()->chart()->window_A().whole());
    for (const Id& id : members)
        EXPECT_NE(window.workspace<app::RailPage>()->chart()->scene().of(id), nullptr);
}

TEST_F(WindowTest, DraggingALoadOntoAFeedMovesIt) {
    state("Idling");
    const Id logger = load_named("two-way radio");
    const QPoint from = middle_of(logger), to = middle_of(run_named("rear box feed"));
    QTest::mousePress(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {}, from);
    for (const QPoint& p : {from + QPoint(6, 6), from + QPoint(20, 20), to}) {
        QMouseEvent move(QEvent::MouseMove, p, window.workspace<app::RailPage>()->chart()->mapToGlobal(p),
                         Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(window.workspace<app::RailPage>()->chart(), &move);
    }
    QTest::mouseRelease(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {}, to);
    EXPECT_EQ(yr::find(plan().runs, run_named("two-way radio feed"))->from, "rear-box");
    EXPECT_EQ(doc().store().undo_stack()->undoText(), QStringLiteral("two-way radio to rear box channel 7"));
    EXPECT_TRUE(yr::find(plan().loads, logger)->pinned) << "what is put by hand stays";
    doc().store().undo_stack()->undo();
    EXPECT_EQ(yr::find(plan().runs, run_named("two-way radio feed"))->from, "cab-box");
}

// A box, by the cable that feeds it, onto the second battery's bus: fed from there, one step.
TEST_F(WindowTest, DraggingABoxesFeedOntoAnotherSupplyMovesIt) {
    state("Hoisting");
    const Plan before = plan();
    const QPoint from = middle_of(run_named("rear box feed")),
                 to = middle_of(run_named("second battery feed"));
    auto* chart = window.workspace<app::RailPage>()->chart();
    QTest::mousePress(chart, Qt::LeftButton, {}, from);
    for (const QPoint& p : {from + QPoint(6, 6), from + QPoint(20, 20), to}) {
        QMouseEvent move(QEvent::MouseMove, p, chart->mapToGlobal(p), Qt::NoButton, Qt::LeftButton,
                         Qt::NoModifier);
        QCoreApplication::sendEvent(chart, &move);
    }
    QTest::mouseRelease(chart, Qt::LeftButton, {}, to);
    const Terminal now = yr::find(plan().runs, run_named("rear box feed"))->from;
    EXPECT_TRUE(now == Terminal("aux-bus") || now == pos_of("battery-2")) << now.text();
    EXPECT_TRUE(yr::find(plan().points, "rear-box"));
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(WindowTest, TheCardTellsCableLengthWattsTemperatureAndMargin) {
    state("Idling");
    const QString card =
        app::card_lines(doc().shown(), *window.workspace<app::RailPage>()->chart()->scene().of(
                                           run_named("echo sounder feed")))
            .join(QLatin1Char('\n'));
    for (const char* part :
         {"16\u2009AWG", "5.2\u2009m", "105\u2009°C", " of 24.2\u2009A", "mV", "W", "10\u2009A"})
        EXPECT_TRUE(card.contains(QString::fromUtf8(part))) << part << "\n" << card.toStdString();
}

TEST_F(WindowTest, DeleteTakesALoadOutWithItsCables) {
    state("Idling");
    const auto runs = plan().runs.size();
    doc().selection().choose(load_named("radiator fan"));
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_Delete);
    EXPECT_EQ(plan().runs.size(), runs - 2);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan().runs.size(), runs);
}

TEST_F(WindowTest, SupplyAndReturnDifferWithoutColour) {
    state("Driving");
    const QImage grey = window.workspace<app::RailPage>()->chart()->grab().toImage().convertToFormat(
        QImage::Format_Grayscale8);
    const auto rows = [&](const Id& id) {  // how the grey changes down the middle of a rectangle
        const QRectF r = window.workspace<app::RailPage>()->chart()->scene().of(id)->rect;
        int changes = 0;
        for (int y = static_cast<int>(r.top()) + 3; y < static_cast<int>(r.bottom()) - 3; ++y) {
            const int x = static_cast<int>(r.left()) + 4;
            changes += std::abs(qGray(grey.pixel(x, y)) - qGray(grey.pixel(x, y - 1))) > 4;
        }
        return changes;
    };
    EXPECT_GT(rows(run_named("echo sounder return")), 10) << "the return is ruled";
}

TEST_F(WindowTest, ADeadStateSaysSo) {
    Plan empty = empty_plan("quiet");
    doc().store().open(empty, {});
    EXPECT_FALSE(window.workspace<app::RailPage>()->chart()->scene().note.isEmpty());
    EXPECT_FALSE(window.workspace<app::RailPage>()->chart()->grab().isNull());
}

}  // namespace
}  // namespace yr::test
