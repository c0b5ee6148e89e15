#include "workspaces/meter/years_view.h"

#include <qcustomplot.h>

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QVBoxLayout>

#include "text/say.h"
#include "units/quantity.h"
#include "units/text.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "words/wire_words.h"
#include "workspaces/meter/record_view.h"

namespace yr::app {
namespace {

constexpr double kDay_s = 86400;

// "12.6 V 5 A, 12.1 V 60 A": volts at the posts under two loads. Nothing: it is not that.
std::optional<double> ohm_of(const QString& text) {
    const std::string typed = text.toStdString();
    std::vector<double> v;
    for (const std::string_view half : split(typed, ',')) {
        const std::string part(trim(half));
        const auto at = part.find_first_of("vV");
        if (at == std::string::npos) return std::nullopt;
        const auto volts = parse_reading(part.substr(0, at + 1), Dimension::voltage);
        const auto amps = parse_reading(std::string(trim(part.substr(at + 1))), Dimension::current);
        if (!volts || !amps) return std::nullopt;
        v.push_back(*volts), v.push_back(*amps);
    }
    const auto ohm = v.size() == 4 ? ohm_of_two(v[0], v[1], v[2], v[3]) : std::nullopt;
    return ohm && *ohm > 0 ? ohm : std::nullopt;
}

}  // namespace

YearsView::YearsView(Document* document, RecordView* record, QWidget* parent)
    : QWidget(parent), document_(document), record_(record) {
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels({say("day"), say("at rest"), say("charged"), say("cranking"), say("air"),
                             say("cranking in the cold"), say("needed then"), say("resistance")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    table_->setAccessibleName(say("A battery's readings"));
    table_->header()->setFont(type_font(Type::small));
    make_handy(table_);
    chart_ = new QCustomPlot;
    chart_->setAccessibleName(say("Volts while cranking in the cold, over the years"));
    chart_->setMinimumHeight(150);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(make_entry());
    column->addWidget(table_, 2);
    column->addWidget(chart_, 3);
}

QWidget* YearsView::make_entry() {
    auto* entry = new QWidget;
    battery_ = new QComboBox;
    battery_->setAccessibleName(say("Battery"));
    battery_->setMinimumHeight(30);
    const auto field = [](const QString& hint, const QString& name, int width) {
        auto* f = new QLineEdit;
        f->setPlaceholderText(hint);
        f->setAccessibleName(name);
        f->setToolTip(name);
        f->setMinimumHeight(30);
        f->setMinimumWidth(width);
        return f;
    };
    rested_ = field(say("at rest, V"), say("Volts at rest, after %1 h without a load").arg(kRest_h), 80);
    cranked_ = field(say("cranking, V"), say("Volts at its posts while the starter turns"), 90);
    warmth_ = field(say("air, °C"), say("Warmth of the air while it cranked"), 70);
    loads_ = field(say("12.6 V 5 A, 12.1 V 60 A"),
                   say("Volts at its posts under two loads and their amps: gives its resistance"), 170);
    cold_ = field(say("coldest, °C"), say("Coldest morning that it must start on"), 80);
    cold_->setText(QStringLiteral("-10"));
    keep_ = new QPushButton(say("Keep it"));
    keep_->setToolTip(say("Puts what is typed into the record, with today's date"));
    keep_->setMinimumHeight(30);
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    for (QWidget* w : std::initializer_list<QWidget*>{rested_, cranked_, warmth_}) row->addWidget(w, 1);
    auto* last = new QHBoxLayout;
    last->setSpacing(6);
    last->addWidget(loads_, 1);
    last->addWidget(keep_);
    auto* cold_words = new QLabel(say("coldest morning"));
    cold_words->setObjectName(QStringLiteral("soft"));
    cold_words->setBuddy(cold_);
    cold_->setMaximumWidth(90);
    auto* top = new QHBoxLayout;
    top->addWidget(battery_, 1);
    top->addStretch(1);
    top->addWidget(cold_words);
    top->addWidget(cold_);
    auto* column = new QVBoxLayout(entry);
    column->setContentsMargins(16, 4, 16, 4);
    column->addLayout(top);
    column->addLayout(row);
    column->addLayout(last);
    connect(keep_, &QPushButton::clicked, this, &YearsView::keep);
    for (QLineEdit* f : {rested_, cranked_, warmth_, loads_})
        connect(f, &QLineEdit::returnPressed, this, &YearsView::keep);
    connect(cold_, &QLineEdit::editingFinished, this, &YearsView::set_cold);
    connect(battery_, &QComboBox::activated, this, [this] { refresh(), emit changed(); });
    return entry;
}

Id YearsView::battery() const {
    return battery_->currentData().toString().toStdString();
}

void YearsView::set_cold() {
    const auto v = parse_value(cold_->text().trimmed().toStdString(), Dimension::temperature);
    if (!v || *v < -50 || *v > 30) {
        document_->store().refuse(v ? say("The coldest morning lies between −50 and 30 °C.")
                                    : q(words::sentence(v.error())));
        cold_->setText(q(words::number(cold_C_)));
        return;
    }
    cold_C_ = *v;
    refresh();
    emit changed();
}

void YearsView::keep() {
    const Plan& plan = document_->plan();
    std::vector<Record> lines;
    const auto refuse = [this](const QString& sentence) { document_->store().refuse(sentence); };
    std::optional<double> air_C;
    if (!warmth_->text().trimmed().isEmpty()) {
        const auto v = parse_value(warmth_->text().trimmed().toStdString(), Dimension::temperature);
        if (!v) return refuse(q(words::sentence(v.error())));
        air_C = *v;
    }
    const std::pair<QLineEdit*, HealthReading> fields[] = {
        {rested_, HealthReading::rested_V}, {cranked_, HealthReading::crank_V}, {loads_, HealthReading::ohm}};
    for (const auto& [field, kind] : fields) {
        const QString text = field->text().trimmed();
        if (text.isEmpty()) continue;
        Result<double> value = parse_reading(text.toStdString(), Dimension::voltage);
        if (kind == HealthReading::ohm) {
            const auto ohm = ohm_of(text);
            if (!ohm)
                return refuse(
                    say("Two loads are volts and amps twice, 5 A apart or more, the higher amps at the lower "
                        "volts: “12.6 V 5 A, 12.1 V 60 A”."));
            value = *ohm;
        }
        if (!value) return refuse(q(words::sentence(value.error())));
        auto line = health_record(plan, battery(), kind, *value, air_C);
        if (!line)
            return refuse(kind == HealthReading::crank_V
                              ? say("The plan has no state in which the starter turns: type one, such as "
                                    "“state cranking”.")
                              : say("The plan has no state in which the vehicle is parked: type one, such as "
                                    "“state parked”."));
        lines.push_back(std::move(*line));
    }
    if (lines.empty())
        return refuse(
            say("Type what was read: volts at rest, volts while cranking, or volts and amps of two loads."));
    for (Record& r : lines)
        if (!record_->add(std::move(r))) return refuse(record_->problem());
    for (QLineEdit* f : {rested_, cranked_, warmth_, loads_}) f->clear();
    refresh();
    emit changed();
}

void YearsView::refresh() {
    const QVariant was = battery_->currentData();
    battery_->clear();
    for (const Battery& b : document_->plan().batteries) battery_->addItem(q(b.name), q(b.id));
    if (const int k = battery_->findData(was); k >= 0) battery_->setCurrentIndex(k);
    days_ =
        health_days(document_->plan(), battery(), records_of(record_->book(), document_->plan()), cold_C_);
    ahead_ = outlook(days_);
    {
        const Refill refill(table_);
        const auto& style = document_->style();
        const auto text = [&](const std::optional<double>& v, Dimension d) {
            return v ? q(words::quantity(*v, d, style)) : QString();
        };
        for (const HealthDay& d : days_) {
            auto* item = new TableRow(table_);
            const ColdCrank cold = d.cold.value_or(ColdCrank{});
            const auto in_the_cold = [&](double v) {
                return d.cold ? q(words::quantity(v, Dimension::voltage, style)) : QString();
            };
            const QString cells[] = {q(d.date),
                                     text(d.rested_V, Dimension::voltage),
                                     text(d.charge, Dimension::fraction),
                                     text(d.crank_V, Dimension::voltage),
                                     text(d.at_C, Dimension::temperature),
                                     in_the_cold(cold.post_V),
                                     in_the_cold(cold.least_V),
                                     text(d.ohm, Dimension::resistance)};
            for (int c = 0; c < 8; ++c) {
                item->setText(c, cells[c]);
                if (c > 0) item->setTextAlignment(c, Qt::AlignRight);
            }
            if (d.cold && !d.cold->cranks()) item->setForeground(5, tokens().stop);
        }
    }
    const int widths[] = {95, 70, 70, 72, 62, 140, 92, 85};
    for (int k = 0; k < 8; ++k) table_->header()->resizeSection(k, widths[k]);
    draw();
}

void YearsView::draw() {
    const Tokens& t = tokens();
    chart_->clearPlottables();
    chart_->clearItems();
    chart_->setBackground(t.paper);
    for (QCPAxis* axis : {chart_->xAxis, chart_->yAxis}) {
        axis->setBasePen(QPen(t.line));
        axis->setTickPen(QPen(t.line));
        axis->setSubTickPen(QPen(t.line));
        axis->setTickLabelColor(t.soft);
        axis->setLabelColor(t.soft);
        axis->setTickLabelFont(type_font(Type::small));
        axis->setLabelFont(type_font(Type::small));
        axis->grid()->setPen(QPen(t.line, 1, Qt::DotLine));
    }
    const auto dates = QSharedPointer<QCPAxisTickerDateTime>::create();
    dates->setDateTimeFormat(QStringLiteral("MMM yyyy"));
    dates->setTickCount(4);
    chart_->xAxis->setTicker(dates);
    chart_->yAxis->setLabel(
        say("cranking at %1, V")
            .arg(q(words::quantity(cold_C_, Dimension::temperature, document_->style()))));
    QVector<double> x, y;
    double least_V = 0;
    for (const HealthDay& d : days_)
        if (d.cold)
            if (const auto day = day_of(d.date))
                x << *day * kDay_s, y << d.cold->post_V, least_V = d.cold->least_V;
    chart_->setVisible(!x.isEmpty());
    if (x.isEmpty()) return;
    const double from = x.first() - 60 * kDay_s;
    double to = x.last() + 200 * kDay_s;
    if (ahead_ && ahead_->reaches)
        if (const auto day = day_of(*ahead_->reaches))
            to = std::min(std::max(to, (*day + 60) * kDay_s), x.last() + 5 * 366 * kDay_s);
    const auto line = [&](const QPen& pen, const QVector<double>& xs, const QVector<double>& ys) {
        QCPGraph* g = chart_->addGraph();
        g->setPen(pen);
        g->setData(xs, ys);
        return g;
    };
    line(QPen(t.stop, 1.5, Qt::DashLine), {from, to}, {least_V, least_V});
    auto* needed = new QCPItemText(chart_);
    needed->position->setCoords(to, least_V);
    needed->setPositionAlignment(Qt::AlignRight | Qt::AlignTop);
    needed->setText(say("needed"));
    needed->setFont(type_font(Type::small));
    needed->setColor(t.stop);
    QCPGraph* dots = line(Qt::NoPen, x, y);
    dots->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, t.ink, 8));
    if (ahead_) {
        const auto at = [&](double when_s) {
            return ahead_->trend.middle +
                   ahead_->trend.a_year / 365.25 * (when_s / kDay_s - ahead_->trend.middle_day);
        };
        line(QPen(t.source, 2), {from, to}, {at(from), at(to)});
    }
    double low = least_V, high = least_V;
    for (const double v : y) low = std::min(low, v), high = std::max(high, v);
    chart_->xAxis->setRange(from, to);
    chart_->yAxis->setRange(low - 0.3, high + 0.3);
    chart_->replot();
}

}  // namespace yr::app

#include "moc_years_view.cpp"
