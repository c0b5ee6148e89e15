// Which thing of the plan is worked on. One signal: chosen().
#pragma once

#include <QObject>

#include "plan/plan.h"

namespace yr::app {

class PlanStore;

class Selection : public QObject {
    Q_OBJECT

  public:
    explicit Selection(PlanStore* store, QObject* parent = nullptr);
    [[nodiscard]] const Id& id() const { return id_; }
    // A device stands in line in its run: the run is chosen. Empty: nothing.
    void choose(const Id& id);

  signals:
    void chosen();

  private:
    PlanStore* store_;
    Id id_;
    bool untold_ = false;  // what was chosen went with the plan of before
};

// Choosing this id opens the plan's own rules.
inline const Id kRulesId = "rules of this plan";

}  // namespace yr::app
