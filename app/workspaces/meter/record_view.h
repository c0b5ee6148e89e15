// The record of the vehicle beside its plan: lines as they were added, and what drifted since.
#pragma once

#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "meter/records.h"

namespace yr::app {

class RecordView : public QWidget {
    Q_OBJECT

  public:
    explicit RecordView(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QTreeWidget* lines() { return lines_; }
    [[nodiscard]] const RecordBook& book() const { return book_; }
    [[nodiscard]] QString problem() const { return problem_; }
    [[nodiscard]] std::vector<Drift> drifted() const;
    // Adds a line to the file, or says why it cannot. False: it is not kept.
    bool add(Record record);
    [[nodiscard]] QString path() const;  // empty: the plan was never saved

  private:
    Document* document_;
    QTreeWidget* lines_;
    RecordBook book_;
    QString problem_;
};

}  // namespace yr::app
