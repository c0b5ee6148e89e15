#include "document/inspector.h"

#include <QTimer>
#include <string_view>
#include <unordered_set>

#include "inspect/days.h"
#include "inspect/places.h"
#include "words/accepted.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kIdle_ms = 2500;

}  // namespace

Inspector::Inspector(PlanStore* store, QObject* parent) : QObject(parent), store_(store) {
    connect(store_, &PlanStore::opened, this, [this] {
        for (auto* job : {&job_, &proving_, &days_, &mending_days_}) job->forget();
        about_.clear();
        asked_mend_.reset();  // of another plan
    });
    connect(store_, &PlanStore::edited, this, &Inspector::start);
    connect(&job_, &JobBase::done, this, [this] {
        index_findings();
        emit inspected();
        if (ahead_ || asked_mend_) prove_mends();
    });
    connect(&proving_, &JobBase::done, this, [this] {
        if (!proved()) return;  // of a plan that has changed meanwhile
        emit mends_proved();
        mend_asked();
        if (ahead_) look_at_days();
    });
    connect(&days_, &JobBase::done, this, [this] {
        if (!days_.current(store_->generation())) return;
        index_findings();
        emit days_told();
        // seconds of work: only once nobody has changed anything for a while
        QTimer::singleShot(kIdle_ms, this, [this, generation = store_->generation()] {
            if (generation == store_->generation() && !mending_days_.running()) mend_the_days();
        });
    });
    connect(&mending_days_, &JobBase::done, this, [this] {
        if (mending_days_.current(store_->generation())) emit days_told();
    });
}

const Inspection& Inspector::inspection() const {
    static const Inspection none;
    const quint64 now = store_->generation();
    const auto* answer = mending_days_.current(now) ? mending_days_.answer()
                         : days_.current(now)       ? days_.answer()
                         : proved()                 ? proving_.answer()
                                                    : job_.answer();
    return answer ? **answer : none;
}

const std::vector<Solution>* Inspector::solutions_at_hand() const {
    const bool fits = current() && inspection().solutions.size() == store_->plan().states.size();
    return fits ? &inspection().solutions : nullptr;
}

void Inspector::start() {
    job_.start(store_->generation(), [plan = store_->plan()](const Task&) {
        auto found = std::make_shared<Inspection>(inspect_with_candidates(plan));
        add_findings(*found, place_findings(plan, found->solutions));
        return Answer(found);
    });
}

// Findings are shown at once; what is offered to mend them follows when it is proved.
void Inspector::prove_mends() {
    if (!current()) return;
    proving_.start(store_->generation(), [plan = store_->plan(), found = *job_.answer()](const Task& task) {
        auto closed = std::make_shared<Inspection>(*found);
        close_mends(plan, *closed, task.cancel());
        return Answer(closed);
    });
}

// Days take longer than all else: after it, and their mends after them.
void Inspector::look_at_days() {
    if (store_->plan().days.empty()) return;
    days_.start(store_->generation(), [plan = store_->plan(), found = *proving_.answer()](const Task& task) {
        auto with_days = std::make_shared<Inspection>(*found);
        add_findings(*with_days, day_findings(plan, task.cancel()));
        return Answer(with_days);
    });
}

void Inspector::mend_the_days() {
    mending_days_.start(store_->generation(),
                        [plan = store_->plan(), found = *days_.answer()](const Task& task) {
                            auto mended = std::make_shared<Inspection>(*found);
                            mend_days(plan, mended->findings, task.cancel());
                            return Answer(mended);
                        });
}

void Inspector::finish_days() {
    finish_proof();
    if (store_->plan().days.empty()) return;
    if (!days_.current(store_->generation()) && !days_.running()) look_at_days();
    days_.finish();
    if (!mending_days_.current(store_->generation()) && !mending_days_.running()) mend_the_days();
    mending_days_.finish();
}

void Inspector::finish() {
    if (!current() && !job_.running()) start();
    job_.finish();  // what mends the findings follows: mends_proved()
}

void Inspector::finish_proof() {
    finish();
    if (!proved() && !proving_.running()) prove_mends();
    proving_.finish();
}

// What each finding is about, by thing: views ask for every thing that they draw.
void Inspector::index_findings() {
    about_.clear();
    const Plan& plan = store_->plan();
    std::unordered_map<std::string_view, const Run*> run_of;  // by id, and by the id of what sits in it
    for (const Run& r : plan.runs) {
        run_of.emplace(r.id, &r);
        for (const Device& d : r.devices) run_of.emplace(d.id, &r);
    }
    std::unordered_set<std::string_view> loads;
    for (const Load& l : plan.loads) loads.insert(l.id);
    for (const Finding& f : findings()) {
        if (f.severity > Severity::check || words::accepted(f, plan)) continue;
        const auto note = [&](const Id& id) { about_[id].emplace_back(f.severity, f.state); };
        note(f.id);
        if (f.kind != FindingKind::alive_with_master_open && !f.other.empty() && f.other != f.id)
            note(f.other);
        const auto run = run_of.find(f.id);
        if (run == run_of.end()) continue;
        if (run->second->id != f.id) {
            note(run->second->id);
            continue;
        }
        for (const Terminal* end : {&run->second->from, &run->second->to})
            if (loads.count(owner_of(*end))) note(Id(owner_of(*end)));
    }
}

std::optional<Severity> Inspector::severity_of(const Id& id, const Id& state) const {
    const auto found = about_.find(id);
    if (found == about_.end()) return std::nullopt;
    std::optional<Severity> worst;
    for (const auto& [severity, where] : found->second)
        if ((state.empty() || where.empty() || where == state) && (!worst || severity < *worst))
            worst = severity;
    return worst;
}

void Inspector::mend(const Finding& finding) {
    asked_mend_ = finding;
    if (current() && !proved() && !proving_.running()) prove_mends();
    mend_asked();
}

void Inspector::mend_asked() {
    if (!asked_mend_ || !proved()) return;
    const Finding asked = *std::exchange(asked_mend_, std::nullopt);
    for (const Finding& f : findings())
        if (same_place(f, asked) && f.state == asked.state && f.mend) {
            const Mend m = *f.mend;  // the list is rebuilt below
            store_->apply(m.edit, q(words::mend_name(f, store_->plan())));
            return;
        }
}

}  // namespace yr::app

#include "moc_inspector.cpp"
