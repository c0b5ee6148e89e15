#include "workspaces/rail/rail_page.h"

#include <QVBoxLayout>

#include "widgets/tokens.h"
#include "words/format.h"

namespace yr::app {
namespace {

const QString kAllStates = QStringLiteral("all_states"), kCompare = QStringLiteral("compare");

}  // namespace

RailPage::RailPage(Document* document, QWidget* parent)
    : Workspace(document, QStringLiteral("rail"), say("Rail"), parent) {
    chart_ = new RailChart(document);
    worst_ = new WorstView(document);
    compare_ = new CompareView(document);
    pages_ = new QStackedWidget;
    for (QWidget* page :
         {static_cast<QWidget*>(chart_), static_cast<QWidget*>(worst_), static_cast<QWidget*>(compare_)})
        pages_->addWidget(page);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(pages_);
    whole_ = new QToolButton;
    whole_->setText(say("Whole rail"));
    whole_->setToolTip(say("Back from this feed (Escape)"));
    whole_->setAccessibleName(say("Back to the whole rail"));
    whole_->setMinimumSize(32, 32);
    whole_->setObjectName(QStringLiteral("mend"));
    whole_->hide();
    connect(whole_, &QToolButton::clicked, chart_, &RailChart::look_at_all);
    connect(chart_, &RailChart::window_changed, this, &RailPage::show_corner);
    connect(chart_, &RailChart::remove_asked, this, &Workspace::remove_asked);
    for (RailChart* c : {chart_, compare_->left(), compare_->right()})
        connect(c, &RailChart::why, this, &Workspace::why);
    connect(worst_, &WorstView::state_asked, this, [this](const Id& state) {
        document_->shown().set_state(state);
        emit go_to(key(), {});
    });
}

std::vector<WorkspaceView> RailPage::views() const {
    return {{kAllStates, {}, false}, {kCompare, say("Compare side by side"), true}};
}

bool RailPage::open_view(const QString& key) {
    if (!key.isEmpty() && !has_view(key)) return false;
    pages_->setCurrentIndex(key == kAllStates ? 1 : key == kCompare ? 2 : 0);
    show_corner();
    return true;
}

QString RailPage::open_view() const {
    const int at = pages_->currentIndex();
    return at == 1 ? kAllStates : at == 2 ? kCompare : QString();
}

void RailPage::show_corner() {
    whole_->setVisible(pages_->currentIndex() == 0 && !chart_->window_A().whole());
}

void RailPage::entered() {
    if (pages_->currentIndex() == 0) chart_->setFocus();
    show_corner();
}

void RailPage::finish() {
    if (pages_->currentIndex() == 2) compare_->finish();
}

QRect RailPage::where_is(const Id& id) const {
    const SceneItem* i = pages_->currentIndex() == 0 ? chart_->scene().of(id) : nullptr;
    return i ? i->rect.toRect() : QRect();
}

QString RailPage::numbers() const {
    if (pages_->currentIndex() != 0) return Workspace::numbers();
    const auto& shown = document_->shown();
    const Plan& plan = document_->plan();
    const auto text = [&](double v, Dimension d) { return q(words::quantity(v, d, document_->style())); };
    QStringList lines{say("cable\tamps\tvolts lost")};
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const ConductorResult& r = shown.solution().point.conductors[k];
        const double ohm = shown.solution().network.conductors[k].fixed_ohm + r.cable_ohm;
        lines << q(plan.runs[k].name) + QLatin1Char('\t') + text(std::abs(r.current_A), Dimension::current) +
                     QLatin1Char('\t') + text(std::abs(r.current_A) * ohm, Dimension::voltage);
    }
    lines << QString() << say("load\tamps\tvolts\tdrop");
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const LoadResult& r = shown.solution().point.loads[k];
        lines << q(plan.loads[k].name) + QLatin1Char('\t') + text(r.current_A, Dimension::current) +
                     QLatin1Char('\t') + text(r.voltage_V, Dimension::voltage) + QLatin1Char('\t') +
                     text(r.drop_V, Dimension::voltage);
    }
    return lines.join(QLatin1Char('\n')) + QLatin1Char('\n');
}

void RailPage::hover(const Id& id) {
    if (const SceneItem* i = chart_->scene().of(id)) chart_->set_hover(i->rect.center());
}

std::vector<WorkspacePicture> RailPage::pictures() {
    return {
        {QStringLiteral("rail-idling.png"), [this] { hover(feed_of("echo sounder")); }},
        {QStringLiteral("rail-night.png"),
         [this] {
             use_look(true);
             in_state("Overnight");
         }},
        {QStringLiteral("compare.png"),
         [this] {
             emit go_to(key(), kCompare);
             compare_->choose({}, "variant-relay");
             compare_->finish();
         }},
    };
}

}  // namespace yr::app

#include "moc_rail_page.cpp"
