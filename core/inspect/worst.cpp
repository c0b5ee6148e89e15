#include "inspect/worst.h"

#include <cmath>

#include "size/run_ladder.h"
#include "size/run_limits.h"

namespace yr {

std::vector<WorstLoad> worst_loads(const Plan& plan, const std::vector<Solution>& solutions) {
    std::vector<WorstLoad> list;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& load = plan.loads[k];
        WorstLoad worst;
        worst.load = k;
        worst.limit_V = drop_limit_V(plan, load);
        for (std::size_t s = 0; s < solutions.size(); ++s) {
            const LoadResult& r = solutions[s].point.loads[k];
            if (r.status == LoadStatus::off) continue;
            if (plan.states[s].key == Key::crank && !load.starter && r.status == LoadStatus::on) continue;
            const bool fails = r.status != LoadStatus::on;
            if (worst.state && (worst.fails || (!fails && r.drop_V <= worst.drop_V))) continue;
            worst.state = s;
            worst.fails = fails;
            worst.drop_V = r.drop_V;
            worst.voltage_V = r.voltage_V;
            worst.current_A = r.current_A;
        }
        list.push_back(worst);
    }
    return list;
}

std::vector<WorstRun> worst_runs(const Plan& plan, const std::vector<Solution>& solutions) {
    std::vector<WorstRun> list;
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        WorstRun worst;
        worst.run = k;
        double most = -1;
        for (std::size_t s = 0; s < solutions.size(); ++s) {
            if (plan.states[s].key == Key::crank) continue;
            const ConductorResult& r = solutions[s].point.conductors[k];
            const double amps = std::abs(r.current_A);
            if (amps < 1e-3) continue;
            const auto ampacity = run_ampacity(plan, plan.runs[k], plan.states[s]);
            const double allowed = ampacity ? ampacity->allowed_A : 0;
            const double share = allowed > 0 ? amps / allowed : amps * 1e-6;
            if (share <= most) continue;
            most = share;
            worst.state = s;
            worst.current_A = amps;
            worst.allowed_A = allowed;
            worst.temperature_C = r.temperature_C;
            worst.drop_V = std::abs(r.drop_V);
        }
        list.push_back(worst);
    }
    return list;
}

}  // namespace yr
