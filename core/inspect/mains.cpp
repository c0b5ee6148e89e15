// Rules about what converts: inverters and what hangs on them, converters' surge and lines, regulators of one
// winding.
#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "inspect/rules.h"
#include "solve/results.h"

namespace yr {
namespace {

constexpr double kEvenly = 1.15;  // regulators further apart than this do not share evenly

void modified_sine(const Case& c, std::vector<Finding>& out) {
    for (const Load& l : c.plan.loads) {
        const Inverter* i = find(c.plan.inverters, l.inverter);
        if (!i || !l.needs_pure_sine || i->waveform == Waveform::pure) continue;
        Finding f = make_finding(FindingKind::modified_sine, Severity::fix, l.id, i->id, {});
        if (c.with_mends) {
            Inverter pure = *i;
            pure.waveform = Waveform::pure;
            f.mend = Mend{MendKind::waveform, Put<Inverter>{pure, {}}, i->id, {}, {}, 0, 0, {}};
        }
        out.push_back(std::move(f));
    }
}

void inverter_limits(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const State& state = c.plan.states[s];
    for (const Inverter& i : c.plan.inverters) {
        if (!holds(i.works_when, state)) continue;
        double apparent_VA = 0;  // what heats it: amps, whatever their phase
        for (const Load& l : c.plan.loads)
            if (l.inverter == i.id && !l.later && holds(l.live_when, state))
                apparent_VA += l.draw.value * l.count / l.power_factor.value_or(1);
        const double most = i.continuous_W.value_or(assumption("inverter_continuous_W").value);
        if (apparent_VA > most)
            keep_worst(out, from,
                       make_finding(FindingKind::inverter_over, Severity::fix, i.id, {}, state.id,
                                    apparent_VA, most));
        double worst = 0;  // the hardest start on top of what else runs
        for (const Load& l : c.plan.loads)
            if (l.inverter == i.id && !l.later && l.start_W && holds(l.live_when, state))
                worst = std::max(
                    worst, apparent_VA + (*l.start_W - l.draw.value / l.power_factor.value_or(1)) * l.count);
        const double surge = i.surge_W.value_or(most);
        if (worst > surge && apparent_VA <= most)
            keep_worst(
                out, from,
                make_finding(FindingKind::inverter_surge, Severity::fix, i.id, {}, state.id, worst, surge));
    }
}

void inverter_collapsed(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const OperatingPoint& point = c.solutions[s].point;
    for (std::size_t k = 0; k < c.plan.inverters.size(); ++k)
        if (point.loads[c.plan.loads.size() + k].status == LoadStatus::collapsed)
            keep_worst(out, from,
                       make_finding(FindingKind::no_operating_point, Severity::fix, c.plan.inverters[k].id,
                                    {}, c.plan.states[s].id, point.collapsed_at[c.plan.loads.size() + k]));
}

// Everything on a converter's own rail that starts at once, against what it can give for a few seconds. A
// battery on the rail takes the start, so only rails without one are looked at.
void converter_surge(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Solution& sol = c.solutions[s];
    const auto groups = conductor_groups(sol.network);
    const auto group = [&](NodeIndex n) { return groups[static_cast<std::size_t>(n)]; };
    for (std::size_t k = 0; k < c.plan.sources.size(); ++k) {
        const SourceElement& e = sol.network.sources[k];
        if (e.in == kNoNode || sol.point.sources[k].mode == DeviceMode::off) continue;
        const bool battery =
            std::any_of(sol.network.batteries.begin(), sol.network.batteries.end(),
                        [&](const BatteryElement& b) { return group(b.pos) == group(e.out); });
        if (battery) continue;
        double amps = 0, rise = 0;
        for (std::size_t n = 0; n < c.plan.loads.size(); ++n) {
            const LoadResult& r = sol.point.loads[n];
            if (r.status != LoadStatus::on || sol.network.loads[n].inverter >= 0 ||
                group(sol.network.loads[n].pos) != group(e.out))
                continue;
            amps += r.current_A;
            if (const Load& l = c.plan.loads[n]; l.inrush_A)
                rise = std::max(rise, *l.inrush_A * l.count - r.current_A);
        }
        const double surge = c.plan.sources[k].surge_A.value_or(e.limit_A);
        if (rise > 0 && amps + rise > surge)
            keep_worst(out, from,
                       make_finding(FindingKind::converter_surge, Severity::fix, c.plan.sources[k].id, {},
                                    c.plan.states[s].id, amps + rise, surge));
    }
}

void charged_lines(const Case& c, std::vector<Finding>& out) {
    for (const Source& s : c.plan.sources)
        if (s.stays_charged_s.value_or(0) > 0)
            out.push_back(
                make_finding(FindingKind::stays_charged, Severity::note, s.id, {}, {}, *s.stays_charged_s));
}

void windings(const Case& c, std::vector<Finding>& out) {
    std::map<std::string, std::vector<const Source*>> by_winding;
    for (const Source& s : c.plan.sources)
        if (s.kind == SourceKind::stator && !s.winding.empty()) by_winding[s.winding].push_back(&s);
    for (const auto& [winding, regulators] : by_winding)
        for (const Source* a : regulators)
            for (const Source* b : regulators) {
                const double sa = a->share.value_or(1), sb = b->share.value_or(1);
                if (sa > sb * kEvenly)
                    out.push_back(make_finding(FindingKind::shares_unequally, Severity::check, a->id, b->id,
                                               {}, sa / (sa + sb), 0.5));
            }
}

}  // namespace

void inspect_mains(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    modified_sine(c, out);
    charged_lines(c, out);
    windings(c, out);
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        inverter_limits(c, s, out, from);
        inverter_collapsed(c, s, out, from);
        converter_surge(c, s, out, from);
    }
}

}  // namespace yr
