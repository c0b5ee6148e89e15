// What Runs and Guard rest on, edited in the details: ranges, lugs, bends, bolts, starts, turns of work; and
// the rail chart that shows a range.
#include <QCheckBox>
#include <QComboBox>

#include "app/window_fixture.h"
#include "plan/plan_json.h"
#include "railchart/rail_scene.h"
#include "widgets/field_form.h"

namespace yr::test {
namespace {

class GuardFields : public WindowTest {
  protected:
    QLineEdit* field(const char* name) {
        auto* edit = window.details()->findChild<QLineEdit*>(QString::fromUtf8(name));
        EXPECT_NE(edit, nullptr) << name;
        return edit;
    }
    void write(const char* name, const char* text) {
        QLineEdit* edit = field(name);
        if (!edit) return;
        edit->setText(QString::fromUtf8(text));
        edit->setModified(true);
        emit edit->editingFinished();
    }
    const yr::Run& run(const char* name) { return *yr::find(plan().runs, run_named(name)); }
    // Share of its allowed drop that a load on the chart uses: now, and within the ranges.
    struct Use {
        double now = -1, least = -1, most = -1;
    };
    Use use_of(const Id& load) {
        const app::RailScene scene =
            app::build_scene(doc().shown(), &doc().inspector(), QSizeF(4000, 500), {});
        const app::SceneItem* item = scene.of(load);
        EXPECT_NE(item, nullptr) << load;
        return item ? Use{item->used, item->used_least, item->used_most} : Use{};
    }
};

TEST_F(GuardFields, ACablesRangeLugsBendAndPin) {
    doc().selection().choose(run_named("echo sounder feed"));
    write("Or as short as", "4.1 m");
    EXPECT_EQ(run("echo sounder feed").length_least_m, 4.1);
    write("Lug at its start, M", "8");
    write("Lug at its end, M", "6");
    write("Tightest bend, mm", "25");
    EXPECT_EQ(run("echo sounder feed").lug_from_mm, 8.0);
    EXPECT_EQ(run("echo sounder feed").lug_to_mm, 6.0);
    EXPECT_EQ(run("echo sounder feed").bend_mm, 25.0);
    write("Or as short as", "60 m");
    EXPECT_EQ(run("echo sounder feed").length_least_m, 4.1) << "no shorter end above the longer one";
    write("Tightest bend, mm", "tight");
    EXPECT_EQ(run("echo sounder feed").bend_mm, 25.0) << "nothing is lost by a word that is no number";
    write("Tightest bend, mm", "");
    EXPECT_FALSE(run("echo sounder feed").bend_mm) << "empty is unknown";
    const QString file = QString::fromStdString(folder.file("lugs.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    EXPECT_EQ(*load_plan(file.toStdString()), doc().store().stored());
}

TEST_F(GuardFields, ALoadsTurnsStartAndRange) {
    const Id id = load_named("sampler reel");
    doc().selection().choose(id);
    write("Runs at most", "45 s");
    write("Start lasts", "0.8 s");
    write("Or as little as", "9 A");
    const auto load = [&] { return *yr::find(plan().loads, id); };
    EXPECT_EQ(load().on_s, 45.0);
    EXPECT_EQ(load().inrush_s, 0.8);
    EXPECT_EQ(load().draw_least, 9.0);
    write("Or as little as", "40 A");
    EXPECT_EQ(load().draw_least, 9.0) << "not above the draw itself";
    auto* starts = window.details()->findChild<QComboBox*>(QStringLiteral("Starts as"));
    ASSERT_TRUE(starts);
    const int lamp = starts->findText(QStringLiteral("a lamp's filament"));
    ASSERT_GE(lamp, 0);
    starts->setCurrentIndex(lamp);
    emit starts->activated(lamp);
    EXPECT_EQ(load().start, StartKind::lamp);
    doc().store().undo_stack()->undo();
    EXPECT_FALSE(load().start);
}

TEST_F(GuardFields, ADrawInAnotherUnitLeavesTheOldRangeBehind) {
    const Id id = load_named("sampler reel");
    doc().selection().choose(id);
    write("Draw, each", "12 A");
    write("Or as little as", "9 A");
    const auto load = [&] { return *yr::find(plan().loads, id); };
    ASSERT_EQ(load().draw_least, 9.0);
    write("Draw, each", "150 W");
    EXPECT_EQ(load().draw.kind, DrawKind::power);
    EXPECT_FALSE(load().draw_least) << "9 A are not 9 W";
    write("Or as little as", "100 W");
    ASSERT_EQ(load().draw_least, 100.0);
    write("Draw, each", "160 W");
    EXPECT_EQ(load().draw_least, 100.0) << "the same unit: the range stays";
}

TEST_F(GuardFields, WhatThePlanRefusesIsNotShownAsTaken) {
    doc().selection().choose(run_named("cab box feed"));
    app::FieldForm form([this] { return doc().style(); });
    std::string taken = "one";
    bool on = false;
    form.choice(
        QStringLiteral("Choice"), {{QStringLiteral("one"), "one"}, {QStringLiteral("two"), "two"}},
        [&] { return taken; }, [](const Id&) {});
    form.check(
        QStringLiteral("Check"), [&] { return on; }, [](bool) {});
    auto* box = form.findChild<QComboBox*>(QStringLiteral("Choice"));
    box->setCurrentIndex(1);
    emit box->activated(1);
    EXPECT_EQ(box->currentIndex(), 0);
    auto* check = form.findChild<QCheckBox*>(QStringLiteral("Check"));
    check->click();
    EXPECT_FALSE(check->isChecked());
}

TEST_F(GuardFields, BoltsTerminalsAndABatteryThatCutsItselfOff) {
    doc().selection().choose("rear-box");
    write("Bolt, M", "6");
    write("Takes cable up to", "16 mm2");
    EXPECT_EQ(yr::find(plan().points, "rear-box")->stud_mm, 6.0);
    EXPECT_EQ(yr::find(plan().points, "rear-box")->most_mm2, 16.0);
    EXPECT_EQ(count(FindingKind::terminal_small, run_named("rear box feed")), 1) << "1/0 AWG does not go in";
    doc().selection().choose("battery-2");
    write("Bolts, M", "10");
    write("Cuts itself off at", "250 A");
    EXPECT_EQ(yr::find(plan().batteries, "battery-2")->stud_mm, 10.0);
    EXPECT_EQ(yr::find(plan().batteries, "battery-2")->cuts_at_A, 250.0);
    doc().selection().choose("alternator");
    write("Bolt, M", "8");
    EXPECT_EQ(yr::find(plan().sources, "alternator")->stud_mm, 8.0);
}

TEST_F(GuardFields, AFuseBecomesABreaker) {
    doc().selection().choose(run_named("cab box feed"));
    auto* kind = window.details()->findChild<QComboBox*>(QStringLiteral("of kind"));
    ASSERT_TRUE(kind);
    const int at = kind->findText(QStringLiteral("type III breaker"));
    ASSERT_GE(at, 0);
    kind->setCurrentIndex(at);
    emit kind->activated(at);
    EXPECT_EQ(run("cab box feed").devices.front().fuse, FuseType::breaker_3);
}

TEST_F(GuardFields, TheRailShowsWhatARangeDoes) {
    state("Driving");
    const Use before = use_of("load-8");
    EXPECT_LT(before.most, 0) << "no range yet";
    Policy policy = plan().policy;
    policy.joint_ageing = 5;
    policy.air_K = 10;
    doc().apply(SetPolicy{policy}, QStringLiteral("ageing"));
    doc().inspector().finish();
    QCoreApplication::processEvents();
    const Use after = use_of("load-8");
    EXPECT_GT(after.most, after.least);
    EXPECT_GE(after.most, after.now - 1e-6);
    EXPECT_LE(after.least, after.now + 1e-6);
    EXPECT_FALSE(window.grab().isNull());
}

}  // namespace
}  // namespace yr::test
