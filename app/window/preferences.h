// What is the person's and not the plan's: how large everything is, bench or night, who says so.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QLineEdit>

namespace yr::app {

// The size that is asked for, before the application is made: 1 to 2.
[[nodiscard]] double wanted_scale();

class Preferences : public QDialog {
    Q_OBJECT

  public:
    explicit Preferences(QWidget* parent = nullptr);
    [[nodiscard]] QComboBox* scale() { return scale_; }
    [[nodiscard]] QLineEdit* who() { return who_; }

  signals:
    void look_asked(bool night);

  public slots:
    void accept() override;

  private:
    QComboBox *scale_, *look_;
    QLineEdit* who_;
};

}  // namespace yr::app
