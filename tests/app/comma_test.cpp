// On a desktop with a decimal comma every number that is shown has one, files keep the point, and what stands
// in a field is understood again.
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QRegularExpression>
#include <QTableWidget>
#include <QTreeWidget>
#include <clocale>

#include "app/window_fixture.h"
#include "plan/plan_json.h"
#include "words/say.h"

namespace yr::test {
namespace {

class CommaTest : public WindowTest {
  protected:
    CommaTest() {
        words::use_decimal_comma(true);
        doc().store().open(Plan(plan()), {});  // everything is written anew
        doc().inspector().finish();
    }
    ~CommaTest() override { words::use_decimal_comma(false); }

    // Every text that a person sees or reaches by tool tip, but for what is typed grammar.
    QStringList shown() {
        QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);  // rows of before
        QStringList texts;
        const auto take = [&](const QString& text) {
            if (!text.isEmpty()) texts << text;
        };
        for (QWidget* w : window.findChildren<QWidget*>()) {
            if (!w->isVisible()) continue;
            take(w->toolTip());
            if (auto* l = qobject_cast<QLabel*>(w)) take(l->text());
            if (auto* b = qobject_cast<QAbstractButton*>(w)) take(b->text());
            if (auto* t = qobject_cast<QTreeWidget*>(w))
                for (int r = 0; r < t->topLevelItemCount(); ++r)
                    for (int c = 0; c < t->columnCount(); ++c) take(t->topLevelItem(r)->text(c));
            if (auto* t = qobject_cast<QTableWidget*>(w))
                for (int r = 0; r < t->rowCount(); ++r)
                    for (int c = 0; c < t->columnCount(); ++c)
                        if (t->item(r, c)) take(t->item(r, c)->text());
        }
        for (const app::SceneItem& i : window.workspace<app::RailPage>()->chart()->scene().items)
            for (const QString& text : {i.label, i.detail, i.share, i.share_long}) take(text);
        for (const app::SceneTick& t : window.workspace<app::RailPage>()->chart()->scene().ticks)
            take(t.text);
        return texts;
    }
};

void expect_no_points(const QStringList& texts, const QString& where, int least_numbers) {
    static const QRegularExpression point(QStringLiteral("\\d\\.\\d")), number(QStringLiteral("\\d"));
    int numbers = 0;
    for (const QString& text : texts) {
        numbers += text.contains(number);
        EXPECT_FALSE(text.contains(point)) << where.toStdString() << ": " << text.toStdString();
    }
    EXPECT_GE(numbers, least_numbers) << where.toStdString();
}

TEST_F(CommaTest, EveryWorkspaceShowsCommas) {
    state("Hoisting");
    doc().selection().choose(run_named("echo sounder feed"));
    for (app::Workspace* w : window.workspaces()) {
        window.go_to(w->key());
        w->finish();
        QCoreApplication::processEvents();
        expect_no_points(shown(), w->key(), 20);
    }
    window.go_to(QStringLiteral("rail"), QStringLiteral("all_states"));
    expect_no_points(shown(), QStringLiteral("all states"), 20);
}

TEST_F(CommaTest, TheDetailsOfEveryKindShowCommas) {
    const auto one_of = [&](const auto& list) { return list.empty() ? Id() : list.front().id; };
    for (const Id& id : {one_of(plan().loads), one_of(plan().runs), one_of(plan().sources),
                         one_of(plan().batteries), one_of(plan().inverters), Id("rear-box")}) {
        doc().selection().choose(id);
        QCoreApplication::processEvents();
        expect_no_points(shown(), app::q(id), 10);
    }
}

TEST_F(CommaTest, WhatStandsInAFieldIsUnderstoodAgain) {
    const Id run = run_named("echo sounder feed");
    doc().selection().choose(run);
    auto* length = window.findChild<QLineEdit*>(QStringLiteral("Length, one way"));
    ASSERT_NE(length, nullptr);
    length->setFocus();
    length->selectAll();
    QTest::keyClicks(length, QStringLiteral("4,25 m"));
    QTest::keyClick(length, Qt::Key_Return);
    EXPECT_EQ(yr::find(plan().runs, run)->length_m, 4.25);
    EXPECT_EQ(length->text(), QStringLiteral("4,25 m"));
}

TEST_F(CommaTest, FilesKeepThePoint) {
    app::use_desktop_language();
    EXPECT_STREQ(std::setlocale(LC_NUMERIC, nullptr), "C") << "whatever the desktop says";
    const std::string text = to_json_text(plan());
    EXPECT_EQ(*plan_from_json_text(text), plan());
    static const QRegularExpression comma(QStringLiteral("\\d,\\d"));
    EXPECT_FALSE(QString::fromStdString(text).contains(comma));
    words::use_decimal_comma(true);
}

}  // namespace
}  // namespace yr::test
