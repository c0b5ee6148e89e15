#include "document/plan_store.h"

#include "plan/variant.h"
#include "routes/lay.h"
#include "words/sentences.h"

namespace yr::app {

// One change on the undo stack. It holds the edit that does it and, once done, the edit that takes it back.
class EditCommand : public QUndoCommand {
  public:
    EditCommand(PlanStore* store, Edit inverse, Edit edit, const QString& name, QString key)
        : QUndoCommand(name),
          store_(store),
          edit_(std::move(edit)),
          inverse_(std::move(inverse)),
          key_(std::move(key)) {}

    void redo() override {
        if (first_) {  // apply() has already made the change, to know whether it can be made
            first_ = false;
            return;
        }
        swap_with_plan(edit_, inverse_);
    }
    void undo() override { swap_with_plan(inverse_, edit_); }
    int id() const override { return key_.isEmpty() ? -1 : 1; }
    bool mergeWith(const QUndoCommand* other) override {
        const auto* next = static_cast<const EditCommand*>(other);
        if (next->key_ != key_) return false;
        edit_ = next->edit_;  // the same thing put again: the first inverse still undoes both
        setText(next->text());
        return true;
    }

  private:
    void swap_with_plan(const Edit& forward, Edit& backward) {
        if (auto inverse = yr::apply(store_->stored_, forward)) backward = std::move(*inverse);
        store_->after_change();
    }

    PlanStore* store_;
    Edit edit_, inverse_;
    QString key_;
    bool first_ = true;
};

PlanStore::PlanStore(QObject* parent) : QObject(parent), stored_(empty_plan("New vehicle")), plan_(stored_) {}

PlanStore::~PlanStore() {
    undo_.blockSignals(true);
}

void PlanStore::open(Plan plan, const QString& path) {
    stored_ = std::move(plan);
    plan_ = shown_plan(stored_);
    path_ = path;
    recovered_ = false;
    undo_.clear();
    emit opened();
    after_change();
}

bool PlanStore::apply(const Edit& edit, const QString& name, const QString& merge_key) {
    const auto stored = edit_of_stored(stored_, edit);
    auto inverse = stored ? yr::apply(stored_, *stored) : Result<Edit>(tl::unexpected(stored.error()));
    if (!inverse) {
        emit refused(q(words::sentence(inverse.error())));
        return false;
    }
    undo_.push(new EditCommand(this, std::move(*inverse), *stored, name, merge_key));
    after_change();
    return true;
}

void PlanStore::after_change() {
    ++generation_;
    plan_ = shown_plan(stored_);
    lay(plan_);
    emit edited();
}

void PlanStore::saved_as(const QString& path) {
    path_ = path;
    recovered_ = false;
    undo_.setClean();
    emit renamed();
}

words::Style style_of(const Plan& plan) {
    return {plan.policy.units};
}

}  // namespace yr::app

#include "moc_plan_store.cpp"
