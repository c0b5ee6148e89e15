#include "solve/settle.h"

#include "solve/turns.h"
#include "units/at.h"

#include <algorithm>
#include <functional>
#include <numeric>
#include <set>

namespace yr {
namespace {

constexpr int kWarmings = 6;           // rounds of heat and flow; each leaves a few per cent of the error
constexpr double kSameHeat_K = 0.005;  // the heat in time is followed to a hundredth of a kelvin

// What a device with a memory holds open, beyond what the state's own conditions do.
void hold_open(Network& n, const Positions& positions) {
    for (std::size_t k = 0; k < n.memories.size(); ++k) {
        if (positions[k]) continue;
        const MemoryElement& m = n.memories[k];
        for (const int c : m.channels) n.conductors[at(c)].closed = false;
        if (m.conductor >= 0) n.conductors[at(m.conductor)].closed = false;
        if (m.source >= 0) n.sources[at(m.source)].works = false;
        if (m.load >= 0) n.loads[at(m.load)].wanted = false;
    }
}

double sensed_V(const MemoryElement& m, const OperatingPoint& p) {
    if (m.coil_load >= 0) {
        const LoadResult& coil = p.loads[at(m.coil_load)];
        return coil.status == LoadStatus::on ? m.sign * coil.voltage_V : 0;
    }
    double v = p.node_V[at(m.sense)];
    if (m.other != kNoNode) v = std::max(v, p.node_V[at(m.other)]);
    return v - p.node_V[at(m.against)];
}

// What waits longer than the state lasts does not move in it: a cut-off's half a minute outlives cranking.
bool wants_to_move(const Network& n, const MemoryElement& m, bool closed, double volts) {
    if (n.lasts_s > 0 && m.delay_s >= n.lasts_s) return false;
    if (m.rests_closed) return closed ? volts >= m.close_V : volts < m.open_V;
    return closed ? volts < m.open_V : volts >= m.close_V;
}

// Without volts a load that nothing asks for is off, not dead.
void rest_unasked_loads(const Network& n, OperatingPoint& p) {
    for (std::size_t k = 0; k < n.plan_loads; ++k)
        if (p.loads[k].status == LoadStatus::dead && !n.loads[k].expected)
            p.loads[k].status = LoadStatus::off;
}

// A load on mains runs while its inverter does.
void run_mains_loads(Network& n, OperatingPoint& p) {
    for (std::size_t k = 0; k < n.plan_loads; ++k) {
        const LoadElement& l = n.loads[k];
        if (l.inverter < 0) continue;
        if (!l.mains_wanted || !p.settled) continue;
        const LoadStatus inverter = p.loads[n.plan_loads + at(l.inverter)].status;
        LoadResult& r = p.loads[k];
        const bool gives = inverter == LoadStatus::on && !n.loads[n.plan_loads + at(l.inverter)].resting;
        r.status = gives ? LoadStatus::on : LoadStatus::dead;
        if (r.status != LoadStatus::on) continue;
        r.voltage_V = l.mains_V;
        r.power_W = l.value;
        r.current_A = l.value / (l.mains_V * l.power_factor);
    }
}

class Settling {
  public:
    Settling(Network network, OperatingPointSolver& solver) : network_(std::move(network)), solver_(solver) {}

    [[nodiscard]] Solution at_positions(const Positions& positions) const {
        return solve_at(network_, positions, solver_);
    }

    // Settled, and warmed by its turns of work; should that move a device, settled once more.
    [[nodiscard]] Solution warmed_from_memory() {
        Solution s = from_memory();
        for (int k = 0; k < kWarmings && s.point.settled && !s.chatter; ++k) {
            if (heat_by_turns(s.network, s.point) < kSameHeat_K) return s;
            for (std::size_t c = 0; c < network_.conductors.size(); ++c)
                network_.conductors[c].turn = s.network.conductors[c].turn;
            Positions positions;
            for (const MemoryResult& m : s.memories) positions.push_back(m.closed);
            s = at_positions(positions);
            if (s.point.settled && !is_settled(s)) s = from_memory();
        }
        return s;
    }

    [[nodiscard]] Solution from_memory() {
        Positions positions;
        for (const MemoryElement& m : network_.memories) positions.push_back(m.closed);
        const Positions remembered = positions;
        std::set<Positions> seen;
        std::vector<char> moved(positions.size(), 0);
        while (true) {
            Solution s = at_positions(positions);
            if (!s.point.settled) return s;
            const int first = first_to_move(s);
            if (first < 0) return s;
            if (!seen.insert(positions).second) return search(std::move(s), remembered, moved);
            positions[at(first)] = !positions[at(first)];
            moved[at(first)] = 1;
        }
    }

    [[nodiscard]] std::vector<Positions> all_settled() {
        std::vector<Positions> found;
        const std::size_t n = network_.memories.size();
        if (n > kMostSearched) return found;
        for (std::size_t bits = 0; bits < (std::size_t{1} << n); ++bits) {
            Positions p(n);
            for (std::size_t k = 0; k < n; ++k) p[k] = (bits >> k) & 1;
            if (is_settled(at_positions(p))) found.push_back(std::move(p));
        }
        return found;
    }

  private:
    // The device that acts soonest of those that want to; -1: none does.
    static int first_to_move(const Solution& s) {
        int first = -1;
        for (std::size_t k = 0; k < s.memories.size(); ++k) {
            const MemoryElement& m = s.network.memories[k];
            if (!wants_to_move(s.network, m, s.memories[k].closed, s.memories[k].sensed_V)) continue;
            if (first < 0 || m.delay_s < s.network.memories[at(first)].delay_s) first = static_cast<int>(k);
        }
        return first;
    }

    [[nodiscard]] Solution search(Solution last, const Positions& remembered,
                                  const std::vector<char>& moved) {
        const auto distance = [&](const Positions& p) {
            return std::inner_product(p.begin(), p.end(), remembered.begin(), 0, std::plus<>(),
                                      [](char a, char b) { return a != b ? 1 : 0; });
        };
        const auto found = all_settled();
        const auto nearest = std::min_element(found.begin(), found.end(), [&](const auto& a, const auto& b) {
            return distance(a) < distance(b);
        });
        if (nearest != found.end()) return at_positions(*nearest);
        last.chatter = true;
        last.searched = last.memories.size() <= kMostSearched;
        for (std::size_t k = 0; k < moved.size(); ++k) last.memories[k].chatters = moved[k] != 0;
        return last;
    }

    Network network_;
    OperatingPointSolver& solver_;
};

}  // namespace

bool wants_to_move(const Solution& s, std::size_t k) {
    return wants_to_move(s.network, s.network.memories[k], s.memories[k].closed, s.memories[k].sensed_V);
}

bool is_settled(const Solution& s) {
    if (!s.point.settled) return false;
    for (std::size_t k = 0; k < s.memories.size(); ++k)
        if (wants_to_move(s.network, s.network.memories[k], s.memories[k].closed, s.memories[k].sensed_V))
            return false;
    return true;
}

Solution settle(Network network, OperatingPointSolver& solver) {
    if (!network.memories.empty()) return Settling(std::move(network), solver).warmed_from_memory();
    Solution s{std::move(network), {}, {}, false, false};
    for (int k = 0; k <= kWarmings; ++k) {
        s.point = solver.solve(s.network);
        run_mains_loads(s.network, s.point);
        rest_unasked_loads(s.network, s.point);
        if (!s.point.settled || heat_by_turns(s.network, s.point) < kSameHeat_K) break;
    }
    return s;
}

std::vector<Positions> settled_positions(const Network& network, OperatingPointSolver& solver) {
    return Settling(network, solver).all_settled();
}

Solution solve_at(Network network, const Positions& positions, OperatingPointSolver& solver) {
    hold_open(network, positions);
    Solution s{std::move(network), {}, {}, false, false};
    s.point = solver.solve(s.network);
    for (std::size_t k = 0; k < s.network.memories.size(); ++k)
        s.memories.push_back({positions[k] != 0, sensed_V(s.network.memories[k], s.point), false});
    run_mains_loads(s.network, s.point);
    rest_unasked_loads(s.network, s.point);
    return s;
}

Solution solve(const Plan& plan, const State& state, OperatingPointSolver& solver) {
    return settle(compile(plan, state), solver);
}

Solution solve(const Plan& plan, const State& state) {
    OperatingPointSolver solver;
    return solve(plan, state, solver);
}

}  // namespace yr

template class std::vector<yr::Solution>;
