// What should be measured before anything is ordered: of all that the plan takes for granted, what flips a
// size, a fuse or a verdict. Worked out beside the interface, on a click.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "document/job.h"
#include "inspect/doubts.h"

namespace yr::app {

class DoubtList : public QWidget {
    Q_OBJECT

  public:
    explicit DoubtList(Document* document, QWidget* parent = nullptr);
    void start();
    void finish();
    [[nodiscard]] const Doubts* doubts() const { return job_.answer(); }
    [[nodiscard]] QTreeWidget* list() { return list_; }
    [[nodiscard]] QString summary() const { return summary_->text(); }

  private:
    void fill();

    Document* document_;
    QLabel* summary_;
    QPushButton* run_;
    QTreeWidget* list_;
    Job<Doubts> job_;
};

}  // namespace yr::app
