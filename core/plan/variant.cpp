#include "plan/variant.h"

#include <algorithm>

namespace yr {
namespace {

// Calls use(list of the plan, list of the variant) for each kind of thing that a variant may change.
template <class P, class V, class F>
void each_list(P& plan, V& variant, F&& use) {
    use(plan.places, variant.places);
    use(plan.points, variant.points);
    use(plan.sources, variant.sources);
    use(plan.batteries, variant.batteries);
    use(plan.inverters, variant.inverters);
    use(plan.runs, variant.runs);
    use(plan.loads, variant.loads);
    use(plan.states, variant.states);
}

}  // namespace

Plan with_variant(const Plan& base, const Id& id) {
    Plan plan = base;
    plan.variants.clear();
    plan.active.clear();
    const Variant* v = find(base.variants, id);
    if (!v) return plan;
    each_list(plan, *v, [&](auto& list, const auto& changed) {
        std::erase_if(list, [&](const auto& x) {
            return std::find(v->removed.begin(), v->removed.end(), x.id) != v->removed.end();
        });
        for (const auto& x : changed) {
            const auto at =
                std::find_if(list.begin(), list.end(), [&](const auto& y) { return y.id == x.id; });
            if (at == list.end())
                list.push_back(x);
            else
                *at = x;
        }
    });
    return plan;
}

Plan shown_plan(const Plan& base) {
    if (base.active.empty()) return base;
    Plan plan = with_variant(base, base.active);
    plan.variants = base.variants;
    plan.active = base.active;
    return plan;
}

Variant difference(const Plan& base, const Plan& changed, const Id& id, const std::string& name) {
    Variant v;
    v.id = id;
    v.name = name;
    Plan before = base;
    each_list(before, v, [&](const auto& list, auto& out) {
        using Thing = typename std::remove_reference_t<decltype(out)>::value_type;
        const std::vector<Thing>* after = nullptr;
        Variant unused;
        each_list(changed, unused, [&](const auto& other, const auto&) {
            if constexpr (std::is_same_v<std::remove_cvref_t<decltype(other)>, std::vector<Thing>>)
                after = &other;
        });
        for (const Thing& x : *after) {
            const Thing* old = find(list, x.id);
            if (!old || !(*old == x)) out.push_back(x);
        }
        for (const Thing& x : list)
            if (!find(*after, x.id)) v.removed.push_back(x.id);
    });
    return v;
}

}  // namespace yr
