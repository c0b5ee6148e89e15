// What one window works on: the plan with its edits, the circuit that is shown, what is wrong with it, and
// what is chosen. Four objects with a signal each: edited, shown, inspected, chosen. A view connects to those
// that it draws from.
#pragma once

#include "document/inspector.h"
#include "document/plan_store.h"
#include "document/selection.h"
#include "document/shown_circuit.h"

namespace yr::app {

class Document : public QObject {
    Q_OBJECT

  public:
    explicit Document(QObject* parent = nullptr);

    [[nodiscard]] PlanStore& store() { return store_; }
    [[nodiscard]] const PlanStore& store() const { return store_; }
    [[nodiscard]] ShownCircuit& shown() { return shown_; }
    [[nodiscard]] const ShownCircuit& shown() const { return shown_; }
    [[nodiscard]] Inspector& inspector() { return inspector_; }
    [[nodiscard]] const Inspector& inspector() const { return inspector_; }
    [[nodiscard]] Selection& selection() { return selection_; }
    [[nodiscard]] const Selection& selection() const { return selection_; }

    // What nearly every view asks, in one word.
    [[nodiscard]] const Plan& plan() const { return store_.plan(); }
    [[nodiscard]] words::Style style() const { return style_of(plan()); }
    bool apply(const Edit& edit, const QString& name, const QString& merge_key = {}) {
        return store_.apply(edit, name, merge_key);
    }

    // Steps the size of a run by that many sizes, thicker for positive.
    // Feed and return of a load go together while they are of one size, unless it is told to go alone.
    bool step_run(const Id& run, int steps, bool alone = false);
    // Moves a load's supply to another feed; on a box to its smallest channel that fits. It stays there when
    // channels are given out anew.
    bool move_load(const Id& load, const Id& feed);
    // The same onto a channel; a load that is there changes places with it. 0: as above.
    bool put_load(const Id& load, const Id& feed, int channel);
    // A box, bus, charger or inverter fed from another battery or bus.
    bool hang(const Id& thing, const Terminal& supply);

  private:
    // in this order: each listens to those before it
    PlanStore store_;
    ShownCircuit shown_;
    Selection selection_;
    Inspector inspector_;
};

}  // namespace yr::app
