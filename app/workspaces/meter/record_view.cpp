#include "workspaces/meter/record_view.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

#include "text/say.h"
#include "units/quantity.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {

RecordView::RecordView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    lines_ = plain_table(
        {say("when"), say("by"), say("what"), say("read"), say("should be"), say("verdict"), say("note")},
        say("Record of the vehicle"));
    make_handy(lines_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(lines_, 1);
    column->addWidget(make_entry());
}

// What thing, what of it: kept as a line of its own, or as a correction of the chosen one.
QWidget* RecordView::make_entry() {
    auto* bar = new QWidget;
    bar->setObjectName(QStringLiteral("entry"));
    about_ = new QComboBox;
    about_->setAccessibleName(say("What the line is about"));
    about_->setMinimumContentsLength(14);
    about_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    note_ = new QLineEdit;
    note_->setAccessibleName(say("What was built otherwise, serial number, date code, warranty"));
    note_->setPlaceholderText(say("serial no. 4711, warranty until 2029-03"));
    note_->setToolTip(say("What was built otherwise than planned, a serial number, a date code, a warranty"));
    keep_ = new QPushButton(say("Add as built"));
    keep_->setToolTip(say("A line of the record about this thing"));
    correct_ = new QPushButton(say("Correct the chosen line"));
    correct_->setToolTip(
        say("A later line that puts it right; a number in front is the value that was really read"));
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(16, 8, 12, 8);
    row->addWidget(about_, 1);
    row->addWidget(note_, 2);
    row->addWidget(keep_);
    row->addWidget(correct_);
    const auto done = [this](bool kept) {
        if (kept)
            note_->clear();
        else
            document_->store().refuse(problem_);
        emit changed();
    };
    connect(keep_, &QPushButton::clicked, this,
            [this, done] { done(add_built(about_->currentData().toString().toStdString(), note_->text())); });
    connect(note_, &QLineEdit::returnPressed, keep_, &QPushButton::click);
    connect(correct_, &QPushButton::clicked, this,
            [this, done] { done(correct(chosen_number(), note_->text())); });
    return bar;
}

void RecordView::fill_things() {
    const QVariant was = about_->currentData();
    about_->clear();
    about_->addItem(say("the whole vehicle"), QString());
    const Plan& plan = document_->plan();
    const auto add = [this](const auto& things) {
        for (const auto& thing : things) about_->addItem(q(thing.name), q(thing.id));
    };
    add(plan.batteries), add(plan.sources), add(plan.inverters), add(plan.points), add(plan.loads),
        add(plan.runs);
    about_->setCurrentIndex(std::max(0, about_->findData(was)));
}

std::size_t RecordView::chosen_number() const {
    return lines_->currentItem() ? lines_->currentItem()->data(0, Qt::UserRole).toUInt() : 0;
}

QString RecordView::path() const {
    const QString plan = document_->store().path();
    return plan.isEmpty() ? QString() : q(records_path(plan.toStdString()));
}

void RecordView::refresh() {
    book_ = {};
    problem_.clear();
    if (!path().isEmpty()) {
        if (auto read = read_records(path().toStdString()))
            book_ = std::move(*read);
        else
            problem_ = q(words::sentence(read.error()));
    }
    built_.reset();
    if (!path().isEmpty() && problem_.isEmpty()) {
        auto built = as_built_of(document_->store().path().toStdString(), vehicle_of(document_->plan()));
        if (built)
            built_ = std::move(*built);
        else
            problem_ = q(words::sentence(built.error()));
    }
    fill_things();
    const Refill refill(lines_);
    const auto records = records_of(book_, document_->plan());
    const Sheet sheet = words::record_sheet(document_->plan(), records);
    for (std::size_t k = 0; k < sheet.rows.size(); ++k) {
        const auto& row = sheet.rows[k];
        auto* item = new TableRow(lines_);
        item->setData(0, Qt::UserRole, static_cast<uint>(records[k].number));
        for (std::size_t c = 0; c < row.size(); ++c)
            if (const auto* text = std::get_if<std::string>(&row[c]))
                item->setText(static_cast<int>(c), q(*text));
        // to the minute, as one reads it
        item->setText(0, item->text(0).replace(QLatin1Char('T'), QLatin1Char(' ')).left(16));
    }
    const int widths[] = {152, 40, 150, 74, 88, 56};  // the note has what is left
    for (int k = 0; k < 6; ++k) lines_->header()->resizeSection(k, widths[k]);
}

std::vector<Drift> RecordView::drifted() const {
    return drifts(records_of(book_, document_->plan()));
}

void RecordView::signed_by_me(Record& record) const {
    record.when = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    if (record.by.empty()) record.by = qEnvironmentVariable("USER").toStdString();
}

bool RecordView::add_built(const Id& thing, const QString& text) {
    if (text.trimmed().isEmpty()) {
        problem_ =
            say("Type what is to be kept first: a serial number, a warranty, what was built otherwise.");
        return false;
    }
    Record r;
    r.kind = RecordKind::as_built, r.about = thing, r.note = text.trimmed().toStdString();
    return add(std::move(r));
}

bool RecordView::correct(std::size_t number, const QString& text) {
    if (number == 0 || text.trimmed().isEmpty()) {
        problem_ = number == 0 ? say("Choose the line that is to be corrected first.")
                               : say("Type what is right first.");
        return false;
    }
    Record r;
    r.kind = RecordKind::correction, r.corrects = number, r.note = text.trimmed().toStdString();
    for (const Record& earlier : book_.records)
        if (earlier.number == number && earlier.kind == RecordKind::reading) {
            const std::string first = r.note.substr(0, r.note.find_first_of(" ,;"));
            const auto value = parse_value(first, words::dimension_of(earlier.where.kind));
            if (!value) break;
            r.value = *value;
            const bool good =
                earlier.low && earlier.high && *value >= *earlier.low && *value <= *earlier.high;
            r.verdict = !earlier.low || !earlier.high ? "cannot tell"
                        : good                        ? "good"
                        : *value > *earlier.high      ? "high"
                                                      : "low";
        }
    return add(std::move(r));
}

bool RecordView::keep_as_built() {
    if (path().isEmpty()) {
        problem_ = say("The plan was never saved: save it, and the record is kept beside it.");
        return false;
    }
    Record line;
    signed_by_me(line);
    const auto kept =
        yr::keep_as_built(document_->plan(), document_->store().path().toStdString(), std::move(line));
    if (!kept) problem_ = q(words::sentence(kept.error()));
    if (kept) refresh();
    return kept.has_value();
}

bool RecordView::add(Record record) {
    if (path().isEmpty()) {
        problem_ = say("The plan was never saved: save it, and the record is kept beside it.");
        return false;
    }
    signed_by_me(record);
    record.vehicle = vehicle_of(document_->plan());
    record.instrument = document_->plan().policy.meter.name;
    const auto added = append_record(path().toStdString(), std::move(record));
    if (!added) {
        problem_ = q(words::sentence(added.error()));
        return false;
    }
    refresh();
    return true;
}

}  // namespace yr::app

#include "moc_record_view.cpp"
