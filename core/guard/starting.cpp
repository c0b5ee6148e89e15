#include "guard/starting.h"

#include <ida/ida.h>
#include <nvector/nvector_serial.h>
#include <sunlinsol/sunlinsol_dense.h>
#include <sunmatrix/sunmatrix_dense.h>

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"

namespace yr {
namespace {

constexpr double kLeak_S = 1e-9;
constexpr double kMost_s = 600;
constexpr int kMostSteps = 20000;

std::size_t at(int k) {
    return static_cast<std::size_t>(k);
}

// Owners of SUNDIALS' handles.
struct Context {
    SUNContext value = nullptr;
    Context() { SUNContext_Create(nullptr, &value); }
    ~Context() { SUNContext_Free(&value); }
    Context(const Context&) = delete;
    Context& operator=(const Context&) = delete;
};
struct Vector {
    N_Vector value;
    Vector(std::size_t n, SUNContext c) : value(N_VNew_Serial(static_cast<sunindextype>(n), c)) {
        N_VConst(0, value);
    }
    ~Vector() { N_VDestroy(value); }
    Vector(const Vector&) = delete;
    Vector& operator=(const Vector&) = delete;
    double* data() { return N_VGetArrayPointer(value); }
};

// How one thing that starts behaves.
struct Starter {
    StartKind kind = StartKind::step;
    std::size_t load = 0;  // in the network
    double run_A = 0;      // motor: once it runs
    double ohm = 0;        // motor winding, hot filament, capacitor's series resistance
    double tau_s = 0;      // motor, filament
    double farad = 0;
    double rated_W = 0;               // filament at the working point
    std::size_t state = 0;            // index of its variable
    double surge_W = 0, surge_s = 0;  // step: watts for so long instead of its own
};

class System {
  public:
    System(Network net, const OperatingPoint& end, std::vector<Starter> starters)
        : net_(std::move(net)), end_(end), starters_(std::move(starters)) {
        nodes_ = net_.nodes.size();
        std::size_t n = nodes_ + 2 * net_.batteries.size();
        for (Starter& s : starters_) {
            s.state = n;
            if (s.kind != StartKind::step) ++n;
        }
        size_ = n;
        for (std::size_t k = 0; k < net_.conductors.size(); ++k)
            ohm_.push_back(net_.conductors[k].fixed_ohm + end_.conductors[k].cable_ohm);
        starter_of_.assign(net_.loads.size(), nullptr);
        for (const Starter& s : starters_) starter_of_[s.load] = &s;
        for (const MemoryElement& m : net_.memories)
            if (m.kind == MemoryKind::coil && m.conductor >= 0 && m.coil_load >= 0 &&
                net_.conductors[at(m.conductor)].closed)
                coils_.push_back(&m);
    }

    [[nodiscard]] std::size_t size() const { return size_; }
    [[nodiscard]] std::size_t nodes() const { return nodes_; }
    [[nodiscard]] const std::vector<const MemoryElement*>& coils() const { return coils_; }
    [[nodiscard]] Network& network() { return net_; }
    [[nodiscard]] const std::vector<Starter>& starters() const { return starters_; }
    [[nodiscard]] bool differential(std::size_t k) const { return k >= nodes_; }

    [[nodiscard]] double coil_V(const MemoryElement& m, const double* y) const {
        const LoadElement& l = net_.loads[at(m.coil_load)];
        return y[l.pos] - y[l.neg];
    }

    // Current of a load at these values, from pos to neg.
    [[nodiscard]] double load_A(std::size_t k, double t, const double* y) const {
        const LoadElement& l = net_.loads[k];
        if (!l.wanted || l.inverter >= 0 || dead_[k]) return 0;
        const double u = y[l.pos] - y[l.neg];
        if (const Starter* s = starter_of_[k]) {
            if (s->kind == StartKind::motor || s->kind == StartKind::capacitor)
                return (u - y[s->state]) / s->ohm;
            if (s->kind == StartKind::lamp) return u / filament_ohm(*s, y[s->state]);
            if (s->surge_s > 0 && t < s->surge_s) return power_A(s->surge_W, u);
        }
        switch (l.kind) {
            case DrawKind::current:
                return l.value * std::clamp(u / (0.2 * net_.nominal_V), 0.0, 1.0);
            case DrawKind::power:
                return power_A(l.value, u);
            case DrawKind::resistance:
                return u / l.value;
        }
        return 0;
    }

    void residual(double t, const double* y, const double* dy, double* r) const {
        std::fill(r, r + size_, 0.0);
        for (std::size_t k = 0; k < nodes_; ++k) r[k] = kLeak_S * y[k];
        const auto flow = [&](NodeIndex a, NodeIndex b, double amps) {
            r[a] += amps;
            r[b] -= amps;
        };
        for (std::size_t k = 0; k < net_.conductors.size(); ++k) {
            const ConductorElement& c = net_.conductors[k];
            if (c.closed) flow(c.from, c.to, conductor_A(k, y));
        }
        for (std::size_t k = 0; k < net_.batteries.size(); ++k) {
            const BatteryElement& b = net_.batteries[k];
            const std::size_t slow = nodes_ + 2 * k;
            const double give = battery_A(k, y);
            flow(b.neg, b.pos, give);
            // the slow parts follow the current: v' = (i R - v) / tau, from rest
            r[slow] = dy[slow] - (give * b.R0_ohm * share1_ - y[slow]) / tau1_;
            r[slow + 1] = dy[slow + 1] - (give * b.R0_ohm * share2_ - y[slow + 1]) / tau2_;
        }
        for (std::size_t k = 0; k < net_.sources.size(); ++k) {
            const SourceElement& s = net_.sources[k];
            if (!s.works) continue;
            const double u = y[s.out] - y[s.neg];
            const double give = std::clamp((s.set_V - u) / std::max(s.droop_ohm, 1e-6), 0.0, s.limit_A);
            flow(s.neg, s.out, give);
            if (s.in != kNoNode && end_.sources[k].input_A > 0)
                flow(s.in, s.neg, power_A(give * u / s.efficiency + s.standby_W, y[s.in] - y[s.neg]));
        }
        for (std::size_t k = 0; k < net_.loads.size(); ++k) {
            const double amps = load_A(k, t, y);
            if (amps != 0) flow(net_.loads[k].pos, net_.loads[k].neg, amps);
        }
        r[net_.reference] = y[net_.reference];
        for (const Starter& s : starters_) starter_residual(s, t, y, dy, r);
    }

    [[nodiscard]] double conductor_A(std::size_t k, const double* y) const {
        const ConductorElement& c = net_.conductors[k];
        return c.closed ? conductor_current_A(c, ohm_[k] - c.fixed_ohm, y[c.from] - y[c.to]) : 0;
    }

    void set_dead(const OperatingPoint& p) {
        dead_.assign(net_.loads.size(), 0);
        for (std::size_t k = 0; k < net_.loads.size(); ++k)
            dead_[k] = p.loads[k].status != LoadStatus::on && !starter_of_[k];
    }

  private:
    [[nodiscard]] double power_A(double watts, double u) const {
        const double least =
            0.3 * net_.nominal_V;  // below that a supply gives up: its current falls with the volts
        return u >= least ? watts / u : watts / least * std::max(u, 0.0) / least;
    }
    [[nodiscard]] static double filament_ohm(const Starter& s, double warm) {
        static const double cold = assumption("lamp_cold_share").value;
        return s.ohm * (cold + (1 - cold) * std::clamp(warm, 0.0, 2.0));
    }
    [[nodiscard]] double battery_A(std::size_t k, const double* y) const {
        const BatteryElement& b = net_.batteries[k];
        const std::size_t slow = nodes_ + 2 * k;
        const double i = (b.open_V - y[slow] - y[slow + 1] - (y[b.pos] - y[b.neg])) / b.R0_ohm;
        return std::max(i, -b.accept_A);
    }
    void starter_residual(const Starter& s, double t, const double* y, const double* dy, double* r) const {
        if (s.kind == StartKind::step) return;
        const double amps = load_A(s.load, t, y);
        const LoadElement& l = net_.loads[s.load];
        const double u = y[l.pos] - y[l.neg];
        if (s.kind == StartKind::motor) r[s.state] = dy[s.state] - (amps - s.run_A) * s.ohm / s.tau_s;
        if (s.kind == StartKind::capacitor) r[s.state] = dy[s.state] - amps / s.farad;
        if (s.kind == StartKind::lamp)
            r[s.state] = dy[s.state] - (u * amps / s.rated_W - y[s.state]) / s.tau_s;
    }

    Network net_;
    const OperatingPoint& end_;
    std::vector<Starter> starters_;
    std::vector<const Starter*> starter_of_;
    std::vector<const MemoryElement*> coils_;
    std::vector<double> ohm_;
    std::vector<char> dead_;
    std::size_t nodes_ = 0, size_ = 0;
    double share1_ = assumption("battery_R1_share").value, tau1_ = assumption("battery_tau1_s").value;
    double share2_ = assumption("battery_R2_share").value, tau2_ = assumption("battery_tau2_s").value;
};

int ida_residual(realtype t, N_Vector y, N_Vector dy, N_Vector r, void* system) {
    static_cast<const System*>(system)->residual(t, N_VGetArrayPointer(y), N_VGetArrayPointer(dy),
                                                 N_VGetArrayPointer(r));
    return 0;
}

int ida_roots(realtype, N_Vector y, N_Vector, realtype* g, void* system) {
    const auto* s = static_cast<const System*>(system);
    for (std::size_t k = 0; k < s->coils().size(); ++k)
        g[k] = s->coil_V(*s->coils()[k], N_VGetArrayPointer(y)) - s->coils()[k]->open_V;
    return 0;
}

// One integration from 0 s on.
class Integration {
  public:
    Integration(System& system, const OperatingPoint& before)
        : system_(system),
          y_(system.size(), context_.value),
          dy_(system.size(), context_.value),
          id_(system.size(), context_.value),
          memory_(IDACreate(context_.value)) {
        for (std::size_t k = 0; k < system.nodes(); ++k) y_.data()[k] = before.node_V[k];
        // the slow parts are at rest against what the battery gives before: it stands at its solved volts
        for (std::size_t k = 0; k < system.size(); ++k) id_.data()[k] = system.differential(k) ? 1 : 0;
        IDAInit(memory_, ida_residual, 0, y_.value, dy_.value);
        IDASStolerances(memory_, 1e-6, 1e-7);
        IDASetUserData(memory_, &system_);
        IDASetId(memory_, id_.value);
        IDASetMaxNumSteps(memory_, kMostSteps);
        const auto n = static_cast<sunindextype>(system.size());
        matrix_ = SUNDenseMatrix(n, n, context_.value);
        solver_ = SUNLinSol_Dense(y_.value, matrix_, context_.value);
        IDASetLinearSolver(memory_, solver_, matrix_);
        IDASetErrHandlerFn(
            memory_, [](int, const char*, const char*, char*, void*) {}, nullptr);
        if (!system.coils().empty()) IDARootInit(memory_, static_cast<int>(system.coils().size()), ida_roots);
    }
    ~Integration() {
        IDAFree(&memory_);
        SUNLinSolFree(solver_);
        SUNMatDestroy(matrix_);
    }
    Integration(const Integration&) = delete;
    Integration& operator=(const Integration&) = delete;

    // Algebraic values and slopes that fit the differential ones. False where there are none.
    bool settle_in(double t, double ahead) {
        if (begun_) IDAReInit(memory_, t, y_.value, dy_.value);
        begun_ = true;
        if (IDACalcIC(memory_, IDA_YA_YDP_INIT, t + ahead) < 0) return false;
        return IDAGetConsistentIC(memory_, y_.value, dy_.value) >= 0;
    }

    enum class Step { went, rooted, failed };
    Step step(double until, double& t) {
        IDASetStopTime(memory_, until);
        const int flag = IDASolve(memory_, until, &t, y_.value, dy_.value, IDA_ONE_STEP);
        if (flag < 0) return Step::failed;
        return flag == IDA_ROOT_RETURN ? Step::rooted : Step::went;
    }
    void longest_step(double seconds) { IDASetMaxStep(memory_, seconds); }
    double* y() { return y_.data(); }

  private:
    Context context_;
    System& system_;
    Vector y_, dy_, id_;
    void* memory_;
    SUNMatrix matrix_ = nullptr;
    bool begun_ = false;
    SUNLinearSolver solver_ = nullptr;
};

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
            return fail(ErrorCode::missing_reference, "starts", id, "a load or inverter of this plan");
    std::vector<Starter> starters;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& l = plan.loads[k];
        const bool named = !ask.starts.empty() && wants(l.id);
        if (!wants(l.id)) continue;
        if (end.point.loads[k].status != LoadStatus::on) {
            if (named)
                return fail(ErrorCode::missing_reference, "starts", l.name,
                            "something that runs in " + plan.states[ask.state].name);
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
    Recorder(const Plan& plan, const System& system, const OperatingPoint& end, StartStudy& out)
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

    void take(double t, const double* y, Network& net) {
        const double dt = out_.t_s.empty() ? 0 : t - out_.t_s.back();
        out_.t_s.push_back(t);
        const auto& b = net.batteries;
        out_.bus_V.push_back(b.empty() ? 0 : y[b[0].pos] - y[b[0].neg]);
        double total = 0;
        for (const Starter& s : system_.starters()) total += system_.load_A(s.load, t, y);
        out_.total_A.push_back(total);
        for (std::size_t k = 0; k < shown_.size(); ++k) {
            const LoadElement& l = net.loads[shown_[k]];
            out_.load_V[k].push_back(y[l.pos] - y[l.neg]);
        }
        for (std::size_t r = 0; r < plan_.runs.size(); ++r)
            out_.run_A[r].push_back(system_.conductor_A(r, y));
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
    const System& system_;
    StartStudy& out_;
    std::vector<std::size_t> shown_;
    std::vector<const Device*> fuses_;
};

}  // namespace

Result<StartStudy> study_start(const Plan& plan, const StartAsk& ask) {
    if (!(ask.seconds > 0 && ask.seconds <= kMost_s))
        return fail(ErrorCode::out_of_range, "seconds", {}, "more than 0 and at most 600 s");
    const Solution end = solve(plan, plan.states[ask.state]);
    auto starters = starters_of(plan, ask, end);
    if (!starters) return tl::unexpected(starters.error());

    Network rest = end.network;  // before: the same switches, the starters still
    for (const Starter& s : *starters) rest.loads[s.load].wanted = false;
    const OperatingPoint before = solve(rest);

    StartStudy out;
    System system(end.network, end.point, *starters);
    system.set_dead(end.point);
    Integration run(system, before);
    Recorder record(plan, system, end.point, out);
    out.before_V = before.batteries.empty() ? 0 : before.batteries[0].voltage_V;
    double t = 0;
    run.longest_step(ask.seconds / 60);
    // Contactors whose coils no longer hold open; what that changes is settled anew, until all that are
    // closed hold.
    const auto let_go = [&](double now) {
        for (std::size_t round = 0; round <= system.coils().size(); ++round) {
            bool any = false;
            for (const MemoryElement* m : system.coils()) {
                ConductorElement& contact = system.network().conductors[at(m->conductor)];
                const double volts = system.coil_V(*m, run.y());
                if (!contact.closed || volts > m->open_V * (1 + 1e-6)) continue;
                out.events.push_back({now, m->id, volts});
                contact.closed = false;
                any = true;
            }
            if (!any) return round > 0 || run.settle_in(now, 1e-5);
            if (!run.settle_in(now, 1e-5)) return false;
        }
        return true;
    };
    bool good = run.settle_in(0, 1e-5) && let_go(0);
    if (good) record.take(0, run.y(), system.network());
    double next_stop = ask.seconds;
    for (const Starter& s : *starters)
        if (s.surge_s > 0) next_stop = std::min(next_stop, s.surge_s);
    while (good && t < ask.seconds * (1 - 1e-9)) {
        const auto step = run.step(next_stop, t);
        if (step == Integration::Step::failed) {
            good = false;
            break;
        }
        record.take(t, run.y(), system.network());
        if (step == Integration::Step::rooted) {
            good = let_go(t);
        } else if (t >= next_stop * (1 - 1e-12) && next_stop < ask.seconds) {
            next_stop = ask.seconds;
            good = run.settle_in(t, 1e-5);
        }
    }
    out.finished = good;
    out.least_bus_V =
        out.bus_V.empty() ? out.before_V : *std::min_element(out.bus_V.begin(), out.bus_V.end());
    std::erase_if(out.fuses, [](const FuseWarming& f) { return f.peak_A < 1e-3; });
    std::stable_sort(out.fuses.begin(), out.fuses.end(),
                     [](const FuseWarming& a, const FuseWarming& b) { return a.used > b.used; });
    return out;
}

}  // namespace yr
