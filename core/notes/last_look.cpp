#include "notes/last_look.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "notes/cables.h"
#include "size/plan_fuse.h"
#include "size/run_ladder.h"
#include "solve/results.h"

namespace yr {
namespace {

constexpr int kMostSteps = 3;

bool is_of(const Run& run, const Id& load) {
    return run.to == pos_of(load) || run.from == neg_of(load);
}

// Loads of these whose drop is over its limit in a state, by no more than their own cables lose.
std::set<Id> over_by_their_cables(const Plan& plan, const std::vector<Id>& loads) {
    std::set<Id> over;
    OperatingPointSolver solver;
    for (const State& state : plan.states) {
        if (state.key == Key::crank) continue;
        const OperatingPoint point = solve(plan, state, solver).point;
        if (!point.settled) continue;
        for (std::size_t l = 0; l < plan.loads.size(); ++l) {
            const Load& load = plan.loads[l];
            if (point.loads[l].status != LoadStatus::on || !load.inverter.empty() || load.starter ||
                std::find(loads.begin(), loads.end(), load.id) == loads.end())
                continue;
            const double beyond_V = point.loads[l].drop_V - drop_limit_V(plan, load);
            double own_V = 0;
            for (std::size_t k = 0; k < plan.runs.size(); ++k)
                if (is_of(plan.runs[k], load.id)) own_V += std::abs(point.conductors[k].drop_V);
            if (beyond_V > 0 && own_V > 2 * beyond_V) over.insert(load.id);
        }
    }
    return over;
}

}  // namespace

void keep_drops(Plan& plan, const std::vector<Id>& loads) {
    for (int step = 0; step < kMostSteps; ++step) {
        const std::set<Id> over = over_by_their_cables(plan, loads);
        if (over.empty()) return;
        for (Run& run : plan.runs)
            for (const Id& load : over)
                if (is_of(run, load) && run.size) (void)one_thicker(plan, run);
    }
}

void keep_grounds(Plan& plan) {
    for (Run& run : plan.runs) {
        const Battery* battery = grounded_by(plan, run);
        const bool ours = battery && (run.id == "body-strap" || run.name == battery->name + " ground");
        if (!ours || run.pinned || !run.size) continue;
        while (!grounds_guarded(plan, run)) {
            const WireSize thicker = step_size(*run.size, 1);
            if (thicker == *run.size) break;
            run.size = thicker;
        }
    }
}

}  // namespace yr
