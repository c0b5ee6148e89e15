// Fields, keys and messages of control: devices and states in the details, walking with the keyboard, what is
// said when something cannot be.
#include <QCheckBox>
#include <QComboBox>
#include <QFile>

#include "app/window_fixture.h"
#include "control/place_on.h"
#include "document/own_library.h"
#include "panels/box_dialog.h"
#include "panels/paste_loads.h"
#include "plan/plan_json.h"

namespace yr::test {
namespace {

class FieldsTest : public WindowTest {
  protected:
    const Device& device(const char* name) {
        for (const yr::Run& r : plan().runs)
            for (const Device& d : r.devices)
                if (d.name == name) return d;
        ADD_FAILURE() << name;
        return plan().runs.front().devices.front();
    }
};

TEST_F(FieldsTest, AContactorsCoilContactsAndControlUnit) {
    doc().selection().choose(run_named("hoist feed"));
    choose("Coil's kick", QStringLiteral("a diode holds it"));
    EXPECT_EQ(device("hoist contactor").suppression, Suppression::diode);
    EXPECT_EQ(count(FindingKind::coil_kick, load_named("hoist contactor coil")), 0);
    write("Contacts carry", "60 A");
    EXPECT_EQ(device("hoist contactor").contact_A, 60.0);
    EXPECT_EQ(count(FindingKind::contact_over, device("hoist contactor").id), 1);
    choose("Grounds without", QStringLiteral("engine management"));
    EXPECT_EQ(device("hoist contactor").grounds_without, load_named("engine management"));
    doc().store().undo_stack()->undo();
    doc().store().undo_stack()->undo();
    doc().store().undo_stack()->undo();
    EXPECT_EQ(device("hoist contactor").suppression, Suppression::unknown);
}

TEST_F(FieldsTest, FusesArePulledInAState) {
    state("Driving");
    doc().selection().choose(doc().shown().state().id);
    choose("Fuses", QStringLiteral("cab box fuse"));
    EXPECT_EQ(doc().shown().state().pulled.size(), 1U);
    const auto radio =
        static_cast<std::size_t>(yr::find(plan().loads, load_named("two-way radio")) - plan().loads.data());
    EXPECT_EQ(doc().shown().solution().point.loads[radio].status, LoadStatus::dead);
    write("Out are", "something");
    EXPECT_EQ(doc().shown().state().pulled.size(), 1U) << "names are not typed here";
    write("Out are", "");
    EXPECT_TRUE(doc().shown().state().pulled.empty());
    EXPECT_EQ(doc().shown().solution().point.loads[radio].status, LoadStatus::on);
}

TEST_F(FieldsTest, ACableTapsAFusesPosition) {
    doc().selection().choose(run_named("radio memory feed"));
    choose("Taps", QStringLiteral("tracker fuse"));
    EXPECT_EQ(yr::find(plan().runs, run_named("radio memory feed"))->tap_of, device("tracker fuse").id);
    choose("Taps", QStringLiteral("no fuse position"));
    EXPECT_TRUE(yr::find(plan().runs, run_named("radio memory feed"))->tap_of.empty());
}

TEST_F(FieldsTest, WhatALoadNeedsIsKept) {
    doc().selection().choose(load_named("fuel pump"));
    write("Runs a share of", "50 %");
    write("Signal comes after", "2 s");
    write("Start lasts", "0.4 s");
    write("On one box with", "engine");
    const Load pump = *yr::find(plan().loads, load_named("fuel pump"));
    EXPECT_EQ(pump.duty, 0.5);
    EXPECT_EQ(pump.signal_after_s, 2.0);
    EXPECT_EQ(pump.inrush_s, 0.4);
    EXPECT_EQ(pump.together, "engine");
    EXPECT_EQ(count(FindingKind::signal_missing, pump.id), 1);
    const QString file = QString::fromStdString(folder.file("needs.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    EXPECT_EQ(*yr::find(load_plan(file.toStdString())->loads, pump.id), pump);
}

TEST_F(FieldsTest, TheMoreConditionsOpenWhenOneIsUsed) {
    doc().selection().choose(load_named("dash camera"));
    auto* cranking = window.details()->findChild<QCheckBox*>(QStringLiteral("not while cranking"));
    ASSERT_NE(cranking, nullptr);
    EXPECT_FALSE(cranking->isVisible()) << "folded away";
    Condition c = yr::find(plan().loads, load_named("dash camera"))->live_when;
    c.delay_s = 5;
    doc().apply(set_live_when(plan(), load_named("dash camera"), c), QStringLiteral("delay"));
    doc().selection().choose({});
    doc().selection().choose(load_named("dash camera"));
    cranking = window.details()->findChildren<QCheckBox*>(QStringLiteral("not while cranking")).last();
    EXPECT_TRUE(cranking->isVisible());
    write("Charging above", "13.2 V");
    EXPECT_EQ(yr::find(plan().loads, load_named("dash camera"))->live_when.charging_above_V, 13.2);
    choose("While this runs", QStringLiteral("sample fridge"));
    EXPECT_EQ(yr::find(plan().loads, load_named("dash camera"))->live_when.circuits,
              std::vector<Id>{"load-14"});
}

TEST_F(FieldsTest, WalkingWithTheKeyboard) {
    window.go_to(QStringLiteral("control"));
    window.workspace<app::ControlPage>()->boxes()->setFocus();
    QTest::keyClick(window.workspace<app::ControlPage>()->boxes(), Qt::Key_Right);
    EXPECT_EQ(doc().selection().id(), load_named("two-way radio")) << "the first channel of the first box";
    QTest::keyClick(window.workspace<app::ControlPage>()->boxes(), Qt::Key_Right);
    EXPECT_EQ(doc().selection().id(), load_named("echo sounder"));
    QTest::keyClick(window.workspace<app::ControlPage>()->boxes(), Qt::Key_Left);
    QTest::keyClick(window.workspace<app::ControlPage>()->boxes(), Qt::Key_Left);
    EXPECT_NE(doc().selection().id(), load_named("two-way radio")) << "round to the last";
    window.workspace<app::ControlPage>()->show_view(app::ControlPage::View::live);
    doc().selection().choose(window.workspace<app::ControlPage>()->live()->rows()[1].load);
    QTest::keyClick(window.workspace<app::ControlPage>()->live(), Qt::Key_Down);
    EXPECT_EQ(doc().selection().id(), window.workspace<app::ControlPage>()->live()->rows()[2].load);
    QTest::keyClick(window.workspace<app::ControlPage>()->live(), Qt::Key_Up);
    QTest::keyClick(window.workspace<app::ControlPage>()->live(), Qt::Key_Up);
    QTest::keyClick(window.workspace<app::ControlPage>()->live(), Qt::Key_Up);
    EXPECT_EQ(doc().selection().id(), window.workspace<app::ControlPage>()->live()->rows()[0].load)
        << "the top is the end";
    press(Qt::Key_2, Qt::AltModifier);
    EXPECT_EQ(window.open_workspace()->key(), QStringLiteral("rail"));
    press(Qt::Key_4, Qt::AltModifier);
    EXPECT_EQ(window.open_workspace()->key(), QStringLiteral("control"));
}

TEST_F(FieldsTest, ABoxWithoutAFittingChannelSaysSo) {
    const Plan before = doc().store().stored();
    EXPECT_FALSE(doc().move_load(load_named("radiator fan"), "cab-box")) << "22 A, its start 31 A";
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("no free channel")))
        << window.messages()->text().toStdString();
    EXPECT_EQ(doc().store().stored(), before);
    type("deck pump 6 A on ignition from rear box channel 2");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    EXPECT_TRUE(window.type_line()->problem().contains(QStringLiteral("beacons"))) << "who has it";
    EXPECT_EQ(doc().store().stored(), before);
}

TEST_F(FieldsTest, DroppingOnABoxOfTheChartTakesItsChannel) {
    state("Idling");
    const auto& scene = window.workspace<app::RailPage>()->chart()->scene();
    const auto box = std::find_if(scene.boxes.begin(), scene.boxes.end(),
                                  [](const auto& b) { return b.id == "rear-box"; });
    ASSERT_NE(box, scene.boxes.end());
    const QPoint from = middle_of(load_named("satellite terminal")), to = box->rect.center().toPoint();
    QTest::mousePress(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {}, from);
    for (const QPoint& p : {from + QPoint(9, 9), to}) {
        QMouseEvent move(QEvent::MouseMove, p, window.workspace<app::RailPage>()->chart()->mapToGlobal(p),
                         Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QCoreApplication::sendEvent(window.workspace<app::RailPage>()->chart(), &move);
    }
    QTest::mouseRelease(window.workspace<app::RailPage>()->chart(), Qt::LeftButton, {}, to);
    const yr::Run* run = supply_run(plan(), load_named("satellite terminal"));
    EXPECT_EQ(run->from, "rear-box");
    EXPECT_GT(run->channel, 0);
    EXPECT_TRUE(yr::find(plan().loads, load_named("satellite terminal"))->pinned);
}

TEST_F(FieldsTest, ASearchCanBeStopped) {
    doc().apply(SetActive{"variant-wake"}, QStringLiteral("show"));
    window.go_to(QStringLiteral("control"));
    window.workspace<app::ControlPage>()->search_sneaks_now();
    window.workspace<app::ControlPage>()->sneaks()->cancel();
    window.workspace<app::ControlPage>()->sneaks()->finish();
    ASSERT_NE(window.workspace<app::ControlPage>()->sneaks()->answer(), nullptr);
    const QString first = window.workspace<app::ControlPage>()->lines().first();
    EXPECT_TRUE(first.startsWith(window.workspace<app::ControlPage>()->sneaks()->answer()->complete
                                     ? QStringLiteral("Every one of")
                                     : QStringLiteral("Stopped on the way")))
        << first.toStdString();
}

TEST_F(FieldsTest, ABrokenLibraryOfOnesOwnIsLeftAlone) {
    QFile::remove(app::own_library_path());
    Load own = *yr::find(plan().loads, load_named("beacons"));
    own.name = "amber bar";
    ASSERT_TRUE(app::keep_load(own).isEmpty());
    EXPECT_NE(entry_named(app::library(), "amber bar"), nullptr);
    Point box = *yr::find(plan().points, "rear-box");
    box.name = "our box";
    ASSERT_TRUE(app::keep_box(box).isEmpty());
    app::BoxDialog dialog(&doc(), &window);
    EXPECT_EQ(dialog.kind()->itemText(0), QStringLiteral("our box, my own"));
    QFile::remove(app::own_library_path());
}

TEST_F(FieldsTest, ATableOfNamesIsFilledFromTheLibrary) {
    const auto before = plan().loads.size();
    app::PasteLoads dialog(
        &doc(), QStringLiteral("name\tlength\nscene light\t4 m\ntracker\t1 m\nzeppelin\t2 m\n"), &window);
    dialog.accept();
    EXPECT_EQ(plan().loads.size(), before + 2) << "the third has no draw and is said to have none";
    EXPECT_TRUE(plan().loads.back().typical);
}

TEST_F(FieldsTest, AnEmptyVehicleSaysWhatToDo) {
    doc().store().open(empty_plan("bare"), {});
    window.go_to(QStringLiteral("control"));
    for (const auto view :
         {app::ControlPage::View::live, app::ControlPage::View::sneak, app::ControlPage::View::rails,
          app::ControlPage::View::channels, app::ControlPage::View::panel}) {
        window.workspace<app::ControlPage>()->show_view(view);
        QCoreApplication::processEvents();
        window.grab();
    }
    window.workspace<app::ControlPage>()->search_sneaks_now();
    window.workspace<app::ControlPage>()->sneaks()->finish();
    EXPECT_TRUE(window.workspace<app::ControlPage>()->lines().first().contains(
        QStringLiteral("No load is alive or dead")));
    window.workspace<app::ControlPage>()->give_out_channels();
    window.workspace<app::ControlPage>()->finish_channels();
    EXPECT_TRUE(
        window.workspace<app::ControlPage>()->lines().first().startsWith(QStringLiteral("Every load sits")));
}

}  // namespace
}  // namespace yr::test
