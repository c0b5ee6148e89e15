#include "widgets/whole_text.h"

#include <QAbstractButton>
#include <QAbstractItemView>
#include <QApplication>
#include <QComboBox>
#include <QHeaderView>
#include <QHelpEvent>
#include <QLabel>
#include <QLineEdit>
#include <QTextDocument>
#include <QToolTip>

namespace yr::app {
namespace {

QString plain(const QString& text) {
    if (!Qt::mightBeRichText(text)) return text;
    QTextDocument document;
    document.setHtml(text);
    return document.toPlainText();
}

QString if_wider(const QString& text, const QFont& font, int room) {
    return QFontMetrics(font).horizontalAdvance(text) > room ? text : QString();
}

QString cut_cell(const QAbstractItemView& view, const QPoint& at) {
    const QModelIndex index = view.indexAt(at);
    const QVariant font = index.data(Qt::FontRole);
    constexpr int around = 10;  // the cell's own margins
    return if_wider(index.data().toString(), font.isValid() ? font.value<QFont>() : view.font(),
                    view.visualRect(index).width() - around);
}

QString cut_head(const QHeaderView& head, const QPoint& at) {
    const int section = head.logicalIndexAt(at);
    if (section < 0) return {};
    return if_wider(head.model()->headerData(section, head.orientation()).toString(), head.font(),
                    head.sectionSize(section) - 10);
}

QString cut_label(const QLabel& label) {
    const QString text = plain(label.text());
    if (label.wordWrap()) {
        const int wanted = label.heightForWidth(label.width());
        return wanted > label.height() + 1 ? text : QString();
    }
    return if_wider(text.section(QLatin1Char('\n'), 0, 0), label.font(), label.contentsRect().width());
}

class WholeTexts : public QObject {
  public:
    using QObject::QObject;

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (event->type() != QEvent::ToolTip) return false;
        const auto* widget = qobject_cast<const QWidget*>(watched);
        const auto* help = static_cast<QHelpEvent*>(event);
        if (!widget) return false;
        const QString text = cut_text(widget, help->pos());
        if (text.isEmpty() || !widget->toolTip().isEmpty()) return false;
        QToolTip::showText(help->globalPos(), text.toHtmlEscaped());
        return true;
    }
};

}  // namespace

QString cut_text(const QWidget* widget, const QPoint& at) {
    if (const auto* label = qobject_cast<const QLabel*>(widget)) return cut_label(*label);
    if (const auto* box = qobject_cast<const QComboBox*>(widget))
        return if_wider(box->currentText(), box->font(), box->width() - 30);
    if (const auto* button = qobject_cast<const QAbstractButton*>(widget))
        return if_wider(button->text(), button->font(), button->width());
    if (const auto* edit = qobject_cast<const QLineEdit*>(widget))
        return if_wider(edit->text(), edit->font(), edit->width() - 12);
    const auto* parent = widget ? widget->parentWidget() : nullptr;  // views hear of it on their viewport
    if (const auto* head = qobject_cast<const QHeaderView*>(parent)) return cut_head(*head, at);
    if (const auto* view = qobject_cast<const QAbstractItemView*>(parent)) {
        const bool told = !view->indexAt(at).data(Qt::ToolTipRole).toString().isEmpty();
        return told ? QString() : cut_cell(*view, at);
    }
    return {};
}

void tell_whole_texts() {
    static WholeTexts* one = nullptr;
    if (one) return;
    one = new WholeTexts(qApp);
    qApp->installEventFilter(one);
}

}  // namespace yr::app
