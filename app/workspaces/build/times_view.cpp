#include "workspaces/build/times_view.h"

#include <QHeaderView>
#include <QLabel>
#include <QTimer>
#include <QVBoxLayout>

#include "catalog/work.h"
#include "text/say.h"
#include "units/quantity.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "words/work_words.h"

namespace yr::app {
namespace {

constexpr double kThreads_mm[] = {4, 5, 6, 8, 10, 12};

QString torque_text(double thread_mm) {
    QStringList parts;
    const std::pair<Seat, QString> seats[] = {
        {Seat::post, say("post")}, {Seat::stud, say("stud")}, {Seat::ground, say("ground")}};
    for (const auto& [seat, name] : seats)
        if (const auto t = typical_torque(seat, thread_mm))
            parts
                << say("%1 %2 to %3").arg(name, q(words::number(t->least_Nm)), q(words::number(t->most_Nm)));
    return parts.join(QStringLiteral(", "));
}

}  // namespace

TimesView::TimesView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* words =
        new QLabel(say("Typical minutes and torques are common practice. Double-click “own” and type what "
                       "yours are: they count then; emptied, "
                       "the typical one counts again. The maker's torque comes first."));
    words->setWordWrap(true);
    words->setObjectName(QStringLiteral("soft"));
    words->setContentsMargins(16, 4, 16, 4);
    times_ = editable_table({say("work"), say("typical, min"), say("own, min")}, say("Minutes by work"));
    torques_ = editable_table({say("thread"), say("typical, Nm"), say("own, Nm")}, say("Torques by thread"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(words);
    column->addWidget(times_, 3);
    column->addWidget(torques_, 1);
    connect(times_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int c) {
        if (filling_) return;
        const std::string task = item->data(0, Qt::UserRole).toString().toStdString();
        const QString text = item->text(own);
        QTimer::singleShot(0, this,
                           [this, task, text, c] { c == own ? say_minutes(task, text) : refresh(); });
    });
    connect(torques_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int c) {
        if (filling_) return;
        const double thread = item->data(0, Qt::UserRole).toDouble();
        const QString text = item->text(own);
        QTimer::singleShot(0, this,
                           [this, thread, text, c] { c == own ? say_torque(thread, text) : refresh(); });
    });
}

void TimesView::refresh() {
    filling_ = true;
    const Policy& policy = document_->plan().policy;
    {
        const Refill refill(times_);
        for (const std::string& task : work_tasks()) {
            auto* item = new TableRow(times_);
            item->setData(0, Qt::UserRole, q(task));
            item->setFlags(item->flags() | Qt::ItemIsEditable);
            item->setText(what, q(words::task_name(task)));
            item->setText(typical, q(words::number(typical_minutes(task))));
            for (const TaskTime& t : policy.tasks)
                if (t.task == task) item->setText(own, q(words::number(t.minutes)));
            for (const int c : {typical, own}) item->setTextAlignment(c, Qt::AlignRight);
        }
    }
    {
        const Refill refill(torques_);
        for (const double thread : kThreads_mm) {
            auto* item = new TableRow(torques_);
            item->setData(0, Qt::UserRole, thread);
            item->setFlags(item->flags() | Qt::ItemIsEditable);
            item->setText(what, QStringLiteral("M%1").arg(thread));
            item->setText(typical, torque_text(thread));
            item->setToolTip(typical, item->text(typical));
            for (const Torque& t : policy.torques)
                if (t.thread_mm == thread) item->setText(own, q(words::number(t.torque_Nm)));
            item->setTextAlignment(own, Qt::AlignRight);
        }
    }
    const int widths[] = {240, 330, 100};
    for (int k = 0; k < 3; ++k)
        for (QTreeWidget* t : {times_, torques_}) t->header()->resizeSection(k, widths[k]);
    filling_ = false;
}

void TimesView::say_minutes(const std::string& task, const QString& text) {
    Policy policy = document_->plan().policy;
    std::erase_if(policy.tasks, [&](const TaskTime& t) { return t.task == task; });
    if (!text.trimmed().isEmpty()) {
        const auto v = parse_value(text.trimmed().toStdString(), Dimension::number);
        if (!v || *v < 0 || *v > 1e4) {
            document_->store().refuse(v ? say("Minutes lie between 0 and 10 000.")
                                        : q(words::sentence(v.error())));
            return refresh();
        }
        policy.tasks.push_back({task, *v});
    }
    if (policy == document_->plan().policy) return refresh();
    document_->apply(SetPolicy{policy}, say("own minutes"));
}

void TimesView::say_torque(double thread_mm, const QString& text) {
    Policy policy = document_->plan().policy;
    std::erase_if(policy.torques, [&](const Torque& t) { return t.thread_mm == thread_mm; });
    if (!text.trimmed().isEmpty()) {
        const auto v = parse_value(text.trimmed().toStdString(), Dimension::number);
        if (!v || *v <= 0 || *v > 500) {
            document_->store().refuse(v ? say("A torque lies above 0 and at 500 Nm at most.")
                                        : q(words::sentence(v.error())));
            return refresh();
        }
        policy.torques.push_back({thread_mm, *v});
    }
    if (policy == document_->plan().policy) return refresh();
    document_->apply(SetPolicy{policy}, say("own torque"));
}

}  // namespace yr::app

#include "moc_times_view.cpp"
