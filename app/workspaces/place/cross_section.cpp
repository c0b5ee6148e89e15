#include "workspaces/place/cross_section.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include "routes/routes.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {

CrossSection::CrossSection(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("The cables cut across"));
    setFixedHeight(210);
}

void CrossSection::show(const std::vector<std::size_t>& runs, double bore_mm) {
    bore_mm_ = bore_mm;
    of_.clear();
    for (const std::size_t k : runs)
        for (int n = 0; n < document_->plan().runs[k].parallel; ++n) of_.push_back(k);
    const std::vector<double> mm = diameters_mm(document_->plan(), runs);
    packing_ = pack(mm);
    factor_mm_ = mm.empty() ? 0 : bundle_by_factor(mm);
    update();
}

double CrossSection::px_per_mm() const {
    const double mm = std::max({packing_.diameter, bore_mm_, 1.0});
    return (std::min(width(), height()) - 16) / mm;
}

QRectF CrossSection::circle(const Disc& d) const {
    const double s = px_per_mm();
    const QPointF middle(width() / 2.0 + d.x * s, height() / 2.0 + d.y * s);
    return {middle - QPointF(d.d * s / 2, d.d * s / 2), QSizeF(d.d * s, d.d * s)};
}

int CrossSection::disc_at(const QPointF& point) const {
    for (std::size_t k = 0; k < packing_.discs.size(); ++k)
        if (circle(packing_.discs[k]).contains(point)) return static_cast<int>(k);
    return -1;
}

void CrossSection::paintEvent(QPaintEvent*) {
    const Tokens& t = tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setBrush(t.paper);
    if (bore_mm_ > 0) {
        p.setPen(QPen(t.ink, 2));
        p.drawEllipse(circle({0, 0, bore_mm_}));
    }
    p.setPen(QPen(t.soft, 1, Qt::DashLine));
    p.drawEllipse(circle({0, 0, packing_.diameter}));
    p.setFont(type_font(Type::small));
    const Plan& plan = document_->plan();
    for (std::size_t k = 0; k < packing_.discs.size(); ++k) {
        const Run& run = plan.runs[of_[k]];
        const bool chosen = run.id == document_->selection().id();
        // returns are earth, feeds blue; the chosen one ochre
        const bool back = yr::find(plan.loads, run.from.owner) && run.from.post == Post::neg;
        const QColor fill = chosen ? t.source : back ? t.ret[1] : t.supply[packing_.discs[k].d > 9 ? 0 : 1];
        const QRectF r = circle(packing_.discs[k]);
        p.setPen(QPen(t.paper, 1));
        p.setBrush(fill);
        p.drawEllipse(r);
        if (!run.size || r.width() < 24) continue;
        QString text = q(words::short_size(*run.size));
        text = text.section(QChar(0x2009), 0, 0);
        if (QFontMetricsF(p.font()).horizontalAdvance(text) > r.width() - 4) continue;
        p.setPen(t.on(fill));
        p.drawText(r, Qt::AlignCenter, text);
    }
}

void CrossSection::mousePressEvent(QMouseEvent* event) {
    if (const int k = disc_at(event->position()); k >= 0)
        document_->selection().choose(document_->plan().runs[of_[static_cast<std::size_t>(k)]].id);
}

bool CrossSection::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    auto* help = static_cast<QHelpEvent*>(event);
    const int k = disc_at(help->pos());
    const Run* run = k < 0 ? nullptr : &document_->plan().runs[of_[static_cast<std::size_t>(k)]];
    QToolTip::showText(
        help->globalPos(),
        run ? q(run->name) + (run->size ? QStringLiteral(", ") + q(yr::name_of(*run->size)) : QString())
            : QString(),
        this);
    return true;
}

std::vector<SpokenPart> CrossSection::spoken_parts() const {
    std::vector<SpokenPart> parts;
    for (std::size_t k = 0; k < packing_.discs.size(); ++k) {
        const Run& run = document_->plan().runs[of_[k]];
        parts.push_back({circle(packing_.discs[k]).toRect(), q(run.name),
                         run.size ? q(yr::name_of(*run.size)) : QString()});
    }
    return parts;
}

}  // namespace yr::app

#include "moc_cross_section.cpp"
