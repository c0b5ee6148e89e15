#include "notes/cables.h"

#include <algorithm>

#include "catalog/assumptions.h"
#include "guard/fault_network.h"
#include "plan/rail_volts.h"
#include "size/plan_fuse.h"
#include "size/run_limits.h"

namespace yr {
namespace {

constexpr double kReserve = 1.3;              // of the fuse above what flows for ever
constexpr double kLeastReserve = 1.2;         // where more would ask for two cables instead of one
constexpr double kLargestOfOneCable_A = 400;  // a fuse that the thickest cable stands; common practice
constexpr double kNear_m = 0.1;               // a hand's breadth from the post
constexpr double kWarm = 1.2;                 // copper at work against 20 C
constexpr double kBladesTo_A = 40;
constexpr int kMostTwins = 3;

// `short_A`: what the battery beside it gives into a dead short.
FuseType kind_for(const CableAsk& ask, double amps, bool breaker, double rail, double short_A) {
    if (breaker) return FuseType::breaker_3;
    const FuseKind& strip = fuse_kind(FuseType::strip);
    if (ask.lithium || rail > strip.rated_V || (ask.at_post && short_A > strip.interrupting_A))
        return FuseType::high;
    if (ask.at_post) return FuseType::strip;  // cuts off what a battery gives
    return amps * kReserve <= kBladesTo_A ? FuseType::blade : FuseType::bolt;
}

// Of the fuse for so many amps.
double rating_for(FuseType type, double amps) {
    const auto& ratings = fuse_kind(type).ratings_A;
    for (const double r : ratings) {
        if (r >= amps * kReserve - 1e-9) return r;
        if (r == kLargestOfOneCable_A && r >= amps * kLeastReserve) return r;
    }
    return ratings.back();
}

// The kind that has that rating, the wanted one first.
FuseType kind_with(FuseType wanted, double rating_A, double rail) {
    const auto has = [&](FuseType t) {
        const auto& all = fuse_kind(t).ratings_A;
        return fuse_kind(t).rated_V >= rail && std::find(all.begin(), all.end(), rating_A) != all.end();
    };
    if (has(wanted)) return wanted;
    for (const FuseType t :
         {FuseType::strip, FuseType::bolt, FuseType::stud, FuseType::blade, FuseType::blade_large})
        if (has(t)) return t;
    return wanted;
}

WireSize thinnest(const PlanBuilder& builder, Run run, const CableAsk& ask, double must_carry_A) {
    const Plan& plan = builder.plan();
    const auto sizes = sizes_of(plan.policy.sizes);
    for (const WireSize& size : sizes) {
        const auto wire = conductor(size, run.material);
        if (!wire || wire->area_mm2 < assumption("least_cable_mm2").value) continue;
        run.size = size;
        const double drop = ask.amps * wire->R20_ohm_per_m * kWarm * run.length_m.value_or(ask.length_m);
        if (drop > ask.drop_share * plan.vehicle.nominal_V) continue;
        if (!ask.seconds && least_ampacity_A(plan, run).value_or(0) < must_carry_A) continue;
        return size;
    }
    return sizes.back();
}

// Of a size that was said: a fuse no larger than what it stands, where there is one.
double not_above(const Plan& plan, Run run, const WireSize& size, FuseType type, double rating_A) {
    run.size = size;
    const auto stands_A = least_ampacity_A(plan, run);
    double best = 0;
    for (const double r : fuse_kind(type).ratings_A)
        if (stands_A && r <= *stands_A && r <= rating_A) best = std::max(best, r);
    return best > 0 ? best : rating_A;
}

}  // namespace

bool one_thicker(const Plan& plan, Run& run) {
    const auto& sizes = sizes_of(plan.policy.sizes);
    const auto at = std::find(sizes.begin(), sizes.end(), run.size.value_or(sizes.front()));
    if (at == sizes.end() || at + 1 == sizes.end()) return false;
    run.size = *(at + 1);
    return true;
}

WireSize thinnest_sturdy(const Plan& plan) {
    const auto& sizes = sizes_of(plan.policy.sizes);
    for (const WireSize& size : sizes)
        if (const auto wire = conductor(size); wire && wire->area_mm2 >= assumption("least_cable_mm2").value)
            return size;
    return sizes.back();
}

Run cable_for(const PlanBuilder& builder, const CableAsk& ask, const Said& said) {
    Run run;
    run.id = builder.id("run");
    run.name = ask.name;
    run.from = ask.from, run.to = ask.to;
    run.length_m = said.length_m.value_or(ask.length_m);
    for (const Terminal* t : {&run.from, &run.to}) {  // the hottest place that it touches
        const Plan& plan = builder.plan();
        Id place;
        if (const Point* p = find(plan.points, *t)) place = p->place;
        if (const Battery* b = find(plan.batteries, t->owner)) place = b->place;
        if (const Source* s = find(plan.sources, t->owner)) place = s->place;
        if (!place.empty() && std::find(run.places.begin(), run.places.end(), place) == run.places.end())
            run.places.push_back(place);
    }
    double must_carry_A = ask.amps * 1.05;
    if (ask.fused || said.fuse_A) {
        const double rail = rail_V(builder.plan(), ask.from);
        const double short_A = std::max(short_at_posts_A(builder.plan(), ask.from.owner),
                                        short_at_posts_A(builder.plan(), ask.to.owner));
        FuseType type = kind_for(ask, ask.amps, said.breaker, rail, short_A);
        if (const auto& all = fuse_kind(type).ratings_A;
            !said.fuse_A && all.back() < ask.amps * kReserve &&
            fuse_kind(FuseType::high).ratings_A.back() > all.back())
            type = FuseType::high;  // a weaker kind is not made for so much
        double rating = said.fuse_A.value_or(rating_for(type, ask.amps));
        if (said.size && !said.fuse_A) rating = not_above(builder.plan(), run, *said.size, type, rating);
        type = kind_with(type, rating, rail);
        must_carry_A = std::max(must_carry_A, rating);
        const auto put = [&](double at_m, const std::string& name) {
            Device d;
            d.id = builder.id("fuse") + (run.devices.empty() ? "" : "b");
            d.name = name, d.fuse = type, d.rating_A = rating, d.at_m = std::clamp(at_m, 0.0, *run.length_m);
            run.devices.push_back(d);
        };
        const std::string name = run.name + (said.breaker ? " breaker" : " fuse");
        if (!ask.at_end || said.both_ends) put(std::min(kNear_m, *run.length_m / 4), name);
        if (ask.at_end || said.both_ends)
            put(*run.length_m - std::min(kNear_m, *run.length_m / 4), said.both_ends ? name + " 2" : name);
    }
    // what one cable of the thickest size cannot bear two side by side do
    for (run.parallel = 1; run.parallel <= kMostTwins; ++run.parallel) {
        run.size = said.size.value_or(thinnest(builder, run, ask, must_carry_A));
        while (!said.size && !guarded(builder.plan(), run, kColdFuse) && one_thicker(builder.plan(), run)) {
        }
        if (said.size || ask.seconds || least_ampacity_A(builder.plan(), run).value_or(0) >= must_carry_A)
            return run;
    }
    run.parallel = 1;
    return run;
}

}  // namespace yr
