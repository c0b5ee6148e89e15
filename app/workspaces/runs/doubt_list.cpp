#include "workspaces/runs/doubt_list.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>

#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/guard_words.h"

namespace yr::app {

DoubtList::DoubtList(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    summary_ = new QLabel(
        say("Lengths, bonds, draws and volts that the plan takes for granted, each at both ends of what it "
            "may be: which of them would change a size, a fuse or a verdict?"));
    summary_->setObjectName(QStringLiteral("soft"));
    summary_->setWordWrap(true);
    run_ = new QPushButton(say("What to measure first"));
    list_ = new QTreeWidget;
    list_->setObjectName(QStringLiteral("table"));
    list_->setHeaderLabels({say("what"), say("flips"), say("copper, kg")});
    list_->setRootIsDecorated(false);
    list_->setIndentation(0);
    list_->setWordWrap(true);
    list_->setAllColumnsShowFocus(true);
    list_->setAccessibleName(say("What to measure first"));
    list_->header()->setFont(type_font(Type::small));
    make_handy(list_);
    auto* head = new QHBoxLayout;
    head->addWidget(summary_, 1);
    head->addWidget(run_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 2, 12, 2);
    column->addLayout(head);
    column->addWidget(list_, 1);
    connect(run_, &QPushButton::clicked, this, [this] { job_.running() ? job_.cancel() : start(); });
    connect(&job_, &JobBase::done, this, &DoubtList::fill);
    connect(&job_, &JobBase::progressed, this, [this](double share, const QString&) {
        summary_->setText(say("%1 of what is taken for granted was looked at.")
                              .arg(q(words::quantity(share, Dimension::fraction))));
    });
    connect(list_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item) {
        document_->selection().choose(item->data(0, Qt::UserRole).toString().toStdString());
    });
}

void DoubtList::start() {
    run_->setText(say("Stop"));
    job_.start(document_->store().generation(), [plan = document_->plan()](const Task& task) {
        DoubtAsk ask;
        ask.cancel = task.cancel();
        ask.watch = [&](double share) {
            task.progress(share);
            return !task.cancelled();
        };
        return doubts_of(plan, ask);
    });
}

void DoubtList::finish() {
    if (job_.running()) job_.finish();
}

void DoubtList::fill() {
    run_->setText(say("What to measure first"));
    const Refill refill(list_);
    if (!doubts()) return;
    summary_->setText(q(words::sentence(*doubts())));
    for (const Doubt& d : doubts()->matter) {
        auto* item = new TableRow(list_);
        item->setData(0, Qt::UserRole, q(d.thing));
        item->setText(0, q(words::sentence(d, document_->plan(), document_->style())));
        item->setToolTip(0, item->text(0));
        item->setText(1, QString::number(d.flips.size()));
        item->setText(2, q(words::number(std::max(std::abs(d.low_kg), std::abs(d.high_kg)), 2)));
        item->setTextAlignment(1, Qt::AlignRight);
        item->setTextAlignment(2, Qt::AlignRight);
    }
    list_->header()->resizeSection(0, std::max(300, width() - 200));
    list_->header()->resizeSection(1, 60);
}

}  // namespace yr::app

#include "moc_doubt_list.cpp"
