// All runs against all states: what share of its limits each uses in each, what it needs, what decides.
// Sortable; filtered by what decides or by what is too thin.
#pragma once

#include <QComboBox>
#include <QTreeWidget>
#include <map>

#include "document/document.h"
#include "size/run_ladder.h"

namespace yr::app {

class RunMatrix : public QWidget {
    Q_OBJECT

  public:
    explicit RunMatrix(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] QComboBox* filter() { return filter_; }
    // Waits until every run has its verdict, for tests and pictures.
    void finish();
    [[nodiscard]] int shown() const;  // rows that the filter lets through

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    struct Verdict {
        Id beyond;  // a load that no size of this run alone serves; empty: none
        int chosen = -1, now = -1;
        WireSize first = WireSize::awg(10);
        Limit decides = Limit::none;
        bool passes = false;
    };
    using Verdicts = std::map<Id, Verdict>;
    void refresh();
    void begin_verdicts();
    void take_verdicts();
    void fill_states();
    void apply_filter();
    void select_current();

    Document* document_;
    QTreeWidget* table_;
    QLineEdit* words_;
    QComboBox* filter_;
    Job<Verdicts> verdicts_;
    bool stale_ = true, filling_ = false;
};

}  // namespace yr::app
