// A wire that nobody labelled: what it shows as the key is turned and disconnects are opened, typed in place;
// what it is, and which cable of the plan it can be.
#pragma once

#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "meter/unknown_wire.h"

namespace yr::app {

class WireView : public QWidget {
    Q_OBJECT

  public:
    explicit WireView(Document* document, QWidget* parent = nullptr);
    void refresh();
    void begin_anew();
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] const WireBook& book() const { return book_; }
    [[nodiscard]] const WireVerdict& verdict() const { return verdict_; }
    [[nodiscard]] bool any_read() const;
    void read(std::size_t attempt, const QString& volts);

    enum Column { what, volts, leaves };

  signals:
    void changed();

  private:
    void fill();

    Document* document_;
    QTreeWidget* table_;
    WireBook book_;
    WireVerdict verdict_;
    std::vector<std::pair<WireTry, double>> read_;
    std::optional<quint64> book_of_;  // the plan's generation that the book was solved for
    bool filling_ = false;
};

}  // namespace yr::app
