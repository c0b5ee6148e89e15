// Rules about batteries: are they charged, within what they bear; who cranks; for how long; what a short asks
// of the fuse at their posts.
#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "inspect/hours.h"
#include "inspect/rules.h"
#include "plan/rail_volts.h"
#include "solve/results.h"

namespace yr {
namespace {

constexpr double kTakesPart_A = 0.02;
constexpr double kOverVolts = 0.05;     // a meter's doubt
constexpr double kStarterShare = 0.15;  // of the starter's amps: above this a battery is taking part
constexpr double kUnequalShare = 1.25;  // of its fair share
constexpr double kFewDays_h = 3 * 24, kTwoWeeks_h = 14 * 24;

double scale(const Plan& plan, const Battery& b) {
    return battery_V(plan, b) / 12;
}

bool charging(const Case& c, std::size_t s, std::size_t k) {
    return c.solutions[s].point.batteries[k].current_A < -kTakesPart_A;
}

void never_charged(const Case& c, std::vector<Finding>& out) {
    if (c.plan.sources.empty()) return;
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k) {
        bool ever = false;
        for (std::size_t s = 0; s < c.solutions.size(); ++s) {
            ever = ever || charging(c, s, k);
            // its duty leaves amps to charge it, if everything at once does not
            ever = ever || (c.plan.states[s].key != Key::crank &&
                            average_battery_A(c.solutions[s].network, c.solutions[s].point, k) < -0.1);
        }
        if (!ever)
            out.push_back(
                make_finding(FindingKind::never_charged, Severity::fix, c.plan.batteries[k].id, {}, {}));
    }
}

void charged_outside(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Solution& sol = c.solutions[s];
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k) {
        const Battery& b = c.plan.batteries[k];
        const BatteryElement& e = sol.network.batteries[k];
        const BatteryResult& r = sol.point.batteries[k];
        const ChemistryData& chemistry = chemistry_data(b.chemistry);
        const double most_V = b.charge_most_V.value_or(chemistry.charge_most_V * scale(c.plan, b));
        if (r.voltage_V > most_V + kOverVolts * scale(c.plan, b) && r.voltage_V > e.open_V)
            keep_worst(out, from,
                       make_finding(FindingKind::charged_too_high, Severity::fix, b.id, {},
                                    c.plan.states[s].id, r.voltage_V, most_V));
        // The model lets no current in below freezing; the supply stands there and pushes all the same.
        if (!chemistry.charges_below_0C && e.temperature_C < 0 && r.voltage_V > e.open_V + kOverVolts)
            keep_worst(out, from,
                       make_finding(FindingKind::charged_too_cold, Severity::stop, b.id, {},
                                    c.plan.states[s].id, e.temperature_C, 0),
                       Worse::lower);
    }
}

// A running engine, a source that gives all it can, and a battery that gets less than it would take.
void no_charge_left(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Solution& sol = c.solutions[s];
    if (c.plan.states[s].rpm <= 0 || passes(c.plan.states[s])) return;
    const auto groups = conductor_groups(sol.network);
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k) {
        const BatteryElement& e = sol.network.batteries[k];
        const double takes = -sol.point.batteries[k].current_A;
        if (takes < 0 || takes > 0.5 * e.accept_A || e.charge > 0.95) continue;  // giving is supply_short's
        for (std::size_t n = 0; n < c.plan.sources.size(); ++n)
            if (sol.network.sources[n].in == kNoNode && c.plan.sources[n].kind != SourceKind::shore &&
                c.plan.sources[n].kind != SourceKind::solar &&  // those charge as fast as they are made to
                sol.point.sources[n].mode == DeviceMode::limited &&
                groups[static_cast<std::size_t>(sol.network.sources[n].out)] ==
                    groups[static_cast<std::size_t>(e.pos)])
                keep_worst(out, from,
                           make_finding(FindingKind::no_charge_left, Severity::check, c.plan.batteries[k].id,
                                        c.plan.sources[n].id, c.plan.states[s].id, takes, e.accept_A),
                           Worse::lower);
    }
}

double starter_A(const Case& c, std::size_t s) {
    double amps = 0;
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k)
        if (c.plan.loads[k].starter) amps += c.solutions[s].point.loads[k].current_A;
    return amps;
}

// The battery that is there for cranking: of those with cranking amps the one that gives most; failing any,
// the plan's first.
std::optional<std::size_t> cranking_battery(const Case& c, std::size_t s) {
    std::optional<std::size_t> best;
    const auto& given = c.solutions[s].point.batteries;
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k)
        if (c.plan.batteries[k].cranking_A && (!best || given[k].current_A > given[*best].current_A))
            best = k;
    if (!best && !c.plan.batteries.empty()) best = 0;
    return best;
}

void cranks_along(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const double amps = starter_A(c, s);
    if (amps < 10) return;
    const auto main = cranking_battery(c, s);
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k) {
        const double gives = c.solutions[s].point.batteries[k].current_A;
        if (k != *main && gives > kStarterShare * amps && !c.plan.batteries[k].cranking_A)
            keep_worst(out, from,
                       make_finding(FindingKind::battery_cranks, Severity::fix, c.plan.batteries[k].id, {},
                                    c.plan.states[s].id, gives, 0));
    }
}

// Two batteries on the same posts, as their conductors join them, give or take by their resistances, not by
// halves.
void shares_unequally(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Solution& sol = c.solutions[s];
    const auto groups = conductor_groups(sol.network);
    const auto group = [&](NodeIndex n) { return groups[static_cast<std::size_t>(n)]; };
    for (std::size_t a = 0; a < c.plan.batteries.size(); ++a)
        for (std::size_t b = a + 1; b < c.plan.batteries.size(); ++b) {
            const auto &ea = sol.network.batteries[a], &eb = sol.network.batteries[b];
            if (group(ea.pos) != group(eb.pos) || group(ea.neg) != group(eb.neg)) continue;
            const double ia = sol.point.batteries[a].current_A, ib = sol.point.batteries[b].current_A;
            if (ia + ib < 10 || ia < 0 || ib < 0) continue;
            const double fair = ea.capacity_Ah / (ea.capacity_Ah + eb.capacity_Ah), share = ia / (ia + ib);
            const bool first = share / fair > (1 - share) / (1 - fair);
            const double more = first ? share : 1 - share, due = first ? fair : 1 - fair;
            if (more / due > kUnequalShare)
                keep_worst(out, from,
                           make_finding(FindingKind::shares_unequally, Severity::check,
                                        c.plan.batteries[first ? a : b].id,
                                        c.plan.batteries[first ? b : a].id, c.plan.states[s].id, more, due));
        }
}

double cranking_V(const Plan& plan, const State& state, std::size_t battery, double charge,
                  OperatingPointSolver& solver) {
    State at = state;
    at.charge = charge;
    const Solution s = solve(plan, at, solver);
    for (std::size_t k = 0; k < plan.loads.size(); ++k)
        if (plan.loads[k].starter && s.point.loads[k].status != LoadStatus::on) return 0;
    return s.point.batteries[battery].voltage_V;
}

// How low may the charge fall before the engine no longer cranks, and how long does each parked state take to
// it?
void cranking_reserve(const Case& c, std::size_t crank, std::vector<Finding>& out) {
    if (starter_A(c, crank) < 10) return;
    const std::size_t battery = *cranking_battery(c, crank);
    const Battery& b = c.plan.batteries[battery];
    const State& state = c.plan.states[crank];
    const double least_V = assumption("crank_least_V").value * scale(c.plan, b);
    const double now_V = c.solutions[crank].point.batteries[battery].voltage_V;
    if (now_V < least_V) {
        // of several cranking states the worst, by name
        keep_worst(
            out, 0,
            make_finding(FindingKind::will_not_crank, Severity::stop, b.id, {}, state.id, now_V, least_V),
            Worse::lower);
        return;
    }
    if (c.near) return;
    OperatingPointSolver solver;
    double low = 0, high = c.solutions[crank].network.batteries[battery].charge;
    if (cranking_V(c.plan, state, battery, low, solver) < least_V)
        for (int k = 0; k < 8; ++k)  // the charge to half a per cent
            (cranking_V(c.plan, state, battery, (low + high) / 2, solver) < least_V ? low : high) =
                (low + high) / 2;
    else
        high = 0;  // even empty
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        const State& parked = c.plan.states[s];
        if (!stands(parked)) continue;
        const BatteryElement& e = c.solutions[s].network.batteries[battery];
        const double gives = c.solutions[s].point.batteries[battery].current_A;
        if (gives < kTakesPart_A || e.charge <= high) continue;
        Finding f = make_finding(FindingKind::cranks_for, Severity::note, b.id, {}, parked.id, gives, high);
        const Lasting to_no_start = lasting(c.plan, parked, battery, high, &c.solutions[s]);
        if (to_no_start.average_A < gives * 0.999)
            f.average = to_no_start.average_A, f.peak_hours = to_no_start.peak_h;
        f.hours = to_no_start.average_h;
        f.lasts = !f.hours;  // a cut-off leaves enough to start
        f.ends = to_no_start.cutoff;
        f.severity = f.lasts                  ? Severity::note
                     : *f.hours < kFewDays_h  ? Severity::fix
                     : *f.hours < kTwoWeeks_h ? Severity::check
                                              : Severity::note;
        // once a parked state, by the cranking state that needs most
        const auto told = std::find_if(out.begin(), out.end(), [&](const Finding& o) {
            return o.kind == f.kind && o.id == f.id && o.state == f.state;
        });
        if (told == out.end())
            out.push_back(std::move(f));
        else if (f.hours && (!told->hours || *f.hours < *told->hours))
            *told = std::move(f);
    }
}

// A dead short just behind the fuse nearest a battery: new and warm it gives E / R0, and the fuse must cut
// that.
void interrupting(const Case& c, std::vector<Finding>& out) {
    for (const Battery& b : c.plan.batteries) {
        State warm = c.plan.states.front();
        warm.ambient_C = warm.engine_bay_C = 25;
        warm.charge = 1;
        Plan fresh = c.plan;
        for (Battery& x : fresh.batteries) x.health.reset();
        const Network net = compile(fresh, warm);
        const auto& e = net.batteries[static_cast<std::size_t>(&b - c.plan.batteries.data())];
        const bool lithium = b.chemistry == Chemistry::lifepo4;
        for (const Run& r : c.plan.runs) {
            const bool from = r.from == pos_of(b.id);
            if (!from && r.to != pos_of(b.id)) continue;
            const Device* fuse = nullptr;
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse && (!fuse || !from)) fuse = &d;
            if (!fuse) continue;
            const double amps = e.open_V / (e.R0_ohm + fuse_resistance_ohm(fuse->fuse, fuse->rating_A));
            const double cuts = fuse_kind(fuse->fuse).interrupting_A;
            if (amps <= cuts) continue;
            Finding f = make_finding(FindingKind::interrupt_low, lithium ? Severity::stop : Severity::check,
                                     r.id, fuse->id, {}, amps, cuts);
            const FuseKind& high = fuse_kind(FuseType::high);
            const auto rating = std::find(high.ratings_A.begin(), high.ratings_A.end(), fuse->rating_A);
            if (c.with_mends && rating != high.ratings_A.end()) {
                Run changed = r;
                for (Device& d : changed.devices)
                    if (d.id == fuse->id) d.fuse = FuseType::high;
                f.mend = Mend{MendKind::fuse_type, Put<Run>{changed, {}}, fuse->id, {}, {},
                              fuse->rating_A,      fuse->rating_A,        {}};
            }
            out.push_back(std::move(f));
        }
    }
}

// A cut-off that waits until the battery is empty spares nothing: below its limit a lead battery is nearly
// flat (11.5 V, see cutoff_open_V) and a lithium one at its knee.
void deep_cutoffs(const Case& c, std::vector<Finding>& out, std::size_t from) {
    for (const Solution& s : c.solutions) {
        const auto groups = conductor_groups(s.network);
        const auto group = [&](NodeIndex n) { return groups[static_cast<std::size_t>(n)]; };
        for (const MemoryElement& m : s.network.memories) {
            if (m.kind != MemoryKind::cutoff && m.kind != MemoryKind::inverter) continue;
            for (std::size_t b = 0; b < c.plan.batteries.size(); ++b) {
                const Battery& battery = c.plan.batteries[b];
                if (group(s.network.batteries[b].pos) != group(m.sense)) continue;
                const double least_V = assumption("cutoff_open_V").value * scale(c.plan, battery);
                if (m.open_V >= least_V - 1e-9) continue;
                // an inverter's own is there for itself, so it is told and no more
                keep_worst(out, from,
                           make_finding(FindingKind::cutoff_deep,
                                        m.kind == MemoryKind::cutoff ? Severity::check : Severity::note, m.id,
                                        battery.id, {}, m.open_V, least_V),
                           Worse::lower);
            }
        }
    }
}

// A battery whose own management opens at less than what is asked of it: all it feeds goes dark at once. In a
// state, or, where no state asks it, by the rating of an inverter on its posts.
void opens_its_management(const Case& c, std::vector<Finding>& out, std::size_t from) {
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k) {
        const Battery& b = c.plan.batteries[k];
        if (!b.cuts_at_A) continue;
        bool asked = false;
        for (std::size_t s = 0; s < c.solutions.size(); ++s) {
            const double amps = c.solutions[s].point.batteries[k].current_A;
            if (amps <= *b.cuts_at_A) continue;
            asked = true;
            keep_worst(out, from,
                       make_finding(FindingKind::management_opens, Severity::stop, b.id, {},
                                    c.plan.states[s].id, amps, *b.cuts_at_A));
        }
        for (std::size_t r = 0; r < c.plan.runs.size() && !asked; ++r) {
            const Run& feed = c.plan.runs[r];
            if (feed.from != pos_of(b.id) || !find(c.plan.inverters, feed.to.owner)) continue;
            const DemandItem* rated = unlisted_demand(c, r);
            if (rated && rated->amps > *b.cuts_at_A)
                keep_worst(out, from,
                           make_finding(FindingKind::management_opens, Severity::check, b.id, feed.to.owner,
                                        {}, rated->amps, *b.cuts_at_A));
        }
    }
}

}  // namespace

void inspect_batteries(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    opens_its_management(c, out, from);
    deep_cutoffs(c, out, from);
    never_charged(c, out);
    interrupting(c, out);
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        const bool cranking = c.plan.states[s].key == Key::crank;
        if (cranking) {
            cranks_along(c, s, out, from);
            cranking_reserve(c, s, out);
        } else {
            charged_outside(c, s, out, from);
            no_charge_left(c, s, out, from);
            shares_unequally(c, s, out, from);
        }
    }
}

}  // namespace yr
