#include "shell/dialogs.h"

#include <functional>

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "paint/tokens.h"
#include "shell/plan_files.h"
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
    auto* close = new QPushButton(QStringLiteral("Close"));
    close->setObjectName(QStringLiteral("main"));
    QObject::connect(close, &QPushButton::clicked, &dialog, &QDialog::accept);
    column->addWidget(close, 0, Qt::AlignRight);
    dialog.exec();
}

}  // namespace

FirstStart::FirstStart(QWidget* parent) : QDialog(parent) {
    setWindowTitle(QStringLiteral("Your Rail"));
    setMinimumWidth(640);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(28, 24, 28, 20);
    column->setSpacing(8);
    column->addWidget(paragraph(QStringLiteral("Before you rely on a number"), Type::title));
    add_caution(column);
    column->addSpacing(10);
    column->addWidget(paragraph(QStringLiteral("Start with"), Type::title));
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
    add(QStringLiteral("Empty plan"),
        QStringLiteral("A battery, a bus and the usual states; type your loads."), {}, false);
}

void show_about(QWidget* parent) {
    show_text(parent, QStringLiteral("About Your Rail"), [](QVBoxLayout* column) {
        column->addWidget(
            paragraph(QStringLiteral("Version 0.1.0. Plans a vehicle's 12-volt supply as one circuit. Free "
                                     "software under the GNU General Public License, version 3 or later. "
                                     "The typeface is B612, under the SIL Open Font License.")));
        add_caution(column);
    });
}

void show_shortcuts(QWidget* parent) {
    show_text(parent, QStringLiteral("Keys"), [](QVBoxLayout* column) {
        const char* keys[][2] = {{"Ctrl+L", "type a load"},
                                 {"Ctrl+1 … 9", "state"},
                                 {"Ctrl+0", "all states at their worst"},
                                 {"Alt+1, Alt+2, Alt+3", "survey, rail, options side by side"},
                                 {"F1", "why? for the number or thing in focus"},
                                 {"+  −", "thicker, thinner cable"},
                                 {"Left, Right", "walk along the chart"},
                                 {"Enter, double click", "look into a feed"},
                                 {"Escape", "the whole rail again"},
                                 {"Delete", "take a load out"},
                                 {"Ctrl+Z, Ctrl+Shift+Z", "undo, redo"},
                                 {"Ctrl+N, Ctrl+O, Ctrl+S", "new, open, save"},
                                 {"Ctrl+U", "metric or inch leads"},
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
