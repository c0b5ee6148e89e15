// Cost over the volts that a load may lose: a step line, cheapest at the right.
#pragma once

#include <QWidget>
#include <vector>

#include "sizing/plan_sizing.h"
#include "words/format.h"

namespace yr::app {

class PriceCurve : public QWidget {
  public:
    explicit PriceCurve(QWidget* parent = nullptr);
    void show_points(std::vector<PricePoint> points, SizingGoal goal, const words::Style& style);

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    std::vector<PricePoint> points_;
    SizingGoal goal_ = SizingGoal::mass;
    words::Style style_;
};

}  // namespace yr::app
