#include "workspaces/rail/compare_view.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>
#include <utility>

#include "plan/variant.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"

namespace yr::app {
namespace {

constexpr int kIdRole = Qt::UserRole;

QString signed_number(double v, const QString& unit) {
    const QString sign = v < 0 ? QStringLiteral("−") : QStringLiteral("+");
    return std::abs(v) < 0.005 ? QStringLiteral("0") + unit : sign + q(words::number(std::abs(v))) + unit;
}

}  // namespace

CompareView::CompareView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("Options side by side"));
    left_box_ = new QComboBox;
    right_box_ = new QComboBox;
    left_box_->setAccessibleName(say("Option on the left"));
    right_box_->setAccessibleName(say("Option on the right"));
    left_chart_ = new RailChart(&left_);
    right_chart_ = new RailChart(&right_);
    for (RailChart* c : {left_chart_, right_chart_}) {
        c->set_animated(false);
        c->setMinimumSize(300, 240);
    }
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels({say("option"), say("idling"), say("driving"), say("parked to half"),
                             say("cranking"), say("copper"), say("cost"), say("stop, fix")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    make_handy(table_);
    table_->setAccessibleName(say("All options on what decides between them"));
    table_->header()->setFont(type_font(Type::small));
    table_->header()->setStretchLastSection(false);
    table_->header()->setSectionResizeMode(QHeaderView::Fixed);
    stretch_names(table_, 0);
    for (int k = 1; k < 8; ++k) {
        table_->header()->resizeSection(k, k == 3 ? 100 : 76);
        table_->headerItem()->setTextAlignment(k, Qt::AlignRight);
    }
    auto* charts = new QHBoxLayout;
    charts->setSpacing(8);
    for (auto [box, chart] : {std::pair{left_box_, left_chart_}, std::pair{right_box_, right_chart_}}) {
        auto* side = new QVBoxLayout;
        side->setSpacing(4);
        side->addWidget(box);
        side->addWidget(chart, 1);
        charts->addLayout(side, 1);
        connect(box, &QComboBox::activated, this, &CompareView::draw);
    }
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 6, 8, 0);
    column->setSpacing(6);
    column->addLayout(charts, 1);
    column->addWidget(table_);
    connect(table_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item) {
        right_box_->setCurrentIndex(right_box_->findData(item->data(0, kIdRole)));
        draw();
    });
    connect(table_, &QTreeWidget::itemDoubleClicked, this, [this](QTreeWidgetItem* item) {
        const Id id = item->data(0, kIdRole).toString().toStdString();
        document_->apply(SetActive{id}, say("show ") + item->text(0));
    });
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&measured_, &JobBase::done, this, &CompareView::fill_table);
}

void CompareView::measure() {
    measured_.start(document_->store().generation(),
                    [plan = document_->store().stored()](const Task&) { return compare_options(plan); });
}

void CompareView::finish() {
    if (!measured_.running()) measure();
    measured_.finish();
}

void CompareView::showEvent(QShowEvent*) {
    refresh();
}

void CompareView::resizeEvent(QResizeEvent*) {
    if (isVisible()) draw();
}

void CompareView::choose(const Id& left, const Id& right) {
    fill_choices();
    left_box_->setCurrentIndex(std::max(0, left_box_->findData(q(left))));
    right_box_->setCurrentIndex(std::max(0, right_box_->findData(q(right))));
    refresh();
}

void CompareView::fill_choices() {
    for (QComboBox* box : {left_box_, right_box_}) {
        const QVariant kept = box->currentData();
        box->clear();
        box->addItem(say("as planned"), QString());
        for (const Variant& v : document_->store().stored().variants) box->addItem(q(v.name), q(v.id));
        const int at = kept.isValid() ? box->findData(kept) : -1;
        box->setCurrentIndex(at >= 0 ? at : (box == right_box_ && box->count() > 1 ? 1 : 0));
    }
}

void CompareView::refresh() {
    fill_choices();
    measure();
    draw();
}

void CompareView::fill_table() {
    if (!measured_.answer()) return;
    const Refill refill(table_);
    const Plan& stored = document_->store().stored();
    const auto put = [&](QTreeWidgetItem* item, int column, const Deciding& d, const QString& text) {
        item->setText(column, d.value ? text : QStringLiteral("–"));
        if (const State* state = yr::find(stored.states, d.state); state && d.value)
            item->setToolTip(column, say("decided in the state %1").arg(q(state->name)));
    };
    const auto A = [&](const Deciding& d) { return signed_number(d.value.value_or(0), say(" A")); };
    for (const OptionResult& r : *measured_.answer()) {
        auto* item = new TableRow(table_, {q(r.name)});
        item->setData(0, kIdRole, q(r.variant));
        item->setToolTip(0, q(r.name) + say(". Click: on the right. Double click: it is the one shown."));
        if (!r.without.empty()) {
            item->setText(0, QStringLiteral("? ") + q(r.name));
            item->setToolTip(0, say("In state %1 the circuit has no answer; nothing is told of it.")
                                    .arg(q(r.without.front())));
        }
        put(item, 1, r.idle_A, A(r.idle_A));
        put(item, 2, r.drive_A, A(r.drive_A));
        put(item, 3, r.parked_h, q(words::duration_h(r.parked_h.value.value_or(0))));
        put(item, 4, r.cranking_V,
            q(words::quantity(r.cranking_V.value.value_or(0), Dimension::voltage, document_->style())));
        item->setText(5, q(words::number(r.copper_kg, 3)) + say(" kg"));
        if (!r.variant.empty())
            item->setToolTip(
                5, say("%1 against the plan as it stands").arg(signed_number(r.added_copper_kg, say(" kg"))));
        item->setText(6, !r.added_cost       ? say("no prices")
                         : r.variant.empty() ? QStringLiteral("–")
                                             : signed_number(*r.added_cost, QString()));
        item->setText(7, QStringLiteral("%1, %2").arg(r.stops).arg(r.fixes));
        for (int k = 1; k < 8; ++k) item->setTextAlignment(k, Qt::AlignRight);
        if (r.idle_A.value && *r.idle_A.value < 0) item->setForeground(1, tokens().stop);
        if (r.drive_A.value && *r.drive_A.value < 0) item->setForeground(2, tokens().stop);
        if (q(r.variant) == q(document_->store().stored().active)) item->setFont(0, type_font(Type::bold));
    }
    const int rows = std::clamp(table_->topLevelItemCount(), 2, 8);
    table_->setFixedHeight(30 + rows * 26);
}

void CompareView::draw() {
    const Plan& stored = document_->store().stored();
    for (auto [side, box] : {std::pair{&left_, left_box_}, std::pair{&right_, right_box_}})
        side->show_plan(with_variant(stored, box->currentData().toString().toStdString()),
                        document_->shown().state().id);
    for (RailChart* c : {left_chart_, right_chart_}) c->set_scale({});
    const SceneScale one{std::min(left_chart_->scene().px_per_A, right_chart_->scene().px_per_A),
                         std::min(left_chart_->scene().px_per_V, right_chart_->scene().px_per_V)};
    for (RailChart* c : {left_chart_, right_chart_}) c->set_scale(one);
}

}  // namespace yr::app

#include "moc_compare_view.cpp"
