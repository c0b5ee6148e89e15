// The few windows that ask for attention: first start, About, shortcuts.
#pragma once

#include <QDialog>
#include <QString>

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

void show_about(QWidget* parent);
void show_shortcuts(QWidget* parent);

}  // namespace yr::app
