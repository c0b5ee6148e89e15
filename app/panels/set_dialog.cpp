#include "panels/set_dialog.h"

#include <QHBoxLayout>
#include <QPushButton>

#include "document/own_library.h"
#include "notes/sets.h"
#include "notes/statement.h"
#include "panels/type_line.h"
#include "widgets/dialog_parts.h"
#include "widgets/tokens.h"

namespace yr::app {
namespace {

SetEntry set_of(const QString& name, const QString& page) {
    SetEntry set;
    set.name = name.trimmed().toStdString();
    for (const QString& line : page.split(QLatin1Char('\n')))
        if (!line.trimmed().isEmpty()) set.lines.push_back(line.trimmed().toStdString());
    return set;
}

}  // namespace

SetDialog::SetDialog(Document* document, const QString& lines, QWidget* parent)
    : QDialog(parent), document_(document), fresh_(lines) {
    setWindowTitle(say("Sets of lines"));
    resize(640, 480);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 20, 24, 16);
    column->setSpacing(8);
    auto* words = new QLabel(say(
        "A set is lines as on the type line, kept under a name. What differs from one use to the next stands "
        "in braces with what it is otherwise: {where=rear} work lights 2x {each=25 W}, {length=4 m}. "
        "Typed by its name: pair of work lights, where front, each 40 W."));
    words->setWordWrap(true);
    words->setObjectName(QStringLiteral("soft"));
    column->addWidget(words);
    which_ = new QComboBox;
    which_->setAccessibleName(say("Which set"));
    which_->addItem(say("a new set"));
    for (const SetEntry& set : library().sets)
        if (set.own) which_->addItem(q(set.name));
    name_ = new QLineEdit;
    name_->setAccessibleName(say("Name of the set"));
    name_->setPlaceholderText(say("what you will type"));
    page_ = new QPlainTextEdit;
    page_->setAccessibleName(say("Lines of the set"));
    page_->setLineWrapMode(QPlainTextEdit::NoWrap);
    outcome_ = new QLabel;
    outcome_->setWordWrap(true);
    outcome_->setFont(type_font(Type::small));
    problem_ = problem_label();
    field_row(column, say("Set"), which_, 80);
    field_row(column, say("Name"), name_, 80);
    column->addWidget(page_, 1);
    column->addWidget(outcome_);
    column->addWidget(problem_);
    out_ = new QPushButton(say("Take this set out"));
    column->addWidget(out_, 0, Qt::AlignLeft);
    add_buttons(column, this, say("Keep the set"));
    connect(out_, &QPushButton::clicked, this, &SetDialog::take_out);
    connect(which_, &QComboBox::currentIndexChanged, this, &SetDialog::show_which);
    connect(page_, &QPlainTextEdit::textChanged, this, &SetDialog::check);
    connect(name_, &QLineEdit::textChanged, this, &SetDialog::check);
    show_which();
}

void SetDialog::show_which() {
    asked_ = false;
    out_->setText(say("Take this set out"));
    out_->setVisible(which_->currentIndex() > 0);
    name_->setText(which_->currentIndex() > 0 ? which_->currentText() : QString());
    QStringList lines = fresh_.split(QLatin1Char('\n'));
    if (which_->currentIndex() > 0) {
        lines.clear();
        for (const SetEntry& set : library().sets)
            if (set.own && q(set.name) == which_->currentText())
                for (const std::string& line : set.lines) lines << q(line);
    }
    page_->setPlainText(lines.join(QLatin1Char('\n')));
    check();
}

// What the lines would become now, or the first that does not go.
void SetDialog::check() {
    Library one;
    one.loads = library().loads;
    one.sets = {set_of(QStringLiteral("set"), page_->toPlainText())};
    const SetEntry& set = one.sets.front();
    if (set.lines.empty()) {
        outcome_->setText(say("No line yet."));
        return;
    }
    const Statement s = read_statement(document_->plan(), "set", &one);
    const QStringList problems = statement_problems(s);
    outcome_->setObjectName(problems.isEmpty() ? QStringLiteral("good") : QStringLiteral("fix"));
    outcome_->setStyleSheet(
        QStringLiteral("color: %1").arg((problems.isEmpty() ? tokens().good : tokens().fix).name()));
    QString form = name_->text().trimmed().isEmpty() ? say("its name") : name_->text().trimmed();
    form += q(typed_form(set)).mid(3);
    outcome_->setText(problems.isEmpty() ? say("Typed: %1").arg(form) : problems.join(QLatin1String("; ")));
}

void SetDialog::take_out() {
    if (!asked_) {
        asked_ = true;
        out_->setText(say("Press again: “%1” is gone then").arg(which_->currentText()));
        return;
    }
    if (const QString problem = forget_set(which_->currentText().toStdString()); !problem.isEmpty()) {
        problem_->setText(problem);
        problem_->show();
        return;
    }
    which_->removeItem(which_->currentIndex());
    show_which();
}

void SetDialog::accept() {
    const SetEntry set = set_of(name_->text(), page_->toPlainText());
    QString problem;
    if (set.name.empty())
        problem = say("A set needs a name: what you will type.");
    else if (set.lines.empty())
        problem = say("A set needs at least one line.");
    else if (name_->text().contains(QLatin1Char(',')))
        problem = say("The name of a set has no comma: behind it its marks begin.");
    else
        problem = keep_set(set);
    problem_->setText(problem);
    problem_->setVisible(!problem.isEmpty());
    if (problem.isEmpty()) QDialog::accept();
}

}  // namespace yr::app

#include "moc_set_dialog.cpp"
