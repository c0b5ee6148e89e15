// A box's channels as a small table: amps, amps at a start, the limit they share, the label on the box.
#pragma once

#include <QTableWidget>

#include "document/document.h"

namespace yr::app {

class ChannelTable : public QTableWidget {
    Q_OBJECT

  public:
    enum Column { amps, start, group, label, columns };
    ChannelTable(Document* document, const Id& box, QWidget* parent = nullptr);

  private:
    void refresh();
    void take(int row, int column);
    [[nodiscard]] const Point* box() const;

    Document* document_;
    Id box_;
    bool filling_ = false;
};

}  // namespace yr::app
