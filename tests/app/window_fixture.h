// A shown window with the truck in it.
#pragma once

#include <gtest/gtest.h>

#include <QTest>
#include <QToolButton>

#include "shell/main_window.h"
#include "shell/plan_files.h"
#include "support/run_program.h"

namespace yr::test {

class WindowTest : public testing::Test {
  protected:
    WindowTest() : window(QString::fromStdString(folder.file("autosave"))) {
        window.chart()->set_animated(false);
        window.resize(1280, 800);
        window.open_demo(app::demo_plans().front().resource);
        window.show();
        (void)QTest::qWaitForWindowExposed(&window);
        window.document()->finish_findings();
    }

    app::PlanDocument& doc() { return *window.document(); }
    const Plan& plan() { return doc().plan(); }
    void type(const char* text) {
        window.type_line()->edit()->setFocus();
        window.type_line()->edit()->clear();
        QTest::keyClicks(window.type_line()->edit(), QString::fromUtf8(text));
    }
    void press(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        QTest::keyClick(&window, static_cast<Qt::Key>(key), modifiers);
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
        doc().set_state(static_cast<int>(find_state(plan(), name) - plan().states.data()));
    }
    QPoint middle_of(const Id& id) { return window.chart()->scene().of(id)->rect.center().toPoint(); }
    void wheel(const QPoint& at, int notches) {
        QWheelEvent e(at, window.chart()->mapToGlobal(at), {}, {0, 120 * notches}, Qt::NoButton,
                      Qt::NoModifier, Qt::NoScrollPhase, false);
        QCoreApplication::sendEvent(window.chart(), &e);
    }
    int count(FindingKind kind, const Id& id) {
        doc().finish_findings();
        int n = 0;
        for (const Finding& f : doc().findings()) n += f.kind == kind && f.id == id;
        return n;
    }

    TempFolder folder;
    app::MainWindow window;
};

}  // namespace yr::test
