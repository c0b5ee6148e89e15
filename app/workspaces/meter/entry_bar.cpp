#include "workspaces/meter/entry_bar.h"

#include <QHBoxLayout>
#include <QProcess>
#include <QStandardPaths>
#include <QVBoxLayout>

#include "text/say.h"
#include "units/quantity.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {

EntryBar::EntryBar(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("entry"));
    setAttribute(Qt::WA_StyledBackground);
    sentence_ = new QLabel;
    sentence_->setFont(type_font(Type::title));
    sentence_->setWordWrap(true);
    hint_ = new QLabel;
    hint_->setWordWrap(true);
    hint_->setObjectName(QStringLiteral("soft"));
    field_ = new QLineEdit;
    QFont large = type_font(Type::bold);
    large.setPixelSize(30);
    field_->setFont(large);
    field_->setAlignment(Qt::AlignRight);
    field_->setFixedWidth(170);
    field_->setMinimumHeight(46);
    field_->setAccessibleName(say("What the meter shows"));
    meter_ = new QToolButton;
    meter_->setText(say("Meter"));
    meter_->setToolTip(
        say("Read by the connected meter; connects the stand-in where there is none (simulated)"));
    meter_->setMinimumHeight(34);
    // the sentence over the whole width, so that it is read at once also in a narrow window
    auto* row = new QHBoxLayout;
    row->setSpacing(12);
    row->addStretch(0);
    row->addWidget(meter_);
    row->addWidget(field_);
    beside_ = new QBoxLayout(QBoxLayout::LeftToRight);
    beside_->setSpacing(12);
    beside_->addWidget(hint_, 1);
    beside_->addLayout(row);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(16, 8, 16, 8);
    column->setSpacing(2);
    column->addWidget(sentence_);
    column->addLayout(beside_);
    connect(field_, &QLineEdit::returnPressed, this, &EntryBar::take);
}

// In a narrow window what is said stands above the field, not in a strip beside it.
void EntryBar::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    constexpr int kNarrow_px = 560;
    const auto direction = width() < kNarrow_px ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight;
    if (beside_->direction() == direction) return;
    beside_->setDirection(direction);
    beside_->setSpacing(direction == QBoxLayout::TopToBottom ? 4 : 12);
}

QString EntryBar::speech_program() {
    for (const char* name : {"spd-say", "espeak-ng", "espeak"})
        if (QString found = QStandardPaths::findExecutable(QString::fromLatin1(name)); !found.isEmpty())
            return found;
    return {};
}

void EntryBar::ask(ReadKind kind, const QString& sentence, const QString& hint) {
    kind_ = kind;
    const bool fresh = sentence != sentence_->text();
    sentence_->setText(sentence);
    hint_->setText(hint);
    hint_->setObjectName(QStringLiteral("soft"));
    field_->setVisible(!sentence.isEmpty());
    meter_->setVisible(!sentence.isEmpty());
    field_->setPlaceholderText(kind == ReadKind::volts  ? say("volts")
                               : kind == ReadKind::amps ? say("amps")
                                                        : say("ohms"));
    field_->clear();
    if (aloud_ && fresh && !sentence.isEmpty())
        if (const QString program = speech_program(); !program.isEmpty())
            QProcess::startDetached(program, {sentence});
}

void EntryBar::say_wrong(const QString& text) {
    hint_->setText(text);
}

void EntryBar::take() {
    const Dimension dimension = kind_ == ReadKind::volts  ? Dimension::voltage
                                : kind_ == ReadKind::amps ? Dimension::current
                                                          : Dimension::resistance;
    const auto value = parse_reading(field_->text().trimmed().toStdString(), dimension);
    if (!value) return say_wrong(q(words::sentence(value.error())));
    emit entered(*value);
}

}  // namespace yr::app

#include "moc_entry_bar.cpp"
