// The window: top line, list, state bar, the open workspace, details, findings; files, undo, look. It knows
// workspaces by their interface alone.
#pragma once

#include <QMainWindow>
#include <QSplitter>
#include <QStackedWidget>

#include "details/details_panel.h"
#include "document/document.h"
#include "document/recovery.h"
#include "panels/findings_strip.h"
#include "panels/plan_list.h"
#include "panels/state_bar.h"
#include "panels/type_line.h"
#include "widgets/afloat.h"
#include "widgets/message_bar.h"
#include "widgets/why_popup.h"
#include "window/top_line.h"
#include "window/workspaces.h"

namespace yr::app {

class HelpWindow;

class MainWindow : public QMainWindow {
    Q_OBJECT

  public:
    // `autosave_folder` empty: no autosave (pictures, some tests).
    explicit MainWindow(const QString& autosave_folder,
                        const std::vector<WorkspaceKind>& kinds = all_workspaces(),
                        QWidget* parent = nullptr);
    ~MainWindow() override;

    [[nodiscard]] Document* document() { return &document_; }
    [[nodiscard]] TypeLine* type_line() { return type_line_; }
    [[nodiscard]] PlanList* list() { return list_; }
    [[nodiscard]] FindingsStrip* findings() { return findings_; }
    [[nodiscard]] DetailsPanel* details() { return details_; }
    [[nodiscard]] WhyPopup* why_popup() { return why_; }
    [[nodiscard]] MessageBar* messages() { return messages_; }
    [[nodiscard]] StateBar* states() { return states_; }
    [[nodiscard]] Recovery* recovery() { return recovery_.get(); }

    [[nodiscard]] const std::vector<Workspace*>& workspaces() const { return workspaces_; }
    // The workspace of that class, for pictures and tests; nullptr where the window has none.
    template <class W>
    [[nodiscard]] W* workspace() const {
        for (Workspace* w : workspaces_)
            if (auto* found = qobject_cast<W*>(w)) return found;
        return nullptr;
    }
    [[nodiscard]] Workspace* open_workspace() const { return open_; }
    // Opens a workspace by its key, in one of its views.
    void go_to(const QString& workspace, const QString& view = {});

    // The plan as it is shown becomes a new option, and is shown.
    void new_option(const QString& name);
    bool open_file(const QString& path);
    bool save_to(const QString& path, bool over_another = false);
    void open_demo(const QString& resource);
    void offer_recovery();
    void ask_why(const std::vector<words::ValueRef>& refs, const QPoint& global);

    // A bare vehicle (notes/notes.h) becomes the open plan, unless one wants to stay.
    void start_with(const QString& key);
    // The selected thing on the clipboard as a line, lines from it, one more of the selected load.
    void copy_selected();
    void cut_selected();
    void remove_chosen();
    void paste_lines(const QString& text);
    void duplicate_selected();

  protected:
    void closeEvent(QCloseEvent* event) override;

  private:
    void make_workspaces(const std::vector<WorkspaceKind>& kinds);
    [[nodiscard]] QWidget* make_left(QWidget* parent);
    void fill_middle(QWidget* middle, const std::vector<WorkspaceKind>& kinds);
    void show_around(const Workspace::Surroundings& around);
    [[nodiscard]] static QString folded_key(const Workspace& w, const char* part);
    void fold_findings(bool folded);
    void fold_list(bool folded);
    void place_details();
    void make_actions();
    void shortcut(const QString& keys, const std::function<void()>& what);
    void connect_parts();
    [[nodiscard]] Workspace* with_view(const QString& view) const;

    void fill_menus();
    void fill_plan_menu(QMenu* menu);
    void fill_add_menu(QMenu* top);
    void show_help(const QString& key);
    void fill_library_menu(QMenu* menu);
    void fill_sets_menu(QMenu* menu);
    void fill_options_menu(QMenu* menu);
    void ask_new_option();

    bool may_leave();
    bool save();
    bool save_as();
    void open_dialog();
    void new_plan();
    void from_notes();
    [[nodiscard]] QString selected_lines() const;
    void take_plan(const Plan& plan);  // becomes the open one, unsaved
    void put_aside(const Recoverable& lost);
    void refresh_title();
    void remove_thing(const Id& id);
    void switch_look();

    Document document_;
    std::unique_ptr<Recovery> recovery_;
    std::vector<Workspace*> workspaces_;
    Workspace* open_ = nullptr;
    TopLine* top_ = nullptr;
    QStackedWidget* pages_ = nullptr;
    QWidget *details_side_ = nullptr, *picture_ = nullptr, *left_ = nullptr;
    QSplitter* split_ = nullptr;
    QList<int> open_sizes_{548, 158};  // of picture and findings, when both are open
    QToolButton* unfold_list_ = nullptr;
    Afloat* details_over_ = nullptr;
    StateBar* states_ = nullptr;
    TypeLine* type_line_ = nullptr;
    PlanList* list_ = nullptr;
    FindingsStrip* findings_ = nullptr;
    DetailsPanel* details_ = nullptr;
    MessageBar* messages_ = nullptr;
    WhyPopup* why_ = nullptr;
    HelpWindow* help_ = nullptr;
    QByteArray on_disk_;  // what stood in the open file when it was read or written
};

}  // namespace yr::app
