// Rail: the supply as one picture. The chart of the shown circuit; by turns each load and run in its worst
// state, or two options side by side.
#pragma once

#include <QStackedWidget>
#include <QToolButton>

#include "railchart/rail_chart.h"
#include "workspaces/rail/compare_view.h"
#include "workspaces/rail/worst_view.h"
#include "workspaces/workspace.h"

namespace yr::app {

class RailPage : public Workspace {
    Q_OBJECT

  public:
    explicit RailPage(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] RailChart* chart() { return chart_; }
    [[nodiscard]] WorstView* worst() { return worst_; }
    [[nodiscard]] CompareView* compare() { return compare_; }

    [[nodiscard]] Surroundings surroundings() const override {
        return {.details_over = true, .findings_folded = pages_->currentIndex() == 1};
    }
    [[nodiscard]] QRect where_is(const Id& id) const override;
    [[nodiscard]] QString numbers() const override;
    void entered() override;
    void plan_opened() override { chart_->look_at_all(); }
    void finish() override;
    [[nodiscard]] std::vector<WorkspaceView> views() const override;
    bool open_view(const QString& key) override;
    [[nodiscard]] QString open_view() const override;
    [[nodiscard]] QWidget* corner() override { return whole_; }
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  private:
    void show_corner();
    void hover(const Id& id);

    RailChart* chart_;
    WorstView* worst_;
    CompareView* compare_;
    QStackedWidget* pages_;
    QToolButton* whole_;
};

}  // namespace yr::app
