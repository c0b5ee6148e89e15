#include "runs/runs_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QSplitter>
#include <QtConcurrent/QtConcurrentRun>
#include <cmath>

#include "paint/tokens.h"
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

RunsPage::RunsPage(PlanDocument* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(QStringLiteral("Runs"));
    matrix_ = new RunMatrix(document_);
    sizing_ = new SizingPanel(document_);
    pages_ = new QStackedWidget;
    pages_->addWidget(make_ladder());
    pages_->addWidget(sizing_);
    pages_->addWidget(make_placement());
    auto* head = new QHBoxLayout;
    head->setContentsMargins(12, 4, 12, 0);
    head->setSpacing(4);
    const char* names[] = {"Size by size", "All sized together", "Where to stand"};
    const char* tips[] = {"The chosen run: every size against every limit",
                          "The whole plan: the least copper, money or sizes, proved",
                          "A box, bus bar or battery: copper and drop if it stood elsewhere"};
    for (int k = 0; k < 3; ++k) {
        auto* b = button(QString::fromUtf8(names[k]), "state");
        b->setToolTip(QString::fromUtf8(tips[k]));
        b->setCheckable(true);
        b->setMinimumHeight(32);
        connect(b, &QToolButton::clicked, this, [this, k] { show_view(static_cast<View>(k)); });
        words_.push_back(b);
        head->addWidget(b);
    }
    head->addStretch();
    auto* lower = new QWidget;
    auto* column = new QVBoxLayout(lower);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(head);
    column->addWidget(pages_, 1);
    auto* split = new QSplitter(Qt::Vertical);
    split->addWidget(matrix_);
    split->addWidget(lower);
    split->setChildrenCollapsible(false);
    split->setHandleWidth(3);
    split->setSizes({190, 380});
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(split);
    connect(document_, &PlanDocument::findings_changed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(document_, &PlanDocument::selection_changed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(sizing_, &SizingPanel::said, this, &RunsPage::said);
    connect(&placing_, &QFutureWatcherBase::finished, this, &RunsPage::take_placement);
    show_view(View::ladder);
}

RunsPage::~RunsPage() {
    placing_.disconnect(this);
    if (stop_) stop_->store(true);
    placing_.waitForFinished();
}

QWidget* RunsPage::make_ladder() {
    ladder_ = new LadderView(document_);
    connect(ladder_, &LadderView::size_asked, this, &RunsPage::set_size);
    verdict_ = new QLabel;
    verdict_->setWordWrap(true);
    verdict_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    parallel_ = new QSpinBox;
    parallel_->setRange(1, 8);
    parallel_->setPrefix(QStringLiteral("side by side: "));
    parallel_->setAccessibleName(QStringLiteral("Cables side by side"));
    connect(parallel_, &QSpinBox::valueChanged, this, [this] { refresh_ladder(); });
    take_first_ = button({}, "mend");
    both_ = button(QStringLiteral("both ways"), "mend");
    both_->setToolTip(QStringLiteral("The feed and the return of this load alike"));
    pin_ = button(QStringLiteral("pin"), "state");
    pin_->setCheckable(true);
    pin_->setToolTip(QStringLiteral("Its size stays when the whole plan is sized"));
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
        document_->apply(Put<Run>{changed, {}},
                         q(run->name) + (on ? QStringLiteral(" pinned") : QStringLiteral(" free again")));
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
    placement_->setHeaderLabels({QStringLiteral("if it stood"), QStringLiteral("copper"),
                                 QStringLiteral("change"), QStringLiteral("money"),
                                 QStringLiteral("worst drop behind it"), QString()});
    placement_->setRootIsDecorated(false);
    placement_->setIndentation(0);
    placement_->setAllColumnsShowFocus(true);
    placement_->setAccessibleName(QStringLiteral("Copper and drop by where it stands"));
    placement_->header()->setFont(type_font(Type::small));
    placement_->header()->setSectionResizeMode(QHeaderView::Fixed);
    placement_->header()->setSectionResizeMode(5, QHeaderView::Stretch);
    const int widths[] = {230, 90, 100, 90, 260};
    for (int k = 0; k < 5; ++k) placement_->header()->resizeSection(k, widths[k]);
    connect(placement_, &QTreeWidget::itemDoubleClicked, this, [this](QTreeWidgetItem* item) {
        const int row = item->data(0, Qt::UserRole).toInt();
        if (!placed_ || row < 0) return;
        document_->apply(placed_->rows[static_cast<std::size_t>(row)].edit, item->text(0));
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
    if (const Run* r = yr::find(plan.runs, document_->selection())) return r;
    if (yr::find(plan.loads, document_->selection()))
        if (const Run* r = supply_run(plan, document_->selection())) return r;
    for (const Run& r : plan.runs)
        if (yr::find(r.devices, document_->selection())) return &r;
    if (const Run* r = yr::find(plan.runs, last_run_)) return r;
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
    std::optional<RunLadder> ladder;
    QString otherwise = QStringLiteral("No run yet: a load brings its feed and its return.");
    if (run) {
        const auto& solutions = document_->inspection().solutions;
        const bool at_hand =
            document_->findings_current() && solutions.size() == document_->plan().states.size();
        const auto found =
            run_ladder(document_->plan(), run->id, parallel_->value(), at_hand ? &solutions : nullptr);
        if (found)
            ladder = *found;
        else
            otherwise = q(run->name) +
                        QStringLiteral(" is metal or of given resistance: there is no size to choose.");
    }
    ladder_->show_ladder(run ? run->id : Id(), ladder, otherwise);
    verdict_->setText(run && ladder ? QStringLiteral("<b>%1.</b> ").arg(q(run->name).toHtmlEscaped()) +
                                          ladder_->verdict().toHtmlEscaped()
                                    : otherwise);
    const bool may = ladder && ladder->chosen >= 0 && ladder->chosen != ladder->now;
    take_first_->setVisible(may);
    if (may)
        take_first_->setText(
            QStringLiteral("Take ") +
            q(words::short_size(ladder->rows[static_cast<std::size_t>(ladder->chosen)].size)));
    const Load* load = run ? yr::find(document_->plan().loads, Id(owner_of(run->to))) : nullptr;
    if (run && !load) load = yr::find(document_->plan().loads, Id(owner_of(run->from)));
    both_->setVisible(load != nullptr);
    pin_->setVisible(run && ladder);
    parallel_->setVisible(run && ladder);
    const QSignalBlocker quiet(pin_);
    pin_->setChecked(run && run->pinned);
}

void RunsPage::set_size(const WireSize& size) {
    const Run* run = chosen_run();
    if (!run) return;
    Run changed = *run;
    changed.size = size;
    changed.parallel = parallel_->value();
    document_->apply(Put<Run>{changed, {}}, q(run->name) + QStringLiteral(" to ") + q(yr::name_of(size)));
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
                other.id != run->id && (other.to == load->id + ".pos" || other.from == load->id + ".neg");
            if (!mate || other.body_metal) continue;
            Run changed = other;
            changed.size = run->size;
            document_->apply(Put<Run>{changed, {}}, q(load->name) + QStringLiteral(" with ") +
                                                        q(yr::name_of(*run->size)) +
                                                        QStringLiteral(" both ways"));
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
    if (may(document_->selection())) return document_->selection();
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
        placement_text_->setText(QStringLiteral("No box, bus bar or battery yet."));
        return;
    }
    if (stop_) stop_->store(true);
    stop_ = std::make_shared<std::atomic<bool>>(false);
    placement_text_->setText(
        QStringLiteral("Trying places for %1 …").arg(q(yr::name_of(document_->plan(), id))));
    placing_.setFuture(
        QtConcurrent::run([plan = document_->plan(), generation = document_->generation(), id, stop = stop_] {
            const auto found = placement_of(plan, id, stop.get());
            return Placed{generation, id, found ? std::make_shared<Placement>(*found) : nullptr};
        }));
}

void RunsPage::take_placement() {
    if (!placing_.future().isResultReadyAt(0)) return;
    const Placed placed = placing_.result();
    if (placed.generation != document_->generation()) return;
    placed_ = placed.placement;
    placement_->clear();
    const Plan& plan = document_->plan();
    const QString name = q(yr::name_of(plan, placed.id));
    if (!placed_) {
        placement_text_->setText(QStringLiteral("No cable ends on %1.").arg(name));
        return;
    }
    placement_text_->setText(
        QStringLiteral(
            "%1: the cables that end on it, each as thin as may be where it stands. Lengths between places "
            "are judged by the "
            "plan's own cables. A double click moves it; select another box, bus bar or battery in the list.")
            .arg(name));
    const auto add = [&](const PlacementRow& row, const QString& where, int index) {
        auto* item = new QTreeWidgetItem(placement_);
        item->setText(0, where);
        item->setData(0, Qt::UserRole, index);
        if (!row.fits) {
            item->setText(1, QStringLiteral("▲ no sizes keep every limit there"));
            item->setFirstColumnSpanned(false);
            item->setForeground(1, tokens().fix);
            return;
        }
        item->setText(1, q(words::number(row.mass_kg)) + QStringLiteral(" kg"));
        const double change = row.mass_kg - placed_->here.mass_kg;
        item->setText(2, index < 0 ? QStringLiteral("–")
                                   : (change < 0 ? QStringLiteral("−") : QStringLiteral("+")) +
                                         q(words::number(std::abs(change), 2)) + QStringLiteral(" kg"));
        item->setText(3, q(words::number(row.money, 3)));
        item->setText(
            4, row.worst_load.empty()
                   ? QStringLiteral("–")
                   : q(words::quantity(row.worst_share, Dimension::fraction, document_->style())) +
                         QStringLiteral(" of what %1 may lose").arg(q(yr::name_of(plan, row.worst_load))));
        if (row.estimated) item->setText(5, QStringLiteral("estimated lengths"));
        for (int k = 1; k < 4; ++k) item->setTextAlignment(k, Qt::AlignRight | Qt::AlignVCenter);
        if (index >= 0 && change < -1e-6) item->setForeground(2, tokens().good);
    };
    add(placed_->here, QStringLiteral("where it is"), -1);
    for (std::size_t k = 0; k < placed_->rows.size(); ++k) {
        const PlacementRow& row = placed_->rows[k];
        const QString metres =
            q(words::quantity(std::abs(row.nearer_m), Dimension::length, document_->style()));
        add(row,
            !row.place.empty() ? QStringLiteral("at ") + q(yr::name_of(plan, row.place))
            : row.nearer_m > 0 ? metres + QStringLiteral(" nearer to its supply")
                               : metres + QStringLiteral(" farther from it"),
            static_cast<int>(k));
    }
}

void RunsPage::finish() {
    matrix_->finish();
    if (view_ == View::place) {
        placing_.waitForFinished();
        take_placement();
    }
}

}  // namespace yr::app
