#include "inspect/fuse_mends.h"

#include "control/place_on.h"
#include "size/fuse_size.h"
#include "size/plan_fuse.h"

namespace yr {
namespace {

constexpr int kMostBeside = 4;  // cables that are laid side by side
constexpr int kMostSteps = 18;  // from the thinnest size to the thickest

double carries_A(const Case& c, const Run& run) {
    return least_ampacity_A(c.plan, run).value_or(0);
}

// The first size from the present one that carries so many amps.
std::optional<WireSize> size_for_amps(const Case& c, const Run& run, double amps) {
    if (!run.size) return std::nullopt;
    Run trial = run;
    for (int step = 0; step <= kMostSteps; ++step) {
        trial.size = step_size(*run.size, step);
        if (carries_A(c, trial) >= amps - 1e-9) return trial.size;
    }
    return std::nullopt;
}

Mend as_mend(MendKind kind, Run changed, const Id& target, const Run& before, double from_A, double to_A) {
    Mend m;
    m.kind = kind;
    m.target = target;
    if (changed.size != before.size) m.from = before.size, m.to = changed.size;
    m.from_A = from_A, m.to_A = to_A;
    m.edit = Put<Run>{std::move(changed), {}};
    return m;
}

// Ratings that exist in that kind, from the demand upwards.
std::vector<double> ratings_from(const FuseKind& kind, double least_A) {
    std::vector<double> out;
    for (const double r : kind.ratings_A)
        if (r >= least_A - 1e-9) out.push_back(r);
    return out;
}

}  // namespace

FuseRoom fuse_room(const Case& c, std::size_t index) {
    const Run& run = c.plan.runs[index];
    FuseRoom room;
    room.cable_A = carries_A(c, run);
    if (const Channel* channel = channel_of(c.plan, run); channel && channel->rating_A)
        room.channel_A = channel_rating_A(*channel);
    return room;
}

std::vector<Mend> other_ratings(const Case& c, std::size_t index, const Id& fuse_id, double above_A,
                                double below_A) {
    std::vector<Mend> out;
    const Run& run = c.plan.runs[index];
    const Device* fuse = find(run.devices, fuse_id);
    if (!fuse) return out;
    const FuseKind& kind = fuse_kind(fuse->fuse);
    const FuseRoom room = fuse_room(c, index);
    const double least = std::max(least_rating_A(c.demand[index], kind), above_A);
    std::vector<double> fit;
    for (const double r : ratings_from(kind, least))
        if (r != fuse->rating_A && (below_A <= 0 || r < below_A) &&
            (!room.channel_A || r <= *room.channel_A + 1e-9))
            fit.push_back(r);
    const auto with = [&](double rating, const std::optional<WireSize>& size) {
        Run changed = run;
        for (Device& d : changed.devices) {
            // one at each end of a cable that is fed from both: alike they stay
            const bool twin = d.kind == fuse->kind && d.fuse == fuse->fuse && d.rating_A == fuse->rating_A;
            if (d.id == fuse_id || twin) d.rating_A = rating;
        }
        if (size) changed.size = size;
        out.push_back(
            as_mend(MendKind::fuse_rating, std::move(changed), fuse_id, run, fuse->rating_A, rating));
    };
    // within the cable: a smaller fuse as large as may be, a larger one as small as may be
    std::vector<double> inside;
    for (const double r : fit)
        if (r <= room.cable_A + 1e-9) inside.push_back(r);
    if (below_A > 0) std::reverse(inside.begin(), inside.end());
    for (const double r : inside) with(r, std::nullopt);
    if (inside.empty())
        for (const double r : fit)
            if (const auto size = size_for_amps(c, run, r); size && out.size() < 3) with(r, size);
    // what its cable carries for ever it may yet overheat before it is sure to open: with a thicker one
    if (!inside.empty() && below_A <= 0 && run.size)
        for (const int steps : {1, 2})
            if (const WireSize size = step_size(*run.size, steps); size != *run.size)
                with(inside.front(), size);
    std::stable_partition(out.begin(), out.end(), [&](const Mend& m) {
        const Run& changed = std::get<Put<Run>>(m.edit).thing;
        const auto guard = guard_by(c.plan, changed, *find(changed.devices, fuse_id), false);
        return !guard || guard->guards;
    });
    return out;
}

std::vector<Mend> new_fuses(const Case& c, std::size_t index, double at_m, bool at_from) {
    std::vector<Mend> out;
    const Run& run = c.plan.runs[index];
    const FuseRoom room = fuse_room(c, index);
    const Id id = new_id(c.plan, run.id + "-fuse");  // its own: mends of several runs are put in together
    const auto with = [&](const FuseChoice& choice, const std::optional<WireSize>& size) {
        Run changed = run;
        Device fuse;
        fuse.id = id;
        fuse.name = run.name + " fuse";
        fuse.at_m = at_m;
        fuse.fuse = choice.type;
        fuse.rating_A = choice.rating_A;
        changed.devices.insert(at_from ? changed.devices.begin() : changed.devices.end(), fuse);
        if (size) changed.size = size;
        out.push_back(as_mend(MendKind::add_fuse, std::move(changed), run.id, run, 0, choice.rating_A));
    };
    std::vector<FuseChoice> fit;
    for (const FuseChoice& f : standard_fuses())
        if (f.rating_A >= least_rating_A(c.demand[index], fuse_kind(f.type)) - 1e-9 &&
            (!room.channel_A || f.rating_A <= *room.channel_A + 1e-9))
            fit.push_back(f);
    for (auto f = fit.rbegin(); f != fit.rend();
         ++f)  // what the cable stands, so that nothing opens without need
        if (f->rating_A <= room.cable_A + 1e-9 && out.size() < 2) with(*f, std::nullopt);
    // of kinds that may cut off more, for a strong battery
    for (const FuseType type : {FuseType::strip, FuseType::stud, FuseType::high}) {
        const FuseKind& kind = fuse_kind(type);
        const double least = least_rating_A(c.demand[index], kind);
        for (auto r = kind.ratings_A.rbegin(); r != kind.ratings_A.rend(); ++r)
            if (*r <= room.most_A() + 1e-9 && *r >= least - 1e-9) {
                with({type, *r}, std::nullopt);
                break;
            }
    }
    if (!out.empty() && run.size) {  // a fuse costs volts: the cable gives them back
        Run thick = run;
        for (int step = 1; step <= 3; ++step) {
            thick.size = step_size(*run.size, step);
            if (thick.size == run.size) break;
            for (auto f = fit.rbegin(); f != fit.rend(); ++f)
                if (f->rating_A <= carries_A(c, thick) + 1e-9) {
                    with(*f, thick.size);
                    break;
                }
        }
    }
    for (const FuseChoice& f : fit)
        if (f.rating_A > room.cable_A && out.size() < 8)
            if (const auto size = size_for_amps(c, run, f.rating_A)) with(f, size);
    return out;
}

std::vector<Mend> thicker(const Case& c, std::size_t index, double at_least_A, int most) {
    std::vector<Mend> out;
    const Run& run = c.plan.runs[index];
    if (!run.size || run.body_metal || run.resistance_ohm) return out;
    Run changed = run;
    for (int step = 1; step <= kMostSteps && static_cast<int>(out.size()) < most; ++step) {
        changed.size = step_size(*run.size, step);
        if (!out.empty() && changed.size == out.back().to) break;  // there is none thicker
        if (changed.size == run.size || carries_A(c, changed) < at_least_A) continue;
        out.push_back(as_mend(MendKind::size, changed, run.id, run, 0, 0));
    }
    if (!out.empty() || at_least_A <= 0) return out;
    // no one of the table carries it: more of the same beside it
    changed.size = run.size;
    for (changed.parallel = run.parallel + 1; changed.parallel <= kMostBeside && out.empty();
         ++changed.parallel)
        if (carries_A(c, changed) >= at_least_A)
            out.push_back(
                as_mend(MendKind::side_by_side, changed, run.id, run, run.parallel, changed.parallel));
    return out;
}

}  // namespace yr
