#include "guard/starting.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "guard/start_integration.h"

namespace yr {
namespace {

constexpr double kMost_s = 600;
constexpr double kLeastSteps = 60;

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

Starter inverter_starter(const Inverter& inverter, std::size_t index) {
    Starter s;
    s.load = index;
    s.kind = StartKind::capacitor;
    s.ohm = assumption("capacitor_mohm").value * 1e-3;
    s.farad = assumption("capacitor_F_per_W").value *
              inverter.continuous_W.value_or(assumption("inverter_continuous_W").value);
    return s;
}

Result<std::vector<Starter>> starters_of(const Plan& plan, const StartAsk& ask, const Solution& end) {
    const auto wants = [&](const Id& id) {
        return ask.starts.empty() || std::find(ask.starts.begin(), ask.starts.end(), id) != ask.starts.end();
    };
    for (const Id& id : ask.starts)
        if (!find(plan.loads, id) && !find(plan.inverters, id))
            return fail(ErrorCode::missing_reference, "starts", id, Want::a_load_or_inverter_of_this_plan);
    std::vector<Starter> starters;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& l = plan.loads[k];
        const bool named = !ask.starts.empty() && wants(l.id);
        if (!wants(l.id)) continue;
        if (end.point.loads[k].status != LoadStatus::on) {
            if (named)
                return fail(ErrorCode::missing_reference, "starts", l.name,
                            {Want::something_that_runs_in, plan.states[ask.state].name});
            continue;
        }
        if (l.inverter.empty()) {
            starters.push_back(starter_of(plan, l, k, end.point.loads[k], end.network.loads[k]));
        } else if (named && l.start_W) {  // its start is what the inverter passes on
            const auto i = static_cast<std::size_t>(find(plan.inverters, l.inverter) - plan.inverters.data());
            Starter s;
            s.load = plan.loads.size() + i;
            std::vector<AssumptionUse> uses;
            const double run_W = inverter_ac_W(plan, plan.inverters[i], plan.states[ask.state]);
            s.surge_W =
                inverter_input_W(plan.inverters[i], run_W + (*l.start_W - l.draw.value) * l.count, uses);
            s.surge_s = l.inrush_s.value_or(assumption("motor_start_s").value);
            starters.push_back(s);
        }
    }
    for (std::size_t k = 0; k < plan.inverters.size(); ++k) {
        const std::size_t index = plan.loads.size() + k;
        if (wants(plan.inverters[k].id) && end.point.loads[index].status == LoadStatus::on)
            starters.push_back(inverter_starter(plan.inverters[k], index));
    }
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
        const auto& b = net.batteries;
        out_.bus_V.push_back(b.empty() ? 0 : system_.volts(b[0].pos, b[0].neg));
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

// Contactors whose coils no longer hold open; what that changes is settled anew, until all that are closed
// hold. False where the circuit has no solution then.
bool let_go(StartCircuit& circuit, StartIntegration& run, std::vector<StartEvent>& events) {
    for (std::size_t round = 0; round <= circuit.coils().size(); ++round) {
        bool any = false;
        for (const MemoryElement* m : circuit.coils()) {
            const double volts = circuit.coil_V(*m);
            if (circuit.is_open(*m) || volts > m->open_V * (1 + 1e-6)) continue;
            events.push_back({run.t_s(), m->id, volts});
            circuit.open(*m);
            any = true;
        }
        if (!any) return true;
        if (!run.begin(run.t_s())) return false;
    }
    return true;
}

// How far the weakest coil that holds is from letting go, V.
double coil_margin_V(const StartCircuit& circuit) {
    double least = 1;
    for (const MemoryElement* m : circuit.coils())
        if (!circuit.is_open(*m)) least = std::min(least, circuit.coil_V(*m) - m->open_V);
    return least;
}

// Follows the circuit to the end of what was asked. False where the integration fails before.
bool follow(StartCircuit& circuit, StartIntegration& run, Recorder& record, double seconds, StartStudy& out) {
    const auto margin = [&] { return coil_margin_V(circuit); };
    if (!run.begin(0) || !let_go(circuit, run, out.events)) return false;
    record.take(0, run.x());
    double next_stop = seconds;
    for (const Starter& s : circuit.starters())
        if (s.surge_s > 0) next_stop = std::min(next_stop, s.surge_s);
    while (run.t_s() < seconds * (1 - 1e-9)) {
        const auto step = run.step(next_stop, margin);
        if (step == StartIntegration::Step::failed) return false;
        record.take(run.t_s(), run.x());
        if (step == StartIntegration::Step::rooted && !let_go(circuit, run, out.events)) return false;
        if (run.t_s() >= next_stop * (1 - 1e-12)) next_stop = seconds;
    }
    return true;
}

}  // namespace

Result<StartStudy> study_start(const Plan& plan, const StartAsk& ask) {
    if (!(ask.seconds > 0 && ask.seconds <= kMost_s))
        return fail(ErrorCode::out_of_range, "seconds", {}, Want::more_than_0_and_at_most_600_s);
    const Solution end = solve(plan, plan.states[ask.state]);
    auto starters = starters_of(plan, ask, end);
    if (!starters) return tl::unexpected(starters.error());

    Network rest = end.network;  // before: the same switches, the starters still
    for (const Starter& s : *starters) rest.loads[s.load].wanted = false;
    const OperatingPoint before = solve(rest);

    StartStudy out;
    StartCircuit circuit(end.network, end.point, *starters);
    circuit.begin_at(before.node_V);
    StartIntegration run(circuit, ask.seconds / kLeastSteps);
    Recorder record(plan, circuit, end.point, out);
    out.before_V = before.batteries.empty() ? 0 : before.batteries[0].voltage_V;
    out.finished = follow(circuit, run, record, ask.seconds, out);
    out.least_bus_V =
        out.bus_V.empty() ? out.before_V : *std::min_element(out.bus_V.begin(), out.bus_V.end());
    std::erase_if(out.fuses, [](const FuseWarming& f) { return f.peak_A < 1e-3; });
    std::stable_sort(out.fuses.begin(), out.fuses.end(),
                     [](const FuseWarming& a, const FuseWarming& b) { return a.used > b.used; });
    return out;
}

}  // namespace yr
