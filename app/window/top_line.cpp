#include "window/top_line.h"

#include <QPainter>
#include <QStyle>

#include "widgets/tokens.h"

namespace yr::app {
namespace {

constexpr int kRoomy_px = 1180;

// A workspace's word; a bar stands under the open one.
class PlaceWord : public QToolButton {
  public:
    explicit PlaceWord(const QString& text) {
        setText(text);
        setCheckable(true);
        setFont(type_font(Type::bold));
        set_room(16);
        setAccessibleName(text);
    }
    // Beside the word, both sides together.
    void set_room(int px) { setFixedSize(QFontMetrics(font()).horizontalAdvance(text()) + px, 32); }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setFont(font());
        p.setPen(isChecked() ? tokens().ink : tokens().soft);
        p.drawText(rect(), Qt::AlignCenter, text());
        if (isChecked()) p.fillRect(QRect(0, height() - 4, width(), 3), tokens().source);
        if (hasFocus())
            p.setPen(QPen(tokens().soft, 1, Qt::DotLine)), p.drawRect(rect().adjusted(1, 1, -2, -2));
    }
};

// The vehicle's name: where it has no room for all of it and nobody writes in it, it ends in dots.
class NameLine : public QLineEdit {
  protected:
    void paintEvent(QPaintEvent* event) override {
        const int room = width() - 10;
        if (hasFocus() || fontMetrics().horizontalAdvance(text()) <= room)
            return QLineEdit::paintEvent(event);
        QPainter p(this);
        p.setPen(tokens().ink);
        p.drawText(rect(), Qt::AlignVCenter | Qt::AlignLeft,
                   fontMetrics().elidedText(text(), Qt::ElideRight, room));
    }
};

QToolButton* tool(const QString& text, const QString& tip, const QString& name) {
    auto* b = new QToolButton;
    b->setText(text);
    b->setToolTip(tip);
    b->setAccessibleName(name);
    b->setMinimumSize(32, 32);
    b->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);  // its word is never cut
    return b;
}

QToolButton* menu_button(const QString& text, QMenu* menu) {
    QToolButton* b = tool(text, {}, text);
    b->setMenu(menu);
    b->setPopupMode(QToolButton::InstantPopup);
    QObject::connect(menu, &QMenu::aboutToHide, b, [b] {  // else it stays lit until the mouse comes by again
        b->setDown(false);
        b->setAttribute(Qt::WA_UnderMouse, false);
        b->update();
    });
    return b;
}

}  // namespace

TopLine::TopLine(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(16, 8, 12, 8);
    row->setSpacing(4);
    title_ = new NameLine;
    title_->setFrame(false);
    title_->setFont(type_font(Type::title));
    title_->setStyleSheet(QStringLiteral("QLineEdit { border: none; background: transparent; padding: 0; }"));
    title_->setMinimumWidth(96);
    title_->setMaximumWidth(256);
    title_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    title_->setAccessibleName(say("Name of the vehicle"));
    title_->setToolTip(say("The vehicle's name; click to change it"));
    connect(title_, &QLineEdit::editingFinished, this, &TopLine::take_title);
    words_ = new QHBoxLayout;
    words_->setSpacing(4);
    plan_menu_ = new QMenu(this);
    add_menu_ = new QMenu(this);
    more_menu_ = new QMenu(this);
    help_menu_ = new QMenu(this);
    options_menu_ = new QMenu(this);
    options_ = menu_button(say("as planned"), options_menu_);
    options_->setAccessibleName(say("Option that is shown"));
    units_ =
        tool({}, say("Units of lengths and of new cables (Ctrl+U); a cable that is there keeps its own size"),
             say("Units"));
    connect(units_, &QToolButton::clicked, this, &TopLine::switch_units);
    QUndoStack* stack = document_->store().undo_stack();
    undo_ = tool(QStringLiteral("↶"), {}, say("Undo"));
    redo_ = tool(QStringLiteral("↷"), {}, say("Redo"));
    connect(undo_, &QToolButton::clicked, stack, &QUndoStack::undo);
    connect(redo_, &QToolButton::clicked, stack, &QUndoStack::redo);
    row->addWidget(title_, 1000);  // as much as there is, up to its most
    row->addLayout(words_);
    row->addSpacing(8);
    row->addStretch(1);
    row->addWidget(options_);
    row->addWidget(menu_button(say("Plan"), plan_menu_));
    row->addWidget(menu_button(say("Add"), add_menu_));
    row->addWidget(menu_button(say("More"), more_menu_));
    row->addWidget(menu_button(say("Help"), help_menu_));
    row->addSpacing(8);
    row->addWidget(units_);
    row->addWidget(undo_);
    row->addWidget(redo_);
    connect(&document_->store(), &PlanStore::edited, this, &TopLine::refresh);
    connect(stack, &QUndoStack::indexChanged, this, &TopLine::refresh);
    refresh();
}

// Where all of it does not stand side by side with air between, words stand closer and the name gets less.
void TopLine::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    refresh_options();
    const bool close = width() < kRoomy_px;
    if (close == close_ || word_of_.empty()) return;
    close_ = close;
    for (auto& [key, word] : word_of_) static_cast<PlaceWord*>(word)->set_room(close ? 8 : 16);
    words_->setSpacing(close ? 0 : 4);
    layout()->setSpacing(close ? 0 : 4);
    title_->setMinimumWidth(close ? 56 : 96);
}

void TopLine::take_title() {
    if (!title_->isModified()) return;
    title_->setModified(false);
    Vehicle v = document_->plan().vehicle;
    v.name = title_->text().trimmed().toStdString();
    if (!v.name.empty()) document_->apply(SetVehicle{v}, say("vehicle named %1").arg(q(v.name)));
    refresh();
}

void TopLine::add_workspace(const QString& key, const QString& name) {
    auto* word = new PlaceWord(name);
    connect(word, &QToolButton::clicked, this, [this, key] { emit workspace_asked(key); });
    words_->addWidget(word);
    word_of_.emplace_back(key, word);
}

void TopLine::show_workspace(const QString& key) {
    for (auto& [of, word] : word_of_) word->setChecked(of == key);
}

void TopLine::add_corner(QWidget* corner) {
    auto* row = static_cast<QHBoxLayout*>(layout());
    row->insertWidget(row->indexOf(words_) + 2, corner);
}

namespace {

QString units_text(const Policy& p) {
    const QString size = p.sizes == SizeSystem::metric ? say("mm²")
                         : p.sizes == SizeSystem::sae  ? say("SAE")
                                                       : say("AWG");
    return (p.units == LeadUnits::metric ? say("m, ") : say("ft, ")) + size;
}

}  // namespace

void TopLine::switch_units() {
    // metres and mm², metres and AWG, feet and AWG: lengths and new cables together
    Policy p = document_->plan().policy;
    if (p.units == LeadUnits::metric && p.sizes == SizeSystem::metric)
        p.sizes = SizeSystem::awg;
    else if (p.units == LeadUnits::metric)
        p.units = LeadUnits::inch;
    else
        p.units = LeadUnits::metric, p.sizes = SizeSystem::metric;
    document_->apply(SetPolicy{p}, say("units ") + units_text(p));
}

void TopLine::refresh_options() {
    const PlanStore& store = document_->store();
    const Variant* v = yr::find(store.stored().variants, store.stored().active);
    const QString name = v ? q(v->name) : say("as planned");
    options_->setText(
        QFontMetrics(options_->font()).elidedText(name, Qt::ElideRight, width() < 1500 ? 120 : 170) +
        QStringLiteral(" ▾"));
    options_->setToolTip(v ? say("Shown: %1. Changes stay in this option.").arg(name)
                           : say("Shown: the plan as it stands. Other ways to do it are kept here."));
    const QString look = v ? QStringLiteral("mend") : QString();
    if (options_->objectName() == look) return;
    options_->setObjectName(look);
    options_->style()->unpolish(options_);
    options_->style()->polish(options_);
}

void TopLine::refresh() {
    refresh_options();
    const Plan& plan = document_->plan();
    if (!title_->isModified()) title_->setText(q(plan.vehicle.name)), title_->setCursorPosition(0);
    const QUndoStack* stack = document_->store().undo_stack();
    undo_->setToolTip(stack->canUndo() ? say("Undo: %1").arg(stack->undoText()) : say("Nothing to undo"));
    redo_->setToolTip(stack->canRedo() ? say("Redo: %1").arg(stack->redoText()) : say("Nothing to redo"));
    units_->setText(units_text(plan.policy));
}

}  // namespace yr::app

#include "moc_top_line.cpp"
