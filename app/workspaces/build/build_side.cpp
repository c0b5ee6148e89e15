// The side of Build: what the open view is about, the card of the chosen cable, what is said of it.
#include <QFileDialog>
#include <algorithm>

#include "plan/names.h"
#include "widgets/side_panel.h"
#include "widgets/tokens.h"
#include "words/build_words.h"
#include "words/sentences.h"
#include "words/work_words.h"
#include "workspaces/build/build_page.h"

namespace yr::app {
namespace {

const QString kMade = QStringLiteral("made");

}  // namespace

QLabel* BuildPage::line(const QString& text, const char* name) {
    auto* l = new QLabel(text);
    l->setWordWrap(true);
    l->setObjectName(QString::fromLatin1(name));
    l->setTextInteractionFlags(Qt::LinksAccessibleByMouse | Qt::LinksAccessibleByKeyboard);
    into_->addWidget(l);
    return l;
}

void BuildPage::link(const QString& text, const QString& tip, const std::function<void()>& action) {
    sentences_ << text;
    auto* l = line(act_text(text));
    l->setToolTip(tip);
    connect(l, &QLabel::linkActivated, this, [action] { action(); });
}

const WireRow* BuildPage::wire_of(const Id& run) const {
    for (const WireRow& w : table_)
        if (document_->plan().runs[w.run].id == run) return &w;
    return nullptr;
}

void BuildPage::fill_side() {
    refresh_table();
    clear_lines(lines_);
    clear_lines(after_);
    sentences_.clear();
    into_ = lines_;
    const int page = pages_->currentIndex();
    const WireRow* w =
        page == kWork || page == kQuote || page == kTimes ? nullptr : wire_of(document_->selection().id());
    card_->setVisible(w != nullptr);
    if (w) return side_of_cable(*w);
    if (form_ && !(page == kQuote && form_of_ == "shop")) {
        form_->hide(), form_->deleteLater();
        form_ = nullptr, form_of_.clear();
    }
    if (page == kDiagram)
        side_of_diagram();
    else if (page == kWork)
        side_of_work();
    else if (page == kQuote)
        side_of_quote();
    else if (page == kTimes)
        side_of_times();
    else
        side_of_bench();
}

void BuildPage::side_of_times() {
    line(say("Times and torques"))->setFont(type_font(Type::title));
    const Policy& policy = document_->plan().policy;
    sentences_ << say("%1 of your own times, %2 of your own torques.")
                      .arg(policy.tasks.size())
                      .arg(policy.torques.size());
    line(sentences_.back());
    const WorkOrder order = work_order(document_->plan());
    sentences_ << say("With them the whole work takes %1.").arg(q(words::minutes_text(order.minutes)));
    line(sentences_.back());
    line(say("They count in the order of work, the quote and change orders. In words: “minutes make thick "
             "9”, “torque M8 12 Nm”, “rate 85 an "
             "hour”."),
         "soft");
}

void BuildPage::side_of_bench() {
    const Plan& plan = document_->plan();
    auto* head = line(say("The bench"));
    head->setFont(type_font(Type::title));
    long made = 0;
    for (const WireRow& row : table_) made += is_marked(kMade, plan.runs[row.run].id);
    sentences_ << say("%1 of %2 cables are made.").arg(made).arg(table_.size());
    line(sentences_.back());
    line(say("Click a piece for its card: both ends, what to slide on first, strip, crimp, label. "
             "Lengths hold the "
             "slack of the plan; where no way is known they are as typed."),
         "soft");
    link(say("Labels…"), say("Both ends of every cable, the lid of each box with a code, the panel"), [this] {
        const QString path =
            QFileDialog::getSaveFileName(window(), say("Labels"), QStringLiteral("labels.pdf"),
                                         say("PDF on sheets (*.pdf);;Drawing in one (*.svg)"));
        if (!path.isEmpty()) save_labels(path);
    });
    for (const FlatLoom& l : looms_->looms())
        if (l.runs.size() > 2)
            link(say("Loom along %1 at 1:1…").arg(q(l.name)),
                 say("PDF in tiles, with marks to glue by and its pin table; or SVG in one"),
                 [this, name = q(l.name)] {
                     const QString path =
                         QFileDialog::getSaveFileName(window(), say("Loom"), QStringLiteral("loom.pdf"),
                                                      say("PDF in tiles (*.pdf);;Drawing in one (*.svg)"));
                     if (!path.isEmpty()) save_loom(name, path);
                 });
    link(say("Parts, wires and cuts for a spreadsheet…"),
         say("One workbook of four sheets, the pieces bagged by vehicle among them"), [this] {
             const QString path = QFileDialog::getSaveFileName(
                 window(), say("Workbook"), QStringLiteral("build.xlsx"), say("Workbooks (*.xlsx)"));
             if (!path.isEmpty()) save_tables(path);
         });
    link(say("Dossier as PDF…"), say("Everything that whoever builds or repairs it needs"), [this] {
        const QString path = QFileDialog::getSaveFileName(window(), say("Dossier"),
                                                          QStringLiteral("dossier.pdf"), say("PDF (*.pdf)"));
        if (!path.isEmpty()) save_dossier(path);
    });
    line(say("A lug that does not fit its bolt is exchanged, never drilled out. Crimps are pulled before "
             "they are "
             "covered."),
         "soft");
}

void BuildPage::side_of_cable(const WireRow& row) {
    const Plan& plan = document_->plan();
    const WireRow* w = &row;
    const Run& run = plan.runs[w->run];
    const auto wire = conductor(run.size.value_or(WireSize::awg(14)), run.material);
    const double mm2 = wire ? wire->area_mm2 : 2;
    auto* head = line((q(w->number) + QStringLiteral("  ") + q(run.name)).toHtmlEscaped());
    head->setFont(type_font(Type::title));
    sentences_ << say("%1, %2, %3%4")
                      .arg(run.size ? q(yr::name_of(*run.size)) : say("size not chosen yet"),
                           q(words::colour_text(w->colour)),
                           q(words::quantity(w->length_m, Dimension::length, document_->style())),
                           w->length_known ? QString() : say(" (assumed)"));
    if (w->pieces > 1) sentences_.back() += say_n(", %n piece", ", %n pieces", w->pieces);
    line(sentences_.back(), w->length_known ? "" : "fix");
    card_->show(*w);
    into_ = after_;
    const bool made = is_marked(kMade, run.id);
    link(made ? say("✓ Made: not yet after all") : say("Tick it: made"), say("Undo takes it back"),
         [this, id = run.id, made] { mark(kMade, id, !made); });
    const auto made_as = [&](const CableEnd& e) {
        QStringList steps;
        int n = 0;
        for (const EndStep step : steps_of(e, mm2))
            steps << QStringLiteral("%1  ").arg(++n) + q(words::step_text(step, e, mm2));
        return steps;
    };
    const QStringList first = made_as(w->from), second = made_as(w->to);
    const auto tell = [&](const QString& which, const QStringList& steps) {
        line(which.toHtmlEscaped())->setFont(type_font(Type::bold));
        for (const QString& step : steps) sentences_ << step, line(step.toHtmlEscaped());
    };
    if (first == second) {
        tell(say("Both ends alike"), first);
    } else {
        tell(say("End at %1").arg(q(words::terminal(plan, w->from.at))), first);
        tell(say("End at %1").arg(q(words::terminal(plan, w->to.at))), second);
    }
    fill_form(run);
}

void BuildPage::fill_form(const Run& run) {
    if (form_ && form_of_ == run.id) return form_->refresh();
    if (form_) form_->hide(), form_->deleteLater();
    form_of_ = run.id;
    form_ = new FieldForm([this] { return document_->style(); });
    form_->heading(say("What is said of it"));
    const auto get = [this, id = run.id]() -> const Run* {
        return yr::find(document_->plan().runs, std::string_view(id));
    };
    const auto text = [&](const QString& label, std::string Run::*member, const QString& open) {
        form_->text(
            label, [get, member] { return get() ? q(get()->*member) : QString(); },
            [this, get, member, label](const QString& typed) {
                if (!get()) return QString();
                Run changed = *get();
                changed.*member = typed.trimmed().toStdString();
                if (!(changed == *get()))
                    document_->apply(Put<Run>{changed, {}}, q(changed.name) + QStringLiteral(": ") + label);
                return QString();
            },
            open);
    };
    text(say("Number"), &Run::number, say("counted"));
    text(say("Colour"), &Run::colour, say("by use"));
    end_fields(run, true);
    end_fields(run, false);
    form_place_->addWidget(form_);
}

void BuildPage::end_fields(const Run& run, bool at_from) {
    form_->heading(at_from ? say("Its beginning") : say("Its end"));
    const auto get = [this, id = run.id, at_from]() -> const RunEnd* {
        const Run* r = yr::find(document_->plan().runs, std::string_view(id));
        return r ? &(at_from ? r->end_from : r->end_to) : nullptr;
    };
    const auto set = [this, id = run.id, at_from](const QString& what,
                                                  const std::function<void(RunEnd&)>& change) {
        const Run* r = yr::find(document_->plan().runs, std::string_view(id));
        if (!r) return;
        Run changed = *r;
        change(at_from ? changed.end_from : changed.end_to);
        if (!(changed == *r))
            document_->apply(Put<Run>{changed, {}}, q(r->name) + QStringLiteral(": ") + what);
    };
    form_->choice(
        at_from ? say("Terminal") : say("Terminal there"),
        {{say("as is usual there"), "by_choice"},
         {say("ring"), "ring"},
         {say("blade"), "blade"},
         {say("ferrule"), "ferrule"},
         {say("bare under a screw"), "bare"},
         {say("pin"), "pin"},
         {say("splice"), "splice"}},
        [get] { return get() ? Id(enum_name(get()->kind)) : Id(); },
        [set](const Id& kind) {
            set(say("terminal"), [&](RunEnd& e) { e.kind = *enum_named<EndKind>(kind); });
        });
    form_->choice(
        at_from ? say("Angle") : say("Angle there"),
        {{say("straight"), "0"}, {say("45°"), "45"}, {say("90°"), "90"}},
        [get] { return get() ? Id(words::number(get()->angle_deg.value_or(0))) : Id(); },
        [set](const Id& angle) {
            set(say("angle"), [&](RunEnd& e) {
                e.angle_deg = angle == "0" ? std::nullopt : std::optional(angle == "45" ? 45.0 : 90.0);
            });
        });
    form_->check(
        at_from ? say("a cap over it") : say("a cap over it there"), [get] { return get() && get()->boot; },
        [set](bool on) { set(say("cap"), [&](RunEnd& e) { e.boot = on; }); });
    form_->check(
        at_from ? say("shrink twice, at a sharp edge") : say("shrink twice there, at a sharp edge"),
        [get] { return get() && get()->doubled; },
        [set](bool on) { set(say("shrink"), [&](RunEnd& e) { e.doubled = on; }); });
}

void BuildPage::side_of_diagram() {
    auto* head = line(say("The circuit"));
    head->setFont(type_font(Type::title));
    if (const Diagram* d = diagram_->diagram()) {
        for (std::size_t k = 0; k < d->sheets.size(); ++k) {
            const QString name = say("Sheet %1: %2").arg(k + 1).arg(q(d->sheets[k].title));
            if (k == diagram_->sheet())
                line(name.toHtmlEscaped())->setFont(type_font(Type::bold));
            else
                link(name, say("Page up and down as well"), [this, k] { diagram_->show_sheet(k); });
        }
    }
    line(say("Each line says its number, size, colour and length; boxes their fuses; “see 3/B2” is sheet 3, "
             "zone "
             "B2. Symbols after IEC 60617, terminal numbers of DIN 72552, both from memory."),
         "soft");
    line(say("A click chooses a thing everywhere. Drag moves the sheet, the wheel or + and − make it larger, "
             "0 "
             "shows it as at first."),
         "soft");
    link(say("Dossier as PDF…"), say("Everything that whoever builds or repairs it needs"), [this] {
        const QString path = QFileDialog::getSaveFileName(window(), say("Dossier"),
                                                          QStringLiteral("dossier.pdf"), say("PDF (*.pdf)"));
        if (!path.isEmpty()) save_dossier(path);
    });
}

void BuildPage::side_of_work() {
    const Plan& plan = document_->plan();
    auto* head = line(say("Order of work"));
    head->setFont(type_font(Type::title));
    sentences_ << q(words::sentence(work_->order()));
    line(sentences_.back().toHtmlEscaped());
    if (const WorkStep* next = work_->next()) {
        line(say("Next"), "soft");
        sentences_ << q(words::sentence(plan, *next));
        line(sentences_.back().toHtmlEscaped())->setFont(type_font(Type::bold));
        for (const WorkCaution c : next->cautions) line(q(words::work_caution(c)).toHtmlEscaped(), "fix");
    }
    line(say("First power"))->setFont(type_font(Type::bold));
    for (const std::string& l : words::before_first_power(plan)) line(q(l).toHtmlEscaped(), "soft");
    if (!power_.answer()) {
        line(say("What the lamp shows is being worked out…"), "soft");
        return;
    }
    int n = 0;
    for (const PowerRound& r : *power_.answer()) {
        line(say("%1: %2")
                 .arg(q(words::capital(yr::name_of(plan, r.battery))), q(yr::name_of(plan, r.run)))
                 .toHtmlEscaped())
            ->setFont(type_font(Type::bold));
        for (const PowerStep& s : r.steps)
            line((QStringLiteral("%1  ").arg(++n) + q(words::sentence(plan, s))).toHtmlEscaped());
    }
}

void BuildPage::side_of_quote() {
    auto* head = line(say("What it costs"));
    head->setFont(type_font(Type::title));
    if (!quote_->ready()) {
        line(say("It is being added up…"), "soft");
        return shop_form();
    }
    for (const auto& [what, much] : words::quote_sums(quote_->quote())) {
        sentences_ << q(what) + QStringLiteral(": ") + q(much);
        line(sentences_.back().toHtmlEscaped());
    }
    line(say("To be ordered"))->setFont(type_font(Type::bold));
    for (const OrderList& list : order_lists(quote_->quote())) {
        sentences_ << q(words::sentence(list));
        line(sentences_.back().toHtmlEscaped());
    }
    line(say("Prices are typed in the table: each, pack, supplier, date. Hours are typical minutes as a "
             "range."),
         "soft");
    into_ = after_;
    for (const QuoteView::Option& o : quote_->options()) {
        line(say("Changing to %1 from here").arg(q(o.name)).toHtmlEscaped())->setFont(type_font(Type::bold));
        for (const std::string& change : o.changes) {
            sentences_ << q(change);
            line(sentences_.back().toHtmlEscaped());
        }
        sentences_ << (o.changes.empty() ? say("Nothing changes.")
                                         : say("%1 more work.").arg(q(words::minutes_text(o.minutes))));
        line(sentences_.back().toHtmlEscaped());
    }
    shop_form();
}

void BuildPage::shop_form() {
    if (form_ && form_of_ == "shop") return form_->refresh();
    form_of_ = "shop";
    form_ = new FieldForm([this] { return document_->style(); });
    form_->heading(say("The shop"));
    const auto field = [this](const QString& label, Dimension dimension,
                              std::optional<double> Policy::*member, double most) {
        form_->quantity(
            label, dimension, [this, member] { return document_->plan().policy.*member; },
            [this, member, label](std::optional<double> v) {
                Policy policy = document_->plan().policy;
                policy.*member = v;
                return document_->apply(SetPolicy{policy}, label);
            },
            true, {}, 0, most);
    };
    field(say("An hour costs"), Dimension::number, &Policy::rate_h, 1e7);
    field(say("Travel"), Dimension::number, &Policy::travel, 1e7);
    field(say("Consumables"), Dimension::fraction, &Policy::consumables, 1);
    field(say("Margin"), Dimension::fraction, &Policy::margin, 5);
    field(say("Tax"), Dimension::fraction, &Policy::tax, 1);
    form_->heading(say("The job"));
    const auto text = [this](const QString& label, std::string Vehicle::*member) {
        form_->text(
            label, [this, member] { return q(document_->plan().vehicle.*member); },
            [this, member, label](const QString& typed) {
                Vehicle vehicle = document_->plan().vehicle;
                vehicle.*member = typed.trimmed().toStdString();
                if (!(vehicle == document_->plan().vehicle)) document_->apply(SetVehicle{vehicle}, label);
                return QString();
            },
            say("for printed pages alone"));
    };
    text(say("Customer"), &Vehicle::customer);
    text(say("Registration"), &Vehicle::registration);
    text(say("Date"), &Vehicle::job_date);
    form_place_->addWidget(form_);
}

}  // namespace yr::app
