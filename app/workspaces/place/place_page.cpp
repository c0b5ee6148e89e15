#include "workspaces/place/place_page.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QMenu>
#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "inspect/places.h"
#include "plan/names.h"
#include "plan/variant.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/accepted.h"
#include "words/control_words.h"
#include "words/finding_rows.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kSide_px = 292;

// Set where it is; a spot field of a thing.
std::optional<double> Stand::*const kAxes[] = {&Stand::x_m, &Stand::y_m, &Stand::z_m};

}  // namespace

PlacePage::PlacePage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("place"), say("Place"), parent) {
    view_ = new PlaceView(document_);
    head_ = new QLabel;
    head_->setFont(type_font(Type::small));
    head_->setObjectName(QStringLiteral("soft"));
    head_->setContentsMargins(16, 8, 16, 4);
    head_->setWordWrap(true);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(0);
    left->addWidget(head_);
    left->addWidget(view_, 1);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addLayout(left, 1);
    row->addWidget(make_side());
    const auto again = [this] {
        if (isVisible()) refresh();
    };
    connect(&document_->store(), &PlanStore::edited, this, again);
    connect(&document_->shown(), &ShownCircuit::shown, this, again);
    connect(&document_->inspector(), &Inspector::inspected, this, again);
    connect(&document_->inspector(), &Inspector::mends_proved, this, [this] {
        if (isVisible()) fill_side();
    });
    connect(&document_->selection(), &Selection::chosen, this, [this] {
        if (isVisible()) fill_side();
    });
    connect(view_, &PlaceView::way_chosen, this, [this] {
        if (isVisible()) fill_side();
    });
    connect(view_, &PlaceView::measured, this, &PlacePage::picture_measured);
    connect(&boxes_, &JobBase::done, this, [this] {
        if (isVisible()) fill_side();
    });
    connect(&standing_, &JobBase::done, this, [this] {
        if (isVisible()) fill_side();
    });
}

QWidget* PlacePage::make_side() {
    QVBoxLayout* column = nullptr;
    QScrollArea* side = side_panel(kSide_px, column);
    lines_ = new QVBoxLayout, after_ = new QVBoxLayout, form_place_ = new QVBoxLayout;
    lines_->setSpacing(5), after_->setSpacing(5);
    section_ = new CrossSection(document_);
    column->addLayout(lines_);
    column->addWidget(section_);
    column->addLayout(after_);
    column->addLayout(form_place_);
    column->addStretch();
    return side;
}

bool PlacePage::open_view(const QString& key) {
    if (key.isEmpty()) return true;
    if (!yr::find(document_->plan().waypoints, key.toStdString())) return false;
    document_->selection().choose({});
    view_->choose_waypoint(key.toStdString());
    return true;
}

void PlacePage::entered() {
    view_->setFocus();
}

void PlacePage::plan_opened() {
    standing_.forget();
    boxes_.forget();
    asked_.clear();
    view_->show_map(nullptr);
    view_->choose_way(std::nullopt);
    if (isVisible()) refresh();
}

void PlacePage::showEvent(QShowEvent* event) {
    Workspace::showEvent(event);
    refresh();
}

void PlacePage::finish() {
    refresh();
    if (standing_.running()) standing_.finish();
    if (boxes_.running()) boxes_.finish();
}

QRect PlacePage::where_is(const Id& id) const {
    for (const PlateShape& p : view_->scene().plates)
        if (p.thing == id) return p.rect.toRect();
    return {};
}

const StandAdvice* PlacePage::advice() const {
    const bool current = standing_.current(document_->store().generation());
    return current && standing_.answer() && *standing_.answer() ? &**standing_.answer() : nullptr;
}

void PlacePage::refresh() {
    view_->refresh();
    const Plan& plan = document_->plan();
    const State& s = document_->shown().state();
    const auto temperature = [&](double v) {
        return q(words::quantity(v, Dimension::temperature, document_->style()));
    };
    head_->setText(say("%1: %2 air, %3 bay. Lengths left open: the way + %4 and %5 at each end.")
                       .arg(q(s.name), temperature(s.ambient_C), temperature(s.engine_bay_C),
                            q(words::quantity(plan.policy.slack_share.value_or(0.08), Dimension::fraction)),
                            q(words::quantity(plan.policy.slack_m.value_or(0.15), Dimension::length,
                                              document_->style()))));
    fill_side();
}

// ---- the side

QLabel* PlacePage::line(const QString& text, const char* name) {
    auto* l = new QLabel(text);
    l->setWordWrap(true);
    l->setObjectName(QString::fromLatin1(name));
    l->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    into_->addWidget(l);
    return l;
}

QLabel* PlacePage::title(const QString& text) {
    auto* l = line(text.toHtmlEscaped());
    l->setFont(type_font(Type::bold));
    return l;
}

void PlacePage::link(const QString& text, const QString& tip, const std::function<void()>& action) {
    sentences_ << text;
    auto* l = line(act_text(text));
    l->setToolTip(tip);
    connect(l, &QLabel::linkActivated, this, [action] { action(); });
}

void PlacePage::fill_side() {
    clear_lines(lines_);
    clear_lines(after_);
    sentences_.clear();
    section_->hide();
    into_ = lines_;
    if (asked_ != document_->selection().id()) asked_.clear();
    const StandAdvice* found = asked_.empty() ? nullptr : advice();
    view_->show_map(found ? &found->map : nullptr);
    fill_offers();
    if (view_->chosen_way())
        fill_way();
    else if (!view_->chosen_waypoint().empty())
        fill_waypoint();
    else if (const Run* run = yr::find(document_->plan().runs, document_->selection().id()))
        fill_run(*run);
    else
        fill_thing();
    fill_findings();
    fill_form();
}

// What is to be done with a plan that stands nowhere yet.
void PlacePage::fill_offers() {
    const Plan& plan = document_->plan();
    if (plan.ways.empty()) {
        title(say("Lay out a typical vehicle"));
        line(say("Rooms, ways and what cables keep clear of, marked typical: bend them by hand afterwards."),
             "soft");
        const Outline likely = plan.vehicle.outline != Outline::none
                                   ? plan.vehicle.outline
                                   : outline_of_words(plan.vehicle.kind + " " + plan.vehicle.name);
        std::vector<Outline> order{likely};
        for (const auto& n : enum_names<Outline>())
            if (n.value != likely && n.value != Outline::none) order.push_back(n.value);
        const std::map<Outline, QString> names{{Outline::car, say("Car")},
                                               {Outline::pickup, say("Pickup")},
                                               {Outline::van, say("Van")},
                                               {Outline::truck, say("Truck with a bed")},
                                               {Outline::tractor, say("Small tractor")},
                                               {Outline::all_terrain, say("All-terrain machine")},
                                               {Outline::buggy, say("Buggy")},
                                               {Outline::trailer, say("Trailer")},
                                               {Outline::cart, say("Cart")}};
        for (const Outline o : order) link(names.at(o), say("Undo takes it back"), [this, o] { lay_out(o); });
        return;
    }
    if (const auto count = static_cast<long>(could_stand(plan).size()); count > 0)
        link(say_n("Set %n thing where its place is", "Set %n things where their places are", count),
             say("Beside each other in the room of their place; one step, undo takes it back"),
             [this] { set_all(); });
    long typed = 0;
    for (const Run& r : plan.runs) typed += r.length_m && !r.resistance_ohm && ends_of(plan, r);
    if (typed > 0 && document_->selection().id().empty() && !view_->chosen_way() &&
        view_->chosen_waypoint().empty()) {
        link(say_n("Let %n cable follow its way", "Let %n cables follow their ways", typed),
             say("Their typed lengths are left open: length, bundle and air then come from the way; undo "
                 "takes it back"),
             [this] { follow_ways(); });
        link(say("A picture underneath…"),
             say("A photograph or drawing from above, scaled by two clicks and a length"),
             [this] { choose_picture(); });
    }
}

// ---- fields

void PlacePage::fill_form() {
    const Id& waypoint = view_->chosen_waypoint();
    const Id& thing = document_->selection().id();
    const bool stands_there =
        !thing.empty() && !yr::find(document_->plan().runs, thing) && !view_->chosen_way();
    const QString shape = !waypoint.empty() ? QStringLiteral("w ") + q(waypoint)
                          : stands_there    ? QStringLiteral("t ") + q(thing)
                                            : QString();
    if (form_ && shape == shape_) return form_->refresh();
    shape_ = shape;
    if (form_) form_->hide(), form_->deleteLater();
    form_ = nullptr;
    if (!waypoint.empty())
        form_of_waypoint(waypoint);
    else if (stands_there)
        form_of_thing(thing);
    if (form_) form_place_->addWidget(form_);
}

void PlacePage::form_of_waypoint(const Id& id) {
    form_ = new FieldForm([this] { return document_->style(); });
    form_->heading(say("This waypoint"));
    const auto get = [this, id]() -> const Waypoint* { return yr::find(document_->plan().waypoints, id); };
    const auto set = [this, get](const QString& what, const std::function<void(Waypoint&)>& change) {
        if (!get()) return false;
        Waypoint w = *get();
        change(w);
        return w == *get() || document_->apply(Put<Waypoint>{w, {}}, q(w.name) + QStringLiteral(": ") + what);
    };
    form_->text(
        say("Name"), [get] { return get() ? q(get()->name) : QString(); },
        [set](const QString& typed) {
            if (typed.trimmed().isEmpty()) return say("A name is needed.");
            set(say("name"), [&](Waypoint& w) { w.name = typed.trimmed().toStdString(); });
            return QString();
        });
    form_->choice(
        say("Kind"),
        {{say("bend"), "bend"},
         {say("grommet"), "grommet"},
         {say("hole"), "hole"},
         {say("gland"), "gland"},
         {say("conduit"), "conduit"},
         {say("cable channel"), "channel"},
         {say("hinge"), "hinge"}},
        [get] { return get() ? Id(enum_name(get()->kind)) : Id(); },
        [set](const Id& kind) {
            set(say("kind"), [&](Waypoint& w) { w.kind = *enum_named<PassageKind>(kind); });
        });
    form_->quantity(
        say("Free bore, mm"), Dimension::number, [get] { return get() ? get()->bore_mm : std::nullopt; },
        [set](std::optional<double> v) { return set(say("bore"), [&](Waypoint& w) { w.bore_mm = v; }); },
        true, say("not said"), 1, 500);
    form_->check(
        say("its edge is guarded"), [get] { return get() && get()->guarded; },
        [set](bool on) { set(say("edge"), [&](Waypoint& w) { w.guarded = on; }); });
    form_->check(
        say("sealed against water"), [get] { return get() && get()->sealed; },
        [set](bool on) { set(say("seal"), [&](Waypoint& w) { w.sealed = on; }); });
    const QString labels[] = {say("Back, m"), say("Right, m"), say("Up, m")};
    for (int axis = 0; axis < 3; ++axis)
        form_->quantity(
            labels[axis], Dimension::number,
            [get, axis] { return get() ? get()->at.*kAxes[axis] : std::nullopt; },
            [set, axis](std::optional<double> v) {
                return v && set(say("spot"), [&](Waypoint& w) { w.at.*kAxes[axis] = v; });
            },
            false, {}, -20, 40);
}

void PlacePage::form_of_thing(const Id& id) {
    form_ = new FieldForm([this] { return document_->style(); });
    form_->heading(say("Where it stands"));
    const QString labels[] = {say("Back, m"), say("Right, m"), say("Up, m")};
    for (int axis = 0; axis < 3; ++axis)
        form_->quantity(
            labels[axis], Dimension::number,
            [this, id, axis]() -> std::optional<double> {
                const auto spot = yr::spot_of(document_->plan(), id);
                if (!spot) return std::nullopt;
                return axis == 0 ? spot->x_m : axis == 1 ? spot->y_m : spot->z_m;
            },
            [this, id, axis](std::optional<double> v) {
                if (!v) return false;
                // what stands nowhere begins in the middle, at floor height
                Spot spot = yr::spot_of(document_->plan(), id)
                                .value_or(Spot{1, 0, shape_of(document_->plan().vehicle).floor_m});
                (axis == 0 ? spot.x_m : axis == 1 ? spot.y_m : spot.z_m) = *v;
                const auto edit = stand(document_->plan(), id, spot);
                return edit &&
                       document_->apply(*edit, say("%1 moved").arg(q(yr::name_of(document_->plan(), id))));
            },
            false, say("not placed"), -20, 40);
}

// ---- acts

void PlacePage::lay_out(Outline outline) {
    const auto edit = furnish(document_->plan(), outline);
    if (!edit) return document_->store().refuse(q(words::sentence(edit.error())));
    document_->apply(*edit, say("a typical vehicle laid out"));
}

void PlacePage::set_all() {
    document_->apply(stand_in_places(document_->plan()), say("things set where their places are"));
}

void PlacePage::follow_ways() {
    std::vector<Id> runs;
    for (const Run& r : document_->plan().runs)
        if (ends_of(document_->plan(), r) && !r.resistance_ohm) runs.push_back(r.id);
    document_->apply(follow_way(document_->plan(), runs), say("cables follow their ways"));
}

void PlacePage::ask_where() {
    asked_ = document_->selection().id();
    standing_.start(document_->store().generation(),
                    [plan = document_->plan(), id = asked_](const Task& task) {
                        return stand_advice(plan, id, true, task.cancel());
                    });
    fill_side();
}

void PlacePage::take_spot(std::size_t index) {
    const StandAdvice* found = advice();
    if (!found || index >= found->best.size()) return;
    const Edit edit = found->best[index].edit;
    document_->apply(edit, say("%1 to the best spot").arg(q(yr::name_of(document_->plan(), asked_))));
}

void PlacePage::ask_layouts() {
    boxes_of_ = document_->selection().id();
    boxes_.start(document_->store().generation(),
                 [plan = document_->plan(), id = boxes_of_](const Task& task) {
                     return one_box_or_two(plan, id, task.cancel());
                 });
    fill_side();
}

const BoxOptions* PlacePage::layouts() const {
    const bool current = boxes_.current(document_->store().generation());
    return current && boxes_.answer() && *boxes_.answer() ? &**boxes_.answer() : nullptr;
}

void PlacePage::keep_layout(std::size_t index) {
    const BoxOptions* found = layouts();
    if (!found || index >= found->options.size()) return;
    const BoxOption& o = found->options[index];
    const Plan& stored = document_->store().stored();
    Variant v = difference(stored, o.plan, new_id(stored, "variant"), words::name_of(o.layout));
    for (int n = 2; std::any_of(stored.variants.begin(), stored.variants.end(),
                                [&](const Variant& x) { return x.name == v.name; });
         ++n)
        v.name = std::string(words::name_of(o.layout)) + " " + std::to_string(n);
    const QString name = q(v.name);
    if (document_->apply(Put<Variant>{v, {}}, say("option %1").arg(name)))
        emit said(say("“%1” is an option of this plan now: compare them on Rail.").arg(name));
}

void PlacePage::choose_picture() {
    const QString path = QFileDialog::getOpenFileName(window(), say("A picture from above"), {},
                                                      say("Pictures (*.png *.jpg *.jpeg *.svg)"));
    if (!path.isEmpty()) put_picture(path);
}

// Beside the plan's file by its name alone, so that both can be taken along.
void PlacePage::put_picture(const QString& path) {
    if (QPixmap(path).isNull())
        return document_->store().refuse(say("%1 cannot be read as a picture.").arg(path));
    Vehicle v = document_->plan().vehicle;
    const QFileInfo file(path), plan_file(document_->store().path());
    const bool beside =
        !document_->store().path().isEmpty() && file.absolutePath() == plan_file.absolutePath();
    v.picture = (beside ? file.fileName() : file.absoluteFilePath()).toStdString();
    v.picture_m.reset();
    if (!document_->apply(SetVehicle{v}, say("a picture underneath"))) return;
    emit said(say("Click two points in the picture whose distance you know."));
    view_->measure_picture();
}

void PlacePage::picture_measured(double now_m) {
    if (!(now_m > 0)) return;
    bool ok = false;
    const double real =
        QInputDialog::getDouble(window(), say("How far apart are they?"),
                                say("Metres between the two points"), now_m, 0.01, 30, 3, &ok);
    if (!ok) return;
    Vehicle v = document_->plan().vehicle;
    const QString path = q(v.picture);
    const QFileInfo beside(QFileInfo(document_->store().path()).absolutePath() + QLatin1Char('/') + path);
    const QPixmap picture(beside.exists() ? beside.filePath() : path);
    if (picture.isNull()) return;
    const OutlineShape shape = shape_of(v);
    const double m_now =
        v.picture_m.value_or(view_->scene().top.width() / view_->scene().px_per_m / picture.width());
    v.picture_m = m_now * real / now_m;
    if (!v.picture_x_m) v.picture_x_m = shape.front_x(), v.picture_y_m = shape.wide_m / 2;
    document_->apply(SetVehicle{v}, say("the picture scaled"));
}

QString PlacePage::numbers() const {
    const Plan& plan = document_->plan();
    QStringList rows{say("cable\tsaid, m\tway, m\twith slack, m\tlies with\tby")};
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const auto& route = view_->routes().by_run[k];
        if (!route) continue;
        QStringList names;
        for (const Leg& leg : route->path.legs)
            if (leg.way) names << q(plan.ways[*leg.way].name);
        names.removeDuplicates();
        rows << QStringList{q(plan.runs[k].name),
                            plan.runs[k].length_m ? q(words::number(*plan.runs[k].length_m, 4)) : QString(),
                            q(words::number(route->way_m, 4)),
                            q(words::number(route->length_m, 4)),
                            QString::number(bundled_with(plan, view_->routes(), k)),
                            names.join(QStringLiteral(", "))}
                    .join(QLatin1Char('\t'));
    }
    return rows.join(QLatin1Char('\n'));
}

std::vector<WorkspacePicture> PlacePage::pictures() {
    return {{QStringLiteral("place.png"),
             [this] {
                 in_state("Hoisting");
                 emit go_to(key(), {});
                 document_->inspector().finish();
                 for (std::size_t k = 0; k < document_->plan().waypoints.size(); ++k)
                     if (view_->routes().passages[k].share > 0.5) {
                         view_->choose_waypoint(document_->plan().waypoints[k].id);
                         break;
                     }
                 finish();
             }},
            {QStringLiteral("place-where.png"), [this] {
                 in_state("Hoisting");
                 emit go_to(key(), {});
                 for (const Point& p : document_->plan().points)
                     if (p.kind == PointKind::box) document_->selection().choose(p.id);
                 ask_where();
                 finish();
             }}};
}

}  // namespace yr::app

#include "moc_place_page.cpp"
