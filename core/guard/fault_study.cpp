#include "guard/fault_study.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <queue>
#include <tuple>
#include <unordered_map>

#include "catalog/assumptions.h"
#include "network/thermal_time.h"
#include "units/at.h"
#include "units/at_once.h"

namespace yr {
namespace {

constexpr double kNever_s = 1e9;
constexpr double kGone_A = 0.5;  // a short that carries less has been cut off
constexpr double kCarries_A = 1.0;
constexpr double kMoreThanBefore = 1.02;  // of a cable's amps: below that no short warms it
constexpr double kLongest_s = 3600;       // what has not opened by then is told as not opening
constexpr double kCranked_s = 60;         // nobody turns a starter for longer at once; common practice
constexpr int kMostOpenings = 8;
constexpr std::size_t kPiece = 500, kMostPieces = 4;  // places that are worth a network of their own

// Steps from a battery's positive post, over all runs with their switches closed.
std::unordered_map<Terminal, int> steps_from_batteries(const Plan& plan) {
    std::unordered_map<Terminal, int> steps;
    std::unordered_map<Terminal, std::vector<const Terminal*>> beside;
    for (const Run& r : plan.runs) {
        if (r.body_metal) continue;
        beside[r.from].push_back(&r.to);
        beside[r.to].push_back(&r.from);
    }
    std::queue<Terminal> open;
    const auto reach = [&](const Terminal& t, int n) {
        if (steps.emplace(t, n).second) open.push(t);
    };
    for (const Battery& b : plan.batteries) reach(pos_of(b.id), 0);
    if (plan.batteries.empty())
        for (const Source& s : plan.sources) reach(out_of(s.id), 0);
    const auto spread = [&] {
        while (!open.empty()) {
            const Terminal t = open.front();
            open.pop();
            const int next = steps.at(t) + 1;
            for (const Terminal* other : beside[t]) reach(*other, next);
        }
    };
    spread();
    for (const Source& s : plan.sources) reach(out_of(s.id), 0);
    spread();
    return steps;
}

// What a short of this terminal touches.
Terminal back_of(const Plan& plan, const Terminal& t) {
    const Id owner(owner_of(t));
    if (t.post == Post::pos) {
        Terminal own = neg_of(owner);
        if (find(plan.loads, owner) || find(plan.inverters, owner) || find(plan.batteries, owner)) return own;
    }
    if (const Source* s = find(plan.sources, owner)) return s->return_at;
    if (const Point* p = find(plan.points, owner); p && !p->return_at.empty()) return p->return_at;
    for (const Point& p : plan.points)
        if (p.kind == PointKind::chassis) return p.id;
    return plan.batteries.empty() ? plan.sources.front().return_at : neg_of(plan.batteries.front().id);
}

// Share of the run's resistance from `from` up to and with its device.
double share_behind(const Run& run, const ConductorElement& e, std::size_t device, bool from_side) {
    double before = 0, whole = 0;
    bool passed = false;
    for (const SeriesPart& p : e.parts) {
        const bool itself = p.device == static_cast<int>(device);
        if (itself && !from_side) passed = true;  // the supply comes from the other end: what lies this side
        const double ohm = p.kind == PartKind::cable ? e.cable20_ohm : p.fixed_ohm;
        whole += ohm;
        if (!passed) before += ohm;
        if (itself && from_side) passed = true;
    }
    // the part list holds the cable in one piece: a fuse in the near half has its piece of it before it
    const double length = length_or_assumed_m(run);
    const double at_m = run.devices[device].at_m.value_or(0);
    if (length > 0 && e.cable20_ohm > 0) {
        const double piece = std::clamp(at_m / length, 0.0, 1.0) * e.cable20_ohm;
        before += at_m <= length / 2 ? piece : piece - e.cable20_ohm;
    }
    return whole > 0 ? std::clamp(before / whole, 0.0, 1.0) : 0;
}

struct DeviceRef {
    std::size_t run;
    const Device* device;
    double rated_cold_A, rated_hot_A;  // re-rated for earliest and latest openings
};

// Fuses of the plan with their ratings in this state's air.
std::vector<DeviceRef> fuses_of(const Plan& plan, const State& state, const WhatIf& change) {
    std::vector<DeviceRef> all;
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        for (const Device& d : plan.runs[k].devices) {
            if (d.kind != DeviceKind::fuse) continue;
            const FuseKind& kind = fuse_kind(d.fuse);
            const double air = air_at_device_C(plan, plan.runs[k], d, state);
            const double rating = d.id == change.fuse ? change.rating_A : d.rating_A;
            all.push_back(
                {k, &d, rerated_A(kind, rating, std::min(air, 25.0)), rerated_A(kind, rating, air)});
        }
    return all;
}

// Whether a device lies between the supply and the short, for a short inside its own run.
bool carries(const DeviceRef& f, const ShortPlace& place, const ShortAnswer& a, const Run& run,
             double& amps) {
    amps = std::abs(a.run_A[f.run]);
    if (f.run != place.run || place.device.empty()) return amps > kCarries_A;
    // inside this run: fuses before the place see from_A, those behind it to_A
    const Device* shorted = nullptr;
    for (const Device& d : run.devices)
        if (d.id == place.device) shorted = &d;
    const double mine = f.device->at_m.value_or(0), there = shorted ? shorted->at_m.value_or(0) : 0;
    const bool itself = f.device == shorted;
    const auto order = [&](const Device* d) { return d - run.devices.data(); };
    const bool before =
        itself ? place.from_side : (mine < there || (mine == there && order(f.device) < order(shorted)));
    amps = std::abs(before ? a.from_A : a.to_A);
    return amps > kCarries_A;
}

class Study {
  public:
    bool keeps_ways = false;

    Study(const Plan& plan, const FaultBase& base, const Solution& solution, const WhatIf& change = {})
        : plan_(plan),
          base_(base),
          solution_(solution),
          state_(plan.states[base.state]),
          fuses_(fuses_of(plan, state_, change)),
          change_(change) {
        const Network& n = base.strong.network();  // the weak one has the same nodes and conductors
        for (std::size_t k = 0; k < n.nodes.size(); ++k) node_.emplace(n.nodes[k], static_cast<NodeIndex>(k));
        ending_.resize(n.nodes.size());
        for (std::size_t k = 0; k < n.conductors.size(); ++k) {
            ending_[at(n.conductors[k].from)].push_back(k);
            if (n.conductors[k].to != n.conductors[k].from) ending_[at(n.conductors[k].to)].push_back(k);
        }
        for (const DeviceRef& f : fuses_) first_fuse_.emplace(f.run, &f);
        for (std::size_t k = 0; k < plan.runs.size(); ++k)
            if (const ConductorElement& c = base.weak.network().conductors[k]; c.cable20_ohm > 0) {
                const ConductorResult& before = solution.point.conductors[k];
                cables_.push_back({k, c.parallel, &c.cable, std::abs(before.current_A) / c.parallel,
                                   before.temperature_C, short_limit_C(plan.runs[k].insulation_C),
                                   std::nullopt});
            }
    }

    std::optional<ShortRow> row(const ShortPlace& place, double ohm) {
        place_ = &place;
        ShortRow row;
        row.state = base_.state;
        row.ohm = ohm;
        const ShortAsk weak = ask_of(base_.weak, ohm), strong = ask_of(base_.strong, ohm);
        if (weak.back == kNoNode || (weak.at == kNoNode && weak.run < 0)) return std::nullopt;
        const ShortAnswer most = base_.strong.solve(strong);
        if (std::abs(most.amps) < kCarries_A) return std::nullopt;
        const ShortAnswer least = base_.weak.solve(weak);
        row.settled = most.settled && least.settled;
        row.most_A = std::abs(most.amps);
        row.least_A = std::abs(least.amps);
        row.bus_V = bus_V(least);
        if (keeps_ways) ways(row, most);
        management(row, most);
        const DeviceRef* near = nearest(strong, most);
        if (near) {
            row.near = near->device->id;
            double amps = 0;
            (void)carries(*near, place, most, plan_.runs[place.run], amps);
            row.near_A = amps;
            row.interrupts_A = fuse_kind(near->device->fuse).interrupting_A;
            row.near_interrupts = amps <= row.interrupts_A;
            selectivity(row, *near, most);
            selectivity(row, *near, least);
        }
        row.fastest_s = fastest(most);
        clear(row, weak, least);
        return row;
    }

  private:
    NodeIndex node(const Terminal& t) const {
        const auto found = node_.find(t);
        return found == node_.end() ? kNoNode : found->second;
    }

    ShortAsk ask_of(const FaultNetwork& network, double ohm) const {
        ShortAsk ask;
        ask.ohm = ohm;
        const Network& n = network.network();
        ask.back = node(place_->back);
        if (place_->device.empty()) {
            ask.at = node(place_->at);
        } else {
            if (!n.conductors[place_->run]
                     .closed) {  // an open switch in it: the place hangs on what lies before
                ask.back = kNoNode;
                return ask;
            }
            if (n.conductors[place_->run].forward_V > 0) {  // a diode in it: as if at its far end
                ask.at = node(place_->at);
                return ask;
            }
            ask.run = static_cast<int>(place_->run);
            ask.share = place_->share;
        }
        const Run& r = plan_.runs[change_.run];
        if (change_.size && r.size) {
            const auto now = conductor(*r.size, r.material), then = conductor(*change_.size, r.material);
            if (now && then) {
                const ConductorElement& c = n.conductors[change_.run];
                const double whole = network.conductor_ohm(change_.run);
                const double cable = whole - c.fixed_ohm;
                ask.changed = static_cast<int>(change_.run);
                ask.changed_ohm = whole + cable * (then->R20_ohm_per_m / now->R20_ohm_per_m - 1);
            }
        }
        return ask;
    }

    double bus_V(const ShortAnswer& a) const {
        const Network& n = base_.weak.network();
        if (n.batteries.empty()) return n.sources.empty() ? 0 : a.node_V(n.sources[0].out);
        return a.node_V(n.batteries[0].pos) - a.node_V(n.batteries[0].neg);
    }

    void ways(ShortRow& row, const ShortAnswer& most) const {
        constexpr double kShare = 0.01;  // of the short: less opens nothing and warms nothing in its time
        for (std::size_t k = 0; k < plan_.runs.size(); ++k)
            if (std::abs(most.run_A[k]) >= kShare * row.most_A) row.ways.push_back(k);
    }

    void management(ShortRow& row, const ShortAnswer& most) const {
        for (std::size_t k = 0; k < plan_.batteries.size(); ++k) {
            const Battery& b = plan_.batteries[k];
            if (!b.cuts_at_A || most.battery_A[k] <= *b.cuts_at_A || most.battery_A[k] <= row.management_A)
                continue;
            row.management = b.id;
            row.management_A = most.battery_A[k];
        }
    }

    // Against the current from the short: the first device on the way that brings most.
    const DeviceRef* nearest(const ShortAsk& ask, const ShortAnswer& a) const {
        const Network& n = base_.strong.network();
        const DeviceRef* own = nullptr;
        double most = 0;
        for (const DeviceRef& f : fuses_) {
            double amps = 0;
            if (f.run == place_->run && carries(f, *place_, a, plan_.runs[f.run], amps) && amps >= most)
                own = &f, most = amps;
        }
        if (own) return own;
        NodeIndex here = ask.run >= 0
                             ? (std::abs(a.from_A) >= std::abs(a.to_A) ? n.conductors[at(ask.run)].from
                                                                       : n.conductors[at(ask.run)].to)
                             : ask.at;
        std::vector<char> seen(n.nodes.size(), 0);
        while (!seen[at(here)]++) {
            const int next = brings_most(a, here);
            if (next < 0) return nullptr;
            if (const auto f = first_fuse_.find(at(next)); f != first_fuse_.end()) return f->second;
            here =
                n.conductors[at(next)].to == here ? n.conductors[at(next)].from : n.conductors[at(next)].to;
        }
        return nullptr;
    }

    // The conductor that brings most into this node; -1: nothing does, or what stands there gives more
    // itself.
    int brings_most(const ShortAnswer& a, NodeIndex here) const {
        const Network& n = base_.strong.network();
        int most = -1;
        double bring = std::max(kCarries_A, given_here(a, here));
        for (const std::size_t k : ending_[at(here)]) {
            const double into = n.conductors[k].to == here ? a.run_A[k] : -a.run_A[k];
            if (into > bring) bring = into, most = static_cast<int>(k);
        }
        return most;
    }

    // What still feeds the short when all that is sure to open has opened.
    void name_what_stays(ShortRow& row, const ShortAsk& ask, const ShortAnswer& a) const {
        row.stays_A = std::abs(a.amps);
        if (const DeviceRef* device = nearest(ask, a)) {
            row.stays = device->device->id;
            return;
        }
        const int last = ask.run >= 0 ? ask.run : ask.at == kNoNode ? -1 : brings_most(a, ask.at);
        if (last >= 0 && at(last) < plan_.runs.size()) row.stays = plan_.runs[at(last)].id;
    }

    // What batteries and sources whose posts are this node bring themselves.
    double given_here(const ShortAnswer& a, NodeIndex here) const {
        const Network& n = base_.strong.network();
        double amps = 0;
        for (std::size_t k = 0; k < n.batteries.size(); ++k)
            if (n.batteries[k].pos == here) amps += a.battery_A[k];
        for (std::size_t k = 0; k < n.sources.size(); ++k)
            if (n.sources[k].out == here) amps += a.source_A[k];
        return amps;
    }

    void selectivity(ShortRow& row, const DeviceRef& near, const ShortAnswer& a) const {
        double near_A = 0;
        (void)carries(near, *place_, a, plan_.runs[place_->run], near_A);
        const OpeningTime own = opening_time(fuse_kind(near.device->fuse), near_A / near.rated_hot_A);
        const double latest = own.latest_s.value_or(kNever_s);
        for (const DeviceRef& f : fuses_) {
            double amps = 0;
            if (&f == &near || !carries(f, *place_, a, plan_.runs[place_->run], amps)) continue;
            if (amps < 0.5 * near_A) continue;  // another way in, not further up
            const OpeningTime up = opening_time(fuse_kind(f.device->fuse), amps / f.rated_hot_A);
            if (up.earliest_s >= latest || up.earliest_s >= kLongest_s) continue;
            const double margin = latest / up.earliest_s;
            if (!row.first_up.empty() && margin <= row.near_s / row.first_up_s) continue;
            row.first_up = f.device->id;
            row.first_up_s = up.earliest_s;
            row.near_s = latest;
        }
    }

    double fastest(const ShortAnswer& a) const {
        double first = kNever_s;
        for (const DeviceRef& f : fuses_) {
            double amps = 0;
            if (!carries(f, *place_, a, plan_.runs[place_->run], amps)) continue;
            first = std::min(first, opening_time(fuse_kind(f.device->fuse), amps / f.rated_hot_A).earliest_s);
        }
        return first;
    }

    // Devices open one after another, each by its latest time, until nothing flows.
    void clear(ShortRow& row, const ShortAsk& first_ask, ShortAnswer a) {
        ShortAsk ask = first_ask;
        std::vector<Id> opened;
        double seconds = 0;
        for (Cable& c : cables_) c.reached_C.reset();
        for (int step = 0; step < kMostOpenings; ++step) {
            const DeviceRef* next = nullptr;
            double soonest = kLongest_s;
            for (const DeviceRef& f : fuses_) {
                double amps = 0;
                if (std::find(opened.begin(), opened.end(), f.device->id) != opened.end()) continue;
                if (!carries(f, *place_, a, plan_.runs[place_->run], amps)) continue;
                // cold air around a fuse makes it slow
                const auto latest = opening_time(fuse_kind(f.device->fuse), amps / f.rated_cold_A).latest_s;
                if (latest && *latest < soonest) soonest = *latest, next = &f;
            }
            if (!next) {
                warm(a, longest_s());
                row.limits_itself = limits_itself(a);
                name_what_stays(row, ask, a);
                finish(row, opened, std::nullopt);
                return;
            }
            warm(a, soonest);
            seconds += soonest;
            opened.push_back(next->device->id);
            if (ask.run >= 0 && next->run == at(ask.run)) leave_other_side(ask);
            ask.opened.push_back(static_cast<int>(next->run));
            a = base_.weak.solve(ask);
            row.settled = row.settled && a.settled;
            if (std::abs(a.amps) < kGone_A) break;
            if (limits_itself(
                    a)) {  // what is left an alternator or converter gives for ever: the cables must bear it
                warm(a, longest_s());
                break;
            }
        }
        finish(row, opened, seconds);
    }

    // For ever, but for what the starter draws beside it: then the key goes back, and other states tell of
    // it.
    [[nodiscard]] double longest_s() const { return state_.key == Key::crank ? kCranked_s : kLongest_s; }

    // A short inside a run whose own fuse opened on one side may live on from the other: then it stands at
    // that end.
    void leave_other_side(ShortAsk& ask) const {
        const ConductorElement& c = base_.weak.network().conductors[at(ask.run)];
        ask.run = -1;
        ask.at = place_->from_side ? c.to : c.from;
    }

    // Whether all that still flows into the short comes from sources that limit their own current.
    static bool limits_itself(const ShortAnswer& a) {
        double limited = 0;
        for (const double amps : a.source_A) limited += std::max(0.0, amps);
        return std::abs(a.amps) <= limited * 1.001 + kGone_A;
    }

    void warm(const ShortAnswer& a, double seconds) {
        for (Cable& c : cables_) {
            const double amps = std::abs(a.run_A[c.run]) / c.parallel;
            // what carries no more than without the short is its load's business
            if (amps < 2 * kCarries_A || amps <= kMoreThanBefore * c.before_A) continue;
            CableSurroundings changed;
            const CableSurroundings* cable = c.cable;
            double start = c.before_C;
            if (change_.size && c.run == change_.run)
                if (const auto wire = conductor(*change_.size, plan_.runs[c.run].material)) {
                    changed = surroundings_of(*wire, c.cable->ambient_C, c.cable->bundle_factor);
                    cable = &changed;
                    start = conductor_temperature_C(changed, c.before_A, start);
                }
            start = c.reached_C.value_or(start);
            double end = adiabatic_bound_C(*cable, amps, start, seconds);
            if (end > start + 0.5 * (c.limit_C - start))
                end = seconds >= kLongest_s ? conductor_temperature_C(*cable, amps, start)
                                            : temperature_after_C(*cable, amps, start, seconds);
            c.reached_C = std::max(end, start);
        }
    }

    void finish(ShortRow& row, std::vector<Id> opened, std::optional<double> seconds) {
        row.slowest = {std::move(opened), seconds};
        double worst = -1e9;
        for (const Cable& c : cables_) {
            if (!c.reached_C || *c.reached_C - c.limit_C <= worst) continue;
            worst = *c.reached_C - c.limit_C;
            row.hottest = CableHeatUp{c.run, *c.reached_C, c.limit_C};
        }
    }

    const Plan& plan_;
    const FaultBase& base_;
    const Solution& solution_;
    const State& state_;
    std::vector<DeviceRef> fuses_;
    std::unordered_map<Terminal, NodeIndex> node_;
    std::vector<std::vector<std::size_t>> ending_;                  // conductors by node
    std::unordered_map<std::size_t, const DeviceRef*> first_fuse_;  // by run
    struct Cable {                                                  // a run that warms
        std::size_t run;
        int parallel;
        const CableSurroundings* cable;
        double before_A, before_C, limit_C;  // before: without the short, each of `parallel`
        std::optional<double> reached_C;     // in the short that is looked at
    };
    std::vector<Cable> cables_;
    const ShortPlace* place_ = nullptr;
    WhatIf change_;
};

// What of a study may be taken as it was.
class Kept {
  public:
    Kept(const KnownShorts& known, const std::vector<char>& changed) : changed_(changed) {
        for (std::size_t p = 0; p < known.study.places.size(); ++p)
            place_.emplace(key(known.study.places[p]), p);
        for (const ShortRow& r : known.study.rows) row_.emplace(std::pair(r.place, r.state), &r);
    }
    // Of that place in that state; a place that had no volts has none as long as its own run is as it was.
    struct Answer {
        bool known = false;
        const ShortRow* row = nullptr;
    };
    [[nodiscard]] Answer of(const ShortPlace& place, std::size_t state) const {
        if (changed_[place.run]) return {};
        const auto found = place_.find(key(place));
        if (found == place_.end()) return {};
        const auto row = row_.find({found->second, state});
        if (row == row_.end()) return {true, nullptr};
        const auto& [ways, hottest] = std::tie(row->second->ways, row->second->hottest);
        if (hottest && changed_[hottest->run]) return {};  // it may be its load that warms it
        if (std::any_of(ways.begin(), ways.end(), [&](std::size_t k) { return changed_[k] != 0; })) return {};
        return {true, row->second};
    }

  private:
    static std::pair<std::size_t, Id> key(const ShortPlace& p) { return {p.run, p.device}; }
    const std::vector<char>& changed_;
    std::map<std::pair<std::size_t, Id>, std::size_t> place_;
    std::map<std::pair<std::size_t, std::size_t>, const ShortRow*> row_;
};

struct Scope {
    bool bolted_only = false, keeps_ways = false;
    const Kept* kept = nullptr;
    const std::atomic<bool>* cancel = nullptr;
};

// A place in a state, to be asked.
struct Question {
    std::size_t place, state;
};

// Questions of one state.
std::vector<ShortRow> rows_of(const Plan& plan, const Solution& solution,
                              const std::vector<ShortPlace>& places, const Question* from, const Question* to,
                              const Scope& scope) {
    std::vector<ShortRow> rows;
    const FaultBase base = fault_base(plan, from->state, solution);
    Study study(plan, base, solution);
    study.keeps_ways = scope.keeps_ways;
    for (const Question* q = from; q != to; ++q)
        for (double ohm : kShortOhms) {
            if (scope.cancel && *scope.cancel) return rows;
            if (scope.bolted_only && ohm > 0) continue;
            auto row = study.row(places[q->place], ohm);
            if (!row) continue;
            row->place = q->place;
            rows.push_back(std::move(*row));
        }
    return rows;
}

// Of the answers that are known the rows, and of the rest the questions, state by state.
std::vector<Question> asked_anew(const std::vector<ShortPlace>& places, std::size_t states, const Kept* kept,
                                 std::vector<ShortRow>& known) {
    std::vector<Question> questions;
    for (std::size_t s = 0; s < states; ++s)
        for (std::size_t p = 0; p < places.size(); ++p) {
            const auto answer = kept ? kept->of(places[p], s) : Kept::Answer{};
            if (!answer.known) questions.push_back({p, s});
            if (!answer.row) continue;
            known.push_back(*answer.row);
            known.back().place = p;
        }
    return questions;
}

FaultStudy study_places(const Plan& plan, const std::vector<Solution>& solutions,
                        std::vector<ShortPlace> places, const Scope& scope) {
    FaultStudy study;
    study.places = std::move(places);
    const std::vector<Question> all = asked_anew(study.places, solutions.size(), scope.kept, study.rows);
    // In pieces, so that no processor waits while another has a whole state to itself.
    std::vector<std::pair<std::size_t, std::size_t>> pieces;
    for (std::size_t from = 0, to = 0; from < all.size(); from = to) {
        while (to < all.size() && all[to].state == all[from].state) ++to;
        const std::size_t parts = std::clamp<std::size_t>((to - from) / kPiece, 1, kMostPieces);
        for (std::size_t n = 0; n < parts; ++n)
            pieces.emplace_back(from + (to - from) * n / parts, from + (to - from) * (n + 1) / parts);
    }
    std::vector<std::vector<ShortRow>> found(pieces.size());
    at_once(pieces.size(), [&](std::size_t k) {
        const auto [from, to] = pieces[k];
        found[k] =
            rows_of(plan, solutions[all[from].state], study.places, &all[from], all.data() + to, scope);
    });
    for (std::vector<ShortRow>& rows : found)
        std::move(rows.begin(), rows.end(), std::back_inserter(study.rows));
    std::stable_sort(study.rows.begin(), study.rows.end(), [](const ShortRow& a, const ShortRow& b) {
        return std::tie(a.place, a.state) < std::tie(b.place, b.state);
    });
    return study;
}

}  // namespace

double air_at_device_C(const Plan& plan, const Run& run, const Device& device, const State& state) {
    const double length = length_or_assumed_m(run);
    const Terminal& end = device.at_m.value_or(0) <= length / 2 ? run.from : run.to;
    const Id owner(owner_of(end));
    const auto air = [&](const Id& place) { return air_at(plan, place, state); };
    if (const Point* p = find(plan.points, owner)) return air(p->place);
    if (const Battery* b = find(plan.batteries, owner)) return air(b->place);
    if (const Source* s = find(plan.sources, owner)) return air(s->place);
    if (const Load* l = find(plan.loads, owner)) return air(l->place);
    return state.ambient_C;
}

std::vector<ShortPlace> short_places(const Plan& plan) {
    std::vector<ShortPlace> places;
    if (plan.batteries.empty() && plan.sources.empty()) return places;
    const auto steps = steps_from_batteries(plan);
    const Network net = plan.states.empty() ? Network{} : compile(plan, plan.states.front());
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const Run& r = plan.runs[k];
        if (r.body_metal || r.resistance_ohm || !steps.contains(r.from) || !steps.contains(r.to)) continue;
        // the supply side reaches the negative through nothing but a broken plan
        ShortPlace far;
        far.run = k;
        far.from_side = steps.at(r.from) <= steps.at(r.to);
        far.at = far.from_side ? r.to : r.from;
        far.back = back_of(plan, far.at);
        places.push_back(far);
        for (std::size_t d = 0; d < r.devices.size(); ++d) {
            if (r.devices[d].kind != DeviceKind::fuse) continue;
            ShortPlace behind = far;
            behind.device = r.devices[d].id;
            const double length = length_or_assumed_m(r);
            // a fuse at the far end of a cable that is fed there guards it from that side
            if (r.devices[d].at_m.value_or(0) > length / 2) behind.from_side = false;
            behind.share = share_behind(r, net.conductors[k], d, behind.from_side);
            places.push_back(behind);
        }
    }
    return places;
}

FaultBase fault_base(const Plan& plan, std::size_t state, const Solution& solution) {
    return {FaultNetwork(plan, plan.states[state], solution, SupplyCase::strongest),
            FaultNetwork(plan, plan.states[state], solution, SupplyCase::weakest), state};
}

std::optional<ShortRow> short_at(const Plan& plan, const FaultBase& base, const Solution& solution,
                                 const ShortPlace& place, double ohm, const WhatIf& change) {
    return Study(plan, base, solution, change).row(place, ohm);
}

FaultStudy study_faults(const Plan& plan, const std::vector<Solution>& solutions,
                        const std::atomic<bool>* cancel) {
    return study_places(plan, solutions, short_places(plan), {false, false, nullptr, cancel});
}

namespace {
std::vector<Id> ids_of(const auto& things) {
    std::vector<Id> ids;
    ids.reserve(things.size());
    for (const auto& t : things) ids.push_back(t.id);
    return ids;
}
}  // namespace

KnownShorts known_shorts(const Plan& plan, const std::vector<Solution>& solutions) {
    return {ids_of(plan.runs), ids_of(plan.states),
            study_places(plan, solutions, short_places(plan), {true, true, nullptr, nullptr})};
}

FaultStudy study_bolted(const Plan& plan, const std::vector<Solution>& solutions, const KnownShorts* known,
                        const std::vector<char>& changed) {
    if (!known || ids_of(plan.runs) != known->runs || ids_of(plan.states) != known->states)
        return study_places(plan, solutions, short_places(plan), {true, false, nullptr, nullptr});
    const Kept kept(*known, changed);
    return study_places(plan, solutions, short_places(plan), {true, false, &kept, nullptr});
}

FaultStudy study_run(const Plan& plan, const std::vector<Solution>& solutions, std::size_t run,
                     bool bolted_only) {
    std::vector<ShortPlace> places;
    for (ShortPlace& p : short_places(plan))
        if (p.run == run) places.push_back(std::move(p));
    return study_places(plan, solutions, std::move(places), {bolted_only, false, nullptr, nullptr});
}

}  // namespace yr
