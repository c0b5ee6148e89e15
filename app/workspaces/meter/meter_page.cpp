#include "workspaces/meter/meter_page.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QProgressBar>
#include <QVBoxLayout>
#include <algorithm>

#include "files/text_file.h"
#include "io/log_csv.h"
#include "text/say.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kSide_px = 320;
constexpr ViewWord kViews[] = {
    {"", words::later("Prove"), words::later("The readings that prove a finished vehicle, in order")},
    {"find", words::later("Find a fault"),
     words::later("From a complaint to the bad joint in a few readings")},
    {"rest", words::later("At rest"), words::later("What empties the battery while it stands")},
    {"record", words::later("Record"), words::later("What was read and proved, and what drifted since")},
    {"practise", words::later("Practise"), words::later("A hidden fault to be found")}};

// A probability as a bar.
QProgressBar* bar(double share) {
    auto* b = new QProgressBar;
    b->setRange(0, 1000);
    b->setValue(static_cast<int>(share * 1000 + 0.5));
    b->setTextVisible(false);
    b->setFixedHeight(8);
    b->setObjectName(QStringLiteral("share"));
    return b;
}

}  // namespace

MeterPage::MeterPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("meter"), say("Meter"), parent), words_(kViews) {
    prove_ = new ProveView(document_);
    find_ = new FindView(document_);
    rest_ = new RestView(document_);
    record_ = new RecordView(document_);
    practise_ = new PractiseView(document_);
    pages_ = new QStackedWidget;
    for (QWidget* page : std::initializer_list<QWidget*>{prove_, find_, rest_, record_, practise_})
        pages_->addWidget(page);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(0);
    left->addWidget(make_head());
    left->addWidget(pages_, 1);
    QVBoxLayout* column = nullptr;
    QScrollArea* side = side_panel(kSide_px, column);
    lines_ = new QVBoxLayout;
    lines_->setSpacing(5);
    column->addLayout(lines_);
    column->addStretch();
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addLayout(left, 1);
    row->addWidget(side);
    connect(&document_->store(), &PlanStore::edited, this, [this] {
        if (isVisible()) refresh();
    });
    connect(prove_, &ProveView::moved, this, &MeterPage::fill_side);
    connect(prove_, &ProveView::taken, this, &MeterPage::keep);
    connect(find_, &FindView::changed, this, &MeterPage::fill_side);
    connect(practise_, &PractiseView::changed, this, &MeterPage::fill_side);
    connect(rest_, &RestView::changed, this, &MeterPage::fill_side);
    connect(prove_->entry()->meter(), &QToolButton::clicked, this, [this] {
        if (prove_->current()) read_by_meter(prove_->current()->where);
    });
    connect(find_->entry()->meter(), &QToolButton::clicked, this, [this] {
        const auto at = find_->asked() ? find_->asked()
                        : find_->answer() && find_->answer()->next
                            ? std::optional(find_->answer()->next->where)
                            : std::nullopt;
        if (at) read_by_meter(*at);
    });
    connect(&meter_, &MeterClient::ready, this, [this] {
        if (waiting_) read_by_meter(*waiting_);
    });
    connect(&meter_, &MeterClient::answered, this, [this](double value) {
        waiting_.reset();
        (pages_->currentIndex() == 0 ? prove_->entry() : find_->entry())->field()->clear();
        pages_->currentIndex() == 0 ? prove_->take(value) : find_->take(value);
    });
    connect(&meter_, &MeterClient::failed, this, [this](const QString& sentence) {
        waiting_.reset();
        document_->store().refuse(sentence);
    });
}

QWidget* MeterPage::make_head() {
    auto* head = new QWidget;
    auto* row = new QHBoxLayout(head);
    row->setContentsMargins(16, 6, 12, 4);
    row->setSpacing(4);
    words_.add_to(row, [this](const QString& key) { open_view(key); });
    row->addStretch();
    if (!EntryBar::speech_program().isEmpty()) {
        auto* aloud = new QCheckBox(say("Aloud"));
        aloud->setToolTip(say("Says where the probes go"));
        connect(aloud, &QCheckBox::toggled, this, [this](bool on) {
            prove_->entry()->set_aloud(on);
            find_->entry()->set_aloud(on);
        });
        row->addWidget(aloud);
    }
    return head;
}

std::vector<WorkspaceView> MeterPage::views() const {
    std::vector<WorkspaceView> all;
    for (const ViewWord& view : kViews)
        if (*view.key) all.push_back({QString::fromLatin1(view.key), q(words::translated(view.name)), false});
    return all;
}

bool MeterPage::open_view(const QString& key) {
    if (!key.isEmpty() && !has_view(key)) return false;
    words_.show(key, pages_);
    if (isVisible()) refresh();
    return true;
}

QString MeterPage::open_view() const {
    return words_.key_of(pages_->currentIndex());
}

void MeterPage::entered() {
    if (pages_->currentIndex() == 0) prove_->entry()->field()->setFocus();
}

void MeterPage::plan_opened() {
    find_->begin_anew();
    prove_->resume({});
}

void MeterPage::showEvent(QShowEvent* event) {
    Workspace::showEvent(event);
    refresh();
}

void MeterPage::refresh() {
    record_->refresh();
    switch (pages_->currentIndex()) {
        case 0:
            prove_->refresh();
            break;
        case 1:
            find_->refresh();
            break;
        case 2:
            rest_->refresh();
            break;
        case 4:
            practise_->refresh();
            break;
        default:
            break;
    }
    fill_side();
}

void MeterPage::finish() {
    refresh();
    if (pages_->currentIndex() == 0) prove_->finish();
    if (pages_->currentIndex() == 1) find_->finish();
    if (pages_->currentIndex() == 4) practise_->finish();
    fill_side();
}

// ---- the meter

void MeterPage::read_by_meter(const Probing& where) {
    if (!meter_.connected()) {
        waiting_ = where;
        QStringList arguments{QStringLiteral("--noise"), QStringLiteral("0.001")};
        if (!document_->store().path().isEmpty())
            arguments = QStringList{QStringLiteral("--plan"), document_->store().path()} + arguments;
        meter_.start_stand_in(arguments);
        emit said(say("The stand-in answers: a simulated meter on the plan as it was saved."));
        return;
    }
    const auto quoted = [](const std::string& text) { return QStringLiteral("\"%1\"").arg(q(text)); };
    QStringList unplugged;
    for (const Id& id : where.unplugged) unplugged << q(id);
    const QStringList commands{
        QStringLiteral("SIM:STATE ") + quoted(where.state),
        QStringLiteral("SIM:UNPL \"%1\"").arg(unplugged.join(QLatin1Char(','))),
        QStringLiteral("ROUT:RED ") + quoted(where.kind == ReadKind::amps ? where.run : where.red.text()),
        QStringLiteral("ROUT:BLAC ") + quoted(where.black.empty() ? std::string() : where.black.text())};
    meter_.ask(commands, where.kind == ReadKind::volts  ? QStringLiteral("MEAS:VOLT:DC?")
                         : where.kind == ReadKind::amps ? QStringLiteral("MEAS:CURR:DC?")
                                                        : QStringLiteral("MEAS:RES?"));
}

void MeterPage::keep(const TestPoint& point, double value, Verdict verdict) {
    Record r;
    r.kind = RecordKind::reading;
    r.where = point.where, r.value = value;
    r.expected = point.expected.value, r.low = point.low, r.high = point.high;
    const char* words[] = {"good", "high", "low", "cannot tell"};
    r.verdict = words[static_cast<std::size_t>(verdict)];
    r.about = point.thing;
    record_->add(std::move(r));
    fill_side();
}

// ---- the side

QLabel* MeterPage::line(const QString& text, const char* name) {
    auto* l = new QLabel(text);
    l->setWordWrap(true);
    l->setObjectName(QString::fromLatin1(name));
    lines_->addWidget(l);
    return l;
}

void MeterPage::link(const QString& text, const QString& tip, const std::function<void()>& action) {
    sentences_ << text;
    auto* l = line(act_text(text));
    l->setToolTip(tip);
    connect(l, &QLabel::linkActivated, this, [action] { action(); });
}

void MeterPage::fill_side() {
    clear_lines(lines_);
    sentences_.clear();
    switch (pages_->currentIndex()) {
        case 0:
            return side_of_prove();
        case 1:
            return side_of_find();
        case 2:
            return side_of_rest();
        case 3:
            return side_of_record();
        default:
            return side_of_practise();
    }
}

void MeterPage::side_of_prove() {
    line(say("Proving"))->setFont(type_font(Type::title));
    const ProvePlan* p = prove_->points();
    if (!p) return;
    long outside = 0;
    for (const auto& [k, value] : prove_->read())
        if (k < p->points.size()) {
            const Verdict v = verdict(p->points[k], value);
            outside += v == Verdict::high || v == Verdict::low;
        }
    sentences_ << say("%1 of %2 readings are taken.").arg(prove_->done()).arg(p->points.size());
    if (outside > 0)
        sentences_.back() +=
            QLatin1Char(' ') + say_n("%n is outside its band.", "%n are outside their bands.", outside);
    line(sentences_.back(), outside > 0 ? "fix" : "");
    if (p->fewest)
        line(say("Under load: the fewest readings that see every joint and cable that can be seen, proved."),
             "soft");
    if (!p->unseen.empty()) {
        QStringList names;
        for (const Id& id : p->unseen) names << q(yr::name_of(document_->plan(), id));
        line(say("No state loads these enough to be seen: %1.")
                 .arg(names.join(QStringLiteral(", ")))
                 .toHtmlEscaped(),
             "soft");
    }
    if (const TestPoint* t = prove_->current()) {
        for (const Verdict v : {Verdict::high, Verdict::low}) {
            const bool one_way = t->phase == ProvePhase::isolation ? v == Verdict::high
                                 : t->phase == ProvePhase::continuity || t->phase == ProvePhase::master
                                     ? v == Verdict::low
                                     : false;
            const QString means = q(words::outside_means(document_->plan(), *t, v));
            if (means.isEmpty() || one_way) continue;
            line(v == Verdict::high ? say("Above") : say("Below"))->setFont(type_font(Type::bold));
            line(means.toHtmlEscaped());
        }
    }
    const Instrument meter = instrument_of(document_->plan());
    line(say("Bands hold what the plan leaves open and the meter's doubt: %1 and %2 digits.")
             .arg(q(words::quantity(meter.gain, Dimension::fraction)))
             .arg(q(words::number(meter.digits))),
         "soft");
    line(record_->path().isEmpty() ? say("The plan was never saved: readings are not kept until it is.")
                                   : say("Every reading goes into the record at once."),
         record_->path().isEmpty() ? "fix" : "soft");
    if (!record_->problem().isEmpty()) line(record_->problem().toHtmlEscaped(), "fix");
    if (!record_->book().records.empty())
        link(say("Go on where the record ends"), say("Readings of this vehicle that the record has"), [this] {
            std::vector<std::pair<Probing, double>> readings;
            for (const Record& r : record_->book().of({}))
                if (r.kind == RecordKind::reading && r.value) readings.emplace_back(r.where, *r.value);
            prove_->resume(readings);
        });
}

void MeterPage::side_of_find() {
    line(say("Where is it?"))->setFont(type_font(Type::title));
    const Plan& plan = document_->plan();
    for (const Complaint& c : find_->complaints()) line(q(words::sentence(plan, c)).toHtmlEscaped());
    if (find_->working()) {
        line(say("Weighing every fault…"), "soft");
        return;
    }
    const FindAnswer* a = find_->answer();
    if (!a || find_->complaints().empty()) return;
    line(say("Of %1 faults looked at:").arg(a->now.looked), "soft");
    int shown = 0;
    for (const Suspect& s : a->now.suspects) {
        if (s.probability < 0.01 || shown == 6) break;
        ++shown;
        QString text = q(words::sentence(plan, s.fault));
        if (s.second) text += say(" and ") + q(words::sentence(plan, *s.second));
        const QString percent = q(words::quantity(s.probability, Dimension::fraction));
        sentences_ << text + QStringLiteral(": ") + percent;
        auto* l = line(QStringLiteral("%1  <b>%2</b>").arg(text.toHtmlEscaped(), percent.toHtmlEscaped()));
        if (shown == 1) l->setFont(type_font(Type::bold));
        const QString strength = q(words::strength_text(s, document_->style()));
        if (!strength.isEmpty()) line(strength.toHtmlEscaped(), "soft");
        lines_->addWidget(bar(s.probability));
    }
    if (!a->now.explained) line(say("No single fault explains all of it."), "fix");
    const auto things = a->now.things();
    if (!things.empty() && things.front().second >= 0.8 && !a->now.suspects.empty()) {
        line(say("Put it right"))->setFont(type_font(Type::bold));
        line(q(words::mend_text(a->now.suspects.front().fault)).toHtmlEscaped());
    }
    if (!find_->readings().empty()) {
        line(say("Read"))->setFont(type_font(Type::bold));
        for (const Reading& r : find_->readings())
            line((q(words::where_text(plan, r.where)) + QStringLiteral(": ") +
                  q(words::value_text(r.where.kind, r.value, document_->style())))
                     .toHtmlEscaped());
        link(say("Take the last reading back"), say("It was read or typed wrongly"),
             [this] { find_->take_back(); });
        link(say("To the record"), say("Readings and what was found"), [this] {
            bool good = true;
            for (const Reading& r : find_->readings()) {
                Record record;
                record.kind = RecordKind::reading;
                record.where = r.where, record.value = r.value;
                good = good && record_->add(std::move(record));
            }
            Record found;
            found.kind = RecordKind::mended;
            if (find_->answer() && !find_->answer()->now.suspects.empty()) {
                found.about = find_->answer()->now.suspects.front().fault.thing;
                found.note = words::sentence(document_->plan(), find_->answer()->now.suspects.front().fault);
            }
            good = good && record_->add(std::move(found));
            if (good)
                emit said(say("Written into the record."));
            else
                document_->store().refuse(record_->problem());
        });
    }
}

void MeterPage::side_of_rest() {
    line(say("What empties it"))->setFont(type_font(Type::title));
    const auto more = rest_->unplanned();
    for (const FuseCurrent& f : more) {
        sentences_ << say("%1 takes %2, %3 by the plan.")
                          .arg(q(words::capital(yr::name_of(document_->plan(), f.run))),
                               q(words::quantity(f.amps, Dimension::current, document_->style())),
                               q(words::quantity(f.planned_A, Dimension::current, document_->style())));
        line(sentences_.back().toHtmlEscaped(), "fix");
    }
    if (more.empty()) line(say("Nothing read so far is more than planned."), "soft");
    line(say("Where millivolts cannot be read"))->setFont(type_font(Type::bold));
    line(
        say("An ammeter bridges the negative before it comes off. Pull in this order, each stays out "
            "(putting it back wakes "
            "units); when the amps fall, it is behind the last one:"));
    const PullOrder order = pull_order(document_->plan(), rest_->state());
    int n = 0;
    for (const Id& fuse : order.fuses) {
        const Device* d = find_device(document_->plan(), fuse);
        Id run;
        for (const Run& r : document_->plan().runs)
            if (yr::find(r.devices, fuse)) run = r.id;
        sentences_ << QStringLiteral("%1  ").arg(++n) + q(yr::name_of(document_->plan(), run)) +
                          (d ? QStringLiteral(", ") + q(words::quantity(d->rating_A, Dimension::current))
                             : QString());
        line(sentences_.back().toHtmlEscaped());
    }
    if (order.expected > 0)
        line(say("%1 pulls in the mean.").arg(q(words::number(order.expected, 2))), "soft");
    line(say("Cold resistances of fuses are from memory; what is less than one digit of 0.1 mV cannot be "
             "seen."),
         "soft");
}

void MeterPage::fit(const QString& path) {
    const auto text = read_text_file(path.toStdString());
    if (!text) return document_->store().refuse(q(words::sentence(text.error())));
    const auto log = read_log_csv(*text);
    if (!log) return document_->store().refuse(q(words::sentence(log.error())));
    std::vector<LogSample> samples;
    for (const LogPoint& p : log->points)
        if (p.volts_V && p.amps_A) samples.push_back({p.t_s, *p.volts_V, *p.amps_A});
    if (document_->plan().batteries.empty()) return;
    fit_of_ = document_->plan().batteries.front().id;
    const auto fitted = fit_log(document_->plan(), fit_of_, samples);
    if (!fitted) return document_->store().refuse(q(words::sentence(fitted.error())));
    fit_ = *fitted;
    fill_side();
}

void MeterPage::take_fitted() {
    if (!fit_) return;
    const Batch edits = take_fit(document_->plan(), fit_of_, *fit_);
    if (!edits.edits.empty()) document_->apply(edits, say("measured values of a log"));
}

void MeterPage::lines_of_fit() {
    link(say("Fit a log…"),
         say("CSV of time, volts and amps: resistance, capacity, charging volts, what is taken at rest"),
         [this] {
             const QString path =
                 QFileDialog::getOpenFileName(window(), say("Log"), {}, say("Tables (*.csv *.txt)"));
             if (!path.isEmpty()) fit(path);
         });
    if (!fit_) return;
    const auto tell = [&](const QString& what, const std::optional<Fitted>& f, Dimension dimension) {
        if (!f) return;
        sentences_ << say("%1: %2 ± %3")
                          .arg(what, q(words::quantity(f->value, dimension, document_->style())),
                               q(words::quantity(f->doubt, dimension, document_->style())));
        line(sentences_.back().toHtmlEscaped());
    };
    line(say("%1, from %2 samples")
             .arg(q(words::capital(yr::name_of(document_->plan(), fit_of_))))
             .arg(fit_->samples)
             .toHtmlEscaped())
        ->setFont(type_font(Type::bold));
    tell(say("Resistance"), fit_->R0_ohm, Dimension::resistance);
    if (fit_->capacity_Ah) {
        sentences_ << say("Capacity: %1 ± %2 Ah")
                          .arg(q(words::number(fit_->capacity_Ah->value)),
                               q(words::number(fit_->capacity_Ah->doubt, 2)));
        line(sentences_.back());
    }
    tell(say("Charged at"), fit_->charging_V, Dimension::voltage);
    tell(say("Taken at rest"), fit_->standby_A, Dimension::current);
    link(say("Take them into the plan"), say("As measured: one step that undo takes back"),
         [this] { take_fitted(); });
}

void MeterPage::side_of_record() {
    line(say("The record"))->setFont(type_font(Type::title));
    lines_of_fit();
    if (record_->path().isEmpty()) {
        line(say("The plan was never saved: save it, and the record is kept beside it."), "fix");
        return;
    }
    sentences_ << say_n("%n line.", "%n lines.", static_cast<long>(record_->book().records.size()));
    line(sentences_.back());
    if (!record_->problem().isEmpty()) line(record_->problem().toHtmlEscaped(), "fix");
    if (record_->book().cut_off) line(say("The last line was cut off and is left out."), "fix");
    const auto drifted = record_->drifted();
    if (!drifted.empty()) line(say("What drifted"))->setFont(type_font(Type::bold));
    for (std::size_t k = 0; k < std::min<std::size_t>(12, drifted.size()); ++k) {
        sentences_ << q(words::sentence(document_->plan(), drifted[k], document_->style()));
        line(sentences_.back().toHtmlEscaped(), drifted[k].out_now ? "stop" : "");
    }
    link(say("Sign: proved and handed over"), say("A line with date and name"), [this] {
        Record r;
        r.kind = RecordKind::signature;
        r.about = "hand over";
        if (!record_->add(std::move(r))) document_->store().refuse(record_->problem());
        fill_side();
    });
    line(say("Lines are only added, each chained to the one before: what is wrong is corrected by a later "
             "line."),
         "soft");
}

void MeterPage::side_of_practise() {
    line(say("Practice"))->setFont(type_font(Type::title));
    if (!practise_->hidden() || !practise_->hidden()->there()) {
        line(say("Levels: one open circuit; bad grounds; wrong sizes; two at once; what comes with heat."),
             "soft");
        return;
    }
    const PracticeScore& s = practise_->score();
    sentences_
        << say_n("%n reading, ", "%n readings, ", static_cast<long>(s.readings)) +
               say("%1 min, %2 wrong repairs.").arg(q(words::number(s.minutes, 3))).arg(s.wrong_repairs);
    line(sentences_.back());
    if (!practise_->over()) return;
    line(say("The best way to it"))->setFont(type_font(Type::bold));
    const auto* path = practise_->best();
    if (!path) {
        line(say("Working it out…"), "soft");
        return;
    }
    int n = 0;
    double minutes = 0;
    for (const PathStep& step : *path) {
        minutes += step.minutes;
        sentences_ << QStringLiteral("%1  ").arg(++n) + q(words::sentence(document_->plan(), step.where)) +
                          QLatin1Char(' ') +
                          q(words::value_text(step.where.kind, step.value, document_->style()));
        line(sentences_.back().toHtmlEscaped());
    }
    line(say("%1 min.").arg(q(words::number(minutes, 3))), "soft");
}

std::vector<WorkspacePicture> MeterPage::pictures() {
    return {{QStringLiteral("meter-prove.png"),
             [this] {
                 emit go_to(key(), {});
                 finish();
             }},
            {QStringLiteral("meter-find.png"), [this] {
                 emit go_to(key(), QStringLiteral("find"));
                 find_->begin_anew();
                 HiddenFault hidden(document_->plan(), 3, PracticeLevel::bad_ground);
                 for (const Complaint& c : hidden.complaints()) find_->complain(c);
                 find_->finish();
                 if (find_->answer() && find_->answer()->next)
                     find_->take(hidden.read(find_->answer()->next->where).value_or(0));
                 find_->finish();
                 finish();
             }}};
}

}  // namespace yr::app

#include "moc_meter_page.cpp"
