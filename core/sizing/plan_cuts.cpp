// What a breach of the real circuit cuts away, and how an answer is repaired.
#include <algorithm>
#include <chrono>
#include <cmath>
#include <numeric>
#include <set>

#include "sizing/plan_search.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr std::size_t kOrders = 4;     // cuts tried of each breach
constexpr std::size_t kInATurn = 160;  // of all breaches together: of a hundred and more one each
constexpr int kMostRepairs = 400;      // steps of one repair

}  // namespace

std::vector<Cut> Search::cuts_of(const Breach& b, const Design& design, std::size_t orders) {
    std::vector<Lever> all = model_.levers(b, design);
    Design lifted = design;
    for (const Lever& lever : all)
        if (lever.far) lifted[lever.f] = lever.end;
    const bool far_do_not_matter = model_.excess(b, lifted) > 0;
    if (far_do_not_matter)
        std::erase_if(all, [](const Lever& l) { return l.far; });
    else
        lifted = design;
    // which of the near ones are found needless hangs on the order: each order proves something else
    std::vector<Cut> cuts;
    orders = std::clamp<std::size_t>(orders, 1, std::max<std::size_t>(all.size(), 1));
    for (std::size_t turn = 0; turn < orders; ++turn) {
        std::vector<Lever> ordered = all;
        std::rotate(ordered.begin(),
                    ordered.begin() + static_cast<std::ptrdiff_t>(turn * all.size() / orders), ordered.end());
        if (turn % 2 == 1) std::reverse(ordered.begin(), ordered.end());
        Cut cut = cut_in_order(b, lifted, ordered);
        if (cut.empty()) return {};  // it stands with everything at its best
        if (std::find(cuts.begin(), cuts.end(), cut) == cuts.end()) cuts.push_back(std::move(cut));
    }
    return cuts;
}

Cut Search::cut_in_order(const Breach& b, Design lifted, const std::vector<Lever>& ordered) {
    std::vector<Lever> needed;
    for (const Lever& lever : ordered) {
        const int before = lifted[lever.f];
        lifted[lever.f] = lever.end;
        if (model_.excess(b, lifted) > 0) continue;
        lifted[lever.f] = before;
        needed.push_back(lever);
    }
    for (const Lever& lever : needed) {  // as far as it still stands
        const int step = lever.end > lifted[lever.f] ? 1 : -1;
        while (lifted[lever.f] != lever.end) {
            lifted[lever.f] += step;
            if (model_.excess(b, lifted) > 0) continue;
            lifted[lever.f] -= step;
            break;
        }
    }
    Cut cut;
    for (const Lever& lever : needed) {
        const int step = lever.end > lifted[lever.f] ? 1 : -1;
        for (int c = lifted[lever.f] + step; c >= 0 && c < count(lever.f); c += step)
            cut.emplace_back(lever.f, c);
    }
    std::sort(cut.begin(), cut.end());
    return cut;
}

bool Search::add_cuts(const Design& design, const std::vector<Breach>& broken, SizingResult& result) {
    std::vector<Breach> worst;
    for (const Breach& b : broken) {
        const auto same = std::find_if(worst.begin(), worst.end(), [&](const Breach& w) {
            const bool amps = b.limit != Limit::drop && b.limit != Limit::none;
            if (amps && w.limit != Limit::drop && w.limit != Limit::none) return w.run == b.run;
            return w.limit == b.limit && (b.limit == Limit::drop ? w.load == b.load : w.run == b.run) &&
                   (b.limit != Limit::none || w.k == b.k);
        });
        if (same == worst.end())
            worst.push_back(b);
        else if (b.excess() > same->excess())
            *same = b;
    }
    std::size_t added = 0;
    const std::size_t orders = std::min(kOrders, kInATurn / std::max<std::size_t>(worst.size(), 1));
    for (const Breach& b : worst) {
        if (b.limit == Limit::drop)
            if (auto row = model_.tangent_row(b.k, b.load, design)) rows_.push_back(std::move(*row));
        auto cuts = cuts_of(b, design, orders);
        if (cuts.empty()) {
            const bool drop = b.limit == Limit::drop || b.limit == Limit::none;
            result.blockers.push_back({drop ? model_.plan().loads[b.load].id : model_.plan().runs[b.run].id,
                                       model_.plan().states[model_.states()[b.k]].id, b.limit, b.value,
                                       b.allowed});
            return false;
        }
        for (Cut& cut : cuts) {
            if (std::find(cuts_.begin(), cuts_.end(), cut) != cuts_.end()) continue;
            cuts_.push_back(std::move(cut));
            ++added;
        }
    }
    if (added == 0 && !worst.empty()) {  // never twice the same design
        Cut other;
        for (std::size_t f = 0; f < design.size(); ++f)
            for (int c = 0; c < static_cast<int>(model_.runs()[f].choices.size()); ++c)
                if (c != design[f]) other.emplace_back(f, c);
        cuts_.push_back(std::move(other));
    }
    return true;
}

std::optional<Design> Search::repair(Design design, std::vector<Breach> broken) {
    for (int step = 0; step < kMostRepairs && !broken.empty(); ++step) {
        const Breach worst =
            *std::max_element(broken.begin(), broken.end(),
                              [](const Breach& a, const Breach& b) { return a.excess() < b.excess(); });
        if (worst.limit == Limit::none) {
            for (const Lever& lever : model_.levers(worst, design)) ++design[lever.f];
            broken = model_.breaches(design);
            continue;
        }
        const double now = model_.excess(worst, design);
        double best_rate = 0;
        std::optional<std::pair<std::size_t, int>> best;
        for (const Lever& lever : model_.levers(worst, design)) {
            Design trial = design;
            trial[lever.f] += lever.end > design[lever.f] ? 1 : -1;
            const double gain = now - model_.excess(worst, trial);
            const double price = std::max(cost_of(trial) - cost_of(design), 1e-6);
            if (gain / price > best_rate) best_rate = gain / price, best = {lever.f, trial[lever.f]};
        }
        if (!best) return std::nullopt;
        design[best->first] = best->second;
        broken = model_.breaches(design);
    }
    if (!model_.mend_sides(design) || !stands(design)) return std::nullopt;
    return design;
}

bool Search::stands(const Design& d) {
    return model_.sides_hold(d) && model_.breaches(d).empty();
}

Design Search::thinned(Design design) {
    std::vector<std::size_t> order(design.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return choice_cost(a, design[a]) > choice_cost(b, design[b]);
    });
    // a step each, over and over: one that gave all it has to give would leave nothing to the others
    for (bool moved = true; moved;) {
        moved = false;
        for (const std::size_t f : order) {
            if (design[f] == 0 || choice_cost(f, design[f] - 1) >= choice_cost(f, design[f])) continue;
            Design trial = design;
            --trial[f];
            if (!stands(trial)) continue;
            design = std::move(trial);
            moved = true;
        }
    }
    return design;
}

std::optional<Design> Search::some_answer(const Design& near) {
    std::optional<Design> best;
    const auto take = [&](Design d) {
        d = thinned(std::move(d));
        if (!best || cost_of(d) < cost_of(*best)) best = std::move(d);
    };
    if (auto mended = repair(near, model_.breaches(near))) take(std::move(*mended));
    Design thickest(model_.runs().size(), 0);
    for (std::size_t f = 0; f < thickest.size(); ++f) thickest[f] = count(f) - 1;
    if (!best && stands(thickest)) take(std::move(thickest));
    return best;
}

Design Search::polished(Design best, double best_cost) {
    for (std::size_t f = 0; f < best.size(); ++f) {
        const Run& run = model_.plan().runs[model_.runs()[f].run];
        for (int c = 0; c < static_cast<int>(model_.runs()[f].choices.size()); ++c) {
            const SizeChoice& choice = model_.runs()[f].choices[at(c)];
            const bool stands = run.size && choice.size == *run.size &&
                                (model_.runs()[f].fuse_device < 0 ||
                                 choice.fuse_A == run.devices[at(model_.runs()[f].fuse_device)].rating_A);
            if (!stands || c == best[f]) continue;
            Design trial = best;
            trial[f] = c;
            if (cost_of(trial) <= best_cost * (1 + kSameCost) && model_.sides_hold(trial) &&
                model_.breaches(trial).empty())
                best = trial;
        }
    }
    return best;
}

}  // namespace yr
