#include "panels/type_line.h"

#include <QKeyEvent>
#include <QRegularExpression>
#include <QVBoxLayout>
#include <algorithm>

#include "document/own_library.h"
#include "notes/sets.h"
#include "widgets/tokens.h"
#include "words/control_words.h"
#include "words/sentences.h"
#include "words/statement_words.h"

namespace yr::app {

namespace {
// Less than an eye notices; keys that came while a line was being read are read together.
constexpr int kKeysRest_ms = 30;
}  // namespace

QString understood_text(const TypedLine& line, const Plan& plan, const words::Style& style) {
    QStringList parts;
    const auto quantity = [&](double v, Dimension d) { return q(words::quantity(v, d, style)); };
    if (!line.name.empty()) parts << q(line.name);
    const QString times = line.count > 1 ? QStringLiteral("%1 × ").arg(line.count) : QString();
    if (line.draw) {
        const Dimension d = line.draw->kind == DrawKind::power     ? Dimension::power
                            : line.draw->kind == DrawKind::current ? Dimension::current
                                                                   : Dimension::resistance;
        parts << times + quantity(line.draw->value, d);
    } else if (!times.isEmpty()) {
        parts << say("%1 pieces").arg(line.count);
    }
    if (line.details.plate_V) parts << say("at ") + quantity(*line.details.plate_V, Dimension::voltage);
    if (line.details.on_s) parts << say("for ") + quantity(*line.details.on_s, Dimension::time);
    if (line.details.duty) parts << quantity(*line.details.duty, Dimension::fraction) + say(" of the time");
    if (line.inrush_A) {
        QString start = quantity(*line.inrush_A, Dimension::current) + say(" at start");
        if (line.details.inrush_s) start += say(" for ") + quantity(*line.details.inrush_s, Dimension::time);
        parts << start;
    }
    if (line.live_when) parts << q(words::condition(*line.live_when, &plan));
    if (line.length_m) parts << quantity(*line.length_m, Dimension::length);
    if (line.size) parts << q(words::short_size(*line.size));
    if (yr::find(plan.places, line.place))
        parts << q(yr::name_of(plan, line.place));  // a new one is told as such
    if (!line.feed.empty()) parts << say("from ") + q(yr::name_of(plan, line.feed));
    if (line.channel > 0) parts << say("channel %1").arg(line.channel);
    if (!line.inverter.empty()) parts << say("mains from ") + q(yr::name_of(plan, line.inverter));
    if (line.start_W) parts << quantity(*line.start_W, Dimension::power) + say(" at start");
    if (line.fuse_A)
        parts << (line.breaker ? say("breaker ") : say("fuse ")) + quantity(*line.fuse_A, Dimension::current);
    if (line.critical) parts << say("critical");
    if (line.drop_limit) parts << quantity(*line.drop_limit, Dimension::fraction) + say(" drop");
    if (line.chassis) parts << (*line.chassis ? say("chassis return") : say("home-run"));
    if (line.details.own_ground) parts << say("own ground");
    if (!line.details.together.empty()) parts << say("together ") + q(line.details.together);
    if (!line.details.apart.empty()) parts << say("apart ") + q(line.details.apart);
    if (!line.entry.empty()) parts << say("typical, check the plate");
    return parts.join(QStringLiteral(" · "));
}

QString statement_text(const Statement& s, const Plan& plan, const words::Style& style) {
    QStringList parts;
    for (const std::string& part : words::understood(plan, s, style)) parts << q(part);
    if (s.load) {
        parts << understood_text(*s.load, plan, style);
        for (const std::string& part : words::laid_beside(plan, s)) parts << q(part);
        for (const std::string& part : words::comes_with(s)) parts << q(part);
    }
    return parts.join(QStringLiteral(" · "));
}

QStringList statement_problems(const Statement& s) {
    QStringList problems;
    if (s.doubt)
        problems << say("“%1”: is it <a href='%2'>%2</a> or <a href='%3'>%3</a>? Tab chooses")
                        .arg(q(s.doubt->text).toHtmlEscaped(), q(s.doubt->large).toHtmlEscaped(),
                             q(s.doubt->small).toHtmlEscaped());
    else if (s.load && !s.load->name.empty() && !s.load->draw)
        problems << say("its draw is missing: W, A or ohm");
    else if (s.load && s.load->name.empty() && s.load->draw)
        problems << say("its name is missing");
    else if (s.error && !(s.load && s.load->name.empty()))
        problems << q(words::sentence(*s.error)).toHtmlEscaped();
    if (!s.not_understood.empty()) {
        if (!problems.isEmpty() && problems.last().endsWith(QLatin1Char('.'))) problems.last().chop(1);
        QStringList words;
        for (const auto& w : s.not_understood) words << q(w).toHtmlEscaped();
        problems << (s.load ? say("not understood, kept as a note: ") : say("not understood: ")) +
                        words.join(QStringLiteral(" "));
    }
    return problems;
}

TypeLine::TypeLine(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    edit_ = new GrowingLine;
    edit_->setPlaceholderText(say("work light 2x 35 W on ignition, 4 m"));
    edit_->setToolTip(
        say("Type what is fitted: a load, battery AGM 95 Ah, alternator 150 A, inverter 1000 W, box, bus, "
            "strap, state … The menu Add shows a line for each kind. Up: earlier lines."));
    edit_->setAccessibleName(say("Add anything by typing"));
    edit_->setObjectName(QStringLiteral("type_line"));
    understood_ = new QLabel;
    understood_->setObjectName(QStringLiteral("good"));
    problem_ = new QLabel;
    problem_->setObjectName(QStringLiteral("fix"));
    for (QLabel* l : {understood_, problem_}) {
        l->setFont(type_font(Type::small));
        l->setWordWrap(true);
        l->hide();
    }
    next_ = new QLabel;
    next_->setObjectName(QStringLiteral("soft"));
    next_->setFont(type_font(Type::small));
    next_->setWordWrap(true);
    next_->setTextFormat(Qt::RichText);
    next_->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    next_->setAccessibleName(say("What would help most now"));
    next_->hide();
    matches_ = new QListWidget;
    matches_->setObjectName(QStringLiteral("matches"));
    matches_->setAccessibleName(say("From the library"));
    matches_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    matches_->setFont(type_font(Type::small));
    matches_->hide();
    edit_->installEventFilter(this);
    matches_->installEventFilter(this);
    connect(matches_, &QListWidget::itemClicked, this,
            [this](QListWidgetItem* item) { take_entry(item->data(Qt::UserRole).toString()); });
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 12, 12, 4);
    column->setSpacing(4);
    column->addWidget(edit_);
    column->addWidget(understood_);
    column->addWidget(problem_);
    column->addWidget(matches_);
    column->addWidget(next_);
    connect(next_, &QLabel::linkActivated, this, [this](const QString& link) {
        if (link == QLatin1String("away"))
            next_put_away_ = true, show_next();
        else
            take_next();
    });
    connect(&document_->inspector(), &Inspector::inspected, this, &TypeLine::show_next);
    constexpr int kRest_ms =
        3000;  // sizing the plan at both ends of each length takes a processor for seconds
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, &TypeLine::measure);
    connect(&measuring_, &JobBase::done, this, &TypeLine::show_next);
    connect(&document_->store(), &PlanStore::opened, this, [this] {
        next_put_away_ = false;
        next_->hide();  // until this plan is looked over
    });
    problem_->setTextFormat(Qt::RichText);
    problem_->setTextInteractionFlags(Qt::LinksAccessibleByMouse);
    connect(problem_, &QLabel::linkActivated, this, &TypeLine::settle_doubt);
    connect(edit_, &QPlainTextEdit::textChanged, this, [this] {
        reading_ = 0;
        if (edit_->text().trimmed().isEmpty())
            read();
        else
            keys_rest_.start();
    });
    keys_rest_.setSingleShot(true);
    keys_rest_.setInterval(kKeysRest_ms);
    connect(&keys_rest_, &QTimer::timeout, this, &TypeLine::read);
    connect(edit_, &GrowingLine::entered, this, &TypeLine::add);
    connect(edit_, &GrowingLine::page_pasted, this, &TypeLine::page_pasted);
}

void TypeLine::take_entry(const QString& name) {
    edit_->setText(name);
    edit_->setFocus();
}

void TypeLine::show_matches(const TypedLine& line) {
    matches_->clear();
    const bool wanted = !line.draw && line.name.size() >= 2;
    const auto offer = [this](const QString& text, const QString& typed, const QString& tip) {
        auto* item = new QListWidgetItem(text, matches_);
        item->setData(Qt::UserRole, typed);
        item->setToolTip(tip);
    };
    if (wanted)
        for (const LoadEntry* e : search(library(), line.name, 6)) {
            Load plain = e->load;
            const QString draw =
                q(typed_text(Plan{}, plain)).mid(q(plain.name).size()).section(QLatin1Char(','), 0, 0);
            offer(q(plain.name) + draw + (e->own ? say("  · my own") : QString()), q(plain.name),
                  q(typed_text(Plan{}, plain)) + say("\nTypical, check the plate."));
        }
    if (wanted)
        for (const SetEntry& set : library().sets)
            if (q(set.name).contains(q(line.name), Qt::CaseInsensitive)) {
                QStringList lines;
                for (const std::string& l : set.lines) lines << q(l);
                offer(q(set.name) + say(" · set"), q(typed_form(set)), lines.join(QLatin1Char('\n')));
            }
    matches_->setVisible(matches_->count() > 0);
    matches_->setFixedHeight(matches_->count() * 24 + 6);
}

// Behind from, to, in, at, on and the like: what the plan has whose name begins as it is typed.
void TypeLine::show_names() {
    static const QRegularExpression behind(
        QStringLiteral("\\b(from|to|in|at|behind|on|between|and|switch) +([^,\"]{1,40})$"));
    const QString text = edit_->text();
    const auto found = behind.match(text);
    if (!found.hasMatch()) return;
    const QString begun = found.captured(2);
    QStringList names;
    const auto offer = [&](const std::string& name) {
        const QString n = q(name);
        if (n.startsWith(begun, Qt::CaseInsensitive) && n.size() > begun.size() && !names.contains(n))
            names << n;
    };
    const QString lead = found.captured(1);
    const Plan& plan = document_->plan();
    if (lead == QLatin1String("on") || lead == QLatin1String("and") || lead == QLatin1String("switch"))
        for (const std::string& name : plan_switches(plan)) offer(name);
    else if (lead == QLatin1String("in") || lead == QLatin1String("at") || lead == QLatin1String("behind"))
        for (const Place& p : plan.places) offer(p.name);
    if (lead == QLatin1String("from") || lead == QLatin1String("to") || lead == QLatin1String("between") ||
        lead == QLatin1String("and") || lead == QLatin1String("on")) {
        for (const Point& p : plan.points) offer(p.name);
        for (const Battery& b : plan.batteries) offer(b.name);
    }
    for (const QString& name : names.mid(0, 6)) {
        auto* item = new QListWidgetItem(name, matches_);
        item->setData(Qt::UserRole, text.left(found.capturedStart(2)) + name);
    }
    matches_->setVisible(matches_->count() > 0);
    matches_->setFixedHeight(matches_->count() * 24 + 6);
}

// Down goes into the list, Enter takes what is chosen there, Escape and Up at its top come back.
bool TypeLine::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QWidget::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (watched == edit_ && key == Qt::Key_Down) as_read();
    if (watched == edit_ && key == Qt::Key_Tab && next_reading()) return true;
    if (watched == edit_ && key == Qt::Key_Escape && !edit_->text().isEmpty()) {
        edit_->clear();
        return true;
    }
    if (watched == edit_ &&
        ((key == Qt::Key_Up && edit_->on_first_row()) ||
         (key == Qt::Key_Down && recalled_ > 0 && edit_->on_last_row())) &&
        recall(key))
        return true;
    // behind Enter the line is empty: what is undone is what was added, not the typing of it
    if (watched == edit_ && edit_->text().isEmpty() &&
        static_cast<QKeyEvent*>(event)->matches(QKeySequence::Undo)) {
        document_->store().undo_stack()->undo();
        return true;
    }
    if (watched == edit_ && key == Qt::Key_Down && matches_->count() > 0 && edit_->on_last_row()) {
        matches_->setCurrentRow(0);
        matches_->setFocus();
        return true;
    }
    if (watched == matches_ && (key == Qt::Key_Return || key == Qt::Key_Enter) && matches_->currentItem()) {
        take_entry(matches_->currentItem()->data(Qt::UserRole).toString());
        return true;
    }
    if (watched == matches_ &&
        (key == Qt::Key_Escape || (key == Qt::Key_Up && matches_->currentRow() == 0))) {
        edit_->setFocus();
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

Statement TypeLine::statement(std::size_t* count) const {
    const std::string line = edit_->text().toStdString();
    auto all = readings(document_->plan(), line, &library());
    if (count) *count = all.size();
    const bool first_alone = all.size() == 1 && all.front().kind == kind_of_line(document_->plan(), line);
    if (all.size() < 2 && !first_alone) return read_statement(document_->plan(), line, &library());
    return std::move(all[reading_ % all.size()]);
}

void TypeLine::as_read() {
    if (keys_rest_.isActive()) read();
}

void TypeLine::read() {
    keys_rest_.stop();
    std::size_t count = 0;
    const Statement s = statement(&count);
    if (s.load)
        show_matches(*s.load);
    else
        matches_->clear(), matches_->hide();
    if (matches_->count() == 0) show_names();
    understood_->setText(statement_text(s, document_->plan(), document_->style()) +
                         (s.whole() ? QStringLiteral("   ⏎") : QString()) +
                         (count > 1 ? say("   Tab: another reading") : QString()));
    understood_->setVisible(!edit_->text().trimmed().isEmpty());
    const QStringList problems = statement_problems(s);
    problem_->setText(problems.join(QStringLiteral("<br>")));
    problem_->setVisible(!problems.isEmpty() && !edit_->text().trimmed().isEmpty());
}

std::optional<NextStep> TypeLine::next_step() const {
    int stops = 0;
    Id dead;
    for (const Finding& f : document_->inspector().findings()) {
        stops += f.severity == Severity::stop;
        if (f.kind == FindingKind::load_dead && dead.empty()) dead = f.id;
    }
    auto step = what_next(document_->plan(), stops, dead);
    if (!step || step->kind != NextKind::lengths_assumed ||
        !measuring_.current(document_->store().generation()))
        return step;
    // which of them a size hangs on is known: the first to be measured, or none
    const Doubts& doubts = *measuring_.answer();
    for (const Doubt& d : doubts.matter)
        if (d.kind == DoubtKind::length && !d.with) {
            const auto same = [](const Doubt& x) { return x.kind == DoubtKind::length && !x.with; };
            const auto all =
                static_cast<int>(std::count_if(doubts.matter.begin(), doubts.matter.end(), same));
            return NextStep{NextKind::measure_first,
                            d.thing,
                            std::max(1, static_cast<int>(d.flips.size())),
                            std::max(0, step->count - all),
                            {}};
        }
    return doubts.whole ? std::nullopt : step;
}

void TypeLine::measure() {
    const auto step = next_step();
    if (!step || step->kind != NextKind::lengths_assumed) return;
    measuring_.start(document_->store().generation(), [plan = document_->plan()](const Task& task) {
        DoubtAsk ask;
        ask.pairs = false;
        ask.cancel = task.cancel();
        return doubts_of(plan, ask);
    });
}

void TypeLine::finish_measuring() {
    rest_.stop();
    measure();
    if (measuring_.running()) measuring_.finish();
}

void TypeLine::show_next() {
    const auto step = next_put_away_ ? std::nullopt : next_step();
    next_->setVisible(step.has_value());
    if (!step) return;
    if (step->kind == NextKind::lengths_assumed && document_->inspector().works_ahead()) rest_.start();
    const auto link = [](const char* name, const QString& text, const QColor& color) {
        return QStringLiteral("<a href='%1' style='color:%2; text-decoration:none'>%3</a>")
            .arg(QLatin1String(name), color.name(), text.toHtmlEscaped());
    };
    next_->setText(link("do", q(words::sentence(*step, document_->plan())), tokens().supply[0]) +
                   QStringLiteral("&nbsp;&nbsp; ") + link("away", say("✕ put away"), tokens().soft));
}

// Its line, ready for Enter; or the thing that it is about.
void TypeLine::take_next() {
    const auto step = next_step();
    if (!step) return;
    if (!step->line.empty())
        take_entry(q(step->line));
    else if (!step->about.empty())
        document_->selection().choose(step->about);
    else
        for (const Finding& f : document_->inspector().findings())
            if (f.severity == Severity::stop) return document_->selection().choose(f.id);
}

// An earlier line, or a later one again; what was being typed is the last of them.
bool TypeLine::recall(int key) {
    const int next = recalled_ + (key == Qt::Key_Up ? 1 : -1);
    if (next < 0 || next > static_cast<int>(earlier_.size())) return false;
    if (recalled_ == 0) being_typed_ = edit_->text();
    recalled_ = next;
    edit_->setText(next == 0 ? being_typed_ : earlier_[earlier_.size() - next]);
    return true;
}

// The number in doubt as one of its readings; it stays undone by the line's own Ctrl+Z.
void TypeLine::settle_doubt(const QString& reading) {
    const Statement line = statement();
    if (!line.doubt) return;
    const auto at = static_cast<int>(edit_->text().indexOf(q(line.doubt->text)));
    edit_->select_part(at, static_cast<int>(line.doubt->text.size()));
    edit_->insertPlainText(reading);
    settled_ = {reading, reading == q(line.doubt->large) ? q(line.doubt->small) : q(line.doubt->large)};
    edit_->setFocus();
}

// Of a number in doubt the first Tab takes the larger reading, the next the other one; of a line that may be
// two kinds of thing, the other kind.
bool TypeLine::next_reading() {
    std::size_t count = 0;
    const Statement line = statement(&count);
    if (line.doubt) {
        settle_doubt(q(line.doubt->large));
        return true;
    }
    const auto at = settled_.first.isEmpty() ? -1 : static_cast<int>(edit_->text().indexOf(settled_.first));
    if (at < 0) {
        if (count < 2) return false;
        reading_ = (reading_ + 1) % count;
        read();
        return true;
    }
    edit_->select_part(at, static_cast<int>(settled_.first.size()));
    edit_->insertPlainText(settled_.second);
    std::swap(settled_.first, settled_.second);
    return true;
}

void TypeLine::add() {
    const Statement s = statement();
    if (s.doubt || s.kind == StatementKind::nothing) return read();  // it asks
    if (!s.whole()) {
        if (s.error) problem_->setText(q(words::sentence(*s.error)).toHtmlEscaped());
        problem_->setVisible(s.error.has_value());
        return;
    }
    const QString typed = edit_->text();
    const QString what = s.load ? q(s.load->name) : typed.trimmed();
    const bool adds =
        s.kind != StatementKind::change && s.kind != StatementKind::set && s.kind != StatementKind::remove;
    if (!document_->apply(*s.edit, adds ? say("add ") + what : what)) return;
    earlier_ << typed;
    recalled_ = 0;
    edit_->clear();
    settled_ = {};
    document_->selection().choose(s.about);
}

}  // namespace yr::app

#include "moc_type_line.cpp"
