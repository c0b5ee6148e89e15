#include "workspaces/rail/worst_view.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QVBoxLayout>

#include "inspect/worst.h"
#include "plan/rail_volts.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kCornerRole = Qt::UserRole, kStateRole = Qt::UserRole + 1;

void colour(QTreeWidgetItem* item, const QColor& c) {
    for (int k = 0; k < item->columnCount(); ++k) item->setForeground(k, c);
}

}  // namespace

WorstView::WorstView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("All states: the worst of each load and run"));
    loads_ = make_table({say("load, at its worst"), say("gets"), say("drop"), say("of"), say("in")},
                        say("Loads at their worst"));
    runs_ = make_table({say("run, at its worst"), say("carries"), say("of"), say("at"), say("in")},
                       say("Runs at their worst"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(12, 8, 8, 0);
    row->setSpacing(16);
    row->addWidget(loads_, 1);
    row->addWidget(runs_, 1);
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&document_->inspector(), &Inspector::inspected, this, [this] {
        if (isVisible()) refresh();
    });
}

QTreeWidget* WorstView::make_table(const QStringList& heads, const QString& name) {
    auto* t = plain_table(heads, name);
    make_handy(t);
    t->header()->setStretchLastSection(false);
    t->header()->setSectionResizeMode(QHeaderView::Fixed);
    t->header()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int k = 1; k < 5; ++k) t->header()->resizeSection(k, k == 4 ? 84 : 68);
    for (int k = 1; k < 4; ++k) t->headerItem()->setTextAlignment(k, Qt::AlignRight);
    connect(t, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item) {
        if (!filling_) document_->selection().choose(item->data(0, kCornerRole).toString().toStdString());
    });
    connect(t, &QTreeWidget::itemDoubleClicked, this, [this](QTreeWidgetItem* item) {
        if (item->data(0, kStateRole).isValid())
            emit state_asked(item->data(0, kStateRole).toString().toStdString());
    });
    return t;
}

void WorstView::showEvent(QShowEvent*) {
    refresh();
}

void WorstView::refresh() {
    filling_ = true;
    fill_loads();
    fill_runs();
    filling_ = false;
}

void WorstView::fill_loads() {
    const Refill refill(loads_);
    const Plan& plan = document_->plan();
    const auto text = [&](double v, Dimension d) { return q(words::quantity(v, d, document_->style())); };
    for (const WorstLoad& w : worst_loads(plan, solve_all(plan))) {
        const Load& l = plan.loads[w.load];
        const double nominal = rail_V(plan, l);
        auto* item = new TableRow(loads_, {q(l.name)});
        item->setData(0, kCornerRole, q(l.id));
        for (int k = 1; k < 4; ++k) item->setTextAlignment(k, Qt::AlignRight);
        if (!w.state) {
            item->setText(4, say("never on"));
            colour(item, tokens().soft);
            continue;
        }
        item->setData(0, kStateRole, q(plan.states[*w.state].id));
        item->setText(4, q(plan.states[*w.state].name));
        item->setText(1, w.fails ? say("dead") : text(w.voltage_V, Dimension::voltage));
        const bool mains = !l.inverter.empty();
        if (!w.fails && !mains && !l.starter) {
            item->setText(2, text(w.drop_V / nominal, Dimension::fraction));
            item->setText(3, text(w.limit_V / nominal, Dimension::fraction));
        }
        if (w.fails || (w.drop_V > w.limit_V * (1 + 1e-9) && !mains && !l.starter)) {
            item->setText(0, QString::fromUtf8(words::mark(Severity::fix)) + QLatin1Char(' ') + q(l.name));
            colour(item, tokens().fix);
        }
    }
}

void WorstView::fill_runs() {
    const Refill refill(runs_);
    const Plan& plan = document_->plan();
    const auto text = [&](double v, Dimension d) { return q(words::quantity(v, d, document_->style())); };
    for (const WorstRun& w : worst_runs(plan, solve_all(plan))) {
        if (!w.state) continue;
        const Run& r = plan.runs[w.run];
        auto* item = new TableRow(runs_, {q(r.name)});
        item->setData(0, kCornerRole, q(r.id));
        item->setData(0, kStateRole, q(plan.states[*w.state].id));
        for (int k = 1; k < 4; ++k) item->setTextAlignment(k, Qt::AlignRight);
        item->setText(1, text(w.current_A, Dimension::current));
        item->setText(4, q(plan.states[*w.state].name));
        if (w.allowed_A <= 0) continue;
        item->setText(2, text(w.allowed_A, Dimension::current));
        item->setText(3, text(w.temperature_C, Dimension::temperature));
        if (w.current_A > w.allowed_A) {
            item->setText(0, QString::fromUtf8(words::mark(Severity::stop)) + QLatin1Char(' ') + q(r.name));
            colour(item, tokens().stop);
        }
    }
}

}  // namespace yr::app

#include "moc_worst_view.cpp"
