#include "workspaces/build/labels.h"

#include <qrencode.h>

#include <QBuffer>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgGenerator>
#include <algorithm>
#include <functional>
#include <memory>

#include "fabricate/wires.h"
#include "files/text_file.h"
#include "text/say.h"
#include "widgets/tokens.h"
#include "words/build_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kDpi = 300;
constexpr double kMargin_mm = 10, kLabel_mm = 45, kLabelHigh_mm = 14, kBoxHigh_mm = 60;

class Sheet {
  public:
    // What it is drawn on: in its pixels, and how another page begins. Without pages it goes on downwards.
    struct Paper {
        QPaintDevice* device = nullptr;
        double width = 0, height = 0;
        std::function<void()> new_page{};
    };
    Sheet(Paper paper, const Plan& plan) : paper_(std::move(paper)), plan_(plan), p_(paper_.device) {
        if (!paper_.new_page) p_.fillRect(QRectF(0, 0, paper_.width, paper_.height), Qt::white);
    }

    void all() {
        wires();
        boxes();
        panel();
    }
    [[nodiscard]] double bottom() const { return y_ + mm(kMargin_mm); }

    void wires() {
        head(say("Both ends of every cable"));
        for (const WireRow& w : wire_table(plan_))
            for (const bool at_from : {true, false})
                for (int n = 0; n < w.pieces; ++n) small(q(words::label_text(plan_, w, at_from)));
        down();
    }

    void boxes() {
        for (const Point& box : plan_.points)
            if (!box.channels.empty()) lid(box);
    }

    // Blank ones over keys that nothing uses.
    void panel() {
        std::vector<QString> texts;
        for (const std::string& name : plan_switches(plan_)) {
            QString text = q(words::capital(name));
            for (const PanelSwitch& s : plan_.panel)
                if (s.name == name && !s.label.empty()) text = q(s.label);
            texts.push_back(text);
        }
        for (const Battery& b : plan_.batteries)
            if (!b.remarks.caution.empty())
                texts.push_back(q(b.name) + QStringLiteral("\n") + q(b.remarks.caution));
        if (texts.empty()) return;
        head(say("Panel and cautions"));
        for (const QString& text : texts) small(text);
        for (int k = 0; k < 4; ++k) small({});
        down();
    }

  private:
    double mm(double v) const { return v * kDpi / 25.4; }
    double wide() const { return paper_.width - 2 * mm(kMargin_mm); }
    QFont font(double points, bool bold = false) const {
        QFont f = type_font(bold ? Type::bold : Type::body);
        f.setPointSizeF(points);
        return f;
    }

    void need(double high) {
        if (!paper_.new_page || y_ + high <= paper_.height - mm(kMargin_mm)) return;
        paper_.new_page();
        y_ = mm(kMargin_mm), x_ = 0;
    }

    void head(const QString& text) {
        need(mm(2 * kLabelHigh_mm));
        p_.setFont(font(11, true));
        p_.setPen(Qt::black);
        p_.drawText(QRectF(mm(kMargin_mm), y_, wide(), mm(8)), Qt::AlignLeft | Qt::AlignVCenter,
                    text + QStringLiteral("  ·  ") + q(plan_.vehicle.name));
        // so that a printer that scales is found out
        p_.setPen(QPen(Qt::black, 2));
        const double right = mm(kMargin_mm) + wide();
        p_.drawLine(QPointF(right - mm(50), y_ + mm(4)), QPointF(right, y_ + mm(4)));
        p_.setFont(font(6));
        p_.drawText(QRectF(right - mm(50), y_ + mm(4.5), mm(50), mm(4)), Qt::AlignCenter, say("50 mm"));
        y_ += mm(11);
        x_ = 0;
    }

    void small(const QString& text) {
        if (x_ + mm(kLabel_mm) > wide() + 1) down();
        need(mm(kLabelHigh_mm));
        const QRectF r(mm(kMargin_mm) + x_, y_, mm(kLabel_mm), mm(kLabelHigh_mm));
        p_.setPen(QPen(Qt::lightGray, 1));
        p_.drawRect(r);
        p_.setPen(Qt::black);
        const QRectF inside = r.adjusted(mm(1.5), mm(1), -mm(1.5), -mm(1));
        for (int half_points = 16; half_points > 8; --half_points) {  // as large as it goes in
            p_.setFont(font(half_points / 2.0));
            if (p_.boundingRect(inside, Qt::AlignCenter | Qt::TextWordWrap, text).height() <= inside.height())
                break;
        }
        p_.drawText(inside, Qt::AlignCenter | Qt::TextWordWrap, text);
        x_ += mm(kLabel_mm);
    }

    void down() {
        if (x_ > 0) y_ += mm(kLabelHigh_mm);
        x_ = 0;
    }

    void lid(const Point& box) {
        const double rows = static_cast<double>(box.channels.size());
        need(mm(std::max(kBoxHigh_mm, 16 + 6 * rows)));
        head(q(words::capital(box.name)));
        const QString code = q(box_text(plan_, box));
        const double top = y_;
        qr(code, QRectF(mm(kMargin_mm) + wide() - mm(42), top, mm(42), mm(42)));
        p_.setFont(font(8));
        p_.setPen(Qt::black);
        for (const QString& line : code.split(QLatin1Char('\n'))) {
            p_.drawText(QRectF(mm(kMargin_mm), y_, wide() - mm(46), mm(5.5)),
                        Qt::AlignLeft | Qt::AlignVCenter, line);
            y_ += mm(5.5);
        }
        y_ = std::max(y_, top + mm(44));
    }

    void qr(const QString& text, const QRectF& r) {
        const std::unique_ptr<QRcode, void (*)(QRcode*)> code(
            QRcode_encodeString(text.toUtf8().constData(), 0, QR_ECLEVEL_L, QR_MODE_8, 1), QRcode_free);
        if (!code) return;  // more than a code holds: the lines beside it say it all
        const double cell = r.width() / (code->width + 8);
        p_.setPen(Qt::NoPen);
        p_.setBrush(Qt::black);
        for (int row = 0; row < code->width; ++row)
            for (int column = 0; column < code->width; ++column)
                if (code->data[row * code->width + column] & 1)
                    p_.drawRect(QRectF(r.left() + (column + 4) * cell, r.top() + (row + 4) * cell, cell + 0.4,
                                       cell + 0.4));
        p_.setBrush(Qt::NoBrush);
    }

    Paper paper_;
    const Plan& plan_;
    QPainter p_;
    double x_ = 0, y_ = kMargin_mm * kDpi / 25.4;
};

}  // namespace

std::string box_text(const Plan& plan, const Point& box) {
    std::string text = words::capital(box.name) + ", " + plan.vehicle.name;
    for (const Channel& c : box.channels) {
        text += "\n" + std::to_string(c.number) + "  ";
        const Run* on = nullptr;
        for (const Run& r : plan.runs)
            if (r.from.owner == box.id && r.channel == c.number) on = &r;
        std::string fuse;
        if (on)
            for (const Device& d : on->devices)
                if (d.kind == DeviceKind::fuse) fuse = words::quantity(d.rating_A, Dimension::current);
        text += on ? name_of(plan, on->to.owner) + (fuse.empty() ? "" : ", " + fuse)
                   : std::string(words::translated("free"));
    }
    return text;
}

namespace {

QByteArray labels_pdf(const Plan& plan, QPageSize::PageSizeId page) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(page));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(kDpi);
    writer.setTitle(say("Labels of %1").arg(q(plan.vehicle.name)));
    Sheet sheet({&writer, static_cast<double>(writer.width()), static_cast<double>(writer.height()),
                 [&writer] { writer.newPage(); }},
                plan);
    sheet.all();
    return bytes;
}

// One drawing as wide as the page and as long as it gets: laid out once to know how long.
QByteArray labels_svg(const Plan& plan, QPageSize::PageSizeId page) {
    const double width = QPageSize(page).sizePixels(kDpi).width();
    const auto draw = [&](QBuffer* buffer, double height) {
        QSvgGenerator svg;
        svg.setOutputDevice(buffer);
        svg.setResolution(kDpi);
        svg.setSize(QSize(static_cast<int>(width), static_cast<int>(height)));
        svg.setViewBox(QRectF(0, 0, width, height));
        svg.setTitle(say("Labels of %1").arg(q(plan.vehicle.name)));
        Sheet sheet({&svg, width, height, {}}, plan);
        sheet.all();
        return sheet.bottom();
    };
    QByteArray tried, bytes;
    QBuffer trial(&tried), buffer(&bytes);
    trial.open(QIODevice::WriteOnly);
    buffer.open(QIODevice::WriteOnly);
    draw(&buffer, draw(&trial, 1e5));
    return bytes;
}

}  // namespace

Result<bool> write_labels(const Plan& plan, const QString& path, QPageSize::PageSizeId page, bool over) {
    const bool svg = path.endsWith(QStringLiteral(".svg"), Qt::CaseInsensitive);
    const QByteArray bytes = svg ? labels_svg(plan, page) : labels_pdf(plan, page);
    return write_text_file(path.toStdString(),
                           std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())),
                           over ? Overwrite::yes : Overwrite::no);
}

}  // namespace yr::app
