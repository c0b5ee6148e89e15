// What is wrong with the open plan, worked out in a worker after every edit: inspected() when it is found,
// mends_proved() when what is offered to mend it has been tried on the whole plan, days_told() when its days
// were run through, and again when what makes them last is found.
#pragma once

#include <memory>
#include <unordered_map>

#include "document/job.h"
#include "document/plan_store.h"
#include "inspect/findings.h"

namespace yr::app {

class Inspector : public QObject {
    Q_OBJECT

  public:
    explicit Inspector(PlanStore* store, QObject* parent = nullptr);

    [[nodiscard]] const std::vector<Finding>& findings() const { return inspection().findings; }
    // Of the plan as it is, or as it was a moment ago: see current().
    [[nodiscard]] const Inspection& inspection() const;
    // Whether what mends the findings is proved: until then no finding offers any.
    [[nodiscard]] bool proved() const { return proving_.current(store_->generation()); }
    [[nodiscard]] bool current() const { return job_.current(store_->generation()); }
    // Every state solved, where the findings have it for the plan as it is; nullptr: not yet.
    [[nodiscard]] const std::vector<Solution>* solutions_at_hand() const;
    // The same, to be held by a worker.
    [[nodiscard]] std::shared_ptr<const Inspection> inspection_at_hand() const {
        return solutions_at_hand() ? *(proved() ? proving_ : job_).answer() : nullptr;
    }
    // Waits until findings belong to the plan as it is.
    void finish();
    // The same until what mends them is proved as well.
    void finish_proof();
    // Off: what mends the findings, and what days tell, is worked out only when it is asked for (by a mend or
    // by finish_…), so that a machine with other things to do is left alone.
    void work_ahead(bool on) { ahead_ = on; }
    [[nodiscard]] bool works_ahead() const { return ahead_; }
    // The same for those of its days, with their mends.
    void finish_days();
    // The worst severity of a finding about this thing or its own run; nullopt when there is none. Where
    // `state` is given, findings that belong to another state do not count.
    [[nodiscard]] std::optional<Severity> severity_of(const Id& id, const Id& state = {}) const;
    // Makes the finding's smallest change, if it still has one on the plan as it is now: at once where the
    // findings are of that plan, else as soon as they are.
    void mend(const Finding& finding);

  signals:
    void inspected();
    void mends_proved();
    void days_told();

  private:
    using Answer = std::shared_ptr<const Inspection>;
    void start();
    void mend_asked();
    void index_findings();
    void prove_mends();
    void look_at_days();
    void mend_the_days();

    PlanStore* store_;
    bool ahead_ = true;
    std::optional<Finding> asked_mend_;
    std::unordered_map<Id, std::vector<std::pair<Severity, Id>>> about_;  // by thing: how bad, in which state
    Job<Answer> job_, proving_, days_, mending_days_;
};

}  // namespace yr::app
