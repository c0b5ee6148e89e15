#include "workspaces/place/place_view.h"

#include <QContextMenuEvent>
#include <QFileInfo>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>

#include "routes/furnish.h"
#include "routes/net.h"
#include "size/cable_size.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kDrag_px = 5, kGrid_m = 0.05, kFree_m = 0.005;

QString metres(double m, const words::Style& style) {
    return q(words::quantity(m, Dimension::length, style));
}

// By the tables alone, at once: what that length wants in this state; the plan is sized whole on other pages.
std::optional<WireSize> needed_size(const Plan& plan, const Run& run, double length_m, double amps) {
    if (amps < 0.5 || !run.size) return std::nullopt;
    SizeAsk ask;
    ask.current_A = amps, ask.there_and_back_m = 2 * length_m, ask.nominal_V = plan.vehicle.nominal_V;
    ask.drop_share = plan.policy.drop_other.value_or(0.03);
    ask.material = run.material, ask.insulation_C = run.insulation_C, ask.system = run.size->system();
    ask.table = plan.policy.ampacity_table, ask.parallel = run.parallel, ask.bundle = bundle_of(plan, run);
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse && d.rating_A > 0) ask.fuse_A = d.rating_A, ask.fuse = d.fuse;
    const auto ladder = size_cable(ask);
    if (!ladder || ladder->chosen < 0) return std::nullopt;
    return ladder->rows[static_cast<std::size_t>(ladder->chosen)].wire.size;
}

}  // namespace

PlaceView::PlaceView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(say("The vehicle from above and from the side"));
    connect(&document_->selection(), &Selection::chosen, this, qOverload<>(&QWidget::update));
}

void PlaceView::refresh() {
    const Plan& plan = document_->plan();
    routes_ = route_all(plan);
    routed_ = document_->store().generation();
    if (way_ && *way_ >= plan.ways.size()) way_.reset();
    if (!yr::find(plan.waypoints, waypoint_)) waypoint_.clear();
    const QString path = q(plan.vehicle.picture);
    if (path != picture_path_) {
        picture_path_ = path;
        const QFileInfo beside(QFileInfo(document_->store().path()).absolutePath() + QLatin1Char('/') + path);
        picture_ = path.isEmpty() ? QPixmap() : QPixmap(beside.exists() ? beside.filePath() : path);
    }
    rebuild();
}

void PlaceView::rebuild() {
    if (routed_ != document_->store().generation()) return refresh();
    const Plan& plan = document_->plan();
    const State& state = document_->shown().state();
    scene_ = build_place_scene(plan, routes_, state, size(),
                               use_of_runs(plan, document_->shown().solution(), state),
                               [this](const Id& id) { return document_->inspector().severity_of(id); });
    update();
}

void PlaceView::resizeEvent(QResizeEvent*) {
    rebuild();
}

void PlaceView::choose_way(std::optional<std::size_t> way) {
    way_ = way;
    waypoint_.clear();
    update();
    emit way_chosen();
}

void PlaceView::choose_waypoint(const Id& waypoint) {
    waypoint_ = waypoint;
    way_.reset();
    update();
    emit way_chosen();
}

void PlaceView::show_map(const StandMap* map) {
    map_ = map;
    update();
}

void PlaceView::measure_picture() {
    measuring_ = 2;
    setCursor(Qt::CrossCursor);
}

// ---- mouse and keys

void PlaceView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    press_ = mouse_ = event->position();
    if (measuring_ == 0) return;
    const Spot here = scene_.spot_of(press_, {});
    if (--measuring_ == 1) {
        measured_from_ = here;
        return;
    }
    unsetCursor();
    press_ = {-1, -1};
    emit measured(distance_m(measured_from_, here));
}

void PlaceView::mouseMoveEvent(QMouseEvent* event) {
    mouse_ = event->position();
    if (press_.x() < 0 || measuring_ > 0) return;
    if (dragged_.empty() && pulled_.empty() && (mouse_ - press_).manhattanLength() > kDrag_px) {
        const PlateShape* plate = scene_.plate_at(press_);
        const PassageShape* passage = plate ? nullptr : scene_.passage_at(press_);
        const Run* run = chosen_run();
        if (plate)
            dragged_ = plate->thing;
        else if (run && scene_.ribbon_at(press_))
            pulled_ = run->id;
        else if (passage)
            dragged_ = document_->plan().waypoints[passage->waypoint].id;
        if (plate) grab_ = press_ - scene_.hold_of(*plate, press_);
        if (passage) grab_ = {};
        if (!dragged_.empty()) dragging_ = std::make_unique<Plan>(document_->plan());
        if (!dragged_.empty() || !pulled_.empty()) setCursor(Qt::ClosedHandCursor);
    }
    if (!dragged_.empty()) {
        const double grid = event->modifiers() & Qt::AltModifier ? kFree_m : kGrid_m;
        const auto now = yr::spot_of(document_->plan(), dragged_);
        const Waypoint* w = yr::find(document_->plan().waypoints, dragged_);
        Spot to = scene_.spot_of(mouse_ - grab_, now ? *now : w && w->at.spot() ? *w->at.spot() : Spot{});
        for (double* v : {&to.x_m, &to.y_m, &to.z_m}) *v = std::round(*v / grid) * grid;
        dragged_to_ = to;
        follow(mouse_);
    }
    update();
}

// The cables of what is dragged: lengths, and for those that follow their way the size that they need.
void PlaceView::follow(const QPointF&) {
    telling_.clear();
    if (!dragging_ || !dragged_to_) return;
    if (const auto edit = stand(*dragging_, dragged_, *dragged_to_)) {
        const auto put = [&](auto& list) {
            for (auto& x : list)
                if (x.id == dragged_) x.at = stand_at(*dragged_to_);
        };
        put(dragging_->points), put(dragging_->sources), put(dragging_->batteries), put(dragging_->inverters),
            put(dragging_->loads), put(dragging_->waypoints);
    }
    net_.emplace(*dragging_);
    const words::Style style = document_->style();
    const auto& conductors = document_->shown().solution().point.conductors;
    for (std::size_t k = 0; k < dragging_->runs.size() && telling_.size() < 9; ++k) {
        const Run& run = dragging_->runs[k];
        if (run.from.owner != dragged_ && run.to.owner != dragged_) continue;
        const auto route = route_one(*dragging_, *net_, run);
        if (!route) continue;
        QString line = q(run.name) + QStringLiteral("  ") + metres(route->length_m, style);
        const auto wire = conductor(run.size.value_or(WireSize::awg(14)), run.material);
        const double amps = k < conductors.size() ? std::abs(conductors[k].current_A) : 0;
        if (wire && amps > 0.01)
            line += QStringLiteral("  ") +
                    q(words::quantity(amps * resistance_ohm_per_m(*wire, 40) * route->length_m / run.parallel,
                                      Dimension::voltage, style));
        if (const auto needed = needed_size(*dragging_, run, route->length_m, amps))
            line += say("  needs %1").arg(q(words::short_size(*needed)));
        telling_ << line;
    }
}

void PlaceView::mouseReleaseEvent(QMouseEvent* event) {
    mouse_ = event->position();
    const QPointF pressed = std::exchange(press_, QPointF(-1, -1));
    if (pressed.x() < 0) return;
    unsetCursor();
    if (!pulled_.empty()) return hold_run(mouse_);
    if (!dragged_.empty()) return drop(mouse_);
    if (const PlateShape* plate = scene_.plate_at(mouse_)) {
        document_->selection().choose(plate->thing);
        choose_way(std::nullopt);
    } else if (const PassageShape* passage = scene_.passage_at(mouse_)) {
        choose_waypoint(document_->plan().waypoints[passage->waypoint].id);
    } else if (const RibbonShape* ribbon = scene_.ribbon_at(mouse_)) {
        choose_way(ribbon->way);
    } else {
        document_->selection().choose({});
        choose_way(std::nullopt);
    }
    update();
}

void PlaceView::drop(const QPointF&) {
    const Id thing = std::exchange(dragged_, Id());
    const auto to = std::exchange(dragged_to_, std::nullopt);
    net_.reset();
    dragging_.reset();
    telling_.clear();
    if (!to) return update();
    const auto edit = stand(document_->plan(), thing, *to);
    if (edit) document_->apply(*edit, say("%1 moved").arg(q(yr::name_of(document_->plan(), thing))));
    if (!yr::find(document_->plan().waypoints, thing)) document_->selection().choose(thing);
    update();
}

// The chosen cable is held to pass the waypoint on which it is dropped.
void PlaceView::hold_run(const QPointF& point) {
    const Id id = std::exchange(pulled_, Id());
    const Run* run = yr::find(document_->plan().runs, id);
    const PassageShape* passage = scene_.passage_at(point);
    if (!run || !passage) return update();
    const Id& waypoint = document_->plan().waypoints[passage->waypoint].id;
    Run held = *run;
    if (std::find(held.via.begin(), held.via.end(), waypoint) != held.via.end()) return update();
    // where in their order it makes the way shortest
    const WayNet net(document_->plan());
    double least = 1e18;
    std::vector<Id> best = held.via;
    for (std::size_t at = 0; at <= run->via.size(); ++at) {
        Run trial = *run;
        trial.via.insert(trial.via.begin() + static_cast<std::ptrdiff_t>(at), waypoint);
        if (const auto route = route_one(document_->plan(), net, trial); route && route->way_m < least)
            least = route->way_m, best = trial.via;
    }
    held.via = best;
    document_->apply(Put<Run>{held, {}},
                     say("%1 past %2").arg(q(run->name), q(yr::name_of(document_->plan(), waypoint))));
}

std::optional<Spot> PlaceView::chosen_spot() const {
    if (const Waypoint* w = yr::find(document_->plan().waypoints, waypoint_)) return w->at.spot();
    return yr::spot_of(document_->plan(), document_->selection().id());
}

void PlaceView::nudge(int along, int across, int up, double step_m) {
    const auto now = chosen_spot();
    if (!now) return;
    const Id thing = waypoint_.empty() ? document_->selection().id() : waypoint_;
    const Spot to{now->x_m + along * step_m, now->y_m + across * step_m, now->z_m + up * step_m};
    if (const auto edit = stand(document_->plan(), thing, to))
        document_->apply(*edit, say("%1 moved").arg(q(yr::name_of(document_->plan(), thing))),
                         QStringLiteral("stand ") + q(thing));
}

void PlaceView::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::AltModifier ? kFree_m : kGrid_m;
    switch (event->key()) {
        case Qt::Key_Left:
            return nudge(-1, 0, 0, step);
        case Qt::Key_Right:
            return nudge(1, 0, 0, step);
        case Qt::Key_Up:
            return nudge(0, 1, 0, step);
        case Qt::Key_Down:
            return nudge(0, -1, 0, step);
        case Qt::Key_PageUp:
            return nudge(0, 0, 1, step);
        case Qt::Key_PageDown:
            return nudge(0, 0, -1, step);
        case Qt::Key_Escape:
            document_->selection().choose({});
            return choose_way(std::nullopt);
        case Qt::Key_N:
        case Qt::Key_P: {  // the next and the previous thing that stands somewhere
            const auto count = static_cast<std::ptrdiff_t>(scene_.plates.size());
            if (count == 0) return;
            std::ptrdiff_t at = -1;
            for (std::ptrdiff_t k = 0; k < count; ++k)
                if (scene_.plates[static_cast<std::size_t>(k)].thing == document_->selection().id()) at = k;
            at = (at + (event->key() == Qt::Key_N ? 1 : count - 1) + (at < 0 && event->key() == Qt::Key_P)) %
                 count;
            document_->selection().choose(scene_.plates[static_cast<std::size_t>(at)].thing);
            return choose_way(std::nullopt);
        }
        default:
            QWidget::keyPressEvent(event);
    }
}

void PlaceView::contextMenuEvent(QContextMenuEvent* event) {
    QMenu menu;
    const Plan& plan = document_->plan();
    const PassageShape* passage = scene_.passage_at(event->pos());
    if (const Run* run = chosen_run(); run && !run->via.empty())
        menu.addAction(say("%1 finds its own way").arg(q(run->name)), this, [this, id = run->id] {
            Run free = *yr::find(document_->plan().runs, id);
            free.via.clear();
            document_->apply(Put<Run>{free, {}}, say("%1 finds its own way").arg(q(free.name)));
        });
    if (passage) {
        const Id id = plan.waypoints[passage->waypoint].id;
        menu.addAction(say("Take %1 out").arg(q(plan.waypoints[passage->waypoint].name)), this, [this, id] {
            document_->apply(remove_with_runs(document_->plan(), id),
                             say("take out %1").arg(q(yr::name_of(document_->plan(), id))));
        });
    }
    const Spot here = scene_.spot_of(event->pos(), {0, 0, shape_of(plan.vehicle).floor_m});
    menu.addAction(say("New waypoint here"), this, [this, here] {
        Waypoint w;
        w.id = new_id(document_->plan(), "waypoint");
        w.name = say("waypoint %1").arg(document_->plan().waypoints.size() + 1).toStdString();
        w.at = stand_at({std::round(here.x_m * 100) / 100, std::round(here.y_m * 100) / 100, here.z_m});
        if (document_->apply(Put<Waypoint>{w, {}}, say("new waypoint"))) choose_waypoint(w.id);
    });
    if (!waypoint_.empty() && passage && plan.waypoints[passage->waypoint].id != waypoint_) {
        const Id from = waypoint_, to = plan.waypoints[passage->waypoint].id;
        menu.addAction(
            say("New way from %1 to here").arg(q(yr::name_of(plan, from))), this, [this, from, to] {
                Way w;
                w.id = new_id(document_->plan(), "way");
                w.name =
                    say("%1 to %2")
                        .arg(q(yr::name_of(document_->plan(), from)), q(yr::name_of(document_->plan(), to)))
                        .toStdString();
                w.from = from, w.to = to;
                document_->apply(Put<Way>{w, {}}, say("new way"));
            });
    }
    menu.exec(event->globalPos());
}

bool PlaceView::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    auto* help = static_cast<QHelpEvent*>(event);
    const Plan& plan = document_->plan();
    QString text;
    if (const PlateShape* plate = scene_.plate_at(help->pos()))
        text = q(yr::name_of(plan, plate->thing));
    else if (const PassageShape* passage = scene_.passage_at(help->pos()))
        text = q(plan.waypoints[passage->waypoint].name) +
               (passage->label.isEmpty() ? QString() : QStringLiteral(", ") + passage->label);
    else if (const RibbonShape* ribbon = scene_.ribbon_at(help->pos()))
        text =
            say_n("%1: %n cable", "%1: %n cables", static_cast<long>(routes_.ways[ribbon->way].runs.size()))
                .arg(q(plan.ways[ribbon->way].name));
    QToolTip::showText(help->globalPos(), text, this);
    return true;
}

std::vector<SpokenPart> PlaceView::spoken_parts() const {
    std::vector<SpokenPart> parts;
    const Plan& plan = document_->plan();
    for (const PlateShape& s : scene_.plates) {
        const auto spot = yr::spot_of(plan, s.thing);
        parts.push_back({s.rect.toRect(), q(yr::name_of(plan, s.thing)),
                         spot ? say("%1 behind the axle, %2 to the right, %3 up")
                                    .arg(metres(spot->x_m, {}), metres(spot->y_m, {}), metres(spot->z_m, {}))
                              : QString()});
    }
    for (const RibbonShape& r : scene_.ribbons)
        parts.push_back({QRectF(r.from, r.to).normalized().adjusted(-2, -2, 2, 2).toRect(),
                         q(plan.ways[r.way].name),
                         say_n("%n cable", "%n cables", static_cast<long>(routes_.ways[r.way].runs.size()))});
    for (const PassageShape& s : scene_.passages)
        if (s.passage)
            parts.push_back({QRectF(s.at - QPointF(7, 7), QSizeF(14, 14)).toRect(),
                             q(plan.waypoints[s.waypoint].name), s.label});
    return parts;
}

}  // namespace yr::app

#include "moc_place_view.cpp"
