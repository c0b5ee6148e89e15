#include "workspaces/control/box_view.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>

#include "control/boxes.h"
#include "control/place_on.h"
#include "widgets/tokens.h"
#include "words/control_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kMargin = 16, kTitle = 28, kCell = 66, kGap = 6, kBracket = 20, kChip = 30;
constexpr double kLeastCell = 100;
constexpr double kDrag_px = 8;

QString amps_text(const Document* d, double amps) {
    return q(words::quantity(amps, Dimension::current, d->style()));
}

}  // namespace

BoxView::BoxView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("Boxes and their channels"));
    setAccessibleDescription(say("Drag a load to another channel or feed; left and right walk."));
    QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] { refresh_when_seen(); });
    connect(&document_->inspector(), &Inspector::inspected, this, [this] { refresh_when_seen(); });
    connect(&document_->selection(), &Selection::chosen, this, [this] { update(); });
    refresh();
}

// Behind another page it waits: many solves for nobody to see.
void BoxView::refresh_when_seen() {
    stale_ = true;
    if (isVisible()) refresh();
}

void BoxView::showEvent(QShowEvent*) {
    if (stale_) refresh();
}

void BoxView::refresh() {
    stale_ = false;
    height_of_width_.clear();
    lay_slabs();
    updateGeometry();
    update();
}

void BoxView::lay_slabs() {
    slabs_.clear();
    const int high = static_cast<int>(std::ceil(lay_out(width(), slabs_)));
    height_of_width_[width()] = high;
    setMinimumHeight(high);
}

QSize BoxView::sizeHint() const {
    return {700, heightForWidth(700)};
}

int BoxView::heightForWidth(int width) const {
    const auto [known, is_new] = height_of_width_.try_emplace(width);
    if (is_new) {
        std::vector<BoxSlab> slabs;
        known->second = static_cast<int>(std::ceil(lay_out(width, slabs)));
    }
    return known->second;
}

void BoxView::resizeEvent(QResizeEvent*) {
    lay_slabs();
    update();
}

double BoxView::lay_out(double width, std::vector<BoxSlab>& slabs) const {
    double top = kGap;
    for (const bool boxes : {true, false})
        for (const Point& p : document_->plan().points) {
            if (!p.feeds_loads || p.channels.empty() == boxes) continue;
            BoxSlab slab;
            top = boxes ? box_slab(p, top, width, slab) : feed_slab(p, top, width, slab);
            slabs.push_back(std::move(slab));
            top += kGap;
        }
    return top;
}

double BoxView::box_slab(const Point& box, double top, double width, BoxSlab& slab) const {
    const Plan& plan = document_->plan();
    const auto uses = channel_uses(plan, box);
    slab.feed = box.id;
    slab.title = q(words::capital(box.name));
    const double sum = together_A(plan, loads_on(plan, box.id));
    const auto free = std::count_if(uses.begin(), uses.end(), [](const ChannelUse& u) { return !u.run; });
    slab.amount = amps_text(document_, sum);
    if (box.main_A) {
        slab.amount += say(" of ") + amps_text(document_, *box.main_A);
        slab.share = sum / *box.main_A;
    }
    slab.amount +=
        say(" together at worst · ") + (free == 0 ? say("no channel free") : say("%1 free").arg(free));
    const double inner = width - 2 * kMargin;
    const auto count = static_cast<double>(uses.size());
    const double a_row = std::min(count, std::max(1.0, std::floor((inner + kGap) / (kLeastCell + kGap))));
    const double rows = std::ceil(count / a_row), per_row = std::ceil(count / rows);
    const double cell = (inner - (per_row - 1) * kGap) / per_row;
    double y = top + kTitle;
    std::size_t k = 0;
    for (int row = 0; row < static_cast<int>(rows); ++row) {
        const std::size_t first = slab.cells.size();
        for (int n = 0; n < static_cast<int>(per_row) && k < uses.size(); ++n, ++k) {
            const ChannelUse& use = uses[k];
            BoxCell c;
            c.rect = QRectF(kMargin + n * (cell + kGap), y, cell, kCell);
            c.channel = use.channel->number;
            const double rating = channel_rating_A(*use.channel);
            c.amount = amps_text(document_, rating);
            if (use.load) {
                c.load = use.load->id;
                c.name = q(use.load->name);
                c.amount = amps_text(document_, use.amps) + say(" of ") + c.amount;
                c.share = use.amps / rating;
                c.pinned = use.load->pinned;
                c.severity = document_->inspector().severity_of(use.load->id);
            } else if (use.run) {
                c.name = q(yr::name_of(plan, use.at));
                c.amount = amps_text(document_, use.amps) + say(" of ") + c.amount;
                c.share = use.amps / rating;
            }
            slab.cells.push_back(c);
        }
        y += kCell;
        // brackets under channels that share a limit and stand side by side
        bool any = false;
        for (std::size_t n = first; n < slab.cells.size();) {
            const std::string& group = uses[n].channel->group;
            std::size_t last = n;
            while (last + 1 < slab.cells.size() && uses[last + 1].channel->group == group) ++last;
            for (const ChannelGroup& g : box.groups) {
                if (group.empty() || g.name != group) continue;
                std::vector<const Load*> loads;
                for (const ChannelUse& use : uses)
                    if (use.load && use.channel->group == group) loads.push_back(use.load);
                const double together = together_A(plan, loads);
                BoxGroup bracket;
                bracket.rect =
                    QRectF(slab.cells[n].rect.left(), y + 2,
                           slab.cells[last].rect.right() - slab.cells[n].rect.left(), kBracket - 4);
                bracket.over = together > g.limit_A * (1 + 1e-9);
                bracket.text =
                    (bracket.over ? QStringLiteral("▲ ") : QString()) +
                    say("%1 share %2, can ask for %3")
                        .arg(q(g.name), amps_text(document_, g.limit_A), amps_text(document_, together));
                slab.groups.push_back(bracket);
                any = true;
            }
            n = last + 1;
        }
        y += any ? kBracket : kGap;
    }
    slab.rect = QRectF(0, top, width, y - top + 2);
    return slab.rect.bottom();
}

double BoxView::feed_slab(const Point& feed, double top, double width, BoxSlab& slab) const {
    const Plan& plan = document_->plan();
    slab.feed = feed.id;
    slab.title = q(words::capital(feed.name));
    const auto loads = loads_on(plan, feed.id);
    slab.amount = amps_text(document_, together_A(plan, loads)) + say(" together at worst");
    double x = kMargin, y = top + kTitle;
    const QFontMetrics fm(type_font(Type::small));
    for (const Load* l : loads) {
        BoxCell c;
        c.load = l->id;
        c.name = q(l->name);
        c.amount = amps_text(document_, nominal_A(plan, *l));
        c.pinned = l->pinned;
        c.severity = document_->inspector().severity_of(l->id);
        const double w = fm.horizontalAdvance(c.name + QStringLiteral("  ") + c.amount) + 34;
        if (x + w > width - kMargin && x > kMargin) x = kMargin, y += kChip + 4;
        c.rect = QRectF(x, y, w, kChip - 4);
        x += w + kGap;
        slab.cells.push_back(c);
    }
    slab.rect = QRectF(0, top, width, (loads.empty() ? kTitle : y + kChip - top) + 2);
    return slab.rect.bottom();
}

const BoxCell* BoxView::cell_of(const Id& load) const {
    for (const BoxSlab& s : slabs_)
        for (const BoxCell& c : s.cells)
            if (!load.empty() && c.load == load) return &c;
    return nullptr;
}

const BoxCell* BoxView::cell_at(const Id& feed, int channel) const {
    for (const BoxSlab& s : slabs_)
        for (const BoxCell& c : s.cells)
            if (s.feed == feed && c.channel == channel) return &c;
    return nullptr;
}

BoxView::Hit BoxView::hit(const QPointF& at) const {
    for (const BoxSlab& s : slabs_) {
        if (!s.rect.contains(at)) continue;
        for (const BoxCell& c : s.cells)
            if (c.rect.contains(at)) return {&s, &c};
        return {&s, nullptr};
    }
    return {};
}

void BoxView::mousePressEvent(QMouseEvent* event) {
    press_ = mouse_ = event->position();
    const Hit h = hit(press_);
    pressed_ = h.cell ? h.cell->load : Id();
}

void BoxView::mouseMoveEvent(QMouseEvent* event) {
    mouse_ = event->position();
    if (press_.x() >= 0 && dragged_.empty() && !pressed_.empty() &&
        (mouse_ - press_).manhattanLength() > kDrag_px) {
        dragged_ = pressed_;
        setCursor(Qt::ClosedHandCursor);
    }
    if (!dragged_.empty()) update();
}

void BoxView::mouseReleaseEvent(QMouseEvent* event) {
    mouse_ = event->position();
    if (!dragged_.empty()) {
        unsetCursor();
        drop(mouse_);
        dragged_.clear();
    } else if (press_.x() >= 0) {
        const Hit h = hit(mouse_);
        document_->selection().choose(h.cell && !h.cell->load.empty() ? h.cell->load
                                      : h.slab                        ? h.slab->feed
                                                                      : Id());
    }
    press_ = {-1, -1};
    update();
}

void BoxView::drop(const QPointF& at) {
    const Hit h = hit(at);
    if (!h.slab) return;
    const int channel = h.cell ? h.cell->channel : 0;
    document_->put_load(dragged_, h.slab->feed, channel);
}

QString BoxView::drop_text(const QPointF& at) const {
    const Hit h = hit(at);
    const QString who = q(yr::name_of(document_->plan(), dragged_)) + QStringLiteral(": ");
    if (!h.slab) return who + say("drop it on a channel or a feed");
    const QString place = q(words::place_text(document_->plan(), h.slab->feed, h.cell ? h.cell->channel : 0));
    if (h.cell && h.cell->channel > 0 && !h.cell->load.empty() && h.cell->load != dragged_)
        return who + say("change places with ") + h.cell->name;
    return who + say("put on ") + place;
}

void BoxView::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0) return QWidget::keyPressEvent(event);
    std::vector<Id> order;
    for (const BoxSlab& s : slabs_)
        for (const BoxCell& c : s.cells)
            if (!c.load.empty()) order.push_back(c.load);
    if (order.empty()) return;
    const auto now = std::find(order.begin(), order.end(), document_->selection().id());
    const auto count = static_cast<long>(order.size());
    const long at = now == order.end() ? 0 : ((now - order.begin()) + step + count) % count;
    document_->selection().choose(order[static_cast<std::size_t>(at)]);
}

bool BoxView::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const Hit h = hit(help->pos());
        const Load* l = h.cell ? yr::find(document_->plan().loads, h.cell->load) : nullptr;
        if (l)
            QToolTip::showText(help->globalPos(),
                               q(l->name + ": " + words::condition(l->live_when, &document_->plan())) +
                                   (l->pinned ? say(". Put here by hand.") : QString()));
        else
            QToolTip::hideText();
        return true;
    }
    if (event->type() == QEvent::PaletteChange) update();
    return QWidget::event(event);
}

namespace {

void paint_cell(QPainter& p, const BoxCell& c, bool selected, const Tokens& t) {
    const bool free = c.load.empty() && c.name.isEmpty();
    p.setPen(QPen(selected ? t.ink : t.line, selected ? 2 : 1, free ? Qt::DashLine : Qt::SolidLine));
    p.setBrush(free ? QBrush(Qt::NoBrush) : QBrush(t.paper));
    p.drawRoundedRect(c.rect, 3, 3);
    if (!free && c.channel > 0) {  // how much of the channel is used, along its foot
        const QRectF foot(c.rect.left() + 6, c.rect.bottom() - 8, c.rect.width() - 12, 4);
        p.fillRect(foot, t.line);
        p.fillRect(QRectF(foot.topLeft(), QSizeF(foot.width() * std::min(1.0, c.share), 4)),
                   c.share > 1 ? t.stop : t.supply[1]);
    }
    const bool bad = c.severity && *c.severity <= Severity::fix;
    QRectF text = c.rect.adjusted(8, 4, -6, -4);
    p.setFont(type_font(Type::small));
    const QFontMetrics fm(p.font());
    const QString mark = bad ? QString::fromUtf8(words::mark(*c.severity)) + QLatin1Char(' ') : QString();
    if (c.channel > 0) {
        p.setPen(t.soft);
        p.drawText(text, Qt::AlignTop | Qt::AlignLeft, QString::number(c.channel));
        p.drawText(text, Qt::AlignTop | Qt::AlignRight,
                   c.pinned ? say("put here")
                   : free   ? say("free")
                            : QString());
        text.adjust(0, 15, 0, 0);
        p.setFont(type_font(Type::body));
        p.setPen(bad ? (*c.severity == Severity::stop ? t.stop : t.fix) : t.ink);
        p.drawText(
            text, Qt::AlignTop | Qt::AlignLeft,
            QFontMetrics(p.font()).elidedText(mark + c.name, Qt::ElideRight, static_cast<int>(text.width())));
        p.setPen(t.soft);
        p.setFont(type_font(Type::small));
        text.adjust(0, free ? 2 : 19, 0, 0);
        p.drawText(text, Qt::AlignTop | Qt::AlignLeft,
                   fm.elidedText(c.amount, Qt::ElideRight, static_cast<int>(text.width())));
    } else {
        p.setPen(bad ? (*c.severity == Severity::stop ? t.stop : t.fix) : t.ink);
        p.drawText(text, Qt::AlignVCenter | Qt::AlignLeft, mark + c.name);
        p.setPen(t.soft);
        p.drawText(text, Qt::AlignVCenter | Qt::AlignRight, c.amount);
    }
}

}  // namespace

void BoxView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    if (slabs_.empty()) {
        p.setPen(t.soft);
        p.setFont(type_font(Type::body));
        p.drawText(rect(), Qt::AlignCenter,
                   say("No box and no feed yet: Add a control box, or a feed, and hang loads on it."));
        return;
    }
    for (const BoxSlab& s : slabs_) {
        const bool box = !s.cells.empty() && s.cells.front().channel > 0;
        if (box) p.fillRect(s.rect.adjusted(8, 0, -8, 0), t.panel);
        QRectF head(kMargin, s.rect.top(), s.rect.width() - 2 * kMargin, kTitle);
        p.setFont(type_font(Type::bold));
        p.setPen(s.feed == document_->selection().id() ? t.source : t.ink);
        p.drawText(head, Qt::AlignVCenter | Qt::AlignLeft, s.title);
        const double after = QFontMetrics(p.font()).horizontalAdvance(s.title) + 12;
        p.setFont(type_font(Type::small));
        p.setPen(s.share > 1 ? t.fix : t.soft);
        p.drawText(head.adjusted(after, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft,
                   (s.share > 1 ? QStringLiteral("▲ ") : QString()) + s.amount);
        if (s.share >= 0) {  // the main: used, and what is left of it
            const QRectF bar(head.right() - 180, head.center().y() - 4, 180, 8);
            p.fillRect(bar, t.line);
            p.fillRect(QRectF(bar.topLeft(), QSizeF(bar.width() * std::min(1.0, s.share), 8)),
                       s.share > 1 ? t.stop : t.supply[0]);
        }
        for (const BoxCell& c : s.cells)
            paint_cell(p, c, !c.load.empty() && c.load == document_->selection().id(), t);
        for (const BoxGroup& g : s.groups) {
            p.setPen(QPen(g.over ? t.fix : t.soft, 1));
            p.drawLine(g.rect.topLeft(), g.rect.topRight());
            p.drawLine(g.rect.topLeft(), g.rect.topLeft() + QPointF(0, -3));
            p.drawLine(g.rect.topRight(), g.rect.topRight() + QPointF(0, -3));
            p.setFont(type_font(Type::small));
            p.drawText(g.rect.adjusted(4, 1, -4, 4), Qt::AlignVCenter | Qt::AlignLeft,
                       QFontMetrics(p.font()).elidedText(g.text, Qt::ElideRight,
                                                         static_cast<int>(g.rect.width()) - 8));
        }
    }
    const bool any_box = std::any_of(slabs_.begin(), slabs_.end(), [](const BoxSlab& s) {
        return !s.cells.empty() && s.cells.front().channel > 0;
    });
    if (!any_box) {
        p.setPen(t.soft);
        p.setFont(type_font(Type::small));
        p.drawText(
            QRectF(kMargin, slabs_.back().rect.bottom() + 8, width() - 2 * kMargin, 20), Qt::AlignLeft,
            say("No control box yet. Add, Control box: its channels then switch and guard each load."));
    }
    if (!dragged_.empty()) {
        const QString text = drop_text(mouse_);
        p.setFont(type_font(Type::body));
        QRectF card(mouse_ + QPointF(14, 10),
                    QSizeF(QFontMetrics(p.font()).horizontalAdvance(text) + 20, 28));
        card.moveRight(std::min(card.right(), width() - 4.0));
        p.setPen(QPen(t.ink, 1));
        p.setBrush(t.panel);
        p.drawRoundedRect(card, 3, 3);
        p.drawText(card, Qt::AlignCenter, text);
    }
}

std::vector<SpokenPart> BoxView::spoken_parts() const {
    std::vector<SpokenPart> parts;
    for (const BoxSlab& slab : slabs_) {
        parts.push_back({slab.rect.toRect(), slab.title, slab.amount});
        for (const BoxCell& cell : slab.cells) {
            const QString where =
                cell.channel > 0 ? say("%1, channel %2").arg(slab.title).arg(cell.channel) : slab.title;
            parts.push_back(
                {cell.rect.toRect(), where,
                 cell.load.empty() ? say("free") : cell.name + QStringLiteral(", ") + cell.amount});
        }
    }
    return parts;
}

}  // namespace yr::app

#include "moc_box_view.cpp"
