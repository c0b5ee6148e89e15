// How Place is painted: rooms, ways, passages, plates, what is dragged, the map.
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "routes/net.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "workspaces/place/place_labels.h"
#include "workspaces/place/place_view.h"

namespace yr::app {

void PlaceView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), tokens().paper);
    paint_picture(p);
    paint_rooms(p);
    if (map_) paint_map(p);
    paint_ways(p);
    paint_side(p);
    paint_plates(p);
    paint_passages(p);
    if (map_) paint_best(p);
    if (dragging_ || !pulled_.empty()) paint_dragged(p);
    if (document_->plan().ways.empty()) paint_empty(p);
    if (hasFocus()) {
        p.setRenderHint(QPainter::Antialiasing, false);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(tokens().soft, 1, Qt::DotLine));
        p.drawRect(rect().adjusted(0, 0, -1, -1));
    }
}

void PlaceView::paint_picture(QPainter& p) const {
    const Vehicle& v = document_->plan().vehicle;
    if (picture_.isNull()) return;
    const double m = v.picture_m.value_or(scene_.top.width() / scene_.px_per_m / picture_.width());
    const OutlineShape shape = shape_of(v);
    const QPointF corner = scene_.from_above(
        {v.picture_x_m.value_or(shape.front_x()), v.picture_y_m.value_or(shape.wide_m / 2), 0});
    p.setOpacity(0.55);
    p.drawPixmap(QRectF(corner, QSizeF(picture_.width() * m, picture_.height() * m) * scene_.px_per_m),
                 picture_, QRectF(picture_.rect()));
    p.setOpacity(1);
}

// Warmer air, warmer paper; what cables keep clear of is hatched.
void PlaceView::paint_rooms(QPainter& p) const {
    const Tokens& t = tokens();
    p.setPen(QPen(t.ink, 1.5));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(scene_.body);
    p.setFont(type_font(Type::small));
    const QFontMetricsF small(p.font());
    for (const RoomShape& r : scene_.rooms) {
        if (r.hazard) {
            QColor c = t.stop;
            c.setAlpha(150);
            p.fillRect(r.rect, QBrush(c, Qt::BDiagPattern));
            p.setPen(QPen(c, 1));
            p.drawRect(r.rect);
            p.setPen(t.stop);
            p.drawText(QPointF(r.rect.left(), r.rect.bottom() + small.ascent() + 1), r.name);
            continue;
        }
        QColor warm = t.source;
        if (r.above) {  // what lies under it stays to be seen
            p.setPen(QPen(t.soft, 1, Qt::DotLine));
            p.setBrush(Qt::NoBrush);
            p.drawRect(r.rect);
        }
        warm.setAlphaF(static_cast<float>(std::clamp((r.air_C - 15) / 160, 0.03, 0.5)));
        if (!r.above) {
            p.fillRect(r.rect, warm);
            p.setPen(QPen(t.line, 1));
            p.drawRect(r.rect);
        }
        p.setPen(t.soft);
        const double air = small.horizontalAdvance(r.air) + 10;
        const QRectF line = words_of(r);
        p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
                   small.elidedText(r.name, Qt::ElideRight, std::max(20.0, line.width() - air)));
        if (line.width() > air + 24) p.drawText(line, Qt::AlignRight | Qt::AlignVCenter, r.air);
    }
}

// Green where the cables weigh least, earth where they weigh most; best five numbered.
void PlaceView::paint_map(QPainter& p) const {
    const Tokens& t = tokens();
    double least = 1e18, most = 0;
    for (const StandSpot& s : map_->spots)
        if (s.allowed) least = std::min(least, s.kg), most = std::max(most, s.kg);
    const double cell = map_->step_m * scene_.px_per_m - 1;
    for (const StandSpot& s : map_->spots) {
        const QRectF r(scene_.from_above(s.spot) - QPointF(cell / 2, cell / 2), QSizeF(cell, cell));
        if (!s.allowed) {
            p.fillRect(r, QBrush(t.line, Qt::DiagCrossPattern));
            continue;
        }
        const double share = most > least ? (s.kg - least) / (most - least) : 0;
        QColor c = share < 0.5 ? t.good : t.source;
        c.setAlphaF(static_cast<float>(share < 0.5 ? 0.65 - share : 0.1 + (share - 0.5) * 0.9));
        p.fillRect(r, c);
    }
}

void PlaceView::paint_best(QPainter& p) const {
    const Tokens& t = tokens();
    p.setFont(type_font(Type::bold));
    for (std::size_t k = 0; k < map_->best.size(); ++k) {
        const QPointF at = scene_.from_above(map_->spots[map_->best[k]].spot);
        p.setPen(QPen(t.good, 2));
        p.setBrush(t.paper);
        p.drawEllipse(at, 10, 10);
        p.setPen(t.ink);
        p.drawText(QRectF(at - QPointF(10, 10), QSizeF(20, 20)), Qt::AlignCenter, QString::number(k + 1));
    }
}

const Run* PlaceView::chosen_run() const {
    return yr::find(document_->plan().runs, document_->selection().id());
}

void PlaceView::paint_ways(QPainter& p) const {
    const Tokens& t = tokens();
    const auto pen = [&](const RibbonShape& r, double wider) {
        const QColor c = r.px <= 0      ? t.line
                         : r.used > 0.8 ? t.supply[0]
                         : r.used > 0.4 ? t.supply[1]
                                        : t.supply[2];
        return QPen(c, std::max(1.2, r.px) + wider, r.px <= 0 ? Qt::DashLine : Qt::SolidLine, Qt::RoundCap);
    };
    for (const RibbonShape& r : scene_.ribbons) {
        p.setPen(pen(r, 0));
        p.drawLine(r.from, r.to);
        if (r.hot && r.px > 0) {
            p.setPen(QPen(t.stop, std::min(3.0, r.px / 2), Qt::DotLine, Qt::FlatCap));
            p.drawLine(r.from, r.to);
        }
        if (way_ == r.way) {
            p.setPen(QPen(t.source, 2.5));
            const QLineF l(r.from, r.to);
            const QLineF n = l.normalVector().unitVector();
            const QPointF off = (n.p2() - n.p1()) * (r.px / 2 + 3);
            p.drawLine(r.from + off, r.to + off), p.drawLine(r.from - off, r.to - off);
        }
    }
    // the last stretch of each cable, from the ways to its thing; all of what is chosen
    const Id& chosen = document_->selection().id();
    const Plan& plan = document_->plan();
    for (std::size_t k = 0; k < routes_.by_run.size() && k < plan.runs.size(); ++k) {
        if (!routes_.by_run[k]) continue;
        const Run& run = plan.runs[k];
        const bool own = run.id == chosen || run.from.owner == chosen || run.to.owner == chosen;
        for (const Leg& leg : routes_.by_run[k]->path.legs) {
            if (leg.way && !own) continue;
            QColor thin = t.supply[2];
            thin.setAlpha(110);
            p.setPen(QPen(own ? t.source : thin, own ? 3 : 1));
            p.drawLine(scene_.from_above(leg.from), scene_.from_above(leg.to));
            if (own) p.drawLine(scene_.from_side(leg.from), scene_.from_side(leg.to));
        }
    }
}

void PlaceView::paint_passages(QPainter& p) const {
    const Tokens& t = tokens();
    p.setFont(type_font(Type::small));
    for (const PassageShape& s : scene_.passages) {
        const bool chosen = document_->plan().waypoints[s.waypoint].id == waypoint_;
        if (!s.passage) {
            p.setPen(Qt::NoPen);
            p.setBrush(chosen ? t.source : t.soft);
            p.drawEllipse(s.at, chosen ? 5 : 2.5, chosen ? 5 : 2.5);
            continue;
        }
        for (const QPointF& at : {s.at, s.side}) {
            p.setPen(QPen(s.too_full ? t.fix : t.ink, chosen ? 3 : 1.6));
            p.setBrush(t.paper);
            p.drawEllipse(at, 7, 7);
        }
        if (s.label.isEmpty() || !(s.told || chosen)) continue;
        const QString text = s.too_full ? s.label + QStringLiteral(" ▲") : s.label;
        QColor under = t.paper;
        under.setAlpha(215);
        p.fillRect(s.words, under);
        p.setPen(s.too_full ? t.fix : t.ink);
        p.drawText(s.words, Qt::AlignCenter, text);
    }
}

void PlaceView::paint_plates(QPainter& p) const {
    const Tokens& t = tokens();
    p.setFont(type_font(Type::small));
    const Id& chosen = document_->selection().id();
    for (const PlateShape& s : scene_.plates) {  // names come over all dots
        const bool own = s.thing == chosen;
        p.setPen(QPen(own ? t.source : t.ink, own && s.led ? 2 : s.led ? 0.8 : 1));
        if (s.led) p.drawLine(s.at, lead_end(s.at, s.rect));
        p.setBrush(s.led ? t.ink : t.panel);
        if (s.led || !s.named) p.drawEllipse(s.at, s.led ? 3.5 : 4, s.led ? 3.5 : 4);
    }
    for (const PlateShape& s : scene_.plates) {
        const bool own = s.thing == chosen;
        if (!s.named && !own) continue;
        QRectF r = s.rect;
        if (!s.named) {
            const double w = QFontMetricsF(p.font()).horizontalAdvance(s.name) + 14;
            r = QRectF(s.at - QPointF(w / 2, 12), QSizeF(w, 24));
        }
        p.setPen(QPen(own ? t.source : t.ink, own ? 2.5 : 1.1));
        p.setBrush(own ? t.ink : t.paper);
        p.drawRoundedRect(r, 4, 4);
        p.setPen(own ? t.paper : t.ink);
        p.drawText(r, Qt::AlignCenter, s.name);
        if (s.severity && *s.severity <= Severity::fix) {
            p.setPen(*s.severity == Severity::stop ? t.stop : t.fix);
            p.drawText(QRectF(r.right() - 6, r.top() - 9, 14, 14), Qt::AlignCenter,
                       QString::fromUtf8(words::mark(*s.severity)));
        }
    }
}

void PlaceView::paint_side(QPainter& p) const {
    const Tokens& t = tokens();
    p.setFont(type_font(Type::bold));
    p.setPen(t.ink);
    p.drawText(QPointF(scene_.side.left(), scene_.side.top() - 10), say("From the side"));
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(scene_.side.left() - 10, scene_.ground_y),
               QPointF(scene_.side.right() + 10, scene_.ground_y));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 1.5));
    p.drawPolygon(scene_.body_side);
    p.setBrush(t.paper);
    for (const QPointF& w : scene_.wheels) p.drawEllipse(w, scene_.wheel_px, scene_.wheel_px);
    for (const RibbonShape& r : scene_.ribbons) {
        if (r.px <= 0) continue;
        p.setPen(QPen(way_ == r.way ? t.source : t.supply[r.used > 0.4 ? 1 : 2], std::min(r.px, 6.0)));
        p.drawLine(r.side_from, r.side_to);
    }
    for (const PlateShape& s : scene_.plates) {
        const bool own = s.thing == document_->selection().id();
        p.setPen(QPen(own ? t.source : t.ink, own ? 2 : 1));
        p.setBrush(own ? t.ink : t.paper);
        p.drawRect(QRectF(s.side - QPointF(4, 3), QSizeF(8, 6)));
    }
}

// The things and cables that move, over the rest.
void PlaceView::paint_dragged(QPainter& p) const {
    const Tokens& t = tokens();
    if (!pulled_.empty()) {
        p.setPen(QPen(t.source, 3, Qt::DashLine));
        p.drawLine(press_, mouse_);
        return;
    }
    if (!dragged_to_) return;
    p.setPen(QPen(t.source, 2, Qt::DashLine));
    if (net_)
        for (const Run& run : dragging_->runs) {
            if (run.from.owner != dragged_ && run.to.owner != dragged_) continue;
            if (const auto route = route_one(*dragging_, *net_, run))
                for (const Leg& leg : route->path.legs)
                    p.drawLine(scene_.from_above(leg.from), scene_.from_above(leg.to));
        }
    p.setBrush(t.ink);
    p.drawEllipse(scene_.from_above(*dragged_to_), 6, 6);
    p.drawEllipse(scene_.from_side(*dragged_to_), 4, 4);
    if (telling_.isEmpty()) return;
    p.setFont(type_font(Type::small));
    const QFontMetricsF small(p.font());
    double w = 0;
    for (const QString& line : telling_) w = std::max(w, small.horizontalAdvance(line));
    QRectF card(mouse_ + QPointF(18, 14), QSizeF(w + 16, 16.0 * static_cast<double>(telling_.size()) + 10));
    if (card.right() > width() - 4) card.moveRight(mouse_.x() - 12);
    if (card.bottom() > height() - 4) card.moveBottom(height() - 4);
    p.setPen(Qt::NoPen);
    p.setBrush(t.card);
    p.drawRoundedRect(card, 4, 4);
    p.setPen(t.card_ink);
    for (qsizetype k = 0; k < telling_.size(); ++k)
        p.drawText(QPointF(card.left() + 8, card.top() + 16 + 16.0 * static_cast<double>(k)), telling_[k]);
}

void PlaceView::paint_empty(QPainter& p) const {
    p.setFont(type_font(Type::body));
    const QString text =
        say("No ways yet. “Lay out a typical vehicle”, at the right, draws rooms and ways of such a vehicle; "
            "things are "
            "then set where they stand, and lengths follow.");
    QRectF card = p.boundingRect(QRectF(scene_.top).adjusted(30, 30, -30, -30),
                                 Qt::AlignCenter | Qt::TextWordWrap, text);
    card.adjust(-12, -8, 12, 8);
    p.setPen(QPen(tokens().line, 1));
    p.setBrush(tokens().paper);
    p.drawRect(card);
    p.setPen(tokens().ink);
    p.drawText(card.adjusted(12, 8, -12, -8), Qt::AlignCenter | Qt::TextWordWrap, text);
}

}  // namespace yr::app
