#include "widgets/dialog_parts.h"
#include "text/say.h"

#include <QHBoxLayout>
#include <QPushButton>

namespace yr::app {

void field_row(QVBoxLayout* column, const QString& label, QWidget* field, int label_width) {
    auto* line = new QHBoxLayout;
    auto* l = new QLabel(label);
    l->setFixedWidth(label_width);
    l->setBuddy(field);
    field->setAccessibleName(label);
    field->setMinimumWidth(280);
    line->addWidget(l);
    line->addWidget(field, 1);
    column->addLayout(line);
}

QLabel* problem_label() {
    auto* l = new QLabel;
    l->setObjectName(QStringLiteral("stop"));
    l->setWordWrap(true);
    return l;
}

void add_buttons(QVBoxLayout* column, QDialog* dialog, const QString& does) {
    auto* row = new QHBoxLayout;
    auto* go = new QPushButton(does);
    go->setObjectName(QStringLiteral("main"));
    go->setDefault(true);
    auto* leave = new QPushButton(say("Leave it"));
    QObject::connect(go, &QPushButton::clicked, dialog, &QDialog::accept);
    QObject::connect(leave, &QPushButton::clicked, dialog, &QDialog::reject);
    row->addStretch();
    row->addWidget(leave);
    row->addWidget(go);
    column->addLayout(row);
}

}  // namespace yr::app
