// `All states`: each load and each run in its worst state, as two short tables. A click selects; a double
// click goes to that state.
#pragma once

#include <QTreeWidget>

#include "document/document.h"

namespace yr::app {

class WorstView : public QWidget {
    Q_OBJECT

  public:
    explicit WorstView(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] QTreeWidget* loads() { return loads_; }
    [[nodiscard]] QTreeWidget* runs() { return runs_; }
    void refresh();

  signals:
    void state_asked(const Id& state);

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QTreeWidget* make_table(const QStringList& heads, const QString& name);
    void fill_loads();
    void fill_runs();

    Document* document_;
    QTreeWidget *loads_, *runs_;
    bool filling_ = false;
};

}  // namespace yr::app
