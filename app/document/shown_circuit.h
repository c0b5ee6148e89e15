// The circuit that a picture shows: one plan in one of its states, or in a situation that was found, solved
// and laid out. It follows a plan store, or stands alone with a plan of its own (options side by side, before
// and after a sizing). One signal: shown().
#pragma once

#include <QObject>
#include <optional>
#include <vector>

#include "chart/rail_layout.h"
#include "solve/settle.h"
#include "words/why.h"

namespace yr::app {

class PlanStore;

class ShownCircuit : public QObject {
    Q_OBJECT

  public:
    explicit ShownCircuit(QObject* parent = nullptr);  // stands alone, empty at first
    ShownCircuit(PlanStore* store, QObject* parent);   // follows

    // Alone: shows this plan, in the state of that id where it has one.
    void show_plan(const Plan& plan, const Id& state = {});

    [[nodiscard]] const Plan& plan() const { return *plan_; }
    [[nodiscard]] int state_index() const { return state_; }
    [[nodiscard]] const State& state() const {
        return situation_ ? situation_->state : plan_->states[static_cast<std::size_t>(state_)];
    }
    void set_state(int index);
    void set_state(const Id& id);  // nothing where the plan has none of that id
    // Something that was found, shown in place of a state until another is chosen: loads as resistances, and
    // the way of the current marked.
    void show_situation(const State& situation, const std::vector<Id>& path);
    // A moment of a day: its state, and the network with batteries and devices as they stand in it.
    void show_moment(const State& state, const Network& network);
    [[nodiscard]] bool shows_situation() const { return situation_.has_value(); }
    [[nodiscard]] const std::vector<Id>& current_path() const;

    [[nodiscard]] const Solution& solution() const { return solution_; }
    [[nodiscard]] const RailLayout& layout() const { return layout_; }
    [[nodiscard]] words::Style style() const;
    [[nodiscard]] words::Explanation why(const words::ValueRef& ref) const;

  signals:
    void shown();

  private:
    struct Situation {
        State state;
        std::vector<Id> path;
        std::optional<Network> network{};
    };
    void forget();
    void refresh();

    Plan own_;
    const Plan* plan_;
    int state_ = 0;  // of state_id_, found anew after every edit
    Id state_id_;
    std::optional<Situation> situation_;
    OperatingPointSolver solver_;
    Solution solution_;
    RailLayout layout_;
};

}  // namespace yr::app
