// The fault study as a table: a short at every far end and behind every fuse, worst first; bolted or through
// some milliohms, in one state or in the worst.
#pragma once

#include <QComboBox>
#include <QFutureWatcher>
#include <QLabel>
#include <QTreeWidget>
#include <atomic>
#include <memory>

#include "guard/fault_study.h"
#include "shell/document.h"

namespace yr::app {

class FaultTable : public QWidget {
    Q_OBJECT

  public:
    explicit FaultTable(PlanDocument* document, QWidget* parent = nullptr);
    ~FaultTable() override;
    void finish();
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] QComboBox* through() { return through_; }
    [[nodiscard]] QComboBox* which() { return which_; }
    [[nodiscard]] const std::shared_ptr<FaultStudy>& study() const { return study_; }
    [[nodiscard]] QString summary() const { return summary_->text(); }

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    void begin();
    void take();
    void fill();
    PlanDocument* document_;
    QTreeWidget* table_;
    QComboBox *through_, *which_;
    QLabel* summary_;
    struct Studied {
        quint64 generation = 0;
        std::shared_ptr<FaultStudy> study;
    };
    QFutureWatcher<Studied> watcher_;
    std::shared_ptr<std::atomic<bool>> stop_;
    std::shared_ptr<FaultStudy> study_;
    bool stale_ = true;
};

}  // namespace yr::app
