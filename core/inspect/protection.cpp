// Rules about fuses: there, near the source, and no larger than the cable.
#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "inspect/fuse_mends.h"
#include "plan/rail_volts.h"
#include "size/plan_fuse.h"

namespace yr {
namespace {

constexpr double kNearEnd_m = 0.15;  // where a mend puts a fuse: a hand's breadth from the terminal

bool feeds_starter(const Plan& plan, const Run& run) {
    for (const Terminal* t : {&run.from, &run.to})
        if (const Load* load = find(plan.loads, owner_of(*t)); load && load->starter) return true;
    return false;
}

void oversize(const Case& c, std::size_t k, double cable_A, std::vector<Finding>& out) {
    const Run& run = c.plan.runs[k];
    for (std::size_t d = 0; d < run.devices.size(); ++d) {
        const Device& fuse = run.devices[d];
        if (fuse.kind != DeviceKind::fuse || fuse.rating_A <= cable_A + 1e-9) continue;
        Finding f{FindingKind::fuse_above_cable,
                  Severity::stop,
                  run.id,
                  fuse.id,
                  {},
                  fuse.rating_A,
                  cable_A,
                  {},
                  {},
                  0,
                  {}};
        if (c.with_mends) {
            f.candidates = other_ratings(c, k, fuse.id, 0, fuse.rating_A);
            for (Mend& m : thicker(c, k, fuse.rating_A)) f.candidates.push_back(std::move(m));
        }
        out.push_back(std::move(f));
    }
}

// The channel's own electronics or holder bear no more than their rating, whatever the cable.
void above_channel(const Case& c, std::size_t k, std::vector<Finding>& out) {
    const Run& run = c.plan.runs[k];
    const FuseRoom room = fuse_room(c, k);
    if (!room.channel_A) return;
    for (const Device& d : run.devices) {
        if (d.kind != DeviceKind::fuse || d.rating_A <= *room.channel_A + 1e-9) continue;
        Finding f = make_finding(FindingKind::fuse_above_channel, Severity::fix, run.id, d.id, {}, d.rating_A,
                                 *room.channel_A);
        if (c.with_mends) f.candidates = other_ratings(c, k, d.id, 0, d.rating_A);
        out.push_back(std::move(f));
    }
}

// What a fuse interrupts it does at its own volts: on a rail of more the arc may go on burning in it.
void beyond_its_volts(const Case& c, std::size_t k, std::vector<Finding>& out) {
    const Run& run = c.plan.runs[k];
    for (const Device& d : run.devices) {
        if (d.kind != DeviceKind::fuse) continue;
        const double rail = rail_V(c.plan, run.from), stands_V = fuse_kind(d.fuse).rated_V;
        if (rail <= stands_V + 1e-9) continue;
        Finding f = make_finding(FindingKind::fuse_volts, Severity::stop, run.id, d.id, {}, rail, stands_V);
        if (c.with_mends)
            for (const FuseType type : kinds_for(d.rating_A, 0, rail)) {
                const auto& ratings = fuse_kind(type).ratings_A;
                Run changed = run;
                Device& other = *std::find_if(changed.devices.begin(), changed.devices.end(),
                                              [&](const Device& x) { return x.id == d.id; });
                const auto same = std::lower_bound(ratings.begin(), ratings.end(), d.rating_A - 1e-9);
                if (same == ratings.end()) continue;
                other.fuse = type;
                other.rating_A = *same;
                f.candidates.push_back({MendKind::fuse_type,
                                        Put<Run>{changed, {}},
                                        d.id,
                                        {},
                                        {},
                                        d.rating_A,
                                        other.rating_A,
                                        {}});
            }
        out.push_back(std::move(f));
    }
}

// Within the table, and yet in this run's heat the fuse may carry more than the cable bears before it is sure
// to open: what Guard says of it, in the same words.
void guards_not(const Case& c, std::size_t k, double cable_A, std::vector<Finding>& out) {
    if (c.near && !c.near->changed[k] && !c.near->unguarded[k]) return;  // only something to look at
    const Run& run = c.plan.runs[k];
    for (const Device& fuse : run.devices) {
        if (fuse.kind != DeviceKind::fuse || fuse.rating_A > cable_A + 1e-9) continue;
        const auto quick = guard_by(c.plan, run, fuse, false);
        if (!quick || quick->guards || guarded_before(c.plan, run, c.fed.of(run))) continue;
        const auto guard = guard_by(c.plan, run, fuse);
        out.push_back(make_finding(FindingKind::guards_not, Severity::check, run.id, fuse.id, {},
                                   guard->reached_C, guard->limit_C));
        if (c.with_mends) {
            out.back().candidates = other_ratings(c, k, fuse.id, 0, fuse.rating_A);
            for (Mend& m : thicker(c, k, fuse.rating_A)) out.back().candidates.push_back(std::move(m));
        }
        return;
    }
}

// Behind a fuse that is far away the cable before it is bare: over more than this, no better than none.
constexpr double kBare_m = 1;

void missing_or_far(const Case& c, std::size_t k, double cable_A, std::vector<Finding>& out) {
    const Run& run = c.plan.runs[k];
    const double length = length_or_assumed_m(run);
    const double allowed_m = fuse_distance_m(c.plan);
    for (const EndProtection& end : c.fed.of(run)) {
        if (end.upstream_A && *end.upstream_A <= cable_A + 1e-9) continue;
        const Terminal& terminal = end.at_from ? run.from : run.to;
        const double near_m = end.at_from ? std::min(kNearEnd_m, length) : std::max(0.0, length - kNearEnd_m);
        if (end.own && end.own_distance_m <= allowed_m + 1e-9) continue;
        // A fuse near the other end protects that end: where both ends are fed, each needs its own.
        const bool own_serves_this_end = end.own && end.own_distance_m <= length / 2 + 1e-9;
        if (own_serves_this_end || (end.own && c.fed.of(run).size() == 1)) {
            Finding f{FindingKind::fuse_far,
                      end.own_distance_m > allowed_m + kBare_m ? Severity::stop : Severity::fix,
                      run.id,
                      end.own->id,
                      {},
                      end.own_distance_m,
                      allowed_m,
                      {},
                      {},
                      0,
                      {}};
            Run changed = run;
            for (Device& d : changed.devices)
                if (d.id == end.own->id) d.at_m = near_m;
            if (c.with_mends)
                f.mend = Mend{MendKind::move_fuse, Put<Run>{changed, {}}, end.own->id, {}, {}, 0, 0, {}};
            out.push_back(std::move(f));
            continue;
        }
        // The shorter a bare cable the better, but a short link from a post to its own fuse block is the
        // usual way.
        if (length <= allowed_m + 1e-9 && end.at_from && run.devices.empty()) continue;
        Finding f{FindingKind::fuse_missing,
                  Severity::stop,
                  run.id,
                  terminal.text(),
                  {},
                  end.upstream_A.value_or(0),
                  cable_A,
                  {},
                  {},
                  0,
                  {}};
        if (c.with_mends) f.candidates = new_fuses(c, k, near_m, end.at_from);
        out.push_back(std::move(f));
    }
}

}  // namespace

void inspect_protection(const Case& c, std::vector<Finding>& out) {
    const auto negative = [&](const Run& r) {
        // the supply side may reach a negative post through a loop of cable only in a broken plan; skip body
        // metal
        return r.body_metal || r.resistance_ohm.has_value();
    };
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
        const Run& run = c.plan.runs[k];
        if (negative(run) || !c.supply.is_supply(run)) continue;
        const double cable_A = least_ampacity_A(c.plan, run).value_or(0);
        oversize(c, k, cable_A, out);
        above_channel(c, k, out);
        beyond_its_volts(c, k, out);
        guards_not(c, k, cable_A, out);
        // a starter's path goes unfused, as is usual for cranking; decided by what flows while it turns
        if (!c.demand[k].cranks && !feeds_starter(c.plan, run)) missing_or_far(c, k, cable_A, out);
    }
}

}  // namespace yr
