// What empties it at rest: millivolts across each fuse, typed in place, as amps; and which fuses to pull
// where millivolts cannot be read.
#pragma once

#include <QComboBox>
#include <QTreeWidget>
#include <QWidget>
#include <map>

#include "document/document.h"
#include "meter/parasitic.h"

namespace yr::app {

class RestView : public QWidget {
    Q_OBJECT

  public:
    explicit RestView(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] const std::vector<FuseCurrent>& currents() const { return currents_; }
    [[nodiscard]] Id state() const;
    void read(const Id& fuse, const QString& millivolts);
    // Amps that were read and the plan does not have in that state, most first.
    [[nodiscard]] std::vector<FuseCurrent> unplanned() const;

    enum Column { fuse, planned, millivolts, amps, least };

  signals:
    void changed();

  private:
    void fill();

    Document* document_;
    QComboBox* state_;
    QTreeWidget* table_;
    std::map<Id, double> read_mV_;
    std::vector<FuseCurrent> currents_;
    bool filling_ = false;
};

}  // namespace yr::app
