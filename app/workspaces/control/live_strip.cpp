#include "workspaces/control/live_strip.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>

#include "widgets/tokens.h"
#include "words/control_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kHead = 26, kRow = 26, kLeft = 16, kName = 168, kRight = 12;
constexpr double kWhen = 236;      // what it is live by, in words
constexpr double kStripCell = 92;  // room that a cell's words want

// Where the strip is narrow, the words of when give way to the cells'.
double when_px(double width) {
    const double left = width - kLeft - kName - kRight - kStripCell * static_cast<double>(kKeyPositions);
    return std::clamp(left, 60.0, kWhen);
}

}  // namespace

LiveStrip::LiveStrip(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("Alive or dead, by key position"));
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] { refresh_when_seen(); });
    connect(&document_->selection(), &Selection::chosen, this, [this] { update(); });
    refresh();
}

// Behind another page it waits: many solves for nobody to see.
void LiveStrip::refresh_when_seen() {
    stale_ = true;
    if (isVisible()) refresh();
}

void LiveStrip::showEvent(QShowEvent*) {
    if (stale_) refresh();
}

void LiveStrip::refresh() {
    stale_ = false;
    rows_ = live_table(document_->plan());
    // what is wrong stands first
    std::stable_sort(rows_.begin(), rows_.end(),
                     [](const LiveRow& a, const LiveRow& b) { return a.wrong() && !b.wrong(); });
    setMinimumHeight(static_cast<int>(kHead + kRow * static_cast<double>(rows_.size()) + 8));
    QStringList wrong;
    for (const LiveRow& r : rows_)
        if (r.wrong()) wrong << q(yr::name_of(document_->plan(), r.load));
    setAccessibleDescription(wrong.isEmpty() ? say("Every load is alive and dead as it should be.")
                                             : say("Against the plan: ") + wrong.join(QStringLiteral(", ")));
    update();
}

QString LiveStrip::cell_text(const LiveCell& c) {
    if (c.wanted && !c.alive) return say("dead, should run");
    if (!c.wanted && c.alive) return say("alive, should be dead");
    if (!c.wanted_off && c.alive_off) return say("alive with its switch off");
    if (c.wanted_off && !c.alive_off) return say("dead, should run");
    return c.alive ? say("alive") : say("dead");
}

QRectF LiveStrip::cell_rect(std::size_t row, std::size_t position) const {
    const double from = kLeft + kName + when_px(width()),
                 cell = (width() - from - kRight) / static_cast<double>(kKeyPositions);
    return {from + static_cast<double>(position) * cell, kHead + kRow * static_cast<double>(row), cell - 4,
            kRow - 3};
}

int LiveStrip::row_at(double y) const {
    const int row = static_cast<int>((y - kHead) / kRow);
    return y < kHead || row >= static_cast<int>(rows_.size()) ? -1 : row;
}

void LiveStrip::mousePressEvent(QMouseEvent* event) {
    const int row = row_at(event->position().y());
    if (row >= 0) document_->selection().choose(rows_[static_cast<std::size_t>(row)].load);
}

void LiveStrip::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (step == 0 || rows_.empty()) return QWidget::keyPressEvent(event);
    const auto now = std::find_if(rows_.begin(), rows_.end(),
                                  [&](const LiveRow& r) { return r.load == document_->selection().id(); });
    const auto count = static_cast<long>(rows_.size());
    const long at = now == rows_.end() ? 0 : std::clamp((now - rows_.begin()) + step, 0L, count - 1);
    document_->selection().choose(rows_[static_cast<std::size_t>(at)].load);
}

bool LiveStrip::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const int row = row_at(help->pos().y());
        const Load* l =
            row < 0 ? nullptr : yr::find(document_->plan().loads, rows_[static_cast<std::size_t>(row)].load);
        if (!l) return QWidget::event(event);
        QString text = q(l->name + ": " + words::condition(l->live_when, &document_->plan()));
        for (std::size_t k = 0; k < kKeyPositions; ++k)
            if (cell_rect(static_cast<std::size_t>(row), k).contains(help->pos()))
                text += say("\nAt %1 %2.")
                            .arg(QString::fromUtf8(
                                     yr::name_of(kEveryKeyPosition[k]).data(),
                                     static_cast<qsizetype>(yr::name_of(kEveryKeyPosition[k]).size())),
                                 cell_text(rows_[static_cast<std::size_t>(row)].at[k]));
        QToolTip::showText(help->globalPos(), text);
        return true;
    }
    if (event->type() == QEvent::PaletteChange) update();
    return QWidget::event(event);
}

void LiveStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    p.setFont(type_font(Type::small));
    p.setPen(t.soft);
    for (std::size_t k = 0; k < kKeyPositions; ++k) {
        const std::string_view name = yr::name_of(kEveryKeyPosition[k]);
        const QRectF head = cell_rect(0, k).translated(0, -kHead);
        p.drawText(head.adjusted(-2, 0, 4, 0), Qt::AlignVCenter | Qt::AlignHCenter,
                   QFontMetrics(p.font()).elidedText(
                       QString::fromUtf8(name.data(), static_cast<qsizetype>(name.size())), Qt::ElideRight,
                       static_cast<int>(head.width()) + 6));
    }
    if (rows_.empty())
        p.drawText(rect().adjusted(16, 30, -16, 0), Qt::AlignTop | Qt::AlignLeft,
                   say("No load yet: type one at the left, or put one in from the library."));
    for (std::size_t r = 0; r < rows_.size(); ++r) {
        const Load* l = yr::find(document_->plan().loads, rows_[r].load);
        if (!l) continue;
        const double y = kHead + kRow * static_cast<double>(r);
        if (l->id == document_->selection().id()) p.fillRect(QRectF(0, y - 1, width(), kRow), t.panel);
        const bool wrong = rows_[r].wrong();
        p.setFont(type_font(Type::body));
        p.setPen(wrong ? t.fix : t.ink);
        const QString name = (wrong ? QStringLiteral("▲ ") : QString()) + q(l->name);
        p.drawText(QRectF(kLeft, y, kName - 8, kRow), Qt::AlignVCenter | Qt::AlignLeft,
                   QFontMetrics(p.font()).elidedText(name, Qt::ElideRight, static_cast<int>(kName) - 8));
        p.setFont(type_font(Type::small));
        p.setPen(t.soft);
        const QString when = q(words::condition(l->live_when, &document_->plan()));
        const double room = when_px(width()) - 12;
        p.drawText(QRectF(kLeft + kName, y, room, kRow), Qt::AlignVCenter | Qt::AlignLeft,
                   QFontMetrics(p.font()).elidedText(when, Qt::ElideRight, static_cast<int>(room)));
        for (std::size_t k = 0; k < kKeyPositions; ++k) {
            const LiveCell& c = rows_[r].at[k];
            const QRectF cell = cell_rect(r, k);
            const bool alive = c.alive || c.alive_off;
            if (c.wrong()) {
                p.setPen(QPen(t.fix, 2));
                p.setBrush(Qt::NoBrush);
                p.drawRect(cell.adjusted(1, 1, -1, -1));
                p.setPen(t.fix);
            } else if (alive) {
                p.fillRect(cell, t.supply[0]);
                p.setPen(t.on(t.supply[0]));
            } else {
                p.setPen(t.line);
                p.drawLine(QPointF(cell.left() + 8, cell.center().y()),
                           QPointF(cell.right() - 8, cell.center().y()));
                continue;
            }
            // the mark says that it should be otherwise, where the words find no room
            const QFontMetrics m(p.font());
            QString text = c.wrong() ? QStringLiteral("▲ ") + cell_text(c) : say("alive");
            if (m.horizontalAdvance(text) > cell.width() - 4) text = text.section(QLatin1Char(','), 0, 0);
            p.drawText(cell, Qt::AlignCenter, text);
        }
    }
}

}  // namespace yr::app

#include "moc_live_strip.cpp"
