// Typing in the window: every kind of thing, a whole van, notes, bare vehicles, what next, find.
#include <QApplication>
#include <QClipboard>
#include <QFile>
#include <QMenu>
#include <QStandardPaths>

#include "app/window_fixture.h"
#include "document/own_library.h"
#include "notes/notes.h"
#include "notes/plan_text.h"
#include "panels/set_dialog.h"
#include "window/find_box.h"
#include "window/notes_dialog.h"

namespace yr::test {
namespace {

class TypingTest : public WindowTest {
  protected:
    void enter(const char* text) {
        type(text);
        QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    }
    app::TypeLine& line() { return *window.type_line(); }
};

TEST_F(TypingTest, WhatItIsComesFirst) {
    type("alternator 150 A, idle 70 A");
    EXPECT_TRUE(line().understood().startsWith(QStringLiteral("alternator")))
        << line().understood().toStdString();
    EXPECT_TRUE(line().understood().contains(QStringLiteral("150")));
    EXPECT_TRUE(line().understood().contains(QStringLiteral("70")));
    type("scene light 2x 90 W on ignition");
    EXPECT_TRUE(line().understood().startsWith(QStringLiteral("load")));
    type("solar 200 W");
    EXPECT_TRUE(line().understood().startsWith(QStringLiteral("solar panel")));
}

TEST_F(TypingTest, ANewUsersSlipsAreGone) {
    type("12 lamps 5 W");
    EXPECT_TRUE(line().understood().contains(QStringLiteral("12 ×"))) << line().understood().toStdString();
    type("rear work lights 4x 20 W on ignition and rear lights, 4 m");
    EXPECT_TRUE(line().understood().contains(QStringLiteral("rear work lights")));
    EXPECT_TRUE(line().understood().contains(QStringLiteral("new switch rear lights")))
        << line().understood().toStdString();
    type("laptop 90 W mains");
    EXPECT_TRUE(line().understood().contains(QStringLiteral("mains from")));
    type("lamp 5 W, channel 99");
    EXPECT_FALSE(line().understood().contains(QStringLiteral("⏎"))) << "no box has it";
    EXPECT_FALSE(line().problem().isEmpty());
    type("pump 5 A, start 10 A for 60 s");
    EXPECT_TRUE(line().understood().contains(QStringLiteral("60"))) << line().understood().toStdString();
    QTest::keyClick(line().edit(), Qt::Key_Escape);
    EXPECT_TRUE(line().edit()->text().isEmpty());
}

TEST_F(TypingTest, UndoBehindEnterTakesBackWhatWasAdded) {
    const std::size_t before = plan().loads.size();
    enter("reading lamp 5 W, 2 m");
    ASSERT_EQ(plan().loads.size(), before + 1);
    QTest::keyClick(line().edit(), Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(plan().loads.size(), before);
    EXPECT_TRUE(line().edit()->text().isEmpty()) << "not the words";
    QTest::keyClick(line().edit(), Qt::Key_Up);
    EXPECT_EQ(line().edit()->text(), QStringLiteral("reading lamp 5 W, 2 m"))
        << "they come back by the up key";
    QTest::keyClick(line().edit(), Qt::Key_Down);
    EXPECT_TRUE(line().edit()->text().isEmpty());
}

TEST_F(TypingTest, WhatIsTypedPassesWhenItIsLaid) {
    for (const char* text :
         {"rear camera 3 W on ignition, 6 m", "work lights 2x 60 W on ignition and work, 5 m",
          "compressor 15 A on ignition and air, 3 m"}) {
        enter(text);
        const Id load = plan().loads.back().id;
        doc().inspector().finish();
        for (const Finding& f : doc().inspector().findings()) {
            const yr::Run* run = yr::find(plan().runs, f.id);
            const bool its = f.id == load || (run && (run->to.owner == load || run->from.owner == load));
            EXPECT_FALSE(its && f.severity <= Severity::fix) << text << ": " << words::sentence(f, plan());
        }
    }
}

// A delivery van from nothing, as a new user would: bare van, then its circuits. Keystrokes are counted.
TEST_F(TypingTest, AWholeVanIsTyped) {
    window.start_with(QStringLiteral("van"));
    ASSERT_EQ(plan().vehicle.name, "van");
    int keys = 0;
    for (const char* text :
         {"second battery LiFePO4 100 Ah, by dc-dc 30 A, 4 m", "bus rear, from second battery, for 40 A, 1 m",
          "fridge 45 W, 3 m, from rear, duty 35 %", "cargo light 4x 5 W on switch cargo, 4 m, from rear",
          "pump 60 W on switch pump, 2 m, from rear", "fan 25 W on switch fan, 3 m, from rear",
          "camera 6 W on ignition, 2 m", "radio 5 A on accessory, 1.5 m",
          "work light 2x 20 W on ignition and work, 5 m", "heater fan 4 A on ignition, 2 m"}) {
        keys += static_cast<int>(std::string_view(text).size()) + 1;
        enter(text);
        EXPECT_TRUE(line().edit()->text().isEmpty()) << text << ": " << line().problem().toStdString();
    }
    EXPECT_LT(keys, 500) << "eight circuits and their supply";
    doc().inspector().finish();
    for (const Finding& f : doc().inspector().findings())
        EXPECT_GT(f.severity, Severity::fix) << words::sentence(f, plan());
    EXPECT_NE(window.workspace<app::RailPage>()->chart()->scene().of(plan().loads.back().id), nullptr)
        << "it stands in the picture";
}

TEST_F(TypingTest, WhatNextLeadsFromNothingToAVehicle) {
    window.start_with(QStringLiteral("car"));
    doc().inspector().finish();
    EXPECT_TRUE(line().next().contains(QStringLiteral("Nothing draws yet"))) << line().next().toStdString();
    enter("lamp 5 W, 2 m");
    doc().inspector().finish();
    EXPECT_FALSE(line().next().contains(QStringLiteral("Nothing draws yet")));
}

TEST_F(TypingTest, NotesBecomeAPlan) {
    app::NotesDialog notes(&doc());
    notes.page()->setPlainText(
        QStringLiteral("# ours\nbattery AGM 70 Ah 700 A\nalternator 120 A\nstarter 180 A\n"
                       "lamp 5 W, 2 m\npurple elephant\nbus main, fuse 80 A, 1 m\nlamp 5 W, 2 m"));
    notes.finish();
    EXPECT_EQ(notes.outcomes()->count(), 7);
    int bad = 0;
    for (int k = 0; k < notes.outcomes()->count(); ++k)
        bad += notes.outcomes()->item(k)->text().contains(QStringLiteral("▲"));
    EXPECT_EQ(bad, 1) << "an elephant; the lamp before there is a bus brings a block";
    Plan taken;
    QObject::connect(&notes, &app::NotesDialog::plan_taken, [&](const Plan& p) { taken = p; });
    notes.accept();
    EXPECT_EQ(taken.loads.size(), 3U) << "the starter and both lamps";
}

TEST_F(TypingTest, NotesOnTopOfTheOpenPlanAreOneStep) {
    const Plan before = doc().store().stored();
    app::NotesDialog notes(&doc());
    notes.on_top()->setChecked(true);
    notes.page()->setPlainText(QStringLiteral("lamp one 5 W, 2 m\nlamp two 5 W, 2 m"));
    notes.accept();
    EXPECT_EQ(plan().loads.size(), before.loads.size() + 2);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(doc().store().stored(), before);
}

TEST_F(TypingTest, FindGoesToAThing) {
    app::FindBox find(&doc());
    find.edit()->setText(QStringLiteral("two-way"));
    ASSERT_GT(find.found()->count(), 0);
    find.accept();
    EXPECT_NE(yr::name_of(plan(), doc().selection().id()).find("two-way"), std::string::npos);
}

TEST_F(TypingTest, NamesOfThePlanAreOffered) {
    type("lamp 5 W, from rear b");
    ASSERT_EQ(line().matches()->count(), 1);
    EXPECT_EQ(line().matches()->item(0)->text(), QStringLiteral("rear box"));
    QTest::keyClick(line().edit(), Qt::Key_Down);
    QTest::keyClick(line().matches(), Qt::Key_Return);
    EXPECT_EQ(line().edit()->text(), QStringLiteral("lamp 5 W, from rear box"));
    type("lamp 5 W on sce");
    ASSERT_GE(line().matches()->count(), 1);
    EXPECT_EQ(line().matches()->item(0)->text(), QStringLiteral("scene"));
}

TEST_F(TypingTest, CopyPasteAndOneMore) {
    const std::size_t before = plan().loads.size();
    doc().selection().choose(load_named("scene lights"));
    window.copy_selected();
    EXPECT_TRUE(QApplication::clipboard()->text().startsWith(QStringLiteral("scene lights")));
    window.duplicate_selected();
    for (auto* dialog : window.findChildren<app::NotesDialog*>()) {
        dialog->finish();
        for (int k = 0; k < dialog->outcomes()->count(); ++k)
            ADD_FAILURE() << dialog->page()->toPlainText().toStdString() << " => "
                          << dialog->outcomes()->item(k)->text().toStdString();
    }
    ASSERT_EQ(plan().loads.size(), before + 1);
    EXPECT_EQ(plan().loads.back().name, "scene lights 2");
    const Load& first = *yr::find(plan().loads, load_named("scene lights"));
    EXPECT_EQ(plan().loads.back().draw, first.draw);
    EXPECT_EQ(plan().loads.back().live_when, first.live_when);
    window.paste_lines(QStringLiteral("lamp a 5 W, 2 m\nlamp b 5 W, 2 m"));
    EXPECT_EQ(plan().loads.size(), before + 3);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan().loads.size(), before + 1) << "one step";
}

TEST_F(TypingTest, TheMenuTeachesTheLine) {
    auto* menu = window.findChild<QMenu*>();
    ASSERT_NE(menu, nullptr);
    window.type_line()->take_entry(QStringLiteral("alternator 150 A, idle 70 A, 1.2 m"));
    EXPECT_EQ(window.type_line()->edit()->text(), QStringLiteral("alternator 150 A, idle 70 A, 1.2 m"));
}

TEST_F(TypingTest, ALineIsReadWhenItsKeysRestAndAtOnceByEnter) {
    const auto* read = window.type_line()->findChild<QLabel*>(QStringLiteral("good"));
    ASSERT_NE(read, nullptr);
    type("kettle 5 A");
    EXPECT_FALSE(read->text().contains(QStringLiteral("kettle"))) << "at every key";
    EXPECT_TRUE(QTest::qWaitFor([&] { return read->text().contains(QStringLiteral("kettle")); }));
    const auto before = plan().loads.size();
    QTest::keyClicks(window.type_line()->edit(), QStringLiteral(", 2 m"));
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    ASSERT_EQ(plan().loads.size(), before + 1);
    const Terminal pos = pos_of(plan().loads.back().id);
    EXPECT_TRUE(std::any_of(plan().runs.begin(), plan().runs.end(), [&](const yr::Run& r) {
        return r.to == pos && r.length_m == 2.0;
    })) << "the last keys too";
    EXPECT_FALSE(read->isVisible());
}

TEST_F(TypingTest, TheWholeLineIsSeenAndEnterEndsIt) {
    const int one = line().edit()->height();
    type("scene lights at the back 2x 90 W on ignition and rear scene, 4.5 m, cargo roof, duty 30 %");
    EXPECT_GT(line().edit()->height(), one + 10);
    EXPECT_FALSE(line().edit()->text().contains(QLatin1Char('\n')));
    QTest::keyClick(line().edit(), Qt::Key_Return);
    EXPECT_TRUE(line().edit()->text().isEmpty());
    EXPECT_EQ(line().edit()->height(), one);
}

TEST_F(TypingTest, TabGoesThroughTheReadings) {
    type("starter 200 A, 1.2 m");
    EXPECT_TRUE(line().understood().startsWith(QStringLiteral("starter")));
    EXPECT_TRUE(line().understood().contains(QStringLiteral("Tab")));
    QTest::keyClick(line().edit(), Qt::Key_Tab);
    EXPECT_TRUE(line().understood().startsWith(QStringLiteral("load"))) << line().understood().toStdString();
    const std::size_t before = plan().loads.size();
    QTest::keyClick(line().edit(), Qt::Key_Return);
    ASSERT_EQ(plan().loads.size(), before + 1);
    EXPECT_FALSE(plan().loads.back().starter) << "as read last";
}

TEST_F(TypingTest, ASetIsOfferedAndIsOneStep) {
    type("pair of work");
    const int last = line().matches()->count() - 1;  // behind what the library has of that name
    ASSERT_GE(last, 0);
    EXPECT_TRUE(line().matches()->item(last)->text().contains(QStringLiteral("set")));
    QTest::keyClick(line().edit(), Qt::Key_Down);
    line().matches()->setCurrentRow(last);
    QTest::keyClick(line().matches(), Qt::Key_Return);
    EXPECT_TRUE(line().edit()->text().startsWith(QStringLiteral("pair of work lights, where rear")));
    type("pair of work lights, where front, each 40 W");
    EXPECT_TRUE(line().understood().contains(QStringLiteral("2x 40 W"))) << line().understood().toStdString();
    const Plan before = plan();
    QTest::keyClick(line().edit(), Qt::Key_Return);
    EXPECT_EQ(plan().loads.back().name, "front work lights");
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(TypingTest, WhatIsChosenIsKeptAsASet) {
    QFile::remove(app::own_library_path());
    {
        app::SetDialog dialog(&doc(), QStringLiteral("rear heater {watts=90 W} on ignition, 3 m"));
        dialog.accept();
        EXPECT_EQ(dialog.result(), 0) << "it has no name";
        dialog.name()->setText(QStringLiteral("my heater"));
        EXPECT_TRUE(dialog.outcome()->text().contains(QStringLiteral("my heater, watts 90 W")))
            << dialog.outcome()->text().toStdString();
        dialog.accept();
        EXPECT_EQ(dialog.result(), QDialog::Accepted);
    }
    enter("my heater, watts 120 W");
    EXPECT_EQ(plan().loads.back().name, "rear heater");
    EXPECT_DOUBLE_EQ(plan().loads.back().draw.value, 120);
    app::SetDialog again(&doc(), {});
    again.which()->setCurrentIndex(1);
    EXPECT_TRUE(again.page()->toPlainText().contains(QStringLiteral("rear heater")));
    again.take_out();
    EXPECT_EQ(again.which()->count(), 2) << "it asks once more";
    again.take_out();
    EXPECT_EQ(again.which()->count(), 1);
    type("my heater, watts 120 W");
    EXPECT_FALSE(line().understood().startsWith(QStringLiteral("set")));
    QFile::remove(app::own_library_path());
}

TEST_F(TypingTest, SeveralThingsAreCopiedAndPastedAsOneStep) {
    const Plan before = plan();
    auto* list = window.list();
    const auto row = [&](const Id& id) {
        for (int k = 0; k < list->topLevelItemCount(); ++k)
            if (list->topLevelItem(k)->data(0, Qt::UserRole).toString().toStdString() == id)
                return list->visualItemRect(list->topLevelItem(k)).center();
        return QPoint();
    };
    const Id battery = plan().batteries.front().id, source = plan().sources.front().id;
    QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, row(source));
    QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::ControlModifier, row(battery));
    ASSERT_EQ(list->chosen().size(), 2u);
    press(Qt::Key_C, Qt::ControlModifier);
    EXPECT_TRUE(QApplication::clipboard()->text().contains(QStringLiteral("battery \"")))
        << QApplication::clipboard()->text().toStdString();
    press(Qt::Key_V, Qt::ControlModifier);
    EXPECT_EQ(plan().batteries.size(), before.batteries.size() + 1);
    EXPECT_EQ(plan().sources.size(), before.sources.size() + 1);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
}

TEST_F(TypingTest, SeveralLinesPastedOnTheLineAreSeveralThings) {
    const std::size_t before = plan().loads.size();
    QApplication::clipboard()->setText(QStringLiteral("lamp one 5 W, 2 m\nlamp two 5 W, 2 m\n"));
    line().edit()->setFocus();
    line().edit()->paste();
    EXPECT_EQ(plan().loads.size(), before + 2);
    EXPECT_TRUE(line().edit()->text().isEmpty());
}

TEST_F(TypingTest, WhatNextNamesTheLengthThatIsWorthMeasuring) {
    const Notes notes = read_notes(
        "vehicle van 12 V\nbattery AGM 95 Ah 850 A\nalternator 150 A, idle 80 A\nstarter 200 A, 1.2 m\n"
        "work light 24 A on ignition\nradio 1 A on ignition\nstate parked, key off\n");
    ASSERT_EQ(notes.bad(), 0);
    doc().store().open(notes.plan, {});
    doc().inspector().finish();
    EXPECT_TRUE(line().next().contains(QStringLiteral("lengths are assumed"))) << line().next().toStdString();
    line().finish_measuring();
    EXPECT_TRUE(line().next().contains(QStringLiteral("Measure the length of work light")))
        << line().next().toStdString();
    EXPECT_FALSE(line().next().contains(QStringLiteral("radio")));
    // once it is said, nothing that is left matters
    for (const yr::Run& r : notes.plan.runs)
        if (r.name.starts_with("work light")) {
            yr::Run said = r;
            said.length_m = 3;
            doc().apply(Put<yr::Run>{said, {}}, QStringLiteral("length"));
        }
    doc().inspector().finish();
    line().finish_measuring();
    EXPECT_FALSE(line().next().contains(QStringLiteral("ength"))) << line().next().toStdString();
}

TEST_F(TypingTest, TheFirstLoadOnABareBatteryBringsAMainBlock) {
    doc().store().open(read_notes("battery AGM 80 Ah 760 A\n").plan, {});
    type("radio 10 A on stereo switch, 2 m");
    EXPECT_TRUE(line().understood().contains(QStringLiteral("main block")))
        << line().understood().toStdString();
    EXPECT_TRUE(line().understood().contains(QStringLiteral("new switch stereo")))
        << line().understood().toStdString();
    EXPECT_TRUE(line().problem().isEmpty()) << line().problem().toStdString();
    const Plan before = plan();
    QTest::keyClick(line().edit(), Qt::Key_Return);
    ASSERT_EQ(plan().loads.size(), 1U);
    EXPECT_EQ(plan().points.size(), before.points.size() + 2);
    type("hydraulic pump 150 A on ignition and pump, 3 m");
    EXPECT_TRUE(line().understood().contains(QStringLiteral("by its own cable from starter battery")))
        << line().understood().toStdString();
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before) << "block and load are one step";
}

}  // namespace
}  // namespace yr::test
