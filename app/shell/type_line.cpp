#include "shell/type_line.h"

#include <QVBoxLayout>

#include "paint/tokens.h"
#include "size/circuit.h"

namespace yr::app {

QString understood_text(const TypedLine& line, const Plan& plan, const words::Style& style) {
    QStringList parts;
    const auto quantity = [&](double v, Dimension d) { return q(words::quantity(v, d, style)); };
    if (!line.name.empty()) parts << q(line.name);
    const QString times = line.count > 1 ? QStringLiteral("%1 × ").arg(line.count) : QString();
    if (line.draw) {
        const Dimension d = line.draw->kind == DrawKind::power     ? Dimension::power
                            : line.draw->kind == DrawKind::current ? Dimension::current
                                                                   : Dimension::resistance;
        parts << times + quantity(line.draw->value, d);
    } else if (!times.isEmpty()) {
        parts << QStringLiteral("%1 pieces").arg(line.count);
    }
    if (line.inrush_A) parts << quantity(*line.inrush_A, Dimension::current) + QStringLiteral(" at start");
    if (line.live_when) parts << q(words::condition(*line.live_when));
    if (line.length_m) parts << quantity(*line.length_m, Dimension::length);
    if (line.size) parts << q(words::short_size(*line.size));
    if (!line.place.empty()) parts << q(yr::name_of(plan, line.place));
    if (!line.feed.empty()) parts << QStringLiteral("from ") + q(yr::name_of(plan, line.feed));
    if (!line.inverter.empty()) parts << QStringLiteral("mains from ") + q(yr::name_of(plan, line.inverter));
    if (line.start_W) parts << quantity(*line.start_W, Dimension::power) + QStringLiteral(" at start");
    if (line.critical) parts << QStringLiteral("critical");
    if (line.drop_limit) parts << quantity(*line.drop_limit, Dimension::fraction) + QStringLiteral(" drop");
    if (line.chassis)
        parts << (*line.chassis ? QStringLiteral("chassis return") : QStringLiteral("home-run"));
    return parts.join(QStringLiteral(" · "));
}

TypeLine::TypeLine(PlanDocument* document, QWidget* parent) : QWidget(parent), document_(document) {
    edit_ = new QLineEdit;
    edit_->setPlaceholderText(QStringLiteral("work light 2x 35 W on ignition, 4 m"));
    edit_->setAccessibleName(QStringLiteral("Add a load by typing"));
    edit_->setMinimumHeight(34);
    edit_->setObjectName(QStringLiteral("type_line"));
    understood_ = new QLabel;
    understood_->setObjectName(QStringLiteral("good"));
    problem_ = new QLabel;
    problem_->setObjectName(QStringLiteral("fix"));
    for (QLabel* l : {understood_, problem_}) {
        l->setFont(type_font(Type::small));
        l->setWordWrap(true);
        l->hide();
    }
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 12, 12, 4);
    column->setSpacing(4);
    column->addWidget(edit_);
    column->addWidget(understood_);
    column->addWidget(problem_);
    connect(edit_, &QLineEdit::textChanged, this, &TypeLine::read);
    connect(edit_, &QLineEdit::returnPressed, this, &TypeLine::add);
}

void TypeLine::read() {
    const TypedLine line = read_line(document_->plan(), edit_->text().toStdString());
    understood_->setText(understood_text(line, document_->plan(), document_->style()) +
                         (line.complete() ? QStringLiteral("   ⏎") : QString()));
    understood_->setVisible(!edit_->text().trimmed().isEmpty());
    QStringList problems;
    if (!line.name.empty() && !line.draw) problems << QStringLiteral("its draw is missing: W, A or ohm");
    if (line.name.empty() && line.draw) problems << QStringLiteral("its name is missing");
    if (!line.not_understood.empty()) {
        QStringList words;
        for (const auto& w : line.not_understood) words << q(w);
        problems << QStringLiteral("not understood, kept as a note: ") + words.join(QStringLiteral(" "));
    }
    problem_->setText(problems.join(QStringLiteral("; ")));
    problem_->setVisible(!problems.isEmpty());
}

void TypeLine::add() {
    const TypedLine line = read_line(document_->plan(), edit_->text().toStdString());
    const auto circuit = make_circuit(document_->plan(), line);
    if (!circuit) {
        problem_->setText(q(words::sentence(circuit.error())));
        problem_->show();
        return;
    }
    if (!document_->apply(circuit->edit, QStringLiteral("add ") + q(line.name))) return;
    edit_->clear();
    document_->select(circuit->load);
}

}  // namespace yr::app
