#include "workspaces/runs/price_curve.h"

#include <QPainter>
#include <algorithm>

#include "text/say.h"
#include "widgets/tokens.h"
#include "words/guard_words.h"

namespace yr::app {

PriceCurve::PriceCurve(QWidget* parent) : QWidget(parent) {
    setMinimumHeight(140);
}

void PriceCurve::show_points(std::vector<PricePoint> points, SizingGoal goal, const words::Style& style) {
    points_ = std::move(points);
    goal_ = goal;
    style_ = style;
    update();
}

void PriceCurve::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    std::vector<PricePoint> known;
    for (const PricePoint& x : points_)
        if (x.cost) known.push_back(x);
    p.setFont(type_font(Type::small));
    if (known.size() < 2) return;
    double low = 1e300, high = -1e300;
    for (const PricePoint& x : known) low = std::min(low, *x.cost), high = std::max(high, *x.cost);
    const double span = std::max(high - low, 1e-9);
    const QRectF area = QRectF(rect()).adjusted(90, 14, -30, -34);
    const double right_V = known.front().limit_V, left_V = points_.back().limit_V;
    const auto x_of = [&](double v) {
        return area.left() + (v - left_V) / std::max(right_V - left_V, 1e-9) * area.width();
    };
    const auto y_of = [&](double c) { return area.bottom() - (c - low) / span * area.height(); };
    p.setPen(t.line);
    p.drawLine(area.bottomLeft(), area.bottomRight());
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(t.ret[1], 2.5));
    for (std::size_t k = 1; k < known.size(); ++k)
        p.drawLine(QPointF(x_of(known[k - 1].limit_V), y_of(*known[k - 1].cost)),
                   QPointF(x_of(known[k].limit_V), y_of(*known[k].cost)));
    for (const PricePoint& x : points_) {
        p.setPen(t.soft);
        p.drawText(QRectF(x_of(x.limit_V) - 30, area.bottom() + 4, 60, 16), Qt::AlignCenter,
                   q(words::quantity(x.limit_V, Dimension::voltage, style_)));
        if (!x.cost) {
            p.setPen(t.fix);
            p.drawText(QRectF(x_of(x.limit_V) - 36, area.center().y(), 90, 16), Qt::AlignLeft, say("▲ none"));
            continue;
        }
        p.setPen(Qt::NoPen);
        p.setBrush(t.ret[0]);
        p.drawRect(QRectF(x_of(x.limit_V) - 4, y_of(*x.cost) - 4, 8, 8));
        p.setPen(t.ink);
        p.drawText(QRectF(x_of(x.limit_V) - 34, y_of(*x.cost) - 21, 68, 16), Qt::AlignCenter,
                   q(words::cost_text(*x.cost, goal_, style_)));
    }
    p.setPen(t.soft);
    p.drawText(QRectF(area.left(), area.bottom() + 18, area.width(), 16), Qt::AlignCenter,
               say("volts that this load may lose"));
}

}  // namespace yr::app
