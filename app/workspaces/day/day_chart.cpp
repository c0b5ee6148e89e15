#include "workspaces/day/day_chart.h"

#include <QDragEnterEvent>
#include <QKeyEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "plan/roles.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "workspaces/day/state_shelf.h"

namespace yr::app {
namespace {

constexpr double kLeft = 70, kRight = 16, kTop = 8, kStrip = 36, kHead = 18, kGap = 8, kAxis = 26;
constexpr double kGrid_s = 300, kEdge_px = 5, kLeastPart_s = 60, kCarry_px = 12;

}  // namespace

DayChart::DayChart(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAcceptDrops(true);
    setAccessibleName(say("The day in time"));
}

const Day* DayChart::day() const {
    return yr::find(document_->plan().days, day_);
}

void DayChart::set_day(const Id& id) {
    day_ = id;
    const Day* d = day();
    line_ = d ? timeline(document_->plan(), *d) : std::vector<Stretch>();
    length_s_ = line_.empty() ? 86400 : line_.back().to_s;
    if (d && chosen_ >= d->parts.size()) chosen_ = 0;
    cursor_s_ = std::min(cursor_s_, length_s_);
    update();
}

void DayChart::show_result(const DayResult* result) {
    result_ = result;
    update();
}

void DayChart::show_other(const DayResult* result, const QString& name) {
    other_ = result;
    other_name_ = name;
    update();
}

void DayChart::show_log(const Log& log) {
    log_ = log;
    update();
}

double DayChart::log_s(const LogPoint& point) const {
    return log_.of_the_clock && day() ? point.t_s - day()->begins_h * 3600 : point.t_s;
}

void DayChart::paint_other(QPainter& p, const QRectF& r, std::size_t k, bool volts,
                           const std::function<double(double)>& y) const {
    if (!other_ || other_->run.points.empty()) return;
    p.save();
    p.setClipRect(r.adjusted(0, -1, 0, 1));
    p.setRenderHint(QPainter::Antialiasing, true);
    QPainterPath path;
    for (const DayPoint& d : other_->run.points) {
        const auto& list = volts ? d.battery_V : d.charge;
        if (k >= list.size()) continue;
        const QPointF at(x_of(std::min(d.t_s, length_s_)), y(list[k]));
        path.elementCount() == 0 ? path.moveTo(at) : path.lineTo(at);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(tokens().fix, 2, Qt::DashLine));
    p.drawPath(path);
    p.restore();
}

void DayChart::paint_log(QPainter& p, const QRectF& r, std::optional<double> LogPoint::*value,
                         const std::function<double(double)>& y) const {
    if (log_.points.empty()) return;
    p.save();
    p.setClipRect(r.adjusted(0, -1, 0, 1));
    p.setPen(Qt::NoPen);
    p.setBrush(tokens().ink);
    for (const LogPoint& point : log_.points)
        if (point.*value) p.drawRect(QRectF(x_of(log_s(point)) - 1, y(*(point.*value)) - 1, 2, 2));
    p.restore();
}

void DayChart::choose_part(std::size_t part) {
    chosen_ = part;
    update();
    emit part_chosen();
}

void DayChart::set_cursor(double t_s) {
    cursor_s_ = std::clamp(t_s, 0.0, length_s_);
    update();
    emit cursor_moved();
}

double DayChart::x_of(double t_s) const {
    return kLeft + (width() - kLeft - kRight) * t_s / length_s_;
}
double DayChart::t_of(double x) const {
    return std::clamp((x - kLeft) / (width() - kLeft - kRight), 0.0, 1.0) * length_s_;
}

int DayChart::lanes() const {
    return 3 + static_cast<int>(document_->plan().batteries.size());
}

QRectF DayChart::lane(int index) const {
    const double w = width() - kLeft - kRight;
    if (index == 0) return {kLeft, kTop, w, kStrip};
    const int channels = lanes() - 3;
    const double room = height() - kTop - kStrip - kAxis - (lanes() - 1) * (kHead + kGap);
    const double unit = std::max(12.0, room / (1.5 + channels + 1.1));  // amps, channels, volts
    double y = kTop + kStrip + kGap;
    const auto tall = [&](int k) { return k == 1 ? 1.5 * unit : k == lanes() - 1 ? 1.1 * unit : unit; };
    for (int k = 1; k < index; ++k) y += kHead + tall(k) + kGap;
    return {kLeft, y + kHead, w, tall(index)};
}

QRectF DayChart::stretch_rect(std::size_t k) const {
    const QRectF strip = lane(0);
    return {x_of(line_[k].from_s), strip.top(), x_of(line_[k].to_s) - x_of(line_[k].from_s), strip.height()};
}

const DayPoint* DayChart::point_at(double t_s) const {
    if (!result_ || result_->run.points.empty()) return nullptr;
    const auto& points = result_->run.points;
    auto after = std::upper_bound(points.begin(), points.end(), t_s,
                                  [](double t, const DayPoint& p) { return t < p.t_s; });
    return after == points.begin() ? &points.front() : &*(after - 1);
}

// ---- painting

void DayChart::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), tokens().paper);
    if (!day()) {
        p.setPen(tokens().soft);
        p.setFont(type_font(Type::body));
        p.drawText(
            rect().adjusted(24, 24, -24, -24), Qt::AlignCenter | Qt::TextWordWrap,
            say("This plan has no day yet. A day is a strip of its states with how long each lasts: does it "
                "last the "
                "night, and start in the morning? “New day” lays one out of the states that are there."));
        return;
    }
    paint_axis(p);
    paint_strip(p);
    if (result_ && !result_->run.points.empty() && result_->day == day_) {
        paint_amps(p);
        for (std::size_t k = 0; k < document_->plan().batteries.size(); ++k) paint_charge(p, k);
        paint_volts(p);
    }
    paint_cursor(p);
    if (carried_ && std::abs(carried_to_x_ - carried_from_x_) > kCarry_px) {
        p.setPen(QPen(tokens().source, 3));
        p.drawLine(QPointF(carried_to_x_, lane(0).top() - 4), QPointF(carried_to_x_, lane(0).bottom() + 4));
    }
    p.setBrush(Qt::NoBrush);
    if (hasFocus()) p.setPen(QPen(tokens().soft, 1, Qt::DotLine)), p.drawRect(rect().adjusted(0, 0, -1, -1));
}

void DayChart::paint_axis(QPainter& p) const {
    const Tokens& t = tokens();
    p.setFont(type_font(Type::small));
    const double hours = length_s_ / 3600, room = width() - kLeft - kRight;
    double every = 1;
    for (const double e : {1.0, 2.0, 3.0, 6.0, 12.0, 24.0, 48.0})
        if (room / (hours / e) >= 56) {
            every = e;
            break;
        }
    const double first = std::ceil(day()->begins_h / every) * every;
    const auto marks = static_cast<int>(std::floor((day()->begins_h + hours - first) / every + 1e-9));
    for (int k = 0; k <= marks; ++k) {
        const double h = first + k * every;
        const double x = x_of((h - day()->begins_h) * 3600);
        p.setPen(QPen(t.line, 1, Qt::DotLine));
        p.drawLine(QPointF(x, lane(0).bottom()), QPointF(x, height() - kAxis));
        p.setPen(t.soft);
        p.drawText(QRectF(std::min(x - 30, width() - 62.0), height() - kAxis + 4, 60, 18), Qt::AlignCenter,
                   q(clock_text(*day(), (h - day()->begins_h) * 3600)));
    }
}

void DayChart::paint_strip(QPainter& p) const {
    const Tokens& t = tokens();
    const Plan& plan = document_->plan();
    for (std::size_t k = 0; k < line_.size(); ++k) {
        const QRectF r = stretch_rect(k);
        const State& s = plan.states[line_[k].state];
        const QColor fill = s.rpm > 0 ? t.source : s.key == Key::off ? t.panel : t.supply[2];
        p.fillRect(r, fill);
        const bool chosen = line_[k].part == chosen_;
        p.setPen(QPen(chosen ? t.ink : t.paper, chosen ? 2 : 1));
        p.setBrush(Qt::NoBrush);
        p.drawRect(r.adjusted(0.5, 0.5, -0.5, -0.5));
        p.setPen(t.on(fill));
        p.setFont(type_font(Type::small));
        const QFontMetrics m(p.font());
        if (r.width() > 26)
            p.drawText(r.adjusted(4, 0, -4, 0), Qt::AlignCenter,
                       m.elidedText(q(s.name), Qt::ElideRight, static_cast<int>(r.width()) - 8));
        p.fillRect(QRectF(r.right() - 1.5, r.top() + 10, 3, r.height() - 20),
                   t.soft);  // what is taken hold of
    }
    if (hovers_x_) p.fillRect(QRectF(*hovers_x_ - 2, lane(0).top() - 3, 4, lane(0).height() + 6), t.ink);
}

// Given above the line, taken below; batteries hatched where they give. Areas are Ah.
void DayChart::paint_amps(QPainter& p) const {
    const Tokens& t = tokens();
    const QRectF r = lane(1);
    const auto& points = result_->run.points;
    const auto given = [](const DayPoint& d) {
        double a = 0;
        for (const double s : d.source_A) a += std::max(0.0, s);
        return a;
    };
    const auto from_batteries = [](const DayPoint& d) {
        double a = 0;
        for (const double b : d.battery_A) a += std::max(0.0, b);
        return a;
    };
    const auto into_batteries = [](const DayPoint& d) {
        double a = 0;
        for (const double b : d.battery_A) a += std::max(0.0, -b);
        return a;
    };
    double most = 5;
    for (const DayPoint& d : points)  // cranking lasts seconds: it would make all else small
        if (document_->plan().states[d.state].key != Key::crank)
            most = std::max({most, given(d) + from_batteries(d), d.taken_A + into_batteries(d)});
    p.save();
    p.setClipRect(r);
    const double middle = r.center().y(), scale = r.height() / 2 / (most * 1.05);
    for (std::size_t k = 0; k + 1 < points.size(); ++k) {
        const double x0 = x_of(points[k].t_s), x1 = std::max(x_of(points[k + 1].t_s), x0 + 0.5);
        const auto bar = [&](double from, double to) {
            return QRectF(QPointF(x0, middle - to * scale), QPointF(x1, middle - from * scale));
        };
        const DayPoint& d = points[k];
        p.fillRect(bar(0, given(d)), t.source);
        const QRectF battery = bar(given(d), given(d) + from_batteries(d));
        p.fillRect(battery,
                   QBrush(document_->plan().states[d.state].rpm > 0 ? t.stop : t.source, Qt::BDiagPattern));
        p.fillRect(bar(-d.taken_A, 0), t.supply[1]);
        p.fillRect(bar(-d.taken_A - into_batteries(d), -d.taken_A), t.ret[1]);
    }
    // what a log's battery gives stands where batteries do: above what gives without them
    paint_log(p, r, &LogPoint::amps_A, [&](double a) { return middle - a * scale; });
    p.restore();
    p.setPen(t.line);
    p.drawLine(QPointF(r.left(), middle), QPointF(r.right(), middle));
    p.setFont(type_font(Type::small));
    p.setPen(t.ink);
    p.drawText(QRectF(r.left() - kLeft + 8, r.top() - kHead, 400, kHead), Qt::AlignLeft | Qt::AlignVCenter,
               say("amps: given above, taken below; hatched: from batteries"));
    p.setPen(t.soft);
    p.drawText(QRectF(0, r.top(), kLeft - 8, 16), Qt::AlignRight | Qt::AlignVCenter,
               q(words::quantity(most, Dimension::current, document_->style())));
}

// Water in a channel, with its marks.
void DayChart::paint_charge(QPainter& p, std::size_t k) const {
    const Tokens& t = tokens();
    const QRectF r = lane(2 + static_cast<int>(k));
    const Battery& b = document_->plan().batteries[k];
    const auto& points = result_->run.points;
    const auto y = [&](double charge) { return r.bottom() - std::clamp(charge, 0.0, 1.0) * r.height(); };
    p.fillRect(r, t.panel);
    QPainterPath water(QPointF(x_of(points.front().t_s), r.bottom()));
    for (const DayPoint& d : points) water.lineTo(x_of(d.t_s), y(d.charge[k]));
    water.lineTo(x_of(points.back().t_s), r.bottom());
    QColor fill = t.supply[2];
    fill.setAlpha(170);
    p.fillPath(water, fill);
    p.setRenderHint(QPainter::Antialiasing, true);
    QPainterPath top(QPointF(x_of(points.front().t_s), y(points.front().charge[k])));
    for (const DayPoint& d : points) top.lineTo(x_of(d.t_s), y(d.charge[k]));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.supply[0], 2));
    p.drawPath(top);
    p.setRenderHint(QPainter::Antialiasing, false);
    paint_other(p, r, k, false, y);
    if (k == 0) paint_log(p, r, &LogPoint::charge, y);
    p.setFont(type_font(Type::small));
    p.setPen(QPen(t.soft, 1, Qt::DashLine));
    p.drawLine(QPointF(r.left(), y(0.5)), QPointF(r.right(), y(0.5)));
    p.setPen(t.soft);
    p.drawText(QRectF(r.left() + 6, y(0.5) - 15, 60, 14), Qt::AlignLeft, say("half"));
    p.setPen(t.ink);
    const auto percent = [&](double v) {
        return q(words::quantity(v, Dimension::fraction, document_->style()));
    };
    const BatteryDay& told = result_->verdicts.batteries[k];
    p.drawText(QRectF(8, r.top() - kHead, width() - 24, kHead), Qt::AlignLeft | Qt::AlignVCenter,
               say("%1: begins at %2, least %3, ends at %4")
                       .arg(q(b.name), percent(told.begin), percent(told.least_charge), percent(told.end)) +
                   (other_ && k < other_->verdicts.batteries.size()
                        ? say("; dashed, %1: least %2, ends at %3")
                              .arg(other_name_, percent(other_->verdicts.batteries[k].least_charge),
                                   percent(other_->verdicts.batteries[k].end))
                        : QString()));
}

void DayChart::paint_volts(QPainter& p) const {
    const Tokens& t = tokens();
    const QRectF r = lane(lanes() - 1);
    const Plan& plan = document_->plan();
    const auto& points = result_->run.points;
    double low = plan.vehicle.nominal_V * 0.9, high = plan.vehicle.nominal_V * 1.22;
    for (const DayPoint& d : points)
        if (!d.battery_V.empty())
            low = std::min(low, d.battery_V.front()), high = std::max(high, d.battery_V.front());
    for (const CrankPoint& c : result_->verdicts.cranks) low = std::min(low, c.as_entered.post_V - 0.2);
    low = std::max(low, plan.vehicle.nominal_V * 0.5);
    const auto y = [&](double v) {
        return r.bottom() - (std::clamp(v, low, high) - low) / (high - low) * r.height();
    };
    p.setPen(t.line);
    p.setBrush(Qt::NoBrush);
    p.drawRect(r);
    p.setFont(type_font(Type::small));
    const double step_V = plan.vehicle.nominal_V > 30 ? 6 : 2, lowest_V = std::ceil(low / 2) * 2;
    for (int k = 0; lowest_V + k * step_V <= high; ++k) {
        const double v = lowest_V + k * step_V;
        p.setPen(t.soft);
        p.drawText(QRectF(0, y(v) - 8, kLeft - 8, 16), Qt::AlignRight | Qt::AlignVCenter,
                   q(words::number(v, 3, document_->style().decimal_comma)));
        p.setPen(QPen(t.line, 1, Qt::DotLine));
        p.drawLine(QPointF(r.left(), y(v)), QPointF(r.right(), y(v)));
    }
    p.setRenderHint(QPainter::Antialiasing, true);
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        QPainterPath line(QPointF(x_of(points.front().t_s), y(points.front().battery_V[k])));
        for (const DayPoint& d : points) line.lineTo(x_of(d.t_s), y(d.battery_V[k]));
        p.setBrush(Qt::NoBrush);
        p.setPen(
            QPen(k == 0 ? t.supply[0] : t.ret[0], k == 0 ? 2 : 1.4, k == 0 ? Qt::SolidLine : Qt::DashLine));
        p.drawPath(line);
    }
    paint_other(p, r, 0, true, y);
    paint_log(p, r, &LogPoint::volts_V, y);
    // cranking: where the posts fall to, and what they need
    for (const CrankPoint& c : result_->verdicts.cranks) {
        const QPointF at(x_of(c.t_s), y(c.as_entered.post_V));
        p.setPen(Qt::NoPen);
        p.setBrush(c.as_entered.cranks() ? t.good : t.stop);
        if (c.as_entered.cranks())
            p.drawEllipse(at, 2.5, 2.5);
        else
            p.drawRect(QRectF(at.x() - 3, at.y() - 3, 6, 6));
    }
    p.setRenderHint(QPainter::Antialiasing, false);
    p.setPen(t.ink);
    p.drawText(QRectF(8, r.top() - kHead, width() - 24, kHead), Qt::AlignLeft | Qt::AlignVCenter,
               result_->verdicts.cranks.empty() ? say("volts of the batteries")
                                                : say("volts of the batteries; dots: at the posts while "
                                                      "cranking then (squares: it does not start)"));
}

void DayChart::paint_cursor(QPainter& p) const {
    if (cursor_s_ < 0) return;
    const Tokens& t = tokens();
    const double x = x_of(cursor_s_);
    p.setPen(QPen(t.ink, 1.4));
    p.drawLine(QPointF(x, kTop), QPointF(x, height() - kAxis));
    QRectF chip(x - 34, height() - kAxis + 3, 68, 20);
    if (chip.right() > width() - 2) chip.moveRight(width() - 2);
    if (chip.left() < 2) chip.moveLeft(2);
    p.fillRect(chip, t.card);
    p.setPen(t.card_ink);
    p.setFont(type_font(Type::bold));
    p.drawText(chip, Qt::AlignCenter, q(clock_text(*day(), cursor_s_)));
}

// ---- hands

int DayChart::edge_at(const QPointF& at) const {
    if (!lane(0).adjusted(-kEdge_px, -2, kEdge_px, 2).contains(at)) return -1;
    for (std::size_t k = 0; k < line_.size(); ++k)
        if (std::abs(at.x() - stretch_rect(k).right()) <= kEdge_px) return static_cast<int>(k);
    return -1;
}

void DayChart::mousePressEvent(QMouseEvent* event) {
    if (!day() || event->button() != Qt::LeftButton) return;
    dragged_ = edge_at(event->position());
    if (dragged_ >= 0) return;
    if (lane(0).contains(event->position()))
        for (std::size_t k = 0; k < line_.size(); ++k)
            if (stretch_rect(k).contains(event->position())) {
                choose_part(line_[k].part);
                carried_ = line_[k].part, carried_from_x_ = carried_to_x_ = event->position().x();
            }
    set_cursor(t_of(event->position().x()));
}

void DayChart::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ >= 0)
        drag_edge(event->position().x(), event->modifiers() & Qt::AltModifier);
    else if (carried_)
        carried_to_x_ = event->position().x(), update();
    else if (event->buttons() & Qt::LeftButton)
        set_cursor(t_of(event->position().x()));
    setCursor(dragged_ >= 0 || edge_at(event->position()) >= 0 ? Qt::SplitHCursor : Qt::ArrowCursor);
}

void DayChart::mouseReleaseEvent(QMouseEvent* event) {
    dragged_ = -1;
    const auto carried = std::exchange(carried_, std::nullopt);
    if (carried && std::abs(event->position().x() - carried_from_x_) > kCarry_px)
        move_part(*carried, event->position().x());
    update();
}

// A part carried along the strip stands before the part on whose first half it is let go, behind it on its
// second.
void DayChart::move_part(std::size_t part, double x) {
    const Day* now = day();
    if (!now || part >= now->parts.size()) return;
    std::size_t to = now->parts.size();
    for (std::size_t k = 0; k < line_.size(); ++k) {
        const QRectF r = stretch_rect(k);
        if (x >= r.right()) continue;
        to = line_[k].part + (x > r.center().x() ? 1 : 0);
        break;
    }
    if (to == part || to == part + 1) return;
    Day changed = *now;
    const DayPart moved = changed.parts[part];
    changed.parts.erase(changed.parts.begin() + static_cast<std::ptrdiff_t>(part));
    if (to > part) --to;
    changed.parts.insert(changed.parts.begin() + static_cast<std::ptrdiff_t>(to), moved);
    if (document_->apply(Put<Day>{changed, {}}, say("a part moved in %1").arg(q(changed.name))))
        choose_part(to);
}

void DayChart::dragEnterEvent(QDragEnterEvent* event) {
    if (day() && event->mimeData()->hasFormat(QString::fromLatin1(kStateMime))) event->acceptProposedAction();
}

void DayChart::dragMoveEvent(QDragMoveEvent* event) {
    hovers_x_ = event->position().x();
    event->acceptProposedAction();
    update();
}

void DayChart::dragLeaveEvent(QDragLeaveEvent*) {
    hovers_x_.reset();
    update();
}

void DayChart::dropEvent(QDropEvent* event) {
    hovers_x_.reset();
    drop_state(event->mimeData()->data(QString::fromLatin1(kStateMime)).toStdString(), event->position().x());
    event->acceptProposedAction();
    update();
}

// What stands there is cut where the state falls and is shorter by it, so that the day keeps its length. What
// is repeated or too short is not cut: the state follows it, and the day grows.
void DayChart::drop_state(const Id& state, double x) {
    const Day* now = day();
    if (!now || !find_state(document_->plan(), state)) return;
    Day changed = *now;
    DayPart fresh;
    fresh.state = state;
    std::size_t at = changed.parts.size();
    const double t_s = std::clamp(std::round(t_of(x) / kGrid_s) * kGrid_s, 0.0, length_s_);
    for (const Stretch& s : line_) {
        if (t_s < s.from_s || t_s >= s.to_s) continue;
        DayPart& under = changed.parts[s.part];
        const bool whole = under.times == 1 && !under.within && s.to_s - s.from_s == under.length_s;
        at = s.part + 1;
        if (!whole || under.length_s < 2 * kLeastPart_s) break;
        fresh.length_s = std::min(fresh.length_s, under.length_s / 2);
        const double before = std::min(t_s - s.from_s, under.length_s - fresh.length_s);
        DayPart behind = under;
        behind.length_s = under.length_s - fresh.length_s - before;
        under.length_s = before;
        if (behind.length_s >= kLeastPart_s)
            changed.parts.insert(changed.parts.begin() + static_cast<std::ptrdiff_t>(at), behind);
        else
            fresh.length_s += behind.length_s;
        if (before < kLeastPart_s) {
            fresh.length_s += before;
            changed.parts.erase(changed.parts.begin() + static_cast<std::ptrdiff_t>(--at));
        }
        break;
    }
    changed.parts.insert(changed.parts.begin() + static_cast<std::ptrdiff_t>(at), fresh);
    if (document_->apply(
            Put<Day>{changed, {}},
            say("%1 put into %2").arg(q(yr::name_of(document_->plan(), state)), q(changed.name))))
        choose_part(at);
}

void DayChart::mouseDoubleClickEvent(QMouseEvent* event) {
    if (day()) emit moment_asked(t_of(event->position().x()));
}

// The part at the left grows by what the one at the right loses, so that the day keeps its length; the last
// edge makes the day longer or shorter. Five minutes at a time, with Alt free.
void DayChart::drag_edge(double x, bool free) {
    const Day* now = day();
    if (!now || dragged_ >= static_cast<int>(line_.size()) || now->parts.empty()) return;
    const Stretch& left = line_[static_cast<std::size_t>(dragged_)];
    const bool last = dragged_ + 1 == static_cast<int>(line_.size());
    double to = last ? (x - kLeft) / (width() - kLeft - kRight) * length_s_ : t_of(x);
    if (!free) to = std::round(to / kGrid_s) * kGrid_s;
    Day changed = *now;
    DayPart& part = changed.parts[left.part];
    double by = to - left.to_s;
    by = std::max(by, kLeastPart_s - part.length_s);
    if (!last) {
        const std::size_t right = line_[static_cast<std::size_t>(dragged_) + 1].part;
        if (right != left.part && !changed.parts[right].within && !part.within) {
            by = std::min(by, changed.parts[right].length_s - kLeastPart_s);
            changed.parts[right].length_s -= by;
        }
    }
    if (std::abs(by) < 1) return;
    part.length_s += by;
    document_->apply(Put<Day>{changed, {}},
                     say("%1 in %2").arg(q(words::duration_h(part.length_s / 3600)), q(changed.name)),
                     q("edge " + changed.id + std::to_string(left.part)));
}

void DayChart::keyPressEvent(QKeyEvent* event) {
    const bool large = event->modifiers() & Qt::ShiftModifier;
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)
        set_cursor((cursor_s_ < 0 ? 0 : cursor_s_) +
                   (event->key() == Qt::Key_Right ? 1 : -1) * (large ? 3600 : 300));
    else if (event->key() == Qt::Key_Home || event->key() == Qt::Key_End)
        set_cursor(event->key() == Qt::Key_Home ? 0 : length_s_);
    else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && cursor_s_ >= 0)
        emit moment_asked(cursor_s_);
    else
        QWidget::keyPressEvent(event);
}

std::vector<SpokenPart> DayChart::spoken_parts() const {
    std::vector<SpokenPart> parts;
    if (!day()) return parts;
    for (std::size_t k = 0; k < line_.size(); ++k)
        parts.push_back(
            {stretch_rect(k).toRect(), q(document_->plan().states[line_[k].state].name),
             say("%1 to %2")
                 .arg(q(clock_text(*day(), line_[k].from_s)), q(clock_text(*day(), line_[k].to_s)))});
    if (!result_ || result_->run.points.empty()) return parts;
    for (std::size_t k = 0; k < document_->plan().batteries.size(); ++k) {
        const BatteryDay& b = result_->verdicts.batteries[k];
        const auto percent = [&](double v) {
            return q(words::quantity(v, Dimension::fraction, document_->style()));
        };
        parts.push_back({lane(2 + static_cast<int>(k)).toRect(), q(document_->plan().batteries[k].name),
                         say("begins at %1, least %2, ends at %3")
                             .arg(percent(b.begin), percent(b.least_charge), percent(b.end))});
    }
    return parts;
}

QString DayChart::numbers() const {
    QStringList lines;
    if (!result_ || !day()) return {};
    QString head = say("time");
    for (const Battery& b : document_->plan().batteries)
        head += say("\t%1 charge\t%1 V\t%1 A").arg(q(b.name));
    lines << head;
    for (const DayPoint& d : result_->run.points) {
        QString line = q(clock_text(*day(), d.t_s));
        for (std::size_t k = 0; k < d.charge.size(); ++k)
            line += QStringLiteral("\t%1\t%2\t%3")
                        .arg(q(words::quantity(d.charge[k], Dimension::fraction, document_->style())),
                             q(words::quantity(d.battery_V[k], Dimension::voltage, document_->style())),
                             q(words::quantity(d.battery_A[k], Dimension::current, document_->style())));
        lines << line;
    }
    return lines.join(QLatin1Char('\n')) + QLatin1Char('\n');
}

}  // namespace yr::app

#include "moc_day_chart.cpp"
