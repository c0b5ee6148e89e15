#include "fabricate/cut_plan.h"

#include <algorithm>
#include <map>

namespace yr {
namespace {

double usually_sold_m(double mm2) {
    return mm2 <= 6 ? 25 : mm2 <= 16 ? 10 : 0;
}

}  // namespace

std::vector<SizeCutting> cut_plan(const Plan& plan, int vehicles, const std::atomic<bool>* stop) {
    std::map<std::string, SizeCutting> groups;
    for (const WireRow& w : wire_table(plan)) {
        const Run& run = plan.runs[w.run];
        const WireSize size = run.size.value_or(WireSize::awg(14));
        SizeCutting& g =
            groups[name_of(size) + "/" + std::to_string(static_cast<int>(run.material)) + "/" + w.colour];
        g.size = size, g.material = run.material, g.colour = w.colour;
        for (int v = 0; v < vehicles; ++v)
            for (int n = 0; n < w.pieces; ++n) g.pieces.push_back({run.id, w.length_m, v});
    }
    std::vector<SizeCutting> all;
    std::vector<Stock> at_hand = plan.policy.stock;
    for (auto& [key, g] : groups) {
        const auto wire = conductor(g.size, g.material);
        g.sold_m = usually_sold_m(wire ? wire->area_mm2 : 2);
        for (const Stock& roll : plan.policy.rolls)
            if (roll.size == g.size) g.sold_m = roll.length_m;
        std::vector<double> hand;
        std::erase_if(at_hand, [&, &size = g.size](const Stock& s) {
            if (!(s.size == size)) return false;
            hand.push_back(s.length_m);
            return true;
        });
        g.cutting = cut(g.pieces, hand, g.sold_m, stop);
        if (g.sold_m <= 0) {  // bought by the metre: what the rolls at hand do not give
            for (const std::size_t k : g.cutting.too_long) g.by_the_metre += g.pieces[k].length_m;
            g.cutting.too_long.clear();
            g.cutting.proved = true;
        }
        all.push_back(std::move(g));
    }
    std::stable_sort(all.begin(), all.end(), [](const SizeCutting& a, const SizeCutting& b) {
        const auto x = conductor(a.size), y = conductor(b.size);
        return (x ? x->area_mm2 : 0) > (y ? y->area_mm2 : 0);
    });
    return all;
}

}  // namespace yr
