// What lies over and under a day: another option, a log, the label of the volts to stop at.
#include <QFileDialog>
#include <algorithm>
#include <cmath>

#include "files/text_file.h"
#include "plan/variant.h"
#include "routes/lay.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "workspaces/day/day_page.h"

namespace yr::app {
namespace {

constexpr int kMostLogDays = 14;  // in a row, for "does it return"

}  // namespace

// The plan's other options, and the plan as it stands where one is shown.
void DayPage::fill_options() {
    const Plan& stored = document_->store().stored();
    std::vector<Choice> options{{say("No option over it"), {}}};
    if (!stored.active.empty()) options.push_back({say("Over it: as it stands"), "-"});
    for (const Variant& v : stored.variants)
        if (v.id != stored.active) options.push_back({say("Over it: %1").arg(q(v.name)), v.id});
    offer(options_, options);
    options_->setVisible(options_->count() > 1 && !day_.empty());
    if (options_->findData(q(option_)) < 0) option_.clear();
    options_->setCurrentIndex(options_->findData(q(option_)));
    if (option_.empty())
        chart_->show_other(nullptr, {});
    else if (!other_.current(document_->store().generation()) || !other_.answer() ||
             other_.answer()->day != day_)
        run_other();
}

void DayPage::compare_with(const Id& option) {
    option_ = option;
    other_.forget();
    fill_options();
    fill_side();
}

void DayPage::run_other() {
    const Plan& stored = document_->store().stored();
    Plan plan = with_variant(stored, option_ == "-" ? Id() : option_);
    lay(plan);
    other_.start(document_->store().generation(), [plan, id = day_](const Task& task) {
        DayResult result;
        result.day = id;
        const Day* day = yr::find(plan.days, id);
        if (!day) return result;  // that option has no such day
        DayOptions options;
        options.stop = task.cancel();
        result.run = run_day(plan, *day, options);
        result.verdicts = verdicts(plan, *day, result.run);
        result.after = day_after_day(plan, *day, kMostLogDays, task.cancel());
        return result;
    });
}

// Both in a sentence, on one scale.
void DayPage::tell_other(const DayResult& mine) {
    const DayResult* theirs = other_.current(document_->store().generation()) ? other_.answer() : nullptr;
    if (option_.empty()) return;
    auto* head = line(options_->currentText().toHtmlEscaped(), "");
    head->setFont(type_font(Type::bold));
    if (!theirs || theirs->day != day_) {
        line(say("Running through the day …"), "soft");
        return;
    }
    if (theirs->run.points.empty()) {
        line(say("That option has no such day."), "soft");
        return;
    }
    const auto percent = [&](double v) {
        return q(words::quantity(v, Dimension::fraction, document_->style()));
    };
    for (std::size_t k = 0; k < mine.verdicts.batteries.size() && k < theirs->verdicts.batteries.size();
         ++k) {
        const BatteryDay &a = mine.verdicts.batteries[k], &b = theirs->verdicts.batteries[k];
        sentences_ << say("%1: least %2, over it %3; in the end %4, over it %5.")
                          .arg(q(words::capital(document_->plan().batteries[k].name)),
                               percent(a.least_charge), percent(b.least_charge), percent(a.end),
                               percent(b.end));
        line(sentences_.back());
    }
    const auto lasts_for = [](const DayResult& r) {
        if (!r.after) return QString();
        return r.after->no_start_on
                   ? say_n("it starts on %n morning", "it starts on %n mornings", *r.after->no_start_on - 1)
                   : say("it starts every morning");
    };
    sentences_ << say("Here %1; over it %2.").arg(lasts_for(mine), lasts_for(*theirs));
    line(sentences_.back());
}

void DayPage::choose_log() {
    const QString path = QFileDialog::getOpenFileName(window(), say("A log of volts and amps"), {},
                                                      say("Tables (*.csv *.txt)"));
    if (!path.isEmpty()) lay_log(path);
}

void DayPage::lay_log(const QString& path) {
    const auto text = read_text_file(path.toStdString());
    const auto log = text ? read_log_csv(*text) : Result<Log>(tl::unexpected(text.error()));
    if (!log) return document_->store().refuse(q(words::sentence(log.error())));
    chart_->show_log(*log);
    fill_side();
}

// How far the log lies from what was run, where it has volts.
void DayPage::tell_log(const DayResult& r) {
    const Log& log = chart_->log();
    if (log.points.empty() || r.run.points.empty()) return;
    double sum = 0, most = -1, most_s = 0;
    long count = 0;
    for (const LogPoint& p : log.points) {
        const double t = chart_->log_s(p);
        if (!p.volts_V || t < 0 || t > r.run.length_s) continue;
        const auto after = std::lower_bound(r.run.points.begin(), r.run.points.end(), t,
                                            [](const DayPoint& d, double at) { return d.t_s < at; });
        if (after == r.run.points.end() || after->battery_V.empty()) continue;
        const DayPoint& before = after == r.run.points.begin() ? *after : *(after - 1);
        const double span = after->t_s - before.t_s, share = span > 0 ? (t - before.t_s) / span : 0;
        const double volts = before.battery_V[0] + share * (after->battery_V[0] - before.battery_V[0]);
        const double off = std::abs(*p.volts_V - volts);
        sum += off, ++count;
        if (off > most) most = off, most_s = t;
    }
    auto* head = line(say("The log"), "");
    head->setFont(type_font(Type::bold));
    if (count == 0)
        sentences_ << say("None of its readings lies in this day.");
    else
        sentences_ << say_n("%n reading", "%n readings", count) +
                          say(": volts differ by %1 on average, most at %2: %3.")
                              .arg(q(words::quantity(sum / static_cast<double>(count), Dimension::voltage,
                                                     document_->style())),
                                   q(clock_text(*chart_->day(), most_s)),
                                   q(words::quantity(most, Dimension::voltage, document_->style())));
    line(sentences_.back());
    auto* away = line(act_text(say("Take the log away")), "");
    connect(away, &QLabel::linkActivated, this, [this] {
        chart_->show_log({});
        fill_side();
    });
}

// What the switch's label says: kept on the battery, for whoever prints or reads it.
void DayPage::label_volts() {
    const DayResult* r = running_.answer();
    const Battery* b = r && r->stop ? yr::find(document_->plan().batteries, r->stop->battery) : nullptr;
    if (!b) return;
    Battery labelled = *b;
    labelled.remarks.caution = say("Stop at %1 (under %2, at %3).")
                                   .arg(q(words::quantity(r->stop->volts, Dimension::voltage)),
                                        q(words::quantity(r->stop->amps, Dimension::current)),
                                        q(words::quantity(r->stop->temperature_C, Dimension::temperature)))
                                   .toStdString();
    document_->apply(Put<Battery>{labelled, {}}, say("%1: its label").arg(q(b->name)));
}

}  // namespace yr::app
