#include "workspaces/runs/runs_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <cmath>

#include "widgets/split_page.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/guard_words.h"

namespace yr::app {
namespace {

QToolButton* button(const QString& text, const char* name) {
    auto* b = new QToolButton;
    b->setText(text);
    b->setObjectName(QLatin1String(name));
    b->setMinimumHeight(28);
    return b;
}

}  // namespace

RunsPage::RunsPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("runs"), say("Runs"), parent) {
    matrix_ = new RunMatrix(document_);
    sizing_ = new SizingPanel(document_);
    pages_ = new QStackedWidget;
    pages_->addWidget(make_ladder());
    pages_->addWidget(sizing_);
    pages_->addWidget(make_placement());
    words_ = fill_split_page(
        this, matrix_,
        {{words::later("Size by size"), words::later("The chosen run: every size against every limit")},
         {words::later("All sized together"),
          words::later("The whole plan: the least copper, money or sizes, proved")},
         {words::later("Where to stand"),
          words::later("A box, bus bar or battery: copper and drop if it stood elsewhere")}},
        pages_, {190, 380}, [this](int k) { show_view(static_cast<View>(k)); });
    connect(&document_->inspector(), &Inspector::inspected, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&document_->selection(), &Selection::chosen, this, [this] {
        if (isVisible()) refresh();
    });
    connect(sizing_, &SizingPanel::said, this, &Workspace::said);
    connect(&climbing_, &JobBase::done, this, &RunsPage::take_ladder);
    connect(&placing_, &JobBase::done, this, &RunsPage::take_placement);
    show_view(View::ladder);
}

QWidget* RunsPage::make_ladder() {
    ladder_ = new LadderView(document_);
    connect(ladder_, &LadderView::size_asked, this, &RunsPage::set_size);
    verdict_ = new QLabel;
    verdict_->setWordWrap(true);
    verdict_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    parallel_ = new QSpinBox;
    parallel_->setRange(1, 8);
    parallel_->setPrefix(say("side by side: "));
    parallel_->setAccessibleName(say("Cables side by side"));
    connect(parallel_, &QSpinBox::valueChanged, this, [this] { refresh_ladder(); });
    take_first_ = button({}, "mend");
    both_ = button(say("both ways"), "mend");
    both_->setToolTip(say("The feed and the return of this load alike"));
    pin_ = button(say("pin"), "state");
    pin_->setCheckable(true);
    pin_->setToolTip(say("Its size stays when the whole plan is sized"));
    connect(take_first_, &QToolButton::clicked, this, [this] {
        if (const auto& l = ladder_->ladder(); l && l->chosen >= 0)
            set_size(l->rows[static_cast<std::size_t>(l->chosen)].size);
    });
    connect(both_, &QToolButton::clicked, this, &RunsPage::both_ways);
    connect(pin_, &QToolButton::clicked, this, [this](bool on) {
        const Run* run = chosen_run();
        if (!run) return;
        Run changed = *run;
        changed.pinned = on;
        document_->apply(Put<Run>{changed, {}}, q(run->name) + (on ? say(" pinned") : say(" free again")));
    });
    auto* row = new QHBoxLayout;
    row->setContentsMargins(16, 4, 12, 2);
    row->addWidget(verdict_, 1);
    for (QWidget* w : {static_cast<QWidget*>(take_first_), static_cast<QWidget*>(both_),
                       static_cast<QWidget*>(parallel_), static_cast<QWidget*>(pin_)})
        row->addWidget(w, 0, Qt::AlignTop);
    auto* scroll = new QScrollArea;
    scroll->setWidget(ladder_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(row);
    column->addWidget(scroll, 1);
    return page;
}

QWidget* RunsPage::make_placement() {
    placement_text_ = new QLabel;
    placement_text_->setWordWrap(true);
    placement_text_->setObjectName(QStringLiteral("soft"));
    placement_text_->setContentsMargins(16, 6, 12, 2);
    placement_ = new QTreeWidget;
    placement_->setObjectName(QStringLiteral("table"));
    placement_->setHeaderLabels({say("if it stood"), say("copper"), say("change"), say("money"),
                                 say("worst drop behind it"), QString()});
    placement_->setRootIsDecorated(false);
    placement_->setIndentation(0);
    placement_->setAllColumnsShowFocus(true);
    make_handy(placement_);
    placement_->setAccessibleName(say("Copper and drop by where it stands"));
    placement_->header()->setFont(type_font(Type::small));
    placement_->header()->setSectionResizeMode(QHeaderView::Fixed);
    placement_->header()->setSectionResizeMode(5, QHeaderView::Stretch);
    const int widths[] = {230, 90, 100, 90, 260};
    for (int k = 0; k < 5; ++k) placement_->header()->resizeSection(k, widths[k]);
    connect(placement_, &QTreeWidget::itemDoubleClicked, this, [this](QTreeWidgetItem* item) {
        const int row = item->data(0, Qt::UserRole).toInt();
        if (row < 0 || placing_.running() || !placing_.current(document_->store().generation())) return;
        const PlacementRow& chosen = placing_.answer()->placement->rows[static_cast<std::size_t>(row)];
        if (chosen.fits) document_->apply(Edit(chosen.edit), item->text(0));
    });
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(placement_text_);
    column->addWidget(placement_, 1);
    return page;
}

void RunsPage::show_view(View view) {
    view_ = view;
    pages_->setCurrentIndex(static_cast<int>(view));
    for (std::size_t k = 0; k < words_.size(); ++k)
        words_[k]->setChecked(k == static_cast<std::size_t>(view));
    refresh();
}

void RunsPage::showEvent(QShowEvent*) {
    refresh();
}

void RunsPage::refresh() {
    if (view_ == View::ladder) refresh_ladder();
    if (view_ == View::place) refresh_placement();
}

// The selected run; of a selected load its feed; else the one looked at last.
const Run* RunsPage::chosen_run() const {
    const Plan& plan = document_->plan();
    if (const Run* r = run_of_selection(plan, document_->selection().id(), last_run_)) return r;
    for (const Run& r : plan.runs)
        if (!r.body_metal && !r.resistance_ohm) return &r;
    return nullptr;
}

void RunsPage::refresh_ladder() {
    const Run* run = chosen_run();
    const bool other = run && run->id != last_run_;
    if (run) last_run_ = run->id;
    if (other) {
        const QSignalBlocker quiet(parallel_);
        parallel_->setValue(run->parallel);
    }
    climbing_.start(document_->store().generation(),
                    [plan = document_->plan(), id = run ? run->id : Id(), side_by_side = parallel_->value(),
                     held = document_->inspector().inspection_at_hand()](const Task&) {
                        Climbed climbed{id, {}};
                        if (id.empty()) return climbed;
                        auto found = run_ladder(plan, id, side_by_side, held ? &held->solutions : nullptr);
                        if (found) climbed.ladder = std::move(*found);
                        return climbed;
                    });
}

const Run* RunsPage::ladder_run() const {
    if (!climbing_.current(document_->store().generation())) return nullptr;
    return yr::find(document_->plan().runs, climbing_.answer()->run);
}

void RunsPage::take_ladder() {
    if (!climbing_.current(document_->store().generation())) return;  // another is on its way
    const Run* run = ladder_run();
    const std::optional<RunLadder>& ladder = climbing_.answer()->ladder;
    const QString otherwise =
        run ? q(run->name) + say(" is metal or of given resistance: there is no size to choose.")
            : say("No run yet: a load brings its feed and its return.");
    ladder_->show_ladder(run ? run->id : Id(), ladder, otherwise);
    verdict_->setText(run && ladder ? QStringLiteral("<b>%1.</b> ").arg(q(run->name).toHtmlEscaped()) +
                                          ladder_->verdict().toHtmlEscaped()
                                    : otherwise);
    const bool may = ladder && ladder->chosen >= 0 && ladder->chosen != ladder->now;
    take_first_->setVisible(may);
    if (may)
        take_first_->setText(
            say("Take ") + q(words::short_size(ladder->rows[static_cast<std::size_t>(ladder->chosen)].size)));
    const Load* load = run ? yr::find(document_->plan().loads, Id(owner_of(run->to))) : nullptr;
    if (run && !load) load = yr::find(document_->plan().loads, Id(owner_of(run->from)));
    both_->setVisible(load != nullptr);
    pin_->setVisible(run && ladder);
    parallel_->setVisible(run && ladder);
    const QSignalBlocker quiet(pin_);
    pin_->setChecked(run && run->pinned);
}

void RunsPage::set_size(const WireSize& size) {
    const Run* run = ladder_run();
    if (!run) return;
    Run changed = *run;
    changed.size = size;
    changed.parallel = parallel_->value();
    document_->apply(Put<Run>{changed, {}}, q(run->name) + say(" to ") + q(yr::name_of(size)));
}

// The return of the same load as thick as its feed, or the other way round.
void RunsPage::both_ways() {
    const Run* run = chosen_run();
    if (!run || !run->size) return;
    const Plan& plan = document_->plan();
    for (const Terminal* t : {&run->to, &run->from}) {
        const Load* load = yr::find(plan.loads, Id(owner_of(*t)));
        if (!load) continue;
        for (const Run& other : plan.runs) {
            const bool mate =
                other.id != run->id && (other.to == pos_of(load->id) || other.from == neg_of(load->id));
            if (!mate || other.body_metal) continue;
            Run changed = other;
            changed.size = run->size;
            document_->apply(Put<Run>{changed, {}},
                             q(load->name) + say(" with ") + q(yr::name_of(*run->size)) + say(" both ways"));
            return;
        }
    }
}

Id RunsPage::chosen_stand() const {
    const Plan& plan = document_->plan();
    const auto may = [&](const Id& id) {
        const Point* p = yr::find(plan.points, id);
        return (p && p->kind != PointKind::chassis && p->kind != PointKind::ground) ||
               yr::find(plan.batteries, id);
    };
    if (may(document_->selection().id())) return document_->selection().id();
    for (const Point& p : plan.points)
        if (p.kind == PointKind::box) return p.id;
    for (const Point& p : plan.points)
        if (may(p.id)) return p.id;
    return {};
}

void RunsPage::refresh_placement() {
    const Id id = chosen_stand();
    if (id.empty()) {
        placement_->clear();
        placement_text_->setText(say("No box, bus bar or battery yet."));
        return;
    }
    placement_->clear();  // what stands there is of another thing, or of the plan before
    placement_text_->setText(say("Trying places for %1 …").arg(q(yr::name_of(document_->plan(), id))));
    placing_.start(document_->store().generation(), [plan = document_->plan(), id](const Task& task) {
        auto found = placement_of(plan, id, task.cancel());
        return Placed{id, found ? std::optional(std::move(*found)) : std::nullopt};
    });
}

void RunsPage::take_placement() {
    if (!placing_.current(document_->store().generation())) return;
    const Placed& placed = *placing_.answer();
    const Refill refill(placement_);
    const Plan& plan = document_->plan();
    const QString name = q(yr::name_of(plan, placed.id));
    if (!placed.placement) {
        placement_text_->setText(say("No cable ends on %1.").arg(name));
        return;
    }
    QString text =
        say("%1: the cables that end on it, each as thin as may be where it stands. Lengths between places "
            "are judged by the "
            "plan's own cables. A double click moves it; select another box, bus bar or battery in the list.")
            .arg(name);
    QStringList unknown;
    for (const Id& place : placed.placement->unknown) unknown << q(yr::name_of(plan, place));
    if (!unknown.isEmpty())
        text += say(" How far it would be at %1 no cable of this plan tells: give what its cables lead to a "
                    "place and them a length.")
                    .arg(unknown.join(QStringLiteral(", ")));
    placement_text_->setText(text);
    const auto add = [&](const PlacementRow& row, const QString& where, int index) {
        auto* item = new TableRow(placement_);
        item->setText(0, where);
        item->setData(0, Qt::UserRole, index);
        if (!row.fits) {
            item->setText(1, say("▲ no sizes keep every limit there"));
            item->setFirstColumnSpanned(false);
            item->setForeground(1, tokens().fix);
            return;
        }
        item->setText(1, q(words::number(row.mass_kg)) + say(" kg"));
        const double change = row.mass_kg - placed.placement->here.mass_kg;
        item->setText(2, index < 0 ? QStringLiteral("–")
                                   : (change < 0 ? QStringLiteral("−") : QStringLiteral("+")) +
                                         q(words::number(std::abs(change), 2)) + say(" kg"));
        item->setText(3, q(words::number(row.money, 3)));
        item->setText(4, row.worst_load.empty()
                             ? QStringLiteral("–")
                             : q(words::quantity(row.worst_share, Dimension::fraction, document_->style())) +
                                   say(" of what %1 may lose").arg(q(yr::name_of(plan, row.worst_load))));
        if (row.estimated) item->setText(5, say("estimated lengths"));
        for (int k = 1; k < 4; ++k) item->setTextAlignment(k, Qt::AlignRight | Qt::AlignVCenter);
        if (index >= 0 && change < -1e-6) item->setForeground(2, tokens().good);
    };
    add(placed.placement->here, say("where it is"), -1);
    for (std::size_t k = 0; k < placed.placement->rows.size(); ++k) {
        const PlacementRow& row = placed.placement->rows[k];
        const QString metres =
            q(words::quantity(std::abs(row.nearer_m), Dimension::length, document_->style()));
        add(row,
            !row.place.empty() ? say("at ") + q(yr::name_of(plan, row.place))
            : row.nearer_m > 0 ? metres + say(" nearer to its supply")
                               : metres + say(" farther from it"),
            static_cast<int>(k));
    }
}

void RunsPage::finish() {
    matrix_->finish();
    if (view_ == View::ladder) climbing_.finish();
    if (view_ == View::place) placing_.finish();
}

std::vector<WorkspacePicture> RunsPage::pictures() {
    const auto sized_together = [this] {
        document_->inspector().finish();
        emit go_to(key(), {});
        finish();
        show_view(View::together);
        sizing_->start();
        sizing_->finish();
    };
    return {
        {QStringLiteral("runs.png"),
         [this] {
             in_state("Hoisting");
             document_->inspector().finish();
             emit go_to(key(), {});
             document_->selection().choose(feed_of("echo sounder"));
             finish();
         }},
        {QStringLiteral("runs-together.png"), sized_together},
    };
}

}  // namespace yr::app

#include "moc_runs_page.cpp"
