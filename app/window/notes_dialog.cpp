#include "window/notes_dialog.h"

#include <QDialogButtonBox>
#include <QFile>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollBar>
#include <QTextBlock>
#include <QVBoxLayout>

#include "document/own_library.h"
#include "notes/plan_text.h"
#include "panels/type_line.h"
#include "plan/roles.h"
#include "plan/variant.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "words/statement_words.h"

namespace yr::app {
namespace {

constexpr int kPause_ms = 250;  // behind the last key

}  // namespace

NotesDialog::NotesDialog(Document* document, QWidget* parent) : QDialog(parent), document_(document) {
    setWindowTitle(say("From notes"));
    resize(1120, 680);
    auto* words = new QLabel(say(
        "One thing a line, as on the type line: battery AGM 95 Ah, alternator 150 A, work light 2x 35 W on "
        "ignition, 4 m. A line that begins with # is a remark. Lines build on those above them."));
    words->setWordWrap(true);
    words->setObjectName(QStringLiteral("soft"));
    page_ = new QPlainTextEdit;
    page_->setAccessibleName(say("Notes, one thing a line"));
    page_->setLineWrapMode(QPlainTextEdit::NoWrap);
    outcomes_ = new QListWidget;
    outcomes_->setAccessibleName(say("What each line became"));
    outcomes_->setFont(type_font(Type::small));
    outcomes_->setWordWrap(true);
    chart_ = new RailChart(&circuit_);
    chart_->set_animated(false);
    chart_->setMinimumSize(320, 220);
    summary_ = new QLabel;
    summary_->setWordWrap(true);
    on_top_ = new QCheckBox(say("added to the open plan, not in place of it"));
    auto* buttons = new QDialogButtonBox;
    auto* open = buttons->addButton(say("Open a file …"), QDialogButtonBox::ActionRole);
    auto* write = buttons->addButton(say("Write the open plan here"), QDialogButtonBox::ActionRole);
    auto* take = buttons->addButton(say("Take it"), QDialogButtonBox::AcceptRole);
    take->setObjectName(QStringLiteral("main"));
    take->setAutoDefault(false);
    buttons->addButton(say("Leave"), QDialogButtonBox::RejectRole);
    connect(open, &QPushButton::clicked, this, &NotesDialog::open_file);
    connect(write, &QPushButton::clicked, this, &NotesDialog::write_plan);
    connect(buttons, &QDialogButtonBox::accepted, this, &NotesDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &NotesDialog::reject);

    auto* right = new QVBoxLayout;
    right->addWidget(chart_, 3);
    right->addWidget(outcomes_, 2);
    auto* middle = new QHBoxLayout;
    middle->addWidget(page_, 1);
    middle->addLayout(right, 1);
    auto* foot = new QHBoxLayout;
    foot->addWidget(summary_, 1);
    foot->addWidget(on_top_);
    auto* column = new QVBoxLayout(this);
    column->addWidget(words);
    column->addLayout(middle, 1);
    auto* sum = new QWidget;  // on the panel's ground: a box to tick is not seen on paper
    sum->setObjectName(QStringLiteral("panel"));
    sum->setAttribute(Qt::WA_StyledBackground);
    sum->setLayout(foot);
    column->addWidget(sum);
    column->addWidget(buttons);

    wait_.setSingleShot(true);
    wait_.setInterval(kPause_ms);
    connect(page_, &QPlainTextEdit::textChanged, &wait_, qOverload<>(&QTimer::start));
    connect(on_top_, &QCheckBox::toggled, &wait_, qOverload<>(&QTimer::start));
    connect(&wait_, &QTimer::timeout, this, &NotesDialog::read);
    connect(&reading_, &JobBase::done, this, &NotesDialog::show_notes);
    // a line's outcome and the line belong together
    connect(outcomes_, &QListWidget::currentRowChanged, this, [this](int row) {
        const int line = row < 0 ? -1 : outcomes_->item(row)->data(Qt::UserRole).toInt();
        if (line < 0) return;
        QTextCursor cursor(page_->document()->findBlockByNumber(line));
        page_->setTextCursor(cursor);
    });
    read();
}

void NotesDialog::read() {
    wait_.stop();
    const std::string text = page_->toPlainText().toStdString();
    const Plan base = on_top_->isChecked() ? document_->plan() : blank_vehicle();
    reading_.start(0, [base, text](const Task&) { return read_notes(base, text, &library()); });
}

void NotesDialog::finish() {
    read();
    reading_.finish();
}

void NotesDialog::show_notes() {
    const Notes* notes = reading_.answer();
    if (!notes) return;
    outcomes_->clear();
    int number = 0, taken = 0;
    for (const NoteLine& line : notes->lines) {
        ++number;
        if (line.statement.kind == StatementKind::nothing && !line.thing) continue;
        QString text = QStringLiteral("%1  ").arg(number);
        if (line.thing) {
            text += q(line.text.substr(0, line.text.find(':')));
        } else {
            const QString said = statement_text(line.statement, notes->plan, document_->style());
            text += said.isEmpty() ? q(line.text) : said.section(QStringLiteral(" · "), 0, 7);
            const QStringList problems = statement_problems(line.statement);
            if (!problems.isEmpty()) text += QStringLiteral("\n▲ ") + problems.join(QStringLiteral("; "));
        }
        auto* item = new QListWidgetItem(text, outcomes_);
        item->setData(Qt::UserRole, number - 1);
        if (line.bad()) item->setForeground(tokens().fix);
        taken += !line.bad();
    }
    QString sum = q(yr::words::say_n("{0} line is understood", "{0} lines are understood", taken));
    if (notes->bad() > 0)
        sum += q(yr::words::say_n(", {0} is not wholly", ", {0} are not wholly", notes->bad()));
    if (notes->things) sum += QStringLiteral(". ") + q(yr::words::sentence(*notes->things));
    for (const std::string& added : yr::words::added_to_page(*notes)) sum += QStringLiteral(". ") + q(added);
    summary_->setText(sum);
    circuit_.show_plan(notes->plan, opening_state(notes->plan).id);
}

void NotesDialog::open_file() {
    const QString path = QFileDialog::getOpenFileName(this, say("Open notes"));
    if (path.isEmpty()) return;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly | QIODevice::Text)) {
        summary_->setText(say("%1 cannot be read: %2").arg(path, file.errorString()));
        return;
    }
    page_->setPlainText(QString::fromUtf8(file.readAll()));
}

void NotesDialog::write_plan() {
    page_->setPlainText(q(plan_text(document_->store().stored())));
}

void NotesDialog::accept() {
    finish();
    const Notes* notes = reading_.answer();
    if (!notes) return;
    if (on_top_->isChecked()) {
        if (!document_->apply(edit_between(document_->plan(), notes->plan), say("notes"))) return;
    } else {
        emit plan_taken(notes->plan);
    }
    QDialog::accept();
}

}  // namespace yr::app

#include "moc_notes_dialog.cpp"
