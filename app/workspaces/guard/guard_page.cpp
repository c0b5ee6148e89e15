#include "workspaces/guard/guard_page.h"

#include <QHBoxLayout>
#include <algorithm>

#include "widgets/split_page.h"
#include "widgets/tokens.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

const char* const kSchoolNames[] = {words::later("150 % of the load"), words::later("above the start"),
                                    words::later("by the cable")};

}  // namespace

GuardPage::GuardPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("guard"), say("Guard"), parent) {
    chart_ = new CurveChart(document_);
    faults_ = new FaultTable(document_);
    connect(chart_, &CurveChart::rating_asked, this,
            [this](const Id&, double rating_A) { set_fuse(rating_A, {}); });
    auto* upper = new QWidget;
    auto* upper_row = new QHBoxLayout(upper);
    upper_row->setContentsMargins(0, 4, 0, 0);
    upper_row->setSpacing(0);
    upper_row->addWidget(chart_, 1);
    upper_row->addWidget(make_advice());
    pages_ = new QStackedWidget;
    pages_->addWidget(faults_);
    pages_->addWidget(make_starts());
    words_ = fill_split_page(
        this, upper,
        {{words::later("Shorts everywhere"),
          words::later("A short at every far end and behind every fuse, in every state")},
         {words::later("Switching on"),
          words::later("The first seconds: how far the bus dips, what lets go, what fuses feel")}},
        pages_, {330, 240}, [this](int k) { show_view(static_cast<View>(k)); });
    connect(&document_->inspector(), &Inspector::inspected, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&document_->selection(), &Selection::chosen, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&starting_, &JobBase::done, this, &GuardPage::take_start);
    connect(&look_, &JobBase::done, this, &GuardPage::take_look);
    show_view(View::shorts);
}

QWidget* GuardPage::make_advice() {
    auto* side = new QWidget;
    side->setObjectName(QStringLiteral("panel"));
    side->setAttribute(Qt::WA_StyledBackground);
    side->setFixedWidth(300);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(12, 8, 12, 8);
    column->setSpacing(5);
    title_ = new QLabel;
    title_->setFont(type_font(Type::bold));
    title_->setWordWrap(true);
    column->addWidget(title_);
    for (int k = 0; k < 3; ++k) {
        auto* b = new QToolButton;
        b->setMinimumHeight(30);
        b->setObjectName(QStringLiteral("mend"));
        b->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        connect(b, &QToolButton::clicked, this, [this, k] {
            if (!advised_ || !advised_->schools[static_cast<std::size_t>(k)].chosen) return;
            const FuseChoice& f = *advised_->schools[static_cast<std::size_t>(k)].chosen;
            set_fuse(f.rating_A, f.type);
        });
        schools_.push_back(b);
        column->addWidget(b);
    }
    kinds_ = new QComboBox;
    kinds_->setAccessibleName(say("Kind of fuse or breaker"));
    connect(kinds_, &QComboBox::activated, this, [this](int) {
        if (!filling_) set_fuse(0, static_cast<FuseType>(kinds_->currentData().toInt()));
    });
    column->addWidget(kinds_);
    advice_ = new QLabel;
    advice_->setWordWrap(true);
    advice_->setObjectName(QStringLiteral("soft"));
    advice_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    advice_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    auto* scroll = new QScrollArea;
    scroll->setWidget(advice_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->viewport()->setAutoFillBackground(false);
    advice_->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    return side;
}

QWidget* GuardPage::make_starts() {
    starters_ = new QComboBox;
    starters_->setAccessibleName(say("What comes on"));
    starters_->setMinimumWidth(220);
    start_text_ = new QLabel;
    start_text_->setWordWrap(true);
    start_text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    start_plot_ = new QCustomPlot;
    start_plot_->setAccessibleName(say("Bus volts and amps after switching on"));
    connect(starters_, &QComboBox::activated, this, [this] { begin_start(); });
    auto* head = new QHBoxLayout;
    head->setContentsMargins(12, 2, 12, 2);
    head->addWidget(starters_);
    head->addWidget(start_text_, 1);
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->addLayout(head);
    column->addWidget(start_plot_, 1);
    return page;
}

void GuardPage::show_view(View view) {
    view_ = view;
    pages_->setCurrentIndex(static_cast<int>(view));
    for (std::size_t k = 0; k < words_.size(); ++k)
        words_[k]->setChecked(k == static_cast<std::size_t>(view));
    if (view == View::starts) {
        fill_starters();
        begin_start();
    }
}

void GuardPage::showEvent(QShowEvent*) {
    refresh();
}

const Run* GuardPage::chosen_run() const {
    const Plan& plan = document_->plan();
    if (const Run* r = run_of_selection(plan, document_->selection().id(), last_run_)) return r;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::fuse) return &r;
    return plan.runs.empty() ? nullptr : &plan.runs.front();
}

void GuardPage::refresh() {
    const Run* run = chosen_run();
    last_run_ = run ? run->id : Id();
    look_.start(document_->store().generation(),
                [plan = document_->plan(), id = last_run_, held = document_->inspector().inspection_at_hand(),
                 state = static_cast<std::size_t>(document_->shown().state_index())](const Task&) {
                    Look look{id, {}, {}};
                    if (id.empty()) return look;
                    const auto solved = held ? std::vector<Solution>() : solve_all(plan);
                    const auto& solutions = held ? held->solutions : solved;
                    if (auto curves = guard_curves(plan, id, state, solutions))
                        look.curves = std::move(*curves);
                    if (auto advice = advise_fuse(plan, id, solutions)) look.advice = std::move(*advice);
                    return look;
                });
    if (view_ == View::starts) {
        fill_starters();
        begin_start();
    }
}

void GuardPage::take_look() {
    if (!look_.current(document_->store().generation())) return;  // another is on its way
    chart_->show_curves(look_.answer()->curves, document_->plan());
    refresh_advice();
}

const Run* GuardPage::advised_run() const {
    if (!look_.current(document_->store().generation())) return nullptr;
    return yr::find(document_->plan().runs, look_.answer()->run);
}

void GuardPage::refresh_advice() {
    const Run* run = advised_run();
    advised_ = look_.answer()->advice;
    filling_ = true;
    kinds_->clear();
    title_->setText(run ? q(run->name) : QString());
    const Device* own = nullptr;
    if (run)
        for (const Device& d : run->devices)
            if (d.kind == DeviceKind::fuse && !own) own = &d;
    show_schools();
    show_kinds(own);
    advice_->setText(advice_sentence(run, own));
    filling_ = false;
}

// What each school of fuse choice would take, and what that risks.
void GuardPage::show_schools() {
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, document_->style())); };
    for (std::size_t k = 0; k < schools_.size(); ++k) {
        schools_[k]->setVisible(advised_.has_value());
        if (!advised_) continue;
        const SchoolChoice& s = advised_->schools[k];
        QString text = say(kSchoolNames[k]) + QStringLiteral(": ");
        QString tip;
        if (!s.chosen && advised_->nothing_behind) {
            text += say("nothing hangs behind it yet");
            tip = say("Without a load no rule by the load says a rating; the cable carries %1.")
                      .arg(A(advised_->cable_A));
        } else if (!s.chosen) {
            text += say("▲ none fits");
            tip = say("No rating both holds the load and guards the cable: a thicker cable is needed.");
        } else {
            text += A(s.chosen->rating_A);
            QStringList risks;
            if (!s.protects_cable) risks << say("above what the cable carries");
            if (!s.carries) risks << say("loaded above 80 %");
            if (!s.holds_inrush) risks << say("may open at the start");
            if (!s.opens_far_short) risks << say("a far short may not open it");
            if (!risks.isEmpty()) text += QStringLiteral(" ▲");
            tip = risks.isEmpty() ? say("Guards the cable, carries the load, holds the start.")
                                  : risks.join(QStringLiteral("; "));
        }
        const bool ours = static_cast<std::size_t>(document_->plan().policy.fuse_school) == k;
        schools_[k]->setText(text + (ours ? say("  (this plan's school)") : QString()));
        schools_[k]->setToolTip(tip);
    }
}

// The kinds that exist at the present rating.
void GuardPage::show_kinds(const Device* own) {
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, document_->style())); };
    kinds_->setVisible(advised_ && own);
    if (advised_ && own) {
        for (int k = 0; k <= static_cast<int>(FuseType::breaker_3); ++k) {
            const auto type = static_cast<FuseType>(k);
            const FuseKind& kind = fuse_kind(type);
            const bool has = std::find(kind.ratings_A.begin(), kind.ratings_A.end(), own->rating_A) !=
                             kind.ratings_A.end();
            if (!has && type != own->fuse) continue;
            QString text = q(words::device_kind(type)) + say(", cuts off ") + A(kind.interrupting_A);
            if (kind.interrupting_A < advised_->must_cut_A) text = QStringLiteral("▲ ") + text;
            kinds_->addItem(text, k);
        }
        kinds_->setCurrentIndex(kinds_->findData(static_cast<int>(own->fuse)));
    }
}

QString GuardPage::advice_sentence(const Run* run, const Device* own) const {
    const auto style = document_->style();
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, style)); };
    QString text;
    if (advised_) {
        text = say("Carries %1 at most").arg(A(advised_->current_A));
        if (advised_->inrush_A) text += say(", starts with %1").arg(A(*advised_->inrush_A));
        text += say("; the table lets it carry %1.").arg(A(advised_->cable_A));
        if (advised_->must_cut_A > 0)
            text += say(" A short behind the fuse: up to %1.").arg(A(advised_->must_cut_A));
        if (own && advised_->guard.limit_C > 0)
            text += say(" The present fuse %1: at %2 times its rating the cable reaches %3 of %4.")
                        .arg(advised_->guards ? say("guards the cable over its whole band")
                             : !advised_->guarded_by.empty()
                                 ? say("does not guard the cable alone, but %1 before it does")
                                       .arg(q(yr::name_of(document_->plan(), advised_->guarded_by)))
                                 : say("▲ does not guard the cable"),
                             q(words::number(advised_->guard.multiple)),
                             q(words::quantity(advised_->guard.reached_C, Dimension::temperature, style)),
                             q(words::quantity(advised_->guard.limit_C, Dimension::temperature, style)));
        if (advised_->both_ends) text += say(" Batteries feed both ends: each end needs a fuse of its own.");
        if (own)
            text += say(" It sits %1 from its source; %2 is allowed.")
                        .arg(q(words::quantity(advised_->distance_m, Dimension::length, style)),
                             q(words::quantity(advised_->allowed_m, Dimension::length, style)));
        if (!own) text += say(" It has no fuse of its own; a choice above puts one in at its source.");
        text += say(" Drag the ochre band to another rating.");
    } else if (run) {
        text = say("Metal, or a run of given resistance: nothing to guard here.");
    }
    return text;
}

// The first fuse of the run gets that rating and kind; where there is none, one is put in at the supply end.
void GuardPage::set_fuse(double rating_A, std::optional<FuseType> type) {
    const Run* run = advised_run();
    if (!run) return;
    Run changed = *run;
    Device* own = nullptr;
    for (Device& d : changed.devices)
        if (d.kind == DeviceKind::fuse && !own) own = &d;
    if (!own) {
        Device fuse;
        fuse.id = new_id(document_->plan(), "fuse");
        fuse.name = run->name + " fuse";
        fuse.kind = DeviceKind::fuse;
        fuse.at_m = std::min(0.15, run->length_m.value_or(0.15));
        changed.devices.insert(changed.devices.begin(), fuse);
        own = &changed.devices.front();
    }
    if (type) own->fuse = *type;
    if (rating_A > 0) own->rating_A = rating_A;
    const QString what = q(own->name) + say(" to ") + q(words::number(own->rating_A)) + say(" A, ") +
                         q(words::device_kind(own->fuse));
    document_->apply(Put<Run>{changed, {}}, what);
}

void GuardPage::fill_starters() {
    const QVariant kept = starters_->currentData();
    starters_->clear();
    starters_->addItem(say("everything at once"), QString());
    const Plan& plan = document_->plan();
    const auto& point = document_->shown().solution().point;
    for (std::size_t k = 0; k < plan.loads.size(); ++k)
        if (point.loads[k].status == LoadStatus::on && plan.loads[k].inverter.empty())
            starters_->addItem(q(plan.loads[k].name), q(plan.loads[k].id));
    for (std::size_t k = 0; k < plan.inverters.size(); ++k)
        if (point.loads[plan.loads.size() + k].status == LoadStatus::on)
            starters_->addItem(q(plan.inverters[k].name), q(plan.inverters[k].id));
    const int at = kept.isValid() ? starters_->findData(kept) : -1;
    starters_->setCurrentIndex(std::max(0, at));
}

void GuardPage::begin_start() {
    StartAsk ask;
    ask.state = static_cast<std::size_t>(document_->shown().state_index());
    const QString id = starters_->currentData().toString();
    if (!id.isEmpty()) ask.starts = {id.toStdString()};
    ask.seconds = 2;
    start_text_->setText(say("Following the first seconds …"));
    starting_.start(document_->store().generation(), [plan = document_->plan(), ask](const Task& task) {
        return study_start(plan, ask, task.cancel());
    });
}

void GuardPage::take_start() {
    if (!starting_.current(document_->store().generation())) return;
    const Result<StartStudy>& started = *starting_.answer();
    start_plot_->clearPlottables();
    if (!started) {
        start_text_->setText(q(words::sentence(started.error())));
        start_plot_->replot();
        return;
    }
    const StartStudy& s = *started;
    const Tokens& t = tokens();
    start_text_->setText(q(words::sentence(s, document_->plan(), document_->style())));
    start_plot_->setBackground(t.paper);
    start_plot_->yAxis2->setVisible(true);
    for (QCPAxis* axis : {start_plot_->xAxis, start_plot_->yAxis, start_plot_->yAxis2}) {
        axis->setBasePen(QPen(t.line));
        axis->setTickPen(QPen(t.line));
        axis->setSubTickPen(Qt::NoPen);
        axis->setTickLabelColor(t.soft);
        axis->setLabelColor(t.soft);
        axis->setTickLabelFont(type_font(Type::small));
        axis->setLabelFont(type_font(Type::small));
        axis->grid()->setPen(QPen(t.line, 1, Qt::DotLine));
    }
    start_plot_->xAxis->setLabel(say("seconds after switching on"));
    start_plot_->xAxis->setScaleType(QCPAxis::stLogarithmic);  // the first millisecond counts
    start_plot_->xAxis->setTicker(QSharedPointer<QCPAxisTickerLog>::create());
    start_plot_->yAxis->setLabel(say("bus, lowest load - - (V)"));
    start_plot_->yAxis2->setLabelColor(t.ret[1]);
    start_plot_->yAxis->setLabelColor(t.supply[0]);
    start_plot_->yAxis2->setLabel(say("what starts (A)"));
    QVector<double> x, bus, amps;
    for (std::size_t k = 0; k < s.t_s.size(); ++k) {
        x << std::max(s.t_s[k], 1e-5);
        bus << s.bus_V[k];
        amps << s.total_A[k];
    }
    auto* volts = start_plot_->addGraph();
    volts->setData(x, bus, true);
    volts->setPen(QPen(t.supply[0], 2.5));
    std::size_t worst = s.loads.size();
    double least = 1e9;
    for (std::size_t k = 0; k < s.loads.size(); ++k) {
        if (s.load_V[k].empty()) continue;
        const double low = *std::min_element(s.load_V[k].begin(), s.load_V[k].end());
        if (low < least) least = low, worst = k;
    }
    if (worst < s.loads.size()) {
        QVector<double> load;
        for (const double v : s.load_V[worst]) load << v;
        auto* dipped = start_plot_->addGraph();
        dipped->setData(x, load, true);
        dipped->setPen(QPen(t.supply[1], 2, Qt::DashLine));
    }
    auto* current = start_plot_->addGraph(start_plot_->xAxis, start_plot_->yAxis2);
    current->setData(x, amps, true);
    current->setPen(QPen(t.ret[1], 2));
    start_plot_->xAxis->setRange(1e-4, s.t_s.empty() ? 1 : s.t_s.back());
    start_plot_->yAxis->rescale();
    start_plot_->yAxis2->rescale();
    start_plot_->yAxis->scaleRange(1.15, start_plot_->yAxis->range().center());
    start_plot_->yAxis2->setRange(0, std::max(1.0, start_plot_->yAxis2->range().upper * 1.1));
    start_plot_->replot();
}

void GuardPage::finish() {
    faults_->finish();
    look_.finish();
    if (view_ == View::starts) starting_.finish();
}

std::vector<WorkspacePicture> GuardPage::pictures() {
    const auto hoisting = [this](const Id& run) {
        in_state("Hoisting");
        document_->inspector().finish();
        emit go_to(key(), {});
        document_->selection().choose(run);
    };
    return {
        {QStringLiteral("guard.png"),
         [this, hoisting] {
             hoisting(feed_of("radiator fan"));
             finish();
         }},
        {QStringLiteral("guard-starts.png"),
         [this, hoisting] {
             hoisting("run-8");
             show_view(View::starts);
             finish();
         }},
    };
}

}  // namespace yr::app

#include "moc_guard_page.cpp"
