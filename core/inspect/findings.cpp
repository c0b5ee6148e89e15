#include "inspect/findings.h"

#include <algorithm>

#include "inspect/rules.h"

namespace yr {

void keep_worst(std::vector<Finding>& out, std::size_t from, Finding finding, Worse worse) {
    const auto excess = [](const Finding& f) { return f.limit > 0 ? f.value / f.limit : f.value; };
    for (std::size_t k = from; k < out.size(); ++k) {
        if (!same_place(out[k], finding)) continue;
        const bool replaces =
            worse == Worse::higher ? excess(finding) > excess(out[k]) : excess(finding) < excess(out[k]);
        if (replaces) out[k] = std::move(finding);
        return;
    }
    out.push_back(std::move(finding));
}

Inspection inspect(const Plan& plan, bool with_mends) {
    Inspection result;
    result.solutions = solve_all(plan);
    if (has_ranges(plan))
        for (std::size_t k = 0; k < plan.states.size(); ++k) result.bands.push_back(bands_of(plan, k));
    const Case c{plan, result.solutions, with_mends, result.bands};
    auto& f = result.findings;
    inspect_protection(c, f);
    inspect_cables(c, f);
    inspect_fitting(c, f);
    inspect_switching(c, f);
    inspect_supply(c, f);
    inspect_batteries(c, f);
    inspect_faults(c, f);
    inspect_mains(c, f);
    inspect_starting(c, f);
    inspect_boxes(c, f);
    inspect_control(c, f);
    inspect_drops(c, f);
    std::stable_sort(f.begin(), f.end(),
                     [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return result;
}

}  // namespace yr
