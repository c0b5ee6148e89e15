#include "guard/starting.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "catalog/assumptions.h"
#include "guard/start_integration.h"
#include "guard/start_watch.h"

namespace yr {
namespace {

constexpr double kMost_s = 600;
constexpr double kLeastSteps = 60;
constexpr int kMostSteps = 20000;

Starter starter_of(const Plan& plan, const Load& load, std::size_t index, const LoadResult& runs,
                   const LoadElement& element) {
    Starter s;
    s.load = index;
    const double V = std::max(runs.voltage_V, 1.0);
    s.kind = load.start.value_or(load.inrush_A || load.starter ? StartKind::motor : StartKind::step);
    if (s.kind == StartKind::motor) {
        s.run_A = runs.current_A;
        const double stall_A = load.inrush_A ? *load.inrush_A * load.count : 0;
        s.ohm = load.starter && stall_A <= 0 && element.kind == DrawKind::resistance
                    ? element.value * assumption("starter_stall_share").value
                    : plan.vehicle.nominal_V / std::max(stall_A, 1.05 * s.run_A + 1e-3);
        s.tau_s = load.inrush_s.value_or(assumption("motor_start_s").value) / 3;
    } else if (s.kind == StartKind::lamp) {
        s.ohm = V / std::max(runs.current_A, 1e-6);
        s.rated_W = std::max(runs.power_W, 1e-6);
        s.tau_s = load.inrush_s.value_or(assumption("lamp_warm_s").value);
    } else if (s.kind == StartKind::capacitor) {
        s.ohm = load.inrush_A ? plan.vehicle.nominal_V / (*load.inrush_A * load.count)
                              : assumption("capacitor_mohm").value * 1e-3;
        s.farad = load.inrush_s ? *load.inrush_s / 3 / s.ohm
                                : assumption("capacitor_F_per_W").value * std::max(runs.power_W, 10.0);
    }
    return s;
}

// Seconds after the switch at which it gets its volts: its own delay, and what its feed waits for.
double waits_s(const Plan& plan, const Load& load) {
    double wait = load.live_when.delay_s.value_or(0);
    for (const Run& r : plan.runs) {
        if (r.to != pos_of(load.id) && r.from != pos_of(load.id)) continue;
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::switching)
                wait = std::max(wait, d.closed_when.delay_s.value_or(0) + d.delay_s.value_or(0));
    }
    return wait;
}

Starter inverter_starter(const Inverter& inverter) {
    Starter s;
    s.kind = StartKind::capacitor;
    s.ohm = assumption("capacitor_mohm").value * 1e-3;
    s.farad = assumption("capacitor_F_per_W").value *
              inverter.continuous_W.value_or(assumption("inverter_continuous_W").value);
    return s;
}

// An inverter and what starts behind it are one for the rail: its capacitors where it comes on itself, and
// the starts of all its loads that come on together.
std::optional<Starter> mains_starter(const Plan& plan, const State& state, std::size_t index,
                                     const std::function<bool(const Id&)>& wants, const Solution& end) {
    const Inverter& inverter = plan.inverters[index];
    const std::size_t in_network = plan.loads.size() + index;
    if (end.point.loads[in_network].status != LoadStatus::on) return std::nullopt;
    double own_W = 0, start_W = 0, longest_s = 0;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& l = plan.loads[k];
        if (l.inverter != inverter.id || !wants(l.id) || end.point.loads[k].status != LoadStatus::on)
            continue;
        own_W += l.draw.value * l.count;
        start_W += std::max(l.draw.value, l.start_W.value_or(0)) * l.count;
        if (l.start_W)
            longest_s = std::max(longest_s, l.inrush_s.value_or(assumption("motor_start_s").value));
    }
    const bool comes_on = wants(inverter.id);
    if (!comes_on && own_W <= 0) return std::nullopt;
    Starter s = comes_on ? inverter_starter(inverter) : Starter{};
    s.load = in_network;
    std::vector<AssumptionUse> uses;
    const double run_W = inverter_ac_W(plan, inverter, state);
    if (!comes_on) s.rest_W = inverter_input_W(inverter, std::max(0.0, run_W - own_W), uses);
    if (longest_s > 0) {
        s.surge_W = inverter_input_W(inverter, run_W - own_W + start_W, uses);
        s.surge_s = longest_s;
    }
    return s;
}

Result<std::vector<Starter>> starters_of(const Plan& plan, const StartAsk& ask, const Solution& end) {
    const std::function<bool(const Id&)> wants = [&](const Id& id) {
        return ask.starts.empty() || std::find(ask.starts.begin(), ask.starts.end(), id) != ask.starts.end();
    };
    for (const Id& id : ask.starts)
        if (!find(plan.loads, id) && !find(plan.inverters, id))
            return fail(ErrorCode::missing_reference, "starts", id, Want::a_load_or_inverter_of_this_plan);
    std::vector<Starter> starters;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& l = plan.loads[k];
        if (!wants(l.id)) continue;
        if (end.point.loads[k].status != LoadStatus::on) {
            if (!ask.starts.empty())
                return fail(ErrorCode::missing_reference, "starts", l.name,
                            {Want::something_that_runs_in, plan.states[ask.state].name});
            continue;
        }
        if (!l.inverter.empty()) continue;
        starters.push_back(starter_of(plan, l, k, end.point.loads[k], end.network.loads[k]));
        starters.back().on_at_s = waits_s(plan, l);
    }
    for (std::size_t k = 0; k < plan.inverters.size(); ++k)
        if (auto s = mains_starter(plan, plan.states[ask.state], k, wants, end)) starters.push_back(*s);
    return starters;
}

class Recorder {
  public:
    Recorder(const Plan& plan, const StartCircuit& system, const OperatingPoint& end, StartStudy& out)
        : plan_(plan), system_(system), out_(out) {
        for (std::size_t k = 0; k < plan.loads.size(); ++k)
            if (end.loads[k].status == LoadStatus::on && plan.loads[k].inverter.empty()) {
                out.loads.push_back(plan.loads[k].id);
                shown_.push_back(k);
            }
        out.load_V.resize(shown_.size());
        out.run_A.resize(plan.runs.size());
        for (std::size_t r = 0; r < plan.runs.size(); ++r)
            for (const Device& d : plan.runs[r].devices)
                if (d.kind == DeviceKind::fuse) {
                    out.fuses.push_back({r, d.id, 0, 0, 0});
                    fuses_.push_back(&d);
                }
    }

    void take(double t, const StartCircuit::Values& x) {
        const Network& net = system_.network();
        const double dt = out_.t_s.empty() ? 0 : t - out_.t_s.back();
        out_.t_s.push_back(t);
        out_.bus_V.push_back(!net.batteries.empty()
                                 ? system_.volts(net.batteries[0].pos, net.batteries[0].neg)
                             : !net.sources.empty() ? system_.volts(net.sources[0].out, net.sources[0].neg)
                                                    : 0);
        double total = 0;
        for (const Starter& s : system_.starters()) total += system_.load_A(s.load, x, t);
        out_.total_A.push_back(total);
        for (std::size_t k = 0; k < shown_.size(); ++k) {
            const LoadElement& l = net.loads[shown_[k]];
            out_.load_V[k].push_back(system_.volts(l.pos, l.neg));
        }
        for (std::size_t r = 0; r < plan_.runs.size(); ++r) out_.run_A[r].push_back(system_.conductor_A(r));
        for (std::size_t k = 0; k < fuses_.size(); ++k) {
            FuseWarming& f = out_.fuses[k];
            const auto& amps = out_.run_A[f.run];
            f.peak_A = std::max(f.peak_A, std::abs(amps.back()));
            if (dt <= 0) continue;
            const double before = amps[amps.size() - 2],
                         mean2 = (before * before + amps.back() * amps.back()) / 2;
            f.i2t_A2s += mean2 * dt;
            f.used +=
                dt /
                opening_time(fuse_kind(fuses_[k]->fuse), std::sqrt(mean2) / fuses_[k]->rating_A).earliest_s;
        }
    }

  private:
    const Plan& plan_;
    const StartCircuit& system_;
    StartStudy& out_;
    std::vector<std::size_t> shown_;
    std::vector<const Device*> fuses_;
};

// Follows the circuit to the end of what was asked, from one moment to the next at which something new
// happens. False where the integration fails, is cancelled or takes too many steps before.
bool follow(StartCircuit& circuit, StartIntegration& run, Recorder& record, double seconds, StartWatch& watch,
            const std::atomic<bool>* cancel) {
    std::vector<double> moments{seconds};
    for (const Starter& s : circuit.starters())
        for (const double t : {s.on_at_s, s.surge_s > 0 ? s.on_at_s + s.surge_s : 0.0})
            if (t > 0 && t < seconds) moments.push_back(t);
    std::sort(moments.begin(), moments.end());
    const auto margin = [&] { return watch.margin_V(); };
    if (!run.begin(0) || !watch.let_go(run)) return false;
    record.take(0, run.x());
    auto next = moments.begin();
    for (int steps = 0; run.t_s() < seconds * (1 - 1e-9); ++steps) {
        if (steps > kMostSteps || (cancel && *cancel)) return false;
        const auto step = run.step(*next, margin);
        if (step == StartIntegration::Step::failed) return false;
        record.take(run.t_s(), run.x());
        if (!watch.let_go(run)) return false;
        while (next + 1 != moments.end() && run.t_s() >= *next * (1 - 1e-12)) ++next;
    }
    return true;
}

}  // namespace

Result<StartStudy> study_start(const Plan& plan, const StartAsk& ask, const std::atomic<bool>* cancel) {
    if (!(ask.seconds > 0 && ask.seconds <= kMost_s))
        return fail(ErrorCode::out_of_range, "seconds", {}, Want::more_than_0_and_at_most_600_s);
    const Solution end = solve(plan, plan.states[ask.state]);
    auto starters = starters_of(plan, ask, end);
    if (!starters) return tl::unexpected(starters.error());

    Network rest = end.network;  // before: the same switches, the starters still
    for (const Starter& s : *starters) {
        if (s.rest_W > 0)
            rest.loads[s.load].value = s.rest_W;
        else
            rest.loads[s.load].wanted = false;
    }
    const OperatingPoint before = solve(rest);

    StartStudy out;
    StartCircuit circuit(end.network, end.point, *starters);
    circuit.begin_at(before.node_V);
    StartIntegration run(circuit, ask.seconds / kLeastSteps);
    Recorder record(plan, circuit, end.point, out);
    if (!plan.batteries.empty())
        out.bus = plan.batteries[0].id, out.before_V = before.batteries[0].voltage_V;
    else if (!plan.sources.empty())
        out.bus = plan.sources[0].id, out.before_V = before.sources[0].voltage_V;
    StartWatch watch(plan, circuit, end.point, out.events);
    out.finished = follow(circuit, run, record, ask.seconds, watch, cancel);
    out.least_bus_V =
        out.bus_V.empty() ? out.before_V : *std::min_element(out.bus_V.begin(), out.bus_V.end());
    std::erase_if(out.fuses, [](const FuseWarming& f) { return f.peak_A < 1e-3; });
    std::stable_sort(out.fuses.begin(), out.fuses.end(),
                     [](const FuseWarming& a, const FuseWarming& b) { return a.used > b.used; });
    return out;
}

}  // namespace yr
