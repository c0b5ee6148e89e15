#include "workspaces/day/day_page.h"

#include <QHBoxLayout>
#include <QScrollArea>
#include <QSplitter>

#include "plan/roles.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kSide_px = 292;
constexpr int kMostDays = 14;  // in a row, for "does it return"

// Out of the states that are there: night, a drive, work, a drive, night.
Day day_of_states(const Plan& plan) {
    Day d;
    d.id = new_id(plan, "day");
    d.name = "a day";
    for (int n = 2;
         std::any_of(plan.days.begin(), plan.days.end(), [&](const Day& x) { return x.name == d.name; }); ++n)
        d.name = "a day " + std::to_string(n);
    const State* parked = state_of_role(plan, StateRole::parked);
    const State* drive = state_of_role(plan, StateRole::driving);
    const State* work = state_of_role(plan, StateRole::working);
    if (!work) work = state_of_role(plan, StateRole::idling);
    if (!parked) parked = &plan.states.front();
    const auto add = [&](const State* s, double hours) {
        if (s) d.parts.push_back({s->id, hours * 3600, 1, false, {}, {}});
    };
    add(parked, 7), add(drive, 1), add(work, 2), add(parked, 5), add(drive, 1);
    double rest = 24;
    for (const DayPart& p : d.parts) rest -= p.length_s / 3600;
    add(parked, rest);
    d.coldest_C = 5, d.hottest_C = 18;
    return d;
}

// "6 h 30 min", "90 min", "2 days"; below 0: no time.
double read_length(const QString& typed) {
    const QStringList words =
        QString(typed).replace(QChar(0x2009), QLatin1Char(' ')).simplified().split(QLatin1Char(' '));
    double sum = 0;
    for (qsizetype k = 0; k + 1 < words.size(); k += 2) {
        const bool days = words[k + 1].startsWith(QLatin1String("day"));
        const auto v = parse_value(
            (words[k] + (days ? QStringLiteral(" h") : QLatin1Char(' ') + words[k + 1])).toStdString(),
            Dimension::time);
        if (!v) return -1;
        sum += days ? *v * 24 : *v;
    }
    if (words.size() % 2 == 0) return sum;
    const auto alone = words.size() == 1 ? parse_value(words[0].toStdString(), Dimension::time)
                                         : Result<double>(fail(ErrorCode::empty, {}, {}));
    return alone ? *alone : -1;
}

QToolButton* word(const QString& text, const char* name) {
    auto* b = new QToolButton;
    b->setText(text);
    b->setObjectName(QString::fromLatin1(name));
    b->setMinimumHeight(30);
    return b;
}

}  // namespace

DayPage::DayPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("day"), say("Day"), parent) {
    chart_ = new DayChart(document_);
    auto* left = new QWidget;
    auto* column = new QVBoxLayout(left);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(make_head());
    column->addWidget(chart_, 1);
    readout_ = new QLabel;
    readout_->setObjectName(QStringLiteral("soft"));
    readout_->setFont(type_font(Type::small));
    readout_->setContentsMargins(16, 0, 16, 4);
    readout_->setWordWrap(true);
    readout_->setMinimumHeight(34);  // its two rows stay, so that the lanes keep their place
    column->addWidget(readout_);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(left, 1);
    row->addWidget(make_side());
    connect(&document_->store(), &PlanStore::edited, this, [this] {
        if (isVisible()) refresh();
    });
    connect(chart_, &DayChart::part_chosen, this, &DayPage::fill_form);
    connect(chart_, &DayChart::moment_asked, this, &DayPage::to_rail);
    connect(chart_, &DayChart::cursor_moved, this, &DayPage::fill_side);
    connect(&drawing_, &JobBase::done, this, [this] {
        if (drawing_.current(document_->store().generation()) && drawing_.answer()->day == day_)
            chart_->show_result(drawing_.answer());
    });
    connect(&running_, &JobBase::done, this, &DayPage::take_run);
    connect(&other_, &JobBase::done, this, [this] {
        const bool fits = !option_.empty() && other_.current(document_->store().generation());
        chart_->show_other(fits ? other_.answer() : nullptr, options_->currentText());
        fill_side();
    });
    connect(&seeking_, &JobBase::done, this, &DayPage::take_remedies);
    connect(&year_, &JobBase::done, this, &DayPage::fill_side);
    connect(&year_, &JobBase::progressed, this, [this] { fill_side(); });
}

QWidget* DayPage::make_head() {
    auto* head = new QWidget;
    auto* row = new QHBoxLayout(head);
    row->setContentsMargins(16, 8, 12, 4);
    row->setSpacing(6);
    days_ = new QComboBox;
    days_->setAccessibleName(say("Which day"));
    days_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    days_->setMinimumContentsLength(7);
    days_->setMinimumWidth(96);
    days_->setMaximumWidth(230);
    days_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(days_, &QComboBox::activated, this, [this](int at) {
        day_ = days_->itemData(at).toString().toStdString();
        refresh();
    });
    auto* fresh = word(say("New day"), "mend");
    fresh->setToolTip(say("A day laid out of the states that are there"));
    connect(fresh, &QToolButton::clicked, this, &DayPage::new_day);
    more_ = word(say("Add a part ▾"), "state");
    more_->setPopupMode(QToolButton::InstantPopup);
    more_->setMenu(new QMenu(more_));
    connect(more_->menu(), &QMenu::aboutToShow, this, &DayPage::fill_parts_menu);
    row->addWidget(days_, 1);
    row->addWidget(fresh);
    row->addWidget(more_);
    shelf_ = new StateShelf(document_);
    connect(shelf_, &StateShelf::asked, this, &DayPage::add_part);
    row->addWidget(shelf_, 2);
    return head;
}

QWidget* DayPage::make_side() {
    QVBoxLayout* column = nullptr;
    QScrollArea* side = side_panel(kSide_px, column);
    lines_ = new QVBoxLayout;
    lines_->setSpacing(6);
    form_place_ = new QVBoxLayout;
    last_ = word(say("What would make it last"), "mend");
    last_->setToolTip(say("Each remedy alone, to the smallest that does it"));
    connect(last_, &QToolButton::clicked, this, &DayPage::look_for_remedies);
    column->addLayout(lines_);
    whole_year_ = word(say("A year of such days"), "mend");
    whole_year_->setToolTip(
        say("Twelve months, a dark week in each; by the latitude, or the months of the plan file"));
    connect(whole_year_, &QToolButton::clicked, this, &DayPage::look_at_year);
    options_ = new QComboBox;
    options_->setAccessibleName(say("Another option over it"));
    options_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    options_->setMinimumContentsLength(8);
    options_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(options_, &QComboBox::activated, this,
            [this](int at) { compare_with(options_->itemData(at).toString().toStdString()); });
    log_ = word(say("Log…"), "mend");
    log_->setToolTip(
        say("A table of time, volts and amps from a logger or battery monitor, laid under the lanes"));
    connect(log_, &QToolButton::clicked, this, &DayPage::choose_log);
    column->addWidget(options_);
    column->addWidget(log_, 0, Qt::AlignLeft);
    column->addWidget(last_, 0, Qt::AlignLeft);
    column->addWidget(whole_year_, 0, Qt::AlignLeft);
    column->addLayout(form_place_);
    column->addStretch();
    return side;
}

bool DayPage::open_view(const QString& key) {
    if (key.isEmpty()) return true;
    const Id id = key.section(QLatin1Char('@'), 0, 0).toStdString();
    const Day* day = yr::find(document_->plan().days, id);
    if (!day) return false;
    day_ = id;
    refresh();
    const QString at = key.section(QLatin1Char('@'), 1, 1);
    if (!at.isEmpty()) chart_->set_cursor(std::fmod(at.toDouble(), std::max(1.0, length_s(*day))));
    return true;
}

void DayPage::entered() {
    chart_->setFocus();
}

void DayPage::plan_opened() {
    day_.clear();
    running_.forget();
    other_.forget();
    option_.clear();
    chart_->show_result(nullptr);
    chart_->show_other(nullptr, {});
    chart_->show_log({});
    if (isVisible()) refresh();
}

void DayPage::showEvent(QShowEvent* event) {
    Workspace::showEvent(event);
    refresh();
}

void DayPage::finish() {
    refresh();
    if (drawing_.running()) drawing_.finish();
    if (running_.running()) running_.finish();
    if (seeking_.running()) seeking_.finish();
    if (year_.running()) year_.finish();
    if (other_.running()) other_.finish();
}

void DayPage::refresh() {
    const Plan& plan = document_->plan();
    if (!yr::find(plan.days, day_)) day_ = plan.days.empty() ? Id() : plan.days.front().id;
    std::vector<Choice> days;
    for (const Day& d : plan.days) days.push_back({q(words::capital(d.name)), d.id});
    offer(days_, days);
    days_->setVisible(!plan.days.empty());
    more_->setVisible(!plan.days.empty());
    shelf_->setVisible(!plan.days.empty());
    shelf_->refresh();
    last_->setVisible(!plan.days.empty());
    whole_year_->setVisible(!plan.days.empty());
    days_->setCurrentIndex(days_->findData(q(day_)));
    log_->setVisible(!plan.days.empty());
    fill_options();
    chart_->set_day(day_);
    fill_form();
    if (day_.empty()) {
        fill_side();
        return;
    }
    if (!running_.current(document_->store().generation()) || running_.answer()->day != day_) run();
}

namespace {

DayResult lanes_of(const Plan& plan, const Id& id, const Task& task, bool quick) {
    DayResult result;
    result.day = id;
    const Day& day = *yr::find(plan.days, id);
    DayOptions options;
    options.stop = task.cancel();
    result.run = run_day(plan, day, options);
    result.verdicts = verdicts(plan, day, result.run, quick);
    return result;
}

}  // namespace

// First the lanes, exact; then what the day comes to, and the days after it.
void DayPage::run() {
    searched_ = false;
    remedies_.clear();
    const auto generation = document_->store().generation();
    drawing_.start(generation, [plan = document_->plan(), id = day_](const Task& task) {
        return lanes_of(plan, id, task, true);
    });
    running_.start(generation, [plan = document_->plan(), id = day_](const Task& task) {
        DayResult result = lanes_of(plan, id, task, false);
        if (result.verdicts.standing_A > 0)
            result.stop = stop_at(plan, result.verdicts.standing_A, result.verdicts.standing_C);
        result.after = day_after_day(plan, *yr::find(plan.days, id), kMostDays, task.cancel());
        return result;
    });
}

void DayPage::take_run() {
    chart_->show_result(running_.answer());
    fill_side();
}

QLabel* DayPage::line(const QString& text, const char* name) {
    auto* l = new QLabel(text);
    l->setWordWrap(true);
    l->setObjectName(QString::fromLatin1(name));
    l->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    lines_->addWidget(l);
    return l;
}

void DayPage::fill_side() {
    clear_lines(lines_);
    sentences_.clear();
    const Plan& plan = document_->plan();
    const Day* day = yr::find(plan.days, day_);
    const DayResult* r = running_.answer();
    QString under;
    if (day && chart_->cursor_s() >= 0 && r && r->day == day_) {
        const DayPoint* at = nullptr;
        for (const DayPoint& p : r->run.points)
            if (p.t_s <= chart_->cursor_s()) at = &p;
        if (at) {
            QStringList parts{q(plan.states[at->state].name)};
            for (std::size_t k = 0; k < plan.batteries.size(); ++k)
                parts << say("%1 %2, %3")
                             .arg(q(plan.batteries[k].name),
                                  q(words::quantity(at->charge[k], Dimension::fraction, document_->style())),
                                  q(words::quantity(at->battery_V[k], Dimension::voltage,
                                                    document_->style())));
            under = parts.join(QStringLiteral("  ·  ")) + say("  ·  Enter: this moment on the rail");
        }
    }
    readout_->setText(under.isEmpty() && day ? say("Drag the edges of the strip. A click sets the cursor.")
                                             : under);
    if (!day) {
        line(say("No day yet."), "soft");
        return;
    }
    auto* title = line(say("Does it last?"), "");
    title->setFont(type_font(Type::title));
    if (!r || r->day != day_) {
        line(say("Running through the day …"), "soft");
        return;
    }
    for (const auto& s : words::day_sentences(plan, *day, r->run, r->verdicts,
                                              r->after ? &*r->after : nullptr, document_->style())) {
        sentences_ << q(s.text);
        const auto severity = static_cast<Severity>(s.severity);
        const QString text =
            QString::fromUtf8(words::mark(severity)) + QStringLiteral(" ") + q(s.text).toHtmlEscaped();
        auto* l = line(text, severity == Severity::stop    ? "stop"
                             : severity == Severity::fix   ? "fix"
                             : severity == Severity::check ? ""
                                                           : "soft");
        if (s.t_s < 0) continue;
        l->setText(text + QStringLiteral(" <a href='go' style='color:%1; text-decoration:none'>%2</a>")
                              .arg(tokens().supply[0].name(), say("show")));
        connect(l, &QLabel::linkActivated, this, [this, t = s.t_s] {
            chart_->set_cursor(std::fmod(t, chart_->day() ? length_s(*chart_->day()) : 86400));
        });
    }
    if (r->stop) {
        auto* head = line(say("Stop at how many volts?"), "");
        head->setFont(type_font(Type::bold));
        sentences_ << q(words::sentence(*r->stop, plan, document_->style()));
        line(sentences_.back(), "");
        auto* label = line(act_text(say("Write it on the battery's label")), "");
        label->setToolTip(say("As the caution of this battery; undo takes it back"));
        connect(label, &QLabel::linkActivated, this, &DayPage::label_volts);
    }
    tell_other(*r);
    tell_log(*r);
    if (year_of_ == day_ && (year_.running() || year_.current(document_->store().generation()))) {
        auto* head = line(say("A year of such days"), "");
        head->setFont(type_font(Type::bold));
        if (year_.running())
            line(say("Running through the months …"), "soft");
        else
            for (const auto& s : words::year_sentences(plan, *year_.answer(), document_->style())) {
                sentences_ << q(s.text);
                line(QString::fromUtf8(words::mark(static_cast<Severity>(s.severity))) + QStringLiteral(" ") +
                         q(s.text).toHtmlEscaped(),
                     s.severity == 0   ? "stop"
                     : s.severity == 1 ? "fix"
                                       : "");
            }
    }
    if (!searched_) return;
    auto* last = line(say("What would make it last, each alone"), "");
    last->setFont(type_font(Type::bold));
    if (seeking_.running()) {
        line(say("Trying …"), "soft");
        return;
    }
    if (remedies_.empty()) line(say("It lasts as it is."), "good");
    for (std::size_t k = 0; k < remedies_.size(); ++k) {
        const QString text = q(words::capital(words::sentence(remedies_[k], plan, document_->style())));
        sentences_ << text;
        if (!remedies_[k].edit) {
            line(QStringLiteral("– ") + text, "soft");
            continue;
        }
        // a line that wraps, not a button: its words are as long as they are
        auto* l = line(act_text(text), "");
        l->setToolTip(say("Makes this change; undo takes it back"));
        connect(l, &QLabel::linkActivated, this, [this, k] { apply_remedy(k); });
    }
}

void DayPage::look_for_remedies() {
    if (day_.empty()) return;
    searched_ = true;
    seeking_.start(document_->store().generation(), [plan = document_->plan(), id = day_](const Task& task) {
        return Found{id, what_would_make_it_last(plan, id, task.cancel())};
    });
    fill_side();
}

void DayPage::look_at_year() {
    if (day_.empty()) return;
    year_of_ = day_;
    year_.start(document_->store().generation(), [plan = document_->plan(), id = day_](const Task& task) {
        return year_of(plan, *yr::find(plan.days, id), task.cancel(),
                       [&task](double share) { task.progress(share); });
    });
    fill_side();
}

void DayPage::take_remedies() {
    if (seeking_.answer() && seeking_.answer()->day == day_ &&
        seeking_.current(document_->store().generation()))
        remedies_ = seeking_.answer()->remedies;
    fill_side();
}

void DayPage::apply_remedy(std::size_t index) {
    if (index >= remedies_.size() || !remedies_[index].edit) return;
    const DayRemedy r = remedies_[index];
    document_->apply(*r.edit, q(words::sentence(r, document_->plan())));
}

// ---- the day itself

void DayPage::new_day() {
    const Day d = day_of_states(document_->plan());
    if (!document_->apply(Put<Day>{d, {}}, say("new day"))) return;
    day_ = d.id;
    refresh();
}

void DayPage::add_part(const Id& state) {
    const Day* day = yr::find(document_->plan().days, day_);
    if (!day) return;
    Day changed = *day;
    const std::size_t at =
        changed.parts.empty() ? 0 : std::min(chart_->chosen_part() + 1, changed.parts.size());
    changed.parts.insert(changed.parts.begin() + static_cast<std::ptrdiff_t>(at),
                         {state, 3600, 1, false, {}, {}});
    if (document_->apply(Put<Day>{changed, {}}, say("one part more"))) chart_->choose_part(at);
}

void DayPage::fill_parts_menu() {
    more_->menu()->clear();
    for (const State& s : document_->plan().states)
        more_->menu()->addAction(q(s.name), this, [this, id = s.id] { add_part(id); });
}

void DayPage::change_part(const QString& what, const std::function<void(Day&, DayPart&)>& change) {
    const Day* day = yr::find(document_->plan().days, day_);
    if (!day || chart_->chosen_part() >= day->parts.size()) return;
    Day changed = *day;
    change(changed, changed.parts[chart_->chosen_part()]);
    if (!(changed == *day))
        document_->apply(Put<Day>{changed, {}}, q(day->name) + QStringLiteral(": ") + what);
}

// The day's own fields and those of the chosen part; made anew where it is another part.
void DayPage::fill_form() {
    const Day* day = yr::find(document_->plan().days, day_);
    const QString shape = day ? QStringLiteral("%1 %2 %3 %4")
                                    .arg(q(day_))
                                    .arg(chart_->chosen_part())
                                    .arg(day->parts.size())
                                    .arg(document_->plan().states.size())
                              : QString();
    if (form_ && shape == shape_) return form_->refresh();
    shape_ = shape;
    if (form_) form_->deleteLater();
    form_ = nullptr;
    if (!day) return;
    form_ = new FieldForm([this] { return document_->style(); });
    const auto part = [this]() -> const DayPart* {
        const Day* d = yr::find(document_->plan().days, day_);
        return d && chart_->chosen_part() < d->parts.size() ? &d->parts[chart_->chosen_part()] : nullptr;
    };
    if (part()) {
        form_->heading(say("Chosen part"));
        std::vector<Choice> states;
        for (const State& s : document_->plan().states) states.push_back({q(s.name), s.id});
        form_->choice(
            say("State"), states, [part] { return part() ? part()->state : Id(); },
            [this](const Id& id) { change_part(say("state"), [&](Day&, DayPart& p) { p.state = id; }); });
        form_->text(
            say("Lasts"),
            [part] { return part() ? q(words::duration_h(part()->length_s / 3600)) : QString(); },
            [this](const QString& typed) {
                const double seconds = read_length(typed);
                if (!(seconds >= 60 && seconds <= 31622400))
                    return say(
                        "A time from a minute to a year is needed, such as 2 h, 20 min or 6 h 30 min.");
                change_part(say("length"), [&](Day&, DayPart& p) { p.length_s = seconds; });
                return QString();
            },
            say("2 h, 20 min"));
        form_->quantity(
            say("Times"), Dimension::number,
            [part] { return part() ? std::optional<double>(part()->times) : std::nullopt; },
            [this](std::optional<double> v) {
                if (v)
                    change_part(say("times"),
                                [&](Day&, DayPart& p) { p.times = static_cast<int>(std::lround(*v)); });
                return v.has_value();
            },
            false, say("1"), 1, 1000);
        form_->check(
            say("interrupts the part before"), [part] { return part() && part()->within; },
            [this](bool on) { change_part(say("within"), [&](Day&, DayPart& p) { p.within = on; }); });
        form_->button(say("Take this part out"), [this] {
            change_part(say("one part less"), [this](Day& d, DayPart&) {
                d.parts.erase(d.parts.begin() + static_cast<std::ptrdiff_t>(chart_->chosen_part()));
            });
        });
    }
    form_->heading(say("The day"));
    const auto get = [this]() -> const Day* { return yr::find(document_->plan().days, day_); };
    const auto set = [this](const QString& what, const std::function<void(Day&)>& change) {
        const Day* d = yr::find(document_->plan().days, day_);
        if (!d) return false;
        Day changed = *d;
        change(changed);
        return changed == *d ||
               document_->apply(Put<Day>{changed, {}}, q(d->name) + QStringLiteral(": ") + what);
    };
    form_->text(
        say("Name"), [get] { return get() ? q(get()->name) : QString(); },
        [set](const QString& typed) {
            if (typed.trimmed().isEmpty()) return say("A name is needed.");
            set(say("name"), [&](Day& d) { d.name = typed.trimmed().toStdString(); });
            return QString();
        });
    const auto field = [&](const QString& label, Dimension dimension, std::optional<double> Day::*member,
                           const QString& open, double low, double high) {
        form_->quantity(
            label, dimension, [get, member] { return get() ? get()->*member : std::nullopt; },
            [set, member, label](std::optional<double> v) {
                return set(label, [&](Day& d) { d.*member = v; });
            },
            true, open, low, high);
    };
    field(say("Coldest hour"), Dimension::temperature, &Day::coldest_C, say("as the states say"), -70, 60);
    field(say("Hottest hour"), Dimension::temperature, &Day::hottest_C, say("as the states say"), -70, 70);
    field(say("Hours of full sun"), Dimension::number, &Day::sun_h, say("as the states say"), 0, 24);
    field(say("Latitude, degrees"), Dimension::number, &Day::latitude_deg, say("not said"), -90, 90);
    field(say("Day of the year"), Dimension::number, &Day::date, say("not said"), 1, 366);
    field(say("Taken by cloud"), Dimension::fraction, &Day::cloud, say("none"), 0, 1);
    form_->button(say("Take this day out"), [this] {
        const Day* d = yr::find(document_->plan().days, day_);
        if (d) document_->apply(Remove<Day>{d->id}, say("take out %1").arg(q(d->name)));
    });
    form_place_->addWidget(form_);
}

// That moment as a circuit: its state, charge, sag and devices.
void DayPage::to_rail(double t_s) {
    const Plan& plan = document_->plan();
    const Day* day = yr::find(plan.days, day_);
    if (!day) return;
    const DayMoment m = moment_at(plan, *day, t_s);
    document_->shown().show_moment(m.state, network_at(plan, m.state, m.cells, m.closed, m.opened));
    emit said(say("%1 of %2 on the rail: charge, sag and relays as they stand then. “as found ✕” leaves it.")
                  .arg(q(clock_text(*day, t_s)), q(day->name)));
    emit go_to(QStringLiteral("rail"), {});
}

std::vector<WorkspacePicture> DayPage::pictures() {
    return {{QStringLiteral("day.png"), [this] {
                 emit go_to(key(), {});
                 finish();
                 chart_->set_cursor(18.2 * 3600);
                 look_for_remedies();
                 finish();
             }}};
}

}  // namespace yr::app

#include "moc_day_page.cpp"
