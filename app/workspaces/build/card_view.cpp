#include "workspaces/build/card_view.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>

#include "widgets/tokens.h"
#include "words/build_words.h"
#include "words/sentences.h"

namespace yr::app {

CardView::CardView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFixedHeight(150);
    setAccessibleName(say("The cable as it will look"));
}

void CardView::show(const std::optional<WireRow>& wire) {
    wire_ = wire;
    update();
}

// Drawn pointing to the left; the right one is its mirror.
void CardView::paint_end(QPainter& p, const CableEnd& e, bool left, double y) const {
    const Tokens& t = tokens();
    p.save();
    if (!left) p.translate(width(), 0), p.scale(-1, 1);
    const Run& run = document_->plan().runs[wire_->run];
    const auto wire = conductor(run.size.value_or(WireSize::awg(14)), run.material);
    const double thick = std::clamp((wire ? wire->outer_diameter_mm : 4) * 1.3, 5.0, 24.0);
    const double x0 = 14, barrel = 34;
    const QColor cover = wire_->colour == "red" ? t.stop : wire_->colour == "black" ? t.ink : t.supply[0];
    p.setPen(Qt::NoPen);
    p.setBrush(cover);
    p.drawRect(QRectF(x0 + barrel + 26, y - thick / 2, width() / 2.0 - x0 - barrel - 26, thick));
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.paper);
    switch (e.kind) {
        case EndKind::ring: {
            p.save();
            p.translate(x0 + barrel, y);
            p.rotate(e.angle_deg);  // as it will be bent
            p.drawRect(QRectF(-10, -thick / 3, 12, thick * 2 / 3));
            p.drawEllipse(QPointF(-22, 0), 14, 14);
            p.setBrush(t.panel);
            p.drawEllipse(QPointF(-22, 0), 6, 6);
            p.restore();
            break;
        }
        case EndKind::blade:
            p.drawRect(QRectF(x0 + 4, y - 7, barrel - 4, 14));
            p.drawLine(QPointF(x0 + 12, y), QPointF(x0 + barrel, y));
            break;
        case EndKind::ferrule:
        case EndKind::pin:
            p.drawRect(QRectF(x0 + 6, y - 3, barrel - 6, 6));
            break;
        case EndKind::splice:
            p.drawRoundedRect(QRectF(x0 + 2, y - thick / 2, barrel, thick), 4, 4);
            break;
        case EndKind::bare:
        case EndKind::by_choice:
            for (int k = -1; k <= 1; ++k)
                p.drawLine(QPointF(x0 + 10, y + 3 * k), QPointF(x0 + barrel, y + 2 * k));
            break;
    }
    p.setBrush(Qt::NoBrush);
    if (e.kind != EndKind::bare && e.kind != EndKind::blade)
        p.drawRect(QRectF(x0 + barrel, y - thick / 2.4, 14, thick / 1.2));  // barrel
    if (e.shrink_mm > 0) {
        p.setBrush(QBrush(t.ink, Qt::Dense4Pattern));
        p.drawRect(QRectF(x0 + barrel + 12, y - thick / 2 - 2, e.doubled ? 40 : 26, thick + 4));
    }
    if (e.boot) {
        p.setBrush(t.stop);
        p.drawRoundedRect(QRectF(x0 + barrel + 44, y - thick / 2 - 4, 16, thick + 8), 4, 4);
    }
    p.restore();
}

void CardView::paintEvent(QPaintEvent*) {
    if (!wire_) return;
    const Tokens& t = tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setFont(type_font(Type::small));
    p.setPen(t.ink);
    const double half = width() / 2.0;
    const auto text = [&](bool left, const QString& words, double y) {
        p.drawText(QRectF(left ? 2 : half + 2, y, half - 4, 40),
                   (left ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignTop | Qt::TextWordWrap, words);
    };
    text(true, q(words::terminal(document_->plan(), wire_->from.at)), 0);
    text(false, q(words::terminal(document_->plan(), wire_->to.at)), 0);
    paint_end(p, wire_->from, true, 66);
    paint_end(p, wire_->to, false, 66);
    p.setPen(t.soft);
    text(true, q(words::end_text(wire_->from)), 96);
    text(false, q(words::end_text(wire_->to)), 96);
}

std::vector<SpokenPart> CardView::spoken_parts() const {
    if (!wire_) return {};
    return {{QRect(0, 0, width() / 2, height()), q(words::terminal(document_->plan(), wire_->from.at)),
             q(words::end_text(wire_->from))},
            {QRect(width() / 2, 0, width() / 2, height()),
             q(words::terminal(document_->plan(), wire_->to.at)), q(words::end_text(wire_->to))}};
}

}  // namespace yr::app

#include "moc_card_view.cpp"
