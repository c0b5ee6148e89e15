#include "meter/test_points.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "choice/zero_one.h"
#include "meter/faults.h"
#include "plan/roles.h"
#include "size/run_limits.h"
#include "solve/load_paths.h"

namespace yr {
namespace {

constexpr double kBadJoint_V = 0.1, kBadCable_V = 0.2,
                 kBadStarter_V = 0.5;   // service limits, common practice
constexpr double kLeast_A = 0.02;       // below, no joint there is worth a reading
constexpr double kIsolated_ohm = 1000;  // a supply cable against ground, loads off; common practice
constexpr double kNoLoad_V = 0.3;       // below the battery at an open plug; common practice

class Prover {
  public:
    explicit Prover(const Plan& plan) : plan_(plan), expecter_(plan) {}

    ProvePlan run() {
        isolation();
        continuity();
        no_load();
        charging();
        under_load();
        masters();
        standby();
        cranking();
        std::stable_sort(out_.points.begin(), out_.points.end(),
                         [](const TestPoint& a, const TestPoint& b) { return a.phase < b.phase; });
        return std::move(out_);
    }

  private:
    TestPoint& add(ProvePhase phase, Probing where, const Id& thing) {
        TestPoint& t = out_.points.emplace_back();
        t.phase = phase, t.where = std::move(where), t.thing = thing;
        t.expected = expecter_.of(t.where);
        t.low = t.expected.low(), t.high = t.expected.high();
        return t;
    }
    Terminal minus() const {
        return plan_.batteries.empty() ? Terminal() : neg_of(plan_.batteries.front().id);
    }

    void isolation() {
        for (const Battery& b : plan_.batteries) {
            TestPoint& t =
                add(ProvePhase::isolation, {ReadKind::ohms, pos_of(b.id), minus(), {}, {}, {}}, b.id);
            t.low = kIsolated_ohm, t.high = 1e9;
            t.expected = {kIsolated_ohm, 0, 0, true};
        }
        for (const Point& p : plan_.points) {
            if (!supply_.contains(p.id) || (p.kind != PointKind::box && p.kind != PointKind::bus)) continue;
            TestPoint& t = add(ProvePhase::isolation, {ReadKind::ohms, p.id, minus(), {}, {}, {}}, p.id);
            t.low = kIsolated_ohm, t.high = 1e9;
            t.expected = {kIsolated_ohm, 0, 0, true};
        }
    }

    // From each load's minus to the battery's, the leads' own ohms told; a good return adds nothing to them
    // that such a meter shows.
    void continuity() {
        for (const Load& l : plan_.loads) {
            if (l.later || !l.inverter.empty()) continue;
            if (!ohms_between(plan_, neg_of(l.id), minus())) continue;
            TestPoint& t =
                add(ProvePhase::continuity, {ReadKind::ohms, neg_of(l.id), minus(), {}, {}, {}}, l.id);
            t.low = 0, t.high = t.expected.high() + 0.2;
        }
    }

    const State* state_for(const Load& l) const {
        for (const State& s : plan_.states)
            if (s.key != Key::crank && s.rpm <= 0 && holds(l.live_when, s, l.id)) return &s;
        for (const State& s : plan_.states)
            if (s.key != Key::crank && holds(l.live_when, s, l.id)) return &s;
        return nullptr;
    }

    void no_load() {
        for (const Load& l : plan_.loads) {
            const State* s = state_for(l);
            if (!s || l.later || l.starter || !l.inverter.empty()) continue;
            Probing where{ReadKind::volts, pos_of(l.id), neg_of(l.id), {}, s->id, {l.id}};
            const auto v = expecter_.of(where);
            if (!v.solved || v.value < 0.5 * plan_.vehicle.nominal_V) continue;
            TestPoint& t = add(ProvePhase::no_load, where, l.id);
            t.low = std::min(t.low, t.expected.value - kNoLoad_V);
        }
    }

    const State* idling() const {
        for (const State& s : plan_.states)
            if (s.rpm > 0 && s.key != Key::crank) return &s;
        return nullptr;
    }

    void charging() {
        const State* s = idling();
        if (!s) return;
        for (const Battery& b : plan_.batteries)
            add(ProvePhase::charging, {ReadKind::volts, pos_of(b.id), neg_of(b.id), {}, s->id, {}}, b.id);
        for (const Run& r : plan_.runs)
            for (const Source& x : plan_.sources)
                if (r.from == out_of(x.id) || r.to == out_of(x.id)) {
                    const auto e = expecter_.of({ReadKind::amps, {}, {}, r.id, s->id, {}});
                    if (e.solved && std::abs(e.value) > 1)
                        add(ProvePhase::charging, {ReadKind::amps, {}, {}, r.id, s->id, {}}, x.id);
                }
    }

    // Each load's way there and back in a state in which it runs, as two readings: from the battery's plus to
    // its plus, from its minus to the battery's. The fewest of them that see every run and bond.
    struct Ask {
        Probing where;
        Id load;
        std::vector<std::size_t> sees;  // columns
        double weight = 1;
    };
    // What of a conductor is a fault: what would lose the service limit at this current.
    void under_load() {
        std::map<Id, std::size_t> column;
        std::vector<Id> ids;
        std::vector<Ask> asks;
        for (const State& s : plan_.states) {
            if (s.key == Key::crank) continue;
            Probing base;
            base.state = s.id;
            const Solution& x = expecter_.solution(base);
            if (!x.point.settled) continue;
            const LoadPaths paths(x.network, x.point);
            for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
                if (x.point.loads[l].status != LoadStatus::on || !plan_.loads[l].inverter.empty()) continue;
                for (const bool supply : {true, false}) ask_for(s, x, paths, l, supply, asks, column, ids);
            }
        }
        choose(asks, ids);
    }

    void ask_for(const State& s, const Solution& x, const LoadPaths& paths, std::size_t l, bool supply,
                 std::vector<Ask>& asks, std::map<Id, std::size_t>& column, std::vector<Id>& ids) {
        const Id& load = plan_.loads[l].id;
        const Id battery = nearest_battery(x, paths, static_cast<std::size_t>(l), supply);
        if (battery.empty()) return;
        Ask ask;
        ask.load = load;
        ask.where = supply ? Probing{ReadKind::volts, pos_of(battery), pos_of(load), {}, s.id, {}}
                           : Probing{ReadKind::volts, neg_of(load), neg_of(battery), {}, s.id, {}};
        const Expectation e = expecter_.of(ask.where);
        if (!e.solved) return;
        const double doubt = Expectation::kBand * e.spread + e.meter;
        for (const int c : paths.of(l)) {
            const ConductorElement& k = x.network.conductors[static_cast<std::size_t>(c)];
            if (k.run < 0 && k.ground_point < 0) continue;  // a starved load
            const bool on_supply =
                k.run >= 0 && supply_.is_supply(plan_.runs[static_cast<std::size_t>(k.run)]);
            const Run* run = k.run >= 0 ? &plan_.runs[static_cast<std::size_t>(k.run)] : nullptr;
            const bool feeds = on_supply || (run && (run->to == pos_of(load) || run->from == pos_of(load)));
            if (feeds != supply) continue;
            if (doubt > kBadJoint_V) continue;  // the band is wider than the fault
            const Id id = run ? run->id : plan_.points[static_cast<std::size_t>(k.ground_point)].id;
            if (!moves_out(s, x, c, id, ask.where, e)) continue;
            const auto [at, fresh] = column.emplace(id, ids.size());
            if (fresh) ids.push_back(id);
            ask.sees.push_back(at->second);
        }
        ask.weight = 1 + 0.001 * doubt;
        if (!ask.sees.empty()) asks.push_back(std::move(ask));
    }

    // Whether a fault there that loses a cable's service limit moves the reading out of its band: where other
    // ways lead round it, it may not.
    bool moves_out(const State& state, const Solution& x, int conductor, const Id& id, const Probing& where,
                   const Expectation& e) {
        const double amps = std::abs(x.point.conductors[static_cast<std::size_t>(conductor)].current_A);
        if (amps < kLeast_A) return false;
        auto found = compiled_.find(state.id);
        if (found == compiled_.end()) found = compiled_.emplace(state.id, network_for(plan_, where)).first;
        Network with = found->second;
        Fault f;
        f.kind = find(plan_.runs, std::string_view(id)) ? FaultKind::joint : FaultKind::ground, f.thing = id;
        put_in(with, plan_, f, kBadCable_V / amps);
        const auto v = value_at(settle_as_read(std::move(with), solver_), plan_, where);
        return v && *v > e.high();
    }

    Id nearest_battery(const Solution& x, const LoadPaths& paths, std::size_t l, bool supply) const {
        for (const int c : paths.of(l)) {
            const ConductorElement& k = x.network.conductors[static_cast<std::size_t>(c)];
            for (const NodeIndex n : {k.from, k.to})
                for (const Battery& b : plan_.batteries)
                    if (x.network.nodes[static_cast<std::size_t>(n)] ==
                        (supply ? pos_of(b.id) : neg_of(b.id)))
                        return b.id;
        }
        return plan_.batteries.empty() ? Id() : plan_.batteries.front().id;
    }

    void choose(const std::vector<Ask>& asks, const std::vector<Id>& ids) {
        ZeroOneProgram program;
        for (const Ask& a : asks) program.add_choice(a.weight);
        for (std::size_t c = 0; c < ids.size(); ++c) {
            std::vector<ZeroOneTerm> terms;
            for (std::size_t k = 0; k < asks.size(); ++k)
                if (std::find(asks[k].sees.begin(), asks[k].sees.end(), c) != asks[k].sees.end())
                    terms.push_back({static_cast<int>(k), 1});
            program.add_row(std::move(terms), RowSense::at_least, 1);
        }
        std::vector<char> chosen;
        if (const ZeroOneAnswer answer = program.solve({5}); answer.optimal()) {
            chosen = answer.chosen;
            out_.fewest = true;
        } else {
            chosen.assign(asks.size(), 1);
        }
        for (std::size_t k = 0; k < asks.size(); ++k) {
            if (!chosen[k]) continue;
            TestPoint& t = add(ProvePhase::under_load, asks[k].where, asks[k].load);
            t.low = std::min(t.low, 0.0);
            t.limit_V = kBadCable_V;
            for (const std::size_t c : asks[k].sees) t.sees.push_back(ids[c]);
        }
        for (const Run& r : plan_.runs)
            if (std::find(ids.begin(), ids.end(), r.id) == ids.end()) out_.unseen.push_back(r.id);
        for (const Point& p : plan_.points)
            if (p.kind == PointKind::ground && !p.bonded_to.empty() &&
                std::find(ids.begin(), ids.end(), p.id) == ids.end())
                out_.unseen.push_back(p.id);
    }

    // In a state of the plan in which a master's switch is off.
    void masters() {
        for (const Run& r : plan_.runs)
            for (const Device& d : r.devices) {
                if (!d.master) continue;
                const auto on = switches_of(d.closed_when);
                for (const State& s : plan_.states) {
                    const bool open = std::any_of(on.begin(), on.end(), [&](const std::string& name) {
                        return std::find(s.switches.begin(), s.switches.end(), name) == s.switches.end();
                    });
                    if (!open || s.key == Key::crank) continue;
                    TestPoint& t = add(ProvePhase::master, {ReadKind::volts, r.to, {}, {}, s.id, {}}, r.id);
                    t.low = std::min(t.low, 0.0), t.high = std::max(t.high, 0.2 * plan_.vehicle.nominal_V);
                    break;
                }
            }
    }

    void standby() {
        for (const State& s : plan_.states) {
            if (role_of(s) != StateRole::parked) continue;
            for (const Run& r : plan_.runs) {
                const bool negative = std::any_of(
                    plan_.batteries.begin(), plan_.batteries.end(),
                    [&](const Battery& b) { return r.from == neg_of(b.id) || r.to == neg_of(b.id); });
                if (!negative || supply_.is_supply(r)) continue;
                const auto e = expecter_.of({ReadKind::amps, {}, {}, r.id, s.id, {}});
                if (e.solved && std::abs(e.value) > 0.01)
                    add(ProvePhase::standby, {ReadKind::amps, {}, {}, r.id, s.id, {}}, r.id);
            }
            break;
        }
    }

    void cranking() {
        const State* s = state_of_role(plan_, StateRole::cranking);
        if (!s || plan_.batteries.empty()) return;
        Probing base;
        base.state = s->id;
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            const Solution& x = expecter_.solution(base);
            if (!plan_.loads[l].starter || !x.point.settled || x.point.loads[l].status != LoadStatus::on)
                continue;
            const Id load = plan_.loads[l].id;
            const LoadPaths paths(x.network, x.point);
            const Id battery = nearest_battery(x, paths, l, true);
            add(ProvePhase::cranking, {ReadKind::volts, pos_of(battery), neg_of(battery), {}, s->id, {}},
                battery);
            for (const bool supply : {true, false}) {
                TestPoint& t =
                    add(ProvePhase::cranking,
                        supply ? Probing{ReadKind::volts, pos_of(battery), pos_of(load), {}, s->id, {}}
                               : Probing{ReadKind::volts, neg_of(load), neg_of(battery), {}, s->id, {}},
                        load);
                t.low = 0, t.limit_V = kBadStarter_V;
            }
        }
    }

    const Plan& plan_;
    Expecter expecter_;
    OperatingPointSolver solver_;
    std::map<Id, Network> compiled_;  // by state
    SupplySide supply_{plan_};
    ProvePlan out_;
};

}  // namespace

ProvePlan test_points(const Plan& plan) {
    return Prover(plan).run();
}

Verdict verdict(const TestPoint& t, double value) {
    if (!t.expected.solved) return Verdict::cannot_tell;
    const bool drop = t.phase == ProvePhase::under_load;
    if (drop && Expectation::kBand * t.expected.spread + t.expected.meter > kBadJoint_V && value <= t.high)
        return Verdict::cannot_tell;
    return value > t.high ? Verdict::high : value < t.low ? Verdict::low : Verdict::good;
}

}  // namespace yr
