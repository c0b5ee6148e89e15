#include "meter/slopes.h"

#include <Eigen/SparseCore>
#include <algorithm>
#include <cmath>

#include "network/laws.h"
#include "solve/lu_factors.h"

namespace yr {
namespace {

constexpr double kHoldAll_S = 1e-7;        // keeps a node that nothing holds from floating
constexpr double kCopper_per_K = 0.00393;  // temperature coefficient of copper at 20 C, handbook value
constexpr double kOpen = 1e-9;

}  // namespace

NodeIndex node_at(const Network& network, const Terminal& terminal) {
    const auto found = std::find(network.nodes.begin(), network.nodes.end(), terminal);
    return found == network.nodes.end() ? kNoNode : static_cast<NodeIndex>(found - network.nodes.begin());
}

std::optional<double> value_at(const Solution& s, const Plan& plan, const Probing& where) {
    if (!s.point.settled) return std::nullopt;
    if (where.kind == ReadKind::amps) {
        for (std::size_t k = 0; k < s.network.conductors.size(); ++k) {
            const int run = s.network.conductors[k].run;
            if (run >= 0 && plan.runs[static_cast<std::size_t>(run)].id == where.run)
                return s.point.conductors[k].current_A;
        }
        return std::nullopt;
    }
    const NodeIndex red = node_at(s.network, where.red);
    const NodeIndex black = where.black.empty() ? s.network.reference : node_at(s.network, where.black);
    if (red == kNoNode || black == kNoNode || where.kind == ReadKind::ohms) return std::nullopt;
    return s.point.node_V[static_cast<std::size_t>(red)] - s.point.node_V[static_cast<std::size_t>(black)];
}

Network network_for(const Plan& plan, const Probing& where) {
    const State* state = find_state(plan, where.state);
    Network network = compile(plan, state ? *state : plan.states.front());
    for (const Id& id : where.unplugged)
        for (std::size_t k = 0; k < plan.loads.size(); ++k)
            if (plan.loads[k].id == id) network.loads[k].wanted = network.loads[k].expected = false;
    return network;
}

Solution solve_for(const Plan& plan, const Probing& where, OperatingPointSolver& solver) {
    return settle_as_read(network_for(plan, where), solver);
}

Solution settle_as_read(Network network, OperatingPointSolver& solver) {
    Solution s = settle(std::move(network), solver);
    for (int again = 0; again < 3 && s.point.settled; ++again) {
        bool changed = false;
        Network next = s.network;
        for (std::size_t k = 0; k < next.loads.size(); ++k) {
            LoadElement& l = next.loads[k];
            if (!l.wanted || l.pos == l.neg || s.point.loads[k].status == LoadStatus::on) continue;
            ConductorElement still;
            still.from = l.pos, still.to = l.neg;
            const double volts = next.nominal_V;
            still.fixed_ohm = l.kind == DrawKind::resistance ? l.value
                              : l.kind == DrawKind::current  ? volts / std::max(l.value, 1e-6)
                                                             : volts * volts / std::max(l.value, 1e-6);
            next.conductors.push_back(still);
            l.wanted = false;
            changed = true;
        }
        if (!changed) break;
        s = settle(std::move(next), solver);
    }
    return s;
}

struct SlopeSolver::Impl {
    const Solution& s;
    Tolerances t;
    Eigen::SparseMatrix<double> G;
    LuFactors factors;
    std::vector<double> ohm;  // by conductor; 0: open
    bool good = false;

    Impl(const Solution& solution, const Tolerances& tolerances) : s(solution), t(tolerances) {
        const auto n = static_cast<Eigen::Index>(s.network.nodes.size());
        std::vector<Eigen::Triplet<double>> entries;
        const auto between = [&](NodeIndex a, NodeIndex b, double g) {
            entries.emplace_back(a, a, g), entries.emplace_back(b, b, g);
            entries.emplace_back(a, b, -g), entries.emplace_back(b, a, -g);
        };
        const auto volts = [&](NodeIndex a, NodeIndex b) {
            return s.point.node_V[static_cast<std::size_t>(a)] - s.point.node_V[static_cast<std::size_t>(b)];
        };
        for (Eigen::Index k = 0; k < n; ++k) entries.emplace_back(k, k, kHoldAll_S);
        entries.emplace_back(s.network.reference, s.network.reference, 1e6);
        for (std::size_t k = 0; k < s.network.conductors.size(); ++k) {
            const ConductorElement& c = s.network.conductors[k];
            ohm.push_back(c.closed ? c.fixed_ohm + s.point.conductors[k].cable_ohm : 0);
            if (!c.closed) continue;
            between(c.from, c.to,
                    conductor_law(c, s.point.conductors[k].cable_ohm, volts(c.from, c.to)).conductance_S);
        }
        for (const BatteryElement& b : s.network.batteries)
            between(b.pos, b.neg, at_volts(battery_law(b), volts(b.pos, b.neg)).conductance_S);
        for (std::size_t k = 0; k < s.network.sources.size(); ++k) source(k, entries, volts);
        for (std::size_t k = 0; k < s.network.loads.size(); ++k) {
            const LoadElement& l = s.network.loads[k];
            if (l.pos == l.neg || s.point.loads[k].status != LoadStatus::on)
                continue;  // mains: no nodes of its own
            between(l.pos, l.neg, load_law(l, volts(l.pos, l.neg)).conductance_S);
        }
        G.resize(n, n);
        G.setFromTriplets(entries.begin(), entries.end());
        const Eigen::SparseMatrix<double> transposed = G.transpose();
        factors.analyse(transposed);
        good = factors.factor(transposed);
    }

    template <class Volts>
    void source(std::size_t k, std::vector<Eigen::Triplet<double>>& entries, const Volts& volts) {
        const SourceElement& x = s.network.sources[k];
        if (!x.works || s.point.sources[k].mode == DeviceMode::off) return;
        const double u = volts(x.out, x.neg);
        const Law law = at_volts(source_law(x), u);
        entries.emplace_back(x.out, x.out, law.conductance_S),
            entries.emplace_back(x.neg, x.neg, law.conductance_S);
        entries.emplace_back(x.out, x.neg, -law.conductance_S),
            entries.emplace_back(x.neg, x.out, -law.conductance_S);
        if (x.in == kNoNode) return;
        // what it takes from its input: (i u / efficiency + standby) / u_in
        const double in = volts(x.in, x.neg);
        if (std::abs(in) < 1) return;
        const double watts = input_power_W(x, law.current_A, u);
        const double by_in = -watts / (in * in);
        const double by_out = (law.current_A - law.conductance_S * u) / x.efficiency / in;
        entries.emplace_back(x.in, x.in, by_in), entries.emplace_back(x.in, x.neg, -by_in);
        entries.emplace_back(x.neg, x.in, -by_in), entries.emplace_back(x.neg, x.neg, by_in);
        entries.emplace_back(x.in, x.out, by_out), entries.emplace_back(x.in, x.neg, -by_out);
        entries.emplace_back(x.neg, x.out, -by_out), entries.emplace_back(x.neg, x.neg, by_out);
    }

    double spread_ohm(const ConductorElement& c, double cable_ohm) const {
        double square = std::pow(t.cable * cable_ohm, 2), parts = 0;
        for (const SeriesPart& p : c.parts) {
            if (p.fixed_ohm <= 0) continue;
            const bool joint = p.kind == PartKind::joint || p.kind == PartKind::bond ||
                               p.kind == PartKind::metal || p.kind == PartKind::pin;
            square += std::pow((joint ? t.joint : t.contact) * p.fixed_ohm, 2);
            parts += p.fixed_ohm;
        }
        if (c.fixed_ohm > parts + 1e-12) square += std::pow(t.joint * (c.fixed_ohm - parts), 2);
        return std::sqrt(square);
    }
};

SlopeSolver::SlopeSolver(const Solution& solution, const Tolerances& tolerances)
    : impl_(std::make_unique<Impl>(solution, tolerances)) {}
SlopeSolver::~SlopeSolver() = default;
SlopeSolver::SlopeSolver(SlopeSolver&&) noexcept = default;

Slopes SlopeSolver::of(const Probing& where, const Plan& plan) const {
    const Solution& s = impl_->s;
    const Tolerances& t = impl_->t;
    // what a fault or a starved load brought along has no column: columns mean the same in every situation
    const std::size_t conductors = static_cast<std::size_t>(std::count_if(
                          s.network.conductors.begin(), s.network.conductors.end(),
                          [](const ConductorElement&c) { return c.run >= 0 || c.ground_point >= 0; })),
                      loads = s.network.plan_loads + s.network.inverters + s.network.standby_points.size(),
                      batteries = s.network.batteries.size(), sources = s.network.sources.size();
    Slopes out(1 + conductors + loads + 2 * batteries + 2 * sources, 0.0);
    Eigen::VectorXd ask = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(s.network.nodes.size()));
    std::size_t own = conductors;
    if (where.kind == ReadKind::amps) {
        for (std::size_t k = 0; k < conductors; ++k) {
            const int run = s.network.conductors[k].run;
            if (run < 0 || plan.runs[static_cast<std::size_t>(run)].id != where.run || impl_->ohm[k] < kOpen)
                continue;
            own = k;
            ask[s.network.conductors[k].from] += 1 / impl_->ohm[k];
            ask[s.network.conductors[k].to] -= 1 / impl_->ohm[k];
        }
        if (own == conductors) return out;
    } else {
        const NodeIndex red = node_at(s.network, where.red);
        const NodeIndex black = where.black.empty() ? s.network.reference : node_at(s.network, where.black);
        if (red == kNoNode || black == kNoNode || where.kind == ReadKind::ohms) return out;
        ask[red] += 1, ask[black] -= 1;
    }
    if (!impl_->good) return out;
    const Eigen::VectorXd l = impl_->factors.solve(ask);
    std::size_t at = 1;
    for (std::size_t k = 0; k < conductors; ++k, ++at) {
        const double R = impl_->ohm[k], i = s.point.conductors[k].current_A;
        if (R < kOpen || std::abs(i) < 1e-9) continue;
        const ConductorElement& c = s.network.conductors[k];
        double by_ohm = (l[c.from] - l[c.to]) * i / R;
        if (k == own) by_ohm -= i / R;
        const double cable = s.point.conductors[k].cable_ohm;
        out[at] = by_ohm * impl_->spread_ohm(c, cable);
        out[0] += by_ohm * cable * kCopper_per_K * t.temperature_K;
    }
    for (std::size_t k = conductors; k < s.network.conductors.size(); ++k) {  // starved loads
        const ConductorElement& c = s.network.conductors[k];
        const double R = impl_->ohm[k], i = s.point.conductors[k].current_A;
        if (R < kOpen || std::abs(i) < 1e-9) continue;
        for (std::size_t n = 0; n < loads; ++n)
            if (s.network.loads[n].pos == c.from && s.network.loads[n].neg == c.to)
                out[at + n] += (l[c.from] - l[c.to]) * i * t.starved;
    }
    for (std::size_t k = 0; k < loads; ++k, ++at) {
        const LoadElement& x = s.network.loads[k];
        if (x.pos == x.neg || s.point.loads[k].status != LoadStatus::on) continue;
        out[at] = -(l[x.pos] - l[x.neg]) * s.point.loads[k].current_A * t.load;
    }
    for (std::size_t k = 0; k < batteries; ++k, at += 2) {
        const BatteryElement& b = s.network.batteries[k];
        if (s.point.batteries[k].at_acceptance) {
            out[at + 1] = -(l[b.pos] - l[b.neg]) * b.accept_A * t.accept;
            continue;
        }
        const double along = (l[b.pos] - l[b.neg]) / b.R0_ohm;
        out[at] = along * t.battery_V * b.blocks;
        out[at + 1] = -along * s.point.batteries[k].current_A * t.battery_ohm * b.R0_ohm;
    }
    for (std::size_t k = 0; k < sources; ++k, at += 2) {
        const SourceElement& x = s.network.sources[k];
        if (!x.works || s.point.sources[k].mode == DeviceMode::off) continue;
        const double along = l[x.out] - l[x.neg];
        if (s.point.sources[k].mode == DeviceMode::regulating)
            out[at] = along / std::max(x.droop_ohm, 1e-6) * t.source_V * s.network.nominal_V / 12;
        if (s.point.sources[k].mode == DeviceMode::limited) out[at + 1] = along * x.limit_A * t.source_A;
    }
    return out;
}

}  // namespace yr
