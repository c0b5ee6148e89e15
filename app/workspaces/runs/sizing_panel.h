// The whole plan sized at once: what for, under which states, with what is in stock; then what would change,
// what it saves, what binds each run, before and after on the rail, and the price of the next tenths of a
// volt.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QStackedWidget>
#include <QToolButton>
#include <QTreeWidget>

#include "document/document.h"
#include "document/job.h"
#include "inspect/checked_sizing.h"
#include "railchart/rail_chart.h"
#include "workspaces/runs/doubt_list.h"
#include "workspaces/runs/price_curve.h"

namespace yr::app {

class SizingPanel : public QWidget {
    Q_OBJECT

  public:
    explicit SizingPanel(Document* document, QWidget* parent = nullptr);
    void start();
    void stop();
    void finish();  // waits for the answer
    [[nodiscard]] bool running() const { return sizing_.running(); }
    [[nodiscard]] const SizingResult* result() const {
        return answered() ? &(*sizing_.answer())->sizing : nullptr;
    }
    void apply_result();
    [[nodiscard]] DoubtList* doubts() { return doubts_; }
    // 0: the table; 1: before and after on the rail; 2: the price of volts; 3: what to measure first.
    void show_part(int part);
    void price_of(const Id& load);
    void finish_price();
    // What one size less or more of that cable would cost, asked by choosing its row.
    void ask_next(const Id& run);
    void finish_next();
    [[nodiscard]] QString next_text() const { return next_text_->text(); }
    [[nodiscard]] QComboBox* goal() { return goal_; }
    [[nodiscard]] QLineEdit* stock() { return stock_; }
    [[nodiscard]] QCheckBox* fuses() { return fuses_; }
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] QPushButton* apply_button() { return apply_; }
    [[nodiscard]] QString summary() const { return summary_->text(); }
    [[nodiscard]] QString price_text() const { return price_text_->text(); }

  signals:
    void said(const QString& text);

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    [[nodiscard]] QHBoxLayout* make_head();
    [[nodiscard]] QHBoxLayout* make_summary();
    [[nodiscard]] QWidget* make_table();
    [[nodiscard]] QWidget* make_sides();
    [[nodiscard]] QWidget* make_price();
    [[nodiscard]] bool answered() const { return sizing_.answer() && sizing_.answer()->has_value(); }
    [[nodiscard]] SizingAsk ask() const;
    void take();
    void take_price();
    void take_next();
    void fill();
    void draw_sides();
    void take_stock();
    void refresh_stock();
    void fill_anew();
    bool stale_ = true;  // the plan has changed since it was filled
    void fill_states_menu();

    Document* document_;
    QComboBox *goal_, *price_load_;
    QCheckBox* fuses_;
    QLineEdit* stock_;
    QToolButton* states_;
    QPushButton *run_, *apply_;
    QProgressBar* progress_;
    QLabel *summary_, *price_text_, *next_text_;
    QStackedWidget* parts_;
    QTreeWidget* table_;
    PriceCurve* curve_;
    DoubtList* doubts_;
    std::vector<QToolButton*> words_;
    ShownCircuit before_, after_;
    RailChart *before_chart_, *after_chart_;
    QStringList unchecked_states_;

    struct Prices {
        Id load;
        SizingGoal goal = SizingGoal::mass;
        std::vector<PricePoint> points;
    };
    Job<Result<CheckedSizing>> sizing_;
    Job<Prices> pricing_;
    Job<std::optional<NextSizes>> next_;
    SizingGoal asked_goal_ = SizingGoal::mass;  // of the sizing that runs or is shown
};

}  // namespace yr::app
