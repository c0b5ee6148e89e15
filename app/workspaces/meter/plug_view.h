// A loom proved with a coded end plug: a resistor a pin, one ohm reading each, typed in place.
#pragma once

#include <QComboBox>
#include <QTreeWidget>
#include <QWidget>
#include <map>

#include "document/document.h"
#include "fabricate/harness.h"
#include "meter/coded_plug.h"

namespace yr::app {

class PlugView : public QWidget {
    Q_OBJECT

  public:
    explicit PlugView(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] QComboBox* choice() { return choice_; }
    [[nodiscard]] const std::vector<EndPlug>& plugs() const { return plugs_; }
    // Nullptr: the plan has no loom and no connector of two cables or more.
    [[nodiscard]] const EndPlug* plug() const;
    [[nodiscard]] std::size_t done() const;
    [[nodiscard]] std::size_t wrong() const { return wrong_; }
    void read(std::size_t row, const QString& ohms);

    enum Column { pin, cable, colour, ends, resistor, ohms, is };

  signals:
    void changed();

  private:
    void fill();

    Document* document_;
    QComboBox* choice_;
    QTreeWidget* table_;
    std::vector<EndPlug> plugs_;
    std::map<std::pair<std::string, Id>, double> read_ohm_;  // plug's name, run
    std::size_t wrong_ = 0;
    bool filling_ = false;
};

}  // namespace yr::app
