#include "plan/edit.h"

#include <algorithm>

#include "plan/validate.h"

namespace yr {
namespace {

Result<Edit> apply_unchecked(Plan& plan, const Edit& edit);

template <class T>
Result<Edit> apply_one(Plan& plan, const Put<T>& put) {
    auto& list = list_of<T>(plan);
    const auto at = std::find_if(list.begin(), list.end(), [&](const T& t) { return t.id == put.thing.id; });
    if (at != list.end()) {
        Edit inverse = Put<T>{*at, std::nullopt};
        *at = put.thing;
        return inverse;
    }
    const std::size_t index = std::min(put.index.value_or(list.size()), list.size());
    list.insert(list.begin() + static_cast<std::ptrdiff_t>(index), put.thing);
    return Edit(Remove<T>{put.thing.id});
}

template <class T>
Result<Edit> apply_one(Plan& plan, const Remove<T>& remove) {
    auto& list = list_of<T>(plan);
    const auto at = std::find_if(list.begin(), list.end(), [&](const T& t) { return t.id == remove.id; });
    if (at == list.end())
        return fail(ErrorCode::missing_reference, {}, remove.id, Want::something_that_is_in_the_plan);
    Edit inverse = Put<T>{*at, static_cast<std::size_t>(at - list.begin())};
    list.erase(at);
    return inverse;
}

Result<Edit> apply_one(Plan& plan, const SetVehicle& set) {
    Edit inverse = SetVehicle{plan.vehicle};
    plan.vehicle = set.vehicle;
    return inverse;
}

Result<Edit> apply_one(Plan& plan, const SetPolicy& set) {
    Edit inverse = SetPolicy{plan.policy};
    plan.policy = set.policy;
    return inverse;
}

Result<Edit> apply_one(Plan& plan, const SetSurvey& set) {
    Edit inverse = SetSurvey{plan.survey};
    plan.survey = set.survey;
    return inverse;
}

Result<Edit> apply_one(Plan& plan, const SetActive& set) {
    Edit inverse = SetActive{plan.active};
    plan.active = set.variant;
    return inverse;
}

Result<Edit> apply_one(Plan& plan, const Batch& batch) {
    Batch inverse;
    for (const Edit& e : batch.edits) {
        auto undone = apply_unchecked(plan, e);
        if (!undone) return undone;  // apply() throws the half-changed copy away
        inverse.edits.push_back(std::move(*undone));
    }
    std::reverse(inverse.edits.begin(), inverse.edits.end());
    return Edit(std::move(inverse));
}

Result<Edit> apply_unchecked(Plan& plan, const Edit& edit) {
    return std::visit([&](const auto& e) { return apply_one(plan, e); }, edit);
}

}  // namespace

Result<Edit> apply(Plan& plan, const Edit& edit) {
    Plan changed = plan;
    auto inverse = apply_unchecked(changed, edit);
    if (!inverse) return inverse;
    if (auto errors = validate(changed); !errors.empty()) return tl::unexpected(std::move(errors.front()));
    plan = std::move(changed);
    return inverse;
}

bool apply_step(Plan& plan, const Edit& edit) {
    return apply_unchecked(plan, edit).has_value();
}

namespace {

bool forget(Condition& c, const Id& load) {
    return std::erase(c.circuits, load) > 0;
}

// What a run says of a thing or fuse that goes; whether anything was said.
bool forget(Run& r, const Id& load, const std::vector<Id>& fuses) {
    bool changed = false;
    for (Device& d : r.devices) {
        for (Id* said : {&d.coil, &d.grounds_without})
            if (!said->empty() && *said == load) said->clear(), changed = true;
        changed = forget(d.closed_when, load) || changed;
    }
    if (std::find(fuses.begin(), fuses.end(), r.tap_of) != fuses.end() && !r.tap_of.empty())
        r.tap_of.clear(), changed = true;
    // a connector, jacket or battery that goes
    changed = std::erase_if(r.pins, [&](const PinUse& u) { return u.connector == load; }) > 0 || changed;
    if (!r.jacket.empty() && r.jacket == load) r.jacket.clear(), changed = true;
    changed = std::erase(r.via, load) > 0 || changed;
    for (Device& d : r.devices)
        if (!d.measures.empty() && d.measures == load) d.measures.clear(), changed = true;
    return changed;
}

}  // namespace

bool is_shared(const Edit& edit) {
    return std::holds_alternative<SetVehicle>(edit) || std::holds_alternative<SetPolicy>(edit) ||
           std::holds_alternative<SetSurvey>(edit) || std::holds_alternative<SetActive>(edit) ||
           std::holds_alternative<Put<PanelSwitch>>(edit) || std::holds_alternative<Put<Accepted>>(edit) ||
           std::holds_alternative<Put<Mark>>(edit) || std::holds_alternative<Remove<Accepted>>(edit) ||
           std::holds_alternative<Remove<Mark>>(edit) || std::holds_alternative<Remove<PanelSwitch>>(edit) ||
           std::holds_alternative<Put<Variant>>(edit) || std::holds_alternative<Remove<Variant>>(edit);
}

Edit remove_with_runs(const Plan& plan, const Id& id) {
    Batch batch;
    std::vector<Id> fuses;  // that go along
    for (const Run& r : plan.runs)
        if (r.id == id || owner_of(r.from) == id || owner_of(r.to) == id)
            for (const Device& d : r.devices) fuses.push_back(d.id);
    for (Load l : plan.loads)
        if (l.id != id && l.inverter != id && forget(l.live_when, id))
            batch.edits.emplace_back(Put<Load>{l, std::nullopt});
    for (Inverter i : plan.inverters)
        if (i.id != id && forget(i.works_when, id)) batch.edits.emplace_back(Put<Inverter>{i, std::nullopt});
    if (find(plan.inverters, id))  // its AC loads have nothing left to hang on
        for (const Load& l : plan.loads)
            if (l.inverter == id) batch.edits.emplace_back(Remove<Load>{l.id});
    for (Run r : plan.runs) {  // a contactor whose coil goes is worked by hand or key again
        if (r.id == id || owner_of(r.from) == id || owner_of(r.to) == id) continue;
        if (forget(r, id, fuses)) batch.edits.emplace_back(Put<Run>{r, std::nullopt});
    }
    for (Point p : plan.points)
        if (p.id != id && forget(p.awake_when, id)) batch.edits.emplace_back(Put<Point>{p, std::nullopt});
    for (Source s : plan.sources) {
        if (s.id == id) continue;
        const bool charged = !s.charges.empty() && s.charges == id;
        if (charged) s.charges.clear();
        if (forget(s.works_when, id) || charged) batch.edits.emplace_back(Put<Source>{s, std::nullopt});
    }
    for (const Way& w : plan.ways)
        if (w.from == id || w.to == id) batch.edits.emplace_back(Remove<Way>{w.id});
    for (Day d : plan.days)
        if (d.id != id && std::erase_if(d.parts, [&](const DayPart& part) { return part.state == id; }) > 0)
            batch.edits.emplace_back(Put<Day>{d, std::nullopt});
    for (const Run& r : plan.runs)
        if (owner_of(r.from) == id || owner_of(r.to) == id) batch.edits.emplace_back(Remove<Run>{r.id});
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if (find(things, id)) batch.edits.emplace_back(Remove<Thing>{id});
    });
    return batch;
}

}  // namespace yr
