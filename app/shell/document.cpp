#include "shell/document.h"

#include <QLocale>
#include <QtConcurrent/QtConcurrentRun>
#include <algorithm>

#include "control/place_on.h"
#include "inspect/sneak.h"
#include "plan/variant.h"
#include "words/control_words.h"

namespace yr::app {

// One change on the undo stack. It holds the edit that does it and, once done, the edit that takes it back.
class EditCommand : public QUndoCommand {
  public:
    EditCommand(PlanDocument* document, Edit inverse, Edit edit, const QString& name, QString key)
        : QUndoCommand(name),
          document_(document),
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
        if (auto inverse = yr::apply(document_->stored_, forward)) backward = std::move(*inverse);
        document_->after_change();
    }

    PlanDocument* document_;
    Edit edit_, inverse_;
    QString key_;
    bool first_ = true;
};

PlanDocument::PlanDocument(QObject* parent)
    : QObject(parent), stored_(empty_plan("New vehicle")), plan_(stored_) {
    connect(&watcher_, &QFutureWatcher<Inspected>::finished, this, [this] {
        const Inspected result = watcher_.result();
        if (findings_current()) return;
        if (result.generation != generation_) {
            start_inspection();  // the plan moved on meanwhile: newest wins
            return;
        }
        inspection_ = *result.inspection;
        inspected_ = result.generation;
        emit findings_changed();
    });
    solve_now();
}

PlanDocument::~PlanDocument() {
    watcher_.disconnect(this);
    watcher_.waitForFinished();
}

void PlanDocument::open(Plan plan, const QString& path) {
    stored_ = std::move(plan);
    plan_ = shown_plan(stored_);
    path_ = path;
    recovered_ = false;
    undo_.clear();
    selection_.clear();
    inspection_ = {};
    layout_ = {};
    situation_.reset();
    path_of_current_.clear();
    const State* idle = find_state(plan_, "Idling");
    state_ = idle ? static_cast<int>(idle - plan_.states.data()) : 0;
    after_change();
    emit selection_changed();
}

bool PlanDocument::apply(const Edit& edit, const QString& name, const QString& merge_key) {
    const auto stored = edit_of_stored(edit);
    auto inverse = stored ? yr::apply(stored_, *stored) : Result<Edit>(tl::unexpected(stored.error()));
    if (!inverse) {
        emit refused(q(words::sentence(inverse.error())));
        return false;
    }
    undo_.push(new EditCommand(this, std::move(*inverse), *stored, name, merge_key));
    after_change();
    return true;
}

namespace {

bool is_shared(const Edit& edit) {
    return std::holds_alternative<SetVehicle>(edit) || std::holds_alternative<SetPolicy>(edit) ||
           std::holds_alternative<SetSurvey>(edit) || std::holds_alternative<SetActive>(edit) ||
           std::holds_alternative<Put<PanelSwitch>>(edit) ||
           std::holds_alternative<Remove<PanelSwitch>>(edit) || std::holds_alternative<Put<Variant>>(edit) ||
           std::holds_alternative<Remove<Variant>>(edit);
}

}  // namespace

Result<Edit> PlanDocument::edit_of_stored(const Edit& edit) const {
    if (stored_.active.empty() || is_shared(edit)) return edit;
    if (const auto* whole =
            std::get_if<Batch>(&edit))  // one that leaves the variant speaks of the stored plan itself
        for (const Edit& e : whole->edits)
            if (std::holds_alternative<SetActive>(e)) return edit;
    Batch shared, own;
    if (const auto* batch = std::get_if<Batch>(&edit))
        for (const Edit& e : batch->edits) (is_shared(e) ? shared : own).edits.push_back(e);
    else
        own.edits.push_back(edit);
    Plan changed = with_variant(stored_, stored_.active);
    if (auto done = yr::apply(changed, own); !done) return done;
    const Variant* shown = yr::find(stored_.variants, stored_.active);
    shared.edits.emplace_back(
        Put<Variant>{difference(with_variant(stored_, {}), changed, shown->id, shown->name), std::nullopt});
    return Edit(std::move(shared));
}

void PlanDocument::after_change() {
    ++generation_;
    plan_ = shown_plan(stored_);
    state_ = std::clamp(state_, 0, static_cast<int>(plan_.states.size()) - 1);
    solve_now();
    emit changed();
    start_inspection();
}

void PlanDocument::solve_now() {
    solution_ =
        situation_ ? settle(resistive_network(plan_, *situation_), solver_) : solve(plan_, state(), solver_);
    layout_ = lay_out(solution_.network, solution_.point, &layout_.order, 1e-4);
}

void PlanDocument::start_inspection() {
    if (watcher_.isRunning()) return;  // finished() starts the next
    watcher_.setFuture(QtConcurrent::run([plan = plan_, generation = generation_] {
        return Inspected{generation, std::make_shared<Inspection>(inspect(plan))};
    }));
}

void PlanDocument::finish_findings() {
    if (findings_current()) return;
    watcher_.waitForFinished();
    inspection_ = inspect(plan_);
    inspected_ = generation_;
    emit findings_changed();
}

std::optional<Severity> PlanDocument::severity_of(const Id& id, bool here_only) const {
    std::optional<Severity> worst;
    for (const Finding& f : inspection_.findings) {
        const Run* run = yr::find(plan_.runs, f.id);
        const bool about =
            f.id == id || (f.other == id && f.kind != FindingKind::alive_with_master_open) ||
            (!run && yr::find(plan_.runs, id) && yr::find(yr::find(plan_.runs, id)->devices, f.id)) ||
            (run && (owner_of(run->to) == id || owner_of(run->from) == id) && yr::find(plan_.loads, id));
        if (here_only && !f.state.empty() && f.state != state().id) continue;
        if (about && f.severity <= Severity::check && (!worst || f.severity < *worst)) worst = f.severity;
    }
    return worst;
}

bool PlanDocument::mend(const Finding& finding) {
    const Finding asked = finding;  // the list may be rebuilt below
    finish_findings();
    for (const Finding& f : inspection_.findings)
        if (same_place(f, asked) && f.state == asked.state && f.mend) {
            const Mend m = *f.mend;
            return apply(m.edit, q(words::mend_name(f, plan_)));
        }
    return false;
}

void PlanDocument::set_state(int index) {
    if (index < 0 || index >= static_cast<int>(plan_.states.size())) return;
    if (index == state_ && !situation_) return;
    state_ = index;
    situation_.reset();
    path_of_current_.clear();
    solve_now();
    emit changed();
}

void PlanDocument::show_situation(const State& situation, const std::vector<Id>& path) {
    situation_ = situation;
    path_of_current_ = path;
    solve_now();
    emit changed();
}

void PlanDocument::select(const Id& thing) {
    Id id = thing;
    for (const Run& r : plan_.runs)  // a device stands in line in its run
        if (yr::find(r.devices, thing)) id = r.id;
    if (id == selection_) return;
    selection_ = id;
    emit selection_changed();
}

words::Style PlanDocument::style() const {
    return {plan_.policy.units, QLocale().decimalPoint() == QStringLiteral(",")};
}

words::Explanation PlanDocument::why(const words::ValueRef& ref) const {
    return words::explain(ref, plan_, state(), solution_, style());
}

void PlanDocument::saved_as(const QString& path) {
    path_ = path;
    recovered_ = false;
    undo_.setClean();
    emit changed();
}

bool PlanDocument::step_run(const Id& id, int steps) {
    const Run* run = yr::find(plan_.runs, id);
    if (!run) return false;
    if (run->body_metal || run->resistance_ohm) {
        emit refused(q(words::capital(run->name) + " has a given resistance, not a size."));
        return false;
    }
    Run thicker = *run;
    const WireSize now = run->size.value_or(WireSize::awg(14));
    thicker.size = step_size(now, steps);
    if (*thicker.size == now && run->size) {
        emit refused(q(words::capital(run->name) +
                       (steps > 0 ? " is already the thickest size." : " is already the thinnest size.")));
        return false;
    }
    return apply(Put<Run>{thicker, {}}, q(run->name + " to " + yr::name_of(*thicker.size)), q("size " + id));
}

bool PlanDocument::move_load(const Id& load, const Id& feed) {
    return put_load(load, feed, 0);
}

bool PlanDocument::put_load(const Id& load_id, const Id& feed, int channel) {
    const Load* load = yr::find(plan_.loads, load_id);
    const Point* point = yr::find(plan_.points, feed);
    const Run* now = load ? supply_run(plan_, load_id) : nullptr;
    if (!load || !point || !now) return false;
    if (now->from == feed && (now->channel == channel || channel == 0)) return false;
    if (channel == 0 && !point->channels.empty()) {
        channel = fitting_channel(plan_, *point, nominal_A(plan_, *load), start_A(plan_, *load));
        if (channel == 0) {
            emit refused(QStringLiteral("%1 has no free channel that carries %2 and its start.")
                             .arg(q(words::capital(point->name)), q(load->name)));
            return false;
        }
    }
    const auto edit = swap_onto(plan_, load_id, feed, channel);
    if (!edit) {
        emit refused(q(words::sentence(edit.error())));
        return false;
    }
    return apply(*edit, q(load->name + " to " + words::place_text(plan_, feed, channel)));
}

}  // namespace yr::app
