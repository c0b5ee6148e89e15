// What stands at the side of each view of Meter.
#include <QFileDialog>
#include <QFileInfo>
#include <QProgressBar>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "files/text_file.h"
#include "io/log_csv.h"
#include "text/say.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"
#include "words/wire_words.h"
#include "workspaces/meter/meter_page.h"

namespace yr::app {
namespace {

// A probability as a bar.
QProgressBar* bar(double share) {
    auto* b = new QProgressBar;
    b->setRange(0, 1000);
    b->setValue(static_cast<int>(std::lround(share * 1000)));
    b->setTextVisible(false);
    b->setFixedHeight(8);
    b->setObjectName(QStringLiteral("share"));
    return b;
}

}  // namespace

void MeterPage::side_of_likely() {
    const auto own = static_cast<long>(document_->plan().policy.faults.size());
    sentences_ << (own == 0 ? say("All weights are the typical ones.")
                            : say_n("%n weight is your own.", "%n weights are your own.", own));
    line(sentences_.back());
    line(say("They count where a fault is looked for and in practice. A weight of 6 against one of 3: twice "
             "as "
             "likely. What is read soon outweighs them."),
         "soft");
    if (own > 0)
        link(say("Back to the typical ones"), say("Undo takes it back"), [this] {
            Policy policy = document_->plan().policy;
            policy.faults.clear();
            document_->apply(SetPolicy{policy}, say("how likely a fault is"));
        });
}

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
    const QWidget* page = pages_->currentWidget();
    if (page == prove_) return side_of_prove();
    if (page == find_) return side_of_find();
    if (page == rest_) return side_of_rest();
    if (page == wire_) return side_of_wire();
    if (page == plug_) return side_of_plug();
    if (page == years_) return side_of_years();
    if (page == record_) return side_of_record();
    if (page == likely_) return side_of_likely();
    side_of_practise();
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
        for (const Id& id : p->unseen) names << q(yr::name_of(prove_->plan(), id));
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
            const QString means = q(words::outside_means(prove_->plan(), *t, v));
            if (means.isEmpty() || one_way) continue;
            line(v == Verdict::high ? say("Above") : say("Below"))->setFont(type_font(Type::bold));
            line(means.toHtmlEscaped());
        }
    }
    against_what();
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
            for (const Record& r : records_of(record_->book(), document_->plan()))
                if (r.kind == RecordKind::reading && r.value) readings.emplace_back(r.where, *r.value);
            prove_->resume(readings);
        });
}

// Where this vehicle was built otherwise than the plan stands now, one chooses which of them is proved.
void MeterPage::against_what() {
    const auto& built = record_->built();
    if (!built || built->plan == document_->plan()) return;
    if (prove_->against()) {
        sentences_ << say("Against what was built on %1.").arg(q(built->line.when).left(10));
        line(sentences_.back(), "fix");
        link(say("Against the plan as it stands"), say("With all that changed since"),
             [this] { prove_->go_by(std::nullopt); });
    } else {
        link(say("Against what was built on %1").arg(q(built->line.when).left(10)),
             say("The copy that was kept of this vehicle"),
             [this] { prove_->go_by(record_->built()->plan); });
    }
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

void MeterPage::side_of_wire() {
    line(say("This wire"))->setFont(type_font(Type::title));
    const Plan& plan = document_->plan();
    const WireVerdict& v = wire_->verdict();
    sentences_ << q(words::sentence(plan, v));
    line(sentences_.back().toHtmlEscaped())->setFont(type_font(Type::bold));
    if (wire_->any_read()) {
        line(v.fits.empty() ? say("No cable of the plan behaves so: the plan does not know it yet.")
                            : say("It can be"),
             v.fits.empty() ? "fix" : "");
        constexpr std::size_t kShown = 8;
        for (std::size_t k = 0; k < std::min(kShown, v.fits.size()); ++k) {
            const Id run = wire_->book().wires[v.fits[k]].run;
            link(q(words::wire_text(plan, run)), say("Show it in the list"),
                 [this, run] { document_->selection().choose(run); });
        }
        if (v.fits.size() > kShown)
            line(say_n("and %n more", "and %n more", static_cast<long>(v.fits.size() - kShown)), "soft");
    }
    if (const QString next = q(words::next_sentence(plan, wire_->book(), v)); !next.isEmpty()) {
        line(say("Do next"))->setFont(type_font(Type::bold));
        sentences_ << next;
        line(next.toHtmlEscaped());
    } else if (v.fits.size() > 1) {
        line(say("Nothing that the key, disconnects and switches do tells these apart: pull their fuses one "
                 "by one."),
             "soft");
    }
    if (wire_->any_read())
        link(say("Another wire"), say("Forgets what was typed"), [this] { wire_->begin_anew(); });
    line(say("A live wire is a fault waiting: cap it before you let go of it. Yellow sleeves and plugs "
             "belong to airbags: "
             "no meter near them."),
         "soft");
}

void MeterPage::side_of_plug() {
    line(say("A loom"))->setFont(type_font(Type::title));
    const EndPlug* plug = plug_->plug();
    if (!plug) {
        line(say("No connector and no loom of two cables or more yet: Place lays cables along ways."), "fix");
        return;
    }
    const std::size_t most = most_pins(instrument_of(document_->plan()));
    sentences_ << say("%1 of %2 pins are read.").arg(plug_->done()).arg(plug->runs.size());
    if (plug_->wrong() > 0)
        sentences_.back() +=
            QLatin1Char(' ') + say_n("%n is wrong.", "%n are wrong.", static_cast<long>(plug_->wrong()));
    line(sentences_.back(), plug_->wrong() > 0 ? "stop" : "");
    if (plug_->done() == plug->runs.size() && plug_->wrong() == 0) {
        sentences_ << say("Every cable ends where it should: none is open, joined to another or exchanged.");
        line(sentences_.back())->setFont(type_font(Type::bold));
        link(say("Keep that in the record"), say("A line with date and name"), [this, name = plug->name] {
            Record r;
            r.kind = RecordKind::proved;
            r.note = say("Loom proved by its end plug: %1").arg(q(name)).toStdString();
            if (!record_->add(std::move(r))) document_->store().refuse(record_->problem());
            fill_side();
        });
        if (!record_->problem().isEmpty()) line(record_->problem().toHtmlEscaped(), "fix");
    }
    if (plug->runs.size() > most)
        line(say("%1 cables: with this meter one plug tells %2 apart. Take the next ones to a second plug "
                 "with a common "
                 "lead of its own.")
                 .arg(plug->runs.size())
                 .arg(most),
             "soft");
    line(say("Every single mistake was tried: each reads something that this meter tells from what is right. "
             "Resistors of "
             "1 %, E24; nothing else may be hooked up."),
         "soft");
}

void MeterPage::side_of_years() {
    line(say("Over the years"))->setFont(type_font(Type::title));
    if (document_->plan().batteries.empty()) {
        line(say("The plan has no battery."), "fix");
        return;
    }
    if (record_->path().isEmpty())
        line(say("The plan was never saved: save it, and the record is kept beside it."), "fix");
    const auto& days = years_->days();
    const auto style = document_->style();
    if (days.empty()) {
        line(say("The record has no reading across this battery's posts yet. What Prove reads there counts; "
                 "or type it "
                 "above: at rest, and while the starter turns with the air's warmth."),
             "soft");
        return;
    }
    sentences_ << q(words::sentence(days.back(), years_->cold_C(), style));
    const bool fails = days.back().cold && !days.back().cold->cranks();
    line(sentences_.back().toHtmlEscaped(), fails ? "stop" : "")->setFont(type_font(Type::bold));
    if (const auto& ahead = years_->ahead()) {
        sentences_ << q(words::sentence(*ahead, years_->cold_C(), style));
        line(sentences_.back().toHtmlEscaped(), ahead->reaches ? "fix" : "");
    } else {
        line(say("A trend wants three cranking readings, the first and last half a year apart."), "soft");
    }
    line(say("From one reading the battery's resistance follows, and with it what it gives a cold engine "
             "that wants more "
             "torque. What is needed is load testers' practice, from memory."),
         "soft");
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
    side_of_built();
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

// How this vehicle was built, and whether the plan went on since.
void MeterPage::side_of_built() {
    const auto& built = record_->built();
    if (built) {
        const bool same = built->plan == document_->plan();
        sentences_ << say("Kept as it was built on %1.").arg(q(built->line.when).left(10)) +
                          QLatin1Char(' ') +
                          (same ? say("The plan is still the same.")
                                : say("The plan has changed since: Prove can go by what was built."));
        line(sentences_.back().toHtmlEscaped());
        line(
            say("The copy is %1, beside the plan.").arg(QFileInfo(q(built->path)).fileName()).toHtmlEscaped(),
            "soft");
        if (same) return;
    }
    link(say("Keep it as it is built"),
         say("A copy of the plan for this vehicle: later changes of the plan do not touch it"), [this] {
             if (!record_->keep_as_built()) document_->store().refuse(record_->problem());
             fill_side();
         });
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

}  // namespace yr::app
