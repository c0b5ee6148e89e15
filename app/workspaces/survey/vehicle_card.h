// The vehicle card: what is there, what of it is known, what is assumed, and how one finds out.
#pragma once

#include <QTreeWidget>

#include "document/document.h"

namespace yr::app {

class VehicleCard : public QTreeWidget {
    Q_OBJECT

  public:
    explicit VehicleCard(Document* document, QWidget* parent = nullptr);
    // What a thing's row says, for tests: "known|assumed".
    [[nodiscard]] QString row_text(const Id& id) const;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    void refresh();
    void add_heading(const QString& text);
    void add_row(const Id& id, const QString& name, const QString& known);

    Document* document_;
    bool filling_ = false;
};

}  // namespace yr::app
