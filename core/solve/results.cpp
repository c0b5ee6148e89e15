#include "solve/results.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace yr {

std::vector<int> conductor_groups(const Network& network) {
    std::vector<int> parent(network.nodes.size());
    std::iota(parent.begin(), parent.end(), 0);
    const auto root = [&](int k) {
        while (parent[static_cast<std::size_t>(k)] != k) {
            auto& up = parent[static_cast<std::size_t>(k)];
            up = parent[static_cast<std::size_t>(up)];
            k = up;
        }
        return k;
    };
    for (const ConductorElement& c : network.conductors)
        if (c.closed) parent[static_cast<std::size_t>(root(c.from))] = root(c.to);
    std::vector<int> groups(network.nodes.size());
    for (std::size_t k = 0; k < groups.size(); ++k) groups[k] = root(static_cast<int>(k));
    return groups;
}

void measure_drops(const Network& network, OperatingPoint& point) {
    const std::vector<int> group = conductor_groups(network);
    struct Supply {
        double high = -std::numeric_limits<double>::infinity();
        double low = std::numeric_limits<double>::infinity();
    };
    std::vector<Supply> supply(network.nodes.size());
    const auto offer = [&](NodeIndex pos, NodeIndex neg) {
        Supply& s = supply[static_cast<std::size_t>(group[static_cast<std::size_t>(pos)])];
        s.high = std::max(s.high, point.node_V[static_cast<std::size_t>(pos)]);
        s.low = std::min(s.low, point.node_V[static_cast<std::size_t>(neg)]);
    };
    for (const BatteryElement& b : network.batteries) offer(b.pos, b.neg);
    for (std::size_t k = 0; k < network.sources.size(); ++k)
        if (point.sources[k].current_A > 0) offer(network.sources[k].out, network.sources[k].neg);
    for (std::size_t k = 0; k < network.loads.size(); ++k) {
        LoadResult& r = point.loads[k];
        if (r.status != LoadStatus::on || r.reversed) continue;  // fed backwards it has no drop to speak of
        const Supply& s =
            supply[static_cast<std::size_t>(group[static_cast<std::size_t>(network.loads[k].pos)])];
        if (!std::isfinite(s.high)) continue;  // fed through another load
        r.supply_V = s.high - s.low;
        r.drop_V = r.supply_V - r.voltage_V;
    }
}

std::vector<RailOrigin> rail_origins(const Network& network, const OperatingPoint& point,
                                     const std::vector<int>& groups) {
    struct Fed {
        int from = -1;
        double in_A = 0, out_A = 0;
    };
    const auto of = [&](NodeIndex n) {
        return static_cast<std::size_t>(groups[static_cast<std::size_t>(n)]);
    };
    std::vector<Fed> fed(groups.size());
    for (std::size_t k = 0; k < network.sources.size(); ++k) {
        const SourceElement& s = network.sources[k];
        const SourceResult& r = point.sources[k];
        if (s.in == kNoNode || !(r.current_A > 0)) continue;
        Fed& rail = fed[of(s.out)];
        rail.from = static_cast<int>(of(s.in)), rail.in_A += r.input_A, rail.out_A += r.current_A;
    }
    for (const BatteryElement& b : network.batteries) fed[of(b.pos)] = {};
    std::vector<RailOrigin> origins(groups.size());
    for (std::size_t g = 0; g < groups.size(); ++g) {
        RailOrigin& origin = origins[g];
        origin.rail = static_cast<int>(g);
        for (std::size_t step = 0; step < network.sources.size();
             ++step) {  // converters one behind the other
            const Fed& rail = fed[static_cast<std::size_t>(origin.rail)];
            if (rail.from < 0) break;
            origin.rail = rail.from, origin.per_A *= rail.in_A / rail.out_A;
        }
    }
    return origins;
}

double average_battery_A(const Network& network, const OperatingPoint& point, std::size_t battery) {
    const double gives = point.batteries[battery].current_A;
    if (gives <= 0) return gives;
    const std::vector<int> group = conductor_groups(network);
    const auto of = [&](NodeIndex n) { return group[static_cast<std::size_t>(n)]; };
    const int here = of(network.batteries[battery].pos);
    const std::vector<RailOrigin> origins = rail_origins(network, point, group);
    const auto asks = [&](NodeIndex n) {  // of this rail, for each ampere there
        const RailOrigin& origin = origins[static_cast<std::size_t>(of(n))];
        return origin.rail == here ? origin.per_A : 0;
    };
    double all = 0, rests = 0;
    for (std::size_t k = 0; k < network.batteries.size(); ++k)
        if (of(network.batteries[k].pos) == here) all += std::max(0.0, point.batteries[k].current_A);
    std::vector<double> mains_W(network.loads.size(), 0), mains_rests_W(network.loads.size(), 0);
    for (std::size_t k = 0; k < network.loads.size(); ++k) {
        const LoadElement& l = network.loads[k];
        if (l.inverter < 0 || point.loads[k].status != LoadStatus::on) continue;
        const std::size_t inverter = network.plan_loads + static_cast<std::size_t>(l.inverter);
        mains_W[inverter] += point.loads[k].power_W;
        mains_rests_W[inverter] += (1 - l.duty) * point.loads[k].power_W;
    }
    for (std::size_t k = 0; k < network.loads.size(); ++k) {  // what an inverter takes rests as its loads do
        const LoadElement& l = network.loads[k];
        if (point.loads[k].status != LoadStatus::on || l.inverter >= 0) continue;
        if (mains_W[k] > 0) rests += asks(l.pos) * mains_rests_W[k] / mains_W[k] * point.loads[k].current_A;
        if (l.duty < 1) rests += asks(l.pos) * (1 - l.duty) * point.loads[k].current_A;
    }
    return gives - rests * gives / all;
}

Residuals residuals_of(const Network& network, const OperatingPoint& point) {
    Residuals res;
    std::vector<double> sum(network.nodes.size(), 0);
    double given = 0, taken = 0;
    const auto V = [&](NodeIndex n) { return point.node_V[static_cast<std::size_t>(n)]; };
    const auto flow = [&](NodeIndex from, NodeIndex to, double amps) {
        sum[static_cast<std::size_t>(from)] += amps;
        sum[static_cast<std::size_t>(to)] -= amps;
        res.node_scale_A = std::max(res.node_scale_A, std::abs(amps));
    };
    for (std::size_t k = 0; k < network.conductors.size(); ++k) {
        const ConductorResult& c = point.conductors[k];
        const ConductorElement& e = network.conductors[k];
        flow(e.from, e.to, c.current_A);
        taken += e.forward_V > 0 ? c.current_A * c.drop_V
                                 : c.current_A * c.current_A * (e.closed ? e.fixed_ohm + c.cable_ohm : 0);
    }
    for (std::size_t k = 0; k < network.batteries.size(); ++k) {
        const BatteryElement& e = network.batteries[k];
        const double amps = point.batteries[k].current_A;
        flow(e.neg, e.pos, amps);
        given += (V(e.pos) - V(e.neg)) * amps;
    }
    for (std::size_t k = 0; k < network.sources.size(); ++k) {
        const SourceElement& e = network.sources[k];
        const SourceResult& s = point.sources[k];
        flow(e.neg, e.out, s.current_A);
        given += (V(e.out) - V(e.neg)) * s.current_A;
        if (e.in == kNoNode) continue;
        flow(e.in, e.neg, s.input_A);
        taken += (V(e.in) - V(e.neg)) * s.input_A;
    }
    for (std::size_t k = 0; k < network.loads.size(); ++k) {
        const LoadElement& e = network.loads[k];
        if (e.inverter >= 0) continue;  // its inverter's input stands for it
        const bool reversed = point.loads[k].reversed;
        flow(reversed ? e.neg : e.pos, reversed ? e.pos : e.neg, point.loads[k].current_A);
        taken += point.loads[k].power_W;
    }
    for (double s : sum) res.node_A = std::max(res.node_A, std::abs(s));
    res.energy_W = std::abs(given - taken);
    res.energy_scale_W = std::max(std::abs(given), std::abs(taken));
    return res;
}

}  // namespace yr
