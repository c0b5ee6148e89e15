#include "workspaces/meter/stair_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "text/say.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kLeft = 62, kRight = 16, kTop = 46, kFoot = 46, kMiddle = 26;

}  // namespace

StairView::StairView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("Staircase of volts"));
    setMouseTracking(true);
}

void StairView::show(std::vector<Stair> stairs, std::vector<Reading> readings,
                     const std::optional<Probing>& next) {
    stairs_ = std::move(stairs);
    readings_ = std::move(readings);
    next_ = next;
    update();
}

// Supply above, return below, each on its own scale of volts.
StairView::Scale StairView::scale(bool on_return) const {
    Scale s;
    s.low = 1e9, s.high = -1e9;
    for (const Stair& x : stairs_) {
        if (x.on_return != on_return || !x.expected.solved) continue;
        s.low = std::min(s.low, x.expected.low()), s.high = std::max(s.high, x.expected.high());
        if (const auto v = read_at(x.at)) s.low = std::min(s.low, *v), s.high = std::max(s.high, *v);
    }
    if (s.high < s.low) s.low = 0, s.high = 1;
    const double air = std::max(0.05, 0.08 * (s.high - s.low));
    s.low -= air, s.high += air;
    const double usable = height() - kTop - kFoot - kMiddle;
    s.top = on_return ? kTop + usable * 0.6 + kMiddle : kTop;
    s.bottom = on_return ? height() - kFoot : kTop + usable * 0.6;
    return s;
}

std::optional<double> StairView::read_at(const Terminal& t) const {
    std::optional<double> found;
    for (const Reading& r : readings_)
        if (r.where.kind == ReadKind::volts && r.where.red == t && r.where.black.empty()) found = r.value;
    return found;
}

QRectF StairView::step(std::size_t k) const {
    const double wide =
        (width() - kLeft - kRight) / static_cast<double>(std::max<std::size_t>(stairs_.size(), 1));
    const Stair& s = stairs_[k];
    const Scale v = scale(s.on_return);
    const double x = kLeft + static_cast<double>(k) * wide;
    return {x, v.y(s.expected.high()), wide * 0.86,
            std::max(3.0, v.y(s.expected.low()) - v.y(s.expected.high()))};
}

void StairView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    if (stairs_.empty()) {
        p.setPen(t.soft);
        p.drawText(
            rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
            say("Say below what is wrong: which load, in which state. Its way from the battery and back is "
                "then drawn here, with the volts that each place on it should have."));
        return;
    }
    p.setFont(type_font(Type::small));
    const QFontMetrics small(p.font());
    for (const bool ret : {false, true}) {
        const Scale s = scale(ret);
        const double span = s.high - s.low;
        double by = std::pow(10, std::floor(std::log10(span / 3)));
        if (span / by > 7) by *= span / by > 14 ? 5 : 2;
        const double lowest = std::ceil(s.low / by) * by;
        for (int k = 0; lowest + k * by <= s.high; ++k) {
            const double v = lowest + k * by;
            p.setPen(QPen(t.line, 1, Qt::DotLine));
            p.drawLine(QPointF(kLeft - 4, s.y(v)), QPointF(width() - kRight, s.y(v)));
            p.setPen(t.soft);
            p.drawText(
                QRectF(0, s.y(v) - 8, kLeft - 8, 16), Qt::AlignRight | Qt::AlignVCenter,
                q(words::quantity(std::abs(v) < 1e-9 ? 0 : v, Dimension::voltage, document_->style())));
        }
    }
    QPointF last;
    for (std::size_t k = 0; k < stairs_.size(); ++k) {
        const Stair& s = stairs_[k];
        const QRectF r = step(k);
        const QColor colour = s.on_return ? t.ret[0] : t.supply[0];
        QColor band = colour;
        band.setAlpha(70);
        const double middle = scale(s.on_return).y(s.expected.value);
        if (k > 0) {
            const bool load = s.on_return && !stairs_[k - 1].on_return;
            p.setPen(QPen(load ? t.source : colour, load ? 2 : 1.2, load ? Qt::DashLine : Qt::SolidLine));
            p.drawLine(last, QPointF(r.left(), middle));
        }
        p.fillRect(r, band);
        p.setPen(QPen(colour, 2.5));
        p.drawLine(QPointF(r.left(), middle), QPointF(r.right(), middle));
        last = QPointF(r.right(), middle);
        // names on two levels, so that neighbours do not touch
        const QString name = small.elidedText(q(words::terminal(document_->plan(), s.at)), Qt::ElideRight,
                                              static_cast<int>(r.width() * 1.9));
        p.setPen(t.ink);
        const double level = s.on_return ? height() - kFoot + 6 + (k % 2 ? 17 : 0) : 4 + (k % 2 ? 17 : 0);
        p.drawText(QRectF(r.center().x() - r.width(), level, 2 * r.width(), 16), Qt::AlignCenter, name);
        const auto read = read_at(s.at);
        const bool next = next_ && next_->kind == ReadKind::volts && next_->red == s.at;
        if (next) {
            p.setPen(QPen(t.source, 3));
            p.setBrush(Qt::NoBrush);
            p.drawEllipse(QPointF(r.center().x(), middle), 9, 9);
        }
        if (!read) continue;
        const bool good = *read >= s.expected.low() && *read <= s.expected.high();
        const QPointF dot(r.center().x(), scale(s.on_return).y(*read));
        p.setPen(QPen(t.paper, 2));
        p.setBrush(good ? t.ink : t.stop);
        p.drawEllipse(dot, 6.5, 6.5);
        p.setPen(good ? t.ink : t.stop);
        p.drawText(QRectF(dot.x() - 40, dot.y() - 24, 80, 16), Qt::AlignCenter,
                   q(words::quantity(*read, Dimension::voltage, document_->style())));
    }
}

void StairView::mousePressEvent(QMouseEvent* event) {
    for (std::size_t k = 0; k < stairs_.size(); ++k) {
        const QRectF r = step(k);
        if (event->position().x() >= r.left() && event->position().x() < r.right()) {
            emit asked(stairs_[k].at);
            return;
        }
    }
}

std::vector<SpokenPart> StairView::spoken_parts() const {
    std::vector<SpokenPart> parts;
    for (std::size_t k = 0; k < stairs_.size(); ++k)
        parts.push_back(
            {step(k).toRect(), q(words::terminal(document_->plan(), stairs_[k].at)),
             q(words::quantity(stairs_[k].expected.value, Dimension::voltage, document_->style()))});
    return parts;
}

}  // namespace yr::app

#include "moc_stair_view.cpp"
