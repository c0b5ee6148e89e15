#include "workspaces/build/diagram_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "text/say.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kHit_mm = 2.5;
constexpr double kReadable_px_per_mm = 3.6;  // a label of 2.3 mm is then read at arm's length

double away(const Stroke& s, double x, double y) {
    switch (s.kind) {
        case StrokeKind::line: {
            const double dx = s.x2 - s.x, dy = s.y2 - s.y, square = dx * dx + dy * dy;
            const double t =
                square > 0 ? std::clamp(((x - s.x) * dx + (y - s.y) * dy) / square, 0.0, 1.0) : 0;
            return std::hypot(s.x + t * dx - x, s.y + t * dy - y);
        }
        case StrokeKind::box:
            return x > s.x && x < s.x2 && y > s.y && y < s.y2
                       ? 0.5
                       : std::hypot(std::max({s.x - x, x - s.x2, 0.0}), std::max({s.y - y, y - s.y2, 0.0}));
        case StrokeKind::circle:
            return std::max(0.0, std::hypot(s.x - x, s.y - y) - s.x2);
        case StrokeKind::text: {
            const double wide = 0.55 * s.wide * static_cast<double>(s.text.size());
            const double left = s.anchor == Anchor::left     ? s.x
                                : s.anchor == Anchor::middle ? s.x - wide / 2
                                                             : s.x - wide;
            return std::hypot(std::max({left - x, x - left - wide, 0.0}),
                              std::max({s.y - s.wide - y, y - s.y, 0.0}));
        }
    }
    return 1e9;
}

}  // namespace

void paint_sheet(QPainter& p, const Diagram& diagram, std::size_t sheet, const QRectF& into,
                 const QColor& ink, const Id& chosen, const QColor& strong) {
    const double scale = std::min(into.width() / diagram.wide_mm, into.height() / diagram.high_mm);
    p.save();
    p.translate(into.center() - QPointF(diagram.wide_mm, diagram.high_mm) * scale / 2);
    for (const Stroke& s : diagram.sheets[sheet].strokes) {
        const bool is_chosen = !chosen.empty() && s.id == chosen;
        const QColor colour = is_chosen ? strong : ink;
        QPen pen(colour, std::max(s.wide * scale * (is_chosen ? 2 : 1), 0.5),
                 s.dashed ? Qt::DashLine : Qt::SolidLine, Qt::RoundCap);
        p.setPen(pen);
        p.setBrush(s.filled ? QBrush(colour) : QBrush(Qt::NoBrush));
        switch (s.kind) {
            case StrokeKind::line:
                p.drawLine(QPointF(s.x, s.y) * scale, QPointF(s.x2, s.y2) * scale);
                break;
            case StrokeKind::box:
                p.drawRect(QRectF(QPointF(s.x, s.y) * scale, QPointF(s.x2, s.y2) * scale));
                break;
            case StrokeKind::circle:
                p.drawEllipse(QPointF(s.x, s.y) * scale, s.x2 * scale, s.x2 * scale);
                break;
            case StrokeKind::text: {
                QFont font = type_font(s.bold ? Type::bold : Type::body);
                font.setPixelSize(std::max(1, static_cast<int>(std::lround(s.wide * scale * 1.15))));
                p.setFont(font);
                const QString text = q(s.text);
                const double wide = QFontMetricsF(font).horizontalAdvance(text);
                const double left = s.anchor == Anchor::left     ? 0
                                    : s.anchor == Anchor::middle ? wide / 2
                                                                 : wide;
                p.drawText(QPointF(s.x, s.y) * scale - QPointF(left, 0), text);
                break;
            }
        }
    }
    p.restore();
}

DiagramView::DiagramView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("Circuit diagram"));
    setMinimumSize(480, 300);
    connect(&document_->selection(), &Selection::chosen, this, qOverload<>(&QWidget::update));
    connect(&job_, &JobBase::done, this, [this] {
        if (diagram()) sheet_ = std::min(sheet_, diagram()->sheets.size() - 1);
        fit();
        emit sheets_changed();
        update();
    });
}

void DiagramView::refresh() {
    if (job_.current(document_->store().generation())) return;
    job_.start(document_->store().generation(), [plan = document_->plan()](const Task& task) {
        return diagram_of(plan, {60, task.cancel()});
    });
}

void DiagramView::finish() {
    refresh();
    if (job_.running()) job_.finish();
}

const Diagram* DiagramView::diagram() const {
    return job_.answer() && *job_.answer() ? &**job_.answer() : nullptr;
}

void DiagramView::show_sheet(std::size_t sheet) {
    if (!diagram() || sheet >= diagram()->sheets.size()) return;
    sheet_ = sheet;
    fit();
    emit sheets_changed();
    update();
}

QRectF DiagramView::paper() const {
    const double wide = diagram() ? diagram()->wide_mm : 420, high = diagram() ? diagram()->high_mm : 297;
    return {origin_.x(), origin_.y(), wide * px_per_mm_, high * px_per_mm_};
}

// What is drawn fills the view; larger where its words could not be read so, and then from its left.
void DiagramView::fit() {
    if (!diagram()) return;
    QRectF drawn;
    for (const Stroke& s : diagram()->sheets[sheet_].strokes) {
        if (s.id.empty()) continue;  // the frame
        const bool area = s.kind == StrokeKind::line || s.kind == StrokeKind::box;
        const QRectF r = area ? QRectF(QPointF(s.x, s.y), QPointF(s.x2, s.y2)).normalized()
                              : QRectF(s.x - 8, s.y - 5, 24, 10);
        drawn = drawn.isNull() ? r : drawn.united(r.adjusted(0, 0, 0.01, 0.01));
    }
    if (drawn.isEmpty()) drawn = QRectF(0, 0, diagram()->wide_mm, diagram()->high_mm);
    drawn.adjust(-4, -4, 4, 4);
    const double whole = std::min(width() / drawn.width(), height() / drawn.height());
    const double scale = diagram()->sheets[sheet_].scale;
    px_per_mm_ = std::clamp(whole, kReadable_px_per_mm / scale, 12.0);
    origin_ = -drawn.topLeft() * px_per_mm_;
    if (drawn.width() * px_per_mm_ < width()) origin_.rx() += (width() - drawn.width() * px_per_mm_) / 2;
    if (drawn.height() * px_per_mm_ < height()) origin_.ry() += (height() - drawn.height() * px_per_mm_) / 2;
}

void DiagramView::zoom(double factor, const QPointF& about) {
    const double now = std::clamp(px_per_mm_ * factor, 0.5, 30.0);
    origin_ = about - (about - origin_) * (now / px_per_mm_);
    px_per_mm_ = now;
    update();
}

void DiagramView::resizeEvent(QResizeEvent*) {
    fit();
}

void DiagramView::wheelEvent(QWheelEvent* event) {
    zoom(std::pow(1.0015, event->angleDelta().y()), event->position());
}

void DiagramView::mousePressEvent(QMouseEvent* event) {
    pressed_ = event->position(), pressed_origin_ = origin_;
    dragged_ = false;
}

void DiagramView::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) return;
    const QPointF moved = event->position() - pressed_;
    dragged_ = dragged_ || moved.manhattanLength() > 6;
    if (!dragged_) return;
    origin_ = pressed_origin_ + moved;
    update();
}

void DiagramView::mouseReleaseEvent(QMouseEvent* event) {
    if (!dragged_) choose_at(event->position());
}

Id DiagramView::chosen_of(const Id& id) const {
    for (const Run& r : document_->plan().runs)
        for (const Device& d : r.devices)
            if (d.id == id) return r.id;
    return id;
}

QPointF DiagramView::where_is(const Id& id) const {
    if (!diagram()) return {};
    const QRectF r = paper();
    const double scale = r.width() / diagram()->wide_mm;
    for (const Stroke& s : diagram()->sheets[sheet_].strokes)
        if (s.id == id) {
            const bool area = s.kind == StrokeKind::box || s.kind == StrokeKind::line;
            return r.topLeft() +
                   (area ? QPointF((s.x + s.x2) / 2, (s.y + s.y2) / 2) : QPointF(s.x, s.y)) * scale;
        }
    return {};
}

void DiagramView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    if (!diagram()) {
        p.setPen(t.soft);
        const bool failed = job_.answer() && !*job_.answer();
        p.drawText(rect().adjusted(40, 0, -40, 0), Qt::AlignCenter | Qt::TextWordWrap,
                   failed
                       ? say("The program “dot” (package graphviz) could not be run: without it there is no "
                             "order to draw in.")
                       : say("Drawing…"));
        return;
    }
    paint_sheet(p, *diagram(), sheet_, paper(), t.ink, document_->selection().id(), t.source);
}

void DiagramView::choose_at(const QPointF& point) {
    if (!diagram()) return;
    const QPointF at = (point - origin_) / px_per_mm_;
    const Stroke* best = nullptr;
    double least = kHit_mm;
    for (const Stroke& s : diagram()->sheets[sheet_].strokes) {
        if (s.id.empty()) continue;
        if (const double d = away(s, at.x(), at.y()); d < least) least = d, best = &s;
    }
    document_->selection().choose(best ? chosen_of(best->id) : Id());
}

void DiagramView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_PageDown)
        show_sheet(sheet_ + 1);
    else if (event->key() == Qt::Key_PageUp && sheet_ > 0)
        show_sheet(sheet_ - 1);
    else if (event->key() == Qt::Key_Plus)
        zoom(1.25, rect().center());
    else if (event->key() == Qt::Key_Minus)
        zoom(0.8, rect().center());
    else if (event->key() == Qt::Key_0)
        fit(), update();
    else
        QWidget::keyPressEvent(event);
}

std::vector<SpokenPart> DiagramView::spoken_parts() const {
    std::vector<SpokenPart> parts;
    if (!diagram()) return parts;
    const QRectF r = paper();
    const double scale = r.width() / diagram()->wide_mm;
    for (const Stroke& s : diagram()->sheets[sheet_].strokes)
        if (s.kind == StrokeKind::text && !s.id.empty())
            parts.push_back(
                {QRectF(r.topLeft() + QPointF(s.x, s.y - s.wide) * scale, QSizeF(60, 14)).toRect(),
                 q(yr::name_of(document_->plan(), s.id)), q(s.text)});
    return parts;
}

}  // namespace yr::app

#include "moc_diagram_view.cpp"
