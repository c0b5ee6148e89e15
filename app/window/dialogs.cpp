#include "window/dialogs.h"

#include <functional>

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "document/plan_files.h"
#include "plan/additions.h"
#include "widgets/dialog_parts.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

QLabel* paragraph(const QString& text, Type type = Type::body) {
    auto* l = new QLabel(text);
    l->setWordWrap(true);
    l->setFont(type_font(type));
    l->setTextInteractionFlags(Qt::TextSelectableByMouse);
    return l;
}

void add_caution(QVBoxLayout* column) {
    for (const QString& line : QString::fromUtf8(words::caution()).split(QLatin1Char('\n')))
        column->addWidget(paragraph(line));
}

void show_text(QWidget* parent, const QString& title, const std::function<void(QVBoxLayout*)>& fill) {
    QDialog dialog(parent);
    dialog.setWindowTitle(title);
    dialog.setMinimumWidth(600);
    auto* column = new QVBoxLayout(&dialog);
    column->setContentsMargins(28, 24, 28, 20);
    column->setSpacing(10);
    column->addWidget(paragraph(title, Type::title));
    fill(column);
    auto* close = new QPushButton(say("Close"));
    close->setObjectName(QStringLiteral("main"));
    QObject::connect(close, &QPushButton::clicked, &dialog, &QDialog::accept);
    column->addWidget(close, 0, Qt::AlignRight);
    dialog.exec();
}

}  // namespace

FirstStart::FirstStart(QWidget* parent) : QDialog(parent) {
    setWindowTitle(say("Your Rail"));
    setMinimumWidth(640);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(28, 24, 28, 20);
    column->setSpacing(8);
    column->addWidget(paragraph(say("Before you rely on a number"), Type::title));
    add_caution(column);
    column->addSpacing(10);
    column->addWidget(paragraph(say("Start with"), Type::title));
    const auto add = [&](const QString& title, const QString& sentence, const QString& resource, bool main) {
        auto* row = new QHBoxLayout;
        auto* button = new QPushButton(title);
        button->setObjectName(main ? QStringLiteral("main") : QStringLiteral("mend"));
        button->setMinimumSize(210, 34);
        button->setDefault(main);
        connect(button, &QPushButton::clicked, this, [this, resource] {
            chosen_ = resource;
            accept();
        });
        row->addWidget(button);
        row->addWidget(paragraph(sentence), 1);
        column->addLayout(row);
    };
    bool first = true;
    for (const DemoPlan& demo : demo_plans()) {
        add(demo.title, demo.sentence, demo.resource, first);
        if (first) chosen_ = demo.resource;
        first = false;
    }
    add(say("Empty plan"), say("A battery, a bus and the usual states; type your loads."), {}, false);
}

CableDialog::CableDialog(Document* document, QWidget* parent) : QDialog(parent), document_(document) {
    setWindowTitle(say("A cable, strap or link"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 20, 24, 16);
    column->setSpacing(8);
    from_ = new QComboBox;
    to_ = new QComboBox;
    for (QComboBox* box : {from_, to_})
        for (const Terminal& t : terminals_of(document_->plan()))
            box->addItem(q(words::terminal(document_->plan(), t)), q(t.text()));
    // from what is chosen to something else
    const QString chosen = q(document_->selection().id());
    for (int k = 0; k < from_->count() && !chosen.isEmpty(); ++k)
        if (q(owner_of(Terminal(from_->itemData(k).toString().toStdString()))) == chosen) {
            from_->setCurrentIndex(k);
            break;
        }
    to_->setCurrentIndex(from_->currentIndex() == 0 && to_->count() > 1 ? 1 : 0);
    name_ = new QLineEdit;
    name_->setPlaceholderText(say("cable"));
    length_ = new QLineEdit;
    length_->setPlaceholderText(say("not measured: 3 m is assumed"));
    size_ = new QLineEdit;
    size_->setPlaceholderText(say("not known: 14 AWG is assumed"));
    problem_ = problem_label();
    const auto row = [column](const QString& label, QWidget* field) { field_row(column, label, field, 110); };
    row(say("From"), from_);
    row(say("To"), to_);
    row(say("Name"), name_);
    row(say("Length, one way"), length_);
    row(say("Size"), size_);
    column->addWidget(problem_);
    add_buttons(column, this, say("Add the cable"));
}

void CableDialog::accept() {
    const auto refuse = [this](const Error& e) { problem_->setText(q(words::sentence(e))); };
    std::optional<double> length;
    std::optional<WireSize> size;
    if (!length_->text().trimmed().isEmpty()) {
        auto v = parse_value(length_->text().toStdString(), Dimension::length);
        if (!v) {
            v.error().place = "length";
            return refuse(v.error());
        }
        length = *v;
    }
    if (!size_->text().trimmed().isEmpty()) {
        auto s = parse_wire_size(size_->text().toStdString());
        if (!s) {
            s.error().place = "size";
            return refuse(s.error());
        }
        size = *s;
    }
    const QString name = name_->text().trimmed().isEmpty() ? say("cable") : name_->text().trimmed();
    const auto added =
        add_cable(document_->plan(), name.toStdString(), from_->currentData().toString().toStdString(),
                  to_->currentData().toString().toStdString(), length, size);
    if (!added) return refuse(added.error());
    if (!document_->apply(added->edit, say("add ") + name)) {
        problem_->setText(say("The plan does not take this cable; the line above the picture says why."));
        return;
    }
    document_->selection().choose(added->id);
    QDialog::accept();
}

void show_about(QWidget* parent) {
    show_text(parent, say("About Your Rail"), [](QVBoxLayout* column) {
        column->addWidget(
            paragraph(say("Version 0.1.0. Plans a vehicle's 12-volt supply as one circuit. Free "
                          "software under the GNU General Public License, version 3 or later. "
                          "The typeface is B612, under the SIL Open Font License.")));
        add_caution(column);
    });
}

void show_shortcuts(QWidget* parent) {
    show_text(parent, say("Keys"), [](QVBoxLayout* column) {
        const char* keys[][2] = {{"Ctrl+L", "type what is fitted: a load, battery, box, cable …"},
                                 {"Up, in the type line", "earlier lines"},
                                 {"Ctrl+Shift+N", "from notes: a page of lines"},
                                 {"Ctrl+F", "find anything by its name"},
                                 {"Ctrl+C, X, V", "copy, cut, paste as typed lines"},
                                 {"Ctrl+Shift+D", "one more of the selected load"},
                                 {"Ctrl+1 … 9", "state"},
                                 {"Ctrl+0", "all states at their worst"},
                                 {"Alt+1 … 9, 0", "workspaces in their order; options side by side"},
                                 {"F1", "why? for the number or thing in focus"},
                                 {"+  −", "thicker, thinner cable"},
                                 {"Left, Right", "walk along the chart"},
                                 {"Enter, double click", "look into a feed"},
                                 {"Escape", "the whole rail again"},
                                 {"Delete", "take what is chosen out"},
                                 {"F8, F9", "fold the findings, the list"},
                                 {"Shift+F1", "help on this workspace"},
                                 {"Ctrl+Shift+C", "this view as a picture on the clipboard"},
                                 {"Ctrl+Z, Ctrl+Shift+Z", "undo, redo"},
                                 {"Ctrl+N, Ctrl+O, Ctrl+S", "new, open, save"},
                                 {"Ctrl+U", "units of lengths and new cables"},
                                 {"Alt and wheel", "step a cable without its return"},
                                 {"Ctrl+D", "bench or night"},
                                 {"?", "this list"}};
        QString html = QStringLiteral("<table cellspacing='4'>");
        for (const auto& k : keys)
            html += QStringLiteral("<tr><td><b>%1</b>&nbsp;&nbsp;&nbsp;</td><td>%2</td></tr>")
                        .arg(QString::fromUtf8(k[0]), QString::fromUtf8(k[1]));
        column->addWidget(paragraph(html + QStringLiteral("</table>")));
    });
}

}  // namespace yr::app

#include "moc_dialogs.cpp"
