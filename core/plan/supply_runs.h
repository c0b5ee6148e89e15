// supply_run() for those who ask it of many loads: the plan is walked once.
#pragma once

#include <string_view>
#include <unordered_map>

#include "plan/plan.h"

namespace yr {

// REQUIRES: the plan lives on and its runs stay where they are.
class SupplyRuns {
  public:
    explicit SupplyRuns(const Plan& plan) {
        first_.reserve(plan.runs.size());
        for (const Run& r : plan.runs)
            for (const Terminal* end : {&r.to, &r.from})
                if (end->post == Post::pos) first_.emplace(end->owner, &r);
    }
    // The first run at the positive end of that load (or battery, or inverter); nullptr: there is none.
    [[nodiscard]] const Run* of(std::string_view thing) const {
        const auto found = first_.find(thing);
        return found == first_.end() ? nullptr : found->second;
    }

  private:
    std::unordered_map<std::string_view, const Run*> first_;
};

}  // namespace yr
