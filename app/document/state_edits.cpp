#include "document/state_edits.h"

namespace yr::app {
namespace {

std::size_t place_of(const Plan& plan, const Id& state) {
    const State* s = yr::find(plan.states, state);
    return s ? static_cast<std::size_t>(s - plan.states.data()) : plan.states.size();
}

}  // namespace

bool copy_state(Document* document, const Id& id) {
    const Plan& plan = document->plan();
    const State* state = yr::find(plan.states, id);
    if (!state) return false;
    State copy = *state;
    copy.id = new_id(plan, "state");
    for (int n = 2;; ++n) {
        copy.name = state->name + " " + std::to_string(n);
        bool taken = false;
        for (const State& s : plan.states) taken = taken || s.name == copy.name;
        if (!taken) break;
    }
    if (!document->apply(Put<State>{copy, place_of(plan, id) + 1}, say("new state ") + q(copy.name)))
        return false;
    document->shown().set_state(copy.id);
    document->selection().choose(copy.id);
    return true;
}

bool move_state(Document* document, const Id& id, int by) {
    const Plan& plan = document->plan();
    const State* state = yr::find(plan.states, id);
    const auto to = static_cast<std::ptrdiff_t>(place_of(plan, id)) + by;
    if (!state || to < 0 || to >= static_cast<std::ptrdiff_t>(plan.states.size())) return false;
    const State moved = *state;
    const Id shown = document->shown().state().id;
    if (!document->apply(Batch{{Remove<State>{id}, Put<State>{moved, static_cast<std::size_t>(to)}}},
                         (by < 0 ? say("%1 earlier") : say("%1 later")).arg(q(moved.name))))
        return false;
    document->shown().set_state(shown);
    return true;
}

bool take_out_state(Document* document, const Id& id) {
    const State* state = yr::find(document->plan().states, id);
    if (!state) return false;
    if (document->plan().states.size() == 1) {
        document->store().refuse(say("A plan keeps one state at least: nothing could be shown without."));
        return false;
    }
    return document->apply(remove_with_runs(document->plan(), id), say("take out state ") + q(state->name));
}

}  // namespace yr::app
