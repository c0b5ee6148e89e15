// The line on top of the list: a load is typed, what was understood is shown at once, Enter adds it.
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QWidget>

#include "document/document.h"
#include "typing/typed_line.h"

namespace yr::app {

// "scene light · 2 × 90 W · key at ignition · 4.5 m · cargo roof"
[[nodiscard]] QString understood_text(const TypedLine& line, const Plan& plan, const words::Style& style);

class TypeLine : public QWidget {
    Q_OBJECT

  public:
    explicit TypeLine(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] QLineEdit* edit() { return edit_; }
    [[nodiscard]] QString understood() const { return understood_->text(); }
    [[nodiscard]] QString problem() const { return problem_->isHidden() ? QString() : problem_->text(); }
    // What the library has for what is typed; hidden where the line says its own draw.
    [[nodiscard]] QListWidget* matches() { return matches_; }
    // Puts an entry's name on the line, ready for Enter or for more words.
    void take_entry(const QString& name);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void read();
    void show_matches(const TypedLine& line);
    void add();
    void settle_doubt(const QString& reading);
    [[nodiscard]] bool next_reading();

    Document* document_;
    QLineEdit* edit_;
    QLabel *understood_, *problem_;
    QListWidget* matches_;
    std::pair<QString, QString> settled_;  // how a number in doubt is read now, and how it might be read
};

}  // namespace yr::app
