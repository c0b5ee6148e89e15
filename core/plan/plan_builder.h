// Things put together for one edit: ids that are free in the plan and among what is being added.
#pragma once

#include <utility>

#include "plan/edit.h"

namespace yr {

class PlanBuilder {
  public:
    explicit PlanBuilder(const Plan& plan) : plan_(plan) {}

    // The plan with all that was put so far.
    [[nodiscard]] const Plan& plan() const { return plan_; }
    [[nodiscard]] Id id(std::string_view head) const { return new_id(plan_, head); }

    // Adds it, or puts it in place of the one with its id.
    template <class T>
    void put(const T& thing) {
        auto& list = list_of<T>(plan_);
        bool known = false;
        for (T& x : list)
            if (x.id == thing.id) x = thing, known = true;
        if (!known) list.push_back(thing);
        edits_.edits.emplace_back(Put<T>{thing, std::nullopt});
    }
    void add(Edit edit) { edits_.edits.push_back(std::move(edit)); }

    [[nodiscard]] Edit finish() { return std::move(edits_); }

  private:
    Plan plan_;
    Batch edits_;
};

}  // namespace yr
