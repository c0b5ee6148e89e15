// Rules about sources and batteries: does the supply carry its state, and for how long?
#include <algorithm>
#include <cmath>
#include <set>

#include "inspect/hours.h"
#include "inspect/rules.h"
#include "solve/results.h"

namespace yr {
namespace {

constexpr double kNoticeable_A = 0.05;
constexpr double kNight_h = 12;  // a parked vehicle that is half empty sooner does not last the night

void batteries(const Case& c, std::size_t s, std::vector<Finding>& out) {
    const State& state = c.plan.states[s];
    if (state.key == Key::crank || passes(state)) return;
    const Solution& sol = c.solutions[s];
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k) {
        const double gives = sol.point.batteries[k].current_A;
        if (gives < kNoticeable_A) continue;
        const bool running = state.rpm > 0;
        Finding f{running ? FindingKind::supply_short : FindingKind::battery_drains,
                  Severity::fix,
                  c.plan.batteries[k].id,
                  {},
                  state.id,
                  gives,
                  0,
                  {},
                  {},
                  0,
                  {}};
        const Lasting to_half = lasting(c.plan, state, k, 0.5, &c.solutions[s]);
        // of a way on which a joiner opens no one average can be told: the hours rest on both parts of it
        if (!to_half.parts.empty())
            f.parts = to_half.parts, f.then_A = to_half.then_average_A;
        else if (to_half.average_A < gives * 0.999)
            f.average = to_half.average_A, f.peak_hours = to_half.peak_h;
        f.hours = to_half.average_h;
        f.lasts = !to_half.average_h;
        f.ends = to_half.cutoff;
        // what recovers on average is no shortage; what a cut-off ends leaves the battery more than half
        if (running && f.lasts) f.severity = Severity::note;
        if (!running) f.severity = f.hours && *f.hours < kNight_h ? Severity::check : Severity::note;
        out.push_back(std::move(f));  // each state has its own hours
    }
}

void sources(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const auto over = over_asked(c, s);
    const auto told = [&](std::size_t k) {
        return std::any_of(over.begin(), over.end(), [&](const OverAsked& o) { return o.source == k; });
    };
    for (std::size_t k = 0; k < c.plan.sources.size(); ++k) {
        const SourceResult& r = c.solutions[s].point.sources[k];
        if (r.input_dead && dead_on_purpose(c, s, [&](const Solution& all_closed) {
                return !all_closed.point.sources[k].input_dead;
            }))
            continue;
        if (r.input_dead)
            keep_worst(out, from,
                       {FindingKind::converter_dead,
                        Severity::fix,
                        c.plan.sources[k].id,
                        {},
                        c.plan.states[s].id,
                        1,
                        0,
                        {},
                        {},
                        0,
                        {}});
        else if (r.mode == DeviceMode::limited && !passes(c.plan.states[s]) && !told(k))
            keep_worst(out, from,
                       {FindingKind::source_at_limit,
                        Severity::check,
                        c.plan.sources[k].id,
                        {},
                        c.plan.states[s].id,
                        r.current_A,
                        0,
                        {},
                        {},
                        0,
                        {}});
    }
}

// "70 A at idle" counts at the low-speed point of ISO 8854; where this engine's idle turns it at another
// speed it gives something else, and who reads 77 A asks why.
void idle_elsewhere(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    constexpr double kSame = 0.05;
    const State& state = c.plan.states[s];
    if (state.rpm <= 0 || role_of(state) != StateRole::idling) return;
    for (const Source& source : c.plan.sources) {
        if (source.kind != SourceKind::alternator || !source.idle_A || !source.curve.empty()) continue;
        std::vector<AssumptionUse> uses;
        const double gives = source_limit_A(source, state.rpm, 25, uses);
        if (std::abs(gives - *source.idle_A) > kSame * *source.idle_A)
            keep_worst(out, from,
                       make_finding(FindingKind::idle_elsewhere, Severity::note, source.id, {}, state.id,
                                    gives, *source.idle_A));
    }
}

// Assumptions that carry weight: grounds and body metal nobody measured. One line for all of them.
void assumptions(const Case& c, std::vector<Finding>& out) {
    std::set<Id> bonds;
    if (c.solutions.empty()) return;
    for (const AssumptionUse& use : c.solutions.front().network.assumptions)
        if (use.key == "bond_mohm" || use.key == "metal_mohm") bonds.insert(use.id);
    if (!bonds.empty())
        out.push_back({FindingKind::rests_on_assumption,
                       Severity::check,
                       *bonds.begin(),
                       {},
                       {},
                       static_cast<double>(bonds.size()),
                       0,
                       {},
                       {},
                       0,
                       {}});
    std::set<Id> lengths;
    for (const AssumptionUse& use : c.solutions.front().network.assumptions)
        if (use.key == "run_length_m" || use.key == "run_size_awg") lengths.insert(use.id);
    for (const Id& id : lengths)
        out.push_back(
            {FindingKind::rests_on_assumption, Severity::note, id, "length", {}, 1, 0, {}, {}, 0, {}});
}

}  // namespace

void inspect_supply(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        if (!c.near) batteries(c, s, out);
        sources(c, s, out, from);
        idle_elsewhere(c, s, out, from);
    }
    assumptions(c, out);
}

}  // namespace yr
