#include "workspaces/runs/sizing_panel.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QMenu>
#include <QPainter>
#include <algorithm>

#include "typing/fields.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::app {

namespace {

QString refusal(const Error& why) {
    if (why.wanted.what == Want::a_state_that_can_be_solved)
        return say(
            "No state can be served: the supply breaks down under its loads whatever the cables. See the "
            "findings.");
    return say("Nothing may change: every cable is pinned, made already or of given resistance.");
}

}  // namespace

SizingPanel::SizingPanel(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("The whole plan sized at once"));
    parts_ = new QStackedWidget;
    parts_->addWidget(make_table());
    parts_->addWidget(make_sides());
    parts_->addWidget(make_price());
    doubts_ = new DoubtList(document_);
    parts_->addWidget(doubts_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(make_head());
    QHBoxLayout* summary = make_summary();
    column->addWidget(progress_);
    column->addLayout(summary);
    column->addWidget(parts_, 1);
    connect(&sizing_, &JobBase::done, this, &SizingPanel::take);
    connect(&sizing_, &JobBase::progressed, this,
            [this](double, const QString& text) { summary_->setText(text); });
    connect(&pricing_, &JobBase::done, this, &SizingPanel::take_price);
    connect(&next_, &JobBase::done, this, &SizingPanel::take_next);
    connect(&document_->store(), &PlanStore::edited, this, [this] {
        apply_->hide();  // what it would apply is of the plan before
        stale_ = true;
        if (isVisible()) fill_anew();
    });
    fill_anew();
    show_part(0);
}

void SizingPanel::fill_anew() {
    if (!stale_) return;
    stale_ = false;
    refresh_stock();
    fill_states_menu();
}

void SizingPanel::showEvent(QShowEvent* event) {
    fill_anew();  // an edit elsewhere waits for who looks
    QWidget::showEvent(event);
}

QHBoxLayout* SizingPanel::make_head() {
    goal_ = new QComboBox;
    goal_->addItems({say("least copper"), say("least money"), say("fewest sizes")});
    goal_->setAccessibleName(say("What is to be least"));
    states_ = new QToolButton;
    states_->setPopupMode(QToolButton::InstantPopup);
    states_->setMinimumHeight(28);
    states_->setMenu(new QMenu(states_));
    connect(states_->menu(), &QMenu::aboutToShow, this, &SizingPanel::fill_states_menu);
    fuses_ = new QCheckBox(say("fuse ratings as well"));
    fuses_->setChecked(true);
    stock_ = new QLineEdit;
    stock_->setPlaceholderText(say("in stock: 10 m 25 mm², 6 m 8 AWG"));
    stock_->setAccessibleName(say("Cable in stock: free where money counts"));
    stock_->setToolTip(stock_->accessibleName());
    connect(stock_, &QLineEdit::editingFinished, this, &SizingPanel::take_stock);
    run_ = new QPushButton(say("Size the whole plan"));
    run_->setObjectName(QStringLiteral("main"));
    connect(run_, &QPushButton::clicked, this, [this] { running() ? stop() : start(); });
    auto* head = new QHBoxLayout;
    head->setContentsMargins(12, 6, 12, 2);
    for (QWidget* w :
         {static_cast<QWidget*>(goal_), static_cast<QWidget*>(states_), static_cast<QWidget*>(fuses_)})
        head->addWidget(w);
    head->addWidget(stock_, 1);
    head->addWidget(run_);
    return head;
}

QHBoxLayout* SizingPanel::make_summary() {
    progress_ = new QProgressBar;
    progress_->setRange(0, 0);
    progress_->setTextVisible(false);
    progress_->setFixedHeight(6);
    progress_->hide();
    summary_ = new QLabel(say(
        "Every cable that is not pinned, together: the least that keeps every load's drop, every cable's "
        "ampacity and every "
        "fuse's guard in each chosen state, proved by a 0-1 program and solved anew as the real circuit."));
    summary_->setObjectName(QStringLiteral("soft"));
    summary_->setWordWrap(true);
    summary_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    apply_ = new QPushButton(say("Apply as one step"));
    apply_->setObjectName(QStringLiteral("mend"));
    // its room is there from the start: nothing moves when it comes
    QSizePolicy room = apply_->sizePolicy();
    room.setRetainSizeWhenHidden(true);
    apply_->setSizePolicy(room);
    apply_->hide();
    connect(apply_, &QPushButton::clicked, this, &SizingPanel::apply_result);
    auto* said_row = new QHBoxLayout;
    said_row->setContentsMargins(12, 2, 12, 2);
    said_row->addWidget(summary_, 1);
    const char* names[] = {words::later("What changes"), words::later("Before and after"),
                           words::later("Price of volts"), words::later("Measure first")};
    for (int k = 0; k < 4; ++k) {
        auto* b = new QToolButton;
        b->setText(say(names[k]));
        b->setCheckable(true);
        b->setObjectName(QStringLiteral("state"));
        b->setMinimumHeight(28);
        connect(b, &QToolButton::clicked, this, [this, k] { show_part(k); });
        words_.push_back(b);
        said_row->addWidget(b);
    }
    said_row->addWidget(apply_);
    return said_row;
}

QWidget* SizingPanel::make_table() {
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels(
        {say("run"), say("now"), say("becomes"), say("fuse"), say("copper"), say("what binds it")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    make_handy(table_);
    table_->setAccessibleName(say("What sizing the whole plan changes"));
    table_->header()->setFont(type_font(Type::small));
    table_->header()->setSectionResizeMode(QHeaderView::Fixed);
    const int widths[] = {190, 80, 90, 100, 84};
    for (int k = 0; k < 5; ++k) table_->header()->resizeSection(k, widths[k]);
    stretch_names(table_, 5, 180);
    connect(table_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item) {
        document_->selection().choose(item->data(0, Qt::UserRole).toString().toStdString());
    });
    connect(table_, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (item) ask_next(item->data(0, Qt::UserRole).toString().toStdString());
    });
    next_text_ =
        new QLabel(say("Choose a cable: what one size less or more of it would cost the whole plan."));
    next_text_->setObjectName(QStringLiteral("soft"));
    next_text_->setWordWrap(true);
    next_text_->setContentsMargins(12, 4, 12, 4);
    next_text_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    next_text_->hide();
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(table_, 1);
    column->addWidget(next_text_);
    return page;
}

QWidget* SizingPanel::make_sides() {
    auto* sides = new QWidget;
    auto* side_row = new QHBoxLayout(sides);
    side_row->setContentsMargins(8, 0, 8, 0);
    before_chart_ = new RailChart(&before_);
    after_chart_ = new RailChart(&after_);
    for (auto [chart, name] :
         {std::pair{before_chart_, say("now")}, std::pair{after_chart_, say("sized together")}}) {
        chart->set_animated(false);
        chart->setMinimumSize(280, 200);
        auto* column = new QVBoxLayout;
        auto* label = new QLabel(name);
        label->setObjectName(QStringLiteral("soft"));
        column->addWidget(label);
        column->addWidget(chart, 1);
        side_row->addLayout(column, 1);
    }
    return sides;
}

QWidget* SizingPanel::make_price() {
    auto* price = new QWidget;
    auto* price_column = new QVBoxLayout(price);
    price_column->setContentsMargins(12, 2, 12, 2);
    price_load_ = new QComboBox;
    price_load_->setAccessibleName(say("Load whose volts are priced"));
    connect(price_load_, &QComboBox::activated, this,
            [this] { price_of(price_load_->currentData().toString().toStdString()); });
    price_text_ = new QLabel(
        say("Choose a load: the plan is sized anew for each tenth of a volt less that it may lose."));
    price_text_->setObjectName(QStringLiteral("soft"));
    price_text_->setWordWrap(true);
    curve_ = new PriceCurve;
    auto* price_head = new QHBoxLayout;
    price_head->addWidget(price_load_);
    price_head->addWidget(price_text_, 1);
    price_column->addLayout(price_head);
    price_column->addWidget(curve_, 1);
    return price;
}

void SizingPanel::fill_states_menu() {
    const Plan& plan = document_->plan();
    QMenu* menu = states_->menu();
    menu->clear();
    int on = 0, all = 0;
    for (const State& s : plan.states) {
        if (s.key == Key::crank) continue;  // always looked at for the starter's own cables
        ++all;
        auto* a = menu->addAction(q(s.name));
        a->setCheckable(true);
        a->setChecked(!unchecked_states_.contains(q(s.id)));
        on += a->isChecked();
        connect(a, &QAction::toggled, this, [this, id = q(s.id)](bool checked) {
            unchecked_states_.removeAll(id);
            if (!checked) unchecked_states_ << id;
            fill_states_menu();
        });
    }
    states_->setText(on == all ? say("in every state ▾") : say("in %1 of %2 states ▾").arg(on).arg(all));
    states_->setAccessibleName(say("States that count"));
    // loads to price
    const QVariant kept = price_load_->currentData();
    price_load_->clear();
    for (const Load& l : plan.loads)
        if (!l.starter && l.inverter.empty()) price_load_->addItem(q(l.name), q(l.id));
    if (const int at = price_load_->findData(kept); kept.isValid() && at >= 0)
        price_load_->setCurrentIndex(at);
}

SizingAsk SizingPanel::ask() const {
    SizingAsk ask;
    ask.goal = static_cast<SizingGoal>(goal_->currentIndex());
    ask.fuses = fuses_->isChecked();
    for (const State& s : document_->plan().states)
        if (s.key != Key::crank && !unchecked_states_.contains(q(s.id))) ask.states.push_back(s.id);
    return ask;
}

void SizingPanel::start() {
    if (running()) return;
    sizing_.forget();
    run_->setText(say("Stop"));
    progress_->show();
    apply_->hide();
    summary_->setText(say("Sizing …"));
    const SizingAsk what = ask();
    asked_goal_ = what.goal;
    sizing_.start(document_->store().generation(), [plan = document_->plan(), what](const Task& task) {
        SizingAsk watched = what;
        watched.watch = [&](const SizingProgress& p) {
            task.progress(0, say("Round %1: nothing below %2 keeps every limit.")
                                 .arg(p.round)
                                 .arg(q(words::cost_text(p.bound, what.goal))));
            return !task.cancelled();
        };
        return size_checked(plan, watched);
    });
}

void SizingPanel::stop() {
    sizing_.cancel();
}

void SizingPanel::finish() {
    sizing_.finish();
}

void SizingPanel::take() {
    progress_->hide();
    run_->setText(say("Size the whole plan"));
    fill();
}

void SizingPanel::fill() {
    const Plan& plan = document_->plan();
    const Refill refill(table_);
    if (!answered()) {
        summary_->setText(refusal(sizing_.answer()->error()));
        if (parts_->currentIndex() == 1) draw_sides();
        return;
    }
    const SizingResult& result = *this->result();
    const bool found = result.status == SizingStatus::least || result.status == SizingStatus::best_found;
    SizingAsk asked;
    asked.goal = asked_goal_;
    summary_->setText(q(words::given_up_text(**sizing_.answer(), plan, document_->style()) +
                        words::sentence(result, asked, plan, document_->style()) +
                        words::kept_text(**sizing_.answer(), plan, document_->style())));
    if (found)
        summary_->setText(summary_->text() + say(" Copper %1 → %2 kg, money %3 → %4, sizes %5 → %6.")
                                                 .arg(q(words::number(result.before.mass_kg)),
                                                      q(words::number(result.after.mass_kg)),
                                                      q(words::number(result.before.money, 4)),
                                                      q(words::number(result.after.money, 4)))
                                                 .arg(result.before.sizes)
                                                 .arg(result.after.sizes));
    for (const SizedRun& s : result.runs) {
        const Run* run = yr::find(plan.runs, s.run);
        if (!run) continue;
        auto* item = new TableRow(table_);
        const bool same = s.from == s.to && s.fuse_from_A == s.fuse_to_A;
        item->setText(0, q(run->name));
        item->setData(0, Qt::UserRole, q(s.run));
        item->setText(1, q(words::short_size(s.from)));
        item->setText(2, s.from == s.to ? say("stays") : q(words::short_size(s.to)));
        if (s.fuse_to_A > 0)
            item->setText(3, s.fuse_from_A == s.fuse_to_A
                                 ? q(words::quantity(s.fuse_to_A, Dimension::current))
                                 : q(words::number(s.fuse_from_A)) + QStringLiteral(" → ") +
                                       q(words::quantity(s.fuse_to_A, Dimension::current)));
        const double change = run_mass_kg(*run, s.to) - run_mass_kg(*run, s.from);
        item->setText(4, std::abs(change) < 5e-4 ? QStringLiteral("–")
                                                 : (change > 0 ? QStringLiteral("+") : QStringLiteral("−")) +
                                                       q(words::number(std::abs(change), 2)) + say(" kg"));
        item->setText(5, q(words::binds_text(s, plan)));
        item->setTextAlignment(4, Qt::AlignRight | Qt::AlignVCenter);
        if (!same) item->setFont(2, type_font(Type::bold));
        if (same)
            for (int k = 0; k < 6; ++k) item->setForeground(k, tokens().soft);
    }
    for (const SizingBlocker& b : result.blockers) {
        if (b.limit == Limit::none) continue;
        auto* item = new TableRow(table_, {QStringLiteral("▲ ") + q(yr::name_of(plan, b.id))});
        item->setData(0, Qt::UserRole, q(b.id));
        item->setText(5, q(words::sentence(b, plan, document_->style())));
        item->setForeground(0, tokens().fix);
    }
    next_text_->setText(say("Choose a cable: what one size less or more of it would cost the whole plan."));
    next_text_->setVisible(found);
    apply_->setVisible(found && sizing_.current(document_->store().generation()) &&
                       !std::get<Batch>(result.edit).edits.empty());
    if (parts_->currentIndex() == 1) draw_sides();
}

void SizingPanel::apply_result() {
    if (!answered() || !sizing_.current(document_->store().generation())) return;
    const char* goal = asked_goal_ == SizingGoal::mass    ? "least copper"
                       : asked_goal_ == SizingGoal::money ? "least money"
                                                          : "fewest sizes";
    if (document_->apply(Edit(result()->edit), say("the whole plan sized for ") + QLatin1String(goal)))
        emit said(say("The whole plan is sized anew, as one step. Undo brings the old sizes back."));
}

void SizingPanel::ask_next(const Id& run) {
    if (!answered() || !sizing_.current(document_->store().generation())) return;
    const CheckedSizing& sized = **sizing_.answer();
    const auto row = std::find_if(sized.sizing.runs.begin(), sized.sizing.runs.end(),
                                  [&](const SizedRun& s) { return s.run == run; });
    if (row == sized.sizing.runs.end()) return;
    next_text_->setText(say("Sizing the plan with one size less and one more of %1 …")
                            .arg(q(yr::name_of(document_->plan(), run))));
    next_.start(document_->store().generation(),
                [plan = document_->plan(), asked = sized.asked, row = *row](const Task& task) {
                    SizingAsk again = asked;
                    again.cancel = task.cancel(), again.most_s = 10;
                    const auto next = next_sizes(plan, again, row);
                    return next ? std::optional(*next) : std::nullopt;
                });
}

void SizingPanel::finish_next() {
    if (next_.running()) next_.finish();
}

void SizingPanel::take_next() {
    const std::optional<NextSizes>& next = *next_.answer();
    if (!next || !answered() || !next_.current(document_->store().generation())) return;
    next_text_->setText(
        q(words::sentence(*next, result()->cost, asked_goal_, document_->plan(), document_->style())));
}

void SizingPanel::show_part(int part) {
    parts_->setCurrentIndex(part);
    for (std::size_t k = 0; k < words_.size(); ++k) words_[k]->setChecked(static_cast<int>(k) == part);
    if (part == 1) draw_sides();
}

void SizingPanel::draw_sides() {
    Plan sized = document_->plan();
    if (answered() && sizing_.current(document_->store().generation()))
        (void)yr::apply(sized, result()->edit);
    before_.show_plan(document_->plan(), document_->shown().state().id);
    after_.show_plan(sized, document_->shown().state().id);
    for (RailChart* c : {before_chart_, after_chart_}) c->set_scale({});
    const SceneScale one{std::min(before_chart_->scene().px_per_A, after_chart_->scene().px_per_A),
                         std::min(before_chart_->scene().px_per_V, after_chart_->scene().px_per_V)};
    for (RailChart* c : {before_chart_, after_chart_}) c->set_scale(one);
}

void SizingPanel::price_of(const Id& load) {
    if (const int at = price_load_->findData(q(load)); at >= 0) price_load_->setCurrentIndex(at);
    price_text_->setText(say("Sizing for each tenth of a volt …"));
    SizingAsk what = ask();
    what.most_s = 10;
    pricing_.start(document_->store().generation(), [plan = document_->plan(), what, load](const Task& task) {
        SizingAsk watched = what;
        watched.watch = [&](const SizingProgress&) { return !task.cancelled(); };
        const auto points = price_of_volts(plan, watched, load);
        return Prices{load, what.goal, points ? *points : std::vector<PricePoint>{}};
    });
}

void SizingPanel::finish_price() {
    pricing_.finish();
}

void SizingPanel::take_price() {
    const Prices& prices = *pricing_.answer();
    const auto style = document_->style();
    QString text = say("No choice of sizes keeps this load's limit as it stands.");
    if (prices.points.size() >= 2 && prices.points[0].cost) {
        text = say("The next 0.1 V for %1 ").arg(q(yr::name_of(document_->plan(), prices.load)));
        text += prices.points[1].cost
                    ? say("costs %1 more.")
                          .arg(q(words::cost_text(*prices.points[1].cost - *prices.points[0].cost,
                                                  prices.goal, style)))
                    : say("is not to be had by any choice of sizes.");
    }
    price_text_->setText(text);
    curve_->show_points(prices.points, prices.goal, style);
}

// "10 m 25 mm², 6 m 8 AWG"; an entry that cannot be read is told and nothing is lost.
void SizingPanel::take_stock() {
    const auto list = read_stock(stock_->text().toStdString());
    if (!list) {
        emit said(say("Stock, “%1”: a length and a size are needed, such as 10 m 25 mm².")
                      .arg(q(list.error().given)));
        return;
    }
    if (*list == document_->plan().policy.stock) return;
    Policy policy = document_->plan().policy;
    policy.stock = *list;
    document_->apply(SetPolicy{policy}, say("cable in stock"));
}

void SizingPanel::refresh_stock() {
    if (stock_->hasFocus() && stock_->isModified()) return;
    stock_->setText(q(typed_stock(document_->plan().policy.stock)));
}

}  // namespace yr::app

#include "moc_sizing_panel.cpp"
