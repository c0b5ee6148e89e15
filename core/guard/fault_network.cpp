#include "guard/fault_network.h"

#include <Eigen/Dense>
#include <Eigen/Sparse>
#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "network/laws.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr double kLeak_S = 1e-6;  // holds what hangs on nothing; moves nothing that can be measured
constexpr int kMostRounds = 200;
constexpr double kLeast_ohm = 1e-7;  // of a short and of each side of a shorted run
constexpr double kSoft_S = 1e-3;     // slope of a battery's limit where nothing else holds its volts

// Batteries as new, warm and full.
std::vector<BatteryElement> fresh_batteries(Plan plan, State state) {
    for (Battery& b : plan.batteries) b.health = 1;
    state.charge = 1;
    state.ambient_C = state.engine_bay_C = 25;
    plan.runs.clear();
    plan.loads.clear();
    return compile(plan, state).batteries;
}

enum class PortKind { source, battery, diode, fixed };

struct Port {
    PortKind kind{};
    int element = -1;
    int pos = -1, neg = -1;  // rows: its current goes in at pos and comes out at neg
    double e = 0, ohm = 0;
    Eigen::VectorXd z;  // volts per amp of it, by row
};

// A conductor as an answer reads it; packed, for there is one answer for each short and each fuse that opens.
struct Resistor {
    int from = 0, to = 0;  // rows
    double siemens = 0;    // 0: open, or a diode
};

constexpr std::size_t kColumnsKept = 64;

}  // namespace

struct FaultNetwork::Impl {
    Network net;
    std::vector<double> ohm;     // by conductor
    std::vector<double> load_S;  // by load; the weakest case
    // Rows are nodes in the order of elimination, so that no solution has to be put in order.
    std::vector<int> row;             // by node
    std::vector<Resistor> resistors;  // by conductor
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Lower, Eigen::NaturalOrdering<int>> factors;
    Eigen::VectorXd pivots;     // by row, of the factors
    Eigen::VectorXd v0;         // by row, without any port's current
    std::vector<Port> devices;  // sources, batteries, diodes
    Eigen::MatrixXd between;    // volts across a device per amp of another
    mutable std::map<std::pair<int, int>, Eigen::VectorXd> columns;  // asked before, by rows

    Impl(const Plan& plan, const State& state, const Solution& solution, SupplyCase supply)
        : net(solution.network) {
        const bool strong = supply == SupplyCase::strongest;
        if (strong) net.batteries = fresh_batteries(plan, state);
        const double aged_R0 = assumption("short_aged_R0").value;
        if (!strong)
            for (std::size_t k = 0; k < net.batteries.size(); ++k)
                if (!plan.batteries[k].health) net.batteries[k].R0_ohm *= aged_R0;
        const double cold_C = assumption("short_cold_copper_C").value;
        const double ageing = strong ? 1 : plan.policy.joint_ageing.value_or(1);
        for (const ConductorElement& c : net.conductors) {
            const double hot_C = c.run >= 0 ? plan.runs[at(c.run)].insulation_C : 20;
            const double t = strong ? std::min(cold_C, c.cable.ambient_C) : hot_C;
            ohm.push_back(c.fixed_ohm * (c.parts.size() > 1 ? ageing : 1) +
                          c.cable20_ohm * (1 + kCopperAlpha_per_K * (t - 20)));
        }
        load_S.assign(net.loads.size(), 0);
        if (!strong)
            for (std::size_t k = 0; k < net.loads.size(); ++k) {
                const LoadResult& l = solution.point.loads[k];
                if (net.loads[k].inverter < 0 && l.status == LoadStatus::on && l.voltage_V > 0.5)
                    load_S[k] = l.current_A / l.voltage_V;
            }
        factorise();
        add_devices();
        const auto count = static_cast<Eigen::Index>(devices.size());
        between.resize(count, count);
        for (Eigen::Index r = 0; r < count; ++r)
            for (Eigen::Index c = 0; c < count; ++c) between(r, c) = across(device(c).z, device(r));
    }

    const Port& device(Eigen::Index k) const { return devices[static_cast<std::size_t>(k)]; }
    static double across(const Eigen::VectorXd& v, const Port& p) { return v[p.pos] - v[p.neg]; }

    void factorise() {
        const auto n = static_cast<Eigen::Index>(net.nodes.size());
        std::vector<Eigen::Triplet<double>> entries;
        const auto stamp = [&](NodeIndex a, NodeIndex b, double g) {
            entries.emplace_back(a, a, g);
            entries.emplace_back(b, b, g);
            entries.emplace_back(a, b, -g);
            entries.emplace_back(b, a, -g);
        };
        for (NodeIndex k = 0; k < n; ++k) entries.emplace_back(k, k, kLeak_S);
        entries.emplace_back(net.reference, net.reference, 1.0);
        for (std::size_t k = 0; k < net.conductors.size(); ++k) {
            const ConductorElement& c = net.conductors[k];
            if (c.closed && c.forward_V <= 0) stamp(c.from, c.to, 1 / ohm[k]);
        }
        v0 = Eigen::VectorXd::Zero(n);
        for (const BatteryElement& b : net.batteries) {
            stamp(b.pos, b.neg, 1 / b.R0_ohm);
            v0[b.pos] += b.open_V / b.R0_ohm;
            v0[b.neg] -= b.open_V / b.R0_ohm;
        }
        for (std::size_t k = 0; k < net.loads.size(); ++k)
            if (load_S[k] > 0) stamp(net.loads[k].pos, net.loads[k].neg, load_S[k]);
        Eigen::SparseMatrix<double> matrix(n, n), ordered(n, n);
        matrix.setFromTriplets(entries.begin(), entries.end());
        Eigen::PermutationMatrix<Eigen::Dynamic, Eigen::Dynamic, int> by_row;
        Eigen::AMDOrdering<int>()(matrix.selfadjointView<Eigen::Lower>(), by_row);
        by_row = by_row.inverse().eval();
        ordered.selfadjointView<Eigen::Lower>() = matrix.selfadjointView<Eigen::Lower>().twistedBy(by_row);
        row.assign(by_row.indices().begin(), by_row.indices().end());
        factors.compute(ordered);
        pivots = factors.vectorD();
        v0 = factors.solve(Eigen::VectorXd(by_row * v0)).eval();
        for (std::size_t k = 0; k < net.conductors.size(); ++k) {
            const ConductorElement& c = net.conductors[k];
            const bool resists = c.closed && c.forward_V <= 0;
            resistors.push_back({row[at(c.from)], row[at(c.to)], resists ? 1 / ohm[k] : 0});
        }
    }

    // Volts of all rows for one amp that goes in at `a` and comes out at `b`. The way of each end to the root
    // of the elimination is short, the way back goes through all of it.
    Eigen::VectorXd column(int a, int b) const {
        Eigen::VectorXd x = Eigen::VectorXd::Zero(v0.size());
        if (a == b) return x;
        const auto& lower = factors.matrixL().nestedExpression();  // without its diagonal of ones
        const int* first = lower.outerIndexPtr();
        const int* below = lower.innerIndexPtr();
        const double* value = lower.valuePtr();
        const Eigen::VectorXd& d = pivots;
        x[a] = 1, x[b] = -1;
        const auto parent = [&](int k) {
            return first[k] < first[k + 1] ? below[first[k]] : static_cast<int>(x.size());
        };
        for (int i = a, j = b, end = static_cast<int>(x.size()); i < end || j < end;) {
            const int k = std::min(i, j);
            const double y = x[k];
            for (int n = first[k]; n < first[k + 1]; ++n) x[below[n]] -= value[n] * y;
            x[k] = y / d[k];
            if (i == k) i = parent(k);
            if (j == k) j = parent(k);
        }
        for (int k = static_cast<int>(x.size()) - 1; k >= 0; --k) {
            double sum = x[k];
            for (int n = first[k]; n < first[k + 1]; ++n) sum -= value[n] * x[below[n]];
            x[k] = sum;
        }
        return x;
    }

    // The column of a pair is asked for again and again while resistances and openings change.
    const Eigen::VectorXd& kept_column(int a, int b) const {
        const auto [found, added] = columns.try_emplace({a, b});
        if (added) found->second = column(a, b);
        return found->second;
    }

    void add_devices() {
        for (std::size_t k = 0; k < net.sources.size(); ++k) {
            const SourceElement& s = net.sources[k];
            const SourceLaw law = source_law(s);
            if (s.works)
                add({PortKind::source,
                     static_cast<int>(k),
                     row[at(s.out)],
                     row[at(s.neg)],
                     law.set_V,
                     law.ohm,
                     {}});
        }
        for (std::size_t k = 0; k < net.batteries.size(); ++k) {
            const BatteryElement& b = net.batteries[k];
            const BatteryLaw law = battery_law(b);
            add({PortKind::battery,
                 static_cast<int>(k),
                 row[at(b.pos)],
                 row[at(b.neg)],
                 law.open_V - law.ohm * law.least_A,
                 -law.ohm,
                 {}});
        }
        for (std::size_t k = 0; k < net.conductors.size(); ++k) {
            const ConductorElement& c = net.conductors[k];
            if (c.closed && c.forward_V > 0)
                add({PortKind::diode,
                     static_cast<int>(k),
                     row[at(c.from)],
                     row[at(c.to)],
                     c.forward_V,
                     ohm[k],
                     {}});
        }
    }

    void add(Port port) {
        port.z = column(port.pos, port.neg);
        devices.push_back(std::move(port));
    }

    // What a device does at these volts across it: nothing, its law, or a current that is fixed.
    enum class Mode : char { off, law, fixed };
    Mode wanted_mode(const Port& p, double u, double i, Mode now) const {
        if (p.kind == PortKind::source) {
            const SourceElement& s = net.sources[at(p.element)];
            // to the neighbouring mode only: the pivoting below rests on it
            const double at_limit_V = s.set_V - s.limit_A * p.ohm;
            if (now == Mode::law) return u > s.set_V ? Mode::off : u < at_limit_V ? Mode::fixed : Mode::law;
            if (now == Mode::off) return u < s.set_V ? Mode::law : Mode::off;
            return u > at_limit_V ? Mode::law : Mode::fixed;
        }
        if (p.kind == PortKind::battery) {
            const BatteryElement& b = net.batteries[at(p.element)];
            if (now == Mode::law) return i > 0 ? Mode::law : Mode::off;  // it holds back while it must
            return (b.open_V - u) / b.R0_ohm < -b.accept_A - 1e-9 ? Mode::law : Mode::off;
        }
        return u > p.e ? Mode::law : Mode::off;
    }

    // The ports of a question: openings, changes, the short itself. Each holds u = e - ohm i between its
    // ends.
    struct Asked {
        std::vector<const Eigen::VectorXd*> z;
        std::vector<std::pair<int, int>> ends;  // rows
        std::vector<double> ohm;
        std::size_t first_short = 0;
        bool inside = false;  // inside a run: its two sides meet in the same short
    };

    Asked ports_of(const ShortAsk& ask) const {
        Asked out;
        if (columns.size() > kColumnsKept) columns.clear();
        const auto port = [&](NodeIndex from, NodeIndex to, double ohms) {
            const int a = row[at(from)], b = row[at(to)];
            out.z.push_back(&kept_column(a, b));
            out.ends.emplace_back(a, b);
            out.ohm.push_back(ohms);
        };
        const auto remove = [&](int k) {
            const ConductorElement& c = net.conductors[at(k)];
            if (c.closed && c.forward_V <= 0) port(c.from, c.to, -ohm[at(k)]);
        };
        for (int k : ask.opened)
            if (k != ask.run) remove(k);
        const bool change_gone =
            std::find(ask.opened.begin(), ask.opened.end(), ask.changed) != ask.opened.end();
        if (ask.changed >= 0 && ask.changed != ask.run && !change_gone) {
            const ConductorElement& c = net.conductors[at(ask.changed)];
            const double more_S = 1 / ask.changed_ohm - 1 / ohm[at(ask.changed)];
            if (c.closed && std::abs(more_S) > 1e-9) port(c.from, c.to, 1 / more_S);
        }
        out.inside = ask.run >= 0;
        if (out.inside) {
            const ConductorElement& c = net.conductors[at(ask.run)];
            const double whole = ask.changed == ask.run ? ask.changed_ohm : ohm[at(ask.run)];
            remove(ask.run);
            out.first_short = out.z.size();
            port(c.from, ask.back, std::max(whole * ask.share, kLeast_ohm));
            port(c.to, ask.back, std::max(whole * (1 - ask.share), kLeast_ohm));
        } else {
            out.first_short = out.z.size();
            port(ask.at, ask.back, std::max(ask.ohm, kLeast_ohm));
        }
        return out;
    }

    // Resistance of a device's law. A battery's cancels its R0 and leaves a bare current. On an island of
    // such and of sources at their limit nothing fixes the volts while the search is on its way: `soft` gives
    // the bare current the slope kSoft_S, a few milliamps, so that each device still learns which way to go.
    double law_ohm(const Port& p, bool soft) const {
        return soft && p.kind == PortKind::battery ? p.ohm * (1 - p.ohm * kSoft_S) : p.ohm;
    }

    // What was asked and all devices, each against each: volts across the one per amp of the other, and
    // without any.
    struct Ports {
        Eigen::MatrixXd z;
        Eigen::VectorXd u0;
    };
    Ports ports_among(const Asked& asked) const {
        const auto first = static_cast<Eigen::Index>(asked.z.size()), count = first + between.rows();
        Ports out{Eigen::MatrixXd(count, count), Eigen::VectorXd(count)};
        const auto ends = [&](Eigen::Index k) { return asked.ends[static_cast<std::size_t>(k)]; };
        for (Eigen::Index c = 0; c < first; ++c) {
            const Eigen::VectorXd& z = *asked.z[static_cast<std::size_t>(c)];
            for (Eigen::Index r = 0; r < first; ++r) out.z(r, c) = z[ends(r).first] - z[ends(r).second];
            for (Eigen::Index d = 0; d < between.rows(); ++d)
                out.z(first + d, c) = out.z(c, first + d) = across(z, device(d));
            out.u0[c] = v0[ends(c).first] - v0[ends(c).second];
        }
        out.z.bottomRightCorner(between.rows(), between.rows()) = between;
        for (Eigen::Index d = 0; d < between.rows(); ++d) out.u0[first + d] = across(v0, device(d));
        return out;
    }

    // The currents of the ports in their law (indices among them all), at the volts that the fixed ones
    // leave.
    Eigen::VectorXd port_currents(const Asked& asked, const Ports& ports,
                                  const std::vector<Eigen::Index>& in_law, const Eigen::VectorXd& u,
                                  double short_ohm, bool soft) const {
        const auto first = static_cast<Eigen::Index>(asked.z.size());
        const auto count = static_cast<Eigen::Index>(in_law.size());
        Eigen::MatrixXd m(count, count);
        Eigen::VectorXd rhs(count);
        for (Eigen::Index r = 0; r < count; ++r) {
            const Eigen::Index k = in_law[static_cast<std::size_t>(r)];
            for (Eigen::Index c = 0; c < count; ++c)
                m(r, c) = ports.z(k, in_law[static_cast<std::size_t>(c)]);
            const Port* p = k < first ? nullptr : &device(k - first);
            m(r, r) += p ? law_ohm(*p, soft) : asked.ohm[static_cast<std::size_t>(k)];
            rhs[r] = (p ? p->e : 0) - u[k];
        }
        if (asked.inside) {
            const auto s = static_cast<Eigen::Index>(asked.first_short);
            m.block<2, 2>(s, s).array() += std::max(short_ohm, kLeast_ohm);
        }
        return m.fullPivLu().solve(rhs);
    }

    // Moves devices to the mode that their volts ask for. False when all stand right.
    // A diode behind a fuse that has opened lets nothing through.
    bool pivot(const ShortAsk& ask, const Eigen::VectorXd& across_V, const std::vector<double>& device_i,
               int round, std::vector<Mode>& mode) const {
        bool moved = false;
        for (std::size_t k = 0; k < devices.size(); ++k) {
            const Port& p = devices[k];
            if (p.kind == PortKind::diode && std::find(ask.opened.begin(), ask.opened.end(),
                                                       static_cast<int>(p.element)) != ask.opened.end())
                continue;
            const Mode next = wanted_mode(p, across_V[static_cast<Eigen::Index>(k)], device_i[k], mode[k]);
            if (next == mode[k]) continue;
            mode[k] = next;
            moved = true;
            // the first that is wrong, one at a time: ends for the matrices of passive networks (Murty
            // 1974, least-index principal pivoting, from memory)
            if (round > 3) break;
        }
        return moved;
    }

    // Currents of a question, and the modes in which its devices stand.
    struct Standing {
        std::vector<Mode> mode;
        Eigen::VectorXd i;             // by port in its law: what was asked comes first
        std::vector<double> device_i;  // by device
        bool settled = false;
    };

    // Moves the devices from the modes they stand in until all stand right. Only what lies across the ports
    // is looked at meanwhile.
    void settle(const ShortAsk& ask, const Asked& asked, const Ports& ports, bool soft,
                Standing& at_rest) const {
        const auto first = static_cast<Eigen::Index>(asked.z.size());
        at_rest.settled = false;
        std::vector<Eigen::Index> in_law;
        for (int round = 0; round < kMostRounds && !at_rest.settled; ++round) {
            at_rest.device_i.assign(devices.size(), 0);
            in_law.clear();
            for (Eigen::Index k = 0; k < first; ++k) in_law.push_back(k);
            Eigen::VectorXd u = ports.u0;
            for (std::size_t k = 0; k < devices.size(); ++k) {
                const auto port = first + static_cast<Eigen::Index>(k);
                if (at_rest.mode[k] == Mode::law) in_law.push_back(port);
                if (at_rest.mode[k] != Mode::fixed) continue;
                at_rest.device_i[k] = net.sources[at(devices[k].element)].limit_A;
                u += at_rest.device_i[k] * ports.z.col(port);
            }
            at_rest.i = port_currents(asked, ports, in_law, u, ask.ohm, soft);
            for (std::size_t n = 0; n < in_law.size(); ++n) {
                const double amps = at_rest.i[static_cast<Eigen::Index>(n)];
                u += amps * ports.z.col(in_law[n]);
                if (in_law[n] >= first) at_rest.device_i[static_cast<std::size_t>(in_law[n] - first)] = amps;
            }
            at_rest.settled = !pivot(ask, u.tail(between.rows()), at_rest.device_i, round, at_rest.mode);
        }
    }

    Eigen::VectorXd volts_of(const Asked& asked, const Standing& at_rest) const {
        Eigen::VectorXd v = v0;
        for (std::size_t k = 0; k < asked.z.size(); ++k)
            v += at_rest.i[static_cast<Eigen::Index>(k)] * *asked.z[k];
        for (std::size_t k = 0; k < devices.size(); ++k)
            if (at_rest.device_i[k] != 0) v += at_rest.device_i[k] * devices[k].z;
        return v;
    }

    ShortAnswer solve(const ShortAsk& ask) const {
        const Asked asked = ports_of(ask);
        const Ports ports = ports_among(asked);
        Standing found{std::vector<Mode>(devices.size(), Mode::off), {}, {}};
        for (std::size_t k = 0; k < devices.size(); ++k)
            if (devices[k].kind == PortKind::source) found.mode[k] = Mode::law;
        Standing soft = found;
        settle(ask, asked, ports, false, found);
        if (!found.settled) {  // then softly, and exactly again from where that came to rest
            settle(ask, asked, ports, true, soft);
            if (soft.settled) {
                found.mode = soft.mode;
                settle(ask, asked, ports, false, found);
                if (!found.settled) found = soft;
            }
        }
        ShortAnswer out =
            answer(ask, volts_of(asked, found), found.i, found.device_i, asked.first_short, asked.inside);
        out.settled = found.settled && std::isfinite(out.amps);
        return out;
    }

    ShortAnswer answer(const ShortAsk& ask, const Eigen::VectorXd& v, const Eigen::VectorXd& i,
                       const std::vector<double>& device_i, std::size_t first_short, bool inside) const {
        ShortAnswer out;
        out.by_row_V.assign(v.data(), v.data() + v.size());
        out.row = &row;
        out.run_A.resize(resistors.size());
        for (std::size_t k = 0; k < resistors.size(); ++k) {
            const Resistor& r = resistors[k];
            out.run_A[k] = (v[r.from] - v[r.to]) * r.siemens;
        }
        if (ask.changed >= 0) out.run_A[at(ask.changed)] *= ohm[at(ask.changed)] / ask.changed_ohm;
        for (int k : ask.opened) out.run_A[at(k)] = 0;
        out.battery_A.resize(net.batteries.size());
        for (std::size_t k = 0; k < net.batteries.size(); ++k) {
            const BatteryElement& b = net.batteries[k];
            out.battery_A[k] = (b.open_V - (v[row[at(b.pos)]] - v[row[at(b.neg)]])) / b.R0_ohm;
        }
        out.source_A.assign(net.sources.size(), 0);
        for (std::size_t k = 0; k < devices.size(); ++k) {
            const Port& p = devices[k];
            if (p.kind == PortKind::source) out.source_A[at(p.element)] = device_i[k];
            if (p.kind == PortKind::battery) out.battery_A[at(p.element)] += device_i[k];
            if (p.kind == PortKind::diode) out.run_A[at(p.element)] = -device_i[k];
        }
        const auto first = static_cast<Eigen::Index>(first_short);
        if (inside) {
            out.from_A = -i[first];
            out.to_A = -i[first + 1];
            out.amps = out.from_A + out.to_A;
            out.run_A[at(ask.run)] = std::abs(out.from_A) >= std::abs(out.to_A) ? out.from_A : -out.to_A;
        } else {
            out.amps = -i[first];
        }
        return out;
    }
};

double short_at_posts_A(const Plan& plan, const Id& battery) {
    for (std::size_t k = 0; k < plan.batteries.size(); ++k)
        if (plan.batteries[k].id == battery) {
            const BatteryElement e = fresh_batteries(plan, State{})[k];
            return e.R0_ohm > 0 ? e.open_V / e.R0_ohm : 0;
        }
    return 0;
}

FaultNetwork::FaultNetwork(const Plan& plan, const State& state, const Solution& solution, SupplyCase supply)
    : impl_(std::make_unique<Impl>(plan, state, solution, supply)) {}
FaultNetwork::~FaultNetwork() = default;
FaultNetwork::FaultNetwork(FaultNetwork&&) noexcept = default;

ShortAnswer FaultNetwork::solve(const ShortAsk& ask) const {
    return impl_->solve(ask);
}

const Network& FaultNetwork::network() const {
    return impl_->net;
}

double FaultNetwork::conductor_ohm(std::size_t conductor) const {
    return impl_->ohm[conductor];
}

}  // namespace yr
