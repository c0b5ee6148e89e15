// What Place says at the side of what is chosen: a way, a waypoint, a cable, a thing, and what is found of
// it.
#include <QComboBox>
#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "inspect/heat_along.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "widgets/tokens.h"
#include "words/accepted.h"
#include "words/control_words.h"
#include "words/finding_rows.h"
#include "words/sentences.h"
#include "workspaces/place/place_page.h"

namespace yr::app {
namespace {

constexpr double kWorthTelling_V = 1e-3;

}  // namespace

void PlacePage::fill_way() {
    const Plan& plan = document_->plan();
    const std::size_t w = *view_->chosen_way();
    const Way& way = plan.ways[w];
    const auto& runs = view_->routes().ways[w].runs;
    const Waypoint *a = yr::find(plan.waypoints, way.from), *b = yr::find(plan.waypoints, way.to);
    const double length =
        a && b && a->at.spot() && b->at.spot() ? distance_m(*a->at.spot(), *b->at.spot()) : 0;
    auto* head = title(say("Way: %1").arg(q(way.name)));
    head->setFont(type_font(Type::title));
    const words::Style style = document_->style();
    const Id in = way.place.empty() && a && b && a->at.spot() && b->at.spot()
                      ? place_at(plan, {(*a->at.x_m + *b->at.x_m) / 2, (*a->at.y_m + *b->at.y_m) / 2,
                                        (*a->at.z_m + *b->at.z_m) / 2})
                      : way.place;
    const double clip = clip_spacing_m(plan, way);
    sentences_ << say_n("%n cable", "%n cables", static_cast<long>(runs.size())) +
                      say(", %1, air %2, %3 clips")
                          .arg(q(words::quantity(length, Dimension::length, style)),
                               q(words::quantity(air_at(plan, in, document_->shown().state()),
                                                 Dimension::temperature, style)))
                          .arg(static_cast<int>(std::ceil(length / clip)));
    line(sentences_.back(), "soft");
    if (runs.empty()) return;
    section_->show(runs, 0);
    section_->setVisible(true);
    into_ = after_;
    sentences_ << say("Bundle %1 mm, loom of %2 mm inside; 1.2·√Σd² says %3 mm.")
                      .arg(q(words::number(section_->bundle_mm(), 3)),
                           q(words::number(std::ceil(std::max(section_->bundle_mm(), section_->factor_mm())),
                                           3)),
                           q(words::number(section_->factor_mm(), 3)));
    line(sentences_.back());
    int loaded = 0;
    const auto& conductors = document_->shown().solution().point.conductors;
    for (const std::size_t k : runs)
        loaded += k < conductors.size() && std::abs(conductors[k].current_A) > 0.5;
    line(say("%1 of %2 carry more than half an amp in this state.").arg(loaded).arg(runs.size()), "soft");
    covering_choice(way);
    title(say("What lies there"));
    for (const std::size_t k : runs) {
        const Run& run = plan.runs[k];
        link(q(run.name), say("Choose this cable"), [this, id = run.id] {
            view_->choose_way(std::nullopt);
            document_->selection().choose(id);
        });
    }
}

// What the loom is covered with there, from the inside out; what the plan says besides is kept in the list.
void PlacePage::covering_choice(const Way& way) {
    auto* box = new QComboBox;
    box->setAccessibleName(say("Covered with"));
    box->setToolTip(say("What the loom is covered with here, from the inside out"));
    const std::pair<const char*, QString> usual[] = {
        {"", say("Covered with split loom (usual)")},
        {"tape", say("Covered with tape")},
        {"tape, split loom", say("Covered with tape, split loom over it")},
        {"braid", say("Covered with braid")},
        {"braid, shrink", say("Covered with braid, shrink over it")},
        {"shrink", say("Covered with shrink")},
        {"conduit", say("In conduit")},
        {"none", say("Not covered")}};
    for (const auto& [key, text] : usual) box->addItem(text, QString::fromLatin1(key));
    if (box->findData(q(way.covering)) < 0)
        box->addItem(say("Covered with %1").arg(q(way.covering)), q(way.covering));
    box->setCurrentIndex(box->findData(q(way.covering)));
    connect(box, &QComboBox::activated, this, [this, box, id = way.id] {
        const Way* now = yr::find(document_->plan().ways, id);
        if (!now) return;
        Way changed = *now;
        changed.covering = box->currentData().toString().toStdString();
        if (!(changed == *now)) document_->apply(Put<Way>{changed, {}}, say("covering"));
    });
    into_->addWidget(box);
}

void PlacePage::fill_waypoint() {
    const Plan& plan = document_->plan();
    const Waypoint& w = *yr::find(plan.waypoints, view_->chosen_waypoint());
    const auto index = static_cast<std::size_t>(&w - plan.waypoints.data());
    const Passage& p = view_->routes().passages[index];
    auto* head = title(q(words::capital(w.name)));
    head->setFont(type_font(Type::title));
    sentences_ << say_n("%n cable passes.", "%n cables pass.", static_cast<long>(p.runs.size()));
    line(sentences_.back(), "soft");
    if (p.runs.empty()) return;
    section_->show(p.runs, w.bore_mm.value_or(0));
    section_->setVisible(true);
    into_ = after_;
    if (w.kind == PassageKind::bend) return;
    if (p.share > 0) {
        sentences_ << say("Bundle %1 mm in a bore of %2 mm: %3 full, %4 are allowed.")
                          .arg(q(words::number(p.bundle_mm, 3)), q(words::number(*w.bore_mm, 3)),
                               q(words::quantity(p.share, Dimension::fraction)),
                               q(words::quantity(allowed_fill(), Dimension::fraction)));
        line(sentences_.back(), p.share > allowed_fill() ? "fix" : "");
    } else {
        sentences_ << say("Bundle %1 mm: a bore of %2 mm or more.")
                          .arg(q(words::number(p.bundle_mm, 3)),
                               q(words::number(std::ceil(p.bundle_mm / allowed_fill()), 3)));
        line(sentences_.back());
    }
    if (p.share > allowed_fill())
        link(say("A second hole beside it"),
             say("Of the same kind, joined to the same ways; undo takes it back"), [this, id = w.id] {
                 const Plan& now = document_->plan();
                 Waypoint twin = *yr::find(now.waypoints, id);
                 Batch batch;
                 const Id old = twin.id;
                 twin.id = new_id(now, "waypoint");
                 twin.name = say("%1, second").arg(q(twin.name)).toStdString();
                 twin.at.y_m = *twin.at.y_m + (twin.at.y_m > 0 ? -0.08 : 0.08);
                 batch.edits.emplace_back(Put<Waypoint>{twin, {}});
                 Plan with = now;
                 with.waypoints.push_back(twin);
                 for (const Way& way : now.ways) {
                     if (way.from != old && way.to != old) continue;
                     Way beside = way;
                     beside.id = new_id(with, "way");
                     (way.from == old ? beside.from : beside.to) = twin.id;
                     beside.name = say("%1, second").arg(q(way.name)).toStdString();
                     with.ways.push_back(beside);
                     batch.edits.emplace_back(Put<Way>{beside, {}});
                 }
                 if (document_->apply(batch, say("a second hole"))) view_->choose_waypoint(twin.id);
             });
}

// One cable: its way in a sentence, and why this way.
void PlacePage::fill_run(const Run& run) {
    const Plan& plan = document_->plan();
    const auto k = static_cast<std::size_t>(&run - plan.runs.data());
    auto* head = title(q(words::capital(run.name)));
    head->setFont(type_font(Type::title));
    const auto& route = view_->routes().by_run[k];
    const words::Style style = document_->style();
    const auto m = [&](double v) { return q(words::quantity(v, Dimension::length, style)); };
    if (!route) {
        sentences_ << (ends_of(plan, run) ? say("No way joins its two ends.")
                                          : say("One of its ends stands nowhere yet."));
        line(sentences_.back(), "soft");
        return;
    }
    sentences_ << (run.length_m
                       ? say("%1 are said; along its way it is %2, with slack %3.")
                             .arg(m(*run.length_m), m(route->way_m), m(route->length_m))
                       : say("%1 along its way, %2 with slack.").arg(m(route->way_m), m(route->length_m)));
    line(sentences_.back());
    QStringList names;
    for (const Leg& leg : route->path.legs)
        if (leg.way && (names.isEmpty() || names.back() != q(plan.ways[*leg.way].name)))
            names << q(plan.ways[*leg.way].name);
    sentences_ << (names.isEmpty() ? say("Straight from one to the other.")
                                   : say("By %1.").arg(names.join(QStringLiteral(", "))));
    line(sentences_.back(), "soft");
    const State& state = document_->shown().state();
    double hottest = state.ambient_C;
    for (const Id& id : places_along(plan, *route)) hottest = std::max(hottest, air_at(plan, id, state));
    sentences_ << say("Hottest air on the way %1; %2 lie together.")
                      .arg(q(words::quantity(hottest, Dimension::temperature, style)))
                      .arg(bundled_with(plan, view_->routes(), k));
    line(sentences_.back(), "soft");
    if (const auto heat = heat_along(plan, k, *route, state, document_->shown().solution().network,
                                     document_->shown().solution().point)) {
        const auto C = [&](double v) { return q(words::quantity(v, Dimension::temperature, style)); };
        sentences_
            << (heat->counted_C - heat->hottest_C > 0.5
                    ? say("Its copper: %1 at the hottest spot, %2 from %3; counted are %4, as if all of "
                          "it lay in the hottest air.")
                          .arg(C(heat->hottest_C), m(heat->at_m), q(yr::name_of(plan, run.from.owner)),
                               C(heat->counted_C))
                    : say("Its copper: %1 at the hottest spot.").arg(C(heat->hottest_C)));
        line(sentences_.back(), "soft");
    }
    if (!run.via.empty()) {
        QStringList held;
        for (const Id& w : run.via) held << q(yr::name_of(plan, w));
        line(say("Held to pass %1.").arg(held.join(QStringLiteral(", "))), "soft");
        link(say("Let it find its own way"), say("Undo takes it back"), [this, id = run.id] {
            Run free = *yr::find(document_->plan().runs, id);
            free.via.clear();
            document_->apply(Put<Run>{free, {}}, say("%1 finds its own way").arg(q(free.name)));
        });
    } else {
        const auto straight = route_one(plan, WayNet(plan), run);
        if (straight && straight->way_m < route->way_m - 0.05)
            line(say("%1 by a shorter way, where a hole is full.").arg(m(straight->way_m)), "soft");
        line(say("Why this way: the shortest that keeps clear of exhaust, airbags and what moves, and finds "
                 "room. Drag it "
                 "to a waypoint to hold it there."),
             "soft");
    }
    if (run.length_m)
        link(say("Let it follow its way"), say("Its length is left open; undo takes it back"),
             [this, id = run.id] {
                 document_->apply(follow_way(document_->plan(), {id}),
                                  say("%1 follows its way").arg(q(yr::name_of(document_->plan(), id))));
             });
}

void PlacePage::fill_thing() {
    const Plan& plan = document_->plan();
    const Id& id = document_->selection().id();
    const auto spot = yr::spot_of(plan, id);
    if (id.empty() ||
        (!spot && !yr::find(plan.loads, id) && !yr::find(plan.points, id) && !yr::find(plan.batteries, id) &&
         !yr::find(plan.sources, id) && !yr::find(plan.inverters, id))) {
        if (!plan.ways.empty()) {
            line(say("Click a thing, a way or a passage. Drag things and waypoints; drag a chosen cable to a "
                     "waypoint to hold "
                     "it there. N, P: next thing; arrows move it 5 cm, with Alt 5 mm, Page Up and Down its "
                     "height."),
                 "soft");
            line(say("Keep to what the vehicle's maker says of holes, airbags and fuel lines: this drawing "
                     "does not know "
                     "them."),
                 "soft");
        }
        return;
    }
    auto* head = title(q(words::capital(yr::name_of(plan, id))));
    head->setFont(type_font(Type::title));
    const words::Style style = document_->style();
    if (!spot) {
        line(say("It stands nowhere yet: type where, or set it where its place is."), "soft");
        return;
    }
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const Run& run = plan.runs[k];
        const auto& route = view_->routes().by_run[k];
        if (!route || (run.from.owner != id && run.to.owner != id)) continue;
        const QString length =
            q(words::quantity(run.length_m.value_or(route->length_m), Dimension::length, style));
        link(q(run.name) + QStringLiteral("  ") + length, say("Choose this cable"),
             [this, run_id = run.id] { document_->selection().choose(run_id); });
    }
    if (!plan.ways.empty() && !yr::find(plan.loads, id)) {
        if (standing_.running() && asked_ == id)
            line(say("Trying every spot …"), "soft");
        else if (asked_ != id)
            link(say("Where should it stand?"),
                 say("Copper and volts of its cables from every spot, the best five sized anew"),
                 [this] { ask_where(); });
        else
            fill_map();
    }
    const Point* point = yr::find(plan.points, id);
    if (point && point->kind == PointKind::box && !plan.ways.empty()) fill_layouts(id);
}

void PlacePage::fill_layouts(const Id& box) {
    if (boxes_.running() && boxes_of_ == box) {
        line(say("Laying and sizing each …"), "soft");
        return;
    }
    const BoxOptions* found = boxes_of_ == box ? layouts() : nullptr;
    if (!found) {
        if (boxes_of_ == box && boxes_.current(document_->store().generation()))
            line(say("Four loads or more that stand somewhere make it worth asking."), "soft");
        else
            link(say("One box or two?"),
                 say("It as it is, a second one beside far loads, or its cables home to the supply: laid, "
                     "sized and priced"),
                 [this] { ask_layouts(); });
        return;
    }
    title(say("One box or two"));
    for (std::size_t k = 0; k < found->options.size(); ++k) {
        const BoxOption& o = found->options[k];
        sentences_ << q(words::sentence(o, document_->style()));
        line(sentences_.back().toHtmlEscaped(), o.sized ? "" : "fix");
        if (o.layout != BoxLayout::as_it_is)
            link(say("Keep that as an option"), say("Beside the plan as it stands; undo takes it back"),
                 [this, k] { keep_layout(k); });
    }
    line(say("Cables on the box or boxes as long as their ways and sized anew in each; a second box itself "
             "is not in the money."),
         "soft");
}

void PlacePage::fill_map() {
    const StandAdvice* found = advice();
    if (!found) {
        line(say("Nothing that ends on it stands anywhere yet, or there is no face to mount it on."), "soft");
        return;
    }
    title(say("Where it would cost least"));
    for (std::size_t k = 0; k < found->best.size(); ++k) {
        const StandChoice& c = found->best[k];
        const auto change = [](double saved, const std::string& amount, const QString& of) {
            return (saved >= 0 ? QStringLiteral("−") : QStringLiteral("+")) + q(amount) + QChar(0x2009) + of;
        };
        QString text =
            say("%1  %2: %3 copper")
                .arg(k + 1)
                .arg(q(yr::name_of(document_->plan(), c.spot.place)),
                     change(c.saves_kg, words::number(std::abs(c.saves_kg), 2), QStringLiteral("kg")));
        if (std::abs(c.saves_V) >= kWorthTelling_V)
            text += QStringLiteral(", ") +
                    change(c.saves_V, words::number(std::abs(c.saves_V) * 1000, 2), QStringLiteral("mV"));
        link(text, say("Moves it there, its cables as thick as they then need to be; undo takes it back"),
             [this, k] { take_spot(k); });
    }
    line(say("Against now; worst drop of any load. Green: least copper. Crossed: it must not stand there."),
         "soft");
}

void PlacePage::fill_findings() {
    const Plan& plan = document_->plan();
    bool any = false;
    for (const Finding& f : document_->inspector().findings()) {
        if (words::row_of(f.kind).group != words::FindingGroup::place || words::accepted(f, plan)) continue;
        const Id& chosen = document_->selection().id();
        const Id& waypoint = view_->chosen_waypoint();
        if (!chosen.empty() && f.id != chosen && f.other != chosen) continue;
        if (!waypoint.empty() && f.id != waypoint) continue;
        if (view_->chosen_way()) continue;
        if (!any) title(say("As it lies now"));
        any = true;
        sentences_ << q(words::sentence(f, plan, document_->style()));
        line(QString::fromUtf8(words::mark(f.severity)) + QStringLiteral(" ") +
                 sentences_.back().toHtmlEscaped(),
             f.severity == Severity::stop  ? "stop"
             : f.severity == Severity::fix ? "fix"
                                           : "");
        if (f.mend)
            link(q(words::mend_label(f, plan)), say("Makes this change; undo takes it back"),
                 [this, f] { document_->inspector().mend(f); });
    }
}

}  // namespace yr::app
