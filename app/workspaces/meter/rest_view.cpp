#include "workspaces/meter/rest_view.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

#include "plan/roles.h"
#include "text/say.h"
#include "units/quantity.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {

RestView::RestView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    state_ = new QComboBox;
    state_->setAccessibleName(say("State at rest"));
    state_->setMinimumHeight(30);
    auto* words = new QLabel(
        say("Latch closed, key away, %1 min for units to go to sleep. Then millivolts across each fuse, "
            "none pulled: double-click a cell of that column and type.")
            .arg(kSleep_min));
    words->setWordWrap(true);
    words->setObjectName(QStringLiteral("soft"));
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels(
        {say("fuse"), say("by the plan"), say("read, mV"), say("is"), say("least that is seen")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    table_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                            QAbstractItemView::SelectedClicked);
    table_->setAccessibleName(say("Millivolts across fuses"));
    table_->header()->setFont(type_font(Type::small));
    make_handy(table_);
    auto* row = new QHBoxLayout;
    row->setContentsMargins(16, 4, 16, 4);
    row->addWidget(words, 1);
    row->addWidget(state_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addLayout(row);
    column->addWidget(table_, 1);
    connect(state_, &QComboBox::activated, this, [this] { fill(); });
    connect(table_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int column_of) {
        if (filling_ || column_of != millivolts) return;
        const Id id = item->data(0, Qt::UserRole).toString().toStdString();
        const QString text = item->text(millivolts);
        QTimer::singleShot(0, this, [this, id, text] { read(id, text); });
    });
}

Id RestView::state() const {
    return state_->currentData().toString().toStdString();
}

void RestView::refresh() {
    const QVariant was = state_->currentData();
    state_->clear();
    for (const State& s : document_->plan().states)
        if (stands(s)) state_->addItem(q(s.name), q(s.id));
    if (const int k = state_->findData(was); k >= 0) state_->setCurrentIndex(k);
    fill();
}

void RestView::fill() {
    std::vector<std::pair<Id, double>> read(read_mV_.begin(), read_mV_.end());
    currents_ = currents_by_fuse(document_->plan(), state(), read);
    filling_ = true;
    {
        const Refill refill(table_);
        const auto amps_text = [&](double v) {
            return q(words::quantity(v, Dimension::current, document_->style()));
        };
        for (const FuseCurrent& f : currents_) {
            auto* item = new TableRow(table_);
            item->setData(0, Qt::UserRole, q(f.fuse));
            item->setFlags(item->flags() | Qt::ItemIsEditable);
            const Device* d = find_device(document_->plan(), f.fuse);
            item->setText(fuse, q(words::capital(yr::name_of(document_->plan(), f.run))) +
                                    (d ? QStringLiteral(", ") + amps_text(d->rating_A) : QString()));
            item->setText(planned, amps_text(f.planned_A));
            const auto mV = read_mV_.find(f.fuse);
            if (mV != read_mV_.end()) {
                item->setText(millivolts, q(words::number(mV->second)));
                item->setText(amps, f.known ? amps_text(f.amps) : say("its resistance is not known"));
                if (f.known && f.amps > 1.3 * f.planned_A + f.least_seen_A)
                    item->setForeground(amps, tokens().stop);
            }
            item->setText(least, f.known ? amps_text(f.least_seen_A) : say("not known"));
            for (const int c : {planned, millivolts, amps, least}) item->setTextAlignment(c, Qt::AlignRight);
        }
    }
    const int widths[] = {250, 100, 100, 110, 110};
    for (int k = 0; k < 5; ++k) table_->header()->resizeSection(k, widths[k]);
    filling_ = false;
    emit changed();
}

void RestView::read(const Id& id, const QString& text) {
    if (text.trimmed().isEmpty()) {
        read_mV_.erase(id);
    } else if (const auto v = parse_value(text.trimmed().toStdString(), Dimension::number); v) {
        read_mV_[id] = *v;
    } else {
        document_->store().refuse(q(words::sentence(v.error())));
    }
    fill();
}

std::vector<FuseCurrent> RestView::unplanned() const {
    std::vector<FuseCurrent> all;
    for (const FuseCurrent& f : currents_)
        if (f.known && f.amps > 1.3 * f.planned_A + f.least_seen_A) all.push_back(f);
    std::stable_sort(all.begin(), all.end(), [](const FuseCurrent& a, const FuseCurrent& b) {
        return a.amps - a.planned_A > b.amps - b.planned_A;
    });
    return all;
}

}  // namespace yr::app

#include "moc_rest_view.cpp"
