#include "document/inspector.h"

#include "words/sentences.h"

namespace yr::app {

Inspector::Inspector(PlanStore* store, QObject* parent) : QObject(parent), store_(store) {
    connect(store_, &PlanStore::opened, this, [this] {
        job_.forget();
        asked_mend_.reset();  // of another plan
    });
    connect(store_, &PlanStore::edited, this, &Inspector::start);
    connect(&job_, &JobBase::done, this, [this] {
        emit inspected();
        mend_asked();
    });
}

const Inspection& Inspector::inspection() const {
    static const Inspection none;
    const auto* answer = job_.answer();
    return answer ? **answer : none;
}

const std::vector<Solution>* Inspector::solutions_at_hand() const {
    const bool fits = current() && inspection().solutions.size() == store_->plan().states.size();
    return fits ? &inspection().solutions : nullptr;
}

void Inspector::start() {
    job_.start(store_->generation(), [plan = store_->plan()](const Task&) {
        return std::make_shared<const Inspection>(inspect(plan));
    });
}

void Inspector::finish() {
    if (!current() && !job_.running()) start();
    job_.finish();
}

std::optional<Severity> Inspector::severity_of(const Id& id, const Id& state) const {
    std::optional<Severity> worst;
    const Plan& plan = store_->plan();
    for (const Finding& f : findings()) {
        const Run* run = yr::find(plan.runs, f.id);
        const bool about =
            f.id == id || (f.other == id && f.kind != FindingKind::alive_with_master_open) ||
            (!run && yr::find(plan.runs, id) && yr::find(yr::find(plan.runs, id)->devices, f.id)) ||
            (run && (owner_of(run->to) == id || owner_of(run->from) == id) && yr::find(plan.loads, id));
        if (!state.empty() && !f.state.empty() && f.state != state) continue;
        if (about && f.severity <= Severity::check && (!worst || f.severity < *worst)) worst = f.severity;
    }
    return worst;
}

void Inspector::mend(const Finding& finding) {
    asked_mend_ = finding;
    mend_asked();
}

void Inspector::mend_asked() {
    if (!asked_mend_ || !current()) return;
    const Finding asked = *std::exchange(asked_mend_, std::nullopt);
    for (const Finding& f : findings())
        if (same_place(f, asked) && f.state == asked.state && f.mend) {
            const Mend m = *f.mend;  // the list is rebuilt below
            store_->apply(m.edit, q(words::mend_name(f, store_->plan())));
            return;
        }
}

}  // namespace yr::app
