// The answer to `Why?`: formula with its numbers, assumptions, sources. Closes with Escape or a click
// elsewhere.
#pragma once

#include <QFrame>
#include <QLabel>

#include "words/why.h"

namespace yr::app {

class WhyPopup : public QFrame {
  public:
    explicit WhyPopup(QWidget* parent);
    void show_answers(const std::vector<words::Explanation>& answers, const QPoint& global);
    [[nodiscard]] QString text() const;

  private:
    QLabel* label_;
};

}  // namespace yr::app
