// The few windows that ask for attention: first start, About, shortcuts.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QString>

#include "document/document.h"

namespace yr::app {

// The caution and the starting points. `chosen` is the resource of a demo, empty for an empty plan.
class FirstStart : public QDialog {
    Q_OBJECT

  public:
    explicit FirstStart(QWidget* parent);
    [[nodiscard]] QString chosen() const { return chosen_; }

  private:
    QString chosen_;
};

// Asks for a cable between two terminals: its ends, length and size. `edit` holds what was asked for once
// accepted.
class CableDialog : public QDialog {
    Q_OBJECT

  public:
    CableDialog(Document* document, QWidget* parent);
    [[nodiscard]] QComboBox* from() { return from_; }
    [[nodiscard]] QComboBox* to() { return to_; }
    [[nodiscard]] QLineEdit* length() { return length_; }
    [[nodiscard]] QLineEdit* size_field() { return size_; }
    [[nodiscard]] QString problem() const { return problem_->text(); }

  public slots:
    void accept() override;  // adds the cable, or says what cannot be and stays

  private:
    Document* document_;
    QComboBox *from_, *to_;
    QLineEdit *name_, *length_, *size_;
    QLabel* problem_;
};

void show_about(QWidget* parent);
void show_shortcuts(QWidget* parent);

}  // namespace yr::app
