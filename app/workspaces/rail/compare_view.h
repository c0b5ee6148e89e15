// Two options of the plan side by side: their rail charts on one scale, and all options on the numbers that
// decide.
#pragma once

#include <QComboBox>
#include <QTreeWidget>

#include "document/job.h"
#include "inspect/compare.h"
#include "railchart/rail_chart.h"

namespace yr::app {

class CompareView : public QWidget {
    Q_OBJECT

  public:
    explicit CompareView(Document* document, QWidget* parent = nullptr);
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

    Document* document_;
    ShownCircuit left_, right_;
    Job<std::vector<OptionResult>> measured_;
    RailChart *left_chart_, *right_chart_;
    QComboBox *left_box_, *right_box_;
    QTreeWidget* table_;
};

}  // namespace yr::app
