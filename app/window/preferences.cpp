#include "window/preferences.h"

#include <QLabel>
#include <QSettings>
#include <algorithm>

#include "text/say.h"
#include "widgets/dialog_parts.h"
#include "widgets/tokens.h"

namespace yr::app {
namespace {

const QString kScale = QStringLiteral("scale");

}  // namespace

double wanted_scale() {
    return std::clamp(QSettings().value(kScale, 1.0).toDouble(), 1.0, 2.0);
}

Preferences::Preferences(QWidget* parent) : QDialog(parent) {
    setWindowTitle(say("Preferences"));
    setMinimumWidth(440);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 20, 24, 16);
    column->setSpacing(8);
    scale_ = new QComboBox;
    for (const int percent : {100, 110, 125, 150, 175, 200})
        scale_->addItem(QStringLiteral("%1 %").arg(percent), percent / 100.0);
    scale_->setCurrentIndex(std::max(0, scale_->findData(wanted_scale())));
    look_ = new QComboBox;
    look_->addItems({say("bench, light"), say("night, dark")});
    look_->setCurrentIndex(tokens().night ? 1 : 0);
    who_ = new QLineEdit(QSettings().value(QStringLiteral("who")).toString());
    who_->setPlaceholderText(say("stands beside what you accept"));
    field_row(column, say("Everything at"), scale_, 110);
    auto* note = new QLabel(say("From the next start. The desktop's own scaling comes on top."));
    note->setObjectName(QStringLiteral("soft"));
    note->setWordWrap(true);
    column->addWidget(note);
    field_row(column, say("Look"), look_, 110);
    field_row(column, say("Your name"), who_, 110);
    auto* plan = new QLabel(
        say("What belongs to the plan, such as its rules and units, is in More, Rules of this plan."));
    plan->setObjectName(QStringLiteral("soft"));
    plan->setWordWrap(true);
    column->addWidget(plan);
    add_buttons(column, this, say("Keep"));
}

void Preferences::accept() {
    QSettings settings;
    settings.setValue(kScale, scale_->currentData().toDouble());
    settings.setValue(QStringLiteral("who"), who_->text().trimmed());
    if ((look_->currentIndex() == 1) != tokens().night) emit look_asked(look_->currentIndex() == 1);
    QDialog::accept();
}

}  // namespace yr::app

#include "moc_preferences.cpp"
