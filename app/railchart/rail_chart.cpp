#include "railchart/rail_chart.h"

#include <QGuiApplication>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QStyle>
#include <algorithm>

#include "control/hang_on.h"
#include "railchart/rail_paint.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kGlide_ms = 120;
constexpr double kDrag_px = 8;

}  // namespace

RailChart::RailChart(ShownCircuit* circuit, QWidget* parent) : RailChart(circuit, nullptr, parent) {}

RailChart::RailChart(Document* document, QWidget* parent) : RailChart(&document->shown(), document, parent) {}

RailChart::RailChart(ShownCircuit* circuit, Document* document, QWidget* parent)
    : QWidget(parent), circuit_(circuit), document_(document) {
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("Rail chart"));
    setAccessibleDescription(
        say("Width is amps, height is volts lost. Left and right walk, plus and minus step the "
            "cable, F1 says why."));
    glide_.setStartValue(0.0);
    glide_.setEndValue(1.0);
    glide_.setDuration(kGlide_ms);
    connect(&glide_, &QVariantAnimation::valueChanged, this, [this] { update(); });
    connect(circuit_, &ShownCircuit::shown, this, [this] { refresh(true); });
    if (document_) {
        connect(&document_->inspector(), &Inspector::inspected, this, [this] { refresh(false); });
        connect(&document_->selection(), &Selection::chosen, this, [this] { update(); });
    }
    refresh(false);
}

const Id& RailChart::chosen() const {
    return document_ ? document_->selection().id() : chosen_;
}

void RailChart::choose(const Id& id) {
    if (document_)
        document_->selection().choose(id);
    else
        chosen_ = id;
    update();
}

void RailChart::refresh(bool animate) {
    const bool glides = animate && animated_ && isVisible() &&
                        style()->styleHint(QStyle::SH_Widget_Animation_Duration, nullptr, this) > 0;
    if (!window_.whole() && window_.left_A >= circuit_->layout().width_A) window_ = {};
    if (glides) before_ = scene_;
    scene_ = build_scene(*circuit_, document_ ? &document_->inspector() : nullptr, size(), window_, scale_);
    if (glides) {
        glide_.stop();
        glide_.start();
    }
    update();
}

void RailChart::set_scale(const SceneScale& scale) {
    scale_ = scale;
    refresh(false);
}

void RailChart::resizeEvent(QResizeEvent*) {
    refresh(false);
}

void RailChart::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const bool gliding = glide_.state() == QAbstractAnimation::Running;
    const SceneItem* over = hovered();
    RailPaint what{*circuit_,
                   scene_,
                   gliding ? &before_ : nullptr,
                   gliding ? glide_.currentValue().toDouble() : 1.0,
                   over ? over->id : Id(),
                   chosen(),
                   {},
                   mouse_,
                   QSizeF(size())};
    if (!dragged_.empty()) {
        what.drag_hint = drag_hint();
    }
    paint_rail(painter, what);
    if (!circuit_->plan().states.empty() && !circuit_->solution().point.settled) paint_no_answer(painter);
    if (!what.drag_hint.isEmpty()) {
        SceneItem hint;
        hint.kind = SceneKind::source;
        hint.label = q(yr::name_of(circuit_->plan(), dragged_)) + QStringLiteral(": ") + what.drag_hint;
        paint_card(painter, what, hint);
    } else if (over && !gliding && over->kind != SceneKind::headroom) {
        paint_card(painter, what, *over);
    }
    if (hasFocus()) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(palette().color(QPalette::PlaceholderText), 1, Qt::DotLine));
        painter.drawRect(rect().adjusted(1, 1, -2, -2));
    }
}

// Nothing of the picture stands for anything then.
void RailChart::paint_no_answer(QPainter& painter) const {
    const QString text = QStringLiteral("\u25A0 ") + q(words::no_answer(circuit_->state()));
    painter.setFont(type_font(Type::bold));
    const QRectF room = QRectF(rect()).adjusted(16, 8, -16, -8);
    QRectF card = painter.boundingRect(room, Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, text);
    card.adjust(-10, -6, 10, 6);
    card.moveCenter(QRectF(rect()).center());
    painter.setPen(QPen(tokens().stop, 1.5));
    painter.setBrush(tokens().paper);
    painter.drawRect(card);
    painter.drawText(card.adjusted(10, 6, -10, -6), Qt::AlignCenter | Qt::TextWordWrap, text);
}

const SceneItem* RailChart::hovered() const {
    return mouse_.x() < 0 ? nullptr : scene_.at(mouse_);
}

const SceneItem* RailChart::target() const {
    if (const SceneItem* over = hovered()) return over;
    return chosen().empty() ? nullptr : scene_.of(chosen());
}

void RailChart::set_hover(const QPointF& point) {
    mouse_ = point;
    update();
}

void RailChart::mouseMoveEvent(QMouseEvent* event) {
    mouse_ = event->position();
    if (document_ && press_.x() >= 0 && dragged_.empty() && (mouse_ - press_).manhattanLength() > kDrag_px) {
        dragged_ = movable_under(press_);
        if (!dragged_.empty()) setCursor(Qt::ClosedHandCursor);
    }
    update();
}

void RailChart::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    press_ = mouse_ = event->position();
    const SceneItem* item = scene_.at(press_);
    on_item_ = item != nullptr;
    pressed_ = item ? *item : SceneItem{};
}

void RailChart::mouseReleaseEvent(QMouseEvent* event) {
    mouse_ = event->position();
    const bool was_click = press_.x() >= 0 && dragged_.empty();
    if (!dragged_.empty()) {
        const Id thing = dragged_;
        dragged_.clear();
        unsetCursor();
        drop(thing);
    } else if (was_click) {
        const Id box = box_under(mouse_);
        if (!box.empty())
            choose(box);
        else if (on_item_ && pressed_.kind == SceneKind::gathered)
            look_into(pressed_);
        else
            choose(on_item_ ? pressed_.id : Id());
    }
    press_ = {-1, -1};
    update();
}

void RailChart::mouseDoubleClickEvent(QMouseEvent*) {
    if (on_item_)
        look_into(pressed_);
    else
        look_at_all();
}

void RailChart::leaveEvent(QEvent*) {
    set_hover({-1, -1});
}

Id RailChart::box_under(const QPointF& point) const {
    for (const SceneBox& b : scene_.boxes)
        if (b.rect.contains(point)) return b.id;
    return {};
}

// What may be dragged from there: a load, or by its slab, its gap or the cable that feeds it a box, bus,
// charger, inverter or battery.
Id RailChart::movable_under(const QPointF& point) const {
    if (const Id box = box_under(point); !box.empty()) return feed_of(circuit_->plan(), box) ? box : Id();
    if (!on_item_) return {};
    if (pressed_.kind == SceneKind::load)
        return pressed_.ref.thing == ChartThing::load || feed_of(circuit_->plan(), pressed_.id) ? pressed_.id
                                                                                                : Id();
    const Run* run =
        pressed_.kind == SceneKind::conductor ? yr::find(circuit_->plan().runs, pressed_.id) : nullptr;
    if (!run) return {};
    if (pressed_.side == ChartSide::supply && yr::find(circuit_->plan().loads, run->to.owner))
        return run->to.owner;
    const Run* feed = feed_of(circuit_->plan(), run->to.owner);
    return feed == run ? run->to.owner : Id();
}

// The supply of `thing` that a point of the picture belongs to: a box or a source there, or an end of the
// cable there; nullopt: none that can feed it.
std::optional<Terminal> RailChart::supply_under(const QPointF& point, const Id& thing) const {
    const std::vector<Terminal> may = supplies_for(circuit_->plan(), thing);
    const auto of = [&](const Id& id) -> std::optional<Terminal> {
        for (const Terminal& t : may)
            if (t.owner == id) return t;
        return std::nullopt;
    };
    if (auto box = of(box_under(point))) return box;
    for (const SceneItem& i : scene_.items) {
        if (!i.rect.adjusted(0, -2, 0, 2).contains(point)) continue;
        if (i.kind == SceneKind::source)
            if (auto source = of(i.id)) return source;
        const Run* run = i.kind == SceneKind::conductor && i.side == ChartSide::supply
                             ? yr::find(circuit_->plan().runs, i.id)
                             : nullptr;
        if (!run) continue;
        for (const Terminal* end : {&run->to, &run->from})
            if (auto supply = of(end->owner)) return supply;
    }
    return std::nullopt;
}

QString RailChart::drag_hint() const {
    const Plan& plan = circuit_->plan();
    if (yr::find(plan.loads, dragged_)) {
        const Id feed = feed_under(mouse_);
        return feed.empty() ? say("drop it on a feed") : say("hang on ") + q(yr::name_of(plan, feed));
    }
    const auto supply = supply_under(mouse_, dragged_);
    return supply ? say("feed it from ") + q(words::terminal(plan, *supply))
                  : say("drop it on what can feed it");
}

void RailChart::drop(const Id& thing) {
    if (yr::find(circuit_->plan().loads, thing)) {
        if (const Id feed = feed_under(mouse_); !feed.empty()) document_->move_load(thing, feed);
    } else if (const auto supply = supply_under(mouse_, thing)) {
        document_->hang(thing, *supply);
    }
}

// The feed that a point of the picture belongs to: the nearest stud, bus or box with loads at or above it.
Id RailChart::feed_under(const QPointF& point) const {
    for (const SceneBox& b : scene_.boxes)
        if (b.rect.adjusted(0, -4, 0, 4).contains(point)) return b.id;
    for (const SceneItem& i : scene_.items) {
        if (i.kind != SceneKind::conductor || i.side != ChartSide::supply ||
            !i.rect.adjusted(0, -2, 0, 2).contains(point))
            continue;
        const Run* run = yr::find(circuit_->plan().runs, i.id);
        if (!run) continue;
        for (const Terminal* t : {&run->to, &run->from})
            if (const Point* p = yr::find(circuit_->plan().points, *t); p && p->feeds_loads) return p->id;
    }
    return {};
}

void RailChart::wheelEvent(QWheelEvent* event) {
    wheel_left_ += event->angleDelta().y();
    const int steps = wheel_left_ / 120;  // one notch of a mouse wheel, by Qt's definition
    wheel_left_ -= steps * 120;
    mouse_ = event->position();
    if (steps != 0) step(hovered(), steps);
    event->accept();
}

void RailChart::step(const SceneItem* item, int steps) {
    if (!item || !document_) return;
    Id run = item->id;
    if (item->kind == SceneKind::load && item->ref.thing == ChartThing::load)
        for (const Run& r : circuit_->plan().runs)
            if (r.to == pos_of(item->id)) run = r.id;
    document_->step_run(run, steps, QGuiApplication::keyboardModifiers().testFlag(Qt::AltModifier));
}

void RailChart::look_into(const SceneItem& item) {
    if (item.kind == SceneKind::headroom) return;
    double left = item.left_A, right = item.right_A;
    for (const ChartPiece& p :
         circuit_->layout().pieces)  // all pieces of a run that stand side by side with this one
        if (item.kind == SceneKind::conductor && p.ref == item.ref && p.left_A >= left - 1e-6 &&
            p.right_A <= right + 1e-6)
            left = std::min(left, p.left_A), right = std::max(right, p.right_A);
    if (right - left >= circuit_->layout().width_A * 0.999) return;
    window_ = {left, right};
    mouse_ = {-1, -1};
    refresh(true);
    emit window_changed();
}

void RailChart::look_at_all() {
    if (window_.whole()) return;
    window_ = {};
    refresh(true);
    emit window_changed();
}

void RailChart::walk(int direction) {
    std::vector<const SceneItem*> order;
    for (const SceneItem& i : scene_.items)
        if (i.kind != SceneKind::headroom && i.piece == 0) order.push_back(&i);
    if (order.empty()) return;
    std::stable_sort(order.begin(), order.end(), [](const SceneItem* a, const SceneItem* b) {
        return a->rect.left() != b->rect.left() ? a->rect.left() < b->rect.left()
                                                : a->rect.top() < b->rect.top();
    });
    const auto now =
        std::find_if(order.begin(), order.end(), [&](const SceneItem* i) { return i->id == chosen(); });
    const auto count = static_cast<long>(order.size());
    const long at = now == order.end() ? (direction > 0 ? 0 : count - 1)
                                       : ((now - order.begin()) + direction + count) % count;
    mouse_ = {-1, -1};
    choose(order[static_cast<std::size_t>(at)]->id);
}

void RailChart::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
            walk(-1);
            break;
        case Qt::Key_Right:
            walk(1);
            break;
        case Qt::Key_Plus:
        case Qt::Key_Equal:
            step(target(), 1);
            break;
        case Qt::Key_Minus:
            step(target(), -1);
            break;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (const SceneItem* i = target()) look_into(*i);
            break;
        case Qt::Key_Escape:
            look_at_all();
            break;
        case Qt::Key_Delete:
            if (const SceneItem* i = target(); i && document_ && i->kind == SceneKind::load)
                emit remove_asked(i->id);
            break;
        case Qt::Key_F1: {
            const SceneItem* i = target();
            if (i) emit why(questions(), mapToGlobal((hovered() ? mouse_ : i->rect.center()).toPoint()));
            break;
        }
        default:
            QWidget::keyPressEvent(event);
    }
}

std::vector<words::ValueRef> RailChart::questions() const {
    using K = words::ValueKind;
    const SceneItem* i = target();
    if (!i) return {};
    switch (i->kind) {
        case SceneKind::conductor: {
            if (!yr::find(circuit_->plan().runs, i->id)) return {{K::bond_drop, i->id, 0}};
            std::vector<words::ValueRef> refs{{K::run_drop, i->id, 0}, {K::run_current, i->id, 0}};
            if (circuit_->solution().network.conductors[static_cast<std::size_t>(i->ref.index)].cable20_ohm >
                0) {
                refs.push_back({K::run_ampacity, i->id, 0});
                refs.push_back({K::run_temperature, i->id, 0});
            }
            refs.push_back({K::run_heat, i->id, 0});
            for (const SceneBand& b : i->bands)  // the band under the mouse first
                if (b.part != PartKind::cable && b.part != PartKind::metal && b.rect.contains(mouse_))
                    refs.insert(refs.begin(), {K::device_drop, i->id, b.index});
            return refs;
        }
        case SceneKind::load:
            if (i->ref.thing == ChartThing::load)
                return {{K::load_drop, i->id, 0}, {K::load_current, i->id, 0}, {K::load_voltage, i->id, 0}};
            if (i->ref.thing == ChartThing::inverter) return {{K::inverter_current, i->id, 0}};
            if (i->ref.thing == ChartThing::standby) return {{K::feed_current, i->id, 0}};
            if (i->ref.thing == ChartThing::charging)
                return {{K::battery_current, i->id, 0}, {K::battery_voltage, i->id, 0}};
            return {{K::source_current, i->id, 0}, {K::source_limit, i->id, 0}};
        case SceneKind::source:
        case SceneKind::headroom:
            if (yr::find(circuit_->plan().batteries, i->id))
                return {{K::battery_current, i->id, 0},
                        {K::battery_hours, i->id, 0},
                        {K::battery_voltage, i->id, 0}};
            return {
                {K::source_current, i->id, 0}, {K::source_limit, i->id, 0}, {K::source_voltage, i->id, 0}};
        case SceneKind::gathered:
            break;
    }
    std::vector<words::ValueRef> refs;
    for (const Id& id : i->members) refs.push_back({K::load_drop, id, 0});
    return refs;
}

bool RailChart::event(QEvent* event) {
    if (event->type() == QEvent::PaletteChange) update();
    return QWidget::event(event);
}

std::vector<SpokenPart> RailChart::spoken_parts() const {
    std::vector<SpokenPart> parts;
    for (const SceneItem& i : scene_.items) {
        const bool cable = i.kind == SceneKind::conductor;
        QString value =
            cable ? cable_label(*circuit_, i) + QStringLiteral(", ") + cable_detail(*circuit_, i) : i.detail;
        if (!i.share.isEmpty()) value += QStringLiteral(", ") + i.share;
        if (i.severity) value += QStringLiteral(", ") + QString::fromUtf8(words::name_of(*i.severity));
        parts.push_back({i.rect.toRect(), cable ? q(yr::name_of(circuit_->plan(), i.id)) : i.label, value});
    }
    for (const SceneBox& b : scene_.boxes)
        parts.push_back({b.rect.toRect(), q(yr::name_of(circuit_->plan(), b.id)), b.label});
    return parts;
}

}  // namespace yr::app

#include "moc_rail_chart.cpp"
