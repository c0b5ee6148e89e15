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
#include "words/work_words.h"
#include "workspaces/build/dossier.h"
#include "workspaces/build/labels.h"

namespace yr::app {
namespace {

constexpr int kSide_px = 300;
constexpr ViewWord kViews[] = {
    {"", words::later("Bench"), words::later("Rolls and the pieces cut from them")},
    {"parts", words::later("Parts"), words::later("What is to be bought")},
    {"wires", words::later("Wires"), words::later("Every cable: number, ends, size, colour, length, fuse")},
    {"looms", words::later("Looms"), words::later("What lies along the same ways, flat and true to length")},
    {"diagram", words::later("Diagram"),
     words::later("The circuit, sheet by sheet, for whoever has to understand it")},
    {"work", words::later("Work"), words::later("What is done in what order, place by place")},
    {"quote", words::later("Quote"), words::later("What it costs, and what a change costs from here")},
    {"times", words::later("Times"), words::later("Your own minutes and torques beside the typical ones")}};
const QString kBought = QStringLiteral("bought"), kTicked = QStringLiteral("made");

QString shown(const SheetCell& cell) {
    if (const auto* number = std::get_if<double>(&cell)) return q(words::number(*number, 4));
    return q(std::get<std::string>(cell));
}

}  // namespace

BuildPage::BuildPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("build"), say("Build"), parent), words_(kViews) {
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
    diagram_ = new DiagramView(document_);
    work_ = new WorkView(document_);
    quote_ = new QuoteView(document_);
    pages_->addWidget(diagram_);
    pages_->addWidget(work_);
    pages_->addWidget(quote_);
    times_ = new TimesView(document_);
    pages_->addWidget(times_);
    connect(diagram_, &DiagramView::sheets_changed, this, [this] {
        if (isVisible()) fill_side();
    });
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
    connect(quote_, &QuoteView::worked_out, this, [this] {
        if (pages_->currentIndex() == kQuote) fill_side();
    });
    connect(&power_, &JobBase::done, this, [this] {
        if (pages_->currentIndex() == kWork) fill_side();
    });
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
    words_.add_to(row, [this](const QString& key) { open_view(key); });
    row->addStretch();
    auto* several = new QLabel(say("Alike"));
    several->setObjectName(QStringLiteral("soft"));
    several->setToolTip(say("So many vehicles alike"));
    vehicles_ = new QSpinBox;
    vehicles_->setRange(1, 1000);
    vehicles_->setAccessibleName(say("So many vehicles alike"));
    vehicles_->setMinimumHeight(28);
    connect(vehicles_, &QSpinBox::valueChanged, this, [this] {
        if (isVisible()) refresh();
    });
    row->addWidget(several);
    row->addWidget(vehicles_);
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
    std::vector<WorkspaceView> all;
    for (const ViewWord& view : kViews)
        if (*view.key) all.push_back({QString::fromLatin1(view.key), q(words::translated(view.name)), false});
    return all;
}

bool BuildPage::open_view(const QString& key) {
    if (!key.isEmpty() && !has_view(key)) return false;
    words_.show(key, pages_);
    if (isVisible()) refresh_page(), fill_side();
    return true;
}

QString BuildPage::open_view() const {
    return words_.key_of(pages_->currentIndex());
}

void BuildPage::entered() {
    if (pages_->currentIndex() == kBench) bench_->setFocus();
}

void BuildPage::showEvent(QShowEvent* event) {
    Workspace::showEvent(event);
    refresh();
}

void BuildPage::finish() {
    refresh_table();
    refresh_bench();
    refresh_parts();
    fill_wires();
    refresh_page();
    fill_side();
    if (cutting_.running()) cutting_.finish();
    if (pages_->currentIndex() == kDiagram) diagram_->finish();
    if (pages_->currentIndex() == kQuote) quote_->finish();
    if (power_.running()) power_.finish();
}

// What is worked out only while it is looked at; a tick in the order of work waits for none of the rest.
void BuildPage::refresh() {
    refresh_table();
    refresh_page();
    fill_side();
}

// Rows name runs by their place in the plan: of another plan they mean nothing.
void BuildPage::refresh_table() {
    if (table_of_ == document_->store().generation() && !table_.empty()) return;
    table_ = wire_table(document_->plan());
    table_of_ = document_->store().generation();
}

void BuildPage::refresh_page() {
    switch (pages_->currentIndex()) {
        case kBench:
            refresh_bench();
            break;
        case kParts:
            refresh_parts();
            break;
        case kWires:
            fill_wires();
            break;
        case kLooms:
            looms_->show(flat_looms(document_->plan(), route_all(document_->plan())));
            break;
        case kDiagram:
            diagram_->refresh();
            break;
        case kWork:
            work_->refresh();
            power_.start(document_->store().generation(),
                         [plan = document_->plan()](const Task&) { return first_power(plan); });
            break;
        case kQuote:
            quote_->refresh(vehicles_->value());
            break;
        case kTimes:
            times_->refresh();
            break;
        default:
            break;
    }
}

// Pieces that are made are cut no more: the bench shows them, the rolls are reckoned with all of them so that
// what lies on the bench stays where it lies.
void BuildPage::refresh_bench() {
    cutting_.start(document_->store().generation(),
                   [plan = document_->plan(), vehicles = vehicles_->value()](const Task& task) {
                       return cut_plan(plan, vehicles, task.cancel());
                   });
    looms_->show(flat_looms(document_->plan(), route_all(document_->plan())));
}

void BuildPage::refresh_parts() {
    list_ = parts_of(document_->plan(), {vehicles_->value(), true, true});
    fill_parts();
}

void BuildPage::fill_bench() {
    if (!cutting_.current(document_->store().generation())) return;
    std::set<Id> made;
    for (const Mark& m : document_->plan().marks)
        if (m.name == kTicked.toStdString()) made.insert(m.about);
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
        document_->apply(Put<Mark>{m, {}}, name == kTicked ? say("made") : say("bought"));
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

void BuildPage::save_dossier(const QString& path) {
    const auto page =
        QLocale().measurementSystem() == QLocale::ImperialUSSystem ? QPageSize::Letter : QPageSize::A4;
    const auto pages = write_dossier(document_->plan(), path, page, document_->store().path());
    if (!pages) return document_->store().refuse(q(words::sentence(pages.error())));
    emit said(say_n("%1 written, %n page.", "%1 written, %n pages.", *pages).arg(QFileInfo(path).fileName()));
}

void BuildPage::save_tables(const QString& path) {
    refresh_table();
    refresh_parts();
    if (!cutting_.current(document_->store().generation())) refresh_bench();
    if (cutting_.running()) cutting_.finish();
    std::vector<Sheet> sheets{words::parts_sheet(document_->plan(), list_),
                              words::wires_sheet(document_->plan(), table_),
                              words::cuts_sheet(document_->plan(), *cutting_.answer()),
                              words::kits_sheet(document_->plan(), *cutting_.answer())};
    for (const OrderList& list : order_lists(yr::quote(document_->plan(), {vehicles_->value(), true, true})))
        sheets.push_back(words::order_sheet(list));
    const auto written = write_xlsx(path.toStdString(), sheets, true);
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
            {QStringLiteral("build-diagram.png"),
             [this] {
                 emit go_to(key(), QStringLiteral("diagram"));
                 document_->selection().choose({});
                 finish();
             }},
            {QStringLiteral("build-work.png"), [this] {
                 emit go_to(key(), QStringLiteral("work"));
                 document_->selection().choose({});
                 finish();
                 work_->open_step(work_->next() ? work_->next()->key : std::string());
             }}};
}

}  // namespace yr::app

#include "moc_build_page.cpp"
