// Asks for a control box: which, what triggers it, its cut-off, where it sits and how far its feed runs.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>

#include "document/document.h"

namespace yr::app {

class BoxDialog : public QDialog {
    Q_OBJECT

  public:
    BoxDialog(Document* document, QWidget* parent);
    [[nodiscard]] QComboBox* kind() { return kind_; }
    [[nodiscard]] QComboBox* trigger() { return trigger_; }
    [[nodiscard]] QComboBox* from() { return from_; }
    [[nodiscard]] QLineEdit* length() { return length_; }
    [[nodiscard]] QLineEdit* cutoff() { return cutoff_; }
    [[nodiscard]] QString problem() const { return problem_->text(); }

  public slots:
    void accept() override;  // adds the box, or says what cannot be and stays

  private:
    void describe();
    Document* document_;
    QComboBox *kind_, *trigger_, *from_, *place_;
    QLineEdit *name_, *length_, *cutoff_;
    QLabel *what_, *problem_;
};

}  // namespace yr::app
