#include "workspaces/meter/plug_view.h"

#include <QHBoxLayout>
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

PlugView::PlugView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    choice_ = new QComboBox;
    choice_->setAccessibleName(say("Loom or connector"));
    choice_->setMinimumHeight(30);
    auto* words = new QLabel(say(
        "Before the loom goes in: one end of every cable into a plug with these resistors to a common "
        "lead, then ohms from each far end to that lead. What is open, joined or exchanged reads something "
        "else."));
    words->setWordWrap(true);
    words->setObjectName(QStringLiteral("soft"));
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels({say("pin"), say("cable"), say("colour"), say("from, to"), say("resistor"),
                             say("it shows, Ω"), say("is")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    table_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                            QAbstractItemView::SelectedClicked);
    table_->setAccessibleName(say("Pins of the end plug"));
    table_->header()->setFont(type_font(Type::small));
    make_handy(table_);
    auto* row = new QHBoxLayout;
    row->setContentsMargins(16, 4, 16, 4);
    row->addWidget(words, 1);
    row->addWidget(choice_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addLayout(row);
    column->addWidget(table_, 1);
    connect(choice_, &QComboBox::activated, this, [this] {
        fill();
        emit changed();
    });
    connect(table_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int column_of) {
        if (filling_ || column_of != ohms) return;
        const auto at = static_cast<std::size_t>(item->data(0, Qt::UserRole).toInt());
        const QString text = item->text(ohms);
        QTimer::singleShot(0, this, [this, at, text] { read(at, text); });
    });
}

const EndPlug* PlugView::plug() const {
    const auto k = static_cast<std::size_t>(std::max(0, choice_->currentIndex()));
    return k < plugs_.size() ? &plugs_[k] : nullptr;
}

void PlugView::refresh() {
    const QString was = choice_->currentText();
    plugs_ = end_plugs(document_->plan(), flat_looms(document_->plan(), route_all(document_->plan())));
    choice_->clear();
    for (const EndPlug& p : plugs_)
        choice_->addItem(p.connector.empty() ? say("loom along %1").arg(q(p.name)) : q(p.name));
    if (const int k = choice_->findText(was); k >= 0) choice_->setCurrentIndex(k);
    choice_->setVisible(!plugs_.empty());
    fill();
}

std::size_t PlugView::done() const {
    const EndPlug* p = plug();
    if (!p) return 0;
    return static_cast<std::size_t>(std::count_if(p->runs.begin(), p->runs.end(), [&](const Id& run) {
        return read_ohm_.contains({p->name, run});
    }));
}

void PlugView::read(std::size_t row, const QString& text) {
    const EndPlug* p = plug();
    if (!p || row >= p->runs.size()) return;
    const std::pair<std::string, Id> key{p->name, p->runs[row]};
    if (text.trimmed().isEmpty()) {
        read_ohm_.erase(key);
    } else if (const auto v = parse_value(text.trimmed().toStdString(), Dimension::resistance);
               v && *v >= 0) {
        read_ohm_[key] = *v;
    } else {
        document_->store().refuse(v ? say("Ohms are not below 0.") : q(words::sentence(v.error())));
    }
    fill();
    emit changed();
}

void PlugView::fill() {
    wrong_ = 0;
    filling_ = true;
    {
        const Refill refill(table_);
        const EndPlug* p = plug();
        const Instrument meter = instrument_of(document_->plan());
        const std::size_t most = most_pins(meter);
        std::vector<std::optional<double>> read;
        for (const Id& run : p ? p->runs : std::vector<Id>{}) {
            const auto at = read_ohm_.find({p->name, run});
            read.push_back(at == read_ohm_.end() ? std::nullopt : std::optional(at->second));
        }
        for (std::size_t first = 0; p && most > 0 && first < p->runs.size(); first += most) {
            const CodedPlug code = coded_plug(std::min(most, p->runs.size() - first), meter);
            const std::vector<std::optional<double>> here(read.begin() + static_cast<std::ptrdiff_t>(first),
                                                          read.end());
            const Sheet sheet = words::plug_sheet(document_->plan(), *p, code, first, here);
            const auto verdicts = judge_plug(code, here, meter);
            for (std::size_t k = 0; k < sheet.rows.size(); ++k) {
                auto* item = new TableRow(table_);
                item->setData(0, Qt::UserRole, static_cast<int>(first + k));
                item->setFlags(item->flags() | Qt::ItemIsEditable);
                for (std::size_t c = 0; c < sheet.rows[k].size(); ++c) {
                    item->setText(static_cast<int>(c), q(std::get<std::string>(sheet.rows[k][c])));
                    item->setToolTip(static_cast<int>(c), item->text(static_cast<int>(c)));
                }
                if (first > 0) item->setText(pin, say("%1, second plug").arg(item->text(pin)));
                for (const int c : {resistor, ohms}) item->setTextAlignment(c, Qt::AlignRight);
                if (!verdicts[k] || verdicts[k]->kind == PlugVerdict::Kind::good) continue;
                ++wrong_;
                item->setForeground(is, tokens().stop);
            }
        }
    }
    const int widths[] = {45, 55, 60, 215, 80, 90, 135};
    for (int k = 0; k < 7; ++k) table_->header()->resizeSection(k, widths[k]);
    filling_ = false;
}

}  // namespace yr::app

#include "moc_plug_view.cpp"
