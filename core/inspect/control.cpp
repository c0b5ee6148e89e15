// Rules about who is live when and through what: loads that run unasked, key loads on a constant feed,
// missing signals, taps, contacts, coils beside control units, shared grounds, and what draws while parked.
#include <algorithm>
#include <cmath>

#include "catalog/batteries.h"
#include "control/boxes.h"
#include "control/key_positions.h"
#include "control/rails.h"
#include "inspect/rules.h"
#include "plan/supply_runs.h"
#include "solve/results.h"

namespace yr {
namespace {

constexpr double kHeavy_A =
    15;  // a load whose return does not belong beside a sensitive one; common practice
constexpr double kCulprit_share = 0.1;  // of what is drawn while parked: less is not worth a line
constexpr double kCulprit_A = 0.02;
constexpr std::size_t kMostCulprits = 4;

bool sensitive(const Load& l) {
    return l.own_ground || l.supply_code != SupplyCode::none;
}

void alive_unasked(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const LoadElement& e = c.solutions[s].network.loads[k];
        const LoadResult& r = c.solutions[s].point.loads[k];
        if (r.status != LoadStatus::on || e.expected || e.inverter >= 0) continue;
        const Run* run = supply_run(c.plan, c.plan.loads[k].id);
        keep_worst(out, from,
                   make_finding(FindingKind::load_alive, Severity::fix, c.plan.loads[k].id,
                                run ? run->id : Id(), c.plan.states[s].id, r.current_A));
    }
}

// Feeds that are live with the key off, and the loads on them that ought to follow the key.
void key_on_constant(const Case& c, std::vector<Finding>& out) {
    const SupplyRuns supply(c.plan);
    const Solution off = solve(c.plan, state_at(c.plan, KeyPosition::off, master_switches(c.plan)));
    for (const Point& p : c.plan.points) {
        if (!p.feeds_loads) continue;
        const auto& nodes = off.network.nodes;
        const auto n = static_cast<std::size_t>(std::find(nodes.begin(), nodes.end(), p.id) - nodes.begin());
        if (n >= nodes.size() || off.point.node_V[n] < 0.5 * c.plan.vehicle.nominal_V) continue;
        Finding f = make_finding(FindingKind::key_on_constant, Severity::note, p.id, {}, {});
        for (const Load& l : c.plan.loads) {
            const Run* run = supply.of(l.id);
            if (!run || run->from != p.id || run->channel > 0 || !l.own_switch || l.starter) continue;
            const bool relay = std::any_of(run->devices.begin(), run->devices.end(), [](const Device& d) {
                return d.kind == DeviceKind::switching && !(d.closed_when == Condition{});
            });
            if (relay || wanted_at(c.plan, l)[0]) continue;
            if (f.other.empty()) f.other = l.id;
            f.value += 1;
        }
        if (f.value > 0) out.push_back(std::move(f));
    }
}

void signals(const Case& c, std::vector<Finding>& out) {
    for (const Load& l : c.plan.loads) {
        if (!l.signal_after_s) continue;
        if (const auto signal = signal_of(c.plan, l)) {
            if (signal->after_s >= *l.signal_after_s * (1 - 1e-9)) continue;
            Finding f = make_finding(FindingKind::signal_early, Severity::fix, l.id, signal->load->id, {},
                                     signal->after_s, *l.signal_after_s);
            if (c.with_mends) {
                f.mend.emplace();
                f.mend->kind = MendKind::later_signal;
                f.mend->edit = later_signal(c.plan, *signal, *l.signal_after_s);
                f.mend->target = signal->delayed_by;
                f.mend->from_A = signal->after_s;
                f.mend->to_A = *l.signal_after_s;
            }
            out.push_back(std::move(f));
            continue;
        }
        Finding f = make_finding(FindingKind::signal_missing, Severity::fix, l.id, {}, {}, *l.signal_after_s);
        if (c.with_mends)
            if (auto edit = add_signal(c.plan, l)) {
                f.mend.emplace();
                f.mend->kind = MendKind::add_signal;
                f.mend->edit = *edit;
                f.mend->target = l.id;
            }
        out.push_back(std::move(f));
    }
}

double amps_of(const Case& c, std::size_t s, const Run& run) {
    return std::abs(
        c.solutions[s].point.conductors[static_cast<std::size_t>(&run - c.plan.runs.data())].current_A);
}

void taps_and_contacts(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Id& state = c.plan.states[s].id;
    for (const Run& r : c.plan.runs) {
        for (const Device& d : r.devices)
            if (d.contact_A && amps_of(c, s, r) > *d.contact_A * (1 + 1e-9))
                keep_worst(out, from,
                           make_finding(FindingKind::contact_over, Severity::fix, d.id, {}, state,
                                        amps_of(c, s, r), *d.contact_A));
        if (r.tap_of.empty()) continue;
        for (const Run& tapped : c.plan.runs)
            if (const Device* fuse = find(tapped.devices, r.tap_of)) {
                const double both = amps_of(c, s, r) + amps_of(c, s, tapped);
                if (both > fuse->rating_A * (1 + 1e-9))
                    keep_worst(out, from,
                               make_finding(FindingKind::tap_over, Severity::fix, r.id, fuse->id, state, both,
                                            fuse->rating_A));
            }
    }
}

void coils(const Case& c, std::vector<Finding>& out) {
    const SupplyRuns supply(c.plan);
    for (const Run& r : c.plan.runs)
        for (const Device& d : r.devices) {
            const bool kept = d.suppression == Suppression::diode || d.suppression == Suppression::resistor;
            const Run* feed = d.coil.empty() || kept ? nullptr : supply.of(d.coil);
            if (!feed) continue;
            for (const Load& l : c.plan.loads) {
                const Run* other = sensitive(l) ? supply.of(l.id) : nullptr;
                if (!other || other->from != feed->from || l.id == d.coil) continue;
                Finding f = make_finding(FindingKind::coil_kick, Severity::check, d.coil, l.id, {});
                Run changed = r;
                for (Device& x : changed.devices)
                    if (x.id == d.id) x.suppression = Suppression::diode;
                f.mend.emplace();
                f.mend->kind = MendKind::suppress;
                f.mend->edit = Put<Run>{changed, {}};
                f.mend->target = d.id;
                out.push_back(std::move(f));
                break;
            }
        }
}

const Run* return_run(const Plan& plan, const Id& load) {
    for (const Run& r : plan.runs)
        if (r.from == neg_of(load)) return &r;
    return nullptr;
}

// A sensitive load whose return ends on metal, or on a bus beside a heavy one.
void grounds(const Case& c, std::vector<Finding>& out) {
    for (const Load& l : c.plan.loads) {
        const Run* ret = l.own_ground ? return_run(c.plan, l.id) : nullptr;
        const Point* end = ret ? find(c.plan.points, ret->to) : nullptr;
        if (!end) continue;  // home to a battery post
        const Load* heavy = nullptr;
        for (const Load& other : c.plan.loads) {
            const Run* r = other.id == l.id ? nullptr : return_run(c.plan, other.id);
            if (r && r->to == end->id && nominal_A(c.plan, other) > kHeavy_A &&
                (!heavy || nominal_A(c.plan, other) > nominal_A(c.plan, *heavy)))
                heavy = &other;
        }
        const bool metal = end->kind == PointKind::ground || end->kind == PointKind::chassis;
        if (!heavy && !metal) continue;
        Finding f = make_finding(FindingKind::shares_ground, Severity::check, l.id,
                                 heavy ? heavy->id : end->id, {}, heavy ? nominal_A(c.plan, *heavy) : 0);
        if (!c.plan.batteries.empty()) {
            Run own = *ret;
            own.to = neg_of(c.plan.batteries.front().id);
            own.length_m.reset();  // the way home was never measured
            f.mend.emplace();
            f.mend->kind = MendKind::own_return;
            f.mend->edit = Put<Run>{own, {}};
            f.mend->target = own.id;
        }
        out.push_back(std::move(f));
    }
}

// In the parked (towed) state that drains most: who takes how much of it.
void parked(const Case& c, StateRole role, std::vector<Finding>& out) {
    std::optional<std::size_t> worst;
    double most = 0;
    for (std::size_t s = 0; s < c.plan.states.size(); ++s) {
        if (!stands(c.plan.states[s]) || role_of(c.plan.states[s]) != role) continue;
        double gives = 0;
        for (const BatteryResult& b : c.solutions[s].point.batteries) gives += std::max(0.0, b.current_A);
        if (gives > most) most = gives, worst = s;
    }
    if (!worst || c.plan.batteries.empty()) return;
    const Solution& sol = c.solutions[*worst];
    std::vector<Finding> culprits;
    const Network& net = sol.network;
    const std::vector<int> group = conductor_groups(net);
    const std::vector<RailOrigin> origins = rail_origins(net, sol.point, group);
    const auto rail = [&](NodeIndex n) { return group[static_cast<std::size_t>(n)]; };
    const auto add = [&](const Id& id, const LoadElement& l, double own_A) {
        // behind a converter it is what its battery is asked for that counts
        const RailOrigin& origin = origins[static_cast<std::size_t>(rail(l.pos))];
        const double amps = own_A * origin.per_A;
        std::size_t battery = 0;  // that stands on that rail and gives most
        double given = -1, drawn = 0;
        for (std::size_t b = 0; b < net.batteries.size(); ++b) {
            if (rail(net.batteries[b].pos) != origin.rail) continue;
            drawn += std::max(0.0, sol.point.batteries[b].current_A);
            if (sol.point.batteries[b].current_A > given)
                battery = b, given = sol.point.batteries[b].current_A;
        }
        for (std::size_t k = 0; k < net.sources.size(); ++k)  // a charger gives a part of it
            if (rail(net.sources[k].out) == origin.rail)
                drawn += std::max(0.0, sol.point.sources[k].current_A);
        if (given <= 0 || amps < kCulprit_A || amps < kCulprit_share * drawn) return;
        const BatteryElement& e = net.batteries[battery];
        Finding f = make_finding(FindingKind::parked_draw, Severity::note, id, c.plan.batteries[battery].id,
                                 c.plan.states[*worst].id, amps, drawn);
        if (l.duty < 1) f.average = amps * l.duty;
        if (e.charge > 0.5)
            f.hours = hours_for_share(e.charge - 0.5, e.capacity_Ah, amps * l.duty, e.peukert);
        culprits.push_back(std::move(f));
    };
    for (std::size_t k = 0; k < net.loads.size(); ++k) {
        const LoadResult& r = sol.point.loads[k];
        if (r.status != LoadStatus::on || net.loads[k].inverter >= 0) continue;
        if (k < net.plan_loads)
            add(c.plan.loads[k].id, net.loads[k], r.current_A);
        else if (k < net.plan_loads + net.inverters)
            add(c.plan.inverters[k - net.plan_loads].id, net.loads[k], r.current_A);
        else
            add(c.plan
                    .points[static_cast<std::size_t>(net.standby_points[k - net.plan_loads - net.inverters])]
                    .id,
                net.loads[k], r.current_A);
    }
    std::stable_sort(culprits.begin(), culprits.end(),
                     [](const Finding& a, const Finding& b) { return a.value > b.value; });
    culprits.resize(std::min(culprits.size(), kMostCulprits));
    out.insert(out.end(), culprits.begin(), culprits.end());
}

}  // namespace

void inspect_control(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        alive_unasked(c, s, out, from);
        taps_and_contacts(c, s, out, from);
    }
    key_on_constant(c, out);
    signals(c, out);
    coils(c, out);
    grounds(c, out);
    for (const StateRole role : {StateRole::parked, StateRole::towed}) parked(c, role, out);
}

}  // namespace yr
