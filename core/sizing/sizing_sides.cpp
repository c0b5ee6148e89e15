// What one side of the battery asks of the other: a return of its feed, a ground of the fuses. Part of
// SizingModel.
#include <algorithm>
#include <map>

#include "size/plan_fuse.h"
#include "sizing/sizing_model.h"
#include "units/at.h"

namespace yr {
namespace {

// A supply at a battery's positive post, as it can be: the run, its choice (-1: it stays), its largest fuse.
struct Fused {
    std::size_t run = 0;
    int choice = -1;
    double rating_A = 0;
    FuseType kind = FuseType::bolt;
    double area_mm2 = 0;
};

const Device* largest_fuse(const Run& run) {
    const Device* best = nullptr;
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse && (!best || d.rating_A > best->rating_A)) best = &d;
    return best;
}

}  // namespace

bool SizingModel::pair_holds(const Pair& p, int feed, int back) const {
    const SizeChoice& f = runs_[p.feed].choices[at(feed)];
    const SizeChoice& b = runs_[p.back].choices[at(back)];
    if (b.area_mm2 < p.share * f.area_mm2 - 1e-6) return false;
    return p.stands_A[at(back)] >= f.fuse_A - kTiny;
}

void SizingModel::find_grounds(const Battery& battery, bool as_now) {
    constexpr double kFromMultiple = 3;  // of the rating, as grounds_guarded looks at it
    std::vector<std::size_t> backs;      // runs
    for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
        const Run& run = plan_.runs[r];
        if (grounded_by(plan_, run) != &battery) continue;
        if (run.body_metal || run.resistance_ohm) return;  // it is not judged beside that
        backs.push_back(r);
    }
    if (backs.empty()) return;  // nothing brings a short on the metal back
    std::vector<Fused> feeds;
    std::vector<std::pair<std::size_t, double>> least_A;  // of each supply, whatever is chosen
    for (std::size_t r = 0; r < plan_.runs.size(); ++r) {
        const Run& run = plan_.runs[r];
        const Device* fuse = largest_fuse(run);
        if ((run.from != pos_of(battery.id) && run.to != pos_of(battery.id)) || !fuse) continue;
        const int f = free_of_[r];
        double least = f < 0 ? fuse->rating_A : 1e9;
        if (f < 0) feeds.push_back({r, -1, fuse->rating_A, fuse->fuse, copper_mm2(run)});
        for (std::size_t c = 0; f >= 0 && c < runs_[at(f)].choices.size(); ++c) {
            const SizeChoice& choice = runs_[at(f)].choices[c];
            const double rating = runs_[at(f)].fuse_device >= 0 ? choice.fuse_A : fuse->rating_A;
            feeds.push_back({r, static_cast<int>(c), rating, fuse->fuse, choice.area_mm2});
            least = std::min(least, rating);
        }
        least_A.emplace_back(r, least);
    }
    const auto counts = [&](const Fused& feed) {  // the largest, of equals the first
        return std::none_of(least_A.begin(), least_A.end(), [&](const auto& other) {
            return other.first != feed.run && (other.second > feed.rating_A ||
                                               (other.second == feed.rating_A && other.first < feed.run));
        });
    };
    std::map<std::size_t, std::vector<int>> barred;  // by supply: choices that no ground stands
    for (const Fused& feed : feeds) {
        if (!counts(feed)) continue;
        Ground ground;
        if (feed.choice >= 0) ground.when = {at(free_of_[feed.run]), feed.choice};
        const auto does = [&](const Run& back, double area_mm2) {
            Device fuse;
            fuse.kind = DeviceKind::fuse, fuse.fuse = feed.kind, fuse.rating_A = feed.rating_A;
            if (area_mm2 >= feed.area_mm2 * 0.999) return true;
            const auto guard = guard_by(plan_, back, fuse, false, kFromMultiple);
            return !guard || guard->guards;
        };
        bool always = false;
        for (const std::size_t r : backs) {
            Run back = plan_.runs[r];
            const int f = free_of_[r];
            if (f < 0) {
                always = always || does(back, copper_mm2(back));
                continue;
            }
            const auto& choices = runs_[at(f)].choices;
            std::size_t first = choices.size();  // the thicker guard as well
            while (first > 0) {
                back.size = choices[first - 1].size;
                if (!does(back, choices[first - 1].area_mm2)) break;
                --first;
            }
            always = always || first == 0;
            for (std::size_t c = first; c < choices.size(); ++c)
                ground.any.emplace_back(at(f), static_cast<int>(c));
        }
        if (always || (as_now && ground.any.empty())) continue;
        if (ground.any.empty()) barred[feed.run].emplace_back(feed.choice);
        grounds_.push_back(std::move(ground));
    }
    for (const auto& [run, choices] : barred) {  // no fuse that it may have lets any of the grounds live
        const int f = free_of_[run];
        if (f < 0 || choices.size() == runs_[at(f)].choices.size())
            blockers_.push_back({plan_.runs[backs.front()].id, {}, Limit::short_circuit, 0, 0});
    }
}

namespace {

bool asked(const SizingModel::Ground& g, const Design& design) {
    return (!g.when || design[g.when->first] == g.when->second) &&
           std::none_of(g.any.begin(), g.any.end(),
                        [&](const auto& a) { return design[a.first] == a.second; });
}

}  // namespace

bool SizingModel::sides_hold(const Design& design) const {
    return std::all_of(pairs_.begin(), pairs_.end(),
                       [&](const Pair& p) { return pair_holds(p, design[p.feed], design[p.back]); }) &&
           std::none_of(grounds_.begin(), grounds_.end(), [&](const Ground& g) { return asked(g, design); });
}

bool SizingModel::mend_sides(Design& design) const {
    for (const Pair& p : pairs_)  // a return that was left behind its feed
        while (!pair_holds(p, design[p.feed], design[p.back])) {
            if (design[p.back] + 1 >= static_cast<int>(runs_[p.back].choices.size())) return false;
            ++design[p.back];
        }
    for (const Ground& g : grounds_) {
        if (!asked(g, design)) continue;
        std::optional<std::pair<std::size_t, int>> best;
        double price = 0;
        for (const auto& [f, c] : g.any) {
            const double more = runs_[f].choices[at(c)].cost - runs_[f].choices[at(design[f])].cost;
            if (c > design[f] && (!best || more < price)) best = {f, c}, price = more;
        }
        if (!best) return false;
        design[best->first] = best->second;
    }
    return sides_hold(design);
}

}  // namespace yr
