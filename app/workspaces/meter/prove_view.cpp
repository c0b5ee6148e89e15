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
    table_ =
        plain_table({say("no."), say("where the probes go"), say("should be"), say("read"), say("verdict")},
                    say("Readings that prove the vehicle"));
    stretch_names(table_, probes, 120);
    make_handy(table_);
    connect(table_->header(), &QHeaderView::sortIndicatorChanged, this, &ProveView::show_steps);
    entry_ = new EntryBar;
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(table_, 1);
    column->addWidget(entry_);
    connect(entry_, &EntryBar::entered, this, &ProveView::take);
    connect(table_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item) {
        if (const QVariant point = item->data(number, Qt::UserRole); point.isValid()) go_to(point.toUInt());
    });
    connect(&job_, &JobBase::done, this, [this] {
        fill();
        ask();
        emit moved();
    });
}

void ProveView::refresh() {
    if (job_.current(document_->store().generation())) return;
    job_.start(document_->store().generation(), [plan = plan()](const Task&) { return test_points(plan); });
}

void ProveView::go_by(std::optional<Plan> built) {
    if (!built && !built_) return;
    built_ = std::move(built);
    read_.clear();
    at_ = 0;
    job_.start(document_->store().generation(), [plan = plan()](const Task&) { return test_points(plan); });
    emit moved();
}

void ProveView::finish() {
    refresh();
    if (job_.running()) job_.finish();
}

const TestPoint* ProveView::current() const {
    return points() && at_ < points()->points.size() ? &points()->points[at_] : nullptr;
}

void ProveView::fill() {
    {
        const Refill refill(table_);
        if (!points()) return;
        QString step;
        for (std::size_t k = 0; k < points()->points.size(); ++k) {
            const QString now = q(words::phase_text(plan(), points()->points[k]));
            if (now != step) add_step(step = now, static_cast<double>(k) + 0.5);
            add_row(k);
        }
    }
    show_steps();
    const int widths[] = {38, 0, 124, 66, 70};
    for (const int c : {number, should_be, read_now, verdict_now})
        table_->header()->resizeSection(c, widths[c]);
}

// The heading of a step: not a row that one can go to.
void ProveView::add_step(const QString& name, double before) {
    auto* head = new TableRow(table_);
    head->setText(number, name);
    head->setData(number, TableRow::kSortRole, before);
    head->setFlags(Qt::ItemIsEnabled);
    head->setFirstColumnSpanned(true);
    QFont bold = table_->font();
    bold.setBold(true);
    head->setFont(number, bold);
}

void ProveView::add_row(std::size_t k) {
    const TestPoint& t = points()->points[k];
    auto* item = new TableRow(table_);
    item->setData(number, Qt::UserRole, static_cast<uint>(k));
    item->setText(number, QString::number(k + 1));
    item->setData(number, TableRow::kSortRole, static_cast<double>(k + 1));
    item->setText(probes, q(words::where_text(plan(), t.where)));
    item->setToolTip(probes, q(words::sentence(plan(), t.where)));
    item->setText(should_be, q(words::band_text(t, document_->style())));
    if (const auto found = read_.find(k); found != read_.end()) {
        item->setText(read_now, q(words::value_text(t.where.kind, found->second, document_->style())));
        const Verdict v = verdict(t, found->second);
        item->setText(verdict_now, q(words::name_of(v)));
        item->setForeground(verdict_now, v == Verdict::good          ? tokens().good
                                         : v == Verdict::cannot_tell ? tokens().soft
                                                                     : tokens().stop);
        item->setToolTip(verdict_now, q(words::outside_means(plan(), t, v)));
    }
    if (k == at_) table_->setCurrentItem(item);
}

// Sorted by anything but their order the steps lie apart: their headings say nothing then.
void ProveView::show_steps() {
    const int by = table_->header()->sortIndicatorSection();
    const bool in_order =
        by <= number && (by < 0 || table_->header()->sortIndicatorOrder() == Qt::AscendingOrder);
    for (int k = 0; k < table_->topLevelItemCount(); ++k)
        if (QTreeWidgetItem* row = table_->topLevelItem(k); !row->data(number, Qt::UserRole).isValid())
            row->setHidden(!in_order);
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
    entry_->ask(t->where.kind, q(words::sentence(plan(), t->where)), hint);
}

void ProveView::go_to(std::size_t point) {
    at_ = point;
    for (int k = 0; k < table_->topLevelItemCount(); ++k)
        if (const QVariant row = table_->topLevelItem(k)->data(number, Qt::UserRole);
            row.isValid() && row.toUInt() == point) {
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
    entry_->say_wrong(q(words::outside_means(plan(), point, v)));
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
