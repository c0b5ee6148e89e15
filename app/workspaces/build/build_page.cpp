#include "workspaces/build/build_page.h"

#include <QDate>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QTimer>
#include <algorithm>

#include "io/table_xlsx.h"
#include "plan/names.h"
#include "widgets/side_panel.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/build_words.h"
#include "words/sentences.h"
#include "workspaces/build/labels.h"

namespace yr::app {
namespace {

constexpr int kSide_px = 300;
const QString kParts = QStringLiteral("parts"), kWires = QStringLiteral("wires"),
              kLooms = QStringLiteral("looms");
const QString kBought = QStringLiteral("bought"), kMade = QStringLiteral("made");

QString shown(const SheetCell& cell) {
    if (const auto* number = std::get_if<double>(&cell)) return q(words::number(*number, 4));
    return q(std::get<std::string>(cell));
}

}  // namespace

BuildPage::BuildPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("build"), say("Build"), parent) {
    bench_ = new BenchView(document_);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(bench_);
    parts_ = make_table({say("bought"), say("kind"), say("what"), say("how much"), say("unit"), say("price"),
                         say("used at"), say("known")},
                        say("Parts"));
    wires_ =
        make_table({say("number"), say("cable"), say("from"), say("to"), say("size"), say("colour"),
                    say("length, m"), say("pieces"), say("end"), say("other end"), say("loom"), say("fuse")},
                   say("Wires"));
    parts_words_ = filter_line(parts_), wires_words_ = filter_line(wires_);
    const auto with_words = [](QTreeWidget* table, QLineEdit* words) {
        auto* page = new QWidget;
        auto* column = new QVBoxLayout(page);
        column->setContentsMargins(0, 0, 0, 0);
        column->setSpacing(0);
        auto* row = new QHBoxLayout;
        row->setContentsMargins(12, 2, 12, 2);
        row->addStretch();
        row->addWidget(words);
        column->addLayout(row);
        column->addWidget(table, 1);
        return page;
    };
    pages_ = new QStackedWidget;
    pages_->addWidget(scroll);
    pages_->addWidget(with_words(parts_, parts_words_));
    pages_->addWidget(with_words(wires_, wires_words_));
    looms_ = new LoomView(document_);
    auto* board = new QScrollArea;
    board->setWidgetResizable(true);
    board->setFrameShape(QFrame::NoFrame);
    board->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    board->setWidget(looms_);
    pages_->addWidget(board);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(0);
    left->addWidget(make_head());
    left->addWidget(pages_, 1);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addLayout(left, 1);
    row->addWidget(make_side());
    connect(&document_->store(), &PlanStore::edited, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&document_->selection(), &Selection::chosen, this, [this] {
        if (isVisible()) fill_side();
    });
    connect(&cutting_, &JobBase::done, this, &BuildPage::fill_bench);
    // behind the click: the tick changes the plan, and with it the list is filled anew
    connect(parts_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int column) {
        if (column != 0 || filling_) return;
        const std::string about = item->data(0, Qt::UserRole).toString().toStdString();
        const bool done = item->checkState(0) == Qt::Checked;
        QTimer::singleShot(0, this, [this, about, done] { mark(kBought, about, done); });
    });
    connect(wires_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item) {
        document_->selection().choose(item->data(0, Qt::UserRole).toString().toStdString());
    });
}

QTreeWidget* BuildPage::make_table(const QStringList& heads, const QString& name) {
    auto* table = new QTreeWidget;
    table->setObjectName(QStringLiteral("table"));
    table->setHeaderLabels(heads);
    table->setRootIsDecorated(false);
    table->setIndentation(0);
    table->setAllColumnsShowFocus(true);
    table->setAccessibleName(name);
    table->header()->setFont(type_font(Type::small));
    make_handy(table);
    return table;
}

QWidget* BuildPage::make_head() {
    auto* head = new QWidget;
    auto* row = new QHBoxLayout(head);
    row->setContentsMargins(16, 6, 12, 4);
    row->setSpacing(4);
    const QString names[] = {say("Bench"), say("Parts"), say("Wires"), say("Looms")};
    const QString tips[] = {say("Rolls and the pieces cut from them"), say("What is to be bought"),
                            say("Every cable: number, ends, size, colour, length, fuse"),
                            say("What lies along the same ways, flat and true to length")};
    for (int k = 0; k < 4; ++k) {
        words_[k] = new QToolButton;
        words_[k]->setText(names[k]);
        words_[k]->setToolTip(tips[k]);
        words_[k]->setCheckable(true);
        words_[k]->setObjectName(QStringLiteral("state"));
        words_[k]->setMinimumHeight(30);
        connect(words_[k], &QToolButton::clicked, this, [this, k] {
            open_view(k == 0 ? QString() : k == 1 ? kParts : k == 2 ? kWires : kLooms);
        });
        row->addWidget(words_[k]);
    }
    row->addStretch();
    auto* several = new QLabel(say("Vehicles alike"));
    several->setObjectName(QStringLiteral("soft"));
    vehicles_ = new QSpinBox;
    vehicles_->setRange(1, 1000);
    vehicles_->setAccessibleName(say("So many vehicles alike"));
    vehicles_->setMinimumHeight(28);
    connect(vehicles_, &QSpinBox::valueChanged, this, [this] {
        if (isVisible()) refresh();
    });
    row->addWidget(several);
    row->addWidget(vehicles_);
    words_[0]->setChecked(true);
    return head;
}

QWidget* BuildPage::make_side() {
    QVBoxLayout* column = nullptr;
    QScrollArea* side = side_panel(kSide_px, column);
    lines_ = new QVBoxLayout, after_ = new QVBoxLayout, form_place_ = new QVBoxLayout;
    lines_->setSpacing(5), after_->setSpacing(5);
    card_ = new CardView(document_);
    column->addLayout(lines_);
    column->addWidget(card_);
    column->addLayout(after_);
    column->addLayout(form_place_);
    column->addStretch();
    return side;
}

std::vector<WorkspaceView> BuildPage::views() const {
    return {{kParts, say("Parts"), false}, {kWires, say("Wires"), false}, {kLooms, say("Looms"), false}};
}

bool BuildPage::open_view(const QString& key) {
    if (!key.isEmpty() && !has_view(key)) return false;
    pages_->setCurrentIndex(key == kParts ? 1 : key == kWires ? 2 : key == kLooms ? 3 : 0);
    for (int k = 0; k < 4; ++k) words_[k]->setChecked(k == pages_->currentIndex());
    return true;
}

QString BuildPage::open_view() const {
    const QString keys[] = {QString(), kParts, kWires, kLooms};
    return keys[pages_->currentIndex()];
}

void BuildPage::entered() {
    if (pages_->currentIndex() == 0) bench_->setFocus();
}

void BuildPage::showEvent(QShowEvent* event) {
    Workspace::showEvent(event);
    refresh();
}

void BuildPage::finish() {
    refresh();
    if (cutting_.running()) cutting_.finish();
}

// Pieces that are made are cut no more: the bench shows them, the rolls are reckoned with all of them so that
// what lies on the bench stays where it lies.
void BuildPage::refresh() {
    table_ = wire_table(document_->plan());
    list_ = parts_of(document_->plan(), {vehicles_->value(), true, true});
    cutting_.start(document_->store().generation(),
                   [plan = document_->plan(), vehicles = vehicles_->value()](const Task& task) {
                       return cut_plan(plan, vehicles, task.cancel());
                   });
    looms_->show(flat_looms(document_->plan(), route_all(document_->plan())));
    fill_parts();
    fill_wires();
    fill_side();
}

void BuildPage::fill_bench() {
    if (!cutting_.current(document_->store().generation())) return;
    std::set<Id> made;
    for (const Mark& m : document_->plan().marks)
        if (m.name == kMade.toStdString()) made.insert(m.about);
    bench_->show(*cutting_.answer(), table_, made);
}

void BuildPage::fill_parts() {
    filling_ = true;
    {
        const Refill refill(parts_, parts_words_);
        const Sheet sheet = words::parts_sheet(document_->plan(), list_);
        for (std::size_t k = 0; k < list_.size(); ++k) {
            auto* item = new TableRow(parts_);
            item->setData(0, Qt::UserRole, q(list_[k].key));
            item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
            item->setCheckState(0, is_marked(kBought, list_[k].key) ? Qt::Checked : Qt::Unchecked);
            for (std::size_t c = 0; c < sheet.rows[k].size(); ++c) {
                const int column = static_cast<int>(c) + 1;
                item->setText(column, shown(sheet.rows[k][c]));
                if (std::holds_alternative<double>(sheet.rows[k][c]))
                    item->setTextAlignment(column, Qt::AlignRight);
            }
        }
    }
    const int widths[] = {64, 120, 190, 72, 56, 60, 220, 90};
    for (int k = 0; k < 8; ++k) parts_->header()->resizeSection(k, widths[k]);
    filling_ = false;
}

void BuildPage::fill_wires() {
    {
        const Refill refill(wires_, wires_words_);
        const Sheet sheet = words::wires_sheet(document_->plan(), table_);
        for (std::size_t k = 0; k < table_.size(); ++k) {
            auto* item = new TableRow(wires_);
            item->setData(0, Qt::UserRole, q(document_->plan().runs[table_[k].run].id));
            for (std::size_t c = 0; c < sheet.rows[k].size(); ++c) {
                item->setText(static_cast<int>(c), shown(sheet.rows[k][c]));
                if (std::holds_alternative<double>(sheet.rows[k][c]))
                    item->setTextAlignment(static_cast<int>(c), Qt::AlignRight);
            }
        }
    }
    const int widths[] = {56, 150, 130, 130, 70, 60, 70, 52, 150, 150, 160, 60};
    for (int k = 0; k < 12; ++k) wires_->header()->resizeSection(k, widths[k]);
}

// ---- the side

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
    clear_lines(lines_);
    clear_lines(after_);
    sentences_.clear();
    into_ = lines_;
    const Plan& plan = document_->plan();
    const WireRow* w = wire_of(document_->selection().id());
    card_->setVisible(w != nullptr);
    if (!w) {
        if (form_) form_->hide(), form_->deleteLater();
        form_ = nullptr, form_of_.clear();
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
        link(say("Labels as PDF…"),
             say("Both ends of every cable, the lid of each box with a code, the panel"), [this] {
                 const QString path = QFileDialog::getSaveFileName(
                     window(), say("Labels"), QStringLiteral("labels.pdf"), say("PDF (*.pdf)"));
                 if (!path.isEmpty()) save_labels(path);
             });
        for (const FlatLoom& l : looms_->looms())
            if (l.runs.size() > 2)
                link(say("Loom along %1 at 1:1 as PDF…").arg(q(l.name)),
                     say("In tiles, with marks to glue by and its pin table"), [this, name = q(l.name)] {
                         const QString path = QFileDialog::getSaveFileName(
                             window(), say("Loom"), QStringLiteral("loom.pdf"), say("PDF (*.pdf)"));
                         if (!path.isEmpty()) save_loom(name, path);
                     });
        link(say("Parts, wires and cuts for a spreadsheet…"), say("One workbook of three sheets"), [this] {
            const QString path = QFileDialog::getSaveFileName(
                window(), say("Workbook"), QStringLiteral("build.xlsx"), say("Workbooks (*.xlsx)"));
            if (!path.isEmpty()) save_tables(path);
        });
        line(say("A lug that does not fit its bolt is exchanged, never drilled out. Crimps are pulled before "
                 "they are "
                 "covered."),
             "soft");
        return;
    }
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

// ---- acts

bool BuildPage::is_marked(const QString& name, const std::string& about) const {
    const auto& marks = document_->plan().marks;
    return std::any_of(marks.begin(), marks.end(),
                       [&](const Mark& m) { return m.name == name.toStdString() && m.about == about; });
}

void BuildPage::mark(const QString& name, const std::string& about, bool done) {
    const Plan& plan = document_->plan();
    if (done == is_marked(name, about)) return;
    if (done) {
        Mark m;
        m.id = new_id(plan, "mark"), m.name = name.toStdString(), m.about = about;
        m.when = QDate::currentDate().toString(Qt::ISODate).toStdString();
        document_->apply(Put<Mark>{m, {}}, name == kMade ? say("made") : say("bought"));
        return;
    }
    for (const Mark& m : plan.marks)
        if (m.name == name.toStdString() && m.about == about) {
            document_->apply(Remove<Mark>{m.id}, say("not yet after all"));
            return;
        }
}

void BuildPage::save_labels(const QString& path) {
    const auto page =
        QLocale().measurementSystem() == QLocale::ImperialUSSystem ? QPageSize::Letter : QPageSize::A4;
    const auto written = write_labels(document_->plan(), path, page, true);
    if (!written) return document_->store().refuse(q(words::sentence(written.error())));
    emit said(say("%1 written.").arg(QFileInfo(path).fileName()));
}

void BuildPage::save_loom(const QString& name, const QString& path) {
    const auto page =
        QLocale().measurementSystem() == QLocale::ImperialUSSystem ? QPageSize::Letter : QPageSize::A4;
    const auto pages = write_loom(document_->plan(), name, path, page, true);
    if (!pages) return document_->store().refuse(q(words::sentence(pages.error())));
    emit said(say_n("%1 written, %n page.", "%1 written, %n pages.", *pages).arg(QFileInfo(path).fileName()));
}

void BuildPage::save_tables(const QString& path) {
    if (!cutting_.current(document_->store().generation())) finish();
    const auto written = write_xlsx(
        path.toStdString(),
        {words::parts_sheet(document_->plan(), list_), words::wires_sheet(document_->plan(), table_),
         words::cuts_sheet(document_->plan(), *cutting_.answer())},
        true);
    if (!written) return document_->store().refuse(q(words::sentence(written.error())));
    emit said(say("%1 written.").arg(QFileInfo(path).fileName()));
}

std::vector<WorkspacePicture> BuildPage::pictures() {
    return {{QStringLiteral("build.png"),
             [this] {
                 emit go_to(key(), {});
                 for (const Run& r : document_->plan().runs)
                     if (r.name == "rear box feed") document_->selection().choose(r.id);
                 finish();
             }},
            {QStringLiteral("build-looms.png"), [this] {
                 emit go_to(key(), kLooms);
                 document_->selection().choose({});
                 finish();
             }}};
}

}  // namespace yr::app
