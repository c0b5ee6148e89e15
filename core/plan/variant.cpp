#include "plan/variant.h"

#include <algorithm>
#include <unordered_set>

namespace yr {
namespace {

// What hung on something that the variant takes away goes with it: loads behind a removed inverter, runs to a
// removed terminal. A load added to the plan later must not make an older variant impossible.
void drop_what_hangs_loose(Plan& plan) {
    const auto forget = [&](Condition& c) {
        std::erase_if(c.circuits, [&](const Id& id) { return !find(plan.loads, id); });
    };
    std::erase_if(plan.loads,
                  [&](const Load& l) { return !l.inverter.empty() && !find(plan.inverters, l.inverter); });
    std::unordered_set<Terminal> terminals;
    for (const Point& p : plan.points) terminals.insert(p.id);
    for (const Battery& b : plan.batteries) terminals.insert({pos_of(b.id), neg_of(b.id)});
    for (const Inverter& i : plan.inverters) terminals.insert({pos_of(i.id), neg_of(i.id)});
    for (const Source& s : plan.sources) terminals.insert({out_of(s.id), in_of(s.id)});
    for (const Load& l : plan.loads) terminals.insert({pos_of(l.id), neg_of(l.id)});
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
            if (!d.measures.empty() && !find(plan.batteries, d.measures)) d.measures.clear();
        }
        std::erase_if(r.pins, [&](const PinUse& u) { return !find(plan.connectors, u.connector); });
        if (!r.jacket.empty() && !find(plan.jackets, r.jacket)) r.jacket.clear();
    }
    const auto no_waypoint = [&](const Id& id) { return !find(plan.waypoints, id); };
    std::erase_if(plan.ways, [&](const Way& w) { return no_waypoint(w.from) || no_waypoint(w.to); });
    for (Run& r : plan.runs) std::erase_if(r.via, no_waypoint);
    for (Day& d : plan.days)
        std::erase_if(d.parts, [&](const DayPart& part) { return !find(plan.states, part.state); });
    for (Point& p : plan.points) forget(p.awake_when);
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
    each_list([&](const auto& list) { take_over(before.*list.in_plan, chosen.*list.in_plan, batch.edits); });
    return batch;
}

Edit edit_between(const Plan& before, const Plan& after) {
    Batch batch;
    if (!(before.vehicle == after.vehicle)) batch.edits.emplace_back(SetVehicle{after.vehicle});
    if (!(before.policy == after.policy)) batch.edits.emplace_back(SetPolicy{after.policy});
    each_list([&](const auto& list) { take_over(before.*list.in_plan, after.*list.in_plan, batch.edits); });
    take_over(before.panel, after.panel, batch.edits);
    take_over(before.accepted, after.accepted, batch.edits);
    take_over(before.marks, after.marks, batch.edits);
    take_over(before.variants, after.variants, batch.edits);
    if (!(before.survey == after.survey)) batch.edits.emplace_back(SetSurvey{after.survey});
    if (before.active != after.active) batch.edits.emplace_back(SetActive{after.active});
    return batch;
}

Variant difference(const Plan& base, const Plan& changed, const Id& id, const std::string& name) {
    Variant v;
    v.id = id;
    v.name = name;
    each_list([&](const auto& list) {
        const auto &before = base.*list.in_plan, &after = changed.*list.in_plan;
        for (const auto& x : after) {
            const auto* old = find(before, x.id);
            if (!old || !(*old == x)) (v.*list.in_variant).push_back(x);
        }
        for (const auto& x : before)
            if (!find(after, x.id)) v.removed.push_back(x.id);
    });
    return v;
}

Result<Edit> edit_of_stored(const Plan& stored, const Edit& edit) {
    if (stored.active.empty() || is_shared(edit)) return edit;
    const auto* batch = std::get_if<Batch>(&edit);
    if (batch)  // one that leaves the variant speaks of the stored plan itself
        for (const Edit& e : batch->edits)
            if (std::holds_alternative<SetActive>(e)) return edit;
    Batch shared, own;
    if (batch)
        for (const Edit& e : batch->edits) (is_shared(e) ? shared : own).edits.push_back(e);
    else
        own.edits.push_back(edit);
    Plan changed = with_variant(stored, stored.active);
    if (auto done = apply(changed, own); !done) return done;
    const Variant* shown = find(stored.variants, stored.active);
    shared.edits.emplace_back(
        Put<Variant>{difference(with_variant(stored, {}), changed, shown->id, shown->name), std::nullopt});
    return Edit(std::move(shared));
}

}  // namespace yr
