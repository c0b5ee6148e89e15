// The Control workspace, boxes in list and chart, the library on the type line, conditions in the details.
#include <QComboBox>
#include <QFile>

#include <QTableWidget>

#include "app/window_fixture.h"
#include "control/place_on.h"
#include "document/own_library.h"
#include "inspect/checked_channels.h"
#include "panels/box_dialog.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "support/strewn.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

class ControlTest : public WindowTest {
  protected:
    ControlTest() { window.go_to(QStringLiteral("control")); }
    app::ControlPage* page() { return window.workspace<app::ControlPage>(); }
    void drag(QWidget* in, const QPoint& from, const QPoint& to) {
        QTest::mousePress(in, Qt::LeftButton, {}, from);
        for (const QPoint& p : {from + QPoint(7, 7), (from + to) / 2, to}) {
            QMouseEvent move(QEvent::MouseMove, p, in->mapToGlobal(p), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QCoreApplication::sendEvent(in, &move);
        }
        QTest::mouseRelease(in, Qt::LeftButton, {}, to);
    }
    QToolButton* button(const QString& text) {
        QCoreApplication::processEvents();  // rows that were just made come into sight
        for (QToolButton* b : page()->findChildren<QToolButton*>())
            if (b->text() == text && b->isVisibleTo(page())) return b;
        return nullptr;
    }
    int channel(const char* load) { return supply_run(plan(), load_named(load))->channel; }
};

TEST_F(ControlTest, ABoxShowsWhatIsUsedAndWhatIsFree) {
    const auto& slabs = page()->boxes()->slabs();
    ASSERT_GE(slabs.size(), 5U);
    EXPECT_EQ(slabs[0].cells.size(), 8U);
    EXPECT_TRUE(slabs[0].amount.contains(QStringLiteral("1 free"))) << slabs[0].amount.toStdString();
    EXPECT_EQ(page()->boxes()->cell_at("rear-box", 1)->load, "load-17");
    EXPECT_TRUE(page()->boxes()->cell_at("rear-box", 7)->load.empty());
    const auto over =
        std::count_if(slabs[1].groups.begin(), slabs[1].groups.end(), [](const auto& g) { return g.over; });
    EXPECT_EQ(over, 1) << "the lights share 20 A and can ask for 24 A";
    for (const auto& s : slabs)
        for (const auto& c : s.cells) EXPECT_LE(c.rect.right(), page()->boxes()->width());
}

TEST_F(ControlTest, DraggingOntoAFreeChannelMovesAndPins) {
    auto* boxes = page()->boxes();
    drag(boxes, boxes->cell_of("load-18")->rect.center().toPoint(),
         boxes->cell_at("rear-box", 7)->rect.center().toPoint());
    EXPECT_EQ(channel("beacons"), 7);
    EXPECT_TRUE(yr::find(plan().loads, "load-18")->pinned);
    EXPECT_EQ(count(FindingKind::group_over, "rear-box"), 0) << "19 A of 20 A";
    const QString file = QString::fromStdString(folder.file("moved.yourrail.json"));
    ASSERT_TRUE(window.save_to(file));
    EXPECT_EQ(*load_plan(file.toStdString()), doc().store().stored());
    doc().store().undo_stack()->undo();
    EXPECT_EQ(channel("beacons"), 2);
}

TEST_F(ControlTest, DraggingOntoATakenChannelChangesPlaces) {
    auto* boxes = page()->boxes();
    drag(boxes, boxes->cell_of("load-13")->rect.center().toPoint(),
         boxes->cell_of("load-10")->rect.center().toPoint());
    EXPECT_EQ(channel("dash camera"), 4);
    EXPECT_EQ(channel("cab display"), 7);
    drag(boxes, boxes->cell_of("load-22")->rect.center().toPoint(), QPoint(3, 3000));
    EXPECT_EQ(channel("tail camera"), 6) << "dropped beside everything: it stays";
}

TEST_F(ControlTest, TheStripTellsAliveFromDead) {
    page()->show_view(app::ControlPage::View::live);
    const auto& rows = page()->live()->rows();
    EXPECT_EQ(rows.front().load, "load-9") << "what is wrong stands first";
    EXPECT_EQ(app::LiveStrip::cell_text(rows.front().at[0]), QStringLiteral("dead, should run"));
    QTest::mouseClick(page()->live(), Qt::LeftButton, {}, page()->live()->cell_rect(0, 2).center().toPoint());
    EXPECT_EQ(doc().selection().id(), "load-9");
    const auto constant =
        std::find_if(doc().inspector().findings().begin(), doc().inspector().findings().end(),
                     [](const Finding& f) { return f.kind == FindingKind::constant_on_key_rail; });
    ASSERT_NE(constant, doc().inspector().findings().end());
    const auto steps = doc().store().undo_stack()->count();
    doc().inspector().mend(*constant);  // as soon as it is proved
    ASSERT_TRUE(QTest::qWaitFor([&] { return doc().store().undo_stack()->count() > steps; }, 60000));
    for (const auto& r : page()->live()->rows()) EXPECT_FALSE(r.wrong()) << r.load;
}

TEST_F(ControlTest, SneakPathsAreSearchedShownAndMended) {
    doc().apply(SetActive{"variant-wake"}, QStringLiteral("show"));
    page()->search_sneaks_now();
    page()->sneaks()->finish();
    ASSERT_TRUE(page()->sneaks()->current(doc().store().generation()));
    const auto before = page()->sneaks()->answer()->found.size();
    ASSERT_GT(before, 5U);
    EXPECT_TRUE(
        page()->lines().join(QLatin1Char('\n')).contains(QStringLiteral("though nothing asks for it")));
    QToolButton* show = button(QStringLiteral("Show on the rail"));
    ASSERT_NE(show, nullptr);
    show->click();
    EXPECT_EQ(window.open_workspace()->key(), QStringLiteral("rail"));
    EXPECT_TRUE(doc().shown().shows_situation());
    EXPECT_FALSE(doc().shown().current_path().empty());
    bool drawn = false;
    for (const Id& id : doc().shown().current_path())
        drawn = drawn || window.workspace<app::RailPage>()->chart()->scene().of(id) != nullptr;
    EXPECT_TRUE(drawn) << "the path stands in the chart";
    state("Driving");
    EXPECT_FALSE(doc().shown().shows_situation()) << "a state of the plan leaves it";
    window.go_to(QStringLiteral("control"));
    QToolButton* mend = button(QStringLiteral("Diode in logger wake wire"));
    ASSERT_NE(mend, nullptr);
    mend->click();
    EXPECT_FALSE(page()->sneaks()->current(doc().store().generation())) << "the answer is of the plan before";
    page()->search_sneaks_now();
    page()->sneaks()->finish();
    EXPECT_LT(page()->sneaks()->answer()->found.size(), before);
}

TEST_F(ControlTest, ChannelsAreGivenOutAndTakenBackInOneStep) {
    page()->give_out_channels();
    page()->finish_channels();
    EXPECT_TRUE(page()->lines().front().contains(QStringLiteral("1361; no other way takes less")))
        << page()->lines().front().toStdString();
    QToolButton* move = button(QStringLiteral("Move them"));
    ASSERT_NE(move, nullptr);
    const Plan before = doc().store().stored();
    move->click();
    EXPECT_EQ(count(FindingKind::group_over, "rear-box"), 0);
    EXPECT_EQ(count(FindingKind::channel_start, "load-20"), 0);
    page()->finish_channels();
    EXPECT_EQ(button(QStringLiteral("Move them")), nullptr) << "nothing is left to move";
    doc().store().undo_stack()->undo();
    EXPECT_EQ(doc().store().stored(), before);
}

// What its own limits would allow and an inspection of the whole plan does not is refused by name.
TEST_F(ControlTest, WhatWouldMakeSomethingWorseIsRefusedByName) {
    const auto plans = vehicles_of(36);
    CheckedChannels wanted;
    const auto at = std::find_if(plans.begin(), plans.end(), [&](const Plan& p) {
        wanted = assign_checked(p);
        return !wanted.refused.empty();
    });
    ASSERT_NE(at, plans.end());
    const test::TempFolder place;
    const std::string file = place.file("strewn.yourrail.json");
    ASSERT_TRUE(save_plan(*at, file));
    ASSERT_TRUE(window.open_file(QString::fromStdString(file)));
    page()->show_view(app::ControlPage::View::channels);
    page()->give_out_channels();
    page()->finish_channels();
    QCoreApplication::processEvents();  // rows that were just made come into sight
    SCOPED_TRACE(page()->lines().join(QLatin1Char('\n')).toStdString());
    for (const auto& [load, feed] : wanted.refused) {
        const QString told = QString::fromStdString("Refused, inspected whole: " + name_of(plan(), load) +
                                                    " to " + name_of(plan(), feed));
        EXPECT_TRUE(page()->lines().contains(told)) << told.toStdString();
    }
    for (const Finding& f : wanted.mended)
        EXPECT_TRUE(
            page()->lines().contains(QString::fromStdString("With it: " + words::mend_label(f, plan()))));
    if (QToolButton* move = button(QStringLiteral("Move them"))) {
        const Plan before = doc().store().stored();
        move->click();
        EXPECT_TRUE(validate(doc().store().stored()).empty());
        for (const auto& [load, feed] : wanted.refused)
            EXPECT_NE(supply_run(plan(), load)->from, Terminal(feed)) << name_of(plan(), load);
        doc().store().undo_stack()->undo();
        EXPECT_EQ(doc().store().stored(), before);
    }
}

TEST_F(ControlTest, RailsSayWhatIsMissingAndMakeIt) {
    page()->show_view(app::ControlPage::View::rails);
    EXPECT_TRUE(page()->lines().join(QLatin1Char('\n')).contains(QStringLiteral("a relay is missing")));
    QToolButton* make = button(QStringLiteral("Make this rail"));
    ASSERT_NE(make, nullptr);
    const auto points = plan().points.size();
    make->click();
    EXPECT_EQ(plan().points.size(), points + 1);
}

TEST_F(ControlTest, LabelsOfThePanelAreKept) {
    page()->show_view(app::ControlPage::View::panel);
    auto* edit = page()->findChild<QLineEdit*>(QStringLiteral("label beacons"));
    ASSERT_NE(edit, nullptr);
    EXPECT_EQ(edit->placeholderText(), QStringLiteral("beacons"));
    edit->setFocus();
    QTest::keyClicks(edit, QStringLiteral("AMBER"));
    QTest::keyClick(edit, Qt::Key_Return);
    ASSERT_EQ(plan().panel.size(), 3U);
    EXPECT_EQ(plan().panel.back().label, "AMBER");
}

TEST_F(ControlTest, ABoxIsAddedWithItsFeed) {
    app::BoxDialog dialog(&doc(), &window);
    dialog.kind()->setCurrentIndex(dialog.kind()->findText(QStringLiteral("6-channel relay box")));
    dialog.trigger()->setCurrentIndex(2);
    dialog.length()->setText(QStringLiteral("far"));
    dialog.accept();
    EXPECT_TRUE(dialog.problem().startsWith(QStringLiteral("length of its feed")))
        << dialog.problem().toStdString();
    dialog.length()->setText(QStringLiteral("2.5 m"));
    dialog.cutoff()->setText(QStringLiteral("11.6 V"));
    dialog.accept();
    EXPECT_EQ(dialog.result(), QDialog::Accepted) << dialog.problem().toStdString();
    const Point& box = plan().points.back();
    EXPECT_EQ(box.channels.size(), 6U);
    const yr::Run& feed = plan().runs.back();
    EXPECT_EQ(feed.to, box.id);
    EXPECT_EQ(feed.devices.size(), 3U) << "fuse, trigger, cut-off";
    type("wash pump 8 A on ignition from 6-channel relay box");
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    EXPECT_EQ(channel("wash pump"), 3) << "the first of 15 A";
}

TEST_F(ControlTest, TheLibraryAnswersWhileOneTypes) {
    type("frid");
    auto* matches = window.type_line()->matches();
    ASSERT_GE(matches->count(), 2);
    EXPECT_TRUE(matches->isVisible());
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Down);
    QTest::keyClick(matches, Qt::Key_Return);
    EXPECT_TRUE(window.type_line()->understood().contains(QStringLiteral("typical, check the plate")));
    QTest::keyClicks(window.type_line()->edit(), QStringLiteral(", 3 m"));
    QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
    const Load& fridge = plan().loads.back();
    EXPECT_TRUE(fridge.typical);
    EXPECT_TRUE(fridge.duty.has_value());
    EXPECT_EQ(supply_run(plan(), fridge.id)->length_m, 3.0);
}

TEST_F(ControlTest, AnEntryOfOnesOwnIsKept) {
    QFile::remove(app::own_library_path());
    Load drill = *yr::find(plan().loads, load_named("sampler reel"));
    drill.name = "core drill of ours";
    EXPECT_TRUE(app::keep_load(drill).isEmpty());
    type("core drill of ours");
    EXPECT_TRUE(window.type_line()->understood().contains(QStringLiteral("12")));
    QFile file(app::own_library_path());
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("{ broken");
    file.close();
    // a file that cannot be read is never written over
    QFile::remove(app::own_library_path());
}

TEST_F(ControlTest, ALoadsConditionIsPutTogetherByPicking) {
    window.go_to(QStringLiteral("rail"));
    doc().selection().choose(load_named("beacons"));
    auto* pick = window.details()->findChild<QComboBox*>(QStringLiteral("Switches"));
    ASSERT_NE(pick, nullptr);
    pick->setCurrentIndex(pick->findText(QStringLiteral("scene")));
    emit pick->activated(pick->currentIndex());
    const Load* beacons = yr::find(plan().loads, load_named("beacons"));
    EXPECT_EQ(beacons->live_when.switches, (std::vector<std::string>{"beacons", "scene"}));
    EXPECT_EQ(channel_driver(plan(), *supply_run(plan(), beacons->id))->closed_when, beacons->live_when)
        << "the channel follows its load";
    auto* either = window.details()->findChild<QLineEdit*>(QStringLiteral("Either … or"));
    ASSERT_NE(either, nullptr);
    either->setText(QStringLiteral("on switch night"));
    either->setModified(true);
    emit either->editingFinished();
    EXPECT_TRUE(yr::find(plan().loads, beacons->id)->live_when.any_of.empty()) << "one way is no choice";
    either->setText(QStringLiteral("on switch night or cranking"));
    either->setModified(true);
    emit either->editingFinished();
    EXPECT_EQ(yr::find(plan().loads, load_named("beacons"))->live_when.any_of.size(), 2U);
}

TEST_F(ControlTest, ThePlateGivesTheDraw) {
    window.go_to(QStringLiteral("rail"));
    doc().selection().choose(load_named("deck light"));
    auto* plate = window.details()->findChild<QLineEdit*>(QStringLiteral("From the plate"));
    ASSERT_NE(plate, nullptr);
    plate->setText(QStringLiteral("55 W at 13.75 V resistive"));
    plate->setModified(true);
    emit plate->editingFinished();
    const Load* light = yr::find(plan().loads, load_named("deck light"));
    EXPECT_EQ(light->draw.kind, DrawKind::resistance);
    EXPECT_NEAR(light->draw.value, 13.75 * 13.75 / 55, 1e-9);
}

TEST_F(ControlTest, ABoxesChannelsAreEditedInPlace) {
    window.go_to(QStringLiteral("rail"));
    doc().selection().choose("rear-box");
    auto* table = window.details()->findChild<QTableWidget*>(QStringLiteral("channels"));
    ASSERT_NE(table, nullptr);
    QStringList cells;
    for (int k = 0; k < table->columnCount(); ++k) cells << table->item(3, k)->text();
    EXPECT_EQ(cells.join(QLatin1Char('|')), QStringLiteral("15 A|25 A||REEL"));
    table->item(3, 0)->setText(QStringLiteral("20"));
    table->item(3, 1)->setText(QStringLiteral("40 A"));
    EXPECT_EQ(count(FindingKind::channel_start, load_named("sampler reel")), 0);
    table->item(3, 0)->setText(QStringLiteral("lots"));
    EXPECT_TRUE(window.messages()->text().contains(QStringLiteral("channel 4"))) << "it says where";
    EXPECT_EQ(table->item(3, 0)->text(), QStringLiteral("20 A"));
    EXPECT_EQ(yr::find(plan().points, "rear-box")->channels[3].rating_A, 20.0) << "refused, nothing changed";
}

TEST_F(ControlTest, TheChartDrawsABoxAcrossItsChannels) {
    window.go_to(QStringLiteral("rail"));
    state("Driving");
    const auto& boxes = window.workspace<app::RailPage>()->chart()->scene().boxes;
    ASSERT_GE(boxes.size(), 2U);
    EXPECT_TRUE(std::any_of(boxes.begin(), boxes.end(), [](const auto& b) {
        return b.id == "cab-box" && b.label.contains(QStringLiteral("1 of 8 channels free"));
    }));
    for (const auto& b : boxes) EXPECT_GT(b.rect.width(), 0);
}

}  // namespace
}  // namespace yr::test
