#include "demand/demand.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "catalog/assumptions.h"
#include "demand/situations.h"
#include "network/laws.h"
#include "plan/rail_volts.h"
#include "solve/load_paths.h"

namespace yr {
namespace {

constexpr double kSurge_s = 5;          // an inverter's and a converter's peak; common practice
constexpr double kLowRail = 10.5 / 12;  // where an inverter without a stated cut-off is taken to stop
constexpr double kNothing_A = 0.01;
constexpr double kCranksShare = 0.5;

class Asking {
  public:
    Asking(const Plan& plan, const std::vector<Solution>& solutions)
        : plan_(plan), solutions_(solutions), demand_(plan.runs.size()) {}

    std::vector<RunDemand> all() {
        for (std::size_t s = 0; s < solutions_.size(); ++s)
            if (solutions_[s].point.settled) listed_state(s);
        for (const Situation& s : situations_of(plan_)) situation(s);
        ratings();
        boxes();
        for (RunDemand& d : demand_)
            std::stable_sort(d.items.begin(), d.items.end(),
                             [](const DemandItem& a, const DemandItem& b) { return a.amps > b.amps; });
        return std::move(demand_);
    }

  private:
    void ask(std::size_t run, const DemandItem& item) {
        if (item.amps < kNothing_A) return;
        for (DemandItem& known : demand_[run].items)
            if (known.kind == item.kind && known.who == item.who) {
                if (item.amps > known.amps) known = item;
                return;
            }
        demand_[run].items.push_back(item);
    }

    // The same circuit with what works in turns at rest.
    OperatingPoint at_rest(const Plan& plan, Network net) {
        for (std::size_t l = 0; l < plan.loads.size(); ++l)
            if (plan.loads[l].on_s) net.loads[l].wanted = net.loads[l].mains_wanted = false;
        for (ConductorElement& c : net.conductors) c.turn.reset();
        return solver_.solve(net);
    }

    // Amps of a run for ever, and those of its turns beside them.
    void flows(const Plan& plan, const Solution& s, DemandKind kind, const Id& who, const Id& state) {
        const Load* turning = nullptr;
        for (std::size_t l = 0; l < plan.loads.size(); ++l)
            if (plan.loads[l].on_s && s.point.loads[l].status == LoadStatus::on &&
                (!turning || *plan.loads[l].on_s > *turning->on_s))
                turning = &plan.loads[l];
        const OperatingPoint rest = turning ? at_rest(plan, s.network) : s.point;
        for (std::size_t k = 0; k < plan_.runs.size(); ++k) {
            const double amps = std::abs(s.point.conductors[k].current_A);
            const double lasting = rest.settled ? std::abs(rest.conductors[k].current_A) : amps;
            ask(k, {kind, who, state, std::min(amps, lasting), 0});
            if (turning && amps > lasting * 1.02 + kNothing_A)
                ask(k, {DemandKind::turn, turning->id, state, amps, *turning->on_s});
        }
    }

    // What is wanted and not served would draw all the same, once the supply is mended: its own cables and
    // fuses are for that.
    void unserved(const Plan& plan, const Solution& s) {
        for (std::size_t l = 0; l < plan.loads.size(); ++l) {
            const Load& load = plan.loads[l];
            const LoadElement& e = s.network.loads[l];
            if (s.point.loads[l].status != LoadStatus::collapsed || load.starter || e.inverter >= 0) continue;
            const double volts = rail_V(plan, load);
            const double amps = e.kind == DrawKind::current ? e.value
                                : e.kind == DrawKind::power ? e.value / volts
                                                            : volts / e.value;
            const DemandItem item = load.on_s ? DemandItem{DemandKind::turn, load.id, {}, amps, *load.on_s}
                                              : DemandItem{DemandKind::together, {}, {}, amps, 0};
            at_terminal(pos_of(load.id), item);
            at_terminal(neg_of(load.id), item);
        }
    }

    void listed_state(std::size_t index) {
        const Solution& s = solutions_[index];
        const State& state = plan_.states[index];
        if (state.key == Key::crank) {
            double most = 0;
            for (std::size_t l = 0; l < plan_.loads.size(); ++l)
                if (plan_.loads[l].starter) most = std::max(most, s.point.loads[l].current_A);
            for (std::size_t k = 0; k < plan_.runs.size(); ++k) {
                const double amps = std::abs(s.point.conductors[k].current_A);
                ask(k, {DemandKind::cranking, {}, state.id, amps, kCranking_s});
                if (most > 0 && amps > kCranksShare * most) demand_[k].cranks = true;
            }
            return;
        }
        flows(plan_, s, DemandKind::state, {}, state.id);
        unserved(plan_, s);
        const LoadPaths paths(s.network, s.point);
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            const Load& load = plan_.loads[l];
            if (!load.inrush_A || s.point.loads[l].status != LoadStatus::on ||
                s.network.loads[l].inverter >= 0)
                continue;
            const double more = *load.inrush_A * load.count - s.point.loads[l].current_A;
            if (more <= 0) continue;
            const double seconds = load.inrush_s.value_or(assumption("motor_start_s").value);
            for (const int k : paths.of(l))
                if (static_cast<std::size_t>(k) < plan_.runs.size())
                    ask(static_cast<std::size_t>(k),
                        {DemandKind::start, load.id, state.id,
                         std::abs(s.point.conductors[static_cast<std::size_t>(k)].current_A) + more, seconds,
                         std::abs(s.point.conductors[static_cast<std::size_t>(k)].current_A)});
        }
    }

    void situation(const Situation& situation) {
        const State& state = situation.plan.states.front();
        Network net = compile(situation.plan, state);
        net.lasts_s = 0;  // amps alone are asked for: as warm as they would be for ever is warm enough
        for (LoadElement& l : net.loads) l.on_s = 0;
        if (situation.loads_off)
            for (LoadElement& l : net.loads) l.wanted = l.mains_wanted = false;
        const Solution s = settle(std::move(net), solver_);
        if (!s.point.settled) return;
        flows(situation.plan, s, situation.kind, situation.who, {});
        unserved(situation.plan, s);
    }

    void at_terminal(const Terminal& terminal, const DemandItem& item) {
        for (std::size_t k = 0; k < plan_.runs.size(); ++k)
            if (plan_.runs[k].from == terminal || plan_.runs[k].to == terminal) ask(k, item);
    }

    // The least volts of the rail that a converter hangs on: of the vehicle's, or of what stands there where
    // that is another one (48 V before 12 V).
    double low_input_V(const Source& s) const {
        constexpr double kAnother = 1.45, kLow = 0.8;
        double most_V = 0;
        for (const Solution& x : solutions_) {
            const auto at = std::find(x.network.nodes.begin(), x.network.nodes.end(), in_of(s.id));
            if (x.point.settled && at != x.network.nodes.end())
                most_V =
                    std::max(most_V, x.point.node_V[static_cast<std::size_t>(at - x.network.nodes.begin())]);
        }
        const double nominal_V = plan_.vehicle.nominal_V;
        return most_V > kAnother * nominal_V ? kLow * most_V : kLowRail * nominal_V;
    }

    void ratings() {
        for (const Source& s : plan_.sources) {
            const double amps = rated_output_A(plan_, s);
            at_terminal(out_of(s.id), {DemandKind::rating, s.id, {}, amps, 0});
            if (s.surge_A) at_terminal(out_of(s.id), {DemandKind::surge, s.id, {}, *s.surge_A, kSurge_s});
            if (s.kind != SourceKind::converter) continue;
            const double volts = s.regulated_V.value_or(plan_.vehicle.nominal_V);
            const double input_V = s.enable_off_V.value_or(low_input_V(s));
            const double efficiency = s.efficiency.value_or(assumption("converter_efficiency").value);
            at_terminal(in_of(s.id), {DemandKind::rating, s.id, {}, amps * volts / efficiency / input_V, 0});
        }
        for (const Inverter& i : plan_.inverters) {
            const double volts = i.cutoff_V.value_or(kLowRail * plan_.vehicle.nominal_V);
            const double efficiency = i.efficiency.value_or(assumption("inverter_efficiency").value);
            for (const Terminal& t : {pos_of(i.id), neg_of(i.id)}) {
                if (i.continuous_W)
                    at_terminal(t, {DemandKind::rating, i.id, {}, *i.continuous_W / efficiency / volts, 0});
                if (i.surge_W)
                    at_terminal(t, {DemandKind::surge, i.id, {}, *i.surge_W / efficiency / volts, kSurge_s});
            }
        }
    }

    void boxes() {
        for (const Point& p : plan_.points) {
            if (p.channels.empty()) continue;
            double channels = 0;
            for (const Channel& c : p.channels) channels += c.rating_A.value_or(0);
            const double room = p.main_A && channels > 0 ? std::min(*p.main_A, channels)
                                                         : std::max(p.main_A.value_or(0), channels);
            for (std::size_t k = 0; k < plan_.runs.size(); ++k)
                if (plan_.runs[k].to == Terminal(p.id)) ask(k, {DemandKind::box, p.id, {}, room, 0});
        }
    }

    const Plan& plan_;
    const std::vector<Solution>& solutions_;
    std::vector<RunDemand> demand_;
    OperatingPointSolver solver_;
};

double rating_for_start(const DemandItem& item, const FuseKind& kind) {
    double low = item.settles_A * 0.5 + 1e-3, high = item.amps * 2;
    for (int k = 0; k < 40; ++k) {
        const double middle = std::sqrt(low * high);
        (used_by_start(kind, middle, item.amps, item.settles_A, item.seconds) < 1 ? high : low) = middle;
    }
    return high;
}

// Work of half a minute and more is no start: nobody puts a fuse of fewer amps before it, even where its
// curve holds so long (common practice, no source).
constexpr double kWork_s = 30;

double rating_for(const DemandItem& item, const FuseKind& kind, double air_C) {
    if (item.kind == DemandKind::box) return item.amps;
    const double colder = rerated_A(kind, 1, std::max(air_C, 25.0));
    if (item.kind == DemandKind::start) return rating_for_start(item, kind) / colder;
    if (item.seconds <= 0) return item.amps / kind.continuous_share;
    const double held = item.amps / held_multiple(kind, item.seconds) / colder;
    return item.kind == DemandKind::turn && item.seconds >= kWork_s ? std::max(held, item.amps) : held;
}

}  // namespace

double held_multiple(const FuseKind& kind, double seconds) {
    double low = 0.1, high = 100;
    for (int k = 0; k < 50; ++k) {
        const double middle = std::sqrt(low * high);
        (opening_time(kind, middle).earliest_s >= seconds ? low : high) = middle;
    }
    return std::max(low, kind.continuous_share);
}

double used_by_start(const FuseKind& kind, double rated_A, double start_A, double run_A, double seconds) {
    constexpr int kPieces = 60;
    double used = 0;
    for (int k = 0; k < kPieces; ++k) {
        const double t = (k + 0.5) / kPieces * seconds;
        const double amps = run_A + (start_A - run_A) * std::exp(-3 * t / seconds);
        used += seconds / kPieces / opening_time(kind, amps / rated_A).earliest_s;
    }
    return used;
}

const DemandItem* RunDemand::lasting() const {
    for (const DemandItem& i : items)
        if (i.seconds <= 0 && i.kind != DemandKind::box) return &i;
    return nullptr;
}

double RunDemand::lasting_A() const {
    const DemandItem* most = lasting();
    return most ? most->amps : 0;
}

double RunDemand::room_A() const {
    double most = 0;
    for (const DemandItem& i : items)
        if (i.kind == DemandKind::box) most = std::max(most, i.amps);
    return most;
}

std::vector<RunDemand> demand_of(const Plan& plan, const std::vector<Solution>& solutions) {
    return Asking(plan, solutions).all();
}

double least_rating_A(const RunDemand& demand, const FuseKind& kind, double air_C) {
    double least = 0;
    for (const DemandItem& i : demand.items) least = std::max(least, rating_for(i, kind, air_C));
    return least;
}

const DemandItem* decides(const RunDemand& demand, const FuseKind& kind) {
    const DemandItem* most = nullptr;
    for (const DemandItem& i : demand.items)
        if (!most || rating_for(i, kind, 25) > rating_for(*most, kind, 25)) most = &i;
    return most;
}

}  // namespace yr
