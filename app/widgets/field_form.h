// A column of fields that edit the plan in place: label, field, and under it the sentence when a value can't
// be. Fields read the document again after every change; nothing is kept here.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>
#include <QWidget>
#include <functional>

#include "plan/plan.h"
#include "text/say.h"
#include "words/format.h"
#include "words/why.h"

class QComboBox;

namespace yr::app {

struct Choice {
    QString text;
    Id value;
};

// Fills the box, each entry with its value as data; one that holds the same already stays as it is, chosen
// entry and all, and is not painted anew.
void offer(QComboBox* box, const std::vector<Choice>& choices);

class FieldForm : public QWidget {
    Q_OBJECT

  public:
    // `style` says how quantities are written at that moment.
    explicit FieldForm(std::function<words::Style()> style, QWidget* parent = nullptr);

    using Show = std::function<QString()>;
    // Takes what was typed; returns the sentence of what is wrong, or nothing.
    using Take = std::function<QString(const QString&)>;

    // Asked of every quantity that is typed: the sentence of what makes it doubtful, or nothing. What is
    // doubted is taken when it is entered once more.
    using Doubt = std::function<QString(Dimension, double)>;
    void ask_about(const Doubt& doubt) { doubt_ = doubt; }

    void heading(const QString& text);
    // `shown`: a short word in place of the label, which then leaves the field more room.
    QLineEdit* text(const QString& label, const Show& show, const Take& take, const QString& assumed = {},
                    const QString& shown = {});
    void choice(const QString& label, const std::vector<Choice>& choices, const std::function<Id()>& show,
                const std::function<void(const Id&)>& take);
    void check(const QString& label, const std::function<bool()>& show,
               const std::function<void(bool)>& take);
    // A computed number; a click or F1 on it asks why.
    void value(const QString& label, const Show& show, const words::ValueRef& ref);
    void words(const QString& text);
    void button(const QString& text, const std::function<void()>& action);
    // A part of the form behind a word; open or not at first.
    FieldForm* fold(const QString& text, bool open);
    void add(QWidget* widget) { column_->addWidget(widget); }
    void finish() { column_->addStretch(); }

    void refresh();

    // A quantity of this dimension, empty for unknown where `optional`.
    void quantity(const QString& label, Dimension dimension,
                  const std::function<std::optional<double>()>& get,
                  const std::function<bool(std::optional<double>)>& set, bool optional,
                  const QString& assumed = {}, double low = 0, double high = 1e9);

  signals:
    void why(const std::vector<words::ValueRef>& refs, const QPoint& global);

  private:
    // A field is made in its row: what is given to another parent is styled anew with all that it holds.
    QWidget* new_row();
    void fill_row(const QString& label, QWidget* field, const QString& shown = {});

    std::function<words::Style()> style_;
    Doubt doubt_;
    QVBoxLayout* column_;
    std::vector<std::function<void()>> refreshers_;
};

}  // namespace yr::app
