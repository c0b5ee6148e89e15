// Guard: does the right fuse open, in time, and nothing else? The time-current chart of the chosen run with
// the fuse choice beside it; below, by turns: shorts everywhere, and what happens in the first seconds after
// switching on.
#pragma once

#include <QLabel>
#include <QStackedWidget>
#include <QToolButton>

#include "guard/starting.h"
#include "size/plan_fuse.h"
#include "workspaces/guard/curve_chart.h"
#include "workspaces/guard/fault_table.h"
#include "workspaces/workspace.h"

namespace yr::app {

class GuardPage : public Workspace {
    Q_OBJECT

  public:
    explicit GuardPage(Document* document, QWidget* parent = nullptr);
    enum class View { shorts, starts };
    void show_view(View view);
    [[nodiscard]] CurveChart* chart() { return chart_; }
    [[nodiscard]] FaultTable* faults() { return faults_; }
    [[nodiscard]] QComboBox* starters() { return starters_; }
    [[nodiscard]] QComboBox* kinds() { return kinds_; }
    [[nodiscard]] const std::vector<QToolButton*>& schools() const { return schools_; }
    [[nodiscard]] QString start_text() const { return start_text_->text(); }
    [[nodiscard]] QString advice_text() const { return advice_->text(); }

    // It shows the chosen thing itself, on the whole width.
    [[nodiscard]] Surroundings surroundings() const override {
        return {.details = false, .findings_folded = true};
    }
    void entered() override { chart_->setFocus(); }
    void finish() override;
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* make_advice();
    QWidget* make_starts();
    void refresh();
    void take_look();
    void refresh_advice();
    // The run that the advice is of, while the plan is still the one it was given for.
    [[nodiscard]] const Run* advised_run() const;
    void show_schools();
    void show_kinds(const Device* own);
    [[nodiscard]] QString advice_sentence(const Run* run, const Device* own) const;
    void fill_starters();
    void begin_start();
    void take_start();
    void set_fuse(double rating_A, std::optional<FuseType> type);
    [[nodiscard]] const Run* chosen_run() const;

    CurveChart* chart_;
    FaultTable* faults_;
    QLabel *title_, *advice_, *start_text_;
    std::vector<QToolButton*> schools_, words_;
    QComboBox *kinds_, *starters_;
    QCustomPlot* start_plot_;
    QStackedWidget* pages_;
    View view_ = View::shorts;
    Id last_run_;
    // What is shown of one run: worked out in a worker, so that the page opens at once on any plan.
    struct Look {
        Id run;
        std::optional<GuardCurves> curves;
        std::optional<RunFuseAdvice> advice;
    };
    Job<Look> look_;
    std::optional<RunFuseAdvice> advised_;
    Job<Result<StartStudy>> starting_;
    bool filling_ = false;
};

}  // namespace yr::app
