#include "widgets/why_popup.h"

#include <QScreen>
#include <QScrollArea>
#include <QTextDocument>
#include <QVBoxLayout>

#include "text/say.h"
#include "widgets/tokens.h"

namespace yr::app {
namespace {

QString escaped(const std::string& text) {
    return QString::fromStdString(text).toHtmlEscaped();
}

QString html(const words::Explanation& e) {
    const Tokens& t = tokens();
    const QString soft = t.soft.name();
    QString out = QStringLiteral("<p style='margin:0 0 4px 0'><b>%1</b>").arg(escaped(e.title));
    if (!e.value.empty())
        out += QStringLiteral("&nbsp;&nbsp; <span style='font-size:17px'>%1</span>").arg(escaped(e.value));
    out += QStringLiteral("</p>");
    for (const auto& s : e.steps)
        out += QStringLiteral("<p style='margin:1px 0 1px 10px'>%1</p>").arg(escaped(s));
    for (const auto& a : e.assumptions)
        out +=
            say("<p style='margin:1px 0 1px 10px;color:%1'>rests on: %2</p>").arg(t.fix.name(), escaped(a));
    for (const auto& s : e.sources)
        out += say("<p style='margin:1px 0 1px 10px;color:%1;font-size:11px'>source: %2</p>")
                   .arg(soft, escaped(s));
    return out;
}

}  // namespace

WhyPopup::WhyPopup(QWidget* parent) : QFrame(parent, Qt::Popup) {
    setObjectName(QStringLiteral("why"));
    setAccessibleName(say("Why?"));
    label_ = new QLabel;
    label_->setWordWrap(true);
    label_->setTextFormat(Qt::RichText);
    label_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
    label_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    label_->setMargin(14);
    auto* scroll = new QScrollArea;
    scroll->setWidget(label_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setObjectName(QStringLiteral("paper"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(1, 1, 1, 1);
    column->addWidget(scroll);
}

void WhyPopup::show_answers(const std::vector<words::Explanation>& answers, const QPoint& global) {
    QString out;
    for (const auto& a : answers)
        if (!a.title.empty()) out += (out.isEmpty() ? QString() : QStringLiteral("<hr>")) + html(a);
    if (out.isEmpty()) out = say("Point at a number, or select something, and press F1.");
    label_->setText(out);
    const int width = 520;
    const int height = std::min(label_->heightForWidth(width - 16) + 8, 460);
    resize(width, std::max(height, 60));
    QPoint corner = global + QPoint(8, 8);
    const QWidget* over = parentWidget() ? parentWidget()->window() : nullptr;
    const QRect area = over ? QRect(over->mapToGlobal(QPoint(0, 0)), over->size()) : QRect(corner, size());
    corner.setX(
        std::clamp(corner.x(), area.left() + 8, std::max(area.left() + 8, area.right() - this->width() - 8)));
    corner.setY(
        std::clamp(corner.y(), area.top() + 8, std::max(area.top() + 8, area.bottom() - this->height() - 8)));
    move(corner);
    show();
}

QString WhyPopup::text() const {
    QTextDocument plain;
    plain.setHtml(label_->text());
    return plain.toPlainText();
}

}  // namespace yr::app
