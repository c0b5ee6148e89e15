// A shown window with the truck in it.
#pragma once

#include <gtest/gtest.h>

#include <QComboBox>
#include <QLineEdit>
#include <QMessageBox>
#include <QSettings>
#include <QSignalSpy>
#include <QTest>
#include <QTimer>
#include <QToolButton>

#include "document/plan_files.h"
#include "support/run_program.h"
#include "window/main_window.h"
#include "workspaces/control/control_page.h"
#include "workspaces/guard/guard_page.h"
#include "workspaces/rail/rail_page.h"
#include "workspaces/runs/runs_page.h"
#include "workspaces/survey/survey_page.h"

namespace yr::test {

class WindowTest : public testing::Test {
  protected:
    WindowTest() : window(QString::fromStdString(folder.file("autosave"))) {
        QSettings().remove(QStringLiteral("folded"));
        window.workspace<app::RailPage>()->chart()->set_animated(false);
        window.document()->inspector().work_ahead(false);
        window.resize(1280, 800);
        window.open_demo(app::demo_plans().front().resource);
        window.show();
        (void)QTest::qWaitForWindowExposed(&window);
        window.document()->inspector().finish();
    }

    app::Document& doc() { return *window.document(); }
    const Plan& plan() { return doc().plan(); }
    void type(const char* text) {
        window.type_line()->edit()->setFocus();
        window.type_line()->edit()->clear();
        QTest::keyClicks(window.type_line()->edit(), QString::fromUtf8(text));
    }
    // The next message box is answered by its button of that number.
    static void answer_box(int button) {
        QTimer::singleShot(200, [button] {
            for (QWidget* w : QApplication::topLevelWidgets())
                if (auto* box = qobject_cast<QMessageBox*>(w)) return box->buttons().at(button)->click();
            ADD_FAILURE() << "nothing was asked";
        });
    }
    void press(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        QTest::keyClick(&window, static_cast<Qt::Key>(key), modifiers);
    }
    // A field of the details, as its user would.
    void choose(const char* field, const QString& text) {
        auto* box = window.details()->findChild<QComboBox*>(QString::fromUtf8(field));
        ASSERT_NE(box, nullptr) << field;
        const int at = box->findText(text);
        ASSERT_GE(at, 0) << text.toStdString();
        box->setCurrentIndex(at);
        emit box->activated(at);
    }
    void write(const char* field, const char* text) {
        auto* edit = window.details()->findChild<QLineEdit*>(QString::fromUtf8(field));
        ASSERT_NE(edit, nullptr) << field;
        edit->setText(QString::fromUtf8(text));
        edit->setModified(true);
        emit edit->editingFinished();
    }
    Id run_named(const std::string& name) {
        for (const auto& r : plan().runs)
            if (r.name == name) return r.id;
        ADD_FAILURE() << name;
        return {};
    }
    Id load_named(const std::string& name) {
        for (const auto& l : plan().loads)
            if (l.name == name) return l.id;
        ADD_FAILURE() << name;
        return {};
    }
    void state(const char* name) {
        doc().shown().set_state(static_cast<int>(find_state(plan(), name) - plan().states.data()));
    }
    QPoint middle_of(const Id& id) {
        const app::SceneItem* item = window.workspace<app::RailPage>()->chart()->scene().of(id);
        return (item->shelf.isEmpty() ? item->rect : item->shelf).center().toPoint();
    }
    void wheel(const QPoint& at, int notches) {
        QWheelEvent e(at, window.workspace<app::RailPage>()->chart()->mapToGlobal(at), {}, {0, 120 * notches},
                      Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase, false);
        QCoreApplication::sendEvent(window.workspace<app::RailPage>()->chart(), &e);
    }
    int count(FindingKind kind, const Id& id) {
        doc().inspector().finish();
        int n = 0;
        for (const Finding& f : doc().inspector().findings()) n += f.kind == kind && f.id == id;
        return n;
    }

    TempFolder folder;
    app::MainWindow window;
};

}  // namespace yr::test
