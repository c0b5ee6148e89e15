#include "workspaces/build/bench_view.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

#include "widgets/tokens.h"
#include "words/build_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kLeft = 16, kRight = 16, kHead = 24, kBar = 34, kGap = 12, kUnderBar = 16;

}  // namespace

BenchView::BenchView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("The bench: rolls and the pieces cut from them"));
    connect(&document_->selection(), &Selection::chosen, this, qOverload<>(&QWidget::update));
}

void BenchView::show(const std::vector<SizeCutting>& cuts, const std::vector<WireRow>& wires,
                     const std::set<Id>& made) {
    cuts_ = cuts;
    made_ = made;
    number_.clear();
    for (const WireRow& w : wires) number_[document_->plan().runs[w.run].id] = q(w.number);
    lay_out();
}

// One scale for all rolls: the longest is as wide as there is room. What is sold by the metre lies as one bar
// of all it takes.
void BenchView::lay_out() {
    groups_.clear();
    double longest = 1;
    for (const SizeCutting& c : cuts_) {
        for (const CutRoll& r : c.cutting.rolls) longest = std::max(longest, r.roll.length_m);
        longest = std::max(longest, c.by_the_metre);
    }
    const double px = (width() - kLeft - kRight) / longest;
    double y = 10;
    for (const SizeCutting& c : cuts_) {
        BenchGroup g;
        g.sentence = q(words::sentence(c, document_->style()));
        g.y = y;
        g.fix = !c.cutting.too_long.empty();
        y += kHead;
        const auto add = [&](double whole, const std::vector<std::size_t>& pieces, const QString& head) {
            BenchRoll roll;
            roll.rect = QRectF(kLeft, y, whole * px, kBar);
            roll.head = head;
            double x = kLeft;
            for (const std::size_t k : pieces) {
                const CutPiece& p = c.pieces[k];
                BenchPiece piece{p.name, QRectF(x, y, p.length_m * px, kBar), number_[p.name],
                                 made_.contains(p.name)};
                x += p.length_m * px;
                roll.pieces.push_back(piece);
            }
            const bool roll_has_head = !roll.head.isEmpty();
            g.rolls.push_back(std::move(roll));
            y += kBar + (roll_has_head ? kUnderBar : 0) + 4;
        };
        int n = 0;
        for (const CutRoll& r : c.cutting.rolls) {
            const QString length = q(words::quantity(r.roll.length_m, Dimension::length, document_->style()));
            add(r.roll.length_m, r.pieces,
                r.roll.at_hand ? say("roll %1 at hand, %2").arg(++n).arg(length)
                               : say("roll %1 of %2").arg(++n).arg(length));
        }
        if (c.by_the_metre > 0) {
            std::vector<std::size_t> rest;
            for (std::size_t k = 0; k < c.pieces.size(); ++k) {
                const bool cut =
                    std::any_of(c.cutting.rolls.begin(), c.cutting.rolls.end(), [&](const CutRoll& r) {
                        return std::find(r.pieces.begin(), r.pieces.end(), k) != r.pieces.end();
                    });
                if (!cut) rest.push_back(k);
            }
            add(c.by_the_metre, rest, {});
        }
        y += kGap;
        groups_.push_back(std::move(g));
    }
    setMinimumHeight(static_cast<int>(y) + 10);
    update();
}

void BenchView::resizeEvent(QResizeEvent*) {
    lay_out();
}

void BenchView::paintEvent(QPaintEvent*) {
    const Tokens& t = tokens();
    QPainter p(this);
    p.fillRect(rect(), t.paper);
    if (groups_.empty()) {
        p.setPen(t.soft);
        p.drawText(rect().adjusted(24, 24, -24, -24), Qt::AlignCenter | Qt::TextWordWrap,
                   say("No cable yet. Type what the vehicle has in the line at the upper left."));
    }
    const QFontMetricsF small(type_font(Type::small));
    for (const BenchGroup& g : groups_) {
        p.setFont(type_font(Type::bold));
        p.setPen(g.fix ? t.fix : t.ink);
        p.drawText(QRectF(kLeft, g.y, width() - kLeft - kRight, kHead), Qt::AlignLeft | Qt::AlignVCenter,
                   p.fontMetrics().elidedText(g.sentence, Qt::ElideRight,
                                              static_cast<int>(width() - kLeft - kRight)));
        p.setFont(type_font(Type::small));
        for (const BenchRoll& r : g.rolls) {
            p.fillRect(r.rect, t.panel);
            p.fillRect(r.rect, QBrush(t.line, Qt::BDiagPattern));
            for (const BenchPiece& piece : r.pieces) {
                const bool chosen = piece.run == document_->selection().id();
                const QColor fill = piece.made ? t.line : t.supply[1];
                p.fillRect(piece.rect.adjusted(0, 0, -1, 0), fill);
                if (chosen) {
                    p.setPen(QPen(t.source, 3));
                    p.setBrush(Qt::NoBrush);
                    p.drawRect(piece.rect.adjusted(1, 1, -2, -1));
                }
                p.setPen(t.on(fill));
                const QString text = piece.made ? QStringLiteral("✓ ") + piece.text : piece.text;
                if (small.horizontalAdvance(text) < piece.rect.width() - 4)
                    p.drawText(piece.rect, Qt::AlignCenter, text);
            }
            p.setPen(t.soft);
            p.drawText(QRectF(r.rect.left(), r.rect.bottom() + 1, width() - kLeft - kRight, kUnderBar),
                       Qt::AlignLeft | Qt::AlignVCenter, r.head);
        }
    }
    if (hasFocus()) {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(t.soft, 1, Qt::DotLine));
        p.drawRect(rect().adjusted(0, 0, -1, -1));
    }
}

const BenchPiece* BenchView::piece_at(const QPointF& point) const {
    for (const BenchGroup& g : groups_)
        for (const BenchRoll& r : g.rolls)
            for (const BenchPiece& p : r.pieces)
                if (p.rect.contains(point)) return &p;
    return nullptr;
}

void BenchView::mousePressEvent(QMouseEvent* event) {
    if (const BenchPiece* p = piece_at(event->position())) document_->selection().choose(p->run);
}

// To the next or previous piece.
void BenchView::walk(int by) {
    std::vector<Id> all;
    for (const BenchGroup& g : groups_)
        for (const BenchRoll& r : g.rolls)
            for (const BenchPiece& p : r.pieces)
                if (std::find(all.begin(), all.end(), p.run) == all.end()) all.push_back(p.run);
    if (all.empty()) return;
    const auto at = std::find(all.begin(), all.end(), document_->selection().id());
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    const std::ptrdiff_t to = at == all.end() ? 0 : ((at - all.begin()) + by + count) % count;
    document_->selection().choose(all[static_cast<std::size_t>(to)]);
}

void BenchView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Right || event->key() == Qt::Key_Down)
        walk(1);
    else if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Up)
        walk(-1);
    else
        QWidget::keyPressEvent(event);
}

bool BenchView::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    auto* help = static_cast<QHelpEvent*>(event);
    const BenchPiece* p = piece_at(help->pos());
    QToolTip::showText(
        help->globalPos(),
        p ? p->text + QStringLiteral("  ") + q(yr::name_of(document_->plan(), p->run)) : QString(), this);
    return true;
}

std::vector<SpokenPart> BenchView::spoken_parts() const {
    std::vector<SpokenPart> parts;
    for (const BenchGroup& g : groups_)
        for (const BenchRoll& r : g.rolls)
            for (const BenchPiece& p : r.pieces)
                parts.push_back({p.rect.toRect(), q(yr::name_of(document_->plan(), p.run)),
                                 p.made ? say("%1, made").arg(p.text) : p.text});
    return parts;
}

}  // namespace yr::app

#include "moc_bench_view.cpp"
