#include "railchart/rail_paint.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

// Where an item stands at this moment of the glide: between its place before and its place now.
class Glide {
  public:
    explicit Glide(const RailPaint& what) : what_(what) {
        if (!what.before || what.progress >= 1) return;
        for (const SceneItem& i : what.before->items) places_[key(i)] = i.rect;
    }
    QRectF rect(const SceneItem& i) const {
        const auto from = places_.find(key(i));
        if (from == places_.end()) return i.rect;
        const double t = what_.progress;
        const auto mix = [&](double a, double b) { return a + (b - a) * t; };
        const QRectF &a = from->second, &b = i.rect;
        return QRectF(QPointF(mix(a.left(), b.left()), mix(a.top(), b.top())),
                      QPointF(mix(a.right(), b.right()), mix(a.bottom(), b.bottom())));
    }

  private:
    static std::pair<std::string, int> key(const SceneItem& i) {
        return {i.id + (i.kind == SceneKind::load     ? "/load"
                        : i.kind == SceneKind::source ? "/source"
                                                      : ""),
                i.piece};
    }
    const RailPaint& what_;
    std::map<std::pair<std::string, int>, QRectF> places_;
};

QString fitted(const QFontMetricsF& metrics, const QStringList& candidates, double width) {
    for (const QString& text : candidates)
        if (metrics.horizontalAdvance(text) <= width) return text;
    return {};
}

QColor mark_colour(Severity s) {
    const Tokens& t = tokens();
    return s == Severity::stop ? t.stop : s == Severity::fix ? t.fix : t.soft;
}

class Painter {
  public:
    Painter(QPainter& painter, const RailPaint& what) : p_(painter), w_(what), t_(tokens()), glide_(what) {}

    void paint() {
        p_.setFont(type_font(Type::small));
        if (!w_.scene.note.isEmpty()) {
            p_.setFont(type_font(Type::title));
            p_.setPen(t_.soft);
            constexpr qreal kAside = 24;  // a small chart tells it in several lines
            p_.drawText(QRectF(QPointF(0, 0), w_.size).adjusted(kAside, 0, -kAside, 0),
                        Qt::AlignCenter | Qt::TextWordWrap, w_.scene.note);
            return;
        }
        axis();
        for (const SceneItem& i : w_.scene.items)
            if (i.kind == SceneKind::conductor) conductor(i);
        joins();
        for (const SceneItem& i : w_.scene.items) {
            const bool lit = w_.hovered == i.id || w_.selected == i.id;
            if (i.kind == SceneKind::load && lit)
                p_.fillRect(glide_.rect(i).adjusted(1, 2, -1, -2), t_.panel);
        }
        highlights();
        for (const SceneItem& i : w_.scene.items)
            if (!i.shelf.isEmpty()) leader(i);
        for (const SceneItem& i : w_.scene.items) {
            if (i.kind == SceneKind::load) load(i);
            if (i.kind == SceneKind::gathered) gathered(i);
            if (i.kind == SceneKind::source) source(i);
            if (i.kind == SceneKind::headroom) headroom(i);
        }
        links();
        boxes();
        caption();
    }

  private:
    void axis() {
        const QRectF& plot = w_.scene.plot;
        p_.setPen(t_.line);
        p_.drawLine(plot.bottomLeft(), plot.bottomRight());
        for (const SceneTick& tick : w_.scene.ticks) {
            p_.setPen(t_.line);
            p_.drawLine(QPointF(plot.left() - 5, tick.y), QPointF(plot.left() - 1, tick.y));
            p_.setPen(t_.soft);
            p_.drawText(QRectF(0, tick.y - 8, plot.left() - 9, 16), Qt::AlignRight | Qt::AlignVCenter,
                        tick.text);
        }
    }

    void caption() {
        p_.setFont(type_font(Type::small));
        p_.setPen(t_.soft);
        p_.drawText(QRectF(w_.scene.plot.left(), w_.scene.plot.bottom() + 6, w_.scene.plot.width(), 18),
                    Qt::AlignCenter, say("width: amps      height: volts lost      area: watts of heat"));
    }

    QColor colour_of(const SceneItem& i) const {
        if (i.side == ChartSide::supply) return t_.supply[std::min(i.depth, 2)];
        return t_.ret[std::min(i.depth, 1)];
    }

    void conductor(const SceneItem& i) {
        const QRectF r = glide_.rect(i);
        const QColor fill = colour_of(i);
        p_.fillRect(r, fill);
        // Supply is plain and return is ruled, so that the two differ without colour.
        if (i.side == ChartSide::ret && r.height() > 6) {
            QColor rule = t_.on(fill);
            rule.setAlphaF(0.16F);
            p_.setPen(QPen(rule, 1));
            const int rules = std::max(0, static_cast<int>((r.height() - 4) / 6) + 1);
            for (int k = 0; k < rules; ++k) {
                const double y = r.bottom() - 4 - 6 * k;
                if (y > r.top()) p_.drawLine(QPointF(r.left(), y), QPointF(r.right(), y));
            }
        }
        if (w_.progress >= 1) bands(i, fill);
        p_.setPen(QPen(t_.paper, 1));
        p_.setBrush(Qt::NoBrush);
        p_.drawRect(r);
        label(i, r, fill);
    }

    // Fuses are cross-hatched, contacts have a heavy edge, joints a fine one.
    void bands(const SceneItem& i, const QColor& fill) {
        QColor mark = t_.on(fill);
        for (const SceneBand& b : i.bands) {
            if (b.part == PartKind::cable || b.part == PartKind::metal || b.rect.height() < 0.8) continue;
            mark.setAlphaF(b.part == PartKind::fuse        ? 0.30F
                           : b.part == PartKind::switching ? 0.22F
                           : b.part == PartKind::diode     ? 0.34F
                                                           : 0.13F);
            p_.fillRect(b.rect, mark);
            if (b.part == PartKind::fuse && b.rect.height() >= 3) {
                QColor hatch = t_.on(fill);
                hatch.setAlphaF(0.55F);
                p_.fillRect(b.rect, QBrush(hatch, Qt::BDiagPattern));
            } else if (b.part == PartKind::switching && b.rect.height() >= 2) {
                QColor edge = t_.on(fill);
                edge.setAlphaF(0.7F);
                p_.setPen(QPen(edge, 1));
                p_.drawLine(b.rect.topLeft(), b.rect.topRight());
                p_.drawLine(b.rect.bottomLeft(), b.rect.bottomRight());
            }
        }
    }

    void label(const SceneItem& i, const QRectF& r, const QColor& fill) {
        if (r.height() < kWordsHigh_px || r.width() < kWordsWide_px || i.detail.isEmpty()) return;
        p_.setFont(type_font(Type::small));
        const QString text = fitted(QFontMetricsF(p_.font()),
                                    {i.label + QStringLiteral("   ") + i.detail, i.detail}, r.width() - 6);
        if (text.isEmpty()) return;
        // Bands under the words would make them hard to read: a patch of the fill lies between.
        const QFontMetricsF m(p_.font());
        QRectF patch(0, 0, m.horizontalAdvance(text) + 8, 14);
        patch.moveCenter(r.center());
        p_.fillRect(patch.intersected(r.adjusted(1, 1, -1, -1)), fill);
        p_.setPen(t_.on(fill));
        p_.drawText(r, Qt::AlignCenter, text);
    }

    // Pieces of one run are tied by a line along their tops, so that a cut slab is seen as one.
    void joins() {
        std::map<Id, std::vector<QRectF>> pieces;
        for (const SceneItem& i : w_.scene.items)
            if (i.kind == SceneKind::conductor && i.pieces > 1) pieces[i.id].push_back(glide_.rect(i));
        for (auto& [id, rects] : pieces) {
            std::sort(rects.begin(), rects.end(),
                      [](const QRectF& a, const QRectF& b) { return a.left() < b.left(); });
            const bool lit = id == w_.hovered || id == w_.selected;
            p_.setPen(QPen(lit ? t_.source : t_.soft, lit ? 2 : 1, Qt::DotLine));
            for (std::size_t k = 1; k < rects.size(); ++k) {
                const double y = std::max(rects[k - 1].center().y(), rects[k].center().y());
                p_.drawLine(QPointF(rects[k - 1].right(), y), QPointF(rects[k].left(), y));
            }
        }
    }

    // A converter's two ends, from where it takes its amps to where it gives them: a dotted way under the
    // strip.
    void links() {
        for (const SceneItem& into : w_.scene.items) {
            if (into.kind != SceneKind::load || into.ref.thing != ChartThing::converter) continue;
            for (const SceneItem& out : w_.scene.items) {
                if (out.kind != SceneKind::source || out.id != into.id) continue;
                const QRectF a = glide_.rect(into), b = glide_.rect(out);
                const double y = b.bottom() + 8, x0 = a.center().x(), x1 = b.center().x();
                const bool lit = into.id == w_.hovered || into.id == w_.selected;
                p_.setPen(QPen(t_.source, lit ? 2.5 : 1.5, Qt::DotLine));
                p_.drawPolyline(
                    QPolygonF({{x0, w_.scene.plot.top()}, {x0, y}, {x1, y}, {x1, b.bottom() + 4}}));
                p_.setRenderHint(QPainter::Antialiasing, true);
                p_.setPen(Qt::NoPen);
                p_.setBrush(t_.source);
                p_.drawPolygon(
                    QPolygonF({{x1 - 4, b.bottom() + 6}, {x1 + 4, b.bottom() + 6}, {x1, b.bottom()}}));
                p_.setRenderHint(QPainter::Antialiasing, false);
            }
        }
    }

    QColor name_colour(const SceneItem& i) const {
        return i.severity && *i.severity <= Severity::fix ? mark_colour(*i.severity) : t_.ink;
    }

    QString marked(const SceneItem& i, const QString& text) const {
        return i.severity && *i.severity <= Severity::fix
                   ? QString::fromUtf8(words::mark(*i.severity)) + QStringLiteral(" ") + text
                   : text;
    }

    void load(const SceneItem& i) {
        const QRectF r = glide_.rect(i);
        const QFontMetricsF bold(type_font(Type::bold)), small(type_font(Type::small));
        if (!i.shelf.isEmpty()) {
            on_shelf(i);
            meter(i, r);
            return;
        }
        const bool upright = r.width() >= 66 && bold.horizontalAdvance(marked(i, i.label)) <= r.width() - 4;
        if (upright) {
            double y = r.center().y() - 34;
            const auto line = [&](Type type, const QColor& colour, const QString& text, double height) {
                p_.setFont(type_font(type));
                p_.setPen(colour);
                const QString fits = fitted(QFontMetricsF(p_.font()),
                                            {text, text.section(QStringLiteral("   "), 0, 0)}, r.width());
                p_.drawText(QRectF(r.left(), y, r.width(), height), Qt::AlignCenter, fits);
                y += height;
            };
            line(Type::bold, name_colour(i), marked(i, i.label), 22);
            line(Type::body, t_.ink, i.detail, 20);
            if (!i.share.isEmpty())
                line(Type::body, name_colour(i) == t_.ink ? t_.soft : name_colour(i), i.share, 20);
        } else if (i.brief < 3) {
            rotated(r, i);
        }
        meter(i, r);
    }

    // The line from a name on the shelf to its own place.
    void leader(const SceneItem& i) {
        const double x = i.rect.center().x();
        p_.setPen(QPen(i.id == w_.hovered || i.id == w_.selected ? t_.source : t_.line, 1));
        if (i.shelf.top() > i.rect.top() + 2)
            p_.drawLine(QPointF(x, i.rect.top() + 1), QPointF(x, i.shelf.top()));
        if (i.shelf.bottom() < i.rect.bottom() - 14)
            p_.drawLine(QPointF(x, i.shelf.bottom()), QPointF(x, i.rect.bottom() - 14));
    }

    void on_shelf(const SceneItem& i) {
        const bool lit = w_.hovered == i.id || w_.selected == i.id;
        p_.fillRect(i.shelf, lit ? t_.panel : t_.paper);
        const QFontMetricsF bold(type_font(Type::bold)), small(type_font(Type::small));
        const bool gathered = i.kind == SceneKind::gathered;
        const QString name =
            marked(i, shelf_name(i)) + (gathered && i.members.size() > 1 ? say("  \u25B8") : QString());
        p_.setFont(type_font(gathered ? Type::small : Type::bold));
        p_.setPen(name_colour(i));
        p_.drawText(QRectF(i.shelf.left(), i.shelf.top(), i.shelf.width(),
                           gathered ? i.shelf.height() : bold.height()),
                    Qt::AlignCenter, name);
        if (gathered) return;
        p_.setFont(type_font(Type::small));
        p_.setPen(t_.soft);
        const QString rest = shelf_words(i);
        p_.drawText(
            QRectF(i.shelf.left(), i.shelf.top() + bold.height(), i.shelf.width(), small.height() + 2),
            Qt::AlignCenter, small.elidedText(rest, Qt::ElideRight, i.shelf.width()));
    }

    void rotated(const QRectF& r, const SceneItem& i) {
        const bool two = r.width() >= 38;
        p_.save();
        p_.translate(r.center());
        p_.rotate(-90);
        const double length = r.height() - 30, width = r.width();
        const QFontMetricsF bold(type_font(Type::bold));
        const QString name =
            bold.elidedText(marked(i, i.label), Qt::ElideRight, two ? length : length * 0.62);
        const QString rest =
            two ? i.detail + QStringLiteral("   ") + i.share
                : (i.share.isEmpty() ? i.detail.section(QStringLiteral("   "), 0, 0) : i.share);
        if (two) {
            p_.setFont(type_font(Type::bold));
            p_.setPen(name_colour(i));
            p_.drawText(QRectF(-length / 2, -width / 2, length, width / 2),
                        Qt::AlignHCenter | Qt::AlignBottom, name);
            p_.setFont(type_font(Type::small));
            p_.setPen(t_.soft);
            p_.drawText(QRectF(-length / 2, 2, length, width / 2), Qt::AlignHCenter | Qt::AlignTop,
                        QFontMetricsF(p_.font()).elidedText(rest, Qt::ElideRight, length));
        } else {
            p_.setFont(type_font(Type::small));
            const QFontMetricsF m(p_.font());
            const double gap = 8, total = bold.horizontalAdvance(name) + gap + m.horizontalAdvance(rest);
            const bool both = total <= length;
            double x = both ? -total / 2 : -bold.horizontalAdvance(name) / 2;
            p_.setFont(type_font(Type::bold));
            p_.setPen(name_colour(i));
            p_.drawText(QRectF(x, -width / 2, bold.horizontalAdvance(name) + 2, width),
                        Qt::AlignVCenter | Qt::AlignLeft, name);
            x += bold.horizontalAdvance(name) + gap;
            if (both) {
                p_.setFont(type_font(Type::small));
                p_.setPen(t_.soft);
                p_.drawText(QRectF(x, -width / 2, m.horizontalAdvance(rest) + 2, width),
                            Qt::AlignVCenter | Qt::AlignLeft, rest);
            }
        }
        p_.restore();
    }

    // How much of the allowed drop is used: a bar, and past its end a triangle, so that shape says it as
    // well.
    void meter(const SceneItem& i, const QRectF& r) {
        if (i.used < 0 || r.width() < 12) return;
        const double width = std::min(r.width() * 0.7, 160.0), y = r.bottom() - 11;
        const QRectF whole(r.center().x() - width / 2, y, width, 4);
        p_.fillRect(whole, t_.line);
        const bool over = i.used > 1;
        p_.fillRect(QRectF(whole.left(), y, width * std::min(1.0, i.used), 4), over ? t_.fix : t_.ink);
        if (i.used_most > i.used_least) {  // within the plan's ranges: a hatched stretch over the bar
            const double from = width * std::clamp(i.used_least, 0.0, 1.0),
                         to = width * std::clamp(i.used_most, 0.0, 1.0);
            p_.fillRect(QRectF(whole.left() + from, y - 3, std::max(2.0, to - from), 10),
                        QBrush(i.used_most > 1 ? t_.fix : t_.soft, Qt::BDiagPattern));
        }
        if (!over) return;
        const QPointF c(r.center().x(), y - 5);
        p_.setRenderHint(QPainter::Antialiasing, true);
        p_.setPen(Qt::NoPen);
        p_.setBrush(t_.fix);
        p_.drawPolygon(QPolygonF({c + QPointF(-6, 0), c + QPointF(6, 0), c + QPointF(0, -10)}));
        p_.setRenderHint(QPainter::Antialiasing, false);
    }

    void gathered(const SceneItem& i) {
        if (!i.shelf.isEmpty()) return on_shelf(i);
        if (i.brief == 3) return;
        const QRectF r = glide_.rect(i);
        const double h = std::min(r.height() - 12, 170.0);
        const QRectF handle(r.center().x() - std::min(r.width() / 2, 11.0), r.center().y() - h / 2,
                            std::min(r.width(), 22.0), h);
        p_.setRenderHint(QPainter::Antialiasing, true);
        p_.setPen(QPen(t_.soft, 1));
        p_.setBrush(i.id == w_.hovered ? t_.line : t_.panel);
        p_.drawRoundedRect(handle.adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
        p_.setRenderHint(QPainter::Antialiasing, false);
        p_.save();
        p_.translate(handle.center());
        p_.rotate(-90);
        p_.setFont(type_font(Type::small));
        p_.setPen(name_colour(i));
        const QString text = marked(i, i.label) + (i.members.size() > 1 ? say("  \u25B8") : QString());
        p_.drawText(QRectF(-h / 2, -11, h, 22), Qt::AlignCenter,
                    QFontMetricsF(p_.font()).elidedText(text, Qt::ElideRight, h - 6));
        p_.restore();
    }

    void source(const SceneItem& i) {
        const QRectF r = glide_.rect(i);
        const bool battery = yr::find(w_.circuit.plan().batteries, i.id) != nullptr;
        const QColor edge = i.shortfall ? t_.stop : t_.source;
        if (battery) {
            p_.fillRect(r, t_.paper);
            p_.fillRect(r, QBrush(edge, Qt::BDiagPattern));
            p_.setPen(QPen(edge, i.shortfall ? 2 : 1));
            p_.setBrush(Qt::NoBrush);
            p_.drawRect(r.adjusted(1, 1, -1, -1));
        } else {
            p_.fillRect(r, t_.source);
            p_.setPen(QPen(t_.paper, 1));
            p_.drawRect(r);
        }
        p_.setFont(type_font(i.shortfall ? Type::bold : Type::body));
        QString text =
            fitted(QFontMetricsF(p_.font()),
                   {marked(i, i.label), i.label, marked(i, i.share_long), marked(i, i.share), i.share},
                   r.width() - 10);
        if (text.isEmpty()) {
            p_.setFont(type_font(Type::small));
            text = fitted(QFontMetricsF(p_.font()), {i.share, i.detail}, r.width() - 6);
        }
        const QFontMetricsF m(p_.font());
        if (text.isEmpty()) return;
        if (battery) {
            QRectF patch(0, 0, m.horizontalAdvance(text) + 10, 20);
            patch.moveCenter(r.center());
            p_.fillRect(patch, t_.paper);
            p_.setPen(i.shortfall ? t_.stop : t_.ink);
        } else {
            p_.setPen(t_.on(t_.source));
        }
        p_.drawText(r, Qt::AlignCenter, text);
    }

    void headroom(const SceneItem& i) {
        p_.setPen(QPen(t_.source, 1, Qt::DashLine));
        p_.setBrush(Qt::NoBrush);
        p_.drawRect(i.rect.adjusted(2, 0, -1, -1));
        p_.setFont(type_font(Type::small));
        p_.setPen(t_.ink);
        p_.drawText(i.rect, Qt::AlignCenter,
                    fitted(QFontMetricsF(p_.font()), {i.label, i.label.section(QLatin1Char(' '), 0, 0)},
                           i.rect.width() - 6));
    }

    // A control box lies across its channels: one slab, what it carries of its main, what is free.
    void boxes() {
        p_.setFont(type_font(Type::small));
        const QFontMetricsF fm(p_.font());
        for (const SceneBox& b : w_.scene.boxes) {
            const QColor ground = b.id == w_.selected ? t_.source : t_.ink;
            p_.fillRect(b.rect, ground);
            if (b.label.isEmpty()) continue;
            const QString mark = b.over ? QStringLiteral("▲ ") : QString();
            const QString text =
                fitted(fm, {mark + b.label, mark + b.label.section(QStringLiteral("  "), 0, 0)},
                       b.rect.width() - 12);
            if (text.isEmpty()) continue;
            const QRectF chip(b.rect.left(), b.rect.top(), fm.horizontalAdvance(text) + 12, 16);
            p_.fillRect(chip, ground);
            p_.setPen(t_.on(ground));
            p_.drawText(chip, Qt::AlignCenter, text);
        }
    }

    void highlights() {
        const auto& path = w_.circuit.current_path();
        for (const SceneItem& i : w_.scene.items) {
            if (std::find(path.begin(), path.end(), i.id) != path.end()) {
                p_.setPen(QPen(t_.fix, 3));
                p_.setBrush(Qt::NoBrush);
                p_.drawRect(glide_.rect(i).adjusted(1, 1, -1, -1));
            }
            const bool selected =
                !w_.selected.empty() && (i.id == w_.selected || std::find(i.members.begin(), i.members.end(),
                                                                          w_.selected) != i.members.end());
            const bool hover = !w_.hovered.empty() && i.id == w_.hovered;
            if (i.kind == SceneKind::headroom || (!selected && !hover)) continue;
            p_.setPen(QPen(selected ? t_.source : t_.ink, selected ? 3 : 1));
            p_.setBrush(Qt::NoBrush);
            p_.drawRect(glide_.rect(i).adjusted(1, 1, -1, -1));
        }
    }

    QPainter& p_;
    const RailPaint& w_;
    const Tokens& t_;
    Glide glide_;
};

}  // namespace

void paint_rail(QPainter& painter, const RailPaint& what) {
    painter.fillRect(QRectF(QPointF(0, 0), what.size), tokens().paper);
    Painter(painter, what).paint();
}

}  // namespace yr::app
