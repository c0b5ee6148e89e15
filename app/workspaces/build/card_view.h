// One cable as it will look: both ends with lug, hole, angle, cap, shrink and label, and how much is
// stripped.
#pragma once

#include <QWidget>
#include <optional>

#include "document/document.h"
#include "fabricate/wires.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

class CardView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit CardView(Document* document, QWidget* parent = nullptr);
    void show(const std::optional<WireRow>& wire);
    QSize sizeHint() const override { return {260, 150}; }
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void paint_end(QPainter& p, const CableEnd& end, bool left, double y) const;

    Document* document_;
    std::optional<WireRow> wire_;
};

}  // namespace yr::app
