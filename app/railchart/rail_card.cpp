// The dark card beside the mouse.
#include "control/hang_on.h"
#include "railchart/rail_paint.h"

#include <algorithm>
#include <cmath>
#include <map>
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

QStringList run_lines(const ShownCircuit& d, const SceneItem& item, const Run& run) {
    const auto k = static_cast<std::size_t>(item.ref.index);
    const ConductorElement& e = d.solution().network.conductors[k];
    const ConductorResult& r = d.solution().point.conductors[k];
    const words::Style style = d.style();
    const auto text = [&](double v, Dimension dim) { return q(words::quantity(v, dim, style)); };
    QStringList lines{q(run.name)};
    QString what;
    if (e.cable20_ohm > 0) {
        const QString length = run.length_m ? text(*run.length_m, Dimension::length) : say("length assumed");
        what = q(words::short_size(run.size.value_or(WireSize::awg(14)))) + QStringLiteral("  ·  ") + length +
               QStringLiteral("  ·  ") + text(run.insulation_C, Dimension::temperature) +
               say(" insulation, ") + text(r.temperature_C, Dimension::temperature) + say(" now");
    } else {
        what = text(e.fixed_ohm, Dimension::resistance) +
               (run.resistance_ohm ? say(" as given") : say(" assumed"));
    }
    lines << what;
    const double amps = std::abs(r.current_A), ohm = e.fixed_ohm + r.cable_ohm;
    const auto amp = run_ampacity(d.plan(), run, d.state());
    lines << text(amps, Dimension::current) +
                 (amp ? say(" of ") + text(amp->allowed_A, Dimension::current) : QString()) +
                 QStringLiteral("    ") + text(amps * ohm, Dimension::voltage) + QStringLiteral("    ") +
                 text(amps * amps * ohm, Dimension::power);
    for (const Device& dev : run.devices)
        if (dev.kind == DeviceKind::fuse)
            lines << q(dev.name) + QStringLiteral("  ") + text(dev.rating_A, Dimension::current);
    if (item.pieces > 1) lines << say("drawn in %1 pieces that are one").arg(item.pieces);
    lines << (e.cable20_ohm > 0 ? say("wheel: thicker / thinner      F1: why?") : say("F1: why?"));
    return lines;
}

}  // namespace

QStringList card_lines(const ShownCircuit& d, const SceneItem& item) {
    if (item.kind == SceneKind::gathered) {
        QStringList lines{item.label};
        for (std::size_t k = 0; k < item.members.size() && k < 8; ++k)
            lines << q(yr::name_of(d.plan(), item.members[k]));
        lines << say("click: open");
        return lines;
    }
    if (item.kind == SceneKind::conductor) {
        if (const Run* run = yr::find(d.plan().runs, item.id)) return run_lines(d, item, *run);
        return {q(yr::name_of(d.plan(), item.id)) + say(", its bond"), cable_detail(d, item),
                say("F1: why?")};
    }
    QStringList lines{item.label};
    if (item.kind == SceneKind::load) {
        lines << item.detail;
        if (!item.share.isEmpty()) lines << item.share + say(" allowed drop");
        if (item.ref.thing == ChartThing::load)
            lines << say("wheel: its cable thicker / thinner      drag: to another feed");
        else if (feed_of(d.plan(), item.id))
            lines << say("drag: to another supply");
    }
    lines << say("F1: why?");
    return lines;
}

void paint_card(QPainter& p, const RailPaint& what, const SceneItem& item) {
    const Tokens& t = tokens();
    const QStringList lines = card_lines(what.circuit, item);
    const QFontMetricsF bold(type_font(Type::bold)), small(type_font(Type::small));
    double width = bold.horizontalAdvance(lines.first());
    for (const QString& l : lines) width = std::max(width, small.horizontalAdvance(l));
    QRectF card(0, 0, width + 28, 30 + 18.0 * static_cast<double>(lines.size() - 1) + 8);
    card.moveTopLeft(what.mouse + QPointF(16, 18));
    if (card.right() > what.size.width() - 4) card.moveRight(what.mouse.x() - 10);
    if (card.bottom() > what.size.height() - 4) card.moveBottom(what.mouse.y() - 10);
    card.moveLeft(std::max(4.0, card.left()));
    card.moveTop(std::max(4.0, card.top()));
    p.fillRect(card, t.card);
    double y = card.top() + 8;
    for (qsizetype k = 0; k < lines.size(); ++k) {
        p.setFont(type_font(k == 0 ? Type::bold : Type::small));
        p.setPen(k + 1 == lines.size() ? t.card_soft : t.card_ink);
        p.drawText(QRectF(card.left() + 14, y, width + 4, 18), Qt::AlignLeft | Qt::AlignVCenter, lines[k]);
        y += k == 0 ? 22 : 18;
    }
}

}  // namespace yr::app
