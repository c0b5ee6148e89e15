// Where names stand in the picture of Place: each as near to its thing as there is room, never over another
// name nor over a passage, over other things' dots only where nothing else is left. No painting here.
#pragma once

#include <QPointF>
#include <QRectF>
#include <optional>
#include <vector>

namespace yr::app {

struct PlacedLabel {
    QRectF rect;
    bool led = false;  // it does not cover its thing: a line leads there
};

class LabelRoom {
  public:
    explicit LabelRoom(const QRectF& within) : within_(within) {}

    void keep_clear(const QRectF& rect) { clear_.push_back(rect); }  // no name comes there
    void spare(const QRectF& rect, double worth = 1) {
        spared_.push_back({rect, worth});
    }  // nor there, if it need not

    // For a name of that size at that point; it is kept clear from then on. Empty: there is no room near it.
    [[nodiscard]] std::optional<PlacedLabel> place(const QPointF& at, const QSizeF& size);

  private:
    struct Spared {
        QRectF rect;
        double worth;
    };
    struct Lead {
        QPointF from, to;
    };
    [[nodiscard]] std::optional<double> price(const QPointF& at, const QRectF& rect) const;

    QRectF within_;
    std::vector<QRectF> clear_;
    std::vector<Spared> spared_;
    std::vector<Lead> leads_;
};

// Where the line from a thing meets its name.
[[nodiscard]] QPointF lead_end(const QPointF& at, const QRectF& rect);

}  // namespace yr::app
