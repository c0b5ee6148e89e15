// Runs: how thick must each cable be? All runs by state above; below, by turns: the ladder of the chosen run,
// the whole plan sized at once, and where a box or battery should stand.
#pragma once

#include <QLabel>
#include <QScrollArea>
#include <QSpinBox>
#include <QStackedWidget>
#include <QToolButton>

#include "document/job.h"
#include "sizing/placement.h"
#include "workspaces/runs/ladder_view.h"
#include "workspaces/runs/run_matrix.h"
#include "workspaces/runs/sizing_panel.h"
#include "workspaces/workspace.h"

namespace yr::app {

class RunsPage : public Workspace {
    Q_OBJECT

  public:
    explicit RunsPage(Document* document, QWidget* parent = nullptr);
    enum class View { ladder, together, place };
    void show_view(View view);
    [[nodiscard]] View view() const { return view_; }
    [[nodiscard]] RunMatrix* matrix() { return matrix_; }
    [[nodiscard]] LadderView* ladder() { return ladder_; }
    [[nodiscard]] SizingPanel* sizing() { return sizing_; }
    [[nodiscard]] QTreeWidget* placement() { return placement_; }
    [[nodiscard]] QSpinBox* side_by_side() { return parallel_; }
    [[nodiscard]] QString verdict() const { return verdict_->text(); }

    // It shows the chosen thing itself, on the whole width.
    [[nodiscard]] Surroundings surroundings() const override {
        return {.details = false, .findings_folded = true};
    }
    void entered() override { ladder_->setFocus(); }
    void finish() override;
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* make_ladder();
    QWidget* make_placement();
    void refresh();
    void refresh_ladder();
    void take_ladder();
    // The run that the ladder is of, while the plan is still the one it was worked out for.
    [[nodiscard]] const Run* ladder_run() const;
    void refresh_placement();
    void take_placement();
    void set_size(const WireSize& size);
    void both_ways();
    [[nodiscard]] const Run* chosen_run() const;
    [[nodiscard]] Id chosen_stand() const;

    RunMatrix* matrix_;
    LadderView* ladder_;
    SizingPanel* sizing_;
    QTreeWidget* placement_;
    QLabel *verdict_, *placement_text_;
    QSpinBox* parallel_;
    QToolButton *take_first_, *both_, *pin_;
    QStackedWidget* pages_;
    std::vector<QToolButton*> words_;
    View view_ = View::ladder;
    Id last_run_;
    struct Climbed {  // one run at every size, worked out in a worker
        Id run;
        std::optional<RunLadder> ladder;
    };
    Job<Climbed> climbing_;
    struct Placed {
        Id id;
        std::optional<Placement> placement;
    };
    Job<Placed> placing_;
};

}  // namespace yr::app
