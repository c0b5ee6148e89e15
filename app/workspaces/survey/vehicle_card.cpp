#include "workspaces/survey/vehicle_card.h"

#include <QHeaderView>

#include "widgets/tokens.h"
#include "words/survey_words.h"

namespace yr::app {
namespace {

constexpr int kIdRole = Qt::UserRole;

QString joined(const QStringList& parts) {
    return parts.join(QStringLiteral(", "));
}

class Teller {
  public:
    explicit Teller(const Document* d) : d_(d) {}

    void add(QStringList& out, const std::optional<double>& v, Dimension dimension,
             const char* after = "") const {
        if (v) out << q(words::quantity(*v, dimension, d_->style())) + QString::fromUtf8(after);
    }

    QString source(const Source& s) const {
        QStringList out;
        const bool turned = s.kind == SourceKind::alternator || s.kind == SourceKind::stator;
        add(out, s.rated_A, Dimension::current, turned ? " at speed" : "");
        add(out, s.idle_A, Dimension::current, " at idle");
        if (!s.curve.empty()) out << say("curve of %1 points").arg(s.curve.size());
        add(out, s.panel_W, Dimension::power, " of panel");
        add(out, s.regulated_V, Dimension::voltage);
        add(out, s.regulator_A, Dimension::current, " regulator");
        return joined(out);
    }

    QString battery(const Battery& b) const {
        static const char* kinds[] = {"flooded", "AGM", "gel", "LiFePO4"};
        QStringList out{QString::fromUtf8(kinds[static_cast<int>(b.chemistry)])};
        add(out, b.capacity_Ah, Dimension::charge);
        add(out, b.cranking_A, Dimension::current, " cranking");
        add(out, b.R0_ohm, Dimension::resistance);
        if (const Place* p = yr::find(d_->plan().places, b.place)) out << q(p->name);
        return joined(out);
    }

    QString run(const Run& r) const {
        QStringList out;
        if (r.size) out << q(words::wire_size(*r.size, d_->style()));
        add(out, r.length_m, Dimension::length);
        add(out, r.resistance_ohm, Dimension::resistance);
        for (const Device& x : r.devices)
            if (x.kind == DeviceKind::fuse)
                out << q(words::quantity(x.rating_A, Dimension::current, d_->style())) + say(" fuse");
        return joined(out);
    }

  private:
    const Document* d_;
};

bool is_negative_side(const Plan& plan, const Run& r) {
    const auto metal = [&](const Terminal& t) {
        const Point* p = yr::find(plan.points, t);
        return t.post == Post::neg || (p && (p->kind == PointKind::chassis || p->kind == PointKind::ground));
    };
    return metal(r.from) && metal(r.to) && !yr::find(plan.loads, owner_of(r.from));
}

}  // namespace

VehicleCard::VehicleCard(Document* document, QWidget* parent) : QTreeWidget(parent), document_(document) {
    setObjectName(QStringLiteral("table"));
    setColumnCount(2);
    setHeaderLabels({say("what is there"), say("known, and what is only assumed")});
    setRootIsDecorated(false);
    setIndentation(0);
    setWordWrap(true);
    setAllColumnsShowFocus(true);
    header()->setSectionResizeMode(0, QHeaderView::Fixed);
    header()->resizeSection(0, 168);
    header()->setStretchLastSection(true);
    header()->setFont(type_font(Type::small));
    setAccessibleName(say("Vehicle card: what is there and how well it is known"));
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (isVisible()) refresh();
    });
    connect(this, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (!filling_ && item) document_->selection().choose(item->data(0, kIdRole).toString().toStdString());
    });
    refresh();
}

void VehicleCard::showEvent(QShowEvent* event) {
    QTreeWidget::showEvent(event);
    refresh();
}

void VehicleCard::add_heading(const QString& text) {
    auto* item = new QTreeWidgetItem(this, {text.toUpper()});
    item->setFont(0, type_font(Type::small));
    item->setForeground(0, tokens().soft);
    item->setFlags(Qt::NoItemFlags);
    item->setFirstColumnSpanned(true);
}

void VehicleCard::add_row(const Id& id, const QString& name, const QString& known) {
    QStringList assumed;
    for (const AssumptionUse& use : document_->shown().solution().network.assumptions) {
        if (use.id != id) continue;
        const std::string how = words::how_to_find(use.key);
        if (how.empty()) continue;
        assumed << q(words::assumption_brief(use)) + say(" assumed\n    ") + q(how);
    }
    assumed.removeDuplicates();
    QString text = known.isEmpty() ? say("nothing known") : known;
    for (const QString& a : assumed) text += QStringLiteral("\n○ ") + a;
    auto* item = new QTreeWidgetItem(this, {name, text});
    item->setData(0, kIdRole, q(id));
    item->setToolTip(0, name);
    item->setToolTip(1, text);
    item->setTextAlignment(0, Qt::AlignTop);
    item->setFont(0, type_font(Type::bold));
    if (id == document_->selection().id()) setCurrentItem(item);
}

void VehicleCard::refresh() {
    filling_ = true;
    clear();
    const Plan& plan = document_->plan();
    const Teller tell(document_);
    add_heading(say("Sources"));
    for (const Source& s : plan.sources) add_row(s.id, q(s.name), tell.source(s));
    add_heading(say("Batteries"));
    for (const Battery& b : plan.batteries) add_row(b.id, q(b.name), tell.battery(b));
    add_heading(say("Straps and grounds"));
    for (const Run& r : plan.runs)
        if (is_negative_side(plan, r)) add_row(r.id, q(r.name), tell.run(r));
    for (const Point& p : plan.points)
        if (p.kind == PointKind::ground)
            add_row(p.id, q(p.name),
                    p.bond_ohm ? q(words::quantity(*p.bond_ohm, Dimension::resistance, document_->style()))
                               : QString());
    add_heading(say("Feeds"));
    for (const Run& r : plan.runs) {
        const Point* p = yr::find(plan.points, r.to);
        if (p && !is_negative_side(plan, r)) add_row(r.id, q(r.name), tell.run(r));
    }
    filling_ = false;
}

QString VehicleCard::row_text(const Id& id) const {
    for (int k = 0; k < topLevelItemCount(); ++k)
        if (topLevelItem(k)->data(0, kIdRole).toString() == q(id)) return topLevelItem(k)->text(1);
    return {};
}

}  // namespace yr::app

#include "moc_vehicle_card.cpp"
