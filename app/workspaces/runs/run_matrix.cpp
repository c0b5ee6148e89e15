#include "workspaces/runs/run_matrix.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPainter>
#include <QStyledItemDelegate>
#include <cmath>

#include "plan/roles.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kIdRole = Qt::UserRole, kSortRole = TableRow::kSortRole, kShareRole = Qt::UserRole + 2,
              kLimitRole = Qt::UserRole + 3, kThinRole = Qt::UserRole + 4;
constexpr int kFirstState = 4, kStateWidth = 66;

// A cell of a state: its share as a bar under its number.
class ShareCell : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const QVariant share = index.data(kShareRole);
        if (share.isValid()) {
            const Tokens& t = tokens();
            const double s = share.toDouble();
            QRectF bar = QRectF(option.rect).adjusted(3, 0, -3, 0);
            bar.setTop(bar.bottom() - 5);
            p->fillRect(bar, t.line);
            p->fillRect(QRectF(bar.left(), bar.top(), bar.width() * std::min(1.0, s), bar.height()),
                        s > 1 + 1e-9 ? t.stop : t.supply[1]);
        }
        QStyledItemDelegate::paint(p, option, index);
    }
};

}  // namespace

RunMatrix::RunMatrix(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("All runs by state"));
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    make_handy(table_);
    words_ = filter_line(table_);
    table_->setAccessibleName(say("Runs against states"));
    table_->header()->setFont(type_font(Type::small));
    table_->header()->setStretchLastSection(false);
    table_->setItemDelegate(new ShareCell(table_));
    filter_ = new QComboBox;
    filter_->setAccessibleName(say("Which runs are shown"));
    filter_->addItem(say("all runs"), -2);
    filter_->addItem(say("too thin now"), -1);
    for (const Limit l : {Limit::drop, Limit::ampacity, Limit::fuse, Limit::temperature, Limit::short_circuit,
                          Limit::terminals, Limit::bend, Limit::sturdy})
        filter_->addItem(say("decided by ") + QLatin1String(words::name_of(l)), static_cast<int>(l));
    auto* head = new QHBoxLayout;
    head->setContentsMargins(12, 6, 12, 2);
    auto* hint =
        new QLabel(say("Share of what each run may carry, by state. A click shows its ladder below."));
    hint->setObjectName(QStringLiteral("soft"));
    hint->setWordWrap(true);
    head->addWidget(hint, 1);
    head->addWidget(words_);
    head->addWidget(filter_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(head);
    column->addWidget(table_, 1);
    connect(words_, &QLineEdit::textChanged, this, [this] { apply_filter(); });
    connect(filter_, &QComboBox::currentIndexChanged, this, [this] { apply_filter(); });
    connect(table_, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (item && !filling_) document_->selection().choose(item->data(0, kIdRole).toString().toStdString());
    });
    connect(&document_->inspector(), &Inspector::inspected, this, [this] {
        stale_ = true;
        if (isVisible()) refresh();
    });
    connect(&document_->selection(), &Selection::chosen, this, [this] { select_current(); });
    connect(&verdicts_, &JobBase::done, this, &RunMatrix::take_verdicts);
}

void RunMatrix::showEvent(QShowEvent*) {
    if (stale_) refresh();
}

void RunMatrix::refresh() {
    if (!document_->inspector().current()) return;  // comes again with the findings
    stale_ = false;
    fill_states();
    begin_verdicts();
}

void RunMatrix::fill_states() {
    filling_ = true;
    const Plan& plan = document_->plan();
    const auto& solutions = document_->inspector().inspection().solutions;
    table_->setSortingEnabled(false);
    table_->clear();
    QStringList heads{say("run"), say("now"), say("needs"), say("decided by")};
    for (const State& s : plan.states) heads << q(s.name);
    table_->setHeaderLabels(heads);
    table_->header()->setSectionResizeMode(QHeaderView::Fixed);
    for (int k = 1; k < heads.size(); ++k) {
        table_->header()->resizeSection(k, k == 3 ? 106 : k == 2 ? 92 : k == 1 ? 72 : kStateWidth);
        if (k < kFirstState) continue;
        table_->headerItem()->setTextAlignment(k, Qt::AlignRight);
        table_->headerItem()->setToolTip(k, heads[k]);
        // a styled header cuts what does not fit, on the side where the name begins
        const QFontMetrics small(type_font(Type::small));
        table_->headerItem()->setText(k, small.elidedText(heads[k], Qt::ElideRight, kStateWidth - 10));
    }
    stretch_names(table_, 0);
    for (std::size_t r = 0; r < plan.runs.size() && solutions.size() == plan.states.size(); ++r) {
        const Run& run = plan.runs[r];
        if (run.body_metal || run.resistance_ohm) continue;
        auto* item = new TableRow(table_);
        item->setText(0, q(run.name) + (run.pinned                        ? say("  (pinned)")
                                        : is_made(document_->plan(), run) ? say("  (made)")
                                                                          : QString()));
        item->setData(0, kIdRole, q(run.id));
        item->setText(1, run.size ? q(words::short_size(*run.size)) : say("assumed"));
        const auto wire =
            run.size ? conductor(*run.size, run.material) : Result<Conductor>(tl::unexpected(Error{}));
        item->setData(1, kSortRole, wire ? wire->area_mm2 * run.parallel : 0);
        item->setText(2, QStringLiteral("…"));
        for (std::size_t s = 0; s < solutions.size(); ++s) {
            const int column = kFirstState + static_cast<int>(s);
            const double amps = std::abs(solutions[s].point.conductors[r].current_A);
            const auto allowed = run_ampacity(plan, run, plan.states[s]);
            const double share = allowed && allowed->allowed_A > 0 ? amps / allowed->allowed_A : 0;
            const bool crank = plan.states[s].key == Key::crank;
            item->setData(column, kSortRole, share);
            item->setTextAlignment(column, Qt::AlignRight | Qt::AlignVCenter);
            if (amps < 1e-3) {
                item->setText(column, QStringLiteral("–"));
                continue;
            }
            item->setText(column, q(words::quantity(share, Dimension::fraction, document_->style())));
            if (!crank) item->setData(column, kShareRole, share);
            item->setToolTip(
                column,
                say("%1, %2: %3 of %4%5, conductor at %6")
                    .arg(q(run.name), q(plan.states[s].name),
                         q(words::quantity(amps, Dimension::current, document_->style())),
                         q(words::quantity(allowed ? allowed->allowed_A : 0, Dimension::current,
                                           document_->style())),
                         crank ? say(" (cranking lasts seconds: judged by its heat in time)") : QString(),
                         q(words::quantity(solutions[s].point.conductors[r].temperature_C,
                                           Dimension::temperature, document_->style()))));
            if (share > 1 + 1e-9 && !crank) item->setForeground(column, tokens().stop);
        }
    }
    table_->setSortingEnabled(true);
    filling_ = false;
    select_current();
    apply_filter();
}

void RunMatrix::begin_verdicts() {
    verdicts_.start(document_->store().generation(),
                    [plan = document_->plan(),
                     solutions = document_->inspector().inspection().solutions](const Task& task) {
                        Verdicts out;
                        for (const Run& run : plan.runs) {
                            if (task.cancelled()) break;
                            const auto ladder = run_ladder(plan, run.id, 0, &solutions);
                            if (!ladder) continue;
                            Verdict v;
                            v.chosen = ladder->chosen >= 0 ? ladder->chosen : ladder->apart;
                            if (!ladder->beyond.empty()) v.beyond = ladder->beyond.front();
                            v.now = ladder->now;
                            v.decides = ladder->decides;
                            if (v.chosen >= 0)
                                v.first = ladder->rows[static_cast<std::size_t>(v.chosen)].size;
                            v.passes =
                                v.now >= 0 &&
                                (ladder->apart >= 0 ? v.now >= ladder->apart
                                                    : ladder->rows[static_cast<std::size_t>(v.now)].passes());
                            out[run.id] = v;
                        }
                        return out;
                    });
}

void RunMatrix::take_verdicts() {
    if (!verdicts_.current(document_->store().generation())) return;
    const Verdicts& verdicts = *verdicts_.answer();
    filling_ = true;
    table_->setSortingEnabled(false);
    for (int k = 0; k < table_->topLevelItemCount(); ++k) {
        QTreeWidgetItem* item = table_->topLevelItem(k);
        const auto found = verdicts.find(item->data(0, kIdRole).toString().toStdString());
        if (found == verdicts.end()) continue;
        const Verdict& v = found->second;
        item->setText(2, v.chosen < 0 ? say("none") : q(words::short_size(v.first)));
        item->setText(
            3, v.decides == Limit::none ? say("thinnest") : QString::fromUtf8(words::name_of(v.decides)));
        item->setData(3, kLimitRole, static_cast<int>(v.decides));
        item->setToolTip(
            2, v.beyond.empty()
                   ? QString()
                   : say("%1 loses more than it may whatever size this is: its other cables take it.")
                         .arg(q(yr::name_of(document_->plan(), v.beyond))));
        item->setData(2, kSortRole, v.chosen);
        item->setData(0, kThinRole, !v.passes);
        item->setForeground(2, v.passes ? tokens().ink : tokens().fix);
        if (!v.passes) item->setText(2, QStringLiteral("▲ ") + item->text(2));
    }
    table_->setSortingEnabled(true);
    filling_ = false;
    apply_filter();
}

void RunMatrix::finish() {
    document_->inspector().finish();
    if (stale_) refresh();
    verdicts_.finish();
}

int RunMatrix::shown() const {
    int count = 0;
    for (int k = 0; k < table_->topLevelItemCount(); ++k) count += !table_->topLevelItem(k)->isHidden();
    return count;
}

void RunMatrix::apply_filter() {
    const int wanted = filter_->currentData().toInt();
    filter_rows(table_, words_->text());
    for (int k = 0; k < table_->topLevelItemCount(); ++k) {
        QTreeWidgetItem* item = table_->topLevelItem(k);
        const bool show = wanted == -2 || (wanted == -1 ? item->data(0, kThinRole).toBool()
                                                        : item->data(3, kLimitRole).isValid() &&
                                                              item->data(3, kLimitRole).toInt() == wanted);
        if (!show) item->setHidden(true);
    }
}

void RunMatrix::select_current() {
    filling_ = true;
    for (int k = 0; k < table_->topLevelItemCount(); ++k)
        if (table_->topLevelItem(k)->data(0, kIdRole).toString() == q(document_->selection().id())) {
            table_->setCurrentItem(table_->topLevelItem(k));
            table_->scrollToItem(table_->topLevelItem(k));
        }
    filling_ = false;
}

}  // namespace yr::app

#include "moc_run_matrix.cpp"
