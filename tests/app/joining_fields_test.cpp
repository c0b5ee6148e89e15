// What is fitted, said in the window: connectors, jackets, contacts of every kind, boxes that sleep, remarks.
#include <QCheckBox>
#include <QComboBox>
#include <QImage>

#include "app/window_fixture.h"
#include "details/details_panel.h"
#include "plan/additions_joining.h"
#include "plan/plan_json.h"

namespace yr::test {
namespace {

class JoiningFields : public WindowTest {
  protected:
    void tick(const char* text, bool on) {
        for (auto* box : window.details()->findChildren<QCheckBox*>())
            if (box->text() == QString::fromUtf8(text)) {
                if (box->isChecked() != on) box->click();
                return;
            }
        ADD_FAILURE() << text;
    }
    const yr::Run& run(const char* name) { return *yr::find(plan().runs, run_named(name)); }
};

TEST_F(JoiningFields, AConnectorItsPinsAndACableThroughIt) {
    const auto added = add_connector(plan(), {});
    ASSERT_TRUE(added);
    ASSERT_TRUE(doc().apply(added->edit, QStringLiteral("connector")));
    doc().selection().choose(added->id);
    write("Name", "bed plug");
    write("Pins", "8");
    write("A pin carries", "5 A");
    tick("sealed against water", true);
    const Connector& c = plan().connectors.front();
    EXPECT_EQ(c.name, "bed plug");
    EXPECT_EQ(c.pins, 8);
    EXPECT_TRUE(c.sealed);
    doc().selection().choose(run_named("scene lights feed"));
    write("Through pins", "bed plug: 1");
    ASSERT_EQ(run("scene lights feed").pins.size(), 1U);
    EXPECT_EQ(count(FindingKind::pin_over, run_named("scene lights feed")), 1);
    write("Through pins", "bed plug: 9");
    EXPECT_EQ(run("scene lights feed").pins.size(), 1U) << "it has no such pin, and says so";
    write("Through pins", "front plug: 1");
    EXPECT_EQ(run("scene lights feed").pins.size(), 1U);
    write("Through pins", "bed plug: 1, 2, 3, 4, 5");
    EXPECT_EQ(count(FindingKind::pin_over, run_named("scene lights feed")), 0);
    write("Through pins", "");
    EXPECT_TRUE(run("scene lights feed").pins.empty());
    doc().store().undo_stack()->undo();
    EXPECT_EQ(run("scene lights feed").pins.size(), 5U);
}

TEST_F(JoiningFields, TwoCablesInOneJacket) {
    doc().selection().choose(run_named("scene lights feed"));
    choose("In one jacket", QStringLiteral("a new cable of several cores"));
    ASSERT_EQ(plan().jackets.size(), 1U);
    EXPECT_EQ(run("scene lights feed").jacket, plan().jackets[0].id);
    doc().selection().choose(plan().jackets[0].id);
    write("Name", "roof cable");
    write("Cores", "2");
    doc().selection().choose(run_named("scene lights return"));
    choose("In one jacket", QStringLiteral("roof cable"));
    EXPECT_EQ(bundle_of(plan(), run("scene lights return")), 2);
    choose("In one jacket", QStringLiteral("a cable of its own"));
    EXPECT_TRUE(run("scene lights return").jacket.empty());
}

TEST_F(JoiningFields, WhatIsPutInLine) {
    const Id id = run_named("cab display feed");
    doc().selection().choose(id);
    const auto last = [&]() -> const Device& { return yr::find(plan().runs, id)->devices.back(); };
    for (const char* what : {"the other contact of a relay", "latching disconnect", "flasher or dimmer",
                             "breaker that is the switch", "sensor that counts a battery"}) {
        choose("Put in line", QString::fromUtf8(what));
        SCOPED_TRACE(what);
        const bool found = last().rests_closed || last().latching || last().pulse_share ||
                           (last().kind == DeviceKind::fuse && is_breaker(last().fuse)) ||
                           last().kind == DeviceKind::shunt;
        EXPECT_TRUE(found);
        doc().store().undo_stack()->undo();
    }
    choose("Put in line", QStringLiteral("flasher or dimmer"));
    write("On for", "30 %");
    EXPECT_EQ(last().pulse_share, 0.3);
    write("by warmth, °C", "20: 0.2, 60: 1");
    ASSERT_EQ(last().pulse_curve.size(), 2U);
    write("by warmth, °C", "60: 0.2, 20: 1");
    EXPECT_EQ(last().pulse_curve.front().first, 20) << "degrees must rise";
    choose("What it gives", QStringLiteral("pulses"));
    EXPECT_EQ(last().signal, Signal::pulsed);
}

TEST_F(JoiningFields, ABoxThatSleepsAndCutsOff) {
    Id box;
    for (const Point& p : plan().points)
        if (p.name == "rear box") box = p.id;
    doc().selection().choose(box);
    const auto now = [&]() -> const Point& { return *yr::find(plan().points, std::string_view(box)); };
    write("Asleep it takes", "0.1 W");
    EXPECT_EQ(now().sleep_W, 0.1);
    write("Cuts off below", "11.8 V");
    write("after so long", "30 s");
    EXPECT_EQ(now().cutoff_V, 11.8);
    EXPECT_EQ(now().cutoff_s, 30);
    write("and close from", "11 V");
    EXPECT_FALSE(now().recover_V) << "it would close below where it opens";
}

TEST_F(JoiningFields, LaterAndAStoreAndWarmth) {
    const Id load = load_named("scene lights");
    doc().selection().choose(load);
    tick("later: room is kept, nothing is fitted yet", true);
    EXPECT_TRUE(yr::find(plan().loads, load)->later);
    tick("later: room is kept, nothing is fitted yet", false);
    write("Holds, Wh", "1000");
    EXPECT_EQ(yr::find(plan().loads, load)->store_Wh, 1000);
    write("Warmer than", "30 °C");
    write("Back by, K", "5");
    EXPECT_EQ(yr::find(plan().loads, load)->live_when.above_C, 30);
    EXPECT_EQ(yr::find(plan().loads, load)->live_when.within_K, 5);
    write("Stays for", "120 s");
    EXPECT_EQ(yr::find(plan().loads, load)->live_when.holds_s, 120);
}

TEST_F(JoiningFields, ANoteACautionAndAPhotoOfAnything) {
    QImage picture(40, 30, QImage::Format_RGB32);
    picture.fill(Qt::darkGreen);
    ASSERT_TRUE(picture.save(QString::fromStdString(folder.file("post.png"))));
    doc().selection().choose(plan().batteries.front().id);
    write("Note", "clamp was loose");
    write("Caution", "acid");
    write("Photo", folder.file("post.png").c_str());
    const Remarks said = plan().batteries.front().remarks;
    EXPECT_EQ(said.note, "clamp was loose");
    EXPECT_EQ(said.caution, "acid");
    bool shown = false;
    for (const auto* label : window.details()->findChildren<QLabel*>())
        shown = shown || (label->accessibleName() == QStringLiteral("Photo") && !label->pixmap().isNull());
    EXPECT_TRUE(shown);
    const auto back = plan_from_json_text(to_json_text(doc().store().stored()));
    ASSERT_TRUE(back);
    EXPECT_EQ(back->batteries.front().remarks, said);
}

}  // namespace
}  // namespace yr::test
