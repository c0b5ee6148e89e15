#include "workspaces/build/loom_view.h"

#include <QBuffer>
#include <QMouseEvent>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgGenerator>
#include <algorithm>
#include <cmath>

#include "files/text_file.h"
#include "widgets/tokens.h"
#include "words/build_words.h"
#include "words/sentences.h"
#include "words/wire_words.h"

namespace yr::app {
namespace {

constexpr double kMargin = 24, kLoomHead = 26, kLoomGap = 28;
constexpr double kWidestFace = 900;
constexpr int kLoomDpi = 150;
constexpr double kStep_m = 0.02;

QString metres(double m) {
    return q(words::quantity(m, Dimension::length));
}

double away_from(const QPointF& a, const QPointF& b, const QPointF& p) {
    const QPointF d = b - a;
    const double square = d.x() * d.x() + d.y() * d.y();
    const double t =
        square > 0 ? std::clamp(((p.x() - a.x()) * d.x() + (p.y() - a.y()) * d.y()) / square, 0.0, 1.0) : 0;
    const QPointF at = a + d * t - p;
    return std::hypot(at.x(), at.y());
}

// Numbers of the cables of a breakout, from the wire table.
QString numbers_of(const std::vector<WireRow>& wires, const std::vector<std::size_t>& runs) {
    QStringList all;
    for (const WireRow& w : wires)
        if (std::find(runs.begin(), runs.end(), w.run) != runs.end()) all << q(w.number);
    return all.join(QStringLiteral(" "));
}

// One sheet's part of a loom, in pixels of the paper.
void draw_loom(QPainter& p, const Plan& plan, const std::vector<WireRow>& wires, const FlatLoom& loom,
               const std::function<QPointF(const FlatPoint&)>& at, double px_per_mm) {
    for (const FlatSegment& s : loom.segments) {
        const QPointF a = at(s.from), b = at(s.to);
        const double wide = std::max(1.0, s.bundle_mm * px_per_mm);
        p.setPen(QPen(s.way.empty() ? Qt::gray : Qt::darkGray, wide, Qt::SolidLine, Qt::FlatCap));
        p.drawLine(a, b);
        p.setPen(QPen(Qt::black, std::max(0.6, 0.3 * px_per_mm)));
        p.drawLine(a, b);
        p.setBrush(Qt::white);
        p.drawEllipse(a, 1.2 * px_per_mm, 1.2 * px_per_mm);
        const QString what = s.way.empty()
                                 ? q(yr::name_of(plan, s.thing)) + QStringLiteral("  ") +
                                       metres(s.length_m()) + QStringLiteral("\n") + numbers_of(wires, s.runs)
                                 : q(yr::name_of(plan, s.way)) + QStringLiteral("  ") + metres(s.length_m()) +
                                       QStringLiteral("\n") + q(words::covering_text(s.covering));
        const QPointF where = s.way.empty() ? b : (a + b) / 2;
        p.drawText(QRectF(where - QPointF(40 * px_per_mm, -wide / 2 - px_per_mm),
                          QSizeF(80 * px_per_mm, 12 * px_per_mm)),
                   Qt::AlignHCenter | Qt::AlignTop, what);
    }
}

// What goes where, plug by plug, and the end plug that proves it.
QStringList pin_lines(const Plan& plan, const std::vector<WireRow>& wires, const FlatLoom& loom) {
    QStringList lines;
    for (const FlatSegment& s : loom.segments)
        if (s.way.empty())
            lines << q(words::capital(yr::name_of(plan, s.thing))) + QStringLiteral(":  ") +
                         numbers_of(wires, s.runs) + QStringLiteral("   ") + metres(s.length_m());
    const Instrument meter = instrument_of(plan);
    const std::size_t most = most_pins(meter);
    for (const EndPlug& plug : end_plugs(plan, {loom})) {
        if (!plug.connector.empty() || most == 0) continue;
        for (std::size_t first = 0; first < plug.runs.size(); first += most) {
            lines << QString()
                  << say("End plug: a resistor of 1 % from each pin to a common lead; ohms from each far end "
                         "to that "
                         "lead");
            const auto sheet = words::plug_sheet(
                plan, plug, coded_plug(std::min(most, plug.runs.size() - first), meter), first);
            for (const auto& row : sheet.rows) {
                const auto cell = [&](std::size_t k) { return q(std::get<std::string>(row[k])); };
                lines << say("pin %1:  %2  %3").arg(cell(0), cell(4), cell(1)) + QStringLiteral("   ") +
                             cell(3);
            }
        }
    }
    return lines;
}

// Pages of lines; how many.
int print_lines(QPdfWriter& writer, QPainter& p, const QStringList& lines, double edge) {
    const double step = 6 * kLoomDpi / 25.4;
    int pages = 0;
    double y = 1e9;
    QFont font = type_font(Type::body);
    font.setPointSizeF(9);
    p.setPen(Qt::black);
    for (const QString& line : lines) {
        if (y > writer.height() - edge) {
            writer.newPage();
            p.setFont(font);
            ++pages, y = edge;
        }
        p.drawText(QPointF(edge, y), line);
        y += step;
    }
    return pages;
}

// The connectors that the loom's cables pass.
std::vector<ConnectorFace> faces_in(const Plan& plan, const FlatLoom& loom) {
    std::vector<ConnectorFace> faces = connector_faces(plan);
    std::erase_if(faces, [&](const ConnectorFace& face) {
        return std::none_of(face.pins.begin(), face.pins.end(), [&](const FacePin& pin) {
            return std::any_of(pin.runs.begin(), pin.runs.end(), [&](std::size_t run) {
                return std::find(loom.runs.begin(), loom.runs.end(), run) != loom.runs.end();
            });
        });
    });
    return faces;
}

FacePaint face_on_paper(double edge, double width) {
    FacePaint how;
    how.at = {edge, edge};
    how.width = width, how.line = 4.2 * kLoomDpi / 25.4;
    how.ink = Qt::black, how.soft = Qt::darkGray, how.fill = Qt::white, how.own = Qt::black;
    return how;
}

// From the wires' side; how many pages.
int print_faces(QPdfWriter& writer, QPainter& p, const Plan& plan, const std::vector<WireRow>& wires,
                const FlatLoom& loom, double edge) {
    QFont font = type_font(Type::body);
    font.setPointSizeF(8);
    FacePaint how = face_on_paper(edge, writer.width() - 2 * edge);
    int pages = 0;
    double y = 1e9;
    for (const ConnectorFace& face : faces_in(plan, loom)) {
        const double high = face_height(face, how.line);
        if (y + high > writer.height() - edge) {
            writer.newPage();
            p.setFont(font);
            ++pages, y = edge;
        }
        how.at = {edge, y};
        paint_face(p, plan, wires, face, how);
        y += high + 2 * how.line;
    }
    return pages;
}

}  // namespace

LoomView::LoomView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(say("Looms laid flat"));
    connect(&document_->selection(), &Selection::chosen, this, qOverload<>(&QWidget::update));
}

void LoomView::show(const std::vector<FlatLoom>& looms) {
    looms_ = looms;
    faces_ = connector_faces(document_->plan());
    wires_ = wire_table(document_->plan());
    lay_out();
}

void LoomView::lay_out() {
    origin_.clear();
    double widest = 1;
    for (const FlatLoom& l : looms_) widest = std::max(widest, l.high.x_m - l.low.x_m);
    px_per_m_ = std::max(20.0, (width() - 2 * kMargin - 60) / widest);
    double y = kMargin;
    for (const FlatLoom& l : looms_) {
        y += kLoomHead;
        origin_.push_back({kMargin + 30 - l.low.x_m * px_per_m_, y - l.low.y_m * px_per_m_ + 14});
        y += (l.high.y_m - l.low.y_m) * px_per_m_ + kLoomGap + 20;
    }
    face_y_.clear();
    const double line = QFontMetricsF(type_font(Type::small)).height();
    for (const ConnectorFace& f : faces_) {
        face_y_.push_back(y);
        y += face_height(f, line) + kLoomGap;
    }
    setMinimumHeight(static_cast<int>(y) + 20);
    update();
}

FacePaint LoomView::face_at(std::size_t face) const {
    const Tokens& t = tokens();
    FacePaint how;
    how.at = {kMargin, face_y_[face]};
    how.width = std::min(width() - 2 * kMargin, kWidestFace);
    how.line = QFontMetricsF(type_font(Type::small)).height();
    how.ink = t.ink, how.soft = t.soft, how.fill = t.panel, how.own = t.source;
    how.chosen = document_->selection().id();
    return how;
}

QRectF LoomView::pin_on_screen(std::size_t face, std::size_t pin, bool behind) const {
    return pin_rect(faces_[face], faces_[face].pins[pin], face_at(face), behind);
}

void LoomView::choose(const std::vector<std::size_t>& runs) {
    if (!runs.empty()) document_->selection().choose(document_->plan().runs[runs.front()].id);
}

void LoomView::resizeEvent(QResizeEvent*) {
    lay_out();
}

QPointF LoomView::on_screen(std::size_t loom, const FlatPoint& point) const {
    return origin_[loom] + QPointF(point.x_m, point.y_m) * px_per_m_;
}

void LoomView::paintEvent(QPaintEvent*) {
    const Tokens& t = tokens();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), t.paper);
    if (looms_.empty() && faces_.empty()) {
        p.setPen(t.soft);
        p.drawText(rect().adjusted(24, 24, -24, -24), Qt::AlignCenter | Qt::TextWordWrap,
                   say("No loom yet: a loom is where cables lie along the same ways. Place lays them."));
        return;
    }
    for (std::size_t k = 0; k < looms_.size(); ++k) {
        const FlatLoom& l = looms_[k];
        p.setFont(type_font(Type::bold));
        p.setPen(t.ink);
        p.drawText(QPointF(kMargin, on_screen(k, l.low).y() - 14),
                   say_n("Loom along %1: %2, %n cable", "Loom along %1: %2, %n cables",
                         static_cast<long>(l.runs.size()))
                       .arg(q(l.name), metres(l.length_m)));
        p.setFont(type_font(Type::small));
        std::vector<QRectF> taken;
        for (const FlatSegment& s : l.segments) {
            const bool own = std::any_of(s.runs.begin(), s.runs.end(), [&](std::size_t run) {
                return document_->plan().runs[run].id == document_->selection().id();
            });
            const QPointF a = on_screen(k, s.from), b = on_screen(k, s.to);
            const double wide = std::clamp(s.bundle_mm / 2.5, 1.2, 14.0);
            p.setPen(QPen(own             ? t.source
                          : s.way.empty() ? t.supply[2]
                                          : t.supply[1],
                          wide, Qt::SolidLine, Qt::RoundCap));
            p.drawLine(a, b);
            p.setPen(Qt::NoPen);
            p.setBrush(t.ink);
            p.drawEllipse(a, 2.5, 2.5);
            if (!s.way.empty()) continue;
            const QString name =
                p.fontMetrics().elidedText(q(yr::name_of(document_->plan(), s.thing)), Qt::ElideRight, 118);
            const double w = p.fontMetrics().horizontalAdvance(name);
            const QRectF where(b - QPointF(w / 2, b.y() < a.y() ? 15 : -1), QSizeF(w, 15));
            const bool free = std::none_of(taken.begin(), taken.end(),
                                           [&](const QRectF& r) { return r.intersects(where); });
            if (!free && !own) continue;  // its sheet and its card name it
            taken.push_back(where);
            p.setPen(own ? t.source : t.ink);
            p.drawText(where, Qt::AlignCenter, name);
        }
    }
    p.setFont(type_font(Type::small));
    for (std::size_t k = 0; k < faces_.size(); ++k)
        paint_face(p, document_->plan(), wires_, faces_[k], face_at(k));
}

void LoomView::mousePressEvent(QMouseEvent* event) {
    for (std::size_t k = 0; k < faces_.size(); ++k)
        for (std::size_t pin = 0; pin < faces_[k].pins.size(); ++pin)
            for (const bool behind : {false, true})
                if (pin_on_screen(k, pin, behind).contains(event->position()))
                    return choose(faces_[k].pins[pin].runs);
    const FlatSegment* best = nullptr;
    double least = 9;
    for (std::size_t k = 0; k < looms_.size(); ++k)
        for (const FlatSegment& s : looms_[k].segments)
            if (const double d = away_from(on_screen(k, s.from), on_screen(k, s.to), event->position());
                d < least)
                least = d, best = &s;
    if (best) choose(best->runs);
}

std::vector<SpokenPart> LoomView::spoken_parts() const {
    std::vector<SpokenPart> parts;
    for (std::size_t k = 0; k < looms_.size(); ++k)
        for (const FlatSegment& s : looms_[k].segments)
            parts.push_back({QRectF(on_screen(k, s.from), on_screen(k, s.to))
                                 .normalized()
                                 .adjusted(-3, -3, 3, 3)
                                 .toRect(),
                             q(yr::name_of(document_->plan(), s.way.empty() ? s.thing : s.way)),
                             s.way.empty() ? metres(s.length_m())
                                           : metres(s.length_m()) + QStringLiteral(", ") +
                                                 q(words::covering_text(s.covering))});
    for (std::size_t k = 0; k < faces_.size(); ++k)
        for (std::size_t pin = 0; pin < faces_[k].pins.size(); ++pin) {
            const FacePin& one = faces_[k].pins[pin];
            parts.push_back({pin_on_screen(k, pin, false).toRect(),
                             say("%1, pin %2")
                                 .arg(q(yr::name_of(document_->plan(), faces_[k].connector)))
                                 .arg(one.number),
                             one.runs.empty() ? say("blind plug") : numbers_of(wires_, one.runs)});
        }
    return parts;
}

namespace {

// The whole loom at 1:1 in one drawing, its connectors below it.
QByteArray loom_svg(const Plan& plan, const FlatLoom& loom) {
    const std::vector<WireRow> wires = wire_table(plan);
    const double mm = kLoomDpi / 25.4, edge = 12 * mm;
    const FlatPoint low{loom.low.x_m - 0.05, loom.low.y_m - 0.04},
        high{loom.high.x_m + 0.05, loom.high.y_m + 0.04};
    const double width = (high.x_m - low.x_m) * 1000 * mm + 2 * edge;
    double height = (high.y_m - low.y_m) * 1000 * mm + 3 * edge;
    std::vector<std::pair<ConnectorFace, double>> faces;
    const double line = 4.2 * mm;
    for (ConnectorFace& face : faces_in(plan, loom)) {
        const double top = height;
        height += face_height(face, line) + 2 * line;
        faces.emplace_back(std::move(face), top);
    }
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator svg;
    svg.setOutputDevice(&buffer);
    svg.setResolution(kLoomDpi);
    svg.setSize(QSize(static_cast<int>(std::ceil(width)), static_cast<int>(std::ceil(height))));
    svg.setViewBox(QRectF(0, 0, width, height));
    svg.setTitle(say("Loom along %1").arg(q(loom.name)));
    QPainter p(&svg);
    p.fillRect(QRectF(0, 0, width, height), Qt::white);
    QFont font = type_font(Type::body);
    font.setPointSizeF(8);
    p.setFont(font);
    draw_loom(
        p, plan, wires, loom,
        [&](const FlatPoint& f) {
            return QPointF(edge + (f.x_m - low.x_m) * 1000 * mm, 2 * edge + (f.y_m - low.y_m) * 1000 * mm);
        },
        mm);
    p.setPen(QPen(Qt::black, 2));
    p.drawLine(QPointF(edge, edge / 2), QPointF(edge + 100 * mm, edge / 2));
    p.drawText(QRectF(edge + 102 * mm, 0, width - edge - 102 * mm, edge), Qt::AlignLeft | Qt::AlignVCenter,
               say("100 mm at 1:1  ·  loom along %1").arg(q(loom.name)));
    for (const auto& [face, top] : faces) {
        FacePaint how = face_on_paper(edge, std::max(width - 2 * edge, 120 * mm));
        how.at = {edge, top};
        paint_face(p, plan, wires, face, how);
    }
    return p.end() ? bytes : QByteArray();
}

}  // namespace

Result<int> write_loom(const Plan& plan, const QString& name, const QString& path, QPageSize::PageSizeId page,
                       bool over) {
    const std::vector<FlatLoom> looms = flat_looms(plan, route_all(plan));
    const auto loom = std::find_if(looms.begin(), looms.end(), [&](const FlatLoom& l) {
        return name.isEmpty() || q(l.name).compare(name, Qt::CaseInsensitive) == 0;
    });
    if (loom == looms.end())
        return fail(ErrorCode::missing_reference, "looms", name.toStdString(),
                    Want::a_thing_that_stands_somewhere);
    const std::vector<WireRow> wires = wire_table(plan);
    QByteArray bytes;
    int pages = 0;
    if (path.endsWith(QStringLiteral(".svg"), Qt::CaseInsensitive)) {
        bytes = loom_svg(plan, *loom);
        pages = 1;
    } else {
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        writer.setPageSize(QPageSize(page));
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(kLoomDpi);
        writer.setTitle(say("Loom along %1").arg(q(loom->name)));
        const double mm = kLoomDpi / 25.4, edge = 12 * mm;
        const double wide_m = (writer.width() - 2 * edge) / mm / 1000,
                     high_m = (writer.height() - 2 * edge) / mm / 1000;
        // a hand of room round it for its names
        const FlatPoint low{loom->low.x_m - 0.05, loom->low.y_m - 0.04},
            high{loom->high.x_m + 0.05, loom->high.y_m + 0.04};
        const int columns = std::max(1, static_cast<int>(std::ceil((high.x_m - low.x_m) / wide_m)));
        const int rows = std::max(1, static_cast<int>(std::ceil((high.y_m - low.y_m) / high_m)));
        QPainter p(&writer);
        QFont font = type_font(Type::body);
        for (int row = 0; row < rows; ++row)
            for (int column = 0; column < columns; ++column) {
                const FlatPoint corner{low.x_m + column * wide_m, low.y_m + row * high_m};
                // along each stretch: its own line counts, not the rectangle round it
                const bool empty =
                    std::none_of(loom->segments.begin(), loom->segments.end(), [&](const FlatSegment& g) {
                        const int steps = std::max(1, static_cast<int>(g.length_m() / kStep_m));
                        for (int k = 0; k <= steps; ++k) {
                            const double x = g.from.x_m + (g.to.x_m - g.from.x_m) * k / steps - corner.x_m;
                            const double y = g.from.y_m + (g.to.y_m - g.from.y_m) * k / steps - corner.y_m;
                            if (x > -kStep_m && x < wide_m + kStep_m && y > -kStep_m && y < high_m + kStep_m)
                                return true;
                        }
                        return false;
                    });
                if (empty) continue;
                if (pages++ > 0) writer.newPage();
                font.setPointSizeF(8);
                p.setFont(font);
                const auto at = [&](const FlatPoint& f) {
                    return QPointF(edge + (f.x_m - corner.x_m) * 1000 * mm,
                                   edge + (f.y_m - corner.y_m) * 1000 * mm);
                };
                p.save();
                p.setClipRect(QRectF(edge, edge, writer.width() - 2 * edge, writer.height() - 2 * edge));
                draw_loom(p, plan, wires, *loom, at, mm);
                p.restore();
                p.setPen(QPen(Qt::black, 1, Qt::DashLine));
                p.setBrush(Qt::NoBrush);
                p.drawRect(QRectF(edge, edge, writer.width() - 2 * edge, writer.height() - 2 * edge));
                p.setPen(QPen(Qt::black, 2));
                p.drawLine(QPointF(edge, edge / 2), QPointF(edge + 100 * mm, edge / 2));
                p.drawText(QRectF(edge + 102 * mm, 0, writer.width() - edge - 102 * mm, edge),
                           Qt::AlignLeft | Qt::AlignVCenter,
                           say("100 mm at 1:1  ·  loom along %1  ·  sheet %2 of row %3")
                               .arg(q(loom->name))
                               .arg(column + 1)
                               .arg(row + 1));
            }
        pages += print_faces(writer, p, plan, wires, *loom, edge);
        pages += print_lines(writer, p, pin_lines(plan, wires, *loom), edge);
    }
    const auto written = write_text_file(
        path.toStdString(), std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())),
        over ? Overwrite::yes : Overwrite::no);
    if (!written) return tl::unexpected(written.error());
    return pages;
}

}  // namespace yr::app

#include "moc_loom_view.cpp"
