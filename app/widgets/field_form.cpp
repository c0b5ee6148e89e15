#include "widgets/field_form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPointer>
#include <QPushButton>
#include <QToolButton>

#include "text/say.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {

void offer(QComboBox* box, const std::vector<Choice>& choices) {
    bool same = box->count() == static_cast<int>(choices.size());
    for (int k = 0; same && k < box->count(); ++k) {
        const Choice& c = choices[static_cast<std::size_t>(k)];
        same = box->itemText(k) == c.text && box->itemData(k).toString().toStdString() == c.value;
    }
    if (same) return;
    box->clear();
    for (const Choice& c : choices) box->addItem(c.text, q(c.value));
}
namespace {

class WhyButton : public QPushButton {
  public:
    using QPushButton::QPushButton;
    std::function<void()> ask;

  protected:
    void keyPressEvent(QKeyEvent* e) override {
        if (e->key() == Qt::Key_F1)
            ask();
        else
            QPushButton::keyPressEvent(e);
    }
};

constexpr int kLabelWidth = 112, kShortLabelWidth = 24;

}  // namespace

FieldForm::FieldForm(std::function<words::Style()> style, QWidget* parent)
    : QWidget(parent), style_(std::move(style)) {
    setObjectName(QStringLiteral("panel"));
    column_ = new QVBoxLayout(this);
    column_->setContentsMargins(16, 4, 12, 12);
    column_->setSpacing(3);
}

void FieldForm::heading(const QString& text) {
    auto* l = new QLabel(text, this);
    l->setFont(type_font(Type::bold));
    l->setContentsMargins(0, 10, 0, 2);
    l->setWordWrap(true);
    column_->addWidget(l);
}

QWidget* FieldForm::new_row() {
    return new QWidget(this);
}

void FieldForm::fill_row(const QString& label, QWidget* field, const QString& shown) {
    QWidget* w = field->parentWidget();
    auto* line = new QHBoxLayout(w);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(6);
    auto* l = new QLabel(shown.isEmpty() ? label : shown, w);
    l->setObjectName(QStringLiteral("soft"));
    l->setFixedWidth(shown.isEmpty() ? kLabelWidth : kShortLabelWidth);
    l->setBuddy(field);
    field->setAccessibleName(label);
    line->addWidget(l);
    line->addWidget(field, 1);
    column_->addWidget(w);
}

QLineEdit* FieldForm::text(const QString& label, const Show& show, const Take& take, const QString& assumed,
                           const QString& shown) {
    auto* edit = new QLineEdit(new_row());
    edit->setPlaceholderText(assumed);
    edit->setObjectName(label);
    fill_row(label, edit, shown);
    auto* problem = new QLabel(this);
    problem->setObjectName(QStringLiteral("stop"));
    problem->setFont(type_font(Type::small));
    problem->setWordWrap(true);
    problem->hide();
    column_->addWidget(problem);
    connect(edit, &QLineEdit::editingFinished, this, [edit, problem, take] {
        if (!edit->isModified()) return;
        const QString wrong = take(edit->text());
        edit->setModified(!wrong.isEmpty());
        problem->setText(wrong);
        problem->setVisible(!wrong.isEmpty());
    });
    refreshers_.emplace_back([edit, show] {
        if (!edit->isModified()) edit->setText(show()), edit->setCursorPosition(0);
    });
    refreshers_.back()();
    return edit;
}

void FieldForm::quantity(const QString& label, Dimension dimension,
                         const std::function<std::optional<double>()>& get,
                         const std::function<bool(std::optional<double>)>& set, bool optional,
                         const QString& assumed, double low, double high) {
    text(
        label,
        [get, dimension, style = style_] {
            const auto v = get();
            return v ? q(words::editable(*v, dimension, style())) : QString();
        },
        [set, dimension, optional, low, high, label, style = style_, doubt = doubt_,
         asked = QString()](const QString& typed) mutable {
            if (typed.trimmed().isEmpty() && optional)
                return set(std::nullopt) ? QString() : say("This cannot be empty here.");
            auto v = parse_value(typed.toStdString(), dimension);
            if (v && (*v < low || *v > high ||
                      (low == 0 && *v == 0 && dimension != Dimension::temperature &&
                       dimension != Dimension::fraction && dimension != Dimension::power)))
                v = fail(ErrorCode::out_of_range, {}, typed.toStdString(),
                         {Want::as_said, low > 0 ? words::quantity(low, dimension, style()) + " to " +
                                                       words::quantity(high, dimension, style())
                                                 : "more than nothing"});
            if (!v) {
                Error e = v.error();
                e.place = label.toStdString();
                return q(words::sentence(e));
            }
            if (const QString why = doubt ? doubt(dimension, *v) : QString();
                !why.isEmpty() && asked != typed) {
                asked = typed;
                return why + say(" Enter once more takes it.");
            }
            return set(*v) ? QString() : say("The plan does not take this value.");
        },
        assumed);
}

void FieldForm::choice(const QString& label, const std::vector<Choice>& choices,
                       const std::function<Id()>& show, const std::function<void(const Id&)>& take) {
    auto* box = new QComboBox(new_row());
    box->setObjectName(label);
    box->setFocusPolicy(Qt::StrongFocus);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(8);
    for (const Choice& c : choices) box->addItem(c.text, q(c.value));
    fill_row(label, box);
    const auto tell = [box, show] { box->setCurrentIndex(box->findData(q(show()))); };
    connect(box, &QComboBox::activated, this, [box = QPointer(box), take, tell](int index) {
        take(box->itemData(index).toString().toStdString());
        if (box) tell();  // what was refused is not shown as taken
    });
    refreshers_.emplace_back(tell);
    refreshers_.back()();
}

void FieldForm::check(const QString& label, const std::function<bool()>& show,
                      const std::function<void(bool)>& take) {
    auto* box = new QCheckBox(label, this);
    box->setObjectName(label);
    column_->addWidget(box);
    connect(box, &QCheckBox::clicked, this, [box = QPointer(box), take, show](bool on) {
        take(on);
        if (box) box->setChecked(show());
    });
    refreshers_.emplace_back([box, show] { box->setChecked(show()); });
    refreshers_.back()();
}

void FieldForm::value(const QString& label, const Show& show, const words::ValueRef& ref) {
    auto* b = new WhyButton(new_row());
    b->setToolTip(say("Why?  F1 or click"));
    b->setObjectName(QStringLiteral("value ") + label);
    b->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    b->setProperty("value", true);  // as the style sheet has it
    fill_row(label, b);
    b->ask = [this, b, ref] { emit why({ref}, b->mapToGlobal(b->rect().center())); };
    connect(b, &QPushButton::clicked, this, [b] { b->ask(); });
    refreshers_.emplace_back([b, show] { b->setText(show()); });
    refreshers_.back()();
}

void FieldForm::words(const QString& text) {
    auto* l = new QLabel(text, this);
    l->setObjectName(QStringLiteral("soft"));
    l->setFont(type_font(Type::small));
    l->setWordWrap(true);
    column_->addWidget(l);
}

void FieldForm::button(const QString& text, const std::function<void()>& action) {
    auto* b = new QToolButton(this);
    b->setObjectName(QStringLiteral("mend"));
    b->setText(text);
    connect(b, &QToolButton::clicked, this, action);
    column_->addWidget(b, 0, Qt::AlignLeft);
}

FieldForm* FieldForm::fold(const QString& text, bool open) {
    auto* word = new QToolButton(this);
    word->setText(text);
    word->setCheckable(true);
    word->setChecked(open);
    word->setArrowType(open ? Qt::DownArrow : Qt::RightArrow);
    word->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    word->setMinimumHeight(26);
    auto* inside = new FieldForm(style_, this);
    inside->doubt_ = doubt_;
    inside->column_->setContentsMargins(0, 0, 0, 4);
    inside->setVisible(open);
    connect(word, &QToolButton::toggled, inside, [word, inside](bool on) {
        inside->setVisible(on);
        word->setArrowType(on ? Qt::DownArrow : Qt::RightArrow);
    });
    connect(inside, &FieldForm::why, this, &FieldForm::why);
    column_->addWidget(word, 0, Qt::AlignLeft);
    column_->addWidget(inside);
    refreshers_.emplace_back([inside] { inside->refresh(); });
    return inside;
}

void FieldForm::refresh() {
    for (const auto& r : refreshers_) r();
}

}  // namespace yr::app

#include "moc_field_form.cpp"
