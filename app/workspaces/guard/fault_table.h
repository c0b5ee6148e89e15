// The fault study as a table: a short at every far end and behind every fuse, worst first; bolted or through
// some milliohms, in one state or in the worst.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QTreeWidget>

#include "document/document.h"
#include "guard/fault_study.h"

namespace yr::app {

class FaultTable : public QWidget {
    Q_OBJECT

  public:
    explicit FaultTable(Document* document, QWidget* parent = nullptr);
    void finish();
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] QComboBox* through() { return through_; }
    [[nodiscard]] QComboBox* which() { return which_; }
    [[nodiscard]] const FaultStudy* study() const { return study_.answer(); }
    [[nodiscard]] QString summary() const { return summary_->text(); }

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    void begin();
    void fill();
    Document* document_;
    QTreeWidget* table_;
    QLineEdit* words_;
    QComboBox *through_, *which_;
    QLabel* summary_;
    Job<FaultStudy> study_;
    bool stale_ = true;
};

}  // namespace yr::app
