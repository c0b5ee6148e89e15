#include "panels/paste_loads.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>
#include <algorithm>

#include "control/circuit.h"
#include "document/own_library.h"
#include "panels/type_line.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kOwn = 2;          // columns of ours: understood, missing
constexpr int kMostShown = 200;  // rows of the preview; all are added

const std::pair<const char*, LoadColumn> kMeanings[] = {{"left out", LoadColumn::ignore},
                                                        {"a whole line", LoadColumn::line},
                                                        {"name", LoadColumn::name},
                                                        {"how many", LoadColumn::count},
                                                        {"draw, W A or ohm", LoadColumn::draw},
                                                        {"amps", LoadColumn::amps},
                                                        {"watts", LoadColumn::watts},
                                                        {"ohms", LoadColumn::ohms},
                                                        {"amps at start", LoadColumn::start_amps},
                                                        {"live when", LoadColumn::live},
                                                        {"length, m", LoadColumn::length_m},
                                                        {"length, ft", LoadColumn::length_ft},
                                                        {"cable size", LoadColumn::size},
                                                        {"fuse, A", LoadColumn::fuse},
                                                        {"volts", LoadColumn::volts},
                                                        {"place", LoadColumn::place},
                                                        {"feed", LoadColumn::feed},
                                                        {"allowed drop", LoadColumn::drop},
                                                        {"critical?", LoadColumn::critical},
                                                        {"note", LoadColumn::note},
                                                        {"share of the time", LoadColumn::duty},
                                                        {"channel", LoadColumn::channel}};

QString problem_of(const TypedLine& line) {
    QStringList problems;
    if (line.name.empty()) problems << say("no name");
    if (!line.draw) problems << say("no draw");
    if (!line.not_understood.empty()) {
        QStringList words;
        for (const auto& w : line.not_understood) words << q(w);
        problems << say("kept as a note: ") + words.join(QLatin1Char(' '));
    }
    return problems.join(QStringLiteral("; "));
}

}  // namespace

PasteLoads::PasteLoads(Document* document, const QString& text, QWidget* parent)
    : QDialog(parent), document_(document), loads_(read_loads_table(text.toStdString())) {
    setWindowTitle(say("Loads from a table"));
    resize(1200, 560);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(20, 16, 20, 16);
    column->setSpacing(8);
    summary_ = new QLabel;
    summary_->setWordWrap(true);
    const int width = static_cast<int>(loads_.columns.size());
    const int shown = std::min(kMostShown, static_cast<int>(loads_.rows.size()));
    table_ = new QTableWidget(shown + 1, width + kOwn);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->horizontalHeader()->hide();
    table_->verticalHeader()->hide();
    table_->setAccessibleName(say("The pasted table and what is understood of it"));
    for (int k = 0; k < width; ++k) {
        auto* box = new QComboBox;
        for (const auto& [name, meaning] : kMeanings)
            box->addItem(QString::fromUtf8(name), static_cast<int>(meaning));
        box->setCurrentIndex(box->findData(static_cast<int>(loads_.columns[static_cast<std::size_t>(k)])));
        box->setAccessibleName(say("Meaning of column %1").arg(k + 1));
        connect(box, &QComboBox::currentIndexChanged, this, [this, box, k] {
            loads_.columns[static_cast<std::size_t>(k)] = static_cast<LoadColumn>(box->currentData().toInt());
            read();
        });
        meanings_.push_back(box);
        table_->setCellWidget(0, k + kOwn, box);
        for (int n = 0; n < shown; ++n) {
            const CsvRow& row = loads_.rows[static_cast<std::size_t>(n)];
            table_->setItem(n + 1, k + kOwn,
                            new QTableWidgetItem(static_cast<std::size_t>(k) < row.size()
                                                     ? q(row[static_cast<std::size_t>(k)])
                                                     : QString()));
        }
    }
    table_->setItem(0, 0, new QTableWidgetItem(say("understood")));
    table_->setItem(0, 1, new QTableWidgetItem(say("missing or not understood")));
    auto* buttons = new QHBoxLayout;
    add_ = new QPushButton;
    add_->setObjectName(QStringLiteral("main"));
    auto* leave = new QPushButton(say("Leave it"));
    connect(add_, &QPushButton::clicked, this, &PasteLoads::accept);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    buttons->addStretch();
    buttons->addWidget(leave);
    buttons->addWidget(add_);
    column->addWidget(summary_);
    column->addWidget(table_, 1);
    column->addLayout(buttons);
    read();
    table_->setColumnWidth(0, 330);
    table_->setColumnWidth(1, 190);
    for (int k = 0; k < width; ++k) table_->setColumnWidth(k + kOwn, 122);
    table_->setRowHeight(0, 38);
    table_->setHorizontalScrollMode(QAbstractItemView::ScrollPerPixel);
}

void PasteLoads::set_meaning(int column, LoadColumn meaning) {
    QComboBox* box = meanings_[static_cast<std::size_t>(column)];
    box->setCurrentIndex(box->findData(static_cast<int>(meaning)));
}

int PasteLoads::ready() const {
    return static_cast<int>(
        std::count_if(rows_.begin(), rows_.end(), [](const auto& r) { return r.line.complete(); }));
}

void PasteLoads::read() {
    rows_ = read_rows(document_->plan(), loads_, &library());
    for (int n = 1; n < table_->rowCount(); ++n)
        for (int k = 0; k < kOwn; ++k) table_->setItem(n, k, new QTableWidgetItem);
    for (const TableLoad& r : rows_) {
        const int n = static_cast<int>(r.row) + 1;
        if (n >= table_->rowCount()) break;
        table_->item(n, 0)->setText(understood_text(r.line, document_->plan(), document_->style()));
        table_->item(n, 1)->setText(problem_of(r.line));
        table_->item(n, 0)->setToolTip(table_->item(n, 0)->text());
        table_->item(n, 1)->setToolTip(table_->item(n, 1)->text());
        table_->item(n, 1)->setForeground(tokens().fix);
    }
    const int good = ready(), all = static_cast<int>(rows_.size());
    QString text =
        all == 0 ? say("There is no table on the clipboard: copy rows from a spreadsheet, or lines of text.")
                 : say("%1 of %2 rows make a load. Say above each column what it holds.").arg(good).arg(all);
    if (static_cast<int>(loads_.rows.size()) > kMostShown)
        text += say(" The first %1 are shown.").arg(kMostShown);
    summary_->setText(text);
    add_->setText(good == 1 ? say("Add 1 load") : say("Add %1 loads").arg(good));
}

void PasteLoads::accept() {
    std::vector<TypedLine> lines;
    for (const TableLoad& r : rows_)
        if (r.line.complete()) lines.push_back(r.line);
    Batch batch;
    for (const auto& circuit : make_circuits(document_->plan(), lines)) {
        if (!circuit) {
            summary_->setText(q(words::sentence(circuit.error())));
            return;
        }
        batch.edits.push_back(circuit->edit);
    }
    if (batch.edits.empty()) {
        summary_->setText(say("No row makes a load yet: a name and a draw are needed."));
        return;
    }
    if (document_->apply(batch, add_->text().toLower())) QDialog::accept();
}

}  // namespace yr::app

#include "moc_paste_loads.cpp"
