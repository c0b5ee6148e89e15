#include "workspaces/meter/find_view.h"

#include <QHBoxLayout>
#include <QVBoxLayout>
#include <algorithm>
#include <mutex>

#include "text/say.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {

struct FindView::Holder {
    explicit Holder(const Plan& p) : plan(p), locator(plan) {}
    Plan plan;
    Locator locator;
    std::mutex one;  // a question that is dropped may still be at it
};

FindView::FindView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    load_ = new QComboBox, state_ = new QComboBox, seen_ = new QComboBox;
    load_->setAccessibleName(say("Load"));
    state_->setAccessibleName(say("State"));
    seen_->setAccessibleName(say("What is seen"));
    seen_->addItem(say("is dead"), static_cast<int>(Seen::dead));
    seen_->addItem(say("is weak, slow or dim"), static_cast<int>(Seen::weak));
    seen_->addItem(say("works"), static_cast<int>(Seen::works));
    auto* add = new QToolButton;
    add->setText(say("Note it"));
    add->setMinimumHeight(30);
    auto* anew = new QToolButton;
    anew->setText(say("Begin anew"));
    anew->setMinimumHeight(30);
    auto* row = new QHBoxLayout;
    row->setContentsMargins(16, 4, 16, 4);
    for (QComboBox* c : {load_, seen_, state_}) {
        c->setMinimumHeight(30);
        c->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        c->setMinimumContentsLength(9);
    }
    row->addWidget(load_, 3);
    row->addWidget(seen_, 2);
    // in two rows: what is wrong, then the state and what is done with it
    auto* second = new QHBoxLayout;
    second->setContentsMargins(16, 0, 16, 4);
    second->addWidget(state_, 1);
    second->addWidget(add);
    second->addWidget(anew);
    stairs_ = new StairView(document_);
    entry_ = new EntryBar;
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(row);
    column->addLayout(second);
    column->addWidget(stairs_, 1);
    column->addWidget(entry_);
    connect(add, &QToolButton::clicked, this, [this] {
        complain({load_->currentData().toString().toStdString(),
                  state_->currentData().toString().toStdString(),
                  static_cast<Seen>(seen_->currentData().toInt())});
    });
    connect(anew, &QToolButton::clicked, this, &FindView::begin_anew);
    connect(entry_, &EntryBar::entered, this, &FindView::take);
    connect(stairs_, &StairView::asked, this, [this](const Terminal& at) {
        if (complaints_.empty()) return;
        ask_at({ReadKind::volts, at, {}, {}, complaints_.front().state, {}});
    });
    connect(&job_, &JobBase::done, this, &FindView::show_answer);
    fill_choices();
    entry_->ask(ReadKind::volts, {}, say("Which load, what is seen, in which state? Then note it."));
}

void FindView::fill_choices() {
    const auto fill = [](QComboBox* box, const auto& things) {
        const QVariant was = box->currentData();
        box->clear();
        for (const auto& x : things) box->addItem(q(words::capital(x.name)), q(x.id));
        if (const int k = box->findData(was); k >= 0) box->setCurrentIndex(k);
    };
    fill(load_, document_->plan().loads);
    fill(state_, document_->plan().states);
}

void FindView::refresh() {
    fill_choices();
    const auto gone = [&](const Complaint& c) {
        return !yr::find(document_->plan().loads, std::string_view(c.load)) ||
               !yr::find(document_->plan().states, std::string_view(c.state));
    };
    std::erase_if(complaints_, gone);
    if (!complaints_.empty() && !job_.current(document_->store().generation())) start();
}

void FindView::finish() {
    refresh();
    if (job_.running()) job_.finish();
}

void FindView::start() {
    const quint64 generation = document_->store().generation();
    if (!holder_ || holder_of_ != generation)
        holder_ = std::make_shared<Holder>(document_->plan()), holder_of_ = generation;
    job_.start(generation,
               [holder = holder_, readings = readings_, complaints = complaints_](const Task& task) {
                   const std::scoped_lock lock(holder->one);
                   FindAnswer a;
                   LocateAsk ask;
                   ask.readings = readings, ask.complaints = complaints, ask.stop = task.cancel();
                   a.now = holder->locator.locate(ask);
                   NextAsk next;
                   next.readings = readings, next.complaints = complaints, next.stop = task.cancel();
                   if (!readings.empty()) next.last = readings.back().where;
                   if (!task.cancelled()) a.next = next_reading(holder->locator, holder->plan, a.now, next);
                   if (!complaints.empty())
                       a.stairs = staircase(holder->plan, holder->locator.expecter(), complaints.front().load,
                                            complaints.front().state);
                   return a;
               });
    entry_->ask(ReadKind::volts, {}, say("Weighing every fault…"));
    emit changed();
}

void FindView::complain(const Complaint& c) {
    if (c.load.empty() || c.state.empty()) return;
    std::erase_if(complaints_, [&](const Complaint& o) { return o.load == c.load && o.state == c.state; });
    complaints_.push_back(c);
    start();
}

void FindView::begin_anew() {
    complaints_.clear(), readings_.clear(), asked_.reset();
    job_.forget();
    stairs_->show({}, {}, {});
    entry_->ask(ReadKind::volts, {}, say("Which load, what is seen, in which state? Then note it."));
    emit changed();
}

void FindView::show_answer() {
    if (!answer()) return;
    const std::optional<Probing> at = asked_           ? asked_
                                      : answer()->next ? std::optional(answer()->next->where)
                                                       : std::nullopt;
    stairs_->show(answer()->stairs, readings_, at);
    if (asked_) {
        entry_->ask(asked_->kind, q(words::sentence(document_->plan(), *asked_)),
                    say("The place that you clicked."));
    } else if (answer()->next) {
        entry_->ask(
            answer()->next->where.kind, q(words::sentence(document_->plan(), answer()->next->where)),
            say("Next reading, %1 min, tells most. ").arg(q(words::number(answer()->next->minutes, 2))) +
                q(words::outcomes(document_->plan(), *answer()->next, document_->style())));
    } else {
        entry_->ask(ReadKind::volts, {}, say("No further reading would change what is to be done."));
    }
    emit changed();
}

void FindView::ask_at(const Probing& where) {
    asked_ = where;
    show_answer();
    entry_->field()->setFocus();
}

void FindView::take(double value) {
    const auto at = asked_                       ? asked_
                    : answer() && answer()->next ? std::optional(answer()->next->where)
                                                 : std::nullopt;
    if (!at) return;
    std::erase_if(readings_, [&](const Reading& r) { return r.where == *at; });
    readings_.push_back({*at, value});
    asked_.reset();
    start();
}

void FindView::take_back() {
    if (readings_.empty()) return;
    readings_.pop_back();
    start();
}

}  // namespace yr::app

#include "moc_find_view.cpp"
