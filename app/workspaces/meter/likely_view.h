// How likely each kind of fault is before anything is read: the typical weight, and one's own where one knows
// one's vehicles better.
#pragma once

#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "meter/faults.h"

namespace yr::app {

class LikelyView : public QWidget {
    Q_OBJECT

  public:
    explicit LikelyView(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QTreeWidget* table() { return table_; }
    // Typed into the row of that kind; empty: the typical one again. One step that undo takes back.
    void say_weight(FaultKind kind, const QString& text);

    enum Column { what, typical, own, share };

  private:
    Document* document_;
    QTreeWidget* table_;
    bool filling_ = false;
};

}  // namespace yr::app
