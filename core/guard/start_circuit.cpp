#include "guard/start_circuit.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr double kStartLeak_S = 1e-9;
constexpr double kSettled_V = 1e-10;
constexpr double kNothing_A = 1e-10;  // a node that hangs on nothing moves freely below it
constexpr int kMostIterations = 60;
constexpr int kMostCreeps = 400;
constexpr double kFailsBelow = 0.3;  // of nominal volts: a supply gives up; its current falls with the volts
constexpr double kSinksBelow = 0.2;  // the same for a constant current

// Whether it stands closed, and volts that fall open it.
bool opens_by_volts(const Network& net, const MemoryElement& m) {
    const bool does_something = std::any_of(m.channels.begin(), m.channels.end(),
                                            [&](int c) { return net.conductors[at(c)].closed; }) ||
                                (m.conductor >= 0 && net.conductors[at(m.conductor)].closed) ||
                                (m.source >= 0 && net.sources[at(m.source)].works) ||
                                (m.load >= 0 && net.loads[at(m.load)].wanted);
    switch (m.kind) {
        case MemoryKind::coil:
            return does_something && m.coil_load >= 0 && !m.rests_closed;
        case MemoryKind::sensing_relay:
        case MemoryKind::cutoff:
        case MemoryKind::box:
        case MemoryKind::enable:
        case MemoryKind::inverter:
            return does_something;
        case MemoryKind::charging:
        case MemoryKind::circuit:
        case MemoryKind::unpowered:
            return false;  // parts of conditions; what they switch is slow
    }
    return false;
}

double filament_share(double warm) {
    static const double cold = assumption("lamp_cold_share").value;
    return cold + (1 - cold) * std::clamp(warm, 0.0, 2.0);
}

}  // namespace

StartCircuit::StartCircuit(Network net, const OperatingPoint& end, std::vector<Starter> starters)
    : net_(std::move(net)),
      starters_(std::move(starters)),
      share1_(assumption("battery_R1_share").value),
      tau1_s_(assumption("battery_tau1_s").value),
      share2_(assumption("battery_R2_share").value),
      tau2_s_(assumption("battery_tau2_s").value) {
    states_ = 2 * net_.batteries.size();
    for (Starter& s : starters_) {
        s.state = states_;
        if (s.kind != StartKind::step) ++states_;
    }
    for (std::size_t k = 0; k < net_.conductors.size(); ++k) {
        cable_ohm_.push_back(end.conductors[k].cable_ohm);
        closed_.push_back(net_.conductors[k].closed);
    }
    starter_of_.assign(net_.loads.size(), nullptr);
    for (const Starter& s : starters_) starter_of_[s.load] = &s;
    for (std::size_t k = 0; k < net_.loads.size(); ++k)
        dead_.push_back(end.loads[k].status != LoadStatus::on && !starter_of_[k]);
    for (std::size_t k = 0; k < net_.sources.size(); ++k)
        source_fed_.push_back(net_.sources[k].works &&
                              (net_.sources[k].in == kNoNode || end.sources[k].input_A > 0));
    for (std::size_t k = 0; k < net_.memories.size(); ++k)
        if (end.settled && opens_by_volts(net_, net_.memories[k])) watched_.push_back(&net_.memories[k]);
    v_ = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(net_.nodes.size()));
}

void StartCircuit::open(const MemoryElement& device) {
    if (device.conductor >= 0) closed_[at(device.conductor)] = 0;
    for (const int c : device.channels) closed_[at(c)] = 0;
    if (device.source >= 0) source_fed_[at(device.source)] = 0;
    if (device.load >= 0) dead_[at(device.load)] = 1;
    opened_.push_back(&device);
    factored_ = false;
}

bool StartCircuit::is_open(const MemoryElement& device) const {
    return std::find(opened_.begin(), opened_.end(), &device) != opened_.end();
}

void StartCircuit::begin_at(const std::vector<double>& node_V) {
    for (std::size_t k = 0; k < node_V.size(); ++k) v_[static_cast<Eigen::Index>(k)] = node_V[k];
}

double StartCircuit::sensed_V(const MemoryElement& m) const {
    if (m.coil_load >= 0) return volts(net_.loads[at(m.coil_load)].pos, net_.loads[at(m.coil_load)].neg);
    const double here = volts(m.sense, m.against);
    return m.other == kNoNode ? here : std::max(here, volts(m.other, m.against));
}

double StartCircuit::load_A(std::size_t k, const Values& x, double t) const {
    return load_law_at(k, volts(net_.loads[k].pos, net_.loads[k].neg), x, t).current_A;
}

double StartCircuit::conductor_A(std::size_t k) const {
    const ConductorElement& c = net_.conductors[k];
    return closed_[k] ? conductor_law(c, cable_ohm_[k], volts(c.from, c.to)).current_A : 0;
}

// What it takes as one that runs, or for its first seconds.
Law StartCircuit::running_law(std::size_t k, double u, double t) const {
    const LoadElement& l = net_.loads[k];
    const Starter* s = starter_of_[k];
    const double gives_up_V = kFailsBelow * net_.nominal_V;
    if (s && s->surge_s > 0 && t < s->on_at_s + s->surge_s) return starting_power(s->surge_W, u, gives_up_V);
    if (l.kind == DrawKind::power) return starting_power(l.value, u, gives_up_V);
    if (l.kind == DrawKind::current) return starting_current(l.value, u, kSinksBelow * net_.nominal_V);
    return load_law(l, u);
}

Law StartCircuit::load_law_at(std::size_t k, double u, const Values& x, double t) const {
    const LoadElement& l = net_.loads[k];
    if (!l.wanted || l.inverter >= 0 || dead_[k]) return {};
    if (const Starter* s = starter_of_[k]) {
        if (t < s->on_at_s)
            return s->rest_W > 0 ? starting_power(s->rest_W, u, kFailsBelow * net_.nominal_V) : Law{};
        if (s->kind == StartKind::motor || s->kind == StartKind::capacitor)
            return {(u - x[s->state]) / s->ohm, 1 / s->ohm};
        if (s->kind == StartKind::lamp) {
            const double g = 1 / (s->ohm * filament_share(x[s->state]));
            return {u * g, g};
        }
    }
    return running_law(k, u, t);
}

// The slow parts take their volts off the open ones.
Law StartCircuit::battery_law_at(std::size_t k, double u, const Values& x) const {
    BatteryLaw law = battery_law(net_.batteries[k]);
    law.open_V -= x[2 * k] + x[2 * k + 1];
    return at_volts(law, u);
}

// Calls use(pos, neg, current from pos to neg inside the element, its slope) for each element but converters'
// inputs, whose current hangs on two voltages.
template <class F>
void StartCircuit::each_law(const Eigen::VectorXd& v, const Values& x, double t, F&& use) const {
    for (std::size_t k = 0; k < net_.conductors.size(); ++k) {
        const ConductorElement& c = net_.conductors[k];
        if (!closed_[k]) {
            use(c.from, c.to, Law{});  // keeps its place in the matrix
            continue;
        }
        use(c.from, c.to, conductor_law(c, cable_ohm_[k], v[c.from] - v[c.to]));
    }
    for (std::size_t k = 0; k < net_.batteries.size(); ++k) {
        const BatteryElement& b = net_.batteries[k];
        const Law law = battery_law_at(k, v[b.pos] - v[b.neg], x);
        use(b.pos, b.neg, Law{-law.current_A, law.conductance_S});
    }
    for (std::size_t k = 0; k < net_.sources.size(); ++k) {
        const SourceElement& s = net_.sources[k];
        const Law law = source_fed_[k] ? at_volts(source_law(s), v[s.out] - v[s.neg]) : Law{};
        use(s.out, s.neg, Law{-law.current_A, law.conductance_S});
    }
    for (std::size_t k = 0; k < net_.loads.size(); ++k) {
        const LoadElement& l = net_.loads[k];
        if (l.pos != kNoNode && l.inverter < 0) use(l.pos, l.neg, load_law_at(k, v[l.pos] - v[l.neg], x, t));
    }
}

void StartCircuit::residual(const Eigen::VectorXd& v, const Values& x, double t,
                            Eigen::VectorXd& sums) const {
    sums = kStartLeak_S * v;
    sums[net_.reference] += v[net_.reference];
    each_law(v, x, t, [&](NodeIndex a, NodeIndex b, const Law& law) {
        sums[a] += law.current_A;
        sums[b] -= law.current_A;
    });
    for (std::size_t k = 0; k < net_.sources.size(); ++k) {
        const SourceElement& s = net_.sources[k];
        if (s.in == kNoNode || !source_fed_[k]) continue;
        const double amps = converter_draws(s, v).in.current_A;
        sums[s.in] += amps;
        sums[s.neg] -= amps;
    }
}

StartCircuit::Draws StartCircuit::converter_draws(const SourceElement& s, const Eigen::VectorXd& v) const {
    const double u = v[s.out] - v[s.neg], in_V = v[s.in] - v[s.neg];
    const Law out = at_volts(source_law(s), u);
    const double watts = input_power_W(s, out.current_A, u);
    const double least_V = kFailsBelow * net_.nominal_V;
    Draws d{starting_power(watts, in_V, least_V), 0};
    if (out.current_A > 0)
        d.by_output_S = starting_power(1, in_V, least_V).current_A * (out.current_A - u * out.conductance_S) /
                        s.efficiency;
    return d;
}

// Slopes at the present volts; `hold_S` holds each node where it is.
bool StartCircuit::factorise(const Values& x, double t, double hold_S) {
    const auto n = v_.size();
    std::vector<Eigen::Triplet<double>> entries;
    entries.reserve(4 * net_.conductors.size() + 8 * net_.loads.size());
    const auto stamp = [&](NodeIndex a, NodeIndex b, double g) {
        entries.emplace_back(a, a, g);
        entries.emplace_back(b, b, g);
        entries.emplace_back(a, b, -g);
        entries.emplace_back(b, a, -g);
    };
    for (NodeIndex k = 0; k < n; ++k) entries.emplace_back(k, k, kStartLeak_S + hold_S);
    entries.emplace_back(net_.reference, net_.reference, 1.0);
    each_law(v_, x, t, [&](NodeIndex a, NodeIndex b, const Law& law) { stamp(a, b, law.conductance_S); });
    for (std::size_t k = 0; k < net_.sources.size(); ++k) {
        const SourceElement& s = net_.sources[k];
        if (s.in == kNoNode) continue;
        const Draws d = source_fed_[k] ? converter_draws(s, v_) : Draws{};
        stamp(s.in, s.neg, d.in.conductance_S);
        entries.emplace_back(s.in, s.out, d.by_output_S);
        entries.emplace_back(s.in, s.neg, -d.by_output_S);
        entries.emplace_back(s.neg, s.out, -d.by_output_S);
        entries.emplace_back(s.neg, s.neg, d.by_output_S);
    }
    matrix_.resize(n, n);
    matrix_.setFromTriplets(entries.begin(), entries.end());
    if (!analysed_) {
        factors_.analyse(matrix_);
        analysed_ = true;
    }
    factored_ = factors_.factor(matrix_);
    return factored_;
}

// Newton's method; the last factors serve while each step with them lessens the node sums tenfold. A step
// with fresh ones that does not lessen them is halved.
bool StartCircuit::newton(const Values& x, double t) {
    constexpr double serves = 0.1;
    Eigen::VectorXd sums, next_sums, best = v_;
    residual(v_, x, t, sums);
    for (int k = 0; k < kMostIterations; ++k) {
        const bool fresh = !factored_;
        if (fresh && !factorise(x, t, 0)) break;
        const Eigen::VectorXd step = factors_.solve(-sums);
        const bool settled = step.cwiseAbs().maxCoeff() < kSettled_V;
        double length = 1;
        Eigen::VectorXd next = v_ + step;
        residual(next, x, t, next_sums);
        while (fresh && !settled && length > 1e-3 &&
               !(next_sums.norm() < sums.norm() * (1 - 1e-4 * length))) {
            length /= 2;
            next = v_ + length * step;
            residual(next, x, t, next_sums);
        }
        if (!fresh && !settled && !(next_sums.norm() <= serves * sums.norm())) {
            factored_ = false;
            continue;
        }
        v_ = next;
        sums = next_sums;
        if (settled || sums.norm() < kNothing_A) return true;
    }
    v_ = best;
    factored_ = false;
    return false;
}

// Where Newton's method cycles between the limits of sources and supplies that give up, the nodes are let go
// little by little, as if each had a capacitor: pseudo-transient continuation (Kelley and Keyes 1998, from
// memory). It ends where the circuit itself would come to rest from its last volts.
bool StartCircuit::creep(const Values& x, double t) {
    constexpr double first_S = 1e3, loose_S = 1e-3;
    Eigen::VectorXd sums, next_sums;
    residual(v_, x, t, sums);
    double hold_S = first_S, last = sums.norm();
    for (int k = 0; k < kMostCreeps; ++k) {
        factored_ = false;
        if (!factorise(x, t, hold_S)) return false;
        const Eigen::VectorXd step = factors_.solve(-sums);
        const Eigen::VectorXd next = v_ + step;
        residual(next, x, t, next_sums);
        const double norm = next_sums.norm();
        if (!std::isfinite(norm) || norm > 4 * last + 1e-9) {
            if (hold_S > 1e12) return false;
            hold_S *= 8;
            continue;
        }
        v_ = next;
        sums = next_sums;
        if ((step.cwiseAbs().maxCoeff() < kSettled_V && hold_S < loose_S) || norm < kNothing_A) return true;
        hold_S = std::max(1e-12, hold_S * std::clamp(norm / std::max(last, 1e-300), 0.1, 0.7));
        last = norm;
    }
    return false;
}

bool StartCircuit::solve(const Values& x, double t) {
    const Eigen::VectorXd from = v_;
    if (newton(x, t)) return true;
    v_ = from;
    const bool found = creep(x, t);
    factored_ = false;  // they hold the nodes
    if (!found) v_ = from;
    return found;
}

void StartCircuit::slopes(const Values& x, double t, Values& dxdt) const {
    dxdt.assign(states_, 0);
    for (std::size_t k = 0; k < net_.batteries.size(); ++k) {
        const BatteryElement& b = net_.batteries[k];
        const double gives_V = battery_law_at(k, volts(b.pos, b.neg), x).current_A * b.R0_ohm;
        // they follow the current: v' = (i R - v) / tau, from rest
        dxdt[2 * k] = (gives_V * share1_ - x[2 * k]) / tau1_s_;
        dxdt[2 * k + 1] = (gives_V * share2_ - x[2 * k + 1]) / tau2_s_;
    }
    for (const Starter& s : starters_) {
        if (s.kind == StartKind::step) continue;
        if (t < s.on_at_s || dead_[s.load]) continue;
        const double amps = load_A(s.load, x, t);
        const LoadElement& l = net_.loads[s.load];
        if (s.kind == StartKind::motor) dxdt[s.state] = (amps - s.run_A) * s.ohm / s.tau_s;
        if (s.kind == StartKind::capacitor)  // what runs hangs on them, not on its cable
            dxdt[s.state] = (amps - running_law(s.load, x[s.state], t).current_A) / s.farad;
        if (s.kind == StartKind::lamp)
            dxdt[s.state] = (volts(l.pos, l.neg) * amps / s.rated_W - x[s.state]) / s.tau_s;
    }
}

}  // namespace yr
