// Options of a plan and `All states` in the real window.
#include <QAction>
#include <QMenu>
#include <QTreeWidget>
#include <random>

#include "app/window_fixture.h"
#include "inspect/findings.h"
#include "notes/notes.h"
#include "plan/library.h"
#include "plan/plan_json.h"
#include "plan/variant.h"
#include "window/dialogs.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

TEST_F(WindowTest, ChangesInAnOptionStayInItAndUndoAndSaveKeepThem) {
    const Plan standing = doc().store().stored();
    const Id feed = run_named("echo sounder feed");
    window.new_option(QStringLiteral("thick sounder"));
    ASSERT_FALSE(doc().store().stored().active.empty());
    EXPECT_TRUE(doc().step_run(feed, 3, true));
    EXPECT_FALSE(*find(plan().runs, feed)->size == *find(standing.runs, feed)->size) << "shown";
    EXPECT_EQ(*find(doc().store().stored().runs, feed)->size, *find(standing.runs, feed)->size)
        << "the plan itself is as it was";
    EXPECT_EQ(doc().store().stored().variants.back().runs.size(), 1U);
    const std::string file = folder.file("options.yourrail.json");
    ASSERT_TRUE(window.save_to(QString::fromStdString(file)));
    EXPECT_EQ(*load_plan(file), doc().store().stored());
    doc().store().undo_stack()->undo();
    doc().store().undo_stack()->undo();
    EXPECT_EQ(doc().store().stored(), standing);
    doc().store().undo_stack()->redo();
    doc().store().undo_stack()->redo();
    EXPECT_FALSE(*find(plan().runs, feed)->size == *find(standing.runs, feed)->size);
}

TEST_F(WindowTest, SwitchingAnOptionIsOneClickAndEveryNumberFollows) {
    state("Idling");
    const double before = doc().shown().solution().point.sources[0].limit_A;
    bool clicked = false;
    for (QMenu* menu : window.findChildren<QMenu*>()) {
        emit menu->aboutToShow();
        for (QAction* a : menu->actions())
            if (!clicked && a->text() == QStringLiteral("bigger alternator")) a->trigger(), clicked = true;
    }
    ASSERT_TRUE(clicked);
    EXPECT_EQ(doc().store().stored().active, Id("variant-alternator"));
    EXPECT_GT(doc().shown().solution().point.sources[0].limit_A, before + 20);
    EXPECT_EQ(count(FindingKind::supply_short, "battery-1"), 1) << "only hoisting is still short";
}

TEST_F(WindowTest, AnEditThatTheOptionCannotTakeIsRefusedWhole) {
    window.new_option(QStringLiteral("other"));
    const Plan before = doc().store().stored();
    yr::Run r = plan().runs.front();
    r.to = "nowhere";
    EXPECT_FALSE(doc().apply(Put<yr::Run>{r, {}}, QStringLiteral("bad")));
    EXPECT_EQ(doc().store().stored(), before);
    EXPECT_TRUE(window.messages()->isVisible());
}

TEST_F(WindowTest, RandomEditsInAndOutOfOptionsUndoToWhereTheyBegan) {
    const Plan begun = doc().store().stored();
    std::mt19937 random(3);
    for (int k = 0; k < 40; ++k) {
        const auto& variants = doc().store().stored().variants;
        switch (random() % 4) {
            case 0:
                doc().apply(SetActive{random() % 2 ? Id() : variants[random() % variants.size()].id},
                            QStringLiteral("show"));
                break;
            case 1:
                doc().step_run(plan().runs[random() % plan().runs.size()].id, random() % 2 ? 1 : -1);
                break;
            case 2: {
                Load l = plan().loads[random() % plan().loads.size()];
                l.count += 1;
                doc().apply(Put<Load>{l, {}}, QStringLiteral("one more"));
                break;
            }
            default: {
                Vehicle v = plan().vehicle;
                v.name += "x";
                doc().apply(SetVehicle{v}, QStringLiteral("named"));
            }
        }
    }
    const Plan end = doc().store().stored();
    const int steps = doc().store().undo_stack()->count();
    for (int k = 0; k < steps; ++k) doc().store().undo_stack()->undo();
    EXPECT_EQ(doc().store().stored(), begun);
    for (int k = 0; k < steps; ++k) doc().store().undo_stack()->redo();
    EXPECT_EQ(doc().store().stored(), end);
}

TEST_F(WindowTest, ComparedChartsStandOnOneScale) {
    state("Idling");
    window.go_to(QStringLiteral("rail"), QStringLiteral("compare"));
    window.workspace<app::RailPage>()->compare()->choose({}, "variant-relay");
    window.workspace<app::RailPage>()->compare()->finish();
    const auto &left = window.workspace<app::RailPage>()->compare()->left()->scene(),
               &right = window.workspace<app::RailPage>()->compare()->right()->scene();
    EXPECT_DOUBLE_EQ(left.px_per_A, right.px_per_A);
    EXPECT_DOUBLE_EQ(left.px_per_V, right.px_per_V);
    EXPECT_NE(left.of("dcdc"), nullptr);
    EXPECT_EQ(right.of("dcdc"), nullptr) << "that option has no charger";
    EXPECT_EQ(window.workspace<app::RailPage>()->compare()->table()->topLevelItemCount(),
              static_cast<int>(doc().store().stored().variants.size()) + 1);
    EXPECT_TRUE(window.workspace<app::RailPage>()->compare()->table()->topLevelItem(0)->text(1).startsWith(
        QStringLiteral("−")))
        << "short at idle";
    const Plan before = doc().store().stored();
    QWheelEvent e(QPointF(100, 60),
                  window.workspace<app::RailPage>()->compare()->left()->mapToGlobal(QPoint(100, 60)), {},
                  {0, 120}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
    QCoreApplication::sendEvent(window.workspace<app::RailPage>()->compare()->left(), &e);
    EXPECT_EQ(doc().store().stored(), before) << "a compared chart changes nothing";
}

TEST_F(WindowTest, AllStatesNamesTheWorstAndGoesThere) {
    window.states()->set_all_states(true);
    EXPECT_EQ(window.open_workspace()->open_view(), QStringLiteral("all_states"));
    QTreeWidget* loads = window.workspace<app::RailPage>()->worst()->loads();
    ASSERT_EQ(loads->topLevelItemCount(), static_cast<int>(plan().loads.size()));
    bool seen = false;
    for (int k = 0; k < loads->topLevelItemCount(); ++k) {
        QTreeWidgetItem* item = loads->topLevelItem(k);
        if (!item->text(0).contains(QStringLiteral("echo sounder"))) continue;
        seen = true;
        EXPECT_TRUE(item->text(0).startsWith(QStringLiteral("▲"))) << "marked, not by colour alone";
        EXPECT_EQ(item->text(4), QStringLiteral("Hoisting"));
        emit loads->itemDoubleClicked(item, 0);
    }
    EXPECT_TRUE(seen);
    EXPECT_EQ(window.open_workspace()->key(), QStringLiteral("rail"));
    EXPECT_EQ(doc().shown().state().name, "Hoisting");
    press(Qt::Key_0, Qt::ControlModifier);
    EXPECT_EQ(window.open_workspace()->open_view(), QStringLiteral("all_states"));
}

TEST_F(WindowTest, AnInverterCarriesItsLoadsInListChartAndWhy) {
    state("Hoisting");
    EXPECT_TRUE(window.list()->row_text("inverter").endsWith(QStringLiteral("A")));
    EXPECT_TRUE(window.list()->row_text("load-25").contains(QStringLiteral("W"))) << "mains loads in watts";
    const app::SceneItem* i = window.workspace<app::RailPage>()->chart()->scene().of("inverter");
    ASSERT_NE(i, nullptr);
    EXPECT_EQ(window.workspace<app::RailPage>()->chart()->scene().of("load-25"), i)
        << "a mains load stands where its inverter stands";
    const auto why = doc().shown().why({words::ValueKind::inverter_current, "inverter", 0});
    EXPECT_FALSE(why.title.empty());
    EXPECT_NE(words::text(why).find("400"), std::string::npos);
}

// What hangs on a bar that is no feed of loads (here: behind a master, by the finding's mend) stays in the
// list.
TEST_F(WindowTest, EveryLoadHasItsRowWhateverItHangsOn) {
    const std::string file = folder.file("lorry.yourrail.json");
    const Notes notes = read_notes(
        "lorry 24 V\nbattery 2x 12 V 225 Ah in series\nalternator 110 A\nbattery master switch\nwinch 4 kW, "
        "9 m\n"
        "lamps 4x 35 W\n",
        &shipped_library());
    ASSERT_TRUE(save_plan(notes.plan, file));
    ASSERT_TRUE(window.open_file(QString::fromStdString(file)));
    doc().inspector().finish();
    const Inspection whole = inspect(plan());
    const auto f = std::find_if(whole.findings.begin(), whole.findings.end(), [](const Finding& x) {
        return x.kind == FindingKind::alive_with_master_open && x.mend;
    });
    ASSERT_NE(f, whole.findings.end());
    EXPECT_EQ(words::mend_label(*f, plan()), "All behind the master");
    ASSERT_TRUE(doc().apply(f->mend->edit, QStringLiteral("mend")));
    for (const Load& l : plan().loads) EXPECT_FALSE(window.list()->row_text(l.id).isEmpty()) << l.name;
    doc().store().undo_stack()->undo();
    EXPECT_EQ(doc().store().stored(), notes.plan);
}

TEST_F(WindowTest, ACableIsLaidBetweenAnyTwoEnds) {
    app::CableDialog dialog(&doc(), &window);
    const auto pick = [](QComboBox* box, const char* terminal) {
        box->setCurrentIndex(box->findData(QString::fromUtf8(terminal)));
    };
    pick(dialog.from(), "alternator.out");
    pick(dialog.to(), "alternator.out");
    dialog.accept();
    EXPECT_FALSE(dialog.problem().isEmpty()) << "both ends are one";
    pick(dialog.to(), "stud");
    dialog.length()->setText(QStringLiteral("six"));
    dialog.accept();
    EXPECT_TRUE(dialog.problem().contains(QStringLiteral("length"))) << dialog.problem().toStdString();
    const std::size_t before = plan().runs.size();
    dialog.length()->setText(QStringLiteral("6 ft"));
    dialog.size_field()->setText(QStringLiteral("1/0"));
    dialog.accept();
    ASSERT_EQ(plan().runs.size(), before + 1);
    EXPECT_NEAR(*plan().runs.back().length_m, 1.8288, 1e-9);
    state("Driving");
    EXPECT_GT(std::abs(doc().shown().solution().point.conductors[before].current_A), 1)
        << "a parallel path takes its share";
    EXPECT_EQ(doc().selection().id(), plan().runs.back().id);
}

// The way of a new user: a van of their own from nothing, a wrong word on the way, an option, saved and
// opened again.
TEST_F(WindowTest, AVanOfOnesOwnWithASlipOnTheWay) {
    doc().store().open(empty_plan("Bakery van"), {});
    const auto add = [&](const char* what) {
        bool found = false;
        for (QMenu* menu : window.findChildren<QMenu*>())
            for (QAction* a : menu->actions())
                if (!found && a->text() == QLatin1String(what)) a->trigger(), found = true;
        EXPECT_TRUE(found) << what;
    };
    for (const char* what : {"Alternator with its fused cable", "Second battery with its own bus",
                             "Sensing relay", "Inverter", "Solar panel with its controller"})
        add(what);
    type("proofing oven 300 W on mains, start 500 W");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    type("till on mains 4 A");  // amps of what volts?
    const Plan before = plan();
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    EXPECT_EQ(plan(), before) << "nothing is taken of what cannot be";
    EXPECT_EQ(window.type_line()->edit()->text(), QStringLiteral("till on mains 4 A"))
        << "and nothing typed is lost";
    state("Driving");
    const Solution& s = doc().shown().solution();
    EXPECT_TRUE(s.point.settled && s.point.residuals.good());
    EXPECT_FALSE(s.chatter);
    EXPECT_EQ(s.point.loads[0].status, LoadStatus::on) << "the oven runs behind its inverter";
    bool relay = false;
    for (std::size_t k = 0; k < s.memories.size(); ++k)
        relay = relay || (s.network.memories[k].kind == MemoryKind::sensing_relay && s.memories[k].closed);
    EXPECT_TRUE(relay) << "the batteries are joined while driving";
    window.new_option(QStringLiteral("bigger panel"));
    Source panel = plan().sources.back();
    panel.panel_W = 300;
    EXPECT_TRUE(doc().apply(Put<Source>{panel, {}}, QStringLiteral("panel")));
    const QString file = QString::fromStdString(folder.file("bakery.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    const Plan saved = doc().store().stored();
    doc().store().open(empty_plan("other"), {});
    ASSERT_TRUE(window.open_file(file));
    EXPECT_EQ(doc().store().stored(), saved);
    EXPECT_EQ(plan().sources.back().panel_W, 300.0) << "the option that was shown is shown again";
}

}  // namespace
}  // namespace yr::test
