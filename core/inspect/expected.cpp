// What is dead because someone opened something, and what is dead because the wiring is wrong.
#include <algorithm>

#include "inspect/rules.h"

namespace yr {
namespace {

// The switches that devices on the way wait for; those of the loads themselves stay as they are.
std::vector<std::string> device_switches(const Plan& plan) {
    std::vector<std::string> names;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            for (const std::string& s : switches_of(d.closed_when))
                if (std::find(names.begin(), names.end(), s) == names.end()) names.push_back(s);
    return names;
}

bool some_cutoff(const Solution& s) {
    for (std::size_t k = 0; k < s.memories.size(); ++k)
        if (s.network.memories[k].kind == MemoryKind::cutoff && !s.memories[k].closed) return true;
    return false;
}

}  // namespace

bool dead_on_purpose(const Case& c, std::size_t state, const std::function<bool(const Solution&)>& alive) {
    const std::scoped_lock lock(c.closing);
    const auto known = c.all_closed.find(state);
    if (known != c.all_closed.end()) return known->second.point.settled && alive(known->second);
    State closed = c.plan.states[state];
    const bool cut_off = some_cutoff(c.solutions[state]);
    bool changed = !closed.opened.empty() || !closed.pulled.empty() || cut_off;
    closed.opened.clear(), closed.pulled.clear();
    if (cut_off) closed.charge = 1;
    for (const std::string& s : device_switches(c.plan))
        if (std::find(closed.switches.begin(), closed.switches.end(), s) == closed.switches.end())
            closed.switches.push_back(s), changed = true;
    const Solution& all =
        c.all_closed.emplace(state, changed ? solve(c.plan, closed) : c.solutions[state]).first->second;
    return changed && all.point.settled && alive(all);
}

}  // namespace yr
