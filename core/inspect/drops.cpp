// Rules about loads: do they get their volts, and are they live when they should be?
#include <algorithm>
#include <cmath>
#include <numeric>

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

// The plan in that state with other sizes of a few cables, compiled once, to see whether a load gets its
// volts. One size differs little from the next: each solution begins where the last one ended.
class Trial {
  public:
    Trial(const Plan& plan, const State& state, Fed fed)
        : plan_(plan), state_(state), fed_(std::move(fed)), network_(compile(plan, state)) {
        solver_.follow(true);
    }

    [[nodiscard]] const Run& run(std::size_t k) const { return plan_.runs[k]; }
    void put(std::size_t k, const WireSize& size) {
        plan_.runs[k].size = size;
        fill_run_parts(network_.conductors[k], plan_, plan_.runs[k], state_, network_.assumptions);
    }
    [[nodiscard]] bool clears() {
        const double limit_V = drop_limit_V(plan_, plan_.loads[fed_.load]);
        if (least_loss_V(plan_, state_, fed_) > limit_V) return false;  // whatever the rest does
        const LoadResult r = settle(network_, solver_).point.loads[fed_.load];
        return r.status == LoadStatus::on && r.drop_V <= limit_V;
    }

  private:
    Plan plan_;
    const State& state_;
    Fed fed_;
    Network network_;
    OperatingPointSolver solver_;
};

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
std::optional<Mend> one_thicker(const Plan& plan, const std::vector<std::size_t>& runs, Trial& trial) {
    std::optional<Mend> best;
    double best_mass = 1e18;
    const std::size_t tried = std::min<std::size_t>(runs.size(), 4);
    for (std::size_t k = 0; k < tried; ++k) {
        const WireSize before = *plan.runs[runs[k]].size;
        const auto mass = [&](int step) {
            return added_mass_kg(plan.runs[runs[k]], step_size(before, step));
        };
        const auto clears = [&](int step) {
            trial.put(runs[k], step_size(before, step));
            return trial.clears();
        };
        int most = 0;
        while (most < kStepsOfOne && !(step_size(before, most + 1) == step_size(before, most)) &&
               mass(most + 1) < best_mass)
            ++most;
        if (most > 0 && clears(most)) {
            int least = 1;
            while (least < most) {
                const int middle = (least + most) / 2;
                if (clears(middle))
                    most = middle;
                else
                    least = middle + 1;
            }
            Run thicker = plan.runs[runs[k]];
            thicker.size = step_size(before, least);
            best_mass = mass(least);
            best = Mend{
                MendKind::size, Put<Run>{thicker, std::nullopt}, thicker.id, before, thicker.size, 0, 0, {}};
        }
        trial.put(runs[k], before);
    }
    return best;
}

// Two runs thicker: to one size where they are a load's feed and return, else by as many steps each.
void both_thicker(const Plan& plan, std::size_t a, std::size_t b, bool alike, Trial& trial,
                  std::vector<Mend>& out) {
    int found = 0;
    for (int step = 0; step <= kMostSteps && found < kCandidates; ++step) {
        const auto ends = [&](std::size_t k) {
            return step_size(*plan.runs[k].size, step) == step_size(*plan.runs[k].size, step - 1);
        };
        if (step > 0 && ends(a) && ends(b)) break;
        WireSize size_a = step_size(*plan.runs[a].size, step), size_b = step_size(*plan.runs[b].size, step);
        if (alike) {
            const auto wire_a = conductor(size_a, plan.runs[a].material),
                       wire_b = conductor(size_b, plan.runs[b].material);
            if (!wire_a || !wire_b) break;
            size_a = size_b = wire_a->area_mm2 > wire_b->area_mm2 ? size_a : size_b;
        }
        if (size_a == *plan.runs[a].size && size_b == *plan.runs[b].size) continue;
        trial.put(a, size_a), trial.put(b, size_b);
        // what is thicker than what clears does so too; whoever takes it proves it with everything else
        if (found == 0 && !trial.clears()) continue;
        out.push_back(two_sizes(plan, trial.run(a), trial.run(b)));
        ++found;
    }
    trial.put(a, *plan.runs[a].size), trial.put(b, *plan.runs[b].size);
}

// One cable four sizes thicker beside one as it was is more copper than both two sizes thicker, and nobody's
// work.
double added_copper_kg(const Plan& plan, const Mend& mend) {
    const auto of_run = [&](const Edit& edit) {
        const Run& then = std::get<Put<Run>>(edit).thing;
        return added_mass_kg(*find(plan.runs, then.id), *then.size);
    };
    const auto* both = std::get_if<Batch>(&mend.edit);
    if (!both) return of_run(mend.edit);
    return std::accumulate(both->edits.begin(), both->edits.end(), 0.0,
                           [&](double kg, const Edit& e) { return kg + of_run(e); });
}

std::vector<Mend> mend_drop(const Plan& plan, const Solution& s, const State& state, std::size_t load) {
    auto runs = mendable_runs(plan, s, static_cast<int>(load));
    const Id& id = plan.loads[load].id;
    if (runs.empty())  // where it collapsed nothing flows to tell the way, but its own cables are known
        for (std::size_t k = 0; k < plan.runs.size(); ++k)
            if (plan.runs[k].size && (plan.runs[k].to.owner == id || plan.runs[k].from.owner == id))
                runs.push_back(k);
    std::vector<Mend> out;
    const bool collapsed = s.point.loads[load].status == LoadStatus::collapsed;
    Trial trial(plan, state, fed_by(plan, load));
    if (!collapsed || runs.size() == 1)
        if (auto one = one_thicker(plan, runs, trial)) out.push_back(std::move(*one));
    std::optional<std::size_t> feed, back;
    for (const std::size_t k : runs) {
        if (plan.runs[k].to == pos_of(id) || plan.runs[k].from == pos_of(id)) feed = k;
        if (plan.runs[k].to == neg_of(id) || plan.runs[k].from == neg_of(id)) back = k;
    }
    if (feed && back) {
        std::vector<Mend> pair;
        both_thicker(plan, *feed, *back, true, trial, pair);
        const bool of_pair =
            !out.empty() && (out[0].target == plan.runs[*feed].id || out[0].target == plan.runs[*back].id);
        const bool first =
            of_pair && !pair.empty() && added_copper_kg(plan, pair.front()) < added_copper_kg(plan, out[0]);
        out.insert(first ? out.begin() : out.end(), pair.begin(), pair.end());
    }
    if (!collapsed && runs.size() >= 2) both_thicker(plan, runs[0], runs[1], false, trial, out);
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
