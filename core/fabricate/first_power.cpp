#include "fabricate/first_power.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "control/key_positions.h"
#include "size/run_limits.h"
#include "solve/settle.h"

namespace yr {
namespace {

constexpr double kTold_V = 0.5;      // what a hand meter or an eye on the lamp tells apart; common practice
constexpr double kShort_ohm = 0.01;  // a bolted mistake
constexpr double kDark_V = 0.05;
constexpr int kMostTurns = 40;
const char* const kNever = "~never";

struct Placed {
    const Run* run = nullptr;
    const Device* fuse = nullptr;
};

const Device* first_fuse(const Run& run) {
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse && !is_breaker(d.fuse)) return &d;
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse) return &d;
    return nullptr;
}

// As it stands behind a lamp.
Plan behind_a_lamp(const Plan& plan) {
    Plan p = plan;
    p.active.clear();
    for (Load& l : p.loads) {
        const double volts = l.plate_V.value_or(p.vehicle.nominal_V);
        if (!l.inverter.empty()) l.live_when.switches.emplace_back(kNever);
        if (l.draw.kind == DrawKind::power)
            l.draw = {DrawKind::resistance, volts * volts / l.draw.value};
        else if (l.draw.kind == DrawKind::current)
            l.draw = {DrawKind::resistance, volts / l.draw.value};
    }
    for (Inverter& i : p.inverters) i.works_when.switches.emplace_back(kNever);
    for (Source& s : p.sources) s.works_when.switches.emplace_back(kNever);
    for (Point& b : p.points) b.standby_W.reset(), b.sleep_W.reset();  // microamps until it wakes, then loads
    return p;
}

class Rounds {
  public:
    Rounds(const Plan& plan, const PowerAsk& ask)
        : plan_(plan), lamp_(test_lamp()), bench_(behind_a_lamp(ask.as_built ? *ask.as_built : plan)) {
        if (ask.lamp_W > 0) lamp_.watts = ask.lamp_W;
    }

    std::vector<PowerRound> run() {
        std::vector<PowerRound> rounds;
        for (const Battery& b : plan_.batteries)
            for (const Run& r : plan_.runs) {
                const Terminal post(b.id, Post::pos);
                if (r.from != post && r.to != post) continue;
                if (const Device* main = first_fuse(r))
                    rounds.push_back(round(b, {&r, main}, r.from == post ? r.to : r.from));
            }
        return rounds;
    }

  private:
    // Fuses behind a terminal, nearest first, and what hangs on it directly.
    struct Behind {
        std::vector<Placed> fuses;
        std::vector<Id> loads;  // with no fuse between
    };
    Behind behind(const Terminal& start, const Run* without) const {
        Behind out;
        std::set<Terminal> seen{start};
        std::vector<Terminal> next{start};
        for (std::size_t n = 0; n < next.size(); ++n) {
            if (const Load* l = find(plan_.loads, std::string_view(next[n].owner))) {
                if (next[n].post == Post::pos) out.loads.push_back(l->id);
                continue;
            }
            if (find(plan_.batteries, std::string_view(next[n].owner))) continue;
            for (const Run& r : plan_.runs) {
                if (&r == without || (r.from != next[n] && r.to != next[n])) continue;
                const Terminal& far = r.from == next[n] ? r.to : r.from;
                if (seen.contains(far) || !supply_.contains(far)) {
                    const Load* l = find(plan_.loads, std::string_view(far.owner));
                    if (seen.contains(far) || !l || far.post != Post::pos) continue;
                }
                seen.insert(far);
                if (const Device* f = first_fuse(r))
                    out.fuses.push_back({&r, f});
                else
                    next.push_back(far);
            }
        }
        return out;
    }
    // All fuses behind, level by level, with the loads that hang on each.
    struct Level {
        Placed placed;
        std::vector<Id> loads;
    };
    std::vector<Level> levels(const Terminal& start, const Run* without) const {
        std::vector<Level> out;
        std::set<Id> seen;
        std::vector<std::pair<Terminal, const Run*>> next{{start, without}};
        for (std::size_t n = 0; n < next.size(); ++n)
            for (const Placed& p : behind(next[n].first, next[n].second).fuses) {
                if (!seen.insert(p.fuse->id).second) continue;
                const Terminal far = far_end(*p.run, next[n].first);
                out.push_back({p, behind(far, p.run).loads});
                if (!find(plan_.batteries, std::string_view(far.owner))) next.emplace_back(far, p.run);
            }
        return out;
    }
    // Of a run that leaves what hangs together with `near`.
    Terminal far_end(const Run& run, const Terminal& near) const {
        std::set<Terminal> seen{near};
        std::vector<Terminal> next{near};
        for (std::size_t n = 0; n < next.size(); ++n) {
            if (run.from == next[n]) return run.to;
            if (run.to == next[n]) return run.from;
            for (const Run& r : plan_.runs)
                if ((r.from == next[n] || r.to == next[n]) && !first_fuse(r)) {
                    const Terminal& far = r.from == next[n] ? r.to : r.from;
                    if (seen.insert(far).second) next.push_back(far);
                }
        }
        return run.to;
    }

    PowerRound round(const Battery& b, const Placed& main, const Terminal& far) {
        PowerRound out;
        out.battery = b.id, out.main = main.fuse->id, out.run = main.run->id;
        const auto hang = levels(far, main.run);
        in_ = {main.fuse->id};
        closed_ = master_switches(plan_);
        const State off = state_at(plan_, KeyPosition::off, closed_);
        const auto direct = behind(far, main.run).loads;
        for (const PowerAct act : {PowerAct::ohms, PowerAct::lamp_in, PowerAct::negative}) {
            PowerStep s;
            s.act = act, s.fuse = main.fuse->id, s.run = main.run->id, s.state = off, s.loads = direct;
            if (act == PowerAct::negative) read(s, main, far);
            out.steps.push_back(std::move(s));
        }
        for (const Level& l : hang) {
            in_.insert(l.placed.fuse->id);
            PowerStep s;
            s.act = PowerAct::fuse_in, s.fuse = l.placed.fuse->id, s.run = l.placed.run->id;
            s.loads = l.loads, s.state = off;
            const Terminal behind_it = far_end(*l.placed.run, far);
            read(s, main, behind_it);
            out.steps.push_back(s);
            for (const Id& id : l.loads) switch_on(out, s, id, main, behind_it);
            // out again, so that the lamp tells the next one alone; a feed of others stays in
            if (levels(behind_it, l.placed.run).empty()) in_.erase(l.placed.fuse->id);
        }
        for (const Level& l : hang) in_.insert(l.placed.fuse->id);
        PowerStep all;
        all.act = PowerAct::all_in, all.fuse = main.fuse->id, all.run = main.run->id, all.state = off;
        read(all, main, far);
        out.steps.push_back(std::move(all));
        return out;
    }

    // One load of the circuit after another, where a key position without the engine makes it live.
    void switch_on(PowerRound& out, PowerStep s, const Id& id, const Placed& main,
                   const Terminal& behind_it) {
        const Load* load = find(plan_.loads, std::string_view(id));
        if (!load || load->later || load->starter) return;
        const LiveAt live = wanted_at(plan_, *load);
        if (live[0]) return;  // drew as soon as its fuse went in
        for (const KeyPosition at : {KeyPosition::accessory, KeyPosition::ignition}) {
            if (!live[static_cast<std::size_t>(at)]) continue;
            std::vector<std::string> on = switches_for(plan_, *load);
            on.insert(on.end(), closed_.begin(), closed_.end());
            s.act = PowerAct::switch_on, s.loads = {id}, s.state = state_at(plan_, at, on);
            read(s, main, behind_it);
            // a relay whose coil has its fuse out keeps it dark: told with all fuses in
            if (s.lamp_V > kDark_V) out.steps.push_back(s);
            return;
        }
    }

    // Volts across the lamp, its resistance following them.
    void read(PowerStep& s, const Placed& main, const Terminal& behind_it) {
        s.lamp_V = lamp_V(s.state, main, nullptr, s.solved);
        s.lamp_A = s.lamp_V / lamp_.ohm_at(s.lamp_V, plan_.vehicle.nominal_V);
        bool solved = true;
        s.shorted_V = lamp_V(s.state, main, &behind_it, solved);
        s.solved = s.solved && solved;
        s.told_apart = std::abs(s.shorted_V - s.lamp_V) >= kTold_V;
        s.behind_switch = s.act == PowerAct::fuse_in && !s.told_apart;
    }

    double lamp_V(State state, const Placed& main, const Terminal* shorted, bool& solved) {
        Plan p = bench_;
        for (const Run& r : p.runs)
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse && !in_.contains(d.id)) state.pulled.push_back(d.id);
        Run* lamp_run = nullptr;
        for (Run& r : p.runs)
            if (r.id == main.run->id) lamp_run = &r;
        if (!lamp_run) return solved = false, 0;
        Device* lamp = nullptr;
        for (Device& d : lamp_run->devices)
            if (d.id == main.fuse->id) lamp = &d;
        if (!lamp) return solved = false, 0;
        if (shorted) {
            Run wrong;
            wrong.id = "~short", wrong.name = wrong.id, wrong.from = *shorted;
            wrong.to = Terminal(main_battery(main), Post::neg), wrong.resistance_ohm = kShort_ohm;
            wrong.body_metal = false;
            p.runs.push_back(wrong);
            for (Run& r : p.runs)
                if (r.id == main.run->id)
                    for (Device& d : r.devices)
                        if (d.id == main.fuse->id) lamp = &d;
        }
        const double volts_at = p.vehicle.nominal_V;
        // What the lamp would show with its filament as hot as at `volts`, the same at the end: by secants,
        // and halfway where a secant leads nowhere.
        double volts = volts_at / 2, before = 0, before_next = 0;
        for (int turn = 0; turn < kMostTurns; ++turn) {
            lamp->resistance_ohm = lamp_.ohm_at(volts, volts_at);
            const Solution s = solve(p, state);
            if (!s.point.settled) return solved = false, 0;
            double amps = 0;
            for (std::size_t k = 0; k < s.network.conductors.size(); ++k)
                if (const int run = s.network.conductors[k].run;
                    run >= 0 && p.runs[static_cast<std::size_t>(run)].id == main.run->id)
                    amps = std::abs(s.point.conductors[k].current_A);
            const double next = amps * *lamp->resistance_ohm;
            if (std::abs(next - volts) < 1e-4) return next;
            const double slope = turn > 0 && volts != before ? (next - before_next) / (volts - before) : 1;
            before = volts, before_next = next;
            const double secant = slope < 0.95 ? volts + (next - volts) / (1 - slope) : -1;
            volts = secant >= 0 && secant <= 2 * volts_at ? secant : 0.5 * (volts + next);
        }
        return volts;
    }

    static Id main_battery(const Placed& main) {
        return main.run->from.post == Post::pos ? main.run->from.owner : main.run->to.owner;
    }

    const Plan& plan_;
    TestLamp lamp_;
    Plan bench_;
    SupplySide supply_{plan_};
    std::set<Id> in_;
    std::vector<std::string> closed_;
};

}  // namespace

std::vector<PowerRound> first_power(const Plan& plan, const PowerAsk& ask) {
    return Rounds(plan, ask).run();
}

std::vector<Id> without_main_fuse(const Plan& plan) {
    std::vector<Id> out;
    for (const Battery& b : plan.batteries) {
        const Terminal post(b.id, Post::pos);
        if (std::any_of(plan.runs.begin(), plan.runs.end(),
                        [&](const Run& r) { return (r.from == post || r.to == post) && !first_fuse(r); }))
            out.push_back(b.id);
    }
    return out;
}

}  // namespace yr
