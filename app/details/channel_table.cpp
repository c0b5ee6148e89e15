#include "details/channel_table.h"

#include <QHeaderView>

#include "control/place_on.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kRow_px = 28;

}  // namespace

ChannelTable::ChannelTable(Document* document, const Id& box, QWidget* parent)
    : QTableWidget(parent), document_(document), box_(box) {
    setObjectName(QStringLiteral("channels"));
    setAccessibleName(say("Channels"));
    setColumnCount(columns);
    setHorizontalHeaderLabels({say("amps"), say("start"), say("group"), say("label")});
    horizontalHeader()->setFont(type_font(Type::small));
    horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    horizontalHeader()->setSectionResizeMode(label, QHeaderView::Stretch);
    const int widths[] = {58, 58, 50};
    for (int k = 0; k < label; ++k) horizontalHeader()->resizeSection(k, widths[k]);
    verticalHeader()->setFixedWidth(26);
    verticalHeader()->setDefaultSectionSize(kRow_px);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setTabKeyNavigation(false);
    setEditTriggers(QAbstractItemView::AllEditTriggers);
    connect(this, &QTableWidget::cellChanged, this, &ChannelTable::take);
    connect(&document_->shown(), &ShownCircuit::shown, this, &ChannelTable::refresh);
    refresh();
}

const Point* ChannelTable::box() const {
    return yr::find(document_->plan().points, box_);
}

void ChannelTable::refresh() {
    if (!box() || state() == QAbstractItemView::EditingState) return;
    filling_ = true;
    const auto& all = box()->channels;
    setRowCount(static_cast<int>(all.size()));
    setFixedHeight(30 + kRow_px * rowCount());
    const auto A = [&](const std::optional<double>& v) {
        return v ? q(words::editable(*v, Dimension::current, document_->style())) : QString();
    };
    for (int r = 0; r < rowCount(); ++r) {
        const Channel& c = all[static_cast<std::size_t>(r)];
        const QString texts[] = {A(c.rating_A), A(c.peak_A), q(c.group), q(c.label)};
        setVerticalHeaderItem(r, new QTableWidgetItem(QString::number(c.number)));
        const Run* run = run_on_channel(document_->plan(), box_, c.number);
        const QString on = run ? q(yr::name_of(document_->plan(), owner_of(run->to))) : say("free");
        for (int k = 0; k < columns; ++k) {
            auto* item = new QTableWidgetItem(texts[k]);
            item->setToolTip(say("Channel %1: %2").arg(c.number).arg(on) +
                             (k == amps && texts[k].isEmpty() ? say(", assumed 10 A") : QString()));
            if (k == amps || k == start) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            setItem(r, k, item);
        }
    }
    filling_ = false;
}

void ChannelTable::take(int row, int column) {
    if (filling_ || !box() || row >= static_cast<int>(box()->channels.size())) return;
    const QString typed = item(row, column)->text().trimmed();
    Point changed = *box();
    Channel& c = changed.channels[static_cast<std::size_t>(row)];
    const auto refuse = [&](Error e) {
        e.place = changed.name + ", channel " + std::to_string(c.number);
        document_->store().refuse(q(words::sentence(e)));
        refresh();
    };
    if (column == amps || column == start) {
        std::optional<double>& field = column == amps ? c.rating_A : c.peak_A;
        if (typed.isEmpty()) {
            field.reset();
        } else {
            const auto v = parse_value(typed.toStdString(), Dimension::current);
            if (!v) return refuse(v.error());
            field = *v;
        }
    } else {
        (column == group ? c.group : c.label) = typed.toStdString();
    }
    if (changed == *box()) return refresh();
    if (!document_->apply(Put<Point>{changed, {}}, q(changed.name) + say(": channel %1").arg(c.number)))
        refresh();
}

}  // namespace yr::app

#include "moc_channel_table.cpp"
