#include "inspect/stand.h"

#include <algorithm>
#include <cmath>

#include "inspect/findings.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "size/run_check.h"
#include "size/run_ladder.h"
#include "size/run_limits.h"

namespace yr {
namespace {

std::vector<RunWeight> weights_of(const Plan& plan, const std::vector<Solution>& solutions) {
    std::vector<RunWeight> all;
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const Run& r = plan.runs[k];
        const auto wire = conductor(r.size.value_or(WireSize::awg(14)), r.material);
        double amps = 0;
        for (const Solution& s : solutions)
            if (s.point.settled) amps = std::max(amps, std::abs(s.point.conductors[k].current_A));
        all.push_back(wire ? RunWeight{wire->mass_kg_per_m * r.parallel,
                                       amps * resistance_ohm_per_m(*wire, 50) / r.parallel}
                           : RunWeight{});
    }
    return all;
}

double worst_drop_V(const Plan& plan, const std::vector<Solution>& solutions) {
    double worst = 0;
    for (const Solution& s : solutions) {
        if (!s.point.settled) continue;
        for (std::size_t k = 0; k < plan.loads.size(); ++k)
            if (s.point.loads[k].status == LoadStatus::on && !plan.loads[k].starter)
                worst = std::max(worst, s.point.loads[k].drop_V);
    }
    return worst;
}

// The thing there; what ends on it as long as its way.
std::optional<Batch> moved_to(const Plan& plan, const Id& thing, const Spot& spot) {
    const auto edit = stand(plan, thing, spot);
    if (!edit) return std::nullopt;
    std::vector<Id> runs;
    for (const Run& r : plan.runs)
        if ((r.from.owner == thing || r.to.owner == thing) && !r.body_metal && !r.resistance_ohm &&
            spot_of(plan, r.from.owner == thing ? r.to.owner : r.from.owner))
            runs.push_back(r.id);
    return Batch{{*edit, follow_way(plan, runs)}};
}

}  // namespace

std::optional<StandAdvice> stand_advice(const Plan& plan, const Id& thing, bool exact,
                                        const std::atomic<bool>* stop) {
    StandAdvice advice;
    const std::vector<Solution> solutions = solve_all(plan);
    auto map = where_to_stand(plan, thing, weights_of(plan, solutions));
    if (!map) return std::nullopt;
    advice.map = std::move(*map);
    if (!exact) return advice;
    const double kg_now = cables_kg(plan), drop_now = worst_drop_V(plan, solutions);
    for (const std::size_t k : advice.map.best) {
        if (stop && *stop) return advice;
        StandChoice choice;
        choice.spot = advice.map.spots[k];
        auto edit = moved_to(plan, thing, choice.spot.spot);
        Plan there = plan;
        if (!edit || !yr::apply(there, *edit)) continue;
        lay(there);
        const std::vector<Solution> then = solve_all(there);
        for (const Run& r : plan.runs) {  // each as thick as it now needs
            if (r.from.owner != thing && r.to.owner != thing) continue;
            const Run* now = find(there.runs, r.id);
            if (!now || r.pinned || !r.size || r.body_metal || r.resistance_ohm) continue;
            const auto ladder = run_ladder(there, r.id, 0, &then);
            if (!ladder || ladder->chosen < 0 || ladder->chosen == ladder->now) continue;
            Run thick_enough = *now;
            thick_enough.size = ladder->rows[static_cast<std::size_t>(ladder->chosen)].size;
            edit->edits.emplace_back(Put<Run>{thick_enough, {}});
        }
        Plan sized = plan;
        if (!yr::apply(sized, *edit)) continue;
        lay(sized);
        choice.kg = cables_kg(sized);
        choice.worst_drop_V = worst_drop_V(sized, solve_all(sized));
        choice.saves_kg = kg_now - choice.kg, choice.saves_V = drop_now - choice.worst_drop_V;
        choice.edit = *edit;
        advice.best.push_back(std::move(choice));
    }
    std::stable_sort(advice.best.begin(), advice.best.end(),
                     [](const StandChoice& a, const StandChoice& b) { return a.kg < b.kg; });
    return advice;
}

}  // namespace yr
