// Rules about loads: do they get their volts, and are they live when they should be?
#include <algorithm>
#include <cmath>

#include "control/key_positions.h"
#include "control/place_on.h"
#include "inspect/rules.h"
#include "plan/rail_volts.h"
#include "size/ranges.h"
#include "units/at.h"
#include "units/at_once.h"

namespace yr {
namespace {

constexpr int kFewCollapsed = 4;
constexpr int kCandidates = 3;  // the first that clears and two beyond it: a joint or a rule may ask for more
constexpr int kStepsOfOne = 8;
constexpr int kMostSteps = 40;  // of a ladder of sizes: none is longer

// The cable of a path that may be changed, by the volts it takes from this load.
std::vector<std::size_t> mendable_runs(const Plan& plan, const Solution& s, int load) {
    std::vector<std::size_t> runs;
    for (int c : path_of_load(s, load)) {
        const int run = s.network.conductors[at(c)].run;
        if (run >= 0 && s.network.conductors[at(c)].cable20_ohm > 0 && plan.runs[at(run)].size)
            runs.push_back(at(run));
    }
    return runs;
}

double added_mass_kg(const Run& run, const WireSize& to) {
    const auto a = conductor(*run.size, run.material), b = conductor(to, run.material);
    return a && b ? (b->mass_kg_per_m - a->mass_kg_per_m) * length_or_assumed_m(run) * run.parallel : 1e9;
}

// A load and the cables that carry nothing but its amps, whatever else is changed: the only ones at its ends.
struct Fed {
    std::size_t load = 0;
    std::vector<std::size_t> own;
};

Fed fed_by(const Plan& plan, std::size_t load) {
    Fed out{load, {}};
    for (const Terminal& end : {pos_of(plan.loads[load].id), neg_of(plan.loads[load].id)}) {
        std::vector<std::size_t> there;
        for (std::size_t k = 0; k < plan.runs.size(); ++k)
            if (plan.runs[k].from == end || plan.runs[k].to == end) there.push_back(k);
        if (there.size() == 1 && (out.own.empty() || out.own.front() != there.front()))
            out.own.push_back(there.front());
    }
    return out;
}

// What its own cables lose of its volts in that state at the least, cold; with watts the supply at its
// highest (15 V for 12), with a resistance at its lowest (a starter held: 6 V).
double least_loss_V(const Plan& plan, const State& state, const Fed& fed) {
    double ohm = 0;
    for (const std::size_t k : fed.own) {
        const Run& r = plan.runs[k];
        if (!r.size) continue;
        if (const auto wire = conductor(*r.size, r.material))
            ohm += wire->R20_ohm_per_m * length_or_assumed_m(r) / r.parallel;
    }
    const Load& load = plan.loads[fed.load];
    const Draw draw = draw_in(load, state);  // a winch by its pull there
    const double nominal_V = rail_V(plan, load);
    return ohm * (draw.kind == DrawKind::current ? draw.value
                  : draw.kind == DrawKind::power ? 0.8 * draw.value / nominal_V
                                                 : 0.5 * nominal_V / draw.value);
}

bool drop_clears(const Plan& trial, const State& state, const Fed& fed, OperatingPointSolver& solver) {
    const double limit_V = drop_limit_V(trial, trial.loads[fed.load]);
    if (least_loss_V(trial, state, fed) > limit_V) return false;  // whatever the rest does
    const LoadResult r = solve(trial, state, solver).point.loads[fed.load];
    return r.status == LoadStatus::on && r.drop_V <= limit_V;
}

Mend two_sizes(const Plan& plan, const Run& a, const Run& b) {
    Mend m;
    m.kind = MendKind::two_sizes;
    m.edit = Batch{{Put<Run>{a, {}}, Put<Run>{b, {}}}};
    m.target = a.id;
    m.from = find(plan.runs, a.id)->size, m.to = a.size;
    return m;
}

// One run thicker, the least added copper that clears. What is thicker than what clears does so too: the
// thickest is asked first, then the middle of what is left.
std::optional<Mend> one_thicker(const Plan& plan, const std::vector<std::size_t>& runs, const State& state,
                                const Fed& fed, OperatingPointSolver& solver) {
    std::optional<Mend> best;
    double best_mass = 1e18;
    const std::size_t tried = std::min<std::size_t>(runs.size(), 4);
    for (std::size_t k = 0; k < tried; ++k) {
        Plan trial = plan;
        Run& run = trial.runs[runs[k]];
        const WireSize before = *run.size;
        const auto mass = [&](int step) {
            return added_mass_kg(plan.runs[runs[k]], step_size(before, step));
        };
        const auto clears = [&](int step) {
            run.size = step_size(before, step);
            return drop_clears(trial, state, fed, solver);
        };
        int most = 0;
        while (most < kStepsOfOne && !(step_size(before, most + 1) == step_size(before, most)) &&
               mass(most + 1) < best_mass)
            ++most;
        if (most == 0 || !clears(most)) continue;
        int least = 1;
        while (least < most) {
            const int middle = (least + most) / 2;
            if (clears(middle))
                most = middle;
            else
                least = middle + 1;
        }
        run.size = step_size(before, least);
        best_mass = mass(least);
        best = Mend{MendKind::size, Put<Run>{run, std::nullopt}, run.id, before, run.size, 0, 0, {}};
    }
    return best;
}

// Two runs thicker: to one size where they are a load's feed and return, else by as many steps each.
void both_thicker(const Plan& plan, std::size_t a, std::size_t b, bool alike, const State& state,
                  const Fed& fed, OperatingPointSolver& solver, std::vector<Mend>& out) {
    Plan trial = plan;
    int found = 0;
    for (int step = 0; step <= kMostSteps && found < kCandidates; ++step) {
        for (const std::size_t k : {a, b}) trial.runs[k].size = step_size(*plan.runs[k].size, step);
        const auto ends = [&](std::size_t k) {
            return step_size(*plan.runs[k].size, step) == step_size(*plan.runs[k].size, step - 1);
        };
        if (step > 0 && ends(a) && ends(b)) return;
        if (alike) {
            const auto area = [&](std::size_t k) {
                return conductor(*trial.runs[k].size, plan.runs[k].material);
            };
            const auto wire_a = area(a), wire_b = area(b);
            if (!wire_a || !wire_b) return;
            const WireSize thick =
                wire_a->area_mm2 > wire_b->area_mm2 ? *trial.runs[a].size : *trial.runs[b].size;
            trial.runs[a].size = trial.runs[b].size = thick;
        }
        if (trial.runs[a] == plan.runs[a] && trial.runs[b] == plan.runs[b]) continue;
        // what is thicker than what clears does so too; whoever takes it proves it with everything else
        if (found == 0 && !drop_clears(trial, state, fed, solver)) continue;
        out.push_back(two_sizes(plan, trial.runs[a], trial.runs[b]));
        ++found;
    }
}

std::vector<Mend> mend_drop(const Plan& plan, const Solution& s, const State& state, std::size_t load) {
    auto runs = mendable_runs(plan, s, static_cast<int>(load));
    const Id& id = plan.loads[load].id;
    if (runs.empty())  // where it collapsed nothing flows to tell the way, but its own cables are known
        for (std::size_t k = 0; k < plan.runs.size(); ++k)
            if (plan.runs[k].size && (plan.runs[k].to.owner == id || plan.runs[k].from.owner == id))
                runs.push_back(k);
    OperatingPointSolver solver;
    std::vector<Mend> out;
    const bool collapsed = s.point.loads[load].status == LoadStatus::collapsed;
    const Fed fed = fed_by(plan, load);
    if (!collapsed || runs.size() == 1)
        if (auto one = one_thicker(plan, runs, state, fed, solver)) out.push_back(std::move(*one));
    std::optional<std::size_t> feed, back;
    for (const std::size_t k : runs) {
        if (plan.runs[k].to == pos_of(id) || plan.runs[k].from == pos_of(id)) feed = k;
        if (plan.runs[k].to == neg_of(id) || plan.runs[k].from == neg_of(id)) back = k;
    }
    if (feed && back) both_thicker(plan, *feed, *back, true, state, fed, solver, out);
    if (!collapsed && runs.size() >= 2) both_thicker(plan, runs[0], runs[1], false, state, fed, solver, out);
    return out;
}

// A feed that is alive in every state, to hang a constant load on; in the load's own place if there is one.
const Point* constant_feed(const Case& c, const Id& not_this, const Id& place) {
    const Point* best = nullptr;
    for (const Point& p : c.plan.points) {
        if (!p.feeds_loads || p.id == not_this || (!p.channels.empty() && free_channels(c.plan, p).empty()) ||
            (best && p.place != place))
            continue;
        const bool always = std::all_of(c.solutions.begin(), c.solutions.end(), [&](const Solution& s) {
            const auto& nodes = s.network.nodes;
            const auto n =
                static_cast<std::size_t>(std::find(nodes.begin(), nodes.end(), p.id) - nodes.begin());
            const double volts = n < nodes.size() ? s.point.node_V[n] / c.plan.vehicle.nominal_V : 0;
            return volts > 0.5 && volts < 1.6;  // alive, and not a traction battery's own rail
        });
        if (always && (!best || best->place != place)) best = &p;
    }
    return best;
}

bool alive_somewhere(const Case& c, std::size_t load) {
    return std::any_of(c.solutions.begin(), c.solutions.end(),
                       [&](const Solution& s) { return s.point.loads[load].status == LoadStatus::on; });
}

void add_dead(const Case& c, std::size_t load, const State& state, std::vector<Finding>& out,
              std::size_t from) {
    const Load& l = c.plan.loads[load];
    const bool constant = l.live_when == Condition{} && alive_somewhere(c, load);
    Finding f{FindingKind::load_dead, Severity::fix, l.id, {}, state.id, 1, 0, {}, {}, 0, {}};
    if (constant) f.kind = FindingKind::constant_on_key_rail;
    const Run* run = supply_run(c.plan, l.id);
    if (run) f.other = run->id;
    if (c.with_mends && constant && run && run->to == pos_of(l.id)) {
        if (const Point* feed = constant_feed(c, owner_of(run->from), l.place)) {
            const int channel = feed->channels.empty() ? 0
                                                       : fitting_channel(c.plan, *feed, nominal_A(c.plan, l),
                                                                         start_A(c.plan, l));
            const auto edit = place_on(c.plan, l.id, feed->id, channel, false);
            if (edit) f.mend = Mend{MendKind::move_load, *edit, l.id, {}, {}, 0, 0, feed->id};
        }
    }
    keep_worst(out, from, std::move(f));
}

// Where the plan states ranges, their worst corner is what counts.
void inspect_ranges(const Case& c, std::vector<Finding>& out) {
    if (c.bands.empty()) return;
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        if (c.plan.states[s].key == Key::crank) continue;
        const StateBands& bands = c.bands[s];
        for (std::size_t l = 0; l < c.plan.loads.size(); ++l) {
            const double limit = drop_limit_V(c.plan, c.plan.loads[l]);
            const double most = bands.drop_V[l].most;
            const bool told = c.solutions[s].point.loads[l].drop_V > limit * (1 + 1e-9);
            if (told || c.plan.loads[l].starter || most <= limit * (1 + 1e-9)) continue;
            keep_worst(out, from,
                       make_finding(FindingKind::range_over, Severity::fix, c.plan.loads[l].id, {},
                                    c.plan.states[s].id, most, limit));
        }
    }
}

}  // namespace

void inspect_drops(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        const State& state = c.plan.states[s];
        const OperatingPoint& point = c.solutions[s].point;
        const bool any_collapsed =
            std::any_of(point.loads.begin(), point.loads.end(),
                        [](const LoadResult& r) { return r.status == LoadStatus::collapsed; });
        const auto over = any_collapsed ? over_asked(c, s) : std::vector<OverAsked>();
        for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
            const LoadResult& r = point.loads[k];
            const Load& l = c.plan.loads[k];
            if (r.status == LoadStatus::dead) {
                const auto alive = [&](const Solution& all_closed) {
                    return all_closed.point.loads[k].status == LoadStatus::on;
                };
                if (!dead_on_purpose(c, s, alive)) add_dead(c, k, state, out, from);
            } else if (r.status == LoadStatus::collapsed) {
                if (explains(over, k)) continue;  // told of the converter
                keep_worst(out, from,
                           {FindingKind::no_operating_point,
                            Severity::fix,
                            l.id,
                            {},
                            state.id,
                            point.collapsed_at[k],
                            0,
                            {},
                            {},
                            0,
                            {}});
            } else if (r.status == LoadStatus::on && !l.starter && state.key != Key::crank) {
                const double limit = drop_limit_V(c.plan, l);
                if (r.drop_V <= limit * (1 + 1e-9)) continue;
                Finding f{FindingKind::drop_over_limit,
                          Severity::fix,
                          l.id,
                          {},
                          state.id,
                          r.drop_V,
                          limit,
                          {},
                          {},
                          0,
                          {}};
                for (int part : path_of_load(c.solutions[s], static_cast<int>(k))) {
                    const int run = c.solutions[s].network.conductors[at(part)].run;
                    if (run < 0) continue;
                    f.biggest_run = c.plan.runs[at(run)].id;
                    f.biggest_V = std::abs(point.conductors[at(part)].drop_V);
                    break;
                }
                keep_worst(out, from, std::move(f));
            }
        }
    }
    inspect_ranges(c, out);
    if (!c.with_mends) return;
    const auto collapsed = std::count_if(
        out.begin(), out.end(), [](const Finding& f) { return f.kind == FindingKind::no_operating_point; });
    at_once(out.size() - from, [&](std::size_t n) {
        Finding& f = out[from + n];
        // where many collapse it is what they share, and no cable of their own
        const bool of_cables = f.kind == FindingKind::drop_over_limit ||
                               (f.kind == FindingKind::no_operating_point && collapsed <= kFewCollapsed);
        if (!of_cables || !c.wants_mend(f)) return;
        const auto state = static_cast<std::size_t>(find(c.plan.states, f.state) - c.plan.states.data());
        const auto load = static_cast<std::size_t>(find(c.plan.loads, f.id) - c.plan.loads.data());
        f.candidates = mend_drop(c.plan, c.solutions[state], c.plan.states[state], load);
    });
}

}  // namespace yr
