#include "sizing/placement.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "plan/roles.h"

namespace yr {
namespace {

constexpr double kArm_m = 0.5;  // what a cable measures within one place, common practice
constexpr double kMoves_m[] = {-2, -1, -0.5, 0.5, 1, 2};

Id place_of(const Plan& plan, const Terminal& t) {
    const Id owner(owner_of(t));
    if (const Point* p = find(plan.points, owner)) return p->place;
    if (const Battery* b = find(plan.batteries, owner)) return b->place;
    if (const Source* s = find(plan.sources, owner)) return s->place;
    if (const Inverter* i = find(plan.inverters, owner)) return i->place;
    if (const Load* l = find(plan.loads, owner)) return l->place;
    return {};
}

bool touches(const Run& r, const Id& id) {
    return owner_of(r.from) == id || owner_of(r.to) == id;
}

// Metres between places as the plan's own cables suggest: the mean of those that join two places directly,
// shortest ways over others.
using Distances = std::map<std::pair<Id, Id>, double>;
Distances distances_of(const Plan& plan) {
    std::map<std::pair<Id, Id>, std::pair<double, int>> sums;
    for (const Run& r : plan.runs) {
        const Id a = place_of(plan, r.from), b = place_of(plan, r.to);
        if (a.empty() || b.empty() || a == b || r.body_metal) continue;
        for (const auto& key : {std::pair(a, b), std::pair(b, a)})
            sums[key].first += length_or_assumed_m(r), ++sums[key].second;
    }
    Distances d;
    for (const auto& [key, sum] : sums) d[key] = sum.first / sum.second;
    for (const Place& via : plan.places)
        for (const Place& a : plan.places)
            for (const Place& b : plan.places) {
                const auto first = d.find({a.id, via.id}), second = d.find({via.id, b.id});
                if (a.id == b.id || first == d.end() || second == d.end()) continue;
                const double way = first->second + second->second;
                const auto [at, added] = d.try_emplace({a.id, b.id}, way);
                if (!added) at->second = std::min(at->second, way);
            }
    return d;
}

void set_length(Run& r, double length_m) {
    r.length_m = std::max(0.1, length_m);
    r.length_least_m.reset();
    for (Device& d : r.devices)
        if (d.at_m) d.at_m = std::min(*d.at_m, *r.length_m);
}

// The row of a changed plan: only the cables that end on it sized anew.
void measure(const Plan& before, Plan changed, const Id& id, PlacementRow& row) {
    SizingAsk ask;
    ask.most_s = 5;
    ask.as_now = true;  // what other cables spoil is not this thing's fault
    for (const Run& r : changed.runs)
        if (touches(r, id) && size_is_open(changed, r)) ask.only.push_back(r.id);
    const auto sized = size_plan(changed, ask);
    row.fits = sized && sized->status != SizingStatus::impossible && sized->status != SizingStatus::stopped;
    Batch batch;
    if (row.fits) {
        row.mass_kg = sized->after.mass_kg;
        row.money = sized->after.money;
        (void)apply(changed, sized->edit);
    }
    for (std::size_t k = 0; k < changed.runs.size(); ++k)
        if (!(changed.runs[k] == before.runs[k])) batch.edits.push_back(Put<Run>{changed.runs[k], {}});
    for (std::size_t k = 0; k < changed.points.size(); ++k)
        if (!(changed.points[k] == before.points[k]))
            batch.edits.push_back(Put<Point>{changed.points[k], {}});
    for (std::size_t k = 0; k < changed.batteries.size(); ++k)
        if (!(changed.batteries[k] == before.batteries[k]))
            batch.edits.push_back(Put<Battery>{changed.batteries[k], {}});
    row.edit = std::move(batch);
    const auto solutions = solve_all(changed);
    for (std::size_t s = 0; s < solutions.size(); ++s) {
        if (changed.states[s].key == Key::crank) continue;
        for (std::size_t l = 0; l < changed.loads.size(); ++l) {
            const LoadResult& r = solutions[s].point.loads[l];
            if (r.status != LoadStatus::on || changed.loads[l].starter || !changed.loads[l].inverter.empty())
                continue;
            bool behind = false;
            for (const int c : path_of_load(solutions[s], static_cast<int>(l)))
                if (const int run = solutions[s].network.conductors[static_cast<std::size_t>(c)].run;
                    run >= 0)
                    behind = behind || touches(changed.runs[static_cast<std::size_t>(run)], id);
            const double share = r.drop_V / drop_limit_V(changed, changed.loads[l]);
            if (behind && share > row.worst_share)
                row.worst_share = share, row.worst_load = changed.loads[l].id;
        }
    }
}

}  // namespace

Result<Placement> placement_of(const Plan& plan, const Id& id, const std::atomic<bool>* cancel) {
    const Point* point = find(plan.points, id);
    const Battery* battery = find(plan.batteries, id);
    if (!battery && (!point || point->kind == PointKind::chassis || point->kind == PointKind::ground))
        return fail(ErrorCode::missing_reference, "what", id,
                    Want::a_box_bus_bar_stud_or_battery_of_this_plan);
    std::vector<std::size_t> touching;
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        if (touches(plan.runs[k], id) && !plan.runs[k].body_metal && !plan.runs[k].resistance_ohm)
            touching.push_back(k);
    if (touching.empty())
        return fail(ErrorCode::empty, "runs", name_of(plan, id), Want::a_cable_that_ends_on_it);

    Placement out;
    measure(plan, plan, id, out.here);
    // its supply: the cable that comes to it; of a battery the thickest one that leaves it
    int feed = -1;
    for (const std::size_t k : touching)
        if (feed < 0 && owner_of(plan.runs[k].to) == id && SupplySide(plan).is_supply(plan.runs[k]))
            feed = static_cast<int>(k);
    for (const double nearer : kMoves_m) {
        if (cancel && *cancel) return out;
        if (feed < 0 || length_or_assumed_m(plan.runs[static_cast<std::size_t>(feed)]) - nearer < 0.1)
            continue;
        Plan changed = plan;
        for (const std::size_t k : touching) {
            const bool supply_side =
                static_cast<int>(k) == feed ||
                (owner_of(plan.runs[k].from) == id &&
                 owner_of(plan.runs[k].to) == owner_of(plan.runs[static_cast<std::size_t>(feed)].from));
            set_length(changed.runs[k], length_or_assumed_m(plan.runs[k]) + (supply_side ? -nearer : nearer));
        }
        PlacementRow row;
        row.nearer_m = nearer;
        measure(plan, std::move(changed), id, row);
        out.rows.push_back(std::move(row));
    }
    const Distances distances = distances_of(plan);
    const Id now = place_of(plan, point ? point->id : battery->id);
    for (const Place& place : plan.places) {
        if (cancel && *cancel) return out;
        if (place.id == now || now.empty()) continue;
        Plan changed = plan;
        PlacementRow row;
        row.place = place.id;
        row.estimated = true;
        bool known = true, moves = false;
        for (const std::size_t k : touching) {
            const Run& r = plan.runs[k];
            const Id other = place_of(plan, owner_of(r.from) == id ? r.to : r.from);
            const auto d = distances.find({place.id, other});
            if (other == place.id)
                set_length(changed.runs[k], kArm_m), moves = true;
            else if (d != distances.end())
                set_length(changed.runs[k], d->second), moves = true;
            else
                known = known && other.empty();  // what has no place keeps its length
        }
        if (!known || !moves) {
            out.unknown.push_back(place.id);
            continue;
        }
        if (point) changed.points[static_cast<std::size_t>(point - plan.points.data())].place = place.id;
        if (battery)
            changed.batteries[static_cast<std::size_t>(battery - plan.batteries.data())].place = place.id;
        measure(plan, std::move(changed), id, row);
        out.rows.push_back(std::move(row));
    }
    return out;
}

}  // namespace yr
