#include "workspaces/runs/ladder_view.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>

#include "widgets/tokens.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr double kHead = 26, kRung = 25, kLeft = 12, kRight = 12;
constexpr double kWidths[] = {124, 124, 136, 84, 130, 132, 74, 112};
const char* const kHeads[] = {"size",     "carries",          "worst drop", "conductor",
                              "its fuse", "short at far end", "fits",       "copper, money"};

}  // namespace

LadderView::LadderView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(say("Size ladder"));
}

void LadderView::show_ladder(const Id& run, std::optional<RunLadder> ladder, const QString& otherwise) {
    run_ = run;
    ladder_ = std::move(ladder);
    otherwise_ = otherwise;
    const auto rows = ladder_ ? ladder_->rows.size() : 0;
    setMinimumHeight(static_cast<int>(kHead + kRung * static_cast<double>(rows) + 6));
    setAccessibleDescription(verdict());
    update();
}

QRectF LadderView::column_rect(int column) const {
    double sum = 0, before = 0;
    for (int k = 0; k < columns; ++k) {
        if (k < column) before += kWidths[k];
        sum += kWidths[k];
    }
    // the first holds the size and what is said of it, whatever the width
    const double first = std::max(kWidths[0] * (width() - kLeft - kRight) / sum, 112.0);
    if (column == 0) return {kLeft, 0, first, kRung};
    const double scale = (width() - kLeft - kRight - first) / (sum - kWidths[0]);
    return {kLeft + first + (before - kWidths[0]) * scale, 0, kWidths[column] * scale, kRung};
}

QRectF LadderView::rung_rect(std::size_t row) const {
    return {0, kHead + kRung * static_cast<double>(row), static_cast<double>(width()), kRung};
}

LadderView::Cell LadderView::cell(std::size_t index, Column column) const {
    const RunSizeRow& r = ladder_->rows[index];
    const auto& style = document_->style();
    const auto A = [&](double v) { return q(words::quantity(v, Dimension::current, style)); };
    const auto V = [&](double v) { return q(words::quantity(v, Dimension::voltage, style)); };
    const auto C = [&](double v) { return q(words::quantity(v, Dimension::temperature, style)); };
    switch (column) {
        case size: {
            const QString name = q(words::short_size(r.size));
            return {ladder_->parallel > 1 ? QStringLiteral("%1 × %2").arg(ladder_->parallel).arg(name) : name,
                    -1, true};
        }
        case carries:
            return {r.ampacity_A > 0 ? A(r.current_A) + say(" of ") + A(r.ampacity_A) : QStringLiteral("–"),
                    r.ampacity_A > 0 ? r.current_A / r.ampacity_A : -1, r.carries};
        case drop:
            if (r.drop_load.empty()) return {say("no load behind"), -1, true};
            return {V(r.drop_V) + say(" of ") + V(r.drop_limit_V), r.drop_V / r.drop_limit_V, r.drop_fits};
        case heat:
            return {C(r.temperature_C), (r.temperature_C - 20) / (ladder_->insulation_C - 20), r.stays_cool};
        case fuse: {
            if (ladder_->fuse_A <= 0) return {say("none"), -1, true};
            const bool good = r.fuse_fits && r.withstands;
            const QString text = !r.fuse_fits ? A(ladder_->fuse_A) + say(" over ") + A(r.fuse_limit_A)
                                              : C(r.guard.reached_C) + say(" of ") + C(r.guard.limit_C);
            return {text,
                    r.fuse_fits ? (r.guard.reached_C - 20) / (r.guard.limit_C - 20)
                                : ladder_->fuse_A / r.fuse_limit_A,
                    good};
        }
        case fault:
            if (!r.short_A) return {QStringLiteral("–"), -1, true};
            return {A(*r.short_A) + QStringLiteral(", ") +
                        (r.opens_s ? q(words::seconds(*r.opens_s, style)) : say("stays")),
                    -1, r.opens_s.has_value() || ladder_->fuse_A <= 0};
        case fits:
            if (!r.fit.terminals) return {say("terminal"), -1, false};
            if (!r.fit.bends) return {say("bend"), -1, false};
            if (!r.fit.sturdy) return {say("breaks"), -1, false};
            return {say("R ") + q(words::number(r.fit.radius_mm, 2)) + say(" mm"), -1, true};
        case copper:
            return {q(words::number(r.mass_kg, 2)) + say(" kg, ") + q(words::number(r.money, 3)), -1, true};
        case columns:
            break;
    }
    return {};
}

QString LadderView::cell_text(std::size_t row, Column column) const {
    const Cell c = cell(row, column);
    return c.good ? c.text : QStringLiteral("▲ ") + c.text;
}

QString LadderView::verdict() const {
    if (!ladder_) return otherwise_;
    const RunLadder& l = *ladder_;
    const auto name = [&](int row) {
        return q(words::short_size(l.rows[static_cast<std::size_t>(row)].size));
    };
    const auto style = document_->style();
    QString text;
    if (l.chosen < 0) {
        const RunSizeRow& thickest = l.rows.back();
        text = l.apart >= 0 ? say("%1 keeps every limit but one.").arg(name(l.apart))
                            : say("No size passes every limit: %1 stands against the thickest.")
                                  .arg(QLatin1String(words::name_of(l.decides)));
        if (l.apart >= 0 || l.decides == Limit::drop)
            text += say(" %1 still loses %2 of %3 in %4: its other cables take the rest. Size both ways, or "
                        "all together.")
                        .arg(q(yr::name_of(document_->plan(), thickest.drop_load)),
                             q(words::quantity(thickest.drop_V, Dimension::voltage, style)),
                             q(words::quantity(thickest.drop_limit_V, Dimension::voltage, style)),
                             q(yr::name_of(document_->plan(), thickest.drop_state)));
    } else {
        text = name(l.chosen) + say(" is the first that passes; ");
        if (l.chosen > 0) {
            const RunSizeRow& thinner = l.rows[static_cast<std::size_t>(l.chosen - 1)];
            text += name(l.chosen - 1) + say(" fails by ") + QLatin1String(words::name_of(l.decides));
            if (l.decides == Limit::drop)
                text += say(" of ") + q(yr::name_of(document_->plan(), thinner.drop_load)) + say(" in ") +
                        q(yr::name_of(document_->plan(), thinner.drop_state));
            text += QStringLiteral(".");
        } else {
            text += say("it is the thinnest of all.");
        }
        if (l.chosen + 1 < static_cast<int>(l.rows.size())) {
            const auto& here = l.rows[static_cast<std::size_t>(l.chosen)];
            const auto& up = l.rows[static_cast<std::size_t>(l.chosen) + 1];
            text += say(" %1 would take %2 kg more")
                        .arg(name(l.chosen + 1), q(words::number(up.mass_kg - here.mass_kg, 2)));
            if (!here.drop_load.empty())
                text += say(" and give back ") +
                        q(words::quantity(here.drop_V - up.drop_V, Dimension::voltage, style));
            text += QStringLiteral(".");
        }
    }
    if (l.duty)
        text += say(" Turns of %1: %2 after each, in time; the continuous table %3.")
                    .arg(q(yr::name_of(document_->plan(), l.duty->load)),
                         q(words::quantity(l.duty->peak_C, Dimension::temperature, style)),
                         l.duty->table_carries ? say("allows it as well") : say("alone would not allow it"));
    return text;
}

QString LadderView::drops_text(const RunSizeRow& row) const {
    QStringList lines;
    for (const ServedDrop& d : row.drops)
        lines << say("%1%2: %3 of %4, worst in %5")
                     .arg(d.drop_V > d.limit_V * (1 + 1e-9) ? QStringLiteral("▲ ") : QString(),
                          q(yr::name_of(document_->plan(), d.load)),
                          q(words::quantity(d.drop_V, Dimension::voltage, document_->style())),
                          q(words::quantity(d.limit_V, Dimension::voltage, document_->style())),
                          q(yr::name_of(document_->plan(), d.state)));
    return lines.isEmpty() ? say("No load is served through it.") : lines.join(QLatin1Char('\n'));
}

void LadderView::draw_cell(QPainter& p, const QRectF& where, const Cell& c) const {
    const Tokens& t = tokens();
    const QRectF bar = where.adjusted(2, 3, -8, -3);
    if (c.share >= 0) {
        // the limit stands at four fifths of the cell, so that what is over shows as over
        const double limit = bar.width() * 0.8, length = std::min(bar.width(), limit * c.share);
        QColor ground = t.line;
        ground.setAlpha(110);
        p.fillRect(QRectF(bar.left(), bar.top(), limit, bar.height()), ground);
        QColor fill = c.good ? t.supply[2] : t.fix;
        fill.setAlpha(c.good ? 110 : 70);
        p.fillRect(QRectF(bar.left(), bar.top(), std::max(0.0, length), bar.height()), fill);
        p.setPen(QPen(c.good ? t.soft : t.fix, 1.5));
        p.drawLine(QPointF(bar.left() + limit, bar.top() - 1), QPointF(bar.left() + limit, bar.bottom() + 1));
    }
    p.setPen(c.good ? t.ink : t.fix);
    p.drawText(bar.adjusted(4, 0, 8, 0), Qt::AlignVCenter | Qt::AlignLeft,
               QFontMetrics(p.font()).elidedText(c.good ? c.text : QStringLiteral("▲ ") + c.text,
                                                 Qt::ElideRight, static_cast<int>(where.width()) - 4));
}

void LadderView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing, false);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    p.setFont(type_font(Type::body));
    if (!ladder_) {
        p.setPen(t.soft);
        p.drawText(rect().adjusted(16, 12, -16, 0), Qt::AlignTop | Qt::AlignLeft | Qt::TextWordWrap,
                   otherwise_);
        return;
    }
    p.setFont(type_font(Type::small));
    p.setPen(t.soft);
    for (int k = 0; k < columns; ++k)
        p.drawText(column_rect(k).adjusted(k == 0 ? 22 : 6, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft,
                   QString::fromUtf8(kHeads[k]));
    for (std::size_t r = 0; r < ladder_->rows.size(); ++r) {
        const QRectF rung = rung_rect(r);
        const bool chosen = static_cast<int>(r) == ladder_->chosen, now = static_cast<int>(r) == ladder_->now;
        if (now) p.fillRect(rung, t.panel);
        if (chosen) {
            p.fillRect(QRectF(0, rung.top(), 4, rung.height()), t.good);
            p.setPen(QPen(t.good, 1));
            p.drawLine(rung.topLeft(), rung.topRight());
        }
        p.setFont(type_font(now || chosen ? Type::bold : Type::body));
        p.setPen(ladder_->rows[r].passes() ? t.ink : t.soft);
        const QRectF head = column_rect(size).translated(0, rung.top());
        p.drawText(head.adjusted(22, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft, cell(r, size).text);
        if (chosen || now) {
            p.setFont(type_font(Type::small));
            p.setPen(chosen ? t.good : t.soft);
            p.drawText(head.adjusted(0, 0, -6, 0), Qt::AlignVCenter | Qt::AlignRight,
                       chosen && now ? say("first, now")
                       : chosen      ? say("first")
                                     : say("now"));
        }
        p.setFont(type_font(Type::small));
        for (int k = 1; k < columns; ++k)
            draw_cell(p, column_rect(k).translated(0, rung.top()), cell(r, static_cast<Column>(k)));
    }
}

void LadderView::mousePressEvent(QMouseEvent* event) {
    if (!ladder_) return;
    for (std::size_t r = 0; r < ladder_->rows.size(); ++r)
        if (rung_rect(r).contains(event->position())) {
            emit size_asked(ladder_->rows[r].size);
            return;
        }
}

void LadderView::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Plus || event->key() == Qt::Key_Down  ? 1
                     : event->key() == Qt::Key_Minus || event->key() == Qt::Key_Up ? -1
                                                                                   : 0;
    if (!ladder_ || step == 0 || ladder_->now < 0) return QWidget::keyPressEvent(event);
    const int to = std::clamp(ladder_->now + step, 0, static_cast<int>(ladder_->rows.size()) - 1);
    emit size_asked(ladder_->rows[static_cast<std::size_t>(to)].size);
}

bool LadderView::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip && ladder_) {
        const auto* help = static_cast<QHelpEvent*>(event);
        for (std::size_t r = 0; r < ladder_->rows.size(); ++r) {
            if (!rung_rect(r).contains(help->pos())) continue;
            const RunSizeRow& row = ladder_->rows[r];
            QString text;
            if (column_rect(drop).translated(0, rung_rect(r).top()).contains(help->pos())) {
                text = drops_text(row);
            } else if (column_rect(carries).translated(0, rung_rect(r).top()).contains(help->pos())) {
                const auto A = [&](double v) {
                    return q(words::quantity(v, Dimension::current, document_->style()));
                };
                text = say("By its table %1, by the other table %2; by the heat balance %3 bring it to its "
                           "insulation's limit.")
                           .arg(A(row.ampacity_A),
                                row.other_table_A > 0 ? A(row.other_table_A) : say("no value"),
                                A(row.physics_A));
            } else if (row.passes()) {
                text = say("Passes every limit. A click takes this size.");
            } else {
                text = say("Fails by %1. A click takes it all the same.")
                           .arg(QLatin1String(words::name_of(row.fails())));
            }
            QToolTip::showText(help->globalPos(), text);
            return true;
        }
    }
    if (event->type() == QEvent::PaletteChange) update();
    return QWidget::event(event);
}

std::vector<SpokenPart> LadderView::spoken_parts() const {
    std::vector<SpokenPart> parts;
    for (std::size_t r = 0; ladder_ && r < ladder_->rows.size(); ++r) {
        QStringList cells;
        for (int k = 1; k < columns; ++k)
            cells << QString::fromUtf8(kHeads[k]) + QStringLiteral(" ") +
                         cell_text(r, static_cast<Column>(k));
        parts.push_back({rung_rect(r).toRect(), cell_text(r, size), cells.join(QStringLiteral(", "))});
    }
    return parts;
}

}  // namespace yr::app

#include "moc_ladder_view.cpp"
