#include "panels/plan_list.h"

#include <QContextMenuEvent>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMenu>
#include <QPainter>
#include <QStyledItemDelegate>
#include <algorithm>
#include <map>
#include <unordered_map>
#include <unordered_set>

#include "control/hang_on.h"
#include "control/place_on.h"
#include "plan/supply_runs.h"
#include "widgets/tokens.h"
#include "words/control_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kIdRole = Qt::UserRole, kSeverityRole = Qt::UserRole + 1, kHeadingRole = Qt::UserRole + 2;

// Rows without frames: a bar and a mark at the left where there is a finding.
class RowDelegate : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override {
        return {40, index.data(kHeadingRole).toBool() ? 30 : 25};
    }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Tokens& t = tokens();
        const QModelIndex first = index.siblingAtColumn(0);
        const bool heading = first.data(kHeadingRole).toBool();
        const QVariant severity = first.data(kSeverityRole);
        const bool selected = option.state & QStyle::State_Selected;
        if (selected) p->fillRect(option.rect, t.line);
        const bool bad = severity.isValid() && severity.toInt() <= static_cast<int>(Severity::fix);
        const QColor mark = severity.isValid() && severity.toInt() == 0 ? t.stop : t.fix;
        QRect r = option.rect.adjusted(12, heading ? 6 : 0, -12, 0);
        if (index.column() == 0) {
            if (bad) {
                p->fillRect(QRect(option.rect.left(), option.rect.top() + 3, 4, option.rect.height() - 6),
                            mark);
                p->setPen(mark);
                p->setFont(type_font(Type::small));
                if (!heading)
                    p->drawText(QRect(option.rect.left() + 7, r.top(), 14, r.height()),
                                Qt::AlignVCenter | Qt::AlignLeft,
                                QString::fromUtf8(words::mark(static_cast<Severity>(severity.toInt()))));
            }
            if (!heading) r.adjust(10, 0, 12, 0);
            p->setFont(heading ? type_font(Type::small) : type_font(Type::body));
            QFont f = p->font();
            if (heading)
                f.setBold(true), f.setCapitalization(QFont::AllUppercase),
                    f.setLetterSpacing(QFont::AbsoluteSpacing, 0.5);
            p->setFont(f);
            p->setPen(heading ? t.soft : t.ink);
            p->drawText(r, Qt::AlignVCenter | Qt::AlignLeft,
                        QFontMetrics(f).elidedText(index.data().toString(), Qt::ElideRight, r.width()));
        } else {
            p->setFont(heading ? type_font(Type::small) : type_font(Type::body));
            p->setPen(heading ? t.soft : t.ink);
            p->drawText(r.adjusted(-10, 0, 0, 0), Qt::AlignVCenter | Qt::AlignRight, index.data().toString());
        }
    }
};

}  // namespace

PlanList::PlanList(Document* document, QWidget* parent) : QTreeWidget(parent), document_(document) {
    setColumnCount(2);
    setHeaderHidden(true);
    setRootIsDecorated(false);
    setIndentation(0);
    setAllColumnsShowFocus(true);
    setSelectionMode(QAbstractItemView::ExtendedSelection);
    setUniformRowHeights(false);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setItemDelegate(new RowDelegate(this));
    header()->setStretchLastSection(false);
    header()->setSectionResizeMode(0, QHeaderView::Stretch);
    header()->setSectionResizeMode(1, QHeaderView::Fixed);
    header()->resizeSection(1, 88);
    setAccessibleName(say("Sources, feeds and loads"));
    connect(&document_->shown(), &ShownCircuit::shown, this, &PlanList::refresh);
    connect(&document_->inspector(), &Inspector::inspected, this, &PlanList::refresh);
    connect(&document_->selection(), &Selection::chosen, this, &PlanList::show_selection);
    connect(this, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (filling_ || !item) return;
        choosing_ = true;  // rows chosen beside this one stay
        document_->selection().choose(item->data(0, kIdRole).toString().toStdString());
        choosing_ = false;
    });
    refresh();
}

PlanList::Row PlanList::load_row(std::size_t k, int channel) const {
    const Load& l = document_->plan().loads[k];
    const LoadResult& r = document_->shown().solution().point.loads[k];
    Row row{l.id, q(l.name), {}, q(words::condition(l.live_when, &document_->plan())), false};
    if (channel > 0) row.name = QStringLiteral("%1 · ").arg(channel) + row.name;
    switch (r.status) {
        case LoadStatus::on:
            row.amount = l.inverter.empty()
                             ? q(words::quantity(r.current_A, Dimension::current, document_->style()))
                             : q(words::quantity(r.power_W, Dimension::power, document_->style()));
            break;
        case LoadStatus::off:
            row.amount = say("off");
            break;
        case LoadStatus::dead:
            row.amount = say("dead");
            break;
        case LoadStatus::unsolved:
            row.amount = QStringLiteral("?");
            break;
        case LoadStatus::collapsed:
            row.amount = say("no volts");
            break;
    }
    return row;
}

std::vector<PlanList::Row> PlanList::rows() const {
    const Plan& plan = document_->plan();
    const OperatingPoint& point = document_->shown().solution().point;
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, document_->style())); };
    std::vector<Row> rows{{{}, say("Supply"), {}, {}, true}};
    for (std::size_t k = 0; k < plan.sources.size(); ++k)
        rows.push_back({plan.sources[k].id, q(plan.sources[k].name), A(point.sources[k].current_A),
                        say("can give ") + A(point.sources[k].limit_A), false});
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        const double amps = point.batteries[k].current_A;
        // as the battery sees it: what it gives is lost to it
        const QString text = std::abs(amps) < 5e-4 ? say("0 A")
                             : amps > 0            ? QStringLiteral("−") + A(amps)
                                                   : QStringLiteral("+") + A(-amps);
        rows.push_back({plan.batteries[k].id, q(plan.batteries[k].name), text,
                        amps > 0 ? say("gives") : say("charges"), false});
    }
    std::map<Id, std::vector<std::size_t>> by_feed;
    std::vector<char> placed(plan.loads.size(), 0);
    const SupplyRuns supply(plan);
    std::unordered_map<std::string_view, std::size_t> load_of;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) load_of.emplace(plan.loads[k].id, k);
    std::unordered_set<std::string_view> feeds;
    for (const Point& p : plan.points)
        if (p.feeds_loads) feeds.insert(p.id);
    for (const Run& r : plan.runs) {
        if (r.to.post != Post::pos || r.from.post != Post::stud || !feeds.contains(r.from.owner)) continue;
        if (const auto l = load_of.find(r.to.owner); l != load_of.end())
            by_feed[owner_of(r.from)].push_back(l->second), placed[l->second] = 1;
    }
    std::unordered_map<std::string_view, double> hands_on_A;  // all of a feed, other feeds included
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const double amps = point.conductors[k].current_A;
        hands_on_A[(amps > 0 ? plan.runs[k].from : plan.runs[k].to).owner] += std::abs(amps);
    }
    for (const Point& p : plan.points) {
        if (!p.feeds_loads) continue;
        rows.push_back({p.id, q(p.name), A(hands_on_A[p.id]), {}, true});
        std::stable_sort(by_feed[p.id].begin(), by_feed[p.id].end(), [&](std::size_t a, std::size_t b) {
            return supply.of(plan.loads[a].id)->channel < supply.of(plan.loads[b].id)->channel;
        });
        for (std::size_t k : by_feed[p.id]) {
            const Run* run = supply.of(plan.loads[k].id);
            rows.push_back(load_row(k, run->from == p.id ? run->channel : 0));
        }
        if (const auto free = p.channels.empty() ? std::vector<int>() : free_channels(plan, p);
            !free.empty()) {
            QStringList numbers;
            for (const int c : free) numbers << QString::number(c);
            rows.push_back({{}, numbers.join(QStringLiteral(", ")) + say(" · free"), {}, {}, false});
        }
    }
    for (std::size_t k = 0; k < plan.inverters.size(); ++k) {
        const LoadResult& r = point.loads[document_->shown().solution().network.plan_loads + k];
        rows.push_back({plan.inverters[k].id,
                        q(plan.inverters[k].name),
                        r.status == LoadStatus::on ? A(r.current_A) : say("off"),
                        {},
                        true});
        for (std::size_t n = 0; n < plan.loads.size(); ++n)
            if (plan.loads[n].inverter == plan.inverters[k].id) rows.push_back(load_row(n)), placed[n] = 1;
    }
    bool joined = false;
    const auto joins = [&](const auto& things, const QString& what) {
        for (const auto& x : things) {
            if (!joined) rows.push_back({{}, say("On the way"), {}, {}, true});
            joined = true;
            rows.push_back({x.id, q(x.name), {}, what, false});
        }
    };
    joins(plan.connectors, say("connector"));
    joins(plan.jackets, say("cable of several cores"));
    bool metal = false;
    for (const Point& p : plan.points) {
        if (p.kind != PointKind::ground && p.kind != PointKind::chassis) continue;
        if (!metal) rows.push_back({{}, say("Metal and grounds"), {}, {}, true});
        metal = true;
        const bool loose =
            p.bonded_to.empty() && std::none_of(plan.runs.begin(), plan.runs.end(), [&](const Run& r) {
                return owner_of(r.from) == p.id || owner_of(r.to) == p.id;
            });
        rows.push_back(
            {p.id, q(p.name), loose ? say("▲ loose") : QString(),
             loose
                 ? say("Joined to nothing: type a strap, such as strap battery - to %1 0.5 m").arg(q(p.name))
                 : QString(),
             false});
    }
    bool others = false;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        if (placed[k]) continue;
        if (!others) rows.push_back({{}, say("On their own cable"), {}, {}, true});
        others = true;
        rows.push_back(load_row(k));
    }
    return rows;
}

void PlanList::refresh() {
    filling_ = true;
    std::vector<Row> now = rows();
    while (topLevelItemCount() > static_cast<int>(now.size()))
        delete takeTopLevelItem(topLevelItemCount() - 1);
    for (std::size_t k = 0; k < now.size(); ++k) {
        Row& row = now[k];
        if (!row.id.empty()) row.severity = document_->inspector().severity_of(row.id);
        if (k < shown_.size() && shown_[k] == row) continue;  // most stay: hundreds of them, at every edit
        QTreeWidgetItem* item = topLevelItem(static_cast<int>(k));
        if (!item) addTopLevelItem(item = new QTreeWidgetItem);
        item->setText(0, row.name);
        item->setText(1, row.amount);
        item->setToolTip(0, row.tip);
        item->setData(0, kIdRole, q(row.id));
        item->setData(0, kHeadingRole, row.heading);
        item->setData(0, kSeverityRole,
                      row.severity ? QVariant(static_cast<int>(*row.severity)) : QVariant());
        item->setFlags(row.id.empty() ? Qt::NoItemFlags : Qt::ItemIsEnabled | Qt::ItemIsSelectable);
    }
    shown_ = std::move(now);
    filling_ = false;
    show_selection();
}

void PlanList::show_selection() {
    filling_ = true;
    const auto item_of = [&](const Id& id) -> QTreeWidgetItem* {
        if (id.empty()) return nullptr;
        const QString wanted = q(id);
        for (int k = topLevelItemCount() - 1; k >= 0; --k)
            if (topLevelItem(k)->data(0, kIdRole).toString() == wanted) return topLevelItem(k);
        return nullptr;
    };
    QTreeWidgetItem* chosen = item_of(document_->selection().id());
    // a selected cable shows its load, so that the list never looks lost
    if (const Run* run = yr::find(document_->plan().runs, document_->selection().id()); run && !chosen)
        for (const Terminal* t : {&run->from, &run->to})
            if (yr::find(document_->plan().loads, owner_of(*t)) && !chosen) chosen = item_of(owner_of(*t));
    if (!choosing_ && (chosen != currentItem() || !chosen)) {
        setCurrentItem(chosen);
        if (!chosen) clearSelection();
    }
    filling_ = false;
}

std::vector<Id> PlanList::chosen() const {
    std::vector<Id> ids;
    for (const QTreeWidgetItem* item : selectedItems())
        if (const Id id = item->data(0, kIdRole).toString().toStdString(); !id.empty()) ids.push_back(id);
    const Id& one = document_->selection().id();
    if (ids.size() > 1) return ids;
    return one.empty() ? std::vector<Id>{} : std::vector<Id>{one};
}

QString PlanList::row_text(const Id& id) const {
    for (int k = 0; k < topLevelItemCount(); ++k)
        if (topLevelItem(k)->data(0, kIdRole).toString() == q(id))
            return topLevelItem(k)->text(0) + QStringLiteral("|") + topLevelItem(k)->text(1);
    return {};
}

std::vector<words::ValueRef> PlanList::questions(const Id& id) const {
    using K = words::ValueKind;
    const Plan& plan = document_->plan();
    if (yr::find(plan.loads, id)) return {{K::load_current, id, 0}};
    if (yr::find(plan.sources, id)) return {{K::source_current, id, 0}, {K::source_limit, id, 0}};
    if (yr::find(plan.batteries, id)) return {{K::battery_current, id, 0}, {K::battery_hours, id, 0}};
    if (yr::find(plan.points, id)) return {{K::feed_current, id, 0}};
    if (yr::find(plan.inverters, id)) return {{K::inverter_current, id, 0}};
    return {};
}

void PlanList::keyPressEvent(QKeyEvent* event) {
    const Id id = currentItem() ? currentItem()->data(0, kIdRole).toString().toStdString() : Id();
    if (event->key() == Qt::Key_F1 && !id.empty())
        emit why(questions(id), viewport()->mapToGlobal(visualItemRect(currentItem()).center()));
    else if (event->key() == Qt::Key_Delete && !id.empty())
        emit remove_asked();
    else
        QTreeWidget::keyPressEvent(event);
}

// Every feed, and the free channels of boxes.
void PlanList::fill_hang_menu(QMenu* menu, const Id& load, const Run& run) {
    for (const Point& p : document_->plan().points) {
        if (!p.feeds_loads) continue;
        const auto add = [&](int channel) {
            menu->addAction(q(words::place_text(document_->plan(), p.id, channel)), this,
                            [this, load, feed = p.id, channel] { document_->put_load(load, feed, channel); });
        };
        if (p.channels.empty() && p.id != run.from) add(0);
        for (const int c : free_channels(document_->plan(), p)) add(c);
    }
}

void PlanList::contextMenuEvent(QContextMenuEvent* event) {
    QTreeWidgetItem* item = itemAt(event->pos());
    const Id id = item ? item->data(0, kIdRole).toString().toStdString() : Id();
    if (id.empty()) return;
    QMenu menu;
    const QPoint where = event->globalPos();
    menu.addAction(say("Why?\tF1"), this, [this, id, where] { emit why(questions(id), where); });
    if (const Run* run = supply_run(document_->plan(), id))
        fill_hang_menu(menu.addMenu(say("Hang on")), id, *run);
    if (feed_of(document_->plan(), id)) {
        QMenu* hang = menu.addMenu(say("Fed from"));
        for (const Terminal& t : supplies_for(document_->plan(), id))
            hang->addAction(q(words::terminal(document_->plan(), t)), this,
                            [this, id, t] { document_->hang(id, t); });
    }
    menu.addAction(say("Take out\tDel"), this, [this] { emit remove_asked(); });
    menu.exec(where);
}

}  // namespace yr::app

#include "moc_plan_list.cpp"
