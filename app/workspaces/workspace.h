// A workspace: one whole way of working on the plan, chosen by its word in the top line. The window knows
// workspaces by this interface alone; window/workspaces.cpp is the only list of them.
#pragma once

#include <QPoint>
#include <QString>
#include <QWidget>
#include <functional>
#include <vector>

#include "document/document.h"

namespace yr::app {

// One of a workspace's own views, or a word of its own beside it in menus ("Compare side by side").
struct WorkspaceView {
    QString key;
    QString title;          // for menus; empty: none
    bool own_keys = false;  // gets an Alt+number after those of the workspaces
};

// A picture for the manual and the tests: what is to be shown before the window is drawn.
struct WorkspacePicture {
    QString file;  // "runs.png"
    std::function<void()> prepare;
};

class Workspace : public QWidget {
    Q_OBJECT

  public:
    // `key` never changes ("runs"); `name` is the word in the top line.
    Workspace(Document* document, const QString& key, const QString& name, QWidget* parent);

    [[nodiscard]] const QString& key() const { return key_; }
    [[nodiscard]] const QString& name() const { return name_; }

    // What of the window stands around it.
    struct Surroundings {
        bool states = true, details = true, findings = true;
        bool details_over = false;     // over the picture, which keeps its place; else beside it
        bool findings_folded = false;  // at first; afterwards as they were left
    };
    [[nodiscard]] virtual Surroundings surroundings() const { return {}; }
    // It is opened: the keyboard goes where the work begins.
    virtual void entered() {}
    // Another plan was opened.
    virtual void plan_opened() {}
    // Waits for what it is working out, for pictures and tests.
    virtual void finish() {}
    [[nodiscard]] virtual std::vector<WorkspaceView> views() const { return {}; }
    // False: it has no such view. Empty: the view it begins with.
    virtual bool open_view(const QString& key) { return key.isEmpty(); }
    [[nodiscard]] virtual QString open_view() const { return {}; }
    // Stands in the top line while this workspace is open; nullptr: nothing.
    [[nodiscard]] virtual QWidget* corner() { return nullptr; }
    [[nodiscard]] virtual std::vector<WorkspacePicture> pictures() { return {}; }

    // Where the picture shows that thing, in its own coordinates; empty: nowhere.
    [[nodiscard]] virtual QRect where_is(const Id&) const { return {}; }

    // What the open view shows, as a table with tabs; its visible tables unless it says otherwise.
    [[nodiscard]] virtual QString numbers() const;

    [[nodiscard]] bool has_view(const QString& key) const;

  signals:
    void said(const QString& sentence);
    void go_to(const QString& workspace, const QString& view);
    void why(const std::vector<words::ValueRef>& refs, const QPoint& global);
    void remove_asked(const Id& id);

  protected:
    // For pictures: the state of that name is shown.
    void in_state(const char* name);
    [[nodiscard]] Id feed_of(const std::string& load) const;

    Document* document_;

  private:
    QString key_, name_;
};

// How the window makes one.
struct WorkspaceKind {
    std::function<Workspace*(Document*)> make;
};

}  // namespace yr::app
