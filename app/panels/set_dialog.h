// Sets of lines that are kept: a name, the lines with their marks, what each line becomes on the open plan.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>

#include "document/document.h"

namespace yr::app {

class SetDialog : public QDialog {
    Q_OBJECT

  public:
    // `lines`: what a new set begins with.
    SetDialog(Document* document, const QString& lines, QWidget* parent = nullptr);
    [[nodiscard]] QLineEdit* name() { return name_; }
    [[nodiscard]] QPlainTextEdit* page() { return page_; }
    [[nodiscard]] QLabel* outcome() { return outcome_; }
    [[nodiscard]] QComboBox* which() { return which_; }

  public slots:
    void accept() override;
    void take_out();  // the chosen one of one's own; a second press does it

  private:
    void show_which();
    void check();

    Document* document_;
    QString fresh_;
    QComboBox* which_;
    QLineEdit* name_;
    QPlainTextEdit* page_;
    QLabel *outcome_, *problem_;
    QPushButton* out_;
    bool asked_ = false;
};

}  // namespace yr::app
