#include "plan/variant.h"

#include <algorithm>
#include <unordered_set>

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

// What hung on something that the variant takes away goes with it: loads behind a removed inverter, runs to a
// removed terminal. A load added to the plan later must not make an older variant impossible.
void drop_what_hangs_loose(Plan& plan) {
    const auto forget = [&](Condition& c) {
        std::erase_if(c.circuits, [&](const Id& id) { return !find(plan.loads, id); });
    };
    std::erase_if(plan.loads,
                  [&](const Load& l) { return !l.inverter.empty() && !find(plan.inverters, l.inverter); });
    std::unordered_set<std::string> terminals;
    for (const Point& p : plan.points) terminals.insert(p.id);
    for (const Battery& b : plan.batteries) terminals.insert({b.id + ".pos", b.id + ".neg"});
    for (const Inverter& i : plan.inverters) terminals.insert({i.id + ".pos", i.id + ".neg"});
    for (const Source& s : plan.sources) terminals.insert({s.id + ".out", s.id + ".in"});
    for (const Load& l : plan.loads) terminals.insert({l.id + ".pos", l.id + ".neg"});
    std::erase_if(plan.runs,
                  [&](const Run& r) { return !terminals.contains(r.from) || !terminals.contains(r.to); });
    std::unordered_set<std::string> devices;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices) devices.insert(d.id);
    for (Run& r : plan.runs) {
        if (!r.tap_of.empty() && !devices.contains(r.tap_of)) r.tap_of.clear();
        if (r.channel > 0 && !channel_of(plan, r)) r.channel = 0;
        for (Device& d : r.devices) {
            forget(d.closed_when);
            for (Id* said : {&d.coil, &d.grounds_without})
                if (!said->empty() && !find(plan.loads, *said)) said->clear();
        }
    }
    for (Load& l : plan.loads) forget(l.live_when);
    for (Source& s : plan.sources) forget(s.works_when);
    for (Inverter& i : plan.inverters) forget(i.works_when);
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
    drop_what_hangs_loose(plan);
    return plan;
}

Plan shown_plan(const Plan& base) {
    if (base.active.empty()) return base;
    Plan plan = with_variant(base, base.active);
    plan.variants = base.variants;
    plan.active = base.active;
    return plan;
}

namespace {

template <class T>
void take_over(const std::vector<T>& before, const std::vector<T>& after, std::vector<Edit>& edits) {
    for (const T& x : after) {
        const T* old = find(before, x.id);
        if (!old || !(*old == x)) edits.emplace_back(Put<T>{x, std::nullopt});
    }
    for (const T& x : before)
        if (!find(after, x.id)) edits.emplace_back(Remove<T>{x.id});
}

}  // namespace

Edit plan_becomes(const Plan& stored, const Plan& chosen) {
    Batch batch;
    const Plan before = with_variant(stored, {});
    for (const Variant& v : stored.variants) {
        if (v.id == stored.active) continue;  // it is the plan now
        batch.edits.emplace_back(
            Put<Variant>{difference(chosen, with_variant(stored, v.id), v.id, v.name), {}});
    }
    if (const Variant* v = find(stored.variants, stored.active)) {
        batch.edits.emplace_back(SetActive{});
        // the plan as it stood stays as an option under the chosen one's id
        batch.edits.emplace_back(Put<Variant>{difference(chosen, before, v->id, "as it was planned"), {}});
    }
    take_over(before.places, chosen.places, batch.edits);
    take_over(before.points, chosen.points, batch.edits);
    take_over(before.sources, chosen.sources, batch.edits);
    take_over(before.batteries, chosen.batteries, batch.edits);
    take_over(before.inverters, chosen.inverters, batch.edits);
    take_over(before.runs, chosen.runs, batch.edits);
    take_over(before.loads, chosen.loads, batch.edits);
    take_over(before.states, chosen.states, batch.edits);
    return batch;
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
