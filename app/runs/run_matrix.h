// All runs against all states: what share of its limits each uses in each, what it needs, what decides.
// Sortable; filtered by what decides or by what is too thin.
#pragma once

#include <QComboBox>
#include <QFutureWatcher>
#include <QTreeWidget>
#include <atomic>
#include <memory>

#include "shell/document.h"
#include "size/run_ladder.h"

namespace yr::app {

class RunMatrix : public QWidget {
    Q_OBJECT

  public:
    explicit RunMatrix(PlanDocument* document, QWidget* parent = nullptr);
    ~RunMatrix() override;
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] QComboBox* filter() { return filter_; }
    // Waits until every run has its verdict, for tests and pictures.
    void finish();
    [[nodiscard]] int shown() const;  // rows that the filter lets through

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    struct Verdict {
        int chosen = -1, now = -1;
        WireSize first = WireSize::awg(10);
        Limit decides = Limit::none;
        bool passes = false;
    };
    struct Verdicts {
        quint64 generation = 0;
        std::map<Id, Verdict> by_run;
    };
    void refresh();
    void begin_verdicts();
    void take_verdicts();
    void fill_states();
    void apply_filter();
    void select_current();

    PlanDocument* document_;
    QTreeWidget* table_;
    QComboBox* filter_;
    QFutureWatcher<Verdicts> watcher_;
    std::shared_ptr<std::atomic<bool>> stop_;
    Verdicts verdicts_;
    bool stale_ = true, filling_ = false;
};

}  // namespace yr::app
