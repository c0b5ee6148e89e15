#include "control/live_table.h"

#include <algorithm>
#include <map>

namespace yr {
namespace {

using Switches = std::vector<std::string>;

// Each set of switches solved once at every key position.
class Solved {
  public:
    explicit Solved(const Plan& plan) : plan_(plan) {}
    const std::array<std::vector<char>, kKeyPositions>& with(const Switches& switches) {
        const auto found = known_.find(switches);
        if (found != known_.end()) return found->second;
        auto& alive = known_[switches];
        for (std::size_t k = 0; k < kKeyPositions; ++k) {
            const Solution s = solve(plan_, state_at(plan_, kEveryKeyPosition[k], switches), solver_);
            for (std::size_t l = 0; l < plan_.loads.size(); ++l)
                alive[k].push_back(s.point.loads[l].status == LoadStatus::on);
        }
        return alive;
    }

  private:
    const Plan& plan_;
    OperatingPointSolver solver_;
    std::map<Switches, std::array<std::vector<char>, kKeyPositions>> known_;
};

}  // namespace

bool LiveRow::wrong() const {
    return std::any_of(at.begin(), at.end(), [](const LiveCell& c) { return c.wrong(); });
}

std::vector<LiveRow> live_table(const Plan& plan) {
    Solved solved(plan);
    const Switches masters = master_switches(plan);
    std::vector<LiveRow> rows;
    for (std::size_t l = 0; l < plan.loads.size(); ++l) {
        const Load& load = plan.loads[l];
        LiveRow row;
        row.load = load.id;
        const Switches on = switches_for(plan, load);
        const auto& with = solved.with(on);
        const auto& without = solved.with(masters);
        for (std::size_t k = 0; k < kKeyPositions; ++k) {
            LiveCell& c = row.at[k];
            c.wanted = !load.later && holds(load.live_when, state_at(plan, kEveryKeyPosition[k], on));
            c.alive = with[k][l] != 0;
            c.wanted_off =
                !load.later && holds(load.live_when, state_at(plan, kEveryKeyPosition[k], masters));
            c.alive_off = without[k][l] != 0;
            // what waits for volts or for another circuit is as it should be when it is off
            const bool measured = load.live_when.charging_above_V || !load.live_when.circuits.empty();
            if (measured && !c.alive) c.wanted = false;
            if (measured && !c.alive_off) c.wanted_off = false;
            if (kEveryKeyPosition[k] == KeyPosition::cranking && !counts_while_cranking(load)) {
                c.wanted = c.wanted && c.alive;
                c.wanted_off = c.wanted_off && c.alive_off;
            }
        }
        rows.push_back(row);
    }
    return rows;
}

}  // namespace yr
