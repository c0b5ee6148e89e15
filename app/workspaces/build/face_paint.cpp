#include "workspaces/build/face_paint.h"

#include <algorithm>

#include "text/say.h"
#include "widgets/tokens.h"
#include "words/say.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kHeadLines = 2.6, kPinLines = 3.3, kFootLines = 1.4, kGapShare = 0.06;

double half_width(const FacePaint& how) {
    return how.width * (1 - kGapShare) / 2;
}

const WireRow* wire_of(const std::vector<WireRow>& wires, std::size_t run) {
    const auto found =
        std::find_if(wires.begin(), wires.end(), [&](const WireRow& w) { return w.run == run; });
    return found == wires.end() ? nullptr : &*found;
}

// "3-1 red", "14 AWG"
QStringList lines_in_pin(const Plan& plan, const std::vector<WireRow>& wires, const FacePin& pin) {
    QStringList lines{QString::number(pin.number)};
    if (pin.runs.empty()) {
        lines << (pin.function.empty() ? say("blind plug") : q(pin.function));
        return lines;
    }
    QStringList numbers;
    for (const std::size_t run : pin.runs)
        if (const WireRow* w = wire_of(wires, run)) numbers << q(w->number + " " + w->colour);
    lines << numbers.join(QStringLiteral(" + "));
    if (const auto& size = plan.runs[pin.runs.front()].size) lines << q(name_of(*size));
    return lines;
}

}  // namespace

double face_height(const ConnectorFace& face, double line) {
    return (kHeadLines + face.rows * kPinLines + kFootLines) * line;
}

QRectF pin_rect(const ConnectorFace& face, const FacePin& pin, const FacePaint& how, bool behind) {
    const double wide = half_width(how) / face.columns, high = kPinLines * how.line;
    const int column = behind ? face.mirrored(pin.column) : pin.column;
    const double left = how.at.x() + (behind ? how.width - half_width(how) : 0);
    return QRectF(left + column * wide, how.at.y() + kHeadLines * how.line + pin.row * high, wide, high);
}

void paint_face(QPainter& p, const Plan& plan, const std::vector<WireRow>& wires, const ConnectorFace& face,
                const FacePaint& how) {
    const QFontMetricsF metrics(p.font(), p.device());
    const auto text = [&](const QRectF& where, const QString& what, int flags) {
        p.drawText(where, flags, metrics.elidedText(what, Qt::ElideRight, where.width()));
    };
    p.setPen(how.ink);
    const Connector* connector = find(plan.connectors, std::string_view(face.connector));
    QString head = q(words::capital(name_of(plan, face.connector)));
    if (connector && !connector->mates_with.empty())
        head += QStringLiteral("  ·  ") + say("other half %1").arg(q(connector->mates_with));
    text(QRectF(how.at, QSizeF(how.width, how.line * 1.2)), head, Qt::AlignLeft | Qt::AlignVCenter);
    for (const bool behind : {false, true}) {
        const double left = how.at.x() + (behind ? how.width - half_width(how) : 0);
        p.setPen(how.soft);
        text(QRectF(left, how.at.y() + how.line * 1.2, half_width(how), how.line * 1.2),
             behind ? say("half towards the loads, wires towards you")
                    : say("half towards the supply, wires towards you"),
             Qt::AlignLeft | Qt::AlignVCenter);
        for (const FacePin& pin : face.pins) {
            const QRectF cell = pin_rect(face, pin, how, behind).adjusted(2, 2, -2, -2);
            const bool own = std::any_of(pin.runs.begin(), pin.runs.end(),
                                         [&](std::size_t run) { return plan.runs[run].id == how.chosen; });
            p.setPen(QPen(own                ? how.own
                          : pin.runs.empty() ? how.soft
                                             : how.ink,
                          own ? 2.5 : 1, pin.runs.empty() ? Qt::DashLine : Qt::SolidLine));
            p.setBrush(pin.runs.empty() ? Qt::NoBrush : QBrush(how.fill));
            p.drawRoundedRect(cell, 3, 3);
            p.setPen(own ? how.own : pin.runs.empty() ? how.soft : how.ink);
            double y = cell.y();
            const QStringList lines = lines_in_pin(plan, wires, pin);
            for (qsizetype k = 0; k < lines.size(); ++k, y += how.line) {
                const QRectF where(cell.x() + 4, y, cell.width() - 8, how.line);
                if (k + 1 == lines.size() && pin.runs.empty())  // what it is for may take two lines
                    p.drawText(where.adjusted(0, 0, 0, how.line),
                               Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, lines[k]);
                else
                    text(where, lines[k], Qt::AlignLeft | Qt::AlignVCenter);
            }
        }
    }
    p.setPen(how.soft);
    text(QRectF(how.at.x(), how.at.y() + face_height(face, how.line) - kFootLines * how.line, how.width,
                kFootLines * how.line),
         say("Counted off in this order; the numbers moulded beside the pins hold."),
         Qt::AlignLeft | Qt::AlignVCenter);
}

}  // namespace yr::app
