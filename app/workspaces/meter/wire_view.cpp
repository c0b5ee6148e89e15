#include "workspaces/meter/wire_view.h"

#include <QHeaderView>
#include <QLabel>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

#include "text/say.h"
#include "units/quantity.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "words/wire_words.h"

namespace yr::app {

WireView::WireView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* words = new QLabel(say(
        "Black on the battery's minus, red on the bare end of the wire; nothing hooked up to it. Do what a "
        "line says, type what the meter shows: double-click its cell. The line in bold tells most."));
    words->setWordWrap(true);
    words->setObjectName(QStringLiteral("soft"));
    words->setContentsMargins(16, 4, 16, 4);
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels({say("do this"), say("it shows, V"), say("cables that are live then")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    table_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                            QAbstractItemView::SelectedClicked);
    table_->setAccessibleName(say("What the wire shows"));
    table_->header()->setFont(type_font(Type::small));
    make_handy(table_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(words);
    column->addWidget(table_, 1);
    connect(table_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int column_of) {
        if (filling_ || column_of != volts) return;
        const auto attempt = static_cast<std::size_t>(item->data(0, Qt::UserRole).toInt());
        const QString text = item->text(volts);
        QTimer::singleShot(0, this, [this, attempt, text] { read(attempt, text); });
    });
}

void WireView::refresh() {
    const quint64 now = document_->store().generation();
    if (book_of_ != now) book_ = wire_book(document_->plan()), book_of_ = now;
    fill();
}

void WireView::begin_anew() {
    read_.clear();
    fill();
    emit changed();
}

bool WireView::any_read() const {
    return !read_.empty();
}

void WireView::read(std::size_t attempt, const QString& text) {
    if (attempt >= book_.tries.size()) return;
    const WireTry& t = book_.tries[attempt];
    const auto value = parse_reading(text.trimmed().toStdString(), Dimension::voltage);
    if (!text.trimmed().isEmpty() && !value) {
        document_->store().refuse(q(words::sentence(value.error())));
    } else {
        std::erase_if(read_, [&](const auto& r) { return r.first == t; });
        if (value && !text.trimmed().isEmpty()) read_.emplace_back(t, *value);
    }
    fill();
    emit changed();
}

void WireView::fill() {
    std::vector<std::optional<double>> read(book_.tries.size());
    for (const auto& [t, v] : read_)
        for (std::size_t k = 0; k < read.size(); ++k)
            if (book_.tries[k] == t) read[k] = v;
    verdict_ = judge_wire(document_->plan(), book_, read);
    filling_ = true;
    {
        const Refill refill(table_);
        for (std::size_t k = 0; k < book_.tries.size(); ++k) {
            auto* item = new TableRow(table_);
            item->setData(0, Qt::UserRole, static_cast<int>(k));
            item->setFlags(item->flags() | Qt::ItemIsEditable);
            item->setText(what, q(words::sentence(document_->plan(), book_.tries[k])));
            item->setToolTip(what, item->text(what));
            if (read[k]) item->setText(volts, q(words::number(*read[k])));
            const auto live = std::count_if(verdict_.fits.begin(), verdict_.fits.end(), [&](std::size_t w) {
                return book_.wires[w].volts_V[k] > document_->plan().vehicle.nominal_V / 2;
            });
            item->setText(leaves, say("%1 of %2").arg(live).arg(verdict_.fits.size()));
            for (const int c : {volts, leaves}) item->setTextAlignment(c, Qt::AlignRight);
            if (verdict_.next == k)
                for (const int c : {what, volts, leaves}) item->setFont(c, type_font(Type::bold));
        }
    }
    const int widths[] = {420, 110, 160};
    for (int k = 0; k < 3; ++k) table_->header()->resizeSection(k, widths[k]);
    filling_ = false;
}

}  // namespace yr::app

#include "moc_wire_view.cpp"
