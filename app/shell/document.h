// The open plan: its edits with undo, its solution in the chosen state, its findings, and what is selected.
// One edit path: apply(). One signal for what views draw from: changed().
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QUndoStack>
#include <memory>

#include "chart/rail_layout.h"
#include "inspect/findings.h"
#include "words/sentences.h"
#include "words/why.h"

namespace yr::app {

class PlanDocument : public QObject {
    Q_OBJECT

  public:
    explicit PlanDocument(QObject* parent = nullptr);
    ~PlanDocument() override;

    // The plan that is shown: as it stands, or as its active variant has it.
    [[nodiscard]] const Plan& plan() const { return plan_; }
    // The plan that is saved: as it stands, with its variants beside it.
    [[nodiscard]] const Plan& stored() const { return stored_; }
    // Another plan becomes the open one; undo starts anew. `path` empty: never saved.
    void open(Plan plan, const QString& path);

    // Applies and can undo by `name`. Edits of the same `merge_key` (not empty) in a row become one step.
    // With a variant shown, what differs from the plan as it stands goes into that variant; vehicle, rules
    // and survey are shared. False when the plan refuses it: refused() then says why in a sentence and
    // nothing has changed.
    bool apply(const Edit& edit, const QString& name, const QString& merge_key = {});
    [[nodiscard]] QUndoStack* undo_stack() { return &undo_; }

    [[nodiscard]] int state_index() const { return state_; }
    [[nodiscard]] const State& state() const {
        return situation_ ? *situation_ : plan_.states[static_cast<std::size_t>(state_)];
    }
    void set_state(int index);
    // Something that was found, shown in place of a state until another is chosen: loads as resistances, and
    // the way of the current marked.
    void show_situation(const State& situation, const std::vector<Id>& path);
    [[nodiscard]] bool shows_situation() const { return situation_.has_value(); }
    [[nodiscard]] const std::vector<Id>& current_path() const { return path_of_current_; }

    [[nodiscard]] const Solution& solution() const { return solution_; }
    [[nodiscard]] const RailLayout& layout() const { return layout_; }
    [[nodiscard]] const std::vector<Finding>& findings() const { return inspection_.findings; }
    [[nodiscard]] const Inspection& inspection() const { return inspection_; }
    [[nodiscard]] bool findings_current() const { return inspected_ == generation_; }
    // Waits until findings belong to the plan as it is.
    void finish_findings();
    // The worst severity of a finding about this thing or its own run; nullopt when there is none.
    // With `here_only`, findings that belong to another state do not count.
    [[nodiscard]] std::optional<Severity> severity_of(const Id& id, bool here_only = false) const;
    // Makes the finding's smallest change, if it still has one on the plan as it is now.
    bool mend(const Finding& finding);

    [[nodiscard]] const Id& selection() const { return selection_; }
    void select(const Id& id);

    [[nodiscard]] words::Style style() const;
    [[nodiscard]] words::Explanation why(const words::ValueRef& ref) const;

    [[nodiscard]] const QString& path() const { return path_; }
    [[nodiscard]] bool modified() const { return !undo_.isClean() || recovered_; }
    void saved_as(const QString& path);
    void mark_recovered() { recovered_ = true; }
    // Grows with every change; lets autosave see whether there is something new.
    [[nodiscard]] quint64 generation() const { return generation_; }

    // Steps the size of a run by that many sizes, thicker for positive.
    bool step_run(const Id& run, int steps);
    // Moves a load's supply to another feed; on a box to its smallest channel that fits. It stays there when
    // channels are given out anew.
    bool move_load(const Id& load, const Id& feed);
    // The same onto a channel; a load that is there changes places with it. 0: as above.
    bool put_load(const Id& load, const Id& feed, int channel);

  signals:
    void changed();
    void findings_changed();
    void selection_changed();
    void refused(const QString& sentence);

  private:
    friend class EditCommand;
    void after_change();
    void solve_now();
    void start_inspection();

    [[nodiscard]] Result<Edit> edit_of_stored(const Edit& edit) const;

    Plan stored_, plan_;
    QUndoStack undo_;
    QString path_;
    bool recovered_ = false;
    int state_ = 0;
    std::optional<State> situation_;
    std::vector<Id> path_of_current_;
    Id selection_;
    OperatingPointSolver solver_;
    Solution solution_;
    RailLayout layout_;
    Inspection inspection_;
    struct Inspected {
        quint64 generation = 0;  // of the plan that was inspected
        std::shared_ptr<Inspection> inspection;
    };
    QFutureWatcher<Inspected> watcher_;
    quint64 generation_ = 0, inspected_ = 0;
};

[[nodiscard]] inline QString q(const std::string& text) {
    return QString::fromStdString(text);
}

}  // namespace yr::app
