#include "workspaces/meter/record_view.h"

#include <QDateTime>
#include <QHeaderView>
#include <QVBoxLayout>

#include "text/say.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {

RecordView::RecordView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    lines_ = new QTreeWidget;
    lines_->setObjectName(QStringLiteral("table"));
    lines_->setHeaderLabels(
        {say("when"), say("by"), say("what"), say("read"), say("should be"), say("verdict"), say("note")});
    lines_->setRootIsDecorated(false);
    lines_->setIndentation(0);
    lines_->setAllColumnsShowFocus(true);
    lines_->setAccessibleName(say("Record of the vehicle"));
    lines_->header()->setFont(type_font(Type::small));
    make_handy(lines_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(lines_);
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
    const Refill refill(lines_);
    const Sheet sheet = words::record_sheet(document_->plan(), book_.of({}));
    for (const auto& row : sheet.rows) {
        auto* item = new TableRow(lines_);
        for (std::size_t c = 0; c < row.size(); ++c)
            if (const auto* text = std::get_if<std::string>(&row[c]))
                item->setText(static_cast<int>(c), q(*text));
    }
    const int widths[] = {140, 80, 260, 80, 150, 90, 160};
    for (int k = 0; k < 7; ++k) lines_->header()->resizeSection(k, widths[k]);
}

std::vector<Drift> RecordView::drifted() const {
    return drifts(book_.of({}));
}

bool RecordView::add(Record record) {
    if (path().isEmpty()) {
        problem_ = say("The plan was never saved: save it, and the record is kept beside it.");
        return false;
    }
    record.when = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    if (record.by.empty()) record.by = qEnvironmentVariable("USER").toStdString();
    record.vehicle = document_->plan().vehicle.registration.empty() ? document_->plan().vehicle.name
                                                                    : document_->plan().vehicle.registration;
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
