#include "workspaces/guard/curve_chart.h"

#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "widgets/tokens.h"
#include "words/guard_words.h"

namespace yr::app {
namespace {

constexpr double kGrab_px = 14;

// Log ticks with a person's numbers: 10 ms, 1 s, 1 h.
class TimeTicks : public QCPAxisTickerLog {
  protected:
    QString getTickLabel(double tick, const QLocale&, QChar, int) override { return q(words::seconds(tick)); }
};

class AmpTicks : public QCPAxisTickerLog {
  protected:
    QString getTickLabel(double tick, const QLocale&, QChar, int) override {
        return q(words::quantity(tick, Dimension::current));
    }
};

}  // namespace

CurveChart::CurveChart(Document* document, QWidget* parent) : QCustomPlot(parent), document_(document) {
    setAccessibleName(say("Time over current"));
    setFocusPolicy(Qt::StrongFocus);
    for (QCPAxis* axis : {xAxis, yAxis}) axis->setScaleType(QCPAxis::stLogarithmic);
    xAxis->setTicker(QSharedPointer<AmpTicks>::create());
    yAxis->setTicker(QSharedPointer<TimeTicks>::create());
    setMinimumSize(360, 220);
    connect(this, &QCustomPlot::beforeReplot, this, &CurveChart::turn_marks);
}

void CurveChart::show_curves(std::optional<GuardCurves> curves, const Plan& plan) {
    curves_ = std::move(curves);
    grabbed_A_.reset();
    dragged_A_ = 0;
    fuses_.clear();
    for (const FuseBandCurve& f : curves_ ? curves_->fuses : std::vector<FuseBandCurve>{}) {
        const Device* d = yr::find(plan.runs[f.run].devices, f.device);
        fuses_.push_back(d ? std::optional(*d) : std::nullopt);
    }
    draw();
}

const Device* CurveChart::device_of(const FuseBandCurve& band) const {
    const auto& fuse = fuses_[static_cast<std::size_t>(&band - curves_->fuses.data())];
    return fuse ? &*fuse : nullptr;
}

const Device* CurveChart::own_device() const {
    if (!curves_) return nullptr;
    for (const FuseBandCurve& f : curves_->fuses)
        if (f.role == CurveRole::own) return device_of(f);
    return nullptr;
}

void CurveChart::style_axes() {
    const Tokens& t = tokens();
    setBackground(t.paper);
    for (QCPAxis* axis : {xAxis, yAxis, xAxis2, yAxis2}) {
        axis->setBasePen(QPen(t.line));
        axis->setTickPen(QPen(t.line));
        axis->setSubTickPen(QPen(t.line));
        axis->setTickLabelColor(t.soft);
        axis->setLabelColor(t.soft);
        axis->setTickLabelFont(type_font(Type::small));
        axis->setLabelFont(type_font(Type::small));
        QColor grid = t.line;
        grid.setAlpha(110);
        axis->grid()->setPen(QPen(grid, 1));
        axis->grid()->setSubGridVisible(false);
        axis->grid()->setZeroLinePen(QPen(t.line));
    }
    xAxis->setLabel(say("amps through the run"));
}

void CurveChart::add_line(const CurvePoints& points, const QPen& pen, const QString& name) {
    if (points.empty()) return;
    auto* g = new QCPCurve(xAxis, yAxis);
    g->setPen(pen);
    g->setName(name);
    QVector<double> x, y;
    for (const auto& [amps, seconds] : points) {
        x << amps;
        y << seconds;
    }
    g->setData(x, y);
}

// Between earliest and latest a fuse may open: a filled band.
void CurveChart::add_band(const FuseBandCurve& band, double scale, bool own) {
    if (band.earliest.empty() || band.latest.empty()) return;
    const Tokens& t = tokens();
    QVector<double> x, y;
    const double top = kChartTo_s * 2;
    x << band.earliest.front().first * scale;
    y << top;
    for (const auto& [amps, seconds] : band.earliest) {
        x << amps * scale;
        y << seconds;
    }
    for (auto p = band.latest.rbegin(); p != band.latest.rend(); ++p) {
        x << p->first * scale;
        y << p->second;
    }
    x << band.latest.front().first * scale;
    y << top;
    auto* area = new QCPCurve(xAxis, yAxis);
    area->setData(x, y);
    QColor fill = own ? t.source : t.soft;
    area->setPen(QPen(fill, own ? 2 : 1, own ? Qt::SolidLine : Qt::DashLine));
    fill.setAlpha(own ? 70 : 24);
    area->setBrush(fill);
    const Device* d = device_of(band);
    auto* label = new QCPItemText(this);
    label->position->setCoords(band.latest.front().first * scale, 3);
    label->setPositionAlignment(Qt::AlignLeft | Qt::AlignBottom);
    label->setRotation(-90);
    QColor ground = t.paper;
    ground.setAlpha(190);
    label->setBrush(ground);
    label->setFont(type_font(own ? Type::bold : Type::small));
    label->setColor(own ? t.source.darker(t.night ? 100 : 140) : t.soft);
    const QString rating = q(words::quantity(band.rating_A * scale, Dimension::current));
    label->setText((d ? q(d->name) : QString()) + QStringLiteral(", ") + rating);
}

void CurveChart::add_mark(double amps, const QString& text, const QColor& colour, double at_s,
                          Qt::PenStyle style) {
    if (!(amps > 0)) return;
    auto* line = new QCPItemStraightLine(this);
    line->point1->setCoords(amps, 1);
    line->point2->setCoords(amps, 10);
    line->setPen(QPen(colour, 1.5, style));
    auto* label = new QCPItemText(this);
    label->position->setCoords(amps, at_s);
    label->setPositionAlignment(Qt::AlignLeft | Qt::AlignTop);
    label->setFont(type_font(Type::small));
    label->setColor(colour);
    label->setBrush(tokens().paper);
    label->setPadding(QMargins(3, 1, 3, 1));
    label->setText(text);
    marks_.push_back(label);
}

// A mark's words stand left of it where they would end behind the chart's edge.
void CurveChart::turn_marks() {
    for (QCPItemText* label : marks_) {
        const double wide = QFontMetricsF(label->font()).horizontalAdvance(label->text()) + 8;
        const bool over = xAxis->coordToPixel(label->position->key()) + wide > axisRect()->right();
        label->setPositionAlignment((over ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignTop);
    }
}

void CurveChart::draw() {
    clearPlottables();
    marks_.clear();
    clearItems();
    style_axes();
    const Tokens& t = tokens();
    if (!curves_) {
        auto* text = new QCPItemText(this);
        text->position->setType(QCPItemPosition::ptAxisRectRatio);
        text->position->setCoords(0.5, 0.5);
        text->setFont(type_font(Type::body));
        text->setColor(t.soft);
        text->setText(say("Select a cable: its fuse, its limits and its shorts are drawn here."));
        xAxis->setRange(1, 10000);
        yAxis->setRange(kChartFrom_s, kChartTo_s);
        replot(QCustomPlot::rpImmediateRefresh);
        return;
    }
    const GuardCurves& c = *curves_;
    const Device* own = own_device();
    const double scale = dragged_A_ > 0 && own ? dragged_A_ / own->rating_A : 1;
    for (const FuseBandCurve& band : c.fuses)
        if (band.role != CurveRole::own) add_band(band, 1, false);
    add_line(c.adiabatic, QPen(t.ret[1], 1, Qt::DotLine), say("without loss of heat"));
    add_line(c.damage, QPen(t.stop, 2.5), say("cable"));
    for (const FuseBandCurve& band : c.fuses)
        if (band.role == CurveRole::own) add_band(band, scale, true);
    if (!c.damage.empty()) {
        auto* label = new QCPItemText(this);
        // the corner of many amps for long is beyond every cable
        label->position->setType(QCPItemPosition::ptAxisRectRatio);
        label->position->setCoords(0.99, 0.02);
        label->setPositionAlignment(Qt::AlignRight | Qt::AlignTop);
        label->setBrush(t.paper);
        label->setFont(type_font(Type::bold));
        label->setColor(t.stop);
        label->setText(say("beyond the red line the cable is hurt"));
    }
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, document_->style())); };
    add_mark(c.normal_A, say("now ") + A(c.normal_A), t.supply[0], 0.004, Qt::SolidLine);
    add_mark(c.table_A, say("table ") + A(c.table_A), t.good, 0.012, Qt::DashLine);
    add_mark(c.far_least_A, say("short, far end, least ") + A(c.far_least_A), t.ink, 40, Qt::SolidLine);
    add_mark(c.near_most_A, say("short at the fuse, most ") + A(c.near_most_A), t.ink, 8, Qt::DashLine);
    if (c.start_A && c.start_s) {  // the start: so many amps for so long
        auto* start = new QCPCurve(xAxis, yAxis);
        start->setPen(QPen(t.supply[1], 2));
        start->setData(QVector<double>{*c.start_A, *c.start_A, std::max(c.normal_A, 0.1)},
                       QVector<double>{kChartFrom_s, *c.start_s / 3, *c.start_s});
        auto* label = new QCPItemText(this);
        label->position->setCoords(*c.start_A, *c.start_s / 3);
        label->setPositionAlignment(Qt::AlignLeft | Qt::AlignBottom);
        label->setFont(type_font(Type::small));
        label->setColor(t.supply[0]);
        label->setText(say(" start ") + A(*c.start_A));
    }
    double low = c.normal_A > 0 ? c.normal_A : 1,
           high = std::max({c.far_most_A, c.near_most_A, c.table_A * 10});
    if (own) low = std::min(low, own->rating_A);
    if (c.table_A > 0) low = std::min(low, c.table_A);
    xAxis->setRange(std::max(0.05, low / 2), std::max(high * 3, low * 100));
    yAxis->setRange(kChartFrom_s, kChartTo_s);
    replot(QCustomPlot::rpImmediateRefresh);
}

QPointF CurveChart::handle() const {
    for (const FuseBandCurve& f : curves_ ? curves_->fuses : std::vector<FuseBandCurve>{})
        if (f.role == CurveRole::own && !f.latest.empty())
            return {xAxis->coordToPixel(f.latest.front().first), yAxis->coordToPixel(600)};
    return {};
}

double CurveChart::snapped_A(double rating_A) const {
    const Device* own = own_device();
    const auto& ratings = fuse_kind(own->fuse).ratings_A;
    return *std::min_element(ratings.begin(), ratings.end(), [&](double a, double b) {
        return std::abs(std::log(a / rating_A)) < std::abs(std::log(b / rating_A));
    });
}

void CurveChart::mousePressEvent(QMouseEvent* event) {
    const Device* own = own_device();
    if (own && curves_) {
        // inside its band, or near it
        for (const FuseBandCurve& f : curves_->fuses) {
            if (f.role != CurveRole::own || f.earliest.empty() || f.latest.empty()) continue;
            const double left = xAxis->coordToPixel(f.earliest.front().first) - kGrab_px;
            const double right = xAxis->coordToPixel(f.latest.front().first) + kGrab_px;
            const double x = event->position().x();
            if (x >= left && x <= right) {
                grabbed_A_ = xAxis->pixelToCoord(x);
                dragged_A_ = own->rating_A;
                return;
            }
        }
    }
    QCustomPlot::mousePressEvent(event);
}

void CurveChart::mouseMoveEvent(QMouseEvent* event) {
    const Device* own = own_device();
    if (!grabbed_A_ || !own) return QCustomPlot::mouseMoveEvent(event);
    const double wanted = own->rating_A * xAxis->pixelToCoord(event->position().x()) / *grabbed_A_;
    const double snapped = snapped_A(wanted);
    if (snapped == dragged_A_) return;
    dragged_A_ = snapped;
    const QCPRange range = xAxis->range();
    draw();
    xAxis->setRange(range);
    replot(QCustomPlot::rpImmediateRefresh);
}

void CurveChart::mouseReleaseEvent(QMouseEvent* event) {
    const Device* own = own_device();
    if (!grabbed_A_ || !own) return QCustomPlot::mouseReleaseEvent(event);
    const double wanted = dragged_A_;
    grabbed_A_.reset();
    dragged_A_ = 0;
    if (wanted > 0 && wanted != own->rating_A)
        emit rating_asked(own->id, wanted);
    else
        draw();
}

void CurveChart::changeEvent(QEvent* event) {
    if (event->type() == QEvent::PaletteChange && curves_) draw();
    QCustomPlot::changeEvent(event);
}

std::vector<SpokenPart> CurveChart::spoken_parts() const {
    std::vector<SpokenPart> parts;
    if (!curves_) return parts;
    const QRect whole = rect();
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, document_->style())); };
    for (const auto& fuse : fuses_)
        if (fuse) parts.push_back({whole, q(fuse->name), A(fuse->rating_A)});
    parts.push_back({whole, say("the cable carries by its table"), A(curves_->table_A)});
    parts.push_back({whole, say("it takes now"), A(curves_->normal_A)});
    if (curves_->start_A) parts.push_back({whole, say("at a start"), A(*curves_->start_A)});
    if (curves_->far_most_A > 0)
        parts.push_back({whole, say("a short at its far end"),
                         A(curves_->far_least_A) + QStringLiteral(" … ") + A(curves_->far_most_A)});
    return parts;
}

}  // namespace yr::app

#include "moc_curve_chart.cpp"
