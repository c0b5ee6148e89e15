#include "size/guard_curves.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "catalog/assumptions.h"
#include "size/run_ladder.h"

namespace yr {
namespace {

constexpr int kPerDecade = 16;

CurvePoints band_edge(const FuseKind& kind, double rated_A, bool latest) {
    CurvePoints points;
    const double first = kind.band.front().multiple, last = 200;
    const double steps = std::log10(last / first) * kPerDecade;
    for (int k = 0; k <= static_cast<int>(steps); ++k) {
        const double multiple = first * std::pow(10, k / static_cast<double>(kPerDecade));
        const OpeningTime t = opening_time(kind, multiple);
        if (latest && !t.latest_s) continue;
        const double seconds = latest ? *t.latest_s : t.earliest_s;
        if (seconds <= kChartTo_s * 20 && seconds >= kChartFrom_s / 20)
            points.emplace_back(multiple * rated_A, seconds);
    }
    // where a promise begins: a foot that stands at that current
    if (latest && !points.empty()) {
        for (const FusePoint& p : kind.band)
            if (p.latest_s) {
                points.insert(points.begin(), {p.multiple * rated_A, *p.latest_s});
                break;
            }
    }
    return points;
}

FuseBandCurve band_of(const Plan& plan, std::size_t run, const Device& d, CurveRole role,
                      const State& state) {
    const FuseKind& kind = fuse_kind(d.fuse);
    const double rated = rerated_A(kind, d.rating_A, air_at_device_C(plan, plan.runs[run], d, state));
    return {run, d.id, role, d.rating_A, band_edge(kind, rated, false), band_edge(kind, rated, true)};
}

// Fuses between this run and a battery, and those on runs that it feeds, by the currents of its far short and
// by the plan's own direction of supply.
void add_neighbours(const Plan& plan, std::size_t run, const State& state, GuardCurves& out) {
    std::set<std::size_t> seen{run};
    std::vector<Terminal> open{plan.runs[run].from};
    for (std::size_t k = 0; k < open.size() && k < 40; ++k)
        for (std::size_t r = 0; r < plan.runs.size(); ++r) {
            if (plan.runs[r].to != open[k] || plan.runs[r].body_metal || !seen.insert(r).second) continue;
            for (const Device& d : plan.runs[r].devices)
                if (d.kind == DeviceKind::fuse)
                    out.fuses.push_back(band_of(plan, r, d, CurveRole::upstream, state));
            open.push_back(plan.runs[r].from);
        }
    for (std::size_t r = 0; r < plan.runs.size(); ++r) {
        if (plan.runs[r].from != plan.runs[run].to || plan.runs[r].body_metal || seen.contains(r)) continue;
        for (const Device& d : plan.runs[r].devices)
            if (d.kind == DeviceKind::fuse)
                out.fuses.push_back(band_of(plan, r, d, CurveRole::downstream, state));
    }
}

}  // namespace

Result<GuardCurves> guard_curves(const Plan& plan, const Id& run_id, std::size_t state_index,
                                 const std::vector<Solution>& solutions) {
    const Run* run = find(plan.runs, run_id);
    if (!run) return fail(ErrorCode::missing_reference, "run", run_id, Want::a_run_of_this_plan);
    if (run->body_metal || run->resistance_ohm)
        return fail(ErrorCode::unknown_size, run->name, {}, Want::a_cable_with_a_size);
    GuardCurves out;
    out.run = static_cast<std::size_t>(run - plan.runs.data());
    const State& state = plan.states[state_index];
    for (const Device& d : run->devices)
        if (d.kind == DeviceKind::fuse) out.fuses.push_back(band_of(plan, out.run, d, CurveRole::own, state));
    add_neighbours(plan, out.run, state, out);

    std::vector<AssumptionUse> uses;
    const CableValues cable = cable_values(plan, *run, state, uses);
    const ConductorResult& now = solutions[state_index].point.conductors[out.run];
    const double start_C = std::min(now.temperature_C, run->insulation_C);
    const double limit_C = short_limit_C(run->insulation_C);
    const auto wire = conductor(cable.size, run->material);
    const double k =
        adiabatic_k(start_C, limit_C) *
        std::sqrt(run->material == Material::cca ? 0.50
                                                 : 1.0);  // heat per mm3 0.81, resistance 1.61 of copper's
    for (int p = 0; p <= 7 * kPerDecade; ++p) {
        const double seconds = kChartFrom_s * std::pow(10, p / static_cast<double>(kPerDecade));
        out.damage.emplace_back(
            run->parallel * current_for_time_A(cable.surroundings, start_C, limit_C, seconds), seconds);
        if (wire && seconds <= 10)
            out.adiabatic.emplace_back(run->parallel * k * wire->area_mm2 / std::sqrt(seconds), seconds);
    }
    std::reverse(out.damage.begin(), out.damage.end());
    std::reverse(out.adiabatic.begin(), out.adiabatic.end());
    out.steady_A = run->parallel * current_for_temperature_A(cable.surroundings, run->insulation_C);
    out.table_A = least_ampacity_A(plan, *run).value_or(0);
    out.normal_A = std::abs(now.current_A);
    if (const double start = start_through_A(plan, *run); start > 0) {
        out.start_A = start;
        const Load* load = find(plan.loads, owner_of(run->to));
        out.start_s = load && load->inrush_s ? *load->inrush_s : assumption("motor_start_s").value;
    }
    const FaultBase base = fault_base(plan, state_index, solutions[state_index]);
    for (const ShortPlace& place : short_places(plan)) {
        if (place.run != out.run) continue;
        const auto row = short_at(plan, base, solutions[state_index], place, 0);
        if (!row) continue;
        if (place.device.empty())
            out.far_least_A = row->least_A, out.far_most_A = row->most_A;
        else
            out.near_most_A = std::max(out.near_most_A, row->most_A);
    }
    return out;
}

}  // namespace yr
