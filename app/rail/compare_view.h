// Two options of the plan side by side: their rail charts on one scale, and all options on the numbers that
// decide.
#pragma once

#include <QComboBox>
#include <QFutureWatcher>
#include <QTreeWidget>

#include "inspect/compare.h"
#include "rail/rail_chart.h"

namespace yr::app {

class CompareView : public QWidget {
    Q_OBJECT

  public:
    explicit CompareView(PlanDocument* document, QWidget* parent = nullptr);
    ~CompareView() override;
    void finish();  // waits for the table, for pictures and tests
    [[nodiscard]] RailChart* left() { return left_chart_; }
    [[nodiscard]] RailChart* right() { return right_chart_; }
    [[nodiscard]] QTreeWidget* table() { return table_; }
    void choose(const Id& left, const Id& right);
    void refresh();

  protected:
    void showEvent(QShowEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void fill_choices();
    void measure();  // in a worker: every option is solved in every state
    void fill_table();
    void draw();
    void open_side(PlanDocument& side, const Id& variant);

    PlanDocument* document_;
    PlanDocument left_, right_;
    QFutureWatcher<std::vector<OptionResult>> measured_;
    bool measure_again_ = false;
    RailChart *left_chart_, *right_chart_;
    QComboBox *left_box_, *right_box_;
    QTreeWidget* table_;
};

}  // namespace yr::app
