#include "workspaces/place/place_labels.h"

#include <QLineF>
#include <algorithm>
#include <cmath>

namespace yr::app {
namespace {

// All in pixels of way that one would go rather.
constexpr double kHidesDot_px = 14;
constexpr double kLed_px = 6;        // a line at all
constexpr double kCrosses_px = 30;   // a line through another's name, or a name upon a line
constexpr double kFarthest_px = 96;  // farther from its thing a name says nothing
constexpr int kRows = 8;             // half rows tried upwards and downwards

bool crosses(const QPointF& a, const QPointF& b, const QRectF& r) {
    const QLineF line(a, b);
    const std::pair<QPointF, QPointF> sides[] = {{r.topLeft(), r.topRight()},
                                                 {r.topRight(), r.bottomRight()},
                                                 {r.bottomRight(), r.bottomLeft()},
                                                 {r.bottomLeft(), r.topLeft()}};
    return std::any_of(std::begin(sides), std::end(sides), [&](const auto& s) {
        return line.intersects(QLineF(s.first, s.second), nullptr) == QLineF::BoundedIntersection;
    });
}

}  // namespace

QPointF lead_end(const QPointF& at, const QRectF& rect) {
    return {std::clamp(at.x(), rect.left() + 4, rect.right() - 4),
            std::clamp(at.y(), rect.top(), rect.bottom())};
}

// Empty: not there.
std::optional<double> LabelRoom::price(const QPointF& at, const QRectF& rect) const {
    const QRectF around = rect.adjusted(-3, -2, 3, 2);
    for (const QRectF& r : clear_)
        if (r.intersects(around)) return std::nullopt;
    const QPointF end = lead_end(at, rect);
    const double away = QLineF(at, end).length();
    if (away > kFarthest_px) return std::nullopt;
    // of two as near the one whose middle is nearer
    double price = away + 0.05 * QLineF(at, rect.center()).length();
    for (const Spared& s : spared_)  // its own dot it may cover
        if (s.rect.intersects(rect) && !s.rect.contains(at)) price += s.worth * kHidesDot_px;
    for (const Lead& l : leads_)
        if (crosses(l.from, l.to, rect)) price += kCrosses_px;
    if (away <= 0) return price;
    price += kLed_px;
    for (const QRectF& r : clear_)
        if (crosses(at, end, r)) price += kCrosses_px;
    return price;
}

std::optional<PlacedLabel> LabelRoom::place(const QPointF& at, const QSizeF& size) {
    std::optional<PlacedLabel> best;
    double least = 0;
    const double half = size.height() / 2 + 1;
    for (int row = -kRows; row <= kRows; ++row)
        for (const double along : {0.0, -0.5, 0.5, -1.0, 1.0}) {
            QRectF rect(QPointF(), size);
            rect.moveCenter(at + QPointF(along * (size.width() + 14), row * half));
            rect.moveLeft(std::clamp(rect.left(), within_.left(),
                                     std::max(within_.left(), within_.right() - size.width())));
            if (rect.top() < within_.top() || rect.bottom() > within_.bottom()) continue;
            const auto there = price(at, rect);
            if (there && (!best || *there < least)) least = *there, best = {rect, !rect.contains(at)};
        }
    if (!best) return best;
    clear_.push_back(best->rect);
    if (best->led) leads_.push_back({at, lead_end(at, best->rect)});
    return best;
}

}  // namespace yr::app
