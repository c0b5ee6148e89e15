// Rows that every passing design keeps, and what cables in loops can be at least. Part of SizingModel.
#include <Eigen/Sparse>
#include <algorithm>
#include <cmath>

#include "units/at.h"

#include "sizing/sizing_model.h"

namespace yr {
std::vector<SizingModel::DropRow> SizingModel::drop_rows() {
    std::vector<DropRow> rows;
    for (std::size_t k = 0; k < states().size(); ++k) {
        std::vector<DropRow> radial;
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            if (!checked(k, l) || least_point_[k].loads[l].status != LoadStatus::on) continue;
            DropRow row{l, k, least_point_[k].loads[l].drop_V, {}};
            for (const int c : path_of_load(least_[k], least_point_[k], static_cast<int>(l))) {
                const int run = least_[k].conductors[at(c)].run;
                if (run < 0 || free_of_[at(run)] < 0 || !bridge_[k][at(c)]) continue;
                const auto f = at(free_of_[at(run)]);
                // the load's own current at its limit, the others' at their least
                const double amps = std::abs(least_point_[k].conductors[at(c)].current_A) +
                                    std::max(0.0, limit_current_A(k, l) - least_[k].loads[l].value);
                row.rest_V -= std::abs(least_point_[k].conductors[at(c)].drop_V);
                std::vector<double> volts;
                for (const Element& e : elements_[f]) {
                    CableSurroundings cable = e.cable;
                    cable.ambient_C = air_C_[f][k];
                    const double hot =
                        turns_[f][k] ? e.turn_C[k]
                                     : conductor_temperature_C(cable, amps / plan_.runs[at(run)].parallel, 0);
                    volts.push_back(amps *
                                    (e.fixed_ohm + e.cable20_ohm * (1 + kCopperAlpha_per_K * (hot - 20))));
                }
                row.terms.emplace_back(f, std::move(volts));
            }
            std::sort(row.terms.begin(), row.terms.end(),
                      [](const auto& a, const auto& b) { return a.first < b.first; });
            radial.push_back(std::move(row));
        }
        add_loop_rows(k, rows, radial);
        radial_.insert(radial_.end(), radial.begin(), radial.end());
        for (DropRow& row : radial) rows.push_back(std::move(row));
    }
    drop_dominated(rows);
    // those that the thinnest of everything keeps say nothing
    std::erase_if(rows, [&](const DropRow& row) {
        double most = row.rest_V;
        for (const auto& [f, volts] : row.terms) most += *std::max_element(volts.begin(), volts.end());
        return most <= limits_V_[row.load];
    });
    return rows;
}

// Loads that cannot be served even with everything at its thickest.
void SizingModel::add_lost_blockers(std::size_t k) {
    OperatingPointSolver solver;
    const OperatingPoint point = solver.solve(circuit_.network(k));
    for (std::size_t l = 0; l < plan_.loads.size(); ++l)
        if (expected_on_[k][l] && point.loads[l].status == LoadStatus::collapsed)
            blockers_.push_back({plan_.loads[l].id, plan_.states[states()[k]].id, Limit::drop,
                                 plan_.vehicle.nominal_V, limits_V_[l], true});
    if (blockers_.empty()) blockers_.push_back({{}, plan_.states[states()[k]].id, Limit::drop, 0, 0, true});
}

// Cables in loops, alone at each size from the thickest down while the others stand at the end of their range
// that spares them: a size that cannot carry its current even then, or costs a load its volts, goes with all
// thinner.
void SizingModel::filter_loops() {
    if (!blockers_.empty()) return;
    loop_drop_V_.assign(states().size(), std::vector<std::vector<std::vector<double>>>(runs_.size()));
    for (std::size_t k = 0; k < states().size(); ++k)
        for (std::size_t f = 0; f < runs_.size(); ++f) {
            const double amps = std::abs(least_point_[k].conductors[runs_[f].run].current_A);
            if (bridge_[k][runs_[f].run] || amps < 0.05) continue;
            try_loop(k, f);
        }
}

void SizingModel::try_loop(std::size_t k, std::size_t f) {
    FreeRun& free = runs_[f];
    const std::size_t run = free.run;
    const auto amps_of = [&](const OperatingPoint& p) { return std::abs(p.conductors[run].current_A); };
    std::vector<std::pair<std::size_t, int>> sparing;  // the others that take current off it when thin
    for (std::size_t o = 0; o < runs_.size() && !turns_[f][k]; ++o) {
        if (o == f || bridge_[k][runs_[o].run]) continue;
        put_one(least_[k], k, o, 0);
        const OperatingPoint thin = least_solver_[k].solve(least_[k]);
        put_one(least_[k], k, o, static_cast<int>(runs_[o].choices.size()) - 1);
        if (!thin.settled || amps_of(thin) < amps_of(least_point_[k]) * (1 - 1e-9))
            sparing.emplace_back(o, 0);
    }
    auto& drops = loop_drop_V_[k][f];
    drops.assign(free.choices.size(), {});
    std::size_t first = 0;
    for (std::size_t c = free.choices.size(); c-- > 0;) {
        put_one(least_[k], k, f, static_cast<int>(c));
        const OperatingPoint alone = least_solver_[k].solve(least_[k]);
        Limit limit = alone.settled ? Limit::none : Limit::drop;
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            const double drop = alone.settled ? alone.loads[l].drop_V : 1e3;
            drops[c].push_back(drop);
            if (checked(k, l) && drop > limits_V_[l] * (1 + kTiny)) limit = Limit::drop;
        }
        if (limit == Limit::none && !turns_[f][k]) {
            for (const auto& [o, end] : sparing) put_one(least_[k], k, o, end);
            const OperatingPoint spared = least_solver_[k].solve(least_[k]);
            if (spared.settled && amps_of(spared) > amp_A_[f][c][k] * (1 + kTiny)) limit = Limit::ampacity;
            if (spared.settled && spared.conductors[run].temperature_C > plan_.runs[run].insulation_C + 1e-6)
                limit = Limit::temperature;
            for (const auto& [o, end] : sparing)
                put_one(least_[k], k, o, static_cast<int>(runs_[o].choices.size()) - 1);
        }
        if (limit == Limit::none) continue;
        for (std::size_t gone = 0; gone <= c; ++gone)
            free.refused.emplace_back(free.choices[gone].size, limit);
        first = c + 1;
        break;
    }
    put_one(least_[k], k, f, static_cast<int>(free.choices.size()) - 1);
    if (first == free.choices.size()) {
        blockers_.push_back(
            {plan_.runs[run].id, plan_.states[states()[k]].id, free.refused.back().second, 0, 0});
        return;
    }
    const auto n = static_cast<std::ptrdiff_t>(first);
    free.choices.erase(free.choices.begin(), free.choices.begin() + n);
    elements_[f].erase(elements_[f].begin(), elements_[f].begin() + n);
    amp_A_[f].erase(amp_A_[f].begin(), amp_A_[f].begin() + n);
    for (auto& by_state : loop_drop_V_)
        if (by_state[f].size() > first) by_state[f].erase(by_state[f].begin(), by_state[f].begin() + n);
}

// What a load loses at least while a cable in a loop has a certain size and the others are thickest.
void SizingModel::add_loop_rows(std::size_t k, std::vector<DropRow>& rows,
                                const std::vector<DropRow>& radial) {
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const auto& drops = loop_drop_V_[k][f];
        if (drops.empty()) continue;
        for (const DropRow& base : radial) {
            const double best = least_point_[k].loads[base.load].drop_V;
            std::vector<double> more;
            for (const auto& by_load : drops) more.push_back(std::max(0.0, by_load[base.load] - best));
            if (more.front() < 0.01 * limits_V_[base.load]) continue;
            DropRow row = base;
            row.terms.emplace_back(f, std::move(more));
            rows.push_back(std::move(row));
        }
    }
}

// Resistance of a conductor with its cable at the air's temperature: it is never less.
double SizingModel::cold_ohm(std::size_t k, std::size_t conductor, const Design& design) const {
    const ConductorElement& c = least_[k].conductors[conductor];
    const int f = c.run >= 0 ? free_of_[at(c.run)] : -1;
    const auto cold = [](double fixed, double cable20, double air_C) {
        return fixed + cable20 * (1 + kCopperAlpha_per_K * (air_C - 20));
    };
    if (f < 0) return cold(c.fixed_ohm, c.cable20_ohm, c.cable.ambient_C);
    const Element& e = elements_[at(f)][at(design[at(f)])];
    return cold(e.fixed_ohm, e.cable20_ohm, air_C_[at(f)][k]);
}

// Volts at each node for one ampere of this load, the battery's two posts held at 0 V.
std::vector<double> SizingModel::loop_volts(std::size_t k, std::size_t load, const Design& design) const {
    const Network& net = least_[k];
    const auto n = static_cast<Eigen::Index>(net.nodes.size());
    std::vector<Eigen::Triplet<double>> entries;
    for (Eigen::Index i = 0; i < n; ++i) entries.emplace_back(i, i, 1e-9);
    for (const NodeIndex post : {net.batteries.front().pos, net.batteries.front().neg})
        entries.emplace_back(post, post, 1e6);
    for (std::size_t c = 0; c < net.conductors.size(); ++c) {
        const ConductorElement& e = net.conductors[c];
        if (!e.closed || e.forward_V > 0) continue;
        const double g = 1 / cold_ohm(k, c, design);
        entries.emplace_back(e.from, e.from, g);
        entries.emplace_back(e.to, e.to, g);
        entries.emplace_back(e.from, e.to, -g);
        entries.emplace_back(e.to, e.from, -g);
    }
    Eigen::SparseMatrix<double> matrix(n, n);
    matrix.setFromTriplets(entries.begin(), entries.end());
    Eigen::VectorXd rhs = Eigen::VectorXd::Zero(n);
    rhs[net.loads[load].pos] -= 1;
    rhs[net.loads[load].neg] += 1;
    const Eigen::VectorXd v = Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>>(matrix).solve(rhs);
    return {v.data(), v.data() + n};
}

std::optional<SizingModel::DropRow> SizingModel::tangent_row(std::size_t k, std::size_t load,
                                                             const Design& design) {
    const Network& net = least_[k];
    const bool one_supply =
        !net.batteries.empty() &&
        std::none_of(net.sources.begin(), net.sources.end(), [](const SourceElement& s) { return s.works; });
    const bool alone = std::none_of(least_point_[k].batteries.begin() + 1, least_point_[k].batteries.end(),
                                    [](const BatteryResult& b) { return std::abs(b.current_A) > 1e-3; });
    const auto base = std::find_if(radial_.begin(), radial_.end(),
                                   [&](const DropRow& r) { return r.k == k && r.load == load; });
    if (!one_supply || !alone || base == radial_.end()) return std::nullopt;
    DropRow row = *base;
    const double own_A = std::max(limit_current_A(k, load), net.loads[load].value);
    // what the base row holds of loops, by its own current with the thickest cables, makes room for the
    // tangent
    const auto in_loops = [&](const std::vector<double>& v, const Design& d) {
        double ohm = 0;  // watts in loops per square ampere
        for (std::size_t c = 0; c < net.conductors.size(); ++c) {
            if (!net.conductors[c].closed || bridge_[k][c] || net.conductors[c].forward_V > 0) continue;
            const double u = v[at(net.conductors[c].from)] - v[at(net.conductors[c].to)];
            ohm += u * u / cold_ohm(k, c, d);
        }
        return ohm;
    };
    const Design thick = thickest();
    const auto v = loop_volts(k, load, design);
    row.rest_V +=
        own_A * in_loops(v, design) - net.loads[load].value * in_loops(loop_volts(k, load, thick), thick);
    bool any = false;
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const ConductorElement& c = net.conductors[runs_[f].run];
        if (bridge_[k][runs_[f].run] || !c.closed) continue;
        const double u = v[at(c.from)] - v[at(c.to)];
        if (std::abs(u) < 1e-9) continue;
        const double here = 1 / cold_ohm(k, runs_[f].run, design);
        std::vector<double> volts;
        Design other = design;
        for (std::size_t n = 0; n < runs_[f].choices.size(); ++n) {
            other[f] = static_cast<int>(n);
            volts.push_back(-own_A * u * u * (1 / cold_ohm(k, runs_[f].run, other) - here));
        }
        row.terms.emplace_back(f, std::move(volts));
        any = true;
    }
    return any ? std::optional(row) : std::nullopt;
}

// Of two states of one load with the same cables, the one that asks more of every choice stands for both.
void SizingModel::drop_dominated(std::vector<DropRow>& rows) const {
    const auto asks_more = [](const DropRow& a, const DropRow& b) {
        if (a.load != b.load || a.terms.size() != b.terms.size() || a.rest_V < b.rest_V - 1e-12) return false;
        for (std::size_t t = 0; t < a.terms.size(); ++t) {
            if (a.terms[t].first != b.terms[t].first) return false;
            for (std::size_t c = 0; c < a.terms[t].second.size(); ++c)
                if (a.terms[t].second[c] < b.terms[t].second[c] - 1e-12) return false;
        }
        return true;
    };
    std::vector<DropRow> kept;
    for (DropRow& row : rows) {
        if (std::any_of(kept.begin(), kept.end(), [&](const DropRow& k) { return asks_more(k, row); }))
            continue;
        std::erase_if(kept, [&](const DropRow& k) { return asks_more(row, k); });
        kept.push_back(std::move(row));
    }
    rows = std::move(kept);
}

}  // namespace yr
