// The details panel: every kind of thing has its fields, they edit the plan, and what cannot be is said
// beside them.
#include <QComboBox>
#include <QLabel>

#include "app/window_fixture.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

class DetailsTest : public WindowTest {
  protected:
    QLineEdit* field(const char* name) {
        return window.details()->form()->findChild<QLineEdit*>(QString::fromUtf8(name));
    }
    void enter(const char* name, const char* text) {
        QLineEdit* e = field(name);
        ASSERT_NE(e, nullptr) << name;
        e->setFocus();
        e->selectAll();
        QTest::keyClick(e, Qt::Key_Delete);
        QTest::keyClicks(e, QString::fromUtf8(text));
        QTest::keyClick(e, Qt::Key_Return);
    }
    void choose(const char* name, const char* text) {
        auto* box = window.details()->form()->findChild<QComboBox*>(QString::fromUtf8(name));
        ASSERT_NE(box, nullptr) << name;
        const int index = box->findText(QString::fromUtf8(text));
        ASSERT_GE(index, 0) << text;
        box->setCurrentIndex(index);
        emit box->activated(index);
    }
};

TEST_F(DetailsTest, LoadFieldsTakeUnitsAsPeopleWriteThem) {
    const Id id = load_named("echo sounder");
    doc().selection().choose(id);
    enter("Draw, each", "72 W");
    EXPECT_EQ(yr::find(plan().loads, id)->draw, (Draw{DrawKind::power, 72}));
    enter("How many", "2");
    EXPECT_EQ(yr::find(plan().loads, id)->count, 2);
    enter("Own drop limit", "5 %");
    EXPECT_DOUBLE_EQ(*yr::find(plan().loads, id)->drop_limit, 0.05);
    enter("Own drop limit", "");
    EXPECT_FALSE(yr::find(plan().loads, id)->drop_limit.has_value()) << "empty means by policy";
    choose("Hangs on", "always block");
    EXPECT_EQ(yr::find(plan().runs, run_named("echo sounder feed"))->from, "always");
    choose("Live", "engine running");
    EXPECT_EQ(yr::find(plan().loads, id)->live_when.engine, Engine::running);
    EXPECT_EQ(doc().store().undo_stack()->count(), 6);
}

TEST_F(DetailsTest, WhatCannotBeIsSaidBesideTheField) {
    const Id id = run_named("always feed");
    doc().selection().choose(id);
    enter("Length, one way", "12 ft");
    EXPECT_NEAR(*yr::find(plan().runs, id)->length_m, 3.6576, 1e-9);
    enter("Length, one way", "12 A");
    EXPECT_NEAR(*yr::find(plan().runs, id)->length_m, 3.6576, 1e-9);
    bool said = false;
    for (QLabel* l : window.details()->form()->findChildren<QLabel*>(QStringLiteral("stop")))
        said = said || (l->isVisible() && l->text().contains(QStringLiteral("Length, one way")));
    EXPECT_TRUE(said);
    enter("Size", "11.5 AWG");
    EXPECT_EQ(*yr::find(plan().runs, id)->size, WireSize::awg(8));
    enter("Size", "25 mm2");
    EXPECT_EQ(*yr::find(plan().runs, id)->size, WireSize::metric(25));
    enter("Fuse", "40");
    EXPECT_DOUBLE_EQ(yr::find(plan().runs, id)->devices[0].rating_A, 40);
}

TEST_F(DetailsTest, SourcesBatteriesGroundsStatesAndRulesAreEdited) {
    doc().selection().choose(plan().sources[0].id);
    enter("Rated", "220 A");
    EXPECT_DOUBLE_EQ(*plan().sources[0].rated_A, 220);
    doc().selection().choose("battery-1");
    enter("Charge", "95 %");
    EXPECT_DOUBLE_EQ(*plan().batteries[0].charge, 0.95);
    choose("Chemistry", "flooded lead");
    EXPECT_EQ(plan().batteries[0].chemistry, Chemistry::flooded);
    doc().selection().choose("gnd-bed");
    enter("Bond", "0.3 mohm");
    EXPECT_NEAR(*yr::find(plan().points, "gnd-bed")->bond_ohm, 3e-4, 1e-12);
    doc().selection().choose("state-hoist");
    choose("Key", "accessory");
    EXPECT_EQ(find_state(plan(), "Hoisting")->key, Key::accessory);
    doc().selection().choose(app::kRulesId);
    choose("Ampacity table", "ISO 10133");
    EXPECT_EQ(plan().policy.ampacity_table, AmpacityTable::iso);
    enter("Drop, critical", "2");
    EXPECT_DOUBLE_EQ(*plan().policy.drop_critical, 0.02);
}

TEST_F(DetailsTest, AStateCanBeCopiedAndTakenOut) {
    doc().selection().choose("state-idle");
    const auto before = plan().states.size();
    for (QToolButton* b : window.details()->form()->findChildren<QToolButton*>())
        if (b->text() == QStringLiteral("Copy as a new state")) {
            QTest::mouseClick(b, Qt::LeftButton);
            break;
        }
    ASSERT_EQ(plan().states.size(), before + 1);
    EXPECT_EQ(doc().shown().state().name, "Idling 2");
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan().states.size(), before);
}

TEST_F(DetailsTest, TheLadderNamesTheThinnestThatPasses) {
    doc().selection().choose(run_named("deck light feed"));
    QLabel* ladder = window.details()->form()->findChild<QLabel*>(QStringLiteral("ladder"));
    ASSERT_NE(ladder, nullptr);
    EXPECT_TRUE(QTest::qWaitFor([&] { return ladder->text().contains(QStringLiteral("AWG")); }, 10000))
        << ladder->text().toStdString();
    EXPECT_TRUE(ladder->text().contains(QStringLiteral("fuse decides"))) << ladder->text().toStdString();
}

TEST_F(DetailsTest, EveryThingOfThePlanOpens) {
    std::vector<Id> ids;
    for (const auto& x : plan().loads) ids.push_back(x.id);
    for (const auto& x : plan().runs) ids.push_back(x.id);
    for (const auto& x : plan().points) ids.push_back(x.id);
    for (const auto& x : plan().sources) ids.push_back(x.id);
    for (const auto& x : plan().batteries) ids.push_back(x.id);
    for (const Id& id : ids) {
        doc().selection().choose(id);
        EXPECT_TRUE(window.details()->isVisible()) << id;
        QCoreApplication::processEvents();
    }
    doc().selection().choose({});
    EXPECT_FALSE(window.details()->isVisible()) << "it folds away";
}

TEST_F(DetailsTest, InvertersRelaysCoilsAndWindowsAreEdited) {
    doc().selection().choose("inverter");
    enter("Stops below", "11 V");
    EXPECT_DOUBLE_EQ(*yr::find(plan().inverters, "inverter")->cutoff_V, 11);
    choose("Waveform", "pure sine");
    EXPECT_EQ(yr::find(plan().inverters, "inverter")->waveform, Waveform::pure);
    enter("By its load", "0 %: 0.5, 50 %: 0.93, 100 %: 0.88");
    EXPECT_EQ(yr::find(plan().inverters, "inverter")->curve.size(), 3U);
    doc().selection().choose(load_named("two-way radio"));
    choose("ISO 16750-2", "C, 9 to 16 V");
    EXPECT_EQ(yr::find(plan().loads, load_named("two-way radio"))->supply_code, SupplyCode::c);
    doc().selection().choose(run_named("charger feed"));
    choose("Put in line", "sensing relay");
    const auto relay = [&]() -> const Device& {
        return yr::find(plan().runs, run_named("charger feed"))->devices.back();
    };
    EXPECT_EQ(relay().kind, DeviceKind::sensing_relay);
    enter("Closes from", "13.4");
    EXPECT_DOUBLE_EQ(*relay().close_V, 13.4);
    enter("Opens below", "14 V");
    EXPECT_FALSE(relay().open_V) << "it cannot open above where it closes";
    doc().selection().choose(run_named("hoist feed"));
    choose("Coil", "none: by hand or key");
    for (const Device& d : yr::find(plan().runs, run_named("hoist feed"))->devices)
        EXPECT_TRUE(d.coil.empty());
}

TEST_F(DetailsTest, WinchCurvesAndBatteriesAreEdited) {
    const Id hoist = load_named("davit hoist");
    doc().selection().choose(hoist);
    enter("Pull", "50 %");
    state("Hoisting");
    EXPECT_NEAR(
        doc()
            .shown()
            .solution()
            .point.loads[static_cast<std::size_t>(yr::find(plan().loads, hoist) - plan().loads.data())]
            .current_A,
        58, 1e-9)
        << "by its curve";
    enter("Amps by pull", "0 %: 20, 0 %: 30");
    EXPECT_EQ(yr::find(plan().loads, hoist)->line_curve.size(), 5U) << "shares must rise";
    doc().selection().choose("battery-1");
    enter("Left by age", "70 %");
    choose("Cranking by", "EN 50342-1");
    EXPECT_DOUBLE_EQ(*yr::find(plan().batteries, "battery-1")->health, 0.7);
    EXPECT_EQ(yr::find(plan().batteries, "battery-1")->cranking_standard, CrankingStandard::en);
    doc().selection().choose("alternator");
    enter("Amps by rpm", "1500: 95, 3000: 150, 6000: 180");
    EXPECT_EQ(yr::find(plan().sources, "alternator")->curve.size(), 3U);
}

}  // namespace
}  // namespace yr::test
