#include "size/run_check.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "catalog/terminals.h"

namespace yr {

FuseGuard fuse_guard(const CableSurroundings& cable, double insulation_C, double start_C, int parallel,
                     FuseType type, double rating_A, double air_C, bool exact, double from_multiple) {
    const FuseKind& kind = fuse_kind(type);
    const double rated =
        rerated_A(kind, rating_A, std::min(air_C, 25.0)) / parallel;  // cold air keeps it closed
    FuseGuard worst;
    worst.limit_C = short_limit_C(insulation_C);
    double excess = -1e9;
    const auto judge = [&](double multiple, std::optional<double> latest_s) {
        if (multiple < from_multiple) return;
        const double amps = multiple * rated;
        double reached = 0;
        if (latest_s) {
            const double adiabatic = adiabatic_bound_C(cable, amps, start_C, *latest_s);
            reached = adiabatic;
            if (adiabatic > worst.limit_C)
                reached = std::min(reached, conductor_temperature_C(cable, amps, start_C));
            // only where the bounds do not say yes already, or the number is shown
            if (reached > worst.limit_C || (exact && reached - worst.limit_C > excess))
                reached = temperature_after_C(cable, amps, start_C, *latest_s);
        } else {
            reached = conductor_temperature_C(cable, amps, start_C);
        }
        if (reached - worst.limit_C <= excess) return;
        excess = reached - worst.limit_C;
        worst.multiple = multiple;
        worst.reached_C = reached;
        worst.seconds = latest_s.value_or(0);
    };
    // just below the first promised opening it may be carried for ever
    for (std::size_t k = 0; k < kind.band.size(); ++k) {
        const FusePoint& p = kind.band[k];
        if (!p.latest_s && k + 1 < kind.band.size() && kind.band[k + 1].latest_s)
            judge(kind.band[k + 1].multiple, std::nullopt);
        if (p.latest_s) judge(p.multiple, p.latest_s);
    }
    worst.guards = excess <= 0;
    return worst;
}

std::optional<double> bolt_at_mm(const Plan& plan, const Terminal& terminal) {
    const Id owner(owner_of(terminal));
    if (const Point* p = find(plan.points, owner)) return p->stud_mm;
    if (const Battery* b = find(plan.batteries, owner)) return b->stud_mm;
    if (const Source* s = find(plan.sources, owner)) return s->stud_mm;
    return std::nullopt;
}

std::optional<double> most_at_mm2(const Plan& plan, const Terminal& terminal) {
    const Point* p = find(plan.points, owner_of(terminal));
    return p ? p->most_mm2 : std::nullopt;
}

RunFit run_fit(const Plan& plan, const Run& run, const WireSize& size) {
    RunFit fit;
    const auto wire = conductor(size, run.material);
    if (!wire) return fit;
    for (const Terminal* t : {&run.from, &run.to}) {
        const auto most = most_at_mm2(plan, *t);
        const auto bolt = bolt_at_mm(plan, *t);
        const auto& bolts = lug_bolts_mm(wire->area_mm2);
        const bool lug = !bolt || std::any_of(bolts.begin(), bolts.end(),
                                              [&](double hole) { return lug_fits(hole, *bolt); });
        if ((most && wire->area_mm2 > *most * 1.001) || !lug) {
            fit.terminals = false;
            fit.tight = *t;
            if (!lug) fit.bolt_mm = *bolt;
            if (most && wire->area_mm2 > *most * 1.001) fit.most_mm2 = *most;
        }
    }
    fit.radius_mm = assumption("bend_diameters").value * wire->outer_diameter_mm;
    fit.bends = !run.bend_mm || fit.radius_mm <= *run.bend_mm * 1.001;
    fit.sturdy = wire->area_mm2 >= assumption("least_cable_mm2").value;
    return fit;
}

double run_mass_kg(const Run& run, const WireSize& size) {
    const auto wire = conductor(size, run.material);
    return wire ? wire->mass_kg_per_m * length_or_assumed_m(run) * run.parallel : 0;
}

double run_money(const Plan& plan, const Run& run, const WireSize& size) {
    const double per_kg = plan.policy.copper_price_per_kg.value_or(assumption("copper_price_per_kg").value);
    return run_mass_kg(run, size) * per_kg +
           run.parallel * (length_or_assumed_m(run) * assumption("cable_making_per_m").value +
                           2 * assumption("cable_end_money").value);
}

double copper_mm2(const Run& run) {
    if (!run.size) return 0;
    const auto wire = conductor(*run.size, run.material);
    return wire ? wire->area_mm2 * run.parallel : 0;
}

double cables_kg(const Plan& plan) {
    double kg = 0;
    for (const Run& r : plan.runs)
        if (!r.body_metal && !r.resistance_ohm) kg += run_mass_kg(r, r.size.value_or(WireSize::awg(14)));
    return kg;
}

double start_through_A(const Plan& plan, const Run& run) {
    for (const Terminal* t : {&run.to, &run.from})
        if (const Load* load = find(plan.loads, owner_of(*t)); load && load->inrush_A)
            return *load->inrush_A * load->count;
    return 0;
}

}  // namespace yr
