// Find (Ctrl+F): every thing of the plan by its name; Enter selects it.
#pragma once

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>

#include "document/document.h"

namespace yr::app {

class FindBox : public QDialog {
    Q_OBJECT

  public:
    explicit FindBox(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] QLineEdit* edit() { return edit_; }
    [[nodiscard]] QListWidget* found() { return found_; }

  public slots:
    void accept() override;

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void search();

    Document* document_;
    QLineEdit* edit_;
    QListWidget* found_;
};

}  // namespace yr::app
