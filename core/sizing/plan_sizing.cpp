#include "sizing/plan_sizing.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <memory>
#include <set>

#include "sizing/plan_search.h"
#include "units/at.h"

namespace yr {
void Search::fill(SizingResult& result, const Design& best) {
    Batch batch;
    std::set<std::string> before, after;
    const Plan& plan = model_.plan();
    for (std::size_t f = 0; f < best.size(); ++f) {
        const FreeRun& free = model_.runs()[f];
        const Run& run = plan.runs[free.run];
        const SizeChoice& c = free.choices[at(best[f])];
        SizedRun sized;
        sized.run = run.id;
        sized.from = run.size.value_or(c.size);
        sized.to = c.size;
        if (free.fuse_device >= 0) {
            sized.fuse_from_A = run.devices[at(free.fuse_device)].rating_A;
            sized.fuse_to_A = c.fuse_A;
        }
        what_binds(f, best, sized);
        const Run changed = model_.changed(f, best[f]);
        if (!(changed == run)) batch.edits.push_back(Put<Run>{changed, {}});
        result.before.mass_kg += run_mass_kg(run, sized.from);
        result.before.money += run_money(plan, run, sized.from);
        result.after.mass_kg += c.mass_kg;
        result.after.money += c.money;
        before.insert(name_of(sized.from));
        after.insert(name_of(sized.to));
        result.runs.push_back(std::move(sized));
    }
    result.before.sizes = static_cast<int>(before.size());
    result.after.sizes = static_cast<int>(after.size());
    result.edit = std::move(batch);
}

void Search::what_binds(std::size_t f, const Design& best, SizedRun& sized) {
    const FreeRun& free = model_.runs()[f];
    const Plan& plan = model_.plan();
    const WireSize thinner = step_size(sized.to, -1);
    if (thinner == sized.to) return;
    int choice = -1;
    for (int c = 0; c < static_cast<int>(free.choices.size()); ++c)
        if (free.choices[at(c)].size == thinner) choice = c;
    if (choice < 0) {
        for (const auto& [size, limit] : free.refused)
            if (size == thinner) sized.binds = limit;
        return;
    }
    Design trial = best;
    trial[f] = choice;
    if (!model_.sides_hold(trial)) {
        sized.binds = Limit::pair;
        return;
    }
    const auto broken = model_.breaches(trial);
    if (broken.empty()) return;
    sized.binds = broken.front().limit;
    sized.state = plan.states[model_.states()[broken.front().k]].id;
    if (sized.binds == Limit::drop) sized.load = plan.loads[broken.front().load].id;
}

namespace {

Result<std::vector<std::size_t>> chosen_states(const Plan& plan, const SizingAsk& ask) {
    std::vector<std::size_t> states;
    for (const Id& id : ask.states) {
        const State* s = find_state(plan, id);
        if (!s) return fail(ErrorCode::missing_reference, "states", id, Want::a_state_of_this_plan);
        states.push_back(static_cast<std::size_t>(s - plan.states.data()));
    }
    const bool starter =
        std::any_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.starter; });
    for (std::size_t s = 0; s < plan.states.size(); ++s) {
        const bool crank = plan.states[s].key == Key::crank;
        // cranking is always looked at for the starter's own cables
        if (crank ? starter : ask.states.empty()) states.push_back(s);
    }
    std::sort(states.begin(), states.end());
    states.erase(std::unique(states.begin(), states.end()), states.end());
    return states;
}

Result<SizingResult> size_within(const Plan& plan, const SizingAsk& ask, std::vector<std::size_t> states,
                                 const Deadline& deadline) {
    const auto solutions = solve_all(plan);
    SizingResult result;
    const auto leave_out = [&](std::size_t state) {
        result.left_out.push_back(plan.states[state].id);
        std::erase(states, state);
    };
    for (const std::size_t s : std::vector<std::size_t>(states))
        if (!solutions[s].point.settled) leave_out(s);
    if (states.empty()) return fail(ErrorCode::empty, "states", {}, Want::a_state_that_can_be_solved);
    auto model = std::make_unique<SizingModel>(plan, ask, solutions, states, deadline);
    // a state in which the supply breaks down whatever the cables says nothing about cables
    while (!model->blockers().empty() && model->blockers().front().unserved && states.size() > 1) {
        const State* state = find(plan.states, model->blockers().front().state);
        leave_out(static_cast<std::size_t>(state - plan.states.data()));
        model = std::make_unique<SizingModel>(plan, ask, solutions, states, deadline);
    }
    if (model->runs().empty())
        return fail(ErrorCode::empty, "runs", {}, Want::a_cable_whose_size_may_change_all_are);
    result.blockers = model->blockers();
    if (!result.blockers.empty()) {
        result.status = SizingStatus::impossible;
        return result;
    }
    Search(*model, ask, deadline).run(result);
    return result;
}

}  // namespace

Result<SizingResult> size_plan(const Plan& plan, const SizingAsk& ask) {
    auto states = chosen_states(plan, ask);
    if (!states) return tl::unexpected(states.error());
    for (const Id& id : ask.only)
        if (!find(plan.runs, id))
            return fail(ErrorCode::missing_reference, "only", id, Want::a_run_of_this_plan);
    for (const auto& [id, volts] : ask.drop_limits_V)
        if (!find(plan.loads, id))
            return fail(ErrorCode::missing_reference, "drop limits", id, Want::a_load_of_this_plan);
    const Deadline deadline(ask.most_s, ask.cancel);
    try {
        return size_within(plan, ask, std::move(*states), deadline);
    } catch (const DeadlineOver&) {  // before the search itself began
        SizingResult result;
        result.status = SizingStatus::stopped;
        return result;
    }
}

Result<NextSizes> next_sizes(const Plan& plan, const SizingAsk& ask, const SizedRun& sized) {
    NextSizes next;
    next.run = sized.run;
    const auto cost_at = [&](const WireSize& size) -> Result<std::optional<double>> {
        SizingAsk held = ask;
        held.held.insert_or_assign(sized.run, size);
        const Run* run = find(plan.runs, std::string_view(sized.run));
        const auto bound = ask.thicker_than_mm2.find(sized.run);
        const auto wire = conductor(size, run ? run->material : Material::copper);
        if (run && wire && bound != ask.thicker_than_mm2.end() &&
            wire->area_mm2 * run->parallel <= bound->second + 1e-9) {
            next.refused = Limit::judged;  // something else has refused it already
            return std::optional<double>();
        }
        const auto anew = size_plan(plan, held);
        if (!anew) return tl::unexpected(anew.error());
        if (anew->status == SizingStatus::stopped) next.whole = false;
        const bool passes = anew->status == SizingStatus::least || anew->status == SizingStatus::best_found;
        if (!passes && !anew->blockers.empty() && anew->blockers.front().id == sized.run)
            next.refused = anew->blockers.front().limit;
        return passes ? std::optional(anew->cost) : std::nullopt;
    };
    for (const int step : {-1, 1}) {
        const WireSize size = step_size(sized.to, step);
        if (size == sized.to) continue;
        (step < 0 ? next.thinner : next.thicker) = size;
        const auto cost = cost_at(size);
        if (!cost) return tl::unexpected(cost.error());
        (step < 0 ? next.thinner_cost : next.thicker_cost) = *cost;
    }
    return next;
}

Result<std::vector<PricePoint>> price_of_volts(const Plan& plan, const SizingAsk& ask, const Id& load,
                                               int steps, double step_V) {
    const Load* l = find(plan.loads, load);
    if (!l) return fail(ErrorCode::missing_reference, "load", load, Want::a_load_of_this_plan);
    const auto own = ask.drop_limits_V.find(load);
    const double first = own != ask.drop_limits_V.end() ? own->second : drop_limit_V(plan, *l);
    std::vector<PricePoint> curve;
    for (int k = 0; k <= steps; ++k) {
        SizingAsk tighter = ask;
        const double limit = first - k * step_V;
        if (limit <= 0) break;
        tighter.drop_limits_V[load] = limit;
        const auto sized = size_plan(plan, tighter);
        if (!sized) return tl::unexpected(sized.error());
        if (sized->status == SizingStatus::stopped) break;
        const bool passes = sized->status != SizingStatus::impossible;
        curve.push_back({limit, passes ? std::optional(sized->cost) : std::nullopt});
        if (!passes) break;
    }
    return curve;
}

}  // namespace yr
