// The window: top line, list, state bar, picture, details, findings; files, undo, look.
#pragma once

#include <QMainWindow>
#include <QStackedWidget>

#include "control/control_page.h"
#include "guard/guard_page.h"
#include "rail/compare_view.h"
#include "rail/rail_chart.h"
#include "rail/worst_view.h"
#include "runs/runs_page.h"
#include "shell/details_panel.h"
#include "shell/findings_strip.h"
#include "shell/message_bar.h"
#include "shell/plan_list.h"
#include "shell/recovery.h"
#include "shell/state_bar.h"
#include "shell/type_line.h"
#include "shell/why_popup.h"
#include "survey/survey_page.h"

namespace yr::app {

class MainWindow : public QMainWindow {
    Q_OBJECT

  public:
    // `autosave_folder` empty: no autosave (pictures, some tests).
    explicit MainWindow(const QString& autosave_folder, QWidget* parent = nullptr);
    ~MainWindow() override;

    [[nodiscard]] PlanDocument* document() { return &document_; }
    [[nodiscard]] RailChart* chart() { return chart_; }
    [[nodiscard]] TypeLine* type_line() { return type_line_; }
    [[nodiscard]] PlanList* list() { return list_; }
    [[nodiscard]] FindingsStrip* findings() { return findings_; }
    [[nodiscard]] DetailsPanel* details() { return details_; }
    [[nodiscard]] WhyPopup* why_popup() { return why_; }
    [[nodiscard]] MessageBar* messages() { return messages_; }
    [[nodiscard]] SurveyPage* survey() { return survey_; }
    [[nodiscard]] ControlPage* control() { return control_; }
    [[nodiscard]] RunsPage* runs() { return runs_; }
    [[nodiscard]] GuardPage* guard() { return guard_; }
    [[nodiscard]] CompareView* compare() { return compare_; }
    [[nodiscard]] WorstView* worst() { return worst_; }
    [[nodiscard]] StateBar* states() { return states_; }
    enum class Page { rail, all_states, compare, survey, control, runs, guard };
    void show_page(Page page);
    [[nodiscard]] Page page() const { return page_; }
    // The plan as it is shown becomes a new option, and is shown.
    void new_option(const QString& name);
    [[nodiscard]] Recovery* recovery() { return recovery_.get(); }

    bool open_file(const QString& path);
    bool save_to(const QString& path);
    void open_demo(const QString& resource);
    void offer_recovery();
    void ask_why(const std::vector<words::ValueRef>& refs, const QPoint& global);

  protected:
    void closeEvent(QCloseEvent* event) override;

  private:
    QWidget* make_top();
    void make_actions();
    void fill_plan_menu(QMenu* menu);
    void fill_add_menu(QMenu* menu);
    void fill_library_menu(QMenu* menu);
    void fill_options_menu(QMenu* menu);
    void refresh_options();
    bool may_leave();
    bool save();
    bool save_as();
    void open_dialog();
    void refresh_title();
    void remove_load(const Id& id);
    void switch_units();
    void switch_look();

    PlanDocument document_;
    std::unique_ptr<Recovery> recovery_;
    QLineEdit* title_ = nullptr;
    QToolButton *undo_ = nullptr, *redo_ = nullptr, *units_ = nullptr, *whole_ = nullptr;
    QToolButton *options_ = nullptr, *survey_word_ = nullptr, *rail_word_ = nullptr, *control_word_ = nullptr,
                *runs_word_ = nullptr, *guard_word_ = nullptr;
    QStackedWidget* pages_ = nullptr;
    QWidget* details_side_ = nullptr;
    SurveyPage* survey_ = nullptr;
    ControlPage* control_ = nullptr;
    RunsPage* runs_ = nullptr;
    GuardPage* guard_ = nullptr;
    CompareView* compare_ = nullptr;
    WorstView* worst_ = nullptr;
    StateBar* states_ = nullptr;
    Page page_ = Page::rail;
    RailChart* chart_ = nullptr;
    TypeLine* type_line_ = nullptr;
    PlanList* list_ = nullptr;
    FindingsStrip* findings_ = nullptr;
    DetailsPanel* details_ = nullptr;
    MessageBar* messages_ = nullptr;
    WhyPopup* why_ = nullptr;
};

}  // namespace yr::app
