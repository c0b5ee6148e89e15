// Rules about how a cable sits: lugs and bends, cables side by side, joints and straps under load, fuses that
// are worked too hard.
#include <algorithm>
#include <cmath>
#include <iterator>
#include <map>

#include "catalog/assumptions.h"
#include "catalog/terminals.h"
#include "inspect/fuse_mends.h"
#include "size/run_check.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr double kBigStrap_A =
    40;  // from here a strap half as thick as the feed is worth a word; common practice
constexpr double kStrapShare = 0.5;
constexpr double kUnequalPair = 0.6;  // of two cables side by side

bool crank(const Case& c, std::size_t s) {
    return c.plan.states[s].key == Key::crank;
}

void terminals_and_bends(const Case& c, std::vector<Finding>& out) {
    for (const Run& r : c.plan.runs) {
        if (!r.size || r.body_metal) continue;
        for (const bool from_end : {true, false}) {
            const Terminal& t = from_end ? r.from : r.to;
            const auto hole = from_end ? r.lug_from_mm : r.lug_to_mm;
            const auto bolt = bolt_at_mm(c.plan, t);
            if (!hole || !bolt || lug_fits(*hole, *bolt)) continue;
            Finding f = make_finding(FindingKind::lug_misfit, *hole < *bolt ? Severity::fix : Severity::check,
                                     r.id, t.text(), {}, *hole, *bolt);
            Run changed = r;
            (from_end ? changed.lug_from_mm : changed.lug_to_mm) = *bolt;
            if (c.with_mends)
                f.mend = Mend{MendKind::lug, Put<Run>{changed, {}}, r.id, {}, {}, *hole, *bolt, {}};
            out.push_back(std::move(f));
        }
        const RunFit fit = run_fit(c.plan, r, *r.size);
        if (!fit.terminals)
            out.push_back(make_finding(FindingKind::terminal_small, Severity::fix, r.id, fit.tight.text(), {},
                                       copper_mm2(r), fit.most_mm2));
        if (!fit.bends)
            out.push_back(make_finding(FindingKind::bend_tight, Severity::fix, r.id, {}, {}, *r.bend_mm,
                                       fit.radius_mm));
        if (r.material == Material::cca) {
            const auto copper = conductor(*r.size), own = conductor(*r.size, r.material);
            if (copper && own)
                out.push_back(make_finding(FindingKind::aluminium_core, Severity::check, r.id, {}, {},
                                           own->R20_ohm_per_m / copper->R20_ohm_per_m));
        }
    }
}

// Runs that lie side by side: of each run the others between its two ends.
std::vector<std::vector<std::size_t>> side_by_side(const Plan& plan) {
    std::map<std::pair<Terminal, Terminal>, std::vector<std::size_t>> between;
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        if (const Run& r = plan.runs[k]; !r.body_metal) between[std::minmax(r.from, r.to)].push_back(k);
    std::vector<std::vector<std::size_t>> beside(plan.runs.size());
    for (const auto& [ends, runs] : between)
        for (const std::size_t k : runs)
            std::copy_if(runs.begin(), runs.end(), std::back_inserter(beside[k]),
                         [&](std::size_t other) { return other != k; });
    return beside;
}

void parallel_cables(const Case& c, std::vector<Finding>& out, std::size_t from) {
    const auto beside = side_by_side(c.plan);
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        if (crank(c, s)) continue;
        const auto amps = [&](std::size_t k) {
            return std::abs(c.solutions[s].point.conductors[k].current_A);
        };
        for (std::size_t a = 0; a < c.plan.runs.size(); ++a) {
            const Run& run = c.plan.runs[a];
            if (run.body_metal || amps(a) < 1 || (run.parallel == 1 && beside[a].empty())) continue;
            const auto allowed = run_ampacity(c.plan, run, c.plan.states[s]);
            if (run.parallel > 1 && allowed) {  // one of them gone
                const double left_A = allowed->allowed_A * (run.parallel - 1) / run.parallel;
                if (amps(a) > left_A)
                    keep_worst(out, from,
                               make_finding(FindingKind::parallel_left, Severity::check, run.id, run.id,
                                            c.plan.states[s].id, amps(a), left_A));
            }
            for (const std::size_t b : beside[a]) {
                const double both = amps(a) + amps(b);
                if (both < 10) continue;
                if (amps(a) / both > kUnequalPair)
                    keep_worst(out, from,
                               make_finding(FindingKind::parallel_shares, Severity::check, run.id,
                                            c.plan.runs[b].id, c.plan.states[s].id, amps(a) / both, 0.5));
                if (allowed && both > allowed->allowed_A)
                    keep_worst(
                        out, from,
                        make_finding(FindingKind::parallel_left, Severity::check, run.id, c.plan.runs[b].id,
                                     c.plan.states[s].id, both, allowed->allowed_A));
            }
        }
    }
}

// A main cable: between batteries, sources, studs and the body, not a branch to one load.
bool is_main(const Plan& plan, const Run& r) {
    for (const Terminal* t : {&r.from, &r.to})
        if (find(plan.loads, owner_of(*t)) || find(plan.inverters, owner_of(*t))) return false;
    const auto big = [&](const Terminal& t) {
        const Id owner(owner_of(t));
        const Point* p = find(plan.points, owner);
        return find(plan.batteries, owner) || find(plan.sources, owner) ||
               (p && (p->kind == PointKind::chassis || p->kind == PointKind::ground));
    };
    return big(r.from) && big(r.to);
}

void service_limits(const Case& c, std::vector<Finding>& out, std::size_t from) {
    const double scale = c.plan.vehicle.nominal_V / 12;
    const double joint_V = assumption("joint_service_V").value * scale;
    const double cable_V = assumption("cable_service_V").value * scale;
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        const auto& net = c.solutions[s].network;
        const auto& point = c.solutions[s].point;
        const Id& state = c.plan.states[s].id;
        for (std::size_t k = 0; k < net.conductors.size() && !crank(c, s); ++k) {
            const ConductorElement& e = net.conductors[k];
            const double amps = std::abs(point.conductors[k].current_A);
            const Id& id = e.run >= 0 ? c.plan.runs[at(e.run)].id : c.plan.points[at(e.ground_point)].id;
            double worst = 0;
            for (const SeriesPart& p : e.parts)
                if (p.kind == PartKind::joint || p.kind == PartKind::bond || p.kind == PartKind::metal ||
                    p.kind == PartKind::pin)
                    worst = std::max(worst, amps * p.fixed_ohm);
            if (worst > joint_V)
                keep_worst(
                    out, from,
                    make_finding(FindingKind::joint_drop, Severity::check, id, {}, state, worst, joint_V));
            const double cable = amps * point.conductors[k].cable_ohm;
            if (e.run >= 0 && cable > cable_V && is_main(c.plan, c.plan.runs[at(e.run)]))
                keep_worst(
                    out, from,
                    make_finding(FindingKind::cable_drop, Severity::check, id, {}, state, cable, cable_V));
        }
        for (std::size_t l = 0; l < c.plan.loads.size(); ++l) {
            const double limit = assumption("starter_service_V").value * scale;
            if (!crank(c, s) || !c.plan.loads[l].starter || point.loads[l].status != LoadStatus::on) continue;
            if (point.loads[l].drop_V <= limit) continue;
            Id biggest;
            for (const int part : path_of_load(c.solutions[s], static_cast<int>(l)))
                if (const int run = net.conductors[at(part)].run; run >= 0 && biggest.empty())
                    biggest = c.plan.runs[at(run)].id;
            if (!biggest.empty())
                keep_worst(out, from,
                           make_finding(FindingKind::starter_drop, Severity::check, biggest,
                                        c.plan.loads[l].id, state, point.loads[l].drop_V, limit));
        }
    }
}

// A big load whose way back passes a strap much thinner than its feed.
void thin_straps(const Case& c, std::vector<Finding>& out, std::size_t from) {
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        if (crank(c, s)) continue;
        const LoadPaths paths(c.solutions[s].network, c.solutions[s].point);
        for (std::size_t l = 0; l < c.plan.loads.size(); ++l) {
            if (c.solutions[s].point.loads[l].current_A < kBigStrap_A || !c.plan.loads[l].inverter.empty())
                continue;
            const Run *feed = nullptr, *strap = nullptr;
            for (const int part : paths.of(l)) {
                const int index = c.solutions[s].network.conductors[at(part)].run;
                if (index < 0 || c.plan.runs[at(index)].body_metal || copper_mm2(c.plan.runs[at(index)]) <= 0)
                    continue;
                const Run& r = c.plan.runs[at(index)];
                const double amps = std::abs(c.solutions[s].point.conductors[at(part)].current_A);
                if (c.supply.is_supply(r)) {
                    if (r.to == pos_of(c.plan.loads[l].id)) feed = &r;
                } else if (amps >= kBigStrap_A && r.from != neg_of(c.plan.loads[l].id) &&
                           (!strap || copper_mm2(r) < copper_mm2(*strap))) {
                    strap = &r;
                }
            }
            if (!feed || !strap || copper_mm2(*strap) >= kStrapShare * copper_mm2(*feed)) continue;
            Finding f = make_finding(FindingKind::strap_thin, Severity::fix, strap->id, feed->id,
                                     c.plan.states[s].id, copper_mm2(*strap), copper_mm2(*feed));
            if (c.with_mends)
                for (const WireSize& size : sizes_of(strap->size->system())) {
                    Run thicker = *strap;
                    thicker.size = size;
                    if (copper_mm2(thicker) < copper_mm2(*feed)) continue;
                    f.mend =
                        Mend{MendKind::size, Put<Run>{thicker, {}}, strap->id, strap->size, size, 0, 0, {}};
                    break;
                }
            keep_worst(out, from, std::move(f), Worse::lower);
        }
    }
}

// Largest start of that length that the fuse holds, A.
double held_start_A(const FuseKind& kind, double rated_A, double run_A, double seconds) {
    double low = rated_A, high = rated_A * 40;
    for (int k = 0; k < 40; ++k) {
        const double middle = (low + high) / 2;
        (used_by_start(kind, rated_A, middle, run_A, seconds) < 1 ? low : high) = middle;
    }
    return low;
}

constexpr double kSurelyOver = 1.35;

// A fuse that may open while something on its way works its turn, or cranks.
void opens_in_turn(const Case& c, std::size_t k, const Device& d, double air_C, std::vector<Finding>& out) {
    const FuseKind& kind = fuse_kind(d.fuse);
    const double rated = rerated_A(kind, d.rating_A, air_C);
    const DemandItem* worst = nullptr;
    double worst_share = 1;
    for (const DemandItem& i : c.demand[k].items) {
        if (i.kind != DemandKind::turn && i.kind != DemandKind::cranking) continue;
        const double holds = rated * held_multiple(kind, i.seconds);
        if (i.amps > holds * worst_share * (1 + 1e-9)) worst = &i, worst_share = i.amps / holds;
    }
    if (!worst) return;
    // a little over is a nuisance at full pull; from 135 % of its rating every kind opens in the end (ISO
    // 8820)
    const Severity severity = worst_share > kSurelyOver ? Severity::fix : Severity::check;
    Finding f = make_finding(FindingKind::turn_opens_fuse, severity, c.plan.runs[k].id, d.id, worst->state,
                             worst->amps, worst->amps / worst_share);
    f.hours = worst->seconds / 3600;
    if (c.with_mends) f.candidates = other_ratings(c, k, d.id, d.rating_A * worst_share * (1 - 1e-9), 0);
    out.push_back(std::move(f));
}

void fuses_at_work(const Case& c, std::vector<Finding>& out) {
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
        const Run& run = c.plan.runs[k];
        for (const Device& d : run.devices) {
            if (d.kind != DeviceKind::fuse) continue;
            const FuseKind& kind = fuse_kind(d.fuse);
            double worst = 0, hot_air = -60;
            Id state;
            for (std::size_t s = 0; s < c.solutions.size(); ++s) {
                if (crank(c, s)) continue;
                hot_air = std::max(hot_air, air_at_device_C(c.plan, run, d, c.plan.states[s]));
                const auto& turn = c.solutions[s].network.conductors[k].turn;  // judged by its time, below
                const double amps =
                    turn ? turn->cycle.rest_A : std::abs(c.solutions[s].point.conductors[k].current_A);
                if (amps > worst) worst = amps, state = c.plan.states[s].id;
            }
            opens_in_turn(c, k, d, hot_air, out);
            if (const DemandItem* more = unlisted_demand(c, k); more && more->amps > worst)
                worst = more->amps, state.clear();
            const Load* load = find(c.plan.loads, owner_of(run.to));
            const double rated = rerated_A(kind, d.rating_A, hot_air);
            const double bears = kind.continuous_share * d.rating_A;
            if (d.fuse == FuseType::glass && (worst > bears || (load && load->inrush_A))) {
                Finding f = make_finding(FindingKind::fuse_kind_hot, Severity::fix, run.id, d.id, state,
                                         worst, bears);
                const auto& blades = fuse_kind(FuseType::blade).ratings_A;
                if (c.with_mends && std::find(blades.begin(), blades.end(), d.rating_A) != blades.end()) {
                    Run changed = run;
                    for (Device& x : changed.devices)
                        if (x.id == d.id) x.fuse = FuseType::blade;
                    f.mend = Mend{
                        MendKind::fuse_type, Put<Run>{changed, {}}, d.id, {}, {}, d.rating_A, d.rating_A, {}};
                }
                out.push_back(std::move(f));
            } else if (worst > bears * (1 + 1e-9)) {
                Finding f =
                    make_finding(FindingKind::fuse_loaded, worst > rated ? Severity::fix : Severity::check,
                                 run.id, d.id, state, worst, bears);
                if (c.with_mends) f.candidates = other_ratings(c, k, d.id, worst / kind.continuous_share, 0);
                out.push_back(std::move(f));
            }
            if (!load || !load->inrush_A || pos_of(load->id) != run.to) continue;
            const double seconds = load->inrush_s.value_or(assumption("motor_start_s").value);
            const double start = *load->inrush_A * load->count;
            if (used_by_start(kind, rated, start, worst, seconds) < 1) continue;
            Finding f = make_finding(FindingKind::start_opens_fuse, Severity::fix, run.id, d.id, state, start,
                                     held_start_A(kind, rated, worst, seconds));
            if (c.with_mends) f.candidates = other_ratings(c, k, d.id, d.rating_A * 1.001, 0);
            out.push_back(std::move(f));
        }
    }
}

void hot_turns(const Case& c, std::vector<Finding>& out) {
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
        const Run& r = c.plan.runs[k];
        const auto duty = run_duty(c.plan, k, c.solutions);
        if (!duty || duty->peak_C <= r.insulation_C) continue;
        Finding f = make_finding(FindingKind::duty_hot, Severity::stop, r.id, duty->load, duty->state,
                                 duty->peak_C, r.insulation_C);
        if (c.with_mends && r.size)
            for (int step = 1; step <= 12 && !f.mend; ++step) {
                Run thicker = r;
                thicker.size = step_size(*r.size, step);
                Plan trial = c.plan;
                trial.runs[k] = thicker;
                const auto cooler = run_duty(trial, k, solve_all(trial));
                if (cooler && cooler->peak_C <= r.insulation_C)
                    f.mend =
                        Mend{MendKind::size, Put<Run>{thicker, {}}, r.id, r.size, thicker.size, 0, 0, {}};
            }
        out.push_back(std::move(f));
    }
}

}  // namespace

void inspect_fitting(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    terminals_and_bends(c, out);
    fuses_at_work(c, out);
    hot_turns(c, out);
    parallel_cables(c, out, from);
    service_limits(c, out, from);
    thin_straps(c, out, from);
}

}  // namespace yr
