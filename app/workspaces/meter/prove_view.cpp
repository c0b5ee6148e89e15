#include "workspaces/meter/prove_view.h"

#include <QHeaderView>
#include <QVBoxLayout>

#include "text/say.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {

ProveView::ProveView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels({say("no."), say("what it proves"), say("where the probes go"), say("should be"),
                             say("read"), say("verdict")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    table_->setAccessibleName(say("Readings that prove the vehicle"));
    table_->header()->setFont(type_font(Type::small));
    make_handy(table_);
    entry_ = new EntryBar;
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(table_, 1);
    column->addWidget(entry_);
    connect(entry_, &EntryBar::entered, this, &ProveView::take);
    connect(table_, &QTreeWidget::itemClicked, this,
            [this](QTreeWidgetItem* item) { go_to(item->data(0, Qt::UserRole).toUInt()); });
    connect(&job_, &JobBase::done, this, [this] {
        fill();
        ask();
        emit moved();
    });
}

void ProveView::refresh() {
    if (job_.current(document_->store().generation())) return;
    job_.start(document_->store().generation(),
               [plan = document_->plan()](const Task&) { return test_points(plan); });
}

void ProveView::finish() {
    refresh();
    if (job_.running()) job_.finish();
}

const TestPoint* ProveView::current() const {
    return points() && at_ < points()->points.size() ? &points()->points[at_] : nullptr;
}

void ProveView::fill() {
    const Refill refill(table_);
    if (!points()) return;
    for (std::size_t k = 0; k < points()->points.size(); ++k) {
        const TestPoint& t = points()->points[k];
        auto* item = new TableRow(table_);
        item->setData(0, Qt::UserRole, static_cast<uint>(k));
        item->setText(0, QString::number(k + 1));
        item->setText(1, q(words::name_of(t.phase)) + QStringLiteral(": ") +
                             q(yr::name_of(document_->plan(), t.thing)));
        item->setText(2, q(words::sentence(document_->plan(), t.where)));
        item->setText(3, q(words::band_text(t, document_->style())));
        if (const auto found = read_.find(k); found != read_.end()) {
            item->setText(4, q(words::value_text(t.where.kind, found->second, document_->style())));
            const Verdict v = verdict(t, found->second);
            item->setText(5, q(words::name_of(v)));
            item->setForeground(5, v == Verdict::good          ? tokens().good
                                   : v == Verdict::cannot_tell ? tokens().soft
                                                               : tokens().stop);
            item->setToolTip(5, q(words::outside_means(document_->plan(), t, v)));
        }
        if (k == at_) table_->setCurrentItem(item);
    }
    const int widths[] = {34, 150, 236, 108, 66, 74};
    for (int k = 0; k < 6; ++k) table_->header()->resizeSection(k, widths[k]);
}

void ProveView::ask() {
    const TestPoint* t = current();
    if (!t) {
        entry_->ask(ReadKind::volts, {},
                    points() ? say("All readings are taken.") : say("Working out what is to be read…"));
        return;
    }
    QString hint = say("%1 of %2. It should be %3.")
                       .arg(at_ + 1)
                       .arg(points()->points.size())
                       .arg(q(words::band_text(*t, document_->style())));
    entry_->ask(t->where.kind, q(words::sentence(document_->plan(), t->where)), hint);
}

void ProveView::go_to(std::size_t point) {
    at_ = point;
    for (int k = 0; k < table_->topLevelItemCount(); ++k)
        if (table_->topLevelItem(k)->data(0, Qt::UserRole).toUInt() == point) {
            table_->setCurrentItem(table_->topLevelItem(k));
            table_->scrollToItem(table_->topLevelItem(k), QAbstractItemView::PositionAtCenter);
        }
    ask();
    entry_->field()->setFocus();
    emit moved();
}

void ProveView::take(double value) {
    const TestPoint* t = current();
    if (!t) return;
    read_[at_] = value;
    const TestPoint point = *t;
    const Verdict v = verdict(point, value);
    const std::size_t was = at_;
    // outside its band one stays, to read again or look for it; else on to the next that is open
    if (v == Verdict::good || v == Verdict::cannot_tell)
        while (at_ < points()->points.size() && read_.contains(at_)) ++at_;
    fill();
    emit taken(point, value, v);
    if (at_ != was) return go_to(at_);
    entry_->field()->selectAll();
    entry_->say_wrong(q(words::outside_means(document_->plan(), point, v)));
    emit moved();
}

void ProveView::resume(const std::vector<std::pair<Probing, double>>& readings) {
    read_.clear();
    if (!points()) return;
    for (const auto& [where, value] : readings)
        for (std::size_t k = 0; k < points()->points.size(); ++k)
            if (points()->points[k].where == where) read_[k] = value;
    at_ = 0;
    while (at_ < points()->points.size() && read_.contains(at_)) ++at_;
    fill();
    go_to(at_);
}

}  // namespace yr::app

#include "moc_prove_view.cpp"
