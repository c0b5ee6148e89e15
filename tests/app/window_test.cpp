// The main path as a person walks it: type a load, see it everywhere, undo, mend a finding, change a state.
#include <QCheckBox>
#include <QLabel>
#include <QMenu>
#include <QPushButton>

#include "app/window_fixture.h"
#include "plan/plan_json.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

TEST_F(WindowTest, TypingALoadShowsWhatIsUnderstoodAndAddsIt) {
    type("kettle 5 A in the pantry shelf");
    EXPECT_TRUE(window.type_line()->understood().contains(QStringLiteral("new place")));
    EXPECT_FALSE(window.type_line()->understood().contains(QStringLiteral("place-"))) << "no id of it";
    const auto before = plan().loads.size();
    type("scene light 2x 90 W on ignition, 4.5 m, cargo roof");
    EXPECT_TRUE(window.type_line()->understood().contains(QStringLiteral("2 × 90")));
    EXPECT_TRUE(window.type_line()->understood().contains(QStringLiteral("key at ignition")));
    EXPECT_TRUE(window.type_line()->understood().contains(QStringLiteral("cargo roof")));
    EXPECT_EQ(plan().loads.size(), before) << "nothing is added before Enter";
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    ASSERT_EQ(plan().loads.size(), before + 1);
    const Id id = plan().loads.back().id;
    EXPECT_EQ(doc().selection().id(), id);
    EXPECT_NE(window.workspace<app::RailPage>()->chart()->scene().of(id), nullptr)
        << "it stands in the chart at once";
    EXPECT_TRUE(window.list()->row_text(id).startsWith(QStringLiteral("7 · scene light|1")))
        << window.list()->row_text(id).toStdString();
    EXPECT_TRUE(window.details()->isVisible());
    EXPECT_TRUE(window.type_line()->edit()->text().isEmpty());
    const QString file = QString::fromStdString(folder.file("typed.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    const auto saved = load_plan(file.toStdString());
    ASSERT_TRUE(saved);
    EXPECT_EQ(saved->loads.back().name, "scene light");
    EXPECT_EQ(saved->loads.back().count, 2);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan().loads.size(), before);
    EXPECT_TRUE(doc().store().modified()) << "the file still has it";
}

TEST_F(WindowTest, AnIncompleteLineSaysWhatIsMissing) {
    const auto before = plan().loads.size();
    type("mystery box from cab box");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    EXPECT_EQ(plan().loads.size(), before);
    QStringList texts;
    for (QLabel* l : window.type_line()->findChildren<QLabel*>()) texts << l->text();
    EXPECT_TRUE(texts.join(QLatin1Char(' ')).contains(QStringLiteral("a draw in W, A or ohm")));
    type("lamp 20 W wobbly");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    EXPECT_EQ(plan().loads.back().remarks.note, "wobbly") << "a word that was not understood is kept";
}

TEST_F(WindowTest, UndoIsNamedAndUnlimited) {
    const std::string first = to_json_text(plan());
    for (int k = 0; k < 60; ++k)
        doc().step_run(k % 2 ? run_named("hoist feed") : run_named("always feed"), k % 3 ? 1 : -1);
    EXPECT_GT(doc().store().undo_stack()->count(), 20);
    EXPECT_TRUE(doc().store().undo_stack()->undoText().contains(QStringLiteral("feed to")));
    while (doc().store().undo_stack()->canUndo()) press(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(to_json_text(plan()), first);
    EXPECT_FALSE(doc().store().modified());
    while (doc().store().undo_stack()->canRedo()) press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_NE(to_json_text(plan()), first);
}

TEST_F(WindowTest, EveryFindingStandsInTheStripAndItsMendClearsIt) {
    ASSERT_EQ(static_cast<std::size_t>(window.findings()->sentences().size()),
              words::bunches(doc().inspector().findings(), plan()).size());
    const Id deck = run_named("deck light feed");
    doc().inspector().finish_proof();
    ASSERT_EQ(count(FindingKind::fuse_above_cable, deck), 1);
    QToolButton* mend = nullptr;
    for (QToolButton* b : window.findings()->findChildren<QToolButton*>(QStringLiteral("mend")))
        if (b->toolTip().contains(QStringLiteral("deck light fuse"))) mend = b;
    ASSERT_NE(mend, nullptr);
    QTest::mouseClick(mend, Qt::LeftButton);
    EXPECT_EQ(count(FindingKind::fuse_above_cable, deck), 0);
    EXPECT_TRUE(doc().store().undo_stack()->undoText().contains(QStringLiteral("deck light fuse")));
    doc().store().undo_stack()->undo();
    EXPECT_EQ(count(FindingKind::fuse_above_cable, deck), 1);
}

TEST_F(WindowTest, FindingsBelongToThePlanThatIsOpen) {
    window.open_demo(app::demo_plans()[2].resource);
    QTest::qWait(50);  // an inspection of the former plan may still come in
    doc().inspector().finish();
    for (const Finding& f : doc().inspector().findings())
        EXPECT_NE(name_of(plan(), f.id), f.id) << "a finding about something that is not here";
}

TEST_F(WindowTest, StatesAndConditionsChangeTheNumbers) {
    state("Idling");
    const double idle = doc().shown().solution().point.sources[0].limit_A;
    auto* rpm = window.findChild<QLineEdit*>(QStringLiteral("rpm"));
    ASSERT_NE(rpm, nullptr);
    rpm->setFocus();
    rpm->selectAll();
    QTest::keyClicks(rpm, QStringLiteral("1500 rpm"));
    QTest::keyClick(rpm, Qt::Key_Return);
    EXPECT_DOUBLE_EQ(doc().shown().state().rpm, 1500);
    EXPECT_GT(doc().shown().solution().point.sources[0].limit_A, idle * 1.1);
    rpm->selectAll();
    QTest::keyClicks(rpm, QStringLiteral("fast"));
    QTest::keyClick(rpm, Qt::Key_Return);
    EXPECT_DOUBLE_EQ(doc().shown().state().rpm, 1500) << "what cannot be is refused";
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("fast")));
    press(Qt::Key_1, Qt::ControlModifier);
    EXPECT_EQ(doc().shown().state().name, "Key off");
}

TEST_F(WindowTest, WhyAnswersInChartListDetailsAndFindings) {
    state("Idling");
    const Id feed = run_named("echo sounder feed");
    doc().selection().choose(feed);
    window.workspace<app::RailPage>()->chart()->setFocus();
    QTest::keyClick(window.workspace<app::RailPage>()->chart(), Qt::Key_F1);
    EXPECT_TRUE(window.why_popup()->isVisible());
    EXPECT_TRUE(window.why_popup()->text().contains(QStringLiteral("ΔV = I × R")));
    EXPECT_TRUE(window.why_popup()->text().contains(QStringLiteral("IEC 60028")));
    window.why_popup()->hide();
    doc().selection().choose(load_named("echo sounder"));
    QTest::keyClick(window.list(), Qt::Key_F1);
    EXPECT_TRUE(window.why_popup()->text().contains(QStringLiteral("Current of echo sounder")));
    window.why_popup()->hide();
    auto* drop = window.details()->findChild<QPushButton*>(QStringLiteral("value Drop"));
    ASSERT_NE(drop, nullptr);
    QTest::mouseClick(drop, Qt::LeftButton);
    EXPECT_TRUE(window.why_popup()->text().contains(QStringLiteral("of nominal")));
    window.why_popup()->hide();
    emit window.findings()->why_finding(doc().inspector().findings().front(), {});
    EXPECT_TRUE(window.why_popup()->text().contains(QStringLiteral("source:")));
}

TEST_F(WindowTest, ListAndWhyGiveTheSameNumber) {
    for (const app::DemoPlan& demo : app::demo_plans()) {
        window.open_demo(demo.resource);
        for (std::size_t s = 0; s < plan().states.size(); ++s) {
            doc().shown().set_state(static_cast<int>(s));
            for (const Point& p : plan().points) {
                if (!p.feeds_loads) continue;
                const QString row = window.list()->row_text(p.id).section(QLatin1Char('|'), 1);
                EXPECT_EQ(row, app::q(doc().shown().why({words::ValueKind::feed_current, p.id, 0}).value))
                    << p.name << " in " << doc().shown().state().name;
            }
        }
    }
}

TEST_F(WindowTest, ANewPlanCanBeBuiltFromNothing) {
    doc().store().open(empty_plan("My van"), {});
    for (const char* what : {"Alternator", "Feed, with the key at ignition", "Ground point", "Second battery",
                             "DC-DC charger"}) {
        bool found = false;
        for (QMenu* menu : window.findChildren<QMenu*>())
            for (QAction* a : menu->actions())
                if (a->text().startsWith(QLatin1String(what))) a->trigger(), found = true;
        EXPECT_TRUE(found) << what;
    }
    type("fridge 45 W always 3 m");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    type("work lamp 2x 27 W on ignition 2 m");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    state("Driving");
    EXPECT_TRUE(doc().shown().solution().point.settled);
    for (const LoadResult& l : doc().shown().solution().point.loads) EXPECT_EQ(l.status, LoadStatus::on);
    doc().inspector().finish();
    for (const Finding& f : doc().inspector().findings())
        EXPECT_NE(f.severity, Severity::stop) << words::sentence(f, plan());
    const QString file = QString::fromStdString(folder.file("van.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    EXPECT_EQ(*load_plan(file.toStdString()), plan());
}

TEST_F(WindowTest, LooksAndUnitsSwitch) {
    press(Qt::Key_U, Qt::ControlModifier);
    EXPECT_EQ(plan().policy.units, LeadUnits::inch);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan().policy.units, LeadUnits::metric);
    press(Qt::Key_D, Qt::ControlModifier);
    const QImage night = window.grab().toImage();
    press(Qt::Key_D, Qt::ControlModifier);
    const QImage bench = window.grab().toImage();
    EXPECT_LT(night.pixelColor(640, 20).lightness(), 80);
    EXPECT_GT(bench.pixelColor(640, 20).lightness(), 200);
}

TEST_F(WindowTest, FindingsOfAKindAreOneLineThatOpens) {
    const auto groups = words::bunches(doc().inspector().findings(), plan());
    const auto large =
        std::find_if(groups.begin(), groups.end(), [](const auto& b) { return b.which.size() > 2; });
    ASSERT_NE(large, groups.end());
    const auto lines = window.findings()->sentences().size();
    const QString text = QStringLiteral("Show all %1").arg(large->which.size());
    QToolButton* show = nullptr;
    for (QToolButton* b : window.findings()->findChildren<QToolButton*>(QStringLiteral("mend")))
        if (b->text() == text && !show) show = b;
    ASSERT_NE(show, nullptr);
    show->click();
    EXPECT_EQ(window.findings()->sentences().size(), lines + static_cast<qsizetype>(large->which.size()));
}

TEST_F(WindowTest, AFindingIsAcceptedForAReasonUndoneAndSaved) {
    const Id deck = run_named("deck light feed");
    const auto find_it = [&] {
        const auto& all = doc().inspector().findings();
        return *std::find_if(all.begin(), all.end(), [&](const Finding& f) {
            return f.kind == FindingKind::fuse_above_cable && f.id == deck;
        });
    };
    const auto stops = [&] { return words::count_of(Severity::stop, doc().inspector().findings(), plan()); };
    const std::size_t before = stops();
    window.findings()->accept(find_it(), QStringLiteral("measured: it opens at 30 A"),
                              QStringLiteral("the fitter"));
    doc().inspector().finish();
    EXPECT_EQ(stops(), before - 1);
    EXPECT_EQ(window.findings()->sentences().back(), QStringLiteral("1 finding is accepted as it is."));
    EXPECT_FALSE(doc().inspector().severity_of(deck).value_or(Severity::note) == Severity::stop);
    const QString file = QString::fromStdString(folder.file("taken.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    ASSERT_EQ(load_plan(file.toStdString())->accepted.size(), 1U);
    EXPECT_EQ(load_plan(file.toStdString())->accepted.front().reason, "measured: it opens at 30 A");
    // its number gets worse: it comes back
    yr::Run worse = *yr::find(plan().runs, deck);
    for (Device& d : worse.devices)
        if (d.kind == DeviceKind::fuse) d.fuse = FuseType::bolt, d.rating_A = 80;
    ASSERT_NE(words::accepted(find_it(), plan()), nullptr);
    doc().apply(Put<yr::Run>{worse, {}}, QStringLiteral("worse"));
    doc().inspector().finish();
    EXPECT_EQ(words::accepted(find_it(), plan()), nullptr);
    doc().store().undo_stack()->undo();
    window.findings()->take_back(plan().accepted.front().id);
    doc().inspector().finish();
    EXPECT_EQ(stops(), before);
}

// "1,500 W" may be fifteen hundred or one and a half: it is asked, and Enter waits for the answer.
TEST_F(WindowTest, ANumberWithTwoReadingsIsAsked) {
    const std::size_t before = plan().loads.size();
    auto* line = window.type_line();
    type("bilge heater 1,500 W on ignition, 3 m");
    EXPECT_TRUE(line->problem().contains(QStringLiteral("“1,500”: is it"))) << line->problem().toStdString();
    EXPECT_FALSE(line->problem().contains(QStringLiteral("not understood")));
    QTest::keyClick(line->edit(), Qt::Key_Return);
    EXPECT_EQ(plan().loads.size(), before) << "Enter waits";
    QTest::keyClick(line->edit(), Qt::Key_Tab);
    EXPECT_EQ(line->edit()->text(), QStringLiteral("bilge heater 1500 W on ignition, 3 m"));
    EXPECT_TRUE(line->edit()->hasFocus());
    QTest::keyClick(line->edit(), Qt::Key_Tab);
    EXPECT_EQ(line->edit()->text(), QStringLiteral("bilge heater 1.5 W on ignition, 3 m"));
    QTest::keyClick(line->edit(), Qt::Key_Tab);
    QTest::keyClick(line->edit(), Qt::Key_Return);
    ASSERT_EQ(plan().loads.size(), before + 1);
    EXPECT_EQ(plan().loads.back().draw.value, 1500);
    type("meter 12.625A");
    EXPECT_TRUE(line->problem().contains(QStringLiteral("12.6250A"))) << line->problem().toStdString();
}

}  // namespace
}  // namespace yr::test
