#include "workspaces/meter/practise_view.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <set>

#include "text/say.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {

PractiseView::PractiseView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    const auto combo = [](const QString& name) {
        auto* c = new QComboBox;
        c->setAccessibleName(name);
        c->setMinimumHeight(30);
        c->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        c->setMinimumContentsLength(8);
        return c;
    };
    const auto button = [](const QString& text) {
        auto* b = new QToolButton;
        b->setText(text);
        b->setMinimumHeight(30);
        return b;
    };
    level_ = combo(say("Level"));
    for (std::size_t k = 0; k < kPracticeLevels; ++k)
        level_->addItem(q(words::capital(words::name_of(static_cast<PracticeLevel>(k)))),
                        static_cast<int>(k));
    seed_ = new QSpinBox;
    seed_->setRange(1, 1000000);
    seed_->setAccessibleName(say("Which fault"));
    seed_->setMinimumHeight(30);
    auto* hide = button(say("Hide a fault"));
    auto* give = button(say("Give up"));
    auto* first = new QHBoxLayout;
    first->addWidget(level_, 1);
    first->addWidget(seed_);
    first->addWidget(hide);
    first->addWidget(give);
    told_ = new QLabel(say(
        "A fault is hidden in a copy of this plan; you hear what its driver complains of, and find it with "
        "the meter. Each reading costs minutes, a wrong repair counts double."));
    told_->setWordWrap(true);
    told_->setFont(type_font(Type::title));
    red_ = combo(say("Red probe")), black_ = combo(say("Black probe")), state_ = combo(say("State"));
    auto* read = button(say("Read"));
    auto* second = new QHBoxLayout;
    second->addWidget(new QLabel(say("Red on")));
    second->addWidget(red_, 2);
    second->addWidget(new QLabel(say("black on")));
    second->addWidget(black_, 2);
    second->addWidget(state_, 1);
    second->addWidget(read);
    thing_ = combo(say("What is mended"));
    auto* mend = button(say("Mend it"));
    auto* third = new QHBoxLayout;
    third->addWidget(new QLabel(say("It is")));
    third->addWidget(thing_, 1);
    third->addWidget(mend);
    log_ = new QTreeWidget;
    log_->setObjectName(QStringLiteral("table"));
    log_->setHeaderLabels({say("what"), say("shown"), say("minutes")});
    log_->setRootIsDecorated(false);
    log_->setAccessibleName(say("What was read"));
    log_->header()->setFont(type_font(Type::small));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(16, 4, 16, 10);
    column->setSpacing(8);
    column->addLayout(first);
    column->addWidget(told_);
    column->addLayout(second);
    column->addLayout(third);
    column->addWidget(log_, 1);
    connect(hide, &QToolButton::clicked, this, [this] {
        begin(static_cast<std::uint32_t>(seed_->value()),
              static_cast<PracticeLevel>(level_->currentData().toInt()));
        seed_->setValue(seed_->value() + 1);
    });
    connect(give, &QToolButton::clicked, this, &PractiseView::give_up);
    connect(read, &QToolButton::clicked, this, [this] {
        const Terminal red(red_->currentData().toString().toStdString()),
            black(black_->currentData().toString().toStdString());
        this->read({ReadKind::volts, red, black, {}, state_->currentData().toString().toStdString(), {}});
    });
    connect(mend, &QToolButton::clicked, this,
            [this] { this->mend(thing_->currentData().toString().toStdString()); });
    connect(&job_, &JobBase::done, this, [this] { emit changed(); });
    fill_choices();
}

void PractiseView::fill_choices() {
    const Plan& plan = document_->plan();
    std::set<Terminal> terminals;
    for (const Run& r : plan.runs) terminals.insert(r.from), terminals.insert(r.to);
    for (QComboBox* c : {red_, black_}) {
        const QVariant was = c->currentData();
        c->clear();
        for (const Terminal& t : terminals)
            c->addItem(q(words::capital(words::terminal(plan, t))), q(t.text()));
        c->model()->sort(0);
        if (const int k = c->findData(was); k >= 0) c->setCurrentIndex(k);
    }
    if (!plan.batteries.empty())
        black_->setCurrentIndex(std::max(0, black_->findData(q(neg_of(plan.batteries.front().id).text()))));
    state_->clear();
    for (const State& s : plan.states) state_->addItem(q(s.name), q(s.id));
    thing_->clear();
    std::set<Id> things;
    for (const Fault& f : faults_of(plan))
        if (!f.thing.empty() && things.insert(f.thing).second)
            thing_->addItem(q(words::capital(yr::name_of(plan, f.thing))), q(f.thing));
    thing_->model()->sort(0);
}

void PractiseView::refresh() {
    if (over_) fill_choices();
}

void PractiseView::finish() {
    if (job_.running()) job_.finish();
}

void PractiseView::begin(std::uint32_t seed, PracticeLevel level) {
    fill_choices();
    plan_ = std::make_shared<Plan>(document_->plan());
    hidden_ = std::make_unique<HiddenFault>(*plan_, seed, level);
    number_ = seed, of_level_ = level;
    score_ = {}, last_.reset(), over_ = !hidden_->there();
    log_->clear();
    job_.forget();
    if (over_) {
        told_->setText(say("This plan has no fault of that level that anybody would notice."));
    } else {
        QStringList said;
        for (const Complaint& c : hidden_->complaints()) said << q(words::sentence(*plan_, c));
        told_->setText(said.join(QLatin1Char(' ')));
        if (const int k = state_->findData(q(hidden_->complaints().front().state)); k >= 0)
            state_->setCurrentIndex(k);
    }
    emit changed();
}

void PractiseView::read(const Probing& where) {
    if (over_ || !hidden_) return;
    const auto value = hidden_->read(where);
    double minutes = reading_minutes(where.kind == ReadKind::amps ? "amps" : "volts");
    if (last_ && place_of(*plan_, *last_) != place_of(*plan_, where))
        minutes += reading_minutes("other_place");
    if (last_ && last_->state != where.state) minutes += reading_minutes("other_state");
    last_ = where;
    ++score_.readings, score_.minutes += minutes;
    auto* item = new QTreeWidgetItem(log_);
    item->setText(0, q(words::sentence(*plan_, where)));
    item->setText(1, value ? q(words::value_text(where.kind, *value, document_->style())) : say("nothing"));
    item->setText(2, q(words::number(minutes, 2)));
    log_->header()->resizeSection(0, 460);
    emit changed();
}

void PractiseView::mend(const Id& thing) {
    if (over_ || !hidden_) return;
    if (hidden_->is_it(thing))
        return end(say("That was it: %1.").arg(q(words::sentence(*plan_, hidden_->fault()))));
    ++score_.wrong_repairs;
    auto* item = new QTreeWidgetItem(log_);
    item->setText(0, say("%1 mended: it was not that").arg(q(yr::name_of(*plan_, thing))));
    emit changed();
}

void PractiseView::give_up() {
    if (!over_ && hidden_) end(say("It was: %1.").arg(q(words::sentence(*plan_, hidden_->fault()))));
}

void PractiseView::end(const QString& text) {
    over_ = true;
    told_->setText(
        text + QLatin1Char(' ') + say_n("%n reading, ", "%n readings, ", static_cast<long>(score_.readings)) +
        say("%1 min, %2 wrong repairs.").arg(q(words::number(score_.minutes, 3))).arg(score_.wrong_repairs));
    job_.start(document_->store().generation(),
               [plan = plan_, seed = number_, level = of_level_](const Task& task) {
                   HiddenFault again(*plan, seed, level);
                   return best_path(*plan, again, 12, task.cancel());
               });
    emit changed();
}

}  // namespace yr::app

#include "moc_practise_view.cpp"
