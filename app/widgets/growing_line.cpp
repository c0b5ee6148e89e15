#include "widgets/growing_line.h"

#include <QKeyEvent>
#include <QMimeData>
#include <QTextBlock>
#include <QTextLayout>
#include <cmath>

namespace yr::app {
namespace {

constexpr int kMostRows = 4;

}  // namespace

GrowingLine::GrowingLine(QWidget* parent) : QPlainTextEdit(parent) {
    setTabChangesFocus(true);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setWordWrapMode(QTextOption::WrapAtWordBoundaryOrAnywhere);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(this, &QPlainTextEdit::textChanged, this, &GrowingLine::fit);
    fit();
}

void GrowingLine::setText(const QString& text) {
    setPlainText(text);
    moveCursor(QTextCursor::End);
}

void GrowingLine::select_part(int at, int length) {
    QTextCursor cursor = textCursor();
    cursor.setPosition(at);
    cursor.setPosition(at + length, QTextCursor::KeepAnchor);
    setTextCursor(cursor);
}

bool GrowingLine::on_first_row() const {
    const QTextCursor c = textCursor();
    return c.block().layout()->lineForTextPosition(c.positionInBlock()).lineNumber() <= 0;
}

bool GrowingLine::on_last_row() const {
    const QTextCursor c = textCursor();
    const QTextLayout* rows = c.block().layout();
    return rows->lineForTextPosition(c.positionInBlock()).lineNumber() >= rows->lineCount() - 1;
}

void GrowingLine::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        emit entered();
    else
        QPlainTextEdit::keyPressEvent(event);
}

void GrowingLine::resizeEvent(QResizeEvent* event) {
    QPlainTextEdit::resizeEvent(event);
    fit();
}

void GrowingLine::insertFromMimeData(const QMimeData* source) {
    const QString text = source->text().trimmed();
    if (text.contains(QLatin1Char('\n')))
        emit page_pasted(text);
    else
        insertPlainText(text);
}

void GrowingLine::fit() {
    const int rows = std::clamp(static_cast<int>(std::lround(document()->size().height())), 1, kMostRows);
    const int around = 2 * (static_cast<int>(document()->documentMargin()) + frameWidth()) + 6;
    const int height = std::max(34, rows * fontMetrics().lineSpacing() + around);
    if (height != this->height() || height != minimumHeight()) setFixedHeight(height);
}

}  // namespace yr::app

#include "moc_growing_line.cpp"
