// The window at any size: nothing is cut without being told, nothing lies outside or over another, all is
// reached by the keyboard, every painted view speaks of its parts; and no slip destroys.
#include <QAccessible>
#include <QComboBox>
#include <QHelpEvent>
#include <QLabel>
#include <QMenu>
#include <QMessageBox>
#include <QScrollArea>
#include <QSettings>
#include <QSplitterHandle>
#include <QTimer>
#include <QToolTip>
#include <QWidgetAction>

#include "app/window_fixture.h"
#include "details/details_part.h"
#include "panels/box_dialog.h"
#include "panels/set_dialog.h"
#include "plan/plan_json.h"
#include "support/folders.h"
#include "widgets/afloat.h"
#include "widgets/spoken_parts.h"
#include "widgets/table_tools.h"
#include "widgets/whole_text.h"
#include "window/dialogs.h"
#include "window/help_window.h"
#include "window/notes_dialog.h"
#include "window/preferences.h"
#include "words/say.h"

namespace yr::test {
namespace {

// 80 loads, 12 states, names of 60 letters.
Plan long_names() {
    Plan plan = *load_plan(test::source_dir() + "/data/plans/river-gauging-truck.yourrail.json");
    const std::string tail = " with a name that goes on until it has sixty letters or so";
    int n = 0;
    for (Load& l : plan.loads) l.name = std::to_string(++n) + " " + l.name + tail;
    for (Point& p : plan.points) p.name = (p.name + tail).substr(0, 60);
    for (Battery& b : plan.batteries) b.name = (b.name + tail).substr(0, 60);
    const Load copy = plan.loads.back();
    const yr::Run feed = *supply_run(plan, plan.loads.front().id);
    while (plan.loads.size() < 80) {
        Load more = copy;
        more.id = "more-" + std::to_string(++n);
        more.name = std::to_string(n) + tail;
        yr::Run run = feed;
        run.id = "more-run-" + std::to_string(n);
        run.name = more.name + " feed";
        run.to = pos_of(more.id);
        run.channel = 0;
        run.from = Terminal("engine-block");
        run.from = feed.channel == 0 ? feed.from : pos_of(plan.batteries.front().id);
        run.devices.clear();
        plan.loads.push_back(more);
        plan.runs.push_back(run);
    }
    while (plan.states.size() < 12) {
        State s = plan.states.back();
        s.id = "state-" + std::to_string(plan.states.size());
        s.name = "State " + std::to_string(plan.states.size()) + tail;
        plan.states.push_back(s);
    }
    plan.vehicle.name = "A vehicle" + tail;
    return plan;
}

bool inside_scroll(const QWidget* w, const QWidget* window) {
    for (const QWidget* p = w->parentWidget(); p && p != window; p = p->parentWidget())
        if (qobject_cast<const QAbstractScrollArea*>(p)) return true;
    return false;
}

bool holds_text(const QWidget* w) {
    return qobject_cast<const QLabel*>(w) || qobject_cast<const QAbstractButton*>(w) ||
           qobject_cast<const QLineEdit*>(w) || qobject_cast<const QComboBox*>(w);
}

QString told_of(const QWidget* w) {
    return QString::fromLatin1(w->metaObject()->className()) + QStringLiteral(" “") +
           (w->property("text").toString().isEmpty() ? w->accessibleName() : w->property("text").toString()) +
           QStringLiteral("” ") + w->objectName();
}

// What is wrong with the room that the window's parts have.
QStringList complaints(QWidget* window) {
    QStringList wrong;
    std::vector<std::pair<QWidget*, QRect>> seen;
    for (QWidget* w : window->findChildren<QWidget*>()) {
        if (!w->isVisible() || !holds_text(w) || w->window() != window || inside_scroll(w, window)) continue;
        const QRect where(w->mapTo(window, QPoint()), w->size());
        if (!window->rect().contains(where)) wrong << told_of(w) + QStringLiteral(" is outside");
        if (const QString cut = app::cut_text(w); !cut.isEmpty() && w->toolTip().isEmpty()) {
            QToolTip::hideText();
            QHelpEvent help(QEvent::ToolTip, QPoint(3, 3), w->mapToGlobal(QPoint(3, 3)));
            QApplication::sendEvent(w, &help);
            if (!QToolTip::text().contains(cut.left(10).toHtmlEscaped()))
                wrong << told_of(w) + QStringLiteral(" is cut and not told");
        }
        seen.emplace_back(w, where);
    }
    for (std::size_t a = 0; a < seen.size(); ++a)
        for (std::size_t b = a + 1; b < seen.size(); ++b) {
            if (seen[a].first->isAncestorOf(seen[b].first) || seen[b].first->isAncestorOf(seen[a].first))
                continue;
            // what floats over the picture is over it for a purpose
            const auto floats = [](const QWidget* w) {
                for (; w; w = w->parentWidget())
                    if (w->objectName() == QStringLiteral("floating") ||
                        w->objectName() == QStringLiteral("message"))
                        return true;
                return false;
            };
            if (floats(seen[a].first) || floats(seen[b].first)) continue;
            if (seen[a].second.adjusted(1, 1, -1, -1).intersects(seen[b].second.adjusted(1, 1, -1, -1)))
                wrong << told_of(seen[a].first) + QStringLiteral(" lies over ") + told_of(seen[b].first);
        }
    return wrong;
}

class RoomTest : public WindowTest {
  protected:
    void open_long_names() {
        doc().store().open(long_names(), {});
        doc().inspector().finish();
    }
    void expect_room(const QString& where) {
        QCoreApplication::processEvents();
        for (const QString& w : complaints(&window))
            ADD_FAILURE() << where.toStdString() << ": " << w.toStdString();
    }
};

TEST_F(RoomTest, EveryViewHasItAtEverySize) {
    open_long_names();
    const std::vector<QSize> sizes{{960, 600}, {1280, 720}, {1280, 800}, {1920, 1080}};
    const auto at_every_size = [&](const QString& view) {
        for (const QSize size : sizes) {
            window.resize(size);
            ASSERT_EQ(window.size(), size) << "no part of " << view.toStdString() << " asks for more";
            expect_room(QStringLiteral("%1 at %2").arg(view).arg(size.width()));
        }
    };
    for (app::Workspace* w : window.workspaces()) {
        std::vector<QString> views{{}};
        for (const auto& v : w->views()) views.push_back(v.key);
        for (const QString& view : views) {
            window.resize(sizes.back());  // and from there to the least
            window.go_to(w->key(), view);
            at_every_size(w->key() + u' ' + view);
        }
    }
    window.go_to(QStringLiteral("rail"));
    doc().selection().choose(plan().loads.front().id);
    at_every_size(QStringLiteral("details"));
}

// Figures with commas are as wide or wider: the same at the least size.
TEST_F(RoomTest, EveryViewHasItWithCommas) {
    words::use_decimal_comma(true);
    open_long_names();
    window.resize(960, 600);
    for (app::Workspace* w : window.workspaces()) {
        window.go_to(w->key());
        expect_room(w->key() + QStringLiteral(" with commas"));
    }
    words::use_decimal_comma(false);
}

// Every menu of the window, opened: whole on the screen, each entry a word and told apart from the others.
TEST_F(RoomTest, EveryMenuOpensAndSaysSomething) {
    open_long_names();
    window.resize(960, 600);
    int opened = 0;
    for (QMenu* menu : window.findChildren<QMenu*>()) {
        menu->popup(window.mapToGlobal(QPoint(10, 60)));
        QCoreApplication::processEvents();
        const auto actions = menu->actions();
        if (actions.isEmpty()) continue;  // its entries come with a chosen thing
        ++opened;
        EXPECT_TRUE(menu->isVisible()) << menu->title().toStdString();
        EXPECT_LE(menu->height(), window.screen()->availableGeometry().height())
            << menu->title().toStdString();
        QStringList texts;
        for (const QAction* a : actions) {
            if (a->isSeparator() || !a->isVisible()) continue;
            const bool speaks = !a->text().isEmpty() || qobject_cast<const QWidgetAction*>(a);
            EXPECT_TRUE(speaks) << menu->title().toStdString();
            EXPECT_TRUE(a->isEnabled() || !a->toolTip().isEmpty()) << a->text().toStdString();
            EXPECT_FALSE(texts.contains(a->text()) && !a->text().isEmpty())
                << "twice: " << a->text().toStdString();
            texts << a->text();
        }
        menu->hide();
    }
    EXPECT_GE(opened, 4);
}

TEST_F(RoomTest, DialogsHaveIt) {
    open_long_names();
    app::BoxDialog box(&doc(), &window);
    app::CableDialog cable(&doc(), &window);
    app::NotesDialog notes(&doc(), &window);
    app::SetDialog sets(&doc(), {}, &window);
    app::HelpWindow help(QStringLiteral("rail"), &window);
    app::Preferences preferences(&window);
    app::FirstStart first(&window);
    for (QDialog* dialog :
         {static_cast<QDialog*>(&box), static_cast<QDialog*>(&cable), static_cast<QDialog*>(&notes),
          static_cast<QDialog*>(&sets), static_cast<QDialog*>(&help), static_cast<QDialog*>(&preferences),
          static_cast<QDialog*>(&first)}) {
        dialog->show();
        QCoreApplication::processEvents();
        for (const QString& w : complaints(dialog))
            ADD_FAILURE() << dialog->windowTitle().toStdString() << ": " << w.toStdString();
        EXPECT_LE(dialog->width(), 1280);
        EXPECT_LE(dialog->height(), 720);
        dialog->close();
    }
    EXPECT_NE(cable.findChildren<QComboBox*>().at(0)->currentText(),
              cable.findChildren<QComboBox*>().at(1)->currentText())
        << "both ends the same is no cable";
}

TEST_F(RoomTest, StatesThatFindNoRoomStandInAMenuTheChosenOneIsWhole) {
    open_long_names();
    window.resize(960, 600);
    for (int k = 0; k < static_cast<int>(plan().states.size()); ++k) {
        doc().shown().set_state(k);
        QCoreApplication::processEvents();
        int whole = 0, hidden = 0;
        for (auto* b : window.states()->findChildren<QToolButton*>()) {
            if (b->accessibleName() !=
                QString::fromStdString(plan().states[static_cast<std::size_t>(k)].name))
                continue;
            EXPECT_TRUE(b->isVisible());
            EXPECT_GE(b->width(), b->sizeHint().width());
            ++whole;
        }
        EXPECT_EQ(whole, 1) << k;
        for (auto* b : window.states()->findChildren<QToolButton*>())
            hidden += b->isHidden() && b->isCheckable();
        EXPECT_GE(window.states()->rest()->menu()->actions().size(), 3);
    }
    window.states()->rest()->menu()->actions().constLast()->trigger();
    EXPECT_EQ(doc().shown().state_index(), static_cast<int>(plan().states.size()) - 2)
        << "the last but the one that was chosen";
}

TEST_F(RoomTest, NamesOnTheRailStandLevelAndApart) {
    window.go_to(QStringLiteral("rail"));
    for (const char* name : {"Idling", "Driving", "Hoisting", "Overnight"}) {
        state(name);
        std::vector<QRectF> names;
        int level = 0, all = 0;
        const auto& scene = window.workspace<app::RailPage>()->chart()->scene();
        for (const auto& i : scene.items) {
            if (i.kind != app::SceneKind::load && i.kind != app::SceneKind::gathered) continue;
            ++all;
            if (i.shelf.isEmpty()) {
                level += i.rect.width() > 60;
                continue;
            }
            ++level;
            EXPECT_LE(i.shelf.left(), i.rect.center().x());
            EXPECT_GE(i.shelf.right(), i.rect.center().x()) << "it stands by its place";
            for (const QRectF& other : names)
                EXPECT_FALSE(other.intersects(i.shelf)) << i.label.toStdString();
            names.push_back(i.shelf);
            for (const auto& slab : scene.items)
                if (slab.kind == app::SceneKind::conductor)
                    EXPECT_FALSE(slab.rect.intersects(i.shelf)) << i.label.toStdString();
        }
        EXPECT_EQ(level, all) << name;
    }
}

// Small charts too, as two options stand side by side: a name that finds no place any more keeps none of
// before.
TEST_F(RoomTest, NamesLieOverNoOtherInAnySize) {
    int charts = 0;
    for (const char* name : {"Idling", "Driving", "Hoisting", "Overnight"}) {
        state(name);
        for (double width = 300; width <= 900; width += 40)
            for (const double height : {240.0, 310.0, 420.0}) {
                const auto scene =
                    app::build_scene(doc().shown(), &doc().inspector(), QSizeF(width, height), {});
                ++charts;
                std::vector<const app::SceneItem*> named;
                for (const auto& i : scene.items) {
                    if (i.shelf.isEmpty()) continue;
                    for (const app::SceneItem* other : named)
                        EXPECT_FALSE(other->shelf.intersects(i.shelf))
                            << name << " " << width << " x " << height << ": " << i.label.toStdString()
                            << " over " << other->label.toStdString();
                    named.push_back(&i);
                }
            }
    }
    EXPECT_GT(charts, 100);
}

TEST_F(RoomTest, TheChartKeepsItsPlaceWhenDetailsOpenAndMessagesCome) {
    window.go_to(QStringLiteral("rail"));
    QTest::qWait(400);  // every layout has had its turn
    auto* chart = window.workspace<app::RailPage>()->chart();
    const QRect before(chart->mapTo(&window, QPoint()), chart->size());
    doc().selection().choose(plan().loads.front().id);
    window.messages()->say(QStringLiteral("a sentence that says something"));
    QCoreApplication::processEvents();
    EXPECT_TRUE(window.details()->isVisible());
    EXPECT_EQ(QRect(chart->mapTo(&window, QPoint()), chart->size()), before);
    // at the side where the chosen thing is not
    for (const Load& l : plan().loads) {
        doc().selection().choose(l.id);
        QCoreApplication::processEvents();
        const auto* item = chart->scene().of(l.id);
        if (!item) continue;
        const QRect details(chart->mapFromGlobal(window.details()->mapToGlobal(QPoint())),
                            window.details()->size());
        EXPECT_FALSE(details.contains(item->rect.center().toPoint())) << l.name;
    }
}

TEST_F(RoomTest, FindingsAreOneStopOfTabAndWalkedByArrows) {
    window.go_to(QStringLiteral("rail"));
    QTest::qWait(100);
    int stops = 0;
    std::vector<QWidget*> rows;
    for (QWidget* w : window.findings()->findChildren<QWidget*>())
        if (w->isVisible() && (w->focusPolicy() & Qt::TabFocus) && !qobject_cast<QScrollArea*>(w))
            ++stops, rows.push_back(w);
    EXPECT_LE(stops, 2) << "the list, and what folds it";
    QWidget* first = nullptr;
    for (QWidget* w : rows)
        if (!qobject_cast<QToolButton*>(w)) first = w;
    ASSERT_NE(first, nullptr);
    first->setFocus();
    QTest::keyClick(first, Qt::Key_Down);
    QWidget* second = QApplication::focusWidget();
    EXPECT_NE(second, first);
    QTest::keyClick(second, Qt::Key_Right);
    EXPECT_TRUE(qobject_cast<QToolButton*>(QApplication::focusWidget()));
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Left);
    EXPECT_EQ(QApplication::focusWidget(), second);
    QTest::keyClick(second, Qt::Key_Up);
    EXPECT_EQ(QApplication::focusWidget(), first);
}

TEST_F(RoomTest, FoldingIsRememberedByWorkspace) {
    QSettings().remove(QStringLiteral("folded"));
    window.go_to(QStringLiteral("rail"));
    EXPECT_FALSE(window.findings()->folded());
    window.go_to(QStringLiteral("guard"));
    EXPECT_TRUE(window.findings()->folded()) << "tables open without them";
    press(Qt::Key_F8);
    EXPECT_FALSE(window.findings()->folded());
    window.go_to(QStringLiteral("rail"));
    press(Qt::Key_F9);
    EXPECT_FALSE(window.list()->isVisible());
    window.go_to(QStringLiteral("guard"));
    EXPECT_FALSE(window.findings()->folded());
    EXPECT_TRUE(window.list()->isVisible());
    press(Qt::Key_L, Qt::ControlModifier);
    EXPECT_TRUE(window.type_line()->edit()->hasFocus());
    QSettings().remove(QStringLiteral("folded"));
}

TEST_F(RoomTest, PaintedViewsSpeakOfTheirParts) {
    window.go_to(QStringLiteral("guard"));
    window.go_to(QStringLiteral("runs"));
    doc().selection().choose(run_named("echo sounder feed"));
    for (app::Workspace* w : window.workspaces()) window.go_to(w->key()), w->finish();
    int views = 0;
    for (QWidget* w : window.findChildren<QWidget*>()) {
        auto* parts = dynamic_cast<app::SpokenParts*>(w);
        if (!parts || parts->spoken_parts().empty()) continue;
        ++views;
        QAccessibleInterface* view = QAccessible::queryAccessibleInterface(w);
        ASSERT_NE(view, nullptr);
        ASSERT_EQ(view->childCount(), static_cast<int>(parts->spoken_parts().size()));
        for (int k = 0; k < view->childCount(); ++k) {
            QAccessibleInterface* part = view->child(k);
            ASSERT_NE(part, nullptr);
            EXPECT_FALSE(part->text(QAccessible::Name).isEmpty()) << w->metaObject()->className() << " " << k;
            EXPECT_EQ(part->role(), QAccessible::ListItem);
            EXPECT_EQ(view->indexOfChild(part), k);
        }
    }
    EXPECT_GE(views, 4) << "rail, boxes, ladder, curves";
}

TEST_F(RoomTest, TablesSortFilterAndCopy) {
    using app::natural_less;
    EXPECT_TRUE(natural_less(QStringLiteral("run 2"), QStringLiteral("run 10")));
    EXPECT_NEAR(*app::sort_value(QStringLiteral("17 ms … 1.44 s")), 0.017, 1e-12);
    EXPECT_NEAR(*app::sort_value(QStringLiteral("▲ 12,5 V")), 12.5, 1e-12);
    EXPECT_LT(*app::sort_value(QStringLiteral("928 mV of 360 mV")), 1);
    EXPECT_FALSE(app::sort_value(QStringLiteral("starter cable")));
    QTreeWidget table;
    table.setHeaderLabels({QStringLiteral("run"), QStringLiteral("drop")});
    app::make_handy(&table);
    for (const auto& [name, drop] : {std::pair{"run 10", "1.2 V"}, {"run 2", "300 mV"}, {"run 1", "–"}})
        new app::TableRow(&table, {QString::fromUtf8(name), QString::fromUtf8(drop)});
    EXPECT_EQ(table.topLevelItem(0)->text(0), QStringLiteral("run 10")) << "its own order at first";
    table.sortItems(0, Qt::AscendingOrder);
    EXPECT_EQ(table.topLevelItem(1)->text(0), QStringLiteral("run 2"));
    table.sortItems(1, Qt::AscendingOrder);
    EXPECT_EQ(table.topLevelItem(0)->text(0), QStringLiteral("run 2"));
    app::filter_rows(&table, QStringLiteral("run 10"));
    EXPECT_EQ(app::table_text(table), QStringLiteral("run\tdrop\nrun 10\t1.2 V\n"));
}

TEST_F(RoomTest, BoxesAndTheRestMoveToAnotherSupply) {
    window.go_to(QStringLiteral("rail"));
    doc().selection().choose("rear-box");
    const Plan before = plan();
    const Id second = plan().batteries.back().id;
    choose("Fed from", QString::fromStdString(words::terminal(plan(), pos_of(second))));
    for (const auto& r : plan().runs)
        if (r.to == Terminal("rear-box")) EXPECT_EQ(r.from, pos_of(second));
    EXPECT_EQ(yr::find(plan().points, "rear-box")->return_at.owner,
              yr::find(before.points, "rear-box")->return_at.owner == before.batteries.front().id
                  ? second
                  : yr::find(before.points, "rear-box")->return_at.owner);
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan(), before);
    app::BoxDialog dialog(&doc(), &window);
    dialog.from()->setCurrentIndex(1);
    const QString from = dialog.from()->currentData().toString();
    dialog.accept();
    for (const auto& r : plan().runs)
        if (r.to == Terminal(plan().points.back().id)) EXPECT_EQ(r.from.text(), from.toStdString());
}

// Every act that destroys asks, or is one step back.
TEST_F(RoomTest, NoSlipDestroys) {
    const Plan before = plan();
    const auto back = [&](const char* what) {
        EXPECT_NE(plan(), before) << what;
        doc().store().undo_stack()->undo();
        EXPECT_EQ(plan(), before) << what;
    };
    for (const Id& id :
         {plan().loads.front().id, plan().batteries.front().id, plan().sources.front().id, Id("rear-box")}) {
        window.list()->setFocus();
        doc().selection().choose(id);
        QTest::keyClick(window.list(), Qt::Key_Delete);
        back(id.c_str());
    }
    QMenu menu;
    window.states()->fill_state_menu(&menu, plan().states[1].id);
    const auto act = [&](const QString& text) {
        for (QAction* a : menu.actions())
            if (a->text() == text) a->trigger();
    };
    act(QStringLiteral("Later in the line"));
    EXPECT_EQ(plan().states[2].id, before.states[1].id);
    back("moved");
    act(QStringLiteral("Copy as a new state"));
    EXPECT_EQ(plan().states.size(), before.states.size() + 1);
    back("copied");
    act(QStringLiteral("Take out"));
    back("taken out");
    // practising asks before it replaces readings
    ASSERT_FALSE(plan().survey.points.empty());
    answer_box(1);
    window.workspace<app::SurveyPage>()->start_meter(true);
    EXPECT_EQ(plan().survey, before.survey);
}

TEST_F(RoomTest, HelpIsThereForEveryWorkspaceAndSearched) {
    for (app::Workspace* w : window.workspaces()) {
        bool found = false;
        for (const auto& page : app::help_pages())
            if (page.key == w->key()) {
                found = true;
                for (const char* part :
                     {"**It answers**", "**How to work it.**", "**Keys.**", "**Caution.**"})
                    EXPECT_TRUE(page.text.contains(QLatin1String(part))) << page.key.toStdString() << part;
            }
        EXPECT_TRUE(found) << w->key().toStdString();
    }
    app::HelpWindow help(QStringLiteral("runs"));
    EXPECT_TRUE(help.page()->toPlainText().contains(QStringLiteral("size of every cable")));
    help.search()->setText(QStringLiteral("airbag"));
    EXPECT_TRUE(help.page()->toPlainText().contains(QStringLiteral("airbag")));
}

// What no vehicle has is asked about, and taken when it is meant.
TEST_F(RoomTest, OddNumbersAreAskedAbout) {
    window.go_to(QStringLiteral("rail"));
    const auto told = [&](const char* part) {
        for (QLabel* l : window.details()->findChildren<QLabel*>())
            if (l->isVisible() && l->text().contains(QString::fromUtf8(part))) return true;
        return false;
    };
    doc().selection().choose(plan().sources.front().id);
    const auto before = plan().sources.front().regulated_V;
    auto* edit = window.details()->findChild<QLineEdit*>(app::say(app::declared(&Source::regulated_V).label));
    ASSERT_NE(edit, nullptr);
    const auto enter = [&](QLineEdit* e, const char* text) {
        e->setText(QString::fromUtf8(text));
        e->setModified(true);
        emit e->editingFinished();
    };
    enter(edit, "30 V");
    EXPECT_EQ(plan().sources.front().regulated_V, before);
    EXPECT_TRUE(told("would break it"));
    enter(edit, "14.4 V");
    EXPECT_NEAR(*plan().sources.front().regulated_V, 14.4, 1e-12) << "the plausible is not asked about";
    doc().selection().choose(plan().loads.front().id);
    auto* draw = window.details()->findChild<QLineEdit*>(QStringLiteral("Draw, each"));
    enter(draw, "50000 W");
    EXPECT_LT(plan().loads.front().draw.value, 1e4);
    EXPECT_TRUE(told("more than vehicles have"));
    emit draw->editingFinished();
    EXPECT_NEAR(plan().loads.front().draw.value, 50000, 1) << "entered once more it is meant";
}

// The lines of "A first plan" are typed as they stand there, on the bare vehicle that it names.
TEST_F(RoomTest, TheFirstPlanOfTheGuideComesOutRight) {
    window.start_with(QStringLiteral("machine"));
    const QString text = app::help_pages().front().text;
    const QStringList pieces = text.section(QStringLiteral("2. **"), 1)
                                   .section(QStringLiteral("3. **"), 0, 0)
                                   .split(QLatin1Char('`'));
    int typed = 0;
    for (qsizetype k = 1; k < pieces.size(); k += 2, ++typed) {
        type(pieces[k].toUtf8().constData());
        QTest::keyClick(window.type_line()->edit(), Qt::Key_Return);
        EXPECT_TRUE(window.type_line()->edit()->text().isEmpty()) << pieces[k].toStdString();
    }
    EXPECT_EQ(typed, 4);
    doc().inspector().finish();
    for (const Finding& f : doc().inspector().findings())
        EXPECT_GT(f.severity, Severity::fix) << words::sentence(f, plan());
}

}  // namespace
}  // namespace yr::test
