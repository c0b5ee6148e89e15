#include "fabricate/ends.h"

#include <algorithm>
#include <cmath>

#include "catalog/conductors.h"
#include "catalog/terminals.h"

namespace yr {
namespace {

constexpr double kThin_mm2 = 2.7;      // up to there blades and ferrules are usual; common practice
constexpr double kTwoCrimps_mm2 = 16;  // a lug from there up is crimped twice; common practice
constexpr double kStudBolt_mm = 8, kSmallBolt_mm = 6;
constexpr double kBlade_mm = 6.3;
constexpr double kShrinkLength_mm = 40;
// Diameters that heat shrink comes in, before it is warmed (it goes to a half or a third); common practice.
constexpr double kShrinks_mm[] = {3.2, 4.8, 6.4, 9.5, 12.7, 19, 25.4, 38};

double stated_bolt_mm(const Plan& plan, const Terminal& t) {
    if (const Point* p = find(plan.points, std::string_view(t.owner))) return p->stud_mm.value_or(0);
    if (const Battery* b = find(plan.batteries, std::string_view(t.owner))) return b->stud_mm.value_or(0);
    if (const Source* s = find(plan.sources, std::string_view(t.owner))) return s->stud_mm.value_or(0);
    return 0;
}

// The usual end there: a lug on bolts, a blade at boxes, loads and fuse blocks for thin copper, a ferrule at
// inverters and chargers of small ones.
EndKind usual(const Plan& plan, const Terminal& t, double mm2, bool channel) {
    if (const Point* p = find(plan.points, std::string_view(t.owner))) {
        if (p->kind == PointKind::splice) return EndKind::splice;
        const bool thin_at_box =
            (p->kind == PointKind::box && channel) || (p->kind == PointKind::bus && p->feeds_loads);
        return thin_at_box && mm2 <= kThin_mm2 ? EndKind::blade : EndKind::ring;
    }
    if (find(plan.loads, std::string_view(t.owner))) return mm2 <= kThin_mm2 ? EndKind::blade : EndKind::ring;
    return EndKind::ring;
}

// Lugs come with certain holes for each copper: the nearest that goes over the bolt.
double hole_for(double bolt_mm, double mm2) {
    for (const double hole : lug_bolts_mm(mm2))
        if (hole >= bolt_mm - 1e-9) return hole;
    return bolt_mm;
}

}  // namespace

bool is_cut(const Run& run) {
    return !run.body_metal && !run.resistance_ohm;
}

CableEnd end_of(const Plan& plan, const Run& run, bool at_from) {
    CableEnd e;
    e.at = at_from ? run.from : run.to;
    const RunEnd& said = at_from ? run.end_from : run.end_to;
    const auto wire = conductor(run.size.value_or(WireSize::awg(14)), run.material);
    const double mm2 = wire ? wire->area_mm2 : 2, outer = wire ? wire->outer_diameter_mm : 4;
    e.chosen = said.kind == EndKind::by_choice;
    e.kind = e.chosen ? usual(plan, e.at, mm2, at_from && run.channel > 0) : said.kind;
    e.angle_deg = said.angle_deg.value_or(0);
    e.boot = said.boot, e.doubled = said.doubled;
    if (e.kind == EndKind::ring) {
        const auto lug = at_from ? run.lug_from_mm : run.lug_to_mm;
        const double stated = stated_bolt_mm(plan, e.at);
        const bool heavy = find(plan.batteries, std::string_view(e.at.owner)) || mm2 > 10;
        const double bolt = stated > 0 ? stated : heavy ? kStudBolt_mm : kSmallBolt_mm;
        e.bolt_mm = lug ? *lug : hole_for(bolt, mm2);
    }
    if (e.kind == EndKind::blade) e.blade_mm = kBlade_mm;
    e.strip_mm = e.kind == EndKind::ring     ? std::round(6 + 1.6 * std::sqrt(mm2) + 1)
                 : e.kind == EndKind::splice ? 10
                 : e.kind == EndKind::bare   ? 12
                                             : 7;
    if (e.kind == EndKind::ring || e.kind == EndKind::splice) {
        // it must go over the lug's barrel, about a fifth thicker than the cable
        for (const double d : kShrinks_mm)
            if (d >= outer * 1.2) {
                e.shrink_mm = d;
                break;
            }
        if (e.shrink_mm <= 0) e.shrink_mm = kShrinks_mm[7];
        e.shrink_length_mm = kShrinkLength_mm * (e.doubled ? 2 : 1);
    }
    return e;
}

std::vector<EndStep> steps_of(const CableEnd& end, double mm2) {
    std::vector<EndStep> steps{EndStep::cut};
    if (end.boot) steps.push_back(EndStep::slide_boot);
    if (end.shrink_mm > 0) steps.push_back(EndStep::slide_shrink);
    steps.push_back(EndStep::strip);
    if (end.kind == EndKind::bare) {
        steps.push_back(EndStep::twist);
    } else {
        steps.push_back(EndStep::crimp_front);
        if (end.kind == EndKind::ring && mm2 >= kTwoCrimps_mm2) steps.push_back(EndStep::crimp_back);
        steps.push_back(EndStep::pull);
    }
    if (end.shrink_mm > 0) steps.push_back(EndStep::warm);
    steps.push_back(EndStep::label);
    return steps;
}

std::string tool_for(const CableEnd& end, double mm2) {
    switch (end.kind) {
        case EndKind::ring:
            return mm2 >= 10 ? "hexagonal die" : "indent crimper";
        case EndKind::blade:
        case EndKind::pin:
            return "roll crimper";
        case EndKind::ferrule:
            return "ferrule crimper";
        case EndKind::splice:
            return "indent crimper";
        case EndKind::bare:
        case EndKind::by_choice:
            break;
    }
    return {};
}

}  // namespace yr
