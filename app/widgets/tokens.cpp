#include "widgets/tokens.h"
#include "text/say.h"

#include <QApplication>
#include <QFontDatabase>
#include <QHash>
#include <QPalette>
#include <QStyleFactory>
#include <cmath>

namespace yr::app {
namespace {

QColor rgb(const char* hex) {
    return QColor(QLatin1String(hex));
}

Tokens bench() {
    Tokens t;
    t.paper = rgb("#F6F3EC"), t.panel = rgb("#ECE7DB"), t.ink = rgb("#1D2733"), t.soft = rgb("#5A6470"),
    t.line = rgb("#CFC7B6");
    t.supply[0] = rgb("#2F4B6E"), t.supply[1] = rgb("#47719B"), t.supply[2] = rgb("#7AA3C4");
    t.ret[0] = rgb("#5B4A36"), t.ret[1] = rgb("#8A6F4D");
    t.source = rgb("#B9770E"), t.stop = rgb("#A3261B"), t.fix = rgb("#8A4B00"), t.good = rgb("#2E6E5A");
    t.card = rgb("#1D2733"), t.card_ink = rgb("#F6F3EC"), t.card_soft = rgb("#CFC7B6");
    return t;
}

Tokens night() {
    Tokens t;
    t.night = true;
    t.paper = rgb("#14181D"), t.panel = rgb("#1C222A"), t.ink = rgb("#E8E3D8"), t.soft = rgb("#9AA4AF"),
    t.line = rgb("#343D48");
    t.supply[0] = rgb("#8FB4D6"), t.supply[1] = rgb("#5E8BB5"), t.supply[2] = rgb("#3C618A");
    t.ret[0] = rgb("#C9A97C"), t.ret[1] = rgb("#8F7450");
    t.source = rgb("#E3A33B"), t.stop = rgb("#F0766A"), t.fix = rgb("#E8A45A"), t.good = rgb("#6FC3A4");
    t.card = rgb("#2A323D"), t.card_ink = rgb("#E8E3D8"), t.card_soft = rgb("#9AA4AF");
    return t;
}

Tokens& current() {
    static Tokens t = bench();
    return t;
}

double luminance(const QColor& c) {  // relative luminance, WCAG 2.1
    const auto linear = [](double v) {
        return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
    };
    return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}

QString style_sheet(const Tokens& t) {
    QString sheet = QStringLiteral(R"(
* { color: @ink; }
QMainWindow, QWidget#paper, QDialog { background: @paper; }
QWidget#panel, QScrollArea#panel, QWidget#panel > QWidget { background: @panel; }
QLineEdit { background: @paper; border: 1px solid @line; border-radius: 2px; padding: 3px 6px; min-height: 22px;
            selection-background-color: @supply; selection-color: @paper; }
QLineEdit:focus { border: 2px solid @source; padding: 2px 5px; }
QToolButton, QPushButton { background: transparent; border: 1px solid transparent; padding: 3px 8px; min-height: 24px; }
QPushButton[value="true"] { text-align: left; padding: 1px 6px; min-height: 22px; }
QToolButton:hover, QPushButton:hover { background: @line; }
QToolButton:focus, QPushButton:focus { border: 1px solid @source; }
QToolButton:checked { background: @ink; color: @paper; }
QToolButton::menu-indicator { image: none; width: 0; }
QToolButton#mend, QPushButton#mend { color: @supply0; font-weight: bold; }
QToolButton#quiet { color: @soft; }
QPushButton#main { background: @ink; color: @paper; padding: 5px 16px; }
QComboBox { background: @paper; border: 1px solid @line; border-radius: 2px; padding: 2px 6px; min-height: 24px; }
QComboBox:focus { border: 2px solid @source; }
QComboBox::drop-down { border: none; width: 16px; }
QComboBox QAbstractItemView { background: @paper; selection-background-color: @ink; selection-color: @paper; }
QCheckBox { min-height: 24px; background: transparent; }
QTreeWidget { background: @panel; border: none; outline: none; }
QTreeWidget#table { background: @paper; }
QTreeWidget#table::item { padding: 3px 5px; border: none; }
QTreeWidget#table::item:selected { background: @line; color: @ink; }
QTableWidget { background: @paper; border: none; outline: none; gridline-color: @line; }
QTableWidget::item { padding: 2px 6px; border-bottom: 1px solid @line; }
QTableWidget::item:selected { background: @line; color: @ink; }
QHeaderView { background: transparent; border: none; }
QHeaderView::section { background: @paper; color: @soft; border: none; border-bottom: 1px solid @line; padding: 3px 5px; }
QToolButton#state { padding: 4px 5px; }
QToolButton#tick { background: @paper; border: 2px solid @soft; border-radius: 4px; padding: 0; }
QToolButton#tick:checked { background: @ink; color: @paper; border-color: @ink; }
QToolButton#tick:focus { border-color: @source; }
QProgressBar#share { background: @line; border: none; }
QProgressBar#share::chunk { background: @fix; }
QWidget#entry { background: @panel; }
QFrame#workstep { background: @panel; border-radius: 3px; }
QWidget#message { background: @panel; border-bottom: 2px solid @source; }
QWidget#floating { background: @panel; border-left: 1px solid @line; border-right: 1px solid @line; }
QPlainTextEdit { background: @paper; border: 1px solid @line; border-radius: 2px; }
QPlainTextEdit:focus { border: 2px solid @source; }
QComboBox::down-arrow { image: url(:/icons/down.svg); width: 10px; height: 10px; }
QLineEdit#rpm, QLineEdit#ambient, QLineEdit#bay, QLineEdit#charge { padding: 2px 4px; }
QScrollBar:vertical { background: transparent; width: 10px; margin: 0; }
QScrollBar::handle:vertical { background: @line; border-radius: 4px; min-height: 28px; }
QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page { height: 0; background: none; }
QScrollBar:horizontal { height: 0; }
QTableWidget QScrollBar:horizontal { background: transparent; height: 10px; }
QTableWidget QScrollBar::handle:horizontal { background: @line; border-radius: 4px; min-width: 28px; }
QMenu { background: @paper; border: 1px solid @line; padding: 4px; }
QMenu::item { padding: 5px 24px 5px 16px; }
QMenu::item:selected { background: @ink; color: @paper; }
QMenu::item:disabled { color: @soft; }
QMenu::separator { height: 1px; background: @line; margin: 4px 8px; }
QToolTip { background: @card; color: @card_ink; border: none; padding: 4px; }
QLabel#soft { color: @soft; } QLabel#good { color: @good; } QLabel#fix { color: @fix; } QLabel#stop { color: @stop; }
QDialog { border: 1px solid @soft; }
QFrame#why { background: @paper; border: 1px solid @soft; }
)");
    const std::pair<const char*, QColor> names[] = {
        {"@paper", t.paper},   {"@panel", t.panel}, {"@supply0", t.supply[0]}, {"@supply", t.supply[1]},
        {"@source", t.source}, {"@stop", t.stop},   {"@soft", t.soft},         {"@line", t.line},
        {"@good", t.good},     {"@fix", t.fix},     {"@ink", t.ink},           {"@card_ink", t.card_ink},
        {"@card", t.card}};
    for (const auto& [name, colour] : names) sheet.replace(QLatin1String(name), colour.name());
    return sheet;
}

}  // namespace

QColor Tokens::on(const QColor& ground) const {
    // asked for every cable of every picture, of a dozen colours
    static QHash<QRgb, QColor> known[2];
    if (const auto found = known[night].constFind(ground.rgba()); found != known[night].constEnd())
        return *found;
    return *known[night].insert(ground.rgba(), readable_on(ground));
}

QColor Tokens::readable_on(const QColor& ground) const {
    const double g = luminance(ground);
    const auto contrast = [&](const QColor& c) {
        const double l = luminance(c);
        return (std::max(l, g) + 0.05) / (std::min(l, g) + 0.05);
    };
    const QColor dark = night ? paper : ink, light = night ? ink : paper;
    const QColor soft_choice = contrast(dark) > contrast(light) ? dark : light;
    if (contrast(soft_choice) >= 4.5) return soft_choice;
    const QColor black(Qt::black), white(Qt::white);  // mid-tones need the ends of the scale
    return contrast(black) > contrast(white) ? black : white;
}

const Tokens& tokens() {
    return current();
}

void use_look(bool dark) {
    current() = dark ? night() : bench();
    const Tokens& t = current();
    QPalette p;
    p.setColor(QPalette::Window, t.paper);
    p.setColor(QPalette::WindowText, t.ink);
    p.setColor(QPalette::Base, t.paper);
    p.setColor(QPalette::Text, t.ink);
    p.setColor(QPalette::Button, t.panel);
    p.setColor(QPalette::ButtonText, t.ink);
    p.setColor(QPalette::Highlight, t.supply[1]);
    p.setColor(QPalette::HighlightedText, t.paper);
    p.setColor(QPalette::PlaceholderText, t.soft);
    p.setColor(QPalette::ToolTipBase, t.card);
    p.setColor(QPalette::ToolTipText, t.card_ink);
    qApp->setStyle(QStyleFactory::create(say("Fusion")));
    qApp->setPalette(p);
    qApp->setStyleSheet(style_sheet(t));
}

StyledWhenMade::StyledWhenMade() {
    qApp->setStyleSheet({});
}

StyledWhenMade::~StyledWhenMade() {
    qApp->setStyleSheet(style_sheet(tokens()));
}

void use_typeface() {
    for (const char* file : {"B612-Regular.otf", "B612-Bold.otf", "B612-Italic.otf", "RailMarks.ttf"})
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/") + QLatin1String(file));
    qApp->setFont(type_font(Type::body));
}

QFont type_font(Type type) {
    // Sizes at 100 %: the desktop's own scaling multiplies them.
    QFont f;
    f.setFamilies({say("B612 Rail"), say("Rail Marks")});  // marks that the first lacks
    f.setPixelSize(type == Type::small ? 11 : type == Type::title ? 17 : 13);
    f.setBold(type == Type::bold || type == Type::title);
    f.setHintingPreference(QFont::PreferVerticalHinting);
    return f;
}

}  // namespace yr::app
