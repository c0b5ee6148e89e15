#include "meter/expect.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "solve/results.h"

namespace yr {

struct Expecter::Entry {
    Solution solution;
    std::unique_ptr<SlopeSolver> slopes;
};

Expecter::Expecter(const Plan& plan) : plan_(plan), instrument_(instrument_of(plan)) {}
Expecter::~Expecter() = default;

Expecter::Entry& Expecter::entry(const Probing& where) {
    auto& held = entries_[{where.state, where.unplugged}];
    if (!held) {
        held = std::make_unique<Entry>();
        held->solution = solve_for(plan_, where, solver_);
    }
    return *held;
}

const Solution& Expecter::solution(const Probing& where) {
    return entry(where).solution;
}

Slopes Expecter::slopes(const Probing& where) {
    Entry& e = entry(where);
    if (!e.solution.point.settled) return {};
    if (!e.slopes) e.slopes = std::make_unique<SlopeSolver>(e.solution);
    return e.slopes->of(where, plan_);
}

Expectation Expecter::of(const Probing& where) {
    Expectation out;
    if (where.kind == ReadKind::ohms) {
        const auto ohm = ohms_between(plan_, where.red, where.black);
        if (!ohm) return out;
        out.value = *ohm + instrument_.lead_ohm;
        out.spread = 0.2 * *ohm;
        out.meter = instrument_.most_off(ReadKind::ohms, out.value);
        out.solved = true;
        return out;
    }
    const auto value = value_at(entry(where).solution, plan_, where);
    if (!value) return out;
    out.value = *value;
    double square = 0;
    for (const double s : slopes(where)) square += s * s;
    out.spread = std::sqrt(square);
    out.meter = instrument_.most_off(where.kind, *value);
    out.solved = true;
    return out;
}

Expectation Expecter::knowing(const Probing& where, const std::vector<Reading>& taken) {
    Expectation out = of(where);
    if (!out.solved || where.kind == ReadKind::ohms) return out;
    const Slopes mine = slopes(where);
    std::vector<Slopes> rows;
    std::vector<double> off, noise;
    for (const Reading& r : taken) {
        if (r.where.kind == ReadKind::ohms || r.where == where) continue;
        const Expectation e = of(r.where);
        const Slopes s = slopes(r.where);
        if (!e.solved || s.size() != mine.size()) continue;
        rows.push_back(s);
        off.push_back(r.value - e.value);
        noise.push_back(std::pow(instrument_.most_off(r.where.kind, r.value), 2) / 3);
    }
    if (rows.empty()) return out;
    const auto n = static_cast<Eigen::Index>(rows.size());
    Eigen::MatrixXd C(n, n);
    Eigen::VectorXd c(n), d(n);
    const auto dot = [](const Slopes& a, const Slopes& b) {
        double sum = 0;
        for (std::size_t k = 0; k < a.size(); ++k) sum += a[k] * b[k];
        return sum;
    };
    for (Eigen::Index i = 0; i < n; ++i) {
        const auto a = static_cast<std::size_t>(i);
        for (Eigen::Index j = 0; j < n; ++j) C(i, j) = dot(rows[a], rows[static_cast<std::size_t>(j)]);
        C(i, i) += noise[a];
        c[i] = dot(rows[a], mine);
        d[i] = off[a];
    }
    const Eigen::LDLT<Eigen::MatrixXd> factors(C);
    const Eigen::VectorXd weight = factors.solve(c);
    out.value += weight.dot(d);
    out.spread = std::sqrt(std::max(0.0, out.spread * out.spread - weight.dot(c)));
    return out;
}

std::optional<double> ohms_between(const Plan& plan, const Terminal& a, const Terminal& b) {
    if (plan.states.empty()) return std::nullopt;
    // a battery of 1 V behind 1 ohm between the two, everything else without supply
    Probing off;
    off.state = plan.states.front().id;
    Network network = network_for(plan, off);
    const NodeIndex red = node_at(network, a), black = node_at(network, b);
    if (red == kNoNode || black == kNoNode || red == black) return std::nullopt;
    for (LoadElement& l : network.loads) l.wanted = l.expected = false;
    for (SourceElement& s : network.sources) s.works = false;
    network.memories.clear();
    BatteryElement cell;
    cell.pos = red, cell.neg = black, cell.open_V = 1, cell.R0_ohm = 1, cell.capacity_Ah = 1, cell.charge = 1;
    network.batteries = {cell};
    network.reference = black;
    const std::vector<int> groups = conductor_groups(network);
    if (groups[static_cast<std::size_t>(red)] != groups[static_cast<std::size_t>(black)]) return std::nullopt;
    const OperatingPoint point = solve(network);
    if (!point.settled) return std::nullopt;
    const double amps = point.batteries.front().current_A;
    return amps > 1e-9 ? std::optional(point.batteries.front().voltage_V / amps) : std::nullopt;
}

}  // namespace yr
