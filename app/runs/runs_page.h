// Runs: how thick must each cable be? All runs by state above; below, by turns: the ladder of the chosen run,
// the whole plan sized at once, and where a box or battery should stand.
#pragma once

#include <QFutureWatcher>
#include <QLabel>
#include <QScrollArea>
#include <QSpinBox>
#include <QStackedWidget>
#include <QToolButton>

#include "runs/ladder_view.h"
#include "runs/run_matrix.h"
#include "runs/sizing_panel.h"
#include "size/placement.h"

namespace yr::app {

class RunsPage : public QWidget {
    Q_OBJECT

  public:
    explicit RunsPage(PlanDocument* document, QWidget* parent = nullptr);
    ~RunsPage() override;
    enum class View { ladder, together, place };
    void show_view(View view);
    [[nodiscard]] View view() const { return view_; }
    [[nodiscard]] RunMatrix* matrix() { return matrix_; }
    [[nodiscard]] LadderView* ladder() { return ladder_; }
    [[nodiscard]] SizingPanel* sizing() { return sizing_; }
    [[nodiscard]] QTreeWidget* placement() { return placement_; }
    [[nodiscard]] QSpinBox* side_by_side() { return parallel_; }
    [[nodiscard]] QString verdict() const { return verdict_->text(); }
    void finish();  // waits for what is being worked out

  signals:
    void said(const QString& text);

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* make_ladder();
    QWidget* make_placement();
    void refresh();
    void refresh_ladder();
    void refresh_placement();
    void take_placement();
    void set_size(const WireSize& size);
    void both_ways();
    [[nodiscard]] const Run* chosen_run() const;
    [[nodiscard]] Id chosen_stand() const;

    PlanDocument* document_;
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
    struct Placed {
        quint64 generation = 0;
        Id id;
        std::shared_ptr<Placement> placement;
    };
    QFutureWatcher<Placed> placing_;
    std::shared_ptr<std::atomic<bool>> stop_;
    std::shared_ptr<Placement> placed_;
};

}  // namespace yr::app
