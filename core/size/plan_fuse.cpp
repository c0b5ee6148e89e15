#include "size/plan_fuse.h"

#include "demand/demand.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "plan/rail_volts.h"

namespace yr {
namespace {

// The run with one fuse of that rating at its supply end, in place of its own.
Plan with_fuse(const Plan& plan, std::size_t run, const FuseChoice& choice) {
    Plan trial = plan;
    Run& r = trial.runs[run];
    for (Device& d : r.devices)
        if (d.kind == DeviceKind::fuse) {
            d.rating_A = choice.rating_A;
            d.fuse = choice.type;
            return trial;
        }
    Device fuse;
    fuse.id = new_id(trial, "fuse");
    fuse.kind = DeviceKind::fuse;
    fuse.fuse = choice.type;
    fuse.rating_A = choice.rating_A;
    r.devices.insert(r.devices.begin(), fuse);
    return trial;
}

}  // namespace

std::optional<FuseGuard> guard_by(const Plan& plan, const Run& run, const Device& fuse, bool exact,
                                  double from_multiple) {
    if (!run.size || run.body_metal || run.resistance_ohm) return std::nullopt;
    const auto wire = conductor(*run.size, run.material);
    if (!wire) return std::nullopt;
    double hot = -60, cold = 25;
    for (const State& s : plan.states) {
        hot = std::max(hot, run_air(plan, run, s).ambient_C);
        cold = std::min(cold, air_at_device_C(plan, run, fuse, s));
    }
    const double bundle = plan.policy.bundle_derating ? bundle_factor(bundle_of(plan, run)) : 1;
    return fuse_guard(surroundings_of(*wire, hot, bundle), run.insulation_C,
                      std::min(hot + 40, run.insulation_C), run.parallel, fuse.fuse, fuse.rating_A, cold,
                      exact, from_multiple);
}

bool guarded(const Plan& plan, const Run& run, double larger) {
    return std::all_of(run.devices.begin(), run.devices.end(), [&](const Device& d) {
        if (d.kind != DeviceKind::fuse) return true;
        Device fuse = d;
        fuse.rating_A *= larger;
        const auto guard = guard_by(plan, run, fuse, false);
        return !guard || guard->guards;
    });
}

namespace {

bool is_metal(const Plan& plan, const Terminal& t) {
    const Point* p = find(plan.points, t);
    return p && (p->kind == PointKind::chassis || p->kind == PointKind::ground);
}

}  // namespace

const Battery* grounded_by(const Plan& plan, const Run& run) {
    for (const Battery& b : plan.batteries)
        if ((run.from == neg_of(b.id) && is_metal(plan, run.to)) ||
            (run.to == neg_of(b.id) && is_metal(plan, run.from)))
            return &b;
    return nullptr;
}

GroundDuty ground_duty(const Plan& plan, const Run& run) {
    GroundDuty duty;
    if (!run.size || run.body_metal || run.resistance_ohm) return duty;
    const Battery* battery = grounded_by(plan, run);
    if (!battery) return duty;
    for (const Run& other : plan.runs) {
        const bool grounds = other.id != run.id && grounded_by(plan, other) == battery;
        if (grounds && (other.body_metal || other.resistance_ohm || copper_mm2(other) > copper_mm2(run)))
            return {};
        if (other.from != pos_of(battery->id) && other.to != pos_of(battery->id)) continue;
        for (const Device& d : other.devices)
            if (d.kind == DeviceKind::fuse && (!duty.fuse || d.rating_A > duty.fuse->rating_A))
                duty = {&other, &d};
    }
    return duty;
}

bool grounds_guarded(const Plan& plan, const Run& run) {
    const GroundDuty duty = ground_duty(plan, run);
    if (!duty.fuse || copper_mm2(run) >= copper_mm2(*duty.supply) * 0.999) return true;
    const auto guard = guard_by(plan, run, *duty.fuse, false, 3);
    return !guard || guard->guards;
}

const Device* guarded_before(const Plan& plan, const Run& run, const std::vector<EndProtection>& ends) {
    const Device* guard = nullptr;
    for (const EndProtection& end : ends) {
        const bool behind_own = end.own && end.own_distance_m <= fuse_distance_m(plan);
        if (!end.upstream && !behind_own) return nullptr;
        if (!end.upstream) continue;
        const auto by = guard_by(plan, run, *end.upstream, false);
        if (!by || !by->guards) return nullptr;
        guard = end.upstream;
    }
    return guard;
}

std::vector<FuseType> kinds_for(double rating_A, double must_cut_A, double nominal_V) {
    std::vector<FuseType> kinds;
    for (const FuseType type : {FuseType::blade, FuseType::blade_large, FuseType::bolt, FuseType::strip,
                                FuseType::stud, FuseType::high, FuseType::breaker_3}) {
        const FuseKind& kind = fuse_kind(type);
        const bool has =
            std::find(kind.ratings_A.begin(), kind.ratings_A.end(), rating_A) != kind.ratings_A.end();
        // 12 V systems charge at up to 14.8 V, which every kind here stands
        if (has && kind.interrupting_A >= must_cut_A && kind.rated_V >= nominal_V) kinds.push_back(type);
    }
    return kinds;
}

Result<RunFuseAdvice> advise_fuse(const Plan& plan, const Id& run_id,
                                  const std::vector<Solution>& solutions) {
    const Run* run = find(plan.runs, run_id);
    if (!run) return fail(ErrorCode::missing_reference, "run", run_id, Want::a_run_of_this_plan);
    if (run->body_metal || run->resistance_ohm)
        return fail(ErrorCode::unknown_size, run->name, {}, Want::a_cable_with_a_size);
    const auto index = static_cast<std::size_t>(run - plan.runs.data());
    RunFuseAdvice advice;
    for (std::size_t s = 0; s < solutions.size(); ++s) {
        if (plan.states[s].key == Key::crank) continue;
        const double amps = std::abs(solutions[s].point.conductors[index].current_A);
        if (amps > advice.current_A) advice.current_A = amps, advice.state = plan.states[s].id;
    }
    // a load that runs in none of the states: what its draw says
    if (const Load* load = find(plan.loads, owner_of(run->to)); load && advice.current_A < 0.05)
        advice.current_A = nominal_A(plan, *load);
    const RunDemand demand = demand_of(plan, solutions)[index];
    advice.asked_A = std::max({advice.current_A, demand.lasting_A(), demand.room_A()});
    advice.nothing_behind = demand.items.empty() && advice.asked_A < 0.05;
    if (const double start = start_through_A(plan, *run); start > 0) advice.inrush_A = start;
    advice.cable_A = least_ampacity_A(plan, *run).value_or(0);
    advice.both_ends = fed_ends(plan, *run).size() > 1;
    advice.allowed_m = fuse_distance_m(plan);
    for (const EndProtection& end : fed_ends(plan, *run))
        if (end.own) advice.distance_m = std::max(advice.distance_m, std::min(end.own_distance_m, 1e6));
    for (const FuseSchool school : {FuseSchool::load150, FuseSchool::inrush, FuseSchool::wire}) {
        SchoolChoice choice;
        choice.school = school;
        const FuseAsk ask{std::max(advice.asked_A, 0.1), advice.inrush_A, advice.cable_A,
                          rail_V(plan, run->from)};
        const bool by_load = school != FuseSchool::wire;
        if (const auto found = choose_fuse(ask, school); found && !(by_load && advice.nothing_behind)) {
            choice.chosen = found->chosen;
            choice.needed_A = found->needed_A;
            choice.carries = found->carries;
            choice.holds_inrush = found->holds_inrush;
            choice.protects_cable = found->protects_cable;
        }
        if (choice.chosen && SupplySide(plan).is_supply(*run)) {
            const Plan trial = with_fuse(plan, index, *choice.chosen);
            const FaultStudy study = study_run(trial, solutions, index, true);
            choice.opens_far_short = !study.rows.empty();
            choice.opens_s = 0;
            for (const ShortRow& row : study.rows) {
                advice.must_cut_A = std::max(advice.must_cut_A, row.near_A);
                if (!study.places[row.place].device.empty()) continue;
                if (!row.clears()) choice.opens_far_short = false;
                if (row.clears()) choice.opens_s = std::max(*choice.opens_s, *row.slowest.seconds);
            }
            if (!choice.opens_far_short) choice.opens_s.reset();
        }
        advice.schools.push_back(choice);
    }
    const auto& wanted =
        advice.schools.back().chosen ? advice.schools.back().chosen : advice.schools.front().chosen;
    if (wanted) advice.kinds = kinds_for(wanted->rating_A, advice.must_cut_A, rail_V(plan, run->from));
    for (const Device& d : run->devices) {
        if (d.kind != DeviceKind::fuse) continue;
        const auto guard = guard_by(plan, *run, d);
        if (!guard) continue;
        advice.guard = *guard;
        advice.guards = guard->guards;
        if (!guard->guards)
            if (const Device* before = guarded_before(plan, *run, fed_ends(plan, *run)))
                advice.guarded_by = before->id;
        break;
    }
    return advice;
}

}  // namespace yr
