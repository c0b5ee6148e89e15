#include "guard/start_watch.h"

#include <algorithm>

#include "catalog/assumptions.h"

namespace yr {
namespace {

constexpr double kJust = 1 + 1e-6;      // an event located at its volts counts as reached
constexpr double kSwitchedOn_s = 0.05;  // a load that comes on is given so long to get its volts

}  // namespace

StartWatch::StartWatch(const Plan& plan, StartCircuit& circuit, const OperatingPoint& end,
                       std::vector<StartEvent>& events)
    : circuit_(circuit), events_(events) {
    for (const MemoryElement* m : circuit.watched()) {
        const bool inverter = m->kind == MemoryKind::inverter;  // it looks over a start's dip
        waiting_.push_back(
            {m, inverter ? std::max(m->delay_s, assumption("inverter_cutoff_s").value) : m->delay_s, -1});
    }
    for (std::size_t k = 0; k < plan.loads.size(); ++k)
        if (plan.loads[k].least_V && plan.loads[k].inverter.empty() && end.loads[k].status == LoadStatus::on)
            least_.push_back({k, plan.loads[k].id, *plan.loads[k].least_V});
}

double StartWatch::margin_V() const {
    double least = 1;
    for (const Waiting& w : waiting_)
        if (w.delay_s <= 0 && !circuit_.is_open(*w.device))
            least = std::min(least, circuit_.sensed_V(*w.device) - w.device->open_V);
    return least;
}

bool StartWatch::opens_now(Waiting& w, double t_s) const {
    if (circuit_.is_open(*w.device)) return false;
    if (circuit_.sensed_V(*w.device) > w.device->open_V * kJust) {
        w.since_s = -1;
        return false;
    }
    if (w.since_s < 0) w.since_s = t_s;
    return t_s - w.since_s >= w.delay_s;
}

bool StartWatch::let_go(StartIntegration& run) {
    note_low_loads(run.t_s());
    for (std::size_t round = 0; round <= waiting_.size(); ++round) {
        bool any = false;
        for (Waiting& w : waiting_) {
            if (!opens_now(w, run.t_s())) continue;
            const bool coil = w.device->kind == MemoryKind::coil;
            events_.push_back({run.t_s(), w.device->id, circuit_.sensed_V(*w.device),
                               coil ? StartEventKind::lets_go : StartEventKind::cuts_off});
            circuit_.open(*w.device);
            any = true;
        }
        if (!any) return true;
        if (!run.begin(run.t_s())) return false;
    }
    return true;
}

void StartWatch::note_low_loads(double t_s) {
    for (auto it = least_.begin(); it != least_.end();) {
        const LoadElement& l = circuit_.network().loads[it->load];
        const double volts = circuit_.volts(l.pos, l.neg);
        const auto& starters = circuit_.starters();
        const auto own = std::find_if(starters.begin(), starters.end(),
                                      [&](const Starter& s) { return s.load == it->load; });
        const bool awaited = own != starters.end() && t_s < own->on_at_s + kSwitchedOn_s;
        if (awaited || volts >= it->least_V) {
            ++it;
            continue;
        }
        events_.push_back({t_s, it->id, volts, StartEventKind::too_low});
        it = least_.erase(it);
    }
}

}  // namespace yr
