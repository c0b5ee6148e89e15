#include "document/shown_circuit.h"

#include <algorithm>

#include "document/plan_store.h"
#include "inspect/sneak.h"
#include "plan/roles.h"

namespace yr::app {

namespace {

int opening_index(const Plan& plan) {
    return static_cast<int>(&opening_state(plan) - plan.states.data());
}

}  // namespace

ShownCircuit::ShownCircuit(QObject* parent) : QObject(parent), own_(empty_plan({})), plan_(&own_) {
    refresh();
}

ShownCircuit::ShownCircuit(PlanStore* store, QObject* parent) : QObject(parent), plan_(&store->plan()) {
    connect(store, &PlanStore::opened, this, [this] {
        forget();
        state_id_ = opening_state(*plan_).id;
    });
    connect(store, &PlanStore::edited, this, [this] {
        if (const State* same = yr::find(plan_->states, state_id_))
            state_ = static_cast<int>(same - plan_->states.data());
        if (situation_ && situation_->network) situation_.reset();  // of the plan before
        state_ = std::clamp(state_, 0, static_cast<int>(plan_->states.size()) - 1);
        refresh();
        emit shown();
    });
    refresh();
}

void ShownCircuit::show_plan(const Plan& plan, const Id& state) {
    own_ = plan;
    forget();
    const State* wanted = yr::find(own_.states, state);
    state_ = wanted ? static_cast<int>(wanted - own_.states.data()) : opening_index(own_);
    refresh();
    emit shown();
}

void ShownCircuit::forget() {
    situation_.reset();
    layout_ = {};
}

void ShownCircuit::set_state(int index) {
    if (index < 0 || index >= static_cast<int>(plan_->states.size())) return;
    if (index == state_ && !situation_) return;
    state_ = index;
    situation_.reset();
    refresh();
    emit shown();
}

void ShownCircuit::set_state(const Id& id) {
    if (const State* s = yr::find(plan_->states, id)) set_state(static_cast<int>(s - plan_->states.data()));
}

void ShownCircuit::show_situation(const State& situation, const std::vector<Id>& path) {
    situation_ = Situation{situation, path, std::nullopt};
    refresh();
    emit shown();
}

void ShownCircuit::show_moment(const State& state, const Network& network) {
    situation_ = Situation{state, {}, network};
    refresh();
    emit shown();
}

const std::vector<Id>& ShownCircuit::current_path() const {
    static const std::vector<Id> none;
    return situation_ ? situation_->path : none;
}

void ShownCircuit::refresh() {
    state_id_ = plan_->states[static_cast<std::size_t>(state_)].id;
    solution_ = !situation_           ? solve(*plan_, state(), solver_)
                : situation_->network ? settle(*situation_->network, solver_)
                                      : settle(resistive_network(*plan_, situation_->state), solver_);
    layout_ = lay_out(solution_.network, solution_.point, &layout_.order, 1e-4);
}

words::Style ShownCircuit::style() const {
    return style_of(*plan_);
}

words::Explanation ShownCircuit::why(const words::ValueRef& ref) const {
    return words::explain(ref, *plan_, state(), solution_, style());
}

}  // namespace yr::app

#include "moc_shown_circuit.cpp"
