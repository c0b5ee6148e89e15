#include "details/details_panel.h"

#include <QHBoxLayout>
#include <QScrollBar>

#include "details/details_part.h"
#include "plan/lists.h"
#include "plan/names.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {

DetailsPanel::DetailsPanel(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("panel"));
    setAttribute(Qt::WA_StyledBackground);
    setAccessibleName(say("Details of the selected thing"));
    setFixedWidth(308);
    title_ = new QLabel;
    title_->setFont(type_font(Type::title));
    title_->setWordWrap(true);
    auto* fold = new QToolButton;
    fold->setText(QStringLiteral("✕"));
    fold->setToolTip(say("Fold away"));
    fold->setAccessibleName(say("Fold away"));
    connect(fold, &QToolButton::clicked, this, [this] { document_->selection().choose({}); });
    auto* head = new QHBoxLayout;
    head->setContentsMargins(16, 10, 8, 0);
    head->addWidget(title_, 1);
    head->addWidget(fold, 0, Qt::AlignTop);
    scroll_ = new QScrollArea;
    scroll_->setObjectName(QStringLiteral("panel"));
    scroll_->setWidgetResizable(true);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    holder_ = new QWidget;
    holder_->setObjectName(QStringLiteral("panel"));
    auto* held = new QVBoxLayout(holder_);
    held->setContentsMargins(0, 0, 0, 0);
    scroll_->setWidget(holder_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(head);
    column->addWidget(scroll_, 1);
    connect(&document_->shown(), &ShownCircuit::shown, this, &DetailsPanel::refresh);
    connect(&document_->selection(), &Selection::chosen, this, &DetailsPanel::refresh);
    refresh();
}

namespace {

// The photo of the selected thing: another one is another form.
QString photo_at(const Plan& plan, const Id& id) {
    QString photo;
    each_list(plan, [&](const auto& things) {
        if (const auto* x = yr::find(things, id)) photo = q(x->remarks.photo);
    });
    return photo;
}

}  // namespace

QString DetailsPanel::shape() const {
    const Plan& plan = document_->plan();
    const Id& id = document_->selection().id();
    QString s = q(id);
    for (const Run& r : plan.runs) {
        if (r.id != id && owner_of(r.to) != id && owner_of(r.from) != id) continue;
        s += QStringLiteral("|") + q(r.id);
        for (const Device& d : r.devices) s += QStringLiteral(",") + q(d.id);
    }
    if (const Point* p = yr::find(plan.points, id))
        s += QStringLiteral(" %1 channels").arg(p->channels.size());
    for (const Run& r : plan.runs) {
        for (const PinUse& use : r.pins)
            if (use.connector == id) s += QStringLiteral(" %1:%2").arg(q(r.id)).arg(use.pin);
        if (r.jacket == id) s += QStringLiteral(" in ") + q(r.id);
    }
    s += QStringLiteral("/%1/%2/").arg(plan.connectors.size()).arg(plan.jackets.size());
    s += photo_at(plan, id);
    if (const Load* l = yr::find(plan.loads, id))
        s += q(l->inverter) + q(Id(enum_name(l->draw.kind))) +
             (l->line_curve.empty() ? QString() : QStringLiteral("~"));
    return s + QStringLiteral("/%1/%2").arg(plan.places.size()).arg(plan.points.size());
}

void DetailsPanel::refresh() {
    const Plan& plan = document_->plan();
    const Id& id = document_->selection().id();
    const bool known = yr::find(plan.loads, id) || yr::find(plan.runs, id) || yr::find(plan.sources, id) ||
                       yr::find(plan.batteries, id) || yr::find(plan.inverters, id) ||
                       yr::find(plan.points, id) || yr::find(plan.states, id) ||
                       yr::find(plan.connectors, id) || yr::find(plan.jackets, id) ||
                       yr::find(plan.places, id) || id == kRulesId;
    setVisible(known);
    if (!known) {
        shape_.clear();
        return;
    }
    title_->setText(q(words::capital(yr::name_of(plan, id))));
    if (shape_ == shape() && form_)
        form_->refresh();
    else
        rebuild();
}

void DetailsPanel::rebuild() {
    shape_ = shape();
    const Plan& plan = document_->plan();
    const Id id = document_->selection().id();
    // its own field may be what asked for another form: it goes when that has returned. It stays where it is
    // till then, for what changes its parent is styled anew with all that it holds.
    if (form_) {
        form_->hide();
        for (QWidget* w : form_->findChildren<QWidget*>())
            w->setObjectName({});  // who looks for a field means the new one
        holder_->layout()->removeWidget(form_);
        form_->deleteLater();
    }
    form_ = new FieldForm([this] { return document_->style(); }, holder_);
    form_->ask_about(
        [doc = document_](Dimension dimension, double value) { return doubt_of(doc, dimension, value); });
    connect(form_, &FieldForm::why, this, &DetailsPanel::why);
    if (yr::find(plan.loads, id))
        fill_load(*form_, document_, id);
    else if (yr::find(plan.runs, id))
        fill_run(*form_, document_, id, true);
    else if (yr::find(plan.sources, id))
        fill_source(*form_, document_, id);
    else if (yr::find(plan.batteries, id))
        fill_battery(*form_, document_, id);
    else if (yr::find(plan.inverters, id))
        fill_inverter(*form_, document_, id);
    else if (yr::find(plan.connectors, id))
        fill_connector(*form_, document_, id);
    else if (yr::find(plan.jackets, id))
        fill_jacket(*form_, document_, id);
    else if (yr::find(plan.places, id))
        fill_place(*form_, document_, id);
    else if (yr::find(plan.states, id))
        fill_state(*form_, document_, id);
    else if (id == kRulesId)
        fill_policy(*form_, document_);
    else
        fill_point(*form_, document_, id);
    if (yr::find(plan.loads, id) || yr::find(plan.sources, id) || yr::find(plan.batteries, id) ||
        yr::find(plan.inverters, id) || yr::find(plan.connectors, id) || yr::find(plan.jackets, id) ||
        (yr::find(plan.runs, id) && plan.runs.size() > 1))
        form_->button(say("Take out"), [this, id] { emit remove_asked(id); });
    form_->finish();
    holder_->layout()->addWidget(form_);
    form_->show();
    scroll_->verticalScrollBar()->setValue(0);
}

}  // namespace yr::app

#include "moc_details_panel.cpp"
