// The open plan: its edits with undo, where it is saved, and the option that is shown. One edit path:
// apply(). One signal: edited().
#pragma once

#include <QObject>
#include <QString>
#include <QUndoStack>

#include "plan/edit.h"
#include "text/say.h"
#include "words/format.h"

namespace yr::app {

class PlanStore : public QObject {
    Q_OBJECT

  public:
    explicit PlanStore(QObject* parent = nullptr);
    ~PlanStore() override;  // says nothing more: who listens would ask a store that is half gone

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
    [[nodiscard]] const QUndoStack* undo_stack() const { return &undo_; }
    void refuse(const QString& sentence) { emit refused(sentence); }

    [[nodiscard]] const QString& path() const { return path_; }
    [[nodiscard]] bool modified() const { return !undo_.isClean() || recovered_; }
    void saved_as(const QString& path);
    void mark_recovered() { recovered_ = true; }
    // Grows with every change: answers carry that of the plan they were asked of.
    [[nodiscard]] quint64 generation() const { return generation_; }

  signals:
    void opened();  // before edited(): what belongs to the plan of before is to be forgotten
    void edited();
    void renamed();  // its file is another one
    void refused(const QString& sentence);

  private:
    friend class EditCommand;
    void after_change();

    Plan stored_, plan_;
    QUndoStack undo_;
    QString path_;
    bool recovered_ = false;
    quint64 generation_ = 0;
};

// How quantities of this plan are written on this desktop.
[[nodiscard]] words::Style style_of(const Plan& plan);

}  // namespace yr::app
