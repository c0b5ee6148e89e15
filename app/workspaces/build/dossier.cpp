#include "workspaces/build/dossier.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QCryptographicHash>
#include <QDate>
#include <QPainter>
#include <QPdfWriter>
#include <QTextDocument>
#include <algorithm>

#include "diagram/sheets.h"
#include "files/text_file.h"
#include "meter/as_built.h"
#include "plan/plan_json.h"
#include "plan/roles.h"
#include "railchart/rail_paint.h"
#include "size/run_limits.h"
#include "text/say.h"
#include "widgets/tokens.h"
#include "words/dossier_words.h"
#include "words/sentences.h"
#include "workspaces/build/diagram_view.h"

namespace yr::app {
namespace {

constexpr int kDossierDpi = 300;
constexpr double kEdge_mm = 14, kHead_mm = 8, kFoot_mm = 8;

QString cell(const SheetCell& c) {
    if (const auto* number = std::get_if<double>(&c)) return q(words::number(*number, 5));
    return q(std::get<std::string>(c)).toHtmlEscaped();
}

QString html(const words::DossierSection& s) {
    QString out = QStringLiteral("<h2>%1</h2>").arg(q(s.title).toHtmlEscaped());
    for (const std::string& l : s.lines) out += QStringLiteral("<p>%1</p>").arg(q(l).toHtmlEscaped());
    if (!s.table.heads.empty() && !s.table.rows.empty()) {
        double sum = 0;
        for (const double w : s.widths) sum += w;
        out += QStringLiteral(
            "<table width='100%' border='0.5' cellspacing='0' cellpadding='3'>"
            "<thead><tr>");
        for (std::size_t k = 0; k < s.table.heads.size(); ++k) {
            const QString width =
                k < s.widths.size()
                    ? QStringLiteral(" width='%1%'").arg(static_cast<int>(100 * s.widths[k] / sum))
                    : QString();
            out +=
                QStringLiteral("<th align='left'%1>%2</th>").arg(width, q(s.table.heads[k]).toHtmlEscaped());
        }
        out += QStringLiteral("</tr></thead>");
        for (const auto& row : s.table.rows) {
            out += QStringLiteral("<tr>");
            for (const SheetCell& c : row) out += QStringLiteral("<td>%1</td>").arg(cell(c));
            for (std::size_t k = row.size(); k < s.table.heads.size(); ++k)
                out += QStringLiteral("<td></td>");
            out += QStringLiteral("</tr>");
        }
        out += QStringLiteral("</table>");
    }
    for (const std::string& l : s.after) out += QStringLiteral("<p>%1</p>").arg(q(l).toHtmlEscaped());
    return out;
}

class Printer {
  public:
    Printer(QPdfWriter* writer, const Plan& plan, QString mark)
        : writer_(writer), plan_(plan), mark_(std::move(mark)), p_(writer) {}

    // One section, and those behind it that share its page.
    void sections(const std::vector<words::DossierSection>& all, std::size_t& at) {
        QString text = html(all[at]);
        std::size_t columns = all[at].table.heads.size();
        while (at + 1 < all.size() && !all[at + 1].own_page) {
            text += html(all[++at]);
            columns = std::max(columns, all[at].table.heads.size());
        }
        print(text, columns);
    }

    void print(const QString& markup, std::size_t columns) {
        QTextDocument text;
        text.documentLayout()->setPaintDevice(writer_);
        QFont font = type_font(Type::body);
        font.setPointSizeF(columns > 9 ? 6.5 : 8.5);
        text.setDefaultFont(font);
        text.setDocumentMargin(0);
        text.setDefaultStyleSheet(QStringLiteral("h2 { font-size: 14pt; } th, td { vertical-align: top; }"));
        text.setHtml(markup);
        const QRectF body = this->body();
        text.setPageSize(body.size());
        for (int k = 0; k < text.pageCount(); ++k) {
            begin_page();
            p_.save();
            p_.translate(body.left(), body.top() - k * body.height());
            QAbstractTextDocumentLayout::PaintContext context;
            context.clip = QRectF(0, k * body.height(), body.width(), body.height());
            context.palette.setColor(QPalette::Text, Qt::black);
            p_.setClipRect(context.clip);
            text.documentLayout()->draw(&p_, context);
            p_.restore();
        }
    }

    void chart(const Plan& plan, const State& state) {
        ShownCircuit circuit;
        circuit.show_plan(plan, state.id);
        const QSizeF size(1500, 900);
        const RailScene scene = build_scene(circuit, nullptr, size, {});
        QImage image((size * 2).toSize(), QImage::Format_RGB32);
        image.fill(Qt::white);
        {
            QPainter on(&image);
            on.setRenderHint(QPainter::Antialiasing);
            on.scale(2, 2);
            paint_rail(on, {circuit, scene, nullptr, 1, {}, {}, {}, {}, size});
        }
        begin_page();
        const QRectF body = this->body();
        title(say("The rail, %1").arg(q(state.name)), body);
        const double high = body.width() * size.height() / size.width();
        p_.drawImage(QRectF(body.left(), body.top() + mm(12), body.width(), high),
                     image.convertToFormat(QImage::Format_Grayscale8));
    }

    void diagram(const Diagram& d) {
        for (std::size_t k = 0; k < d.sheets.size(); ++k) {
            begin_page();
            const QRectF body = this->body();
            p_.save();  // laid across the page
            p_.translate(body.center());
            p_.rotate(90);
            paint_sheet(p_, d, k, QRectF(-body.height() / 2, -body.width() / 2, body.height(), body.width()),
                        Qt::black);
            p_.restore();
        }
    }

    [[nodiscard]] int pages() const { return page_; }

  private:
    static double mm(double v) { return v * kDossierDpi / 25.4; }
    [[nodiscard]] QRectF body() const {
        return {mm(kEdge_mm), mm(kEdge_mm + kHead_mm), writer_->width() - 2 * mm(kEdge_mm),
                writer_->height() - mm(2 * kEdge_mm + kHead_mm + kFoot_mm)};
    }
    void title(const QString& text, const QRectF& body) {
        QFont font = type_font(Type::title);
        font.setPointSizeF(14);
        p_.setFont(font);
        p_.drawText(body, Qt::AlignLeft | Qt::AlignTop, text);
    }
    void begin_page() {
        if (page_ > 0) writer_->newPage();
        ++page_;
        QFont font = type_font(Type::small);
        font.setPointSizeF(7.5);
        p_.setFont(font);
        p_.setPen(Qt::black);
        const QRectF all(mm(kEdge_mm), mm(kEdge_mm - 4), writer_->width() - 2 * mm(kEdge_mm),
                         writer_->height() - 2 * mm(kEdge_mm - 4));
        p_.drawText(all, Qt::AlignLeft | Qt::AlignTop, q(plan_.vehicle.name));
        p_.drawText(all, Qt::AlignRight | Qt::AlignTop, mark_);
        p_.drawText(all, Qt::AlignRight | Qt::AlignBottom, say("page %1").arg(page_));
        p_.drawText(all, Qt::AlignLeft | Qt::AlignBottom,
                    say("Assists a competent installer; local codes and the vehicle's maker come first."));
    }

    QPdfWriter* writer_;
    const Plan& plan_;
    QString mark_;
    QPainter p_;
    int page_ = 0;
};

}  // namespace

QString fingerprint(const Plan& plan) {
    const std::string text = to_json_text(plan);
    return q(QCryptographicHash::hash(QByteArray::fromStdString(text), QCryptographicHash::Sha256)
                 .toHex()
                 .left(10)
                 .toStdString());
}

Result<int> write_dossier(const Plan& plan, const QString& path, QPageSize::PageSizeId page,
                          const QString& plan_path) {
    const auto diagram = diagram_of(plan);
    if (!diagram) return tl::unexpected(diagram.error());
    const QString print = fingerprint(plan);
    const QString date = QDate::currentDate().toString(Qt::ISODate);
    const auto solutions = solve_all(plan);
    const Inspection found = inspect(plan, false);
    std::vector<Record> records;
    if (!plan_path.isEmpty())
        if (const auto book = read_records(records_path(plan_path.toStdString())))
            records = records_of(*book, plan);
    const auto sections = words::dossier(
        {plan, solutions, found.findings, print.toStdString(), date.toStdString(), std::move(records)});
    QByteArray bytes;
    int pages = 0;
    {
        QBuffer buffer(&bytes);
        buffer.open(QIODevice::WriteOnly);
        QPdfWriter writer(&buffer);
        writer.setPageSize(QPageSize(page));
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setResolution(kDossierDpi);
        writer.setTitle(say("Dossier of %1").arg(q(plan.vehicle.name)));
        Printer printer(&writer, plan, date + QStringLiteral("  ·  ") + print);
        for (std::size_t k = 0; k < sections.size(); ++k) {
            printer.sections(sections, k);
            if (k != 1) continue;  // behind the balance: what it looks like
            printer.chart(plan, opening_state(plan));
            printer.diagram(*diagram);
        }
        pages = printer.pages();
    }
    if (const auto written = write_text_file(
            path.toStdString(), std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())),
            Overwrite::yes);
        !written)
        return tl::unexpected(written.error());
    return pages;
}

}  // namespace yr::app
